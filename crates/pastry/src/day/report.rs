//! What the cooks say of their steps while the day goes on: begun, done, taken back.

use crate::day::document::PlanDocument;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::ToSchema;

/// What is said of a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Report {
    /// Key of the step.
    #[schema(max_length = 240)]
    pub step: String,
    /// What of it.
    pub said: Said,
    /// When, RFC 3339.
    #[schema(value_type = String, example = "2026-12-05T11:42:00Z")]
    pub at: Timestamp,
    /// Who does it, where that was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub cook: Option<String>,
}

/// What can be said of a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Said {
    /// Somebody is at it.
    Begun,
    /// It is done.
    Done,
    /// Neither: it was said by mistake, or it is done again.
    TakenBack,
}

/// How far a step is.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Progress {
    /// Since when, min.
    pub begun: Option<i32>,
    /// Until when, min.
    pub done: Option<i32>,
    /// Who is at it.
    pub cook: Option<String>,
}

/// How far each step of a plan is, by all that was said, in its order.
pub fn progress(plan: &PlanDocument, reports: &[Report]) -> Vec<Progress> {
    let keys = plan.step_keys();
    let at: HashMap<&str, usize> = keys.iter().enumerate().map(|(at, key)| (key.as_str(), at)).collect();
    let days = plan.days();
    let mut all = vec![Progress::default(); keys.len()];
    for report in reports {
        let Some(step) = at.get(report.step.as_str()).copied() else { continue };
        let minute = days.minute_at(report.at);
        let own = &mut all[step];
        match report.said {
            Said::Begun => {
                *own = Progress { begun: Some(minute), done: None, cook: report.cook.clone() };
            }
            Said::Done => {
                // Done without a word before: it took as long as was planned.
                let begun = own.begun.unwrap_or(minute - plan.problem.steps[step].dur);
                own.begun = Some(begun.min(minute));
                own.done = Some(minute);
                own.cook = report.cook.clone().or(own.cook.take());
            }
            Said::TakenBack => *own = Progress::default(),
        }
    }
    all
}
