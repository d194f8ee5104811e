//! Speaks for the core to a solver outside: reads a formula document as one line of JSON, writes the
//! problem of its smallest rebalance as one line of JSON, then answers every further line of amounts
//! ("ln g", blanks between) with "loose stiff split"; a blank line ends it. Used by
//! `scripts/oracle_balance.py`.

use pastry::assess::FormulaDocument;
use pastry::balance::{solve, with_problem};
use pastry::ingredient::Shelf;
use std::io::{BufRead, Write};
use std::time::Instant;

fn main() {
    let mut lines = std::io::stdin().lock().lines().map_while(Result::ok);
    while let Some(first) = lines.next() {
        let document: FormulaDocument = match serde_json::from_str(&first) {
            Ok(document) => document,
            Err(error) => {
                eprintln!("not a formula document: {error}");
                std::process::exit(2);
            }
        };
        let spoken = with_problem(&document, &Shelf::catalogue(), |problem| {
            let started = Instant::now();
            let solution = solve(problem);
            let took = started.elapsed().as_secs_f64();
            let of = |value: fn(&pastry::balance::Variable) -> f64| {
                problem.variables.iter().map(value).collect::<Vec<f64>>()
            };
            say(&serde_json::json!({
                "start": of(|v| v.start_g), "least": of(|v| v.least_g), "most": of(|v| v.most_g),
                "weight": of(|v| v.weight), "total": problem.total_g, "margin": problem.room[0],
                "most_split": problem.most_split, "pairs": problem.pairs,
                "limits": problem.limits.iter().map(|l| l.coefficients.clone()).collect::<Vec<_>>(),
                "ours": solution.grams, "met": solution.met, "cost": solution.cost, "seconds": took,
            }));
            for asked in lines.by_ref() {
                let amounts: Vec<f64> =
                    asked.split_whitespace().filter_map(|word| word.parse().ok()).collect();
                if amounts.len() != problem.variables.len() {
                    break;
                }
                let edges = problem.edges(&amounts);
                say(&format_args!("{:.17e} {:.17e} {:.17e}", edges.loose, edges.stiff, edges.split));
            }
        });
        if let Err(faults) = spoken {
            eprintln!("{faults:?}");
            std::process::exit(2);
        }
    }
}

fn say(line: &dyn std::fmt::Display) {
    let mut out = std::io::stdout().lock();
    // A reader that has gone away ends it.
    if writeln!(out, "{line}").and_then(|()| out.flush()).is_err() {
        std::process::exit(0);
    }
}
