//! Batches while they are made, over real HTTP.

use crate::{Kitchen, formula};
use serde_json::{Value, json};
use std::process::Command;

async fn begin(kitchen: &Kitchen) -> (String, Value) {
    let (status, begun) =
        kitchen.post("/api/batches", &json!({ "formula": formula(), "weigh_g": 324.0 })).await;
    assert_eq!(status, 201, "{begun}");
    (begun["kept"]["id"].as_str().unwrap().to_owned(), begun)
}

fn said(id: &str, at: &str, event: &Value) -> Value {
    json!({ "id": format!("event-{id}"), "at": format!("2026-01-05T{at}Z"), "event": event })
}

async fn say(kitchen: &Kitchen, batch: &str, events: &[Value]) -> (u16, Value) {
    kitchen.post(&format!("/api/batches/{batch}/events"), &json!({ "events": events })).await
}

fn poured(line: usize, grams: f64) -> Value {
    json!({ "what": "weighed", "line": line, "grams": grams, "by": "hand" })
}

/// Everything a batch still asks for, until nothing is open.
async fn finish(kitchen: &Kitchen, batch: &str) -> Value {
    for turn in 0..60 {
        let (_, now) = kitchen.get(&format!("/api/batches/{batch}")).await;
        let view = &now["view"];
        let event = match (view["line"].as_u64(), view["step"].as_u64()) {
            (Some(line), _) => {
                poured(line as usize, view["lines"][line as usize]["still_g"].as_f64().unwrap())
            }
            (None, Some(step)) => json!({ "what": "done", "step": view["steps"][step as usize]["key"] }),
            (None, None) => return now,
        };
        let own = said(&format!("turn-{turn}"), &format!("08:{turn:02}:00"), &event);
        assert_eq!(say(kitchen, batch, &[own]).await.0, 201);
    }
    panic!("it never ends");
}

#[tokio::test]
async fn a_batch_is_begun_at_its_size_weighed_and_closed() {
    let kitchen = Kitchen::open(false).await;
    let (id, begun) = begin(&kitchen).await;
    assert_eq!(begun["view"]["whole_g"], 324.0, "{begun}");
    let (_, running) = kitchen.get("/api/batches?running=true").await;
    assert_eq!(running.as_array().unwrap().len(), 1);
    let line = begun["view"]["line"].as_u64().unwrap() as usize;
    let (status, then) = say(&kitchen, &id, &[said("first", "07:00:00", &poured(line, 162.0))]).await;
    assert_eq!(status, 201, "{then}");
    assert_eq!(
        (&then["view"]["lines"][line]["stands"], &then["view"]["in_g"]),
        (&json!("in"), &json!(162.0))
    );
    // Too early to close it: what is open is named.
    let closed = said("closed", "09:00:00", &json!({ "what": "closed" }));
    let (status, problem) = say(&kitchen, &id, std::slice::from_ref(&closed)).await;
    assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("batch_open")));
    assert!(problem["errors"][0]["message"].as_str().unwrap().contains("has not gone in"), "{problem}");
    finish(&kitchen, &id).await;
    assert_eq!(say(&kitchen, &id, std::slice::from_ref(&closed)).await.0, 201);
    let (_, running) = kitchen.get("/api/batches?running=true").await;
    assert_eq!(running.as_array().unwrap().len(), 0);
    let (_, all) = kitchen.get("/api/batches").await;
    assert_eq!(all.as_array().unwrap().len(), 1);
    let late = said("late-one", "09:05:00", &poured(line, 3.0));
    let (status, problem) = say(&kitchen, &id, &[late]).await;
    assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("batch_closed")));
    let back = said("back-one", "09:06:00", &json!({ "what": "taken_back", "of": "event-closed" }));
    assert_eq!(say(&kitchen, &id, &[back]).await.0, 201);
    let (_, running) = kitchen.get("/api/batches?running=true").await;
    assert_eq!(running.as_array().unwrap().len(), 1);
    kitchen.close().await;
}

