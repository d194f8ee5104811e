//! A kitchen's file on the disk: how SQLite opens it, and what stands beside it.

use crate::StoreError;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use sqlx::SqliteConnection;
use sqlx::sqlite::SqliteConnectOptions;
use std::fs::Permissions;
use std::os::unix::fs::PermissionsExt;
use std::path::{Path, PathBuf};
use std::time::Duration;

/// "Spn1" in SQLite's header: `file` and this program know a kitchen by it.
pub const APPLICATION_ID: i64 = 0x5370_6e31;

/// How long a writer waits for another program, and a request for a connection.
pub(crate) const PATIENCE: Duration = Duration::from_secs(5);

/// Only the owner reads and writes a kitchen.
pub(crate) const OWNER_ONLY: u32 = 0o600;

/// The file as SQLite is told to open it.
pub(crate) fn options(path: &Path) -> SqliteConnectOptions {
    SqliteConnectOptions::new().filename(path).busy_timeout(PATIENCE).foreign_keys(true)
}

pub(crate) fn log_of(path: &Path) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push("-wal");
    PathBuf::from(name)
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
