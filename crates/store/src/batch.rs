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
    /// When it was made, RFC 3339, for one that is written in afterwards.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub made_at: Option<String>,
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
        BatchShown {
            made_for: self.made_for.iter().map(|own| own.name.clone()).collect(),
            made_at: self.made_at.map(|own| own.to_string()),
        }
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

    /// Keys of batches to which something of a kind happened, whether or not that was taken back: `left_over`, `put`.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn batches_with(&self, what: &str) -> Result<Vec<String>, StoreError> {
        let sql = "SELECT DISTINCT key FROM events WHERE noun = ? AND json_extract(event, '$.what') = ?";
        let rows = sqlx::query(sql).bind(BATCH.word).bind(what).fetch_all(&self.readers).await?;
        rows.iter().map(|row| Ok(row.try_get("key")?)).collect()
    }
}
