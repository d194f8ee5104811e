//! Putting steps back, from the serving backwards: in blocks that belong together, each at the slot where the plan stays
//! cheapest.

use crate::cost::{Spans, is_interrupted, own_points};
use crate::net::{LONG, Net, OUT};
use crate::state::{Room, State};
use fastrand::Rng;

/// Steps tied by a lag with no more slack than this are moved as one, min.
const TIED_MIN: i32 = 30;
/// Most places tried for the steps of a block round its last one.
const MOST_NODES: u32 = 200;

/// Steps that are moved as one.
#[derive(Debug, Clone)]
pub struct Blocks {
    /// Steps of each block, the last one first, then backwards.
    pub all: Vec<Vec<usize>>,
    /// Blocks that come after each.
    after: Vec<Vec<usize>>,
}

impl Blocks {
    /// Of a problem, without the steps that stay where they are.
    pub fn of(net: &Net, pinned: &[bool]) -> Blocks {
        let n = net.nodes.len();
        let mut of: Vec<usize> = (0..n).collect();
        for arc in &net.arcs {
            let stays = pinned[arc.from] || pinned[arc.to];
            if !stays && arc.max < LONG && (arc.max - arc.min) * net.grid <= TIED_MIN {
                let (one, two) = (of[arc.from], of[arc.to]);
                of.iter_mut().filter(|own| **own == two).for_each(|own| *own = one);
            }
        }
        let mut all: Vec<Vec<usize>> = vec![Vec::new(); n];
        for step in (0..n).filter(|step| !pinned[*step]) {
            all[of[step]].push(step);
        }
        all.retain(|steps| !steps.is_empty());
        for steps in &mut all {
            // How many of the others must come before it.
            let behind = |step: &usize| steps.iter().filter(|other| net.apart(**other, *step) >= 0).count();
            let mut sorted = steps.clone();
            sorted.sort_by_key(|step| (std::cmp::Reverse(behind(step)), std::cmp::Reverse(*step)));
            *steps = sorted;
        }
        let mut of = vec![None; n];
        for (block, steps) in all.iter().enumerate() {
            steps.iter().for_each(|step| of[*step] = Some(block));
        }
        let mut after = vec![Vec::new(); all.len()];
        for arc in &net.arcs {
            if let (Some(from), Some(to)) = (of[arc.from], of[arc.to])
                && from != to
                && !after[from].contains(&to)
            {
                after[from].push(to);
            }
        }
        Blocks { all, after }
    }

    /// Blocks that come after one.
    pub fn after(&self, block: usize) -> &[usize] {
        &self.after[block]
    }
}

/// How a round of putting back is done.
#[derive(Debug, Clone, Copy)]
pub struct Mood {
    /// Slots added to how late a block could be, at random: in which order they are put back.
    order: f64,
    /// Points added to a place, at random.
    price: i64,
    /// Share of places not looked at.
    blind: f64,
    /// Every place is looked at, not only those where the price can bend.
    thorough: bool,
}

impl Mood {
    /// No chance in it.
    pub const SOBER: Mood = Mood { order: 0.0, price: 0, blind: 0.0, thorough: false };
    /// No chance in it, and every place looked at.
    pub const THOROUGH: Mood = Mood { thorough: true, ..Mood::SOBER };

    /// One by chance.
    pub fn any(rng: &mut Rng) -> Mood {
        Mood {
            order: [0.0, 6.0, 40.0, 300.0][rng.usize(0..4)],
            price: [0, 30, 150][rng.usize(0..3)],
            blind: if rng.bool() { 0.08 } else { 0.0 },
            thorough: false,
        }
    }
}

/// Puts blocks back, those that have nothing left to be put behind them first, the latest first. Those without room stay out.
pub fn recreate(state: &mut State, blocks: &Blocks, mut pending: Vec<usize>, mood: Mood, rng: &mut Rng) {
    while !pending.is_empty() {
        let mut best: Option<(f64, usize)> = None;
        for ready in [true, false] {
            for (at, block) in pending.iter().enumerate() {
                if ready && blocks.after[*block].iter().any(|after| pending.contains(after)) {
                    continue;
                }
                let anchor = blocks.all[*block][0];
                let late = f64::from(state.bounds(anchor).1) + mood.order * (rng.f64() - 0.5) * 2.0;
                if best.is_none_or(|(own, _)| late > own) {
                    best = Some((late, at));
                }
            }
            if best.is_some() {
                break;
            }
        }
        let Some((_, at)) = best else { return };
        let block = pending.swap_remove(at);
        insert(state, blocks, block, mood, rng);
    }
}

/// A step that is out while a block is put back.
struct Later {
    step: usize,
    /// Slots between which it must start, by what stands without the block.
    low: i32,
    high: i32,
    /// Slots from the start of each step of the block to its own at least, and from its own to that.
    apart: Vec<(i32, i32)>,
}

/// Everything that hangs together with a block and is out while it is put back.
struct Ahead {
    all: Vec<Later>,
}

