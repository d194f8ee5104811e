//! Pictures in the kitchen's file: so many bytes and no more.

use crate::{fresh, noon};
use store::{SaveId, StoreError};

#[tokio::test]
async fn pictures_are_kept_up_to_their_room_and_gone_when_taken_away() {
    let (_dir, store) = fresh().await;
    let id = |text: &str| SaveId::read(text).unwrap();
    store.add_picture("batch-1", &id("picture-1"), ("crumb", &[1; 600]), 1000, &noon()).await.unwrap();
    // The answer was lost: it is there once.
    store.add_picture("batch-1", &id("picture-1"), ("crumb", &[1; 600]), 1000, &noon()).await.unwrap();
    let other = store.add_picture("batch-1", &id("picture-1"), ("", &[2; 600]), 9000, &noon()).await;
    assert!(matches!(other, Err(StoreError::SaveIdUsed)), "{other:?}");
    let full =
        store.add_picture("batch-2", &id("picture-2"), ("", &[2; 401]), 1000, &noon()).await.unwrap_err();
    assert!(matches!(full, StoreError::PicturesFull { .. }), "{full:?}");
    assert!(full.to_string().contains("take others away"), "{full}");
    store.add_picture("batch-2", &id("picture-2"), ("", &[2; 400]), 1000, &noon()).await.unwrap();
    assert_eq!(store.pictures_take().await.unwrap(), 1000);
    let of = store.pictures("batch-1").await.unwrap();
    assert_eq!((of.len(), of[0].words.as_str(), of[0].bytes), (1, "crumb", 600));
    assert_eq!(store.picture("batch-1", "picture-1").await.unwrap(), [1; 600]);
    assert!(store.picture("batch-2", "picture-1").await.is_err(), "of another batch");
    store.take_picture_away("batch-1", "picture-1", &noon()).await.unwrap();
    assert!(store.picture("batch-1", "picture-1").await.is_err());
    assert!(store.take_picture_away("batch-1", "picture-1", &noon()).await.is_err());
    assert_eq!(store.pictures_take().await.unwrap(), 400);
}
