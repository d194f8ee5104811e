//! The one history of everything that is kept.
//!
//! A revision is written once, with the hash of its document, and checked against it whenever it is read. A save
//! names the revision it started from and may carry a [`SaveId`]: the same id gets the same answer, so that an answer
//! that was lost can be asked for again without saving twice.

use crate::StoreError;
use jiff::Timestamp;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqliteConnection, SqliteExecutor};
use utoipa::ToSchema;

/// What has revisions: its word in the file, and in a sentence.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Noun {
    /// In the file.
    pub word: &'static str,
    /// To a cook.
    pub said: &'static str,
}

/// Creams.
pub const COMPONENT: Noun = Noun { word: "component", said: "formula" };
/// Ingredients of the kitchen's own.
pub const INGREDIENT: Noun = Noun { word: "ingredient", said: "ingredient" };
/// Orders with their cakes.
pub const ORDER: Noun = Noun { word: "order", said: "order" };

/// All nouns with revisions.
pub const NOUNS: [Noun; 3] = [COMPONENT, INGREDIENT, ORDER];

/// What the page makes for each save: 8 to 64 letters, digits and hyphens.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SaveId(String);

impl SaveId {
    /// Reads one; none when it is no such id.
    pub fn read(text: &str) -> Option<Self> {
        let fits = (8..=64).contains(&text.len())
            && text.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-');
        fits.then(|| SaveId(text.to_owned()))
    }

    /// The id of one of several things saved under it.
    #[must_use]
    pub fn of_part(&self, key: &str) -> Self {
        SaveId(format!("{}:{key}", self.0))
    }

    pub(crate) fn as_str(&self) -> &str {
        &self.0
    }
}

/// A revision as a history lists it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RevisionSummary {
    /// Its number, from 1.
    pub revision: i64,
    /// When it was saved, RFC 3339.
    pub saved_at: String,
    /// The name it had.
    pub name: String,
}

/// Where a save builds on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum On {
    /// On nothing: it is new.
    Nothing,
    /// On this revision.
    Revision(i64),
}

/// A save.
pub(crate) struct Save<'a, D> {
    pub noun: Noun,
    pub key: &'a str,
    pub document: &'a D,
    pub on: On,
    pub save_id: Option<&'a SaveId>,
    pub now: Timestamp,
}

/// What a save made, or had made before.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Kept {
    pub key: String,
    pub revision: i64,
    pub newest: i64,
    pub saved_at: String,
    /// The same save was made before: nothing was written now.
    pub before: bool,
}

