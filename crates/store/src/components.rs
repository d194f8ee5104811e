//! Components: creams with a name, and every revision of them.

use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::formula::Family;
use pastry::job::FormulaDocument;
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use utoipa::ToSchema;
use uuid::Uuid;

/// A component as the library lists it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ComponentSummary {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
    /// Its family.
    pub family: Family,
    /// Its family in kitchen words.
    pub family_word: String,
    /// Its job: drip, coat, mask, fill …
    pub job: String,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, RFC 3339.
    pub saved_at: String,
    /// Its tags.
    pub tags: Vec<String>,
    /// Put away: not listed unless asked for.
    pub archived: bool,
}

/// One revision of a component, with its document.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Component {
    /// Its key.
    pub id: String,
    /// This revision.
    pub revision: i64,
    /// The newest revision there is.
    pub newest_revision: i64,
    /// When this revision was saved, RFC 3339.
    pub saved_at: String,
    /// The formula and its work.
    pub document: FormulaDocument,
}

/// A revision as the history lists it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RevisionSummary {
    /// Its number, from 1.
    pub revision: i64,
    /// When it was saved, RFC 3339.
    pub saved_at: String,
    /// The name it had.
    pub name: String,
}

fn job_word(document: &FormulaDocument) -> &'static str {
    document.work.job.word()
}

fn family_word(family: Family) -> Result<String, StoreError> {
    Ok(serde_json::to_value(family)?.as_str().expect("a family serialises to a word").to_owned())
}

fn summary(row: &SqliteRow) -> Result<ComponentSummary, StoreError> {
    let family: Family = serde_json::from_value(row.try_get::<String, _>("family")?.into())?;
    let tags: Option<String> = row.try_get("tags")?;
    Ok(ComponentSummary {
        id: row.try_get("id")?,
        name: row.try_get("name")?,
        family,
        family_word: family.word().to_owned(),
        job: row.try_get("job")?,
        revision: row.try_get("revision")?,
        saved_at: row.try_get("saved_at")?,
        // A tag holds no line break: they are parted by one.
        tags: tags.iter().flat_map(|tags| tags.split('\n')).map(str::to_owned).collect(),
        archived: row.try_get("archived")?,
    })
}

/// Keeps which ingredients the newest revision uses.
async fn note_ingredients(
    transaction: &mut sqlx::Transaction<'_, sqlx::Sqlite>,
    id: &str,
    document: &FormulaDocument,
) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM component_ingredients WHERE component_id = ?")
        .bind(id)
        .execute(&mut **transaction)
        .await?;
    for line in &document.lines {
        sqlx::query("INSERT OR IGNORE INTO component_ingredients (component_id, ingredient) VALUES (?, ?)")
            .bind(id)
            .bind(&line.ingredient)
            .execute(&mut **transaction)
            .await?;
    }
    Ok(())
}

pub(crate) fn missing(id: &str) -> StoreError {
    StoreError::NotFound { noun: "component", key: id.to_owned() }
}

impl Store {
    /// All components, by name.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn components(&self) -> Result<Vec<ComponentSummary>, StoreError> {
        sqlx::query(
            "SELECT id, name, family, job, revision, saved_at, archived,
                 (SELECT group_concat(tag, char(10)) FROM
                     (SELECT tag FROM component_tags WHERE component_id = id ORDER BY tag)) AS tags
             FROM components ORDER BY name COLLATE NOCASE, created_at",
        )
        .fetch_all(&self.pool)
        .await?
        .iter()
        .map(summary)
        .collect()
    }

    /// A new component under `id`, at revision 1.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn create_component(
        &self,
        id: Uuid,
        document: &FormulaDocument,
        now: Timestamp,
    ) -> Result<Component, StoreError> {
        let (id, now) = (id.to_string(), now.to_string());
        let mut transaction = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        sqlx::query(
            "INSERT INTO components (id, name, family, job, revision, created_at, saved_at)
             VALUES (?1, ?2, ?3, ?4, 1, ?5, ?5)",
        )
        .bind(&id)
        .bind(&document.name)
        .bind(family_word(document.family)?)
        .bind(job_word(document))
        .bind(&now)
        .execute(&mut *transaction)
        .await?;
        sqlx::query(
            "INSERT INTO component_revisions (component_id, revision, saved_at, document) VALUES (?, 1, ?, ?)",
        )
        .bind(&id)
        .bind(&now)
        .bind(serde_json::to_string(document)?)
        .execute(&mut *transaction)
        .await?;
        note_ingredients(&mut transaction, &id, document).await?;
        transaction.commit().await?;
        self.component(&id, None).await
    }

    /// A component at a revision, the newest when none is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn component(&self, id: &str, revision: Option<i64>) -> Result<Component, StoreError> {
        let row = sqlx::query(
            "SELECT c.id, c.revision AS newest, r.revision, r.saved_at, r.document
             FROM components c JOIN component_revisions r ON r.component_id = c.id
             WHERE c.id = ?1 AND r.revision = coalesce(?2, c.revision)",
        )
        .bind(id)
        .bind(revision)
        .fetch_optional(&self.pool)
        .await?
        .ok_or_else(|| match revision {
            Some(n) => StoreError::NotFound { noun: "revision", key: format!("{n} of component {id}") },
            None => missing(id),
        })?;
        Ok(Component {
            id: row.try_get("id")?,
            revision: row.try_get("revision")?,
            newest_revision: row.try_get("newest")?,
            saved_at: row.try_get("saved_at")?,
            document: serde_json::from_str(&row.try_get::<String, _>("document")?)?,
        })
    }

    /// Saves a new revision on top of `based_on`. Nothing older is touched.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved since `based_on`; [`StoreError::NotFound`].
    pub async fn save_component(
        &self,
        id: &str,
        document: &FormulaDocument,
        based_on: i64,
        now: Timestamp,
    ) -> Result<Component, StoreError> {
        let now = now.to_string();
        let mut transaction = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        let current: i64 = sqlx::query_scalar("SELECT revision FROM components WHERE id = ?")
            .bind(id)
            .fetch_optional(&mut *transaction)
            .await?
            .ok_or_else(|| missing(id))?;
        if current != based_on {
            return Err(StoreError::Conflict { based_on, current });
        }
        sqlx::query(
            "UPDATE components SET name = ?, family = ?, job = ?, revision = ?, saved_at = ? WHERE id = ?",
        )
        .bind(&document.name)
        .bind(family_word(document.family)?)
        .bind(job_word(document))
        .bind(current + 1)
        .bind(&now)
        .bind(id)
        .execute(&mut *transaction)
        .await?;
        sqlx::query(
            "INSERT INTO component_revisions (component_id, revision, saved_at, document) VALUES (?, ?, ?, ?)",
        )
        .bind(id)
        .bind(current + 1)
        .bind(&now)
        .bind(serde_json::to_string(document)?)
        .execute(&mut *transaction)
        .await?;
        note_ingredients(&mut transaction, id, document).await?;
        transaction.commit().await?;
        self.component(id, None).await
    }

    /// All revisions of a component, newest first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn component_revisions(&self, id: &str) -> Result<Vec<RevisionSummary>, StoreError> {
        let rows = sqlx::query(
            "SELECT revision, saved_at, json_extract(document, '$.name') AS name FROM component_revisions
             WHERE component_id = ? ORDER BY revision DESC",
        )
        .bind(id)
        .fetch_all(&self.pool)
        .await?;
        if rows.is_empty() {
            return Err(missing(id));
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
}
