//! Components in components, over the wire: kept, opened, carried to another kitchen, and what a change of one reaches.

use crate::Kitchen;
use pastry::assess::assess_from;
use pastry::ingredient::Shelf;
use pastry::job::Outcome;
use serde_json::{Value, json};

#[test]
fn what_the_invented_kitchen_makes_of_its_own_creams_is_right_for_its_job() {
    let shelf = Shelf::catalogue().with(&server::demo::ingredients().good);
    let mut nested = Vec::new();
    for document in server::demo::documents().unwrap() {
        let answer =
            assess_from(&document, &shelf).unwrap_or_else(|faults| panic!("{}: {faults:?}", document.name));
        if !document.components.is_empty() {
            nested.push((document.name.clone(), answer.at.outcome));
        }
    }
    assert!(nested.iter().all(|(_, outcome)| *outcome == Outcome::Inside), "{nested:?}");
    assert_eq!(nested.len(), 4, "{nested:?}");
}

fn pastry_cream() -> Value {
    json!({
        "format": "bright-spoon/formula", "version": 1, "name": "Daily pastry cream", "family": "pastry_cream",
        "lines": [
            { "ingredient": "milk", "amount": "500 g" }, { "ingredient": "yolk", "amount": "85 g" },
            { "ingredient": "sugar", "amount": "100 g" }, { "ingredient": "corn_starch", "amount": "44 g" }
        ],
        "process": { "cook_c": 96 },
        "work": { "job": { "kind": "fill" }, "temperature_c": 6, "room_temperature_c": 21 }
    })
}

fn mousseline(of: &str) -> Value {
    json!({
        "format": "bright-spoon/formula", "version": 1, "name": "Almond", "family": "mousseline",
        "lines": [
            { "ingredient": format!("made-{of}"), "amount": "420 g" },
            { "ingredient": "butter82", "amount": "200 g" }
        ],
        "work": { "job": { "kind": "fill" }, "temperature_c": 18, "room_temperature_c": 21 }
    })
}

async fn kept(kitchen: &Kitchen, document: &Value) -> String {
    let (status, made) = kitchen.post("/api/components", document).await;
    assert_eq!(status, 201, "{made}");
    made["id"].as_str().unwrap().to_owned()
}

async fn saved(kitchen: &Kitchen, id: &str, document: &Value, on: i64) -> (u16, Value) {
    let body = json!({ "document": document, "based_on_revision": on });
    kitchen.put(&format!("/api/components/{id}"), &body).await
}

#[tokio::test]
async fn a_line_names_a_component_at_its_newest_or_held() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let almond = kept(&kitchen, &mousseline(&daily)).await;
    let held = kept(&kitchen, &mousseline(&format!("{daily}@1"))).await;
    let (status, before) = kitchen.post("/api/predict", &mousseline(&daily)).await;
    assert_eq!((status, before["lines"][0]["made_here"]["component"].as_str()), (200, Some(daily.as_str())));
    assert_eq!(before["lines"][0]["name"], "Daily pastry cream");
    assert_eq!(before["to_make"][0]["sentence"], "Make 420 g of Daily pastry cream for Almond.");

    // What a change would do, before it is kept.
    let mut stiffer = pastry_cream();
    stiffer["lines"][3]["amount"] = json!("60 g");
    let (status, reached) = kitchen.post(&format!("/api/components/{daily}/reaches"), &stiffer).await;
    assert_eq!((status, reached.as_array().unwrap().len()), (200, 2), "{reached}");
    let of = |id: &str| reached.as_array().unwrap().iter().find(|own| own["id"] == id).unwrap().clone();
    assert!(of(&held)["moved"].is_null() && of(&held)["held_at"] == json!([1]), "{reached}");
    let moved = of(&almond)["moved"].clone();
    assert!(moved["words"][0].as_str().unwrap().ends_with("stiffer"), "{moved}");
    let (_, same) = kitchen.post("/api/predict", &mousseline(&daily)).await;
    assert_eq!(same["at"], before["at"], "nothing was kept");

    // And after.
    assert_eq!(saved(&kitchen, &daily, &stiffer, 1).await.0, 200);
    let stress = async |named: &str| {
        let (_, answer) = kitchen.post("/api/predict", &mousseline(named)).await;
        answer["at"]["yield_stress_pa"]["value"].as_f64().unwrap()
    };
    let was = before["at"]["yield_stress_pa"]["value"].as_f64().unwrap();
    assert!(stress(&daily).await > 1.05 * was);
    assert_eq!(stress(&format!("{daily}@1")).await, was);
    let (_, list) = kitchen.get("/api/components").await;
    let listed = list.as_array().unwrap().iter().find(|own| own["id"] == almond.as_str()).unwrap();
    assert_eq!(listed["made_of"], json!([daily]));
    kitchen.close().await;
}

