//! A day under way planned again.

use crate::day::{kitchen, lantern_street, orders};
use crate::day_view::week;
use jiff::SignedDuration;
use jiff::civil::DateTime;
use pastry::day::again::{go_on, standing};
use pastry::day::report::supposed;
use pastry::day::{
    BendAsk, Gone, GoneWhat, Happened, PlanDocument, Report, Said, Sharing, ToPlan, bend, compile, progress,
};
use pastry::order::OrderDocument;
use pastry::stack::Known;
use plan::answer::plan_on;
use plan::check::check;
use plan::problem::Kind;
use plan::search::Budget;

/// The same orders compiled anew, with what stands.
fn anew(old: &PlanDocument, orders: &[OrderDocument], from: DateTime) -> PlanDocument {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let all: Vec<&OrderDocument> = orders.iter().collect();
    let kitchen = lantern_street();
    let ask = ToPlan {
        orders: &all,
        kitchen: &kitchen,
        zone: &old.zone,
        from,
        learned: &[],
        sharing: &Sharing::default(),
    };
    let compiled = compile(&ask, &known).unwrap();
    let mut planned = old.orders.clone();
    for (own, order) in planned.iter_mut().zip(orders) {
        own.promised = order.served_at.unwrap();
    }
    let steps = compiled.problem.steps.len();
    PlanDocument::of(compiled, old.zone.clone(), from, planned, vec![None; steps])
}

fn week_orders() -> Vec<OrderDocument> {
    orders().into_iter().take(3).collect()
}

/// In the middle of the work: half of all steps are over.
fn middle(plan: &PlanDocument) -> i32 {
    let mut starts: Vec<i32> = plan.start.iter().flatten().copied().collect();
    starts.sort_unstable();
    starts[starts.len() / 2]
}

/// Everything that is over by now, said as it was planned.
fn as_planned(plan: &PlanDocument, now: i32) -> Vec<Report> {
    let (days, keys) = (plan.days(), plan.step_keys());
    let over = plan.problem.steps.iter().filter(|step| step.kind == Kind::Hands);
    over.filter_map(|step| {
        let end = plan.start[step.id]? + step.dur;
        let at = days.moment(end);
        (end <= now).then(|| Report { step: keys[step.id].clone(), said: Said::Done, at, cook: None })
    })
    .collect()
}

#[test]
fn what_was_done_stays_and_the_rest_is_planned_from_now() {
    let (old, _) = week();
    let now = middle(old);
    let (days, reports) = (old.days(), as_planned(old, now));
    assert!(reports.len() > 5, "{}", reports.len());
    let mut planned = old.orders.clone();
    let from = go_on(old, &reports, &mut planned, days.wall(now));
    assert!(from < days.wall(now) && planned.iter().all(|own| own.since == Some(old.from)));
    let mut plan = anew(old, &week_orders(), from);
    let given = standing(old, &mut plan, &reports, days.wall(now));
    assert!(plan.notes.iter().all(|words| !words.contains("no more")), "{:?}", plan.notes);
    let answer = plan_on(&plan.problem, &given, Budget { rounds: 2000, seed: 3 }, &|_| true);
    assert!(answer.is_whole(), "{:?}", answer.because);
    assert_eq!(check(&plan.problem, &answer.start), []);
    let (keys, before) = (plan.step_keys(), old.step_keys());
    let mut stays = 0;
    for (step, key) in keys.iter().enumerate() {
        let at = before.iter().position(|own| own == key).expect("the same orders, the same steps");
        let new = plan.days().moment(answer.start[step].unwrap());
        let was = days.moment(old.start[at].unwrap());
        if given.stands[step].is_some() {
            assert_eq!(new, was, "{key} was done and moved");
            stays += 1;
        } else if plan.problem.steps[step].kind != Kind::Serve {
            assert!(new >= days.moment(now), "{key} is planned in the past");
        }
    }
    // More than was said: what the machines did before it is done too.
    assert!(stays > reports.len(), "{stays} of {}", reports.len());
}

/// An order that grew after its batch was begun: what is in the bowl is not enough, and it says so.
#[test]
fn what_was_begun_with_another_weight_is_said() {
    let (old, _) = week();
    let now = middle(old);
    let (days, reports) = (old.days(), as_planned(old, now));
    let mut orders = week_orders();
    for order in &mut orders {
        order.cakes[0].count *= 2;
    }
    let from = go_on(old, &reports, &mut old.orders.clone(), days.wall(now));
    let mut plan = anew(old, &orders, from);
    standing(old, &mut plan, &reports, days.wall(now));
    let said: Vec<&String> = plan.notes.iter().filter(|words| words.contains("begun with")).collect();
    assert!(!said.is_empty(), "{:?}", plan.notes);
    for words in said {
        let (of, _) = words.split_once(": begun with ").unwrap();
        let weighed = |plan: &PlanDocument| {
            let own = plan.parts.iter().find(|part| part.of == of).unwrap();
            format!("{:.0} g", own.weighed_g * f64::from(own.bowls))
        };
        assert!(words.contains(&weighed(old)) && words.contains(&weighed(&plan)), "{words}");
    }
}

