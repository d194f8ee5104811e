//! The whole answer of the clock.

use crate::assess::assessed;
use crate::assess::document::FormulaDocument;
use crate::clock::cooling::{Begins, Cooling, Courses, Mass, USUAL};
use crate::clock::document::ClockDocument;
use crate::clock::frozen::{Frozen, frozen};
use crate::clock::gain::{Gain, Waited, gains};
use crate::clock::path::gelatin_rate;
use crate::clock::probe::{ProbeAnswer, fitted};
use crate::clock::safe::{SafeCooling, asks, safe};
use crate::clock::sets::{SetStage, Sets, comes_first, gelatin_hours_for, hours_by, sets};
use crate::clock::when::{Wall, When, minutes};
use crate::clock::window::{Stay, rights};
use crate::fault::Fault;
use crate::formula::Family;
use crate::formula::keeping::keeping;
use crate::heat::air::dew_point;
use crate::heat::body::Watched;
use crate::heat::case::BodyPoint;
use crate::heat::safety::CoolingRule;
use crate::heat::setting::UNMOULDS;
use crate::heat::stand::StandDocument;
use crate::heat::stirred::burst_s;
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::{VesselDocument, VesselKind};
use crate::ingredient::Shelf;
use crate::job::judge::Question;
use crate::number::{degrees, digits, limit};
use crate::rheology::{History, Predictor};
use serde::Serialize;
use utoipa::ToSchema;

/// Points of the curve.
pub const CURVE_POINTS: usize = 200;
/// The way is followed for so many times as long as it is waited for.
const BEYOND: f64 = 1.3;
/// A finished cake comes out of the fridge at this, °C (assumed).
const BOXED_C: f64 = 5.0;
/// Room humidity, 0 to 1, for what sweats (assumed).
const ROOM_HUMIDITY: f64 = 0.5;
/// A cake is eaten with its middle at this or above, °C (common practice).
const EATEN_C: f64 = 14.0;
/// How long it may be out of the cold, min (FDA Food Code 3-501.19, from memory; the local code decides).
const OUT_OF_THE_COLD_MIN: f64 = 240.0;
/// More than this warms a whole fridge, W (assumed): without a fan, and with one.
const FRIDGE_W: [f64; 2] = [100.0, 350.0];

/// The start as it was counted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockStart {
    /// Temperature in its vessel, °C.
    pub c: f64,
    /// Its spread, °C.
    pub band_c: [f64; 2],
    /// How it was come by.
    pub how: String,
}

/// What it stands in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockVessel {
    /// As it was counted: sizes that were not said are usual ones.
    pub words: String,
    /// How much is in all of it, kg.
    pub kg: f64,
    /// How much is in one of them, kg.
    pub kg_each: f64,
    /// How many of them it fills.
    pub count: f64,
    /// How deep it stands, or how thick it is, mm.
    pub depth_mm: f64,
}

/// The curve: the mean over time.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockCurve {
    /// Minutes between its points, the first at 0.
    pub step_min: f64,
    /// The usual way, °C.
    pub usual: Vec<f64>,
    /// The soonest, °C.
    pub soonest: Vec<f64>,
    /// The latest, °C.
    pub latest: Vec<f64>,
    /// The hottest point of the usual way, °C.
    pub hottest: Vec<f64>,
}

/// When it is right for its job.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockWindow {
    /// From.
    pub from: When,
    /// To; none where it stays right.
    pub to: Option<When>,
    /// Temperatures there, °C.
    pub temperature_c: [f64; 2],
}

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

