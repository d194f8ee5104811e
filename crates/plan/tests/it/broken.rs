//! The checker refuses plans broken by hand, one for each rule, and bad problems are told at their place.

use crate::support::{instance, minutes, reference, small};
use plan::answer::plan;
use plan::check::{Rule, check};
use plan::problem::Problem;
use plan::search::Budget;
use std::collections::BTreeSet;

fn rules(problem: &Problem, start: &[Option<i32>]) -> BTreeSet<Rule> {
    check(problem, start).into_iter().map(|broken| broken.rule).collect()
}

#[test]
fn one_broken_plan_for_each_rule() {
    let problem = small();
    assert_eq!(problem.faults(), []);
    let good = [Some(540), Some(560), Some(1980), Some(2280), Some(2400), Some(600)];
    // mix 9:00, bake to 10:00; the crust at another temperature from 10:00; fill next day 9:00; box 14:00.
    assert_eq!(
        rules(&problem, &good),
        BTreeSet::from([Rule::Capacity]),
        "an hour with one shelf less at 11:00"
    );
    let good = [Some(540), Some(560), Some(2160), Some(2290), Some(2400), Some(600)];
    assert_eq!(check(&problem, &good), []);
    let broken = |step: usize, at: Option<i32>| {
        let mut start = good;
        start[step] = at;
        rules(&problem, &start)
    };
    for (rule, step, at) in [
        (Rule::Placed, 2, None),
        (Rule::Grid, 3, Some(2292)),
        (Rule::Served, 4, Some(2405)),
        (Rule::Open, 5, Some(1060)),
        (Rule::LongEnough, 3, Some(2200)),
        (Rule::ShortEnough, 0, Some(500)),
        (Rule::Setup, 5, Some(580)),
        (Rule::Hands, 2, Some(800)),
    ] {
        assert!(broken(step, at).contains(&rule), "{rule:?}: {:?}", broken(step, at));
    }
    // Nobody who can fill is there at 13:20: only that is wrong beside what follows from it.
    let mut tight = problem.clone();
    tight.cooks[1].without.clear();
    let mut start = good;
    start[2] = Some(800);
    assert!(!rules(&tight, &start).contains(&Rule::Hands));
    // A step over a change of hands has nobody for the whole of it.
    tight.cooks[0].hours = vec![[480, 600], [1920, 2520]];
    tight.cooks[1].hours = vec![[600, 1080]];
    start[0] = Some(590);
    start[1] = Some(610);
    assert!(rules(&tight, &start).contains(&Rule::Hands));
}

#[test]
fn two_on_one_cook_are_too_many() {
    let problem = instance("s12");
    let mut start = minutes(&reference()["instances"]["s12"]["start"]);
    start[3] = start[2];
    assert!(rules(&problem, &start).contains(&Rule::Capacity));
}

#[test]
fn the_small_one_is_planned_with_its_hands_and_its_oven() {
    let problem = small();
    let answer = plan(&problem, Budget { rounds: 2000, seed: 1 }, &|_| true);
    assert!(answer.is_whole(), "{answer:?}");
    assert_eq!(check(&problem, &answer.start), []);
    let [bake, crust] = [1, 5].map(|step: usize| answer.start[step].unwrap());
    assert!(bake + 40 <= crust || crust + 40 <= bake, "{answer:?}");
}

#[test]
fn a_bad_problem_is_told_at_its_place() {
    type Spoil = fn(&mut Problem);
    let cases: [(&str, Spoil); 12] = [
        ("grid_min", |p| p.grid_min = 0),
        ("days", |p| p.days = 400),
        ("horizon", |p| p.horizon = -1),
        ("windows.0", |p| p.windows[0] = [600, 600]),
        ("cooks.1.hours.0", |p| p.cooks[1].hours[0] = [600, 500]),
        ("resources.1.id", |p| p.resources[1].id = "cook".into()),
        ("orders.0.serve", |p| p.orders[0].serve = 1_000_000),
        ("steps.2.order", |p| p.steps[2].order = 9),
        ("steps.1.dur", |p| p.steps[1].dur = 0),
        ("steps.1.use.hob", |p| p.steps[1].r#use = [("hob".to_owned(), 1)].into()),
        ("waits.0", |p| p.waits[0].max = Some(5)),
        ("links.1", |p| p.links[1].to = 99),
    ];
    for (field, spoil) in cases {
        let mut problem = small();
        spoil(&mut problem);
        let faults = problem.faults();
        assert!(
            faults.iter().any(|fault| fault.field == field && !fault.message.is_empty()),
            "{field}: {faults:?}"
        );
    }
    let unknown = serde_json::from_str::<Problem>(r#"{"id": "x", "what": 1}"#).unwrap_err();
    assert!(unknown.to_string().contains("what"));
}
