//! What tests teach, over real HTTP: learned, measured, set back, asked for next; the demo's history, whose truth is hidden, with
//! batches held back.

use crate::{Kitchen, formula};
use pastry::belief::Terms;
use pastry::learn::{Counts, Taught, learn};
use serde_json::{Value, json};

pub async fn tested(kitchen: &Kitchen, name: &str, day: &str, across_mm: f64) -> String {
    let mut own = formula();
    own["name"] = json!(name);
    let ask = json!({ "formula": own, "made_at": format!("{day}T11:00:00Z") });
    let (status, begun) = kitchen.post("/api/batches", &ask).await;
    assert_eq!(status, 201, "{begun}");
    let batch = begun["kept"]["id"].as_str().unwrap().to_owned();
    let test = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": across_mm });
    let event = json!({ "what": "tested", "test": test, "c": 30.0 });
    let id = format!("test-{batch}");
    let events = json!({ "events": [{ "id": id, "at": format!("{day}T12:00:00Z"), "event": event }] });
    let (status, now) = kitchen.post(&format!("/api/batches/{batch}/events"), &events).await;
    assert_eq!(status, 201, "{now}");
    batch
}

pub fn offset(learned: &Value, name: &str) -> Option<f64> {
    let all = learned["offsets"].as_array().unwrap();
    all.iter().find(|own| own["name"] == name)?["times"]["value"].as_f64()
}

#[tokio::test]
async fn what_was_tested_is_learned_measured_and_set_back() {
    let kitchen = Kitchen::open(false).await;
    let (_, book) = kitchen.post("/api/predict", &formula()).await;
    assert_eq!(book["learned"], Value::Null);
    let (_, empty) = kitchen.get("/api/learned/measured").await;
    assert_eq!(empty["kinds"], json!([]));
    for (at, across) in [150.0, 152.0, 148.0].into_iter().enumerate() {
        tested(&kitchen, "Quay drip", &format!("2026-01-0{}", at + 2), across).await;
    }
    let (_, now) = kitchen.post("/api/predict", &formula()).await;
    let times = now["at"]["yield_stress_pa"]["value"].as_f64().unwrap()
        / book["at"]["yield_stress_pa"]["value"].as_f64().unwrap();
    let said = now["learned"]["yield_times"].as_f64().unwrap();
    assert!((times / said - 1.0).abs() < 1e-3 && (times - 1.0).abs() > 0.05, "{times} {said}");
    // The switch: the book's own value beside it, whatever was learned.
    let (_, beside) = kitchen.post("/api/predict?book=true", &formula()).await;
    assert_eq!(beside, book);
    let (_, measured) = kitchen.get("/api/learned/measured").await;
    let kind = &measured["kinds"][0];
    assert_eq!((&kind["kind"], kind["points"].as_array().unwrap().len()), (&json!("plate_spread"), 3));
    let points = kind["points"].as_array().unwrap();
    // The first was said by the book; the third with what the two before it taught.
    assert_eq!(points[0]["said"]["value"], points[0]["book"]["value"]);
    let far = |own: &Value, by: &str| {
        (own["measured"]["value"].as_f64().unwrap() / own[by]["value"].as_f64().unwrap()).ln().abs()
    };
    assert!(far(&points[2], "said") < far(&points[2], "book"));
    let (_, learned) = kitchen.get("/api/learned").await;
    assert_eq!(learned["readings"].as_array().unwrap().len(), 3);
    let was = offset(&learned, "Ganache").unwrap();
    let (status, history) =
        kitchen.get("/api/learned/history?kind=family&key=ganache&quantity=yield_stress").await;
    assert_eq!((status, history["steps"].as_array().unwrap().len()), (200, 3), "{history}");
    assert!((history["steps"][2]["times"]["value"].as_f64().unwrap() / was - 1.0).abs() < 1e-9);
    // Set back it begins anew, once however often it is sent; what it was stays.
    let of = json!({ "of": "family", "family": "ganache" });
    let event = json!({ "what": "set_back", "of": of, "quantity": "yield_stress", "why": "a new stove" });
    let ask = json!({ "id": "set-back-01", "event": event });
    for _ in 0..2 {
        let (status, learned) = kitchen.post("/api/learned", &ask).await;
        assert_eq!(status, 201, "{learned}");
        assert_eq!(learned["set_back"].as_array().unwrap().len(), 1);
        assert_eq!(
            (offset(&learned, "Ganache"), &learned["set_back"][0]["why"]),
            (None, &json!("a new stove"))
        );
        let past =
            learned["offsets"].as_array().unwrap().iter().find(|own| own["of"]["of"] == "past").unwrap();
        assert!(past["name"].as_str().unwrap().starts_with("Ganache, until "), "{past}");
        assert!((past["times"]["value"].as_f64().unwrap() / was - 1.0).abs() < 1e-9);
    }
    // Again there is nothing to set back; what was never learned neither.
    let mut again = ask.clone();
    again["id"] = json!("set-back-02");
    for of in [
        of,
        json!({ "of": "family", "family": "curd" }),
        json!({ "of": "ingredient", "ingredient": "gravel" }),
    ] {
        again["event"]["of"] = of;
        let (status, problem) = kitchen.post("/api/learned", &again).await;
        assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("nothing_learned")), "{problem}");
    }
    let back = json!({ "id": "taken-back-1", "event": { "what": "taken_back", "of": "set-back-01" } });
    let (status, learned) = kitchen.post("/api/learned", &back).await;
    assert_eq!((status, offset(&learned, "Ganache")), (201, Some(was)));
    assert_eq!(learned["set_back"], json!([]));
    // And after a restart the same.
    let dir = kitchen.close().await;
    let again = Kitchen::over(dir).await;
    let (_, learned) = again.get("/api/learned").await;
    assert_eq!(offset(&learned, "Ganache"), Some(was));
    again.close().await;
}

