//! A plan in the making: where each step stands, and what is left of every resource in every slot.

use crate::net::{LONG, Net, OUT};

/// Whether a step has room at a slot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Room {
    /// It has.
    Here,
    /// It has none between this slot and the one asked for, this one left out.
    Before(i32),
    /// It has none there and nowhere earlier.
    NoneBefore,
}

/// Starts and what they take.
#[derive(Debug, Clone)]
pub struct State<'a> {
    /// The problem.
    pub net: &'a Net,
    /// Where each step starts; [`OUT`] while it does not.
    pub start: Vec<i32>,
    /// What is left of each resource in each slot.
    pub free: Vec<Vec<i32>>,
    /// How much more is taken than there is, over all slots.
    pub over: i64,
    /// For each slot, slots to the end of the opening hours that may be used.
    pub open: Vec<i32>,
    /// Steps on each resource with setups.
    setups: Vec<(usize, Vec<usize>)>,
    /// Steps that stay where they are.
    pub pinned: Vec<bool>,
    /// Nothing that is still to do starts before this slot.
    pub not_before: i32,
}

impl<'a> State<'a> {
    /// Nothing placed but the servings and what stands already.
    pub fn new(net: &'a Net) -> State<'a> {
        let mut setups: Vec<(usize, Vec<usize>)> = Vec::new();
        for (step, node) in net.nodes.iter().enumerate() {
            if let Some((on, _)) = node.setup {
                match setups.iter_mut().find(|(own, _)| *own == on) {
                    Some((_, steps)) => steps.push(step),
                    None => setups.push((on, vec![step])),
                }
            }
        }
        let mut state = State {
            net,
            start: vec![OUT; net.nodes.len()],
            free: net.caps.clone(),
            over: 0,
            open: net.open.clone(),
            setups,
            pinned: net.nodes.iter().map(|node| node.fixed.or(node.stands).is_some()).collect(),
            not_before: net.not_before,
        };
        for (step, node) in net.nodes.iter().enumerate() {
            if let Some(at) = node.fixed.or(node.stands) {
                state.put(step, at);
            }
        }
        if net.nodes.iter().any(|node| node.stands.is_some()) {
            state.forgive();
        }
        state
    }

    fn take(&mut self, resource: usize, from: i32, to: i32, amount: i32) {
        let (from, to) = (from.clamp(0, self.net.slots), to.clamp(0, self.net.slots));
        if from >= to {
            return;
        }
        let mut over = 0;
        for left in &mut self.free[resource][from as usize..to as usize] {
            let before = (-*left).max(0);
            *left -= amount;
            over += (-*left).max(0) - before;
        }
        self.over += i64::from(over);
    }

    /// Takes or gives back what a step and the waits between it and what stands take.
    fn count(&mut self, step: usize, at: i32, sign: i32) {
        let net = self.net;
        let node = &net.nodes[step];
        for (resource, amount) in &node.uses {
            self.take(*resource, at, at + node.dur, sign * amount);
        }
        for arc in &net.out[step] {
            let arc = &net.arcs[*arc];
            if !arc.holds.is_empty() && self.start[arc.to] != OUT {
                let until = self.start[arc.to];
                arc.holds.iter().for_each(|(on, amount)| self.take(*on, at + node.dur, until, sign * amount));
            }
        }
        for arc in &net.into[step] {
            let arc = &net.arcs[*arc];
            if !arc.holds.is_empty() && self.start[arc.from] != OUT {
                let since = self.start[arc.from] + net.nodes[arc.from].dur;
                arc.holds.iter().for_each(|(on, amount)| self.take(*on, since, at, sign * amount));
            }
        }
    }

    /// Puts a step at a slot, whether there is room or not.
    pub fn put(&mut self, step: usize, at: i32) {
        debug_assert_eq!(self.start[step], OUT);
        self.count(step, at, 1);
        self.start[step] = at;
    }

    /// Takes a step out again.
    pub fn lift(&mut self, step: usize) {
        let at = self.start[step];
        debug_assert_ne!(at, OUT);
        self.start[step] = OUT;
        self.count(step, at, -1);
    }

    /// The first slot of a stretch in which there is not so much left.
    fn short(&self, resource: usize, from: i32, to: i32, amount: i32) -> Option<i32> {
        let (from, to) = (from.clamp(0, self.net.slots), to.clamp(0, self.net.slots));
        if from >= to {
            return None;
        }
        let left = &self.free[resource][from as usize..to as usize];
        left.iter().position(|left| *left < amount).map(|at| from + at as i32)
    }

    /// Whether a step has room at a slot: the door open, hands, machines, and shelves for the waits between it and what
    /// stands. Lags are not looked at.
    pub fn fits(&self, step: usize, at: i32) -> bool {
        self.room(step, at) == Room::Here
    }

    /// The same, with where to look next towards earlier slots when there is none.
    pub fn room(&self, step: usize, at: i32) -> Room {
        let net = self.net;
        let node = &net.nodes[step];
        if at < self.not_before {
            return Room::NoneBefore;
        }
        if at + node.dur > net.slots || self.open[at as usize] < node.dur {
            return Room::Before(at - 1);
        }
        let end = at + node.dur;
        for (resource, amount) in &node.uses {
            if let Some(slot) = self.short(*resource, at, end, *amount) {
                return Room::Before(slot - node.dur);
            }
        }
        if self.set_otherwise(step, at).next().is_some() {
            return Room::Before(at - 1);
        }
        for arc in net.out[step].iter().map(|arc| &net.arcs[*arc]) {
            let until = self.start[arc.to];
            // The earlier it ends, the longer it stands: a shelf that is full then stays full.
            if until != OUT
                && arc.holds.iter().any(|(on, amount)| self.short(*on, end, until, *amount).is_some())
            {
                return Room::NoneBefore;
            }
        }
        for arc in net.into[step].iter().map(|arc| &net.arcs[*arc]) {
            if self.start[arc.from] == OUT {
                continue;
            }
            let since = self.start[arc.from] + net.nodes[arc.from].dur;
            for (on, amount) in &arc.holds {
                if let Some(slot) = self.short(*on, since, at, *amount) {
                    return Room::Before(slot);
                }
            }
        }
        Room::Here
    }

    /// Steps that stand on the same machine at the same time and need it set otherwise.
    pub fn set_otherwise(&self, step: usize, at: i32) -> impl Iterator<Item = usize> + '_ {
        let node = &self.net.nodes[step];
        let on =
            node.setup.and_then(|(on, to)| Some((&self.setups.iter().find(|(own, _)| *own == on)?.1, to)));
        let end = at + node.dur;
        on.into_iter().flat_map(move |(steps, to)| {
            steps.iter().copied().filter(move |other| {
                let own = &self.net.nodes[*other];
                let start = self.start[*other];
                *other != step
                    && !(node.begun && own.begun)
                    && start != OUT
                    && own.setup.is_some_and(|(_, set)| set != to)
                    && start < end
                    && at < start + own.dur
            })
        })
    }