/// A note.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockNote {
    /// Whether it stands in the way.
    pub serious: bool,
    /// In words.
    pub words: String,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockAnswer {
    /// "Right to drip from 14:10 to 14:24".
    pub sentence: String,
    /// How it stands.
    pub verdict: ClockVerdict,
    /// What is meant by its temperature.
    pub point: String,
    /// What it stands in.
    pub vessel: ClockVessel,
    /// Where it stands, in words.
    pub places: String,
    /// Where it begins.
    pub start: ClockStart,
    /// The way down or up.
    pub curve: ClockCurve,
    /// When it is right for its job; none where it never is there.
    pub window: Option<ClockWindow>,
    /// When it comes to the temperature that was asked; none where it does not, or nobody asked.
    pub comes: Option<When>,
    /// What sets in it, and when.
    pub sets: Vec<Sets>,
    /// Hours of setting it comes to, as the formula counts them; none where nothing sets with time.
    pub set_hours: Option<f64>,
    /// What would be sooner.
    pub gains: Vec<Gain>,
    /// Whether it cools fast enough, where it was cooked.
    pub safe: Option<SafeCooling>,
    /// How hard it freezes, where it stands in a freezer or comes from one.
    pub frozen: Option<Frozen>,
    /// How it keeps; local codes decide.
    pub keeps: String,
    /// What the reading of a probe says of the place; none where nobody read.
    pub probe: Option<ProbeAnswer>,
    /// What else is to be minded.
    pub notes: Vec<ClockNote>,
}