#[tokio::test]
async fn what_to_measure_next_is_of_what_is_really_made() {
    let kitchen = Kitchen::open(false).await;
    assert_eq!(kitchen.get("/api/learned/next").await.1, json!([]), "nothing is made yet");
    let mut own = formula();
    own["name"] = json!("Harbour drip");
    let (_, made) = kitchen.post("/api/components", &own).await;
    for day in ["2026-01-02", "2026-01-03"] {
        let ask = json!({ "formula": own, "component": made["id"], "made_at": format!("{day}T11:00:00Z") });
        assert_eq!(kitchen.post("/api/batches", &ask).await.0, 201);
    }
    let (status, next) = kitchen.get("/api/learned/next").await;
    assert_eq!((status, next.as_array().unwrap().len()), (200, 1), "{next}");
    let sentence = next[0]["sentence"].as_str().unwrap();
    assert!(sentence.contains(" of Harbour drip narrows its own band from "), "{sentence}");
    // Put away, it is made no more.
    let path = format!("/api/components/{}/place", made["id"].as_str().unwrap());
    assert_eq!(kitchen.put(&path, &json!({ "archived": true })).await.0, 204);
    assert_eq!(kitchen.get("/api/learned/next").await.1, json!([]));
    for query in
        ["kind=gravel&quantity=yield_stress", "kind=kitchen", "kind=kitchen&quantity=yield_stress&until=soon"]
    {
        let (status, problem) = kitchen.get(&format!("/api/learned/history?{query}")).await;
        assert_eq!(status, 422, "{query}: {problem}");
    }
    kitchen.close().await;
}

/// The shrunken offset of MODEL's section 10: one for each family, w = s²/(s² + 0.30²) for each reading.
fn by_family(before: &[&Taught], terms: &Terms) -> (f64, f64) {
    let family = |own: &Terms| own.weights.get(1).map(|own| own.0.clone());
    let (mut mean, mut variance) = (0.0, terms.book());
    for own in before.iter().filter(|own| family(&own.terms) == family(terms)) {
        let shrink = variance / (variance + 0.09);
        mean += shrink * (own.ln_over - mean);
        variance *= 1.0 - shrink;
    }
    (mean, variance)
}

