//! A plan when the day is not as planned: what is done stays done, and as little as possible moves.
//!
//! Level by level: push what is in the way; repair, so that little moves; work past closing time; with consent, quality limits half
//! as long again, or a later serving. A safety limit is never stretched.

use crate::answer::no_plan;
use crate::cost::cost;
pub use crate::event::{Event, Late, Less, after, event_faults};
use crate::insert::Blocks;
use crate::net::{Given, Net, OUT};
use crate::problem::{COOK, Class, Kind, Problem, fewer};
use crate::push::settle;
use crate::search::{Watch, mend};
use crate::state::State;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Points for each slot a step moves, and for one that changes its day (assumed).
const MOVED: (i64, i64) = (5, 40);
/// Rounds a repair looks.
pub const ROUNDS: u32 = 4_000;
/// Past closing time, min.
pub const OVERTIME_MIN: i32 = 120;
/// Latest serving that is looked for, min after its time.
const MOST_LATE_MIN: i32 = 360;

/// What it took to have a plan again.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = PlanLevel)]
pub enum Level {
    /// What was in the way was pushed.
    Push,
    /// Steps were put elsewhere.
    Repair,
    /// Work past closing time.
    Overtime,
    /// Quality limits half as long again.
    Quality,
    /// A later serving.
    Later,
    /// Nothing found.
    Nothing,
}

/// A step that moves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = PlanMove)]
pub struct Move {
    /// Its number.
    pub step: usize,
    /// From, min.
    pub from: i32,
    /// To, min.
    pub to: i32,
}

/// A plan again.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = Replanned)]
pub struct Replanned {
    /// What it took.
    pub level: Level,
    /// When each step begins, min; none for one without a place.
    pub start: Vec<Option<i32>>,
    /// Points.
    pub cost: i64,
    /// What moves.
    pub moved: Vec<Move>,
    /// Numbers of the waits, then links, that last longer than they should.
    pub stretched: Vec<usize>,
    /// How much later the latest is served, min.
    pub late_min: i32,
    /// How much later each order is served, min.
    pub late: Vec<i32>,
}

/// A plan again, from the one that stood.
///
/// # Arguments
/// * `start`: when each step was to begin, min; `consent`: how far it may go without being asked again.
pub fn replan(
    problem: &Problem,
    start: &[Option<i32>],
    event: &Event,
    consent: Level,
    watch: Watch,
) -> Replanned {
    replan_within(problem, start, event, consent, ROUNDS, watch)
}

/// The same with another number of rounds for each repair.
pub fn replan_within(
    problem: &Problem,
    start: &[Option<i32>],
    event: &Event,
    consent: Level,
    rounds: u32,
    watch: Watch,
) -> Replanned {
    let after = after(problem, event);
    let (was, frozen) = as_it_stands(&after, start, event);
    let again = |problem: &Problem, level: Level| {
        // What is asked for least is looked for least long; where it is looked for again and again, shorter still.
        let rounds = match level {
            Level::Push | Level::Repair => rounds,
            Level::Overtime | Level::Quality => rounds / 2,
            _ => rounds / 8,
        };
        let task = Task { problem, was: &was, frozen: &frozen, now: event.now, rounds };
        match level {
            Level::Push => task.push(level),
            Level::Repair => task.repair(level, watch),
            level => task.push(level).or_else(|| task.repair(level, watch)),
        }
    };
    let longer_each = |late: &[i32]| {
        let mut later = after.clone();
        for (order, minutes) in later.orders.iter_mut().zip(late) {
            order.serve = (order.serve + minutes).min(later.horizon);
        }
        overtime(&stretched(&later))
    };
    let all_late = |minutes: i32| -> Vec<i32> {
        let own = after.orders.iter();
        own.map(|order| if order.serve >= event.now { minutes } else { 0 }).collect()
    };
    let longer = |minutes: i32| longer_each(&all_late(minutes));
    let mut levels: Vec<(Level, Problem)> = vec![
        (Level::Push, after.clone()),
        (Level::Repair, after.clone()),
        (Level::Overtime, overtime(&after)),
        (Level::Quality, overtime(&stretched(&after))),
    ];
    levels.retain(|(level, _)| *level <= consent);
    for (level, problem) in &levels {
        if let Some(found) = again(problem, *level) {
            return Replanned { stretched: longer_than(&after, &found.start), ..found };
        }
    }
    if consent >= Level::Later {
        // The least that does it: longer and longer, then between the last two.
        let grid = after.grid_min;
        let (mut no, mut by) = (0, grid);
        let mut found = None;
        while by <= MOST_LATE_MIN {
            found = again(&longer(by), Level::Later);
            if found.is_some() {
                break;
            }
            (no, by) = (by, by * 2);
        }
        while found.is_some() && by - no > grid {
            let middle = (no + by) / 2 / grid * grid;
            match again(&longer(middle), Level::Later) {
                Some(own) => (found, by) = (Some(own), middle),
                None => no = middle,
            }
        }
        if let Some(mut found) = found {
            // Who need not wait does not: the last to leave is asked first.
            let mut late = all_late(by);
            let mut orders: Vec<usize> = (0..late.len()).filter(|order| late[*order] > 0).collect();
            orders.sort_by_key(|order| std::cmp::Reverse(after.orders[*order].serve));
            for order in orders {
                let mut fewer = late.clone();
                fewer[order] = 0;
                if let Some(own) = again(&longer_each(&fewer), Level::Later) {
                    (found, late) = (own, fewer);
                }
            }
            let late_min = late.iter().copied().max().unwrap_or(0);
            return Replanned { late_min, late, stretched: longer_than(&after, &found.start), ..found };
        }
    }
    Replanned {
        level: Level::Nothing,
        start: was,
        cost: 0,
        moved: Vec::new(),
        stretched: Vec::new(),
        late_min: 0,
        late: vec![0; after.orders.len()],
    }
}

