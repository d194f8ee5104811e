//! Copies of a kitchen's file: made while it is in use, opened and checked, and put back without overwriting anything.

use crate::file::{copy_into, free_name, set_aside};
use crate::kept::hash;
use crate::lock::Lock;
use crate::look::read_only;
use crate::noun::NOUNS;
use crate::{StoreError, upgrade};
use jiff::Timestamp;
use serde::Serialize;
use sha2::{Digest, Sha256};
use sqlx::{Connection, Row, SqliteConnection};
use std::path::{Path, PathBuf};

/// How many of a noun a file holds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Count {
    /// What: "formula", "order".
    pub noun: String,
    /// How many.
    pub things: i64,
    /// Their revisions in all.
    pub revisions: i64,
}

/// What a file holds, found whole.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Verified {
    /// The version of its format.
    pub version: i64,
    /// What it holds.
    pub counts: Vec<Count>,
    /// SHA-256 over the hashes of all its revisions and events in order: the same for two files with the same history.
    pub hash: String,
}

/// Opens a file, checks its pages, its references and every document against its hash, and counts. Changes nothing.
///
/// # Errors
/// [`StoreError::DamagedFile`], [`StoreError::Damaged`] for the first document that is not what was written;
/// [`StoreError::NotOurs`], [`StoreError::NoFile`].
pub async fn verify(path: &Path) -> Result<Verified, StoreError> {
    let mut connection = read_only(path).await?;
    let outcome = verify_open(&mut connection, path).await;
    let _ = connection.close().await;
    outcome
}

async fn verify_open(connection: &mut SqliteConnection, path: &Path) -> Result<Verified, StoreError> {
    let damaged = |words: String| StoreError::DamagedFile { path: path.to_owned(), words };
    let said: Vec<String> =
        sqlx::query_scalar("PRAGMA integrity_check(5)").fetch_all(&mut *connection).await?;
    if said != ["ok"] {
        return Err(damaged(said.join("; ")));
    }
    let astray = sqlx::query("PRAGMA foreign_key_check").fetch_all(&mut *connection).await?;
    if let Some(row) = astray.first() {
        return Err(damaged(format!("a row of {} refers to nothing", row.try_get::<String, _>("table")?)));
    }
    let version = upgrade::version(connection).await?;
    if let Some(key) = upgrade::listed_wrong(connection).await? {
        return Err(damaged(format!("{key} is not listed at its newest revision")));
    }
    let rows = upgrade::all_revisions(connection).await?;
    let mut whole = Sha256::new();
    let mut counts: Vec<Count> =
        NOUNS.iter().map(|noun| Count { noun: noun.said.to_owned(), things: 0, revisions: 0 }).collect();
    let mut last: Option<(&str, &str)> = None;
    for row in &rows {
        let found = hash(&row.document);
        let at = NOUNS.iter().position(|noun| noun.word == row.noun);
        let said = at.map_or(row.noun.as_str(), |at| NOUNS[at].said);
        if row.hash.as_ref().is_some_and(|written| *written != found) {
            return Err(StoreError::Damaged {
                noun: said.to_owned(),
                key: row.key.clone(),
                revision: row.revision,
            });
        }
        whole.update(format!("{} {} {} {found}\n", row.noun, row.key, row.revision));
        if let Some(at) = at {
            counts[at].revisions += 1;
            counts[at].things += i64::from(last != Some((&row.noun, &row.key)));
        }
        last = Some((&row.noun, &row.key));
    }
    for row in &upgrade::all_events(connection).await? {
        if hash(&row.event) != row.hash {
            let (noun, key) = (row.noun.clone(), row.key.clone());
            return Err(StoreError::DamagedEvent { noun, key, place: row.place });
        }
        whole.update(format!("event {} {} {} {}\n", row.noun, row.key, row.place, row.hash));
    }
    let hash = whole.finalize().iter().map(|byte| format!("{byte:02x}")).collect();
    Ok(Verified { version, counts, hash })
}

/// Copies a kitchen, also while it is in use, then opens the copy and checks it.
///
/// # Errors
/// [`StoreError::Exists`]: nothing is overwritten; what [`verify`] finds.
pub async fn backup(from: &Path, to: &Path) -> Result<Verified, StoreError> {
    let mut connection = read_only(from).await?;
    copy_into(&mut connection, to).await?;
    let _ = connection.close().await;
    verify(to).await
}

/// What putting a copy back did.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Restored {
    /// What is there now.
    pub verified: Verified,
    /// Where the old files stand now.
    pub aside: Vec<PathBuf>,
}

/// Puts a copy in the place of a kitchen nobody is using: the copy is checked first, the old files are set aside.
///
/// # Errors
/// [`StoreError::InUse`]; what [`verify`] finds in the copy.
pub async fn restore(copy: &Path, kitchen: &Path, now: Timestamp) -> Result<Restored, StoreError> {
    verify(copy).await?;
    let same = |one: &Path, two: &Path| {
        one.canonicalize().ok().is_some_and(|one| two.canonicalize().ok() == Some(one))
    };
    if same(copy, kitchen) {
        return Err(StoreError::Exists(kitchen.to_owned()));
    }
    let _lock = Lock::take(kitchen)?;
    let beside = free_name(kitchen, "being-restored");
    let mut connection = read_only(copy).await?;
    copy_into(&mut connection, &beside).await?;
    let _ = connection.close().await;
    let verified = verify(&beside).await?;
    let aside = set_aside(kitchen, now)?;
    std::fs::rename(&beside, kitchen).map_err(|error| StoreError::io(kitchen, &error))?;
    Ok(Restored { verified, aside })
}
