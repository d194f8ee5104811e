//! The published schemas and the server take and refuse the same: every field of every format bent, both ways.

use crate::Kitchen;
use pastry::assess::FormulaDocument;
use pastry::batch::{BatchAsk, BatchDocument, BatchEvent, BatchFor, refused};
use pastry::day::KitchenDocument;
use pastry::exchange::pantry::PantryDocument;
use pastry::ingredient::IngredientDocument;
use pastry::log::{LogDocument, LoggedBatch};
use pastry::order::OrderDocument;
use pastry::stack::StackDocument;
use serde::de::DeserializeOwned;
use serde_json::{Value, json};
use server::body::{parse, read};
use server::formats::FORMATS;
use server::openapi::schema;
use utoipa::ToSchema;

/// Every place of a document, as a JSON pointer.
fn places(value: &Value, at: &str, found: &mut Vec<String>) {
    found.push(at.to_owned());
    match value {
        Value::Object(fields) => {
            for (name, own) in fields {
                places(own, &format!("{at}/{}", name.replace('~', "~0").replace('/', "~1")), found);
            }
        }
        // One of a list stands for all: the first two; every event is of another kind.
        Value::Array(all) => {
            let most = if at.ends_with("/events") { all.len() } else { 2 };
            for (k, own) in all.iter().enumerate().take(most) {
                places(own, &format!("{at}/{k}"), found);
            }
        }
        _ => {}
    }
}

/// A document bent at one place in every way.
fn bent(document: &Value, pointer: &str) -> Vec<Value> {
    let mut all = Vec::new();
    let mut with = |value: Value| {
        let mut own = document.clone();
        *own.pointer_mut(pointer).unwrap() = value;
        all.push(own);
    };
    for value in [
        json!(null),
        json!(true),
        json!(-5),
        json!(0),
        json!(90),
        json!(3.7),
        json!(1e9),
        json!(-1e9),
        json!(""),
        json!("own-x"),
        json!("x".repeat(6000)),
        json!([]),
        json!({}),
        json!(vec![json!("a"); 300]),
    ] {
        with(value);
    }
    let own = document.pointer(pointer).unwrap();
    if let Value::Object(fields) = own {
        let mut more = own.clone();
        more["surprise"] = json!(1);
        with(more);
        for name in fields.keys() {
            let mut less = own.clone();
            less.as_object_mut().unwrap().remove(name);
            with(less);
        }
    }
    if let Value::Array(items) = own
        && let Some(first) = items.first()
    {
        with(json!(vec![first.clone(); 130]));
    }
    all
}

/// Bends every place of the documents of a format: how many bodies were compared, and where the two disagree.
fn compare<T: DeserializeOwned + ToSchema>(
    at: usize,
    documents: &[Value],
    faults: impl Fn(&T) -> bool,
) -> (usize, Vec<String>) {
    server::shape::describe(server::openapi::document);
    let format = &FORMATS[at];
    let validator = jsonschema::draft202012::new(&schema(format)).unwrap();
    let (mut compared, mut wrong) = (0, Vec::new());
    for document in documents {
        assert!(validator.is_valid(document), "{}: {document}", format.name);
        let mut pointers = Vec::new();
        places(document, "", &mut pointers);
        for pointer in pointers {
            for body in bent(document, &pointer) {
                compared += 1;
                let text = body.to_string();
                let by_schema = validator.is_valid(&body);
                let by_door = parse::<T>(text.as_bytes()).is_ok_and(|own| !faults(&own));
                if !by_schema && by_door {
                    let shown: String = body.pointer(&pointer).map(Value::to_string).unwrap_or_default();
                    wrong.push(format!(
                        "{} {pointer} = {:.60}: taken, the schema forbids it",
                        format.name, shown
                    ));
                }
                if by_schema && read::<T>(text.as_bytes()).is_err() {
                    let shown: String = body.pointer(&pointer).map(Value::to_string).unwrap_or_default();
                    wrong.push(format!(
                        "{} {pointer} = {:.60}: refused, the schema takes it",
                        format.name, shown
                    ));
                }
            }
        }
    }
    (compared, wrong)
}