/// Where each step was to begin, and whether it stays there.
fn as_it_stands(after: &Problem, start: &[Option<i32>], event: &Event) -> (Vec<Option<i32>>, Vec<bool>) {
    let mut was: Vec<Option<i32>> = start.to_vec();
    was.resize(after.steps.len(), None);
    for [step, minute] in &event.begun {
        was[*step as usize] = Some(*minute);
    }
    let frozen = (0..was.len()).map(|step| {
        let begun = was[step].is_some_and(|at| at < event.now)
            || event.begun.iter().any(|[own, _]| *own as usize == step);
        begun
            || event.pinned.contains(&step)
            || (was[step].is_some() && event.late.iter().any(|late| late.step == step))
    });
    let frozen = frozen.collect();
    (was, frozen)
}

/// Why there is no plan after an event, where lags and opening hours alone prove it.
pub fn no_plan_after(problem: &Problem, start: &[Option<i32>], event: &Event) -> Option<Vec<String>> {
    let after = after(problem, event);
    let (was, frozen) = as_it_stands(&after, start, event);
    let task = Task { problem: &after, was: &was, frozen: &frozen, now: event.now, rounds: 0 };
    no_plan(&after, &task.net())
}

/// The kitchen open longer.
fn overtime(problem: &Problem) -> Problem {
    let mut open = problem.clone();
    let closing: Vec<i32> = problem.windows.iter().map(|window| window[1]).collect();
    let later = |end: i32| (end + OVERTIME_MIN).min(problem.horizon);
    open.windows.iter_mut().for_each(|window| window[1] = later(window[1]));
    // Who stays until closing stays longer too.
    let before: Vec<Vec<[i32; 2]>> = problem.cooks.iter().map(|cook| cook.hours.clone()).collect();
    for own in open.cooks.iter_mut().flat_map(|cook| &mut cook.hours) {
        if closing.contains(&own[1]) {
            own[1] = later(own[1]);
        }
    }
    let hours: Vec<Vec<[i32; 2]>> = open.cooks.iter().map(|cook| cook.hours.clone()).collect();
    let (was, now) = (fewer(&before, problem.horizon), fewer(&hours, problem.horizon));
    for own in open.resources.iter_mut().filter(|own| own.id == COOK && !hours.is_empty()) {
        own.less.retain(|less| !was.contains(less));
        own.less.extend(&now);
    }
    open
}

/// Quality limits half as long again.
fn stretched(problem: &Problem) -> Problem {
    let mut longer = problem.clone();
    let grid = problem.grid_min;
    let stretch = |max: &mut Option<i32>, class: Class| {
        if let Some(max) = max.as_mut().filter(|_| class == Class::Quality) {
            *max += (*max / 2).max(grid);
        }
    };
    longer.waits.iter_mut().for_each(|wait| stretch(&mut wait.max, wait.class));
    longer.links.iter_mut().for_each(|link| stretch(&mut link.max, link.class));
    longer
}

