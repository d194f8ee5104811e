//! Whether what was cooked cools fast enough, and what to do where it does not.

use crate::assess::Ready;
use crate::clock::cooling::{Begins, Cooling, LEAST, Mass, USUAL};
use crate::clock::document::ClockDocument;
use crate::clock::when::minutes;
use crate::formula::{WeighedLine, flat};
use crate::heat::body::Watched;
use crate::heat::network::Until;
use crate::heat::safety::{Cooled, CoolingRule, Kept};
use crate::heat::stand::{StandDocument, Stands};
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::{VesselDocument, VesselKind};
use crate::ingredient::Role;
use crate::rheology::Predictor;
use crate::rheology::kernel::Prepared;
use serde::Serialize;
use utoipa::ToSchema;

/// Below this nothing cooked is meant, °C.
const COOKED_C: f64 = 50.0;
/// Below this water activity the rules do not ask (Food Code 1-201.10(B), from memory).
const DRY: f64 = 0.88;

/// How a cooling stands to a rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stood {
    /// With room to spare.
    Kept,
    /// Just.
    Tight,
    /// Not.
    Broken,
}

/// One stage of a rule.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SafeStage {
    /// From, °C.
    pub from_c: f64,
    /// To, °C.
    pub to_c: f64,
    /// Allowed, min.
    pub allowed_min: f64,
    /// It takes, min, at the slowest; none where it never comes there.
    pub takes_min: Option<f64>,
}

/// Something else to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SafeWay {
    /// In words: "in a tray 21 mm deep".
    pub words: String,
    /// The vessel then.
    pub vessel: VesselDocument,
    /// Where it stands then.
    pub places: Vec<StandDocument>,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SafeCooling {
    /// Whose limits.
    pub rule: CoolingRule,
    /// How it stands.
    pub stood: Stood,
    /// In one sentence; local rules differ.
    pub sentence: String,
    /// Stage by stage.
    pub stages: Vec<SafeStage>,
    /// How deep a tray may be filled there, mm; none where not even 3 mm do.
    pub deepest_mm: Option<f64>,
    /// What would do.
    pub ways: Vec<SafeWay>,
}

/// Whether it was cooked and must cool fast: egg, milk or starch in it, moist, and hot. A ganache is not cooked: how long it may
/// stand is said by how it keeps.
pub fn asks(lines: &[WeighedLine], prepared: &Prepared, begins: Begins) -> bool {
    let flat = flat(lines);
    let has = |role: Role| flat.iter().any(|line| line.mass.grams() > 0.0 && line.ingredient.is(role));
    let cooked = has(Role::Egg) || has(Role::Starch);
    begins.0[USUAL] >= COOKED_C
        && prepared.serum.water_activity.is_none_or(|aw| aw >= DRY)
        && (cooked || ((has(Role::Dairy) || has(Role::Cream)) && !has(Role::Chocolate)))
}

fn stood(cooled: &Cooled) -> Stood {
    match cooled.kept {
        Kept::Kept => Stood::Kept,
        Kept::Tight => Stood::Tight,
        Kept::Broken => Stood::Broken,
    }
}

/// Held against the rule with the least heat transfer from the hottest start: the slowest it may be.
fn slowest(cooling: &Cooling, rule: CoolingRule) -> Cooled {
    let last = rule.limits().iter().map(|limit| limit.to_c).fold(f64::INFINITY, f64::min);
    let goals = [(Watched::Hottest, last)];
    let course = cooling.course(LEAST, Until::Beyond(&goals, 1.0, 0.0));
    rule.of_course(&course)
}

