//! Bodies as they are written down: what must hold whatever the body, what is said where a goal is out of reach, and what is
//! refused.

use crate::heat_series::answered;
use crate::support::{number, rows};
use pastry::fault::FaultCode;
use pastry::heat::{CaseDocument, HeatShares, cool};
use serde_json::{Value, json};

fn custard() -> Value {
    json!({ "comp": {
        "water": 0.685, "protein": 0.042, "sugar": 0.165, "starch": 0.046, "ash": 0.007, "fat_milk": 0.03, "fat_oil": 0.025
    } })
}

fn shaped(shape: &str, mm: f64) -> Value {
    let mut case = match shape {
        "slab" => json!({ "thickness_mm": mm }),
        "stack" => {
            json!({ "layers": [{ "thickness_mm": mm }, { "thickness_mm": 0.1 * mm }], "diameter_mm": 200 })
        }
        "bowl" => json!({ "diameter_mm": 4.0 * mm, "height_mm": mm }),
        "dome" | "ball" => json!({ "diameter_mm": mm }),
        _ => {
            json!({ "diameter_mm": 3.0 * mm, "height_mm": mm, "inner_diameter_mm": if shape == "ring" { Some(mm) } else { None } })
        }
    };
    case["shape"] = shape.into();
    case
}

/// In one place from all sides.
fn placed(shape: &str, mm: f64, start_c: f64, air_c: f64, h: Value, marks: Value) -> Value {
    let mut case = shaped(shape, mm);
    let face = json!({ "h": h, "t": air_c });
    let mut phase = json!({ "min": 3000, "top": face, "bottom": face });
    if shape != "slab" {
        phase["side"] = face;
    }
    case["material"] = custard();
    case["start_c"] = start_c.into();
    case["phases"] = json!([phase]);
    case["marks"] = marks;
    case
}

const SHAPES: [&str; 7] = ["slab", "cylinder", "ring", "ball", "dome", "bowl", "stack"];

fn minutes(case: &Value) -> f64 {
    answered(case)["marks"][0]["min"].as_f64().unwrap_or(f64::INFINITY)
}

/// Rows of practice that hold no formula of ours: a cake of butter sponge from the fridge, a block of butter, and butter in cubes
/// of 15 mm (a ball of their volume), in a room of 21 °C. The cake from the oven steams, which a written case does not: it is
/// held by its vector (cool-20).
#[test]
fn cakes_and_butter_warm_as_cooks_say() {
    let sponge = json!({ "comp": {
        "water": 0.25, "protein": 0.06, "sugar": 0.28, "starch": 0.21, "fibre": 0.008, "ash": 0.012, "fat_milk": 0.16,
        "fat_oil": 0.02
    }, "air": 0.58, "continuous": "water" });
    let butter = json!({ "comp": {
        "water": 0.16, "protein": 0.006, "sugar": 0.007, "ash": 0.002, "fat_milk": 0.825
    }, "continuous": "fat" });
    let of = |[shape, material]: [Value; 2], size: Value, start_c: f64, h: f64, point: &str, to_c: f64| {
        let mut case = size;
        let face = json!({ "h": h, "t": 21 });
        (case["shape"], case["material"], case["start_c"]) = (shape, material, start_c.into());
        case["phases"] = json!([{ "min": 3000, "top": face, "side": face, "bottom": face }]);
        case["marks"] = json!([{ "point": point, "to_c": to_c }]);
        minutes(&case)
    };
    let round = |diameter: f64, height: f64| json!({ "diameter_mm": diameter, "height_mm": height });
    let mut wrong = Vec::new();
    let mut held = 0;
    for row in rows(include_str!("data/cooling_practice.csv")) {
        let min = match row["key"].as_str() {
            "layer" => of(["cylinder".into(), sponge.clone()], round(200.0, 100.0), 5.0, 10.0, "mean", 16.0),
            "butter" => of(["cylinder".into(), butter.clone()], round(90.0, 42.0), 4.0, 10.0, "mean", 16.0),
            "cubes" => {
                of(["ball".into(), butter.clone()], json!({ "diameter_mm": 18.6 }), 4.0, 10.0, "mean", 18.0)
            }
            _ => continue,
        };
        held += 1;
        if !(number(&row, "low")..=number(&row, "high")).contains(&min) {
            wrong.push(format!("{}: {min:.0} min ({})", row["fact"], row["source"]));
        }
    }
    assert!(held == 3 && wrong.is_empty(), "{held}: {wrong:#?}");
}