/// The demo's history: every batch held back and said from the others, by three ways, as the table of docs/LEARNING.md has it.
#[tokio::test]
async fn the_demo_kitchen_learns_and_the_table_of_the_documents_is_what_comes_out() {
    let kitchen = Kitchen::open(true).await;
    let store = kitchen.store();
    let keys = store.batches_with("tested").await.unwrap();
    assert!(keys.len() >= 25, "{} batches are tested", keys.len());
    let mut all: Vec<Taught> = Vec::new();
    for key in keys {
        let batch = store.read::<pastry::batch::BatchDocument>(&key, None).await.unwrap().document;
        let events = store.batch_events(&key, 0).await.unwrap();
        let (entries, _) = server::batch_log::entries(&events);
        let shelf = store.shelf(batch.formula.ingredient_keys()).await.unwrap();
        let (taught, _) = pastry::batch::tested::taught(&batch, &key, &entries, &shelf);
        all.extend(
            taught.into_iter().filter(|own| own.0 == pastry::belief::Quantity::Yield).map(|own| own.1),
        );
    }
    all.sort_by(|a, b| a.at.cmp(&b.at).then_with(|| a.id.cmp(&b.id)));
    let judged = learn(&all).judged;
    let apart = judged.iter().filter(|own| own.0 == Counts::DoesNotFit).count();
    assert!(apart >= 1, "some reading is wild");
    let mut rows: Vec<(&str, Vec<f64>, usize, f64)> =
        ["the book", "one offset a family", "ours"].map(|name| (name, Vec::new(), 0, 0.0)).into();
    // Each is held back in turn and said from all others; wild ones are no measure of anything.
    for at in 0..all.len() {
        if judged[at].0 != Counts::Yes {
            continue;
        }
        let own = &all[at];
        let before: Vec<&Taught> = all.iter().filter(|other| other.batch != own.batch).collect();
        let owned: Vec<Taught> = before.iter().map(|own| (*own).clone()).collect();
        let said = [
            (0.0, own.terms.book()),
            by_family(&before, &own.terms),
            learn(&owned).posterior.next(&own.terms),
        ];
        for (row, (mean, variance)) in rows.iter_mut().zip(said) {
            let off = (own.ln_over - mean).abs();
            let sigma = (variance + own.reading).sqrt();
            row.2 += usize::from(off <= 1.645 * sigma);
            // ln of the density that was said of what was measured: the larger the better, and none can be had by boasting.
            row.3 += -sigma.ln() - 0.5 * (off / sigma).powi(2);
            row.1.push(off);
        }
    }
    let document =
        std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/LEARNING.md")).unwrap();
    let (mut scores, mut written) = (Vec::new(), Vec::new());
    for (name, off, inside, score) in &mut rows {
        off.sort_by(f64::total_cmp);
        let median = off[off.len() / 2];
        let score = *score / off.len() as f64;
        scores.push(score);
        written.push(format!(
            "| {name} | {:.2} times | {inside} of {} | {score:.2} |",
            median.exp(),
            off.len()
        ));
    }
    assert!(
        written.iter().all(|row| document.contains(row)),
        "docs/LEARNING.md has other rows than\n{}",
        written.join("\n")
    );
    assert!(scores[2] > scores[1] && scores[2] > scores[0], "{scores:?}");
    assert!(rows[2].2 as f64 >= 0.8 * rows[2].1.len() as f64, "{} of {}", rows[2].2, rows[2].1.len());
    kitchen.close().await;
}

/// Five batches tell how long a step takes, and the day reckons with it where nobody wrote minutes down.
#[tokio::test]
async fn the_minutes_of_batches_flow_into_the_room() {
    let kitchen = Kitchen::open(false).await;
    let mut step = None;
    for batch in 0..5 {
        let (_, begun) = kitchen.post("/api/batches", &json!({ "formula": formula() })).await;
        let id = begun["kept"]["id"].as_str().unwrap().to_owned();
        let steps = begun["kept"]["document"]["steps"].as_array().unwrap();
        let own = steps.iter().find(|own| own["kind"] != "wait").unwrap();
        let minutes = own["minutes"][1].as_f64().unwrap();
        let (key, done) = (own["key"].clone(), 1 + (2.0 * minutes).round() as i64);
        let at = |min: i64| format!("2026-01-0{}T11:{min:02}:00Z", batch + 1);
        let events = json!({ "events": [
            { "id": format!("begun-{batch}-1"), "at": at(1), "event": { "what": "begun", "step": key } },
            { "id": format!("done-{batch}-01"), "at": at(done), "event": { "what": "done", "step": key } },
        ] });
        let (status, now) = kitchen.post(&format!("/api/batches/{id}/events"), &events).await;
        assert_eq!(status, 201, "{now}");
        let (_, room) = kitchen.get("/api/rooms").await;
        assert_eq!(room["took"].as_array().unwrap().len(), usize::from(batch == 4), "{room}");
        step = Some((key, (done - 1) as f64 / minutes));
    }
    let (_, room) = kitchen.get("/api/rooms").await;
    let (key, times) = step.unwrap();
    let own = &room["took"][0];
    assert_eq!((&own["step"], &own["batches"]), (&key, &json!(5)));
    let took = own["minutes"][0].as_f64().unwrap() + own["minutes"][1].as_f64().unwrap();
    let usual = own["usual"][0].as_f64().unwrap() + own["usual"][1].as_f64().unwrap();
    assert!((took / usual / times - 1.0).abs() < 0.1, "{own}");
    kitchen.close().await;
}

