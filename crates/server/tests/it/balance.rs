//! The smallest ways there, asked over HTTP and from a file.

use crate::{Kitchen, formula};
use serde_json::{Value, json};
use std::process::Command;

/// A drip with too much chocolate.
fn stiff() -> Value {
    let mut stiff = formula();
    stiff["lines"][0]["amount"] = "170 g".into();
    stiff
}

#[tokio::test]
async fn ways_come_with_amounts_effects_and_their_map() {
    let kitchen = Kitchen::open(false).await;
    let (status, answer) = kitchen.post("/api/balance", &stiff()).await;
    assert_eq!((status, answer["settled"].as_bool()), (200, Some(false)), "{answer}");
    let ways = answer["ways"].as_array().unwrap();
    assert!(ways.len() >= 3, "{answer}");
    for way in ways {
        assert_eq!(way["at"]["outcome"], "inside", "{way}");
        assert_eq!(way["on_map"].as_array().unwrap().len(), 91);
        assert!(!way["effect_words"].as_str().unwrap().is_empty());
        // What the way says it does is what the formula it brings does.
        let (_, done) = kitchen.post("/api/predict", &way["document"]).await;
        assert_eq!(done["at"], way["at"]);
    }
    let (status, again) = kitchen.post("/api/balance", &ways[0]["document"]).await;
    assert_eq!((status, &again["settled"], again["ways"].as_array().unwrap().len()), (200, &json!(true), 0));
    kitchen.close().await;
}

#[tokio::test]
async fn cost_follows_the_kitchens_own_price() {
    let kitchen = Kitchen::open(false).await;
    let cost = |answer: &Value| {
        let ways = answer["ways"].as_array().unwrap().iter();
        ways.filter(|way| way["kind"] == "rebalance")
            .filter_map(|way| way["effects"]["cost_per_kg"].as_f64())
            .next()
    };
    let (_, before) = kitchen.post("/api/balance", &stiff()).await;
    let chocolate = stiff()["lines"][0]["ingredient"].as_str().unwrap().to_owned();
    let url = format!("/api/ingredients/{chocolate}");
    let (_, detail) = kitchen.get(&url).await;
    let mut values = detail["entry"]["kitchen"].clone();
    values["pack"] = json!({ "pack_g": 1000, "pack_price": 500.0 });
    let (status, said) = kitchen.put(&format!("{url}/kitchen"), &values).await;
    assert_eq!(status, 200, "{said}");
    let (_, after) = kitchen.post("/api/balance", &stiff()).await;
    let (before, after) = (cost(&before).unwrap(), cost(&after).unwrap());
    assert!(after < before - 1.0, "less chocolate saves {before} before and {after} after");
    kitchen.close().await;
}

#[tokio::test]
async fn rules_are_kept_in_the_formula_and_bad_ones_are_named() {
    let kitchen = Kitchen::open(false).await;
    let mut asked = stiff();
    asked["lines"][1]["rule"] = json!({ "locked": true });
    asked["rules"] = json!({ "keep_total": true });
    let (status, kept) = kitchen.post("/api/components", &asked).await;
    assert_eq!((status, &kept["document"]["rules"]), (201, &asked["rules"]), "{kept}");
    assert_eq!(kept["document"]["lines"][1]["rule"], asked["lines"][1]["rule"]);
    asked["rules"] = json!({ "shares": [{ "of": "moonlight", "least_percent": 40 }] });
    let (status, problem) = kitchen.post("/api/balance", &asked).await;
    assert_eq!(
        (status, problem["errors"][0]["field"].as_str()),
        (422, Some("rules.shares.0.of")),
        "{problem}"
    );
    asked["rules"] = json!({ "keep_totl": true });
    assert_eq!(kitchen.post("/api/balance", &asked).await.0, 422);
    kitchen.close().await;
}

#[tokio::test]
async fn the_command_prints_the_same_ways() {
    let kitchen = Kitchen::open(false).await;
    let file = kitchen.dir.path().join("stiff.json");
    std::fs::write(&file, stiff().to_string()).unwrap();
    let url = format!("{}/api/balance", kitchen.address);
    let asked = kitchen.http.post(url).json(&stiff()).send().await.unwrap().text().await.unwrap();
    let printed =
        Command::new(env!("CARGO_BIN_EXE_bright-spoon")).arg("balance").arg(&file).output().unwrap();
    assert!(printed.status.success());
    assert!(String::from_utf8(printed.stdout).unwrap().trim_end() == asked, "they differ");
    kitchen.close().await;
}
