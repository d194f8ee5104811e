//! Orders and cakes over HTTP and from files: kept with their revisions, worked out, written and read.

use crate::{Kitchen, formula};
use serde_json::{Value, json};
use std::process::Command;

/// A small cake of one of the kitchen's formulas.
fn cake(component: &str) -> Value {
    json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Quay cake",
        "bakes": [{ "key": "g", "name": "Genoise", "sponge": "genoise",
            "lines": [{ "ingredient": "egg", "amount": "4 eggs" }, { "ingredient": "sugar", "amount": "120 g" },
                      { "ingredient": "flour", "amount": "120 g" }] }],
        "tiers": [{
            "body": { "shape": "round", "diameter_mm": 160 },
            "layers": [
                { "kind": "sponge", "bake": "g", "thickness_mm": 20 },
                { "kind": "filling", "component": component, "thickness_mm": 8 },
                { "kind": "sponge", "bake": "g", "thickness_mm": 20 }
            ]
        }]
    })
}

fn order(component: &str) -> Value {
    json!({
        "format": "bright-spoon/order", "version": 1, "name": "Quay table", "room_temperature_c": 21.0,
        "served_at": "2026-12-05T15:00:00", "made_on": "2026-12-04", "servings": 6,
        "cakes": [{ "stack": cake(component), "count": 2 }]
    })
}

async fn with_formula(kitchen: &Kitchen) -> String {
    let (_, made) = kitchen.post("/api/components", &formula()).await;
    made["id"].as_str().unwrap().to_owned()
}

#[tokio::test]
async fn an_order_is_kept_with_all_its_revisions_and_the_second_editor_is_told() {
    let kitchen = Kitchen::open(false).await;
    let component = with_formula(&kitchen).await;
    let (status, made) = kitchen.post("/api/orders", &order(&component)).await;
    assert_eq!((status, made["revision"].as_i64()), (201, Some(1)), "{made}");
    let path = format!("/api/orders/{}", made["id"].as_str().unwrap());
    let mut changed = order(&component);
    changed["cakes"][0]["count"] = json!(3);
    let save = json!({ "document": changed, "based_on_revision": 1 });
    assert_eq!(kitchen.put(&path, &save).await.1["revision"], 2);
    let (status, problem) = kitchen.put(&path, &save).await;
    assert_eq!((status, problem["current_revision"].as_i64()), (409, Some(2)));
    assert_eq!(kitchen.get(&format!("{path}/revisions/1")).await.1["document"]["cakes"][0]["count"], 2);
    assert_eq!(kitchen.get(&format!("{path}/revisions")).await.1.as_array().unwrap().len(), 2);
    let (_, list) = kitchen.get("/api/orders").await;
    assert_eq!(
        (&list[0]["name"], &list[0]["pieces"], &list[0]["archived"]),
        (&json!("Quay table"), &json!(3), &json!(false))
    );
    assert_eq!(kitchen.put(&format!("{path}/place"), &json!({ "archived": true })).await.0, 204);
    assert_eq!(kitchen.get("/api/orders").await.1[0]["archived"], true);
    assert_eq!(kitchen.get("/api/orders/none").await.0, 404);
    assert_eq!(kitchen.get(&format!("{path}/revisions/9")).await.0, 404);
    assert_eq!(kitchen.put("/api/orders/none", &save).await.0, 404);
    let mut nameless = order(&component);
    nameless["name"] = json!(" ");
    let (status, problem) = kitchen.post("/api/orders", &nameless).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("name")));
    kitchen.close().await;
}

