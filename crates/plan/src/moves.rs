//! Seeds of a push, by chance.

use crate::cost::Spans;
use crate::insert::Blocks;
use crate::net::{LONG, OUT};
use crate::push::{Way, push, wedge};
use crate::state::State;
use fastrand::Rng;

/// Slots a single step is moved by.
const BY: [i32; 5] = [1, 2, 3, 6, 12];

/// Pushes something by chance; says whether the plan is still whole.
pub fn shove(state: &mut State, rng: &mut Rng) -> bool {
    match rng.u8(0..100) {
        0..48 => one(state, rng),
        48..76 => closer(state, rng),
        76..95 => shorter(state, rng),
        _ => day_before(state, rng),
    }
}

/// Puts a block that is out where it could stand and pushes aside what does; says whether the plan is whole but for what else is
/// out.
pub fn squeeze(state: &mut State, blocks: &Blocks, rng: &mut Rng) -> bool {
    let out: Vec<usize> = (0..blocks.all.len())
        .filter(|block| blocks.all[*block].iter().all(|step| state.start[*step] == OUT))
        .collect();
    if out.is_empty() {
        return false;
    }
    let steps = &blocks.all[out[rng.usize(0..out.len())]];
    let (low, high) = state.bounds(steps[0]);
    if low > high {
        return false;
    }
    let way = if rng.bool() { Way::Later } else { Way::Earlier };
    wedge(state, steps, rng.i32(low..=high), way)
}

fn any_step(state: &State, rng: &mut Rng) -> Option<usize> {
    let n = state.net.nodes.len();
    (0..8).map(|_| rng.usize(0..n)).find(|step| state.start[*step] != OUT && !state.pinned[*step])
}

fn one(state: &mut State, rng: &mut Rng) -> bool {
    let Some(step) = any_step(state, rng) else { return false };
    let by = BY[rng.usize(0..BY.len())];
    let at = state.start[step];
    match rng.bool() {
        true => push(state, &[(step, at + by)], Way::Later),
        false => at >= by && push(state, &[(step, at - by)], Way::Earlier),
    }
}

/// Pulls the two ends of a lag with slack together.
fn closer(state: &mut State, rng: &mut Rng) -> bool {
    let net = state.net;
    for _ in 0..8 {
        if net.arcs.is_empty() {
            return false;
        }
        let arc = &net.arcs[rng.usize(0..net.arcs.len())];
        let (from, to) = (state.start[arc.from], state.start[arc.to]);
        if from == OUT || to == OUT {
            continue;
        }
        let end = from + net.nodes[arc.from].dur;
        let slack = to - end - arc.min;
        if slack <= 0 || slack >= LONG {
            continue;
        }
        let later = rng.bool() || state.pinned[arc.to];
        return match later {
            true => !state.pinned[arc.from] && push(state, &[(arc.from, from + slack)], Way::Later),
            false => push(state, &[(arc.to, to - slack)], Way::Earlier),
        };
    }
    false
}

/// Puts the first of what an order is worked on in a day, up to a step, among the hours before; what they wait for goes before them.
fn day_before(state: &mut State, rng: &mut Rng) -> bool {
    let net = state.net;
    let Some(step) = any_step(state, rng) else { return false };
    let at = state.start[step];
    let Some((opens, closes)) = net.windows.iter().copied().rfind(|(_, end)| *end <= at) else {
        return false;
    };
    let end = at + net.nodes[step].dur;
    let by = end - rng.i32(opens..closes) - 1;
    let all = rng.bool();
    let since = at - rng.i32(0..=180) / net.grid;
    let goes = |other: usize| {
        let own = state.start[other];
        let with = all
            && net.nodes[other].order == net.nodes[step].order
            && own != OUT
            && own >= since.max(closes)
            && own <= at
            && !state.pinned[other];
        (other == step || with).then(|| (other, (own - by).max(0)))
    };
    let seeds: Vec<(usize, i32)> = (0..net.nodes.len()).filter_map(goes).collect();
    push(state, &seeds, Way::Earlier)
}

/// Makes a day shorter, at its head or its tail.
fn shorter(state: &mut State, rng: &mut Rng) -> bool {
    let net = state.net;
    let days: Vec<(i32, i32)> = Spans::of(net, &state.start).worked().collect();
    if days.is_empty() {
        return false;
    }
    let (first, last) = days[rng.usize(0..days.len())];
    let by = BY[rng.usize(0..BY.len())];
    let head = rng.u8(0..3) < 2;
    let moves = |step: usize| {
        let at = state.start[step];
        let end = at.saturating_add(net.nodes[step].dur);
        match head {
            _ if at == OUT || state.pinned[step] => None,
            true => (at >= first && at < first + by && end <= last).then_some((step, first + by)),
            false => (end <= last && end > last - by && at >= first)
                .then(|| (step, last - by - net.nodes[step].dur)),
        }
    };
    let seeds: Vec<(usize, i32)> = (0..net.nodes.len()).filter_map(moves).collect();
    !seeds.is_empty() && push(state, &seeds, if head { Way::Later } else { Way::Earlier })
}
