//! The journal: events are only added, sent twice they are there once, and their order is that of their coming.

use crate::{fresh, noon};
use serde::{Deserialize, Serialize};
use sqlx::{Connection, SqliteConnection};
use std::collections::BTreeSet;
use store::journal::{Event, NewEvent};
use store::noun::BATCH;
use store::{Device, SaveId, StoreError, copies};

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
enum Happening {
    Weighed { line: usize, grams: f64 },
    Noted(String),
}

impl Event for Happening {
    const DESCRIBED: &'static str = "KeptHappening";
}

fn weighed(id: &str, grams: f64) -> NewEvent<Happening> {
    let at = "2026-01-05T11:58:30Z".parse().unwrap();
    NewEvent { id: SaveId::read(id).unwrap(), at, event: Happening::Weighed { line: 0, grams } }
}

#[tokio::test]
async fn events_keep_their_order_and_say_who_and_when() {
    let (_dir, store) = fresh().await;
    let by = noon().on(Device::read("Scale"));
    store.append(BATCH, "b-1", &[weighed("event-01", 212.0), weighed("event-02", 80.5)], &by).await.unwrap();
    store.append(BATCH, "b-2", &[weighed("event-03", 1.0)], &by).await.unwrap();
    store.append(BATCH, "b-1", &[weighed("event-04", 5.0)], &by).await.unwrap();
    let events = store.events::<Happening>(BATCH, "b-1", 0).await.unwrap();
    let ids: Vec<_> = events.iter().map(|event| (event.place, event.id.as_str())).collect();
    assert_eq!(ids, [(1, "event-01"), (2, "event-02"), (3, "event-04")]);
    let first = &events[0];
    assert_eq!(first.event, Happening::Weighed { line: 0, grams: 212.0 });
    assert_eq!((first.at.as_str(), first.kept_at.as_str()), ("2026-01-05T11:58:30Z", "2026-01-05T12:00:00Z"));
    assert_eq!(first.device.as_deref(), Some("Scale"));
    // A device that was away asks for what came since.
    assert_eq!(store.events::<Happening>(BATCH, "b-1", 2).await.unwrap(), events[2..]);
    assert!(store.events::<Happening>(BATCH, "none", 0).await.unwrap().is_empty());
}

#[tokio::test]
async fn an_event_sent_twice_is_there_once_and_another_under_its_id_is_refused() {
    let (_dir, store) = fresh().await;
    let first = store.append(BATCH, "b-1", &[weighed("event-01", 212.0)], &noon()).await.unwrap();
    let saves = store.saves();
    // The answer was lost and the device sends again, with one more.
    let both = [weighed("event-01", 212.0), weighed("event-02", 80.0)];
    let again = store.append(BATCH, "b-1", &both, &noon()).await.unwrap();
    assert_eq!((again[0].clone(), again[1].place), (first[0].clone(), 2));
    assert_eq!(store.append(BATCH, "b-1", &both, &noon()).await.unwrap(), again);
    assert_eq!(store.saves(), saves + 1, "what adds nothing is no save");
    let others: [(&str, &[NewEvent<Happening>]); 2] = [
        ("b-1", &[weighed("event-09", 3.0), weighed("event-01", 221.0)]),
        ("b-2", &[weighed("event-01", 212.0)]),
    ];
    for (key, events) in others {
        let refused = store.append(BATCH, key, events, &noon()).await;
        assert!(matches!(refused, Err(StoreError::EventIdUsed)), "{refused:?}");
    }
    assert_eq!(store.events::<Happening>(BATCH, "b-1", 0).await.unwrap(), again, "all or none");
}

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn of_many_devices_every_event_gets_a_place_of_its_own() {
    let (_dir, store) = fresh().await;
    let devices: Vec<_> = (0..6)
        .map(|device| {
            let store = store.clone();
            tokio::spawn(async move {
                for k in 0..20 {
                    let event = weighed(&format!("device-{device}-{k}"), f64::from(k));
                    store.append(BATCH, "b-1", &[event], &noon()).await.unwrap();
                }
            })
        })
        .collect();
    for device in devices {
        device.await.unwrap();
    }
    let events = store.events::<Happening>(BATCH, "b-1", 0).await.unwrap();
    assert!(events.iter().map(|event| event.place).eq(1..=120));
    assert_eq!(events.iter().map(|event| &event.id).collect::<BTreeSet<_>>().len(), 120);
    for device in 0..6 {
        let own = format!("device-{device}-");
        let order: Vec<_> = events.iter().filter_map(|event| event.id.strip_prefix(&own)).collect();
        assert!(order.iter().map(|k| k.parse::<u32>().unwrap()).eq(0..20), "device {device}: {order:?}");
    }
}

#[tokio::test]
async fn no_event_can_be_changed_deleted_or_replaced_and_damage_is_found() {
    let (_dir, store) = fresh().await;
    let note = NewEvent { event: Happening::Noted("skin on it".into()), ..weighed("event-01", 0.0) };
    store.append(BATCH, "b-1", &[note], &noon()).await.unwrap();
    let mut raw = SqliteConnection::connect(&format!("sqlite://{}", store.path().display())).await.unwrap();
    for sql in [
        "UPDATE events SET event = '{}'",
        "DELETE FROM events",
        "REPLACE INTO events SELECT noun, key, place, id, at, kept_at, device, hash, '{}' FROM events",
        "REPLACE INTO events SELECT noun, 'b-9', 1, id, at, kept_at, device, hash, event FROM events",
    ] {
        let error = sqlx::query(sql).execute(&mut raw).await.unwrap_err().to_string();
        assert!(error.contains("an event is never"), "{sql}: {error}");
    }
    assert!(copies::verify(store.path()).await.is_ok());
    // What a bad disk does: no trigger is asked.
    sqlx::query("DROP TRIGGER events_do_not_change").execute(&mut raw).await.unwrap();
    sqlx::query("UPDATE events SET event = replace(event, 'skin', 'sand')").execute(&mut raw).await.unwrap();
    let read = store.events::<Happening>(BATCH, "b-1", 0).await.unwrap_err();
    let verified = copies::verify(store.path()).await.unwrap_err();
    for error in [read, verified] {
        assert!(matches!(error, StoreError::DamagedEvent { place: 1, .. }), "{error:?}");
        assert!(error.to_string().contains("bright-spoon restore"), "{error}");
    }
}