/// Answers a formula in its vessel.
///
/// # Arguments
/// * `school`: where its school of method leaves it, °C from and to; none where nothing of it is warm.
///
/// # Errors
/// Faults of the formula, or of all else, each with what to do.
pub fn clock(
    document: &ClockDocument,
    kitchen: &Shelf,
    school: impl Fn(&FormulaDocument, &crate::assess::Ready) -> Option<[f64; 2]>,
) -> Result<ClockAnswer, Vec<Fault>> {
    let (ready, assessment) = assessed(&document.formula, kitchen)?;
    let formula = &document.formula;
    let mixture = ready.mixture();
    let system = formula.family.traits().system;
    let asked = formula.work.job.options(ready.options);
    let judged = Predictor::new(&mixture, system, &asked);
    let made = Predictor::new(&mixture, system, &ready.options);
    let mass = Mass::of(&mixture, &made.base);
    let kg = document.kg.unwrap_or(1e-3 * ready.batch_g());
    let mut faults = document.faults(kg, mass.material(true).density());
    let wall = Wall::of(document.at.as_deref()).unwrap_or_else(|fault| {
        faults.push(fault);
        Wall(None)
    });
    if !faults.is_empty() {
        return Err(faults);
    }
    let room_c = formula.work.room_temperature_c.celsius();
    let boxed = document.vessel.kind == VesselKind::Boxed;
    let (begins, how) = match (document.start_c, school(formula, &ready)) {
        (None, _) if boxed => {
            (Begins([BOXED_C - 1.0, BOXED_C, BOXED_C + 1.0]), "out of the fridge".to_owned())
        }
        (Some(c), _) => (Begins([c; 3]), "as you say".to_owned()),
        (None, Some([low, high])) => {
            (Begins([low, 0.5 * (low + high), high]), "where its school leaves it".to_owned())
        }
        (None, None) => (Begins([room_c; 3]), "nothing of it is warm: as the room".to_owned()),
    };
    let probe = match &document.probe {
        Some(probe) => Some(fitted(probe, &mass, document, kg, begins).map_err(|fault| vec![fault])?),
        None => None,
    };
    let read;
    let document = match &probe {
        Some(found) => {
            let mut own = document.clone();
            own.places[0].h = Some(found.h);
            read = own;
            &read
        }
        None => document,
    };
    let mut cooling = Cooling::of(&mass, document, kg, begins);
    let mut how = how;
    if document.start_c.is_none() {
        cooling = cooling.poured();
        if (cooling.begins().0[USUAL] - begins.0[USUAL]).abs() > 0.5 {
            how = format!("{how}, at {} °C, less what the cold vessel takes", limit(begins.0[USUAL].round()));
        }
    }
    let poured = cooling.begins();

    let history = formula.history();
    let axis = formula.work.job.axis(formula.family);
    let question = Question { job: &formula.work.job, prepared: &judged.base, axis, history };
    let spans: Vec<[f64; 2]> = assessment.spans.iter().map(|span| [span.from_c, span.to_c]).collect();
    let fresh = history == History::Fresh;

    let mut wanted = goals(document, &cooling, &spans);
    wanted.extend(comes_first(&made.base, &cooling).filter(|_| cooling.cools()));
    let courses = cooling.courses(&wanted, BEYOND);
    // A finished cake has set; what it comes to is how long its coat stands and when it is ready to eat.
    let all_set = if boxed { Vec::new() } else { sets(&made.base, &cooling, &courses, wall) };
    let stays = rights(&question, &courses, cooling.watched(), &spans);
    let window = if boxed {
        stands(&courses, cooling.watched(), &spans, wall)
    } else if fresh {
        fresh_window(stays, wall)
    } else {
        set_window(&courses, cooling.watched(), &spans, &all_set, wall)
    };
    let comes = document.to_c.and_then(|to_c| {
        let point = document.point.unwrap_or(BodyPoint::Mean);
        let [low, usual, high] = courses.time_to(point.watched(), to_c);
        Some(wall.when(usual?, low, high))
    });
    let waited = match (document.to_c, fresh) {
        (Some(to_c), _) => Waited::Comes(document.point.unwrap_or(BodyPoint::Mean).watched(), to_c),
        (None, true) => Waited::Right(&question, &spans),
        (None, false) => {
            let percent = made.base.networks.gelatin.percent;
            Waited::Gelatin(&question, gelatin_hours_for(UNMOULDS, percent))
        }
    };
    let turns_out = all_set.iter().find(|own| own.stage == SetStage::TurnsOut);
    let now = match waited {
        Waited::Right(..) => window.as_ref().map(|window| window.from.min),
        Waited::Gelatin(..) => turns_out.and_then(|own| Some(own.when.as_ref()?.min)),
        Waited::Comes(..) => comes.as_ref().map(|when| when.min),
    };
    let asks_gains = !matches!(waited, Waited::Gelatin(..)) || turns_out.is_some();
    let asks_gains = asks_gains && !document.brief && cooling.cools() && assessment.at.unknown.is_none();
    let gains = match asks_gains && !(spans.is_empty() && matches!(waited, Waited::Right(..))) {
        true => gains(&mass, document, kg, begins, waited, now, wall),
        false => Vec::new(),
    };
    let after_s = document.after_min.map(|min| 60.0 * min);
    let after_s = after_s.or_else(|| {
        let when = turns_out?.when.as_ref()?;
        Some(60.0 * when.high.unwrap_or(when.min))
    });
    let gelatin = made.base.networks.gelatin.full_pa > 0.0;
    let set_hours = after_s.filter(|_| gelatin).map(|s| {
        let rate = |t_c: f64| gelatin_rate(&made.base, t_c);
        digits((10.0 * hours_by(&courses.usual, Watched::Hottest, s, rate)).round() / 10.0)
    });
    let rule = document.rule.unwrap_or(CoolingRule::UsFda);
    let safe = (!document.brief && asks(&ready.lines, &made.base, poured))
        .then(|| safe(&mass, document, kg, begins, rule));
    let is_cold = document.places.iter().any(|place| place.there_c(room_c) < -3.0) || poured.0[USUAL] < -3.0;
    let frozen = is_cold.then(|| frozen(&mass, document, kg));
    let notes = notes(document, &mass, &cooling, &courses, wall);
    let (sentence, verdict) = sentence(
        document,
        &cooling,
        &spans,
        window.as_ref(),
        comes.as_ref(),
        assessment.at.unknown.is_some(),
        wall,
    );
    Ok(ClockAnswer {
        sentence,
        verdict,
        point: point_words(document).to_owned(),
        vessel: ClockVessel {
            words: match document.vessel.stirs() {
                true => format!("{}, {:.0} mm deep", cooling.filled.words, 1e3 * cooling.filled.depth_m),
                false => cooling.filled.words.clone(),
            },
            kg: digits(kg),
            kg_each: digits(cooling.filled.kg_each),
            count: digits((10.0 * cooling.filled.count).round() / 10.0),
            depth_mm: digits((1e4 * cooling.filled.depth_m).round() / 10.0),
        },
        places: places_words(document),
        start: ClockStart {
            c: digits((10.0 * poured.0[USUAL]).round() / 10.0),
            band_c: [poured.0[0], poured.0[2]].map(|t| digits((10.0 * t).round() / 10.0)),
            how,
        },
        curve: curve(
            &courses,
            cooling.watched(),
            horizon(&courses, window.as_ref(), &all_set, comes.as_ref()),
        ),
        window,
        comes,
        sets: all_set,
        set_hours,
        gains,
        safe,
        frozen,
        probe,
        keeps: assessment.in_the_room.sentence,
        notes,
    })
}

