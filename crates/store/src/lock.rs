//! One program a kitchen: a lock file beside it, held as long as the program runs.
//!
//! The lock is the operating system's (`flock`), so it goes with the program however that ends. The file stays:
//! it also remembers that a kitchen was there.

use crate::StoreError;
use std::fs::{File, OpenOptions, TryLockError};
use std::io::{Read, Seek, SeekFrom, Write};
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};

/// A kitchen held by this program until this is dropped.
#[derive(Debug)]
pub struct Lock(File);

/// The lock file of a kitchen's file.
pub fn beside(kitchen: &Path) -> PathBuf {
    let mut name = kitchen.as_os_str().to_owned();
    name.push(".lock");
    PathBuf::from(name)
}

impl Lock {
    /// Takes the kitchen, or says who has it.
    ///
    /// # Errors
    /// [`StoreError::InUse`]; [`StoreError::Io`] when the lock file cannot be written.
    pub fn take(kitchen: &Path) -> Result<Self, StoreError> {
        let path = beside(kitchen);
        let mut file = OpenOptions::new()
            .read(true)
            .write(true)
            .create(true)
            .truncate(false)
            .mode(0o600)
            .open(&path)
            .map_err(|error| StoreError::io(&path, &error))?;
        match file.try_lock() {
            Ok(()) => {}
            Err(TryLockError::WouldBlock) => {
                let mut who = String::new();
                let _ = Read::take(&mut file, 400).read_to_string(&mut who);
                let who = who.lines().next().unwrap_or_default().trim();
                let who = if who.is_empty() { "another Bright Spoon" } else { who }.to_owned();
                return Err(StoreError::InUse { path: kitchen.to_owned(), who });
            }
            Err(TryLockError::Error(error)) => return Err(StoreError::io(&path, &error)),
        }
        let lock = Lock(file);
        lock.say("");
        Ok(lock)
    }

    /// Writes into the lock file who holds it, for the one who finds it taken.
    pub fn say(&self, at: &str) {
        let place = if at.is_empty() { String::new() } else { format!(", at {at}") };
        let words = format!("the Bright Spoon with process number {}{place}\n", std::process::id());
        let mut file = &self.0;
        // Only words: without them the lock holds as well.
        let _ = file
            .set_len(0)
            .and_then(|()| file.seek(SeekFrom::Start(0)))
            .and_then(|_| file.write_all(words.as_bytes()));
    }
}
