//! The log as a file that travels: every batch with everything that happened to it.

use crate::batch::document::BatchDocument;
use crate::fault::{Fault, FaultCode};
use crate::format;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most batches of one file.
pub const MOST: usize = 50_000;

/// A log.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogDocument {
    /// Always `bright-spoon/log`.
    #[schema(example = "bright-spoon/log")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// Its batches.
    #[schema(max_items = 50000)]
    pub batches: Vec<LoggedBatch>,
}

/// A batch of a log.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoggedBatch {
    /// Its key: a kitchen that has one by it adds what it does not know yet.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub key: String,
    /// The batch with its events.
    pub batch: BatchDocument,
}

impl LogDocument {
    /// A log of some batches.
    pub fn of(batches: Vec<LoggedBatch>) -> Self {
        LogDocument { format: format::LOG.name.to_owned(), version: format::LOG.version, batches }
    }

    /// What is wrong with its head, and with its keys.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::LOG.faults(&self.format, self.version);
        let mut seen = std::collections::HashSet::new();
        for (at, own) in self.batches.iter().enumerate() {
            let field = format!("batches.{at}.key");
            if !seen.insert(own.key.as_str()) {
                let words = "two batches have this key: each must have its own";
                faults.push(Fault::new(field, FaultCode::Twice, words));
            }
        }
        faults
    }
}
