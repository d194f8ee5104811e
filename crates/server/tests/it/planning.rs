//! Days over HTTP: the pastry room, orders planned, plans kept, bent and put into a calendar.

use crate::Kitchen;
use serde_json::{Value, json};

/// The demo's first three orders by key, with the morning of the day three days before the first leaves.
async fn week(kitchen: &Kitchen) -> (Vec<String>, String) {
    let (_, list) = kitchen.get("/api/orders").await;
    let all = list.as_array().unwrap();
    let keys = all[..3].iter().map(|order| order["id"].as_str().unwrap().to_owned()).collect();
    let first: jiff::civil::DateTime = all[0]["served_at"].as_str().unwrap().parse().unwrap();
    let from = first.date().saturating_sub(jiff::Span::new().days(2)).at(6, 0, 0, 0);
    (keys, from.to_string())
}

fn ask(keys: &[String], from: &str) -> Value {
    json!({ "orders": keys, "from": from, "zone": "Europe/Lisbon" })
}

async fn planned(kitchen: &Kitchen) -> Value {
    let (keys, from) = week(kitchen).await;
    let (status, reply) = kitchen.post("/api/plan", &ask(&keys, &from)).await;
    assert_eq!(status, 200, "{reply}");
    assert_eq!(reply["view"]["stands"], true, "{}", reply["because"]);
    reply
}

#[tokio::test]
async fn the_room_is_usual_until_it_is_set_and_has_its_versions() {
    let kitchen = Kitchen::open(false).await;
    let (_, now) = kitchen.get("/api/rooms").await;
    assert_eq!(now["kept"], Value::Null);
    let mut room = now["usual"].clone();
    room["name"] = json!("Quay room");
    let (status, made) = kitchen.post("/api/rooms", &room).await;
    assert_eq!((status, made["revision"].as_i64()), (201, Some(1)), "{made}");
    // There is one.
    assert_eq!(kitchen.post("/api/rooms", &room).await.0, 409);
    room["cooks"][0]["hours"] = json!([{ "on": [], "from": "06:00:00", "to": "12:00:00" }]);
    let (status, problem) =
        kitchen.put("/api/rooms/room", &json!({ "document": room, "based_on_revision": 1 })).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("document.cooks.0.hours")));
    room["cooks"][0]["hours"] = json!([]);
    room["equipment"]["hobs"] = json!(6);
    let saved = kitchen.put("/api/rooms/room", &json!({ "document": room, "based_on_revision": 1 })).await;
    assert_eq!(saved.1["revision"], 2);
    let versions = kitchen.get("/api/rooms/room/revisions").await.1;
    assert!(versions[0]["changed"][0].as_str().unwrap().contains('6'), "{versions}");
    kitchen.close().await;
}

#[tokio::test]
async fn a_week_is_planned_kept_reported_and_bent() {
    let kitchen = Kitchen::open(true).await;
    let reply = planned(&kitchen).await;
    let plan = &reply["plan"];
    // The same question has the same plan.
    let (keys, from) = week(&kitchen).await;
    assert_eq!(&kitchen.post("/api/plan", &ask(&keys, &from)).await.1["plan"], plan);
    let (status, kept) = kitchen.post("/api/plans", plan).await;
    assert_eq!((status, kept["revision"].as_i64()), (201, Some(1)), "{kept}");
    let (_, now) = kitchen.get("/api/plans").await;
    assert_eq!((&now["kept"]["document"], &now["view"]), (plan, &reply["view"]));
    // A step is begun, twice under the same id, once.
    let steps = now["view"]["steps"].as_array().unwrap();
    let first = steps.iter().min_by_key(|step| step["begins"].as_i64()).unwrap();
    let at = now["view"]["begins_at"].as_str().unwrap().parse::<jiff::Timestamp>().unwrap()
        + jiff::SignedDuration::from_mins(first["begins"].as_i64().unwrap());
    let report = json!({ "reports": [{ "id": "report-0001",
        "report": { "step": first["key"], "said": "begun", "at": at.to_string(), "cook": "Ines" } }] });
    assert_eq!(kitchen.post("/api/plans/day/reports", &report).await.0, 201);
    assert_eq!(kitchen.post("/api/plans/day/reports", &report).await.0, 201);
    let (_, reports) = kitchen.get("/api/plans/day/reports").await;
    assert_eq!(reports.as_array().unwrap().len(), 1);
    let mut strange = report.clone();
    strange["reports"][0]["report"]["step"] = json!("no such step");
    strange["reports"][0]["id"] = json!("report-0002");
    let (status, problem) = kitchen.post("/api/plans/day/reports", &strange).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("reports.0.report.step")));
    // It lasts twenty minutes longer: what was begun stays, and the answer says what moves.
    let wall = plan_wall(&reply, first["begins"].as_i64().unwrap() + 5);
    let late = json!({ "plan": plan, "now": wall, "happened": { "what": "late", "step": first["step"], "min": 20 },
        "reports": [report["reports"][0]["report"]] });
    let (status, bent) = kitchen.post("/api/plan/bend", &late).await;
    assert_eq!(status, 200, "{bent}");
    assert_ne!(bent["level"], "nothing", "{bent}");
    let step = first["step"].as_u64().unwrap() as usize;
    assert_eq!(bent["plan"]["start"][step], plan["start"][step]);
    let save = json!({ "document": bent["plan"], "based_on_revision": 1 });
    let (status, saved) = kitchen.put("/api/plans/day", &save).await;
    assert_eq!((status, saved["revision"].as_i64()), (200, Some(2)), "{saved}");
    kitchen.close().await;
}

