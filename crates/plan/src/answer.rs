//! A problem's plan, or why there is none.

use crate::cost::{Cost, cost, cost_of};
use crate::hand_out::hand_out;
use crate::net::{Given, Net, OUT};
use crate::problem::Problem;
use crate::proof::{Because, Ground, Proof, windows};
use crate::search::{Budget, Found, Watch, late, look_on, search};
use crate::state::State;
use serde::Serialize;
use utoipa::ToSchema;

/// Rounds a first whole plan is looked for, by each of the first two seeds.
const PATIENCE: u32 = 20_000;
/// Of the rounds, so many once more from the better of two.
const LOOK_ON: u32 = 4;
/// By each of those after them, when those found none.
const LONG_PATIENCE: u32 = 80_000;
/// How many more seeds.
const MORE_SEEDS: u64 = 6;

/// A plan.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = PlanAnswer)]
pub struct Answer {
    /// Name of the problem.
    pub id: String,
    /// When each step begins, min; none for one without a place.
    pub start: Vec<Option<i32>>,
    /// Points.
    pub cost: i64,
    /// What they are made of.
    pub terms: Cost,
    /// Numbers of steps without a place: while there are any, it is no plan.
    pub unplaced: Vec<usize>,
    /// There is no plan, and that is proved.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub impossible: bool,
    /// Why there is none, or what was given up to have one.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub because: Vec<String>,
    /// What the problem wants held back is held back.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reserve_kept: Option<bool>,
    /// It was called off before it was done looking.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub stopped: bool,
}

impl Answer {
    /// From slots.
    pub fn of(problem: &Problem, net: &Net, found: &Found) -> Answer {
        let handed = hand_out(net, &found.start);
        let terms = cost_of(net, &found.start, &handed);
        let is_out = |step: usize| found.start[step] == OUT;
        // What nobody is there to do is not planned, wherever it stands.
        let nobody = |step: usize| {
            !is_out(step)
                && net.nodes[step].hands
                && handed.cook[step].is_none()
                && !net.is_past(step, found.start[step])
        };
        let all = 0..found.start.len();
        let unplaced: Vec<usize> = all.clone().filter(|step| is_out(*step) || nobody(*step)).collect();
        let names = |is: &dyn Fn(usize) -> bool| {
            let own = all.clone().filter(|step| is(*step)).map(|step| problem.steps[step].name.as_str());
            own.collect::<Vec<_>>().join(", ")
        };
        let mut because = Vec::new();
        if terms.unplaced > 0 {
            because.push(format!("I found no plan; the closest leaves out {}.", names(&is_out)));
        }
        if terms.nobody > 0 {
            because.push(format!(
                "I found no plan in which somebody is there for the whole of {}.",
                names(&nobody)
            ));
        }
        Answer {
            id: problem.id.clone(),
            start: all
                .map(|step| (!unplaced.contains(&step)).then(|| found.start[step] * net.grid))
                .collect(),
            cost: terms.points,
            terms,
            unplaced,
            impossible: false,
            because,
            reserve_kept: None,
            stopped: found.stopped,
        }
    }

    fn impossible(problem: &Problem, because: Vec<String>) -> Answer {
        Answer {
            id: problem.id.clone(),
            start: vec![None; problem.steps.len()],
            cost: 0,
            terms: Cost::default(),
            unplaced: (0..problem.steps.len()).collect(),
            impossible: true,
            because,
            reserve_kept: None,
            stopped: false,
        }
    }

    /// An answer with nothing in it yet.
    pub fn none(problem: &Problem) -> Answer {
        Answer {
            id: problem.id.clone(),
            start: vec![None; problem.steps.len()],
            cost: 0,
            terms: Cost::default(),
            unplaced: Vec::new(),
            impossible: false,
            because: Vec::new(),
            reserve_kept: None,
            stopped: false,
        }
    }

    /// Whether every step has its place.
    pub fn is_whole(&self) -> bool {
        self.unplaced.is_empty()
    }
}

/// Plans a problem without faults.
///
/// # Arguments
/// * `watch`: told how far it is, with every plan that is the first whole one; it goes on for as long as that says so.
pub fn plan(problem: &Problem, budget: Budget, watch: Watch) -> Answer {
    plan_on(problem, &Given::default(), budget, watch)
}

/// Plans the rest of a day under way: what stands already stays. Where there is no plan otherwise, what is begun waits longer than
/// is good for it, and that is said.
pub fn plan_on(problem: &Problem, given: &Given, budget: Budget, watch: Watch) -> Answer {
    let fresh = given.lenient || given.stands.iter().all(Option::is_none);
    let answer = planned(problem, given, budget, if fresh { MORE_SEEDS } else { 0 }, watch);
    if fresh || answer.is_whole() || answer.stopped {
        return answer;
    }
    let lenient = Given { lenient: true, ..given.clone() };
    let mut lenient = planned(problem, &lenient, budget, MORE_SEEDS, watch);
    if !lenient.is_whole() {
        return answer;
    }
    lenient.because.insert(0, "What is begun has to wait longer than is good for it.".to_owned());
    lenient
}