/// What the way is followed to.
fn goals(document: &ClockDocument, cooling: &Cooling, spans: &[[f64; 2]]) -> Vec<(Watched, f64)> {
    let mut goals = Vec::new();
    let cools = cooling.cools();
    if let Some(to_c) = document.to_c {
        goals.push((document.point.unwrap_or(BodyPoint::Mean).watched(), to_c));
    }
    let edges = spans.iter().map(|span| if cools { span[0] } else { span[1] });
    let last =
        if cools { edges.fold(f64::INFINITY, f64::min) } else { edges.fold(f64::NEG_INFINITY, f64::max) };
    // What is right far below where it stands is right once it has come there.
    let last = if last.is_finite() { last } else { cooling.ends_c() };
    goals.push((cooling.watched(), last));
    goals
}

fn fresh_window([soonest, usual, latest]: [Option<Stay>; 3], wall: Wall) -> Option<ClockWindow> {
    let usual = usual?;
    let min = |stay: Option<Stay>| stay.map(|stay| stay.from_s / 60.0);
    let end = |stay: Option<Stay>| stay.and_then(|stay| stay.to_s).map(|s| s / 60.0);
    let from = wall.when(usual.from_s / 60.0, min(soonest), min(latest));
    let to = usual.to_s.map(|s| wall.when(s / 60.0, end(soonest), end(latest)));
    Some(ClockWindow { from, to, temperature_c: usual.t_c.map(|t| digits((10.0 * t).round() / 10.0)) })
}

/// A finished coat stands until it is warmer than it is right at; colder does it no harm.
fn stands(courses: &Courses, watched: Watched, spans: &[[f64; 2]], wall: Wall) -> Option<ClockWindow> {
    let softens = spans.iter().map(|span| span[1]).fold(f64::NEG_INFINITY, f64::max);
    let first = courses.usual.moments[0].of(watched);
    if spans.is_empty() || first > softens {
        return None;
    }
    let [low, usual, high] = courses.time_to(watched, softens);
    let to = usual.map(|min| wall.when(min, low, high));
    let last = to.as_ref().map_or(courses.usual.moments.last()?.of(watched), |_| softens);
    let temperature_c = [first, last].map(|t| digits((10.0 * t).round() / 10.0));
    Some(ClockWindow { from: wall.when(0.0, None, None), to, temperature_c })
}

