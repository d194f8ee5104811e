//! What was learned when something goes amiss: a file that was spoiled, a sender that left.

use crate::Kitchen;
use crate::learned::{offset, tested};
use serde_json::json;
use server::desk::Desk;
use server::teaching::Teaching;

/// Changes what an event of a closed kitchen says behind its back.
///
/// # Arguments
/// * `of`: id of the event, or key of what it happened to.
async fn spoil(dir: &tempfile::TempDir, of: &str, [was, is]: [&str; 2]) {
    let file = format!("sqlite://{}", dir.path().join("kitchen.db").display());
    let mut raw = <sqlx::SqliteConnection as sqlx::Connection>::connect(&file).await.unwrap();
    sqlx::query("DROP TRIGGER events_do_not_change").execute(&mut raw).await.unwrap();
    sqlx::query("UPDATE events SET event = replace(event, ?2, ?3) WHERE ?1 IN (key, id)")
        .bind(of)
        .bind(was)
        .bind(is)
        .execute(&mut raw)
        .await
        .unwrap();
    sqlx::Connection::close(raw).await.unwrap();
}

/// A tested batch that cannot be read teaches nothing and is told; the kitchen opens, and learns from the others.
#[tokio::test]
async fn a_tested_batch_that_cannot_be_read_is_told_and_stops_nothing() {
    let kitchen = Kitchen::open(false).await;
    let spoiled = tested(&kitchen, "Quay drip", "2026-01-02", 150.0).await;
    tested(&kitchen, "Quay drip", "2026-01-03", 150.0).await;
    let dir = kitchen.close().await;
    spoil(&dir, &spoiled, ["150", "110"]).await;
    let again = Kitchen::over(dir).await;
    let (status, learned) = again.get("/api/learned").await;
    assert_eq!((status, &learned["unread"]), (200, &json!(1)), "{learned}");
    assert_eq!(learned["readings"].as_array().unwrap().len(), 1);
    again.close().await;
}

/// A decision that cannot be read is told, stops nothing, and takes no other with it.
#[tokio::test]
async fn a_decision_that_cannot_be_read_is_told_and_stops_nothing() {
    let kitchen = Kitchen::open(false).await;
    for day in ["2026-01-02", "2026-01-03"] {
        tested(&kitchen, "Quay drip", day, 150.0).await;
    }
    for (id, of) in [
        ("set-back-01", json!({ "of": "family", "family": "ganache" })),
        ("set-back-02", json!({ "of": "kitchen" })),
    ] {
        let event = json!({ "what": "set_back", "of": of, "quantity": "yield_stress", "why": "a new stove" });
        assert_eq!(kitchen.post("/api/learned", &json!({ "id": id, "event": event })).await.0, 201);
    }
    let dir = kitchen.close().await;
    spoil(&dir, "set-back-01", ["ganache", "custard"]).await;
    let again = Kitchen::over(dir).await;
    let (status, learned) = again.get("/api/learned").await;
    assert_eq!((status, &learned["undecided"]), (200, &json!(1)), "{learned}");
    assert_eq!(learned["set_back"].as_array().unwrap().len(), 1);
    assert_eq!(learned["set_back"][0]["id"], json!("set-back-02"));
    assert!(offset(&learned, "Ganache").is_some(), "as if it had not been decided");
    again.close().await;
}

/// A device that leaves the moment it has sent a test, or is refused because too much else is worked out, has it learned from all the
/// same: what was written down teaches, whoever waits.
#[tokio::test]
async fn what_nobody_waited_to_see_learned_is_learned_all_the_same() {
    let kitchen = Kitchen::open(false).await;
    let (store, teaching) = (kitchen.store().clone(), Teaching::default());
    let follows = {
        let (store, teaching) = (store.clone(), teaching.clone());
        tokio::spawn(async move { teaching.follow(&store, &Desk::default()).await })
    };
    let known = || teaching.now().readings[0].len();
    let learned = async |many: usize| {
        for _ in 0..1_000 {
            if known() == many {
                return;
            }
            tokio::time::sleep(std::time::Duration::from_millis(10)).await;
        }
        panic!("{} of {many} are learned from", known());
    };
    let left = teaching.promise();
    tested(&kitchen, "Quay drip", "2026-01-02", 150.0).await;
    assert_eq!(known(), 0, "nobody has learned yet");
    drop(left);
    learned(1).await;
    let refused = teaching.promise();
    tested(&kitchen, "Quay drip", "2026-01-03", 150.0).await;
    let full = Desk::with(1, 0, std::time::Duration::from_secs(1));
    assert!(refused.learn(&store, &full).await.is_err(), "there is no place at that desk");
    learned(2).await;
    follows.abort();
    kitchen.close().await;
}
