//! The steps of a school for one batch: those its formula needs, each with its minutes, what it needs of the others and
//! what must be ready for it, the steps of what it begins with first.

use crate::caution::Caution;
use crate::formula::WeighedLine;
use crate::method::gear::{Gear, Resource};
use crate::method::school::{School, school};
use crate::method::step::{Limit, Moment, Spot, Step, Worker};
use crate::number::span_min;
use serde::Serialize;
use utoipa::ToSchema;

/// What goes wrong in a step.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepFault {
    /// What is seen.
    pub seen: String,
    /// Why.
    pub why: String,
}

/// A step for one batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MethodStep {
    /// Its key within the school; of what is made first by another school, behind the key of that school.
    pub key: String,
    /// Of what is made first by another school: its name.
    pub part: Option<String>,
    /// Who works.
    pub kind: Worker,
    /// What is done.
    pub what: String,
    /// With what.
    pub gear: Vec<Gear>,
    /// What of the kitchen it takes.
    pub takes: Vec<Resource>,
    /// Minutes for this batch, from and to.
    pub minutes: [f64; 2],
    /// The minutes as they are read: "4 min", "2 to 12 h".
    pub time: String,
    /// What its minutes were worked out for by the clock: "a tray of 20 × 30 cm, 11 mm deep, on the bench"; none where they
    /// are the table's.
    pub by_clock: Option<String>,
    /// Temperature, °C, from and to.
    pub temperature_c: Option<[f64; 2]>,
    /// The sign that it is done.
    pub until: String,
    /// What goes wrong.
    pub wrong: Vec<StepFault>,
    /// What can hurt.
    pub cautions: Vec<Caution>,
    /// How soon the next must begin.
    pub limit: Option<Limit>,
    /// Keys of the steps that must be done before it.
    pub needs: Vec<String>,
    /// The step, counted from 1, it must be ready for, when that is not the next one: it can be done beside others.
    pub ready_for: Option<u32>,
    /// Where it stands.
    pub place: Option<Spot>,
    /// When it is done.
    pub at: Moment,
    /// Already so in a kitchen that keeps it so.
    pub given: bool,
}

/// The steps of a school for these lines.
pub fn course(school: &School, lines: &[WeighedLine]) -> Vec<MethodStep> {
    let mut steps = Vec::new();
    if let Some((first, without)) = base(school) {
        let of_it: Vec<WeighedLine> = lines
            .iter()
            .filter(|line| !without.iter().any(|role| line.ingredient.is(*role)))
            .cloned()
            .collect();
        let prefix = format!("{}.", first.id);
        steps.extend(
            chosen(first, &of_it, &prefix)
                .into_iter()
                .filter(|step| step.at == Moment::Make)
                .map(|step| MethodStep { part: Some(first.name.clone()), ..step }),
        );
    }
    let last = steps.last().map(|step| step.key.clone());
    let mut own = chosen(school, lines, "");
    // What begins with the base is the first step that needs nothing and is not got ready for another.
    if let (Some(last), Some(begins)) = (last, own.iter_mut().find(|step| begins(school, step))) {
        begins.needs.push(last);
    }
    steps.append(&mut own);
    ready_for(&mut steps);
    steps
}

fn base(school_: &School) -> Option<(&'static School, &[crate::ingredient::Role])> {
    let base = school_.base.as_ref()?;
    Some((school(&base.school).expect("a base is a school"), &base.without))
}

/// Whether a step works on all of the mass from nothing: where the base comes in.
fn begins(school: &School, step: &MethodStep) -> bool {
    let own = school.steps.iter().find(|own| own.key == step.key);
    step.needs.is_empty() && own.is_some_and(|own| own.of.is_empty() && own.only.is_none())
}

/// Those of a school's steps these lines need; what needs one that is left out needs what that one needed.
fn chosen(school: &School, lines: &[WeighedLine], prefix: &str) -> Vec<MethodStep> {
    let has = |step: &Step| {
        step.only
            .is_none_or(|role| lines.iter().any(|line| line.mass.grams() > 0.0 && line.ingredient.is(role)))
    };
    let mut needed: Vec<Vec<usize>> = Vec::new();
    for (at, step) in school.steps.iter().enumerate() {
        let mut own: Vec<usize> = Vec::new();
        for need in &step.needs {
            if has(&school.steps[*need]) { own.push(*need) } else { own.extend(&needed[*need]) }
        }
        own.sort_unstable();
        own.dedup();
        debug_assert!(own.iter().all(|need| *need < at));
        needed.push(own);
    }
    school
        .steps
        .iter()
        .zip(&needed)
        .filter(|(step, _)| has(step))
        .map(|(step, needs)| {
            let keys = needs.iter().map(|need| format!("{prefix}{}", school.steps[*need].key));
            method_step(step, kg_of(step, lines), format!("{prefix}{}", step.key), keys.collect())
        })
        .collect()
}

/// Kilograms a step works on.
fn kg_of(step: &Step, lines: &[WeighedLine]) -> f64 {
    let of_it =
        |line: &&WeighedLine| step.of.is_empty() || step.of.iter().any(|role| line.ingredient.is(*role));
    1e-3 * lines.iter().filter(of_it).map(|line| line.mass.grams()).sum::<f64>()
}

fn method_step(step: &Step, kg: f64, key: String, needs: Vec<String>) -> MethodStep {
    let minutes = step.time.minutes(kg);
    MethodStep {
        key,
        part: None,
        kind: step.kind,
        what: step.what.clone(),
        gear: step.gear.clone(),
        takes: step.resources(),
        minutes,
        time: span_min(minutes),
        by_clock: None,
        temperature_c: step.t,
        until: step.until.clone(),
        wrong: step
            .wrong
            .iter()
            .map(|[seen, why]| StepFault { seen: seen.clone(), why: why.clone() })
            .collect(),
        cautions: step.cautions.clone(),
        limit: step.limit,
        needs,
        ready_for: None,
        place: step.place,
        at: step.at,
        given: step.given,
    }
}

/// Says of every step that others do not wait for at once, which one it must be ready for.
fn ready_for(steps: &mut [MethodStep]) {
    for at in 0..steps.len() {
        let first = steps[at + 1..].iter().position(|other| other.needs.contains(&steps[at].key));
        steps[at].ready_for = first.filter(|gap| *gap > 0).map(|gap| (at + gap + 2) as u32);
    }
}

/// Minutes from the first step to the last, at least: along the longest way through what needs what. What a kitchen
/// keeps ready takes none.
pub fn least_through(steps: &[MethodStep]) -> f64 {
    let mut done: Vec<f64> = Vec::new();
    for step in steps {
        let begin = step
            .needs
            .iter()
            .filter_map(|key| Some(done[steps.iter().position(|other| other.key == *key)?]))
            .fold(0.0, f64::max);
        done.push(begin + if step.given { 0.0 } else { step.minutes[0] });
    }
    done.into_iter().fold(0.0, f64::max)
}
