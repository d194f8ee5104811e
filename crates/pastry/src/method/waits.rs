//! The waits of a school by the clock: what the table has as minutes for any batch, worked out for this one in the vessel and the
//! place the step names.

use crate::assess::{Assessment, FormulaDocument, Ready};
use crate::clock::sets::SetStage;
use crate::clock::when::{When, rounded};
use crate::clock::{ClockAnswer, ClockDocument, Looks, clock_of};
use crate::heat::stand::{LearnedPlace, StandDocument};
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::{VesselDocument, VesselKind};
use crate::method::course::MethodStep;
use crate::method::school::School;
use crate::method::start::StartTemperature;
use crate::method::step::{Clock, CoolIn, CoolTo, Spot, Step, Worker};
use crate::number::{degrees, span_min};

/// Deepest a tray is filled, m.
const TRAY_M: f64 = 0.04;
/// Stirred over ice so often, min.
const OVER_ICE_MIN: f64 = 1.0;

fn surroundings(spot: Option<Spot>) -> Surroundings {
    match spot {
        Some(Spot::Fridge) => Surroundings::Fridge,
        Some(Spot::Freezer) => Surroundings::Freezer,
        Some(Spot::Ice) => Surroundings::IceBath,
        Some(Spot::Room | Spot::Rack) | None => Surroundings::Bench,
    }
}

/// Where a step stands, and in what.
fn stands(step: &Step, kg: f64) -> (VesselDocument, StandDocument) {
    let place = StandDocument::at(surroundings(step.place));
    let vessel = |kind| VesselDocument::usual(kind);
    match step.clock {
        Some(Clock::Cool { r#in: CoolIn::Ice, .. }) => {
            (vessel(VesselKind::Bowl), StandDocument::at(Surroundings::IceBath).stirred(OVER_ICE_MIN))
        }
        Some(Clock::Cool { r#in: CoolIn::Bowl, .. }) => (vessel(VesselKind::Bowl), place),
        Some(Clock::Cool { r#in: CoolIn::Bottle, .. }) => (vessel(VesselKind::Bottle), place),
        Some(Clock::Cool { r#in: CoolIn::Mould, .. } | Clock::Set(_)) => (vessel(VesselKind::Mould), place),
        _ => {
            let tray = vessel(VesselKind::Tray);
            let count = (tray.filled(kg, 1000.0).depth_m / TRAY_M).ceil().clamp(1.0, 200.0) as u32;
            (VesselDocument { count: (count > 1).then_some(count), ..tray }, place)
        }
    }
}

/// From and to, min, of what a clock was asked; the longest of the table stays where it is longer.
pub fn minutes(asked: Clock, told: &ClockAnswer, most: f64) -> Option<[f64; 2]> {
    let latest = |when: &When| rounded(when.high.unwrap_or(when.min));
    // What must have set is waited for until it surely has; what cools is looked at from its usual time on.
    let ready = |when: &When| [latest(when), most.max(latest(when))];
    let cooled = |when: &When| [when.min, most.max(latest(when))];
    let stage = |stage: SetStage| told.sets.iter().find(|own| own.stage == stage)?.when.as_ref();
    match asked {
        Clock::Cool { to: CoolTo::Degrees(_), .. } => told.comes.as_ref().map(cooled),
        Clock::Cool { to: CoolTo::Job(_), .. } => {
            let window = told.window.as_ref()?;
            let to = window.to.as_ref().map_or(most.max(window.from.min), |to| to.min);
            Some([window.from.min, to])
        }
        Clock::Set(_) => stage(SetStage::TurnsOut).map(ready),
        Clock::Rest(_) => stage(SetStage::Rested).map(ready),
        Clock::Starch(_) => stage(SetStage::StarchSet).map(ready),
        Clock::Soften(_) | Clock::Boil(_) | Clock::Heat(_) | Clock::Bath(_) => None,
    }
}

/// A wait of a school that hangs on a clock, and what the clock is asked.
pub struct WaitAsked<'a> {
    /// Its step.
    pub step: &'a Step,
    /// What of it.
    pub clock: Clock,
    /// The question.
    pub document: ClockDocument,
    /// How warm it goes in, °C from and to.
    pub now_c: [f64; 2],
}

/// Those waits of a school that hang on a clock, in its order.
///
/// # Arguments
/// * `keys`: of the steps this batch takes.
pub fn waits_asked<'a>(
    school: &'a School,
    keys: &[&str],
    start: &StartTemperature,
    made: &FormulaDocument,
    ready: &Ready,
    learned: &[LearnedPlace],
) -> Vec<WaitAsked<'a>> {
    let kg = 1e-3 * ready.batch_g();
    let mut now_c = [start.from_c, start.to_c];
    let mut all = Vec::new();
    for key in keys {
        let Some(step) = school.steps.iter().find(|own| own.key == *key) else { continue };
        // What is in it alone, butter or cream that is chilled beside, is not the mass.
        let (Some(clock), true) = (step.clock, step.of.is_empty()) else { continue };
        // A school that ends colder than this wait says nothing of how warm the mass goes into it.
        let known = match clock {
            Clock::Cool { to: CoolTo::Degrees(to_c), .. } => now_c[0] > to_c + 1.0,
            _ => true,
        };
        if step.kind == Worker::Wait && known {
            let (vessel, place) = stands(step, kg);
            let mut document = ClockDocument::of(made.clone(), vessel, place);
            (document.brief, document.learned) = (true, learned.to_vec());
            if let Clock::Cool { to: CoolTo::Degrees(to_c), .. } = clock {
                document.to_c = Some(to_c);
                document.point = Some(crate::heat::case::BodyPoint::Hottest);
            }
            all.push(WaitAsked { step, clock, document, now_c });
        }
        if let Clock::Cool { to, .. } = clock {
            let to_c = match to {
                CoolTo::Degrees(to_c) => to_c,
                CoolTo::Job(_) => made.work.temperature_c.celsius(),
            };
            now_c = now_c.map(|t| t.min(to_c));
        }
    }
    all
}

/// Writes the minutes of those waits that hang on a clock, with what they were worked out for.
pub fn by_clock(
    school: &School,
    steps: &mut [MethodStep],
    start: Option<&StartTemperature>,
    made: &FormulaDocument,
    (ready, assessment): (&Ready, &Assessment),
    learned: &[LearnedPlace],
) {
    let Some(start) = start else { return };
    let own: Vec<&str> =
        steps.iter().filter(|told| told.part.is_none()).map(|told| told.key.as_str()).collect();
    let asked = waits_asked(school, &own, start, made, ready, learned);
    for told in steps.iter_mut().filter(|told| told.part.is_none()) {
        let Some(own) = asked.iter().find(|own| own.step.key == told.key) else { continue };
        let most = told.minutes[1];
        if let Ok(answer) = clock_of(&own.document, (ready, assessment), Some(own.now_c), Looks::AtUsual)
            && let Some(minutes) = minutes(own.clock, &answer, most)
        {
            let room_c = made.work.room_temperature_c.celsius();
            let room = match own.document.places[0].place {
                Surroundings::Bench => format!(" at {} °C", degrees(room_c)),
                _ => String::new(),
            };
            told.minutes = minutes;
            told.time = span_min(minutes);
            told.by_clock = Some(format!("{}, {}{room}", answer.vessel.words, answer.places));
        }
    }
}
