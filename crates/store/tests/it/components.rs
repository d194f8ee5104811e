//! Every save is a revision; nothing is overwritten in silence.

use crate::{document, fresh, new_key, noon};
use pastry::assess::FormulaDocument;
use store::{Store, StoreError};

#[tokio::test]
async fn what_was_typed_is_kept_word_for_word_through_a_restart() {
    let (dir, store) = fresh().await;
    let made = store.create(&new_key(), &document("Bay drip", "1 1/2 cups"), &noon()).await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("kitchen.db")).await.unwrap();
    let read = store.read::<FormulaDocument>(&made.id, None).await.unwrap();
    assert_eq!(read, made);
    assert_eq!(read.document.lines[0].amount, "1 1/2 cups");
    assert_eq!(read.saved_at, "2026-01-05T12:00:00Z");
}

#[tokio::test]
async fn every_save_is_a_new_revision_and_the_old_ones_stay() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "100 g"), &noon()).await.unwrap().id;
    store.save(&id, &document("A, richer", "120 g"), 1, &noon()).await.unwrap();
    let newest = store.save(&id, &document("A, richer", "130 g"), 2, &noon()).await.unwrap();
    assert_eq!((newest.revision, newest.newest_revision), (3, 3));
    let first = store.read::<FormulaDocument>(&id, Some(1)).await.unwrap();
    assert_eq!((first.document.lines[0].amount.as_str(), first.newest_revision), ("100 g", 3));
    let names: Vec<_> = store
        .history::<FormulaDocument>(&id)
        .await
        .unwrap()
        .into_iter()
        .map(|r| (r.revision, r.document.name))
        .collect();
    assert_eq!(names, [(3, "A, richer".into()), (2, "A, richer".into()), (1, "A".into())]);
    let listed = store.list::<FormulaDocument>().await.unwrap();
    assert_eq!((listed.len(), listed[0].name.as_str(), listed[0].revision), (1, "A, richer", 3));
}

#[tokio::test]
async fn the_second_of_two_editors_is_told() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "100 g"), &noon()).await.unwrap().id;
    store.save(&id, &document("mine", "110 g"), 1, &noon()).await.unwrap();
    match store.save(&id, &document("theirs", "90 g"), 1, &noon()).await {
        Err(StoreError::Conflict { noun: _, based_on: 1, current: 2 }) => {}
        other => panic!("expected a conflict, got {other:?}"),
    }
    assert_eq!(store.read::<FormulaDocument>(&id, None).await.unwrap().document.name, "mine");
}

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn of_many_saves_at_once_exactly_one_wins() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "100 g"), &noon()).await.unwrap().id;
    let tries: Vec<_> = (0..12)
        .map(|k| {
            let (store, id) = (store.clone(), id.clone());
            tokio::spawn(async move { store.save(&id, &document(&format!("B{k}"), "1 g"), 1, &noon()).await })
        })
        .collect();
    let mut won = 0;
    for one in tries {
        match one.await.unwrap() {
            Ok(_) => won += 1,
            Err(StoreError::Conflict { current: 2, .. }) => {}
            Err(other) => panic!("{other}"),
        }
    }
    assert_eq!(won, 1);
    assert_eq!(store.history::<FormulaDocument>(&id).await.unwrap().len(), 2);
}

#[tokio::test]
async fn what_is_not_there_is_said() {
    let (_dir, store) = fresh().await;
    let error = store.read::<FormulaDocument>("nope", None).await.unwrap_err();
    assert_eq!(error.to_string(), "there is no formula nope");
    assert!(matches!(store.history::<FormulaDocument>("nope").await, Err(StoreError::NotFound { .. })));
    let missing = store.save("nope", &document("A", "1 g"), 1, &noon()).await;
    assert!(matches!(missing, Err(StoreError::NotFound { .. })));
}
