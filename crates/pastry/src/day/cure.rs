//! What would save a day that cannot be saved as it is, with its minutes: one more pair of hands, a wait that is shorter, closing
//! later.

use crate::day::bend::as_asked;
use crate::day::document::PlanDocument;
use crate::day::happened::BendAsk;
use crate::day::reasons::span;
use crate::day::shorter::called;
use crate::patience::patient;
use plan::problem::{COOK, Kind, Problem, fewer};
use plan::replan::{Event, Level, OVERTIME_MIN, replan_within};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something that would save what cannot be saved otherwise.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Cure {
    /// What, with its minutes.
    pub words: String,
    /// The wait that would have to be shorter, and how long it may last then, min; none where it is something else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shorter: Option<Shorter>,
}

/// A wait that would have to be shorter.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Shorter {
    /// Its number.
    pub wait: usize,
    /// How long it may last, min.
    pub min: i32,
    /// Whether a clock knows what would do it.
    pub clocked: bool,
}

impl Cure {
    fn of(words: String) -> Cure {
        Cure { words, shorter: None }
    }
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

/// Minutes of one more pair of hands that are tried.
const HANDS: [i32; 3] = [40, 90, 180];

/// What would save a day without going past a limit, where bending it takes more than putting steps elsewhere.
///
/// # Arguments
/// * `ask`: what happened, without faults; `level`: what bending it takes.
pub fn cures(ask: &BendAsk, level: Level) -> Vec<Cure> {
    let mut all = Vec::new();
    if level < Level::Overtime {
        return all;
    }
    let (plan, event, _) = as_asked(ask);
    let (plan, event) = (&plan, &event);
    let still = |problem: &Problem| {
        replan_within(problem, &plan.start, event, Level::Repair, CURE_ROUNDS, &patient).level
    };
    let days = plan.days();
    for minutes in HANDS {
        if still(&one_more(&plan.problem, [event.now, event.now + minutes])) <= Level::Repair {
            let until = days.wall(event.now + minutes).strftime("%H:%M");
            all.push(Cure::of(format!(
                "One more pair of hands for {} from now, until {until}.",
                span(minutes)
            )));
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
        let name = called(&wait.name, &what.comp);
        let clocked = plan.parts.iter().any(|part| part.waits.iter().any(|own| own.wait == at));
        let min = wait.min - yes;
        let words = format!(
            "{} ({}) in {} instead of {}: {} sooner.",
            what.comp,
            name,
            span(min),
            span(wait.min),
            span(yes)
        );
        all.push(Cure { shorter: Some(Shorter { wait: at, min, clocked }), ..Cure::of(words) });
        if all.len() >= 3 {
            break;
        }
    }
    if level >= Level::Later {
        let over = replan_within(&plan.problem, &plan.start, event, Level::Overtime, CURE_ROUNDS, &patient);
        if over.level == Level::Overtime {
            all.push(Cure::of(format!("Up to {} past closing.", span(OVERTIME_MIN))));
        }
    }
    all.extend(another_day(plan, event));
    all
}

/// Working on a day the kitchen is shut, or from earlier on: the first such day that saves it, with the hours it takes.
fn another_day(plan: &PlanDocument, event: &Event) -> Option<Cure> {
    let problem = &plan.problem;
    let days = plan.days();
    let last = problem.orders.iter().map(|own| own.serve).max()?;
    let usual = problem.windows.iter().map(|[from, to]| to - from).max()?;
    let opens = problem.windows.iter().map(|[from, _]| from.rem_euclid(1440)).min()?;
    let shut = (0..problem.days).rev().filter_map(|day| {
        let from = (1440 * day + opens).max(event.now);
        let to = (1440 * day + opens + usual).min(problem.horizon);
        let is_open = problem.windows.iter().any(|[a, b]| *a < to && from < *b);
        (from < to && from < last && !is_open).then_some([from, to])
    });
    let early = problem.windows.iter().rev().filter_map(|[from, _]| {
        let before = problem.windows.iter().map(|own| own[1]).filter(|end| end <= from).max().unwrap_or(0);
        let earlier = (from - OVERTIME_MIN).max(before).max(event.now);
        (earlier < *from && *from < last).then_some([earlier, *from])
    });
    let tried: Vec<[i32; 2]> = early.take(2).chain(shut.take(2)).collect();
    for [from, to] in tried {
        let open = open_too(problem, [from, to]);
        let found = replan_within(&open, &plan.start, event, Level::Repair, CURE_ROUNDS, &patient);
        if found.level > Level::Repair {
            continue;
        }
        let within = (0..problem.steps.len())
            .filter(|step| problem.steps[*step].kind != Kind::Serve)
            .filter_map(|step| Some((found.start[step]?, problem.steps[step].dur)))
            .filter(|(at, lasts)| from < at + lasts && *at < to);
        let (first, end) = within.fold((to, from), |(first, end), (at, lasts)| {
            (first.min(at.max(from)), end.max((at + lasts).min(to)))
        });
        if first >= end {
            continue;
        }
        let [first, end] = [first, end].map(|minute| days.wall(minute));
        return Some(Cure::of(format!(
            "Working on {} from {} to {}.",
            first.strftime("%A"),
            first.strftime("%H:%M"),
            end.strftime("%H:%M")
        )));
    }
    None
}

/// The kitchen open for a stretch more, with everybody there.
fn open_too(problem: &Problem, more: [i32; 2]) -> Problem {
    let mut open = problem.clone();
    let was: Vec<Vec<[i32; 2]>> = open.cooks.iter().map(|own| own.hours.clone()).collect();
    open.windows.push(more);
    open.windows.sort_unstable();
    open.cooks.iter_mut().for_each(|own| {
        own.hours.push(more);
        own.hours.sort_unstable();
    });
    let hours: Vec<Vec<[i32; 2]>> = open.cooks.iter().map(|own| own.hours.clone()).collect();
    let (was, now) = (fewer(&was, open.horizon), fewer(&hours, open.horizon));
    for own in open.resources.iter_mut().filter(|own| own.id == COOK && !hours.is_empty()) {
        own.less.retain(|less| !was.contains(less));
        own.less.extend(&now);
    }
    open
}
