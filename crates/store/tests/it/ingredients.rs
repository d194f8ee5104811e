//! Own ingredients: every save a revision, a batch is all or nothing, the shelf holds what is asked.

use crate::{document, fresh, noon};
use pastry::ingredient::{IngredientDocument, find};
use store::StoreError;
use store::library::Place;
use uuid::Uuid;

fn cream(key: &str) -> IngredientDocument {
    IngredientDocument::copy_of(find("cream36").unwrap(), key.to_owned(), "Meadow cream".to_owned())
}

#[tokio::test]
async fn a_batch_of_which_one_was_saved_in_between_keeps_nothing() {
    let (_dir, store) = fresh().await;
    store.save_own_ingredients(&[(cream("own-a"), 0)], None, noon()).await.unwrap();
    let batch = [(cream("own-b"), 0), (cream("own-a"), 0)];
    let refused = store.save_own_ingredients(&batch, None, noon()).await;
    assert!(matches!(refused, Err(StoreError::Conflict { noun: _, based_on: 0, current: 1 })), "{refused:?}");
    assert!(matches!(store.own_ingredient("own-b").await, Err(StoreError::NotFound { .. })));
    store.save_own_ingredients(&[(cream("own-a"), 1)], None, noon()).await.unwrap();
    assert_eq!(store.own_ingredient("own-a").await.unwrap().revision, 2);
}

#[tokio::test]
async fn the_shelf_holds_the_own_ingredients_that_are_asked_for() {
    let (_dir, store) = fresh().await;
    store.save_own_ingredients(&[(cream("own-a"), 0), (cream("own-b"), 0)], None, noon()).await.unwrap();
    let shelf = store.shelf(["own-a", "cream36", "own-none"]).await.unwrap();
    assert!(shelf.find("own-a").is_some() && shelf.find("cream36").is_some());
    assert!(shelf.find("own-b").is_none() && shelf.find("own-none").is_none());
}

#[tokio::test]
async fn where_used_follows_the_newest_revision_and_what_is_put_away() {
    let (_dir, store) = fresh().await;
    let id = store.create_component(Uuid::now_v7(), &document("A", "1 g"), None, noon()).await.unwrap().id;
    assert_eq!(store.used_in("dark60").await.unwrap()[0].name, "A");
    let mut without = document("A", "1 g");
    without.lines.remove(0);
    store.save_component(&id, &without, 1, None, noon()).await.unwrap();
    assert!(store.used_in("dark60").await.unwrap().is_empty());
    assert_eq!(store.uses().await.unwrap()["cream36"], 1);
    store.place_component(&id, &Place { tags: vec!["old".into()], archived: true }).await.unwrap();
    assert!(store.used_in("cream36").await.unwrap().is_empty());
    assert_eq!(store.components().await.unwrap()[0].tags, ["old"]);
}
