//! A batch by its school: what of it is a step, what lies between, how it waits until it is used.

use crate::assess::FormulaDocument;
use crate::caution::Caution;
use crate::day::draft::{Act, ByClock, Draft, GOES_ON, Lag};
use crate::day::kitchen::{KitchenDocument, Shelves, Skill};
use crate::fault::Fault;
use crate::formula::keeping::{RAW_EGG_DAYS, cold_days, keeping};
use crate::heat::stand::LearnedPlace;
use crate::ingredient::Shelf;
use crate::ingredient::key::component_of;
use crate::method::course::MethodStep;
use crate::method::gear::Resource;
use crate::method::school::school;
use crate::method::sheet::{MethodSheet, chosen};
use crate::method::step::{Clock, CoolTo, LimitClass, Moment, Spot, Worker};
use crate::scale::scale;
use crate::scale::target::{ScaleAsk, Target, Whole};
use crate::stack::cream::Cream;
use std::collections::HashMap;

/// Deepest something stands in a tray, cm.
const DEEP_CM: f64 = 4.0;

/// A batch on the draft.
#[derive(Debug, Clone, PartialEq)]
pub struct Made {
    /// Its last step; none when it has no steps.
    pub last: Option<usize>,
    /// Steps that bring something made before to hand, by the key of its component.
    pub takes: Vec<(String, usize)>,
    /// Until it is used: least and most, min.
    pub waits: [f64; 2],
    /// Where it waits, and how much that takes.
    pub place: Option<(String, i32)>,
    /// What its longest is for.
    pub class: LimitClass,
    /// It sets where it is used; none when it does not.
    pub sets: Option<SetsThere>,
    /// Whose clock says how long it waits at least, where one does.
    pub cools: Option<ByClock>,
    /// It may not stand in the room for long.
    pub cold: bool,
    /// It is used as soon as it is made: it sets, or cools past its work.
    pub hurried: bool,
}

impl Made {
    /// So much of it, for one of several who take it.
    pub fn share(&self, share: f64) -> Made {
        let part = |amount: i32| (f64::from(amount) * share).ceil().max(1.0) as i32;
        let place = self.place.clone().map(|(place, amount)| (place, part(amount)));
        Made { place, ..self.clone() }
    }
}

/// How long something sets where it is used.
#[derive(Debug, Clone, PartialEq)]
pub struct SetsThere {
    /// Least and most, min.
    pub span: [f64; 2],
    /// Whose clock says so, where one does.
    pub clock: Option<ByClock>,
}

impl Default for Made {
    fn default() -> Self {
        Made {
            last: None,
            takes: Vec::new(),
            waits: [0.0, 0.0],
            place: None,
            class: LimitClass::Quality,
            sets: None,
            cools: None,
            cold: false,
            hurried: false,
        }
    }
}

/// Tenths of a shelf that so many cm² take, with twice as much for what is taller than the shelves are apart.
pub fn tenths(area_cm2: f64, height_mm: f64, shelves: Shelves) -> i32 {
    let high = if height_mm > shelves.spacing_mm { 2.0 } else { 1.0 };
    ((10.0 * high * area_cm2 / shelves.area_cm2).ceil() as i32).max(1)
}

/// What a place takes; nothing for the room.
pub fn place_of(
    spot: Option<Spot>,
    area_cm2: f64,
    height_mm: f64,
    kitchen: &KitchenDocument,
) -> Option<(String, i32)> {
    let own = &kitchen.equipment;
    let word = |resource: Resource| resource.word().to_owned();
    match spot? {
        Spot::Fridge => Some((word(Resource::Fridge), tenths(area_cm2, height_mm, own.fridge))),
        Spot::Freezer => Some((word(Resource::Freezer), tenths(area_cm2, height_mm, own.freezer))),
        Spot::Rack => Some((RACK.to_owned(), ((area_cm2 / 2400.0).ceil() as i32).max(1))),
        Spot::Ice => Some((word(Resource::Ice), 1)),
        Spot::Room => None,
    }
}

