//! Moving steps and whatever is in their way, all in one direction and no further than needed.

use crate::net::{LONG, OUT};
use crate::state::State;
use std::collections::VecDeque;

/// Most steps moved by one push.
pub const MOST_MOVES: usize = 120;

/// Which way.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Way {
    /// To later slots.
    Later,
    /// To earlier slots.
    Earlier,
}

/// Moves seeds to their slots and pushes what is in the way: through lags, hands and machines; shelves are only checked. Says
/// whether the plan is whole again; when not, put it back as it was.
pub(crate) fn push(state: &mut State, seeds: &[(usize, i32)], way: Way) -> bool {
    let queue: VecDeque<(usize, i32)> = seeds.iter().copied().collect();
    run(state, queue, way) && seeds.iter().all(|(step, _)| kept(state, *step))
}

/// Puts steps where there is no room for them and pushes what is in their way. Says whether the plan is whole again; when not, put
/// it back as it was.
pub(crate) fn wedge(state: &mut State, steps: &[usize], mut at: i32, way: Way) -> bool {
    let net = state.net;
    let mut queue = VecDeque::new();
    for (k, step) in steps.iter().enumerate() {
        let (low, high) = state.bounds(*step);
        // Those behind the first of them, the last one, stand as late as they can.
        at = if k == 0 { at.clamp(low.min(high), high.max(low)) } else { high };
        let Some(open) = net.latest_open(&state.open, at, net.nodes[*step].dur) else { return false };
        if open < low {
            return false;
        }
        state.put(*step, open);
    }
    for step in steps {
        lags(state, *step, state.start[*step], way, &mut queue);
        if !crowds(state, *step, state.start[*step], way, &mut queue) {
            return false;
        }
    }
    run(state, queue, way) && steps.iter().all(|step| kept(state, *step))
}

/// Pushes to later slots whatever is in the way of what stands, where steps became longer or there is less of something. Says
/// whether the plan is whole again.
pub(crate) fn settle(state: &mut State) -> bool {
    let net = state.net;
    let mut order: Vec<(i32, usize)> =
        state.start.iter().copied().enumerate().map(|(step, at)| (at, step)).collect();
    order.sort_unstable();
    let mut queue = VecDeque::new();
    for (at, step) in order {
        if net.nodes[step].fixed.is_some() || at == OUT {
            continue;
        }
        if !state.pinned[step] && (at < state.not_before || state.open[at as usize] < net.nodes[step].dur) {
            queue.push_back((step, at.max(state.not_before)));
        }
        lags(state, step, at, Way::Later, &mut queue);
        if !crowds(state, step, at, Way::Later, &mut queue) {
            return false;
        }
    }
    run(state, queue, Way::Later) && (0..net.nodes.len()).all(|step| kept(state, step))
}

fn run(state: &mut State, mut queue: VecDeque<(usize, i32)>, way: Way) -> bool {
    let net = state.net;
    let mut moves = 0;
    while let Some((step, to)) = queue.pop_front() {
        let from = state.start[step];
        if from == OUT {
            return false;
        }
        let reached = match way {
            Way::Later => from >= to,
            Way::Earlier => from <= to,
        };
        if reached {
            continue;
        }
        moves += 1;
        if moves > MOST_MOVES || state.pinned[step] {
            return false;
        }
        let dur = net.nodes[step].dur;
        let at = match way {
            Way::Later => net.earliest_open(&state.open, to, dur),
            Way::Earlier => net.latest_open(&state.open, to, dur).filter(|at| *at >= state.not_before),
        };
        let Some(at) = at else { return false };
        state.lift(step);
        state.put(step, at);
        lags(state, step, at, way, &mut queue);
        if !crowds(state, step, at, way, &mut queue) {
            return false;
        }
    }
    state.over == 0
}

/// Whether the lags round a step hold.
fn kept(state: &State, step: usize) -> bool {
    let net = state.net;
    net.out[step].iter().chain(&net.into[step]).all(|arc| {
        let arc = &net.arcs[*arc];
        let (from, to) = (state.start[arc.from], state.start[arc.to]);
        if from == OUT || to == OUT {
            return true;
        }
        let lag = to - from - net.nodes[arc.from].dur;
        arc.min <= lag && lag <= arc.max
    })
}

fn lags(state: &State, step: usize, at: i32, way: Way, queue: &mut VecDeque<(usize, i32)>) {
    let net = state.net;
    let end = at + net.nodes[step].dur;
    for arc in net.out[step].iter().map(|arc| &net.arcs[*arc]) {
        let to = state.start[arc.to];
        match way {
            _ if to == OUT => {}
            Way::Later if to < end + arc.min => queue.push_back((arc.to, end + arc.min)),
            Way::Earlier if arc.max < LONG && to > end + arc.max => queue.push_back((arc.to, end + arc.max)),
            _ => {}
        }
    }
    for arc in net.into[step].iter().map(|arc| &net.arcs[*arc]) {
        let (from, dur) = (state.start[arc.from], net.nodes[arc.from].dur);
        match way {
            _ if from == OUT => {}
            Way::Later if arc.max < LONG && from + dur + arc.max < at => {
                queue.push_back((arc.from, at - dur - arc.max));
            }
            Way::Earlier if from + dur + arc.min > at => queue.push_back((arc.from, at - dur - arc.min)),
            _ => {}
        }
    }
}

/// Pushes who is on the same hands and machines, as many as there are too many; a step that has no room because there is less
/// of something goes on itself.
fn crowds(state: &State, step: usize, at: i32, way: Way, queue: &mut VecDeque<(usize, i32)>) -> bool {
    let net = state.net;
    let node = &net.nodes[step];
    let end = at + node.dur;
    let target = |other: usize| match way {
        Way::Later => (other, end),
        Way::Earlier => (other, at - net.nodes[other].dur),
    };
    let mut pushed: Vec<usize> = Vec::new();
    for other in state.set_otherwise(step, at) {
        pushed.push(other);
        queue.push_back(target(other));
    }
    for (resource, _) in &node.uses {
        let mut slot = at;
        while slot < end {
            let mut short = -state.free[*resource][slot as usize];
            let is_there = |other: usize| {
                let start = state.start[other];
                start != OUT && start <= slot && slot < start + net.nodes[other].dur
            };
            for (other, amount) in &net.users[*resource] {
                if short > 0 && is_there(*other) && pushed.contains(other) {
                    short -= amount;
                }
            }
            if short <= 0 {
                slot += 1;
                continue;
            }
            // The one that is furthest on the way it must go.
            let next = net.users[*resource]
                .iter()
                .map(|(other, _)| *other)
                .filter(|other| is_there(*other) && *other != step && !state.pinned[*other])
                .filter(|other| !pushed.contains(other))
                .max_by_key(|other| match way {
                    Way::Later => state.start[*other],
                    Way::Earlier => -(state.start[*other] + net.nodes[*other].dur),
                });
            match next {
                Some(other) => {
                    pushed.push(other);
                    queue.push_back(target(other));
                }
                None => {
                    let to = match way {
                        Way::Later => slot + 1,
                        Way::Earlier => slot - node.dur,
                    };
                    queue.push_back((step, to));
                    return to >= 0 && to < net.slots;
                }
            }
        }
    }
    true
}
