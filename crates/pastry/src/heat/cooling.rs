//! What a case comes to: when a point is at a temperature, or how warm it is after a time, with the spread that the heat transfer
//! has.

use crate::fault::Fault;
use crate::heat::body::Watched;
use crate::heat::case::{BodyPoint, CaseDocument, Mark};
use crate::heat::network::{Course, Until};
use crate::number::digits;
use serde::Serialize;
use utoipa::ToSchema;

/// When a point comes to a temperature.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MarkTime {
    /// Minutes from the start; none where it never does.
    pub min: Option<f64>,
    /// The soonest, with the most heat transfer.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub low: Option<f64>,
    /// The latest, with the least; none where it may never come there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub high: Option<f64>,
    /// Why it never does, or may not, and what is nearest.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub why: Option<String>,
}

/// How warm a point is after a time.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MarkTemperature {
    /// Temperature, °C; none where it could not be followed so far.
    pub c: Option<f64>,
    /// Lower end, °C.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub low: Option<f64>,
    /// Upper end, °C.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub high: Option<f64>,
    /// Why there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub why: Option<String>,
}

/// The answer to a mark.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(untagged)]
pub enum MarkAnswer {
    /// When.
    Time(MarkTime),
    /// How warm.
    Temperature(MarkTemperature),
}

/// The answer to a case.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CaseAnswer {
    /// Answers, in the order of the marks.
    pub marks: Vec<MarkAnswer>,
}

/// Least, usual and most heat transfer: which of a band.
const LEAST: usize = 0;
const USUAL: usize = 1;
const MOST: usize = 2;

/// Follows a case and answers its marks.
///
/// # Errors
/// Faults of the document, all at once.
pub fn cool(document: &CaseDocument) -> Result<CaseAnswer, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let shaped = document.shaped();
    let asked: Vec<(Watched, f64)> =
        document.marks.iter().filter_map(|mark| Some((mark.point.watched(), mark.to_c?))).collect();
    let at_least = document.marks.iter().filter_map(|mark| mark.after_min).fold(0.0, f64::max) * 60.0;
    let body = shaped.body();
    let course =
        |which: usize| body.follow(&document.stretches(&shaped, which), Until::Passed(&asked, at_least));
    let usual = course(USUAL);
    let banded = document.phases.iter().flat_map(|phase| [phase.top, phase.side, phase.bottom]).flatten();
    let band = banded.into_iter().any(|face| face.h.all()[LEAST] != face.h.all()[MOST]);
    let ends = band.then(|| [course(LEAST), course(MOST)]);
    let marks = document.marks.iter().map(|mark| match (mark.to_c, mark.after_min) {
        (Some(to_c), _) => MarkAnswer::Time(time(document, mark.point, to_c, &usual, ends.as_ref())),
        (None, after) => {
            MarkAnswer::Temperature(temperature(mark, after.unwrap_or(0.0), &usual, ends.as_ref()))
        }
    });
    Ok(CaseAnswer { marks: marks.collect() })
}

fn time(
    document: &CaseDocument,
    point: BodyPoint,
    to_c: f64,
    usual: &Course,
    ends: Option<&[Course; 2]>,
) -> MarkTime {
    let minutes = |course: &Course| course.time_to(point.watched(), to_c).map(|s| digits(s / 60.0));
    let min = minutes(usual);
    let Some(value) = min else {
        let why = Some(never(document, point, to_c, usual));
        return MarkTime { min: None, low: None, high: None, why };
    };
    let Some(found) = ends.map(|ends| [0, 1].map(|end: usize| minutes(&ends[end]))) else {
        return MarkTime { min, low: None, high: None, why: None };
    };
    match found {
        [Some(a), Some(b)] => {
            MarkTime { min, low: Some(a.min(b).min(value)), high: Some(a.max(b).max(value)), why: None }
        }
        found => {
            let low = found.into_iter().flatten().fold(value, f64::min);
            let why = Some(format!(
                "with the least heat transfer {} does not come to {to_c} °C in this time: make the last phase longer",
                point.words()
            ));
            MarkTime { min, low: Some(low), high: None, why }
        }
    }
}

/// Why a point never comes to a temperature, and the nearest that is possible.
fn never(document: &CaseDocument, point: BodyPoint, to_c: f64, course: &Course) -> String {
    let last = &course.moments[course.moments.len() - 1];
    let [first, now] = [&course.moments[0], last].map(|moment| moment.of(point.watched()));
    if !course.whole {
        return format!(
            "it is too thin to be followed so long: after {:.0} min {} is at {now:.1} °C; ask for a shorter time",
            last.s / 60.0,
            point.words()
        );
    }
    let phases = document.phases.iter();
    let airs: Vec<f64> =
        phases.flat_map(|phase| [phase.top, phase.side, phase.bottom]).flatten().map(|face| face.t).collect();
    let (coldest, hottest) =
        airs.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), t| (low.min(*t), high.max(*t)));
    let cools = to_c < first;
    if (cools && coldest >= to_c) || (!cools && hottest <= to_c) {
        let (nearest, than) = if cools { (coldest, "colder") } else { (hottest, "warmer") };
        return format!(
            "it stands in {nearest:.1} °C and comes no further: put it somewhere {than} than {to_c} °C, or ask for {:.1} °C",
            if cools { nearest + 1.0 } else { nearest - 1.0 }
        );
    }
    format!(
        "after {:.0} min {} is at {now:.1} °C: leave it longer, or ask for that",
        document.phases.iter().map(|phase| phase.min).sum::<f64>(),
        point.words()
    )
}

fn temperature(mark: &Mark, after_min: f64, usual: &Course, ends: Option<&[Course; 2]>) -> MarkTemperature {
    let seconds = 60.0 * after_min;
    let of = |course: &Course| {
        let followed = course.whole || course.moments[course.moments.len() - 1].s >= seconds;
        followed.then(|| digits(course.at(mark.point.watched(), seconds)))
    };
    let Some(value) = of(usual) else {
        let why = Some("it is too thin to be followed so long: ask for a shorter time".to_owned());
        return MarkTemperature { c: None, low: None, high: None, why };
    };
    let found: Vec<f64> = ends.into_iter().flatten().filter_map(of).collect();
    let band = found.len() == 2;
    MarkTemperature {
        c: Some(value),
        low: band.then(|| found.iter().copied().fold(value, f64::min)),
        high: band.then(|| found.iter().copied().fold(value, f64::max)),
        why: None,
    }
}
