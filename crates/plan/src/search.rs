//! The planner: build a plan from the serving backwards, then take pieces out and put them back, or push them about, and keep
//! what is better, and now and then what is not (simulated annealing, Kirkpatrick et al. 1983; ruin and recreate, Schrimpf et al.
//! 2000; blinks, Christiaens and Vanden Berghe 2020; all from memory).
//!
//! Seeded, and counted in rounds: no clock is read, the same problem is planned the same twice.

use crate::cost::cost;
use crate::insert::{Blocks, Mood, recreate};
use crate::moves::{shove, squeeze};
use crate::net::{Net, OUT, open_of};
use crate::push::{Way, push};
use crate::ruin::{lift, ruin};
use crate::state::State;
use fastrand::Rng;

/// How long to look.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Budget {
    /// Rounds after the first whole plan, for each seed.
    pub rounds: u32,
    /// Seed of the first of two.
    pub seed: u64,
}

impl Default for Budget {
    fn default() -> Self {
        Budget { rounds: 20_000, seed: 3 }
    }
}

impl Budget {
    /// Four times as long.
    pub const LONGER: Budget = Budget { rounds: 80_000, seed: 1 };
}

/// How far it is.
#[derive(Debug, Clone, PartialEq)]
pub struct Progress {
    /// Which of the seeds says so.
    pub seed: u64,
    /// Rounds done since the first whole plan, and of how many.
    pub rounds: [u32; 2],
    /// Steps without a place in the best so far.
    pub unplaced: usize,
    /// The best so far, where it is new: a slot for each step.
    pub better: Option<Vec<i32>>,
}

/// Told how far it is; whether to go on.
pub type Watch<'a> = &'a (dyn Fn(Progress) -> bool + Sync);

/// The best found.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Found {
    /// A slot for each step; [`OUT`] where there is none.
    pub start: Vec<i32>,
    /// Steps without a place.
    pub unplaced: usize,
    /// Points of the rest.
    pub points: i64,
    /// Whether it was called off.
    pub stopped: bool,
}

impl Found {
    fn rank(&self) -> (usize, i64) {
        (self.unplaced, self.points)
    }
}

/// Rounds between two looks at whether to go on.
const LOOK: u32 = 64;
/// Opening hours that are tried in every combination.
const MOST_WINDOWS: usize = 5;
/// Combinations tried of more than that.
const SAMPLED: usize = 32;
/// Combinations kept of those tried.
const KEPT: usize = 24;
/// Slots steps are pushed by at last.
const PUSHES: [i32; 8] = [1, -1, 2, -2, 3, -3, 6, -6];
/// Times the late pass goes over all steps.
const MOST_PASSES: u32 = 50;
/// Price of a step without a place: at first, and at most.
const PRICE: (f64, f64) = (400.0, 20_000.0);

/// What is tried again at last.
enum Again {
    Put(Vec<usize>),
    Push(usize, i32),
}

struct Search<'a> {
    net: &'a Net,
    blocks: Blocks,
    rng: Rng,
    watch: Watch<'a>,
    seed: u64,
    best: Found,
    rounds: [u32; 2],
    looked: u32,
}

/// Looks for a plan by one seed.
///
/// # Arguments
/// * `begin`: a plan to begin with, and what of it stays; `patience`: rounds to look for a first whole plan; `rounds`: to make it
///   better.
pub fn search(net: &Net, seed: u64, patience: u32, rounds: u32, watch: Watch) -> Found {
    let mut search = Search::new(net, &State::new(net).pinned, seed, rounds, watch);
    let mut all = search.begin();
    search.first_whole(&mut all[0], patience, &|start| cost(net, start).points);
    if all.len() > 1 {
        search.windows(&mut all, rounds);
    }
    let mut state = State::new(net);
    state.restore(&search.best.start);
    let left = rounds - search.rounds[0].min(rounds);
    search.anneal(&mut state, left, (80.0, 1.0));
    search.polish(&mut state, &|start| cost(net, start).points);
    search.best
}

