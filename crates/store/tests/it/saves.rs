//! Saves: everyone gets their own answer, and the same save twice is one.

use crate::{document, fresh, new_key, noon, under};
use pastry::assess::FormulaDocument;
use pastry::ingredient::{IngredientDocument, find};
use pastry::order::OrderDocument;
use store::pantry::PantryItem;
use store::{SaveId, StoreError};

fn cream(name: &str) -> IngredientDocument {
    IngredientDocument::copy_of(find("cream36").unwrap(), "own-a".to_owned(), name.to_owned())
}

#[test]
fn a_save_id_is_8_to_64_letters_digits_and_hyphens() {
    for good in ["abcdefgh", "01a21d5d-140a-71e8-95aa-5ba22a4e2658", &"a".repeat(64)] {
        assert!(SaveId::read(good).is_some(), "{good}");
    }
    for bad in ["", "short", "with space here", "ümlauteumlaute", &"a".repeat(65), "a:b:c:d:e"] {
        assert!(SaveId::read(bad).is_none(), "{bad}");
    }
}

/// Eight writers save the same ingredient at once, over and over: before answers came from inside the transaction,
/// 97 of 424 got somebody else's.
#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn of_many_writers_each_gets_the_answer_to_its_own_save() {
    let (_dir, store) = fresh().await;
    store.save_all(&[("own-a".to_owned(), cream("start"), 0)], &noon()).await.unwrap();
    let rounds = std::env::var("RACES").ok().and_then(|text| text.parse().ok()).unwrap_or(20);
    let writers: Vec<_> = (0..8)
        .map(|writer| {
            let store = store.clone();
            tokio::spawn(async move {
                let (mut won, mut based_on) = (0, 1);
                for round in 0..rounds {
                    let mine = cream(&format!("writer {writer}, round {round}"));
                    match store.save_all(&[("own-a".to_owned(), mine.clone(), based_on)], &noon()).await {
                        Ok(saved) => {
                            assert_eq!(saved[0].document, mine, "somebody else's answer");
                            assert_eq!(saved[0].revision, based_on + 1);
                            (won, based_on) = (won + 1, based_on + 1);
                        }
                        Err(StoreError::Conflict { current, .. }) => based_on = current,
                        Err(other) => panic!("{other}"),
                    }
                }
                won
            })
        })
        .collect();
    let mut won = 0;
    for writer in writers {
        won += writer.await.unwrap();
    }
    assert!(won > 0);
    assert_eq!(store.read::<IngredientDocument>("own-a", None).await.unwrap().revision, 1 + won);
}

#[tokio::test]
async fn the_same_save_again_is_answered_and_not_made_twice() {
    let (_dir, store) = fresh().await;
    let doc = document("A", "1 g");
    let first = store.create(&new_key(), &doc, &under("create-a")).await.unwrap();
    let again = store.create(&new_key(), &doc, &under("create-a")).await.unwrap();
    assert_eq!(first, again);
    assert_eq!(store.list::<FormulaDocument>().await.unwrap().len(), 1);

    let changed = document("A", "2 g");
    let saved = store.save(&first.id, &changed, 1, &under("change-a")).await.unwrap();
    let again = store.save(&first.id, &changed, 1, &under("change-a")).await.unwrap();
    assert_eq!(saved, again);
    // Also when others have saved since: it is told what it made, and that there is a newer one.
    store.save(&first.id, &document("B", "3 g"), 2, &noon()).await.unwrap();
    let late = store.save(&first.id, &changed, 1, &under("change-a")).await.unwrap();
    assert_eq!((late.revision, late.newest_revision, late.document.name.as_str()), (2, 3, "A"));
    assert_eq!(store.history::<FormulaDocument>(&first.id).await.unwrap().len(), 3);
}

#[tokio::test]
async fn a_save_id_for_another_save_is_refused() {
    let (_dir, store) = fresh().await;
    let used = under("used-once");
    let made = store.create(&new_key(), &document("A", "1 g"), &used).await.unwrap();
    let other = store.create(&new_key(), &document("B", "1 g"), &used).await;
    assert!(matches!(other, Err(StoreError::SaveIdUsed)), "{other:?}");
    let order = OrderDocument { name: "quay".into(), ..OrderDocument::empty(21.0) };
    let other = store.create(&new_key(), &order, &used).await;
    assert!(matches!(other, Err(StoreError::SaveIdUsed)), "{other:?}");
    let elsewhere = store.create(&new_key(), &document("C", "1 g"), &noon()).await.unwrap();
    let other = store.save(&elsewhere.id, &made.document, 1, &used).await;
    assert!(matches!(other, Err(StoreError::SaveIdUsed)), "{other:?}");
    assert_eq!(store.list::<OrderDocument>().await.unwrap(), []);
}

#[tokio::test]
async fn orders_ingredients_values_and_the_kitchen_know_their_saves_too() {
    let (_dir, store) = fresh().await;
    let order = OrderDocument { name: "quay".into(), ..OrderDocument::empty(21.0) };
    let made = store.create(&new_key(), &order, &under("order-one")).await.unwrap();
    let again = store.create(&new_key(), &order, &under("order-one")).await.unwrap();
    assert_eq!(made, again);

    let both = [("own-a".to_owned(), cream("mine"), 0)];
    let one = store.save_all(&both, &under("ingredient-one")).await.unwrap();
    let two = store.save_all(&both, &under("ingredient-one")).await.unwrap();
    assert_eq!(one, two);
    assert_eq!(store.read::<IngredientDocument>("own-a", None).await.unwrap().revision, 1);

    let item = PantryItem { archived: true, ..store.pantry_item("cream36").await.unwrap() };
    let one = store.save_pantry_item(&item, &under("item-one")).await.unwrap();
    let two = store.save_pantry_item(&item, &under("item-one")).await.unwrap();
    assert_eq!((one.revision, &one), (1, &two));

    let kitchen = store::kitchen::Kitchen { name: "Quay".into(), ..store.kitchen().await.unwrap() };
    let one = store.save_kitchen(&kitchen, &under("kitchen-one")).await.unwrap();
    let two = store.save_kitchen(&kitchen, &under("kitchen-one")).await.unwrap();
    assert_eq!((one.revision, &one), (2, &two));
}
