//! Bad input gets a clear answer: a stable code, the field, what to do. Never a crash, never HTML.

use crate::{Kitchen, formula};
use serde_json::{Value, json};

fn problem_of(status: u16, problem: &Value) -> (u16, String, String) {
    assert_eq!(problem["status"].as_u64(), Some(u64::from(status)), "{problem}");
    for field in ["type", "title", "code", "detail"] {
        assert!(!problem[field].as_str().unwrap_or_default().is_empty(), "no {field} in {problem}");
    }
    let field = problem["errors"][0]["field"].as_str().unwrap_or_default().to_owned();
    (status, problem["code"].as_str().unwrap().to_owned(), field)
}

#[tokio::test]
async fn each_bad_field_is_named() {
    let kitchen = Kitchen::open(false).await;
    let cases: Vec<(&str, Value, &str)> = vec![
        ("lines/0/amount", json!("-5 g"), "lines.0.amount"),
        ("lines/0/amount", json!(""), "lines.0.amount"),
        ("lines/0/amount", json!("99999 kg"), "lines.0.amount"),
        ("lines/0/amount", json!("2 glugs"), "lines.0.amount"),
        ("lines/0/amount", json!(200), "lines.0.amount"),
        ("lines/1/ingredient", json!("moon dust"), "lines.1.ingredient"),
        ("lines", json!([]), "lines"),
        ("work/temperature_c", json!(80.0), "work.temperature_c"),
        ("work/temperature_c", json!(120.0), "work.temperature_c"),
        ("work/temperature_c", json!("warm"), "work.temperature_c"),
        ("work/room_temperature_c", json!(-5), "work.room_temperature_c"),
        ("work/job", json!({ "kind": "juggle" }), "work.job.kind"),
        ("work/job", json!({ "kind": "drip", "dose_ml": -1 }), "work.job"),
        ("work/job", json!({ "kind": "drip", "shortest_mm": 90 }), "work.job.shortest_mm"),
        ("family", json!("stew"), "family"),
        ("family", json!("syrup"), "work.job.kind"),
        ("lines/0/amount", json!("100 %"), "lines.0.amount"),
        ("version", json!(2), "version"),
        ("name", json!("x".repeat(500)), "name"),
    ];
    for (pointer, value, field) in cases {
        let mut body = formula();
        *body.pointer_mut(&format!("/{pointer}")).unwrap() = value.clone();
        let (status, problem) = kitchen.post("/api/predict", &body).await;
        let (status, code, named) = problem_of(status, &problem);
        assert_eq!((status, code.as_str()), (422, "faults"), "{pointer} = {value}: {problem}");
        assert_eq!(named, field, "{pointer} = {value}: {problem}");
    }
    let mut body = formula();
    body["lines"][0] = json!({ "ingredient": "own-dust", "amount": "1 cup" });
    let (_, problem) = kitchen.post("/api/predict", &body).await;
    assert_eq!(problem["errors"][0]["code"], "unknown_ingredient");
    // An own thing that comes in grains, and whose cup nobody weighed.
    body["ingredients"] = json!([{
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-dust", "name": "Beet dust",
        "group": "other", "composition_percent": { "sucrose": 60, "fibre": 38, "water": 2 }
    }]);
    let (_, problem) = kitchen.post("/api/predict", &body).await;
    assert_eq!(problem["errors"][0]["code"], "no_density");
    assert!(problem["detail"].as_str().unwrap().contains("give its density"));
    kitchen.close().await;
}

