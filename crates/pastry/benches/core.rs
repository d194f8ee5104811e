//! The core's speed: a sweep with band and windows, one evaluation, a parse, a whole answer.

// The group macro writes a public function of its own.
#![allow(missing_docs)]

use criterion::{Criterion, criterion_group, criterion_main};
use jiff::Timestamp;
use pastry::assess::map::map;
use pastry::assess::ready::bearing;
use pastry::assess::starts::starts;
use pastry::assess::{BroughtComponent, FormulaDocument, Ready, assess, assess_from};
use pastry::balance::{solve, ways, with_problem};
use pastry::belief::{Beliefs, Offset, Terms};
use pastry::clock::ClockDocument;
use pastry::formula::{Family, Line, Mixture, System};
use pastry::heat::stand::StandDocument;
use pastry::heat::vessel::{VesselDocument, VesselKind};
use pastry::heat::{CaseDocument, Surroundings, cool};
use pastry::ingredient::{Shelf, catalogue, find};
use pastry::job::Job;
use pastry::learn::{Taught, learn};
use pastry::method::{clocked, sheet};
use pastry::order::{OrderDocument, OrderedCake, order};
use pastry::rescue::{OverpourAsk, RescueAsk, Sign, overpour, rescue};
use pastry::rheology::Predictor;
use pastry::rheology::{Grid, History, Options, sweep};
use pastry::scale::{ScaleAsk, Target, Whole, scale};
use pastry::stack::{Body, Known, Layer, StackDocument, stack, templates};
use pastry::swap::{SwapAsk, SwapFor, swap};
use pastry::units::amount::parse;
use std::collections::HashMap;
use std::hint::black_box;
use std::time::Instant;

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

fn making(c: &mut Criterion) {
    let shelf = Shelf::catalogue();
    let mask = starts(Family::Ganache).iter().find(|start| start.work.job.word() == "mask");
    let mask = mask.expect("a start for the job").clone();
    let swapped = SwapAsk {
        document: mask.clone(),
        ask: SwapFor::Replace { line: 0, by: "dark70".into() },
        keep: Vec::new(),
    };
    c.bench_function("swap, mask", |b| b.iter(|| swap(black_box(&swapped), &shelf, &|_| Some(5.0))));
    for verb in ["drip", "mask"] {
        let start = starts(Family::Ganache).iter().find(|start| start.work.job.word() == verb);
        let asked = RescueAsk {
            document: start.expect("a start for the job").clone(),
            sign: Sign::TooStiff,
            bowl_c: Some(18.0),
            bowl_g: None,
            not_at_hand: Vec::new(),
        };
        c.bench_function(&format!("rescue, {verb}"), |b| b.iter(|| rescue(black_box(&asked), &shelf)));
    }
    let poured = OverpourAsk { document: mask.clone(), line: 1, poured: "190 g".into() };
    c.bench_function("overpour, mask", |b| b.iter(|| overpour(black_box(&poured), &shelf)));
    let sized = ScaleAsk {
        document: mask.clone(),
        target: Target::Mass { grams: 2000.0 },
        loss_percent: 4.0,
        whole: Whole::Nothing,
        whole_line: None,
    };
    c.bench_function("scale, mask", |b| b.iter(|| scale(black_box(&sized), &shelf, &|_| None)));
    c.bench_function("methods, mask", |b| b.iter(|| sheet(black_box(&mask), &shelf, &[])));
}

