//! The run sheet: for each cook and day, what to do when, with what must come out of the cold by when, to be printed and ticked.

use crate::day::document::PlanDocument;
use crate::day::seen::{DayView, ViewStep, ViewWait};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cook's day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RunSheet {
    /// Who.
    pub cook: String,
    /// The date, in words.
    pub day: String,
    /// Minutes of hands.
    pub hands_min: i32,
    /// What to do, in order.
    pub rows: Vec<RunRow>,
}

/// A line of a run sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RunRow {
    /// When, on the wall: "06:40".
    pub at: String,
    /// How long, min; nothing for what only leaves.
    pub lasts_min: i32,
    /// Letters of the orders.
    pub letter: String,
    /// What is worked on.
    pub of: String,
    /// What is done, one after the other.
    pub what: Vec<String>,
    /// What is taken out for it, and when at the earliest and latest.
    pub out: Vec<String>,
    /// Where it goes afterwards, and until when.
    pub into: Vec<String>,
}

/// The run sheets of a plan, by day and cook; what a machine does alone stands with the cook who began it.
pub fn run_sheets(plan: &PlanDocument, seen: &DayView) -> Vec<RunSheet> {
    let days = plan.days();
    let clock = |minute: i32| days.wall(minute).strftime("%H:%M").to_string();
    let dated = |minute: i32, than: i32| days.said(minute, than);
    let out = |step: &ViewStep, wait: &ViewWait| -> Option<String> {
        let (place, [_, until]) = (wait.place.as_deref()?, wait.stands?);
        let begins = step.begins?;
        let from = wait.not_before.map(|at| format!("not before {}", dated(at.min(until), begins)));
        let to = wait.not_after.map(|at| format!("not after {}", dated(at, begins)));
        let limits: Vec<String> = from.into_iter().chain(to).collect();
        Some(format!("{} out of the {place} ({})", wait.of, limits.join(", ")))
    };
    let into = |step: &ViewStep, wait: &ViewWait| -> Option<String> {
        let (place, [_, until]) = (wait.place.as_deref()?, wait.stands?);
        Some(format!("{} into the {place} until {}", wait.of, dated(until, step.begins?)))
    };
    let mut sheets: Vec<RunSheet> = Vec::new();
    for day in &seen.days {
        let Some([from, to]) = day.work else { continue };
        for (cook, own) in seen.cooks.iter().enumerate() {
            let mut steps: Vec<&ViewStep> = seen
                .steps
                .iter()
                .filter(|step| step.cook == Some(cook))
                .filter(|step| step.begins.is_some_and(|at| (from..to).contains(&at)))
                .collect();
            steps.sort_by_key(|step| step.begins);
            if steps.is_empty() {
                continue;
            }
            let rows = steps.iter().map(|step| RunRow {
                at: clock(step.begins.unwrap_or_default()),
                lasts_min: step.lasts,
                letter: step.letters.clone(),
                of: step.of.clone(),
                what: step.what.iter().chain(&step.batch).cloned().collect(),
                out: seen
                    .waits
                    .iter()
                    .filter(|wait| wait.to == step.step)
                    .filter_map(|wait| out(step, wait))
                    .collect(),
                into: stood_after(seen, step).filter_map(|wait| into(step, wait)).collect(),
            });
            sheets.push(RunSheet {
                cook: own.name.clone(),
                day: days.wall(from).strftime("%A %-d %B %Y").to_string(),
                hands_min: steps.iter().map(|step| step.lasts).sum(),
                rows: rows.collect(),
            });
        }
    }
    sheets
}

/// What stands from the end of a step on: each place once, for the longest.
fn stood_after<'a>(seen: &'a DayView, step: &ViewStep) -> impl Iterator<Item = &'a ViewWait> {
    let from = step.step;
    let own: Vec<&ViewWait> =
        seen.waits.iter().filter(|wait| wait.from == from && wait.place.is_some()).collect();
    let longest = own.iter().copied().max_by_key(|wait| wait.stands.map(|[_, to]| to));
    longest.into_iter()
}

/// Run sheets as plain text, for a printer or a file.
pub fn as_text(plan: &PlanDocument, seen: &DayView) -> String {
    let mut all = format!("{}\n{}\n", plan.name, seen.sentence);
    for order in &seen.orders {
        all += &format!("{} {}: {}\n", order.letter, order.name, order.words);
    }
    for words in seen.incomplete.iter().chain(&seen.exceeds).chain(&seen.cautions) {
        all += &format!("! {words}\n");
    }
    all += "Raw egg, hot sugar, blades, slow cooling: the method of each formula says what to mind; your local food code decides.\n";
    for sheet in run_sheets(plan, seen) {
        all += &format!("\n{} · {} · {} min of hands\n", sheet.cook, sheet.day, sheet.hands_min);
        for row in sheet.rows {
            all += &format!(
                "[ ] {}  {:>3} min  {}  {}: {}\n",
                row.at,
                row.lasts_min,
                row.letter,
                row.of,
                row.what.join("; ")
            );
            for words in row.out.iter().chain(&row.into) {
                all += &format!("                      {words}\n");
            }
        }
    }
    all
}