#[tokio::test]
async fn broken_large_and_foreign_bodies_are_refused_in_words() {
    let kitchen = Kitchen::open(false).await;
    let url = format!("{}/api/predict", kitchen.address);
    let send = async |kind: &str, body: Vec<u8>| {
        let response = kitchen.http.post(&url).header("content-type", kind).body(body).send().await.unwrap();
        assert_eq!(response.headers()["content-type"], "application/problem+json");
        let status = response.status().as_u16();
        let problem: Value = response.json().await.unwrap();
        let (status, code, _) = problem_of(status, &problem);
        (status, code, problem["detail"].as_str().unwrap().to_owned())
    };
    let (status, code, words) =
        send("application/json", b"{\"format\": \"bright-spoon/formula\",,}".to_vec()).await;
    assert_eq!((status, code.as_str()), (400, "broken_json"));
    assert!(words.contains("line 1, column"), "{words}");
    let (status, code, _) = send("application/json", vec![0xff, 0xfe, 0x00]).await;
    assert_eq!((status, code.as_str()), (400, "broken_json"));
    let (status, code, _) = send("text/plain", formula().to_string().into_bytes()).await;
    assert_eq!((status, code.as_str()), (415, "not_json"));
    let (status, code, _) = send("application/json", b"[1, 2]".to_vec()).await;
    assert_eq!((status, code.as_str()), (422, "faults"));
    let deep = [b"[".repeat(5000), b"]".repeat(5000)].concat();
    assert_eq!(send("application/json", deep).await.0 / 100, 4);
    let (status, code, _) = send("application/json", vec![b' '; 10 * 1024 * 1024]).await;
    assert_eq!((status, code.as_str()), (413, "too_large"));
    // And it still answers.
    assert_eq!(kitchen.post("/api/predict", &formula()).await.0, 200);
    kitchen.close().await;
}

#[tokio::test]
async fn a_large_body_without_a_length_is_cut_off() {
    let kitchen = Kitchen::open(false).await;
    use tokio::io::{AsyncReadExt, AsyncWriteExt};
    let mut raw =
        tokio::net::TcpStream::connect(kitchen.address.trim_start_matches("http://")).await.unwrap();
    raw.write_all(b"POST /api/predict HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\ntransfer-encoding: chunked\r\n\r\n")
        .await
        .unwrap();
    let chunk = [b"10000\r\n".to_vec(), vec![b' '; 0x10000], b"\r\n".to_vec()].concat();
    for _ in 0..20 {
        // The server may close while we still write: that is the point.
        if raw.write_all(&chunk).await.is_err() {
            break;
        }
    }
    let mut answer = vec![0; 4096];
    let read = raw.read(&mut answer).await.unwrap_or(0);
    let answer = String::from_utf8_lossy(&answer[..read]).into_owned();
    assert!(answer.starts_with("HTTP/1.1 413"), "{answer}");
    kitchen.close().await;
}

#[tokio::test]
async fn unknown_addresses_and_methods_answer_as_problems() {
    let kitchen = Kitchen::open(false).await;
    let (status, problem) = kitchen.get("/api/nothing").await;
    assert_eq!(problem_of(status, &problem).1, "no_route");
    let (status, problem) = kitchen.get("/api/predict").await;
    assert_eq!((status, problem["code"].as_str()), (405, Some("no_method")));
    let (status, problem) = kitchen.get("/api/components/none/revisions/first").await;
    assert_eq!((status, problem["code"].as_str()), (404, Some("not_found")));
    let (status, problem) = kitchen.put("/api/ingredients/moon/kitchen", &json!({ "revision": 0 })).await;
    assert_eq!((status, problem["code"].as_str()), (404, Some("not_found")));
    let kitchen_now =
        json!({ "name": " ", "room_temperature_c": 20, "measures": "us", "currency": "EUR", "revision": 1 });
    let (status, problem) = kitchen.put("/api/kitchen", &kitchen_now).await;
    assert_eq!(problem_of(status, &problem).2, "name");
    let zone = |name: &str| {
        json!({ "name": "Quay", "room_temperature_c": 20, "measures": "us", "currency": "EUR", "revision": 1,
            "time_zone": name })
    };
    let (status, problem) = kitchen.put("/api/kitchen", &zone("Middle/Earth")).await;
    assert_eq!(problem_of(status, &problem).2, "time_zone");
    assert!(problem.to_string().contains("write one by its region and city"), "{problem}");
    let (status, saved) = kitchen.put("/api/kitchen", &zone("Asia/Kathmandu")).await;
    assert_eq!((status, saved["time_zone"].as_str()), (200, Some("Asia/Kathmandu")));
    assert_eq!(kitchen.get("/api/kitchen").await.1["time_zone"], "Asia/Kathmandu");
    kitchen.close().await;
}

