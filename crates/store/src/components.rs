//! Components: creams with a name, and every revision of them.

use crate::kept::{COMPONENT, Kept, On, RevisionSummary, Save, SaveId, history, keep, row, whole};
use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::formula::Family;
use pastry::job::FormulaDocument;
use serde::{Deserialize, Serialize};
use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqliteConnection};
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
    connection: &mut SqliteConnection,
    id: &str,
    document: &FormulaDocument,
) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM component_ingredients WHERE component_id = ?")
        .bind(id)
        .execute(&mut *connection)
        .await?;
    for line in &document.lines {
        sqlx::query("INSERT OR IGNORE INTO component_ingredients (component_id, ingredient) VALUES (?, ?)")
            .bind(id)
            .bind(&line.ingredient)
            .execute(&mut *connection)
            .await?;
    }
    Ok(())
}

/// What a save made of a document, as its answer: nothing is read again, so it is nobody else's.
fn answer(kept: Kept, document: &FormulaDocument) -> Component {
    Component {
        id: kept.key,
        revision: kept.revision,
        newest_revision: kept.newest,
        saved_at: kept.saved_at,
        document: document.clone(),
    }
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
        .fetch_all(&self.readers)
        .await?
        .iter()
        .map(summary)
        .collect()
    }

    /// A new component under `id`, at revision 1. The same save id again gets the answer of the first time.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn create_component(
        &self,
        id: Uuid,
        document: &FormulaDocument,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Component, StoreError> {
        self.keep_component(&id.to_string(), document, On::Nothing, save_id, now).await
    }

    /// Saves a new revision on top of `based_on`. Nothing older is touched. The same save id again gets the answer of
    /// the first time.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved since `based_on`; [`StoreError::NotFound`].
    pub async fn save_component(
        &self,
        id: &str,
        document: &FormulaDocument,
        based_on: i64,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Component, StoreError> {
        self.keep_component(id, document, On::Revision(based_on), save_id, now).await
    }

    async fn keep_component(
        &self,
        id: &str,
        document: &FormulaDocument,
        on: On,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Component, StoreError> {
        let mut writing = self.write().await?;
        let save = Save { noun: COMPONENT, key: id, document, on, save_id, now };
        let kept = match keep(writing.connection(), save).await {
            Ok(kept) if !kept.before => kept,
            // Made before, or refused: nothing is to be kept.
            settled => {
                writing.undo().await?;
                return settled.map(|kept| answer(kept, document));
            }
        };
        sqlx::query(
            "INSERT INTO components (id, name, family, job, revision, created_at, saved_at)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?6)
             ON CONFLICT (id) DO UPDATE SET name = ?2, family = ?3, job = ?4, revision = ?5, saved_at = ?6",
        )
        .bind(id)
        .bind(&document.name)
        .bind(family_word(document.family)?)
        .bind(job_word(document))
        .bind(kept.revision)
        .bind(&kept.saved_at)
        .execute(writing.connection())
        .await?;
        note_ingredients(writing.connection(), id, document).await?;
        writing.commit().await?;
        Ok(answer(kept, document))
    }

    /// A component at a revision, the newest when none is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], [`StoreError::Damaged`].
    pub async fn component(&self, id: &str, revision: Option<i64>) -> Result<Component, StoreError> {
        let row = row(&self.readers, COMPONENT, id, revision).await?;
        Ok(Component {
            id: row.try_get("key")?,
            revision: row.try_get("revision")?,
            newest_revision: row.try_get("newest")?,
            saved_at: row.try_get("saved_at")?,
            document: whole(&row)?,
        })
    }

    /// All revisions of a component, newest first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn component_revisions(&self, id: &str) -> Result<Vec<RevisionSummary>, StoreError> {
        history(&self.readers, COMPONENT, id).await
    }
}
