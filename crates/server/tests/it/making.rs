//! Swaps, rescues, sizes, shares and methods, asked over HTTP and from a file.

use crate::{Kitchen, formula};
use serde_json::{Value, json};
use std::process::Command;

fn field(problem: &Value) -> (&str, &str) {
    let first = &problem["errors"][0];
    (first["field"].as_str().unwrap_or(""), first["code"].as_str().unwrap_or(""))
}

#[tokio::test]
async fn a_swap_comes_with_what_was_kept_and_what_differs() {
    let kitchen = Kitchen::open(false).await;
    let ask = json!({ "document": formula(), "ask": { "swap": "replace", "line": 0, "by": "dark70" } });
    let (status, answer) = kitchen.post("/api/swap", &ask).await;
    assert_eq!(status, 200, "{answer}");
    let option = &answer["options"][0];
    assert_eq!(option["title"], "Dark chocolate 70 % for Dark chocolate 55 %");
    assert_eq!(option["kept"][0], json!({ "goal": "consistency", "held": true }), "{option}");
    let (_, judged) = kitchen.post("/api/predict", &option["document"]).await;
    assert_eq!(judged["at"], option["at"]);
    // An own ingredient may take the place of one of the catalogue.
    let own = json!({
        "format": "bright-spoon/ingredient", "version": 1, "key": "own-meadow", "name": "Meadow cream",
        "group": "dairy", "composition_percent": { "water": 58, "milk_fat": 36, "lactose": 4, "milk_protein": 2 }
    });
    assert_eq!(kitchen.post("/api/ingredients", &own).await.0, 201);
    let ask = json!({ "document": formula(), "ask": { "swap": "replace", "line": 1, "by": "own-meadow" } });
    let (status, answer) = kitchen.post("/api/swap", &ask).await;
    assert_eq!(
        (status, &answer["options"][0]["title"]),
        (200, &json!("Meadow cream for Cream 35 %")),
        "{answer}"
    );
    for (ask, at) in [
        (json!({ "swap": "replace", "line": 5, "by": "dark70" }), ("ask.line", "no_such_line")),
        (json!({ "swap": "without", "what": "egg" }), ("ask.what", "nothing_to_swap")),
    ] {
        let (status, problem) =
            kitchen.post("/api/swap", &json!({ "document": formula(), "ask": ask })).await;
        assert_eq!((status, field(&problem)), (422, at), "{problem}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn a_rescue_is_solved_for_what_is_in_the_bowl() {
    let kitchen = Kitchen::open(false).await;
    let mut stiff = formula();
    stiff["lines"][0]["amount"] = "170 g".into();
    let ask = json!({ "document": stiff, "sign": "too_stiff", "bowl_c": 27.0, "bowl_g": 200.0 });
    let (status, answer) = kitchen.post("/api/rescue", &ask).await;
    assert_eq!(status, 200, "{answer}");
    assert!((answer["bowl_g"].as_f64().unwrap() - 200.0).abs() < 1e-9);
    let first = &answer["remedies"][0];
    assert_eq!(first["id"], "drip_short");
    assert!(first["fired"].as_array().unwrap().len() >= 2, "{first}");
    let added = first["steps"].as_array().unwrap().iter().find(|step| !step["addition"].is_null()).unwrap();
    assert_eq!(added["addition"]["basis"], "solved", "{added}");
    let (_, judged) = kitchen.post("/api/predict", &added["document"]).await;
    assert_eq!((&judged["at"]["outcome"], &judged["at"]["headline"]), (&json!("inside"), &added["then"]));
    let (status, signs) = kitchen.get("/api/rescue/signs?family=ganache&job=drip").await;
    let words: Vec<&str> =
        signs.as_array().unwrap().iter().filter_map(|sign| sign["words"].as_str()).collect();
    assert!(
        status == 200 && words.contains(&"Split, oily") && !words.contains(&"Will not whip"),
        "{words:?}"
    );
    assert_eq!(kitchen.get("/api/rescue/signs?family=porridge&job=drip").await.0, 422);
    let hot = json!({ "document": formula(), "sign": "split", "bowl_c": 900 });
    let (status, problem) = kitchen.post("/api/rescue", &hot).await;
    assert_eq!((status, field(&problem).0), (422, "bowl_c"), "{problem}");
    let unseen = json!({ "document": formula(), "sign": "haunted" });
    assert_eq!(kitchen.post("/api/rescue", &unseen).await.0, 422);
    kitchen.close().await;
}

#[tokio::test]
async fn a_line_poured_over_has_three_ways_on() {
    let kitchen = Kitchen::open(false).await;
    let ask = json!({ "document": formula(), "line": 1, "poured": "112 g" });
    let (status, answer) = kitchen.post("/api/overpour", &ask).await;
    assert_eq!(status, 200, "{answer}");
    assert_eq!(answer["sentence"], "12 g more of Cream 35 % than planned (12 %).");
    assert_eq!(answer["scale"]["title"], "scale the rest by 1.12");
    assert_eq!(answer["scale"]["additions"][0]["grams"], 12.0);
    assert!(!answer["restore"].as_array().unwrap().is_empty(), "{answer}");
    let same = json!({ "document": formula(), "line": 1, "poured": "100 g" });
    let (status, problem) = kitchen.post("/api/overpour", &same).await;
    assert_eq!((status, field(&problem)), (422, ("poured", "nothing_poured")));
    kitchen.close().await;
}

#[tokio::test]
async fn sizes_follow_the_kitchens_own_packs_and_shares_add_up() {
    let kitchen = Kitchen::open(false).await;
    let (_, detail) = kitchen.get("/api/ingredients/cream35").await;
    let mut values = detail["entry"]["kitchen"].clone();
    values["pack"] = json!({ "pack_g": 250, "pack_price": 2.0 });
    assert_eq!(kitchen.put("/api/ingredients/cream35/kitchen", &values).await.0, 200);
    let ask = json!({
        "document": formula(), "target": { "to": "mass", "grams": 900 }, "whole": "packs", "whole_line": 1
    });
    let (status, answer) = kitchen.post("/api/scale", &ask).await;
    assert_eq!((status, &answer["lines"][1]["to_g"]), (200, &json!(500.0)), "{answer}");
    assert_eq!(answer["lines"][1]["packs_opened"], 2.0);
    let short = json!({ "document": formula(), "target": { "to": "short", "have": [{ "line": 1, "amount": "310 g" }] } });
    let (_, answer) = kitchen.post("/api/scale", &short).await;
    assert_eq!((&answer["factor"], &answer["limited_by"]), (&json!(3.1), &json!(1)), "{answer}");
    let ask = json!({ "in_the_bowl_g": 1000, "sizes": [1, 1, 1] });
    let (status, answer) = kitchen.post("/api/shares", &ask).await;
    let grams: Vec<f64> =
        answer["shares"].as_array().unwrap().iter().filter_map(|share| share["grams"].as_f64()).collect();
    assert_eq!((status, grams), (200, vec![334.0, 333.0, 333.0]));
    let (status, problem) =
        kitchen.post("/api/shares", &json!({ "in_the_bowl_g": 5, "sizes": [1, 0] })).await;
    assert_eq!((status, field(&problem).0), (422, "sizes.1"));
    kitchen.close().await;
}

#[tokio::test]
async fn methods_come_as_steps_and_the_chosen_one_is_kept_with_the_formula() {
    let kitchen = Kitchen::open(false).await;
    let (status, answer) = kitchen.post("/api/methods", &formula()).await;
    let schools = answer.as_array().unwrap();
    assert_eq!((status, schools.len(), &schools[0]["chosen"]), (200, 5, &json!(true)), "{answer}");
    assert!(schools[0]["start"]["from_c"].as_f64().unwrap() > 40.0);
    let made = schools.iter().find(|school| school["school"] == "ganache_bath").unwrap();
    let (status, kept) = kitchen.post("/api/components", &made["document"]).await;
    assert_eq!((status, &kept["document"]["method"]), (201, &json!("ganache_bath")), "{kept}");
    let (_, again) = kitchen.post("/api/methods", &kept["document"]).await;
    let chosen = again.as_array().unwrap().iter().find(|school| school["chosen"] == true).unwrap();
    assert_eq!(chosen["school"], "ganache_bath");
    kitchen.close().await;
}

#[tokio::test]
async fn the_commands_print_the_same_answers_and_refuse_in_words() {
    let kitchen = Kitchen::open(false).await;
    let file = kitchen.dir.path().join("drip.json");
    std::fs::write(&file, formula().to_string()).unwrap();
    let swap = json!({ "document": formula(), "ask": { "swap": "replace", "line": 0, "by": "dark70" } });
    let swap_file = kitchen.dir.path().join("swap.json");
    std::fs::write(&swap_file, swap.to_string()).unwrap();
    let path = file.to_str().unwrap();
    let asked: [(&str, Value, Vec<&str>); 4] = [
        ("/api/swap", swap, vec!["swap", swap_file.to_str().unwrap()]),
        (
            "/api/rescue",
            json!({ "document": formula(), "sign": "split", "bowl_c": 38.0 }),
            vec!["rescue", path, "--sign", "split", "--bowl-c", "38"],
        ),
        (
            "/api/scale",
            json!({ "document": formula(), "target": { "to": "pieces", "count": 24, "each": 20.0 }, "loss_percent": 4.0 }),
            vec!["scale", path, "--pieces", "24", "--each", "20", "--loss", "4"],
        ),
        ("/api/methods", formula(), vec!["methods", path]),
    ];
    let binary = env!("CARGO_BIN_EXE_bright-spoon");
    for (url, body, arguments) in asked {
        let url = format!("{}{url}", kitchen.address);
        let over_http = kitchen.http.post(url).json(&body).send().await.unwrap().text().await.unwrap();
        let printed = Command::new(binary).args(&arguments).output().unwrap();
        assert!(printed.status.success(), "{arguments:?}");
        assert_eq!(String::from_utf8(printed.stdout).unwrap().trim_end(), over_http, "{arguments:?}");
    }
    for (arguments, words) in [
        (vec!["rescue", path, "--sign", "haunted"], "write one of split"),
        (vec!["scale", path], "say to what size"),
        (vec!["swap", path], "document"),
    ] {
        let refused = Command::new(binary).args(&arguments).output().unwrap();
        assert_eq!(refused.status.code(), Some(2), "{arguments:?}");
        let said = String::from_utf8(refused.stderr).unwrap();
        assert!(said.contains(words), "{arguments:?}: {said}");
    }
    kitchen.close().await;
}

#[tokio::test]
async fn a_fridge_that_a_probe_read_counts_in_the_clock_and_in_the_method() {
    let kitchen = Kitchen::open(false).await;
    let custard = json!({
        "format": "bright-spoon/formula", "version": 1, "family": "pastry_cream",
        "lines": [
            { "ingredient": "milk", "amount": "2800 g" }, { "ingredient": "yolk", "amount": "440 g" },
            { "ingredient": "sugar", "amount": "600 g" }, { "ingredient": "corn_starch", "amount": "160 g" }
        ],
        "work": { "job": { "kind": "fill" }, "temperature_c": 6, "room_temperature_c": 21 }
    });
    let ask = json!({ "formula": custard, "vessel": { "kind": "tray" }, "places": [{ "place": "fridge" }] });
    let mut said = ask.clone();
    said["places"][0]["h"] = 4.5.into();
    // Every wait in the fridge that is worked out, min.
    let waits = async || {
        let (status, sheets) = kitchen.post("/api/methods", &custard).await;
        assert_eq!(status, 200, "{sheets}");
        let steps = sheets.as_array().unwrap().iter().flat_map(|sheet| sheet["steps"].as_array().unwrap());
        let cold =
            steps.filter(|step| step["by_clock"].as_str().is_some_and(|words| words.contains("fridge")));
        cold.map(|step| step["minutes"][0].as_f64().unwrap()).sum::<f64>()
    };
    let (usual, wait) = (kitchen.post("/api/clock", &ask).await.1, waits().await);
    assert!(wait > 0.0);
    let mut own = kitchen.get("/api/kitchen").await.1;
    own["places"] = json!([{ "place": "fridge", "h": 4.5 }]);
    assert_eq!(kitchen.put("/api/kitchen", &own).await.0, 200);
    let (status, read) = kitchen.post("/api/clock", &ask).await;
    assert_eq!(status, 200, "{read}");
    assert_ne!(read, usual);
    assert_eq!(read, kitchen.post("/api/clock", &said).await.1);
    let mut water = kitchen.get("/api/kitchen").await.1;
    water["places"] = json!([{ "place": "ice_bath", "h": 20 }]);
    let (status, problem) = kitchen.put("/api/kitchen", &water).await;
    assert_eq!((status, field(&problem)), (422, ("places.0.place", "wrong_value")), "{problem}");
    assert!(waits().await > wait, "{wait} min in a usual fridge, {} in this", waits().await);
    kitchen.close().await;
}