/// Every door that takes a question, as the description of the interface has them, with what its address has to say: a new one is among
/// them by itself. And whether it can be looked at, too.
fn doors() -> Vec<(String, bool)> {
    let described: Value = serde_json::from_str(&server::openapi::pretty()).unwrap();
    let paths = described["paths"].as_object().unwrap().iter();
    let asked = paths.filter(|(path, own)| !path.contains('{') && !own["post"]["requestBody"].is_null());
    let needed = |own: &Value| {
        let all = own["post"]["parameters"].as_array().cloned().unwrap_or_default();
        let needed = all.into_iter().filter(|own| own["in"] == "query" && own["required"] == true);
        let said = needed.map(|own| format!("{}={}", own["name"], own["schema"]["enum"][0]));
        said.collect::<Vec<_>>().join("&").replace('"', "")
    };
    asked.map(|(path, own)| (format!("{path}?{}", needed(own)), !own["get"].is_null())).collect()
}

/// Every door that takes a question takes no other: broken, of another kind, too large, with a field nobody knows.
#[tokio::test]
async fn every_question_is_refused_in_the_same_words_when_it_is_none() {
    let kitchen = Kitchen::open(false).await;
    let doors = doors();
    assert!(doors.len() > 30, "{doors:?}");
    let large = format!(r#"{{ "name": "{}" }}"#, "x".repeat(server::body::LARGEST_FILE));
    for (door, looked_at) in doors {
        let url = format!("{}{door}", kitchen.address);
        let send = |kind: &'static str, body: String| {
            kitchen.http.post(&url).header("content-type", kind).body(body).send()
        };
        let broken = send("application/json", "{".into()).await.unwrap();
        assert_eq!(broken.status(), 400, "{door}");
        let kind = broken.headers()["content-type"].to_str().unwrap().to_owned();
        assert_eq!(kind, "application/problem+json", "{door}");
        assert_eq!(send("text/plain", "{}".into()).await.unwrap().status(), 415, "{door}");
        for strange in [r#"{ "moonlight": 1 }"#, "[]", "null", r#""缶""#, "-1e999"] {
            let strange = send("application/json", strange.into()).await.unwrap();
            let status = strange.status();
            assert!(status == 422 || status == 400, "{door}: {status}");
            let problem: Value = serde_json::from_str(&strange.text().await.unwrap()).unwrap();
            assert!(!problem["detail"].as_str().unwrap().is_empty(), "{door}: {problem}");
        }
        // It may hang up before it has read so much.
        if let Ok(answer) = send("application/json", large.clone()).await {
            assert_eq!(answer.status(), 413, "{door}");
        }
        if !looked_at {
            assert_eq!(kitchen.http.get(&url).send().await.unwrap().status(), 405, "{door}");
        }
    }
    kitchen.close().await;
}

#[tokio::test]
async fn a_formula_at_fault_is_named_the_same_at_every_door() {
    let kitchen = Kitchen::open(false).await;
    let mut bad = formula();
    bad["lines"][0]["amount"] = "2 glugs".into();
    let inside = [
        ("swap", json!({ "document": bad, "ask": { "swap": "without", "what": "egg" } })),
        ("rescue", json!({ "document": bad, "sign": "split" })),
        ("overpour", json!({ "document": bad, "line": 1, "poured": "120 g" })),
        ("scale", json!({ "document": bad, "target": { "to": "factor", "by": 2 } })),
        ("methods", bad.clone()),
        ("balance", bad.clone()),
        ("clock/boil", json!({ "formula": bad, "boil": { "to": "brix", "brix": 60 } })),
        ("clock", json!({ "formula": bad, "vessel": { "kind": "bowl" }, "places": [{ "place": "bench" }] })),
    ];
    for (door, body) in inside {
        let (status, problem) = kitchen.post(&format!("/api/{door}"), &body).await;
        let (status, code, field) = problem_of(status, &problem);
        assert_eq!(
            (status, code.as_str(), field.as_str()),
            (422, "faults", "lines.0.amount"),
            "{door}: {problem}"
        );
        assert!(problem["errors"][0]["message"].as_str().unwrap().contains("glugs"), "{door}: {problem}");
    }
    kitchen.close().await;
}
