//! What would save a day that cannot be saved as it is, with its minutes: one more pair of hands, a wait that is shorter, closing
//! later.

use crate::day::document::PlanDocument;
use crate::day::reasons::span;
use plan::problem::{COOK, Problem, fewer};
use plan::replan::{Event, Level, OVERTIME_MIN, Replanned, replan_within};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something that would save what cannot be saved otherwise.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Cure {
    /// What, with its minutes.
    pub words: String,
    /// What would still be late with it, min.
    pub late_min: i32,
}

/// One more pair of hands for a while.
fn one_more(problem: &Problem, [from, to]: [i32; 2]) -> Problem {
    let mut more = problem.clone();
    if more.cooks.is_empty() {
        more.resources.iter_mut().filter(|own| own.id == COOK).for_each(|own| own.cap += 1);
        return more;
    }
    more.cooks.push(plan::problem::Cook {
        name: "One more".to_owned(),
        hours: vec![[from.max(0), to.min(more.horizon)]],
        without: Vec::new(),
    });
    let hours: Vec<Vec<[i32; 2]>> = more.cooks.iter().map(|own| own.hours.clone()).collect();
    let horizon = more.horizon;
    for own in more.resources.iter_mut().filter(|own| own.id == COOK) {
        own.cap += 1;
        own.less = fewer(&hours, horizon);
    }
    more
}

/// Rounds a cure is looked for.
const CURE_ROUNDS: u32 = 400;

/// Goes on until whoever asked has left.
pub fn patient(_: plan::search::Progress) -> bool {
    crate::patience::checkpoint();
    true
}

/// Minutes of one more pair of hands that are tried.
const HANDS: [i32; 3] = [40, 90, 180];

/// What would save it without going past a limit.
pub fn cures(plan: &PlanDocument, event: &Event, found: &Replanned) -> Vec<Cure> {
    let mut all = Vec::new();
    let still = |problem: &Problem| {
        replan_within(problem, &plan.start, event, Level::Repair, CURE_ROUNDS, &patient).level
    };
    let days = plan.days();
    for minutes in HANDS {
        if still(&one_more(&plan.problem, [event.now, event.now + minutes])) <= Level::Repair {
            let until = days.wall(event.now + minutes).strftime("%H:%M");
            all.push(Cure {
                words: format!("One more pair of hands for {} from now, until {until}.", span(minutes)),
                late_min: 0,
            });
            break;
        }
    }
    // What stands longest of the orders not yet gone: by how much it would have to be sooner.
    let grid = plan.problem.grid_min;
    let end = |step: usize| plan.start[step].map(|at| at + plan.problem.steps[step].dur);
    let mut waits: Vec<usize> = (0..plan.problem.waits.len())
        .filter(|at| {
            let wait = &plan.problem.waits[*at];
            let to_come = plan.start[wait.to].is_none_or(|at| at >= event.now);
            wait.min >= 15 && to_come && !wait.name.contains("out of the cold") && end(wait.from).is_some()
        })
        .collect();
    // Those that bind first: nothing is to spare in them.
    waits.sort_by_key(|at| {
        let wait = &plan.problem.waits[*at];
        let lasts = plan.start[wait.to].zip(end(wait.from)).map_or(0, |(to, from)| to - from);
        (lasts - wait.min, -wait.min)
    });
    for at in waits.into_iter().take(4) {
        let wait = &plan.problem.waits[at];
        let shorter = |by: i32| {
            let mut own = plan.problem.clone();
            own.waits[at].min -= by;
            own
        };
        let most = wait.min * 2 / 3 / grid * grid;
        if most < grid || still(&shorter(most)) > Level::Repair {
            continue;
        }
        let (mut no, mut yes) = (0, most);
        for _ in 0..4 {
            let middle = (no + yes) / 2 / grid * grid;
            if middle <= no {
                break;
            }
            if still(&shorter(middle)) <= Level::Repair { yes = middle } else { no = middle }
        }
        let what = &plan.problem.steps[wait.from];
        let name = wait.name.strip_prefix(&format!("{}: ", what.comp)).unwrap_or(&wait.name);
        all.push(Cure {
            words: format!(
                "{} ({}) sooner by {}: {} instead of {}. {} may do it; ask the clock of that formula.",
                what.comp,
                name,
                span(yes),
                span(wait.min - yes),
                span(wait.min),
                match wait.r#use.contains_key("freezer") {
                    true => "Smaller or thinner pieces, set cold before they go in,",
                    false => "A shallower vessel, iced water first, or the freezer",
                }
            ),
            late_min: 0,
        });
        if all.len() >= 3 {
            break;
        }
    }
    if found.level >= Level::Later && found.late_min > 0 {
        let over = replan_within(&plan.problem, &plan.start, event, Level::Overtime, CURE_ROUNDS, &patient);
        if over.level == Level::Overtime {
            all.push(Cure { words: format!("Up to {} past closing.", span(OVERTIME_MIN)), late_min: 0 });
        }
    }
    all
}
