//! Backup, verify, restore: while in use, checked, nothing overwritten.

use crate::{document, fresh, new_key, noon};
use pastry::assess::FormulaDocument;
use store::{Store, StoreError, copies};

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn a_copy_made_while_others_save_is_whole_and_holds_what_was_answered() {
    let (dir, store) = fresh().await;
    let first = store.create(&new_key(), &document("first", "1 g"), &noon()).await.unwrap();
    let saving = {
        let store = store.clone();
        tokio::spawn(async move {
            for k in 0..60 {
                let doc = document(&format!("{k}"), "1 g");
                store.create(&new_key(), &doc, &noon()).await.unwrap();
            }
        })
    };
    let copy = dir.path().join("copy.db");
    let found = copies::backup(store.path(), &copy).await.unwrap();
    saving.await.unwrap();
    assert!(found.counts[0].things >= 1);
    let again = copies::backup(store.path(), &copy).await.unwrap_err();
    assert!(matches!(again, StoreError::Exists(_)), "{again:?}");

    // Put back elsewhere it is a kitchen like any other.
    let elsewhere = dir.path().join("elsewhere.db");
    let restored = copies::restore(&copy, &elsewhere, noon().now).await.unwrap();
    assert_eq!((restored.verified, restored.aside), (found, Vec::new()));
    let back = Store::open(&elsewhere).await.unwrap();
    assert_eq!(back.read::<FormulaDocument>(&first.id, None).await.unwrap(), first);
    back.close().await;
}

#[tokio::test]
async fn a_kitchen_in_use_is_not_replaced_and_an_old_one_is_set_aside() {
    let (dir, store) = fresh().await;
    let path = store.path().to_owned();
    store.create(&new_key(), &document("kept", "1 g"), &noon()).await.unwrap();
    let copy = dir.path().join("copy.db");
    copies::backup(&path, &copy).await.unwrap();
    store.create(&new_key(), &document("later", "1 g"), &noon()).await.unwrap();
    let refused = copies::restore(&copy, &path, noon().now).await.unwrap_err();
    assert!(matches!(refused, StoreError::InUse { .. }), "{refused:?}");
    store.close().await;

    let restored = copies::restore(&copy, &path, noon().now).await.unwrap();
    assert_eq!(restored.verified.counts[0].things, 1);
    assert_eq!(restored.aside.len(), 1);
    assert!(restored.aside[0].to_string_lossy().contains("kitchen-set-aside-2026-01-05-120000.db"));
    assert_eq!(copies::verify(&restored.aside[0]).await.unwrap().counts[0].things, 2);
    let back = Store::open(&path).await.unwrap();
    assert_eq!(back.list::<FormulaDocument>().await.unwrap()[0].name, "kept");
    back.close().await;
}

#[tokio::test]
async fn what_is_no_kitchen_is_not_put_in_the_place_of_one() {
    let (dir, store) = fresh().await;
    let path = store.path().to_owned();
    store.close().await;
    let letter = dir.path().join("letter.db");
    std::fs::write(&letter, "no kitchen at all ".repeat(100)).unwrap();
    assert!(matches!(copies::restore(&letter, &path, noon().now).await, Err(StoreError::NotOurs(_))));
    let none = dir.path().join("none.db");
    assert!(matches!(copies::restore(&none, &path, noon().now).await, Err(StoreError::NoFile(_))));
    assert!(matches!(copies::verify(&none).await, Err(StoreError::NoFile(_))));
    assert!(matches!(copies::backup(&none, &dir.path().join("b.db")).await, Err(StoreError::NoFile(_))));
    assert!(matches!(copies::restore(&path, &path, noon().now).await, Err(StoreError::Exists(_))));
    assert!(copies::verify(&path).await.is_ok(), "it is as it was");
}
