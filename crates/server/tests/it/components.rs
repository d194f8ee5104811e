//! Saving over HTTP: revisions, two editors, restarts.

use crate::{Kitchen, formula};
use serde_json::{Value, json};
use server::config::Serve;

#[tokio::test]
async fn a_saved_formula_is_there_after_a_restart_with_all_its_revisions() {
    let kitchen = Kitchen::open(false).await;
    let (status, made) = kitchen.post("/api/components", &formula()).await;
    assert_eq!((status, made["revision"].as_i64()), (201, Some(1)));
    let id = made["id"].as_str().unwrap().to_owned();
    let mut changed = formula();
    changed["lines"][0]["amount"] = json!("1½ cups");
    let body = json!({ "document": changed, "based_on_revision": 1 });
    let (status, saved) = kitchen.put(&format!("/api/components/{id}"), &body).await;
    assert_eq!((status, saved["revision"].as_i64()), (200, Some(2)), "{saved}");
    let dir = kitchen.close().await;

    let options = Serve::here(Some(dir.path().join("kitchen.db")));
    let again = server::serve::start(&options).await.unwrap();
    let read = async |path: String| -> Value {
        reqwest::get(format!("http://{}{path}", again.address)).await.unwrap().json().await.unwrap()
    };
    let now = read(format!("/api/components/{id}")).await;
    assert_eq!(now["document"]["lines"][0]["amount"], "1½ cups");
    let first = read(format!("/api/components/{id}/revisions/1")).await;
    assert_eq!(first["document"]["lines"][0]["amount"], "100 g");
    assert_eq!(first["newest_revision"], 2);
    assert_eq!(read(format!("/api/components/{id}/revisions")).await.as_array().unwrap().len(), 2);
    again.stop().await;
}

#[tokio::test]
async fn the_second_editor_is_told_and_nothing_is_merged_blindly() {
    let kitchen = Kitchen::open(false).await;
    let (_, made) = kitchen.post("/api/components", &formula()).await;
    let path = format!("/api/components/{}", made["id"].as_str().unwrap());
    let save = |name: &str| {
        let mut document = formula();
        document["name"] = json!(name);
        json!({ "document": document, "based_on_revision": 1 })
    };
    assert_eq!(kitchen.put(&path, &save("theirs")).await.0, 200);
    let (status, problem) = kitchen.put(&path, &save("mine")).await;
    assert_eq!(status, 409);
    assert_eq!(
        (problem["code"].as_str(), problem["current_revision"].as_i64()),
        (Some("saved_in_between"), Some(2))
    );
    assert_eq!(kitchen.get(&path).await.1["document"]["name"], "theirs");
    kitchen.close().await;
}

#[tokio::test]
async fn what_cannot_be_judged_or_has_no_name_is_not_saved() {
    let kitchen = Kitchen::open(false).await;
    let mut nameless = formula();
    nameless["name"] = json!("  ");
    let (status, problem) = kitchen.post("/api/components", &nameless).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("name")));
    let mut bad = formula();
    bad["lines"][1]["amount"] = json!("some");
    let (status, problem) = kitchen.post("/api/components", &bad).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("lines.1.amount")));
    assert_eq!(kitchen.get("/api/components").await.1, json!([]));
    kitchen.close().await;
}

#[tokio::test]
async fn the_room_is_saved_once_and_a_late_save_is_told() {
    let kitchen = Kitchen::open(false).await;
    let (_, mut now) = kitchen.get("/api/kitchen").await;
    now["room_temperature_c"] = json!(27.5);
    assert_eq!(kitchen.put("/api/kitchen", &now).await.1["room_temperature_c"], 27.5);
    assert_eq!(kitchen.put("/api/kitchen", &now).await.0, 409);
    kitchen.close().await;
}

#[tokio::test]
async fn the_demo_never_touches_a_real_file() {
    let kitchen = Kitchen::open(true).await;
    let (_, health) = kitchen.get("/api/health").await;
    assert_eq!((health["status"].as_str(), health["demo"].as_bool()), (Some("ok"), Some(true)));
    assert_eq!(kitchen.post("/api/components", &formula()).await.0, 201);
    let dir = kitchen.close().await;
    assert_eq!(std::fs::read_dir(dir.path()).unwrap().count(), 0, "the demo wrote beside itself");
}
