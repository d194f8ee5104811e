//! What a formula will do, asked over HTTP.

use crate::{Kitchen, document, formula};
use serde_json::Value;

#[tokio::test]
async fn the_answer_is_the_cores_own() {
    let kitchen = Kitchen::open(false).await;
    let url = format!("{}/api/predict", kitchen.address);
    let text = kitchen.http.post(url).json(&formula()).send().await.unwrap().text().await.unwrap();
    let core = serde_json::to_string(&pastry::job::assess(&document()).unwrap()).unwrap();
    assert!(text == core, "the interface and the core differ");
    let answer: Value = serde_json::from_str(&text).unwrap();
    // Trade check D08 of the model: 1:1 dark 55 fresh at 30 °C drips 58 mm.
    assert!((answer["at"]["measured"]["value"].as_f64().unwrap() - 58.4).abs() < 0.2);
    kitchen.close().await;
}

#[tokio::test]
async fn every_demo_formula_can_be_judged_and_they_cover_jobs_and_chocolates() {
    let kitchen = Kitchen::open(true).await;
    let (_, list) = kitchen.get("/api/components").await;
    let list = list.as_array().unwrap().clone();
    assert!(list.len() >= 6);
    let (mut jobs, mut chocolates) = (std::collections::BTreeSet::new(), std::collections::BTreeSet::new());
    for each in &list {
        let (_, component) = kitchen.get(&format!("/api/components/{}", each["id"].as_str().unwrap())).await;
        let (status, answer) = kitchen.post("/api/predict", &component["document"]).await;
        assert_eq!(status, 200, "{answer}");
        jobs.insert(each["job"].as_str().unwrap().to_owned());
        for line in component["document"]["lines"].as_array().unwrap() {
            chocolates.insert(line["ingredient"].as_str().unwrap().chars().take(4).collect::<String>());
        }
    }
    assert_eq!(jobs.into_iter().collect::<Vec<_>>(), ["coat", "drip", "fill", "mask"]);
    for kind in ["dark", "milk", "whit"] {
        assert!(chocolates.contains(kind), "no {kind} chocolate in the demo");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn the_pantry_knows_what_a_cup_weighs_and_remembers_the_kitchens_own() {
    let kitchen = Kitchen::open(false).await;
    let (status, pantry) = kitchen.get("/api/pantry").await;
    assert_eq!(status, 200);
    let find = |pantry: &Value, key: &str| {
        pantry.as_array().unwrap().iter().find(|e| e["ingredient"] == key).cloned().unwrap()
    };
    let cream = find(&pantry, "cream36");
    // USDA SR24: 238 g a cup.
    assert!((cream["table_density_g_per_ml"].as_f64().unwrap() - 238.0 / 236.5882365).abs() < 1e-9);
    assert!(cream["also"].as_array().unwrap().iter().any(|name| name == "heavy cream"));
    let own = serde_json::json!({ "density_g_per_ml": 0.98, "piece_g": null, "revision": 0 });
    let (status, saved) = kitchen.put("/api/pantry/cream48", &own).await;
    assert_eq!((status, saved["own"]["revision"].as_i64()), (200, Some(1)));
    let (status, problem) = kitchen.put("/api/pantry/cream48", &own).await;
    assert_eq!((status, problem["code"].as_str()), (409, Some("saved_in_between")));
    let (_, pantry) = kitchen.get("/api/pantry").await;
    assert_eq!(find(&pantry, "cream48")["own"]["density_g_per_ml"], 0.98);
    kitchen.close().await;
}

#[tokio::test]
async fn jobs_come_with_geometry_that_is_accepted_as_it_is() {
    let kitchen = Kitchen::open(false).await;
    let (_, jobs) = kitchen.get("/api/jobs").await;
    for job in jobs.as_array().unwrap() {
        let mut body = formula();
        body["work"]["job"] = job["job"].clone();
        let (status, answer) = kitchen.post("/api/predict", &body).await;
        assert_eq!(status, 200, "{answer}");
        assert_eq!(answer["job"], job["job"]);
        assert_eq!(answer["measured"], job["measured"]);
        assert_eq!(answer["history"], job["histories"][0]["history"]);
    }
    kitchen.close().await;
}