/// What was done stays when the day is planned again, what must be done besides is told, and an order that was eaten is refused.
#[tokio::test]
async fn a_day_under_way_is_planned_again() {
    let kitchen = Kitchen::open(true).await;
    let reply = planned(&kitchen).await;
    kitchen.post("/api/plans", &reply["plan"]).await;
    // The second step of hands of something that goes on from the first.
    let steps = reply["view"]["steps"].as_array().unwrap();
    let links = reply["plan"]["problem"]["links"].as_array().unwrap();
    let step = |at: &Value| steps.iter().find(|step| step["step"] == *at);
    let (one, two) = links
        .iter()
        .find_map(|link| Some((step(&link["from"])?, step(&link["to"])?)))
        .expect("two steps that go on");
    let begins = two["begins"].as_i64().unwrap();
    let first: jiff::Timestamp = reply["view"]["begins_at"].as_str().unwrap().parse().unwrap();
    let at = (first + jiff::SignedDuration::from_mins(begins)).to_string();
    let report = json!({ "step": two["key"], "said": "begun", "at": at });
    let sent = json!({ "reports": [{ "id": "report-again-1", "report": report }] });
    assert_eq!(kitchen.post("/api/plans/day/reports", &sent).await.0, 201);
    let (_, now) = kitchen.get("/api/plans").await;
    assert!(now["supposed"].as_array().unwrap().contains(&one["key"]), "{}", now["supposed"]);
    let reports: Vec<Value> =
        now["reports"].as_array().unwrap().iter().map(|own| own["event"].clone()).collect();
    let (keys, _) = week(&kitchen).await;
    let wall = plan_wall(&reply, begins + 5);
    let mut again = ask(&keys, &wall);
    again["standing"] = json!({ "plan": reply["plan"], "reports": reports });
    let (status, next) = kitchen.post("/api/plan", &again).await;
    assert_eq!(status, 200, "{next}");
    assert_eq!(next["view"]["stands"], true, "{}", next["because"]);
    let starts = |reply: &Value, key: &Value| -> jiff::Timestamp {
        let first: jiff::Timestamp = reply["view"]["begins_at"].as_str().unwrap().parse().unwrap();
        let steps = reply["view"]["steps"].as_array().unwrap();
        let own = steps.iter().find(|step| step["key"] == *key).unwrap();
        first + jiff::SignedDuration::from_mins(own["begins"].as_i64().unwrap())
    };
    for key in [&one["key"], &two["key"]] {
        assert_eq!(starts(&next, key), starts(&reply, key), "{key}");
    }
    let done = [&one["key"], &two["key"]];
    let now = first + jiff::SignedDuration::from_mins(begins + 5);
    let rest = next["view"]["steps"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|own| !done.contains(&&own["key"]) && starts(&next, &own["key"]) < now);
    // Of what was not said only what comes before the two may be over.
    assert!(rest.count() < 6);
    // After all was eaten there is nothing to plan.
    let last = reply["view"]["horizon"].as_i64().unwrap();
    again["from"] = json!(plan_wall(&reply, last + 60));
    let (status, problem) = kitchen.post("/api/plan", &again).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("orders.0.served_at")));
    again["standing"]["plan"]["start"] = json!([]);
    let (_, problem) = kitchen.post("/api/plan", &again).await;
    assert_eq!(problem["errors"][0]["field"], "standing.plan.start");
    kitchen.close().await;
}

