//! All schools with the steps a cook does, as a kitchen writes its own minutes for them.

use crate::method::school::{School, school, schools};
use crate::method::step::{Duration, Worker};
use serde::Serialize;
use utoipa::ToSchema;

/// A school, and what of it takes minutes of work.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SchoolWork {
    /// Its key.
    pub school: String,
    /// Its name.
    pub name: String,
    /// Its steps that somebody or something works at.
    pub steps: Vec<StepWork>,
}

/// A step that takes minutes of work.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepWork {
    /// Its key within the school.
    pub step: String,
    /// What is done.
    pub what: String,
    /// Minutes whatever the size, and more for each kilogram.
    pub minutes: [f64; 2],
}

fn works(own: &School) -> Vec<StepWork> {
    let all = own.steps.iter().filter(|step| step.kind != Worker::Wait);
    all.filter_map(|step| match step.time {
        Duration::Work { base, per_kg } => Some(StepWork {
            step: step.key.clone(),
            what: step.what.trim_end_matches('.').to_owned(),
            minutes: [base.minutes(), per_kg.minutes()],
        }),
        Duration::Stand { .. } => None,
    })
    .collect()
}

/// Every school with its steps.
pub fn listed() -> Vec<SchoolWork> {
    let own = |own: &School| SchoolWork { school: own.id.clone(), name: own.name.clone(), steps: works(own) };
    schools().iter().map(own).filter(|own| !own.steps.is_empty()).collect()
}

/// Whether a school has a step; one of what is made first stands behind the key of its own school.
pub fn has_step(of: &str, step: &str) -> bool {
    let within = |of: &str, step: &str| school(of).is_some_and(|own| own.steps.iter().any(|s| s.key == step));
    within(of, step)
        || (school(of).is_some() && step.split_once('.').is_some_and(|(base, step)| within(base, step)))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_step_that_is_listed_is_there_and_takes_its_minutes() {
        let all = listed();
        assert!(all.len() > 40, "{} schools", all.len());
        for own in &all {
            for step in &own.steps {
                assert!(has_step(&own.school, &step.step), "{}/{}", own.school, step.step);
                assert!(step.minutes[0] + step.minutes[1] > 0.0 && !step.what.is_empty(), "{step:?}");
            }
        }
        assert!(!has_step(&all[0].school, "no such step") && !has_step("no such school", "pour"));
    }
}
