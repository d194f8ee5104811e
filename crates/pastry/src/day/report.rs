//! What the cooks say of their steps while the day goes on: begun, done, taken back.

use crate::day::document::PlanDocument;
use jiff::Timestamp;
use plan::problem::Kind;
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
    /// Nobody said so: what comes after it was begun, so it must be done.
    pub supposed: bool,
}

/// Minutes the clock of a device may be behind and what is said on it still counts (assumed).
const SLOW_CLOCK_MIN: i32 = 10;

/// The step each report is of; none where it is of no step of this plan, or of an earlier making of the same order.
pub fn of_steps(plan: &PlanDocument, reports: &[Report]) -> Vec<Option<usize>> {
    let keys = plan.step_keys();
    let at: HashMap<&str, usize> = keys.iter().enumerate().map(|(at, key)| (key.as_str(), at)).collect();
    let days = plan.days();
    let since: Vec<Option<i32>> =
        plan.orders.iter().map(|own| Some(days.minute(own.since?) - SLOW_CLOCK_MIN)).collect();
    let counts = |step: &usize, report: &Report| {
        let since = since.get(plan.problem.steps[*step].order).copied().flatten();
        since.is_none_or(|since| days.minute_at(report.at) >= since)
    };
    let own = reports.iter();
    own.map(|report| at.get(report.step.as_str()).copied().filter(|step| counts(step, report))).collect()
}

/// How far each step of a plan is, by all that was said, in its order. Of what comes before a step that was begun nothing need be
/// said: it is done, unless that was taken back since.
pub fn progress(plan: &PlanDocument, reports: &[Report]) -> Vec<Progress> {
    let days = plan.days();
    let mut all = vec![Progress::default(); plan.problem.steps.len()];
    // The place in line of the last word on each step.
    let mut said = vec![None; all.len()];
    for (place, (report, step)) in reports.iter().zip(of_steps(plan, reports)).enumerate() {
        let Some(step) = step else { continue };
        let minute = days.minute_at(report.at);
        let own = &mut all[step];
        said[step] = Some(place);
        match report.said {
            Said::Begun => {
                *own = Progress { begun: Some(minute), cook: report.cook.clone(), ..Progress::default() };
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
    suppose(plan, &mut all, &said);
    all
}

/// Keys of steps nobody said anything of that must be done, since what comes after them was begun.
pub fn supposed(plan: &PlanDocument, reports: &[Report]) -> Vec<String> {
    let keys = plan.step_keys().into_iter().zip(progress(plan, reports));
    keys.filter(|(_, own)| own.supposed).map(|(key, _)| key).collect()
}

/// What comes before a step that was begun is done: as planned where that was early enough, otherwise just in time.
fn suppose(plan: &PlanDocument, all: &mut [Progress], said: &[Option<usize>]) {
    let problem = &plan.problem;
    let lags = problem.waits.iter().map(|own| (own.from, own.to, own.min));
    let lags: Vec<(usize, usize, i32)> =
        lags.chain(problem.links.iter().map(|own| (own.from, own.to, own.min))).collect();
    let serves = |step: usize| problem.steps[step].kind == Kind::Serve;
    // Each with the place of the word it follows from.
    let mut open: Vec<(usize, usize)> = (0..all.len())
        .filter(|step| all[*step].begun.is_some())
        .map(|step| (step, said[step].unwrap_or(0)))
        .collect();
    // Lags that go in a circle are no plan, but must not hold anybody up either.
    let mut left = 50 * (lags.len() + 1);
    while let Some((to, place)) = open.pop().filter(|_| left > 0) {
        left -= 1;
        let Some(begun) = all[to].begun else { continue };
        for (from, _, least) in lags.iter().filter(|own| own.1 == to && !serves(own.0)) {
            let own = &all[*from];
            let later_word = said[*from].is_some_and(|word| word > place);
            if later_word || own.done.is_some_and(|_| !own.supposed) {
                continue;
            }
            let lasts = problem.steps[*from].dur;
            let by = begun - least;
            let known = own.begun.filter(|_| said[*from].is_some());
            let end = known
                .or(plan.start.get(*from).copied().flatten())
                .map_or(by, |at| (at + lasts).min(by).max(known.unwrap_or(i32::MIN)));
            if own.supposed && own.done.is_some_and(|done| done <= end) {
                continue;
            }
            let begun = known.unwrap_or(end - lasts);
            all[*from] = Progress { begun: Some(begun), done: Some(end), supposed: true, ..own.clone() };
            open.push((*from, place));
        }
    }
}