    /// The slots between which a step must start, by what stands.
    pub fn bounds(&self, step: usize) -> (i32, i32) {
        let net = self.net;
        let (mut low, mut high) = (self.not_before, net.slots - net.nodes[step].dur);
        let cluster = net.apart.cluster(step);
        for other in &net.apart.clusters[cluster] {
            let at = self.start[*other];
            if at == OUT || *other == step {
                continue;
            }
            let after = net.apart(*other, step);
            if after > -LONG {
                low = low.max(at.saturating_add(after));
            }
            let before = net.apart(step, *other);
            if before > -LONG {
                high = high.min(at.saturating_sub(before));
            }
        }
        (low, high)
    }

    /// What is taken beyond what there is by what stands already is so: there is as much as it takes.
    fn forgive(&mut self) {
        self.free.iter_mut().flatten().for_each(|left| *left = (*left).max(0));
        self.over = 0;
    }

    /// Steps that stand nowhere.
    pub fn outside(&self) -> impl Iterator<Item = usize> + '_ {
        self.start.iter().enumerate().filter(|(_, at)| **at == OUT).map(|(step, _)| step)
    }

    /// Puts everything back to where it stood.
    pub fn restore(&mut self, starts: &[i32]) {
        let moved: Vec<usize> = (0..starts.len()).filter(|step| self.start[*step] != starts[*step]).collect();
        for step in &moved {
            if self.start[*step] != OUT {
                self.lift(*step);
            }
        }
        for step in &moved {
            if starts[*step] != OUT {
                self.put(*step, starts[*step]);
            }
        }
    }
}