/// SHA-256 in hexadecimal.
pub fn hash(text: &str) -> String {
    Sha256::digest(text.as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect()
}

pub(crate) fn missing(noun: Noun, key: &str) -> StoreError {
    StoreError::NotFound { noun: noun.said, key: key.chars().take(60).collect() }
}

pub(crate) async fn newest(
    connection: &mut SqliteConnection,
    noun: Noun,
    key: &str,
) -> Result<i64, StoreError> {
    let newest =
        sqlx::query_scalar("SELECT coalesce(max(revision), 0) FROM revisions WHERE noun = ? AND key = ?")
            .bind(noun.word)
            .bind(key)
            .fetch_one(connection)
            .await?;
    Ok(newest)
}

/// Writes a revision inside a transaction, or finds the one this very save wrote before.
pub(crate) async fn keep<D: Serialize>(
    connection: &mut SqliteConnection,
    save: Save<'_, D>,
) -> Result<Kept, StoreError> {
    let text = serde_json::to_string(save.document)?;
    let (hash, saved_at) = (hash(&text), save.now.to_string());
    if let Some(id) = save.save_id
        && let Some(row) =
            sqlx::query("SELECT noun, key, revision, saved_at, hash FROM revisions WHERE save_id = ?")
                .bind(id.as_str())
                .fetch_optional(&mut *connection)
                .await?
    {
        let (noun, key, same): (String, String, String) =
            (row.try_get("noun")?, row.try_get("key")?, row.try_get("hash")?);
        let same_thing = save.on == On::Nothing || key == save.key;
        if noun != save.noun.word || same != hash || !same_thing {
            return Err(StoreError::SaveIdUsed);
        }
        let newest = newest(connection, save.noun, &key).await?;
        let (revision, saved_at) = (row.try_get("revision")?, row.try_get("saved_at")?);
        return Ok(Kept { key, revision, newest, saved_at, before: true });
    }
    let current = newest(connection, save.noun, save.key).await?;
    match save.on {
        On::Revision(_) if current == 0 => return Err(missing(save.noun, save.key)),
        On::Revision(based_on) if based_on != current => {
            return Err(StoreError::Conflict { noun: save.noun.said, based_on, current });
        }
        On::Nothing if current > 0 => {
            return Err(StoreError::Conflict { noun: save.noun.said, based_on: 0, current });
        }
        _ => {}
    }
    sqlx::query(
        "INSERT INTO revisions (noun, key, revision, saved_at, save_id, hash, document) VALUES (?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(save.noun.word)
    .bind(save.key)
    .bind(current + 1)
    .bind(&saved_at)
    .bind(save.save_id.map(SaveId::as_str))
    .bind(&hash)
    .bind(&text)
    .execute(connection)
    .await?;
    Ok(Kept { key: save.key.to_owned(), revision: current + 1, newest: current + 1, saved_at, before: false })
}

/// The document of a row with noun, key, revision, hash and document, when it is what was written.
pub(crate) fn whole<D: DeserializeOwned>(row: &SqliteRow) -> Result<D, StoreError> {
    let (text, written): (String, String) = (row.try_get("document")?, row.try_get("hash")?);
    if hash(&text) != written {
        let (noun, key, revision): (String, String, i64) =
            (row.try_get("noun")?, row.try_get("key")?, row.try_get("revision")?);
        let said = NOUNS.iter().find(|own| own.word == noun).map_or(noun.as_str(), |own| own.said).to_owned();
        return Err(StoreError::Damaged { noun: said, key, revision });
    }
    Ok(serde_json::from_str(&text)?)
}

/// A revision, the newest when none is named: its row, with `newest`.
pub(crate) async fn row<'e>(
    from: impl SqliteExecutor<'e>,
    noun: Noun,
    key: &str,
    revision: Option<i64>,
) -> Result<SqliteRow, StoreError> {
    sqlx::query(
        "SELECT r.noun, r.key, r.revision, r.saved_at, r.hash, r.document,
             (SELECT max(n.revision) FROM revisions n WHERE n.noun = r.noun AND n.key = r.key) AS newest
         FROM revisions r WHERE r.noun = ?1 AND r.key = ?2 AND (?3 IS NULL OR r.revision = ?3)
         ORDER BY r.revision DESC LIMIT 1",
    )
    .bind(noun.word)
    .bind(key)
    .bind(revision)
    .fetch_optional(from)
    .await?
    .ok_or_else(|| match revision {
        Some(n) => StoreError::NotFound {
            noun: "version",
            key: format!("{n} of {} {}", noun.said, key.chars().take(60).collect::<String>()),
        },
        None => missing(noun, key),
    })
}

/// All revisions of one thing, newest first.
pub(crate) async fn history<'e>(
    from: impl SqliteExecutor<'e>,
    noun: Noun,
    key: &str,
) -> Result<Vec<RevisionSummary>, StoreError> {
    let rows = sqlx::query(
        "SELECT revision, saved_at, json_extract(document, '$.name') AS name FROM revisions
         WHERE noun = ? AND key = ? ORDER BY revision DESC",
    )
    .bind(noun.word)
    .bind(key)
    .fetch_all(from)
    .await?;
    if rows.is_empty() {
        return Err(missing(noun, key));
    }
    rows.iter()
        .map(|row| {
            Ok(RevisionSummary {
                revision: row.try_get("revision")?,
                saved_at: row.try_get("saved_at")?,
                name: row.try_get::<Option<String>, _>("name")?.unwrap_or_default(),
            })
        })
        .collect()
}