/// A minute of a plan on the wall.
fn plan_wall(reply: &Value, minute: i64) -> String {
    let begins: jiff::Timestamp = reply["view"]["begins_at"].as_str().unwrap().parse().unwrap();
    let zone = jiff::tz::TimeZone::get(reply["view"]["zone"].as_str().unwrap()).unwrap();
    zone.to_datetime(begins + jiff::SignedDuration::from_mins(minute)).to_string()
}

#[tokio::test]
async fn who_listens_is_told_on_the_way_and_the_last_is_the_answer() {
    let kitchen = Kitchen::open(true).await;
    let (keys, from) = week(&kitchen).await;
    let response = kitchen
        .http
        .post(format!("{}/api/plan", kitchen.address))
        .header("accept", "text/event-stream")
        .json(&ask(&keys, &from))
        .send()
        .await
        .unwrap();
    assert_eq!(response.headers()["content-type"], "text/event-stream");
    let text = response.text().await.unwrap();
    let events: Vec<(&str, Value)> = text
        .split("\n\n")
        .filter_map(|event| {
            let (name, data) = event.trim().split_once('\n')?;
            Some((name.strip_prefix("event: ")?, serde_json::from_str(data.strip_prefix("data: ")?).unwrap()))
        })
        .collect();
    let (last, told) = events.split_last().unwrap();
    assert_eq!(last.0, "done");
    assert!(told.iter().any(|(name, _)| *name == "progress") && told.iter().any(|(name, _)| *name == "plan"));
    for (_, better) in told.iter().filter(|(name, _)| *name == "plan") {
        assert_eq!(better["view"]["stands"], true);
    }
    assert_eq!(last.1["plan"], kitchen.post("/api/plan", &ask(&keys, &from)).await.1["plan"]);
    // What cannot be planned is refused on the way as it is at once.
    let bad = ask(&keys, "2036-01-01T08:00:00");
    let (status, problem) = kitchen.post("/api/plan", &bad).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("orders.0.served_at")));
    let refused = kitchen
        .http
        .post(format!("{}/api/plan", kitchen.address))
        .header("accept", "text/event-stream")
        .json(&bad)
        .send()
        .await
        .unwrap();
    assert!(refused.text().await.unwrap().contains("event: refused"));
    kitchen.close().await;
}

#[tokio::test]
async fn an_order_more_is_taken_or_not_and_says_why() {
    let kitchen = Kitchen::open(true).await;
    let plan = planned(&kitchen).await["plan"].clone();
    let (_, list) = kitchen.get("/api/orders").await;
    let (keys, from) = week(&kitchen).await;
    let fourth = list.as_array().unwrap().iter().map(|order| order["id"].as_str().unwrap());
    let fourth = fourth.into_iter().find(|key| !keys.iter().any(|own| own == key)).unwrap();
    let (status, taken) =
        kitchen.post("/api/plan/take", &json!({ "plan": plan, "now": from, "order": fourth })).await;
    assert_eq!(status, 200, "{taken}");
    assert!(taken["hands_min"].as_i64().unwrap() > 30, "{}", taken["sentence"]);
    assert_eq!(taken["yes"].as_bool().unwrap(), taken["latest"].is_string(), "{}", taken["sentence"]);
    // One that is in it already, one that is nowhere, and none.
    let again = kitchen.post("/api/plan/take", &json!({ "plan": plan, "now": from, "order": keys[0] })).await;
    assert_eq!((again.0, again.1["errors"][0]["field"].as_str()), (422, Some("order")));
    let none = kitchen.post("/api/plan/take", &json!({ "plan": plan, "now": from, "order": "none" })).await;
    assert_eq!(none.0, 404);
    assert_eq!(kitchen.post("/api/plan/take", &json!({ "plan": plan, "now": from })).await.0, 422);
    kitchen.close().await;
}