/// The resource that racks are.
pub const RACK: &str = "rack";

/// Weight of a family's age: points for every 5 min after its grace (assumed).
fn age(document: &FormulaDocument) -> (i32, i32) {
    let own = keeping(document.family);
    match own.grace_h {
        None => (0, 0),
        Some(grace) => {
            let weight = match (own.cold_days, own.room_min.minutes()) {
                (1, room) if room <= 60.0 => 8,
                (days, _) if days <= 3 => 2,
                _ => 1,
            };
            (weight, (60.0 * grace.hours()) as i32)
        }
    }
}

/// A formula as so much of it is weighed.
///
/// # Errors
/// Faults of the formula.
pub fn batch_of(cream: &Cream, to_weigh_g: f64, shelf: &Shelf) -> Result<FormulaDocument, Vec<Fault>> {
    let own_g: f64 = cream.lines.iter().map(|line| line.mass.grams()).sum();
    let by = (to_weigh_g / own_g.max(1e-9)).clamp(0.011, 999.0);
    if (by - 1.0).abs() < 1e-3 {
        return Ok(cream.document.clone());
    }
    let ask = ScaleAsk {
        document: cream.document.clone(),
        target: Target::Factor { by },
        loss_percent: 0.0,
        whole: Whole::default(),
        whole_line: None,
    };
    Ok(scale(&ask, shelf, &|_| None)?.document)
}

/// Puts the making of a batch on the draft.
///
/// # Arguments
/// * `part`: its number among the parts; `to_weigh_g`: what is weighed for it, g.
///
/// # Errors
/// Faults of its formula.
pub fn make(
    draft: &mut Draft,
    (order, part, name): (usize, usize, &str),
    (cream, to_weigh_g): (&Cream, f64),
    shelf: &Shelf,
    kitchen: &KitchenDocument,
    learned: &[LearnedPlace],
) -> Result<Made, Vec<Fault>> {
    let document = batch_of(cream, to_weigh_g, shelf)?;
    let Some(sheet) = chosen(&document, shelf, learned)? else { return Ok(Made::default()) };
    let kg = 1e-3 * to_weigh_g;
    let area_cm2 = 1000.0 * kg / DEEP_CM;
    let mut made = course(draft, (order, part, name), &sheet, (kg, area_cm2), kitchen);
    let raw_egg = sheet.steps.iter().any(|step| step.cautions.contains(&Caution::RawEgg))
        && cream.warnings.iter().any(|own| own.code == crate::rheology::warning::WarningCode::EggRaw);
    let days = match raw_egg {
        true => RAW_EGG_DAYS,
        false => cold_days(document.family, &cream.lines),
    };
    let own = keeping(document.family);
    made.cold = !own.stands_overnight();
    if made.waits[1] <= 0.0 {
        made.waits[1] = (1440 * days) as f64;
        made.class = LimitClass::Safety;
        made.place =
            if made.cold { place_of(Some(Spot::Fridge), area_cm2, 10.0 * DEEP_CM, kitchen) } else { None };
    }
    made.waits[1] = made.waits[1].max(made.waits[0]);
    if let Some(last) = made.last {
        (draft.acts[last].age, draft.acts[last].grace) = age(&document);
    }
    // What goes into it that was made before, in the order of its lines.
    let before = cream.lines.iter().filter(|line| line.mass.grams() > 0.0 && line.ingredient.made.is_some());
    let keys: Vec<String> =
        before.filter_map(|line| component_of(&line.ingredient.id).map(|(key, _)| key.to_owned())).collect();
    made.takes = made
        .takes
        .into_iter()
        .filter_map(|(at, act)| {
            Some((keys.get(at.strip_prefix("made_")?.parse::<usize>().ok()?)?.clone(), act))
        })
        .collect();
    Ok(made)
}

