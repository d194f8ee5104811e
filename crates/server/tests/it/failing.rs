//! A file that fails: said in words with what to do, by a status a program understands, and over when it is over.

use crate::{Kitchen, formula};
use serde_json::json;
use sqlx::{Connection, Executor, SqliteConnection};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_full_disk_is_507_in_words_and_saves_go_on_when_there_is_room() {
    let kitchen = Kitchen::open(false).await;
    kitchen.store().make_room(1).await.unwrap();
    let mut long = formula();
    long["note"] = json!("x".repeat(3900));
    let mut kept = 0;
    let problem = loop {
        let (status, answer) = kitchen.post("/api/components", &long).await;
        if status == 201 {
            kept += 1;
            assert!(kept < 200, "it never filled");
            continue;
        }
        assert_eq!((status, answer["code"].as_str()), (507, Some("disk_full")), "{answer}");
        break answer;
    };
    assert!(problem["detail"].as_str().unwrap().contains("make room"), "{problem}");
    // What is there can still be read; the health says what is the matter as soon as no line fits any more.
    assert_eq!(kitchen.get("/api/components").await.1.as_array().unwrap().len(), kept);
    kitchen.store().make_room(5000).await.unwrap();
    for _ in 0..30 {
        assert_eq!(kitchen.post("/api/components", &long).await.0, 201);
    }
    assert_eq!(kitchen.get("/api/health").await.0, 200);
    kitchen.close().await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_locked_file_is_503_with_when_to_come_again_and_health_tries_a_write() {
    let kitchen = Kitchen::open(false).await;
    let path = kitchen.dir.path().join("kitchen.db");
    let mut other = SqliteConnection::connect(&format!("sqlite://{}", path.display())).await.unwrap();
    other.execute("BEGIN IMMEDIATE").await.unwrap();
    let url = |path: &str| format!("{}{path}", kitchen.address);
    let (save, health) = tokio::join!(
        kitchen.http.post(url("/api/components")).json(&formula()).send(),
        kitchen.http.get(url("/api/health")).send()
    );
    for response in [save.unwrap(), health.unwrap()] {
        assert_eq!(response.status(), 503);
        assert!(response.headers().contains_key("retry-after"));
        let problem: serde_json::Value = response.json().await.unwrap();
        assert_eq!(problem["code"], "file_locked");
    }
    // Reading goes on meanwhile.
    assert_eq!(kitchen.get("/api/components").await.0, 200);
    other.execute("ROLLBACK").await.unwrap();
    assert_eq!(kitchen.post("/api/components", &formula()).await.0, 201);
    kitchen.close().await;
}
