//! Copies of a kitchen's file: made while it is in use, opened and checked, and put back without overwriting anything.

use crate::kept::{NOUNS, hash};
use crate::lock::Lock;
use crate::open::{OWNER_ONLY, log_of, read_only};
use crate::{StoreError, upgrade};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::Serialize;
use sha2::{Digest, Sha256};
use sqlx::{Connection, Row, SqliteConnection};
use std::fs::Permissions;
use std::os::unix::fs::PermissionsExt;
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

/// Renames a kitchen's file, with its log, to a name with the time in it.
pub(crate) fn set_aside(kitchen: &Path, now: Timestamp) -> Result<Vec<PathBuf>, StoreError> {
    let when = TimeZone::UTC.to_datetime(now).strftime("%Y-%m-%d-%H%M%S");
    let name = free_name(kitchen, &format!("set-aside-{when}"));
    let mut moved = Vec::new();
    for ending in ["", "-wal", "-shm"] {
        let with = |path: &Path| {
            let mut name = path.as_os_str().to_owned();
            name.push(ending);
            PathBuf::from(name)
        };
        let (from, to) = (with(kitchen), with(&name));
        if from.exists() {
            std::fs::rename(&from, &to).map_err(|error| StoreError::io(&from, &error))?;
            moved.push(to);
        }
    }
    Ok(moved)
}

/// A name beside a file that nothing has: `kitchen-WORDS.db`, with a number when that is taken.
pub(crate) fn free_name(path: &Path, words: &str) -> PathBuf {
    let stem = path.file_stem().unwrap_or_default().to_string_lossy().into_owned();
    let ending = path.extension().map_or(String::new(), |own| format!(".{}", own.to_string_lossy()));
    (0_u32..)
        .map(|count| match count {
            0 => path.with_file_name(format!("{stem}-{words}{ending}")),
            n => path.with_file_name(format!("{stem}-{words}-{}{ending}", n + 1)),
        })
        .find(|name| !name.exists() && !log_of(name).exists())
        .expect("numbers do not end")
}

/// Writes all that a connection sees into a new file, compact, and waits until it is on the disk.
pub(crate) async fn copy_into(connection: &mut SqliteConnection, to: &Path) -> Result<(), StoreError> {
    let failed = |error: std::io::Error| StoreError::io(to, &error);
    if to.exists() {
        return Err(StoreError::Exists(to.to_owned()));
    }
    let name = to.to_str().ok_or_else(|| StoreError::Io {
        path: to.to_owned(),
        words: "a copy needs a name of ordinary letters".to_owned(),
    })?;
    let written = sqlx::query("VACUUM INTO ?").bind(name).execute(connection).await;
    if let Err(error) = written {
        // Half a copy is none.
        let _ = std::fs::remove_file(to);
        return Err(error.into());
    }
    std::fs::set_permissions(to, Permissions::from_mode(OWNER_ONLY)).map_err(failed)?;
    std::fs::File::open(to).and_then(|file| file.sync_all()).map_err(failed)
}
