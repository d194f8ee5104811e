//! The log as a table that a spreadsheet reads, and back. The last column is the whole batch as its open format has it, so nothing is
//! lost on the way; a row that a cook wrote has none, and is a day, a formula and a word.

use crate::batch::event::Came;
use crate::batch::said::came_words;
use crate::fault::{Fault, FaultCode};
use crate::log::document::{LoggedBatch, MOST};
use crate::log::line::LogLine;
use crate::spreadsheet::{as_it_was, harmless};
use jiff::Timestamp;
use jiff::civil::Date;
use serde_json::Value;
use std::collections::HashMap;

/// The columns, in their order.
pub const COLUMNS: [&str; 17] = [
    "key",
    "made",
    "formula",
    "revision",
    "family",
    "job",
    "school",
    "room_c",
    "went_in_g",
    "came_out_g",
    "came",
    "words",
    "notes",
    "changed",
    "lots",
    "tests",
    "document",
];

/// A row that was read.
#[derive(Debug, Clone, PartialEq)]
pub enum LogRow {
    /// A batch with everything that happened to it, as JSON that is still to be looked at.
    Whole {
        /// Its key.
        key: String,
        /// The document.
        document: Value,
    },
    /// A day, a formula and a word.
    Noted {
        /// When it was made.
        made: Made,
        /// The formula by its name.
        formula: String,
        /// How it came out.
        came: Option<Came>,
        /// What was said of it.
        words: String,
    },
}

/// When something was made, as a cook writes it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Made {
    /// On a day.
    On(Date),
    /// At a moment.
    At(Timestamp),
}

/// A row that can be read, with its line in the file.
pub type Good = (usize, LogRow);
/// One that cannot, with why.
pub type Bad = (usize, Vec<Fault>);

/// The log as CSV, with a header.
pub fn to_csv(all: &[(LogLine, LoggedBatch)]) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS).expect("memory takes every row");
    let number = |value: Option<f64>| value.map(|own| format!("{own}")).unwrap_or_default();
    for (line, whole) in all {
        let cells = [
            line.key.clone(),
            line.at.to_string(),
            line.name.clone(),
            line.revision.map(|own| own.to_string()).unwrap_or_default(),
            line.family_word.clone(),
            line.job.clone(),
            line.school.clone().unwrap_or_default(),
            number(Some(line.room_c)),
            number(Some(line.in_g)),
            number(line.yielded_g),
            line.came.map(|own| own.word().to_owned()).unwrap_or_default(),
            line.came_words.clone().unwrap_or_default(),
            line.notes.join("; "),
            line.changed.join(" "),
            line.lots.join("; "),
            line.tests.to_string(),
            serde_json::to_string(&whole.batch).expect("a batch serialises"),
        ];
        let cells: Vec<String> = cells.iter().map(|own| harmless(own)).collect();
        writer.write_record(&cells).expect("memory takes every row");
    }
    String::from_utf8(writer.into_inner().expect("memory takes every row")).expect("cells are text")
}

/// Rows of a table with the line each stands in, and what is wrong with those that cannot be read.
///
/// # Errors
/// In words, when it is no such table.
pub fn from_csv(text: &str) -> Result<(Vec<Good>, Vec<Bad>), String> {
    let text = text.trim_start_matches('\u{feff}');
    let head = text.lines().next().unwrap_or_default();
    let delimiter = [b',', b';', b'\t']
        .into_iter()
        .max_by_key(|own| head.bytes().filter(|byte| byte == own).count())
        .unwrap_or(b',');
    let mut reader =
        csv::ReaderBuilder::new().delimiter(delimiter).flexible(true).from_reader(text.as_bytes());
    let heads: HashMap<String, usize> = match reader.headers() {
        Ok(row) => row.iter().enumerate().map(|(at, own)| (own.trim().to_lowercase(), at)).collect(),
        Err(error) => return Err(format!("this is no table: {error}")),
    };
    if !heads.contains_key("made") || !(heads.contains_key("formula") || heads.contains_key("document")) {
        return Err(
            "the first row must name the columns: made (a day, as 2026-10-02), formula (its name), and as you like came and words"
                .to_owned(),
        );
    }
    let (mut good, mut bad) = (Vec::new(), Vec::new());
    for record in reader.records() {
        let record = match record {
            Ok(record) => record,
            Err(error) => {
                let line = error.position().map_or(0, |own| own.line() as usize);
                bad.push((
                    line,
                    vec![Fault::new("", FaultCode::Unreadable, format!("this row is no row: {error}"))],
                ));
                continue;
            }
        };
        let line = record.position().map_or(0, |own| own.line() as usize);
        if record.iter().all(|own| own.trim().is_empty()) {
            continue;
        }
        if good.len() + bad.len() >= MOST {
            return Err(format!("at most {MOST} batches of one file: split it"));
        }
        let cell = |name: &str| {
            heads
                .get(name)
                .and_then(|at| record.get(*at))
                .map(|own| as_it_was(own.trim()))
                .unwrap_or_default()
        };
        match row(&cell) {
            Ok(own) => good.push((line, own)),
            Err(faults) => bad.push((line, faults)),
        }
    }
    Ok((good, bad))
}

fn row<'a>(cell: &dyn Fn(&str) -> &'a str) -> Result<LogRow, Vec<Fault>> {
    let document = cell("document");
    if !document.is_empty() {
        let one = |words: String| vec![Fault::new("document", FaultCode::Unreadable, words)];
        let document: Value = serde_json::from_str(document)
            .map_err(|error| one(format!("the batch in it is cut off or changed: {error}")))?;
        return Ok(LogRow::Whole { key: cell("key").to_owned(), document });
    }
    let mut faults = Vec::new();
    let made = made(cell("made")).map_err(|own| faults.push(own)).ok();
    let came = came(cell("came")).map_err(|own| faults.push(own)).ok().flatten();
    let formula = cell("formula").to_owned();
    if formula.is_empty() {
        faults.push(Fault::new("formula", FaultCode::NoName, "write the name of the formula it was made by"));
    }
    match made {
        Some(made) if faults.is_empty() => {
            Ok(LogRow::Noted { made, formula, came, words: cell("words").to_owned() })
        }
        _ => Err(faults),
    }
}

fn made(cell: &str) -> Result<Made, Fault> {
    if let Ok(at) = cell.parse::<Timestamp>() {
        return Ok(Made::At(at));
    }
    // A day that could be another one is not guessed at.
    cell.parse::<Date>().map(Made::On).map_err(|_| {
        let shown: String = cell.chars().take(40).collect();
        let words =
            format!("“{shown}” is no day that is read here: write year, month and day, as 2026-10-02");
        Fault::new("made", FaultCode::Unreadable, words)
    })
}

fn came(cell: &str) -> Result<Option<Came>, Fault> {
    if cell.is_empty() {
        return Ok(None);
    }
    let told = cell.to_lowercase();
    let found = Came::ALL.iter().copied().find(|own| own.word() == told || came_words(*own) == told);
    found.map(Some).ok_or_else(|| {
        let shown: String = cell.chars().take(40).collect();
        let all: Vec<&str> = Came::ALL.iter().map(|own| own.word()).collect();
        let words = format!("“{shown}” is not one of {}: write one, or put it under words", all.join(", "));
        Fault::new("came", FaultCode::Unreadable, words)
    })
}
