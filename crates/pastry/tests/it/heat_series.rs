//! Bodies that cool against exact series (Carslaw & Jaeger 1959): slab, cylinder, ball and unequal faces, at the middle, as a
//! mean and at the skin; and against SciPy's sums of the same (`data/transient_conduction_core.csv`).

use crate::support::{number, rows};
use pastry::heat::{CaseDocument, cool};
use serde_json::{Value, json};
use std::f64::consts::PI;

const CONDUCTS: f64 = 0.5;
const DENSITY: f64 = 1000.0;
const CAPACITY: f64 = 3500.0;
const DIFFUSIVITY: f64 = CONDUCTS / (DENSITY * CAPACITY);
const HALF_M: f64 = 0.02;

/// What a case answers, as JSON.
pub fn answered(case: &Value) -> Value {
    let document: CaseDocument =
        serde_json::from_value(case.clone()).unwrap_or_else(|error| panic!("{error}: {case}"));
    serde_json::to_value(cool(&document).unwrap_or_else(|faults| panic!("{faults:?}: {case}"))).unwrap()
}

/// From 100 °C in 0 °C: degrees are per cent of the way.
fn case(shape: &str, h: f64, marks: Value) -> Value {
    let (size, faces) = match shape {
        "slab" => (json!({ "thickness_mm": 2e3 * HALF_M }), vec!["top", "bottom"]),
        "one_sided" => (json!({ "thickness_mm": 1e3 * HALF_M }), vec!["top"]),
        // So high that its ends do not matter.
        "cylinder" => (json!({ "diameter_mm": 2e3 * HALF_M, "height_mm": 1000 }), vec!["side"]),
        "sphere" => (json!({ "diameter_mm": 2e3 * HALF_M }), vec!["side"]),
        "can" => {
            (json!({ "diameter_mm": 2e3 * HALF_M, "height_mm": 2e3 * HALF_M }), vec!["top", "side", "bottom"])
        }
        other => panic!("no shape {other}"),
    };
    let name = match shape {
        "one_sided" => "slab",
        "sphere" => "ball",
        "can" => "cylinder",
        other => other,
    };
    let mut phase = json!({ "min": 20160 });
    for way in faces {
        phase[way] = json!({ "h": h, "t": 0, "r": 0 });
    }
    let mut case = json!({
        "shape": name, "const": { "k": CONDUCTS, "rho": DENSITY, "c": CAPACITY }, "start_c": 100,
        "phases": [phase], "marks": marks
    });
    for (key, value) in size.as_object().unwrap() {
        case[key] = value.clone();
    }
    case
}

fn minutes_of(fo: f64) -> f64 {
    fo * HALF_M * HALF_M / DIFFUSIVITY / 60.0
}

/// Never earlier than half of a per cent, never later than one: who is told "cold enough" must not be told too early.
fn on_the_safe_side(name: &str, got: f64, exact: f64) {
    let off = 100.0 * (got / exact - 1.0);
    // A skin is no safety: it is where the hand feels, and a per cent either way.
    let early = if name.contains("skin") { -1.0 } else { -0.5 };
    assert!((early..=1.0).contains(&off), "{name}: {got:.3} min, exactly {exact:.3}: {off:+.2} %");
}

#[test]
fn cores_are_where_scipy_has_them() {
    for row in rows(include_str!("data/transient_conduction_core.csv")) {
        let (shape, biot, fo) = (row["geometry"].as_str(), number(&row, "Bi"), number(&row, "Fo"));
        let theta = number(&row, "theta_core");
        // Below a thousandth of the way nobody reads a thermometer; near 1 a small difference is a long time.
        if !(0.002..=0.97).contains(&theta) {
            continue;
        }
        let marks = json!([{ "point": "core", "to_c": 100.0 * theta }, { "point": "core", "after_min": minutes_of(fo) }]);
        let answer = answered(&case(shape, biot * CONDUCTS / HALF_M, marks));
        let name = format!("{shape}, Bi {biot}, Fo {fo}");
        let off = answer["marks"][1]["c"].as_f64().unwrap() - 100.0 * theta;
        assert!(off.abs() < 0.6, "{name}: {off:+.2} of a hundred degrees");
        on_the_safe_side(&name, answer["marks"][0]["min"].as_f64().unwrap(), minutes_of(fo));
    }
}

/// Bessel functions of the first kind, by their integral.
fn bessel(order: f64, x: f64) -> f64 {
    const STEPS: usize = 60;
    let of = |t: f64| (order * t - x * t.sin()).cos();
    (0..STEPS).map(|k| of((k as f64 + 0.5) * PI / STEPS as f64)).sum::<f64>() / STEPS as f64
}

