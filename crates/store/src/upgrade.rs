//! Older files: copied, then brought up to date, with no revision lost.

use crate::kept::{COMPONENT, INGREDIENT, Noun, ORDER, hash};
use crate::open::APPLICATION_ID;
use crate::{StoreError, copies};
use sqlx::migrate::Migrator;
use sqlx::{Row, SqliteConnection, SqlitePool};
use std::path::Path;

static MIGRATIONS: Migrator = sqlx::migrate!("./migrations");

/// The newest version this program knows.
pub(crate) fn newest() -> i64 {
    MIGRATIONS.iter().map(|migration| migration.version).max().unwrap_or(0)
}

/// The version a file is at; 0 before anything was written.
pub(crate) async fn version(connection: &mut SqliteConnection) -> Result<i64, StoreError> {
    if !has(connection, "_sqlx_migrations").await? {
        return Ok(0);
    }
    let version = sqlx::query_scalar("SELECT coalesce(max(version), 0) FROM _sqlx_migrations")
        .fetch_one(&mut *connection)
        .await?;
    Ok(version)
}

/// Tables of before there was one history for all: their noun, their name, what their key was called.
const OLDER: [(Noun, &str, &str); 3] = [
    (COMPONENT, "component_revisions", "component_id"),
    (INGREDIENT, "own_ingredient_revisions", "key"),
    (ORDER, "order_revisions", "order_id"),
];

/// Copies an older file beside it, then brings it up to date.
pub(crate) async fn bring_up_to_date(pool: &SqlitePool, path: &Path) -> Result<(), StoreError> {
    let mut connection = pool.acquire().await?;
    let version = version(&mut connection).await?;
    if version > 0 && version < newest() {
        let copy = copies::free_name(path, &format!("before-update-from-{version}"));
        copies::copy_into(&mut connection, &copy).await?;
        tracing::info!(
            copy = %copy.display(),
            "the kitchen's file is of an older version: it was copied before it is brought up to date"
        );
    }
    sqlx::query(sqlx::AssertSqlSafe(format!("PRAGMA application_id = {APPLICATION_ID}")))
        .execute(&mut *connection)
        .await?;
    drop(connection);
    MIGRATIONS.run(pool).await?;
    carry_over(pool).await
}

/// A revision as a file of any version holds it.
pub(crate) struct Found {
    pub noun: String,
    pub key: String,
    pub revision: i64,
    /// None in files that kept no hash yet.
    pub hash: Option<String>,
    pub document: String,
}

/// All revisions of a file of any version, by noun, key and number.
pub(crate) async fn all_revisions(connection: &mut SqliteConnection) -> Result<Vec<Found>, StoreError> {
    let mut found = Vec::new();
    if has(connection, "revisions").await? {
        for row in sqlx::query("SELECT noun, key, revision, hash, document FROM revisions")
            .fetch_all(&mut *connection)
            .await?
        {
            found.push(Found {
                noun: row.try_get("noun")?,
                key: row.try_get("key")?,
                revision: row.try_get("revision")?,
                hash: row.try_get("hash")?,
                document: row.try_get("document")?,
            });
        }
    }
    for (noun, table, key) in OLDER {
        if !has(connection, table).await? {
            continue;
        }
        let sql = format!("SELECT {key} AS key, revision, document FROM {table}");
        for row in sqlx::query(sqlx::AssertSqlSafe(sql)).fetch_all(&mut *connection).await? {
            found.push(Found {
                noun: noun.word.to_owned(),
                key: row.try_get("key")?,
                revision: row.try_get("revision")?,
                hash: None,
                document: row.try_get("document")?,
            });
        }
    }
    found.sort_by(|a, b| (&a.noun, &a.key, a.revision).cmp(&(&b.noun, &b.key, b.revision)));
    Ok(found)
}

async fn has(connection: &mut SqliteConnection, table: &str) -> Result<bool, StoreError> {
    let there: i64 =
        sqlx::query_scalar("SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = ?")
            .bind(table)
            .fetch_one(connection)
            .await?;
    Ok(there > 0)
}

/// Moves what the older tables hold into the one history, hashed. Broken off half way it begins again.
async fn carry_over(pool: &SqlitePool) -> Result<(), StoreError> {
    let mut transaction = pool.begin_with("BEGIN IMMEDIATE").await?;
    for (noun, table, key) in OLDER {
        if !has(&mut transaction, table).await? {
            continue;
        }
        let rows = sqlx::query(sqlx::AssertSqlSafe(format!(
            "SELECT {key} AS key, revision, saved_at, document FROM {table}"
        )))
        .fetch_all(&mut *transaction)
        .await?;
        for row in rows {
            let document: String = row.try_get("document")?;
            sqlx::query(
                "INSERT INTO revisions (noun, key, revision, saved_at, hash, document) VALUES (?, ?, ?, ?, ?, ?)",
            )
            .bind(noun.word)
            .bind(row.try_get::<String, _>("key")?)
            .bind(row.try_get::<i64, _>("revision")?)
            .bind(row.try_get::<String, _>("saved_at")?)
            .bind(hash(&document))
            .bind(&document)
            .execute(&mut *transaction)
            .await?;
        }
        sqlx::query(sqlx::AssertSqlSafe(format!("DROP TABLE {table}"))).execute(&mut *transaction).await?;
    }
    transaction.commit().await?;
    Ok(())
}
