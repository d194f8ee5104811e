//! Why a step stands where it stands, and how far it can move: no solver, only what is in its way, and what is in the way of
//! that, until something stands that cannot be moved.

use crate::cost::cost;
use crate::net::{Net, OUT};
use crate::push::{Way, push};
use crate::state::State;
use std::collections::VecDeque;

/// What is in the way of a step by one slot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Blocker {
    /// A wait or link to or from another step: its number among waits and links, and that step.
    Lag(usize, usize),
    /// Another step takes the hands or the machine: the resource, and that step.
    Taken(usize, usize),
    /// Its order leaves then.
    Served,
    /// The kitchen is closed.
    Closed,
    /// There is less of something for a while.
    Less(usize),
    /// A shelf is full.
    Full(usize),
    /// Nothing is in its way: the plan would be dearer, by so many points.
    Dearer(i64),
    /// Nothing is in its way, and nothing would be lost.
    Free,
}

impl Blocker {
    /// The step that causes it; none for what cannot be moved.
    pub fn step(self) -> Option<usize> {
        match self {
            Blocker::Lag(_, step) | Blocker::Taken(_, step) => Some(step),
            _ => None,
        }
    }
}

/// A link of a chain: this step cannot move for this reason.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Held {
    /// The step.
    pub step: usize,
    /// What is in its way.
    pub by: Blocker,
}

/// A plan that stands, to be asked about.
pub struct Standing<'a> {
    state: State<'a>,
    points: i64,
}

