//! Backup, verify and restore on the command line.

use crate::config::default_data_file;
use jiff::Timestamp;
use std::path::{Path, PathBuf};
use store::StoreError;
use store::copies::{Verified, backup, restore, verify};

fn kitchen(data: Option<PathBuf>) -> Result<PathBuf, String> {
    data.map_or_else(default_data_file, Ok)
}

fn words(error: &StoreError) -> String {
    error.to_string()
}

/// What a file holds, in lines.
fn said(found: &Verified) -> String {
    let counts: Vec<String> = found
        .counts
        .iter()
        .map(|count| {
            let many = if count.things == 1 { "" } else { "s" };
            format!("{} {}{many} in {} versions", count.things, count.noun, count.revisions)
        })
        .collect();
    format!("  {}\n  every document as it was written; history {}", counts.join(", "), found.hash)
}

/// Copies a kitchen and says what the copy holds.
///
/// # Errors
/// In words.
pub async fn backup_kitchen(data: Option<PathBuf>, to: &Path) -> Result<String, String> {
    let from = kitchen(data)?;
    let found = backup(&from, to).await.map_err(|error| words(&error))?;
    Ok(format!("{} copied to {} and checked:\n{}", from.display(), to.display(), said(&found)))
}

/// Checks a file and says what it holds.
///
/// # Errors
/// In words: what is wrong with it.
pub async fn verify_kitchen(file: Option<PathBuf>) -> Result<String, String> {
    let file = kitchen(file)?;
    let found = verify(&file).await.map_err(|error| words(&error))?;
    Ok(format!("{} is whole:\n{}", file.display(), said(&found)))
}

/// Puts a copy in the place of a kitchen.
///
/// # Errors
/// In words.
pub async fn restore_kitchen(copy: &Path, data: Option<PathBuf>) -> Result<String, String> {
    let to = kitchen(data)?;
    if let Some(folder) = to.parent().filter(|folder| !folder.as_os_str().is_empty()) {
        std::fs::create_dir_all(folder)
            .map_err(|error| format!("cannot make the folder {}: {error}", folder.display()))?;
    }
    let done = restore(copy, &to, Timestamp::now()).await.map_err(|error| words(&error))?;
    let mut text = format!("{} is back at {}:\n{}", copy.display(), to.display(), said(&done.verified));
    if let Some(first) = done.aside.first() {
        text.push_str(&format!("\n  what was there stands aside as {}", first.display()));
    }
    Ok(text)
}