#[tokio::test]
async fn what_is_sent_twice_counts_once_and_what_cannot_be_keeps_nothing_of_its_sending() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    let one = said("same", "07:00:00", &poured(0, 100.0));
    for _ in 0..3 {
        let (status, now) = say(&kitchen, &id, std::slice::from_ref(&one)).await;
        assert_eq!((status, &now["view"]["lines"][0]["in_g"]), (201, &json!(100.0)));
    }
    let wrong = said("wrong", "07:02:00", &poured(1, 1e9));
    let (status, problem) = say(&kitchen, &id, &[said("right", "07:01:00", &poured(1, 5.0)), wrong]).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!("events.1.event.grams")), "{problem}");
    for (event, field) in [
        (poured(7, 3.0), "events.0.event.line"),
        (json!({ "what": "read", "c": -200.0, "by": "hand" }), "events.0.event.c"),
        (json!({ "what": "taken_back", "of": "event-nobody" }), "events.0.event.of"),
    ] {
        let (status, problem) = say(&kitchen, &id, &[said("wrong", "07:02:00", &event)]).await;
        assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!(field)), "{problem}");
    }
    let (_, events) = kitchen.get(&format!("/api/batches/{id}/events")).await;
    assert_eq!(events.as_array().unwrap().len(), 1, "{events}");
    assert_eq!(kitchen.get("/api/batches/nothing").await.0, 404);
    assert_eq!(say(&kitchen, "nothing", &[one]).await.0, 404);
    kitchen.close().await;
}

/// An event of the future is kept, and taken as of when it came here; whose clock is ahead is told.
#[tokio::test]
async fn a_device_whose_clock_is_ahead_is_told_and_loses_nothing() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    let event = json!({ "id": "event-ahead", "at": "2099-01-05T07:00:00Z", "event": poured(0, 100.0) });
    let (status, now) = say(&kitchen, &id, &[event]).await;
    assert_eq!(status, 201, "{now}");
    assert_eq!(now["view"]["lines"][0]["in_g"], 100.0);
    assert!(now["clocks"][0].as_str().unwrap().contains("ahead"), "{}", now["clocks"]);
    assert!(!now["view"]["begun"].as_str().unwrap().starts_with("2099"), "{}", now["view"]["begun"]);
    kitchen.close().await;
}

/// A batch that travels is read by the command line as the kitchen has it.
#[tokio::test]
async fn a_batch_in_a_file_is_the_batch_in_the_kitchen() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    let events = [
        said("first", "07:00:00", &poured(0, 221.0)),
        said("right", "07:01:00", &json!({ "what": "corrected", "of": "event-first", "to": 162.0 })),
        said("clock", "07:02:00", &json!({ "what": "timer_set", "name": "Stand", "min": 2.0 })),
    ];
    let (status, now) = say(&kitchen, &id, &events).await;
    assert_eq!(status, 201, "{now}");
    let (_, file) = kitchen.get(&format!("/api/batches/{id}/file")).await;
    let path = kitchen.dir.path().join("batch.json");
    std::fs::write(&path, file.to_string()).unwrap();
    let run = |path: &std::path::Path| {
        Command::new(env!("CARGO_BIN_EXE_bright-spoon")).arg("batch").arg(path).output().unwrap()
    };
    let printed = run(&path);
    assert!(printed.status.success(), "{}", String::from_utf8_lossy(&printed.stderr));
    let view: Value = serde_json::from_slice(&printed.stdout).unwrap();
    assert_eq!(view, now["view"]);
    let mut wrong = file;
    wrong["events"][0]["event"]["grams"] = json!(-4);
    std::fs::write(&path, wrong.to_string()).unwrap();
    let refused = run(&path);
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("grams"), "{refused:?}");
    kitchen.close().await;
}

/// Two devices at one batch, at once: both are heard, and both see the same.
#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn two_devices_at_one_batch_are_both_heard() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    let url = format!("{}/api/batches/{id}/events", kitchen.address);
    let device = |name: &'static str, line: usize| {
        let (http, url) = (kitchen.http.clone(), url.clone());
        tokio::spawn(async move {
            for turn in 0..20 {
                let own = said(&format!("{name}-{turn}"), &format!("07:00:{turn:02}"), &poured(line, 2.0));
                let sent = http.post(&url).header("kitchen-device", name).json(&json!({ "events": [own] }));
                assert_eq!(sent.send().await.unwrap().status(), 201);
            }
        })
    };
    let (one, other) = (device("mixer", 0), device("stove", 1));
    one.await.unwrap();
    other.await.unwrap();
    let (_, now) = kitchen.get(&format!("/api/batches/{id}")).await;
    assert_eq!(now["place"], 40);
    assert_eq!(
        (&now["view"]["lines"][0]["in_g"], &now["view"]["lines"][1]["in_g"]),
        (&json!(40.0), &json!(40.0))
    );
    let devices: Vec<&str> =
        now["view"]["happened"].as_array().unwrap().iter().filter_map(|own| own["device"].as_str()).collect();
    assert_eq!(devices.iter().filter(|own| **own == "mixer").count(), 20);
    kitchen.close().await;
}