#[tokio::test]
async fn a_circle_is_refused_at_its_line_and_nothing_is_kept() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let almond = kept(&kitchen, &mousseline(&daily)).await;
    let mut round = pastry_cream();
    round["lines"]
        .as_array_mut()
        .unwrap()
        .push(json!({ "ingredient": format!("made-{almond}"), "amount": "30 g" }));
    let (status, problem) = saved(&kitchen, &daily, &round, 1).await;
    assert_eq!(status, 422, "{problem}");
    let fault = &problem["errors"][0];
    assert_eq!(
        (fault["field"].as_str(), fault["code"].as_str()),
        (Some("document.lines.4.ingredient"), Some("made_of_itself"))
    );
    assert!(
        fault["message"].as_str().unwrap().contains("Daily pastry cream → Almond → Daily pastry cream"),
        "{fault}"
    );
    // Itself, straight.
    round["lines"][4]["ingredient"] = json!(format!("made-{daily}"));
    assert_eq!(saved(&kitchen, &daily, &round, 1).await.0, 422);
    // Held at what it was, it is no circle.
    round["lines"][4]["ingredient"] = json!(format!("made-{daily}@1"));
    assert_eq!(saved(&kitchen, &daily, &round, 1).await.0, 200);
    // What is not here is said, and a revision that never was.
    for missing in
        ["made-nobody", "made-nobody@2", &format!("made-{daily}@99"), "made-", "made-@", "made-x@-1"]
    {
        let mut document = mousseline(&daily);
        document["lines"][0]["ingredient"] = json!(missing);
        let (status, problem) = kitchen.post("/api/predict", &document).await;
        assert_eq!(
            (status, problem["errors"][0]["code"].as_str()),
            (422, Some("missing_component")),
            "{missing}: {problem}"
        );
    }
    kitchen.close().await;
}

#[tokio::test]
async fn a_file_brings_what_is_inside_and_another_kitchen_reads_it() {
    let home = Kitchen::open(false).await;
    let daily = kept(&home, &pastry_cream()).await;
    let almond = kept(&home, &mousseline(&daily)).await;
    let (_, file) = home.get(&format!("/api/components/{almond}/export?form=json")).await;
    assert_eq!(file["components"][0]["key"], daily.as_str(), "{file}");
    let (_, recipe) = home.get(&format!("/api/components/{almond}/export?form=recipe")).await;
    assert!(recipe["recipeIngredient"][0].as_str().unwrap().contains("Daily pastry cream"), "{recipe}");
    let (_, at_home) = home.post("/api/predict", &mousseline(&daily)).await;
    let away = Kitchen::open(false).await;
    for text in [file.to_string(), recipe.to_string()] {
        let (status, read) = away.post("/api/files/read", &json!({ "text": text })).await;
        assert_eq!(status, 200, "{read}");
        let document = &read["document"];
        let (status, there) = away.post("/api/predict", document).await;
        assert_eq!((status, &there["at"]), (200, &at_home["at"]), "{there}");
        assert_eq!(there["to_make"], at_home["to_make"]);
        assert_eq!(away.post("/api/components", document).await.0, 201);
    }
    // A component of a version nobody knows is refused in words, at its place.
    let mut newer = file.clone();
    newer["components"][0]["document"]["version"] = json!(2);
    let (status, problem) = away.post("/api/predict", &newer).await;
    assert_eq!(status, 422);
    assert_eq!(problem["errors"][0]["field"], "components.0.document.version", "{problem}");
    home.close().await;
    away.close().await;
}

