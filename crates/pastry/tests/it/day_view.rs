//! A plan as it is looked at.

use crate::day::{kitchen, lantern_street, orders};
use jiff::SignedDuration;
use pastry::day::bend::made_again;
use pastry::day::{
    BendAsk, Bent, DayView, Happened, PlanDocument, PlannedOrder, Report, Said, Sharing, ToPlan, bend,
    compile, progress, take, view,
};
use pastry::order::OrderDocument;
use pastry::stack::Known;
use pastry::zone::Zone;
use plan::answer::plan;
use plan::check::check;
use plan::problem::{Class, Kind};
use plan::replan::Level;
use plan::search::Budget;
use std::sync::LazyLock;

/// The demo's first three orders, planned.
pub fn week() -> &'static (PlanDocument, DayView) {
    static WEEK: LazyLock<(PlanDocument, DayView)> = LazyLock::new(|| {
        let (formulas, shelf) = kitchen();
        let known = Known { formulas: &formulas, shelf: &shelf };
        let all = orders();
        let orders: Vec<&OrderDocument> = all.iter().take(3).collect();
        let (zone, from) = (Zone::default(), "2026-11-30T06:00:00".parse().unwrap());
        let kitchen = lantern_street();
        let ask = ToPlan {
            orders: &orders,
            kitchen: &kitchen,
            zone: &zone,
            from,
            learned: &[],
            sharing: &Sharing::default(),
        };
        let compiled = compile(&ask, &known).unwrap();
        let answer = plan(&compiled.problem, Budget { rounds: 3000, seed: 3 }, &|_| true);
        let planned = orders.iter().enumerate().map(|(at, order)| PlannedOrder {
            key: Some(format!("order-key-{at}")),
            revision: Some(1),
            name: order.name.clone(),
            promised: order.served_at.unwrap(),
            since: None,
        });
        let document = PlanDocument::of(compiled, zone, from, planned.collect(), answer.start);
        let seen = view(&document);
        (document, seen)
    });
    &WEEK
}

/// A tier cake is filled and coated the day before: on the morning it leaves it has no second chance (common practice); at most 120
/// minutes of hands are left for it.
#[test]
fn a_wedding_is_not_built_on_the_morning_it_leaves() {
    let (_, seen) = week();
    let wedding = seen.orders.iter().find(|own| own.name == "Harbour wedding").unwrap();
    assert!(wedding.hands_on_its_day_min <= 120, "{} min", wedding.hands_on_its_day_min);
    assert!(wedding.hands_min > 240, "{} min in all", wedding.hands_min);
}

/// What stands at what time in a plan may be read off it, and every step says why it stands where it stands.
#[test]
fn a_plan_is_looked_at_as_it_is() {
    let (plan, seen) = week();
    assert!(seen.stands && seen.incomplete.is_empty() && seen.exceeds.is_empty(), "{:?}", seen.incomplete);
    assert!(seen.sentence.contains("3 orders, all in time"), "{}", seen.sentence);
    assert_eq!(seen.orders.iter().map(|own| own.letter.as_str()).collect::<Vec<_>>(), ["A", "B", "C"]);
    for own in &seen.orders {
        assert_eq!(own.serve, own.promised);
        assert!(own.spare_min.unwrap() >= 0 && own.hands_min >= own.hands_on_its_day_min);
    }
    let total: i32 = seen.steps.iter().filter(|step| step.hands).map(|step| step.lasts).sum();
    assert_eq!(total, seen.cooks.iter().map(|cook| cook.hands_min).sum::<i32>(), "every step has its cook");
    for step in &seen.steps {
        let begins = step.begins.unwrap();
        let [from, to] = step.anywhere.unwrap();
        assert!(from <= begins && begins <= to);
        for chain in [&step.not_later, &step.not_earlier] {
            assert_eq!(chain[0].step, step.step, "a chain begins with the step itself");
            assert!(chain.iter().all(|own| !own.words.is_empty()));
            assert_eq!(chain.last().unwrap().by, None, "and ends with what cannot be moved: {chain:?}");
        }
        assert!(step.short.chars().count() <= 60 && !step.short.is_empty(), "{}", step.short);
    }
    for wait in &seen.waits {
        let [from, to] = wait.stands.unwrap();
        assert!(
            from <= to && wait.not_before.unwrap() <= to && wait.not_after.is_none_or(|at| to <= at),
            "{wait:?}"
        );
    }
    let mut keys = plan.step_keys();
    keys.sort();
    keys.dedup();
    assert_eq!(keys.len(), plan.problem.steps.len(), "every step has a key of its own");
    // What cannot wait is used at once: a mousse is not kept for days before it is poured.
    let hurried = plan.problem.waits.iter().filter(|wait| wait.name.ends_with("is used at once"));
    let most: Vec<i32> = hurried.filter_map(|wait| wait.max).collect();
    assert!(most.len() >= 3 && most.iter().all(|max| *max <= 40), "{most:?}");
    // The same again from its file.
    let text = serde_json::to_string(plan).unwrap();
    assert_eq!(&serde_json::from_str::<PlanDocument>(&text).unwrap(), plan);
    assert!(plan.faults().is_empty());
}

