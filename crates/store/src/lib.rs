//! The kitchen's file: SQLite, one writer at a time, every save a new revision.
//!
//! * [`kitchen`]: its name, room temperature and cups
//! * [`pantry`]: what the kitchen says of any ingredient: own density, piece, pack, price, put away
//! * [`ingredients`]: ingredients of the kitchen's own, with all their revisions
//! * [`components`]: creams with all their revisions; [`library`]: their tags, and what uses what
//! * [`orders`]: orders with their cakes and all their revisions
//!
//! Time and new keys come in as arguments of the calls that need them.

pub mod components;
pub mod error;
pub mod ingredients;
pub mod kitchen;
pub mod library;
pub mod orders;
pub mod pantry;

pub use error::StoreError;

use sqlx::SqlitePool;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use std::path::Path;
use std::time::Duration;

/// A kitchen's file, open.
#[derive(Debug, Clone)]
pub struct Store {
    pool: SqlitePool,
}

impl Store {
    /// Opens the file, makes it when missing, and brings it up to date.
    ///
    /// WAL, foreign keys and full synchronous: a save that was answered survives a power cut.
    ///
    /// # Errors
    /// When the file cannot be opened, is no kitchen file, or was written by a newer program.
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        let options = SqliteConnectOptions::new()
            .filename(path)
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .foreign_keys(true)
            .synchronous(SqliteSynchronous::Full)
            .busy_timeout(Duration::from_secs(5));
        let pool = SqlitePoolOptions::new().max_connections(4).connect_with(options).await?;
        sqlx::migrate!("./migrations").run(&pool).await?;
        Ok(Store { pool })
    }

    /// Answers when the file can be read.
    ///
    /// # Errors
    /// When it cannot.
    pub async fn check(&self) -> Result<(), StoreError> {
        sqlx::query("SELECT 1 FROM kitchen").execute(&self.pool).await?;
        Ok(())
    }

    /// Writes what is pending and lets the file go.
    pub async fn close(&self) {
        self.pool.close().await;
    }
}