#[tokio::test]
async fn a_line_is_opened_into_what_it_weighs() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let (status, opened) =
        kitchen.post("/api/open", &json!({ "document": mousseline(&daily), "line": 0 })).await;
    assert_eq!((status, opened["name"].as_str()), (200, Some("Daily pastry cream")), "{opened}");
    let lines = opened["document"]["lines"].as_array().unwrap();
    assert_eq!(lines.len(), 5);
    let grams: f64 = lines[..4]
        .iter()
        .map(|line| line["amount"].as_str().unwrap().trim_end_matches(" g").parse::<f64>().unwrap())
        .sum();
    assert!((grams - 420.0).abs() < 1e-6, "{grams}");
    assert_eq!(lines[1]["cook_c"], 96.0, "a boiled custard stays boiled");
    let (_, closed) = kitchen.post("/api/predict", &mousseline(&daily)).await;
    let (_, open) = kitchen.post("/api/predict", &opened["document"]).await;
    assert_eq!(open["at"]["headline"], closed["at"]["headline"]);
    for (line, code) in [(1, "nothing_in_it"), (9, "no_such_line")] {
        let (status, problem) =
            kitchen.post("/api/open", &json!({ "document": mousseline(&daily), "line": line })).await;
        assert_eq!((status, problem["errors"][0]["code"].as_str()), (422, Some(code)), "{problem}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn every_door_takes_a_line_made_here() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let mut rich = pastry_cream();
    rich["name"] = json!("Sunday custard");
    rich["lines"][1]["amount"] = json!("120 g");
    let sunday = kept(&kitchen, &rich).await;
    let mut loose = mousseline(&daily);
    loose["work"]["temperature_c"] = json!(24);
    for (path, body) in [
        ("/api/balance", json!(loose)),
        ("/api/scale", json!({ "document": loose, "target": { "to": "mass", "grams": 2000 } })),
        ("/api/methods", json!(loose)),
        ("/api/rescue", json!({ "document": loose, "sign": "too_loose" })),
        ("/api/compare", json!({ "documents": [loose, mousseline(&daily)] })),
        (
            "/api/swap",
            json!({ "document": loose, "ask": { "swap": "replace", "line": 0, "by": format!("made-{sunday}") } }),
        ),
    ] {
        let (status, answer) = kitchen.post(path, &body).await;
        assert_eq!(status, 200, "{path}: {answer}");
        // Moved as one: none of its own lines appears.
        let told = answer.to_string();
        assert!(!told.contains("\"ingredient\":\"yolk\""), "{path}: {answer}");
        let named = matches!(path, "/api/methods" | "/api/rescue") || told.contains("Daily pastry cream");
        assert!(path != "/api/rescue" || !told.contains("starch on the liquid 0 %"), "{answer}");
        assert!(named && !told.contains("not in the pantry"), "{path}: {answer}");
    }
    // What cannot be taken out of it is said, and by what name.
    let without = json!({ "document": loose, "ask": { "swap": "without", "what": "egg" } });
    let (status, answer) = kitchen.post("/api/swap", &without).await;
    assert!(status == 422 && answer.to_string().contains("Daily pastry cream"), "{answer}");
    kitchen.close().await;
}

/// What was in a bowl stays what it was: its tape goes on naming the egg that the cream had then, two creams deep, and its line
/// of the log the same figures, however the cream is made by now; what is made now is of the new one.
#[tokio::test]
async fn a_batch_is_of_what_its_components_were_when_it_was_begun() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let inner = kept(&kitchen, &mousseline(&daily)).await;
    let begun = async || {
        let ask = json!({ "formula": mousseline(&inner), "made_at": "2026-11-29T09:00:00Z" });
        let (status, batch) = kitchen.post("/api/batches", &ask).await;
        assert_eq!(status, 201, "{batch}");
        batch["kept"]["id"].as_str().unwrap().to_owned()
    };
    let tape = async |batch: &str| {
        let (status, tape) = kitchen.get(&format!("/api/batches/{batch}/tape?on=2026-11-30")).await;
        assert_eq!(status, 200, "{tape}");
        tape["label"]["allergens"].clone()
    };
    let line = async |batch: &str| kitchen.get(&format!("/api/log/{batch}")).await.1;
    let was = begun().await;
    let (allergens, logged) = (tape(&was).await, line(&was).await);
    assert!(allergens.to_string().contains("egg"), "{allergens}");
    let mut without = pastry_cream();
    without["lines"].as_array_mut().unwrap().remove(1);
    let (status, now) = saved(&kitchen, &daily, &without, 1).await;
    assert_eq!(status, 200, "{now}");
    assert_eq!(tape(&was).await, allergens);
    assert_eq!(line(&was).await, logged);
    let (_, beside) = kitchen.get(&format!("/api/log/beside?keys={was},{}", begun().await)).await;
    assert_eq!(beside["batches"][0], logged);
    let is = begun().await;
    assert!(!tape(&is).await.to_string().contains("egg"));
    // It goes on being made of what it was begun with.
    let event = json!({ "what": "noted", "words": "Looks well." });
    let events = json!({ "events": [{ "id": "noted-0001", "at": "2026-11-30T09:00:00Z", "event": event }] });
    let (status, seen) = kitchen.post(&format!("/api/batches/{was}/events"), &events).await;
    assert_eq!(status, 201, "{seen}");
    assert_eq!(tape(&was).await, allergens);
    kitchen.close().await;
}

