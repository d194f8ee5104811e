//! What happens to a plan: steps that last longer, less of something, what was begun.

use crate::problem::Problem;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanEvent)]
pub struct Event {
    /// Now, min. Nothing that has not begun begins before it.
    pub now: i32,
    /// Steps that last longer.
    #[serde(default)]
    pub late: Vec<Late>,
    /// There is less of something for a while: a machine out of use, a cook gone.
    #[serde(default)]
    pub less: Vec<Less>,
    /// Steps that were begun, whenever it was planned: number and minute.
    #[serde(default)]
    pub begun: Vec<[i32; 2]>,
    /// Steps that must stay where they are.
    #[serde(default)]
    pub pinned: Vec<usize>,
}

/// A step that lasts longer.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanLate)]
pub struct Late {
    /// Its number.
    pub step: usize,
    /// Minutes longer.
    pub min: i32,
}

/// Less of something for a while.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanLess)]
pub struct Less {
    /// The resource.
    pub resource: String,
    /// From, min.
    pub from: i32,
    /// To, min.
    pub to: i32,
    /// How much is left of it.
    pub cap: i32,
}

/// What makes it no event of a problem, in words with its place.
pub fn event_faults(problem: &Problem, event: &Event) -> Vec<(String, String)> {
    let mut faults = Vec::new();
    let is_step = |step: usize| step < problem.steps.len();
    if event.now < 0 || event.now > problem.horizon {
        faults.push(("now".to_owned(), format!("{} is outside the days planned", event.now)));
    }
    for (at, late) in event.late.iter().enumerate() {
        if !is_step(late.step) {
            faults.push((format!("late.{at}.step"), format!("there is no step {}", late.step)));
        } else if late.min < 1 - problem.steps[late.step].dur || late.min > 1440 {
            faults.push((format!("late.{at}.min"), format!("{} min longer: write up to 1440", late.min)));
        }
    }
    for (at, less) in event.less.iter().enumerate() {
        if problem.resources.iter().all(|own| own.id != less.resource) {
            faults.push((
                format!("less.{at}.resource"),
                format!("there is no {} among the resources", less.resource),
            ));
        }
        if less.from >= less.to || less.cap < 0 {
            faults.push((
                format!("less.{at}"),
                format!("from {} to {} is no stretch of time", less.from, less.to),
            ));
        }
    }
    for (at, [step, minute]) in event.begun.iter().enumerate() {
        if !usize::try_from(*step).is_ok_and(is_step) || *minute < 0 || *minute > event.now {
            faults.push((
                format!("begun.{at}"),
                "name a step that is there and a minute before now".to_owned(),
            ));
        }
    }
    for (at, step) in event.pinned.iter().enumerate() {
        if !is_step(*step) {
            faults.push((format!("pinned.{at}"), format!("there is no step {step}")));
        }
    }
    faults
}

/// The problem as it is after an event: steps longer, less of something.
pub fn after(problem: &Problem, event: &Event) -> Problem {
    let mut after = problem.clone();
    for late in &event.late {
        after.steps[late.step].dur = (after.steps[late.step].dur + late.min).max(1);
    }
    for less in &event.less {
        for own in after.resources.iter_mut().filter(|own| own.id == less.resource) {
            own.less.push([less.from, less.to, less.cap]);
        }
    }
    after
}
