//! One batch for several orders, and a batch in several bowls.

use crate::day::{compiled, kitchen, lantern_street, orders};
use jiff::ToSpan;
use pastry::day::again::{begun_batches, standing};
use pastry::day::kitchen::OwnMinutes;
use pastry::day::{
    Compiled, KitchenDocument, PlanDocument, PlannedOrder, Report, Said, Sharing, ToPlan, compile, view,
};
use pastry::order::OrderDocument;
use pastry::stack::Known;
use pastry::zone::Zone;
use plan::answer::plan;
use plan::check::check;
use plan::problem::Kind;
use plan::search::Budget;

const MONDAY: &str = "2026-11-30T06:00:00";
const CURD: &str = "Sharp-citrus curd";

/// The wedding on Saturday and the fair on Sunday: both take the curd.
fn two() -> Vec<OrderDocument> {
    let all = orders();
    all.into_iter().filter(|own| own.name == "Harbour wedding" || own.name == "Lantern fair").collect()
}

fn both(orders: &[OrderDocument], kitchen: &KitchenDocument) -> Compiled {
    let (formulas, shelf) = crate::day::kitchen();
    let all: Vec<&OrderDocument> = orders.iter().collect();
    compiled(&all, kitchen, MONDAY, &Known { formulas: &formulas, shelf: &shelf })
}

fn planned(orders: &[OrderDocument]) -> Vec<PlannedOrder> {
    let own = |order: &OrderDocument| PlannedOrder {
        key: Some(order.name.clone()),
        revision: Some(1),
        name: order.name.clone(),
        promised: order.served_at.unwrap(),
        since: None,
    };
    orders.iter().map(own).collect()
}

fn weighed(own: &Compiled, of: &str) -> Vec<f64> {
    own.parts.iter().filter(|part| part.of == of).map(|part| part.weighed_g * f64::from(part.bowls)).collect()
}

/// What one order alone weighs of it, g.
fn alone(order: &OrderDocument, of: &str) -> f64 {
    weighed(&both(std::slice::from_ref(order), &lantern_street()), of).iter().sum()
}

#[test]
fn what_keeps_from_the_first_to_the_last_is_made_once_and_all_of_it() {
    let own = both(&two(), &lantern_street());
    let shared: Vec<&str> = own.shared.iter().map(|own| own.of.as_str()).collect();
    assert!(shared.contains(&CURD), "{shared:?}");
    for batch in own.shared.iter().filter(|batch| weighed(&own, &batch.of).len() == 1) {
        let wanted: f64 = two().iter().map(|order| alone(order, &batch.of)).sum();
        assert!((weighed(&own, &batch.of)[0] - wanted).abs() < 1.0, "{}", batch.of);
    }
    // Each of the cakes waits for it, and for as long as it keeps only.
    let made: Vec<usize> = own.problem.steps.iter().filter(|step| step.comp == CURD).map(|s| s.id).collect();
    let uses: Vec<usize> = own
        .problem
        .waits
        .iter()
        .filter(|wait| made.contains(&wait.from) && !made.contains(&wait.to))
        .map(|wait| own.problem.steps[wait.to].order)
        .collect();
    assert!(uses.contains(&0) && uses.contains(&1), "{uses:?}");
    let answer = plan(&own.problem, Budget { rounds: 2000, seed: 3 }, &|_| true);
    assert!(answer.is_whole(), "{:?}", answer.because);
    assert_eq!(check(&own.problem, &answer.start), []);
    let document =
        PlanDocument::of(own, Zone::default(), MONDAY.parse().unwrap(), planned(&two()), answer.start);
    assert_eq!(document.faults(), []);
    let seen = view(&document);
    let curd = seen.steps.iter().find(|step| step.of == CURD).unwrap();
    assert_eq!(curd.letters, "A+B");
    let words = curd.batch.as_deref().unwrap();
    assert!(words.starts_with("One batch for Harbour wedding and Lantern fair: "), "{words}");
    let own: PlanDocument = serde_json::from_str(&serde_json::to_string(&document).unwrap()).unwrap();
    assert_eq!(own, document);
}