/// What the book says of a batch hangs on what its ingredients are made of: one that is corrected is learned from anew.
#[tokio::test]
async fn an_ingredient_that_is_corrected_is_learned_from_anew() {
    let kitchen = Kitchen::open(false).await;
    let shelf = pastry::ingredient::Shelf::catalogue();
    let mut own = pastry::ingredient::IngredientDocument::copy_of(
        shelf.find("dark55").unwrap(),
        "own-quay-55".to_owned(),
        "Quay 55 %".to_owned(),
    );
    let (status, kept) = kitchen.post("/api/ingredients", &json!(own)).await;
    assert_eq!(status, 201, "{kept}");
    let mut made = formula();
    made["lines"][0]["ingredient"] = json!("own-quay-55");
    let ask = json!({ "formula": made, "made_at": "2026-01-02T11:00:00Z" });
    let (_, begun) = kitchen.post("/api/batches", &ask).await;
    let batch = begun["kept"]["id"].as_str().unwrap();
    let test = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": 150.0 });
    let event = json!({ "what": "tested", "test": test, "c": 30.0 });
    let events = json!({ "events": [{ "id": "test-0001", "at": "2026-01-02T12:00:00Z", "event": event }] });
    assert_eq!(kitchen.post(&format!("/api/batches/{batch}/events"), &events).await.0, 201);
    let times = async || kitchen.get("/api/learned").await.1["readings"][0]["times"].as_f64().unwrap();
    let before = times().await;
    // A tenth of its sugar was cocoa after all.
    use pastry::ingredient::Part;
    *own.composition_percent.get_mut(&Part::Sucrose).unwrap() -= 10.0;
    *own.composition_percent.entry(Part::Cocoa).or_default() += 10.0;
    let ask = json!({ "document": own, "based_on_revision": 1 });
    let (status, kept) = kitchen.put("/api/ingredients/own-quay-55", &ask).await;
    assert_eq!(status, 200, "{kept}");
    let mut after = before;
    for _ in 0..400 {
        after = times().await;
        if after != before {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(10)).await;
    }
    assert!(
        after < 0.95 * before,
        "{before} times the book, and then {after}: more cocoa is stiffer by the book"
    );
    kitchen.close().await;
}

/// A door, and what is asked there, given the key of the formula that is kept.
type Door = (&'static str, fn(&str) -> Value);

/// A cake whose tier is dripped with a formula of the library.
fn dripped(component: &str) -> Value {
    json!({ "room_c": 30.0, "document": {
        "format": "bright-spoon/stack", "version": 1, "name": "Quay cake", "serve_c": 30.0, "portion_g": 90.0,
        "tiers": [{
            "body": { "shape": "round", "diameter_mm": 200.0 },
            "layers": [{ "kind": "sponge", "thickness_mm": 60.0 }],
            "drip": { "component": component, "count": 12, "dose_ml": 0.9, "length_mm": [25.0, 70.0], "coat_c": 6.0, "flood": false }
        }]
    } })
}

/// What was learned is worked out in one place and answered at every door that says how a cream stands: none goes on answering by the
/// book.
#[tokio::test]
async fn every_door_answers_with_what_was_learned() {
    let kitchen = Kitchen::open(false).await;
    let (_, kept) = kitchen.post("/api/components", &formula()).await;
    let id = kept["id"].as_str().unwrap().to_owned();
    let doors: [Door; 10] = [
        ("predict", |_| formula()),
        ("compare", |_| json!({ "documents": [formula(), formula()] })),
        ("balance", |_| {
            let mut own = formula();
            own["work"]["temperature_c"] = json!(24.0);
            own
        }),
        (
            "swap",
            |_| json!({ "document": formula(), "ask": { "swap": "replace", "line": 0, "by": "dark70" } }),
        ),
        (
            "rescue",
            |_| json!({ "document": formula(), "sign": "too_stiff", "bowl_c": 24.0, "bowl_g": 200.0 }),
        ),
        ("overpour", |_| json!({ "document": formula(), "line": 1, "poured": "112 g" })),
        ("stack", dripped),
        ("bench-tests", |_| json!({ "formula": formula(), "c": 30.0 })),
        ("batches", |_| json!({ "formula": formula() })),
        ("order", |component| {
            json!({
                "format": "bright-spoon/order", "version": 1, "name": "Quay", "served_at": "2026-12-05T15:00:00",
                "made_on": "2026-12-04", "servings": 12, "room_temperature_c": 30.0,
                "cakes": [{ "stack": dripped(component)["document"], "count": 1 }]
            })
        }),
    ];
    let ask = async || {
        let mut all = Vec::new();
        for (door, asked) in doors {
            let (status, mut answer) = kitchen.post(&format!("/api/{door}"), &asked(&id)).await;
            assert!(status == 200 || status == 201, "{door}: {answer}");
            if door == "batches" {
                // Its key and when it was begun are its own.
                answer = answer["kept"]["document"]["steps"].take();
            }
            all.push((door, answer));
        }
        all
    };
    let book = ask().await;
    assert_eq!(ask().await, book, "nothing was tested yet");
    for day in 2..6 {
        tested(&kitchen, "Quay drip", &format!("2026-01-0{day}"), 95.0).await;
    }
    let same: Vec<&str> =
        ask().await.iter().zip(&book).filter(|(now, then)| now.1 == then.1).map(|(now, _)| now.0).collect();
    assert_eq!(same, [""; 0], "they answer by the book");
    kitchen.close().await;
}
