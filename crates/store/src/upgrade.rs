//! Older files: copied, then brought up to date, with no revision lost.

use crate::StoreError;
use crate::file::{APPLICATION_ID, copy_into, free_name};
use crate::kept::hash;
use crate::list::note_uses;
use crate::noun::{COMPONENT, INGREDIENT, Kept, Noun, ORDER};
use pastry::formula::Family;
use pastry::order::OrderDocument;
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
        let copy = free_name(path, &format!("before-update-from-{version}"));
        copy_into(&mut connection, &copy).await?;
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

/// What the lists of before showed, as rows of the one list: the table they stood in, and how its rows become these.
const OLDER_LISTS: [(&str, &str); 5] = [
    (
        "components",
        "INSERT INTO things (noun, key, name, revision, created_at, saved_at, archived, shown)
         SELECT 'component', id, name, revision, created_at, saved_at, archived,
             json_object('family', family, 'family_word', family, 'job', job) FROM components",
    ),
    (
        "orders",
        "INSERT INTO things (noun, key, name, revision, created_at, saved_at, archived, shown)
         SELECT 'order', id, name, revision, created_at, saved_at, archived,
             json_object('served_at', served_at, 'pieces', pieces) FROM orders",
    ),
    (
        "own_ingredients",
        "INSERT INTO things (noun, key, name, revision, created_at, saved_at, shown)
         SELECT 'ingredient', key, name, revision, saved_at, saved_at, '{}' FROM own_ingredients",
    ),
    ("component_tags", "INSERT INTO tags SELECT 'component', component_id, tag FROM component_tags"),
    (
        "component_ingredients",
        "INSERT INTO uses SELECT 'component', component_id, 'ingredient', ingredient FROM component_ingredients",
    ),
];

/// Moves what the older tables hold into the one history and the one list. Broken off half way it begins again.
async fn carry_over(pool: &SqlitePool) -> Result<(), StoreError> {
    let mut transaction = pool.begin_with("BEGIN IMMEDIATE").await?;
    for (noun, table, key) in OLDER {
        if has(&mut transaction, table).await? {
            carry_revisions(&mut transaction, noun, table, key).await?;
        }
    }
    let older = has(&mut transaction, "components").await?;
    for (table, sql) in OLDER_LISTS {
        if has(&mut transaction, table).await? {
            sqlx::query(sql).execute(&mut *transaction).await?;
        }
    }
    // What refers goes before what it refers to.
    for (table, _) in OLDER_LISTS.iter().rev() {
        let sql = format!("DROP TABLE IF EXISTS {table}");
        sqlx::query(sqlx::AssertSqlSafe(sql)).execute(&mut *transaction).await?;
    }
    if older {
        say_families(&mut transaction).await?;
        note_what_orders_use(&mut transaction).await?;
    }
    transaction.commit().await?;
    Ok(())
}

async fn carry_revisions(
    connection: &mut SqliteConnection,
    noun: Noun,
    table: &str,
    key: &str,
) -> Result<(), StoreError> {
    let sql = format!("SELECT {key} AS key, revision, saved_at, document FROM {table}");
    for row in sqlx::query(sqlx::AssertSqlSafe(sql)).fetch_all(&mut *connection).await? {
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
        .execute(&mut *connection)
        .await?;
    }
    sqlx::query(sqlx::AssertSqlSafe(format!("DROP TABLE {table}"))).execute(connection).await?;
    Ok(())
}

/// Families were listed by their key; now their kitchen words stand beside it.
async fn say_families(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    for family in Family::ALL {
        sqlx::query(
            "UPDATE things SET shown = json_set(shown, '$.family_word', ?)
             WHERE noun = 'component' AND json_extract(shown, '$.family') = json_extract(?, '$')",
        )
        .bind(family.word())
        .bind(serde_json::to_string(&family)?)
        .execute(&mut *connection)
        .await?;
    }
    Ok(())
}

/// Which formulas an order uses was not kept before. One whose document cannot be read stays as it is.
async fn note_what_orders_use(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    let rows = sqlx::query(
        "SELECT t.key, r.document FROM things t
         JOIN revisions r ON r.noun = t.noun AND r.key = t.key AND r.revision = t.revision WHERE t.noun = ?",
    )
    .bind(OrderDocument::NOUN.word)
    .fetch_all(&mut *connection)
    .await?;
    for row in rows {
        if let Ok(document) = serde_json::from_str::<OrderDocument>(row.try_get("document")?) {
            note_uses(connection, row.try_get("key")?, &document).await?;
        }
    }
    Ok(())
}

/// An event as a file of any version holds it.
pub(crate) struct FoundEvent {
    pub noun: String,
    pub key: String,
    pub place: i64,
    pub hash: String,
    pub event: String,
}

/// All events of a file of any version, in order.
pub(crate) async fn all_events(connection: &mut SqliteConnection) -> Result<Vec<FoundEvent>, StoreError> {
    if !has(connection, "events").await? {
        return Ok(Vec::new());
    }
    sqlx::query("SELECT noun, key, place, hash, event FROM events ORDER BY noun, key, place")
        .fetch_all(connection)
        .await?
        .iter()
        .map(|row| {
            Ok(FoundEvent {
                noun: row.try_get("noun")?,
                key: row.try_get("key")?,
                place: row.try_get("place")?,
                hash: row.try_get("hash")?,
                event: row.try_get("event")?,
            })
        })
        .collect()
}

/// The key of a thing whose list is not what its history says, if there is one.
pub(crate) async fn listed_wrong(connection: &mut SqliteConnection) -> Result<Option<String>, StoreError> {
    if !has(connection, "things").await? {
        return Ok(None);
    }
    let key = sqlx::query_scalar(
        "SELECT h.key FROM (SELECT noun, key, max(revision) AS newest FROM revisions GROUP BY noun, key) h
         LEFT JOIN things t ON t.noun = h.noun AND t.key = h.key WHERE t.revision IS NOT h.newest LIMIT 1",
    )
    .fetch_optional(connection)
    .await?;
    Ok(key)
}
