//! The kitchen's file: SQLite, one writer at a time, every save a new revision.
//!
//! * [`noun`]: what can be kept, and what its documents tell
//! * [`kept`]: the one history of everything that is saved: revisions with their hash, save ids, conflicts
//! * [`list`]: what lists show of it: names, tags, what is put away, and what uses what
//! * [`component`]: creams; [`ingredient`]: ingredients of the kitchen's own; [`order`]: orders with their cakes
//! * [`room`]: hours, cooks and equipment; [`plan`]: plans of days and what is said of their steps
//! * [`batch`]: batches while they are made, and what happens to them
//! * [`log`]: a line a batch, found by its words and what it is of; [`picture`]: pictures of batches
//! * [`learning`]: what cooks decided of what was learned; [`trainer`]: what was answered at the trainer
//! * [`journal`]: what happens to a thing while it is made, only added; [`audit`]: who wrote what and when
//! * [`devices`]: scales, probes, fridges, printers, and where each is; [`fridge`]: when one was too warm
//! * [`kitchen`]: its name, room temperature and cups
//! * [`pantry`]: what the kitchen says of any ingredient: own density, piece, pack, price, put away
//! * [`open`]: opening a file, [`look`]: or saying why not; `file`: its options and what stands beside it; `upgrade`: older files; `writing`: the one writer
//! * [`copies`]: backup, verify, restore
//!
//! Time and new keys come in as arguments of the calls that need them.

pub mod audit;
pub mod batch;
pub mod by;
pub mod component;
pub mod copies;
mod described;
pub mod devices;
pub mod error;
mod file;
pub mod fridge;
pub mod ingredient;
pub mod journal;
pub mod kept;
pub mod kitchen;
pub mod learning;
pub mod list;
pub mod lock;
pub mod log;
pub mod look;
pub mod noun;
pub mod open;
pub mod order;
pub mod pantry;
pub mod picture;
pub mod plan;
pub mod room;
pub mod shelf;
pub mod trainer;
mod upgrade;
mod writing;

pub use by::{By, Device, SaveId};
pub use error::StoreError;
pub use file::APPLICATION_ID;
pub use open::Opening;

use lock::Lock;
use pastry::belief::Beliefs;
use sqlx::SqlitePool;
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex, RwLock};
use tokio::sync::watch;
use tokio::task::JoinHandle;

/// A kitchen's file, open.
#[derive(Debug, Clone)]
pub struct Store {
    /// One connection, the only one that writes.
    writer: SqlitePool,
    /// A few connections that only read.
    readers: SqlitePool,
    inner: Arc<Inner>,
}

#[derive(Debug)]
struct Inner {
    path: PathBuf,
    /// What the kitchen's own tests taught: it goes with every shelf.
    beliefs: RwLock<Arc<Beliefs>>,
    /// Counts what was written; the folding task rests until it moves.
    written: watch::Sender<u64>,
    folding: Mutex<Option<JoinHandle<()>>>,
    lock: Mutex<Option<Lock>>,
}

impl Store {
    /// Where the file is.
    pub fn path(&self) -> &Path {
        &self.inner.path
    }

    /// How many saves there were since the file was opened: what is worked out from it holds while this stands.
    pub fn saves(&self) -> u64 {
        *self.inner.written.borrow()
    }

    /// Moves whenever anything was written.
    pub fn written(&self) -> watch::Receiver<u64> {
        self.inner.written.subscribe()
    }

    /// Answers when the file can be read and written: it writes a line and waits until that is on the disk.
    ///
    /// # Errors
    /// [`StoreError::Full`], [`StoreError::Locked`], [`StoreError::ReadOnly`], or what else is the matter.
    pub async fn check(&self, now: jiff::Timestamp) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        sqlx::query("INSERT INTO pulse (id, at) VALUES (1, ?1) ON CONFLICT (id) DO UPDATE SET at = ?1")
            .bind(now.to_string())
            .execute(writing.connection())
            .await?;
        // No work of anybody's: the file need not be folded together for it.
        writing.commit_quietly().await
    }

    /// Writes what is pending into the file itself, so that it is whole without its log.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn fold(&self) -> Result<(), StoreError> {
        let mut connection = self.writer.acquire().await?;
        sqlx::query("PRAGMA wal_checkpoint(TRUNCATE)").execute(&mut *connection).await?;
        Ok(())
    }

    /// What the kitchen's own tests taught: every shelf from now on has it. Answers of before hold no more, as after a save: one that was
    /// worked out between the save of a test and this knew nothing of it.
    pub fn teach(&self, beliefs: Beliefs) {
        if let Ok(mut own) = self.inner.beliefs.write() {
            *own = Arc::new(beliefs);
        }
        self.inner.written.send_modify(|count| *count += 1);
    }

    /// What the kitchen's own tests taught so far.
    pub fn beliefs(&self) -> Arc<Beliefs> {
        self.inner.beliefs.read().map_or_else(|_| Arc::default(), |own| own.clone())
    }

    /// Lets the file grow to so many pages of 4 kB: the end of what [`Opening::most_pages`] began.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn make_room(&self, pages: u32) -> Result<(), StoreError> {
        let mut connection = self.writer.acquire().await?;
        let sql = format!("PRAGMA max_page_count = {pages}");
        sqlx::query(sqlx::AssertSqlSafe(sql)).execute(&mut *connection).await?;
        Ok(())
    }

    /// Writes what is pending and lets the file go.
    pub async fn close(&self) {
        if let Some(task) = self.inner.folding.lock().ok().and_then(|mut task| task.take()) {
            task.abort();
        }
        self.readers.close().await;
        // Closing the last connection folds the log in; a busy or full disk leaves it to the next start.
        let _ = self.fold().await;
        self.writer.close().await;
        if let Ok(mut lock) = self.inner.lock.lock() {
            lock.take();
        }
    }
}