#[test]
fn colder_air_is_never_slower_and_deeper_is_never_faster() {
    for shape in SHAPES {
        for point in ["hottest", "core", "mean", "skin", "coldest"] {
            let marks = json!([{ "point": point, "to_c": 21 }]);
            let of = |mm: f64, air_c: f64, h: f64| {
                minutes(&placed(shape, mm, 85.0, air_c, json!(h), marks.clone()))
            };
            let usual = of(30.0, 4.0, 10.0);
            let name = format!("{shape}, {point}");
            assert!(usual > 1.0 && usual < 3000.0, "{name}: {usual}");
            assert!(
                of(30.0, 0.0, 10.0) < usual && of(30.0, -20.0, 10.0) < of(30.0, 0.0, 10.0),
                "{name}: colder air"
            );
            assert!(of(30.0, 4.0, 25.0) < usual, "{name}: more air");
            assert!(of(60.0, 4.0, 10.0) > usual && of(15.0, 4.0, 10.0) < usual, "{name}: deeper");
        }
    }
}

#[test]
fn a_band_lies_around_its_middle_and_points_are_in_their_order() {
    for shape in SHAPES {
        let marks = json!([
            { "point": "coldest", "after_min": 30 }, { "point": "mean", "after_min": 30 }, { "point": "hottest", "after_min": 30 },
            { "point": "mean", "to_c": 21 }, { "point": "core", "after_min": 30 }, { "point": "skin", "after_min": 30 }
        ]);
        let answer = answered(&placed(shape, 40.0, 85.0, 4.0, json!([5, 8, 11]), marks));
        let c = |at: usize| answer["marks"][at]["c"].as_f64().unwrap();
        assert!(4.0 <= c(0) && c(0) <= c(1) && c(1) <= c(2) && c(2) <= 85.0, "{shape}: {answer}");
        assert!(c(5) <= c(1) + 1e-9 && c(4) <= c(2) + 0.5, "{shape}: {answer}");
        for (at, key) in [(1, "c"), (3, "min")] {
            let of = |key: &str| answer["marks"][at][key].as_f64().unwrap();
            assert!(of("low") < of(key) && of(key) < of("high"), "{shape}: {answer}");
        }
    }
}

#[test]
fn what_is_never_reached_says_so_and_what_is_nearest() {
    let why = |air_c: f64, to_c: f64| {
        let answer = answered(&placed(
            "bowl",
            50.0,
            85.0,
            air_c,
            json!(8),
            json!([{ "point": "hottest", "to_c": to_c }]),
        ));
        assert!(answer["marks"][0]["min"].is_null(), "{answer}");
        answer["marks"][0]["why"].as_str().unwrap().to_owned()
    };
    let room = why(24.0, 21.0);
    assert!(room.contains("24.0 °C") && room.contains("25.0 °C"), "{room}");
    let mut short = placed("bowl", 80.0, 85.0, 4.0, json!(8), json!([{ "point": "hottest", "to_c": 5 }]));
    short["phases"][0]["min"] = 60.into();
    let answer = answered(&short);
    let why = answer["marks"][0]["why"].as_str().unwrap();
    assert!(why.contains("after 60 min") && why.contains("leave it longer"), "{why}");
    // Where it stands from the start it is at once.
    assert_eq!(
        minutes(&placed("slab", 20.0, 21.0, 4.0, json!(8), json!([{ "point": "mean", "to_c": 21 }]))),
        0.0
    );
}

#[test]
fn a_case_at_fault_is_refused_field_by_field() {
    let usual = placed("cylinder", 40.0, 85.0, 4.0, json!(8), json!([{ "point": "mean", "to_c": 21 }]));
    let cases: [(&str, Value, &str, FaultCode); 12] = [
        ("/start_c", json!(500), "start_c", FaultCode::OutOfRange),
        ("/diameter_mm", Value::Null, "diameter_mm", FaultCode::NoSize),
        ("/inner_diameter_mm", json!(200), "inner_diameter_mm", FaultCode::LimitsCrossed),
        ("/material", Value::Null, "material", FaultCode::NothingInIt),
        ("/material/comp/water", json!(0.2), "material.comp", FaultCode::DoesNotAddUp),
        ("/phases/0/min", json!(0), "phases.0.min", FaultCode::OutOfRange),
        ("/phases/0/min", json!(525600), "phases", FaultCode::TooLong),
        ("/phases/0/top/h", json!([9, 8, 7]), "phases.0.top.h", FaultCode::LimitsCrossed),
        ("/phases/0/top/h", json!(0), "phases.0.top.h", FaultCode::OutOfRange),
        ("/phases", json!([]), "phases", FaultCode::HowMany),
        ("/marks/0/after_min", json!(20), "marks.0", FaultCode::WrongValue),
        (
            "/marks",
            json!([{ "point": "mean", "after_min": 4000 }]),
            "marks.0.after_min",
            FaultCode::OutOfRange,
        ),
    ];
    for (path, value, field, code) in cases {
        let mut case = usual.clone();
        match case.pointer_mut(path) {
            Some(at) => *at = value.clone(),
            None => case["marks"][0]["after_min"] = value.clone(),
        }
        let document: CaseDocument = serde_json::from_value(case).unwrap();
        let faults = cool(&document).unwrap_err();
        assert!(
            faults.iter().any(|fault| fault.field == field && fault.code == code),
            "{path} {value}: {faults:?}"
        );
    }
    assert!(
        serde_json::from_value::<CaseDocument>(json!({ "shape": "pyramid", "phases": [], "marks": [] }))
            .is_err()
    );
}

