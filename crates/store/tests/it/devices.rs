//! Devices, what is told of fridges, and what the stream is told.

use crate::{document, fresh, noon};
use devices::{DeviceAddress, DeviceKind};
use store::StoreError;
use store::devices::Settings;
use store::fridge::FridgeEvent;
use store::journal::NewEvent;
use store::{By, SaveId};

fn scale(name: &str) -> DeviceAddress {
    DeviceAddress { kind: DeviceKind::Scale, name: name.to_owned(), address: "127.0.0.1:4721".to_owned() }
}

#[tokio::test]
async fn devices_are_kept_and_a_late_save_is_told() {
    let (_dir, store) = fresh().await;
    let first = store.devices().await.unwrap();
    assert_eq!(first, Settings::default());
    let named = Settings { devices: vec![scale("Bench")], fridge_most_c: 5.0, ..first.clone() };
    let by = noon().under(SaveId::read("save-of-the-devices"));
    let saved = store.save_devices(&named, &by).await.unwrap();
    assert_eq!(saved, Settings { revision: 1, ..named.clone() });
    assert_eq!(store.devices().await.unwrap(), saved);
    // The same save again is the same save; another on top of what was read before is told.
    assert_eq!(store.save_devices(&named, &by).await.unwrap(), saved);
    let late = store.save_devices(&Settings { devices: vec![scale("Other")], ..first }, &noon()).await;
    assert!(matches!(late, Err(StoreError::Conflict { based_on: 0, current: 1, .. })), "{late:?}");
}

#[tokio::test]
async fn everything_written_since_a_line_is_told_once() {
    let (_dir, store) = fresh().await;
    let begun = store.last_line().await.unwrap();
    let kept = store.create("a-key-of-the-test", &document("Drip", "100 g"), &noon()).await.unwrap();
    store
        .save_devices(&Settings { devices: vec![scale("Bench")], ..Settings::default() }, &noon())
        .await
        .unwrap();
    let (last, changed) = store.changed_since(begun).await.unwrap();
    let told: Vec<(&str, &str)> = changed.iter().map(|own| (own.noun.as_str(), own.key.as_str())).collect();
    assert_eq!(told, [("component", kept.id.as_str()), ("devices", "devices")]);
    assert_eq!(last, store.last_line().await.unwrap());
    assert_eq!(store.changed_since(last).await.unwrap(), (last, Vec::new()));
}

#[tokio::test]
async fn a_fridge_has_its_own_journal() {
    let (_dir, store) = fresh().await;
    let at = |text: &str| text.parse().unwrap();
    let new = |id: &str, when: &str, event: FridgeEvent| NewEvent {
        id: SaveId::read(id).unwrap(),
        at: at(when),
        event,
    };
    let warm = FridgeEvent::Warm { most_c: 8.0, c: 11.2, held: vec!["Bay drip".to_owned()] };
    let by = By::at(at("2026-01-05T12:30:00Z"));
    store
        .fridge_said("Cream fridge", new("fridge-event-1", "2026-01-05T12:00:00Z", warm.clone()), &by)
        .await
        .unwrap();
    let cold = FridgeEvent::Cold { warmest_c: 12.0 };
    store
        .fridge_said("Cream fridge", new("fridge-event-2", "2026-01-05T13:00:00Z", cold.clone()), &by)
        .await
        .unwrap();
    let all = store.fridges().await.unwrap();
    assert_eq!(all.len(), 1);
    let events: Vec<&FridgeEvent> = all[0].1.iter().map(|own| &own.event).collect();
    assert_eq!((all[0].0.as_str(), events), ("Cream fridge", vec![&warm, &cold]));
}
