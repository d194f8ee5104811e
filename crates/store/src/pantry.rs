//! What this kitchen says of an ingredient: what a cup of its cocoa weighs, one of its eggs, what a pack
//! costs, and whether it is put away.

use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::ingredient::Pack;
use pastry::units::{Density, Mass};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use utoipa::ToSchema;

/// What the kitchen says of one ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PantryItem {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its density as scooped or poured, g/ml; none to follow the tables.
    pub density_g_per_ml: Option<Density>,
    /// Weight of one piece, g; none to follow the tables.
    pub piece_g: Option<Mass>,
    /// The pack it buys; none to follow the tables.
    pub pack: Option<Pack>,
    /// Put away: not offered any more.
    pub archived: bool,
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
        pack: row
            .try_get::<Option<f64>, _>("pack_g")?
            .zip(row.try_get::<Option<f64>, _>("pack_price")?)
            .map(|(pack_g, pack_price)| Pack { pack_g, pack_price }),
        archived: row.try_get("archived")?,
        revision: row.try_get("revision")?,
    })
}

impl Store {
    /// All that was said.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pantry(&self) -> Result<Vec<PantryItem>, StoreError> {
        sqlx::query(
            "SELECT ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision
             FROM pantry_items ORDER BY ingredient",
        )
        .fetch_all(&self.pool)
        .await?
        .iter()
        .map(read)
        .collect()
    }

    /// What was said of one ingredient; an empty item at revision 0 when there are none.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pantry_item(&self, ingredient: &str) -> Result<PantryItem, StoreError> {
        let row = sqlx::query(
            "SELECT ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision
             FROM pantry_items WHERE ingredient = ?",
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
                pack: None,
                archived: false,
                revision: 0,
            }),
        }
    }

    /// Saves it when `item.revision` is still the one in the file.
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
        let mut transaction = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        let current: i64 = sqlx::query_scalar("SELECT revision FROM pantry_items WHERE ingredient = ?")
            .bind(&item.ingredient)
            .fetch_optional(&mut *transaction)
            .await?
            .unwrap_or(0);
        if current != item.revision {
            return Err(StoreError::Conflict { based_on: item.revision, current });
        }
        sqlx::query(
            "INSERT INTO pantry_items
                 (ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision, saved_at)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)
             ON CONFLICT (ingredient) DO UPDATE SET density_g_per_ml = ?2, piece_g = ?3, pack_g = ?4,
                 pack_price = ?5, archived = ?6, revision = ?7, saved_at = ?8",
        )
        .bind(&item.ingredient)
        .bind(density)
        .bind(piece)
        .bind(item.pack.map(|pack| pack.pack_g))
        .bind(item.pack.map(|pack| pack.pack_price))
        .bind(item.archived)
        .bind(current + 1)
        .bind(now.to_string())
        .execute(&mut *transaction)
        .await?;
        transaction.commit().await?;
        self.pantry_item(&item.ingredient).await
    }
}
