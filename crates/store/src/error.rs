//! What can go wrong with the file.

/// A request the store cannot carry out, or a file that failed.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// Nothing by that key.
    #[error("there is no {noun} {key}")]
    NotFound {
        /// What was looked for.
        noun: &'static str,
        /// By which key.
        key: String,
    },
    /// Somebody saved in between.
    #[error("revision {current} was saved since revision {based_on}")]
    Conflict {
        /// The revision the change started from.
        based_on: i64,
        /// The revision that is there now.
        current: i64,
    },
    /// A document in the file cannot be read.
    #[error("a saved document cannot be read: {0}")]
    Document(#[from] serde_json::Error),
    /// The file failed.
    #[error(transparent)]
    Database(#[from] sqlx::Error),
    /// The file could not be brought up to date.
    #[error(transparent)]
    Migration(#[from] sqlx::migrate::MigrateError),
}
