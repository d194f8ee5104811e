//! The one binary from the outside.

use crate::{Kitchen, formula};
use std::io::{BufRead, BufReader, Write};
use std::process::{Command, Output, Stdio};

fn run(arguments: &[&str], input: Option<&str>) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_bright-spoon"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let mut stdin = child.stdin.take().unwrap();
    if let Some(input) = input {
        stdin.write_all(input.as_bytes()).unwrap();
    }
    drop(stdin);
    child.wait_with_output().unwrap()
}

#[tokio::test]
async fn predict_prints_the_very_answer_of_the_interface() {
    let kitchen = Kitchen::open(false).await;
    let over_http = kitchen
        .http
        .post(format!("{}/api/predict", kitchen.address))
        .json(&formula())
        .send()
        .await
        .unwrap()
        .text()
        .await
        .unwrap();
    let file = kitchen.dir.path().join("drip.json");
    std::fs::write(&file, formula().to_string()).unwrap();
    let printed = run(&["predict", file.to_str().unwrap()], None);
    assert!(printed.status.success());
    assert_eq!(String::from_utf8(printed.stdout).unwrap().trim_end(), over_http);
    let piped = run(&["predict", "-"], Some(&formula().to_string()));
    assert_eq!(String::from_utf8(piped.stdout).unwrap().trim_end(), over_http);
    kitchen.close().await;
}

#[test]
fn bad_input_exits_with_2_and_says_what_to_do() {
    let mut wrong = formula();
    wrong["lines"][1]["amount"] = "3 bunches".into();
    for (input, words) in [
        (wrong.to_string(), "lines.1.amount: “bunches” is not a unit known here"),
        ("{".to_owned(), "this is not JSON: it breaks at line 1"),
        (r#"{"format": 3}"#.to_owned(), "format: invalid type: integer `3`, expected a string"),
    ] {
        let output = run(&["predict", "-"], Some(&input));
        assert_eq!(output.status.code(), Some(2));
        assert!(output.stdout.is_empty());
        let said = String::from_utf8(output.stderr).unwrap();
        assert!(said.contains(words), "{said}");
    }
    let output = run(&["predict", "/nowhere/at/all.json"], None);
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("cannot be read"));
}

#[test]
fn amounts_are_weighed_families_listed_and_formulas_compared() {
    let said = |output: Output| String::from_utf8(output.stdout).unwrap();
    let weighed = said(run(&["convert", "1 1/2 cups", "cream36"], None));
    let weighed: serde_json::Value = serde_json::from_str(&weighed).unwrap();
    assert_eq!(weighed["mass_g"], 357.0);
    let output = run(&["convert", "1 cup", "moonbeams"], None);
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("bright-spoon ingredients --search"));
    let family: serde_json::Value =
        serde_json::from_str(&said(run(&["families", "fruit_mousse"], None))).unwrap();
    assert_eq!(family["word"], "fruit mousse");
    assert_eq!(run(&["families", "stew"], None).status.code(), Some(2));
    let found: serde_json::Value =
        serde_json::from_str(&said(run(&["ingredients", "--search", "castor sugar"], None))).unwrap();
    assert_eq!(found[0]["ingredient"], "sugar");
    let dir = tempfile::tempdir().unwrap();
    let (one, two) = (dir.path().join("one.json"), dir.path().join("two.json"));
    let mut other = formula();
    other["lines"][0]["amount"] = "120 g".into();
    std::fs::write(&one, formula().to_string()).unwrap();
    std::fs::write(&two, other.to_string()).unwrap();
    let compared = run(&["compare", one.to_str().unwrap(), two.to_str().unwrap()], None);
    assert!(said(compared).contains("times as stiff as"));
    other["lines"][0]["amount"] = "a lot".into();
    std::fs::write(&two, other.to_string()).unwrap();
    let output = run(&["compare", one.to_str().unwrap(), two.to_str().unwrap()], None);
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("two.json: lines.0.amount"));
    assert!(said(run(&["schema", "pantry-1"], None)).contains("Bright Spoon pantry, version 1"));
    assert_eq!(run(&["schema", "nothing-1"], None).status.code(), Some(2));
}

/// Custard of 20 mm in a fridge: 21 °C after about two hours (an independent reckoning of the same laws has 22 mm at just two).
#[test]
fn a_body_that_cools_is_read_from_a_file_or_a_pipe() {
    let case = r#"{"shape":"slab","thickness_mm":21.77,"material":{"comp":{"water":0.685,"protein":0.042,"sugar":0.165,
        "starch":0.046,"ash":0.007,"fat_milk":0.03,"fat_oil":0.025}},"start_c":85,
        "phases":[{"min":600,"top":{"h":8,"t":4,"r":1e-4},"bottom":{"h":8,"t":4,"r":6e-5}}],
        "marks":[{"point":"hottest","to_c":57},{"point":"hottest","to_c":21},{"point":"core","to_c":2}]}"#;
    let output = run(&["cool", "-"], Some(case));
    let answer: serde_json::Value = serde_json::from_slice(&output.stdout).unwrap();
    let minutes = |at: usize| answer["marks"][at]["min"].as_f64();
    assert!((minutes(1).unwrap() - minutes(0).unwrap() - 120.0).abs() < 25.0, "{answer}");
    assert_eq!((minutes(2), &answer["marks"][2]["min"]), (None, &serde_json::Value::Null));
    assert!(answer["marks"][2]["why"].as_str().unwrap().contains("4.0 °C"), "{answer}");
    let wrong = case.replace("\"h\":8,\"t\":4,\"r\":1e-4", "\"h\":[9,8,7],\"t\":4");
    let output = run(&["cool", "-"], Some(&wrong));
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("phases.0.top.h"));
}