/// Nobody ticks off an oven: what comes after a bake was begun, so it is done. What is taken back later is not.
#[test]
fn what_comes_before_a_step_that_was_begun_is_done() {
    let (plan, seen) = week();
    let bake =
        plan.problem.steps.iter().find(|step| step.kind == Kind::Machine && step.setup.is_some()).unwrap();
    let lags = plan.problem.waits.iter().map(|own| (own.from, own.to));
    let mut lags = lags.chain(plan.problem.links.iter().map(|own| (own.from, own.to)));
    let then = lags.find(|(from, _)| *from == bake.id).unwrap().1;
    let keys = plan.step_keys();
    let end = plan.start[then].unwrap();
    let say = |step: usize, said: Said, minute: i32| Report {
        step: keys[step].clone(),
        said,
        at: plan.days().moment(minute),
        cook: None,
    };
    let mut reports = vec![say(then, Said::Begun, end)];
    assert!(supposed(plan, &reports).contains(&keys[bake.id]), "{:?}", supposed(plan, &reports));
    assert!(!supposed(plan, &reports).contains(&keys[then]));
    let own = progress(plan, &reports)[bake.id].clone();
    assert_eq!((own.begun, own.done), (plan.start[bake.id], plan.start[bake.id].map(|at| at + bake.dur)));
    // Hours before it was to be: it was baked earlier still.
    let early = plan.start[bake.id].unwrap() - 300;
    let own = progress(plan, &[say(then, Said::Begun, early)])[bake.id].clone();
    assert!(own.done.unwrap() <= early && own.begun.unwrap() < own.done.unwrap(), "{own:?}");
    reports.push(say(bake.id, Said::TakenBack, end + 1));
    assert!(!supposed(plan, &reports).contains(&keys[bake.id]));
    assert!(supposed(plan, &[]).is_empty() && !seen.steps.is_empty());
}

/// The order of last Saturday, dated a week on: nothing of it is made yet.
#[test]
fn an_order_for_another_day_begins_anew() {
    let (old, _) = week();
    let days = old.days();
    let served = old.problem.orders[0].serve;
    let reports = as_planned(old, served);
    let after = days.wall(served) + SignedDuration::from_mins(600);
    let mut planned = old.orders.clone();
    planned.truncate(1);
    planned[0].promised += SignedDuration::from_hours(7 * 24);
    assert_eq!(go_on(old, &reports, &mut planned, after), after);
    assert_eq!(planned[0].since, Some(after));
    let mut order = week_orders().remove(0);
    order.served_at = Some(planned[0].promised);
    let mut plan = anew(&PlanDocument { orders: planned.clone(), ..old.clone() }, &[order], after);
    let given = standing(old, &mut plan, &reports, after);
    assert!(given.stands.iter().all(Option::is_none), "{:?}", given.stands);
    // Nor does what was said then count when that plan stands.
    plan.start = vec![Some(0); plan.start.len()];
    assert!(progress(&plan, &reports).iter().all(|own| own.begun.is_none()));
    // Moved by an hour while it is being made, it goes on.
    let mut planned = old.orders.clone();
    planned[0].promised += SignedDuration::from_hours(1);
    let now = days.wall(middle(old));
    assert!(go_on(old, &as_planned(old, middle(old)), &mut planned, now) < now);
    assert_eq!(planned[0].since, Some(old.from));
}

/// A cook sent home and a mixer out are so when the day is planned again, and in the kitchen's new hours too.
#[test]
fn who_is_away_is_away_in_the_next_plan_too() {
    let (old, seen) = week();
    let work = seen.days.last().unwrap().work.unwrap();
    let [from, to] = [old.days().wall(work[0]), old.days().wall(work[1])];
    let ask = |plan: &PlanDocument, happened: Happened| BendAsk {
        plan: plan.clone(),
        reports: Vec::new(),
        now: from - SignedDuration::from_hours(3),
        not_begun: Vec::new(),
        happened,
        also: Vec::new(),
    };
    let bent = bend(&ask(old, Happened::Away { cook: 1, from, to })).plan.unwrap();
    let name = old.problem.cooks[1].name.clone();
    assert_eq!(bent.gone, [Gone { what: GoneWhat::Cook { name }, from, to }]);
    assert!(bent.faults().is_empty());
    let mixer = Happened::Less {
        resource: "mixer".to_owned(),
        from,
        to: from + SignedDuration::from_mins(20),
        left: 0,
    };
    let bent = bend(&ask(&bent, mixer)).plan.unwrap();
    assert_eq!(bent.gone.len(), 2);
    let mut plan = anew(old, &week_orders(), old.from);
    standing(&bent, &mut plan, &[], old.from);
    assert_eq!(plan.problem.cooks[1].hours, bent.problem.cooks[1].hours);
    let stock = |plan: &PlanDocument| {
        plan.problem.resources.iter().find(|own| own.id == "mixer").unwrap().less.clone()
    };
    assert_eq!(stock(&plan), stock(&bent));
    assert_eq!(plan.gone, bent.gone);
    let turned = Gone { from: to, to: from, ..bent.gone[0].clone() };
    let wrong = PlanDocument { gone: vec![turned], ..bent.clone() };
    assert_eq!(wrong.faults()[0].field, "gone.0");
}

/// A cake that is in the order no more, half made: it is said, not forgotten.
#[test]
fn what_was_made_for_nothing_is_said() {
    let (old, _) = week();
    let now = middle(old);
    let reports = as_planned(old, now);
    let mut orders = week_orders();
    let other = orders[0].cakes.clone();
    for order in &mut orders {
        order.cakes = other.clone();
    }
    let mut plan = anew(old, &orders, old.from);
    standing(old, &mut plan, &reports, old.days().wall(now));
    assert!(plan.notes.iter().any(|words| words.contains("in this plan no more")), "{:?}", plan.notes);
}
