//! Cakes and orders at the door: what the published schemas take and refuse, the server takes and refuses, and every
//! refusal names its field.

use crate::Kitchen;
use jsonschema::Validator;
use serde_json::{Value, json};
use server::formats::FORMATS;
use server::openapi::schema;

fn validator(name: &str) -> Validator {
    let format = FORMATS.iter().find(|format| format.name == name).unwrap();
    jsonschema::validator_for(&schema(format)).unwrap()
}

/// A cake with one of everything in it.
fn full() -> Value {
    json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Full", "note": "n",
        "serve_c": 18.0, "transport_c": 12.0, "portion_g": 90.0, "smoother_mm": 150.0,
        "box_mm": [320.0, 300.0], "board_mm": 300.0,
        "losses": { "spread_percent": 2.0, "piped_percent": 5.0, "poured_percent": 3.0 },
        "bakes": [{ "key": "g", "name": "Genoise", "sponge": "genoise", "bulk_kg_m3": 310.0, "crumb_strength_pa": 1400.0,
            "measures": "metric", "oven_loss_percent": 12.0, "lines": [{ "ingredient": "egg", "amount": "4 eggs" }] }],
        "tiers": [{
            "body": { "shape": "round", "diameter_mm": 200.0 },
            "collar_mm": 120.0,
            "dowels": { "count": 4, "diameter_mm": 8.0 },
            "layers": [
                { "kind": "sponge", "bake": "g", "thickness_mm": 20.0, "trim_mm": 4.0,
                  "soak": { "component": "x", "grade": "moist", "gram_per_gram": 0.5, "dry_rim_mm": 12.0 } },
                { "kind": "filling", "component": "x", "task": "fill", "thickness_mm": 8.0,
                  "dam": { "component": "x", "width_mm": 12.0 },
                  "inserts": [{ "component": "x", "diameter_mm": 60.0, "thickness_mm": 4.0, "above_mm": 1.0 }] },
                { "kind": "sponge", "bake": "g", "thickness_mm": 20.0 }
            ],
            "crumb_coat": { "component": "x", "side_mm": 1.5 },
            "coat": { "component": "x", "side_mm": 5.0, "top_mm": 6.0 },
            "glaze": { "component": "x", "side_mm": 2.0 },
            "drip": { "component": "x", "count": 24, "dose_ml": 0.9, "length_mm": [25.0, 70.0], "coat_c": 6.0, "flood": false },
            "borders": [{ "component": "x", "style": "dots", "tip_mm": 9.0, "edge": "top" }],
            "rosettes": [{ "component": "x", "count": 6, "diameter_mm": 25.0, "height_mm": 20.0, "tip_mm": 10.0 }],
            "pieces": [{ "name": "Nibs", "ingredient": "cocoa_nib", "count": 12, "each_g": 0.4 }]
        }]
    })
}

fn order() -> Value {
    json!({
        "format": "bright-spoon/order", "version": 1, "name": "Quay", "note": "n",
        "served_at": "2026-12-05T15:00:00", "made_on": "2026-12-04", "servings": 20, "room_temperature_c": 21.0,
        "without": { "animals": false, "meat": true, "pork": true, "alcohol": false, "allergens": ["peanut"] },
        "cakes": [{ "stack": full(), "count": 2 }]
    })
}

#[test]
fn a_document_with_everything_fits_its_schema_and_comes_back_the_same() {
    for (name, document) in [("stack-1", full()), ("order-1", order())] {
        let faults: Vec<String> =
            validator(name).iter_errors(&document).map(|error| error.to_string()).collect();
        assert!(faults.is_empty(), "{name}: {faults:?}");
    }
    let read: pastry::order::OrderDocument = serde_json::from_value(order()).unwrap();
    let back = serde_json::to_value(&read).unwrap();
    assert_eq!(serde_json::from_value::<pastry::order::OrderDocument>(back.clone()).unwrap(), read);
    // What was written stands there; nothing was dropped on the way.
    for pointer in [
        "/cakes/0/stack/tiers/0/layers/1/inserts/0/above_mm",
        "/cakes/0/stack/tiers/0/drip/flood",
        "/cakes/0/stack/losses/piped_percent",
        "/cakes/0/stack/bakes/0/crumb_strength_pa",
        "/without/allergens/0",
        "/made_on",
    ] {
        assert_eq!(back.pointer(pointer), order().pointer(pointer), "{pointer}");
    }
}