fn planned(problem: &Problem, given: &Given, budget: Budget, more_seeds: u64, watch: Watch) -> Answer {
    let net = Net::given(problem, false, given);
    if let Some(because) = no_plan(problem, &net) {
        return Answer::impossible(problem, because);
    }
    let mut given_up = None;
    if problem.reserve.is_some() {
        let held = Net::given(problem, true, given);
        if no_plan(problem, &held).is_none() {
            let found = both(&held, budget, watch);
            if found.unplaced == 0 || found.stopped {
                return Answer {
                    reserve_kept: Some(true),
                    ..Answer::of(problem, &held, &done(&held, found))
                };
            }
        }
        given_up = Some(
            "There is no plan with anything held back for a day that goes wrong: this one has none to spare.",
        );
    }
    let mut found = both(&net, budget, watch);
    let mut seed = budget.seed + 2;
    while found.unplaced > 0 && !found.stopped && seed < budget.seed + 2 + more_seeds {
        let own = search(&net, seed, LONG_PATIENCE, budget.rounds, watch);
        found = better(found, own);
        seed += 1;
    }
    let mut answer = Answer::of(problem, &net, &done(&net, found));
    if let Some(words) = given_up {
        answer.reserve_kept = Some(false);
        answer.because.push(words.to_owned());
    }
    answer
}

/// Two seeds, each in a thread of its own; then both look on from the better one.
fn both(net: &Net, budget: Budget, watch: Watch) -> Found {
    let found = two(budget.seed, &|seed| search(net, seed, PATIENCE, budget.rounds, watch));
    if found.unplaced > 0 || found.stopped {
        return found;
    }
    let on = two(budget.seed, &|seed| look_on(net, &found, seed, budget.rounds / LOOK_ON, watch));
    better(found, on)
}

/// The same with two seeds at once; the better one.
fn two(seed: u64, run: &(dyn Fn(u64) -> Found + Sync)) -> Found {
    let (one, two) = std::thread::scope(|scope| {
        let other = scope.spawn(|| run(seed + 1));
        (run(seed), other.join())
    });
    match two {
        Ok(two) => better(one, two),
        Err(panic) => std::panic::resume_unwind(panic),
    }
}

fn better(one: Found, two: Found) -> Found {
    let stopped = one.stopped || two.stopped;
    let best = if (two.unplaced, two.points) < (one.unplaced, one.points) { two } else { one };
    Found { stopped, ..best }
}

/// The late pass.
fn done(net: &Net, found: Found) -> Found {
    if found.unplaced > 0 {
        return found;
    }
    let mut state = State::new(net);
    state.restore(&found.start);
    late(&mut state, &|start| cost(net, start).points);
    Found { points: cost(net, &state.start).points, start: state.start, ..found }
}

/// Why there is no plan, where that can be proved.
pub fn no_plan(problem: &Problem, net: &Net) -> Option<Vec<String>> {
    if let Some(circle) = net.apart.contradiction() {
        let names: Vec<&str> = circle.iter().map(|step| problem.steps[*step].name.as_str()).collect();
        return Some(vec![format!(
            "{} contradict one another: the waits between them leave no time.",
            names.join(", ")
        )]);
    }
    let proof = windows(net).err()?;
    Some(said(problem, net, &proof))
}

/// A proof in words.
pub fn said(problem: &Problem, net: &Net, proof: &Proof) -> Vec<String> {
    // What is done first of it.
    let name = |step: usize| problem.steps[step].name.split(';').next().unwrap_or_default().trim();
    let clock = |slot: i32| {
        let minute = slot * net.grid;
        let (day, minute) = (minute.div_euclid(1440), minute.rem_euclid(1440));
        format!("day {} {:02}:{:02}", day + 1, minute / 60, minute % 60)
    };
    let ground = |ground: &Ground, earliest: bool| {
        let bound = if earliest { "not before" } else { "by" };
        let when = format!("{}: {bound} {}", name(ground.step), clock(ground.slot.clamp(0, net.slots)));
        match ground.because {
            Because::Arc(at) => {
                let arc = &net.arcs[at];
                let lag = match problem.waits.get(at) {
                    Some(wait) if !wait.name.is_empty() => wait.name.as_str(),
                    _ => "follows",
                };
                let most = if arc.max < crate::net::LONG {
                    format!(", at most {} min", arc.max * net.grid)
                } else {
                    String::new()
                };
                let least = arc.min * net.grid;
                format!("{when} ({} to {}: {lag} at least {least} min{most})", name(arc.from), name(arc.to))
            }
            Because::Closed => format!("{when} (the kitchen is closed)"),
            Because::Stands if net.nodes[ground.step].begun => format!("{when} (it is begun)"),
            Because::Stands => format!("{when} (its time is fixed)"),
            Because::Ends if earliest && net.not_before > 0 => format!("{when} (it is that late)"),
            Because::Ends => format!("{when} (the days planned)"),
            Because::TooMuch(resource) => {
                format!("{} takes more {} than there is", name(ground.step), problem.resources[resource].id)
            }
        }
    };
    let mut all = vec![format!("There is no time for {}.", name(proof.step))];
    all.extend(proof.earliest.iter().map(|own| ground(own, true)));
    all.extend(proof.latest.iter().map(|own| ground(own, false)));
    all
}
