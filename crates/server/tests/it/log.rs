//! The log over real HTTP: written in afterwards, found, beside each other, out and in without loss, with pictures.

use crate::{Kitchen, formula};
use serde_json::{Value, json};

async fn component(kitchen: &Kitchen, name: &str) -> String {
    let mut own = formula();
    own["name"] = json!(name);
    let (status, made) = kitchen.post("/api/components", &own).await;
    assert_eq!(status, 201, "{made}");
    made["id"].as_str().unwrap().to_owned()
}

/// A batch written in afterwards.
async fn written_in(kitchen: &Kitchen, name: &str, day: &str) -> String {
    let mut own = formula();
    own["name"] = json!(name);
    let ask = json!({ "formula": own, "made_at": format!("{day}T11:00:00Z") });
    let (status, begun) = kitchen.post("/api/batches", &ask).await;
    assert_eq!(status, 201, "{begun}");
    assert_eq!((&begun["view"]["in_g"], &begun["view"]["open"]), (&json!(200.0), &json!([])), "{begun}");
    begun["kept"]["id"].as_str().unwrap().to_owned()
}

async fn say(kitchen: &Kitchen, batch: &str, id: &str, event: Value) -> (u16, Value) {
    let events = json!({ "events": [{ "id": id, "at": "2026-01-06T12:00:00Z", "event": event }] });
    kitchen.post(&format!("/api/batches/{batch}/events"), &events).await
}

async fn keys(kitchen: &Kitchen, query: &str) -> Vec<String> {
    let (status, page) = kitchen.get(&format!("/api/log?{query}")).await;
    assert_eq!(status, 200, "{page}");
    page["lines"].as_array().unwrap().iter().map(|own| own["key"].as_str().unwrap().to_owned()).collect()
}

#[tokio::test]
async fn a_day_a_formula_and_a_word_are_a_batch_of_the_log() {
    let kitchen = Kitchen::open(false).await;
    let first = written_in(&kitchen, "Quay drip", "2026-01-03").await;
    let second = written_in(&kitchen, "Lantern mask", "2026-01-04").await;
    let running = kitchen.get("/api/batches?running=true").await.1;
    assert_eq!(running, json!([]), "nobody is at what is written in");
    let stiff = json!({ "what": "judged", "came": "stiff", "words": "stood on the spoon" });
    assert_eq!(say(&kitchen, &first, "judged-01", stiff).await.0, 201);
    // What was weighed after all takes the place of what was assumed; what went in besides is added.
    let poured = json!({ "what": "weighed", "line": 1, "grams": 90.0, "by": "hand", "lot": "L-77" });
    let (status, now) = say(&kitchen, &first, "poured-01", poured).await;
    assert_eq!((status, &now["view"]["in_g"]), (201, &json!(190.0)), "{now}");
    assert_eq!(keys(&kitchen, "").await, [second.as_str(), first.as_str()]);
    assert_eq!(keys(&kitchen, "words=spoon%20quay").await, [first.as_str()]);
    assert_eq!(keys(&kitchen, "wrong=true").await, [first.as_str()]);
    assert_eq!(keys(&kitchen, "lot=L-77").await, [first.as_str()]);
    assert_eq!(keys(&kitchen, "ingredient=dark55&family=ganache&job=drip").await.len(), 2);
    assert_eq!(keys(&kitchen, "from=2026-01-04&to=2026-01-04").await, [second.as_str()]);
    assert_eq!(keys(&kitchen, "room_from_c=21&room_to_c=21").await.len(), 2);
    let (_, page) = kitchen.get("/api/log?most=1").await;
    let behind = page["more_behind"].as_i64().unwrap();
    assert_eq!(keys(&kitchen, &format!("behind={behind}")).await, [first.as_str()]);
    let (_, page) = kitchen.get("/api/log?wrong=true").await;
    let changed = page["lines"][0]["changed"][0].as_str().unwrap();
    assert_eq!(changed, "Cream 35 %: 10 g less than planned.");
    let (_, counts) = kitchen.get("/api/log/counts").await;
    assert_eq!((&counts["jobs"][0]["batches"], &counts["lots"][0]["key"]), (&json!(2), &json!("L-77")));
    let (status, two) = kitchen.get(&format!("/api/log/beside?keys={first},{second}")).await;
    assert_eq!(status, 200, "{two}");
    assert_eq!(two["sentence"], "They differ in Dark chocolate 55 % and Cream 35 %; one came out wrong.");
    let row = |name: &str| -> Value {
        two["rows"].as_array().unwrap().iter().find(|own| own["name"] == name).unwrap().clone()
    };
    assert_eq!(row("Cream 35 %")["texts"], json!(["90 g, 47.4 %", "100 g, 50.0 %"]));
    assert_eq!((&row("Lots")["differs"], &row("Room")["differs"]), (&json!(true), &json!(false)));
    kitchen.close().await;
}

