//! A problem on its grid: slots instead of minutes, numbers instead of names, rounded to the safe side.

pub use crate::graph::{Arc, LONG, Node, OUT};
use crate::lags::{Distances, NEVER};
use crate::problem::{COOK, Class, Kind, Problem, Weights};
use std::collections::{BTreeMap, HashMap};

/// What stands already on a day under way.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Given {
    /// Now, min. What does not stand yet begins no earlier.
    pub now: i32,
    /// Where steps stand, min, by their number: those until now are begun, and no rule between them is asked for any more.
    pub stands: Vec<Option<i32>>,
    /// What is begun may wait longer than is good for it: what is done cannot be undone. Never longer than is safe.
    pub lenient: bool,
}

/// A problem ready to be planned.
#[derive(Debug, Clone)]
pub struct Net {
    /// Minutes of a slot.
    pub grid: i32,
    /// Slots planned.
    pub slots: i32,
    /// Steps.
    pub nodes: Vec<Node>,
    /// Waits, then links.
    pub arcs: Vec<Arc>,
    /// Arcs that leave a step.
    pub out: Vec<Vec<usize>>,
    /// Arcs that come to a step.
    pub into: Vec<Vec<usize>>,
    /// Steps that take something of each resource, with how much.
    pub users: Vec<Vec<(usize, i32)>>,
    /// How much there is of each resource in each slot.
    pub caps: Vec<Vec<i32>>,
    /// Number of the resource that hands are.
    pub cook: Option<usize>,
    /// For each cook and slot, slots from there on that they stay.
    pub cooks: Vec<Vec<i32>>,
    /// Opening hours, from and to, in order, none touching.
    pub windows: Vec<(i32, i32)>,
    /// For each slot, slots from there to the end of its opening hours.
    pub open: Vec<i32>,
    /// Kitchen day of each slot.
    pub day: Vec<usize>,
    /// Kitchen days.
    pub days: usize,
    /// Nothing that does not stand yet begins before this slot.
    pub not_before: i32,
    /// How far apart the steps must be.
    pub apart: Distances,
    /// What a plan is judged by.
    pub weights: Weights,
}

/// Slots from each slot to the end of the window it is in.
pub fn open_of(slots: i32, windows: &[(i32, i32)]) -> Vec<i32> {
    let mut open = vec![0; slots as usize + 1];
    for &(from, to) in windows {
        for slot in from.max(0)..to.min(slots) {
            open[slot as usize] = to.min(slots) - slot;
        }
    }
    open
}

/// Stretches in order, those that touch made one.
fn merged(mut all: Vec<(i32, i32)>) -> Vec<(i32, i32)> {
    all.retain(|(from, to)| from < to);
    all.sort_unstable();
    let mut one: Vec<(i32, i32)> = Vec::new();
    for (from, to) in all {
        match one.last_mut() {
            Some(last) if from <= last.1 => last.1 = last.1.max(to),
            _ => one.push((from, to)),
        }
    }
    one
}

impl Net {
    /// A problem on its grid.
    ///
    /// # Arguments
    /// * `reserve`: whether what the problem holds back is held back.
    pub fn of(problem: &Problem, reserve: bool) -> Net {
        Net::given(problem, reserve, &Given::default())
    }