/// The steps of a sheet, and what lies between them.
fn course(
    draft: &mut Draft,
    (order, part, comp): (usize, usize, &str),
    sheet: &MethodSheet,
    (kg, area_cm2): (f64, f64),
    kitchen: &KitchenDocument,
) -> Made {
    let steps: Vec<&MethodStep> = sheet.steps.iter().filter(|step| step.at == Moment::Make).collect();
    let mut acts: HashMap<&str, usize> = HashMap::new();
    let mut made = Made::default();
    for step in steps.iter().filter(|step| step.kind != Worker::Wait) {
        let mut act = Act::by_hand(order, comp, step.what.trim_end_matches('.'), step.minutes[1]);
        act.hands = step.kind == Worker::Hands;
        if let Some(own) = kitchen.own_minutes(&sheet.school, &step.key) {
            act.minutes = own.minutes[0] + own.minutes[1] * kg;
        }
        let one = step.takes.iter().filter(|own| !matches!(own, Resource::Fridge | Resource::Freezer));
        act.uses = one.map(|own| (own.word().to_owned(), 1)).collect();
        // Water bath or microwave: either does, and the hob is there.
        if act.uses.contains_key(Resource::Hob.word()) {
            act.uses.remove(Resource::Microwave.word());
        }
        act.skill = step.cautions.contains(&Caution::Sugar).then(|| Skill::Sugar.word().to_owned());
        act.source = format!("{}/{}", sheet.school, step.key);
        let at = draft.act(act);
        acts.insert(&step.key, at);
        if step.key.starts_with("made_") {
            made.takes.push((step.key.clone(), at));
        }
    }
    // Minutes of hands and machines on the way to each: what a step that is ready early has to wait for.
    let busy: f64 = acts.values().map(|at| draft.acts[*at].minutes).sum();
    for step in steps.iter().filter(|step| step.kind != Worker::Wait) {
        let to = acts[step.key.as_str()];
        for (from, way) in before(&steps, step) {
            let Some(from_at) = acts.get(from.key.as_str()).copied() else { continue };
            if way.is_empty() {
                let alone = step.needs.len() == 1;
                let most = match from.limit {
                    Some(limit) => limit.minutes.minutes(),
                    None if from.key.starts_with("made_") => 120.0,
                    None if alone => GOES_ON,
                    None => GOES_ON + busy,
                };
                // Where several things must be ready at once, one of them waits for the other.
                let most = if alone { most } else { most.max(GOES_ON.min(busy)) };
                draft.goes_on(from_at, to, most, from.limit.map_or(LimitClass::Quality, |own| own.class));
            } else {
                let [least, most] = total(&way);
                let at = way.iter().max_by(|a, b| a.minutes[1].total_cmp(&b.minutes[1]));
                draft.lags.push(Lag {
                    from: from_at,
                    to,
                    least,
                    most: Some(most.max(least + if step.needs.len() > 1 { busy } else { 0.0 })),
                    name: at.map_or(String::new(), |own| own.what.trim_end_matches('.').to_owned()),
                    place: at.and_then(|own| place_of(own.place, area_cm2, 10.0 * DEEP_CM, kitchen)),
                    class: class_of(sheet, &way),
                    clock: one_clock(&way, part),
                });
            }
        }
    }
    // What nothing of the school waits for is its end.
    let waited = |key: &str| {
        steps.iter().any(|other| {
            other.kind != Worker::Wait && before(&steps, other).iter().any(|own| own.0.key == key)
        })
    };
    let ends: Vec<&MethodStep> =
        steps.iter().copied().filter(|step| step.kind != Worker::Wait && !waited(&step.key)).collect();
    let Some(last) = ends.last() else { return made };
    let at = acts[last.key.as_str()];
    for other in &ends[..ends.len() - 1] {
        draft.goes_on(acts[other.key.as_str()], at, GOES_ON + busy, LimitClass::Quality);
    }
    made.last = Some(at);
    let mut key = last.key.as_str();
    let mut most = 0.0;
    let mut behind: Vec<&MethodStep> = Vec::new();
    while let Some(wait) =
        steps.iter().find(|own| own.kind == Worker::Wait && own.needs.iter().any(|n| n == key))
    {
        made.waits[0] += wait.minutes[0];
        behind.push(wait);
        let clock = school(&sheet.school)
            .and_then(|own| own.steps.iter().find(|step| step.key == wait.key))
            .and_then(|step| step.clock);
        // Only what cools down to its work is past it again, and not where its window has no end.
        let ends = wait.minutes[1] - wait.minutes[0] >= 1.0;
        if matches!(clock, Some(Clock::Cool { to: CoolTo::Job(_), .. })) && wait.by_clock.is_some() && ends {
            most += wait.minutes[1];
        }
        made.place = place_of(wait.place, area_cm2, 10.0 * DEEP_CM, kitchen);
        key = wait.key.as_str();
    }
    made.waits[1] = most;
    made.cools = one_clock(&behind, part);
    made.place = made.place.filter(|_| key != last.key.as_str());
    made.sets = sheet
        .steps
        .iter()
        .filter(|step| step.at == Moment::Use && step.kind == Worker::Wait)
        .max_by(|a, b| a.minutes[0].total_cmp(&b.minutes[0]))
        .map(|step| SetsThere { span: step.minutes, clock: one_clock(&[step], part) });
    // What sets where it is used does not wait for that, and what its school says is used within minutes is.
    let used = steps_used(sheet) && key == last.key.as_str();
    let within = last.limit.filter(|_| used).map(|own| (own.minutes.minutes(), own.class));
    if let Some((most, class)) = within.or(made.sets.as_ref().map(|_| (GOES_ON, LimitClass::Quality))) {
        made.hurried = true;
        (made.waits[1], made.class, made.place) = (made.waits[0] + most, class, None);
    }
    made
}

