//! Can I take this order? An order more is planned into a plan that stands: what it costs, what moves, until when one may say
//! yes; or what it would take.

use crate::day::again::as_was_said;
use crate::day::bend::{Shift, as_it_was, event_of, past_closing, shifts};
use crate::day::document::PlanDocument;
use crate::day::reasons::span;
use crate::day::report::{Report, progress};
use crate::day::seen::DayView;
use crate::day::view::view;
use crate::patience::patient;
use jiff::civil::DateTime;
use plan::cost::cost;
use plan::net::{Net, OUT};
use plan::replan::{Event, Level, Replanned, replan_within};
use serde::Serialize;
use utoipa::ToSchema;

/// Whether an order can be taken.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Taken {
    /// Whether it fits without anything going past a limit.
    pub yes: bool,
    /// In a sentence.
    pub sentence: String,
    /// What it took.
    pub level: Level,
    /// Minutes of hands it takes.
    pub hands_min: i32,
    /// Minutes the kitchen is longer at work for it, over all days.
    pub longer_min: i32,
    /// The latest moment to say yes, on the wall; none where it cannot be taken.
    pub latest: Option<String>,
    /// What moves of what was planned before.
    pub moved: Vec<Shift>,
    /// The plan with it; none when there is none.
    pub plan: Option<PlanDocument>,
    /// How it would look.
    pub view: Option<DayView>,
}

/// What was bent in a plan, in a problem that was made anew: minutes of steps, what there is less of, what is served later.
fn bent_again(old: &PlanDocument, plan: &mut PlanDocument) {
    let keys = old.step_keys();
    for (step, key) in plan.step_keys().iter().enumerate() {
        if let Some(at) = keys.iter().position(|own| own == key) {
            plan.problem.steps[step].dur = old.problem.steps[at].dur;
        }
    }
    as_was_said(old, plan);
    for (order, own) in plan.orders.iter_mut().enumerate() {
        if let Some(at) = old.orders.iter().position(|before| before.key == own.key && own.key.is_some()) {
            plan.problem.orders[order].serve = old.problem.orders[at].serve;
            own.since = old.orders[at].since;
        }
    }
}

/// A plan made anew on top of one that stands: steps that are in both begin where they did before, those begun stay.
///
/// # Arguments
/// * `plan`: the orders compiled from the same first day, without starts.
pub fn onto(old: &PlanDocument, plan: &mut PlanDocument, reports: &[Report], now: i32) -> Event {
    bent_again(old, plan);
    plan.start = old.carried(plan);
    for step in plan.problem.steps.iter().filter(|step| step.kind == plan::problem::Kind::Serve) {
        plan.start[step.id] = Some(plan.problem.orders[step.order].serve);
    }
    let keys = old.step_keys();
    let pinned: Vec<&String> = old.pinned.iter().filter_map(|step| keys.get(*step)).collect();
    let own = plan.step_keys();
    plan.pinned = (0..own.len()).filter(|step| pinned.contains(&&own[*step])).collect();
    let done = progress(plan, reports);
    as_it_was(plan, &done, now);
    event_of(plan, &done, now)
}

/// Rounds each look takes.
const TAKE_ROUNDS: u32 = 2_000;

