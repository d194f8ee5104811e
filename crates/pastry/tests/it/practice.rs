//! What a practised cook would do, row by row: the first two ways hold it, and no way holds what would make it worse. Common
//! practice throughout, after the sheets of remedies of this house; each row names its own.

use crate::support::{grams_of, rows};
use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::balance::{Way, WayKind, Ways, ways};
use pastry::formula::process::WhipStage;
use pastry::formula::{Family, Line};
use pastry::ingredient::Shelf;
use pastry::units::{CookTemperature, Hours, Temperature};
use std::collections::HashMap;

type Row = HashMap<String, String>;

fn table() -> Vec<Row> {
    rows(include_str!("data/practice.csv"))
}

/// The start of a row, put wrong: "at 18" °C, "hours 1", "cook 80" °C, "whip trail", or so many grams of something.
fn put_wrong(row: &Row) -> FormulaDocument {
    let family: Family = serde_json::from_value(row["family"].clone().into()).expect("a family");
    let of_job = |document: &&FormulaDocument| document.work.job.duty().word() == row["job"];
    let mut document =
        starts(family).iter().find(of_job).unwrap_or_else(|| panic!("no start for {row:?}")).clone();
    for change in row["put_wrong"].split(';') {
        let (what, how) = change.trim().split_once(' ').expect("what and how much");
        let number = || how.parse::<f64>().expect("a number");
        match what {
            "at" => document.work.temperature_c = Temperature::from_celsius(number()),
            "hours" => document.process.set_hours = Some(Hours::from_hours(number())),
            "cook" => document.process.cook_c = Some(CookTemperature::from_celsius(number())),
            "whip" => {
                let stage: WhipStage = serde_json::from_value(how.into()).expect("a stage");
                document.process.whip = Some(stage);
            }
            id => match document.lines.iter_mut().position(|line| line.ingredient == id) {
                Some(at) if number() <= 0.0 => {
                    document.lines.remove(at);
                }
                Some(at) => document.lines[at].amount = format!("{how} g"),
                None => document.lines.push(Line::new(id, format!("{how} g"))),
            },
        }
    }
    document
}

/// What a way does, in the words of the table.
fn moves(before: &FormulaDocument, way: &Way) -> Vec<String> {
    let after = &way.document;
    let mut found = Vec::new();
    let by = after.work.temperature_c.celsius() - before.work.temperature_c.celsius();
    let mut say = |holds: bool, word: &str| found.extend(holds.then(|| word.to_owned()));
    say(by > 0.0, "warm");
    say(by < 0.0, "cool");
    say(way.kind == WayKind::Heat, "heat");
    say(after.process.set_hours != before.process.set_hours, "wait");
    say(after.air(&[]).whip > before.air(&[]).whip, "whip");
    let air = |document: &FormulaDocument| document.air(&[]).overrun_percent;
    say(air(after) > air(before) + 1.0, "air+");
    say(air(after) < air(before) - 1.0, "air-");
    let grams = |document: &FormulaDocument| -> HashMap<String, f64> {
        let mut sums = HashMap::new();
        for (line, grams) in document.lines.iter().zip(grams_of(document)) {
            *sums.entry(line.ingredient.clone()).or_default() += grams;
        }
        sums
    };
    let (old, new) = (grams(before), grams(after));
    let mut keys: Vec<&String> = old.keys().chain(new.keys()).collect();
    keys.sort();
    keys.dedup();
    for key in keys {
        let of = |sums: &HashMap<String, f64>| sums.get(key).copied().unwrap_or_default();
        let (was, is) = (of(&old), of(&new));
        if (is - was).abs() > 0.02 * was.max(1.0) {
            found.push(format!("{}{key}", if is > was { '+' } else { '-' }));
        }
    }
    found
}

/// All ways of a row, as moves.
fn answered(row: &Row) -> (Ways, Vec<Vec<String>>) {
    let document = put_wrong(row);
    let answer = ways(&document, &Shelf::catalogue(), &|_| None)
        .unwrap_or_else(|faults| panic!("{row:?}: {faults:?}"));
    let moves = answer.ways.iter().map(|way| moves(&document, way)).collect();
    (answer, moves)
}

fn named(row: &Row) -> String {
    format!("{} to {}, {} ({})", row["family"], row["job"], row["put_wrong"], row["remedy"])
}

#[test]
fn the_first_two_ways_hold_what_a_practised_cook_would_do() {
    let (mut asked, mut missed) = (0, Vec::new());
    for row in &table() {
        asked += 1;
        let (answer, moves) = answered(row);
        let wanted: Vec<&str> = row["a_cook_would"].split('|').collect();
        let held = match wanted.as_slice() {
            ["nothing"] => answer.settled,
            wanted => moves.iter().take(2).flatten().any(|own| wanted.contains(&own.as_str())),
        };
        if !held {
            let titles: Vec<&str> = answer.ways.iter().map(|way| way.title.as_str()).collect();
            let wants = &row["a_cook_would"];
            missed.push(format!("{}: wants {wants}, settled {}, {titles:?}", named(row), answer.settled));
        }
    }
    assert!(asked >= 150, "{asked} rows");
    assert!(missed.is_empty(), "{} of {asked}:\n{}", missed.len(), missed.join("\n"));
}

#[test]
fn no_way_is_what_would_make_it_worse() {
    let (mut rows_with, mut wrong) = (0, Vec::new());
    for row in table().iter().filter(|row| !row["never"].is_empty()) {
        rows_with += 1;
        let never: Vec<&str> = row["never"].split(' ').collect();
        let (answer, moves) = answered(row);
        for (way, own) in answer.ways.iter().zip(&moves) {
            // What goes with a larger change, a line among several, is judged by the rest of it.
            let alone = own.len() == 1;
            if alone && own.iter().any(|own| never.contains(&own.as_str())) {
                wrong.push(format!("{}: {}", named(row), way.title));
            }
        }
    }
    assert!(rows_with >= 60, "{rows_with} rows");
    assert!(wrong.is_empty(), "{}:\n{}", wrong.len(), wrong.join("\n"));
}
