//! What this kitchen has weighed itself: a cup of its cocoa, one of its eggs.

use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::units::{Density, Mass};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use utoipa::ToSchema;

/// The kitchen's own weights of one ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PantryItem {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its density as scooped or poured, g/ml; none to follow the tables.
    pub density_g_per_ml: Option<Density>,
    /// Weight of one piece, g; none to follow the tables.
    pub piece_g: Option<Mass>,
    /// Revision; 0 when nothing was saved yet.
    pub revision: i64,
}

fn read(row: &SqliteRow) -> Result<PantryItem, StoreError> {
    Ok(PantryItem {
        ingredient: row.try_get("ingredient")?,
        density_g_per_ml: row
            .try_get::<Option<f64>, _>("density_g_per_ml")?
            .map(Density::from_grams_per_millilitre),
        piece_g: row.try_get::<Option<f64>, _>("piece_g")?.map(Mass::from_grams),
        revision: row.try_get("revision")?,
    })
}

impl Store {
    /// All own weights.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pantry(&self) -> Result<Vec<PantryItem>, StoreError> {
        sqlx::query(
            "SELECT ingredient, density_g_per_ml, piece_g, revision FROM pantry_items ORDER BY ingredient",
        )
        .fetch_all(&self.pool)
        .await?
        .iter()
        .map(read)
        .collect()
    }

    /// Own weights of one ingredient; an empty item at revision 0 when there are none.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pantry_item(&self, ingredient: &str) -> Result<PantryItem, StoreError> {
        let row = sqlx::query(
            "SELECT ingredient, density_g_per_ml, piece_g, revision FROM pantry_items WHERE ingredient = ?",
        )
        .bind(ingredient)
        .fetch_optional(&self.pool)
        .await?;
        match row {
            Some(row) => read(&row),
            None => Ok(PantryItem {
                ingredient: ingredient.to_owned(),
                density_g_per_ml: None,
                piece_g: None,
                revision: 0,
            }),
        }
    }

    /// Saves own weights when `item.revision` is still the one in the file.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved in between.
    pub async fn save_pantry_item(
        &self,
        item: &PantryItem,
        now: Timestamp,
    ) -> Result<PantryItem, StoreError> {
        let density = item.density_g_per_ml.map(Density::grams_per_millilitre);
        let piece = item.piece_g.map(Mass::grams);
        let done = sqlx::query(
            "INSERT INTO pantry_items (ingredient, density_g_per_ml, piece_g, revision, saved_at)
             SELECT ?1, ?2, ?3, 1, ?5 WHERE ?4 = 0
             ON CONFLICT (ingredient) DO NOTHING",
        )
        .bind(&item.ingredient)
        .bind(density)
        .bind(piece)
        .bind(item.revision)
        .bind(now.to_string())
        .execute(&self.pool)
        .await?
        .rows_affected()
            + sqlx::query(
                "UPDATE pantry_items SET density_g_per_ml = ?2, piece_g = ?3, revision = revision + 1, saved_at = ?5
                 WHERE ingredient = ?1 AND revision = ?4",
            )
            .bind(&item.ingredient)
            .bind(density)
            .bind(piece)
            .bind(item.revision)
            .bind(now.to_string())
            .execute(&self.pool)
            .await?
            .rows_affected();
        let saved = self.pantry_item(&item.ingredient).await?;
        if done == 0 {
            return Err(StoreError::Conflict { based_on: item.revision, current: saved.revision });
        }
        Ok(saved)
    }
}
