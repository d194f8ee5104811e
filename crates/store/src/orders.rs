//! Orders, and every revision of them.

use crate::components::RevisionSummary;
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

fn missing(id: &str) -> StoreError {
    StoreError::NotFound { noun: "order", key: id.to_owned() }
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
        .fetch_all(&self.pool)
        .await?
        .iter()
        .map(summary)
        .collect()
    }

    /// Writes a revision and what the list shows of it: all or nothing.
    async fn write_order(
        &self,
        id: &str,
        document: &OrderDocument,
        based_on: Option<i64>,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        let now = now.to_string();
        let mut transaction = self.pool.begin_with("BEGIN IMMEDIATE").await?;
        let current: i64 = sqlx::query_scalar("SELECT revision FROM orders WHERE id = ?")
            .bind(id)
            .fetch_optional(&mut *transaction)
            .await?
            .unwrap_or(0);
        match based_on {
            Some(_) if current == 0 => return Err(missing(id)),
            Some(based_on) if based_on != current => return Err(StoreError::Conflict { based_on, current }),
            _ => {}
        }
        sqlx::query(
            "INSERT INTO orders (id, name, served_at, pieces, revision, created_at, saved_at)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?6)
             ON CONFLICT (id) DO UPDATE SET name = ?2, served_at = ?3, pieces = ?4, revision = ?5, saved_at = ?6",
        )
        .bind(id)
        .bind(&document.name)
        .bind(document.served_at.map(|when| when.to_string()))
        .bind(pieces(document))
        .bind(current + 1)
        .bind(&now)
        .execute(&mut *transaction)
        .await?;
        sqlx::query(
            "INSERT INTO order_revisions (order_id, revision, saved_at, document) VALUES (?, ?, ?, ?)",
        )
        .bind(id)
        .bind(current + 1)
        .bind(&now)
        .bind(serde_json::to_string(document)?)
        .execute(&mut *transaction)
        .await?;
        transaction.commit().await?;
        self.order(id, None).await
    }

    /// A new order under `id`, at revision 1.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn create_order(
        &self,
        id: Uuid,
        document: &OrderDocument,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        self.write_order(&id.to_string(), document, None, now).await
    }

    /// Saves a new revision on top of `based_on`. Nothing older is touched.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved since `based_on`; [`StoreError::NotFound`].
    pub async fn save_order(
        &self,
        id: &str,
        document: &OrderDocument,
        based_on: i64,
        now: Timestamp,
    ) -> Result<Order, StoreError> {
        self.write_order(id, document, Some(based_on), now).await
    }

    /// An order at a revision, the newest when none is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn order(&self, id: &str, revision: Option<i64>) -> Result<Order, StoreError> {
        let row = sqlx::query(
            "SELECT o.id, o.revision AS newest, r.revision, r.saved_at, r.document
             FROM orders o JOIN order_revisions r ON r.order_id = o.id
             WHERE o.id = ?1 AND r.revision = coalesce(?2, o.revision)",
        )
        .bind(id)
        .bind(revision)
        .fetch_optional(&self.pool)
        .await?
        .ok_or_else(|| missing(id))?;
        Ok(Order {
            id: row.try_get("id")?,
            revision: row.try_get("revision")?,
            newest_revision: row.try_get("newest")?,
            saved_at: row.try_get("saved_at")?,
            document: serde_json::from_str(&row.try_get::<String, _>("document")?)?,
        })
    }

    /// All revisions of an order, newest first.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn order_revisions(&self, id: &str) -> Result<Vec<RevisionSummary>, StoreError> {
        let rows = sqlx::query(
            "SELECT revision, saved_at, json_extract(document, '$.name') AS name FROM order_revisions
             WHERE order_id = ? ORDER BY revision DESC",
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

    /// Puts an order away, or takes it out again. Makes no revision.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn archive_order(&self, id: &str, archived: bool) -> Result<(), StoreError> {
        let done = sqlx::query("UPDATE orders SET archived = ? WHERE id = ?")
            .bind(archived)
            .bind(id)
            .execute(&self.pool)
            .await?;
        if done.rows_affected() == 0 { Err(missing(id)) } else { Ok(()) }
    }

    /// The newest formulas of so many components, by key; keys that are not here are left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn formulas(&self, keys: &[&str]) -> Result<HashMap<String, FormulaDocument>, StoreError> {
        let rows = sqlx::query(
            "SELECT c.id, r.document FROM components c
             JOIN component_revisions r ON r.component_id = c.id AND r.revision = c.revision
             WHERE c.id IN (SELECT value FROM json_each(?))",
        )
        .bind(serde_json::to_string(keys)?)
        .fetch_all(&self.pool)
        .await?;
        rows.iter()
            .map(|row| {
                let document = serde_json::from_str(&row.try_get::<String, _>("document")?)?;
                Ok((row.try_get("id")?, document))
            })
            .collect()
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
        .fetch_all(&self.pool)
        .await?;
        let mut used: HashMap<String, Vec<String>> = HashMap::new();
        for row in &rows {
            used.entry(row.try_get("ingredient")?).or_default().push(row.try_get("name")?);
        }
        Ok(used)
    }
}
