//! What follows from the lags alone: how far apart steps must be, and a recipe that contradicts itself.
//!
//! All pairs of longest ways through the lags (Floyd 1962 and Warshall 1962, from memory), in each cluster of steps that have to do
//! with one another.

use crate::graph::{Arc, LONG, Node};

/// No way from one to the other.
pub const NEVER: i32 = i32::MIN / 4;

/// How far apart the starts of steps must be.
#[derive(Debug, Clone)]
pub struct Distances {
    n: usize,
    /// Cluster of each step.
    cluster: Vec<usize>,
    /// Steps of each cluster.
    pub clusters: Vec<Vec<usize>>,
    /// All pairs.
    between: Vec<i32>,
    /// The first step on the way from one to the other.
    next: Vec<u32>,
}

const NONE: u32 = u32::MAX;

impl Distances {
    /// All of them.
    pub fn of(nodes: &[Node], arcs: &[Arc]) -> Distances {
        let n = nodes.len();
        let clusters = clusters(n, arcs);
        let mut cluster = vec![0; n];
        for (at, steps) in clusters.iter().enumerate() {
            steps.iter().for_each(|step| cluster[*step] = at);
        }
        let mut all =
            Distances { n, cluster, clusters, between: vec![NEVER; n * n], next: vec![NONE; n * n] };
        for step in 0..n {
            all.between[step * n + step] = 0;
        }
        for arc in arcs {
            all.edge(arc.from, arc.to, nodes[arc.from].dur + arc.min);
            if arc.max < LONG {
                all.edge(arc.to, arc.from, -(nodes[arc.from].dur + arc.max));
            }
        }
        for at in 0..all.clusters.len() {
            let steps = all.clusters[at].clone();
            // Servings stand where they stand, so they are apart by exactly that.
            let fixed: Vec<(usize, i32)> =
                steps.iter().filter_map(|step| Some((*step, nodes[*step].fixed?))).collect();
            for (a, at) in &fixed {
                for (b, then) in fixed.iter().filter(|(b, _)| b != a) {
                    all.edge(*a, *b, then - at);
                }
            }
            all.longest_ways(&steps);
        }
        all
    }

    fn edge(&mut self, from: usize, to: usize, least: i32) {
        let at = from * self.n + to;
        if least > self.between[at] {
            self.between[at] = least;
            self.next[at] = to as u32;
        }
    }

    fn longest_ways(&mut self, steps: &[usize]) {
        let n = self.n;
        for through in steps {
            for from in steps {
                let first = self.between[from * n + through];
                if first <= NEVER {
                    continue;
                }
                for to in steps {
                    let then = self.between[through * n + to];
                    // A circle that gains grows without end: it is enough to see that it does.
                    let sum = (first + then).min(LONG);
                    if then > NEVER && sum > self.between[from * n + to] {
                        self.between[from * n + to] = sum;
                        self.next[from * n + to] = self.next[from * n + through];
                    }
                }
            }
        }
    }

    /// Cluster of a step.
    pub fn cluster(&self, step: usize) -> usize {
        self.cluster[step]
    }

    /// Slots from one start to the other at least.
    #[inline]
    pub fn between(&self, from: usize, to: usize) -> i32 {
        self.between[from * self.n + to]
    }

    /// Steps that must come before themselves, in a circle: the recipe contradicts itself. None when it does not.
    pub fn contradiction(&self) -> Option<Vec<usize>> {
        let start = (0..self.n).find(|step| self.between(*step, *step) > 0)?;
        // The way from a step to itself runs into a circle within as many steps as there are.
        let mut way: Vec<usize> = Vec::new();
        let mut at = start;
        loop {
            if let Some(from) = way.iter().position(|step| *step == at) {
                return Some(way[from..].to_vec());
            }
            way.push(at);
            match self.next[at * self.n + start] {
                NONE => return Some(way),
                step => at = step as usize,
            }
        }
    }
}

/// Steps that hang together by lags.
fn clusters(n: usize, arcs: &[Arc]) -> Vec<Vec<usize>> {
    let mut of: Vec<usize> = (0..n).collect();
    fn root(of: &mut [usize], mut at: usize) -> usize {
        while of[at] != at {
            of[at] = of[of[at]];
            at = of[at];
        }
        at
    }
    for arc in arcs {
        let (a, b) = (root(&mut of, arc.from), root(&mut of, arc.to));
        of[a.max(b)] = a.min(b);
    }
    let mut all: Vec<Vec<usize>> = vec![Vec::new(); n];
    for step in 0..n {
        all[root(&mut of, step)].push(step);
    }
    all.retain(|steps| !steps.is_empty());
    all
}
