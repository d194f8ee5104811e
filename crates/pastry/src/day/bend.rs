//! The day bends: a step that lasts longer or failed, a cook gone, a machine out, a step put elsewhere. What was begun stays;
//! what must move is told before anything does.

use crate::day::assembly::is_at_a_cake;
use crate::day::document::PlanDocument;
use crate::day::gone::{Gone, GoneWhat, MOST_GONE};
use crate::day::happened::{BendAsk, Happened};
use crate::day::reasons::{Speaker, of_what, on_the_wall, span};
use crate::day::report::{Progress, progress};
use crate::day::seen::DayView;
use crate::day::shorter::Quicker;
use crate::day::view::view;
use crate::patience::patient;
use plan::problem::{Kind, Problem};
use plan::replan::{Event, Level, OVERTIME_MIN, Replanned, no_plan_after, replan};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A step that moves.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Shift {
    /// Its number.
    pub step: usize,
    /// From, min; none for what had no time.
    pub from: Option<i32>,
    /// To, min.
    pub to: i32,
    /// In words.
    pub words: String,
}

/// A plan that was bent; nothing moves until it is taken.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Bent {
    /// What it took.
    pub level: Level,
    /// In a sentence.
    pub sentence: String,
    /// Why there is none, where that can be proved.
    pub because: Vec<String>,
    /// What moves, in the order of the new times.
    pub moved: Vec<Shift>,
    /// The plan as it would be; none when there is none.
    pub plan: Option<PlanDocument>,
    /// How it would look.
    pub view: Option<DayView>,
}

/// Bends a plan. The question must be without faults.
pub fn bend(ask: &BendAsk) -> Bent {
    let (plan, event, again) = as_asked(ask);
    let found = replan(&plan.problem, &plan.start, &event, Level::Later, &patient);
    told(&ask.plan, plan, &event, &again, found)
}

/// The plan as it is after what happened, what the planner is told of it, and what is made again.
pub(crate) fn as_asked(ask: &BendAsk) -> (PlanDocument, Event, Vec<usize>) {
    let mut plan = ask.plan.clone();
    let days = plan.days();
    let now = days.minute(ask.now).clamp(0, plan.problem.horizon);
    let done = progress(&plan, &ask.reports);
    as_it_was(&mut plan, &done, now);
    let mut event = event_of(&plan, &done, now);
    for step in ask.not_begun.iter().filter(|step| done.get(**step).is_some_and(|own| own.begun.is_none())) {
        plan.start[*step] = plan.start[*step].map(|at| at.max(up(now, &plan.problem)));
    }
    let mut again: Vec<usize> = Vec::new();
    ask.also.iter().for_each(|own| shorter(&mut plan, own));
    match &ask.happened {
        Happened::Late { step, min } => {
            event.late.push(plan::replan::Late { step: *step, min: up(*min, &plan.problem) })
        }
        Happened::Failed { step } => {
            again = made_again(&plan.problem, *step);
            event.begun.retain(|[begun, _]| !again.contains(&(*begun as usize)));
            again.iter().for_each(|step| plan.start[*step] = None);
        }
        Happened::Less { resource, from, to, left } => {
            let what = GoneWhat::Resource { key: resource.clone(), left: *left };
            gone(&mut plan, Gone { what, from: *from, to: *to });
        }
        Happened::Away { cook, from, to } => {
            let what = GoneWhat::Cook { name: plan.problem.cooks[*cook].name.clone() };
            gone(&mut plan, Gone { what, from: *from, to: *to });
        }
        Happened::Moved { step, to } => {
            let grid = plan.problem.grid_min;
            plan.start[*step] = Some((to + grid / 2).div_euclid(grid) * grid);
            if !plan.pinned.contains(step) {
                plan.pinned.push(*step);
                plan.pinned.sort_unstable();
            }
            event.pinned.push(*step);
        }
        Happened::Quicker { quicker } => shorter(&mut plan, quicker),
        Happened::Nothing {} => {}
    }
    (plan, event, again)
}

