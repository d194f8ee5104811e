//! The whole answer to a document: what the cook reads.

use pastry::assess::{FormulaDocument, assess};
use pastry::ingredient::Phase;
use pastry::job::Outcome;
use pastry::rheology::warning::WarningCode;
use serde_json::{Value, json};

fn document(change: impl FnOnce(&mut Value)) -> Result<FormulaDocument, serde_json::Error> {
    let mut value = json!({
        "format": "bright-spoon/formula", "version": 1, "name": "Test drip", "family": "ganache",
        "lines": [
            { "ingredient": "dark55", "amount": "100 g" },
            { "ingredient": "cream35", "amount": "100 g" }
        ],
        "work": { "job": { "kind": "drip" }, "temperature_c": 30.0, "room_temperature_c": 21.0 }
    });
    change(&mut value);
    serde_json::from_value(value)
}

#[test]
fn a_drip_that_works_says_so_first() {
    let answer = assess(&document(|_| ()).unwrap()).unwrap();
    assert_eq!(answer.at.outcome, Outcome::Inside);
    assert!(answer.at.headline.ends_with("right to drip at 30.0 °C"), "{}", answer.at.headline);
    // 58 to 59 mm: the trade check D08 of the model, 1:1 dark 55 at 30 °C.
    assert!((answer.at.measured.value - 58.5).abs() < 0.3);
    assert!(answer.at.detail.starts_with("Drips stop at 5"), "{}", answer.at.detail);
    assert_eq!(answer.sweep.len(), 91);
    assert_eq!(answer.sweep[60].measured, answer.at.measured);
}

#[test]
fn the_spans_are_where_the_sweep_is_inside() {
    for kind in ["drip", "coat", "mask", "fill"] {
        let answer = assess(&document(|v| v["work"]["job"]["kind"] = json!(kind)).unwrap()).unwrap();
        for point in &answer.sweep {
            let t = point.temperature_c;
            let inside = answer.spans.iter().any(|span| (span.from_c..=span.to_c).contains(&t));
            assert_eq!(inside, point.outcome == Outcome::Inside, "{kind} at {t} °C: {:?}", answer.spans);
        }
    }
}

#[test]
fn the_reach_of_water_holds_when_tried() {
    // Adding just so much water that its share is inside the reach must meet the job.
    let stiff = |water: &str| {
        document(|v| {
            v["lines"][0]["amount"] = json!("160 g");
            v["lines"].as_array_mut().unwrap().push(json!({ "ingredient": "water", "amount": water }));
            v["work"]["temperature_c"] = json!(26.0);
        })
        .unwrap()
    };
    let answer = assess(&stiff("0 g")).unwrap();
    assert_eq!(answer.at.outcome, Outcome::TooStiff);
    let reach = answer.reach.iter().find(|reach| reach.phase == Phase::Water).expect("water alone can do it");
    assert!(reach.now_percent < reach.from_percent, "{reach:?}");
    let share = 0.005 * (reach.from_percent + reach.to_percent);
    let (now, batch) = (answer.totals.phases_g.water, answer.totals.batch_mass_g);
    let add = (share * batch - now) / (1.0 - share);
    let mended = assess(&stiff(&format!("{add:.2} g"))).unwrap();
    assert_eq!(mended.at.outcome, Outcome::Inside, "{}", mended.at.detail);
}

#[test]
fn every_fault_of_a_document_is_named_with_its_field() {
    let bad = document(|v| {
        v["format"] = json!("something/else");
        v["version"] = json!(9);
        v["lines"][1]["amount"] = json!("a lot");
        v["work"]["job"] = json!({ "kind": "drip", "shortest_mm": 80.0 });
        v["work"]["history"] = json!("rested");
    })
    .unwrap();
    let faults = assess(&bad).unwrap_err();
    let fields: Vec<&str> = faults.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["format", "version", "work.history", "work.job.shortest_mm", "lines.1.amount"]);
}

#[test]
fn temperatures_outside_the_model_are_refused_with_the_range() {
    let error = document(|v| v["work"]["temperature_c"] = json!(120.0)).unwrap_err().to_string();
    assert!(error.contains("the temperature must be 0 to 95 °C, got 120"), "{error}");
    let faults = assess(&document(|v| v["work"]["temperature_c"] = json!(80.0)).unwrap()).unwrap_err();
    assert_eq!(faults[0].message, "a ganache is judged up to 45 °C here, not 80");
}

#[test]
fn a_document_written_reads_back_as_itself() {
    let document = document(|v| {
        v["lines"][0]["density_g_per_ml"] = json!(0.71);
        v["work"]["job"] = json!({ "kind": "fill", "load_above_g": 900.0 });
        v["work"]["history"] = json!("fresh");
        v["measures"] = json!("australian");
    })
    .unwrap();
    let text = serde_json::to_string(&document).unwrap();
    assert_eq!(serde_json::from_str::<FormulaDocument>(&text).unwrap(), document);
}

#[test]
fn what_splits_is_said_before_it_is_made() {
    let answer = assess(
        &document(|v| {
            v["lines"][0] = json!({ "ingredient": "dark70", "amount": "200 g" });
        })
        .unwrap(),
    )
    .unwrap();
    // Common practice: 70 % chocolate at 2:1 is likely to split.
    let split = answer.warnings.iter().find(|warning| warning.code == WarningCode::Split).expect("a warning");
    assert!(split.cause.starts_with("It is likely to split"), "{}", split.cause);
}

#[test]
fn percentages_add_up_and_name_grams_of_each_fat() {
    let answer = assess(
        &document(|v| {
            v["lines"].as_array_mut().unwrap().push(json!({ "ingredient": "butter82", "amount": "1 stick" }));
        })
        .unwrap(),
    )
    .unwrap();
    let totals = &answer.totals;
    assert!((totals.batch_mass_g - 313.0).abs() < 1e-9);
    // By hand: cocoa butter 0.335·100; milk fat 0.35·100 + 0.82·113.
    assert!((totals.cocoa_butter.mass_g - 33.5).abs() < 1e-9);
    assert!((totals.milk_fat.mass_g - (35.0 + 92.66)).abs() < 1e-9);
    let p = totals.phases_of_total_percent;
    assert!((p.fat + p.sugar + p.water + p.dry + p.setting - 100.0).abs() < 1e-9);
    assert_eq!(totals.allergens, ["milk", "soya"]);
    assert_eq!(totals.chocolate_to_cream, Some(1.0));
    assert!(answer.lines[2].assumed.as_deref().unwrap().contains("113 g"));
}
