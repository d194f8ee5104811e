//! What happened on a day: a step that lasts longer or failed, a cook gone, a machine out, a step put elsewhere, a wait made shorter.

use crate::day::document::PlanDocument;
use crate::day::report::Report;
use crate::day::shorter::{MOST_QUICKER, Quicker};
use crate::fault::{Fault, FaultCode};
use jiff::civil::DateTime;
use plan::problem::Kind;
use plan::replan::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "what", rename_all = "snake_case", deny_unknown_fields)]
pub enum Happened {
    /// A step lasts longer, or is over sooner.
    Late {
        /// Its number.
        step: usize,
        /// Minutes longer; less than nothing where it is over sooner.
        #[schema(minimum = -1440, maximum = 1440)]
        min: i32,
    },
    /// A step failed: what is made is made again.
    Failed {
        /// Its number.
        step: usize,
    },
    /// There is less of something for a while.
    Less {
        /// Key of the resource.
        #[schema(max_length = 60)]
        resource: String,
        /// From, on the wall.
        #[schema(
        value_type = String, example = "2026-12-05T12:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
        from: DateTime,
        /// To.
        #[schema(
        value_type = String, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
        to: DateTime,
        /// How much is left of it.
        #[serde(default)]
        #[schema(minimum = 0, maximum = 1000)]
        left: i32,
    },
    /// A cook is gone for a while.
    Away {
        /// Number of the cook.
        cook: usize,
        /// From, on the wall.
        #[schema(
        value_type = String, example = "2026-12-05T12:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
        from: DateTime,
        /// To.
        #[schema(
        value_type = String, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
        to: DateTime,
    },
    /// A step is put elsewhere by hand, and stays there.
    Moved {
        /// Its number.
        step: usize,
        /// When it is to begin, min.
        #[schema(minimum = 0, maximum = 44640)]
        to: i32,
    },
    /// A wait is made shorter.
    Quicker {
        /// Which, and by what.
        quicker: Quicker,
    },
    /// Time went by.
    Nothing {},
}

/// A plan, what was done of it, and what happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendAsk {
    /// The plan that stands.
    pub plan: PlanDocument,
    /// What was begun and done of it.
    #[serde(default)]
    #[schema(max_items = 5000)]
    pub reports: Vec<Report>,
    /// Now, on the wall.
    #[schema(
        value_type = String, example = "2026-12-05T11:42:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub now: DateTime,
    /// Steps that were to begin before now and did not.
    #[serde(default)]
    #[schema(max_items = 1500)]
    pub not_begun: Vec<usize>,
    /// What happened.
    pub happened: Happened,
    /// Waits that are made shorter besides.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub also: Vec<Quicker>,
}

/// What happened, and what bending the plan to it takes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CureAsk {
    /// What was asked.
    pub bend: BendAsk,
    /// What was answered.
    pub level: Level,
}

impl BendAsk {
    /// What makes it no question, at its field.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults: Vec<Fault> = self
            .plan
            .faults()
            .into_iter()
            .map(|own| Fault { field: format!("plan.{}", own.field), ..own })
            .collect();
        let mut say = |field: &str, words: String| {
            faults.push(Fault::new(format!("happened.{field}"), FaultCode::OutOfRange, words));
        };
        let problem = &self.plan.problem;
        let no_step = |step: usize| problem.steps.get(step).is_none_or(|own| own.kind == Kind::Serve);
        let turned = |from: DateTime, to: DateTime| from >= to;
        if self.not_begun.iter().any(|step| no_step(*step)) {
            say("not_begun", "name steps that are there".to_owned());
        }
        match &self.happened {
            Happened::Late { step, .. } | Happened::Failed { step } | Happened::Moved { step, .. }
                if no_step(*step) =>
            {
                say("step", format!("there is no step {step} in this plan"));
            }
            Happened::Late { step, min } if problem.steps[*step].dur + min < 1 || *min > 1440 => {
                say("min", format!("{min} min longer: write up to 1440, and more than it takes off"));
            }
            Happened::Moved { step, to } if to + problem.steps[*step].dur > problem.horizon || *to < 0 => {
                say("to", "that is outside the days planned".to_owned());
            }
            Happened::Less { resource, from, to, .. } => {
                if problem.resources.iter().all(|own| own.id != *resource) {
                    say("resource", format!("there is no {resource} in this plan"));
                }
                if turned(*from, *to) {
                    say("to", "it ends before it begins: write a later time".to_owned());
                }
            }
            Happened::Away { cook, from, to } => {
                if *cook >= problem.cooks.len() {
                    say("cook", format!("there is no cook {cook} in this plan"));
                }
                if turned(*from, *to) {
                    say("to", "it ends before it begins: write a later time".to_owned());
                }
            }
            _ => {}
        }
        faults.extend(self.quicker_faults());
        faults
    }

    /// What is wrong with the waits it makes shorter.
    fn quicker_faults(&self) -> Vec<Fault> {
        let one = if let Happened::Quicker { quicker } = &self.happened { Some(quicker) } else { None };
        let own = one.map(|own| ("happened.quicker".to_owned(), own));
        let also = self.also.iter().enumerate().map(|(at, own)| (format!("also.{at}"), own));
        let keys = self.plan.step_keys();
        let fault = |(field, quicker): (String, &Quicker)| {
            let is_there = self.plan.problem.waits.iter().any(|wait| {
                keys.get(wait.from) == Some(&quicker.from) && keys.get(wait.to) == Some(&quicker.to)
            });
            let words = match () {
                () if !is_there => "there is no such wait in this plan".to_owned(),
                () if quicker.min < 0 || quicker.max.is_some_and(|max| max < quicker.min) => {
                    "it lasts longer at least than at most, or less than nothing".to_owned()
                }
                () if self.plan.quicker.len() + self.also.len() >= MOST_QUICKER => {
                    format!("{MOST_QUICKER} waits were made shorter already: plan again")
                }
                () => return None,
            };
            Some(Fault::new(field, FaultCode::OutOfRange, words))
        };
        own.into_iter().chain(also).filter_map(fault).collect()
    }
}
