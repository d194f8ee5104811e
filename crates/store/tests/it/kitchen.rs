//! The kitchen, its own weights, and the file's settings.

use crate::{fresh, noon};
use pastry::heat::Surroundings;
use pastry::heat::stand::LearnedPlace;
use pastry::units::kitchen::Measures;
use pastry::units::{Density, RoomTemperature};
use store::StoreError;
use store::pantry::PantryItem;

#[tokio::test]
async fn the_room_is_kept_and_a_late_save_is_told() {
    let (_dir, store) = fresh().await;
    let mut kitchen = store.kitchen().await.unwrap();
    kitchen.room_temperature_c = RoomTemperature::from_celsius(26.5);
    kitchen.measures = Measures::Australian;
    kitchen.altitude_m = 1640.0;
    kitchen.places = vec![LearnedPlace { place: Surroundings::Fridge, h: 6.2 }];
    let saved = store.save_kitchen(&kitchen, &noon()).await.unwrap();
    assert_eq!(
        (saved.room_temperature_c.celsius(), saved.measures, saved.revision),
        (26.5, Measures::Australian, 2)
    );
    let read = store.kitchen().await.unwrap();
    assert_eq!((read.altitude_m, read.places), (1640.0, kitchen.places.clone()));
    assert!(matches!(
        store.save_kitchen(&kitchen, &noon()).await,
        Err(StoreError::Conflict { noun: _, based_on: 1, current: 2 })
    ));
}

#[tokio::test]
async fn own_weights_start_empty_and_keep_their_revisions() {
    let (_dir, store) = fresh().await;
    let mut item = store.pantry_item("cream48").await.unwrap();
    assert_eq!(item.revision, 0);
    item.density_g_per_ml = Some(Density::from_grams_per_millilitre(0.99));
    let saved = store.save_pantry_item(&item, &noon()).await.unwrap();
    assert_eq!(saved, PantryItem { revision: 1, ..item.clone() });
    assert!(matches!(store.save_pantry_item(&item, &noon()).await, Err(StoreError::Conflict { .. })));
    let cleared = PantryItem { density_g_per_ml: None, ..saved };
    assert_eq!(store.save_pantry_item(&cleared, &noon()).await.unwrap().revision, 2);
    assert_eq!(store.pantry().await.unwrap().len(), 1);
}
