//! The audit: one line of every write, by whom and when, never changed.

use crate::{document, fresh, new_key, noon, under};
use pastry::batch::BatchEvent;
use pastry::ingredient::{IngredientDocument, find};
use pastry::order::OrderDocument;
use sqlx::{Connection, SqliteConnection};
use store::Device;
use store::audit::{MOST_LINES, What};
use store::journal::NewEvent;
use store::list::Place;
use store::noun::{BATCH, COMPONENT};

#[tokio::test]
async fn every_write_leaves_one_line_with_who_when_and_what() {
    let (_dir, store) = fresh().await;
    let by = noon().on(Device::read(" Tablet by the oven "));
    let id = store.create(&new_key(), &document("A", "1 g"), &by).await.unwrap().id;
    store.save(&id, &document("A", "2 g"), 1, &noon()).await.unwrap();
    store.place(COMPONENT, &id, &Place { tags: None, archived: true }, &by).await.unwrap();
    let own = IngredientDocument::copy_of(find("cream36").unwrap(), "own-a".into(), "Meadow cream".into());
    let other = IngredientDocument { key: "own-b".into(), ..own.clone() };
    let both = [("own-a".to_owned(), own, 0), ("own-b".to_owned(), other, 0)];
    store.save_all(&both, &by).await.unwrap();
    store
        .create("order-1", &OrderDocument { name: "quay".into(), ..OrderDocument::empty(21.0) }, &by)
        .await
        .unwrap();
    let kitchen = store.kitchen().await.unwrap();
    store.save_kitchen(&kitchen, &by).await.unwrap();
    let item = store.pantry_item("cream36").await.unwrap();
    store.save_pantry_item(&item, &by).await.unwrap();
    let noted = BatchEvent::Noted { words: "begun".into() };
    let event = NewEvent { id: store::SaveId::read("event-01").unwrap(), at: by.now, event: noted };
    store.append(BATCH, "b-1", &[event], &by).await.unwrap();

    let lines = store.audit(MOST_LINES).await.unwrap();
    let told: Vec<_> =
        lines.iter().rev().map(|line| (line.what, line.noun.as_str(), line.revision)).collect();
    assert_eq!(
        told,
        [
            (What::Saved, "component", Some(1)),
            (What::Saved, "component", Some(2)),
            (What::Placed, "component", None),
            (What::Saved, "ingredient", Some(1)),
            (What::Saved, "ingredient", Some(1)),
            (What::Saved, "order", Some(1)),
            (What::Saved, "kitchen", Some(2)),
            (What::Saved, "pantry", Some(1)),
            (What::Happened, "batch", None),
        ]
    );
    let first = lines.last().unwrap();
    assert_eq!(
        (first.device.as_deref(), first.at.as_str()),
        (Some("Tablet by the oven"), "2026-01-05T12:00:00Z")
    );
    assert_eq!(lines[lines.len() - 2].device, None);
    assert_eq!(store.audit(2).await.unwrap(), lines[..2]);
}

#[tokio::test]
async fn what_was_refused_or_made_before_leaves_none() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "1 g"), &under("create-a")).await.unwrap().id;
    store.create(&new_key(), &document("A", "1 g"), &under("create-a")).await.unwrap();
    store.save(&id, &document("B", "1 g"), 7, &noon()).await.unwrap_err();
    store.place(COMPONENT, "none", &Place { tags: None, archived: true }, &noon()).await.unwrap_err();
    assert_eq!(store.audit(MOST_LINES).await.unwrap().len(), 1);
}

#[tokio::test]
async fn no_line_can_be_changed_deleted_or_replaced_even_from_outside() {
    let (_dir, store) = fresh().await;
    store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap();
    let mut raw = SqliteConnection::connect(&format!("sqlite://{}", store.path().display())).await.unwrap();
    for sql in [
        "UPDATE audit SET what = 'nothing'",
        "DELETE FROM audit",
        "REPLACE INTO audit SELECT id, at, 'somebody', what, noun, key, revision FROM audit",
    ] {
        let error = sqlx::query(sql).execute(&mut raw).await.unwrap_err().to_string();
        assert!(error.contains("a line of the audit is never"), "{sql}: {error}");
    }
}

#[test]
fn a_device_is_named_in_1_to_60_letters() {
    for good in ["x", "Tablet by the oven", "Ofen-Gerät 2", &"a".repeat(60)] {
        assert!(Device::read(good).is_some(), "{good}");
    }
    for bad in ["", "   ", "two\nlines", "bell\u{7}", &"a".repeat(61)] {
        assert!(Device::read(bad).is_none(), "{bad}");
    }
}