/// A formula that is put away while a batch of it is made stays what the batch is made by; so does what it is made with.
#[tokio::test]
async fn a_formula_put_away_meanwhile_stays_what_the_batch_is_made_by() {
    let kitchen = Kitchen::open(false).await;
    let (status, kept) = kitchen.post("/api/components", &formula()).await;
    assert_eq!(status, 201, "{kept}");
    let key = kept["id"].as_str().unwrap();
    let ask = json!({ "formula": formula(), "component": key, "revision": 1, "weigh_g": 324.0 });
    let (status, begun) = kitchen.post("/api/batches", &ask).await;
    assert_eq!(status, 201, "{begun}");
    let id = begun["kept"]["id"].as_str().unwrap();
    let away = json!({ "tags": [], "archived": true });
    assert_eq!(kitchen.put(&format!("/api/components/{key}/place"), &away).await.0, 204);
    let line = begun["view"]["line"].as_u64().unwrap() as usize;
    let (status, then) = say(&kitchen, id, &[said("after-it", "07:00:00", &poured(line, 162.0))]).await;
    assert_eq!((status, &then["view"]["in_g"]), (201, &json!(162.0)), "{then}");
    assert_eq!(then["view"]["lines"][line]["band"], begun["view"]["lines"][line]["band"]);
    finish(&kitchen, id).await;
    let closed = said("closed-one", "09:00:00", &json!({ "what": "closed" }));
    assert_eq!(say(&kitchen, id, &[closed]).await.0, 201);
    kitchen.close().await;
}

/// What a scale shows with its bowl lifted, and numbers that are none, are refused in words and keep nothing.
#[tokio::test]
async fn a_weight_below_nothing_and_one_beyond_all_scales_say_what_to_do() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    for (event, words) in [
        (poured(0, -412.0), "at least 0"),
        (poured(0, 1e9), "at most 200000"),
        (poured(0, 0.0), "how many grams"),
        (json!({ "what": "read", "c": -200.0, "by": "device" }), "at least -60"),
        (json!({ "what": "tared", "grams": -3.0, "bowl": "Steel 24" }), "at least 0"),
    ] {
        let (status, problem) = say(&kitchen, &id, &[said("wrong", "07:02:00", &event)]).await;
        let said = problem["errors"][0]["message"].as_str().unwrap_or_default();
        assert!(status == 422 && said.contains(words), "{status} {problem}");
    }
    let (_, events) = kitchen.get(&format!("/api/batches/{id}/events")).await;
    assert_eq!(events.as_array().unwrap().len(), 0);
    kitchen.close().await;
}

/// A bowl weighed in one batch is there in the next, until it is said to be gone.
#[tokio::test]
async fn bowls_are_known_in_every_batch() {
    let kitchen = Kitchen::open(false).await;
    let (first, _) = begin(&kitchen).await;
    let bowl = |grams: f64| json!({ "what": "tared", "grams": grams, "bowl": "Steel 24" });
    assert_eq!(kitchen.get("/api/bowls").await.1, json!([]));
    assert_eq!(say(&kitchen, &first, &[said("bowl-one", "07:00:00", &bowl(412.0))]).await.0, 201);
    let (second, _) = begin(&kitchen).await;
    assert_eq!(kitchen.get("/api/bowls").await.1, json!([{ "name": "Steel 24", "grams": 412.0 }]));
    assert_eq!(say(&kitchen, &second, &[said("bowl-two", "07:10:00", &bowl(0.0))]).await.0, 201);
    assert_eq!(kitchen.get("/api/bowls").await.1, json!([]));
    let back = said("bowl-back", "07:11:00", &json!({ "what": "taken_back", "of": "event-bowl-two" }));
    assert_eq!(say(&kitchen, &second, &[back]).await.0, 201);
    assert_eq!(kitchen.get("/api/bowls").await.1[0]["grams"], 412.0);
    kitchen.close().await;
}

