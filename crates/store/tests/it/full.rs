//! A full disk, and a file others hold: said in words, and over when they are over.

use crate::{document, new_key, noon};
use pastry::assess::FormulaDocument;
use sqlx::{Connection, Executor, SqliteConnection};
use store::{Opening, Store, StoreError};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn after_a_full_disk_every_save_works_again_without_a_restart() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("kitchen.db");
    Store::open(&file).await.unwrap().close().await;
    let how = Opening { most_pages: Some(64), ..Opening::default() };
    let store = Store::open_as(&file, how).await.unwrap();
    let long = "x".repeat(3000);
    let mut kept = 0;
    let refused = loop {
        match store.create(&new_key(), &document(&format!("{kept} {long}"), "1 g"), &noon()).await {
            Ok(_) => kept += 1,
            Err(error) => break error,
        }
        assert!(kept < 500, "the disk never filled");
    };
    assert!(matches!(refused, StoreError::Full), "{refused:?}");
    assert!(refused.to_string().starts_with("the disk is full"), "{refused}");
    for _ in 0..30 {
        let again = store.create(&new_key(), &document(&long, "1 g"), &noon()).await.unwrap_err();
        assert!(matches!(again, StoreError::Full), "{again:?}");
    }
    assert_eq!(
        store.list::<FormulaDocument>().await.unwrap().len(),
        kept,
        "what was answered is there, nothing else"
    );
    // Room again, in the same running program.
    store.make_room(5000).await.unwrap();
    for k in 0..30 {
        store.create(&new_key(), &document(&format!("{k}"), "1 g"), &noon()).await.unwrap();
    }
    assert_eq!(store.list::<FormulaDocument>().await.unwrap().len(), kept + 30);
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_file_another_program_writes_is_locked_in_words_and_free_afterwards() {
    let (_dir, store) = crate::fresh().await;
    let mut other = SqliteConnection::connect(&format!("sqlite://{}", store.path().display())).await.unwrap();
    other.execute("BEGIN IMMEDIATE").await.unwrap();
    let error = store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap_err();
    assert!(matches!(error, StoreError::Locked), "{error:?}");
    // Who only reads is not kept waiting.
    assert!(store.list::<FormulaDocument>().await.unwrap().is_empty());
    other.execute("ROLLBACK").await.unwrap();
    store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap();
    store.check(noon().now).await.unwrap();
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_save_whose_asker_left_half_way_leaves_nothing_behind() {
    let (_dir, store) = crate::fresh().await;
    for k in 0..40 {
        let doc = document(&format!("{k}"), "1 g");
        let (key, by) = (new_key(), noon());
        let save = store.create(&key, &doc, &by);
        // Let go at a different moment each time.
        let _ = tokio::time::timeout(std::time::Duration::from_micros(40 * k), save).await;
    }
    // A COMMIT that was sent is carried out although nobody waits for it: the next writer begins only behind it.
    store.create(&new_key(), &document("after", "1 g"), &noon()).await.unwrap();
    let kept = store.list::<FormulaDocument>().await.unwrap();
    for each in &kept {
        assert_eq!(store.read::<FormulaDocument>(&each.id, None).await.unwrap().revision, 1, "half a save");
    }
    store.create(&new_key(), &document("last", "1 g"), &noon()).await.unwrap();
    assert_eq!(store.list::<FormulaDocument>().await.unwrap().len(), kept.len() + 1);
}
