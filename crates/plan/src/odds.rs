//! How likely a plan is to hold: so many days lived through, with hands, machines and waits that last longer or shorter than was
//! planned.
//!
//! A day is lived as cooks live it: everybody does what comes next on their sheet, not before its time, as soon as what it needs is
//! there. Seeded: the same plan has the same odds twice.

use crate::hand_out::hand_out;
use crate::net::{Net, OUT};
use crate::problem::{COOK, Kind, Problem};
use fastrand::Rng;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How much things vary: standard deviation of the logarithm of what they last (assumed: hands a fifth, a machine a twentieth).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// Of hands.
    pub hands: f64,
    /// Of a machine alone.
    pub machine: f64,
    /// Of the least of a wait that has a place: a cooling, a setting.
    pub wait: f64,
}

impl Default for Spread {
    fn default() -> Self {
        Spread { hands: 0.2, machine: 0.05, wait: 0.12 }
    }
}

/// How an order fares.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[schema(as = PlanOdds)]
pub struct Odds {
    /// Its number.
    pub order: usize,
    /// Days of all on which it was ready in time.
    pub in_time: u32,
    /// How late it was on a bad day, one in twenty worse, min; 0 when it was ready.
    pub bad_day_min: i32,
    /// What was to blame on the days it was late: a step, with how many of those days; the worst three.
    pub blame: Vec<Blame>,
}

/// What is to blame for lateness.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = PlanBlame)]
pub struct Blame {
    /// Number of the step that lasted longer, or of the one that what stood too long came from.
    pub step: usize,
    /// Number of the wait, where it was one.
    pub wait: Option<usize>,
    /// On how many days.
    pub days: u32,
}

/// What held a step up.
#[derive(Debug, Clone, Copy)]
enum By {
    Plan,
    Wait(usize),
    Step(usize),
}

