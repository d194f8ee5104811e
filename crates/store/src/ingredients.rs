//! Ingredients of the kitchen's own, and every revision of them.

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
        document: serde_json::from_str(&row.try_get::<String, _>("document")?)?,
        revision: row.try_get("revision")?,
        saved_at: row.try_get("saved_at")?,
    })
}

const NEWEST: &str = "SELECT r.document, r.revision, r.saved_at FROM own_ingredients i
     JOIN own_ingredient_revisions r ON r.key = i.key AND r.revision = i.revision";

impl Store {
    /// All own ingredients, by name.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn own_ingredients(&self) -> Result<Vec<OwnIngredient>, StoreError> {
        let sql = format!("{NEWEST} ORDER BY i.name COLLATE NOCASE");
        sqlx::query(sqlx::AssertSqlSafe(sql)).fetch_all(&self.pool).await?.iter().map(read).collect()
    }

    /// One own ingredient.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn own_ingredient(&self, key: &str) -> Result<OwnIngredient, StoreError> {
        let sql = format!("{NEWEST} WHERE i.key = ?");
        let row = sqlx::query(sqlx::AssertSqlSafe(sql)).bind(key).fetch_optional(&self.pool).await?;
        row.as_ref()
            .map(read)
            .transpose()?
            .ok_or_else(|| StoreError::NotFound { noun: "ingredient", key: key.chars().take(60).collect() })
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
        let rows = query.build().fetch_all(&self.pool).await?;
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
    /// beside them. All or nothing.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when one was saved in between, or exists where it should be new.
    pub async fn save_own_ingredients(
        &self,
        documents: &[(IngredientDocument, i64)],
        now: Timestamp,
    ) -> Result<(), StoreError> {
        let now = now.to_string();
        let mut transaction = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        for (document, based_on) in documents {
            let current: i64 = sqlx::query_scalar("SELECT revision FROM own_ingredients WHERE key = ?")
                .bind(&document.key)
                .fetch_optional(&mut *transaction)
                .await?
                .unwrap_or(0);
            if current != *based_on {
                return Err(StoreError::Conflict { based_on: *based_on, current });
            }
            sqlx::query(
                "INSERT INTO own_ingredients (key, name, revision, saved_at) VALUES (?1, ?2, ?3, ?4)
                 ON CONFLICT (key) DO UPDATE SET name = ?2, revision = ?3, saved_at = ?4",
            )
            .bind(&document.key)
            .bind(&document.name)
            .bind(current + 1)
            .bind(&now)
            .execute(&mut *transaction)
            .await?;
            sqlx::query(
                "INSERT INTO own_ingredient_revisions (key, revision, saved_at, document) VALUES (?, ?, ?, ?)",
            )
            .bind(&document.key)
            .bind(current + 1)
            .bind(&now)
            .bind(serde_json::to_string(document)?)
            .execute(&mut *transaction)
            .await?;
        }
        transaction.commit().await?;
        Ok(())
    }
}
