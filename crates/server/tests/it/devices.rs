//! Devices over HTTP: named, live, asked; and the stream of what happens.

use crate::{Kitchen, formula};
use devices::DeviceKind;
use devices::stand_in::play::Play;
use devices::stand_in::serve::serve;
use serde_json::{Value, json};
use std::time::Duration;
use tokio::net::TcpListener;

async fn stand_in(kind: DeviceKind, scenario: &str) -> String {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap().to_string();
    let mut play = Play::new(kind, "test", 5);
    play.scenario(scenario).unwrap();
    tokio::spawn(serve(listener, play));
    address
}

fn settings(devices: &[(&str, &str, &str)], revision: u64) -> Value {
    let all: Vec<Value> = devices
        .iter()
        .map(|(kind, name, address)| json!({ "kind": kind, "name": name, "address": address }))
        .collect();
    json!({ "devices": all, "fridge_most_c": 8.0, "fridge_most_min": 0.0, "revision": revision })
}

/// Looks at the devices until they are as wanted.
async fn until(kitchen: &Kitchen, wanted: impl Fn(&Value) -> bool) -> Value {
    loop {
        let (_, devices) = kitchen.get("/api/devices").await;
        if wanted(&devices) {
            return devices;
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
}

/// A stream of words, and what of it was not read yet.
struct Ear {
    answer: reqwest::Response,
    text: String,
}

impl Ear {
    async fn open(kitchen: &Kitchen, query: &str) -> Self {
        let answer = reqwest::get(format!("{}/api/live{query}", kitchen.address)).await.unwrap();
        assert_eq!(answer.status(), 200);
        assert_eq!(answer.headers()["content-type"], "text/event-stream");
        Ear { answer, text: String::new() }
    }

    /// The next word of a name: its id and data.
    async fn hear(&mut self, name: &str) -> (String, Value) {
        loop {
            while let Some(end) = self.text.find("\n\n") {
                let word: String = self.text.drain(..end + 2).collect();
                let field = |key: &str| {
                    let lines = word.lines().find_map(|line| line.strip_prefix(&format!("{key}:")));
                    lines.map(|own| own.trim().to_owned()).unwrap_or_default()
                };
                if field("event") == name {
                    return (field("id"), serde_json::from_str(&field("data")).unwrap());
                }
            }
            let piece = self.answer.chunk().await.unwrap().expect("the stream goes on");
            self.text.push_str(std::str::from_utf8(&piece).unwrap());
        }
    }
}

#[tokio::test]
async fn devices_are_named_seen_live_and_asked() {
    let kitchen = Kitchen::open(false).await;
    let (_, none) = kitchen.get("/api/devices").await;
    assert_eq!((&none["settings"]["devices"], &none["settings"]["fridge_most_c"]), (&json!([]), &json!(8.0)));
    let scale = stand_in(DeviceKind::Scale, "put 300 g").await;
    let printer = stand_in(DeviceKind::Printer, "tape 45 mm").await;
    let named = settings(&[("scale", "Bench", &scale), ("printer", "Labels", &printer)], 0);
    let (status, saved) = kitchen.put("/api/devices", &named).await;
    assert_eq!((status, &saved["settings"]["revision"]), (200, &json!(1)), "{saved}");
    // Somebody else saved on top of what is no more.
    let (status, problem) = kitchen.put("/api/devices", &named).await;
    assert_eq!((status, &problem["code"]), (409, &json!("saved_in_between")), "{problem}");
    until(&kitchen, |own| own["now"][0]["steady"] == true && own["now"][1]["state"] == "live").await;
    let ask = |device: &str, wish: Value| json!({ "device": device, "wish": wish });
    let (status, done) = kitchen.post("/api/devices/ask", &ask("Bench", json!({ "do": "tare" }))).await;
    assert_eq!(status, 200, "{done}");
    until(&kitchen, |own| own["now"][0]["g"].as_f64().is_some_and(|g| g.abs() < 1.5)).await;
    let pour = json!({ "do": "play", "scenario": "pour 90 g at 90 g/s, overshoot 6" });
    assert_eq!(kitchen.post("/api/devices/ask", &ask("Bench", pour)).await.0, 200);
    until(&kitchen, |own| own["now"][0]["g"].as_f64().is_some_and(|g| (g - 96.0).abs() < 2.0)).await;
    let print = |job: &str| ask("Labels", json!({ "do": "print", "job": job, "text": "Bay drip\n324 g" }));
    assert_eq!(kitchen.post("/api/devices/ask", &print("one")).await.0, 200);
    let (_, tray) = kitchen.get("/api/devices/tray").await;
    assert_eq!(tray[0]["job"], "one", "{tray}");
    for (form, begins) in [("png", &b"\x89PNG"[..]), ("pdf", &b"%PDF"[..])] {
        let path = tray[0][form].as_str().unwrap();
        let bytes = reqwest::get(format!("{}{path}", kitchen.address)).await.unwrap().bytes().await.unwrap();
        assert!(bytes.starts_with(begins), "{form}");
    }
    assert_eq!(kitchen.post("/api/devices/ask", &print("two")).await.0, 200);
    let (status, problem) = kitchen.post("/api/devices/ask", &print("three")).await;
    assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("not_done")));
    assert!(problem["detail"].as_str().unwrap().contains("new roll"), "{problem}");
    let (status, problem) = kitchen.post("/api/devices/ask", &ask("Nobody", json!({ "do": "tare" }))).await;
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("Nobody"), "{problem}");
    assert_eq!(kitchen.get("/api/devices/tray/nine/png").await.0, 404);
    kitchen.close().await;
}