#[test]
fn a_formula_in_its_vessel_is_read_from_a_file_and_told_when_it_is_right() {
    let ask = r#"{"formula":{"format":"bright-spoon/formula","version":1,"family":"ganache",
        "lines":[{"ingredient":"dark55","amount":"200 g"},{"ingredient":"cream36","amount":"200 g"}],
        "work":{"job":{"kind":"drip"},"temperature_c":30,"room_temperature_c":21}},
        "vessel":{"kind":"tray"},"places":[{"place":"bench"}],"at":"13:05"}"#;
    let answer: serde_json::Value = serde_json::from_slice(&run(&["cool", "-"], Some(ask)).stdout).unwrap();
    let sentence = answer["sentence"].as_str().unwrap();
    assert!(sentence.starts_with("Right to drip from 13:"), "{sentence}");
    assert_eq!(answer["curve"]["usual"].as_array().unwrap().len(), 200);
    let wrong = ask.replace("\"tray\"", "\"tray\",\"diameter_mm\":200");
    let output = run(&["cool", "-"], Some(&wrong));
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("vessel.diameter_mm"));
}

#[test]
fn demo_and_a_real_file_do_not_go_together() {
    let output = run(&["serve", "--demo", "--data", "x.db"], None);
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8(output.stderr).unwrap().contains("--demo"));
}

#[test]
fn it_says_where_it_is_and_stops_when_asked() {
    let mut child = Command::new(env!("CARGO_BIN_EXE_bright-spoon"))
        .args(["serve", "--demo", "--port", "0", "--log", "json"])
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
    let first = lines.next().unwrap().unwrap();
    let address = first.strip_prefix("Bright Spoon is at ").unwrap();
    assert!(address.starts_with("http://127.0.0.1:"), "{first}");
    let stopped = Command::new("kill").args(["-TERM", &child.id().to_string()]).status().unwrap();
    assert!(stopped.success());
    let output = child.wait_with_output().unwrap();
    assert!(output.status.success(), "{:?}", output.status);
    let log = String::from_utf8(output.stderr).unwrap();
    assert!(log.lines().all(|line| serde_json::from_str::<serde_json::Value>(line).is_ok()), "{log}");
    assert!(log.contains("stopping"), "{log}");
}

#[test]
fn a_taken_port_is_said_in_words() {
    let taken = std::net::TcpListener::bind("127.0.0.1:0").unwrap();
    let port = taken.local_addr().unwrap().port().to_string();
    let output = run(&["serve", "--demo", "--port", &port], None);
    assert_eq!(output.status.code(), Some(1));
    assert!(String::from_utf8(output.stderr).unwrap().contains("try --port 0"));
}

#[test]
fn a_file_that_is_no_kitchen_is_refused_and_left_as_it_is() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("notes.txt");
    std::fs::write(&file, "shopping: eggs, butter, twelve lemons and a new whisk".repeat(40)).unwrap();
    let before = std::fs::read(&file).unwrap();
    let output = run(&["serve", "--port", "0", "--data", file.to_str().unwrap()], None);
    assert_eq!(output.status.code(), Some(1));
    assert!(String::from_utf8(output.stderr).unwrap().contains("no kitchen's file of Bright Spoon"));
    assert_eq!(std::fs::read(&file).unwrap(), before);
}

