//! Own ingredients: every save a revision, a batch is all or nothing, the shelf holds what is asked.

use crate::{document, fresh, new_key, noon};
use pastry::assess::FormulaDocument;
use pastry::ingredient::{IngredientDocument, find};
use store::StoreError;
use store::list::Place;
use store::noun::{COMPONENT, INGREDIENT};

fn cream(key: &str) -> IngredientDocument {
    IngredientDocument::copy_of(find("cream36").unwrap(), key.to_owned(), "Meadow cream".to_owned())
}

#[tokio::test]
async fn a_batch_of_which_one_was_saved_in_between_keeps_nothing() {
    let (_dir, store) = fresh().await;
    store.save_all(&[("own-a".to_owned(), cream("own-a"), 0)], &noon()).await.unwrap();
    let batch = [("own-b".to_owned(), cream("own-b"), 0), ("own-a".to_owned(), cream("own-a"), 0)];
    let refused = store.save_all(&batch, &noon()).await;
    assert!(matches!(refused, Err(StoreError::Conflict { noun: _, based_on: 0, current: 1 })), "{refused:?}");
    assert!(matches!(
        store.read::<IngredientDocument>("own-b", None).await,
        Err(StoreError::NotFound { .. })
    ));
    store.save_all(&[("own-a".to_owned(), cream("own-a"), 1)], &noon()).await.unwrap();
    assert_eq!(store.read::<IngredientDocument>("own-a", None).await.unwrap().revision, 2);
}

#[tokio::test]
async fn the_shelf_holds_the_own_ingredients_that_are_asked_for() {
    let (_dir, store) = fresh().await;
    store
        .save_all(
            &[("own-a".to_owned(), cream("own-a"), 0), ("own-b".to_owned(), cream("own-b"), 0)],
            &noon(),
        )
        .await
        .unwrap();
    let shelf = store.shelf(["own-a", "cream36", "own-none"]).await.unwrap();
    assert!(shelf.find("own-a").is_some() && shelf.find("cream36").is_some());
    assert!(shelf.find("own-b").is_none() && shelf.find("own-none").is_none());
}

#[tokio::test]
async fn where_used_follows_the_newest_revision_and_what_is_put_away() {
    let (_dir, store) = fresh().await;
    let id = store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap().id;
    assert_eq!(store.used_in(COMPONENT, INGREDIENT, "dark60").await.unwrap()[0].name, "A");
    let mut without = document("A", "1 g");
    without.lines.remove(0);
    store.save(&id, &without, 1, &noon()).await.unwrap();
    assert!(store.used_in(COMPONENT, INGREDIENT, "dark60").await.unwrap().is_empty());
    assert_eq!(store.uses(COMPONENT, INGREDIENT).await.unwrap()["cream36"].len(), 1);
    store
        .place(COMPONENT, &id, &Place { tags: Some(vec!["old".into()]), archived: true }, &noon())
        .await
        .unwrap();
    assert!(store.used_in(COMPONENT, INGREDIENT, "cream36").await.unwrap().is_empty());
    assert_eq!(store.list::<FormulaDocument>().await.unwrap()[0].tags, ["old"]);
}