/// A formula made of what was in a bowl names the cream at its version of then, once that is another: it predicts what the batch was.
#[tokio::test]
async fn a_formula_of_a_bowl_holds_the_cream_that_was_in_it() {
    let kitchen = Kitchen::open(false).await;
    let daily = kept(&kitchen, &pastry_cream()).await;
    let ask = json!({ "formula": mousseline(&daily), "made_at": "2026-11-29T09:00:00Z" });
    let (status, batch) = kitchen.post("/api/batches", &ask).await;
    assert_eq!((status, &batch["held"]), (201, &json!({})), "nothing was changed since");
    let path = format!("/api/batches/{}", batch["kept"]["id"].as_str().unwrap());
    let stiff = async |formula: &Value| {
        let (status, answer) = kitchen.post("/api/predict", formula).await;
        assert_eq!(status, 200, "{answer}");
        answer["at"]["yield_stress_pa"]["value"].as_f64().unwrap()
    };
    let was = stiff(&batch["view"]["contents"]).await;
    let mut stiffer = pastry_cream();
    stiffer["lines"][3]["amount"] = json!("80 g");
    assert_eq!(saved(&kitchen, &daily, &stiffer, 1).await.0, 200);
    let (_, seen) = kitchen.get(&path).await;
    let (name, then) = (format!("made-{daily}"), format!("made-{daily}@1"));
    assert_eq!(seen["held"], json!({ name: then }));
    assert_eq!(seen["view"]["contents"]["lines"][0]["ingredient"], json!(then));
    assert!((stiff(&seen["view"]["contents"]).await / was - 1.0).abs() < 1e-9);
    assert!(stiff(&mousseline(&daily)).await > 1.05 * was, "what is made now is stiffer");
    // In the bowl of a batch that is begun now is the new one.
    let (_, now) = kitchen.post("/api/batches", &ask).await;
    assert_eq!(now["held"], json!({}));
    kitchen.close().await;
}