/// Lives through days.
///
/// # Arguments
/// * `start`: minutes, one a step; `spread_of`: for each wait its own spread, where it is known; `from`: what begins before it went
///   as planned.
pub fn odds(
    problem: &Problem,
    start: &[Option<i32>],
    spread: Spread,
    days: u32,
    seed: u64,
    from: i32,
) -> Vec<Odds> {
    let net = Net::of(problem, false);
    let slots: Vec<i32> =
        start.iter().map(|at| at.map_or(OUT, |at| at.div_euclid(problem.grid_min))).collect();
    let handed = hand_out(&net, &slots);
    let planned: Vec<i32> = start.iter().map(|at| at.unwrap_or(0)).collect();
    let mut order: Vec<usize> = (0..planned.len()).filter(|step| start[*step].is_some()).collect();
    order.sort_by_key(|step| (planned[*step], problem.steps[*step].kind == Kind::Serve, *step));
    // What comes to each step.
    let mut into: Vec<Vec<(usize, i32, Option<usize>)>> = vec![Vec::new(); planned.len()];
    for (at, wait) in problem.waits.iter().enumerate() {
        into[wait.to].push((wait.from, wait.min, Some(at)));
    }
    for link in &problem.links {
        into[link.to].push((link.from, link.min, None));
    }
    let mut rng = Rng::with_seed(seed);
    let mut late: Vec<Vec<i32>> = vec![Vec::new(); problem.orders.len()];
    let mut blames: Vec<Vec<Blame>> = vec![Vec::new(); problem.orders.len()];
    let mut at = vec![0.0f64; planned.len()];
    let mut lasts = vec![0.0f64; planned.len()];
    let mut held = vec![By::Plan; planned.len()];
    let mut stood: Vec<f64> = vec![0.0; problem.waits.len()];
    for _ in 0..days {
        for (wait, own) in problem.waits.iter().zip(&mut stood) {
            let varies = !wait.r#use.is_empty() && wait.min > 0;
            *own = f64::from(wait.min) * if varies { longer(&mut rng, spread.wait) } else { 1.0 };
        }
        let mut free_at = vec![(f64::NEG_INFINITY, 0usize); net.cooks.len().max(problem.steps.len())];
        let mut on: Vec<Vec<(f64, i32, usize)>> = vec![Vec::new(); problem.resources.len()];
        for step in &order {
            let own = &problem.steps[*step];
            let by = match own.kind {
                Kind::Hands => longer(&mut rng, spread.hands),
                Kind::Machine => longer(&mut rng, spread.machine),
                Kind::Serve => 1.0,
            };
            let past = planned[*step] < from;
            lasts[*step] = f64::from(own.dur) * if past { 1.0 } else { by };
            let mut begins = f64::from(planned[*step]);
            held[*step] = By::Plan;
            for (before, min, wait) in &into[*step] {
                let lag = wait.map_or(f64::from(*min), |wait| stood[wait]);
                let there = at[*before] + lasts[*before] + lag;
                if there > begins && !past {
                    begins = there;
                    held[*step] = wait.map_or(By::Step(*before), By::Wait);
                }
            }
            if own.kind == Kind::Serve {
                at[*step] = begins;
                continue;
            }
            if let (Some(cook), false) = (handed.cook[*step], past) {
                let (free, by) = free_at[cook];
                if free > begins {
                    begins = free;
                    held[*step] = By::Step(by);
                }
            }
            for (resource, stock) in problem.resources.iter().enumerate() {
                let Some(amount) = own.r#use.get(&stock.id).filter(|_| stock.id != COOK && !past) else {
                    continue;
                };
                // Until enough of it is free.
                loop {
                    let busy: i32 =
                        on[resource].iter().filter(|(end, _, _)| *end > begins).map(|own| own.1).sum();
                    if busy + amount <= stock.cap {
                        break;
                    }
                    let next = on[resource]
                        .iter()
                        .filter(|(end, _, _)| *end > begins)
                        .min_by(|a, b| a.0.total_cmp(&b.0));
                    let Some((end, _, by)) = next.copied() else { break };
                    begins = end;
                    held[*step] = By::Step(by);
                }
            }
            at[*step] = begins;
            let end = begins + lasts[*step];
            if let Some(cook) = handed.cook[*step] {
                free_at[cook] = (end, *step);
            }
            for (resource, stock) in problem.resources.iter().enumerate() {
                if let Some(amount) = own.r#use.get(&stock.id).filter(|_| stock.id != COOK) {
                    on[resource].push((end, *amount, *step));
                }
            }
        }
        for step in order.iter().filter(|step| problem.steps[**step].kind == Kind::Serve) {
            let own = problem.steps[*step].order;
            let by = (at[*step] - f64::from(planned[*step])).ceil() as i32;
            late[own].push(by.max(0));
            if by > 0
                && let Some(blame) = to_blame(problem, *step, &held, &lasts, &stood)
            {
                match blames[own].iter_mut().find(|own| (own.step, own.wait) == blame) {
                    Some(known) => known.days += 1,
                    None => blames[own].push(Blame { step: blame.0, wait: blame.1, days: 1 }),
                }
            }
        }
    }
    let orders = late.into_iter().zip(blames).enumerate();
    orders
        .map(|(order, (mut late, mut blame))| {
            late.sort_unstable();
            blame.sort_by_key(|own| (std::cmp::Reverse(own.days), own.step));
            blame.truncate(3);
            let bad = late.get((late.len() * 19) / 20).copied().unwrap_or(0);
            Odds {
                order,
                in_time: late.iter().filter(|by| **by == 0).count() as u32,
                bad_day_min: bad,
                blame,
            }
        })
        .collect()
}

/// A factor whose logarithm is normal, with a median of one.
fn longer(rng: &mut Rng, spread: f64) -> f64 {
    // Box and Muller 1958, from memory.
    let (one, two) = (1.0 - rng.f64(), rng.f64());
    let normal = (-2.0 * one.ln()).sqrt() * (std::f64::consts::TAU * two).cos();
    (spread * normal).exp()
}

/// Back along what held each step up: what lasted longer than planned by the most.
fn to_blame(
    problem: &Problem,
    serve: usize,
    held: &[By],
    lasts: &[f64],
    stood: &[f64],
) -> Option<(usize, Option<usize>)> {
    let mut worst: Option<(f64, (usize, Option<usize>))> = None;
    let mut tell = |by: f64, what: (usize, Option<usize>)| {
        if by > 0.0 && worst.is_none_or(|(most, _)| by > most) {
            worst = Some((by, what));
        }
    };
    let mut at = serve;
    for _ in 0..problem.steps.len() {
        let before = match held[at] {
            By::Plan => break,
            By::Wait(wait) => {
                let own = &problem.waits[wait];
                tell(stood[wait] - f64::from(own.min), (own.from, Some(wait)));
                own.from
            }
            By::Step(step) => step,
        };
        tell(lasts[before] - f64::from(problem.steps[before].dur), (before, None));
        at = before;
    }
    worst.map(|(_, what)| what)
}