/// Whether something of a school is done where it is used.
fn steps_used(sheet: &MethodSheet) -> bool {
    sheet.steps.iter().any(|step| step.at == Moment::Use && step.kind != Worker::Wait)
}

/// Steps a step needs, with the waits on the way from each.
fn before<'a>(steps: &[&'a MethodStep], step: &MethodStep) -> Vec<(&'a MethodStep, Vec<&'a MethodStep>)> {
    let mut all = Vec::new();
    for key in &step.needs {
        let Some(own) = steps.iter().find(|other| other.key == *key).copied() else { continue };
        if own.kind != Worker::Wait {
            all.push((own, Vec::new()));
        } else if !own.given {
            for (from, mut way) in before(steps, own) {
                way.push(own);
                all.push((from, way));
            }
        }
    }
    all
}

/// The one wait of a way that a clock says; none where several stand there, or none does.
fn one_clock(way: &[&MethodStep], part: usize) -> Option<ByClock> {
    let [step] = way else { return None };
    step.by_clock.as_ref().map(|_| ByClock { part, step: step.key.clone() })
}

/// What the longest of a way is for: safety, where any wait on it is.
fn class_of(sheet: &MethodSheet, way: &[&MethodStep]) -> LimitClass {
    let own = |step: &&&MethodStep| {
        // A step of what is made first stands behind the key of its school.
        let (by, key) = step.key.split_once('.').unwrap_or((&sheet.school, &step.key));
        school(by).and_then(|own| own.steps.iter().find(|step| step.key == key)).map(|step| step.class)
    };
    match way.iter().any(|step| own(&step) == Some(LimitClass::Safety)) {
        true => LimitClass::Safety,
        false => LimitClass::Quality,
    }
}

fn total(way: &[&MethodStep]) -> [f64; 2] {
    way.iter().fold([0.0, 0.0], |sum, own| [sum[0] + own.minutes[0], sum[1] + own.minutes[1]])
}
