//! What this kitchen's own tests taught, worked out anew when a test was done, corrected or left out, or an offset set back.

use crate::batch_log::{entries, shelf_of};
use crate::desk::Desk;
use crate::error::ApiError;
use jiff::Timestamp;
use pastry::batch::BatchDocument;
use pastry::batch::tested::{BatchTest, taught};
use pastry::belief::{Beliefs, Quantity};
use pastry::formula::Family;
use pastry::learn::{
    Learned, LearningEntry, OverTime, SetBack, Taught, as_they_were, before_each, over_time, standing,
};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, OnceLock};
use std::time::Duration;
use store::{Store, StoreError};
use tokio::sync::Notify;

/// A test with the batch it was done on.
#[derive(Debug, Clone)]
pub struct TestOf {
    /// Key of the batch.
    pub batch: String,
    /// Its name.
    pub name: String,
    /// Its family.
    pub family: Family,
    /// What was done and read.
    pub test: BatchTest,
}

/// What was learned, and from what.
#[derive(Debug, Default)]
pub struct Lessons {
    /// Readings of yield stress, then of viscosity.
    pub readings: [Vec<Taught>; 2],
    /// What they taught.
    pub learned: Learned,
    /// Every test of every batch, the oldest first.
    pub tests: Vec<TestOf>,
    /// What was set back.
    pub set_back: Vec<SetBack>,
    /// How many tested batches cannot be read: they teach nothing.
    pub unread: usize,
    /// How many decisions of what was learned cannot be read: they are as if they had not been made.
    pub undecided: usize,
    before: OnceLock<[Vec<(f64, f64)>; 2]>,
}

impl Lessons {
    /// What was expected of each reading by those before it, in their order; worked out when it is first asked for.
    pub fn before(&self) -> &[Vec<(f64, f64)>; 2] {
        self.before.get_or_init(|| [before_each(&self.readings[0]), before_each(&self.readings[1])])
    }

    /// Whether the predictions of stiffness get better.
    pub fn over_time(&self) -> OverTime {
        over_time(&self.readings[0], &self.before()[0], &self.learned.of_yield)
    }
}

/// What a batch taught when it had so many events.
type OfBatch = (usize, Vec<(Quantity, Taught)>, Vec<TestOf>);

/// What this kitchen has learned.
#[derive(Debug, Clone, Default)]
pub struct Teaching {
    inner: Arc<Inner>,
}

#[derive(Debug, Default)]
struct Inner {
    // One at a time: an older answer never takes the place of a newer one. In it how often ingredients had been saved then: of what they
    // are made of hangs what the book says of a batch.
    turn: tokio::sync::Mutex<i64>,
    by_batch: Mutex<HashMap<String, OfBatch>>,
    now: Mutex<Arc<Lessons>>,
    /// Something was to be learned from, and who said so left or was refused before it was.
    missed: Notify,
}

/// That something is being written down which is to be learned from: unless it says that it was, [`Teaching::follow`] learns from it.
#[must_use]
#[derive(Debug)]
pub struct ToLearn<'a> {
    teaching: &'a Teaching,
    done: bool,
}

impl ToLearn<'_> {
    /// Learns.
    ///
    /// # Errors
    /// When the file fails, or too much else is worked out: then it is learned as soon as that can be.
    pub async fn learn(mut self, store: &Store, desk: &Desk) -> Result<(), ApiError> {
        self.teaching.learn(store, desk).await?;
        self.done = true;
        Ok(())
    }
}

impl Drop for ToLearn<'_> {
    fn drop(&mut self) {
        if !self.done {
            self.teaching.inner.missed.notify_one();
        }
    }
}

/// So long after it could not be learned it is tried again.
const AGAIN: Duration = Duration::from_secs(2);

impl Teaching {
    /// What was learned so far.
    pub fn now(&self) -> Arc<Lessons> {
        self.inner.now.lock().map_or_else(|_| Arc::default(), |now| now.clone())
    }

