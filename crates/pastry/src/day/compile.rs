//! Orders and a kitchen made a problem: everything that is to be done for them, with what it takes, between now and the last
//! serving.

use crate::day::baking::{Piece, bake, oven_key};
use crate::day::building::{MadeOf, build};
use crate::day::draft::{Act, Draft, Lag};
use crate::day::hours::Days;
use crate::day::kitchen::KitchenDocument;
use crate::day::making::{RACK, make};
use crate::day::part::{PlannedPart, PlannedWait};
use crate::fault::{Fault, FaultCode};
use crate::heat::stand::LearnedPlace;
use crate::method::gear::Resource;
use crate::method::step::LimitClass;
use crate::order::batch::{Batch, batches};
use crate::order::document::OrderDocument;
use crate::stack::answer::stack_of;
use crate::stack::baking::baking;
use crate::stack::part::PartKind;
use crate::stack::place::{Layout, Stuff};
use crate::stack::{Known, Makings, StackAnswer};
use crate::zone::Zone;
use jiff::civil::DateTime;
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

/// What is to be planned.
pub struct ToPlan<'a> {
    /// The orders.
    pub orders: &'a [&'a OrderDocument],
    /// The kitchen.
    pub kitchen: &'a KitchenDocument,
    /// Where it is.
    pub zone: &'a Zone,
    /// Nothing begins before this, on the wall.
    pub from: DateTime,
    /// Places of the kitchen as they were read.
    pub learned: &'a [LearnedPlace],
}

/// A problem, and what its minutes are on the wall.
#[derive(Debug, Clone)]
pub struct Compiled {
    /// The problem.
    pub problem: Problem,
    /// Its days.
    pub days: Days,
    /// Sentences about what is not in it.
    pub notes: Vec<String>,
    /// Batches that are made by formulas.
    pub parts: Vec<PlannedPart>,
}

