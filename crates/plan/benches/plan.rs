//! The planner on the six problems, beside the best plans an exact solver found for them (OR-tools CP-SAT 9.15, of minutes to
//! hours): how much dearer, after how long.

use plan::answer::plan;
use plan::problem::Problems;
use plan::search::Budget;
use std::sync::Mutex;
use std::time::Instant;

fn main() {
    let problems: Problems = serde_json::from_str(include_str!("../tests/it/data/instances.json"))
        .expect("the problems are well formed");
    let reference: serde_json::Value = serde_json::from_str(include_str!("../tests/it/data/reference.json"))
        .expect("the plans are well formed");
    println!("problem  steps  first plan      best   ours    gap    time");
    for problem in &problems.instances {
        for budget in [Budget::default(), Budget::LONGER] {
            let begun = Instant::now();
            let first = Mutex::new(None);
            let watch = |progress: plan::search::Progress| {
                if progress.better.is_some() {
                    first.lock().expect("no panic").get_or_insert(begun.elapsed());
                }
                true
            };
            let answer = plan(problem, budget, &watch);
            let best = reference["instances"][&problem.id]["objective"].as_f64().unwrap_or(f64::NAN);
            println!(
                "{:<8} {:>5} {:>8.1} ms {:>9} {:>6} {:>5.1} % {:>6.2} s, {} rounds",
                problem.id,
                problem.steps.len(),
                first.lock().expect("no panic").map_or(f64::NAN, |first| 1e3 * first.as_secs_f64()),
                best,
                answer.cost,
                100.0 * (answer.cost as f64 / best - 1.0),
                begun.elapsed().as_secs_f64(),
                budget.rounds,
            );
        }
    }
}