fn late(step: usize, min: i32, after: i32) -> Bent {
    let (plan, seen) = week();
    let begins = seen.steps.iter().find(|own| own.step == step).unwrap().begins.unwrap();
    let now = plan.days().wall(begins + after);
    let ask = BendAsk {
        plan: plan.clone(),
        reports: Vec::new(),
        now,
        not_begun: Vec::new(),
        happened: Happened::Late { step, min },
        also: Vec::new(),
    };
    assert!(ask.faults().is_empty());
    bend(&ask)
}

/// Every step of hands of the week 20 minutes late, one after the other: a plan again or none, never one that breaks a limit of
/// safety, and what was begun stays.
#[test]
fn a_late_step_bends_the_day_and_no_limit_of_safety() {
    let (plan, seen) = week();
    let mut levels = Vec::new();
    for step in seen.steps.iter().filter(|step| step.hands).step_by(4) {
        let bent = late(step.step, 20, 5);
        levels.push(bent.level);
        let Some(own) = &bent.plan else { continue };
        let now = step.begins.unwrap() + 5;
        for (at, (before, after)) in plan.start.iter().zip(&own.start).enumerate() {
            let is_step = plan.problem.steps[at].kind != Kind::Serve;
            assert!(!is_step || before.unwrap() >= now || before == after, "what was begun stays");
        }
        let end = |at: usize| own.start[at].unwrap() + own.problem.steps[at].dur;
        for wait in own.problem.waits.iter().filter(|wait| wait.class == Class::Safety) {
            let lasts = own.start[wait.to].unwrap() - end(wait.from);
            assert!(wait.max.is_none_or(|max| lasts <= max), "{}: {lasts} of {:?}", wait.name, wait.max);
        }
        if bent.level <= Level::Repair {
            assert_eq!(check(&own.problem, &own.start), [], "{}", bent.sentence);
        } else {
            let said = bent.view.as_ref().unwrap();
            assert!(!said.exceeds.is_empty(), "{}: what is exceeded is told", bent.sentence);
        }
        let moved = bent.moved.len();
        assert!(bent.sentence.contains(&moved.to_string()) || moved < 2, "{}: {moved}", bent.sentence);
    }
    assert!(levels.iter().filter(|level| **level <= Level::Repair).count() * 2 >= levels.len(), "{levels:?}");
}

#[test]
fn a_cook_gone_a_machine_out_and_a_step_put_elsewhere_are_planned_for() {
    let (plan, seen) = week();
    let days = plan.days();
    let saturday = seen.days.last().unwrap().work.unwrap();
    let begin = |happened: Happened, now: i32| {
        let ask = BendAsk {
            plan: plan.clone(),
            reports: Vec::new(),
            now: days.wall(now),
            not_begun: Vec::new(),
            happened,

            also: Vec::new(),
        };
        assert_eq!(ask.faults(), []);
        bend(&ask)
    };
    // Tom does not come on Saturday.
    let [from, to] = [saturday[0], saturday[0] + 720].map(|at| days.wall(at));
    let gone = begin(Happened::Away { cook: 1, from, to }, saturday[0] - 600);
    let own = gone.view.unwrap();
    for step in own.steps.iter().filter(|step| step.begins.unwrap() >= saturday[0]) {
        assert_ne!(step.cook, Some(1), "{} is given to who is not there", step.short);
    }
    // The mixer is out on the day before the last: nothing is put on it then.
    let [from, to] = [saturday[0] - 1440, saturday[0] - 1440 + 180];
    let out =
        Happened::Less { resource: "mixer".to_owned(), from: days.wall(from), to: days.wall(to), left: 0 };
    let bent = begin(out, from - 300);
    if let Some(own) = bent.view {
        for step in own.steps.iter().filter(|step| step.on.iter().any(|on| on == "mixer")) {
            let begins = step.begins.unwrap();
            assert!(begins + step.lasts <= from || begins >= to, "{} is on a mixer that is out", step.short);
        }
    }
    // A step with room is put where it could be, and stays there.
    let free = seen.steps.iter().find(|step| step.anywhere.is_some_and(|[a, b]| b - a >= 30)).unwrap();
    let [a, b] = free.anywhere.unwrap();
    let to = if free.begins == Some(a) { b } else { a };
    let bent = begin(Happened::Moved { step: free.step, to }, seen.days[0].work.unwrap()[0] - 60);
    assert!(bent.level <= Level::Repair, "{}", bent.sentence);
    let own = bent.plan.unwrap();
    assert_eq!((own.start[free.step], own.pinned.clone()), (Some(to), vec![free.step]));
}

