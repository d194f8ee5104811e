//! Guards of the tables: each has a row for every family and every ingredient it must have one for, and names none that
//! is not there. What is missing is named.

use pastry::assess::starts::starts;
use pastry::assess::usual;
use pastry::formula::Family;
use pastry::formula::keeping::keeping;
use pastry::ingredient::{catalogue, find};
use pastry::method::{Gear, schools_of};
use pastry::sponge::sponges;
use pastry::stack::baking::baking;
use std::collections::BTreeSet;
use std::path::Path;

/// The column of a table, in its order.
fn column(table: &str, name: &str) -> Vec<String> {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("data").join(table);
    let mut reader = csv::Reader::from_path(&path).unwrap_or_else(|error| panic!("{table}: {error}"));
    let at = reader.headers().unwrap().iter().position(|own| own == name);
    let at = at.unwrap_or_else(|| panic!("{table} has no column {name}"));
    reader.records().map(|row| row.unwrap()[at].trim().to_owned()).collect()
}

/// Rows that are missing, twice there, or of nothing.
fn amiss(table: &str, name: &str, wanted: &BTreeSet<String>, once: bool, all: bool) -> Vec<String> {
    let rows = column(table, name);
    let there: BTreeSet<String> = rows.iter().cloned().collect();
    let mut said = Vec::new();
    if all {
        said.extend(wanted.difference(&there).map(|own| format!("{table} has no row for {own}")));
    }
    said.extend(there.difference(wanted).map(|own| format!("{table} has a row for {own}, which is nothing")));
    if once && rows.len() != there.len() {
        let twice = there.iter().filter(|own| rows.iter().filter(|row| row == own).count() > 1);
        said.extend(twice.map(|own| format!("{table} has {own} twice")));
    }
    said
}

fn families() -> BTreeSet<String> {
    Family::ALL
        .iter()
        .map(|family| serde_json::to_value(family).unwrap().as_str().unwrap().to_owned())
        .collect()
}

fn ingredients() -> BTreeSet<String> {
    catalogue().iter().map(|own| own.id.clone()).collect()
}

#[test]
fn every_table_has_a_row_for_every_family() {
    let families = families();
    let mut said = amiss("families.csv", "family", &families, true, true);
    said.extend(amiss("keeping.csv", "family", &families, true, true));
    said.extend(amiss("starts.csv", "family", &families, false, true));
    said.extend(amiss("usual.csv", "family", &families, false, false));
    for family in Family::ALL {
        let word = family.word();
        for job in usual::jobs(*family) {
            if !starts(*family).iter().any(|start| start.work.job.word() == *job) {
                said.push(format!("starts.csv has no {word} to {job}"));
            }
        }
        if schools_of(*family).next().is_none() {
            said.push(format!("no table of schools makes {word}"));
        }
        if keeping(*family).cover.is_empty() {
            said.push(format!("keeping.csv does not say how {word} is covered"));
        }
    }
    assert!(said.is_empty(), "{}", said.join("\n"));
}

#[test]
fn every_table_has_a_row_for_every_ingredient() {
    let ingredients = ingredients();
    let mut said = amiss("ingredients.csv", "id", &ingredients, true, true);
    said.extend(amiss("shelf.csv", "ingredient", &ingredients, true, true));
    said.extend(amiss("measures.csv", "ingredient", &ingredients, false, false));
    for own in catalogue() {
        if own.weights.density.is_none() {
            said.push(format!("measures.csv has no volume of {}, and its composition gives none", own.id));
        }
    }
    assert!(said.is_empty(), "{}", said.join("\n"));
}

#[test]
fn what_the_tables_name_is_there() {
    let mut said = Vec::new();
    for (table, name) in [("starts.csv", "lines"), ("substitutes.csv", "by")] {
        for cell in column(table, name) {
            for part in cell.split(';').map(str::trim).filter(|part| !part.is_empty()) {
                // `white@60`: heated to 60 °C.
                let key = part.split([' ', '@']).next().unwrap_or_default();
                if find(key).is_none() {
                    said.push(format!("{table} names {key}, which is no ingredient"));
                }
            }
        }
    }
    let sponges_there: BTreeSet<String> = sponges().iter().map(|own| own.key.clone()).collect();
    for own in pastry::stack::template::bakes() {
        if !sponges_there.contains(&own.sponge) {
            said.push(format!("bakes.toml names {}, which is no sponge", own.sponge));
        }
        for line in &own.lines {
            if find(&line.ingredient).is_none() {
                said.push(format!("bakes.toml names {}, which is no ingredient", line.ingredient));
            }
        }
    }
    said.extend(
        sponges()
            .iter()
            .filter(|own| baking(&own.key).is_none())
            .map(|own| format!("{} is not baked", own.key)),
    );
    let gear: BTreeSet<String> = Gear::ALL.iter().map(|own| own.word().to_owned()).collect();
    said.extend(amiss("gear.csv", "gear", &gear, true, true));
    assert!(said.is_empty(), "{}", said.join("\n"));
}

#[test]
fn every_row_names_its_source() {
    for table in [
        "families.csv",
        "keeping.csv",
        "usual.csv",
        "starts.csv",
        "shelf.csv",
        "measures.csv",
        "substitutes.csv",
        "sponges.csv",
        "tints.csv",
        "gear.csv",
        "ingredients.csv",
    ] {
        let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("data").join(table);
        let head = std::fs::read_to_string(&path).unwrap();
        if !head.lines().next().unwrap().split(',').any(|own| own == "source") {
            // A start is a formula of ours, held to its job by tests/it/starts.rs; a family's words are its own.
            assert!(["starts.csv", "families.csv"].contains(&table), "{table} has no sources");
            continue;
        }
        let empty = column(table, "source").iter().filter(|source| source.is_empty()).count();
        assert_eq!(empty, 0, "{table}: {empty} rows without a source");
    }
}

#[test]
fn a_missing_row_is_named() {
    let mut wanted = families();
    wanted.insert("sherbet".to_owned());
    let said = amiss("keeping.csv", "family", &wanted, true, true);
    assert_eq!(said, ["keeping.csv has no row for sherbet"]);
    wanted.remove("sherbet");
    wanted.remove("ganache");
    assert_eq!(
        amiss("keeping.csv", "family", &wanted, true, true),
        ["keeping.csv has a row for ganache, which is nothing"]
    );
}