/// Steps last as long as they did, and what is still going on at least until now.
pub fn as_it_was(plan: &mut PlanDocument, done: &[Progress], now: i32) {
    let grid = plan.problem.grid_min;
    for (step, own) in done.iter().enumerate() {
        let Some(begun) = own.begun.filter(|_| plan.problem.steps[step].kind != Kind::Serve) else {
            continue;
        };
        let begun = begun.max(0).div_euclid(grid) * grid;
        plan.start[step] = Some(begun);
        let planned = plan.problem.steps[step].dur;
        let lasted = match own.done {
            Some(done) => up(done - begun, &plan.problem).max(grid),
            None => planned.max(up(now - begun, &plan.problem)),
        };
        plan.problem.steps[step].dur = lasted.min(10_000);
    }
}

/// Minutes in whole slots, longer rather than shorter.
fn up(minutes: i32, problem: &Problem) -> i32 {
    (f64::from(minutes) / f64::from(problem.grid_min)).ceil() as i32 * problem.grid_min
}

/// What is begun and what stays, as the planner asks for it.
pub fn event_of(plan: &PlanDocument, done: &[Progress], now: i32) -> Event {
    let begun = done.iter().enumerate().filter_map(|(step, own)| {
        let at = own.begun?.min(now).max(0);
        Some([step as i32, at.div_euclid(plan.problem.grid_min) * plan.problem.grid_min])
    });
    Event { now, late: Vec::new(), less: Vec::new(), begun: begun.collect(), pinned: plan.pinned.clone() }
}

/// What is made again when a step failed: at a cake the step alone, otherwise everything before it of the same batch.
pub fn made_again(problem: &Problem, step: usize) -> Vec<usize> {
    let own = &problem.steps[step];
    if is_at_a_cake(&own.name) {
        return vec![step];
    }
    let mut all = vec![step];
    let mut at = 0;
    while let Some(to) = all.get(at).copied() {
        let lags = problem.waits.iter().map(|own| (own.from, own.to));
        let lags = lags.chain(problem.links.iter().map(|own| (own.from, own.to)));
        for (from, _) in lags.filter(|(_, end)| *end == to) {
            let other = &problem.steps[from];
            if other.comp == own.comp && other.order == own.order && !all.contains(&from) {
                all.push(from);
            }
        }
        at += 1;
    }
    all.sort_unstable();
    all
}

/// Makes a wait shorter, and keeps that.
fn shorter(plan: &mut PlanDocument, quicker: &Quicker) {
    let keys = plan.step_keys();
    quicker.shorten(&mut plan.problem, &keys);
    plan.quicker.retain(|own| (&own.from, &own.to) != (&quicker.from, &quicker.to));
    plan.quicker.push(quicker.clone());
}

/// Takes it off the problem, and keeps it for when the day is planned again.
fn gone(plan: &mut PlanDocument, gone: Gone) {
    let days = plan.days();
    gone.take_off(&mut plan.problem, &days);
    if plan.gone.len() < MOST_GONE && !plan.gone.contains(&gone) {
        plan.gone.push(gone);
    }
}

fn told(
    before: &PlanDocument,
    mut plan: PlanDocument,
    event: &Event,
    again: &[usize],
    found: Replanned,
) -> Bent {
    if found.level == Level::Nothing {
        let days = plan.days();
        let because = no_plan_after(&plan.problem, &plan.start, event).unwrap_or_default();
        let sentence = match because.is_empty() {
            true => "I found no plan that saves every order from here. Nothing was moved.",
            false => "No plan can have that. Nothing was moved.",
        };
        return Bent {
            level: found.level,
            sentence: sentence.to_owned(),
            because: because.iter().map(|words| on_the_wall(words, &days)).collect(),
            moved: Vec::new(),
            plan: None,
            view: None,
        };
    }
    plan.problem = plan::replan::after(&plan.problem, event);
    // What is served later is promised as before: the plan says so.
    for (order, late) in plan.problem.orders.iter_mut().zip(&found.late) {
        order.serve = (order.serve + late).min(plan.problem.horizon);
    }
    for (step, at) in found.start.iter().enumerate() {
        if plan.problem.steps[step].kind != Kind::Serve {
            plan.start[step] = *at;
        }
    }
    for step in plan.problem.steps.iter().filter(|step| step.kind == Kind::Serve) {
        plan.start[step.id] = Some(plan.problem.orders[step.order].serve);
    }
    let moved = shifts(before, &plan, again);
    let seen = view(&plan);
    let sentence = sentence(&plan, &found, &moved, &seen);
    plan.name = plan.its_days();
    Bent { level: found.level, sentence, because: Vec::new(), moved, view: Some(seen), plan: Some(plan) }
}

