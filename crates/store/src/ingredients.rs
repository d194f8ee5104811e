//! Ingredients of the kitchen's own, and every revision of them.

use crate::kept::{INGREDIENT, On, Save, SaveId, keep, missing, whole};
use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::ingredient::{IngredientDocument, Shelf};
use serde::{Deserialize, Serialize};
use sqlx::sqlite::SqliteRow;
use sqlx::{QueryBuilder, Row, Sqlite};
use utoipa::ToSchema;

/// An own ingredient at its newest revision.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OwnIngredient {
    /// What it is.
    pub document: IngredientDocument,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, RFC 3339.
    pub saved_at: String,
}

fn read(row: &SqliteRow) -> Result<OwnIngredient, StoreError> {
    Ok(OwnIngredient {
        document: whole(row)?,
        revision: row.try_get("revision")?,
        saved_at: row.try_get("saved_at")?,
    })
}

const NEWEST: &str = "SELECT r.noun, r.key, r.hash, r.document, r.revision, r.saved_at FROM own_ingredients i
     JOIN revisions r ON r.noun = 'ingredient' AND r.key = i.key AND r.revision = i.revision";

impl Store {
    /// All own ingredients, by name.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn own_ingredients(&self) -> Result<Vec<OwnIngredient>, StoreError> {
        let sql = format!("{NEWEST} ORDER BY i.name COLLATE NOCASE");
        sqlx::query(sqlx::AssertSqlSafe(sql)).fetch_all(&self.readers).await?.iter().map(read).collect()
    }

    /// One own ingredient.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn own_ingredient(&self, key: &str) -> Result<OwnIngredient, StoreError> {
        let sql = format!("{NEWEST} WHERE i.key = ?");
        let row = sqlx::query(sqlx::AssertSqlSafe(sql)).bind(key).fetch_optional(&self.readers).await?;
        row.as_ref().map(read).transpose()?.ok_or_else(|| missing(INGREDIENT, key))
    }

    /// The shelf that holds the own ingredients among some keys, over the catalogue.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn shelf(&self, keys: impl IntoIterator<Item = &str>) -> Result<Shelf, StoreError> {
        let own: Vec<&str> =
            keys.into_iter().filter(|key| key.starts_with(pastry::ingredient::shelf::OWN)).collect();
        if own.is_empty() {
            return Ok(Shelf::catalogue());
        }
        let mut query = QueryBuilder::<Sqlite>::new(NEWEST);
        query.push(" WHERE i.key IN (");
        let mut list = query.separated(", ");
        for key in own {
            list.push_bind(key.to_owned());
        }
        query.push(")");
        let rows = query.build().fetch_all(&self.readers).await?;
        let found: Vec<OwnIngredient> = rows.iter().map(read).collect::<Result<_, _>>()?;
        // A kept document was fit when it was kept; one that no longer is, is as if it were not there.
        Ok(Shelf::catalogue().with(found.iter().filter_map(|own| own.document.ingredient().ok())))
    }

    /// The catalogue with everything of the kitchen's own.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn whole_shelf(&self) -> Result<Shelf, StoreError> {
        let own = self.own_ingredients().await?;
        Ok(Shelf::catalogue().with(own.iter().filter_map(|own| own.document.ingredient().ok())))
    }

    /// Saves some own ingredients at once: new ones at revision 1, known ones on top of the revision given
    /// beside them. All or nothing. The answer is what this save made, or had made when its id comes again.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when one was saved in between, or exists where it should be new.
    pub async fn save_own_ingredients(
        &self,
        documents: &[(IngredientDocument, i64)],
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Vec<OwnIngredient>, StoreError> {
        let mut writing = self.write().await?;
        let mut saved = Vec::with_capacity(documents.len());
        for (document, based_on) in documents {
            let on = if *based_on == 0 { On::Nothing } else { On::Revision(*based_on) };
            // One id may save many: each gets its own part of it.
            let part = save_id.map(|id| id.of_part(&document.key));
            let save =
                Save { noun: INGREDIENT, key: &document.key, document, on, save_id: part.as_ref(), now };
            let kept = match keep(writing.connection(), save).await {
                Ok(kept) => kept,
                Err(refused) => {
                    writing.undo().await?;
                    return Err(refused);
                }
            };
            if !kept.before {
                sqlx::query(
                    "INSERT INTO own_ingredients (key, name, revision, saved_at) VALUES (?1, ?2, ?3, ?4)
                     ON CONFLICT (key) DO UPDATE SET name = ?2, revision = ?3, saved_at = ?4",
                )
                .bind(&document.key)
                .bind(&document.name)
                .bind(kept.revision)
                .bind(&kept.saved_at)
                .execute(writing.connection())
                .await?;
            }
            saved.push(OwnIngredient {
                document: document.clone(),
                revision: kept.revision,
                saved_at: kept.saved_at,
            });
        }
        writing.commit().await?;
        Ok(saved)
    }
}
