//! Orders and a kitchen made a problem: everything that is to be done for them, with what it takes, between now and the last
//! serving.

use crate::day::asked::{SERVED, ToPlan, eaten_before, title, under};
use crate::day::baking::oven_key;
use crate::day::batches::{Batches, Taken, into_others, told_apart};
use crate::day::draft::{Draft, Lag};
use crate::day::hours::Days;
use crate::day::making::RACK;
use crate::day::part::{PlannedPart, PlannedWait};
use crate::day::sharing::SharedBatch;
use crate::fault::{Fault, FaultCode};
use crate::method::gear::Resource;
use crate::method::step::LimitClass;
use crate::stack::Known;
use plan::problem::{
    COOK, Class, Cook, Kind, Link, Order, Problem, Reserve, Resource as Stock, Step, Wait, Weights, fewer,
};

/// Minutes of the grid: cooks read 6:40, not 6:43.
const GRID: i32 = 5;
/// Points for each 5 min of hands in the ten hours before a serving: as much as the kitchen open for 18, so that what can be done
/// the day before is (assumed; of the demo's wedding 210 minutes are on its own morning with 2, 160 with 24, 75 with 72: filled,
/// coated and set the day before).
const CALM: i32 = 72;
/// Most days planned ahead.
pub const MOST_DAYS: i32 = 21;

/// A problem, and what its minutes are on the wall.
#[derive(Debug, Clone)]
pub struct Compiled {
    /// The problem.
    pub problem: Problem,
    /// Its days.
    pub days: Days,
    /// Sentences about what is not in it.
    pub notes: Vec<String>,
    /// Sentences about what is to be minded.
    pub cautions: Vec<String>,
    /// Batches that are made by formulas.
    pub parts: Vec<PlannedPart>,
    /// Batches that are made once for several orders.
    pub shared: Vec<SharedBatch>,
}

