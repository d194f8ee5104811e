//! How warm the fridges are: one that is above the kitchen's limit for too long is written down and told, with what stood in it.

use crate::batch_log::entries;
use devices::{DeviceKind, DeviceState, Hub};
use jiff::{SignedDuration, Timestamp};
use pastry::batch::BatchDocument;
use pastry::batch::fold::fold;
use serde::Serialize;
use std::collections::HashMap;
use std::time::Duration;
use store::fridge::FridgeEvent;
use store::journal::NewEvent;
use store::{By, SaveId, Store, StoreError};
use utoipa::ToSchema;
use uuid::Uuid;

/// The loggers are looked at so often.
const LOOK: Duration = Duration::from_secs(1);
/// Most of what was told that is told again.
const MOST_TOLD: usize = 20;

/// A fridge that is or was too warm.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WarmFridge {
    /// Its name.
    pub name: String,
    /// Since when.
    pub since: String,
    /// Until when; none while it is.
    pub until: Option<String>,
    /// What it is to a cook, in a sentence.
    pub words: String,
    /// What stood in it.
    pub held: Vec<String>,
}

/// How long a fridge has been above its limit, and whether that was said.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Above {
    since: Timestamp,
    warmest_c: f64,
    said: bool,
}

/// One look at a fridge: what is to be said of it now, and since when it is so.
///
/// # Arguments
/// * `above`: how it stood before; `c`: what its logger shows, °C; `limit`: °C and minutes.
pub fn look(
    above: &mut Option<Above>,
    c: f64,
    [most_c, most_min]: [f64; 2],
    now: Timestamp,
) -> Option<(Timestamp, FridgeEvent)> {
    if c <= most_c {
        let was = above.take().filter(|own| own.said)?;
        return Some((now, FridgeEvent::Cold { warmest_c: was.warmest_c }));
    }
    let own = above.get_or_insert(Above { since: now, warmest_c: c, said: false });
    own.warmest_c = own.warmest_c.max(c);
    let long = now.duration_since(own.since) >= SignedDuration::from_secs((60.0 * most_min).round() as i64);
    if own.said || !long {
        return None;
    }
    own.said = true;
    Some((own.since, FridgeEvent::Warm { most_c, c, held: Vec::new() }))
}

/// Looks at the fridges for as long as the kitchen is served.
pub async fn watch(hub: Hub, store: Store) {
    let mut all: HashMap<String, Option<Above>> = still_warm(&store).await.unwrap_or_default();
    let mut settings = store.devices().await.ok();
    let mut seen = store.saves();
    loop {
        tokio::time::sleep(LOOK).await;
        let fridges: Vec<_> = hub
            .now()
            .into_iter()
            .filter(|own| own.kind == DeviceKind::Fridge && own.state == DeviceState::Live)
            .collect();
        if fridges.is_empty() {
            continue;
        }
        if store.saves() != seen || settings.is_none() {
            seen = store.saves();
            settings = store.devices().await.ok();
        }
        let Some(limits) = settings.as_ref().map(|own| [own.fridge_most_c, own.fridge_most_min]) else {
            continue;
        };
        for own in fridges {
            let Some(c) = own.c else { continue };
            let above = all.entry(own.name.clone()).or_default();
            let before = *above;
            let Some((at, mut event)) = look(above, c, limits, Timestamp::now()) else { continue };
            if let FridgeEvent::Warm { held, .. } = &mut event {
                *held = stands_in(&store, &own.name).await.unwrap_or_default();
            }
            let id = SaveId::read(&Uuid::now_v7().to_string()).expect("a UUID is an id");
            let by = By::at(Timestamp::now());
            if let Err(error) = store.fridge_said(&own.name, NewEvent { id, at, event }, &by).await {
                tracing::warn!(%error, fridge = %own.name, "what happened to a fridge could not be written: tried again");
                *above = before;
            }
        }
    }
}

/// Batches that stand in a place, by name.
async fn stands_in(store: &Store, place: &str) -> Result<Vec<String>, StoreError> {
    let mut held = Vec::new();
    for id in store.batches_with("put").await? {
        let kept = store.read::<BatchDocument>(&id, None).await?;
        let (entries, _) = entries(&store.batch_events(&id, 0).await?);
        if fold(&kept.document, &entries).stands_in.as_deref() == Some(place) {
            held.push(kept.document.name);
        }
    }
    Ok(held)
}

/// Fridges that were too warm when the server stopped, and nobody saw them get cold.
async fn still_warm(store: &Store) -> Result<HashMap<String, Option<Above>>, StoreError> {
    let mut all = HashMap::new();
    for (name, events) in store.fridges().await? {
        if let Some(last) = events.last()
            && let FridgeEvent::Warm { c, .. } = last.event
            && let Ok(since) = last.at.parse()
        {
            all.insert(name, Some(Above { since, warmest_c: c, said: true }));
        }
    }
    Ok(all)
}

/// Fridges that are or were too warm, the last first.
///
/// # Errors
/// When the file fails.
pub async fn warm(store: &Store) -> Result<Vec<WarmFridge>, StoreError> {
    let mut all: Vec<WarmFridge> = Vec::new();
    for (name, events) in store.fridges().await? {
        for (at, event) in events.iter().enumerate() {
            let FridgeEvent::Warm { most_c, held, c } = &event.event else { continue };
            let after = events.get(at + 1).and_then(|own| match own.event {
                FridgeEvent::Cold { warmest_c } => Some((own.at.clone(), warmest_c)),
                FridgeEvent::Warm { .. } => None,
            });
            let what = match held.len() {
                0 => String::new(),
                _ => format!(" In it: {}.", held.join(", ")),
            };
            let words = match &after {
                None => format!(
                    "{name} is warmer than {most_c} °C: {c:.1} °C when that was noticed.{what} Look at it now; what may still be used, your local code says."
                ),
                Some((_, warmest_c)) => format!(
                    "{name} was warmer than {most_c} °C, up to {warmest_c:.1} °C.{what} What may still be used, your local code says."
                ),
            };
            all.push(WarmFridge {
                name: name.clone(),
                since: event.at.clone(),
                until: after.map(|(at, _)| at),
                words,
                held: held.clone(),
            });
        }
    }
    all.sort_by(|a, b| b.since.cmp(&a.since));
    all.truncate(MOST_TOLD);
    Ok(all)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(min: i64) -> Timestamp {
        Timestamp::UNIX_EPOCH + SignedDuration::from_mins(min)
    }

    #[test]
    fn a_door_that_was_open_is_not_told_and_a_warm_hour_is_told_once() {
        let mut above = None;
        let limits = [8.0, 20.0];
        assert_eq!(look(&mut above, 12.0, limits, at(0)), None);
        assert_eq!(look(&mut above, 6.0, limits, at(5)), None, "it was open for five minutes");
        assert_eq!(look(&mut above, 9.0, limits, at(10)), None);
        assert_eq!(look(&mut above, 11.5, limits, at(29)), None);
        let told = look(&mut above, 11.0, limits, at(30));
        assert_eq!(told, Some((at(10), FridgeEvent::Warm { most_c: 8.0, c: 11.0, held: Vec::new() })));
        assert_eq!(look(&mut above, 12.5, limits, at(60)), None, "it is told once");
        assert_eq!(
            look(&mut above, 8.0, limits, at(90)),
            Some((at(90), FridgeEvent::Cold { warmest_c: 12.5 }))
        );
        assert_eq!(look(&mut above, 5.0, limits, at(95)), None);
    }
}
