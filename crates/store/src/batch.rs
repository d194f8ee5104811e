//! Batches while they are made: what each is made by, and what happens to it.

use crate::audit::What;
use crate::journal::{Event, KeptEvent, NewEvent, append_one};
use crate::kept::{On, Revision, keep};
use crate::list::Listed;
use crate::noun::{BATCH, COMPONENT, Kept, Noun, ORDER, missing};
use crate::writing::Writing;
use crate::{By, Device, Store, StoreError};
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

/// A batch that comes whole: out of a file, or written in.
#[derive(Debug, Clone)]
pub struct WholeBatch {
    /// Its key.
    pub key: String,
    /// As it was begun; none for one that is here already.
    pub document: Option<BatchDocument>,
    /// What happened to it and is not here yet, each with the device it was said on.
    pub events: Vec<(Option<Device>, NewEvent<BatchEvent>)>,
    /// Whether nobody is at it any more.
    pub made: bool,
    /// Who brings it, and when.
    pub by: By,
}

impl Store {
    /// Keeps batches that come whole: all of them or none.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when a key is taken, [`StoreError::EventIdUsed`] when the id of an event is.
    pub async fn keep_whole(&self, all: &[WholeBatch]) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        for own in all {
            if let Err(why) = keep_one_whole(&mut writing, own).await {
                return Err(writing.give_up(why).await);
            }
        }
        if writing.noted { writing.commit().await } else { writing.undo().await }
    }

    /// Keeps a new batch with what is said of it: both or neither. The same save id again gets the answer of the first time.
    ///
    /// # Errors
    /// As [`Store::keep_whole`]; [`StoreError::SaveIdUsed`] when it was used for something else.
    pub async fn write_in(
        &self,
        document: BatchDocument,
        events: Vec<NewEvent<BatchEvent>>,
        key: &str,
        by: &By,
    ) -> Result<Batch, StoreError> {
        let own = WholeBatch {
            key: key.to_owned(),
            made: document.made_at.is_some(),
            document: Some(document),
            events: events.into_iter().map(|event| (by.device.clone(), event)).collect(),
            by: by.clone(),
        };
        let mut writing = self.write().await?;
        match keep_one_whole(&mut writing, &own).await {
            Ok(Some(kept)) => {
                if writing.noted {
                    writing.commit().await?
                } else {
                    writing.undo().await?
                }
                Ok(kept)
            }
            Ok(None) => Err(writing.give_up(missing(BATCH, key)).await),
            Err(why) => Err(writing.give_up(why).await),
        }
    }

    /// Everything that happened to a batch behind a place, in the order it came here.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn batch_events(&self, key: &str, behind: i64) -> Result<Vec<KeptBatchEvent>, StoreError> {
        self.events::<BatchEvent>(BATCH, key, behind).await
    }

    /// Batches to which something of a kind happened, and how much happened to each in all.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn batches_with_counted(&self, what: &str) -> Result<Vec<(String, usize)>, StoreError> {
        let sql = "SELECT key, count(*) FROM events
            WHERE noun = ?1 AND key IN (SELECT key FROM events WHERE noun = ?1 AND json_extract(event, '$.what') = ?2)
            GROUP BY key";
        let rows: Vec<(String, i64)> =
            sqlx::query_as(sql).bind(BATCH.word).bind(what).fetch_all(&self.readers).await?;
        Ok(rows.into_iter().map(|(key, many)| (key, usize::try_from(many).unwrap_or(0))).collect())
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

/// Keeps one, and answers with it where it is new. What this very save kept before is answered as it was kept then, with all that came
/// with it.
async fn keep_one_whole(writing: &mut Writing<'_>, own: &WholeBatch) -> Result<Option<Batch>, StoreError> {
    let mut kept = None;
    if let Some(document) = &own.document {
        let (made, before) = keep(writing.connection(), &own.key, document, On::Nothing, &own.by).await?;
        if before {
            return Ok(Some(made));
        }
        writing.note(&own.by, What::Saved, BATCH, &own.key, Some(made.revision)).await?;
        kept = Some(made);
    }
    for (device, event) in &own.events {
        let by = By { device: device.clone(), ..own.by.clone() };
        append_one(writing.connection(), (BATCH, &own.key), event, &by).await?;
    }
    if !own.events.is_empty() {
        writing.note(&own.by, What::Happened, BATCH, &own.key, None).await?;
    }
    if own.made && writing.noted {
        sqlx::query("UPDATE things SET archived = 1 WHERE noun = ? AND key = ?")
            .bind(BATCH.word)
            .bind(&own.key)
            .execute(writing.connection())
            .await?;
    }
    Ok(kept)
}