/// A test of a batch teaches every answer from then on; left out, it teaches nothing; after a restart it is the same.
#[tokio::test]
async fn a_test_teaches_and_is_left_out() {
    let kitchen = Kitchen::open(false).await;
    let assess = |kitchen: &Kitchen| {
        let (http, url) = (kitchen.http.clone(), format!("{}/api/predict", kitchen.address));
        async move {
            let answer = http.post(url).json(&formula()).send().await.unwrap();
            answer.json::<Value>().await.unwrap()["at"]["yield_stress_pa"].clone()
        }
    };
    let book = assess(&kitchen).await;
    let (id, _) = begin(&kitchen).await;
    finish(&kitchen, &id).await;
    let (status, fits) = kitchen.post("/api/bench-tests", &json!({ "formula": formula(), "c": 26.0 })).await;
    assert_eq!(status, 200, "{fits}");
    let fitting: Vec<&Value> = fits.as_array().unwrap().iter().filter(|own| own["fits"] == true).collect();
    assert!(!fitting.is_empty(), "{fits}");
    // A plate that spread less than the book says: this kitchen's is stiffer.
    let plate = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": 90.0 });
    for turn in 0..3 {
        let event = json!({ "what": "tested", "test": plate, "c": 26.0, "history": "fresh" });
        let own = said(&format!("test-{turn}"), &format!("09:0{turn}:00"), &event);
        let (status, now) = say(&kitchen, &id, &[own]).await;
        assert_eq!(status, 201, "{now}");
        assert_eq!(now["view"]["tests"].as_array().unwrap().len(), turn + 1);
    }
    let (_, learned) = kitchen.get("/api/learned").await;
    assert_eq!(learned["readings"].as_array().unwrap().len(), 3, "{learned}");
    assert!(learned["offsets"][0]["sentence"].as_str().unwrap().contains("than the book"), "{learned}");
    let taught = assess(&kitchen).await;
    let band = |own: &Value| (own["high"].as_f64().unwrap() / own["low"].as_f64().unwrap()).ln();
    assert!(taught["value"].as_f64() > book["value"].as_f64(), "{taught} {book}");
    assert!(band(&taught) < band(&book), "{taught} {book}");
    let events: Vec<Value> = (0..3)
        .map(|turn| {
            let event = json!({ "what": "counted", "of": format!("event-test-{turn}"), "counts": false });
            said(&format!("out-{turn}"), &format!("09:1{turn}:00"), &event)
        })
        .collect();
    assert_eq!(say(&kitchen, &id, &events).await.0, 201);
    assert_eq!(assess(&kitchen).await, book);
    let thrown = said("thrown-it", "09:20:00", &json!({ "what": "judged", "came": "thrown" }));
    assert_eq!(say(&kitchen, &id, &[thrown]).await.0, 201);
    let event = json!({ "what": "tested", "test": plate, "c": 26.0 });
    let (status, problem) = say(&kitchen, &id, &[said("test-late", "09:30:00", &event)]).await;
    let words = problem["errors"][0]["message"].as_str().unwrap();
    assert!(status == 422 && words.contains("thrown away"), "{problem}");
    kitchen.close().await;
}

/// What cannot have been read is said with what can, at its field.
#[tokio::test]
async fn a_reading_that_cannot_be_is_said_with_what_can() {
    let kitchen = Kitchen::open(false).await;
    let (id, _) = begin(&kitchen).await;
    finish(&kitchen, &id).await;
    for (test, field, words) in [
        (json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": 3.0 }), "across_mm", "even a ball"),
        (
            json!({ "kind": "ring_slump", "high_mm": 50.0, "sank_mm": 60.0 }),
            "sank_mm",
            "than the ring is high",
        ),
    ] {
        let event = json!({ "what": "tested", "test": test, "c": 26.0 });
        let (status, problem) = say(&kitchen, &id, &[said("bad-test", "09:00:00", &event)]).await;
        assert_eq!(status, 422, "{problem}");
        let own = &problem["errors"][0];
        assert_eq!(own["field"], json!(format!("events.0.event.test.{field}")), "{problem}");
        assert!(own["message"].as_str().unwrap().contains(words), "{problem}");
    }
    kitchen.close().await;
}