/// Looks on from a plan that was found, less boldly.
pub fn look_on(net: &Net, found: &Found, seed: u64, rounds: u32, watch: Watch) -> Found {
    let mut state = State::new(net);
    state.restore(&found.start);
    let mut search = Search::new(net, &state.pinned, seed, rounds, watch);
    search.best = found.clone();
    search.anneal(&mut state, rounds, (40.0, 1.0));
    search.polish(&mut state, &|start| cost(net, start).points);
    search.best
}

/// Makes a plan better whose pinned steps stay, from where it stands.
pub fn mend(state: &mut State, seed: u64, rounds: u32, watch: Watch, price: &dyn Fn(&[i32]) -> i64) -> Found {
    let mut search = Search::new(state.net, &state.pinned, seed, rounds, watch);
    let pending = search.pending(state);
    recreate(state, &search.blocks, pending, Mood::SOBER, &mut search.rng);
    let found = search.found(state, price);
    search.keep(found);
    search.first_whole(state, 2 * rounds, price);
    search.rounds[0] = 0;
    search.anneal_by(state, rounds, (60.0, 1.0), price);
    search.polish(state, price);
    search.best
}

impl<'a> Search<'a> {
    fn new(net: &'a Net, pinned: &[bool], seed: u64, rounds: u32, watch: Watch<'a>) -> Search<'a> {
        let best =
            Found { start: vec![OUT; net.nodes.len()], unplaced: usize::MAX, points: 0, stopped: false };
        let blocks = Blocks::of(net, pinned);
        Search { net, blocks, rng: Rng::with_seed(seed), watch, seed, best, rounds: [0, rounds], looked: 0 }
    }

    fn pending(&self, state: &State) -> Vec<usize> {
        let out = |block: &usize| self.blocks.all[*block].iter().all(|step| state.start[*step] == OUT);
        (0..self.blocks.all.len()).filter(out).collect()
    }

    fn found(&self, state: &State, price: &dyn Fn(&[i32]) -> i64) -> Found {
        let unplaced = state.outside().count();
        Found {
            start: state.start.clone(),
            unplaced,
            points: price(&state.start),
            stopped: self.best.stopped,
        }
    }

    /// Keeps a plan when it is the best; says so.
    fn keep(&mut self, found: Found) {
        if found.rank() < self.best.rank() {
            let first_whole = found.unplaced == 0 && self.best.unplaced > 0;
            self.best = found;
            if first_whole {
                self.tell(true);
            }
        }
    }

    fn tell(&mut self, better: bool) {
        let progress = Progress {
            seed: self.seed,
            rounds: self.rounds,
            unplaced: self.best.unplaced,
            better: better.then(|| self.best.start.clone()),
        };
        self.best.stopped |= !(self.watch)(progress);
    }

    /// Counts a round; whether to go on.
    fn goes_on(&mut self) -> bool {
        self.looked += 1;
        if self.looked.is_multiple_of(LOOK) {
            self.tell(false);
        }
        !self.best.stopped
    }

    /// A plan for all opening hours, then one for each combination of them, the cheapest first.
    fn begin(&mut self) -> Vec<State<'a>> {
        let net = self.net;
        let open = |state: &mut State<'a>, windows: &[(i32, i32)]| state.open = open_of(net.slots, windows);
        let mut whole = State::new(net);
        self.build(&mut whole);
        let mut all: Vec<(usize, i64, State)> = Vec::new();
        let n = net.windows.len();
        let every = (1u64 << n.min(MOST_WINDOWS)) - 1;
        let masks: Vec<u64> = match n {
            0 | 1 => Vec::new(),
            n if n <= MOST_WINDOWS => (1..every).collect(),
            n => (0..SAMPLED).map(|_| self.rng.u64(1..(1 << n.min(60)))).collect(),
        };
        for mask in masks {
            if self.best.stopped {
                break;
            }
            let some: Vec<(i32, i32)> = net
                .windows
                .iter()
                .enumerate()
                .filter(|(at, _)| mask >> at & 1 == 1)
                .map(|(_, own)| *own)
                .collect();
            let mut state = State::new(net);
            open(&mut state, &some);
            self.build(&mut state);
            all.push((state.outside().count(), cost(net, &state.start).points, state));
        }
        all.sort_by_key(|(unplaced, points, _)| (*unplaced, *points));
        all.truncate(KEPT);
        std::iter::once(whole).chain(all.into_iter().map(|(_, _, state)| state)).collect()
    }

    fn build(&mut self, state: &mut State) {
        let pending = self.pending(state);
        recreate(state, &self.blocks, pending, Mood::SOBER, &mut self.rng);
        let found = self.found(state, &|start| cost(state.net, start).points);
        self.keep(found);
    }

    /// Goes on until every step has a place.
    fn first_whole(&mut self, state: &mut State, patience: u32, price: &dyn Fn(&[i32]) -> i64) {
        let mut left = patience;
        while self.best.unplaced > 0 && left > 0 && !self.best.stopped {
            let rounds = left.min(2000);
            left -= rounds;
            self.anneal_by(state, rounds, (80.0, 4.0), price);
        }
        self.rounds[0] = 0;
    }

    /// A fifth of the rounds among the combinations of opening hours, a fifth on a quarter of them.
    fn windows(&mut self, all: &mut Vec<State<'a>>, rounds: u32) {
        for (share, hot, cold) in [(0.2, 100.0, 8.0), (0.2, 60.0, 4.0)] {
            let each = (f64::from(rounds) * share / all.len() as f64) as u32;
            let mut ranked: Vec<(Found, State)> = Vec::new();
            for mut state in all.drain(..) {
                let before = self.best.clone();
                self.best.unplaced = usize::MAX;
                self.anneal(&mut state, each, (hot, cold));
                let mut own = std::mem::replace(&mut self.best, before);
                self.best.stopped |= own.stopped;
                if own.unplaced == usize::MAX {
                    own = self.found(&state, &|start| cost(state.net, start).points);
                }
                state.restore(&own.start);
                self.keep(own.clone());
                ranked.push((own, state));
            }
            ranked.sort_by_key(|(own, _)| own.rank());
            ranked.truncate(ranked.len().div_ceil(4));
            all.extend(ranked.into_iter().map(|(_, state)| state));
        }
    }

    /// Every block put back soberly, alone and with each that follows it, and every step pushed a little either way, for as long
    /// as something gets cheaper.
    fn polish(&mut self, state: &mut State, price: &dyn Fn(&[i32]) -> i64) {
        if self.best.unplaced > 0 {
            return;
        }
        state.restore(&self.best.start);
        let n = self.blocks.all.len();
        let mut again: Vec<Again> = (0..n).map(|block| Again::Put(vec![block])).collect();
        again.extend(
            (0..n).flat_map(|one| self.blocks.after(one).iter().map(move |two| Again::Put(vec![one, *two]))),
        );
        let free = (0..state.start.len()).filter(|step| !state.pinned[*step]);
        again.extend(free.flat_map(|step| PUSHES.map(|by| Again::Push(step, by))));
        let mut better = true;
        while better && !self.best.stopped {
            better = false;
            for own in &again {
                let stood = state.start.clone();
                let whole = match own {
                    Again::Put(blocks) => {
                        lift(state, &self.blocks, blocks);
                        recreate(state, &self.blocks, blocks.clone(), Mood::THOROUGH, &mut self.rng);
                        state.outside().next().is_none()
                    }
                    Again::Push(step, by) => {
                        let way = if *by > 0 { Way::Later } else { Way::Earlier };
                        push(state, &[(*step, (stood[*step] + by).max(0))], way)
                    }
                };
                let points = price(&state.start);
                if whole && points < self.best.points {
                    better = true;
                    self.best = Found { start: state.start.clone(), points, ..self.best.clone() };
                } else {
                    state.restore(&stood);
                }
            }
        }
    }

    fn anneal(&mut self, state: &mut State, rounds: u32, heat: (f64, f64)) {
        let net = self.net;
        self.anneal_by(state, rounds, heat, &|start| cost(net, start).points);
    }

    fn anneal_by(
        &mut self,
        state: &mut State,
        rounds: u32,
        (hot, cold): (f64, f64),
        price: &dyn Fn(&[i32]) -> i64,
    ) {
        if self.blocks.all.is_empty() {
            let found = self.found(state, price);
            return self.keep(found);
        }
        let mut missing = PRICE.0;
        let mut out_for = 0;
        let whole = |points: i64, unplaced: usize, missing: f64| points as f64 + missing * unplaced as f64;
        let mut unplaced = state.outside().count();
        let mut points = price(&state.start);
        let mut kept = state.start.clone();
        let cooling = (cold / hot).powf(1.0 / f64::from(rounds.max(1)));
        let mut heat = hot;
        for _ in 0..rounds {
            if !self.goes_on() {
                return;
            }
            self.rounds[0] = self.rounds[0].saturating_add(1);
            if unplaced > 0 {
                out_for += 1;
                if out_for % 40 == 0 {
                    missing = (missing * 1.25).min(PRICE.1);
                }
            }
            let die = self.rng.u8(0..10);
            let moved = match unplaced > 0 {
                true if die < 3 => squeeze(state, &self.blocks, &mut self.rng),
                true if die < 5 => shove(state, &mut self.rng),
                false if die >= 4 => shove(state, &mut self.rng),
                _ => {
                    let taken = ruin(state, &self.blocks, &mut self.rng);
                    lift(state, &self.blocks, &taken);
                    let mood = Mood::any(&mut self.rng);
                    recreate(state, &self.blocks, taken, mood, &mut self.rng);
                    true
                }
            };
            heat *= cooling;
            if !moved {
                state.restore(&kept);
                continue;
            }
            let now = price(&state.start);
            let out = state.outside().count();
            let dearer = whole(now, out, missing) - whole(points, unplaced, missing);
            if dearer <= 0.0 || self.rng.f64() < (-dearer / heat).exp() {
                (points, unplaced) = (now, out);
                kept.clone_from(&state.start);
                if (out, now) < self.best.rank() {
                    let found = Found { start: kept.clone(), unplaced: out, points: now, stopped: false };
                    self.keep(found);
                }
            } else {
                state.restore(&kept);
            }
        }
    }
}