/// Makes orders and a kitchen a problem.
///
/// # Errors
/// What is wrong with the kitchen (`kitchen.…`) or an order (`orders.0.…`), at its field.
pub fn compile(ask: &ToPlan, known: &Known) -> Result<Compiled, Vec<Fault>> {
    let days = days(ask)?;
    let from = days.minute(ask.from).max(0);
    let mut notes = Vec::new();
    let mut draft = Draft::default();
    let mut served = Vec::new();
    let mut taken: Vec<Taken> = Vec::new();
    for (at, order) in ask.orders.iter().enumerate() {
        let minute = order.served_at.map_or(0, |wall| days.minute(wall)).div_euclid(GRID) * GRID;
        served.push(Order { id: at, title: title(order, at), serve: minute });
        taken.push(Taken::of(&mut draft, (at, order), known, minute, &mut notes));
    }
    told_apart(&mut taken);
    let mut batches = Batches::of(ask, &taken);
    let mut faults = Vec::new();
    for at in 0..taken.len() {
        faults.extend(batches.make(&mut draft, at));
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let Batches { made, mut parts, shared, cautions, .. } = batches;
    for (own, made) in taken.iter().zip(&made) {
        into_others(&mut draft, made);
        own.build(&mut draft, made, ask.kitchen);
    }
    let problem = problem(ask, &days, from, &draft, served, &mut parts);
    let wrong = problem.faults();
    match wrong.is_empty() {
        true => Ok(Compiled { problem, days, notes, cautions, parts, shared }),
        // The kitchen or an order is larger than can be planned.
        false => Err(wrong
            .into_iter()
            .map(|own| Fault::new(own.field, FaultCode::OutOfRange, own.message))
            .collect()),
    }
}

/// From today to the last serving.
fn days(ask: &ToPlan) -> Result<Days, Vec<Fault>> {
    let mut faults: Vec<Fault> = ask.kitchen.faults().into_iter().map(|own| under("kitchen", own)).collect();
    if ask.orders.is_empty() {
        faults.push(Fault::new(
            "orders",
            FaultCode::OutOfRange,
            "nothing is ordered: choose an order to plan",
        ));
    }
    let first = ask.from.date();
    let mut count = 1;
    for (at, order) in ask.orders.iter().enumerate() {
        let field = format!("orders.{at}.served_at");
        faults.extend(eaten_before(order, at, ask.from));
        let mut say = |words: String| faults.push(Fault::new(&field, FaultCode::OutOfRange, words));
        match order.served_at {
            None => say(format!("{}: write when it is eaten, so that it can be planned", title(order, at))),
            Some(wall) if wall <= ask.from => {}
            Some(wall) => {
                let ahead = (wall.date() - first).get_days() + 1;
                match ahead > MOST_DAYS {
                    true => say(format!(
                        "{} is more than {MOST_DAYS} days ahead: plan it later",
                        title(order, at)
                    )),
                    false => count = count.max(ahead),
                }
            }
        }
        faults.extend(order.faults().into_iter().map(|own| under(&format!("orders.{at}"), own)));
    }
    if faults.is_empty() { Ok(Days::of(first, count, ask.zone)) } else { Err(faults) }
}

fn stock(ask: &ToPlan, days: &Days, open: &[[i32; 2]]) -> (Vec<Stock>, Vec<Cook>) {
    let own = &ask.kitchen.equipment;
    let hours = days.cooks(ask.kitchen, open);
    let cooks = ask.kitchen.cooks.iter().zip(&hours).map(|(cook, hours)| Cook {
        name: cook.name.clone(),
        hours: hours.clone(),
        without: cook.cannot.iter().map(|own| own.word().to_owned()).collect(),
    });
    let plain = |id: String, cap: i32| Stock { id, cap, less: Vec::new(), setups: false };
    let of = |resource: Resource, cap: u32| plain(resource.word().to_owned(), cap as i32);
    let mut all = vec![
        Stock { less: fewer(&hours, days.horizon()), ..plain(COOK.to_owned(), hours.len() as i32) },
        of(Resource::Mixer, own.mixers_l.len() as u32),
        of(Resource::Hob, own.hobs),
        of(Resource::Microwave, own.microwaves),
        of(Resource::Blender, own.blenders),
        of(Resource::Ice, own.ice),
        plain(RACK.to_owned(), own.rack_trays as i32),
        of(Resource::Fridge, 10 * own.fridge.shelves),
        of(Resource::Freezer, 10 * own.freezer.shelves),
    ];
    all.extend(
        own.ovens_trays
            .iter()
            .enumerate()
            .map(|(at, trays)| Stock { setups: true, ..plain(oven_key(at), *trays as i32) }),
    );
    if own.ovens_trays.is_empty() {
        all.push(plain(oven_key(0), 0));
    }
    for out in &ask.kitchen.out_of_use {
        let [from, to] = [out.from, out.to].map(|wall| days.minute(wall));
        let tenths = matches!(out.what, Resource::Fridge | Resource::Freezer);
        let left = out.left as i32 * if tenths { 10 } else { 1 };
        let all_of = all
            .iter_mut()
            .filter(|stock| stock.id == out.what.word() || (out.what == Resource::Oven && stock.setups));
        all_of.for_each(|stock| stock.less.push([from, to, left.min(stock.cap)]));
    }
    (all, cooks.collect())
}

fn problem(
    ask: &ToPlan,
    days: &Days,
    from: i32,
    draft: &Draft,
    orders: Vec<Order>,
    parts: &mut [PlannedPart],
) -> Problem {
    let (tasks, _) = draft.joined();
    let open = days.open(ask.kitchen, from);
    let (resources, cooks) = stock(ask, days, &open);
    let up = |minutes: f64| (minutes / f64::from(GRID)).ceil() as i32 * GRID;
    let steps = tasks.acts.iter().enumerate().map(|(id, act)| {
        let serves = act.comp == SERVED;
        let mut uses = act.uses.clone();
        if act.hands {
            uses.insert(COOK.to_owned(), 1);
        }
        Step {
            id,
            order: act.order,
            comp: act.comp.clone(),
            name: act.name.clone(),
            kind: match (serves, act.hands) {
                (true, _) => Kind::Serve,
                (false, true) => Kind::Hands,
                (false, false) => Kind::Machine,
            },
            dur: if serves { 0 } else { up(act.minutes).max(GRID) },
            r#use: uses,
            age: act.age,
            grace: act.grace,
            setup: act.setup.clone(),
            skill: act.skill.clone(),
        }
    });
    let class = |class: LimitClass| match class {
        LimitClass::Safety => Class::Safety,
        LimitClass::Quality => Class::Quality,
        LimitClass::Hours => Class::Hours,
    };
    let lag = |lag: &Lag| {
        let least = up(lag.least);
        (least, lag.most.map(|most| ((most / f64::from(GRID)).floor() as i32 * GRID).max(least)))
    };
    let (stands, goes): (Vec<&Lag>, Vec<&Lag>) =
        tasks.lags.iter().partition(|lag| lag.place.is_some() || !lag.name.is_empty());
    for (wait, own) in stands.iter().enumerate() {
        // What is over at once needs nothing to be shorter.
        if let Some(clock) = own.clock.as_ref().filter(|_| own.least > f64::from(2 * GRID)) {
            parts[clock.part].waits.push(PlannedWait { wait, step: clock.step.clone() });
        }
    }
    let waits = stands.into_iter().enumerate().map(|(id, own)| {
        let (min, max) = lag(own);
        Wait {
            id,
            from: own.from,
            to: own.to,
            name: own.name.clone(),
            min,
            max,
            r#use: own.place.iter().cloned().collect(),
            class: class(own.class),
        }
    });
    let links = goes.into_iter().map(|own| {
        let (min, max) = lag(own);
        let flow = tasks.acts[own.from].comp == tasks.acts[own.to].comp;
        Link { from: own.from, to: own.to, min, max, flow, class: class(own.class) }
    });
    let starts = ask.kitchen.day_starts;
    Problem {
        id: "orders".to_owned(),
        note: String::new(),
        grid_min: GRID,
        day0: days.first.to_string(),
        days: days.count,
        horizon: days.horizon(),
        day_starts: 60 * i32::from(starts.hour()) + i32::from(starts.minute()),
        windows: open,
        resources,
        cooks,
        steps: steps.collect(),
        waits: waits.collect(),
        links: links.collect(),
        orders,
        weights: Weights {
            day_open: 240,
            span_per_slot: 20,
            interruption: 40,
            switch: 20,
            calm_per_slot: CALM,
            calm_min: 600,
        },
        reserve: Some(Reserve {
            serve: ask.kitchen.reserve.serve_min as i32,
            inside: ask.kitchen.reserve.inside_min as i32,
        }),
    }
}