/// A batch with one event of each kind.
fn batch(formula: &FormulaDocument) -> Value {
    let ask = BatchAsk {
        formula: formula.clone(),
        weigh_g: None,
        component: Some("own-key".into()),
        revision: Some(2),
        made_for: vec![BatchFor {
            order: Some("order-key".into()),
            name: "Quay".into(),
            grams: Some(120.0),
            count: Some(4),
        }],
        made_at: None,
    };
    let shelf = pastry::ingredient::Shelf::catalogue().with(&server::demo::ingredients().good);
    let mut batch = as_json(&BatchDocument::begin(ask, &shelf, &[]).unwrap());
    let step = batch["steps"][0]["key"].clone();
    batch["steps"].as_array_mut().unwrap().truncate(2);
    let events = [
        json!({ "what": "weighed", "line": 0, "grams": 3.5, "by": "device", "lot": "A 7" }),
        json!({ "what": "tared", "grams": 400.0, "bowl": "Steel" }),
        json!({ "what": "begun", "step": step }),
        json!({ "what": "done", "step": step }),
        json!({ "what": "line_left_out", "line": 0, "why": "none there" }),
        json!({ "what": "step_left_out", "step": step, "why": "not needed" }),
        json!({ "what": "read", "c": 31.5, "by": "hand" }),
        json!({ "what": "seen", "step": step, "there": false, "words": "dull" }),
        json!({ "what": "decided", "line": 0, "way": "scale", "factor": 1.1 }),
        json!({ "what": "added", "ingredient": "milk", "grams": 5.0, "why": "too stiff" }),
        json!({ "what": "lost", "line": 0, "grams": 5.0, "why": "spilled" }),
        json!({ "what": "noted", "words": "a new pan" }),
        json!({ "what": "timer_set", "name": "Stand", "min": 2.0 }),
        json!({ "what": "timer_off", "timer": "event-0012" }),
        json!({ "what": "yielded", "grams": 300.0 }),
        json!({ "what": "judged", "came": "good", "words": "gloss" }),
        json!({ "what": "corrected", "of": "event-0000", "to": 4.5 }),
        json!({ "what": "taken_back", "of": "event-0011" }),
        json!({ "what": "closed" }),
    ];
    let one = |(at, event): (usize, &Value)| json!({ "id": format!("event-{at:04}"), "at": "2026-12-05T11:42:00Z", "device": "stove", "event": event });
    batch["events"] = events.iter().enumerate().map(one).collect();
    batch
}

fn as_json(value: &impl serde::Serialize) -> Value {
    serde_json::to_value(value).unwrap()
}

#[test]
fn every_field_of_every_format_bent_is_taken_or_refused_by_both() {
    let formulas: Vec<Value> = server::demo::documents().unwrap().iter().take(8).map(as_json).collect();
    let good = server::demo::ingredients().good;
    let ingredients: Vec<Value> = good.iter().map(as_json).collect();
    let pantry = [as_json(&pastry::exchange::pantry::to_json(good))];
    let orders: Vec<Value> =
        server::demo::orders(|name| Some(name.to_owned())).unwrap().iter().map(as_json).collect();
    let mut stacks: Vec<Value> =
        pastry::stack::templates().iter().map(|own| as_json(&own.document)).collect();
    stacks.extend(orders.iter().map(|order| order["cakes"][0]["stack"].clone()));
    let mut full = as_json(&server::demo::room().unwrap());
    full["dates"] = json!([{ "on": "2026-12-24", "hours": [{ "from": "06:00:00", "to": "12:00:00" }] }]);
    full["out_of_use"] =
        json!([{ "what": "oven", "from": "2026-12-05T12:00:00", "to": "2026-12-05T15:00:00", "left": 0 }]);
    full["own_minutes"] = json!([{ "school": "swiss_71", "step": "whip", "minutes": [4.0, 2.0] }]);
    let kitchens = [as_json(&pastry::day::KitchenDocument::usual()), full];
    let batches = [batch(&server::demo::documents().unwrap()[0])];
    let shelf = pastry::ingredient::Shelf::catalogue().with(&server::demo::ingredients().good);
    // What happened to a batch was bent above: here it is the frame around it.
    let logs: Vec<Value> = batches
        .iter()
        .take(1)
        .map(|own| {
            let mut batch = own.clone();
            batch["events"] = json!([]);
            json!({ "format": "bright-spoon/log", "version": 1, "batches": [{ "key": "a-batch-of-it", "batch": batch }] })
        })
        .collect();
    let (mut compared, mut wrong) = (0, Vec::new());
    for (many, own) in [
        compare::<FormulaDocument>(0, &formulas, |own| !own.faults().is_empty()),
        compare::<IngredientDocument>(1, &ingredients, |own| !own.faults().is_empty()),
        compare::<PantryDocument>(2, &pantry, |own| own.format != "bright-spoon/pantry" || own.version != 1),
        compare::<StackDocument>(3, &stacks, |own| !pastry::stack::no_cake::faults(own).is_empty()),
        compare::<OrderDocument>(4, &orders, |own| !own.faults().is_empty()),
        compare::<KitchenDocument>(5, &kitchens, |own| !own.faults().is_empty()),
        compare::<BatchDocument>(6, &batches, |own| {
            // A closing has nothing that could be bent, and looks at the whole batch each time.
            let mut events = own.events.clone();
            events.retain(|entry| !matches!(entry.event, BatchEvent::Closed {}));
            !own.faults(&shelf).is_empty() || !refused(own, &[], &events, &shelf).is_empty()
        }),
        compare::<LogDocument>(7, &logs, |own| {
            let whole = |of: &LoggedBatch| of.batch.faults(&shelf).is_empty();
            !own.faults().is_empty() || !own.batches.iter().all(whole)
        }),
    ] {
        compared += many;
        wrong.extend(own);
    }
    println!("{compared} bodies compared, {} disagree", wrong.len());
    assert!(wrong.is_empty(), "{} of {compared}:\n{}", wrong.len(), wrong[..wrong.len().min(120)].join("\n"));
    assert!(compared > 15_000);
}