/// Roots of the condition at the face, and what each term weighs at the middle, as a mean and at the skin.
fn terms(shape: &str, biot: f64) -> Vec<(f64, [f64; 3])> {
    let condition = |z: f64| match shape {
        "slab" => z * z.sin() - biot * z.cos(),
        "cylinder" => z * bessel(1.0, z) - biot * bessel(0.0, z),
        _ => z.sin() * (1.0 - biot) - z * z.cos(),
    };
    let mut found = Vec::new();
    let mut z = 1e-4;
    while found.len() < 14 {
        let next = z + 0.05;
        if condition(z) * condition(next) < 0.0 {
            let (mut low, mut high) = (z, next);
            for _ in 0..60 {
                let middle = 0.5 * (low + high);
                if condition(low) * condition(middle) <= 0.0 { high = middle } else { low = middle }
            }
            let root = 0.5 * (low + high);
            let (sin, cos) = root.sin_cos();
            found.push((
                root,
                match shape {
                    "slab" => {
                        let a = 4.0 * sin / (2.0 * root + (2.0 * root).sin());
                        [a, a * sin / root, a * cos]
                    }
                    "cylinder" => {
                        let (j0, j1) = (bessel(0.0, root), bessel(1.0, root));
                        let a = 2.0 * j1 / (root * (j0 * j0 + j1 * j1));
                        [a, a * 2.0 * j1 / root, a * j0]
                    }
                    _ => {
                        let a = 4.0 * (sin - root * cos) / (2.0 * root - (2.0 * root).sin());
                        [a, 3.0 * a * (sin - root * cos) / root.powi(3), a * sin / root]
                    }
                },
            ));
        }
        z = next;
    }
    found
}

/// Middle, mean and skin, of the way from the air to the start.
fn series(shape: &str, biot: f64, fo: f64) -> [f64; 3] {
    terms(shape, biot).iter().fold([0.0; 3], |sum, (z, weights)| {
        let left = (-z * z * fo).exp();
        [0, 1, 2].map(|k| sum[k] + weights[k] * left)
    })
}

#[test]
fn middle_mean_and_skin_are_where_the_series_has_them() {
    for shape in ["slab", "cylinder", "sphere"] {
        for biot in [0.004, 0.05, 0.3, 1.0, 5.0, 20.0] {
            for fo in [0.15, 0.4, 1.0, 3.0, 100.0] {
                let exact = series(shape, biot, fo);
                let marks: Vec<Value> = ["core", "hottest", "mean", "skin"]
                    .iter()
                    .zip([exact[0], exact[0], exact[1], exact[2]])
                    .filter(|(_, theta)| (0.01..=0.95).contains(theta))
                    .map(|(point, theta)| json!({ "point": point, "to_c": 100.0 * theta }))
                    .collect();
                if marks.is_empty() {
                    continue;
                }
                let answer = answered(&case(shape, biot * CONDUCTS / HALF_M, json!(marks)));
                for (mark, got) in marks.iter().zip(answer["marks"].as_array().unwrap()) {
                    let name = format!("{shape}, Bi {biot}, Fo {fo}, {}", mark["point"]);
                    on_the_safe_side(&name, got["min"].as_f64().unwrap(), minutes_of(fo));
                }
            }
        }
    }
}

/// A slab that is open on one side is half of one that is open on both; a can is the product of slab and cylinder.
#[test]
fn halves_and_products_are_what_they_must_be() {
    for biot in [0.1, 1.0, 10.0] {
        for fo in [0.2, 0.6, 1.5] {
            let h = biot * CONDUCTS / HALF_M;
            let [core, mean, _] = series("slab", biot, fo);
            let theta = core * series("cylinder", biot, fo)[0];
            for (shape, point, theta) in
                [("one_sided", "hottest", core), ("one_sided", "mean", mean), ("can", "core", theta)]
            {
                if !(0.01..=0.95).contains(&theta) {
                    continue;
                }
                let answer = answered(&case(shape, h, json!([{ "point": point, "to_c": 100.0 * theta }])));
                let got = answer["marks"][0]["min"].as_f64().unwrap();
                on_the_safe_side(&format!("{shape}, Bi {biot}, Fo {fo}, {point}"), got, minutes_of(fo));
            }
        }
    }
}

/// Unequal faces in the end: a straight line through the wall, fluxes equal.
#[test]
fn unequal_faces_end_in_a_straight_line() {
    let (h_top, h_bottom, thick) = (8.0, 25.0, 0.04);
    let case = json!({
        "shape": "slab", "thickness_mm": 1e3 * thick, "const": { "k": CONDUCTS, "rho": DENSITY, "c": CAPACITY }, "start_c": 50,
        "phases": [{ "min": 4000, "top": { "h": h_top, "t": 20, "r": 0.01 }, "bottom": { "h": h_bottom, "t": 4 } }],
        "marks": [{ "point": "hottest", "after_min": 4000 }, { "point": "mean", "after_min": 4000 }, { "point": "core", "after_min": 4000 }]
    });
    let answer = answered(&case);
    let resistances = [1.0 / h_top + 0.01, thick / CONDUCTS, 1.0 / h_bottom];
    let flux = 16.0 / resistances.iter().sum::<f64>();
    let (top, bottom) = (20.0 - flux * resistances[0], 4.0 + flux * resistances[2]);
    let got = |at: usize| answer["marks"][at]["c"].as_f64().unwrap();
    assert!(
        (got(1) - 0.5 * (top + bottom)).abs() < 0.02 && (got(2) - got(1)).abs() < 0.02,
        "{answer} {top} {bottom}"
    );
    assert!(got(0) < top && got(0) > top - (top - bottom) / 4.0, "{answer} {top}");
}
