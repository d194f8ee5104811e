//! Versions of every noun: what changed in each, from which device; and the audit of all of it.

use crate::{Kitchen, formula};
use reqwest::Method;
use serde_json::{Value, json};

async fn send(kitchen: &Kitchen, device: &str, method: Method, path: &str, body: &Value) -> (u16, Value) {
    let request = kitchen.http.request(method, format!("{}{path}", kitchen.address));
    let response = request.header("kitchen-device", device).json(body).send().await.unwrap();
    (response.status().as_u16(), response.json().await.unwrap())
}

#[tokio::test]
async fn every_noun_tells_what_changed_in_each_version_and_where_it_was_saved() {
    let kitchen = Kitchen::open(false).await;
    let mut richer = formula();
    richer["lines"][0]["amount"] = json!("120 g");
    let order = json!({
        "format": "bright-spoon/order", "version": 1, "name": "Quay", "room_temperature_c": 21.0, "cakes": []
    });
    let mut later = order.clone();
    later["served_at"] = json!("2026-12-05T15:00:00");
    let ingredient = json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-beet", "name": "Beet", "group": "other",
        "composition_percent": { "sucrose": 60, "fibre": 38, "water": 2 }
    });
    let mut wetter = ingredient.clone();
    wetter["composition_percent"] = json!({ "sucrose": 60, "fibre": 37, "water": 3 });
    let dark = pastry::ingredient::find("dark55").unwrap().name.clone();
    for (path, first, second, told) in [
        ("/api/components", formula(), richer, vec![format!("{dark} 100 g, now 120 g")]),
        ("/api/orders", order, later, vec!["served at 2026-12-05T15:00:00".to_owned()]),
        (
            "/api/ingredients",
            ingredient,
            wetter,
            vec![
                "composition, fibre 38 %, now 37 %".to_owned(),
                "composition, water 2 %, now 3 %".to_owned(),
            ],
        ),
    ] {
        let (status, made) = send(&kitchen, "Ofen-Ger%C3%A4t", Method::POST, path, &first).await;
        assert_eq!((status, &made["saved_by"]), (201, &json!("Ofen-Gerät")), "{path}: {made}");
        let own = format!("{path}/{}", made["id"].as_str().unwrap());
        let save = json!({ "document": second, "based_on_revision": 1 });
        let (status, saved) = kitchen.put(&own, &save).await;
        assert_eq!((status, &saved["saved_by"]), (200, &Value::Null), "{path}: {saved}");
        let (_, versions) = kitchen.get(&format!("{own}/revisions")).await;
        let numbers: Vec<_> =
            versions.as_array().unwrap().iter().map(|own| own["revision"].as_i64()).collect();
        assert_eq!(numbers, [Some(2), Some(1)], "{path}");
        assert_eq!(versions[0]["changed"], json!(told), "{path}");
        assert_eq!(
            (&versions[1]["changed"], &versions[1]["saved_by"]),
            (&json!([]), &json!("Ofen-Gerät")),
            "{path}"
        );
        let (_, old) = kitchen.get(&format!("{own}/revisions/1")).await;
        assert_eq!((&old["revision"], &old["newest_revision"]), (&json!(1), &json!(2)), "{path}");
        assert_eq!(old["document"]["name"], first["name"], "{path}");
        assert_eq!(kitchen.get(&format!("{own}/revisions/7")).await.0, 404, "{path}");
        assert_eq!(kitchen.get(&format!("{own}/revisions/first")).await.0, 404, "{path}");
        assert_eq!(kitchen.get(&format!("{path}/none/revisions")).await.0, 404, "{path}");
    }
    let (_, audit) = kitchen.get("/api/audit").await;
    let words: Vec<_> =
        audit.as_array().unwrap().iter().map(|line| line["words"].as_str().unwrap()).collect();
    assert_eq!(
        words,
        [
            "version 2 of the ingredient Beet",
            "a new ingredient: Beet",
            "version 2 of the order Quay",
            "a new order: Quay",
            "version 2 of the formula Test drip",
            "a new formula: Test drip",
        ]
    );
    let (status, refused) = kitchen.get("/api/audit?most=900").await;
    assert_eq!((status, refused["errors"][0]["code"].as_str()), (422, Some("out_of_range")));
    assert_eq!(kitchen.get("/api/audit?most=1").await.1.as_array().unwrap().len(), 1);
    kitchen.close().await;
}

#[tokio::test]
async fn a_device_with_no_name_to_read_is_refused_and_saves_nothing() {
    let kitchen = Kitchen::open(false).await;
    for bad in ["%20%20", "bell%07", "%FF%FE", &"x".repeat(61)] {
        let (status, problem) = send(&kitchen, bad, Method::POST, "/api/components", &formula()).await;
        assert_eq!(
            (status, problem["errors"][0]["code"].as_str()),
            (422, Some("bad_device")),
            "{bad}: {problem}"
        );
    }
    assert_eq!(kitchen.get("/api/components").await.1, json!([]));
    kitchen.close().await;
}

#[tokio::test]
async fn an_ingredient_of_the_catalogue_is_not_saved_over_and_has_no_versions() {
    let kitchen = Kitchen::open(false).await;
    let ingredient = json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-x", "name": "Mine", "group": "dairy",
        "composition_percent": { "water": 100 }
    });
    let save = json!({ "document": ingredient, "based_on_revision": 1 });
    let (status, problem) = kitchen.put("/api/ingredients/cream36", &save).await;
    assert_eq!((status, problem["errors"][0]["code"].as_str()), (422, Some("not_own")), "{problem}");
    assert_eq!(kitchen.get("/api/ingredients/cream36/revisions").await.0, 404);
    kitchen.close().await;
}
