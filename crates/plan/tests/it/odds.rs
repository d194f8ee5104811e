//! The odds of a plan against the closed form, and what must hold of them.

use plan::odds::{Spread, odds};
use plan::problem::Problem;
use serde_json::json;

/// One step of an hour, done half an hour before it leaves.
fn one(spare: i32) -> (Problem, Vec<Option<i32>>) {
    let problem = serde_json::from_value(json!({
        "id": "one", "days": 1, "horizon": 1440, "windows": [[300, 1200]],
        "resources": [{ "id": "cook", "cap": 1 }],
        "orders": [{ "id": 0, "title": "One", "serve": 700 }],
        "steps": [
            { "id": 0, "order": 0, "comp": "a", "name": "make", "kind": "hands", "dur": 60, "use": { "cook": 1 } },
            { "id": 1, "order": 0, "comp": "served", "name": "leaves", "kind": "serve", "dur": 0 }
        ],
        "waits": [], "links": [{ "from": 0, "to": 1, "min": 0 }],
        "weights": { "day_open": 240, "span_per_slot": 20, "interruption": 40 }
    }))
    .unwrap();
    (problem, vec![Some(700 - 60 - spare), Some(700)])
}

/// The distribution function of the normal law by its series (Abramowitz and Stegun 26.2.10, from memory).
fn phi(x: f64) -> f64 {
    let (mut term, mut sum) = (x, x);
    for k in 1..80 {
        term *= -x * x / (2.0 * f64::from(k));
        sum += term / (2.0 * f64::from(k) + 1.0);
    }
    0.5 + sum / std::f64::consts::TAU.sqrt()
}

/// A step that lasts d e^(s z) is in time with probability Φ(ln((d + spare) / d) / s); 20,000 days are within four standard errors.
#[test]
fn one_step_is_in_time_as_often_as_the_closed_form_says() {
    for spare in [0, 5, 15, 30] {
        for hands in [0.1, 0.2, 0.4] {
            let (problem, start) = one(spare);
            let spread = Spread { hands, ..Spread::default() };
            let days = 20_000;
            let found = odds(&problem, &start, spread, days, 7, i32::MIN);
            let expected = phi((f64::from(60 + spare) / 60.0).ln() / hands);
            let share = f64::from(found[0].in_time) / f64::from(days);
            // It is late from the first minute on, not from the first second.
            let error = 4.0 * (expected * (1.0 - expected) / f64::from(days)).sqrt() + 1e-3;
            assert!((share - expected).abs() < error, "{spare} {hands}: {share} and {expected}");
        }
    }
}

#[test]
fn without_spread_every_day_is_as_planned_and_the_same_seed_is_the_same() {
    let (problem, start) = one(0);
    let none = Spread { hands: 0.0, machine: 0.0, wait: 0.0 };
    let found = odds(&problem, &start, none, 200, 1, i32::MIN);
    assert_eq!((found[0].in_time, found[0].bad_day_min, found[0].blame.len()), (200, 0, 0));
    let twice = || odds(&problem, &start, Spread::default(), 500, 9, i32::MIN);
    assert_eq!(twice(), twice());
    assert_ne!(twice(), odds(&problem, &start, Spread::default(), 500, 10, i32::MIN));
    // What was begun went as planned; who is late is to blame.
    let past = odds(&problem, &start, Spread::default(), 500, 9, 700);
    assert_eq!(past[0].in_time, 500);
    let late = twice();
    assert!(late[0].in_time < 500 && late[0].bad_day_min > 0);
    assert_eq!(late[0].blame[0].step, 0);
    assert_eq!(late[0].blame[0].days, 500 - late[0].in_time);
}
