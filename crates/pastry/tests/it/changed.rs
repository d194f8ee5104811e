//! What changed between two versions, in words.

use pastry::changed::{MOST_TOLD, changed};
use pastry::ingredient::find;
use pastry::stack::template::templates;
use proptest::prelude::*;
use serde_json::{Value, json};

fn name(key: &str) -> Option<String> {
    find(key).map(|ingredient| ingredient.name.clone())
}

fn told(before: &Value, after: &Value) -> Vec<String> {
    changed(before, after, &name)
}

fn formula() -> Value {
    json!({
        "name": "Bay drip", "family": "ganache", "note": "",
        "lines": [
            { "ingredient": "dark60", "amount": "150 g" },
            { "ingredient": "cream36", "amount": "1 cup" },
            { "ingredient": "butter82", "amount": "20 g" },
        ],
        "process": {},
        "work": { "job": { "kind": "drip", "height_mm": 100 }, "temperature_c": 29 },
    })
}

#[test]
fn lines_are_told_by_what_they_are_of_and_moving_one_is_no_change() {
    let before = formula();
    let mut after = formula();
    after["lines"].as_array_mut().unwrap().swap(0, 2);
    assert!(told(&before, &after).is_empty());
    after["lines"][2]["amount"] = json!("165 g");
    after["lines"][0] = json!({ "ingredient": "glucose40", "amount": "12 g" });
    let dark = name("dark60").unwrap();
    let said = told(&before, &after);
    assert_eq!(said.len(), 3, "{said:?}");
    assert!(said.contains(&format!("{dark} 150 g, now 165 g")), "{said:?}");
    assert!(said.contains(&format!("{} 12 g added", name("glucose40").unwrap())), "{said:?}");
    assert!(said.contains(&format!("{} 20 g left out", name("butter82").unwrap())), "{said:?}");
}

#[test]
fn of_two_lines_of_one_thing_the_right_one_changed() {
    let mut before = formula();
    before["lines"].as_array_mut().unwrap().push(json!({ "ingredient": "dark60", "amount": "10 g" }));
    let mut after = before.clone();
    after["lines"][3]["amount"] = json!("15 g");
    assert_eq!(told(&before, &after), [format!("{} 10 g, now 15 g", name("dark60").unwrap())]);
    after["lines"][3] = json!({ "ingredient": "dark60", "amount": "10 g", "cook_c": 82 });
    assert_eq!(told(&before, &after), [format!("{}: cook 82 °C", name("dark60").unwrap())]);
}

#[test]
fn numbers_carry_their_unit_and_texts_that_are_long_are_not_told_whole() {
    let before = formula();
    let mut after = formula();
    after["work"]["temperature_c"] = json!(31.5);
    after["name"] = json!("Bay drip, Friday");
    after["note"] = json!("x".repeat(300));
    after["process"]["cook_c"] = json!(82);
    assert_eq!(
        told(&before, &after),
        [
            "name Bay drip, now Bay drip, Friday",
            "note written",
            "cook 82 °C",
            "temperature 29 °C, now 31.5 °C"
        ]
    );
}

#[test]
fn places_of_a_cake_are_named_from_the_largest() {
    let before = json!({ "name": "Quay", "cakes": [{ "count": 1, "stack": { "tiers": [
        { "body": { "shape": "round", "diameter_mm": 200 }, "layers": [1, 2, 3], "coat": null },
        { "body": { "shape": "round", "diameter_mm": 140 }, "layers": [] },
    ] } }] });
    let mut after = before.clone();
    after["cakes"][0]["stack"]["tiers"][1]["body"]["diameter_mm"] = json!(150);
    after["cakes"][0]["stack"]["tiers"][0]["coat"] = json!({ "component": "dark60" });
    after["cakes"].as_array_mut().unwrap().push(json!({ "count": 2, "stack": {} }));
    let said = told(&before, &after);
    assert_eq!(
        said,
        ["cake 1, tier 1, coat written", "cake 1, tier 2, diameter 140 mm, now 150 mm", "cake 2 added"]
    );
    let mut less = before.clone();
    less["cakes"][0]["stack"]["tiers"].as_array_mut().unwrap().remove(0);
    let said = told(&before, &less);
    assert!(said.contains(&"cake 1, tier 1 left out".to_owned()), "{said:?}");
}

#[test]
fn of_many_changes_some_are_told_and_the_rest_counted() {
    let [one, two] = [1.0, 2.0].map(|by| {
        let fields: serde_json::Map<String, Value> =
            (0..30).map(|k| (format!("f{k}_g"), json!(by))).collect();
        Value::Object(fields)
    });
    let said = told(&one, &two);
    assert_eq!((said.len(), said.last().unwrap().as_str()), (MOST_TOLD, "and 19 more"));
}

/// Every value of a document, by its path.
fn leaves(value: &Value, path: String, found: &mut Vec<String>) {
    match value {
        Value::Object(fields) => {
            fields.iter().for_each(|(name, own)| leaves(own, format!("{path}/{name}"), found));
        }
        Value::Array(all) => {
            all.iter().enumerate().for_each(|(k, own)| leaves(own, format!("{path}/{k}"), found));
        }
        _ => found.push(path),
    }
}

proptest! {
    /// Whatever is changed in a cake is told, and nothing is told of a cake that is as it was.
    #[test]
    fn nothing_changes_in_silence(which in 0_usize..8, at in 0_usize..400) {
        let all = templates();
        let cake = serde_json::to_value(&all[which % all.len()].document).unwrap();
        prop_assert!(told(&cake, &cake).is_empty());
        let mut paths = Vec::new();
        leaves(&cake, String::new(), &mut paths);
        let path = &paths[at % paths.len()];
        let mut other = cake.clone();
        let value = other.pointer_mut(path).unwrap();
        *value = match value.take() {
            Value::Number(_) => json!(98.5),
            Value::String(words) => json!(format!("{words} else")),
            Value::Bool(yes) => json!(!yes),
            _ => json!("something"),
        };
        let said = told(&cake, &other);
        prop_assert!(!said.is_empty(), "{} changed in silence", path);
        prop_assert!(said.iter().all(|words| !words.contains("null") && !words.is_empty()), "{said:?}");
    }
}