/// Moves every step later that can be, alone or with those tied to it, and not dearer; the last first. What stands where it stands then does so for a
/// reason.
pub fn late(state: &mut State, price: &dyn Fn(&[i32]) -> i64) {
    let net = state.net;
    for _ in 0..MOST_PASSES {
        let mut order: Vec<usize> =
            (0..net.nodes.len()).filter(|step| state.start[*step] != OUT && !state.pinned[*step]).collect();
        order.sort_by_key(|step| (std::cmp::Reverse(state.start[*step]), *step));
        let mut moved = false;
        for step in order {
            let at = state.start[step];
            let before = price(&state.start);
            state.lift(step);
            let (_, high) = state.bounds(step);
            let mut to = at;
            for slot in at + 1..=high {
                if state.fits(step, slot) {
                    state.put(step, slot);
                    if price(&state.start) <= before {
                        to = slot;
                    }
                    state.lift(step);
                }
            }
            state.put(step, to);
            moved |= to != at;
            if to == at {
                // Steps that are tied together move only together.
                let stood = state.start.clone();
                if push(state, &[(step, at + 1)], Way::Later) && price(&state.start) <= before {
                    moved = true;
                } else {
                    state.restore(&stood);
                }
            }
        }
        if !moved {
            return;
        }
    }
}
