//! Orders, and every revision of them.

use crate::kept::{
    COMPONENT, Kept, ORDER, On, RevisionSummary, Save, SaveId, history, keep, missing, row, whole,
};
use crate::{Store, StoreError};
use jiff::Timestamp;
use pastry::job::FormulaDocument;
use pastry::order::OrderDocument;
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use std::collections::HashMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// An order as the list shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OrderSummary {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
    /// When it is eaten, in the kitchen's own time; none while nobody said.
    pub served_at: Option<String>,
    /// How many cakes and pieces.
    pub pieces: i64,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, RFC 3339.
    pub saved_at: String,
    /// Put away: not listed unless asked for.
    pub archived: bool,
}

/// One revision of an order, with its document.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Order {
    /// Its key.
    pub id: String,
    /// This revision.
    pub revision: i64,
    /// The newest revision there is.
    pub newest_revision: i64,
    /// When this revision was saved, RFC 3339.
    pub saved_at: String,
    /// The order.
    pub document: OrderDocument,
}

/// What a save made of a document, as its answer: nothing is read again, so it is nobody else's.
fn answer(kept: Kept, document: &OrderDocument) -> Order {
    Order {
        id: kept.key,
        revision: kept.revision,
        newest_revision: kept.newest,
        saved_at: kept.saved_at,
        document: document.clone(),
    }
}

fn summary(row: &SqliteRow) -> Result<OrderSummary, StoreError> {
    Ok(OrderSummary {
        id: row.try_get("id")?,
        name: row.try_get("name")?,
        served_at: row.try_get("served_at")?,
        pieces: row.try_get("pieces")?,
        revision: row.try_get("revision")?,
        saved_at: row.try_get("saved_at")?,
        archived: row.try_get("archived")?,
    })
}

fn pieces(document: &OrderDocument) -> i64 {
    document.cakes.iter().map(|cake| i64::from(cake.count)).sum()
}

impl Store {
    /// All orders, the next to be eaten first, those without a date last.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn orders(&self) -> Result<Vec<OrderSummary>, StoreError> {
        sqlx::query(
            "SELECT id, name, served_at, pieces, revision, saved_at, archived FROM orders
             ORDER BY served_at IS NULL, served_at, name COLLATE NOCASE",
        )
        .fetch_all(&self.readers)
        .await?
        .iter()
        .map(summary)
        .collect()
    }

    /// A new order under `id`, at revision 1. The same save id again gets the answer of the first time.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn create_order(
        &self,
        id: Uuid,
        document: &OrderDocument,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        self.keep_order(&id.to_string(), document, On::Nothing, save_id, now).await
    }

    /// Saves a new revision on top of `based_on`. Nothing older is touched. The same save id again gets the answer of
    /// the first time.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved since `based_on`; [`StoreError::NotFound`].
    pub async fn save_order(
        &self,
        id: &str,
        document: &OrderDocument,
        based_on: i64,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        self.keep_order(id, document, On::Revision(based_on), save_id, now).await
    }

    /// Writes a revision and what the list shows of it: all or nothing.
    async fn keep_order(
        &self,
        id: &str,
        document: &OrderDocument,
        on: On,
        save_id: Option<&SaveId>,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        let mut writing = self.write().await?;
        let save = Save { noun: ORDER, key: id, document, on, save_id, now };
        let kept = match keep(writing.connection(), save).await {
            Ok(kept) if !kept.before => kept,
            // Made before, or refused: nothing is to be kept.
            settled => {
                writing.undo().await?;
                return settled.map(|kept| answer(kept, document));
            }
        };
        sqlx::query(
            "INSERT INTO orders (id, name, served_at, pieces, revision, created_at, saved_at)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?6)
             ON CONFLICT (id) DO UPDATE SET name = ?2, served_at = ?3, pieces = ?4, revision = ?5, saved_at = ?6",
        )
        .bind(id)
        .bind(&document.name)
        .bind(document.served_at.map(|when| when.to_string()))
        .bind(pieces(document))
        .bind(kept.revision)
        .bind(&kept.saved_at)
        .execute(writing.connection())
        .await?;
        writing.commit().await?;
        Ok(answer(kept, document))
    }

    /// An order at a revision, the newest when none is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], [`StoreError::Damaged`].
    pub async fn order(&self, id: &str, revision: Option<i64>) -> Result<Order, StoreError> {
        let row = row(&self.readers, ORDER, id, revision).await?;
        Ok(Order {
            id: row.try_get("key")?,
            revision: row.try_get("revision")?,
            newest_revision: row.try_get("newest")?,
            saved_at: row.try_get("saved_at")?,
            document: whole(&row)?,
        })
    }

    /// All revisions of an order, newest first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn order_revisions(&self, id: &str) -> Result<Vec<RevisionSummary>, StoreError> {
        history(&self.readers, ORDER, id).await
    }

    /// Puts an order away, or takes it out again. Makes no revision.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn archive_order(&self, id: &str, archived: bool) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        let done = sqlx::query("UPDATE orders SET archived = ? WHERE id = ?")
            .bind(archived)
            .bind(id)
            .execute(writing.connection())
            .await?;
        if done.rows_affected() == 0 {
            writing.undo().await?;
            return Err(missing(ORDER, id));
        }
        writing.commit().await
    }

    /// The newest formulas of so many components, by key; keys that are not here are left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn formulas(&self, keys: &[&str]) -> Result<HashMap<String, FormulaDocument>, StoreError> {
        let rows = sqlx::query(
            "SELECT r.noun, r.key, r.revision, r.hash, r.document FROM components c
             JOIN revisions r ON r.noun = ?1 AND r.key = c.id AND r.revision = c.revision
             WHERE c.id IN (SELECT value FROM json_each(?2))",
        )
        .bind(COMPONENT.word)
        .bind(serde_json::to_string(keys)?)
        .fetch_all(&self.readers)
        .await?;
        rows.iter().map(|row| Ok((row.try_get("key")?, whole(row)?))).collect()
    }

    /// Names of the components that use each ingredient; those put away are left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn used_by_name(&self) -> Result<HashMap<String, Vec<String>>, StoreError> {
        let rows = sqlx::query(
            "SELECT u.ingredient, c.name FROM component_ingredients u JOIN components c ON c.id = u.component_id
             WHERE c.archived = 0 ORDER BY c.name COLLATE NOCASE",
        )
        .fetch_all(&self.readers)
        .await?;
        let mut used: HashMap<String, Vec<String>> = HashMap::new();
        for row in &rows {
            used.entry(row.try_get("ingredient")?).or_default().push(row.try_get("name")?);
        }
        Ok(used)
    }
}