#[test]
fn what_failed_is_made_again_from_its_beginning_but_a_cake_is_not_taken_apart() {
    let (plan, seen) = week();
    let glaze = seen.steps.iter().filter(|step| step.of == "Winter-sky glaze");
    let last = glaze.clone().max_by_key(|step| step.begins).unwrap();
    assert_eq!(made_again(&plan.problem, last.step).len(), glaze.count());
    let coat = seen.steps.iter().find(|step| step.short == "Coat").unwrap();
    assert_eq!(made_again(&plan.problem, coat.step), [coat.step]);
    // A syrup that boiled over is boiled again after it.
    let soak = seen.steps.iter().find(|step| step.of == "Brandy soak").unwrap();
    let now = soak.begins.unwrap() + 5;
    let ask = BendAsk {
        plan: plan.clone(),
        reports: Vec::new(),
        now: plan.days().wall(now),
        not_begun: Vec::new(),
        happened: Happened::Failed { step: soak.step },
        also: Vec::new(),
    };
    let bent = bend(&ask);
    assert!(bent.plan.unwrap().start[soak.step].unwrap() >= now, "{}", bent.sentence);
    assert!(bent.moved.iter().any(|own| own.words.contains("again at")), "{:?}", bent.moved);
}

#[test]
fn what_is_said_of_steps_counts_in_the_order_it_came() {
    let (plan, seen) = week();
    let (step, key) = (&seen.steps[3], seen.steps[3].key.clone());
    let moment = |minute: i32| plan.days().moment(minute);
    let begins = step.begins.unwrap();
    let say = |said: Said, minute: i32| Report { step: key.clone(), said, at: moment(minute), cook: None };
    let at = |reports: &[Report]| {
        let own = progress(plan, reports)[step.step].clone();
        (own.begun, own.done)
    };
    assert_eq!(at(&[]), (None, None));
    assert_eq!(at(&[say(Said::Begun, begins + 2)]), (Some(begins + 2), None));
    assert_eq!(
        at(&[say(Said::Begun, begins), say(Said::Done, begins + 9)]),
        (Some(begins), Some(begins + 9))
    );
    // Done without a word before: as long as planned.
    assert_eq!(at(&[say(Said::Done, begins + 9)]), (Some(begins + 9 - step.lasts), Some(begins + 9)));
    assert_eq!(at(&[say(Said::Done, begins + 9), say(Said::TakenBack, begins + 10)]), (None, None));
    // What is said of a step that is no more is let be.
    let gone = Report { step: "another".to_owned(), ..say(Said::Done, begins) };
    assert_eq!(at(&[gone]), (None, None));
}

/// The fourth order into the week of three.
#[test]
fn an_order_more_is_planned_into_what_stands() {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let (old, _) = week();
    let orders = orders();
    let with = |more: &OrderDocument| {
        let all: Vec<&OrderDocument> = orders.iter().take(3).chain([more]).collect();
        let kitchen = lantern_street();
        let ask = ToPlan {
            orders: &all,
            kitchen: &kitchen,
            zone: &old.zone,
            from: old.from,
            learned: &[],
            sharing: &Sharing { as_is: old.shared.clone(), more: false },
        };
        let compiled = compile(&ask, &known).unwrap();
        let mut planned = old.orders.clone();
        let promised = more.served_at.unwrap();
        planned.push(PlannedOrder {
            key: None,
            revision: None,
            name: more.name.clone(),
            promised,
            since: None,
        });
        let steps = compiled.problem.steps.len();
        PlanDocument::of(compiled, old.zone.clone(), old.from, planned, vec![None; steps])
    };
    // Four jars more, on the same Saturday afternoon.
    let mut small = orders[2].clone();
    small.name = "Four jars more".to_owned();
    small.cakes[0].count = 4;
    small.served_at = Some("2026-12-05T16:00:00".parse().unwrap());
    let yes = take(old, with(&small), &[], old.from);
    assert!(yes.yes, "{}", yes.sentence);
    assert!(yes.sentence.starts_with("Yes: Four jars more takes"), "{}", yes.sentence);
    let own = yes.plan.unwrap();
    assert_eq!(check(&own.problem, &own.start), []);
    let latest: jiff::civil::DateTime = yes.latest.unwrap().parse().unwrap();
    assert!(latest > old.from && latest < small.served_at.unwrap());
    // What was planned before moves little, and what moved is told.
    let carried = old.carried(&own);
    let moved = carried.iter().zip(&own.start).filter(|(a, b)| a.is_some() && a != b).count();
    assert_eq!(moved, yes.moved.len());
    // A hundred cakes by Tuesday morning are not.
    let mut large = orders[0].clone();
    large.made_on = None;
    large.served_at = Some((old.from + SignedDuration::from_hours(26)).date().at(7, 0, 0, 0));
    let no = take(old, with(&large), &[], old.from);
    assert!(!no.yes && no.latest.is_none(), "{}", no.sentence);
    assert!(no.sentence.starts_with("No"), "{}", no.sentence);
}