/// What moves between two plans of the same steps, in the order of the new times.
pub fn shifts(before: &PlanDocument, after: &PlanDocument, again: &[usize]) -> Vec<Shift> {
    let days = after.days();
    let speaker = Speaker { problem: &after.problem, start: &after.start, days: &days };
    let all = after.problem.steps.iter().filter(|step| step.kind != Kind::Serve);
    let mut moved: Vec<Shift> = all
        .filter_map(|step| {
            let to = after.start[step.id]?;
            let from = before.start.get(step.id).copied().flatten();
            let is_again = again.contains(&step.id);
            if !is_again && from.is_some_and(|from| from == to) {
                return None;
            }
            let words = match from {
                Some(_) if is_again => {
                    format!("{}: again at {}", of_what(step), speaker.clock(to, before.start[step.id]?))
                }
                Some(from) => {
                    format!(
                        "{}: {} instead of {}",
                        of_what(step),
                        speaker.clock(to, from),
                        speaker.clock(from, to)
                    )
                }
                None => format!("{}: {}", of_what(step), days.wall(to).strftime("%a %H:%M")),
            };
            Some(Shift { step: step.id, from, to, words })
        })
        .collect();
    moved.sort_by_key(|own| (own.to, own.step));
    moved
}

/// Work past closing, in words: until when.
pub fn past_closing(plan: &PlanDocument) -> String {
    let problem = &plan.problem;
    let open = |at: i32, end: i32| problem.windows.iter().any(|[from, to]| *from <= at && end <= *to);
    let days = plan.days();
    let mut ends: Vec<i32> = problem
        .steps
        .iter()
        .filter(|step| step.kind != Kind::Serve)
        .filter_map(|step| Some((plan.start[step.id]?, plan.start[step.id]? + step.dur)))
        .filter(|(at, end)| !open(*at, *end))
        .map(|(_, end)| end)
        .collect();
    ends.sort_unstable();
    // The last of each evening.
    let last: Vec<i32> = (0..ends.len())
        .filter(|at| ends.get(at + 1).is_none_or(|next| next - ends[*at] > OVERTIME_MIN))
        .map(|at| ends[at])
        .collect();
    let said: Vec<String> =
        last.iter().map(|end| days.wall(*end).strftime("%H:%M on %A").to_string()).collect();
    match said.is_empty() {
        true => "working past closing".to_owned(),
        false => format!("working until {}", said.join(" and ")),
    }
}

fn sentence(plan: &PlanDocument, found: &Replanned, moved: &[Shift], seen: &DayView) -> String {
    let steps = match moved.len() {
        0 => "nothing moves".to_owned(),
        1 => "one step moves".to_owned(),
        many => format!("{many} steps move"),
    };
    match found.level {
        Level::Push | Level::Repair => format!("Every order is still ready in time: {steps}."),
        Level::Overtime => {
            format!("Only by {}: {steps}.", past_closing(plan))
        }
        Level::Quality => format!(
            "Only by keeping {} longer than is good for it: {steps}.",
            match seen.exceeds.len() {
                1 => "one thing".to_owned(),
                many => format!("{many} things"),
            }
        ),
        _ => {
            let late = seen.orders.iter().filter(|own| own.serve > own.promised);
            let said: Vec<String> = late
                .map(|own| format!("{} would leave {} later", own.name, span(own.serve - own.promised)))
                .collect();
            format!("Not in time: {}, and {steps}.", said.join(", "))
        }
    }
}