/// Whether a plan that stands takes an order more.
///
/// # Arguments
/// * `with`: everything compiled with the order as the last; `now`: on the wall.
pub fn take(old: &PlanDocument, mut with: PlanDocument, reports: &[Report], now: DateTime) -> Taken {
    let days = with.days();
    let minute = days.minute(now).clamp(0, with.problem.horizon);
    let order = with.orders.len().saturating_sub(1);
    let name = with.orders.get(order).map_or_else(String::new, |own| own.name.clone());
    let event = onto(old, &mut with, reports, minute);
    let at = |minute: i32, level: Level| {
        let event = Event { now: minute, ..event.clone() };
        replan_within(&with.problem, &with.start, &event, level, TAKE_ROUNDS, &patient)
    };
    let found = at(minute, Level::Later);
    let hands_min = with
        .problem
        .steps
        .iter()
        .filter(|step| step.order == order && step.kind == plan::problem::Kind::Hands);
    let hands_min = hands_min.map(|step| step.dur).sum();
    let yes = found.level <= Level::Repair;
    let latest = yes.then(|| latest(&at, minute, with.problem.orders[order].serve, with.problem.grid_min));
    let said = latest.map(|minute| days.wall(minute));
    if found.level == Level::Nothing {
        return Taken {
            yes: false,
            sentence: format!("No: I found no way to make {name} beside what is planned."),
            level: found.level,
            hands_min,
            longer_min: 0,
            latest: None,
            moved: Vec::new(),
            plan: None,
            view: None,
        };
    }
    let plan = planned(with, &found, &event);
    let seen = view(&plan);
    let longer_min = worked(&plan) - worked(old);
    // Nothing of what is new moves: it had no time before.
    let before = PlanDocument { start: old.carried(&plan), ..plan.clone() };
    let moved: Vec<Shift> =
        shifts(&before, &plan, &[]).into_iter().filter(|own| own.from.is_some()).collect();
    let sentence = sentence(&name, (&plan, &found), (hands_min, longer_min), moved.len(), said, &seen);
    Taken {
        yes,
        sentence,
        level: found.level,
        hands_min,
        longer_min,
        latest: said.map(|wall| wall.to_string()),
        moved,
        view: Some(seen),
        plan: Some(plan),
    }
}

/// A plan with the starts that were found.
pub fn planned(mut plan: PlanDocument, found: &Replanned, event: &Event) -> PlanDocument {
    plan.problem = plan::replan::after(&plan.problem, event);
    for (order, late) in plan.problem.orders.iter_mut().zip(&found.late) {
        order.serve = (order.serve + late).min(plan.problem.horizon);
    }
    plan.start = found.start.clone();
    for step in plan.problem.steps.iter().filter(|step| step.kind == plan::problem::Kind::Serve) {
        plan.start[step.id] = Some(plan.problem.orders[step.order].serve);
    }
    plan.name = plan.its_days();
    plan
}

/// Minutes from the first start to the last end of each day, all together.
fn worked(plan: &PlanDocument) -> i32 {
    let net = Net::of(&plan.problem, false);
    let slots: Vec<i32> =
        plan.start.iter().map(|at| at.map_or(OUT, |at| at.div_euclid(plan.problem.grid_min))).collect();
    i32::try_from(cost(&net, &slots).span_min).unwrap_or(i32::MAX)
}

/// Tries between now and its serving: five halvings.
const HALVINGS: u32 = 5;

/// The latest minute from which it still fits, to within a thirtieth of the time there is.
fn latest(at: &dyn Fn(i32, Level) -> Replanned, now: i32, serve: i32, grid: i32) -> i32 {
    let (mut yes, mut no) = (now, serve);
    for _ in 0..HALVINGS {
        let middle = (yes + (no - yes) / 2) / grid * grid;
        if middle <= yes {
            break;
        }
        if at(middle, Level::Repair).level <= Level::Repair { yes = middle } else { no = middle }
    }
    yes
}

fn sentence(
    name: &str,
    (plan, found): (&PlanDocument, &Replanned),
    (hands, longer): (i32, i32),
    moved: usize,
    latest: Option<DateTime>,
    seen: &DayView,
) -> String {
    let work = match longer {
        ..=0 => "no longer days".to_owned(),
        more => format!("{} longer days", span(more)),
    };
    let moves = match moved {
        0 => "nothing else moves".to_owned(),
        1 => "one other step moves".to_owned(),
        many => format!("{many} other steps move"),
    };
    match (found.level <= Level::Repair, latest) {
        (true, Some(latest)) => format!(
            "Yes: {name} takes {} of hands and {work}, and {moves}. Say yes by {}.",
            span(hands),
            latest.strftime("%a %H:%M")
        ),
        _ => {
            let what = match found.level {
                Level::Overtime => past_closing(plan),
                Level::Quality => {
                    format!("{} kept longer than is good", seen.exceeds.len().max(1))
                }
                _ => format!("a serving {} later", span(found.late_min)),
            };
            format!("Not as it is: {name} would need {what}, and {moves}.")
        }
    }
}
