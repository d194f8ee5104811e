//! Opening a kitchen's file: only ours, only whole, only one program at a time, never an empty one in place of one
//! that was there.

use crate::error::{CORRUPT, NOT_A_DATABASE, code};
use crate::lock::{Lock, beside};
use crate::writing::at_rest;
use crate::{Inner, Store, StoreError, upgrade};
use sqlx::Connection;
use sqlx::sqlite::{
    SqliteConnectOptions, SqliteConnection, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous,
};
use std::fs::{OpenOptions, Permissions};
use std::os::unix::fs::{OpenOptionsExt, PermissionsExt};
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex};
use std::time::Duration;
use tokio::sync::watch;

/// "Spn1" in SQLite's header: `file` and this program know a kitchen by it.
pub const APPLICATION_ID: i64 = 0x5370_6e31;

/// How long a writer waits for another program, and a request for a connection.
const PATIENCE: Duration = Duration::from_secs(5);

/// How long the file rests before its log is folded in.
pub const REST: Duration = Duration::from_secs(2);

/// Connections that only read.
const READERS: u32 = 4;

/// Only the owner reads and writes a kitchen.
pub(crate) const OWNER_ONLY: u32 = 0o600;

/// How to open.
#[derive(Debug, Clone, Copy, Default)]
pub struct Opening {
    /// Begin an empty kitchen even where one was; what is left of that one is set aside.
    pub new: bool,
    /// Most pages the file may have, of 4 kB; none for no limit. Tests fill a disk with it.
    pub most_pages: Option<u32>,
}

/// The file as SQLite is told to open it.
pub(crate) fn options(path: &Path) -> SqliteConnectOptions {
    SqliteConnectOptions::new().filename(path).busy_timeout(PATIENCE).foreign_keys(true)
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
            crate::copies::set_aside(path, jiff::Timestamp::now())?;
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

pub(crate) fn log_of(path: &Path) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push("-wal");
    PathBuf::from(name)
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

/// Looks whether the file is ours, whole and not too new, before anything is written to it.
async fn look_first(path: &Path, was_here: bool) -> Result<(), StoreError> {
    let mut connection = SqliteConnection::connect_with(&options(path)).await?;
    let outcome = look(&mut connection, path, was_here).await;
    let _ = connection.close().await;
    outcome
}

/// The same with a connection.
pub(crate) async fn look(
    connection: &mut SqliteConnection,
    path: &Path,
    was_here: bool,
) -> Result<(), StoreError> {
    let of = |error: sqlx::Error| match code(&error) {
        Some(NOT_A_DATABASE) => StoreError::NotOurs(path.to_owned()),
        Some(CORRUPT) => StoreError::DamagedFile { path: path.to_owned(), words: error.to_string() },
        _ => error.into(),
    };
    let tables: Vec<String> = sqlx::query_scalar("SELECT name FROM sqlite_master WHERE type = 'table'")
        .fetch_all(&mut *connection)
        .await
        .map_err(of)?;
    let id: i64 =
        sqlx::query_scalar("PRAGMA application_id").fetch_one(&mut *connection).await.map_err(of)?;
    if tables.is_empty() {
        return match (id, was_here) {
            (0 | APPLICATION_ID, false) => Ok(()),
            (0 | APPLICATION_ID, true) => Err(StoreError::Gone { path: path.to_owned() }),
            _ => Err(StoreError::NotOurs(path.to_owned())),
        };
    }
    let has = |name: &str| tables.iter().any(|table| table == name);
    // Kitchens of the first versions did not carry the number.
    if !matches!(id, 0 | APPLICATION_ID) || !has("kitchen") || !(has("components") || has("things")) {
        return Err(StoreError::NotOurs(path.to_owned()));
    }
    if upgrade::version(connection).await? > upgrade::newest() {
        return Err(StoreError::Newer(path.to_owned()));
    }
    let said: Vec<String> =
        sqlx::query_scalar("PRAGMA quick_check(5)").fetch_all(&mut *connection).await.map_err(of)?;
    if said != ["ok"] {
        return Err(StoreError::DamagedFile { path: path.to_owned(), words: said.join("; ") });
    }
    Ok(())
}

/// A connection that only reads, to a file that is there and ours.
pub(crate) async fn read_only(path: &Path) -> Result<SqliteConnection, StoreError> {
    if !path.is_file() {
        return Err(StoreError::NoFile(path.to_owned()));
    }
    let mut connection = SqliteConnection::connect_with(&options(path).read_only(true)).await?;
    look(&mut connection, path, true).await?;
    Ok(connection)
}