#[test]
fn every_template_and_every_demo_order_fits_the_schema() {
    let stack = validator("stack-1");
    for own in pastry::stack::templates() {
        let value = serde_json::to_value(&own.document).unwrap();
        let faults: Vec<String> = stack.iter_errors(&value).map(|error| error.to_string()).collect();
        assert!(faults.is_empty(), "{}: {faults:?}", own.key);
    }
    let orders = server::demo::orders(|name| Some(format!("key-of-{name}"))).unwrap();
    assert!(orders.len() >= 3);
    let order = validator("order-1");
    for own in orders {
        let value = serde_json::to_value(&own).unwrap();
        let faults: Vec<String> = order.iter_errors(&value).map(|error| error.to_string()).collect();
        assert!(faults.is_empty(), "{}: {faults:?}", own.name);
        assert!(
            own.component_keys().iter().all(|key| key.starts_with("key-of-")),
            "{:?}",
            own.component_keys()
        );
    }
}

/// What is changed of the full cake, and the field that is named for it.
fn wrong() -> Vec<(&'static str, Value, &'static str)> {
    vec![
        ("/tiers/0/body/shape", json!("cube"), "tiers[0].body"),
        ("/tiers/0/body/diameter_mm", json!("wide"), "tiers[0].body"),
        ("/tiers/0/layers/0/kind", json!("cloud"), "tiers[0].layers[0]"),
        ("/tiers/0/layers/1/task", json!("fly"), "tiers[0].layers[1]"),
        ("/tiers/0/layers/0/soak/grade", json!("swamp"), "tiers[0].layers[0]"),
        ("/tiers/0/drip/count", json!(-3), "tiers[0].drip.count"),
        ("/tiers/0/drip/length_mm", json!([25.0]), "tiers[0].drip.length_mm"),
        ("/tiers/0/borders/0/style", json!("lace"), "tiers[0].borders[0].style"),
        ("/tiers/0/borders/0/edge", json!("middle"), "tiers[0].borders[0].edge"),
        ("/tiers/0/rosettes/0/count", json!(1.5), "tiers[0].rosettes[0].count"),
        ("/tiers/0/dowels/count", json!("four"), "tiers[0].dowels.count"),
        ("/box_mm", json!([300.0]), "box_mm"),
        ("/bakes/0/measures", json!("handfuls"), "bakes[0].measures"),
        ("/losses/spread_percent", json!(null), "losses.spread_percent"),
        ("/version", json!("one"), "version"),
    ]
}