#[test]
fn it_is_made_twice_where_it_does_not_keep_or_the_cook_says_so() {
    let apart = |own: &Compiled| weighed(own, CURD).len() == 2 && own.shared.iter().all(|own| own.of != CURD);
    let kitchen = KitchenDocument { shares: false, ..lantern_street() };
    let own = both(&two(), &kitchen);
    assert!(apart(&own) && own.shared.is_empty());
    // A curd is as good as fresh for a day: three days later another is made.
    let mut orders = two();
    orders[1].served_at = orders[1].served_at.map(|at| at.saturating_add(3.days()));
    assert!(apart(&both(&orders, &lantern_street())));
}

/// A batch that was begun for one order is not promised to another that comes after; one begun for both stays for both, and stays
/// done when the order it is counted to is planned no more.
#[test]
fn what_was_begun_is_for_whom_it_was_begun() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let (room, zone, from) = (lantern_street(), Zone::default(), MONDAY.parse().unwrap());
    let begin = |orders: &[OrderDocument]| {
        let own = both(orders, &room);
        let answer = plan(&own.problem, Budget { rounds: 1000, seed: 3 }, &|_| true);
        let plan = PlanDocument::of(own, zone.clone(), from, planned(orders), answer.start);
        let step = plan.problem.steps.iter().find(|step| step.comp == CURD).unwrap().id;
        let at = plan.days().moment(plan.start[step].unwrap());
        let begun = Report { step: plan.step_keys()[step].clone(), said: Said::Begun, at, cook: None };
        let now = plan.days().wall(plan.start[step].unwrap() + 5);
        (plan, vec![begun], now)
    };
    let again = |old: &PlanDocument, reports: &[Report], orders: &[OrderDocument], now| {
        let all: Vec<&OrderDocument> = orders.iter().collect();
        let mut next = planned(orders);
        let from = pastry::day::again::go_on(old, reports, &mut next, now);
        let sharing = Sharing { as_is: begun_batches(old, reports, &next, now), more: true };
        let ask = ToPlan { orders: &all, kitchen: &room, zone: &zone, from, learned: &[], sharing: &sharing };
        let own = compile(&ask, &known).unwrap();
        let steps = own.problem.steps.len();
        let mut plan = PlanDocument::of(own, zone.clone(), from, next, vec![None; steps]);
        let given = standing(old, &mut plan, reports, now);
        let curd: Vec<bool> = (0..steps)
            .filter(|step| plan.problem.steps[*step].comp == CURD)
            .map(|step| given.stands[step].is_some())
            .collect();
        (plan, curd)
    };
    let (wedding, reports, now) = begin(&two()[..1]);
    let (plan, curd) = again(&wedding, &reports, &two(), now);
    assert!(plan.shared.iter().all(|own| own.of != CURD), "{:?}", plan.shared);
    assert!(curd.contains(&true) && curd.contains(&false), "{curd:?}");
    let (both, reports, now) = begin(&two());
    let (plan, curd) = again(&both, &reports, &two(), now);
    assert!(plan.shared.iter().any(|own| own.of == CURD) && curd.contains(&true), "{curd:?}");
    assert!(plan.notes.is_empty(), "{:?}", plan.notes);
    // The wedding is called off: the curd in the fridge is still there for the fair.
    let (plan, curd) = again(&both, &reports, &two()[1..], now);
    assert!(curd.contains(&true), "{:?}", plan.shared);
}

