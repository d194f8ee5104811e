//! The one history of everything that is kept.
//!
//! A revision is written once, with the hash of its document, and checked against it whenever it is read. A save
//! names the revision it started from and may carry a [`SaveId`](crate::SaveId): the same id gets the same answer, so
//! that an answer that was lost can be asked for again without saving twice.

use crate::audit::What;
use crate::noun::{Kept, NOUNS, Noun, missing};
use crate::{By, Store, StoreError, list};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqliteConnection};
use std::collections::HashMap;

/// One revision of a thing, with its document.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Revision<D> {
    /// Key of the thing.
    pub id: String,
    /// This revision.
    pub revision: i64,
    /// The newest revision there is.
    pub newest_revision: i64,
    /// When this revision was saved, RFC 3339.
    pub saved_at: String,
    /// The device it was saved from, if that said so.
    pub saved_by: Option<String>,
    /// What was saved.
    pub document: D,
}

/// Where a save builds on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum On {
    /// On nothing: it is new.
    Nothing,
    /// On this revision.
    Revision(i64),
}

/// SHA-256 in hexadecimal.
pub fn hash(text: &str) -> String {
    Sha256::digest(text.as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect()
}

async fn newest(connection: &mut SqliteConnection, noun: Noun, key: &str) -> Result<i64, StoreError> {
    let newest =
        sqlx::query_scalar("SELECT coalesce(max(revision), 0) FROM revisions WHERE noun = ? AND key = ?")
            .bind(noun.word)
            .bind(key)
            .fetch_one(connection)
            .await?;
    Ok(newest)
}

/// Writes a revision inside a transaction, or finds the one this very save wrote before: then the second is true.
pub(crate) async fn keep<D: Kept>(
    connection: &mut SqliteConnection,
    key: &str,
    document: &D,
    on: On,
    by: &By,
) -> Result<(Revision<D>, bool), StoreError> {
    let noun = D::NOUN;
    let text = serde_json::to_string(document)?;
    let (hash, saved_at) = (hash(&text), by.now.to_string());
    if let Some(id) = by.save_id()
        && let Some(row) = sqlx::query(
            "SELECT noun, key, revision, saved_at, saved_by, hash FROM revisions WHERE save_id = ?",
        )
        .bind(id)
        .fetch_optional(&mut *connection)
        .await?
    {
        let (of, at, same): (String, String, String) =
            (row.try_get("noun")?, row.try_get("key")?, row.try_get("hash")?);
        if of != noun.word || same != hash || !(on == On::Nothing || at == key) {
            return Err(StoreError::SaveIdUsed);
        }
        let before = Revision {
            revision: row.try_get("revision")?,
            newest_revision: newest(connection, noun, &at).await?,
            saved_at: row.try_get("saved_at")?,
            saved_by: row.try_get("saved_by")?,
            document: document.clone(),
            id: at,
        };
        return Ok((before, true));
    }
    let current = newest(connection, noun, key).await?;
    match on {
        On::Revision(_) if current == 0 => return Err(missing(noun, key)),
        On::Revision(based_on) if based_on != current => {
            return Err(StoreError::Conflict { noun: noun.said, based_on, current });
        }
        On::Nothing if current > 0 => {
            return Err(StoreError::Conflict { noun: noun.said, based_on: 0, current });
        }
        _ => {}
    }
    let revision = current + 1;
    sqlx::query(
        "INSERT INTO revisions (noun, key, revision, saved_at, saved_by, save_id, hash, document)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(noun.word)
    .bind(key)
    .bind(revision)
    .bind(&saved_at)
    .bind(by.device())
    .bind(by.save_id())
    .bind(&hash)
    .bind(&text)
    .execute(&mut *connection)
    .await?;
    list::note(connection, key, document, revision, &saved_at).await?;
    let saved_by = by.device().map(str::to_owned);
    let made = Revision {
        id: key.to_owned(),
        revision,
        newest_revision: revision,
        saved_at,
        saved_by,
        document: document.clone(),
    };
    Ok((made, false))
}

/// The document of a row with noun, key, revision, hash and document, when it is what was written.
fn whole<D: DeserializeOwned>(row: &SqliteRow) -> Result<D, StoreError> {
    let (text, written): (String, String) = (row.try_get("document")?, row.try_get("hash")?);
    if hash(&text) != written {
        let (noun, key, revision): (String, String, i64) =
            (row.try_get("noun")?, row.try_get("key")?, row.try_get("revision")?);
        let said = NOUNS.iter().find(|own| own.word == noun).map_or(noun.as_str(), |own| own.said).to_owned();
        return Err(StoreError::Damaged { noun: said, key, revision });
    }
    Ok(serde_json::from_str(&text)?)
}

fn read<D: Kept>(row: &SqliteRow) -> Result<Revision<D>, StoreError> {
    Ok(Revision {
        id: row.try_get("key")?,
        revision: row.try_get("revision")?,
        newest_revision: row.try_get("newest")?,
        saved_at: row.try_get("saved_at")?,
        saved_by: row.try_get("saved_by")?,
        document: whole(row)?,
    })
}

const ROW: &str =
    "r.noun, r.key, r.revision, r.saved_at, r.saved_by, r.hash, r.document, t.revision AS newest
     FROM things t JOIN revisions r ON r.noun = t.noun AND r.key = t.key";

impl Store {
    /// Keeps something new under `key`, at revision 1. The same save id again gets the answer of the first time.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when the key is taken.
    pub async fn create<D: Kept>(&self, key: &str, document: &D, by: &By) -> Result<Revision<D>, StoreError> {
        self.keep_one(key, document, On::Nothing, by).await
    }

    /// Saves a new revision on top of `based_on`. Nothing older is touched. The same save id again gets the answer of
    /// the first time.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved since `based_on`; [`StoreError::NotFound`].
    pub async fn save<D: Kept>(
        &self,
        key: &str,
        document: &D,
        based_on: i64,
        by: &By,
    ) -> Result<Revision<D>, StoreError> {
        self.keep_one(key, document, On::Revision(based_on), by).await
    }

    async fn keep_one<D: Kept>(
        &self,
        key: &str,
        document: &D,
        on: On,
        by: &By,
    ) -> Result<Revision<D>, StoreError> {
        let mut writing = self.write().await?;
        match keep(writing.connection(), key, document, on, by).await {
            Ok((made, false)) => {
                writing.note(by, What::Saved, D::NOUN, key, Some(made.revision)).await?;
                writing.commit().await?;
                Ok(made)
            }
            Ok((made, true)) => {
                writing.undo().await?;
                Ok(made)
            }
            Err(why) => Err(writing.give_up(why).await),
        }
    }

    /// Saves some at once, each under its key and on top of the revision beside it, new ones on 0: all or nothing. One
    /// save id covers them all.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when one was saved in between, or exists where it should be new.
    pub async fn save_all<D: Kept>(
        &self,
        documents: &[(String, D, i64)],
        by: &By,
    ) -> Result<Vec<Revision<D>>, StoreError> {
        let mut writing = self.write().await?;
        let mut saved = Vec::with_capacity(documents.len());
        let mut written = false;
        for (key, document, based_on) in documents {
            let on = if *based_on == 0 { On::Nothing } else { On::Revision(*based_on) };
            // Each gets its own part of the id.
            let own = by.clone().under(by.save_id.as_ref().map(|id| id.of_part(key)));
            match keep(writing.connection(), key, document, on, &own).await {
                Ok((made, before)) => {
                    if !before {
                        written = true;
                        writing.note(by, What::Saved, D::NOUN, key, Some(made.revision)).await?;
                    }
                    saved.push(made);
                }
                Err(why) => return Err(writing.give_up(why).await),
            }
        }
        if written {
            writing.commit().await?
        } else {
            writing.undo().await?
        };
        Ok(saved)
    }

    /// A thing at a revision, the newest when none is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], [`StoreError::Damaged`].
    pub async fn read<D: Kept>(&self, key: &str, revision: Option<i64>) -> Result<Revision<D>, StoreError> {
        let sql = format!(
            "SELECT {ROW} WHERE t.noun = ?1 AND t.key = ?2 AND r.revision = coalesce(?3, t.revision)"
        );
        let row = sqlx::query(sqlx::AssertSqlSafe(sql))
            .bind(D::NOUN.word)
            .bind(key)
            .bind(revision)
            .fetch_optional(&self.readers)
            .await?;
        match (row, revision) {
            (Some(row), _) => read(&row),
            (None, Some(n)) => {
                let key = format!("{n} of {} {}", D::NOUN.said, key.chars().take(60).collect::<String>());
                Err(StoreError::NotFound { noun: "version", key })
            }
            (None, None) => Err(missing(D::NOUN, key)),
        }
    }

    /// What a save kept before, as it was kept then; none for a save of no id, or of one that was not used yet.
    ///
    /// # Errors
    /// [`StoreError::SaveIdUsed`] when the id was used for something of another noun; [`StoreError::Damaged`].
    pub async fn kept_before<D: Kept>(&self, by: &By) -> Result<Option<Revision<D>>, StoreError> {
        let Some(id) = by.save_id() else { return Ok(None) };
        let sql = format!("SELECT {ROW} WHERE r.save_id = ?");
        let row = sqlx::query(sqlx::AssertSqlSafe(sql)).bind(id).fetch_optional(&self.readers).await?;
        let Some(row) = row else { return Ok(None) };
        let noun: String = row.try_get("noun")?;
        if noun != D::NOUN.word {
            return Err(StoreError::SaveIdUsed);
        }
        read(&row).map(Some)
    }

    /// All revisions of a thing, newest first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], [`StoreError::Damaged`].
    pub async fn history<D: Kept>(&self, key: &str) -> Result<Vec<Revision<D>>, StoreError> {
        let sql = format!("SELECT {ROW} WHERE t.noun = ? AND t.key = ? ORDER BY r.revision DESC");
        let rows = sqlx::query(sqlx::AssertSqlSafe(sql))
            .bind(D::NOUN.word)
            .bind(key)
            .fetch_all(&self.readers)
            .await?;
        if rows.is_empty() {
            return Err(missing(D::NOUN, key));
        }
        rows.iter().map(read).collect()
    }

    /// The newest revision of everything of a noun, by name.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn all<D: Kept>(&self) -> Result<Vec<Revision<D>>, StoreError> {
        let sql =
            format!("SELECT {ROW} AND r.revision = t.revision WHERE t.noun = ? ORDER BY {}", D::LISTED_BY);
        let rows = sqlx::query(sqlx::AssertSqlSafe(sql)).bind(D::NOUN.word).fetch_all(&self.readers).await?;
        rows.iter().map(read).collect()
    }

    /// Some things as they were at a moment, by key: the first revision of one that was not there yet; keys that are not here are
    /// left out.
    ///
    /// # Arguments
    /// * `at`: RFC 3339.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn some_as_of<D: Kept>(
        &self,
        keys: &[&str],
        at: &str,
    ) -> Result<HashMap<String, Revision<D>>, StoreError> {
        let sql = format!(
            "SELECT {ROW} AND r.revision = coalesce(
                 (SELECT max(o.revision) FROM revisions o
                  WHERE o.noun = t.noun AND o.key = t.key AND unixepoch(o.saved_at, 'subsec') <= unixepoch(?3, 'subsec')),
                 1)
             WHERE t.noun = ?1 AND t.key IN (SELECT value FROM json_each(?2))"
        );
        let rows = sqlx::query(sqlx::AssertSqlSafe(sql))
            .bind(D::NOUN.word)
            .bind(serde_json::to_string(keys)?)
            .bind(at)
            .fetch_all(&self.readers)
            .await?;
        rows.iter().map(|row| Ok((row.try_get("key")?, read(row)?))).collect()
    }

    /// The newest revisions of some things, by key; keys that are not here are left out.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn some<D: Kept>(&self, keys: &[&str]) -> Result<HashMap<String, Revision<D>>, StoreError> {
        let sql = format!(
            "SELECT {ROW} AND r.revision = t.revision
             WHERE t.noun = ? AND t.key IN (SELECT value FROM json_each(?))"
        );
        let rows = sqlx::query(sqlx::AssertSqlSafe(sql))
            .bind(D::NOUN.word)
            .bind(serde_json::to_string(keys)?)
            .fetch_all(&self.readers)
            .await?;
        rows.iter().map(|row| Ok((row.try_get("key")?, read(row)?))).collect()
    }
}