    /// The same on a day under way.
    pub fn given(problem: &Problem, reserve: bool, given: &Given) -> Net {
        let grid = problem.grid_min;
        let up = |minutes: i32| minutes.div_euclid(grid) + i32::from(minutes.rem_euclid(grid) > 0);
        let down = |minutes: i32| minutes.div_euclid(grid);
        let slots = down(problem.horizon);
        let keys: HashMap<&str, usize> =
            problem.resources.iter().enumerate().map(|(at, own)| (own.id.as_str(), at)).collect();
        let uses = |own: &BTreeMap<String, i32>| -> Vec<(usize, i32)> {
            own.iter()
                .filter(|(_, amount)| **amount > 0)
                .map(|(key, amount)| (keys[key.as_str()], *amount))
                .collect()
        };
        let mut comps: HashMap<(usize, &str), usize> = HashMap::new();
        let mut setups: HashMap<&str, usize> = HashMap::new();
        let nodes: Vec<Node> = problem
            .steps
            .iter()
            .map(|step| {
                let next = comps.len();
                let comp = *comps.entry((step.order, step.comp.as_str())).or_insert(next);
                let serve = down(problem.orders[step.order].serve);
                let on =
                    problem.resources.iter().position(|own| own.setups && step.r#use.contains_key(&own.id));
                let setup = step.setup.as_deref().zip(on).map(|(word, on)| {
                    let next = setups.len();
                    (on, *setups.entry(word).or_insert(next))
                });
                let able =
                    step.skill.as_ref().filter(|_| !problem.cooks.is_empty()).map(|skill| {
                        problem.cooks.iter().map(|cook| !cook.without.contains(skill)).collect()
                    });
                let stands = given.stands.get(step.id).copied().flatten();
                let stands = stands.filter(|_| step.kind != Kind::Serve);
                Node {
                    dur: up(step.dur),
                    fixed: (step.kind == Kind::Serve).then_some(serve),
                    stands: stands.map(down),
                    begun: stands.is_some_and(|at| at <= given.now),
                    hands: step.kind == Kind::Hands && step.r#use.get(COOK).is_some_and(|n| *n > 0),
                    uses: uses(&step.r#use),
                    age: step.age,
                    grace: down(step.grace),
                    order: step.order,
                    comp,
                    serve,
                    setup,
                    able,
                }
            })
            .collect();
        let held = problem.reserve.filter(|_| reserve);
        let tight = |min: i32, max: Option<i32>, to: usize| {
            let most = max.unwrap_or(LONG * grid);
            let room = (most - min) / 2;
            match held {
                Some(held) if problem.steps[to].kind == Kind::Serve => (min + held.serve.min(room), most),
                // Of what must go on almost at once nothing can be held back.
                Some(held) if max.is_some() && most - min >= 4 * grid => (min, most - held.inside.min(room)),
                _ => (min, most),
            }
        };
        // A step that is shorter than its slots leaves what follows it waiting for the rest of them. What may not last as long as
        // a slot goes on at once.
        let lag = |from: usize, min: i32, max: i32| {
            let dur = problem.steps[from].dur;
            let least = up(min);
            (least, down(max - (up(dur) * grid - dur)).min(LONG).max(least))
        };
        let waits = problem.waits.iter().map(|wait| {
            let (least, most) = tight(wait.min, wait.max, wait.to);
            (wait.from, wait.to, lag(wait.from, least, most), uses(&wait.r#use), false, wait.class)
        });
        let links = problem.links.iter().map(|link| {
            let (least, most) = tight(link.min, link.max, link.to);
            (link.from, link.to, lag(link.from, least, most), Vec::new(), link.flow, link.class)
        });
        let arcs: Vec<Arc> = waits
            .chain(links)
            .enumerate()
            .map(|(source, (from, to, (min, max), holds, flow, class))| {
                // Between two steps that were begun it was as it was.
                let was = match (&nodes[from], &nodes[to]) {
                    (one, two) if one.begun && two.begun => two.stands.zip(one.stands),
                    _ => None,
                };
                let was = was.map(|(to, at)| to - at - nodes[from].dur);
                let (min, mut max) = (min.min(was.unwrap_or(min)), max.max(was.unwrap_or(max)));
                if given.lenient && nodes[from].begun && class == Class::Quality {
                    max = LONG;
                }
                Arc { from, to, min, max, holds, flow, class, source }
            })
            .collect();
        let side = |end: fn(&Arc) -> usize| {
            let mut all = vec![Vec::new(); nodes.len()];
            arcs.iter().enumerate().for_each(|(at, arc)| all[end(arc)].push(at));
            all
        };
        let (out, into) = (side(|arc| arc.from), side(|arc| arc.to));
        let mut users = vec![Vec::new(); problem.resources.len()];
        for (step, node) in nodes.iter().enumerate() {
            node.uses.iter().for_each(|(resource, amount)| users[*resource].push((step, *amount)));
        }
        let caps = problem
            .resources
            .iter()
            .map(|own| {
                let mut caps = vec![own.cap; slots as usize + 1];
                for [from, to, cap] in &own.less {
                    for slot in down(*from).max(0)..up(*to).min(slots) {
                        caps[slot as usize] = caps[slot as usize].min(*cap);
                    }
                }
                caps
            })
            .collect();
        let inside = |all: &[[i32; 2]]| {
            merged(all.iter().map(|[from, to]| (up(*from), down(*to).min(slots))).collect())
        };
        let windows = inside(&problem.windows);
        let days_before = |minute: i32| (minute - problem.day_starts).div_euclid(1440) + 1;
        let day: Vec<usize> = (0..=slots).map(|slot| days_before(slot * grid).max(0) as usize).collect();
        let apart = Distances::of(&nodes, &arcs);
        Net {
            grid,
            slots,
            days: day.last().copied().unwrap_or_default() + 1,
            open: open_of(slots, &windows),
            cooks: problem.cooks.iter().map(|cook| open_of(slots, &inside(&cook.hours))).collect(),
            cook: keys.get(COOK).copied(),
            nodes,
            arcs,
            out,
            into,
            users,
            caps,
            windows,
            day,
            not_before: up(given.now),
            apart,
            weights: problem.weights,
        }
    }

    /// Whether nobody's hours are asked of a step any more: it is over, or was begun when nobody was to be there.
    pub fn is_past(&self, step: usize, at: i32) -> bool {
        let node = &self.nodes[step];
        let somebody = || self.cooks.is_empty() || self.cooks.iter().any(|hours| hours[at as usize] > 0);
        node.begun && (at + node.dur <= self.not_before || !somebody())
    }

    /// The latest slot, not after `at`, from which `dur` slots are open; none when there is none.
    pub fn latest_open(&self, open: &[i32], mut at: i32, dur: i32) -> Option<i32> {
        while at >= 0 {
            let left = open[at.min(self.slots) as usize];
            if left >= dur {
                return Some(at);
            }
            // Within a window it must begin earlier by what is missing; outside, before the door closes.
            at -= if left > 0 { dur - left } else { 1 };
        }
        None
    }

    /// The earliest slot, not before `at`, from which `dur` slots are open; none when there is none.
    pub fn earliest_open(&self, open: &[i32], mut at: i32, dur: i32) -> Option<i32> {
        at = at.max(0);
        while at + dur <= self.slots {
            let left = open[at as usize];
            if left >= dur {
                return Some(at);
            }
            at += left.max(1);
        }
        None
    }

    /// Slots from the start of one step to the start of another at least; [`NEVER`] when they have nothing to do with one
    /// another.
    pub fn apart(&self, from: usize, to: usize) -> i32 {
        self.apart.between(from, to)
    }

    /// Whether two steps have to do with one another.
    pub fn tied(&self, from: usize, to: usize) -> bool {
        self.apart.between(from, to) > NEVER || self.apart.between(to, from) > NEVER
    }
}
