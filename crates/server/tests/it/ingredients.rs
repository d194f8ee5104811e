//! The pantry over HTTP: the catalogue, own ingredients, labels, files.

use crate::{Kitchen, formula};
use serde_json::{Value, json};

fn own(key: &str, name: &str) -> Value {
    json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": key, "name": name, "group": "dairy",
        "composition_percent": { "water": 58, "milk_fat": 37, "lactose": 3, "milk_protein": 2 },
        "fat_in_globules": true, "allergens": ["milk"], "origins": ["milk"]
    })
}

#[tokio::test]
async fn the_catalogue_says_what_a_cup_weighs_and_remembers_the_kitchens_own() {
    let kitchen = Kitchen::open(false).await;
    let (status, cream) = kitchen.get("/api/ingredients/cream36").await;
    assert_eq!(status, 200);
    // USDA SR24: 238 g a cup.
    let density = cream["entry"]["table_density_g_per_ml"].as_f64().unwrap();
    assert!((density - 238.0 / 236.5882365).abs() < 1e-9);
    assert_eq!(cream["diet"]["vegetarian"], true);
    assert!(cream["solid_fat_percent"].as_array().unwrap().len() == 46);
    let said = json!({ "density_g_per_ml": 0.98, "piece_g": null, "revision": 0,
        "pack": { "pack_g": 2000, "pack_price": 9.0 } });
    let (status, saved) = kitchen.put("/api/ingredients/cream36/kitchen", &said).await;
    assert_eq!((status, saved["entry"]["price_per_kg"].as_f64()), (200, Some(4.5)), "{saved}");
    let (status, problem) = kitchen.put("/api/ingredients/cream36/kitchen", &said).await;
    assert_eq!((status, problem["code"].as_str()), (409, Some("saved_in_between")));
    let (_, heavy) = kitchen.get("/api/convert?amount=1%20l&ingredient=cream36").await;
    assert_eq!(heavy["mass_g"], 980.0);
    let bad = json!({ "density_g_per_ml": null, "piece_g": null, "revision": 1,
        "pack": { "pack_g": 0, "pack_price": 9.0 } });
    assert_eq!(kitchen.put("/api/ingredients/cream36/kitchen", &bad).await.0, 422);
    kitchen.close().await;
}

#[tokio::test]
async fn search_forgives_and_put_away_things_are_not_offered() {
    let kitchen = Kitchen::open(false).await;
    let found = async |query: &str| -> Vec<String> {
        let (status, list) = kitchen.get(&format!("/api/ingredients?{query}")).await;
        assert_eq!(status, 200, "{list}");
        list.as_array().unwrap().iter().map(|e| e["ingredient"].as_str().unwrap().to_owned()).collect()
    };
    assert_eq!(found("search=duoble%20cream").await[0], "cream48");
    assert_eq!(found("search=mascapone").await, ["mascarpone"]);
    assert!(found("group=gel").await.contains(&"agar".to_owned()));
    let away = json!({ "density_g_per_ml": null, "piece_g": null, "archived": true, "revision": 0 });
    assert_eq!(kitchen.put("/api/ingredients/mascarpone/kitchen", &away).await.0, 200);
    assert!(found("search=mascarpone").await.is_empty());
    assert_eq!(found("search=mascarpone&archived=true").await, ["mascarpone"]);
    let (status, problem) = kitchen.get("/api/ingredients?archived=perhaps").await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("query")));
    kitchen.close().await;
}

#[tokio::test]
async fn an_own_ingredient_is_kept_weighed_judged_and_says_where_it_is_used() {
    let kitchen = Kitchen::open(false).await;
    let (status, made) = kitchen.post("/api/ingredients", &own("own-meadow", "Meadow cream")).await;
    assert_eq!((status, made["revision"].as_i64()), (201, Some(1)), "{made}");
    assert_eq!(kitchen.post("/api/ingredients", &own("own-meadow", "Meadow cream")).await.0, 409);
    let mut drip = formula();
    drip["lines"][1]["ingredient"] = json!("own-meadow");
    let (status, first) = kitchen.post("/api/predict", &drip).await;
    assert_eq!((status, first["lines"][1]["name"].as_str()), (200, Some("Meadow cream")));
    let (status, component) = kitchen.post("/api/components", &drip).await;
    assert_eq!(status, 201);
    let (_, read) = kitchen.get("/api/ingredients/own-meadow").await;
    assert_eq!(read["used_in"][0]["name"], "Test drip");
    // Changing it moves the curve of what uses it.
    let mut leaner = own("own-meadow", "Meadow cream");
    leaner["composition_percent"] = json!({ "water": 75, "milk_fat": 20, "lactose": 3, "milk_protein": 2 });
    let body = json!({ "document": leaner, "based_on_revision": 1 });
    assert_eq!(kitchen.put("/api/ingredients/own-meadow", &body).await.0, 200);
    assert_eq!(kitchen.put("/api/ingredients/own-meadow", &body).await.0, 409);
    let (_, then) = kitchen.post("/api/predict", &drip).await;
    let tau = |answer: &Value| answer["at"]["yield_stress_pa"]["value"].as_f64().unwrap();
    assert!(tau(&then) < 0.8 * tau(&first), "{} Pa became {}", tau(&first), tau(&then));
    // A file of the formula carries it to another kitchen.
    let id = component["id"].as_str().unwrap();
    let (_, file) = kitchen.get(&format!("/api/components/{id}/export")).await;
    assert_eq!(file["ingredients"][0]["key"], "own-meadow");
    let elsewhere = Kitchen::open(false).await;
    let (status, there) = elsewhere.post("/api/predict", &file).await;
    assert_eq!((status, tau(&there)), (200, tau(&then)));
    elsewhere.close().await;
    kitchen.close().await;
}