/// What is whipped as a whole fills a bowl to seven tenths (common practice): more is made in bowls one after the other, each its own
/// steps, and together they are what is weighed.
#[test]
fn what_a_bowl_does_not_hold_is_made_in_several() {
    let wedding = &two()[..1];
    let cream = "Lantern wall buttercream";
    let one = both(wedding, &lantern_street());
    assert!(one.parts.iter().all(|part| part.bowls == 1));
    let mut small = lantern_street();
    small.equipment.mixers_l = vec![1.0];
    let own = both(wedding, &small);
    let part = own.parts.iter().find(|part| part.of == cream).unwrap();
    assert!(part.bowls > 1, "{part:?}");
    let all = weighed(&own, cream)[0];
    assert!((all - weighed(&one, cream)[0]).abs() < 1.0, "{all}");
    for bowl in 1..=part.bowls {
        let named = format!("Bowl {bowl} of {}", part.bowls);
        let steps = own.problem.steps.iter().filter(|step| step.comp == cream && step.kind == Kind::Hands);
        assert!(steps.filter(|step| step.name.contains(&named)).count() > 0, "{named}");
    }
    let answer = plan(&own.problem, Budget { rounds: 1000, seed: 3 }, &|_| true);
    assert!(answer.is_whole(), "{:?}", answer.because);
    assert_eq!(check(&own.problem, &answer.start), []);
}

/// A mixer that would have to be filled more than forty times is told at the order, not planned overfull.
#[test]
fn what_no_mixer_can_hold_is_refused_with_what_to_do() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let mut room = lantern_street();
    room.equipment.mixers_l = vec![0.5];
    let mut orders = two();
    orders[0].cakes[0].count = 90;
    let all: Vec<&OrderDocument> = orders.iter().collect();
    let ask = ToPlan {
        orders: &all,
        kitchen: &room,
        zone: &Zone::default(),
        from: MONDAY.parse().unwrap(),
        learned: &[],
        sharing: &Sharing::default(),
    };
    let faults = compile(&ask, &known).unwrap_err();
    let own = faults.iter().find(|own| own.message.contains("write a larger mixer")).expect("it is told");
    assert_eq!(own.field, "orders.0.cakes");
}

/// Two formulas of one order that are called the same stay two batches, each with its own weight and steps.
#[test]
fn batches_of_one_name_are_told_apart() {
    let (mut formulas, shelf) = kitchen();
    let wedding = &two()[..1];
    let own = both(wedding, &lantern_street());
    let (one, other) = (&own.parts[0], &own.parts[1]);
    let name = formulas[&one.component].name.clone();
    formulas.get_mut(&other.component).unwrap().name = name.clone();
    let all: Vec<&OrderDocument> = wedding.iter().collect();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let alike = compiled(&all, &lantern_street(), MONDAY, &known);
    let second = format!("{name} (2)");
    for before in [one, other] {
        let after = alike.parts.iter().find(|part| part.component == before.component).unwrap();
        assert!((after.weighed_g - before.weighed_g).abs() < 0.1, "{after:?} was {before:?}");
        assert!([&name, &second].contains(&&after.of), "{after:?}");
        let steps =
            |own: &Compiled, of: &str| own.problem.steps.iter().filter(|step| step.comp == of).count();
        assert_eq!(steps(&alike, &after.of), steps(&own, &before.of), "{}", after.of);
    }
    assert_ne!(weighed(&alike, &name), weighed(&alike, &second));
}

/// Minutes a kitchen writes for a step hold wherever its method is made, also as what is made first for another.
#[test]
fn own_minutes_hold_for_what_is_made_first_too() {
    let mut room = lantern_street();
    let own = |school: &str, step: &str, minutes: f64| OwnMinutes {
        school: school.into(),
        step: step.into(),
        minutes: [minutes, 0.0],
    };
    room.own_minutes = vec![own("custard", "heat", 41.0), own("other", "custard.cool", 42.0)];
    let minutes = |school: &str, step: &str| room.own_minutes(school, step).map(|own| own.minutes[0]);
    assert_eq!(minutes("custard", "heat"), Some(41.0));
    assert_eq!(minutes("diplomat", "custard.heat"), Some(41.0));
    assert_eq!(minutes("diplomat", "heat"), None);
    assert_eq!(minutes("other", "custard.cool"), Some(42.0), "the one that is written for there");
    assert_eq!(minutes("custard", "cool"), None);
}