#[test]
fn nothing_that_is_written_is_left_unread() {
    let refused = |shape: &str, path: &str, value: Value| {
        let mut case = placed(shape, 40.0, 85.0, 4.0, json!(8), json!([{ "point": "mean", "to_c": 21 }]));
        case[path] = value;
        let document: CaseDocument = serde_json::from_value(case).unwrap();
        cool(&document).unwrap_err()[0].field.clone()
    };
    assert_eq!(refused("bowl", "kg", json!(3)), "height_mm");
    assert_eq!(refused("ball", "thickness_mm", json!(10)), "thickness_mm");
    assert_eq!(refused("slab", "watch", json!(0)), "watch");
    assert_eq!(refused("slab", "const", json!({ "k": 0.5, "rho": 1000, "c": 3500 })), "material");
    let faces = json!([{ "min": 60, "top": { "h": 8, "t": 4 }, "side": { "h": 50, "t": -20 } }]);
    assert_eq!(refused("ball", "phases", faces), "phases.0");
}

/// A body of constants loses what it held: ρ c V (T₀ − T), whatever its shape.
#[test]
fn heat_is_neither_made_nor_lost() {
    use pastry::heat::{Body, Face, Layer, Material, Outline, Stretch, Until};
    let material = Material::constant(0.5, 1000.0, 3500.0);
    let face = Some(Face { h: 12.0, air_c: 4.0, resistance: 0.0, moist: None });
    let radius_m = 0.05;
    for (outline, volume) in [
        (Outline::Wide, 0.04),
        (
            Outline::Round { radius_m, hole_m: 0.0, rings: 6 },
            0.04 * std::f64::consts::PI * radius_m * radius_m,
        ),
        (Outline::Ball { shells: 9 }, std::f64::consts::PI / 6.0 * 0.04f64.powi(3)),
    ] {
        let layers = vec![Layer { material: &material, thickness_m: 0.04, t_c: 80.0, cells: 7 }];
        let stretch = Stretch {
            seconds: 2400.0,
            top: face,
            side: face,
            bottom: face,
            stir_s: Some(300.0),
            as_one: None,
        };
        let course = Body { layers, outline, watch: None }.follow(&[stretch], Until::TimeIsUp);
        let mean = course.moments.last().unwrap().mean;
        let held = 1000.0 * 3500.0 * volume * (80.0 - mean);
        assert!((course.lost_j / held - 1.0).abs() < 1e-9, "{outline:?}: {} for {held}", course.lost_j);
    }
}

/// The laws of each part against `CoolProp`'s (`data/food_component_thermal.csv`), which ships the same fits of Choi & Okos.
#[test]
fn parts_hold_and_pass_heat_as_the_published_fits_do() {
    for row in rows(include_str!("data/food_component_thermal.csv")) {
        let none = HeatShares::default();
        let shares = match row["component"].as_str() {
            "water" => HeatShares { water: 1.0, ..none },
            "protein" => HeatShares { protein: 1.0, ..none },
            "fat" => HeatShares { oil: 1.0, ..none },
            // Starch, so that none of it is crystal.
            "carbohydrate" => HeatShares { starch: 1.0, ..none },
            "fibre" | "fiber" => HeatShares { fibre: 1.0, ..none },
            "ash" => HeatShares { ash: 1.0, ..none },
            _ => continue,
        };
        let t_c = number(&row, "T_C");
        let name = format!("{} at {t_c} °C", row["component"]);
        let close = |what: &str, got: f64, want: f64, share: f64| {
            assert!((got / want - 1.0).abs() < share, "{name}: {what} {got}, published {want}");
        };
        close("capacity", shares.sensible_capacity(t_c), number(&row, "cp_J_kgK"), 0.013);
        close("conduction", shares.conducts(t_c, 0.0, 0.0, false), number(&row, "k_W_mK"), 0.01);
        close("density", shares.density(t_c, 0.0), number(&row, "rho_kg_m3"), 0.005);
    }
}
