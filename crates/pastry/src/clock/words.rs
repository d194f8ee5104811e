//! The answer in words: the one sentence, what its temperature means, where it stands.

use crate::clock::cooling::{Cooling, USUAL};
use crate::clock::document::ClockDocument;
use crate::clock::when::{Wall, When, minutes};
use crate::clock::window::ClockWindow;
use crate::heat::case::BodyPoint;
use crate::heat::stand::StandDocument;
use crate::heat::vessel::VesselKind;
use crate::number::degrees;
use crate::rheology::History;
use serde::Serialize;
use utoipa::ToSchema;

/// How it stands with what was asked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ClockVerdict {
    /// There is a time at which it is right.
    Right,
    /// It never is, there.
    Never,
    /// It is not known.
    Unknown,
}

/// What is meant by its temperature.
pub fn point_words(document: &ClockDocument) -> &'static str {
    match document.to_c {
        Some(_) => document.point.unwrap_or(BodyPoint::Mean).words(),
        None if document.vessel.kind == VesselKind::Boxed => "its coat",
        None if document.vessel.stirs() => "its mean: stir it once before you take its temperature",
        None => "its mean",
    }
}

/// Where it stands, one place after the other.
pub fn places_words(document: &ClockDocument) -> String {
    let one = |place: &StandDocument| {
        let stirred = match place.stir_min {
            Some(min) if min <= 0.05 => ", stirred all the time".to_owned(),
            Some(min) => format!(", stirred every {}", minutes(min)),
            None => String::new(),
        };
        let length = place.min.map_or(String::new(), |min| format!(", {}", minutes(min)));
        format!("{}{stirred}{length}", place.place.words())
    };
    document.places.iter().map(one).collect::<Vec<_>>().join("; then ")
}

/// The one sentence, and how it stands.
pub fn sentence(
    document: &ClockDocument,
    cooling: &Cooling,
    spans: &[[f64; 2]],
    window: Option<&ClockWindow>,
    comes: Option<&When>,
    unknown: bool,
    wall: Wall,
) -> (String, ClockVerdict) {
    let verb = document.formula.work.job.verb();
    let ends_c = cooling.ends_c();
    if let Some(to_c) = document.to_c {
        let point = document.point.unwrap_or(BodyPoint::Mean).words();
        let point = format!("{}{}", point[..1].to_uppercase(), &point[1..]);
        return match comes {
            Some(when) => (format!("{point} is at {} °C {}", degrees(to_c), when.words), ClockVerdict::Right),
            None => (
                format!("{point} never comes to {} °C: it stands in {} °C", degrees(to_c), degrees(ends_c)),
                ClockVerdict::Never,
            ),
        };
    }
    if unknown {
        return (
            format!("When it is right to {verb} is not known: nothing like it was ever checked"),
            ClockVerdict::Unknown,
        );
    }
    let Some(window) = window else {
        let [coldest, hottest] = [
            spans.iter().map(|span| span[0]).fold(f64::INFINITY, f64::min),
            spans.iter().map(|span| span[1]).fold(f64::NEG_INFINITY, f64::max),
        ];
        let begins_c = cooling.begins().0[USUAL];
        let words = match () {
            () if document.vessel.kind == VesselKind::Boxed && !spans.is_empty() => format!(
                "The coat does not stand: it begins at {} °C, and is right up to {} °C",
                degrees(begins_c),
                degrees(hottest)
            ),
            () if spans.is_empty() => format!("At no temperature is it right to {verb}: see the ways there"),
            () if cooling.cools() && ends_c >= hottest => format!(
                "Never right to {verb} there: it stands in {} °C, and is right from {} °C down",
                degrees(ends_c),
                degrees(hottest)
            ),
            () if cooling.cools() && begins_c < coldest => format!(
                "It begins at {} °C, and is right to {verb} from {} °C up: warm it",
                degrees(begins_c),
                degrees(coldest)
            ),
            () if !cooling.cools() && begins_c > hottest => format!(
                "It begins at {} °C and gets warmer there; it is right to {verb} from {} °C down: put it somewhere colder",
                degrees(begins_c),
                degrees(hottest)
            ),
            () if !cooling.cools() && ends_c <= coldest => format!(
                "Never right to {verb} there: it stands in {} °C, and is right from {} °C up",
                degrees(ends_c),
                degrees(coldest)
            ),
            () if document.formula.history() == History::Fresh => format!(
                "Never right to {verb} on this way: it sets before it has come to {} °C. Cool it faster, and stir it",
                degrees(hottest)
            ),
            () => format!(
                "Never right to {verb} there: set it is right from {} to {} °C, and by the time it has set it is past \
                 that. Let it set where it is as warm, or bring it back to it",
                degrees(coldest),
                degrees(hottest)
            ),
        };
        return (words, ClockVerdict::Never);
    };
    if document.vessel.kind == VesselKind::Boxed {
        let words = match (&window.to, wall.0) {
            (None, _) => "The coat stands there as long as the cake may".to_owned(),
            // It is taken in before it may be too soft.
            (Some(to), Some(_)) => format!("The coat stands until {}", wall.time(to.low.unwrap_or(to.min))),
            (Some(to), None) => format!("The coat stands for {}", minutes(to.low.unwrap_or(to.min))),
        };
        return (words, ClockVerdict::Right);
    }
    let set = document.formula.history() != History::Fresh;
    if let (true, None, Some(latest)) = (set && window.from.min > 0.0, &window.to, window.from.high) {
        // What must have set is waited for until it surely has.
        let soonest = window.from.low.unwrap_or(window.from.min);
        let (by, before) = match wall.0 {
            Some(_) => ("by ", format!("not before {}", wall.time(soonest))),
            None => ("in ", format!("not within {}", wall.time(soonest))),
        };
        let words = format!("Right to {verb} {by}{}, {before}", wall.time(latest));
        return (words, ClockVerdict::Right);
    }
    let (from, to) = (window.from.min, window.to.as_ref().map(|to| to.min));
    let words = match (from <= 0.0, to) {
        (true, None) => format!("Right to {verb} at once, and it stays so there"),
        (true, Some(to)) => match wall.0 {
            Some(_) => format!("Right to {verb} at once, until {}", wall.time(to)),
            None => format!("Right to {verb} at once, for {}", minutes(to)),
        },
        (false, Some(to)) => match wall.0 {
            Some(_) => format!("Right to {verb} from {}", wall.span(from, to)),
            None => format!("Right to {verb} in {}", wall.span(from, to)),
        },
        (false, None) => match wall.0 {
            Some(_) => format!("Right to {verb} from {}, and it stays so there", wall.time(from)),
            None => format!("Right to {verb} in {}, and it stays so there", minutes(from)),
        },
    };
    (words, ClockVerdict::Right)
}
