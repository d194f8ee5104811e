//! A server that is killed in the middle: what was answered is there, what was not can be asked again.

use crate::formula;
use serde_json::{Value, json};
use std::collections::HashMap;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::Duration;

struct Server {
    child: Child,
    address: String,
}

fn serve(file: &Path) -> Server {
    let mut child = Command::new(env!("CARGO_BIN_EXE_bright-spoon"))
        .args(["serve", "--port", "0", "--data"])
        .arg(file)
        .env("RUST_LOG", "error")
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.as_mut().unwrap()).read_line(&mut line).unwrap();
    let address = line.trim().rsplit_once(' ').map(|(_, address)| address.to_owned()).unwrap_or_default();
    assert!(address.starts_with("http://"), "it said “{line}”");
    Server { child, address }
}

fn signal(child: &Child, name: &str) {
    let done = Command::new("kill").args([name, &child.id().to_string()]).status().unwrap();
    assert!(done.success());
}

/// A save that was begun: where, with which id, and what the answer was if one came.
struct Begun {
    id: String,
    name: String,
    answered: Option<String>,
}

/// Six cooks save until the server is gone.
async fn six_writers(address: &str, round: usize) -> Vec<Begun> {
    let writers: Vec<_> = (0..6)
        .map(|writer| {
            let url = format!("{address}/api/components");
            tokio::spawn(async move {
                let http = reqwest::Client::new();
                let mut begun = Vec::new();
                for k in 0.. {
                    let (id, name) =
                        (format!("save-{round}-{writer}-{k}"), format!("r{round} w{writer} k{k}"));
                    let mut document = formula();
                    document["name"] = json!(name);
                    let sent = http.post(&url).header("idempotency-key", &id).json(&document).send().await;
                    let answer = match sent {
                        Ok(response) => response.json::<Value>().await.ok(),
                        Err(_) => None,
                    };
                    let answered = answer.and_then(|answer| answer["id"].as_str().map(str::to_owned));
                    let gone = answered.is_none();
                    begun.push(Begun { id, name, answered });
                    if gone {
                        return begun;
                    }
                }
                begun
            })
        })
        .collect();
    let mut all = Vec::new();
    for writer in writers {
        all.extend(writer.await.unwrap());
    }
    all
}

/// `KILLS=200` for the long run; a few in every test.
#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn nothing_answered_is_lost_and_nothing_asked_again_is_doubled_by_kills() {
    let kills: usize = std::env::var("KILLS").ok().and_then(|text| text.parse().ok()).unwrap_or(4);
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    let http = reqwest::Client::new();
    let (mut wanted, mut lost, mut again, mut answered) = (HashMap::new(), 0, 0, 0);
    for round in 0..kills {
        let mut server = serve(&file);
        let work = tokio::spawn({
            let address = server.address.clone();
            async move { six_writers(&address, round).await }
        });
        // Another moment each time: from at once to a third of a second.
        tokio::time::sleep(Duration::from_millis(20 + (round as u64 * 37) % 310)).await;
        signal(&server.child, "-KILL");
        server.child.wait().unwrap();
        let begun = work.await.unwrap();

        let mut server = serve(&file);
        for save in begun {
            match &save.answered {
                Some(id) => {
                    answered += 1;
                    let url = format!("{}/api/components/{id}", server.address);
                    let kept = http.get(url).send().await.unwrap();
                    lost += usize::from(kept.status() != 200);
                    wanted.insert(save.name, id.clone());
                }
                // No answer: the same save again, with the same id.
                None => {
                    again += 1;
                    let mut document = formula();
                    document["name"] = json!(save.name);
                    let url = format!("{}/api/components", server.address);
                    let sent =
                        http.post(url).header("idempotency-key", &save.id).json(&document).send().await;
                    let made: Value = sent.unwrap().json().await.unwrap();
                    wanted.insert(save.name, made["id"].as_str().unwrap().to_owned());
                }
            }
        }
        let listed: Value = http
            .get(format!("{}/api/components", server.address))
            .send()
            .await
            .unwrap()
            .json()
            .await
            .unwrap();
        let found: HashMap<String, String> = listed
            .as_array()
            .unwrap()
            .iter()
            .map(|own| (own["name"].as_str().unwrap().to_owned(), own["id"].as_str().unwrap().to_owned()))
            .collect();
        assert_eq!(listed.as_array().unwrap().len(), wanted.len(), "doubled or lost after kill {round}");
        assert_eq!(found, wanted, "after kill {round}");
        signal(&server.child, "-TERM");
        assert!(server.child.wait().unwrap().success());
    }
    println!("{kills} kills, {answered} saves answered, {lost} lost, {again} asked again, none doubled");
    assert_eq!(lost, 0);
    store::copies::verify(&file).await.unwrap();
}

