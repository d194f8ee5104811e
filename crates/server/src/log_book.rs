//! The log kept true: lines that are behind what happened are worked out anew before anybody looks at it.

use crate::batch_log::{entries, shelf_of};
use crate::desk::Desk;
use crate::error::ApiError;
use jiff::Timestamp;
use pastry::batch::{BatchDocument, BatchEntry};
use pastry::log::{LogLine, log_line};
use std::sync::Arc;
use std::time::{Duration, Instant};
use store::{Store, StoreError};
use tokio::sync::Mutex;

/// So many lines are written at once.
const AT_ONCE: u32 = 200;
/// So long a look at the log waits for lines that are behind; then what is still behind is told.
const PATIENCE: Duration = Duration::from_millis(400);

/// A batch with all there is to know of it.
pub struct WholeBatch {
    /// Its key.
    pub key: String,
    /// As it was begun.
    pub document: BatchDocument,
    /// What happened to it.
    pub entries: Vec<BatchEntry>,
    /// When it came here.
    pub kept_at: Timestamp,
    /// Place of the last event.
    pub place: i64,
}

/// Reads a batch with everything that happened to it.
///
/// # Errors
/// When there is none, or the file fails.
pub async fn whole(store: &Store, key: &str) -> Result<WholeBatch, ApiError> {
    let kept = store.read::<BatchDocument>(key, None).await?;
    let events = store.batch_events(key, 0).await?;
    let (entries, _) = entries(&events);
    Ok(WholeBatch {
        key: key.to_owned(),
        document: kept.document,
        entries,
        kept_at: kept.saved_at.parse().unwrap_or(Timestamp::UNIX_EPOCH),
        place: events.last().map_or(0, |own| own.place),
    })
}

/// The log.
#[derive(Debug, Clone, Default)]
pub struct LogBook {
    turn: Arc<Mutex<()>>,
}

impl LogBook {
    /// Brings the log up to what happened, as far as it gets in a moment.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn catch_up(&self, store: &Store, desk: &Desk) -> Result<(), ApiError> {
        self.within(store, desk, Some(PATIENCE)).await
    }

    /// Brings all of it up to what happened, however long that takes.
    pub async fn read_all(&self, store: &Store, desk: &Desk) {
        if let Err(error) = self.within(store, desk, None).await {
            tracing::error!(?error, "the log could not be brought up to date");
        }
    }

    async fn within(&self, store: &Store, desk: &Desk, patience: Option<Duration>) -> Result<(), ApiError> {
        let begun = Instant::now();
        let over = || patience.is_some_and(|own| begun.elapsed() > own);
        while !over() {
            // One at a time: two would work out the same.
            let _turn = self.turn.lock().await;
            let keys = store.log_behind(AT_ONCE).await?;
            if keys.is_empty() {
                break;
            }
            let mut lines: Vec<(LogLine, String, i64)> = Vec::with_capacity(keys.len());
            for key in keys {
                match line_of(store, desk, &key).await {
                    Ok(line) => lines.push(line),
                    Err(ApiError::Store(
                        StoreError::Damaged { .. }
                        | StoreError::DamagedEvent { .. }
                        | StoreError::Document(_),
                    )) => {
                        tracing::error!(key, "a batch cannot be read: run bright-spoon verify");
                        store.log_unread(&key).await?;
                    }
                    Err(error) => return Err(error),
                }
                if over() {
                    break;
                }
            }
            store.write_log(&lines).await?;
        }
        Ok(())
    }
}

async fn line_of(store: &Store, desk: &Desk, key: &str) -> Result<(LogLine, String, i64), ApiError> {
    let own = whole(store, key).await?;
    let shelf = shelf_of(store, key, &own.document, own.entries.iter()).await?;
    desk.work_out(move || {
        let (line, names) = log_line(&own.key, &own.document, &own.entries, &shelf, own.kept_at);
        let words = line.words(&names);
        Ok((line, words, own.place))
    })
    .await
}