/// Five tiers of twelve places, with the formulas of four families in them.
fn tall() -> (StackDocument, HashMap<String, FormulaDocument>) {
    let start = |family: Family, job: &str| {
        let found = starts(family).iter().find(|start| start.work.job.word() == job);
        found.expect("a start for the job").clone()
    };
    let formulas = HashMap::from([
        ("fill".to_owned(), start(Family::Ganache, "fill")),
        ("mask".to_owned(), start(Family::Buttercream, "mask")),
        ("drip".to_owned(), start(Family::Ganache, "drip")),
        ("soak".to_owned(), start(Family::Syrup, "soak")),
        ("pipe".to_owned(), start(Family::SwissButtercream, "pipe")),
    ]);
    let mut document = templates().into_iter().find(|own| own.key == "tiers").expect("a template").document;
    let mut tier = document.tiers[0].clone();
    for layer in &mut tier.layers {
        match layer {
            Layer::Sponge { soak: Some(soak), .. } => soak.component = Some("soak".to_owned()),
            Layer::Sponge { .. } => {}
            Layer::Filling { component, dam, .. } => {
                *component = Some("fill".to_owned());
                dam.iter_mut().for_each(|dam| dam.component = Some("mask".to_owned()));
            }
        }
    }
    for coat in [&mut tier.crumb_coat, &mut tier.coat].into_iter().flatten() {
        coat.component = Some("mask".to_owned());
    }
    tier.drip.iter_mut().for_each(|drip| drip.component = Some("drip".to_owned()));
    tier.borders.iter_mut().for_each(|border| border.component = Some("pipe".to_owned()));
    document.tiers = (0..5)
        .map(|at| {
            let mut own = tier.clone();
            own.body = Body::Round { diameter_mm: 400.0 - 60.0 * f64::from(at) };
            own
        })
        .collect();
    (document, formulas)
}

fn cakes(c: &mut Criterion) {
    let (document, formulas) = tall();
    let shelf = Shelf::catalogue();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let places = stack(&document, &known, 21.0).expect("a cake").places.len();
    assert_eq!(places, 80);
    c.bench_function("stack, 5 tiers, 80 places", |b| {
        b.iter(|| stack(black_box(&document), &known, 21.0));
    });
    let ordered = OrderDocument {
        cakes: vec![OrderedCake { stack: document, count: 1 }],
        ..OrderDocument::empty(21.0)
    };
    c.bench_function("order of that cake", |b| {
        b.iter(|| order(black_box(&ordered), &known, &|ingredient| ingredient.pack, &|_| Vec::new()));
    });
}