#[tokio::test]
async fn what_cannot_be_is_said_in_words() {
    let kitchen = Kitchen::open(false).await;
    let ask = json!({ "formula": formula(), "made_at": "2150-01-03T11:00:00Z" });
    let (status, problem) = kitchen.post("/api/batches", &ask).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!("made_at")), "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains("still to come"), "{problem}");
    for query in [
        "from=2026-02-01&to=2026-01-01",
        "room_from_c=30&room_to_c=20",
        "family=gravel",
        "came=meh",
        "from=01.02.2026",
        "surprise=1",
    ] {
        let (status, problem) = kitchen.get(&format!("/api/log?{query}")).await;
        assert_eq!((status, problem["errors"].as_array().unwrap().len()), (422, 1), "{query}: {problem}");
    }
    let one = written_in(&kitchen, "Quay drip", "2026-01-03").await;
    let (status, problem) = kitchen.get(&format!("/api/log/beside?keys={one}")).await;
    assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("how_many")), "{problem}");
    let (status, _) = kitchen.get("/api/log/beside?keys=none-such-batch,neither-this").await;
    assert_eq!(status, 404);
    // A batch that was thrown away is tested no more.
    let thrown = json!({ "what": "judged", "came": "thrown" });
    assert_eq!(say(&kitchen, &one, "thrown-01", thrown).await.0, 201);
    let test = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": 80.0 });
    let tested = json!({ "what": "tested", "test": test, "c": 26.0 });
    let (status, problem) = say(&kitchen, &one, "tested-01", tested).await;
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("thrown away"), "{problem}");
    kitchen.close().await;
}

async fn file(kitchen: &Kitchen, kind: &str) -> String {
    let address = format!("{}/api/log/export?kind={kind}", kitchen.address);
    let response = kitchen.http.get(address).send().await.unwrap();
    assert_eq!(response.status().as_u16(), 200);
    response.text().await.unwrap()
}

async fn read_in(kitchen: &Kitchen, kind: &str, text: &str, take: bool) -> Value {
    let (status, read) =
        kitchen.post("/api/log/import", &json!({ "kind": kind, "text": text, "take": take })).await;
    assert_eq!(status, 200, "{read}");
    read
}

#[tokio::test]
async fn a_log_goes_out_and_into_another_kitchen_with_nothing_lost() {
    let kitchen = Kitchen::open(false).await;
    let first = written_in(&kitchen, "=Quay, \"drip\"\nof 3", "2026-01-03").await;
    written_in(&kitchen, "Маска", "2026-01-04").await;
    let stiff = json!({ "what": "judged", "came": "stiff", "words": "-stood; \"so\"\n抹茶" });
    say(&kitchen, &first, "judged-01", stiff).await;
    let plate = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": 80.0 });
    say(&kitchen, &first, "tested-01", json!({ "what": "tested", "test": plate, "c": 26.0 })).await;
    let json_file = file(&kitchen, "json").await;
    for kind in ["csv", "json"] {
        let text = file(&kitchen, kind).await;
        let other = Kitchen::open(false).await;
        let read = read_in(&other, kind, &text, false).await;
        assert_eq!((read["good"].as_array().unwrap().len(), &read["bad"]), (2, &json!([])), "{kind}: {read}");
        assert_eq!(other.get("/api/log").await.1["lines"], json!([]), "only looked at");
        read_in(&other, kind, &text, true).await;
        assert_eq!(file(&other, "json").await, json_file, "{kind}");
        // What its test taught is learned here too.
        assert_eq!(other.get("/api/learned").await.1["readings"].as_array().unwrap().len(), 1);
        // Taken twice it is there once.
        let again = read_in(&other, kind, &text, true).await;
        assert!(
            again["good"].as_array().unwrap().iter().all(|own| own["new"] == false && own["events"] == 0)
        );
        assert_eq!(file(&other, "json").await, json_file, "{kind}, twice");
        other.close().await;
    }
    kitchen.close().await;
}