/// Makes orders and a kitchen a problem.
///
/// # Errors
/// What is wrong with the kitchen (`kitchen.…`) or an order (`orders.0.…`), at its field.
pub fn compile(ask: &ToPlan, known: &Known) -> Result<Compiled, Vec<Fault>> {
    let days = days(ask)?;
    let from = days.minute(ask.from).max(0);
    let mut notes = Vec::new();
    let mut parts = Vec::new();
    let mut draft = Draft::default();
    let mut served = Vec::new();
    let mut faults = Vec::new();
    for (at, order) in ask.orders.iter().enumerate() {
        let begun = draft.acts.len();
        match one_order(&mut draft, (at, order), ask, known, (&mut notes, &mut parts)) {
            Ok(()) => {
                let minute = order.served_at.map_or(0, |wall| days.minute(wall)).div_euclid(GRID) * GRID;
                served.push(Order { id: at, title: title(order, at), serve: minute });
            }
            Err(own) => {
                draft.acts.truncate(begun);
                faults.extend(own.into_iter().map(|fault| under(&format!("orders.{at}"), fault)));
            }
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let problem = problem(ask, &days, from, &draft, served, &mut parts);
    let wrong = problem.faults();
    match wrong.is_empty() {
        true => Ok(Compiled { problem, days, notes, parts }),
        // The kitchen or an order is larger than can be planned.
        false => Err(wrong
            .into_iter()
            .map(|own| Fault::new(own.field, FaultCode::OutOfRange, own.message))
            .collect()),
    }
}

fn under(place: &str, fault: Fault) -> Fault {
    Fault { field: format!("{place}.{}", fault.field), ..fault }
}

fn title(order: &OrderDocument, at: usize) -> String {
    match order.name.trim() {
        "" => format!("Order {}", at + 1),
        name => name.to_owned(),
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

/// What is wrong with an order that was eaten before it is planned.
pub fn eaten_before(order: &OrderDocument, at: usize, now: DateTime) -> Option<Fault> {
    let wall = order.served_at.filter(|wall| *wall <= now)?;
    let words = format!("{} was eaten on {}: give it a date to come", title(order, at), said(wall));
    Some(Fault::new(format!("orders.{at}.served_at"), FaultCode::OutOfRange, words))
}

fn said(wall: DateTime) -> String {
    wall.strftime("%-d %B %Y, %H:%M").to_string()
}

/// Everything that is done for one order.
fn one_order(
    draft: &mut Draft,
    (at, order): (usize, &OrderDocument),
    ask: &ToPlan,
    known: &Known,
    (notes, parts): (&mut Vec<String>, &mut Vec<PlannedPart>),
) -> Result<(), Vec<Fault>> {
    let makings: Vec<Makings> = order.cakes.iter().map(|cake| Makings::of(&cake.stack, known)).collect();
    let room_c = order.room_temperature_c.celsius();
    let answers: Vec<StackAnswer> = order
        .cakes
        .iter()
        .zip(&makings)
        .map(|(cake, makings)| stack_of(&cake.stack, makings, room_c))
        .collect();
    for answer in &answers {
        notes.extend(answer.incomplete.iter().map(|words| format!("{}: {words}", title(order, at))));
    }
    let all = batches(order, &answers, &makings, &|_| None);
    let serve = draft
        .act(Act { hands: false, ..Act::by_hand(at, SERVED, &format!("{} leaves", title(order, at)), 0.0) });
    let mut made = MadeOf::new();
    let mut temperatures: Vec<f64> = Vec::new();
    for batch in &all {
        let own = match batch.kind {
            PartKind::Bake => {
                let Some(baked) = makings.iter().find_map(|own| own.baked(Some(&batch.key))) else {
                    continue;
                };
                let pieces = pieces(order, &batch.key);
                let c =
                    baking(&baked.sponge.key).and_then(|own| own.oven(20.0)).map_or(0.0, |(_, oven)| oven.c);
                if !temperatures.contains(&c) {
                    temperatures.push(c);
                }
                let ovens = ask.kitchen.equipment.ovens_trays.len().max(1);
                let oven = temperatures.iter().position(|own| *own == c).unwrap_or(0) % ovens;
                bake(draft, (at, &batch.name), (baked, 1e-3 * batch.to_make_g), &pieces, (ask.kitchen, oven))
            }
            PartKind::Component => {
                let found = makings.iter().find_map(|own| Some((own.cream(Some(&batch.key))?, &own.shelf)));
                let Some((cream, shelf)) = found else { continue };
                parts.push(PlannedPart {
                    order: at,
                    of: batch.name.clone(),
                    component: batch.key.clone(),
                    weighed_g: weighed(batch),
                    waits: Vec::new(),
                });
                make(
                    draft,
                    (at, parts.len() - 1, &batch.name),
                    (cream, weighed(batch)),
                    shelf,
                    ask.kitchen,
                    ask.learned,
                )?
            }
        };
        made.insert((batch.kind, batch.key.clone()), own);
    }
    into_others(draft, &made);
    for (cake, answer) in order.cakes.iter().zip(&answers) {
        let name = match cake.stack.name.trim() {
            "" => title(order, at),
            name => name.to_owned(),
        };
        build(draft, (at, &name), (&cake.stack, cake.count), (&made, serve), ask.kitchen, answer.finished_g);
    }
    Ok(())
}

/// What is served is worked on as this.
const SERVED: &str = "served";

fn weighed(batch: &Batch) -> f64 {
    if batch.weighed_g > 0.0 { batch.weighed_g } else { batch.to_make_g }
}

/// What goes into others is there when it is brought to hand.
fn into_others(draft: &mut Draft, made: &MadeOf) {
    let mut lags: Vec<Lag> = Vec::new();
    for own in made.values() {
        for (key, act) in &own.takes {
            let inner = made.get(&(PartKind::Component, key.clone()));
            if let Some((inner, last)) = inner.and_then(|inner| Some((inner, inner.last?))) {
                lags.push(Lag {
                    from: last,
                    to: *act,
                    least: inner.waits[0],
                    most: Some(inner.waits[1]),
                    name: format!("{} keeps", draft.acts[last].comp),
                    place: inner.place.clone(),
                    class: inner.class,
                    clock: inner.cools.clone(),
                });
            }
        }
    }
    // In the order of the steps, whatever the map's.
    lags.sort_by_key(|lag| (lag.from, lag.to));
    draft.lags.extend(lags);
}

/// Everything an order bakes of one kind.
fn pieces(order: &OrderDocument, key: &str) -> Vec<Piece> {
    let mut all = Vec::new();
    for cake in &order.cakes {
        let layout = Layout::of(&cake.stack);
        for spot in layout.spots.iter().filter(|spot| spot.stuff == Stuff::Bake(Some(key))) {
            let area = spot.outline.area();
            all.push(Piece {
                area_cm2: area,
                tin_cm2: spot.outline.grown(2.0).area(),
                height_mm: (10.0 * spot.thickness).clamp(1.0, 120.0),
                across_mm: 10.0 * (area * 4.0 / std::f64::consts::PI).sqrt(),
                count: cake.count * cake.stack.tiers[spot.tier].count(),
            });
        }
    }
    all
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
