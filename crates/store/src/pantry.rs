//! What this kitchen says of an ingredient: what a cup of its cocoa weighs, one of its eggs, what a pack
//! costs, and whether it is put away.

use crate::audit::What;
use crate::noun::Noun;
use crate::{By, Store, StoreError};
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

/// What is said of an ingredient, in the audit. It has no history of its own yet.
const PANTRY: Noun = Noun { word: "pantry", said: "ingredient" };

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
        .fetch_all(&self.readers)
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
        .fetch_optional(&self.readers)
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

    /// Saves it when `item.revision` is still the one in the file. The same save id again gets the answer of the first
    /// time, as long as nobody saved since.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved in between.
    pub async fn save_pantry_item(&self, item: &PantryItem, by: &By) -> Result<PantryItem, StoreError> {
        let mut writing = self.write().await?;
        let found = sqlx::query(
            "SELECT ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision, save_id
             FROM pantry_items WHERE ingredient = ?",
        )
        .bind(&item.ingredient)
        .fetch_optional(writing.connection())
        .await?;
        let mut current = 0;
        if let Some(row) = &found {
            current = row.try_get("revision")?;
            let saved_as: Option<String> = row.try_get("save_id")?;
            if by.save_id().is_some_and(|id| saved_as.as_deref() == Some(id)) {
                let before = read(row);
                writing.undo().await?;
                return before;
            }
        }
        if current != item.revision {
            writing.undo().await?;
            return Err(StoreError::Conflict { noun: PANTRY.said, based_on: item.revision, current });
        }
        let row = sqlx::query(
            "INSERT INTO pantry_items
                 (ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision, saved_at, save_id)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9)
             ON CONFLICT (ingredient) DO UPDATE SET density_g_per_ml = ?2, piece_g = ?3, pack_g = ?4,
                 pack_price = ?5, archived = ?6, revision = ?7, saved_at = ?8, save_id = ?9
             RETURNING ingredient, density_g_per_ml, piece_g, pack_g, pack_price, archived, revision",
        )
        .bind(&item.ingredient)
        .bind(item.density_g_per_ml.map(Density::grams_per_millilitre))
        .bind(item.piece_g.map(Mass::grams))
        .bind(item.pack.map(|pack| pack.pack_g))
        .bind(item.pack.map(|pack| pack.pack_price))
        .bind(item.archived)
        .bind(current + 1)
        .bind(by.now.to_string())
        .bind(by.save_id())
        .fetch_one(writing.connection())
        .await?;
        let saved = read(&row)?;
        writing.note(by, What::Saved, PANTRY, &saved.ingredient, Some(saved.revision)).await?;
        writing.commit().await?;
        Ok(saved)
    }
}