/// Numbers of the waits, then links, that last longer than they should.
fn longer_than(problem: &Problem, start: &[Option<i32>]) -> Vec<usize> {
    let waits = problem.waits.iter().map(|own| (own.from, own.to, own.min, own.max));
    let links = problem.links.iter().map(|own| (own.from, own.to, own.min, own.max));
    waits
        .chain(links)
        .enumerate()
        .filter(|(_, (from, to, min, max))| match (start[*from], start[*to], max) {
            (Some(from_at), Some(to_at), Some(max)) => {
                let lag = to_at - from_at - problem.steps[*from].dur;
                lag > (*max).max(*min) && lag >= problem.grid_min
            }
            _ => false,
        })
        .map(|(at, _)| at)
        .collect()
}

struct Task<'a> {
    problem: &'a Problem,
    was: &'a [Option<i32>],
    frozen: &'a [bool],
    now: i32,
    rounds: u32,
}

impl Task<'_> {
    /// The problem with what is frozen where it is.
    fn net(&self) -> Net {
        let stands = self.frozen.iter().zip(self.was).map(|(frozen, at)| at.filter(|_| *frozen));
        Net::given(self.problem, false, &Given { now: self.now, stands: stands.collect(), lenient: false })
    }

    fn old(&self, net: &Net, step: usize) -> Option<i32> {
        self.was[step].map(|at| at / net.grid).filter(|_| net.nodes[step].fixed.is_none())
    }

    fn push(&self, level: Level) -> Option<Replanned> {
        let net = self.net();
        let mut state = State::new(&net);
        for step in 0..self.was.len() {
            if let (false, Some(at)) = (state.pinned[step], self.old(&net, step)) {
                state.put(step, at);
            }
        }
        if state.outside().next().is_some() {
            return None;
        }
        // What lasts longer now is in the way of what comes after it.
        // Pushed to where nobody is there for it, it is no plan.
        let whole = settle(&mut state) && cost(&net, &state.start).nobody == 0;
        whole.then(|| self.told(&net, &state, level))
    }

    fn repair(&self, level: Level, watch: Watch) -> Option<Replanned> {
        let net = self.net();
        let mut state = State::new(&net);
        crate::proof::windows(&net).ok()?;
        // From the last to the first, what still has its room keeps it.
        let mut rest: Vec<(i32, usize)> = (0..self.was.len())
            .filter(|step| !state.pinned[*step])
            .filter_map(|step| Some((self.old(&net, step)?, step)))
            .collect();
        rest.sort_unstable_by(|one, two| two.cmp(one));
        for (at, step) in rest {
            let (low, high) = state.bounds(step);
            if low <= at && at <= high && state.fits(step, at) {
                state.put(step, at);
            }
        }
        let blocks = Blocks::of(&net, &state.pinned);
        for steps in &blocks.all {
            if steps.iter().any(|step| state.start[*step] == OUT) {
                let placed: Vec<usize> =
                    steps.iter().copied().filter(|step| state.start[*step] != OUT).collect();
                placed.into_iter().for_each(|step| state.lift(step));
            }
        }
        let price = |start: &[i32]| cost(&net, start).points + self.moves(&net, start);
        let mut found = mend(&mut state, 1, self.rounds, watch, &price);
        if found.unplaced > 0 && !found.stopped {
            // What is left of the old plan may be in the way of every new one.
            state = State::new(&net);
            found = mend(&mut state, 2, self.rounds, watch, &price);
        }
        if found.unplaced > 0 || cost(&net, &found.start).nobody > 0 {
            return None;
        }
        state.restore(&found.start);
        Some(self.told(&net, &state, level))
    }

    /// Points for what moves.
    fn moves(&self, net: &Net, start: &[i32]) -> i64 {
        let own = |(step, at): (usize, &i32)| {
            let old = self.old(net, step).filter(|_| *at != OUT)?;
            let day = net.day[old.clamp(0, net.slots) as usize] != net.day[*at as usize];
            Some(MOVED.0 * i64::from((old - at).abs()) + if day { MOVED.1 } else { 0 })
        };
        start.iter().enumerate().filter_map(own).sum()
    }

    fn told(&self, net: &Net, state: &State, level: Level) -> Replanned {
        let minute = |at: i32| (at != OUT).then(|| at * net.grid);
        let start: Vec<Option<i32>> = state.start.iter().map(|at| minute(*at)).collect();
        let moved = (0..start.len())
            .filter(|step| self.problem.steps[*step].kind != Kind::Serve)
            .filter_map(|step| Some(Move { step, from: self.was[step]?, to: start[step]? }))
            .filter(|own| own.from / net.grid != own.to / net.grid)
            .collect();
        let cost = cost(net, &state.start).points;
        let late = vec![0; self.problem.orders.len()];
        Replanned { level, start, cost, moved, stretched: Vec::new(), late_min: 0, late }
    }
}