impl Ahead {
    fn of(state: &State, block: &[usize]) -> Ahead {
        let net = state.net;
        let steps = net.apart.clusters[net.apart.cluster(block[0])].iter();
        let out = steps.filter(|step| state.start[**step] == OUT && !block.contains(step));
        let later = |step: &usize| {
            let (low, high) = state.bounds(*step);
            let apart = block.iter().map(|own| (net.apart(*own, *step), net.apart(*step, *own))).collect();
            Later { step: *step, low, high, apart }
        };
        Ahead { all: out.map(later).collect() }
    }

    /// Adds what is still out at its latest; none when something has no time any more.
    fn price(&self, state: &State, block: &[usize], spans: &mut Spans) -> Option<i64> {
        let net = state.net;
        let mut points = 0;
        for later in &self.all {
            let (mut low, mut high) = (later.low, later.high);
            for (own, (after, before)) in block.iter().zip(&later.apart) {
                let at = state.start[*own];
                if *after > -LONG {
                    low = low.max(at + after);
                }
                if *before > -LONG {
                    high = high.min(at - before);
                }
            }
            let at = net.latest_open(&state.open, high, net.nodes[later.step].dur)?;
            if at < low {
                return None;
            }
            spans.add(net, later.step, at);
            points += own_points(net, later.step, at);
        }
        Some(points)
    }
}

/// Points the links of a block add, those that should go on at once and do not.
fn gaps(state: &State, block: &[usize]) -> i64 {
    let net = state.net;
    let into = block.iter().flat_map(|step| &net.into[*step]);
    // A link inside the block comes in once; of those that leave it only what ends outside.
    let out =
        block.iter().flat_map(|step| &net.out[*step]).filter(|arc| !block.contains(&net.arcs[**arc].to));
    let count = into.chain(out).filter(|arc| is_interrupted(net, **arc, &state.start)).count();
    count as i64 * i64::from(net.weights.interruption)
}

/// Puts a block where the plan stays cheapest, the latest such place; leaves it out when there is no room.
pub fn insert(state: &mut State, blocks: &Blocks, block: usize, mood: Mood, rng: &mut Rng) -> bool {
    let steps = &blocks.all[block];
    let net = state.net;
    let anchor = steps[0];
    let dur = net.nodes[anchor].dur;
    let (low, high) = state.bounds(anchor);
    let ahead = rng.bool().then(|| Ahead::of(state, steps));
    let spans = Spans::of(net, &state.start);
    let before = spans.points(net);
    let mut best: Option<(i64, Vec<i32>)> = None;
    let mut in_a_run = false;
    let mut at = high;
    while at >= low {
        match net.latest_open(&state.open, at, dur) {
            Some(open) if open >= low => {
                in_a_run &= open == at;
                at = open;
            }
            _ => break,
        }
        if best.as_ref().is_some_and(|(points, _)| own_points(net, anchor, at) > *points + mood.price) {
            break;
        }
        match state.room(anchor, at) {
            Room::Here => {}
            Room::Before(next) => {
                in_a_run = false;
                at = next.min(at - 1);
                continue;
            }
            Room::NoneBefore => break,
        }
        let (first, last) = spans.day(net, at);
        let bends = mood.thorough || !in_a_run || at == first || at + dur == last || rng.u8(0..8) == 0;
        in_a_run = true;
        if bends && (mood.blind == 0.0 || rng.f64() >= mood.blind) {
            state.put(anchor, at);
            let mut nodes = 0;
            if place_rest(state, &steps[1..], &mut nodes) {
                let mut own = spans.clone();
                let mut points = gaps(state, steps);
                for step in steps {
                    own.add(net, *step, state.start[*step]);
                    points += own_points(net, *step, state.start[*step]);
                }
                let later = ahead.as_ref().map_or(Some(0), |ahead| ahead.price(state, steps, &mut own));
                if let Some(later) = later {
                    points += later + own.points(net) - before;
                    if mood.price > 0 {
                        points += rng.i64(0..=mood.price);
                    }
                    if best.as_ref().is_none_or(|(least, _)| points < *least) {
                        best = Some((points, steps.iter().map(|step| state.start[*step]).collect()));
                    }
                }
                steps[1..].iter().for_each(|step| state.lift(*step));
            }
            state.lift(anchor);
        }
        at -= 1;
    }
    let Some((_, starts)) = best else { return false };
    steps.iter().zip(starts).for_each(|(step, at)| state.put(*step, at));
    true
}

/// Puts the rest of a block round its last step, each as late as it can; takes all of them out again when one has no room.
fn place_rest(state: &mut State, rest: &[usize], nodes: &mut u32) -> bool {
    let Some((step, rest)) = rest.split_first() else { return true };
    let (low, high) = state.bounds(*step);
    for at in (low..=high).rev() {
        *nodes += 1;
        if *nodes > MOST_NODES {
            return false;
        }
        if state.fits(*step, at) {
            state.put(*step, at);
            if place_rest(state, rest, nodes) {
                return true;
            }
            state.lift(*step);
        }
    }
    false
}
