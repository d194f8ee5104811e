//! What this kitchen's own tests taught, worked out anew when a test was done, corrected or left out.

use crate::batch_log::{entries, shelf_of};
use crate::desk::Desk;
use crate::error::ApiError;
use pastry::batch::BatchDocument;
use pastry::batch::tested::taught;
use pastry::belief::{Beliefs, Quantity};
use pastry::learn::{Learned, Taught};
use std::collections::HashMap;
use std::sync::{Arc, Mutex};
use store::Store;

/// What was learned, and from what.
#[derive(Debug, Default)]
pub struct Lessons {
    /// Readings of yield stress, then of viscosity.
    pub readings: [Vec<Taught>; 2],
    /// What they taught.
    pub learned: Learned,
}

/// What a batch taught when it had so many events.
type OfBatch = (usize, Vec<(Quantity, Taught)>);

/// What this kitchen has learned.
#[derive(Debug, Clone, Default)]
pub struct Teaching {
    inner: Arc<Inner>,
}

#[derive(Debug, Default)]
struct Inner {
    by_batch: Mutex<HashMap<String, OfBatch>>,
    now: Mutex<Arc<Lessons>>,
}

impl Teaching {
    /// What was learned so far.
    pub fn now(&self) -> Arc<Lessons> {
        self.inner.now.lock().map_or_else(|_| Arc::default(), |now| now.clone())
    }

    /// Learns from every test of every batch; a batch to which nothing happened since is not folded again.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn learn(&self, store: &Store, desk: &Desk) -> Result<(), ApiError> {
        let mut all: HashMap<String, OfBatch> = HashMap::new();
        for key in store.batches_with("tested").await? {
            let events = store.batch_events(&key, 0).await?;
            let known = self.inner.by_batch.lock().ok().and_then(|own| own.get(&key).cloned());
            let own = match known {
                Some(known) if known.0 == events.len() => known,
                _ => {
                    let batch = store.read::<BatchDocument>(&key, None).await?.document;
                    let (entries, _) = entries(&events);
                    let shelf = shelf_of(store, &batch, entries.iter()).await?;
                    let of = key.clone();
                    let lessons = desk.work_out(move || Ok(taught(&batch, &of, &entries, &shelf))).await?;
                    (events.len(), lessons)
                }
            };
            all.insert(key, own);
        }
        let of = |wanted: Quantity| -> Vec<Taught> {
            let own = all.values().flat_map(|own| &own.1).filter(|own| own.0 == wanted);
            let mut own: Vec<Taught> = own.map(|own| own.1.clone()).collect();
            own.sort_by(|a, b| a.id.cmp(&b.id));
            own
        };
        let readings = [of(Quantity::Yield), of(Quantity::Viscosity)];
        let learned = Learned::from(&readings[0], &readings[1]);
        store.teach(Beliefs {
            of_yield: learned.of_yield.posterior.clone(),
            of_viscosity: learned.of_viscosity.posterior.clone(),
        });
        if let Ok(mut by_batch) = self.inner.by_batch.lock() {
            *by_batch = all;
        }
        if let Ok(mut now) = self.inner.now.lock() {
            *now = Arc::new(Lessons { readings, learned });
        }
        Ok(())
    }
}
