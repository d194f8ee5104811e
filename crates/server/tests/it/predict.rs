//! What a formula will do, asked over HTTP.

use crate::{Kitchen, document, formula};
use serde_json::{Value, json};

#[tokio::test]
async fn the_answer_is_the_cores_own() {
    let kitchen = Kitchen::open(false).await;
    let url = format!("{}/api/predict", kitchen.address);
    let text = kitchen.http.post(url).json(&formula()).send().await.unwrap().text().await.unwrap();
    let core = serde_json::to_string(&pastry::assess::assess(&document()).unwrap()).unwrap();
    assert!(text == core, "the interface and the core differ");
    let answer: Value = serde_json::from_str(&text).unwrap();
    // Trade check D08 of the model: 1:1 dark 55 fresh at 30 °C drips 58 mm.
    assert!((answer["at"]["measured"]["value"].as_f64().unwrap() - 58.5).abs() < 0.3);
    kitchen.close().await;
}

#[tokio::test]
async fn compare_names_the_differences_and_the_field_of_a_bad_formula() {
    let kitchen = Kitchen::open(false).await;
    let mut richer = formula();
    richer["name"] = "Richer".into();
    richer["lines"][0]["amount"] = "150 g".into();
    let (status, answer) =
        kitchen.post("/api/compare", &json!({ "documents": [formula(), richer.clone()] })).await;
    assert_eq!(status, 200, "{answer}");
    assert!(answer["sentence"].as_str().unwrap().starts_with("Richer is "), "{}", answer["sentence"]);
    assert_eq!(answer["lines"][0]["differs"], true);
    assert_eq!(answer["lines"][0]["texts"], json!(["50.0 %", "60.0 %"]));
    let (status, problem) = kitchen.post("/api/compare", &json!({ "documents": [formula()] })).await;
    assert_eq!((status, problem["errors"][0]["code"].as_str()), (422, Some("how_many")));
    richer["lines"][1]["amount"] = "some".into();
    let (_, problem) = kitchen.post("/api/compare", &json!({ "documents": [formula(), richer] })).await;
    assert_eq!(problem["errors"][0]["field"], "documents.1.lines.1.amount");
    kitchen.close().await;
}

#[tokio::test]
async fn convert_weighs_and_writes_back() {
    let kitchen = Kitchen::open(false).await;
    let (status, cream) = kitchen.get("/api/convert?amount=1%20cup&ingredient=cream36").await;
    // USDA SR24: 238 g a cup.
    assert_eq!((status, cream["mass_g"].as_f64()), (200, Some(238.0)));
    assert_eq!(cream["in_spoons"], "1 cup");
    let (_, gelatin) = kitchen.get("/api/convert?amount=6%20g&ingredient=gelatin200").await;
    assert_eq!(gelatin["in_pieces"], "3 leaves (gold)");
    let (status, problem) = kitchen.get("/api/convert?amount=a%20lot&ingredient=cream36").await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("amount")));
    assert_eq!(kitchen.get("/api/convert?amount=1%20g&ingredient=moon").await.0, 404);
    let (status, problem) = kitchen.get("/api/convert?amount=1%20g").await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("query")));
    kitchen.close().await;
}
