//! A day under way planned again: what was begun and done stays as it was, what was pinned stays, all else is planned from now.

use crate::day::bend::as_it_was;
use crate::day::document::{PlanDocument, PlannedOrder};
use crate::day::reasons::of_what;
use crate::day::report::{Report, progress};
use crate::day::sharing::SharedBatch;
use jiff::civil::DateTime;
use plan::net::Given;
use plan::problem::{Kind, Step};

/// Numbers in the old plan of the orders that go on in a new one.
fn going_on(old: &PlanDocument, orders: &[PlannedOrder], now: DateTime) -> Vec<usize> {
    let goes_on = |own: &PlannedOrder| orders.iter().any(|order| order.goes_on(own, now));
    (0..old.orders.len()).filter(|order| goes_on(&old.orders[*order])).collect()
}

/// Orders that are planned again go on with what was begun of them; the others are made from now on.
///
/// # Returns
/// The first moment of the new plan, on the wall: when the first of what was begun was, or now.
pub fn go_on(old: &PlanDocument, reports: &[Report], orders: &mut [PlannedOrder], now: DateTime) -> DateTime {
    let going = going_on(old, orders, now);
    for own in orders.iter_mut() {
        let before = going.iter().map(|order| &old.orders[*order]).find(|before| own.goes_on(before, now));
        own.since = Some(before.map_or(now, |before| before.since.unwrap_or(old.from)));
    }
    let days = old.days();
    let all = old.problem.steps.iter().zip(progress(old, reports));
    let begun = all.filter(|(step, _)| going.contains(&step.order)).filter_map(|(_, own)| own.begun).min();
    begun.map_or(now, |minute| days.wall(minute).min(now))
}

/// Batches that were begun or pinned, with the orders they are made for: nobody else is promised of them.
pub fn begun_batches(
    old: &PlanDocument,
    reports: &[Report],
    orders: &[PlannedOrder],
    now: DateTime,
) -> Vec<SharedBatch> {
    let place = |order: &usize| orders.iter().position(|own| own.goes_on(&old.orders[*order], now));
    let begun = progress(old, reports);
    let stays = |step: &&Step| begun[step.id].begun.is_some() || old.pinned.contains(&step.id);
    let mut all: Vec<SharedBatch> = Vec::new();
    for step in old.problem.steps.iter().filter(|step| step.kind != Kind::Serve).filter(stays) {
        let before = old.orders_of(step.id);
        let now: Vec<usize> = before.iter().filter_map(place).collect();
        let keys = old.shared.iter().find(|own| own.of == step.comp && own.orders == before);
        // Its steps keep their keys when the order they are counted to is planned no more.
        let named = keys.and_then(|own| own.named.clone()).or_else(|| {
            let first = before.first().filter(|order| place(order).is_none())?;
            old.orders[*first].key.clone()
        });
        let own = SharedBatch { named, ..SharedBatch::of(&step.comp, now) };
        if !own.orders.is_empty() && !all.contains(&own) {
            all.push(own);
        }
    }
    all
}

/// What was said while a plan stood counts in one that was compiled anew: who is away, what is out, which waits were made shorter.
pub fn as_was_said(old: &PlanDocument, plan: &mut PlanDocument) {
    let (days, keys) = (plan.days(), plan.step_keys());
    for gone in &old.gone {
        gone.take_off(&mut plan.problem, &days);
    }
    for quicker in &old.quicker {
        quicker.shorten(&mut plan.problem, &keys);
    }
    plan.gone = old.gone.clone();
    plan.quicker = old.quicker.clone();
}

/// Puts what stands of a plan into one that was compiled anew, for the orders that go on.
///
/// # Arguments
/// * `plan`: compiled, without starts; `now`: on the wall.
///
/// # Returns
/// What stands already. What was begun and is in the plan no more is among its notes.
pub fn standing(old: &PlanDocument, plan: &mut PlanDocument, reports: &[Report], now: DateTime) -> Given {
    let days = plan.days();
    let going = going_on(old, &plan.orders, now);
    let now = days.minute(now).clamp(0, plan.problem.horizon);
    as_was_said(old, plan);
    let carried = old.carried(plan);
    plan.start = carried.clone();
    let done = progress(plan, reports);
    as_it_was(plan, &done, now);
    let keys = old.step_keys();
    let is_pinned = |key: &String| {
        let pinned = old.pinned.iter().filter(|step| going.contains(&old.problem.steps[**step].order));
        pinned.filter_map(|step| keys.get(*step)).any(|own| own == key)
    };
    let own = plan.step_keys();
    plan.pinned = (0..own.len())
        .filter(|step| done[*step].begun.is_none() && is_pinned(&own[*step]))
        .filter(|step| carried[*step].is_some_and(|at| at >= now))
        .collect();
    let stands = (0..own.len()).map(|step| match done[step].begun {
        Some(_) => plan.start[step].map(|at| at.min(now)),
        None => carried[step].filter(|_| plan.pinned.contains(&step)),
    });
    let given = Given { now, stands: stands.collect(), lenient: false };
    let lost = old.problem.steps.iter().zip(progress(old, reports)).filter(|(step, progress)| {
        step.kind != Kind::Serve
            && progress.begun.is_some()
            && going.contains(&step.order)
            && !own.contains(&keys[step.id])
    });
    let lost: Vec<String> = lost.map(|(step, _)| of_what(step)).collect();
    if !lost.is_empty() {
        plan.notes.push(format!(
            "Begun or done, and in this plan no more, since the order, a formula or the kitchen was changed: {}.",
            lost.join("; ")
        ));
    }
    plan.notes.extend(weighed_before(old, plan, &|step| done[step].begun.is_some()));
    given
}

/// How far a weight may be off before it is another batch (assumed).
const AS_WEIGHED: f64 = 0.02;

/// Batches that were begun with another weight than the plan has now, in words: what was done stays done, but it is not enough, or
/// too much.
fn weighed_before(old: &PlanDocument, plan: &PlanDocument, begun: &dyn Fn(usize) -> bool) -> Vec<String> {
    let (before, now) = (old.step_keys(), plan.step_keys());
    let part = |plan: &PlanDocument, step: usize| {
        plan.part_of(step).map(|own| (own.of.clone(), own.weighed_g * f64::from(own.bowls)))
    };
    let mut said: Vec<String> = Vec::new();
    for step in (0..now.len()).filter(|step| begun(*step)) {
        let Some(at) = before.iter().position(|own| *own == now[step]) else { continue };
        if let (Some((of, was)), Some((_, is))) = (part(old, at), part(plan, step)) {
            let words = format!("{of}: begun with {was:.0} g to weigh, and {is:.0} g are wanted now.");
            if (is - was).abs() > AS_WEIGHED * was && !said.contains(&words) {
                said.push(words);
            }
        }
    }
    said
}
