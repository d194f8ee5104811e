//! `bright-spoon predict FILE`: the question of the interface, asked from a file.

use crate::body::parse;
use crate::error::ApiError;
use pastry::job::{FormulaDocument, assess};
use std::io::Read;
use std::path::Path;

/// Largest file read, bytes.
const LARGEST_FILE: u64 = 4 * 1024 * 1024;

/// Reads a formula and answers with the JSON the interface would give.
///
/// # Errors
/// In words, one line per fault, each with its field and what to do.
pub fn predict(file: &Path) -> Result<String, String> {
    let shown = file.display();
    let mut bytes = Vec::new();
    let read = if file == Path::new("-") {
        std::io::stdin().lock().take(LARGEST_FILE + 1).read_to_end(&mut bytes)
    } else {
        std::fs::File::open(file).and_then(|opened| opened.take(LARGEST_FILE + 1).read_to_end(&mut bytes))
    };
    read.map_err(|error| format!("{shown}: cannot be read ({error}); check the name and that it is a file"))?;
    if bytes.len() as u64 > LARGEST_FILE {
        return Err(format!(
            "{shown}: is larger than {} MB; a formula is a few kB",
            LARGEST_FILE / 1024 / 1024
        ));
    }
    let faults = match parse::<FormulaDocument>(&bytes).map(|document| assess(&document)) {
        Ok(Ok(answer)) => return Ok(serde_json::to_string(&answer).expect("an answer serialises")),
        Ok(Err(faults)) | Err(ApiError::Faults(faults)) => faults,
        Err(other) => return Err(format!("{shown}: {other}")),
    };
    let lines: Vec<String> = faults
        .iter()
        .map(|fault| match fault.field.as_str() {
            "" => format!("{shown}: {}", fault.message),
            field => format!("{shown}: {field}: {}", fault.message),
        })
        .collect();
    Err(lines.join("\n"))
}
