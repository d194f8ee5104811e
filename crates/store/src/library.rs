//! Order in the library: tags, what is put away, and which formulas use an ingredient.

use crate::kept::{COMPONENT, missing};
use crate::{Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use std::collections::HashMap;
use utoipa::ToSchema;

/// Longest tag, characters.
pub const LONGEST_TAG: usize = 40;
/// Most tags of one component.
pub const MOST_TAGS: usize = 20;

/// Where a component stands in the library. It is no part of the formula and makes no revision.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Its tags, each up to 40 letters.
    #[schema(max_items = 20)]
    pub tags: Vec<String>,
    /// Put away: not listed unless asked for.
    pub archived: bool,
}

/// A component that uses an ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct UsedIn {
    /// Key of the component.
    pub id: String,
    /// Its name.
    pub name: String,
}

impl Store {
    /// Puts a component in its place.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn place_component(&self, id: &str, place: &Place) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        let found = sqlx::query("UPDATE components SET archived = ? WHERE id = ?")
            .bind(place.archived)
            .bind(id)
            .execute(writing.connection())
            .await?;
        if found.rows_affected() == 0 {
            writing.undo().await?;
            return Err(missing(COMPONENT, id));
        }
        sqlx::query("DELETE FROM component_tags WHERE component_id = ?")
            .bind(id)
            .execute(writing.connection())
            .await?;
        for tag in &place.tags {
            sqlx::query("INSERT OR IGNORE INTO component_tags (component_id, tag) VALUES (?, ?)")
                .bind(id)
                .bind(tag)
                .execute(writing.connection())
                .await?;
        }
        writing.commit().await
    }

    /// Components whose newest revision uses an ingredient, by name; those put away are left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn used_in(&self, ingredient: &str) -> Result<Vec<UsedIn>, StoreError> {
        sqlx::query(
            "SELECT c.id, c.name FROM component_ingredients u JOIN components c ON c.id = u.component_id
             WHERE u.ingredient = ? AND c.archived = 0 ORDER BY c.name COLLATE NOCASE",
        )
        .bind(ingredient)
        .fetch_all(&self.readers)
        .await?
        .iter()
        .map(|row| Ok(UsedIn { id: row.try_get("id")?, name: row.try_get("name")? }))
        .collect()
    }

    /// In how many components each ingredient is used.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn uses(&self) -> Result<HashMap<String, i64>, StoreError> {
        sqlx::query(
            "SELECT u.ingredient, count(*) AS many FROM component_ingredients u
             JOIN components c ON c.id = u.component_id WHERE c.archived = 0 GROUP BY u.ingredient",
        )
        .fetch_all(&self.readers)
        .await?
        .iter()
        .map(|row| Ok((row.try_get("ingredient")?, row.try_get("many")?)))
        .collect()
    }
}