#[tokio::test]
async fn a_cake_takes_the_kitchens_own_formula_as_it_is_saved_now() {
    let kitchen = Kitchen::open(false).await;
    let component = with_formula(&kitchen).await;
    let ask = json!({ "document": cake(&component), "room_c": 21.0 });
    let (status, answer) = kitchen.post("/api/stack", &ask).await;
    assert_eq!(status, 200, "{answer}");
    let filling =
        answer["places"].as_array().unwrap().iter().find(|place| place["kind"] == "filling").unwrap();
    assert_eq!(filling["name"], "Test drip");
    // A layer of 8 mm over a round of 160 mm is 160.8 ml.
    let (ml, density) =
        (filling["volume_ml"].as_f64().unwrap(), filling["density_g_per_ml"].as_f64().unwrap());
    assert!((ml - 160.85).abs() < 0.01 && (filling["grams"].as_f64().unwrap() - ml * density).abs() < 0.5);
    let mut renamed = formula();
    renamed["name"] = json!("Quay filling");
    let save = json!({ "document": renamed, "based_on_revision": 1 });
    assert_eq!(kitchen.put(&format!("/api/components/{component}"), &save).await.0, 200);
    let (_, answer) = kitchen.post("/api/stack", &ask).await;
    assert!(answer["places"].as_array().unwrap().iter().any(|place| place["name"] == "Quay filling"));
    // A formula that is not here is a finding at its place, not a refusal.
    let (status, answer) =
        kitchen.post("/api/stack", &json!({ "document": cake("gone"), "room_c": 21.0 })).await;
    assert_eq!(status, 200);
    assert!(
        answer["headline"].as_str().unwrap().contains("points to a formula that is not here"),
        "{answer}"
    );
    let ask = json!({ "document": cake(&component), "to": { "to": "servings", "servings": 30 } });
    let (status, larger) = kitchen.post("/api/stack/resize", &ask).await;
    assert_eq!(status, 200, "{larger}");
    assert!(larger["portions"][1].as_u64().unwrap() >= 30);
    let (_, begin) = kitchen.get("/api/stack/begin").await;
    assert_eq!(begin["templates"].as_array().unwrap().len(), 22);
    assert_eq!(begin["bakes"].as_array().unwrap().len(), begin["sponges"].as_array().unwrap().len());
    kitchen.close().await;
}

#[tokio::test]
async fn an_order_buys_in_the_packs_of_this_kitchen_and_lists_are_csv() {
    let kitchen = Kitchen::open(false).await;
    let component = with_formula(&kitchen).await;
    let (_, before) = kitchen.post("/api/order", &order(&component)).await;
    let line = |answer: &Value| -> Value {
        let all = answer["shopping"].as_array().unwrap();
        all.iter().find(|line| line["ingredient"] == "cream35").unwrap().clone()
    };
    assert_eq!(line(&before)["packs"], 1, "{}", before["shopping"]);
    let own = json!({ "pack": { "pack_g": 50.0, "pack_price": 0.9 }, "revision": 0 });
    let (status, kept) = kitchen.put("/api/ingredients/cream35/kitchen", &own).await;
    assert_eq!(status, 200, "{kept}");
    let (_, after) = kitchen.post("/api/order", &order(&component)).await;
    let needed = line(&after)["needed_g"].as_f64().unwrap();
    assert_eq!(line(&after)["packs"].as_f64().unwrap(), (needed / 50.0).ceil());
    let response = kitchen
        .http
        .post(format!("{}/api/order/list?list=shopping", kitchen.address))
        .json(&order(&component))
        .send()
        .await
        .unwrap();
    let kind = response.headers()["content-type"].to_str().unwrap().to_owned();
    let name = response.headers()["content-disposition"].to_str().unwrap().to_owned();
    let text = response.text().await.unwrap();
    assert!(kind.starts_with("text/csv") && name.contains("Quay-table-shopping.csv"), "{kind} {name}");
    assert!(text.starts_with("ingredient,shelf,needed_g") && text.contains("Cream 35 %"), "{text}");
    let (status, problem) = kitchen.post("/api/order/list?list=gifts", &order(&component)).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("query")));
    kitchen.close().await;
}