#[tokio::test]
async fn what_does_not_fit_is_refused_with_its_field() {
    let kitchen = Kitchen::open(false).await;
    let schema = validator("stack-1");
    for (pointer, value, field) in wrong() {
        let mut bad = full();
        *bad.pointer_mut(pointer).unwrap() = value;
        assert!(!schema.is_valid(&bad), "the schema takes {pointer}");
        let (status, problem) = kitchen.post("/api/stack", &json!({ "document": bad, "room_c": 21.0 })).await;
        assert_eq!(status, 422, "{pointer}: {problem}");
        let named = problem["errors"][0]["field"].as_str().unwrap();
        let [named, wanted] = [named, field].map(|name| name.replace('[', ".").replace(']', ""));
        assert!(
            named.strip_prefix("document.").is_some_and(|rest| rest.starts_with(&wanted)),
            "{pointer}: named {named}, expected {wanted}"
        );
    }
    // A field nobody knows is no silent loss.
    for at in ["", "/tiers/0", "/tiers/0/coat", "/tiers/0/drip", "/bakes/0", "/tiers/0/container"] {
        let mut bad = full();
        if at == "/tiers/0/container" {
            bad["tiers"][0]["container"] = json!({ "name": "Jar" });
        }
        bad.pointer_mut(at).unwrap()["moonlight"] = json!(1);
        assert!(!schema.is_valid(&bad), "the schema takes moonlight at {at}");
        let (status, problem) = kitchen.post("/api/stack", &json!({ "document": bad, "room_c": 21.0 })).await;
        assert_eq!(status, 422, "{at}: {problem}");
        assert!(problem["errors"][0]["message"].as_str().unwrap().contains("moonlight"), "{problem}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn what_is_no_order_is_refused_with_its_field() {
    let kitchen = Kitchen::open(false).await;
    for (pointer, value, field, code) in [
        ("/served_at", json!("next Tuesday"), "served_at", "wrong_value"),
        ("/made_on", json!("2026-13-01"), "made_on", "wrong_value"),
        ("/made_on", json!("2026-12-24"), "made_on", "after_it_is_eaten"),
        ("/servings", json!(0), "servings", "out_of_range"),
        ("/room_temperature_c", json!(120.0), "room_temperature_c", "wrong_value"),
        ("/cakes/0/count", json!(0), "cakes.0.count", "out_of_range"),
        ("/cakes/0/count", json!(90000), "cakes.0.count", "out_of_range"),
        ("/cakes/0/stack/format", json!("bright-spoon/formula"), "cakes.0.stack.format", "unknown_format"),
        ("/cakes/0/stack/version", json!(2), "cakes.0.stack.version", "unknown_version"),
        ("/cakes/0/stack/tiers", json!([]), "cakes.0.stack.tiers", "how_many"),
        ("/format", json!("bright-spoon/stack"), "format", "unknown_format"),
        ("/version", json!(9), "version", "unknown_version"),
        ("/name", json!("n".repeat(121)), "name", "too_long"),
    ] {
        let mut bad = order();
        *bad.pointer_mut(pointer).unwrap() = value;
        let (status, problem) = kitchen.post("/api/order", &bad).await;
        assert_eq!(status, 422, "{pointer}: {problem}");
        let first = &problem["errors"][0];
        assert_eq!((first["field"].as_str(), first["code"].as_str()), (Some(field), Some(code)), "{problem}");
        assert!(!first["message"].as_str().unwrap().is_empty());
        // The same at the door that keeps it.
        let (status, problem) = kitchen.post("/api/orders", &bad).await;
        assert_eq!(status, 422, "{pointer}: {problem}");
    }
    assert_eq!(kitchen.get("/api/orders").await.1, json!([]), "nothing bad was kept");
    kitchen.close().await;
}

/// Whatever is found names a place that is there, and what mends it can be written there.
#[tokio::test]
async fn findings_over_http_point_into_the_document() {
    let kitchen = Kitchen::open(false).await;
    let (status, answer) = kitchen.post("/api/stack", &json!({ "document": full(), "room_c": 21.0 })).await;
    assert_eq!(status, 200, "{answer}");
    let findings = answer["findings"].as_array().unwrap();
    assert!(findings.len() >= 8, "{findings:?}");
    for finding in findings {
        let place = finding["place"].as_str().unwrap();
        assert!(full().pointer(&format!("/{}", place.replace('.', "/"))).is_some(), "nothing at {place}");
        assert!(finding["sentence"].as_str().unwrap().ends_with('.'), "{finding}");
    }
    let places: Vec<&str> =
        answer["places"].as_array().unwrap().iter().filter_map(|place| place["kind"].as_str()).collect();
    for kind in [
        "sponge",
        "soak",
        "filling",
        "dam",
        "insert",
        "crumb_coat",
        "coat",
        "glaze",
        "drip",
        "border",
        "rosettes",
        "pieces",
    ] {
        assert!(places.contains(&kind), "no {kind} in {places:?}");
    }
    kitchen.close().await;
}

/// A kitchen's own ingredient in a bake and on top is weighed, bought and told from the catalogue's.
#[tokio::test]
async fn own_ingredients_are_weighed_in_bakes_and_on_top() {
    let kitchen = Kitchen::open(false).await;
    let own = json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-quay-flour", "name": "Quay flour",
        "group": "starch", "allergens": ["gluten (rye)"],
        "composition_percent": { "water": 14, "starch": 72, "fibre": 4, "other": 10 }
    });
    let (status, kept) = kitchen.post("/api/ingredients", &own).await;
    assert_eq!(status, 201, "{kept}");
    let mut document = order();
    document["without"] = json!({ "allergens": ["gluten (rye)"] });
    document["cakes"][0]["stack"]["bakes"][0]["lines"] = json!([{ "ingredient": "own-quay-flour", "amount": "200 g" }, { "ingredient": "egg", "amount": "4 eggs" }]);
    document["cakes"][0]["stack"]["tiers"][0]["pieces"][0]["ingredient"] = json!("own-quay-flour");
    let (status, answer) = kitchen.post("/api/order", &document).await;
    assert_eq!(status, 200, "{answer}");
    let bought =
        answer["shopping"].as_array().unwrap().iter().find(|line| line["ingredient"] == "own-quay-flour");
    let used_in = bought.expect("it is bought")["used_in"].as_array().unwrap();
    assert_eq!(used_in, &[json!("Genoise"), json!("Nibs")]);
    let said: Vec<&str> = answer["findings"]
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|finding| finding["sentence"].as_str())
        .collect();
    for name in ["Genoise has gluten (rye)", "Nibs has gluten (rye)"] {
        assert!(said.iter().any(|sentence| sentence.starts_with(name)), "{name}: {said:?}");
    }
    assert!(answer["allergens"].as_array().unwrap().contains(&json!("gluten (rye)")));
    kitchen.close().await;
}