#[tokio::test]
async fn a_notebook_is_read_row_by_row_and_no_row_is_guessed_at() {
    let kitchen = Kitchen::open(false).await;
    component(&kitchen, "Quay drip").await;
    component(&kitchen, "Twice").await;
    component(&kitchen, "Twice").await;
    let text = "\u{feff}made;formula;came;words\n\
        2025-11-02;Quay drip;good;\n\
        2025-11-03;quay DRIP;too stiff;\"stood; and stayed\"\n\
        03/11/2025;Quay drip;good;\n\
        2025-11-04;Lost drip;good;\n\
        2025-11-05;Twice;good;\n\
        2025-11-06;Quay drip;meh;\n\
        2150-01-01;Quay drip;good;\n\
        ;;;\n\
        2025-11-07;Quay drip;;only a word\n";
    let read = read_in(&kitchen, "csv", text, true).await;
    let bad: Vec<(u64, &str)> = read["bad"]
        .as_array()
        .unwrap()
        .iter()
        .map(|own| (own["line"].as_u64().unwrap(), own["faults"][0]["message"].as_str().unwrap()))
        .collect();
    let said = [
        (4, "2026-10-02"),
        (5, "no formula here"),
        (6, "several formulas"),
        (7, "not one of"),
        (8, "still to come"),
    ];
    assert_eq!(bad.len(), said.len(), "{bad:?}");
    for ((line, words), (at, part)) in bad.iter().zip(said) {
        assert!(*line == at && words.contains(part), "{line}: {words}");
    }
    assert_eq!(keys(&kitchen, "").await.len(), 3);
    assert_eq!(keys(&kitchen, "came=stiff&words=stayed").await.len(), 1);
    assert_eq!(keys(&kitchen, "words=only").await.len(), 1);
    read_in(&kitchen, "csv", text, true).await;
    assert_eq!(keys(&kitchen, "").await.len(), 3, "read again it is the same notebook");
    for (kind, text) in
        [("csv", "a;b\n1;2\n"), ("json", "{"), ("json", "[1]"), ("json", "{\"format\":\"x\",\"batches\":[]}")]
    {
        let (status, problem) =
            kitchen.post("/api/log/import", &json!({ "kind": kind, "text": text, "take": true })).await;
        assert_eq!(status, 422, "{text}: {problem}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn pictures_are_kept_with_their_batch_and_tell_no_place() {
    let kitchen = Kitchen::open(false).await;
    let batch = written_in(&kitchen, "Quay drip", "2026-01-03").await;
    let plain: &[u8] = &[0xFF, 0xD8, 0xFF, 0xE0, 0, 4, 1, 1, 0xFF, 0xDA, 0, 2, 9, 0xFF, 0xD9];
    let tells: &[u8] = &[0xFF, 0xD8, 0xFF, 0xE1, 0, 4, 1, 1, 0xFF, 0xDA, 0, 2, 9, 0xFF, 0xD9];
    let send = async |picture: &str, bytes: &[u8]| {
        let address =
            format!("{}/api/batches/{batch}/pictures?picture={picture}&words=crumb", kitchen.address);
        let ask = kitchen.http.post(address).header("content-type", "image/jpeg").body(bytes.to_vec());
        let answer = ask.send().await.unwrap();
        (answer.status().as_u16(), answer.json::<Value>().await.unwrap())
    };
    let (status, all) = send("picture-01", plain).await;
    assert_eq!((status, &all["pictures"][0]["bytes"]), (201, &json!(15)), "{all}");
    assert_eq!(all["most"], 25_000_000);
    assert_eq!(send("picture-01", plain).await.0, 201, "the answer was lost");
    let (status, problem) = send("picture-02", tells).await;
    assert!(status == 422 && problem["detail"].as_str().unwrap().contains("where or with what"), "{problem}");
    assert_eq!(send("picture-03", b"GIF89a").await.0, 422);
    assert_eq!(send("picture-04", &vec![0; 2_000_001]).await.0, 413);
    let address = format!("{}/api/batches/{batch}/pictures/picture-01", kitchen.address);
    assert_eq!(kitchen.http.get(&address).send().await.unwrap().bytes().await.unwrap(), plain);
    assert_eq!(kitchen.http.delete(&address).send().await.unwrap().status().as_u16(), 200);
    assert_eq!(kitchen.http.get(&address).send().await.unwrap().status().as_u16(), 404);
    kitchen.close().await;
}

/// A batch is written in with what is said of it, or not at all: a reading that cannot be leaves no batch behind of which nothing is
/// said. Sent again under the same id it is there once; a tablet whose clock is some minutes ahead writes it in as of now.
#[tokio::test]
async fn a_batch_is_written_in_with_what_is_said_of_it_or_not_at_all() {
    let kitchen = Kitchen::open(false).await;
    let batches = async || kitchen.get("/api/batches").await.1.as_array().unwrap().len();
    let ahead = jiff::Timestamp::now() + jiff::SignedDuration::from_mins(20);
    let written = |across: f64, made_at: &str| {
        let test = json!({ "kind": "plate_spread", "ml": 50.0, "across_mm": across });
        let event = json!({ "what": "tested", "test": test, "c": 30.0 });
        let events = json!([{ "id": "written-0001", "at": made_at, "event": event }]);
        json!({ "batch": { "formula": formula(), "made_at": made_at }, "events": events })
    };
    for (bad, field) in [
        (written(3.0, "2026-01-02T11:00:00Z"), "events.0.event.test.across_mm"),
        (written(150.0, "2126-01-02T11:00:00Z"), "made_at"),
        (json!({ "batch": { "formula": formula() }, "events": [] }), "batch.made_at"),
    ] {
        let (status, problem) = kitchen.post("/api/batches/written", &bad).await;
        assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!(field)), "{problem}");
        assert_eq!(batches().await, 0, "nothing is left behind");
    }
    let mut keys = Vec::new();
    for _ in 0..2 {
        let sent = kitchen
            .http
            .post(format!("{}/api/batches/written", kitchen.address))
            .header("Idempotency-Key", "written-in-01")
            .json(&written(150.0, "2026-01-02T11:00:00Z"));
        let answer: Value = sent.send().await.unwrap().json().await.unwrap();
        assert_eq!(answer["view"]["tests"].as_array().unwrap().len(), 1, "{answer}");
        keys.push(answer["kept"]["id"].clone());
    }
    assert_eq!((&keys[0], batches().await), (&keys[1], 1));
    assert_eq!(kitchen.get("/api/learned").await.1["readings"].as_array().unwrap().len(), 1);
    let mut now = written(151.0, &ahead.to_string());
    now["events"][0]["id"] = json!("written-0002");
    let (status, answer) = kitchen.post("/api/batches/written", &now).await;
    assert_eq!(status, 201, "{answer}");
    let made: jiff::Timestamp = answer["kept"]["document"]["made_at"].as_str().unwrap().parse().unwrap();
    assert!(made <= jiff::Timestamp::now());
    assert!(answer["clocks"][0].as_str().unwrap().contains("is ahead of the kitchen's"), "{answer}");
    // Nothing is being made of it.
    assert_eq!(kitchen.get("/api/batches?running=true").await.1, json!([]));
    // The id of an event that is there takes the new batch with it.
    let again = written(149.0, "2026-01-03T11:00:00Z");
    let (status, problem) = kitchen.post("/api/batches/written", &again).await;
    assert_eq!((status, &problem["code"]), (422, &json!("save_id_used")), "{problem}");
    assert_eq!(batches().await, 2);
    kitchen.close().await;
}