#[tokio::test]
async fn a_file_takes_its_formulas_along_and_reads_back_in_another_kitchen() {
    let kitchen = Kitchen::open(false).await;
    let component = with_formula(&kitchen).await;
    let written = json!({ "kind": "order", "document": order(&component) });
    let (status, whole) = kitchen.post("/api/files?form=json", &written).await;
    assert_eq!(status, 200, "{whole}");
    assert_eq!(whole["cakes"][0]["stack"]["components"][0]["document"]["name"], "Test drip");
    let (_, recipe) = kitchen.post("/api/files?form=recipe", &written).await;
    assert_eq!(
        (&recipe["@type"], &recipe["itemListElement"][0]["item"]["@type"]),
        (&json!("ItemList"), &json!("Recipe"))
    );
    let elsewhere = Kitchen::open(false).await;
    for file in [&whole, &recipe] {
        let (status, read) = elsewhere.post("/api/files/read", &json!({ "text": file.to_string() })).await;
        assert_eq!((status, &read["kind"]), (200, &json!("order")), "{read}");
        let [(_, here), (_, there)] = [
            kitchen.post("/api/order", &order(&component)).await,
            elsewhere.post("/api/order", &read["document"]).await,
        ];
        assert_eq!(here["finished_g"], there["finished_g"]);
    }
    let stack = json!({ "kind": "stack", "document": cake(&component) });
    let (_, recipe) = kitchen.post("/api/files?form=recipe", &stack).await;
    let (_, read) = elsewhere.post("/api/files/read", &json!({ "text": recipe.to_string() })).await;
    assert_eq!(read["kind"], "stack");
    let (_, recipe) =
        kitchen.post("/api/files?form=recipe", &json!({ "kind": "formula", "document": formula() })).await;
    assert!(recipe["recipeInstructions"].as_array().unwrap().len() > 3);
    let (_, recipe) = kitchen.get(&format!("/api/components/{component}/export?form=recipe")).await;
    assert_eq!((&recipe["@type"], &recipe["name"]), (&json!("Recipe"), &json!("Test drip")));
    let (status, problem) = elsewhere.post("/api/files/read", &json!({ "text": "[]" })).await;
    assert_eq!((status, problem["errors"][0]["field"].as_str()), (422, Some("text")));
    kitchen.close().await;
    elsewhere.close().await;
}

#[tokio::test]
async fn the_demo_orders_stand_and_are_about_to_be_made() {
    let kitchen = Kitchen::open(true).await;
    let (_, list) = kitchen.get("/api/orders").await;
    let all = list.as_array().unwrap();
    assert!(all.len() >= 3, "{list}");
    let mut shapes = Vec::new();
    for each in all {
        let (_, kept) = kitchen.get(&format!("/api/orders/{}", each["id"].as_str().unwrap())).await;
        let (status, answer) = kitchen.post("/api/order", &kept["document"]).await;
        assert_eq!(status, 200, "{answer}");
        assert_ne!(answer["standing"], "trouble", "{}: {}", each["name"], answer["headline"]);
        assert!(answer["portions"].as_u64() >= kept["document"]["servings"].as_u64(), "{}", each["name"]);
        let when: jiff::civil::DateTime = each["served_at"].as_str().unwrap().parse().unwrap();
        assert!(when > jiff::tz::TimeZone::UTC.to_datetime(jiff::Timestamp::now()), "{when} is past");
        shapes.push(kept["document"]["cakes"][0]["stack"]["tiers"][0]["body"]["shape"].clone());
    }
    for shape in ["round", "dome", "cup"] {
        assert!(shapes.contains(&json!(shape)), "{shape}: {shapes:?}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn the_command_line_answers_from_files_as_the_interface_does() {
    let kitchen = Kitchen::open(false).await;
    let component = with_formula(&kitchen).await;
    let (_, whole) = kitchen
        .post("/api/files?form=json", &json!({ "kind": "order", "document": order(&component) }))
        .await;
    let file = kitchen.dir.path().join("order.json");
    std::fs::write(&file, whole.to_string()).unwrap();
    let cake_file = kitchen.dir.path().join("cake.json");
    std::fs::write(&cake_file, whole["cakes"][0]["stack"].to_string()).unwrap();
    let run = |arguments: &[&str]| {
        Command::new(env!("CARGO_BIN_EXE_bright-spoon")).args(arguments).output().unwrap()
    };
    let text = |output: &std::process::Output| String::from_utf8(output.stdout.clone()).unwrap();
    let printed = run(&["stack", cake_file.to_str().unwrap(), "--room", "21"]);
    let (_, over_http) =
        kitchen.post("/api/stack", &json!({ "document": whole["cakes"][0]["stack"], "room_c": 21.0 })).await;
    assert_eq!(serde_json::from_str::<Value>(&text(&printed)).unwrap(), over_http);
    let listed = run(&["order", file.to_str().unwrap(), "--list", "weighing"]);
    assert!(text(&listed).starts_with("batch,ingredient,mass_g"), "{}", text(&listed));
    let recipe = run(&["recipe", file.to_str().unwrap()]);
    assert_eq!(serde_json::from_str::<Value>(&text(&recipe)).unwrap()["@type"], "ItemList");
    let refused = run(&["order", file.to_str().unwrap(), "--list", "gifts"]);
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("write shopping, weighing, bill or labels"));
    let refused = run(&["recipe", "/nowhere/at/all.json"]);
    assert_eq!(refused.status.code(), Some(2));
    kitchen.close().await;
}