/// A clock bent at every place is answered in numbers or refused in words: nothing in it stops the program.
#[test]
fn a_clock_bent_at_every_place_is_answered_or_refused() {
    server::shape::describe(server::openapi::document);
    let formulas = server::demo::documents().unwrap();
    let shelf = pastry::ingredient::Shelf::catalogue();
    let formula = formulas.iter().find(|own| own.ingredients.is_empty()).map(as_json).unwrap();
    let (mut answered, mut refused) = (0, 0);
    for (vessel, places_in) in [
        (
            json!({ "kind": "bowl", "diameter_mm": 240, "count": 2, "covered": false, "wall": "steel" }),
            json!([{ "place": "ice_bath", "min": 10, "stir_min": 2, "air_c": 1 }, { "place": "fridge", "h": 9 }]),
        ),
        (
            json!({ "kind": "on_cake", "height_mm": 3, "on": "mousse", "on_c": -18 }),
            json!([{ "place": "bench" }]),
        ),
        (
            json!({ "kind": "cup", "diameter_mm": 60 }),
            json!([{ "place": "microwave", "watts": 700, "level": 0.4, "min": 1 }]),
        ),
    ] {
        let document = json!({
            "formula": formula, "vessel": vessel, "places": places_in, "kg": 1.2, "start_c": 40, "at": "13:05",
            "to_c": 22, "point": "core", "after_min": 60, "rule": "uk", "brief": false
        });
        let mut pointers = Vec::new();
        places(&document, "", &mut pointers);
        for pointer in pointers.iter().filter(|own| !own.starts_with("/formula/")) {
            for body in bent(&document, pointer) {
                let text = body.to_string();
                let Ok(ask) = server::routes::clock::ClockAsk::parse(text.as_bytes()) else {
                    refused += 1;
                    continue;
                };
                match ask.answer(&shelf) {
                    Ok(reply) => {
                        answered += 1;
                        let told = serde_json::to_string(&reply).unwrap();
                        assert!(
                            !told.contains("NaN") && !told.contains(":null,\"latest"),
                            "{pointer}: {told:.300}"
                        );
                    }
                    Err(faults) => {
                        refused += 1;
                        assert!(
                            faults.iter().all(|fault| !fault.message.is_empty()),
                            "{pointer}: {faults:?}"
                        );
                    }
                }
            }
        }
    }
    assert!(answered > 60 && refused > 200, "{answered} answered, {refused} refused");
}

/// The measured ones, over HTTP and by the command line.
#[tokio::test]
async fn what_was_taken_in_silence_is_refused_with_its_field() {
    let kitchen = Kitchen::open(true).await;
    let order = as_json(&server::demo::orders(|name| Some(name.to_owned())).unwrap()[0]);
    let stack = &order["cakes"][0]["stack"];
    let cases: [(&str, Value, &str); 3] = [
        ("/serve_c", json!(90), "serve_c"),
        ("/tiers/0/body/diameter_mm", json!(-5), "tiers.0.body"),
        ("/surprise", json!(1), ""),
    ];
    for (pointer, value, field) in cases {
        let mut bad = stack.clone();
        match bad.pointer_mut(pointer) {
            Some(own) => *own = value,
            None => bad[pointer.trim_start_matches('/')] = value,
        }
        let body = json!({ "document": bad, "room_c": 21.0 });
        let (status, problem) = kitchen.post("/api/stack", &body).await;
        assert_eq!(status, 422, "{pointer}: {problem}");
        let named = problem["errors"][0]["field"].as_str().unwrap();
        assert!(named.starts_with("document") && named.contains(field), "{pointer}: {problem}");
        let (status, problem) = kitchen.post("/api/files/read", &json!({ "text": bad.to_string() })).await;
        assert_eq!(status, 422, "{pointer}: {problem}");
        let file = kitchen.dir.path().join("cake.json");
        std::fs::write(&file, bad.to_string()).unwrap();
        let said = std::process::Command::new(env!("CARGO_BIN_EXE_bright-spoon"))
            .arg("stack")
            .arg(&file)
            .output()
            .unwrap();
        assert_eq!(said.status.code(), Some(2), "{pointer}");
    }
    kitchen.close().await;
}
