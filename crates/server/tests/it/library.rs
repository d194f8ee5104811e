//! Tags and what is put away, and a large kitchen listed whole. How quick that is, the benchmark says.

use crate::{Kitchen, document, formula};
use jiff::Timestamp;
use serde_json::json;
use server::config::Serve;
use store::{By, Store};
use uuid::Uuid;

#[tokio::test]
async fn a_formula_is_tagged_and_put_away_without_a_revision() {
    let kitchen = Kitchen::open(false).await;
    let (_, made) = kitchen.post("/api/components", &formula()).await;
    let path = format!("/api/components/{}/place", made["id"].as_str().unwrap());
    let place = json!({ "tags": ["tier cake", " Thursday  order "], "archived": true });
    assert_eq!(kitchen.put(&path, &place).await.0, 204);
    let (_, list) = kitchen.get("/api/components").await;
    assert_eq!(list[0]["tags"], json!(["Thursday order", "tier cake"]));
    assert_eq!((list[0]["archived"].as_bool(), list[0]["revision"].as_i64()), (Some(true), Some(1)));
    let (status, problem) = kitchen.put(&path, &json!({ "tags": ["x".repeat(41)], "archived": false })).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("tags.0")));
    assert_eq!(kitchen.put("/api/components/none/place", &place).await.0, 404);
    kitchen.close().await;
}

#[tokio::test]
async fn two_hundred_own_ingredients_and_five_hundred_formulas_are_all_listed() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    let store = Store::open(&file).await.unwrap();
    let cream = pastry::ingredient::find("cream36").unwrap();
    let own: Vec<_> = (0..200)
        .map(|k| {
            let (key, name) = (format!("own-cream-{k}"), format!("Cream number {k}"));
            (key.clone(), pastry::ingredient::IngredientDocument::copy_of(cream, key, name), 0)
        })
        .collect();
    store.save_all(&own, &By::at(Timestamp::UNIX_EPOCH)).await.unwrap();
    for k in 0..500 {
        let mut document = document();
        document.name = format!("Drip {k}");
        document.lines[1].ingredient = format!("own-cream-{}", k % 200);
        let by = By::at(Timestamp::UNIX_EPOCH);
        store.create(&Uuid::now_v7().to_string(), &document, &by).await.unwrap();
    }
    store.close().await;
    let running = server::serve::start(&Serve::here(Some(file))).await.unwrap();
    let client = reqwest::Client::new();
    for (path, many) in
        [("/api/components", 500), ("/api/ingredients?search=cream", 200), ("/api/ingredients", 330)]
    {
        let url = format!("http://{}{path}", running.address);
        let list: serde_json::Value = client.get(&url).send().await.unwrap().json().await.unwrap();
        assert!(list.as_array().unwrap().len() >= many, "{path}: {}", list.as_array().unwrap().len());
    }
    running.stop().await;
}