#[tokio::test]
async fn what_is_no_device_is_refused_at_its_field_and_nothing_is_saved() {
    let kitchen = Kitchen::open(false).await;
    let bad = settings(&[("scale", "Bench", "scale.example:80"), ("probe", "Bench", "127.0.0.1:1")], 0);
    let (status, problem) = kitchen.put("/api/devices", &bad).await;
    let fields: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|own| own["field"].as_str().unwrap()).collect();
    assert_eq!((status, fields), (422, vec!["devices.0.address", "devices.1.name"]), "{problem}");
    let mut hot = settings(&[], 0);
    hot["fridge_most_c"] = json!(40.0);
    assert_eq!(kitchen.put("/api/devices", &hot).await.0, 422);
    assert_eq!(kitchen.get("/api/devices").await.1["settings"]["revision"], 0);
    kitchen.close().await;
}

#[tokio::test]
async fn the_stream_says_what_was_written_and_goes_on_where_it_was() {
    let kitchen = Kitchen::open(false).await;
    let mut ear = Ear::open(&kitchen, "").await;
    let (begun, first) = ear.hear("written").await;
    assert_eq!(first["changed"], json!([]), "who is new is told where the stream is");
    ear.hear("devices").await;
    let (_, batch) = kitchen.post("/api/batches", &json!({ "formula": formula() })).await;
    let id = batch["kept"]["id"].as_str().unwrap();
    let (last, told) = ear.hear("written").await;
    assert_eq!(told["changed"], json!([{ "noun": "batch", "key": id }]));
    assert!(last.parse::<i64>().unwrap() > begun.parse::<i64>().unwrap());
    drop(ear);
    // It was away while somebody poured.
    let event = json!({ "what": "noted", "words": "humid today" });
    let said = json!({ "events": [{ "id": "event-noted-1", "at": "2026-01-05T08:00:00Z", "event": event }] });
    assert_eq!(kitchen.post(&format!("/api/batches/{id}/events"), &said).await.0, 201);
    let mut ear = Ear::open(&kitchen, &format!("?after={last}")).await;
    let (_, told) = ear.hear("written").await;
    assert_eq!(told["changed"], json!([{ "noun": "batch", "key": id }]));
    assert!(told["epoch"].as_str().is_some_and(|own| own.contains('-')));
    // By the header, as a browser sends it; a number of another kitchen begins with now.
    for (id, changed) in [(last.as_str(), 1), ("99999", 0), ("x", 0)] {
        let answer = reqwest::Client::new()
            .get(format!("{}/api/live", kitchen.address))
            .header("last-event-id", id)
            .send()
            .await
            .unwrap();
        let (_, told) = Ear { answer, text: String::new() }.hear("written").await;
        assert_eq!(told["changed"].as_array().unwrap().len(), changed, "{id}");
    }
    // Sent twice it is there once, and nobody is told of nothing.
    assert_eq!(kitchen.post(&format!("/api/batches/{id}/events"), &said).await.0, 201);
    kitchen.close().await;
}

#[tokio::test]
async fn a_server_that_stops_ends_its_streams() {
    let kitchen = Kitchen::open(false).await;
    let mut ear = Ear::open(&kitchen, "").await;
    ear.hear("devices").await;
    let (_dir, end) =
        tokio::join!(kitchen.close(), async move { while let Ok(Some(_)) = ear.answer.chunk().await {} });
    let () = end;
}

#[tokio::test]
async fn a_warm_fridge_says_since_when_and_what_stood_in_it() {
    let kitchen = Kitchen::open(false).await;
    let (_, batch) = kitchen.post("/api/batches", &json!({ "formula": formula() })).await;
    let id = batch["kept"]["id"].as_str().unwrap();
    let put = json!({ "what": "put", "place": "Cream fridge" });
    let said = json!({ "events": [{ "id": "event-put-1", "at": "2026-01-05T08:00:00Z", "event": put }] });
    assert_eq!(kitchen.post(&format!("/api/batches/{id}/events"), &said).await.0, 201);
    let fridge = stand_in(DeviceKind::Fridge, "cool from 12 C to 4 C constant 60 min").await;
    let named = settings(&[("fridge", "Cream fridge", &fridge)], 0);
    assert_eq!(kitchen.put("/api/devices", &named).await.0, 200);
    let warm = until(&kitchen, |own| own["warm"].as_array().is_some_and(|own| !own.is_empty())).await;
    let told = &warm["warm"][0];
    assert_eq!((&told["name"], &told["until"]), (&json!("Cream fridge"), &Value::Null));
    assert_eq!(told["held"].as_array().unwrap().len(), 1, "{told}");
    let words = told["words"].as_str().unwrap();
    assert!(words.contains("8 °C") && words.contains("local code"), "{words}");
    // Warmer than the limit it stays one word, until it is cold.
    let raised =
        json!({ "devices": named["devices"], "fridge_most_c": 15.0, "fridge_most_min": 0.0, "revision": 1 });
    assert_eq!(kitchen.put("/api/devices", &raised).await.0, 200);
    let cold = until(&kitchen, |own| own["warm"][0]["until"].is_string()).await;
    assert_eq!(cold["warm"].as_array().unwrap().len(), 1);
    kitchen.close().await;
}
