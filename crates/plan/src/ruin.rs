//! What is taken out of a plan to be put back better.

use crate::cost::Spans;
use crate::insert::Blocks;
use crate::net::OUT;
use crate::state::State;
use fastrand::Rng;

/// Most blocks taken out at a time.
const MOST_BLOCKS: usize = 24;

/// Blocks to take out, by chance; what is out already is with them.
pub fn ruin(state: &State, blocks: &Blocks, rng: &mut Rng) -> Vec<usize> {
    let out: Vec<usize> = (0..blocks.all.len()).filter(|block| is_out(state, blocks, *block)).collect();
    let mut all = match out.is_empty() || rng.bool() {
        true => any(state, blocks, rng),
        false => room_for(state, blocks, out[rng.usize(0..out.len())], rng),
    };
    all.sort_unstable();
    all.dedup();
    while all.len() > MOST_BLOCKS {
        all.swap_remove(rng.usize(0..all.len()));
    }
    all.extend(out.into_iter().filter(|block| !all.contains(block)).collect::<Vec<_>>());
    all
}

/// Takes blocks out.
pub fn lift(state: &mut State, blocks: &Blocks, taken: &[usize]) {
    for step in taken.iter().flat_map(|block| &blocks.all[*block]) {
        if state.start[*step] != OUT {
            state.lift(*step);
        }
    }
}

fn is_out(state: &State, blocks: &Blocks, block: usize) -> bool {
    blocks.all[block].iter().any(|step| state.start[*step] == OUT)
}

/// Blocks of steps that are so.
fn where_(blocks: &Blocks, is: impl Fn(usize) -> bool) -> Vec<usize> {
    (0..blocks.all.len()).filter(|block| blocks.all[*block].iter().any(|step| is(*step))).collect()
}

fn any(state: &State, blocks: &Blocks, rng: &mut Rng) -> Vec<usize> {
    let net = state.net;
    let n = blocks.all.len();
    let block = rng.usize(0..n);
    let comp = |block: usize| net.nodes[blocks.all[block][0]].comp;
    match rng.u8(0..100) {
        0..20 => {
            let mut all = vec![block];
            if rng.bool() {
                all.push(rng.usize(0..n));
            }
            all
        }
        20..40 => where_(blocks, |step| net.nodes[step].comp == comp(block)),
        40..70 => {
            let from = state.start[blocks.all[block][0]];
            let to = from.saturating_add(rng.i32(30..=240) / net.grid);
            let order = rng.bool().then(|| net.nodes[blocks.all[block][0]].order);
            where_(blocks, |step| {
                let at = state.start[step];
                at != OUT && at >= from && at < to && order.is_none_or(|own| net.nodes[step].order == own)
            })
        }
        70..85 => {
            let days: Vec<(i32, i32)> = Spans::of(net, &state.start).worked().collect();
            if days.is_empty() {
                return vec![block];
            }
            let (first, last) = days[rng.usize(0..days.len())];
            let by = rng.i32(10..=130) / net.grid;
            let head = rng.bool();
            where_(blocks, |step| {
                let at = state.start[step];
                at != OUT
                    && match head {
                        true => at >= first && at < first + by,
                        false => at < last && at + net.nodes[step].dur > last - by,
                    }
            })
        }
        85..95 => {
            let order = net.nodes[blocks.all[block][0]].order;
            let half = rng.bool();
            let mut all = where_(blocks, |step| net.nodes[step].order == order);
            if half {
                all.retain(|_| rng.bool());
            }
            all
        }
        _ => {
            let two = [comp(block), comp(rng.usize(0..n))];
            where_(blocks, |step| two.contains(&net.nodes[step].comp))
        }
    }
}

/// What stands on the same hands, machines and shelves at a slot where a block that is out could stand.
fn room_for(state: &State, blocks: &Blocks, block: usize, rng: &mut Rng) -> Vec<usize> {
    let net = state.net;
    let steps = &blocks.all[block];
    let step = steps[rng.usize(0..steps.len())];
    let (low, high) = state.bounds(step);
    if low > high {
        // Its own neighbours leave it no time.
        let cluster = net.apart.cluster(step);
        let near = &net.apart.clusters[cluster];
        let one = near[rng.usize(0..near.len())];
        return where_(blocks, |other| {
            other == one
                || net
                    .arcs
                    .iter()
                    .any(|arc| (arc.from == step && arc.to == other) || (arc.to == step && arc.from == other))
        });
    }
    let at = rng.i32(low..=high);
    let (from, to) = (at - net.nodes[step].dur, at + 2 * net.nodes[step].dur);
    let takes = |other: usize| {
        let start = state.start[other];
        start != OUT
            && start < to
            && start + net.nodes[other].dur > from
            && net.nodes[other]
                .uses
                .iter()
                .any(|(own, _)| net.nodes[step].uses.iter().any(|(on, _)| on == own))
    };
    let held = |other: usize| {
        let shelves = |step: usize| {
            net.out[step]
                .iter()
                .chain(&net.into[step])
                .flat_map(|arc| &net.arcs[*arc].holds)
                .map(|(on, _)| *on)
        };
        net.out[other].iter().map(|arc| &net.arcs[*arc]).any(|arc| {
            let (since, until) = (state.start[arc.from], state.start[arc.to]);
            since != OUT
                && until != OUT
                && since < to
                && until > from
                && arc.holds.iter().any(|(on, _)| shelves(step).any(|own| own == *on))
        })
    };
    let by_shelf = rng.bool();
    where_(blocks, |other| takes(other) || (by_shelf && held(other)))
}
