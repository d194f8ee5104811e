//! Orders: every save a revision, the next to be eaten first, formulas found by key.

use crate::{document, fresh, new_key, noon};
use pastry::order::OrderDocument;
use store::StoreError;
use store::list::Place;
use store::noun::{COMPONENT, INGREDIENT, ORDER};

/// Put away.
const AWAY: Place = Place { tags: None, archived: true };

fn order(name: &str, served_at: Option<&str>) -> OrderDocument {
    OrderDocument {
        name: name.to_owned(),
        served_at: served_at.map(|when| when.parse().unwrap()),
        ..OrderDocument::empty(21.0)
    }
}

#[tokio::test]
async fn the_next_to_be_eaten_is_listed_first_and_those_without_a_date_last() {
    let (_dir, store) = fresh().await;
    for (name, when) in
        [("someday", None), ("later", Some("2026-12-24T10:00:00")), ("sooner", Some("2026-12-05T15:00:00"))]
    {
        store.create(&new_key(), &order(name, when), &noon()).await.unwrap();
    }
    let names: Vec<String> =
        store.list::<OrderDocument>().await.unwrap().into_iter().map(|own| own.name).collect();
    assert_eq!(names, ["sooner", "later", "someday"]);
}

#[tokio::test]
async fn the_second_of_two_editors_of_an_order_is_told() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &order("quay", None), &noon()).await.unwrap().id;
    let kept = store.save(&id, &order("quay, larger", None), 1, &noon()).await.unwrap();
    assert_eq!((kept.revision, kept.newest_revision), (2, 2));
    let refused = store.save(&id, &order("quay, mine", None), 1, &noon()).await.unwrap_err();
    assert!(matches!(refused, StoreError::Conflict { noun: _, based_on: 1, current: 2 }), "{refused}");
    assert_eq!(store.read::<OrderDocument>(&id, Some(1)).await.unwrap().document.name, "quay");
    let names: Vec<String> =
        store.history::<OrderDocument>(&id).await.unwrap().into_iter().map(|r| r.document.name).collect();
    assert_eq!(names, ["quay, larger", "quay"]);
    assert!(matches!(store.read::<OrderDocument>("none", None).await, Err(StoreError::NotFound { .. })));
    assert!(matches!(
        store.save("none", &order("a", None), 1, &noon()).await,
        Err(StoreError::NotFound { .. })
    ));
    assert!(matches!(store.place(ORDER, "none", &AWAY, &noon()).await, Err(StoreError::NotFound { .. })));
    store.place(ORDER, &id, &AWAY, &noon()).await.unwrap();
    assert!(store.list::<OrderDocument>().await.unwrap()[0].archived);
}

#[tokio::test]
async fn formulas_are_found_by_key_at_their_newest() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "100 g"), &noon()).await.unwrap().id;
    store.save(&id, &document("A, richer", "120 g"), 1, &noon()).await.unwrap();
    let found = store.formulas(&[&id, "none"]).await.unwrap();
    assert_eq!(found.len(), 1);
    assert_eq!(found[&id].name, "A, richer");
    assert!(store.formulas(&[]).await.unwrap().is_empty());
    assert_eq!(store.uses(COMPONENT, INGREDIENT).await.unwrap()["dark60"][0].name, "A, richer");
}
