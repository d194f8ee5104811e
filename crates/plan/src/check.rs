//! Whether a plan keeps every rule, minute by minute, read from the problem as it is written. It shares nothing with the planner.

use crate::problem::{COOK, Kind, Problem};

/// Which rule is broken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Rule {
    /// Every step has a start.
    Placed,
    /// Starts lie on the grid.
    Grid,
    /// A serving is when it is served.
    Served,
    /// A step lies inside one stretch of opening hours.
    Open,
    /// A wait or link is long enough.
    LongEnough,
    /// A wait or link is short enough.
    ShortEnough,
    /// No more is taken of anything than there is.
    Capacity,
    /// What overlaps on one machine is set the same.
    Setup,
    /// Every step has one pair of hands for the whole of it.
    Hands,
}

/// A rule that is broken, with where.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Broken {
    /// The rule.
    pub rule: Rule,
    /// What and when.
    pub words: String,
}

/// Everything that is wrong with a plan.
///
/// # Arguments
/// * `start`: minutes, one a step.
pub fn check(problem: &Problem, start: &[Option<i32>]) -> Vec<Broken> {
    let mut broken = Vec::new();
    let mut say = |rule: Rule, words: String| broken.push(Broken { rule, words });
    if start.len() != problem.steps.len() || start.iter().any(Option::is_none) {
        say(Rule::Placed, "a step has no start".to_owned());
        return broken;
    }
    let at: Vec<i32> = start.iter().map(|own| own.unwrap_or_default()).collect();
    let end = |step: usize| at[step] + problem.steps[step].dur;
    for (id, step) in problem.steps.iter().enumerate() {
        if step.kind == Kind::Serve {
            if at[id] / problem.grid_min != problem.orders[step.order].serve / problem.grid_min {
                say(Rule::Served, format!("{} at {}", step.name, at[id]));
            }
            continue;
        }
        if at[id] % problem.grid_min != 0 {
            say(Rule::Grid, format!("{} at {}", step.name, at[id]));
        }
        // Stretches that touch are one: the door stays open.
        let is_open = (at[id]..end(id))
            .all(|minute| problem.windows.iter().any(|[from, to]| *from <= minute && minute < *to));
        if !is_open {
            say(Rule::Open, format!("{} from {} to {}", step.name, at[id], end(id)));
        }
    }
    let lags = problem
        .waits
        .iter()
        .map(|wait| (wait.from, wait.to, wait.min, wait.max))
        .chain(problem.links.iter().map(|link| (link.from, link.to, link.min, link.max)));
    for (from, to, min, max) in lags {
        let lag = at[to] - end(from);
        let between = || format!("{} to {}: {lag} min", problem.steps[from].name, problem.steps[to].name);
        if lag < min {
            say(Rule::LongEnough, format!("{}, at least {min}", between()));
        }
        // What cannot be that short on the grid may last one slot.
        if max.is_some_and(|max| lag > max.max(min)) && lag >= problem.grid_min {
            say(Rule::ShortEnough, format!("{}, at most {max:?}", between()));
        }
    }
    for resource in &problem.resources {
        let mut taken: Vec<(i32, i32, i32)> = Vec::new();
        for (id, step) in problem.steps.iter().enumerate() {
            if let Some(amount) = step.r#use.get(&resource.id) {
                taken.push((at[id], end(id), *amount));
            }
        }
        for wait in &problem.waits {
            if let Some(amount) = wait.r#use.get(&resource.id) {
                taken.push((end(wait.from), at[wait.to], *amount));
            }
        }
        // Something can only be too much where something begins, or where there is less from then on.
        let begins = taken.iter().map(|own| own.0).chain(resource.less.iter().map(|own| own[0]));
        let mut worst: Option<(i32, i32, i32)> = None;
        for minute in begins {
            let used: i32 =
                taken.iter().filter(|(from, to, _)| *from <= minute && minute < *to).map(|own| own.2).sum();
            let less = resource.less.iter().filter(|[from, to, _]| *from <= minute && minute < *to);
            let cap = less.map(|own| own[2]).fold(resource.cap, i32::min);
            if used > cap && worst.is_none_or(|(_, over, _)| used - cap > over) {
                worst = Some((minute, used - cap, cap));
            }
        }
        if let Some((minute, over, cap)) = worst {
            say(Rule::Capacity, format!("{} at {minute}: {} of {cap}", resource.id, over + cap));
        }
        if resource.setups {
            setups(problem, &resource.id, &at, &mut say);
        }
    }
    if !problem.cooks.is_empty() && !hands(problem, &at) {
        say(Rule::Hands, "no way to hand the steps out".to_owned());
    }
    broken
}

fn setups(problem: &Problem, resource: &str, at: &[i32], say: &mut impl FnMut(Rule, String)) {
    let on: Vec<usize> = (0..at.len()).filter(|id| problem.steps[*id].r#use.contains_key(resource)).collect();
    for (k, one) in on.iter().enumerate() {
        for two in &on[k + 1..] {
            let (a, b) = (&problem.steps[*one], &problem.steps[*two]);
            let together = at[*one] < at[*two] + b.dur && at[*two] < at[*one] + a.dur;
            if together && a.setup != b.setup && a.setup.is_some() && b.setup.is_some() {
                say(Rule::Setup, format!("{} and {} on {resource}", a.name, b.name));
            }
        }
    }
}

/// Whether the hands-on steps can be handed out to people who are there, can do them and do one at a time: every way is tried.
fn hands(problem: &Problem, at: &[i32]) -> bool {
    let mut steps: Vec<usize> = (0..at.len())
        .filter(|id| {
            problem.steps[*id].kind == Kind::Hands
                && problem.steps[*id].r#use.get(COOK).is_some_and(|n| *n > 0)
        })
        .collect();
    steps.sort_by_key(|id| (at[*id], *id));
    // Who is busy until when; what cannot be finished from there is not tried twice.
    let mut known = std::collections::HashSet::new();
    given(problem, at, &steps, vec![i32::MIN; problem.cooks.len()], &mut known)
}

fn given(
    problem: &Problem,
    at: &[i32],
    steps: &[usize],
    busy: Vec<i32>,
    known: &mut std::collections::HashSet<(usize, Vec<i32>)>,
) -> bool {
    let Some((step, rest)) = steps.split_first() else { return true };
    let (from, own) = (at[*step], &problem.steps[*step]);
    // Whoever is free by now is as free as anybody.
    let now: Vec<i32> = busy.iter().map(|until| (*until).max(from)).collect();
    if !known.insert((steps.len(), now.clone())) {
        return false;
    }
    problem.cooks.iter().enumerate().any(|(cook, who)| {
        let there = (from..from + own.dur)
            .all(|minute| who.hours.iter().any(|[since, until]| *since <= minute && minute < *until));
        let able = own.skill.as_ref().is_none_or(|skill| !who.without.contains(skill));
        if now[cook] > from || !there || !able {
            return false;
        }
        let mut next = now.clone();
        next[cook] = from + own.dur;
        given(problem, at, rest, next, known)
    })
}
