//! What lists show of everything that is kept: its name, its tags, what is put away, and what uses what.

use crate::audit::What;
use crate::noun::{Kept, Noun, missing};
use crate::{By, Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::{Row, SqliteConnection};
use std::collections::HashMap;
use utoipa::ToSchema;

/// Longest tag, characters.
pub const LONGEST_TAG: usize = 40;
/// Most tags of one thing.
pub const MOST_TAGS: usize = 20;

/// A thing as its list shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Listed<D: Kept> {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, RFC 3339.
    pub saved_at: String,
    /// Its tags.
    pub tags: Vec<String>,
    /// Put away: not listed unless asked for.
    pub archived: bool,
    /// What is told of its kind.
    #[serde(flatten)]
    pub shown: D::Shown,
}

/// Where a thing stands in its list. It is no part of the document and makes no revision.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Its tags, each up to 40 letters; left out, they stay as they are.
    #[schema(max_items = 20)]
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tags: Option<Vec<String>>,
    /// Put away: not listed unless asked for.
    pub archived: bool,
}

/// What uses a thing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct UsedIn {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
}

/// Writes what lists show of a thing's newest revision, and what that uses, in the transaction of its save.
pub(crate) async fn note<D: Kept>(
    connection: &mut SqliteConnection,
    key: &str,
    document: &D,
    revision: i64,
    saved_at: &str,
) -> Result<(), StoreError> {
    sqlx::query(
        "INSERT INTO things (noun, key, name, revision, created_at, saved_at, shown) VALUES (?1, ?2, ?3, ?4, ?5, ?5, ?6)
         ON CONFLICT (noun, key) DO UPDATE SET name = ?3, revision = ?4, saved_at = ?5, shown = ?6",
    )
    .bind(D::NOUN.word)
    .bind(key)
    .bind(document.called())
    .bind(revision)
    .bind(saved_at)
    .bind(serde_json::to_string(&document.shown())?)
    .execute(&mut *connection)
    .await?;
    sqlx::query("DELETE FROM uses WHERE noun = ? AND key = ?")
        .bind(D::NOUN.word)
        .bind(key)
        .execute(&mut *connection)
        .await?;
    note_uses(connection, key, document).await
}

/// Writes what a document uses.
pub(crate) async fn note_uses<D: Kept>(
    connection: &mut SqliteConnection,
    key: &str,
    document: &D,
) -> Result<(), StoreError> {
    for (noun, used) in document.uses() {
        sqlx::query("INSERT OR IGNORE INTO uses (noun, key, used_noun, used_key) VALUES (?, ?, ?, ?)")
            .bind(D::NOUN.word)
            .bind(key)
            .bind(noun.word)
            .bind(used)
            .execute(&mut *connection)
            .await?;
    }
    Ok(())
}

impl Store {
    /// Everything of a noun, in the order of its list.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn list<D: Kept>(&self) -> Result<Vec<Listed<D>>, StoreError> {
        let sql = format!(
            "SELECT key, name, revision, saved_at, archived, shown,
                 (SELECT json_group_array(tag) FROM
                     (SELECT tag FROM tags WHERE noun = t.noun AND key = t.key ORDER BY tag)) AS tags
             FROM things t WHERE noun = ? ORDER BY {}",
            D::LISTED_BY
        );
        let rows = sqlx::query(sqlx::AssertSqlSafe(sql)).bind(D::NOUN.word).fetch_all(&self.readers).await?;
        rows.iter()
            .map(|row| {
                Ok(Listed {
                    id: row.try_get("key")?,
                    name: row.try_get("name")?,
                    revision: row.try_get("revision")?,
                    saved_at: row.try_get("saved_at")?,
                    tags: serde_json::from_str(row.try_get("tags")?)?,
                    archived: row.try_get("archived")?,
                    shown: serde_json::from_str(row.try_get("shown")?)?,
                })
            })
            .collect()
    }

    /// Puts a thing in its place.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn place(&self, noun: Noun, key: &str, place: &Place, by: &By) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        let found = sqlx::query("UPDATE things SET archived = ? WHERE noun = ? AND key = ?")
            .bind(place.archived)
            .bind(noun.word)
            .bind(key)
            .execute(writing.connection())
            .await?;
        if found.rows_affected() == 0 {
            writing.undo().await?;
            return Err(missing(noun, key));
        }
        if let Some(tags) = &place.tags {
            sqlx::query("DELETE FROM tags WHERE noun = ? AND key = ?")
                .bind(noun.word)
                .bind(key)
                .execute(writing.connection())
                .await?;
            for tag in tags {
                sqlx::query("INSERT OR IGNORE INTO tags (noun, key, tag) VALUES (?, ?, ?)")
                    .bind(noun.word)
                    .bind(key)
                    .bind(tag)
                    .execute(writing.connection())
                    .await?;
            }
        }
        writing.note(by, What::Placed, noun, key, None).await?;
        writing.commit().await
    }

    /// Things of a noun whose newest revision uses another, by name; those put away are left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn used_in(&self, noun: Noun, used: Noun, key: &str) -> Result<Vec<UsedIn>, StoreError> {
        sqlx::query(
            "SELECT t.key, t.name FROM uses u JOIN things t ON t.noun = u.noun AND t.key = u.key
             WHERE u.noun = ? AND u.used_noun = ? AND u.used_key = ? AND t.archived = 0
             ORDER BY t.name COLLATE NOCASE",
        )
        .bind(noun.word)
        .bind(used.word)
        .bind(key)
        .fetch_all(&self.readers)
        .await?
        .iter()
        .map(|row| Ok(UsedIn { id: row.try_get("key")?, name: row.try_get("name")? }))
        .collect()
    }

    /// What of a noun uses each thing of another, by its key; what is put away is left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn uses(&self, noun: Noun, used: Noun) -> Result<HashMap<String, Vec<UsedIn>>, StoreError> {
        let rows = sqlx::query(
            "SELECT u.used_key, t.key, t.name FROM uses u JOIN things t ON t.noun = u.noun AND t.key = u.key
             WHERE u.noun = ? AND u.used_noun = ? AND t.archived = 0 ORDER BY t.name COLLATE NOCASE",
        )
        .bind(noun.word)
        .bind(used.word)
        .fetch_all(&self.readers)
        .await?;
        let mut uses: HashMap<String, Vec<UsedIn>> = HashMap::new();
        for row in &rows {
            let by = UsedIn { id: row.try_get("key")?, name: row.try_get("name")? };
            uses.entry(row.try_get("used_key")?).or_default().push(by);
        }
        Ok(uses)
    }
}
