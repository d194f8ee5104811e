//! The one writer: a transaction that ends cleanly or takes its connection with it.

use crate::{Store, StoreError};
use sqlx::pool::PoolConnection;
use sqlx::{Connection, Sqlite, SqliteConnection};

/// A transaction under way. Dropped without a commit it is taken back by closing its connection, which cannot fail
/// half way as a rollback on a full disk can; the next writer gets a fresh one.
pub(crate) struct Writing<'a> {
    store: &'a Store,
    connection: Option<PoolConnection<Sqlite>>,
    /// Whether the audit has its line of it.
    pub(crate) noted: bool,
}

impl Store {
    /// Waits for the writer and begins.
    pub(crate) async fn write(&self) -> Result<Writing<'_>, StoreError> {
        let connection = self.writer.acquire().await?;
        // Held before it begins: who leaves while BEGIN is under way takes the connection along, too.
        let mut writing = Writing { store: self, connection: Some(connection), noted: false };
        sqlx::query("BEGIN IMMEDIATE").execute(writing.connection()).await?;
        Ok(writing)
    }
}

impl Writing<'_> {
    /// The connection, to ask and write.
    pub(crate) fn connection(&mut self) -> &mut SqliteConnection {
        self.connection.as_mut().expect("it is there until the end")
    }

    /// Keeps what was written. When this answers, it is on the disk.
    pub(crate) async fn commit(self) -> Result<(), StoreError> {
        debug_assert!(self.noted, "a write without its line in the audit");
        let store = self.store;
        self.commit_quietly().await?;
        store.inner.written.send_modify(|count| *count += 1);
        Ok(())
    }

    /// The same, without a line in the audit, and without a word to the task that folds the log in.
    pub(crate) async fn commit_quietly(mut self) -> Result<(), StoreError> {
        sqlx::query("COMMIT").execute(self.connection()).await?;
        self.connection = None;
        Ok(())
    }

    /// Takes everything back and answers with why: a refusal is rolled back, after a failure the connection goes, for
    /// SQLite may have taken the transaction back itself.
    pub(crate) async fn give_up(self, why: StoreError) -> StoreError {
        if why.is_refusal()
            && let Err(failed) = self.undo().await
        {
            return failed;
        }
        why
    }

    /// Takes everything back; for what was refused, not for what failed.
    pub(crate) async fn undo(mut self) -> Result<(), StoreError> {
        sqlx::query("ROLLBACK").execute(self.connection()).await?;
        self.connection = None;
        Ok(())
    }
}

impl Drop for Writing<'_> {
    fn drop(&mut self) {
        if let Some(connection) = &mut self.connection {
            connection.close_on_drop();
        }
    }
}

/// Whether a connection may be lent out: not when it stands inside a transaction.
pub(crate) fn at_rest(connection: &SqliteConnection) -> bool {
    !connection.is_in_transaction()
}
