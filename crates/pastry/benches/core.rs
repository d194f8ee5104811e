//! The core's speed: a sweep with band and windows, one evaluation, a parse, a whole answer.

// The group macro writes a public function of its own.
#![allow(missing_docs)]

use criterion::{Criterion, criterion_group, criterion_main};
use pastry::balance::{solve, ways, with_problem};
use pastry::formula::{Family, Mixture, System};
use pastry::ingredient::{Shelf, find};
use pastry::job::assess::map;
use pastry::job::starts::starts;
use pastry::job::{FormulaDocument, Job, assess};
use pastry::rheology::kernel::Predictor;
use pastry::rheology::{Grid, History, Options, sweep};
use pastry::units::amount::parse;
use std::hint::black_box;

const LINES: [(&str, f64); 6] = [
    ("milk40", 150.0),
    ("cream36", 104.0),
    ("dark70", 24.0),
    ("glucose40", 20.0),
    ("butter82", 12.0),
    ("salt", 0.6),
];

fn predictor() -> Predictor {
    let lines = LINES.map(|(id, grams)| (find(id).expect("in the catalogue"), grams));
    Predictor::new(&Mixture::new(lines), System::Ganache, &Options::default())
}

fn document() -> FormulaDocument {
    let lines: Vec<String> =
        LINES.iter().map(|(id, g)| format!(r#"{{"ingredient":"{id}","amount":"{g} g"}}"#)).collect();
    let text = format!(
        r#"{{"format":"bright-spoon/formula","version":1,"family":"ganache","lines":[{}],
            "work":{{"job":{{"kind":"drip"}},"temperature_c":29,"room_temperature_c":21}}}}"#,
        lines.join(",")
    );
    serde_json::from_str(&text).expect("a good document")
}

fn core(c: &mut Criterion) {
    let ready = predictor();
    c.bench_function("one evaluation", |b| b.iter(|| ready.base.at(black_box(27.3), History::Fresh)));
    c.bench_function("sweep of 91 with band", |b| {
        b.iter(|| sweep(black_box(&ready), History::Fresh, Grid::COOL))
    });
    for job in Job::usual() {
        let history = job.histories(Family::Ganache)[0];
        let axis = job.axis(Family::Ganache);
        c.bench_function(&format!("sweep of 91 with band and windows, {}", job.word()), |b| {
            b.iter(|| map(&predictor(), black_box(&job), axis, history, Grid::COOL));
        });
    }
    c.bench_function("parse an amount", |b| b.iter(|| parse(black_box("1 1/2 cups"))));
    let document = document();
    c.bench_function("whole answer, drip", |b| b.iter(|| assess(black_box(&document))));
    let shelf = Shelf::catalogue();
    for verb in ["drip", "mask"] {
        let start = starts(Family::Ganache).iter().find(|start| start.work.job.verb() == verb);
        let mut stiff = start.expect("a start for the job").clone();
        let grams = stiff.formula().weigh(&shelf).expect("a start can be weighed")[0].mass.grams();
        stiff.lines[0].amount = format!("{} g", 1.6 * grams);
        c.bench_function(&format!("ways there, {verb}"), |b| {
            b.iter(|| ways(black_box(&stiff), &shelf, &|_| None));
        });
        let measured = with_problem(&stiff, &shelf, |problem| {
            c.bench_function(&format!("smallest rebalance, {verb}"), |b| {
                b.iter(|| solve(black_box(problem)))
            });
        });
        measured.expect("a problem");
    }
}

criterion_group!(benches, core);
criterion_main!(benches);
