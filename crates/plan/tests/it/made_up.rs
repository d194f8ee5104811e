//! Problems made up by the hundred: whatever is planned is legal, the same twice, and bent by an outage it is legal again.

use plan::answer::plan;
use plan::check::{Rule, check};
use plan::problem::Problem;
use plan::replan::{Event, Less, Level, after, replan};
use plan::search::Budget;
use proptest::prelude::*;
use serde_json::json;

/// A cake of `parts` creams, each made, set on a shelf and used on one cake, in a kitchen of `cooks`.
fn made_up(cakes: usize, parts: usize, cooks: i32, waits: &[(i32, i32)], temps: bool) -> Problem {
    let mut steps = Vec::new();
    let (mut waits_all, mut links) = (Vec::new(), Vec::new());
    let mut step = |order: usize,
                    comp: String,
                    name: &str,
                    kind: &str,
                    dur: i32,
                    uses: serde_json::Value,
                    age: i32| {
        let id = steps.len();
        let setup = if temps && uses.get("oven").is_some() { Some(["150", "180"][order % 2]) } else { None };
        steps.push(json!({"id": id, "order": order, "comp": comp, "name": name, "kind": kind, "dur": dur, "use": uses, "age": age, "setup": setup}));
        id
    };
    for order in 0..cakes {
        let mut last: Option<usize> = None;
        for part in 0..parts {
            let (dur, rest) = waits[(order * parts + part) % waits.len()];
            let comp = format!("cream {part}");
            let make =
                step(order, comp.clone(), "make", "hands", dur, json!({"cook": 1, "mixer": part % 2}), 0);
            let bake = step(order, comp, "bake", "machine", dur + 10, json!({"oven": 1}), 1);
            links.push(json!({"from": make, "to": bake, "min": 0, "max": 10, "flow": true}));
            let used = step(order, "cake".into(), "build", "hands", 15, json!({"cook": 1}), 2);
            waits_all.push(json!({"id": waits_all.len(), "from": bake, "to": used, "name": "sets", "min": rest, "max": 2880, "use": {"fridge": 1}}));
            if let Some(last) = last {
                waits_all.push(json!({"id": waits_all.len(), "from": last, "to": used, "name": "stands", "min": 10, "max": 1440, "use": {"fridge": 2}}));
            }
            last = Some(used);
        }
        let serve = step(order, "cake".into(), "serve", "serve", 0, json!({}), 0);
        waits_all.push(json!({"id": waits_all.len(), "from": last.unwrap(), "to": serve, "name": "on the way", "min": 30, "max": 480, "use": {}}));
    }
    let orders: Vec<_> = (0..cakes)
        .map(|id| json!({"id": id, "title": format!("Cake {id}"), "serve": 2 * 1440 + 720 + 60 * id}))
        .collect();
    serde_json::from_value(json!({
        "id": "made up", "days": 3, "horizon": 4320, "day_starts": 240,
        "windows": [[420, 1080], [1860, 2520], [3300, 4000]],
        "resources": [{"id": "cook", "cap": cooks}, {"id": "mixer", "cap": 1}, {"id": "oven", "cap": 2, "setups": temps}, {"id": "fridge", "cap": 3 * cakes as i32 + 2}],
        "orders": orders, "steps": steps, "waits": waits_all, "links": links,
        "weights": {"day_open": 240, "span_per_slot": 20, "interruption": 40, "switch": 20, "calm_per_slot": 2}
    }))
    .unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, failure_persistence: None, rng_seed: proptest::test_runner::RngSeed::Fixed(14), ..ProptestConfig::default() })]

    #[test]
    fn whatever_is_planned_is_legal_and_bends(
        cakes in 1usize..4,
        parts in 1usize..4,
        cooks in 1i32..3,
        waits in prop::collection::vec((5i32..60, 0i32..300), 1..6),
        temps in any::<bool>(),
        outage in (0usize..3, 600i32..3600, 20i32..200),
    ) {
        let problem = made_up(cakes, parts, cooks, &waits, temps);
        prop_assert_eq!(problem.faults(), []);
        let budget = Budget { rounds: 150, seed: 3 };
        let answer = plan(&problem, budget, &|_| true);
        prop_assert!(answer.is_whole(), "{:?}", answer.because);
        prop_assert_eq!(check(&problem, &answer.start), []);
        prop_assert_eq!(&answer, &plan(&problem, budget, &|_| true));
        let (which, from, long) = outage;
        let resource = ["cook", "mixer", "oven"][which].to_owned();
        let cap = problem.resources.iter().find(|own| own.id == resource).unwrap().cap - 1;
        let event = Event { now: from - 30, late: Vec::new(), less: vec![Less { resource, from, to: from + long, cap }], begun: Vec::new(), pinned: Vec::new() };
        let told = replan(&problem, &answer.start, &event, Level::Overtime, &|_| true);
        if told.level != Level::Nothing {
            let broken = check(&after(&problem, &event), &told.start);
            prop_assert!(broken.iter().all(|own| told.level == Level::Overtime && own.rule == Rule::Open), "{:?} {broken:?}", told.level);
            for (step, at) in answer.start.iter().enumerate() {
                if at.unwrap() < event.now {
                    prop_assert_eq!(told.start[step], *at);
                }
            }
        }
    }
}
