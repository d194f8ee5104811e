//! Saving over HTTP: the answer is one's own, and the same save again is the same save.

use crate::{Kitchen, formula};
use reqwest::Method;
use serde_json::{Value, json};

async fn send(kitchen: &Kitchen, method: Method, path: &str, id: &str, body: &Value) -> (u16, Value) {
    let request = kitchen.http.request(method, format!("{}{path}", kitchen.address));
    let response = request.header("idempotency-key", id).json(body).send().await.unwrap();
    (response.status().as_u16(), response.json().await.unwrap())
}

fn order() -> Value {
    json!({ "format": "bright-spoon/order", "version": 1, "name": "Quay", "room_temperature_c": 21.0, "cakes": [] })
}

fn ingredient(name: &str) -> Value {
    json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-beet", "name": name, "group": "other",
        "composition_percent": { "sucrose": 60, "fibre": 38, "water": 2 }
    })
}

#[tokio::test]
async fn a_save_whose_answer_was_lost_is_asked_again_and_makes_nothing_twice() {
    let kitchen = Kitchen::open(false).await;
    for (path, body) in
        [("/api/components", formula()), ("/api/orders", order()), ("/api/ingredients", ingredient("Beet"))]
    {
        let id = format!("first{}", path.replace('/', "-"));
        let (status, made) = send(&kitchen, Method::POST, path, &id, &body).await;
        assert_eq!(status, 201, "{path}: {made}");
        assert_eq!(send(&kitchen, Method::POST, path, &id, &body).await, (201, made.clone()), "{path}");
        let key = made["id"].as_str().unwrap_or("own-beet");
        let own = format!("{path}/{key}");
        let mut changed = body.clone();
        changed["name"] = json!("Changed");
        let save = json!({ "document": changed, "based_on_revision": 1 });
        let id = format!("second{}", path.replace('/', "-"));
        let (status, saved) = send(&kitchen, Method::PUT, &own, &id, &save).await;
        assert_eq!((status, saved["revision"].as_i64()), (200, Some(2)), "{path}: {saved}");
        // Nobody is accused of having saved in between.
        assert_eq!(send(&kitchen, Method::PUT, &own, &id, &save).await, (200, saved), "{path}");
        // The id of one save cannot be that of another.
        changed["name"] = json!("Other");
        let save = json!({ "document": changed, "based_on_revision": 2 });
        let (status, problem) = send(&kitchen, Method::PUT, &own, &id, &save).await;
        assert_eq!((status, problem["code"].as_str()), (422, Some("save_id_used")), "{path}");
    }
    assert_eq!(kitchen.get("/api/components").await.1.as_array().unwrap().len(), 1);
    assert_eq!(kitchen.get("/api/orders").await.1.as_array().unwrap().len(), 1);
    kitchen.close().await;
}

#[tokio::test]
async fn the_kitchen_and_its_values_are_saved_once_too() {
    let kitchen = Kitchen::open(false).await;
    let (_, mut now) = kitchen.get("/api/kitchen").await;
    now["room_temperature_c"] = json!(25.0);
    let (status, saved) = send(&kitchen, Method::PUT, "/api/kitchen", "room-warmer", &now).await;
    assert_eq!(status, 200);
    assert_eq!(send(&kitchen, Method::PUT, "/api/kitchen", "room-warmer", &now).await, (200, saved));
    let values = json!({ "density_g_per_ml": 1.01, "piece_g": null, "revision": 0 });
    let path = "/api/ingredients/cream36/kitchen";
    let (status, saved) = send(&kitchen, Method::PUT, path, "cream-heavier", &values).await;
    assert_eq!((status, saved["entry"]["kitchen"]["revision"].as_i64()), (200, Some(1)));
    assert_eq!(send(&kitchen, Method::PUT, path, "cream-heavier", &values).await, (200, saved));
    kitchen.close().await;
}

#[tokio::test]
async fn what_is_no_save_id_is_refused_in_words() {
    let kitchen = Kitchen::open(false).await;
    for bad in ["short", "with space in it", &"x".repeat(65)] {
        let (status, problem) = send(&kitchen, Method::POST, "/api/components", bad, &formula()).await;
        assert_eq!(status, 422, "{bad}");
        assert_eq!(problem["errors"][0]["field"], "Idempotency-Key");
    }
    assert_eq!(kitchen.get("/api/components").await.1, json!([]));
    kitchen.close().await;
}

/// What a conflict speaks of is what was saved: an order is no component.
#[tokio::test]
async fn a_conflict_names_what_it_is_about() {
    let kitchen = Kitchen::open(false).await;
    for (path, body, noun) in [
        ("/api/components", formula(), "formula"),
        ("/api/orders", order(), "order"),
        ("/api/ingredients", ingredient("Beet"), "ingredient"),
    ] {
        let (_, made) = kitchen.post(path, &body).await;
        let own = format!("{path}/{}", made["id"].as_str().unwrap_or("own-beet"));
        let save = json!({ "document": body, "based_on_revision": 1 });
        assert_eq!(kitchen.put(&own, &save).await.0, 200);
        let (status, problem) = kitchen.put(&own, &save).await;
        let words = problem["detail"].as_str().unwrap();
        assert_eq!(status, 409);
        assert!(words.contains(&format!("as a new {noun}")) && !words.contains("component"), "{words}");
    }
    kitchen.close().await;
}

/// Eight cooks on one own ingredient over HTTP: every answer is the answerer's own.
#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn eight_writers_over_http_each_get_their_own_answer() {
    let kitchen = Kitchen::open(false).await;
    assert_eq!(kitchen.post("/api/ingredients", &ingredient("start")).await.0, 201);
    let writers: Vec<_> = (0..8)
        .map(|writer| {
            let (http, url) = (kitchen.http.clone(), format!("{}/api/ingredients/own-beet", kitchen.address));
            tokio::spawn(async move {
                let (mut based_on, mut won) = (1, 0);
                for round in 0..8 {
                    let name = format!("writer {writer} round {round}");
                    let body = json!({ "document": ingredient(&name), "based_on_revision": based_on });
                    let response = http.put(&url).json(&body).send().await.unwrap();
                    let status = response.status().as_u16();
                    let answer: Value = response.json().await.unwrap();
                    if status == 200 {
                        assert_eq!(answer["document"]["name"], name, "somebody else's answer");
                        assert_eq!(answer["revision"], based_on + 1);
                        (based_on, won) = (based_on + 1, won + 1);
                    } else {
                        assert_eq!(status, 409, "{answer}");
                        based_on = answer["current_revision"].as_i64().unwrap();
                    }
                }
                won
            })
        })
        .collect();
    let mut won = 0;
    for writer in writers {
        won += writer.await.unwrap();
    }
    assert_eq!(kitchen.get("/api/ingredients/own-beet").await.1["revision"], 1 + won);
    kitchen.close().await;
}
