//! What several checks need: mixtures by key, tables by column.

use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::formula::{Family, Mixture, System};
use pastry::ingredient::{Shelf, find};
use pastry::rheology::Predictor;
use pastry::rheology::{Consistency, History, Options};
use pastry::units::Temperature;
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

/// Grams of every line of a document.
pub fn grams_of(document: &FormulaDocument) -> Vec<f64> {
    let lines = document.formula().weigh(&Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"));
    lines.iter().map(|line| line.mass.grams()).collect()
}

/// Every start of every family, put wrong: 8 °C off either way, and each line at 0.6 and 1.6 of itself.
pub fn disturbed() -> Vec<(String, FormulaDocument)> {
    let mut all = Vec::new();
    for family in Family::ALL {
        for start in starts(*family) {
            let name = format!("{} to {}", family.word(), start.work.job.verb());
            for by in [-8.0, 8.0] {
                let mut document = start.clone();
                let t_c = (start.work.temperature_c.celsius() + by).clamp(0.0, 45.0);
                document.work.temperature_c = Temperature::from_celsius(t_c);
                all.push((format!("{name}, {by:+} °C"), document));
            }
            for (at, grams) in grams_of(start).into_iter().enumerate() {
                for factor in [0.6, 1.6] {
                    let mut document = start.clone();
                    document.lines[at].amount = format!("{:.1} g", factor * grams);
                    all.push((format!("{name}, {} × {factor}", start.lines[at].ingredient), document));
                }
            }
        }
    }
    all
}