/// Whether a mass in its vessel cools by a rule.
pub fn safe(
    mass: &Mass,
    document: &ClockDocument,
    kg: f64,
    begins: Begins,
    rule: CoolingRule,
) -> SafeCooling {
    let room_c = document.formula.work.room_temperature_c.celsius();
    let here = Cooling::of(mass, document, kg, begins);
    let cooled = slowest(&here, rule);
    let place = *document.places.last().unwrap_or(&StandDocument::at(Surroundings::Fridge));
    let place = StandDocument { min: None, stir_min: None, ..place };
    // Where it is warmer than the rule asks for, nothing ever comes to it.
    let coldest = rule.limits().iter().map(|limit| limit.to_c).fold(f64::INFINITY, f64::min);
    let place = match place.there_c(room_c) < coldest {
        true => place,
        false => StandDocument::at(Surroundings::Fridge).as_read(&document.learned),
    };
    let tray = VesselDocument::usual(VesselKind::Tray);
    let deepest_mm = deepest_mm(mass, &place, begins, room_c, rule);
    let mut ways = Vec::new();
    if cooled.kept != Kept::Kept {
        if let Some(depth_mm) = deepest_mm {
            let density = here.material().density();
            let one = tray.filled(kg, density);
            let count = (1e3 * one.depth_m / depth_mm).ceil().clamp(1.0, 200.0);
            let vessel = VesselDocument { count: (count > 1.0).then_some(count as u32), ..tray };
            let places = vec![place];
            if slowest(&Cooling::new(mass, kg, &vessel, &places, begins, room_c), rule).kept != Kept::Broken {
                let depth = 1e3 * vessel.filled(kg, density).depth_m;
                let words = format!(
                    "in {}, {depth:.0} mm deep, {}",
                    vessel.filled(kg, density).words,
                    place.place.words()
                );
                ways.push(SafeWay { words, vessel, places });
            }
        }
        if document.vessel.stirs() && document.vessel.kind == VesselKind::Bowl {
            ways.extend(over_ice(mass, document, kg, begins, rule, place));
        }
    }
    let limits = rule.limits();
    let stages: Vec<SafeStage> = limits
        .iter()
        .zip(&cooled.stages_s)
        .map(|(limit, s)| SafeStage {
            from_c: limit.from_c,
            to_c: limit.to_c,
            allowed_min: limit.minutes,
            takes_min: s.map(|s| crate::clock::when::rounded(s / 60.0)),
        })
        .collect();
    let stood = stood(&cooled);
    let worst = stages.iter().max_by(|a, b| {
        let used = |stage: &SafeStage| stage.takes_min.map_or(f64::INFINITY, |min| min / stage.allowed_min);
        used(a).total_cmp(&used(b))
    });
    let said = worst.map_or(String::new(), |stage| {
        let allowed = minutes(stage.allowed_min);
        match stage.takes_min {
            Some(min) => format!(
                "from {:.0} to {:.0} °C takes up to {}, {allowed} are allowed",
                stage.from_c,
                stage.to_c,
                minutes(min)
            ),
            None => format!("it never comes to {:.0} °C there, {allowed} are allowed", stage.to_c),
        }
    });
    let verdict = match stood {
        Stood::Kept => "Cools fast enough",
        Stood::Tight => "Cools just fast enough",
        Stood::Broken => "Cools too slowly to be safe",
    };
    let sentence = format!("{verdict}: {said} ({}). Your local rules differ, and decide.", rule_words(rule));
    SafeCooling { rule, stood, sentence, stages, deepest_mm, ways }
}

/// Whose limits, in words.
pub fn rule_words(rule: CoolingRule) -> &'static str {
    match rule {
        CoolingRule::UsFda => "US Food Code",
        CoolingRule::Ca => "Canada",
        CoolingRule::Anz => "Australia and New Zealand",
        CoolingRule::Uk => "United Kingdom",
        CoolingRule::Fr => "France",
    }
}

/// Whether what leaves its school hot cools by a rule in its vessel; none where no rule asks.
///
/// # Arguments
/// * `school`: where its school leaves it, °C from and to.
pub fn cools(
    document: &ClockDocument,
    ready: &Ready,
    [low, high]: [f64; 2],
    rule: CoolingRule,
) -> Option<SafeCooling> {
    let mixture = ready.mixture();
    let made = Predictor::new(&mixture, document.formula.family.traits().system, &ready.options);
    let mass = Mass::of(&mixture, &made.base, &document.learned);
    let kg = document.kg.unwrap_or(1e-3 * ready.batch_g());
    let begins = Begins([low, 0.5 * (low + high), high]);
    let poured = Cooling::of(&mass, document, kg, begins).poured().begins();
    asks(&ready.lines, &made.base, poured).then(|| safe(&mass, document, kg, begins, rule))
}

fn deepest_mm(
    mass: &Mass,
    place: &StandDocument,
    begins: Begins,
    room_c: f64,
    rule: CoolingRule,
) -> Option<f64> {
    let material = mass.material(true);
    let filled = VesselDocument::usual(VesselKind::Tray).filled(1.0, material.density());
    let stands = Stands { filled: &filled, water: mass.water, activity: None, room_c };
    let stretch = place.stretch(LEAST, &stands);
    let (top, bottom) = (stretch.top?, stretch.bottom?);
    let deepest = rule.deepest_m(material, begins.0[2], top, bottom)?;
    Some((1e3 * deepest).floor())
}

/// Stirred over ice until it is at the end of the first stage, then where it was meant to stand.
fn over_ice(
    mass: &Mass,
    document: &ClockDocument,
    kg: f64,
    begins: Begins,
    rule: CoolingRule,
    place: StandDocument,
) -> Option<SafeWay> {
    let room_c = document.formula.work.room_temperature_c.celsius();
    let ice = StandDocument::at(Surroundings::IceBath).stirred(2.0);
    let first = rule.limits().first()?.to_c.max(10.0);
    let goals = [(Watched::Hottest, first)];
    let alone = Cooling::new(mass, kg, &document.vessel, &[ice], begins, room_c);
    let course = alone.course(LEAST, Until::Passed(&goals, 0.0));
    let min = (course.time_to(Watched::Hottest, first)? / 60.0).ceil();
    let places = vec![StandDocument { min: Some(min), ..ice }, place];
    let then = slowest(&Cooling::new(mass, kg, &document.vessel, &places, begins, room_c), rule);
    (then.kept != Kept::Broken).then(|| SafeWay {
        words: format!(
            "{} over ice, stirred every 2 min, to {first:.0} °C, then {}",
            minutes(min),
            place.place.words()
        ),
        vessel: document.vessel,
        places,
    })
}