impl<'a> Standing<'a> {
    /// Of starts in slots.
    pub fn of(net: &'a Net, start: &[i32]) -> Standing<'a> {
        let mut state = State::new(net);
        state.restore(start);
        Standing { points: cost(net, start).points, state }
    }

    /// What is in the way of a step by one slot; what would be lost when nothing is.
    pub fn blockers(&mut self, step: usize, way: Way) -> Vec<Blocker> {
        let net = self.state.net;
        let at = self.state.start[step];
        if at == OUT {
            return Vec::new();
        }
        if self.state.pinned[step] {
            return vec![Blocker::Served];
        }
        let by = if way == Way::Later { 1 } else { -1 };
        let (to, dur) = (at + by, net.nodes[step].dur);
        let mut all = Vec::new();
        if to < 0 || to + dur > net.slots || net.open[to as usize] < dur {
            return vec![Blocker::Closed];
        }
        let end = to + dur;
        for at in net.out[step].iter().chain(&net.into[step]) {
            let arc = &net.arcs[*at];
            let (other, lag) = match arc.from == step {
                true => (arc.to, self.state.start[arc.to].saturating_sub(end)),
                false => (
                    arc.from,
                    to.saturating_sub(self.state.start[arc.from].saturating_add(net.nodes[arc.from].dur)),
                ),
            };
            if self.state.start[other] != OUT && (lag < arc.min || lag > arc.max) {
                all.push(Blocker::Lag(*at, other));
            }
        }
        // The one slot it would newly take.
        let slot = if way == Way::Later { at + dur } else { at - 1 };
        for (resource, amount) in &net.nodes[step].uses {
            if self.state.free[*resource][slot as usize] < *amount {
                let there = |other: &usize| {
                    let start = self.state.start[*other];
                    start != OUT && start <= slot && slot < start + net.nodes[*other].dur
                };
                let users = net.users[*resource].iter().map(|(other, _)| *other);
                let mut taken: Vec<usize> = users.filter(|other| *other != step && there(other)).collect();
                // Of several at once, the one that is met first.
                taken.sort_by_key(|other| match way {
                    Way::Later => -self.state.start[*other],
                    Way::Earlier => self.state.start[*other] + net.nodes[*other].dur,
                });
                match taken.is_empty() {
                    true => all.push(Blocker::Less(*resource)),
                    false => all.extend(taken.into_iter().map(|other| Blocker::Taken(*resource, other))),
                }
            }
        }
        let otherwise: Vec<usize> = self.state.set_otherwise(step, to).collect();
        if let Some((on, _)) = net.nodes[step].setup {
            all.extend(otherwise.into_iter().map(|other| Blocker::Taken(on, other)));
        }
        if !all.is_empty() {
            return all;
        }
        self.state.lift(step);
        let fits = self.state.fits(step, to);
        if fits {
            self.state.put(step, to);
            let dearer = cost(net, &self.state.start).points - self.points;
            self.state.lift(step);
            all.push(if dearer > 0 { Blocker::Dearer(dearer) } else { Blocker::Free });
        } else {
            let holds = net.out[step].iter().chain(&net.into[step]).flat_map(|arc| &net.arcs[*arc].holds);
            all.extend(holds.map(|(on, _)| Blocker::Full(*on)));
            all.dedup();
        }
        self.state.put(step, at);
        all
    }

    /// Why a step is not earlier or later: from it, along what is in the way, to the nearest thing that cannot be moved. Where
    /// there is none, what it would cost to move the steps that are tied together.
    pub fn why(&mut self, step: usize, way: Way) -> Vec<Held> {
        let n = self.state.net.nodes.len();
        let mut from: Vec<Option<Held>> = vec![None; n];
        let mut seen = vec![false; n];
        let mut queue = VecDeque::from([step]);
        let mut soft = None;
        seen[step] = true;
        while let Some(at) = queue.pop_front() {
            for by in self.blockers(at, way) {
                match by.step() {
                    Some(next) if !seen[next] => {
                        seen[next] = true;
                        from[next] = Some(Held { step: at, by });
                        queue.push_back(next);
                    }
                    Some(_) => {}
                    None if matches!(by, Blocker::Dearer(_) | Blocker::Free) => {
                        soft = soft.or(Some(Held { step: at, by }));
                    }
                    None => return chain(&from, Held { step: at, by }),
                }
            }
        }
        match soft {
            Some(end) => chain(&from, end),
            None => {
                // They are tied in a ring: they move only together.
                let tied: Vec<usize> = (0..n).filter(|step| seen[*step]).collect();
                vec![Held { step, by: self.together(&tied, way) }]
            }
        }
    }

    fn together(&self, steps: &[usize], way: Way) -> Blocker {
        let mut moved = self.state.start.clone();
        let by = if way == Way::Later { 1 } else { -1 };
        steps.iter().for_each(|step| moved[*step] += by);
        match cost(self.state.net, &moved).points - self.points {
            dearer @ 1.. => Blocker::Dearer(dearer),
            _ => Blocker::Free,
        }
    }

    /// The slots from and to which a step could start, were nothing else moved.
    pub fn anywhere(&mut self, step: usize) -> (i32, i32) {
        let at = self.state.start[step];
        if at == OUT || self.state.pinned[step] {
            return (at, at);
        }
        self.state.lift(step);
        let (low, high) = self.state.bounds(step);
        let mut ends = (at, at);
        while ends.0 > low && self.state.fits(step, ends.0 - 1) {
            ends.0 -= 1;
        }
        while ends.1 < high && self.state.fits(step, ends.1 + 1) {
            ends.1 += 1;
        }
        self.state.put(step, at);
        ends
    }

    /// Slots a step could be late and what stands after it still be pushed out of the way, at most `most`.
    pub fn give(&mut self, step: usize, most: i32) -> i32 {
        let kept = self.state.start.clone();
        let mut can = 0;
        if kept[step] == OUT {
            return 0;
        }
        for by in 1..=most {
            let pushed = push(&mut self.state, &[(step, kept[step] + by)], Way::Later);
            self.state.restore(&kept);
            if !pushed {
                break;
            }
            can = by;
        }
        can
    }
}

fn chain(from: &[Option<Held>], end: Held) -> Vec<Held> {
    let mut all = vec![end];
    while let Some(before) = from[all[all.len() - 1].step] {
        all.push(before);
    }
    all.reverse();
    all
}