#[test]
fn an_answer_that_is_short_of_a_part_says_so_and_exits_with_3() {
    let cake = serde_json::json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Short",
        "tiers": [{
            "body": { "shape": "round", "diameter_mm": 180 },
            "layers": [{ "kind": "filling", "component": "gone", "thickness_mm": 10 }]
        }]
    });
    let order = serde_json::json!({
        "format": "bright-spoon/order", "version": 1, "name": "Short", "room_temperature_c": 21.0,
        "cakes": [{ "stack": cake, "count": 2 }]
    });
    let mut asked = vec![(vec!["stack", "-"], cake.to_string()), (vec!["recipe", "-"], cake.to_string())];
    asked.push((vec!["order", "-"], order.to_string()));
    asked.push((vec!["recipe", "-"], order.to_string()));
    let mut dated = order.clone();
    dated["served_at"] = "2026-12-05T15:00:00".into();
    let from = ["--from", "2026-12-01T06:00"];
    asked.push(([&["plan", "-"], &from[..]].concat(), dated.to_string()));
    asked.push(([&["plan", "-", "--problem"], &from[..]].concat(), dated.to_string()));
    for list in ["shopping", "weighing", "bill", "labels"] {
        asked.push((vec!["order", "-", "--list", list], order.to_string()));
    }
    for (arguments, input) in &asked {
        let output = run(arguments, Some(input));
        let (told, said) =
            (String::from_utf8(output.stdout).unwrap(), String::from_utf8(output.stderr).unwrap());
        assert_eq!(output.status.code(), Some(3), "{arguments:?}: {said}");
        assert!(said.contains("INCOMPLETE"), "{arguments:?}: {said}");
        // On the paper too, where nobody sees an exit code.
        assert!(told.contains("INCOMPLETE") || told.contains("\"incomplete\":[\""), "{arguments:?}: {told}");
    }
    // A recipe with a line that was not understood is not whole either.
    let foreign = serde_json::json!({
        "@context": "https://schema.org", "@type": "Recipe", "name": "Theirs",
        "recipeIngredient": ["200 g cream", "3 handfuls of moonbeams"]
    });
    let output = run(&["recipe", "-"], Some(&foreign.to_string()));
    assert_eq!(output.status.code(), Some(3));
    assert!(String::from_utf8(output.stderr).unwrap().contains("moonbeams"));
}

/// The plan of an order, of the problem it is, and of that problem bent to an event: the same from each door.
#[test]
fn an_order_is_planned_as_the_problem_it_makes_and_bent_to_what_happens() {
    let cake = serde_json::json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Plate",
        "tiers": [{
            "body": { "shape": "rectangle", "length_mm": 100, "width_mm": 100 },
            "layers": [{ "kind": "filling", "component": "cream", "thickness_mm": 20 }]
        }],
        "components": [{ "key": "cream", "document": formula() }]
    });
    let order = serde_json::json!({
        "format": "bright-spoon/order", "version": 1, "name": "Plates", "room_temperature_c": 21.0,
        "served_at": "2026-12-05T15:00:00", "cakes": [{ "stack": cake, "count": 6 }]
    })
    .to_string();
    let told = |arguments: &[&str], input: &str| -> serde_json::Value {
        let output = run(arguments, Some(input));
        assert_eq!(
            output.status.code(),
            Some(0),
            "{arguments:?}: {}",
            String::from_utf8_lossy(&output.stderr)
        );
        serde_json::from_slice(&output.stdout).unwrap()
    };
    let from = ["--from", "2026-12-01T06:00"];
    let answer = told(&[&["plan", "-"], &from[..]].concat(), &order);
    assert_eq!(answer["unplaced"], serde_json::json!([]));
    assert_eq!(answer["reserve_kept"], true);
    // The same plan as a calendar, read by another's parser, and as run sheets.
    let output = run(&[&["plan", "-", "--ics"], &from[..]].concat(), Some(&order));
    let read = ical::IcalParser::new(&output.stdout[..]).next().unwrap().unwrap();
    assert!(read.events.len() > 3 && output.status.success());
    let output = run(&[&["plan", "-", "--sheet"], &from[..]].concat(), Some(&order));
    let sheet = String::from_utf8(output.stdout).unwrap();
    assert!(sheet.contains("Cook · ") && sheet.contains("[ ] ") && sheet.contains("Plates"), "{sheet}");
    let problem = told(&[&["plan", "-", "--problem"], &from[..]].concat(), &order);
    let output = run(&["plan", "-", "--ics"], Some(&problem.to_string()));
    assert_eq!(output.status.code(), Some(2), "a calendar is made of orders");
    assert_eq!(problem["steps"].as_array().unwrap().len(), answer["start"].as_array().unwrap().len());
    let text = problem.to_string();
    assert_eq!(told(&["plan", "-"], &text), answer);
    // Nothing held back: the first step is a step behind, and pushed.
    let first = answer["start"].as_array().unwrap().iter().filter_map(|at| at.as_i64()).min().unwrap();
    let step = answer["start"].as_array().unwrap().iter().position(|at| at.as_i64() == Some(first)).unwrap();
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("event.json");
    let event = serde_json::json!({ "now": first + 1, "late": [{ "step": step, "min": 10 }] });
    std::fs::write(&file, event.to_string()).unwrap();
    let bent = told(&["plan", "-", "--replan", file.to_str().unwrap()], &text);
    assert!(["push", "repair", "overtime", "quality"].contains(&bent["level"].as_str().unwrap()), "{bent}");
    std::fs::write(&file, r#"{ "now": 5, "late": [{ "step": 999, "min": 10 }] }"#).unwrap();
    let output = run(&["plan", "-", "--replan", file.to_str().unwrap()], Some(&text));
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("late.0.step"));
    let output = run(&["plan", "-", "--from", "2027-01-01T06:00"], Some(&order));
    assert!(output.status.code() == Some(2) && String::from_utf8_lossy(&output.stderr).contains("was eaten"));
}
