//! The drip's two short cuts against the long way: strides of its own against a plain march through time, and a map read off a
//! few temperatures against every temperature judged.

use crate::support::disturbed;
use pastry::assess::map::map;
use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, Ready};
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::job::duty::{Cream, Outcome};
use pastry::job::jobs::DripGeometry;
use pastry::job::judge::Question;
use pastry::job::kind::Job;
use pastry::job::physics::drip::DripCourse;
use pastry::job::physics::film::{DIFFUSIVITY, contact_c};
use pastry::rheology::{History, Predictor, Prepared};

/// What a drip's length may be off by: half a per cent and a quarter of a millimetre, which no ruler on a cake tells.
fn near(got: f64, want: f64) -> bool {
    (got - want).abs() < 0.005 * want + 0.25
}

/// Every start of the house put to a drip, and every drip put wrong.
fn drips() -> Vec<FormulaDocument> {
    let mut found: Vec<FormulaDocument> = disturbed().into_iter().map(|(_, document)| document).collect();
    found.retain(|document| document.work.job.duty().word() == "drip");
    for document in Family::ALL.iter().flat_map(|family| starts(*family)) {
        let mut document = document.clone();
        document.work.job = Job::Drip(DripGeometry::default());
        found.push(document);
    }
    assert!(found.len() > 60, "{} drips", found.len());
    found
}

fn predictor(document: &FormulaDocument) -> Predictor {
    let ready = Ready::of(document, &Shelf::catalogue()).unwrap();
    Predictor::new(&ready.mixture(), document.family.traits().system, &ready.options)
}

/// The drip as it is written in the book, marched through time in steps of a thousandth of a second and finer where it is fast.
fn marched_mm(prepared: &Prepared, t_c: f64, side_c: f64, dose_ml: f64) -> f64 {
    let (width, lip, weight) = (0.009, 0.010, prepared.density * 9.81);
    let set = prepared.set_by(t_c, History::Fresh, prepared.clock());
    let cold = contact_c(t_c, side_c);
    let nodes: Vec<(f64, f64)> = (0..7)
        .map(|k| {
            let at = prepared.at_set(cold + f64::from(k) / 6.0 * (t_c - cold), History::Fresh, &set);
            (at.yield_stress_pa.ln(), at.plastic_viscosity_pa_s.ln())
        })
        .collect();
    let (mut length, mut warmth, mut time) = (0.0, 1.0f64, 0.0);
    while time < 300.0 && length < 0.2 {
        let slice = 6.0 * warmth;
        let k = (slice as usize).min(5);
        let between = |a: f64, b: f64| (a + (slice - k as f64) * (b - a)).exp();
        let tau = between(nodes[k].0, nodes[k + 1].0);
        let eta = between(nodes[k].1, nodes[k + 1].1);
        let thick = 1e-6 * dose_ml / (width * (length + lip));
        let held = tau / weight;
        if thick <= held {
            break;
        }
        let speed = weight * (thick - held).powi(2) * (2.0 * thick + held) / (6.0 * eta * thick);
        if speed < 5e-5 {
            break;
        }
        let step = (2e-3f64)
            .min(5e-4 * (length + lip) / speed)
            .min(2e-3 * (thick - held) * (length + lip) / thick / speed);
        let step = step.max(1e-7);
        length += step * speed;
        let cools = std::f64::consts::PI.powi(2) * DIFFUSIVITY / (4.0 * thick * thick);
        warmth *= (-cools * step).exp();
        time += step;
    }
    1e3 * length.min(0.2)
}

#[test]
fn strides_come_where_a_march_through_time_comes() {
    let mut checked = 0;
    for document in drips().iter().step_by(4) {
        let predictor = predictor(document);
        for (t_c, side_c, dose) in [(24.0, 5.0, 0.9), (31.0, 5.0, 0.4), (36.0, -18.0, 2.0), (29.0, 21.0, 0.9)]
        {
            let got = DripCourse::new(&predictor.base, t_c, side_c, dose, predictor.base.clock())
                .length_mm(1.0, 1.0);
            let want = marched_mm(&predictor.base, t_c, side_c, dose);
            assert!(
                near(got, want),
                "{}: {got} mm, marched {want}, {t_c} on {side_c} °C, {dose} ml",
                document.name
            );
            checked += usize::from(want > 1.0);
        }
    }
    assert!(checked > 20, "{checked} that run");
}