    /// To be said before something is written that is to be learned from: a request whose asker leaves ends anywhere.
    pub fn promise(&self) -> ToLearn<'_> {
        ToLearn { teaching: self, done: false }
    }

    /// Learns anew whenever an own ingredient was saved, and what was missed, until the kitchen is closed.
    pub async fn follow(&self, store: &Store, desk: &Desk) {
        let mut written = store.written();
        let mut owed = false;
        loop {
            let before = *self.inner.turn.lock().await;
            match store.ingredients_saved().await {
                Ok(saved) => owed |= saved != before,
                Err(error) => tracing::error!(?error, "the kitchen's file cannot be asked what was saved"),
            }
            if owed {
                match self.learn(store, desk).await {
                    Ok(()) => owed = false,
                    Err(error) => {
                        tracing::error!(?error, "what was tested could not be learned from: tried again")
                    }
                }
            }
            tokio::select! {
                open = written.changed() => if open.is_err() { break },
                () = self.inner.missed.notified() => owed = true,
                () = tokio::time::sleep(AGAIN), if owed => {}
            }
        }
    }

    /// Learns from every test of every batch; a batch to which nothing happened since is not folded again.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn learn(&self, store: &Store, desk: &Desk) -> Result<(), ApiError> {
        let mut saved_then = self.inner.turn.lock().await;
        let saved = store.ingredients_saved().await?;
        if saved != *saved_then
            && let Ok(mut by_batch) = self.inner.by_batch.lock()
        {
            by_batch.clear();
        }
        let mut all: HashMap<String, OfBatch> = HashMap::new();
        let mut unread = 0;
        for (key, happened) in store.batches_with_counted("tested").await? {
            let known = self.inner.by_batch.lock().ok().and_then(|own| own.get(&key).cloned());
            if let Some(known) = known.filter(|own| own.0 == happened) {
                all.insert(key, known);
                continue;
            }
            match of_batch(store, desk, &key).await {
                Ok(own) => {
                    all.insert(key, own);
                }
                Err(ApiError::Store(
                    StoreError::Damaged { .. } | StoreError::DamagedEvent { .. } | StoreError::Document(_),
                )) => {
                    tracing::error!(key, "a tested batch cannot be read: run bright-spoon verify");
                    unread += 1;
                }
                Err(error) => return Err(error),
            }
        }
        let (decided, undecided) = decisions(store).await?;
        if undecided > 0 {
            tracing::error!(
                undecided,
                "what was decided of what was learned cannot all be read: run bright-spoon verify"
            );
        }
        let set_back = standing(&decided);
        let of = |wanted: Quantity| -> Vec<Taught> {
            let own = all.values().flat_map(|own| &own.1).filter(|own| own.0 == wanted);
            let mut own: Vec<Taught> = own.map(|own| own.1.clone()).collect();
            own.sort_by(|a, b| a.id.cmp(&b.id));
            as_they_were(&own, wanted, &set_back)
        };
        let readings = [of(Quantity::Yield), of(Quantity::Viscosity)];
        let mut tests: Vec<TestOf> = all.values().flat_map(|own| own.2.clone()).collect();
        tests.sort_by(|a, b| a.test.at.cmp(&b.test.at).then_with(|| a.test.id.cmp(&b.test.id)));
        let (readings, learned) = desk
            .work_out(move || {
                let learned = Learned::from(&readings[0], &readings[1]);
                Ok((readings, learned))
            })
            .await?;
        store.teach(Beliefs {
            of_yield: learned.of_yield.posterior.clone(),
            of_viscosity: learned.of_viscosity.posterior.clone(),
        });
        if let Ok(mut by_batch) = self.inner.by_batch.lock() {
            *by_batch = all;
        }
        if let Ok(mut now) = self.inner.now.lock() {
            *now = Arc::new(Lessons {
                readings,
                learned,
                tests,
                set_back,
                unread,
                undecided,
                before: OnceLock::new(),
            });
        }
        *saved_then = saved;
        Ok(())
    }
}

/// What one batch teaches.
async fn of_batch(store: &Store, desk: &Desk, key: &str) -> Result<OfBatch, ApiError> {
    let events = store.batch_events(key, 0).await?;
    let batch = store.read::<BatchDocument>(key, None).await?.document;
    let (entries, _) = entries(&events);
    let shelf = shelf_of(store, key, &batch, entries.iter()).await?;
    let of = key.to_owned();
    let folded = move || {
        let (taught, done) = taught(&batch, &of, &entries, &shelf);
        let (name, family) = (batch.name.clone(), batch.formula.family);
        let of_batch = |test| TestOf { batch: of.clone(), name: name.clone(), family, test };
        Ok((taught, done.into_iter().map(of_batch).collect()))
    };
    let (lessons, done) = desk.work_out(folded).await?;
    Ok((events.len(), lessons, done))
}

/// What cooks decided of what was learned, and how much of it cannot be read.
///
/// # Errors
/// When the file fails.
pub async fn decisions(store: &Store) -> Result<(Vec<LearningEntry>, usize), ApiError> {
    let (kept, unread) = store.learning().await?;
    let one = |own: store::learning::KeptLearningEvent| LearningEntry {
        // When it came here: a device's clock may be wrong, and tests are dated no later than they came.
        at: own.kept_at.parse().unwrap_or(Timestamp::UNIX_EPOCH),
        id: own.id,
        event: own.event,
    };
    Ok((kept.into_iter().map(one).collect(), unread))
}
