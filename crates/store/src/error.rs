//! What can go wrong with the file.

use std::path::PathBuf;

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
    #[error("somebody saved version {current} of this {noun} since you opened it at version {based_on}")]
    Conflict {
        /// What was to be saved.
        noun: &'static str,
        /// The revision the change started from.
        based_on: i64,
        /// The revision that is there now.
        current: i64,
    },
    /// A save id that was used for another save.
    #[error("this save id was used for another save: make a new one for each save")]
    SaveIdUsed,
    /// The id of an event that was used for another.
    #[error("this id was used for another event: make a new one for each")]
    EventIdUsed,
    /// The room for pictures is taken.
    #[error(
        "the pictures of this kitchen take {has_mb:.1} of {most_mb:.0} MB, and this one takes {needs_mb:.1}: take others away, or let them have more (serve --pictures-mb)"
    )]
    PicturesFull {
        /// What they take, MB.
        has_mb: f64,
        /// What this one takes, MB.
        needs_mb: f64,
        /// What they may take, MB.
        most_mb: f64,
    },
    /// The disk, or the room the file may take, is full.
    #[error("the disk is full: nothing was saved and nothing is lost; make room on it, then save again")]
    Full,
    /// Another program keeps the file locked.
    #[error("another program is using the kitchen's file just now; nothing was saved, try again in a moment")]
    Locked,
    /// The file or its disk can only be read.
    #[error(
        "the kitchen's file can only be read: let this program write to it and its folder, then save again"
    )]
    ReadOnly,
    /// The disk failed.
    #[error(
        "the disk with the kitchen's file does not answer as it should ({0}): check it, and take a copy with bright-spoon backup"
    )]
    Disk(String),
    /// A document is not what was written.
    #[error(
        "version {revision} of this {noun} is damaged in the file: run bright-spoon verify, and go back to a copy with bright-spoon restore"
    )]
    Damaged {
        /// What it is a revision of.
        noun: String,
        /// Of which.
        key: String,
        /// Which revision.
        revision: i64,
    },
    /// An event is not what was written.
    #[error(
        "event {place} of this {noun} is damaged in the file: run bright-spoon verify, and go back to a copy with bright-spoon restore"
    )]
    DamagedEvent {
        /// To what it happened.
        noun: String,
        /// To which.
        key: String,
        /// Its place among the events.
        place: i64,
    },
    /// The file does not hold together.
    #[error("the file {path} is damaged ({words}): go back to a copy with bright-spoon restore")]
    DamagedFile {
        /// Which file.
        path: PathBuf,
        /// What SQLite says of it.
        words: String,
    },
    /// The file is something else.
    #[error("{0} is no kitchen's file of Bright Spoon; nothing was changed in it: name another with --data")]
    NotOurs(PathBuf),
    /// The file was written by a newer program.
    #[error(
        "{0} was written by a newer Bright Spoon; nothing was changed in it: start that one, or update this one"
    )]
    Newer(PathBuf),
    /// A kitchen was here and is gone.
    #[error(
        "there was a kitchen at {path}, and its file is gone or empty. Put the file back, or go back to a copy with bright-spoon restore FILE --data {path}; to begin an empty kitchen there, start once with --new"
    )]
    Gone {
        /// Where it was.
        path: PathBuf,
    },
    /// There is no file to read.
    #[error("there is no kitchen's file at {0}: name the right one")]
    NoFile(PathBuf),
    /// A file that would be overwritten.
    #[error("{0} is there already and is not overwritten: choose another name")]
    Exists(PathBuf),
    /// A second program on one file.
    #[error("the kitchen {path} is in use by {who}: stop that one first")]
    InUse {
        /// Which file.
        path: PathBuf,
        /// Who has it.
        who: String,
    },
    /// A file or folder that cannot be used.
    #[error("{path}: {words}")]
    Io {
        /// Which.
        path: PathBuf,
        /// Why not.
        words: String,
    },
    /// A document in the file cannot be read.
    #[error("a saved document cannot be read: {0}")]
    Document(#[from] serde_json::Error),
    /// The file failed.
    #[error("the kitchen's file failed: {0}")]
    Database(sqlx::Error),
    /// The file could not be brought up to date.
    #[error("the kitchen's file could not be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl StoreError {
    /// Whether the file is well and said no, as against a file that failed.
    pub(crate) fn is_refusal(&self) -> bool {
        matches!(
            self,
            StoreError::NotFound { .. }
                | StoreError::Conflict { .. }
                | StoreError::SaveIdUsed
                | StoreError::EventIdUsed
                | StoreError::PicturesFull { .. }
        )
    }

    /// A file or folder that cannot be used.
    pub(crate) fn io(path: &std::path::Path, error: &std::io::Error) -> Self {
        match error.kind() {
            std::io::ErrorKind::StorageFull => StoreError::Full,
            std::io::ErrorKind::ReadOnlyFilesystem => StoreError::ReadOnly,
            _ => StoreError::Io { path: path.to_owned(), words: error.to_string() },
        }
    }
}

/// SQLite's primary result code of an error, <https://www.sqlite.org/rescode.html>.
pub(crate) fn code(error: &sqlx::Error) -> Option<u32> {
    let code = error.as_database_error()?.code()?.parse::<u32>().ok()?;
    Some(code & 0xff)
}

/// SQLITE_BUSY, SQLITE_LOCKED, SQLITE_READONLY, SQLITE_IOERR, SQLITE_CORRUPT, SQLITE_FULL, SQLITE_CANTOPEN, SQLITE_NOTADB.
const BUSY: u32 = 5;
const LOCKED: u32 = 6;
const READ_ONLY: u32 = 8;
const IO: u32 = 10;
pub(crate) const CORRUPT: u32 = 11;
const FULL: u32 = 13;
const CANNOT_OPEN: u32 = 14;
pub(crate) const NOT_A_DATABASE: u32 = 26;

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        if matches!(error, sqlx::Error::PoolTimedOut) {
            return StoreError::Locked;
        }
        match code(&error) {
            Some(FULL) => StoreError::Full,
            Some(BUSY | LOCKED) => StoreError::Locked,
            Some(READ_ONLY) => StoreError::ReadOnly,
            Some(IO | CANNOT_OPEN) => StoreError::Disk(error.to_string()),
            _ => StoreError::Database(error),
        }
    }
}
