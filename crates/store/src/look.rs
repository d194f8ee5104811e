//! Looking at a file before anything is done with it: whether it is ours, whole and not too new.

use crate::error::{CORRUPT, NOT_A_DATABASE, code};
use crate::file::{APPLICATION_ID, options};
use crate::{StoreError, upgrade};
use sqlx::{Connection, SqliteConnection};
use std::path::Path;

/// Looks whether the file is ours, whole and not too new, before anything is written to it.
pub(crate) async fn look_first(path: &Path, was_here: bool) -> Result<(), StoreError> {
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