fn clocks(c: &mut Criterion) {
    let shelf = Shelf::catalogue();
    let case = |shape: &str, top: &str| -> CaseDocument {
        serde_json::from_str(&format!(
            r#"{{{shape},"const":{{"k":0.5,"rho":1090,"c":3500}},"start_c":85,"phases":[{{"min":480,{top}}}],
                "marks":[{{"point":"hottest","to_c":21}},{{"point":"mean","after_min":200}}]}}"#
        ))
        .expect("a good case")
    };
    let air = r#"{"h":[5,8,11],"t":4}"#;
    let slab = case(r#""shape":"slab","thickness_mm":20"#, &format!(r#""top":{air},"bottom":{air}"#));
    let bowl = case(
        r#""shape":"bowl","diameter_mm":240,"kg":1"#,
        &format!(r#""top":{air},"side":{air},"bottom":{air}"#),
    );
    c.bench_function("cooling with its band, 20 mm in a tray", |b| b.iter(|| cool(black_box(&slab))));
    c.bench_function("cooling with its band, 1 kg in a bowl", |b| b.iter(|| cool(black_box(&bowl))));
    let fill = starts(Family::PastryCream)[0].clone();
    for (name, formula, kind, place) in [
        ("a drip in a bowl", document(), VesselKind::Bowl, Surroundings::Bench),
        ("a custard in a tray", fill, VesselKind::Tray, Surroundings::Fridge),
    ] {
        let mut ask = ClockDocument::of(formula, VesselDocument::usual(kind), StandDocument::at(place));
        for brief in [true, false] {
            ask.brief = brief;
            let all = if brief { "while a size is dragged" } else { "with what is sooner and safer" };
            c.bench_function(&format!("clock of {name}, {all}"), |b| {
                b.iter(|| clocked(black_box(&ask), &shelf))
            });
        }
    }
}

/// Forty lines in all: in one bowl, and in three levels of components.
fn nested(c: &mut Criterion) {
    let shelf = Shelf::catalogue();
    let bought: Vec<&str> = catalogue().iter().map(|own| own.id.as_str()).take(40).collect();
    let lines = |ids: &[&str]| ids.iter().map(|id| Line::new(*id, "20 g")).collect::<Vec<Line>>();
    let mut flat = FormulaDocument::empty(Family::Ganache, starts(Family::Ganache)[0].work.job, 20.0);
    flat.lines = lines(&bought);
    let mut deep = flat.clone();
    deep.lines = lines(&bought[..10]);
    deep.lines.push(Line::new("made-one", "200 g"));
    deep.components = [
        ("one", &bought[10..20], Some("made-two")),
        ("two", &bought[20..30], Some("made-three")),
        ("three", &bought[30..40], None),
    ]
    .into_iter()
    .map(|(key, ids, inner)| {
        let mut own = FormulaDocument { components: Vec::new(), ..flat.clone() };
        own.lines = lines(ids);
        own.lines.extend(inner.map(|inner| Line::new(inner, "200 g")));
        BroughtComponent { key: key.to_owned(), document: own }
    })
    .collect();
    c.bench_function("whole answer, 40 lines in one bowl", |b| {
        b.iter(|| assess_from(black_box(&flat), &shelf))
    });
    c.bench_function("whole answer, 40 lines in three levels", |b| {
        b.iter(|| assess_from(black_box(&deep), &shelf))
    });
}

/// Readings of so many batches over the offsets of every family's starts, from three makers in turn.
fn readings(many: usize) -> Vec<Taught> {
    let shelf = Shelf::catalogue();
    let terms: Vec<Terms> = Family::ALL
        .iter()
        .flat_map(|family| starts(*family).iter().map(move |own| (*family, own)))
        .map(|(family, own)| {
            let ready = Ready::of(own, &shelf).expect("a start is good");
            let at = (own.work.temperature_c.celsius(), own.history());
            let [of_yield, _] = bearing(&ready.lines, family, &ready.options, at);
            of_yield
        })
        .collect();
    let makers = ["", "-of-another-maker", "-of-a-third"];
    let terms: Vec<Terms> =
        makers.iter().flat_map(|maker| terms.iter().map(|own| of_maker(own, maker))).collect();
    let mut dice = fastrand::Rng::with_seed(3);
    (0..many)
        .map(|at| Taught {
            id: format!("test-{at:03}"),
            batch: format!("batch-{at:03}"),
            at: Timestamp::from_second(1_767_268_800 + 86_400 * at as i64).expect("a day"),
            terms: terms[at % terms.len()].clone(),
            ln_over: 0.6 * (dice.f64() - 0.5),
            reading: 0.03,
            left_out: false,
        })
        .collect()
}

fn of_maker(own: &Terms, maker: &str) -> Terms {
    let mut own = own.clone();
    for (offset, _) in &mut own.weights {
        if let Offset::Ingredient { ingredient } = offset {
            ingredient.push_str(maker);
        }
    }
    own
}

/// How much longer an answer takes from one shelf than from another: the median of pairs, one right after the other, as a machine that is
/// slow for a while is slow for both.
fn paired(document: &FormulaDocument, [one, other]: [&Shelf; 2]) -> f64 {
    let took = |shelf: &Shelf| {
        let begun = Instant::now();
        let _ = black_box(assess_from(black_box(document), shelf));
        begun.elapsed().as_secs_f64()
    };
    let pair = |at: usize| {
        let (first, then) = if at.is_multiple_of(2) { (one, other) } else { (other, one) };
        let (first, then) = (took(first), took(then));
        if at.is_multiple_of(2) { then / first } else { first / then }
    };
    let mut ratios: Vec<f64> = (0..2_000).map(pair).collect();
    ratios.sort_by(f64::total_cmp);
    ratios[ratios.len() / 2]
}

/// What a kitchen learns, and what that costs a prediction: beside the same prediction by the book.
fn learned(c: &mut Criterion) {
    let all = readings(500);
    let posterior = learn(&all).posterior;
    let offsets = posterior.offsets().count();
    c.bench_function(&format!("learning anew, 500 batches, {offsets} offsets"), |b| {
        b.iter(|| learn(black_box(&all)));
    });
    let document = document();
    let book = Shelf::catalogue();
    let beliefs = Beliefs { of_yield: posterior.clone(), of_viscosity: posterior };
    let taught = Shelf::catalogue().taught(beliefs.into());
    println!(
        "whole answer, drip, with what was learned: {:.3} times by the book",
        paired(&document, [&book, &taught])
    );
    c.bench_function("whole answer, drip, by the book", |b| {
        b.iter(|| assess_from(black_box(&document), &book));
    });
    c.bench_function("whole answer, drip, with what was learned", |b| {
        b.iter(|| assess_from(black_box(&document), &taught));
    });
}

criterion_group!(benches, core, making, cakes, clocks, nested, learned);
criterion_main!(benches);