/// What is judged as set: at its temperatures, once it has set.
fn set_window(
    courses: &Courses,
    watched: Watched,
    spans: &[[f64; 2]],
    sets: &[Sets],
    wall: Wall,
) -> Option<ClockWindow> {
    let cools = courses.usual.moments[0].of(watched) > courses.usual.moments.last()?.of(watched);
    let inside = |t_c: f64| spans.iter().any(|[low, high]| (*low..=*high).contains(&t_c));
    let end = courses.usual.moments.last()?;
    let span = spans.iter().find(|span| {
        let [first, last] = [courses.usual.moments[0].of(watched), end.of(watched)];
        span[0] <= first.max(last) && span[1] >= first.min(last)
    })?;
    let [enters, leaves] = if cools { [span[1], span[0]] } else { [span[0], span[1]] };
    // What begins inside is there at once, each way for itself.
    let starts = [&courses.soonest, &courses.usual, &courses.latest]
        .map(|course| inside(course.moments[0].of(watched)));
    let found = courses.time_to(watched, enters);
    let [low, usual, high] = [0, 1, 2].map(|k: usize| if starts[k] { Some(0.0) } else { found[k] });
    let set = sets.iter().rev().find(|own| own.stage != SetStage::TakesALayer);
    let (from, low, high) = match set.map(|own| own.when.as_ref()) {
        // It never sets there.
        Some(None) => return None,
        Some(Some(when)) => (
            usual?.max(when.min),
            low.zip(when.low).map(|(a, b)| a.max(b)),
            high.zip(when.high).map(|(a, b)| a.max(b)),
        ),
        None => (usual?, low, high),
    };
    let left = courses.time_to(watched, leaves);
    let to = left[1].filter(|to| *to > from).map(|to| wall.when(to, left[0], left[2]));
    if left[1].is_some_and(|to| to <= from) {
        return None;
    }
    let at = |min: f64| digits((10.0 * courses.usual.at(watched, 60.0 * min)).round() / 10.0);
    let temperature_c =
        [at(from), to.as_ref().map_or(digits((10.0 * end.of(watched)).round() / 10.0), |to| at(to.min))];
    Some(ClockWindow { from: wall.when(from, low, high), to, temperature_c })
}

fn point_words(document: &ClockDocument) -> &'static str {
    match document.to_c {
        Some(_) => document.point.unwrap_or(BodyPoint::Mean).words(),
        None if document.vessel.kind == VesselKind::Boxed => "its coat",
        None if document.vessel.stirs() => "its mean: stir it once before you take its temperature",
        None => "its mean",
    }
}

