//! Opening a kitchen's file: only ours, only whole, only one program at a time, never an empty one in place of one
//! that was there.

use crate::file::{OWNER_ONLY, PATIENCE, log_of, options, set_aside};
use crate::lock::{Lock, beside};
use crate::look::look_first;
use crate::writing::at_rest;
use crate::{Inner, Store, StoreError, upgrade};
use sqlx::sqlite::{SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use std::fs::{OpenOptions, Permissions};
use std::os::unix::fs::{OpenOptionsExt, PermissionsExt};
use std::path::Path;
use std::sync::{Arc, Mutex, RwLock};
use std::time::Duration;
use tokio::sync::watch;

/// How long the file rests before its log is folded in.
pub const REST: Duration = Duration::from_secs(2);

/// Connections that only read.
const READERS: u32 = 4;

/// How to open.
#[derive(Debug, Clone, Copy, Default)]
pub struct Opening {
    /// Begin an empty kitchen even where one was; what is left of that one is set aside.
    pub new: bool,
    /// Most pages the file may have, of 4 kB; none for no limit. Tests fill a disk with it.
    pub most_pages: Option<u32>,
}

impl Store {
    /// Opens the file, makes it when there never was one, and brings it up to date.
    ///
    /// # Errors
    /// See [`Store::open_as`].
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        Self::open_as(path, Opening::default()).await
    }

    /// Opens the file.
    ///
    /// WAL, foreign keys and full synchronous: a save that was answered survives a power cut. A file of an older
    /// version is copied first, beside it.
    ///
    /// # Errors
    /// In words, with the file as it was: it is in use, is not ours, is damaged, was written by a newer program, was
    /// there and is gone, cannot be written.
    pub async fn open_as(path: &Path, how: Opening) -> Result<Self, StoreError> {
        let was_here = beside(path).exists();
        let lock = Lock::take(path)?;
        let empty = std::fs::metadata(path).map_or(0, |file| file.len()) == 0;
        if empty && was_here && !how.new && !log_of(path).exists() {
            return Err(StoreError::Gone { path: path.to_owned() });
        }
        if how.new && (!empty || log_of(path).exists()) {
            set_aside(path, jiff::Timestamp::now())?;
        }
        make_private(path)?;
        look_first(path, was_here && !how.new).await?;
        let written = options(path)
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .synchronous(SqliteSynchronous::Full);
        let written = match how.most_pages {
            Some(most) => written.pragma("max_page_count", most.to_string()),
            None => written,
        };
        let writer = pool(1).connect_with(written).await?;
        upgrade::bring_up_to_date(&writer, path).await?;
        let readers = pool(READERS).connect_with(options(path).read_only(true)).await?;
        let inner = Inner {
            path: path.to_owned(),
            beliefs: RwLock::default(),
            written: watch::Sender::new(0),
            folding: Mutex::new(None),
            lock: Mutex::new(Some(lock)),
        };
        let store = Store { writer, readers, inner: Arc::new(inner) };
        store.fold_when_idle();
        Ok(store)
    }

    /// Writes into the lock file where this kitchen is served.
    pub fn say_where(&self, address: &str) {
        if let Ok(lock) = self.inner.lock.lock()
            && let Some(lock) = lock.as_ref()
        {
            lock.say(address);
        }
    }

    /// Folds the log into the file when nothing was written for [`REST`], so that the file alone is whole however
    /// the program ends.
    fn fold_when_idle(&self) {
        let mut written = self.inner.written.subscribe();
        let writer = self.writer.clone();
        let task = tokio::spawn(async move {
            while written.changed().await.is_ok() {
                // Every write more begins the rest anew.
                while tokio::time::timeout(REST, written.changed()).await.is_ok_and(|moved| moved.is_ok()) {}
                let Ok(mut connection) = writer.acquire().await else { return };
                // A reader in the way or a full disk: the next rest tries again.
                let _ = sqlx::query("PRAGMA wal_checkpoint(TRUNCATE)").execute(&mut *connection).await;
            }
        });
        if let Ok(mut folding) = self.inner.folding.lock() {
            *folding = Some(task);
        }
    }
}

fn pool(connections: u32) -> SqlitePoolOptions {
    SqlitePoolOptions::new().max_connections(connections).acquire_timeout(PATIENCE).before_acquire(
        |connection, _| {
            let fit = at_rest(connection);
            Box::pin(async move { Ok(fit) })
        },
    )
}

/// The file exists and is its owner's alone; its log gets the same mode from SQLite.
fn make_private(path: &Path) -> Result<(), StoreError> {
    let failed = |error: std::io::Error| StoreError::io(path, &error);
    if !path.exists() {
        OpenOptions::new().write(true).create_new(true).mode(OWNER_ONLY).open(path).map_err(failed)?;
        return Ok(());
    }
    let mode = std::fs::metadata(path).map_err(failed)?.permissions().mode();
    if mode & 0o077 != 0 {
        // On a disk that knows no modes, or in somebody else's folder, it stays as it is.
        let _ = std::fs::set_permissions(path, Permissions::from_mode(OWNER_ONLY));
    }
    if std::fs::metadata(path).is_ok_and(|file| file.permissions().readonly()) {
        return Err(StoreError::ReadOnly);
    }
    Ok(())
}