#[tokio::test]
async fn the_odds_of_a_plan_are_the_same_twice() {
    let kitchen = Kitchen::open(true).await;
    let plan = planned(&kitchen).await["plan"].clone();
    let (status, odds) = kitchen.post("/api/plan/odds", &json!({ "plan": plan })).await;
    assert_eq!(status, 200, "{odds}");
    assert_eq!(odds["orders"].as_array().unwrap().len(), 3);
    assert_eq!(odds, kitchen.post("/api/plan/odds", &json!({ "plan": plan })).await.1);
    let mut short = plan.clone();
    short["start"].as_array_mut().unwrap().pop();
    let (status, problem) = kitchen.post("/api/plan/odds", &json!({ "plan": short })).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("plan.start")));
    kitchen.close().await;
}

/// Read by another's parser (the crate `ical`, RFC 5545): every event has its id and times, an order that is out is cancelled.
#[tokio::test]
async fn the_calendar_is_one_for_another_program_and_cancels_what_is_gone() {
    let kitchen = Kitchen::open(true).await;
    let reply = planned(&kitchen).await;
    assert_eq!(kitchen.get("/api/plans/day/calendar").await.0, 404);
    kitchen.post("/api/plans", &reply["plan"]).await;
    let first = calendar(&kitchen).await;
    let hands =
        reply["view"]["steps"].as_array().unwrap().iter().filter(|step| step["hands"] == true).count();
    assert_eq!(first.len(), hands + 3);
    let mut ids: Vec<&String> = first.iter().map(|event| &event["UID"]).collect();
    ids.sort();
    ids.dedup();
    assert_eq!(ids.len(), first.len(), "every event has an id of its own");
    for event in &first {
        assert_eq!(event["STATUS"], "CONFIRMED");
        for field in ["DTSTART", "DTSTAMP"] {
            let stamp = &event[field];
            assert!(
                stamp.ends_with('Z') && jiff::civil::DateTime::strptime("%Y%m%dT%H%M%SZ", stamp).is_ok(),
                "{stamp}"
            );
        }
        assert_eq!(event["SEQUENCE"], "1");
    }
    // Two of the three orders: what was for the third is cancelled, what stays keeps its id.
    let (keys, from) = week(&kitchen).await;
    let (_, fewer) = kitchen.post("/api/plan", &ask(&keys[..2], &from)).await;
    kitchen.put("/api/plans/day", &json!({ "document": fewer["plan"], "based_on_revision": 1 })).await;
    let second = calendar(&kitchen).await;
    let gone = second.iter().filter(|event| event["STATUS"] == "CANCELLED").count();
    let third = reply["view"]["steps"].as_array().unwrap().iter().filter(|step| step["order"] == 2);
    assert_eq!(gone, third.filter(|step| step["hands"] == true).count() + 1);
    assert!(second.iter().all(|event| event["SEQUENCE"] == "2"));
    for event in &first {
        assert!(second.iter().any(|other| other["UID"] == event["UID"]));
    }
    kitchen.close().await;
}

/// Events of the calendar by their fields.
async fn calendar(kitchen: &Kitchen) -> Vec<std::collections::HashMap<String, String>> {
    let response =
        kitchen.http.get(format!("{}/api/plans/day/calendar", kitchen.address)).send().await.unwrap();
    assert_eq!(response.headers()["content-type"], "text/calendar; charset=utf-8");
    let text = response.text().await.unwrap();
    assert!(text.split("\r\n").all(|line| line.len() <= 75), "lines are folded (RFC 5545, 3.1)");
    let mut parser = ical::IcalParser::new(text.as_bytes());
    let read = parser.next().unwrap().unwrap();
    assert!(parser.next().is_none());
    let fields = |properties: &[ical::property::Property]| {
        properties.iter().map(|own| (own.name.clone(), own.value.clone().unwrap_or_default())).collect()
    };
    let head: std::collections::HashMap<String, String> = fields(&read.properties);
    assert_eq!((head["VERSION"].as_str(), head["METHOD"].as_str()), ("2.0", "PUBLISH"));
    for event in &read.events {
        for alarm in &event.alarms {
            let own: std::collections::HashMap<String, String> = fields(&alarm.properties);
            assert_eq!(own["ACTION"], "DISPLAY");
            assert!(own.contains_key("TRIGGER") && own.contains_key("DESCRIPTION"));
        }
    }
    read.events.iter().map(|event| fields(&event.properties)).collect()
}
