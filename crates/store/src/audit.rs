//! Who wrote what and when: one line in the transaction of every write, never changed.

use crate::noun::Noun;
use crate::writing::Writing;
use crate::{By, Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use utoipa::ToSchema;

/// What was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum What {
    /// A new revision.
    Saved,
    /// Tagged, put away or taken out.
    Placed,
    /// An event was added.
    Happened,
}

impl What {
    fn word(self) -> &'static str {
        match self {
            What::Saved => "saved",
            What::Placed => "placed",
            What::Happened => "happened",
        }
    }

    fn read(word: &str) -> Result<Self, StoreError> {
        Ok(serde_json::from_value(word.into())?)
    }
}

/// A line of the audit.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct AuditLine {
    /// When, RFC 3339.
    pub at: String,
    /// From which device, if that said so.
    pub device: Option<String>,
    /// What was done.
    pub what: What,
    /// Of which kind the thing is: component, order, ingredient, pantry, kitchen.
    pub noun: String,
    /// Its key.
    pub key: String,
    /// Its name now, for what is listed by one.
    pub name: Option<String>,
    /// The revision that came of it, if one did.
    pub revision: Option<i64>,
}

/// Most lines one question gets.
pub const MOST_LINES: u32 = 500;

impl Writing<'_> {
    /// Writes the line of what this transaction does. Each has one at the least.
    pub(crate) async fn note(
        &mut self,
        by: &By,
        what: What,
        noun: Noun,
        key: &str,
        revision: Option<i64>,
    ) -> Result<(), StoreError> {
        sqlx::query("INSERT INTO audit (at, device, what, noun, key, revision) VALUES (?, ?, ?, ?, ?, ?)")
            .bind(by.now.to_string())
            .bind(by.device())
            .bind(what.word())
            .bind(noun.word)
            .bind(key)
            .bind(revision)
            .execute(self.connection())
            .await?;
        self.noted = true;
        Ok(())
    }
}

/// A thing that somebody wrote something of.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct ChangedThing {
    /// Of which kind it is.
    pub noun: String,
    /// Its key.
    pub key: String,
}

impl Store {
    /// Number of the last line.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn last_line(&self) -> Result<i64, StoreError> {
        let row =
            sqlx::query("SELECT coalesce(max(id), 0) AS last FROM audit").fetch_one(&self.readers).await?;
        Ok(row.try_get("last")?)
    }

    /// Everything that was written since a line, each once, in the order of its last line; and the number of the last line.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn changed_since(&self, line: i64) -> Result<(i64, Vec<ChangedThing>), StoreError> {
        let sql =
            "SELECT noun, key, max(id) AS last FROM audit WHERE id > ? GROUP BY noun, key ORDER BY last";
        let rows = sqlx::query(sql).bind(line).fetch_all(&self.readers).await?;
        let mut all = Vec::with_capacity(rows.len());
        let mut last = line;
        for row in rows {
            last = row.try_get("last")?;
            all.push(ChangedThing { noun: row.try_get("noun")?, key: row.try_get("key")? });
        }
        Ok((last, all))
    }

    /// What was done last, the newest first: at most so many lines, and never more than [`MOST_LINES`].
    ///
    /// # Errors
    /// When the file fails.
    pub async fn audit(&self, most: u32) -> Result<Vec<AuditLine>, StoreError> {
        let sql = "SELECT a.at, a.device, a.what, a.noun, a.key, a.revision, t.name
             FROM audit a LEFT JOIN things t ON t.noun = a.noun AND t.key = a.key ORDER BY a.id DESC LIMIT ?";
        sqlx::query(sql)
            .bind(most.min(MOST_LINES))
            .fetch_all(&self.readers)
            .await?
            .iter()
            .map(|row| {
                Ok(AuditLine {
                    at: row.try_get("at")?,
                    device: row.try_get("device")?,
                    what: What::read(row.try_get("what")?)?,
                    noun: row.try_get("noun")?,
                    key: row.try_get("key")?,
                    name: row.try_get("name")?,
                    revision: row.try_get("revision")?,
                })
            })
            .collect()
    }
}
