//! What makes a plan a good one, in points: few days, short ones, no bowl left standing, hands that stay with one thing, nothing
//! older than it need be, and no rush before the serving.

use crate::hand_out::{Handed, hand_out};
use crate::net::{Net, OUT};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Points for a step nobody's hands are there for the whole of.
const NOBODY: i64 = 20_000;

/// The price of a plan, and what it is made of.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = PlanCost)]
pub struct Cost {
    /// All of it, points; without what is not placed.
    pub points: i64,
    /// Days with any work.
    pub days: i64,
    /// From each day's first start to its last end, min.
    pub span_min: i64,
    /// Links that should go on at once and do not.
    pub interruptions: i64,
    /// Points for what is older than it need be.
    pub age: i64,
    /// Times a cook goes on with something else.
    pub switches: i64,
    /// Hands-on minutes in the last hours before their serving, where that is judged.
    pub rush_min: i64,
    /// Steps without a place.
    pub unplaced: i64,
    /// Hands-on steps nobody is there for the whole of.
    pub nobody: i64,
}

/// First start and last end of each kitchen day; nothing on a day when they cross.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Spans {
    all: Vec<(i32, i32)>,
}

impl Spans {
    /// Of all steps that stand somewhere.
    pub fn of(net: &Net, start: &[i32]) -> Spans {
        let mut spans = Spans { all: vec![(i32::MAX, i32::MIN); net.days] };
        for (step, at) in start.iter().enumerate() {
            if *at != OUT && net.nodes[step].fixed.is_none() {
                spans.add(net, step, *at);
            }
        }
        spans
    }

    /// One more step.
    pub fn add(&mut self, net: &Net, step: usize, at: i32) {
        let own = &mut self.all[net.day[at as usize]];
        *own = (own.0.min(at), own.1.max(at + net.nodes[step].dur));
    }

    /// Points for the days and how long they are.
    pub fn points(&self, net: &Net) -> i64 {
        let worked = self.all.iter().filter(|(from, to)| from < to);
        worked
            .map(|(from, to)| {
                i64::from(net.weights.day_open) + i64::from(to - from) * i64::from(net.weights.span_per_slot)
            })
            .sum()
    }

    /// First start and last end of the day a slot is in.
    pub fn day(&self, net: &Net, slot: i32) -> (i32, i32) {
        self.all[net.day[slot as usize]]
    }

    /// First start and last end of each day with work.
    pub fn worked(&self) -> impl Iterator<Item = (i32, i32)> {
        self.all.iter().copied().filter(|(from, to)| from < to)
    }
}

/// Points for how old something is when it is served, and for hands in the last hours before.
#[inline]
pub fn own_points(net: &Net, step: usize, at: i32) -> i64 {
    let node = &net.nodes[step];
    let end = at + node.dur;
    let age = i64::from(node.age) * i64::from((node.serve - end - node.grace).max(0));
    age + i64::from(net.weights.calm_per_slot) * i64::from(rush(net, step, at))
}

/// Slots of a step's hands in the last hours before its serving.
#[inline]
fn rush(net: &Net, step: usize, at: i32) -> i32 {
    let node = &net.nodes[step];
    if net.weights.calm_per_slot == 0 || !node.hands {
        return 0;
    }
    let from = node.serve - net.weights.calm_min / net.grid;
    (at + node.dur - at.max(from)).clamp(0, node.dur)
}

/// Whether a link that should go on at once does not.
#[inline]
pub fn is_interrupted(net: &Net, arc: usize, start: &[i32]) -> bool {
    let own = &net.arcs[arc];
    let (from, to) = (start[own.from], start[own.to]);
    own.flow && from != OUT && to != OUT && to != from + net.nodes[own.from].dur
}

/// The price of starts, one a step.
pub fn cost(net: &Net, start: &[i32]) -> Cost {
    cost_of(net, start, &hand_out(net, start))
}

/// The price of starts whose hands are handed out.
pub fn cost_of(net: &Net, start: &[i32], handed: &Handed) -> Cost {
    let mut cost = Cost { switches: handed.switches, nobody: handed.nobody, ..Cost::default() };
    let spans = Spans::of(net, start);
    for (from, to) in spans.worked() {
        cost.days += 1;
        cost.span_min += i64::from((to - from) * net.grid);
    }
    let mut own = 0;
    for (step, at) in start.iter().enumerate() {
        if *at == OUT {
            cost.unplaced += 1;
        } else if net.nodes[step].fixed.is_none() {
            own += own_points(net, step, *at);
            cost.rush_min += i64::from(rush(net, step, *at) * net.grid);
        }
    }
    let calm = cost.rush_min / i64::from(net.grid) * i64::from(net.weights.calm_per_slot);
    cost.age = own - calm;
    cost.interruptions = (0..net.arcs.len()).filter(|arc| is_interrupted(net, *arc, start)).count() as i64;
    cost.points = spans.points(net)
        + own
        + cost.interruptions * i64::from(net.weights.interruption)
        + cost.switches * i64::from(net.weights.switch)
        + cost.nobody * NOBODY;
    cost
}
