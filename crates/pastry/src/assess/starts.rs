//! Starting formulas: for every family, one for each job it is used for, ready to be judged.

use crate::assess::document::FormulaDocument;
use crate::assess::usual::TABLE;
use crate::formula::{Family, Line, Process};
use crate::job::kind::Job;
use crate::rheology::History;
use crate::units::{CookTemperature, Temperature};
use serde::Deserialize;
use serde_json::{Map, Value};
use std::collections::BTreeMap;
use std::sync::LazyLock;

#[derive(Deserialize)]
struct Row {
    family: Family,
    job: String,
    temperature_c: f64,
    pour_c: Option<f64>,
    history: Option<History>,
    process: String,
    geometry: String,
    lines: String,
}

static STARTS: LazyLock<BTreeMap<Family, Vec<FormulaDocument>>> = LazyLock::new(|| {
    let mut starts: BTreeMap<Family, Vec<FormulaDocument>> = BTreeMap::new();
    for row in csv::Reader::from_reader(TABLE.as_bytes()).deserialize() {
        let row: Row = row.expect("the table of starts is well formed");
        starts.entry(row.family).or_default().push(row.document());
    }
    starts
});

/// The starting formulas of a family, the usual job first.
pub fn starts(family: Family) -> &'static [FormulaDocument] {
    STARTS.get(&family).map_or(&[], Vec::as_slice)
}

/// "a=1 b=word" as an object.
fn pairs(text: &str) -> Map<String, Value> {
    text.split_whitespace()
        .map(|pair| {
            let (key, value) = pair.split_once('=').expect("a pair has a key and a value");
            let value = value.parse::<f64>().map_or_else(|_| Value::from(value), Value::from);
            (key.to_owned(), value)
        })
        .collect()
}

impl Row {
    fn document(&self) -> FormulaDocument {
        let mut job = pairs(&self.geometry);
        job.insert("kind".into(), Value::from(self.job.as_str()));
        let job: Job = serde_json::from_value(job.into()).expect("a start names a job and its geometry");
        // In the table the settings are short: cook=83 hours=6 overrun=50 whip=soft.
        let process: Map<String, Value> = pairs(&self.process)
            .into_iter()
            .map(|(key, value)| {
                let key = match key.as_str() {
                    "cook" => "cook_c",
                    "hours" => "set_hours",
                    "overrun" => "overrun_percent",
                    other => other,
                };
                (key.to_owned(), value)
            })
            .collect();
        let process: Process = serde_json::from_value(process.into()).expect("a start has known settings");
        let mut document = FormulaDocument::empty(self.family, job, self.temperature_c);
        document.process = process;
        document.work.history = self.history;
        document.work.pour_temperature_c = self.pour_c.map(Temperature::from_celsius);
        document.lines = self
            .lines
            .split(';')
            .map(|line| {
                let (ingredient, amount) =
                    line.trim().split_once(' ').expect("a line is a key and an amount");
                // "white@60 100 g": the whites reach 60 °C.
                let (key, reached) = ingredient.split_once('@').unzip();
                let mut line = Line::new(key.unwrap_or(ingredient), amount);
                line.cook_c = reached.map(|text| {
                    CookTemperature::from_celsius(text.parse().expect("a line reaches a number of degrees"))
                });
                line
            })
            .collect();
        document
    }
}