fn places_words(document: &ClockDocument) -> String {
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

/// How far the curve is drawn, min.
fn horizon(courses: &Courses, window: Option<&ClockWindow>, sets: &[Sets], comes: Option<&When>) -> f64 {
    let whole = courses.usual.moments.last().map_or(1.0, |moment| moment.s / 60.0);
    let last = |when: &When| when.high.unwrap_or(when.min);
    let mut wanted: Vec<f64> = Vec::new();
    if let Some(window) = window {
        wanted.push(last(window.to.as_ref().unwrap_or(&window.from)));
    }
    wanted.extend(comes.map(last));
    let stages = sets.iter().any(|own| matches!(own.stage, SetStage::Firm | SetStage::Stands));
    if window.is_none() || stages {
        wanted.extend(sets.iter().filter_map(|own| own.when.as_ref().map(last)));
    }
    let wanted = wanted.into_iter().fold(0.0, f64::max);
    if wanted > 0.0 { (1.15 * wanted).min(whole).max(1.0) } else { whole.max(1.0) }
}

fn curve(courses: &Courses, watched: Watched, whole_min: f64) -> ClockCurve {
    let step_min = whole_min / (CURVE_POINTS - 1) as f64;
    let of = |course: &crate::heat::Course, watched: Watched| {
        (0..CURVE_POINTS)
            .map(|k| (100.0 * course.at(watched, 60.0 * step_min * k as f64)).round() / 100.0)
            .collect()
    };
    ClockCurve {
        step_min: digits(step_min),
        usual: of(&courses.usual, watched),
        soonest: of(&courses.soonest, watched),
        latest: of(&courses.latest, watched),
        hottest: of(&courses.usual, Watched::Hottest),
    }
}

fn sentence(
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

fn notes(
    document: &ClockDocument,
    mass: &Mass,
    cooling: &Cooling,
    courses: &Courses,
    wall: Wall,
) -> Vec<ClockNote> {
    let mut notes = Vec::new();
    let mut add = |serious: bool, words: String| notes.push(ClockNote { serious, words });
    let family: Family = document.formula.family;
    let coldest = courses.soonest.moments.iter().map(|moment| moment.coldest).fold(f64::INFINITY, f64::min);
    let freezing = document.places.iter().any(|place| place.place.freezes());
    if freezing && keeping(family).freeze_days.is_none() {
        let words = match mass.freezes_c() {
            Some(begins) if coldest > begins => format!(
                "A {} suffers when it freezes: take it out before its skin is at −{:.0} °C",
                family.word(),
                -begins
            ),
            _ => format!("A {} suffers when it freezes, and weeps: chill it in the fridge", family.word()),
        };
        add(true, words);
    }
    let kg = cooling.filled.kg_each * cooling.filled.count.max(1.0);
    let watts = |seconds: f64| {
        let [a, b] = [0.0, seconds].map(|s| courses.usual.at(Watched::Mean, s));
        kg * (cooling.material().held(a) - cooling.material().held(b)) / seconds
    };
    for (place, most) in [(Surroundings::Fridge, FRIDGE_W[0]), (Surroundings::FanFridge, FRIDGE_W[1])] {
        let load = watts(600.0);
        if document.places.first().is_some_and(|first| first.place == place) && load > most {
            let words = format!(
                "{:.0} W at first warm the whole fridge and what stands in it: cool it over ice before",
                (load / 10.0).round() * 10.0
            );
            add(false, words);
        }
    }
    if let Some(first) = document.places.first().filter(|place| place.place == Surroundings::Microwave) {
        let kg = cooling.filled.kg_each;
        let watts = first.watts(kg, mass.water);
        let burst = burst_s(cooling.material().capacity(25.0), kg, watts);
        let words = format!(
            "In bursts of {burst:.0} s, stirred each time: hot spots run three and four times ahead of the mean, and \
             chocolate scorches above 50 °C. Check with a probe"
        );
        add(false, words);
    }
    let room_c = document.formula.work.room_temperature_c.celsius();
    let warms =
        !cooling.cools() && document.places.last().is_some_and(|place| place.place == Surroundings::Bench);
    let dew_c = dew_point(room_c, ROOM_HUMIDITY);
    let piece = !document.vessel.stirs() && document.vessel.kind != VesselKind::Bag;
    if piece && warms && cooling.begins().0[USUAL] < dew_c {
        let words = match courses.usual.time_to(Watched::Skin, dew_c) {
            Some(s) => format!(
                "It sweats until its skin is at {dew_c:.0} °C, {}: leave it wrapped or in its box till then",
                wall.at(s / 60.0)
            ),
            None => format!("It sweats there: its skin stays under {dew_c:.0} °C"),
        };
        add(false, words);
    }
    if document.vessel.kind == VesselKind::Boxed && !cooling.cools() {
        let ready = courses.time_to(Watched::Core, EATEN_C);
        let out = "four hours out of the cold in all, then it is thrown away; your food code decides";
        let words = match ready[1] {
            Some(min) => {
                let when = wall.when(min, ready[0], ready[2]);
                let spread = when.spread_words.map_or(String::new(), |spread| format!(" ({spread})"));
                match min > OUT_OF_THE_COLD_MIN {
                    true => format!(
                        "Its middle is at {EATEN_C:.0} °C only {}{spread}, later than it may stand: eat it cooler, or take it out \
                         of its box; {out}",
                        wall.at(min)
                    ),
                    false => format!(
                        "Ready to eat {}, with its middle at {EATEN_C:.0} °C{spread}; {out}",
                        when.words
                    ),
                }
            }
            None => format!("Its middle never comes to {EATEN_C:.0} °C there; {out}"),
        };
        add(false, words);
    }
    if document.vessel.kind == VesselKind::OnCake && document.vessel.on_c.is_none() {
        add(false, "The cake under it is taken to be at 5 °C".to_owned());
    }
    notes
}

/// A formula in the vessel it is usually cooled in, on the bench.
pub fn usual(formula: FormulaDocument) -> ClockDocument {
    ClockDocument::of(
        formula,
        VesselDocument::usual(VesselKind::Bowl),
        StandDocument::at(Surroundings::Bench),
    )
}