#[tokio::test]
async fn a_terminal_that_goes_away_is_a_stop_and_leaves_the_file_whole() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    let mut server = serve(&file);
    let http = reqwest::Client::new();
    let made = http.post(format!("{}/api/components", server.address)).json(&formula()).send().await.unwrap();
    assert_eq!(made.status(), 201);
    signal(&server.child, "-HUP");
    assert!(server.child.wait().unwrap().success(), "it ended as asked");
    let alone = dir.path().join("alone.db");
    std::fs::copy(&file, &alone).unwrap();
    assert_eq!(store::copies::verify(&alone).await.unwrap().counts[0].things, 1);
}

#[test]
fn a_second_server_on_one_kitchen_is_told_and_stops() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    let mut first = serve(&file);
    let second = Command::new(env!("CARGO_BIN_EXE_bright-spoon"))
        .args(["serve", "--port", "0", "--data"])
        .arg(&file)
        .output()
        .unwrap();
    assert!(!second.status.success());
    let words = String::from_utf8_lossy(&second.stderr);
    assert!(words.contains("in use by") && words.contains(&first.address), "{words}");
    signal(&first.child, "-TERM");
    first.child.wait().unwrap();
}

/// Two devices pour at one batch until the server is gone: ids that were answered, and those that were not.
async fn two_pourers(address: &str, batch: &str, round: usize) -> (Vec<String>, Vec<String>) {
    let pourers: Vec<_> = (0..2)
        .map(|line| {
            let url = format!("{address}/api/batches/{batch}/events");
            tokio::spawn(async move {
                let http = reqwest::Client::new();
                let (mut kept, mut open) = (Vec::new(), Vec::new());
                for turn in 0.. {
                    let id = format!("pour-{round}-{line}-{turn}");
                    let sent = http.post(&url).json(&pour(&id, line)).send().await;
                    match sent {
                        Ok(response) if response.status() == 201 => kept.push(id),
                        _ => {
                            open.push(id);
                            break;
                        }
                    }
                }
                (kept, open)
            })
        })
        .collect();
    let (mut kept, mut open) = (Vec::new(), Vec::new());
    for pourer in pourers {
        let own = pourer.await.unwrap();
        kept.extend(own.0);
        open.extend(own.1);
    }
    (kept, open)
}

fn pour(id: &str, line: usize) -> Value {
    let event = json!({ "what": "weighed", "line": line, "grams": 0.01, "by": "device" });
    json!({ "events": [{ "id": id, "at": "2026-01-05T07:00:00Z", "event": event }] })
}

/// A power cut in the middle of pouring: not one event that was answered is lost, and what is sent again is there once.
#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn no_pouring_that_was_answered_is_lost_by_kills() {
    let kills: usize = std::env::var("KILLS").ok().and_then(|text| text.parse().ok()).unwrap_or(4);
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    let http = reqwest::Client::new();
    let mut server = serve(&file);
    let begun = http.post(format!("{}/api/batches", server.address)).json(&json!({ "formula": formula() }));
    let begun: Value = begun.send().await.unwrap().json().await.unwrap();
    let batch = begun["kept"]["id"].as_str().unwrap().to_owned();
    let mut wanted = Vec::new();
    for round in 0..kills {
        let work = tokio::spawn({
            let (address, batch) = (server.address.clone(), batch.clone());
            async move { two_pourers(&address, &batch, round).await }
        });
        tokio::time::sleep(Duration::from_millis(40 + (round as u64 * 53) % 290)).await;
        signal(&server.child, "-KILL");
        server.child.wait().unwrap();
        let (kept, open) = work.await.unwrap();
        server = serve(&file);
        let url = format!("{}/api/batches/{batch}/events", server.address);
        for id in &open {
            // pour-ROUND-LINE-TURN
            let line = id.split('-').nth(2).unwrap().parse().unwrap();
            assert_eq!(http.post(&url).json(&pour(id, line)).send().await.unwrap().status(), 201);
        }
        wanted.extend(kept.into_iter().chain(open));
        let events: Value = http.get(&url).send().await.unwrap().json().await.unwrap();
        let mut there: Vec<&str> =
            events.as_array().unwrap().iter().map(|own| own["id"].as_str().unwrap()).collect();
        there.sort_unstable();
        wanted.sort_unstable();
        assert_eq!(there, wanted, "after kill {round}");
    }
    println!("{kills} kills, {} events, none lost, none doubled", wanted.len());
    signal(&server.child, "-TERM");
    server.child.wait().unwrap();
    store::copies::verify(&file).await.unwrap();
}
