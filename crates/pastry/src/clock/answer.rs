//! The whole answer of the clock.

use crate::assess::document::FormulaDocument;
use crate::assess::{Assessment, Ready, assessed};
use crate::clock::cooling::{Begins, Cooling, Mass, USUAL};
use crate::clock::curve::{ClockCurve, curve, horizon};
use crate::clock::document::ClockDocument;
use crate::clock::frozen::{Frozen, frozen};
use crate::clock::gain::{Gain, Waited, gains};
use crate::clock::notes::{ClockNote, notes};
use crate::clock::path::gelatin_rate;
use crate::clock::probe::{ProbeAnswer, fitted};
use crate::clock::safe::{SafeCooling, asks, safe};
use crate::clock::sets::{SetStage, Sets, comes_first, gelatin_hours_for, hours_by, sets};
use crate::clock::when::{Wall, When};
use crate::clock::window::{ClockWindow, fresh_window, right, set_window, stands};
use crate::clock::words::{ClockVerdict, places_words, point_words, sentence};
use crate::fault::Fault;
use crate::heat::body::Watched;
use crate::heat::case::BodyPoint;
use crate::heat::safety::CoolingRule;
use crate::heat::setting::UNMOULDS;
use crate::heat::vessel::VesselKind;
use crate::ingredient::Shelf;
use crate::job::judge::Question;
use crate::number::{digits, limit};
use crate::rheology::{History, Predictor};
use serde::Serialize;
use utoipa::ToSchema;

/// The way is followed for so many times as long as it is waited for.
const BEYOND: f64 = 1.3;
/// A finished cake comes out of the fridge at this, °C (assumed).
const BOXED_C: f64 = 5.0;

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
    school: impl Fn(&FormulaDocument, &Ready) -> Option<[f64; 2]>,
) -> Result<ClockAnswer, Vec<Fault>> {
    let (ready, assessment) = assessed(&document.formula, kitchen)?;
    let start = school(&document.formula, &ready);
    clock_of(document, (&ready, &assessment), start, Looks::AtAll)
}

/// What of the band is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Looks {
    /// All of it.
    AtAll,
    /// When it is right only for the usual way: for who asks many.
    AtUsual,
}

/// The same of a formula that was answered already.
///
/// # Errors
/// Faults of the question.
pub fn clock_of(
    document: &ClockDocument,
    (ready, assessment): (&Ready, &Assessment),
    school: Option<[f64; 2]>,
    looks: Looks,
) -> Result<ClockAnswer, Vec<Fault>> {
    let formula = &document.formula;
    let mixture = ready.mixture();
    let system = formula.family.traits().system;
    let asked = formula.work.job.options(ready.options);
    let judged = Predictor::new(&mixture, system, &asked);
    let made = Predictor::new(&mixture, system, &ready.options);
    let mass = Mass::of(&mixture, &made.base, &document.learned);
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
    let (begins, how) = match (document.start_c, school) {
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
        None if document.learned.is_empty() => document,
        None => {
            let mut own = document.clone();
            own.places.iter_mut().for_each(|place| *place = place.as_read(&document.learned));
            read = own;
            &read
        }
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
    let turned_out = document.turns_out.unwrap_or(UNMOULDS);
    let all_set = if boxed { Vec::new() } else { sets(&made.base, &cooling, &courses, turned_out, wall) };
    let right_of = |course| right(&question, course, cooling.watched(), &spans);
    let stays = || match looks {
        Looks::AtAll => [right_of(&courses.soonest), right_of(&courses.usual), right_of(&courses.latest)],
        Looks::AtUsual => [None, right_of(&courses.usual), None],
    };
    let window = if boxed {
        stands(&courses, cooling.watched(), &spans, wall)
    } else if fresh {
        fresh_window(stays(), wall)
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
            Waited::Gelatin(&question, gelatin_hours_for(turned_out, percent))
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
        keeps: assessment.in_the_room.sentence.clone(),
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