#[tokio::test]
async fn bad_ingredients_are_refused_field_by_field() {
    let kitchen = Kitchen::open(false).await;
    let mut bad = own("meadow", "");
    bad["composition_percent"]["water"] = json!(90);
    bad["allergens"] = json!(["dust"]);
    let (status, problem) = kitchen.post("/api/ingredients", &bad).await;
    let fields: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().map(|e| e["field"].as_str().unwrap()).collect();
    assert_eq!((status, fields), (422, vec!["key", "name", "composition_percent", "allergens.0"]));
    let body = json!({ "document": own("own-x", "X"), "based_on_revision": 0 });
    let (status, problem) = kitchen.put("/api/ingredients/cream36", &body).await;
    assert_eq!((status, problem["errors"][0]["code"].as_str()), (422, Some("not_own")));
    assert_eq!(kitchen.put("/api/ingredients/own-none", &body).await.0, 404);
    let label = json!({ "kind": "dairy", "fat_g": 36, "carbohydrate_g": 3, "sugars_g": 9, "protein_g": 2 });
    let (status, problem) = kitchen.post("/api/ingredients/infer", &label).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("sugars_g")));
    kitchen.close().await;
}

#[tokio::test]
async fn a_label_becomes_a_whole_composition_with_reasons() {
    let kitchen = Kitchen::open(false).await;
    let label = json!({ "kind": "dark_chocolate", "fat_g": 41, "carbohydrate_g": 34, "sugars_g": 29,
        "protein_g": 8, "cocoa_percent": 70 });
    let (status, inferred) = kitchen.post("/api/ingredients/infer", &label).await;
    assert_eq!((status, inferred["composition_percent"]["cocoa"].as_f64()), (200, Some(29.0)), "{inferred}");
    let sum: f64 =
        inferred["composition_percent"].as_object().unwrap().values().map(|v| v.as_f64().unwrap()).sum();
    assert!((sum - 100.0).abs() < 1e-9);
    assert!(inferred["inferences"].as_array().unwrap().iter().all(|each| each["why"] != ""));
    kitchen.close().await;
}

#[tokio::test]
async fn pantry_files_are_read_first_then_taken_and_come_back_the_same() {
    let kitchen = Kitchen::open(false).await;
    for (key, name) in [("own-meadow", "Meadow cream"), ("own-hill", "Hill cream; \"best\"")] {
        assert_eq!(kitchen.post("/api/ingredients", &own(key, name)).await.0, 201);
    }
    let text = async |path: &str| -> String {
        let response = kitchen.http.get(format!("{}{path}", kitchen.address)).send().await.unwrap();
        assert!(response.headers()["content-disposition"].to_str().unwrap().contains("pantry."));
        response.text().await.unwrap()
    };
    let table = text("/api/ingredients/export?kind=csv").await;
    let documents = text("/api/ingredients/export?kind=json").await;
    let elsewhere = Kitchen::open(false).await;
    let spoiled = table.replacen("own-meadow,Meadow cream", "own-meadow,", 1);
    let (_, read) =
        elsewhere.post("/api/ingredients/import", &json!({ "kind": "csv", "text": spoiled })).await;
    assert_eq!((read["good"].as_array().unwrap().len(), read["taken"].as_bool()), (1, Some(false)), "{read}");
    assert_eq!(read["bad"][0]["line"], 3);
    assert_eq!(elsewhere.get("/api/ingredients/own-hill").await.0, 404, "reading kept something");
    let (_, taken) = elsewhere
        .post("/api/ingredients/import", &json!({ "kind": "csv", "text": table, "take": true }))
        .await;
    assert_eq!((taken["good"].as_array().unwrap().len(), taken["taken"].as_bool()), (2, Some(true)));
    let response = elsewhere.http.get(format!("{}/api/ingredients/export?kind=json", elsewhere.address));
    assert_eq!(response.send().await.unwrap().text().await.unwrap(), documents);
    // Taken again, each follows its own revision.
    let again = json!({ "kind": "json", "text": documents, "take": true });
    let (_, taken) = elsewhere.post("/api/ingredients/import", &again).await;
    assert_eq!(taken["good"][0]["replaces_revision"], 1);
    let (status, problem) =
        elsewhere.post("/api/ingredients/import", &json!({ "kind": "json", "text": "[]" })).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("text")));
    // A field nobody knows, in one entry or in the frame, is not dropped in silence.
    let mut entry: serde_json::Value = serde_json::from_str(&documents).unwrap();
    entry["ingredients"][1]["allergenes"] = json!(["milk"]);
    let (_, read) = elsewhere
        .post("/api/ingredients/import", &json!({ "kind": "json", "text": entry.to_string() }))
        .await;
    assert_eq!(read["good"].as_array().unwrap().len(), 1, "{read}");
    assert!(read["bad"][0]["line"] == 2 && read["bad"][0].to_string().contains("allergenes"), "{read}");
    let mut frame: serde_json::Value = serde_json::from_str(&documents).unwrap();
    frame["version"] = json!(2);
    let newer = json!({ "kind": "json", "text": frame.to_string(), "take": true });
    let (status, problem) = elsewhere.post("/api/ingredients/import", &newer).await;
    assert_eq!((status, problem["errors"][0]["code"].as_str()), (422, Some("unknown_version")));
    elsewhere.close().await;
    kitchen.close().await;
}
