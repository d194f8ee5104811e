//! Histories: neither changed, deleted nor replaced, for every noun; what was changed all the same is found.

use crate::{document, fresh, new_key, noon, under};
use pastry::assess::FormulaDocument;
use pastry::batch::{BatchAsk, BatchDocument};
use pastry::day::{KitchenDocument, PlanDocument};
use pastry::ingredient::{IngredientDocument, Shelf, find};
use pastry::order::OrderDocument;
use serde_json::json;
use sqlx::{Connection, Row, SqliteConnection};
use std::path::Path;
use store::kept::hash;
use store::{Store, StoreError, copies};

async fn raw(path: &Path) -> SqliteConnection {
    SqliteConnection::connect(&format!("sqlite://{}", path.display())).await.unwrap()
}

/// A plan of a day without work.
fn nothing_planned() -> PlanDocument {
    serde_json::from_value(json!({
        "format": "bright-spoon/plan", "version": 1, "name": "Monday", "zone": "Europe/London",
        "from": "2026-01-05T07:00:00", "orders": [], "start": [],
        "problem": {
            "id": "none", "days": 1, "horizon": 1440, "windows": [[420, 1080]], "resources": [], "orders": [],
            "steps": [], "waits": [], "links": [],
            "weights": { "day_open": 0, "span_per_slot": 0, "interruption": 0 },
        },
    }))
    .unwrap()
}

/// One of each noun; the key of the component.
async fn one_of_each(store: &Store) -> String {
    let own = IngredientDocument::copy_of(find("cream36").unwrap(), "own-a".into(), "Meadow cream".into());
    store.save_all(&[("own-a".to_owned(), own, 0)], &noon()).await.unwrap();
    let order = OrderDocument { name: "quay".into(), ..OrderDocument::empty(21.0) };
    store.create(&new_key(), &order, &noon()).await.unwrap();
    store.create(&new_key(), &KitchenDocument::usual(), &noon()).await.unwrap();
    store.create(&new_key(), &nothing_planned(), &noon()).await.unwrap();
    let ask = BatchAsk {
        formula: document("A", "1 g"),
        weigh_g: None,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: None,
    };
    let batch = BatchDocument::begin(ask, &Shelf::catalogue(), &[]).unwrap();
    store.create(&new_key(), &batch, &noon()).await.unwrap();
    store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap().id
}

#[tokio::test]
async fn no_history_can_be_changed_deleted_or_replaced_even_from_outside() {
    let (_dir, store) = fresh().await;
    let id = one_of_each(&store).await;
    let mut raw = raw(store.path()).await;
    let mode: String =
        sqlx::query("PRAGMA journal_mode").fetch_one(&mut raw).await.unwrap().try_get(0).unwrap();
    assert_eq!(mode, "wal");
    let nouns: Vec<String> =
        sqlx::query_scalar("SELECT DISTINCT noun FROM revisions").fetch_all(&mut raw).await.unwrap();
    for noun in store::noun::NOUNS {
        assert!(nouns.iter().any(|word| word == noun.word), "a {} is to be tried too", noun.said);
    }
    for noun in store::noun::NOUNS.map(|noun| noun.word) {
        for sql in [
            "UPDATE revisions SET document = '{}' WHERE noun = ?",
            "UPDATE OR REPLACE revisions SET revision = 7 WHERE noun = ?",
            "DELETE FROM revisions WHERE noun = ?",
            "REPLACE INTO revisions SELECT noun, key, revision, saved_at, save_id, hash, '{}', saved_by FROM revisions WHERE noun = ?",
            "INSERT OR REPLACE INTO revisions SELECT noun, key, revision, saved_at, save_id, hash, '{}', saved_by FROM revisions WHERE noun = ?",
            "INSERT INTO revisions SELECT noun, key, revision, saved_at, save_id, hash, document, saved_by FROM revisions WHERE noun = ?
             ON CONFLICT DO UPDATE SET document = '{}'",
        ] {
            let error = sqlx::query(sql).bind(noun).execute(&mut raw).await.unwrap_err().to_string();
            assert!(error.contains("a revision is never"), "{noun}: {sql}: {error}");
        }
    }
    assert!(store.read::<FormulaDocument>(&id, None).await.is_ok());
}

#[tokio::test]
async fn a_save_id_cannot_be_taken_over_by_replacing() {
    let (_dir, store) = fresh().await;
    let id = under("0123456789");
    store.create(&new_key(), &document("A", "1 g"), &id).await.unwrap();
    let mut raw = raw(store.path()).await;
    let error = sqlx::query(
        "REPLACE INTO revisions SELECT noun, 'other', 1, saved_at, save_id, hash, document, saved_by FROM revisions",
    )
    .execute(&mut raw)
    .await
    .unwrap_err()
    .to_string();
    assert!(error.contains("a revision is never replaced"), "{error}");
}

#[tokio::test]
async fn a_document_that_is_not_what_was_written_is_told_and_not_shown() {
    let (_dir, store) = fresh().await;
    let id = one_of_each(&store).await;
    assert!(copies::verify(store.path()).await.is_ok());
    let mut raw = raw(store.path()).await;
    // What a bad disk does: no trigger is asked.
    sqlx::query("DROP TRIGGER revisions_do_not_change").execute(&mut raw).await.unwrap();
    sqlx::query("UPDATE revisions SET document = replace(document, '1 g', '9 g') WHERE noun = 'component'")
        .execute(&mut raw)
        .await
        .unwrap();
    let damaged = |outcome: &StoreError| match outcome {
        StoreError::Damaged { noun, key, revision: 1 } => noun == "formula" && *key == id,
        _ => false,
    };
    let read = store.read::<FormulaDocument>(&id, None).await.unwrap_err();
    assert!(damaged(&read), "{read}");
    let for_a_cake = store.formulas(&[&id]).await.unwrap_err();
    assert!(damaged(&for_a_cake), "{for_a_cake}");
    let verified = copies::verify(store.path()).await.unwrap_err();
    assert!(damaged(&verified), "{verified}");
    assert!(verified.to_string().contains("version 1 of this formula is damaged"), "{verified}");
}

/// FIPS 180-4's example of one block, as NIST publishes it with the standard.
#[test]
fn the_hash_is_sha_256() {
    assert_eq!(hash("abc"), "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}