#[test]
fn a_map_says_what_each_of_its_temperatures_alone_would() {
    let mut read_off = 0;
    for document in drips() {
        let (job, grid) = (&document.work.job, document.grid());
        let axis = job.axis(document.family);
        let predictor = predictor(&document);
        let whole = map(&predictor, job, axis, History::Fresh, grid);
        let question = Question { job, prepared: &predictor.base, axis, history: History::Fresh };
        for (k, own) in whole.judged.iter().enumerate() {
            let t_c = grid.temperature(k);
            let alone = question.judge(&whole.sweep[k], t_c, own.hint);
            let at = format!("{} at {t_c} °C", document.name);
            assert!(
                near(own.measured.value, alone.measured.value),
                "{at}: {:?}, {:?}",
                own.measured,
                alone.measured
            );
            assert!((own.chance - alone.chance).abs() < 0.02, "{at}: {}, {}", own.chance, alone.chance);
            let edge = (own.measured.value - alone.window[0])
                .abs()
                .min((own.measured.value - alone.window[1]).abs());
            assert!(
                own.outcome == alone.outcome || edge < 0.5,
                "{at}: {:?}, {:?}",
                own.outcome,
                alone.outcome
            );
            if own.outcome == Outcome::Inside && alone.outcome == Outcome::Inside {
                assert_eq!(own.stands, alone.stands, "{at}");
            }
            read_off += usize::from(own.measured.value != alone.measured.value);
        }
    }
    assert!(read_off > 100, "{read_off} temperatures read off");
}

#[test]
fn what_sets_while_it_is_done_has_less_of_a_chance() {
    let mut lost = 0;
    for document in drips().iter().step_by(3) {
        let predictor = predictor(document);
        let (job, prepared) = (&document.work.job, &predictor.base);
        let axis = job.axis(document.family);
        let question = Question { job, prepared, axis, history: History::Fresh };
        for t_c in [16.0, 18.0, 19.0, 20.0, 21.0, 23.0] {
            let banded = predictor.at(t_c, History::Fresh);
            let cream = Cream { prepared, axis, clock: prepared.clock() };
            let as_it_comes = job.duty().judge(cream, &banded, t_c, None).chance;
            let judged = question.judge(&banded, t_c, None);
            if judged.unknown.is_some() {
                continue;
            }
            assert!(judged.chance <= as_it_comes + 0.02, "{}: {} at {t_c}", document.name, judged.chance);
            lost += usize::from(judged.chance < 0.9 * as_it_comes && as_it_comes > 0.2);
        }
    }
    assert!(lost > 5, "{lost} lose some");
}

/// Forty standard deviations to either side of what is hardly known: a strip as thin as water comes to where its yield stress
/// holds it before it has cooled at all, ever nearer by ever shorter strides. It comes to an end, and stiffer is never longer.
#[test]
fn however_thin_or_stiff_it_is_taken_to_be_a_drip_comes_to_an_end() {
    let mut ends = 0;
    for document in drips().iter().step_by(5) {
        let predictor = predictor(document);
        for t_c in [5.0, 20.0, 33.0, 60.0] {
            let course = DripCourse::new(&predictor.base, t_c, 5.0, 0.9, predictor.base.clock());
            for yields in [-3.0f64, -1.0, 0.0, 1.0, 3.0] {
                let mut before = f64::INFINITY;
                for thins in (-30..=30).map(|step| 2.0 * f64::from(step)) {
                    let mm = course.about_mm(yields.exp(), thins.exp());
                    assert!(mm.is_finite() && mm <= 200.0, "{mm} mm at {t_c} °C");
                    assert!(
                        mm <= 1.02 * before + 0.5,
                        "{before} mm, then {mm} mm: {yields}, {thins}, {t_c} °C"
                    );
                    (before, ends) = (mm, ends + 1);
                }
            }
        }
    }
    assert!(ends > 10_000, "{ends}");
}
