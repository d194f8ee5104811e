//! What several checks need: mixtures by key, tables by column.

use pastry::formula::{Mixture, System};
use pastry::ingredient::find;
use pastry::rheology::kernel::Predictor;
use pastry::rheology::{Consistency, History, Options};
use std::collections::HashMap;

/// A mixture from keys and grams.
pub fn mixture(lines: &[(&str, f64)]) -> Mixture {
    Mixture::new(lines.iter().map(|(id, grams)| (find(id).unwrap_or_else(|| panic!("no {id}")), *grams)))
}

/// A ganache, ready to be asked.
pub fn ganache(lines: &[(&str, f64)]) -> Predictor {
    Predictor::new(&mixture(lines), System::Ganache, &Options::default())
}

/// A ganache at one temperature.
pub fn ganache_at(lines: &[(&str, f64)], t_c: f64, history: History) -> Consistency {
    ganache(lines).base.at(t_c, history)
}

/// Rows of a comma-separated table, by column name.
pub fn rows(text: &str) -> Vec<HashMap<String, String>> {
    let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
    let header = reader.headers().unwrap().clone();
    reader
        .records()
        .map(|record| {
            let record = record.unwrap();
            header.iter().map(str::to_owned).zip(record.iter().map(str::to_owned)).collect()
        })
        .collect()
}

/// A number from a row.
pub fn number(row: &HashMap<String, String>, column: &str) -> f64 {
    row[column].parse().unwrap_or_else(|_| panic!("{column} = {:?} is not a number", row[column]))
}
