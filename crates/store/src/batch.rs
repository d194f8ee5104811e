//! Batches while they are made: what each is made by, and what happens to it.

use crate::journal::{Event, KeptEvent};
use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{BATCH, COMPONENT, Kept, Noun, ORDER};
use crate::{Store, StoreError};
use pastry::batch::{BatchDocument, BatchEvent};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use utoipa::ToSchema;

/// A batch as it was begun.
pub type Batch = Revision<BatchDocument>;
/// A batch as the list shows it.
pub type BatchSummary = Listed<BatchDocument>;
/// What happened to a batch, as it is kept.
pub type KeptBatchEvent = KeptEvent<BatchEvent>;

/// What the list shows of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BatchShown {
    /// What it is made for, by name.
    pub made_for: Vec<String>,
}

impl Event for BatchEvent {
    const DESCRIBED: &'static str = "KeptBatchEvent";
}

impl Kept for BatchDocument {
    type Shown = BatchShown;
    const NOUN: Noun = BATCH;
    const DESCRIBED: (&'static str, &'static str) = ("KeptBatch", "BatchSummary");
    // The last begun first.
    const LISTED_BY: &'static str = "created_at DESC, name COLLATE NOCASE";

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> BatchShown {
        BatchShown { made_for: self.made_for.iter().map(|own| own.name.clone()).collect() }
    }

    fn uses(&self) -> Vec<(Noun, &str)> {
        let orders = self.made_for.iter().filter_map(|own| own.order.as_deref()).map(|key| (ORDER, key));
        orders.chain(self.component.as_deref().map(|key| (COMPONENT, key))).collect()
    }
}

impl Store {
    /// Everything that happened to a batch behind a place, in the order it came here.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn batch_events(&self, key: &str, behind: i64) -> Result<Vec<KeptBatchEvent>, StoreError> {
        self.events::<BatchEvent>(BATCH, key, behind).await
    }

    /// Batches whose last word on where they stand is this place, by name, with when they were put there.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn stands_in(&self, place: &str) -> Result<Vec<String>, StoreError> {
        let sql = "SELECT t.name, json_extract(e.event, '$.place') AS place, e.kept_at FROM events e
             JOIN things t ON t.noun = e.noun AND t.key = e.key
             WHERE e.noun = ?1 AND json_extract(e.event, '$.what') IN ('put', 'used_up')
               AND e.place = (SELECT max(o.place) FROM events o WHERE o.noun = e.noun AND o.key = e.key
                   AND json_extract(o.event, '$.what') IN ('put', 'used_up'))
             ORDER BY e.kept_at";
        let rows = sqlx::query(sql).bind(BATCH.word).fetch_all(&self.readers).await?;
        let mut held = Vec::new();
        for row in rows {
            if row.try_get::<Option<String>, _>("place")?.as_deref() == Some(place) {
                held.push(row.try_get("name")?);
            }
        }
        Ok(held)
    }

    /// Keys of batches of which something was left over.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn batches_with_leftovers(&self) -> Result<Vec<String>, StoreError> {
        let sql =
            "SELECT DISTINCT key FROM events WHERE noun = ? AND json_extract(event, '$.what') = 'left_over'";
        let rows = sqlx::query(sql).bind(BATCH.word).fetch_all(&self.readers).await?;
        rows.iter().map(|row| Ok(row.try_get("key")?)).collect()
    }
}
