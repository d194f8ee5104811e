//! Pantry files: own ingredients as a table (CSV) or as a list of documents (JSON), in and out without
//! loss. A bad row is named by its line; the good ones are offered all the same.

use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::ingredient::StarchKind;
use crate::ingredient::catalogue::words;
use crate::ingredient::composition::Part;
use crate::ingredient::document::{self, IngredientDocument, Piece, key_of};
use crate::ingredient::item::Pack;
use crate::ingredient::key::key_for;
use crate::ingredient::origin::Origin;
use crate::spreadsheet::{as_it_was, harmless};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What the `format` field of a pantry file says.
pub const FORMAT: &str = format::PANTRY.name;
/// Most ingredients taken from one file.
pub const MOST: usize = 2000;

/// A pantry file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PantryDocument {
    /// Always `bright-spoon/pantry`.
    #[schema(example = "bright-spoon/pantry")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// The ingredients.
    #[schema(max_items = 2000)]
    pub ingredients: Vec<IngredientDocument>,
}

/// A row that cannot be taken.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BadRow {
    /// Line of the file, or place in the list of a JSON file, from 1.
    pub line: usize,
    /// Its name or key, as far as it could be read.
    pub name: String,
    /// What is wrong with it and what to do.
    pub faults: Vec<Fault>,
}

/// What a file holds.
#[derive(Debug, Clone, PartialEq, Default, Serialize, ToSchema)]
pub struct Reading {
    /// Ingredients that can be taken.
    pub good: Vec<IngredientDocument>,
    /// Rows that cannot.
    pub bad: Vec<BadRow>,
}

const TEXT_COLUMNS: [&str; 28] = [
    "key",
    "name",
    "also",
    "group",
    "bloom_g",
    "starch_strength",
    "gum_strength",
    "fat_in_globules",
    "body_pa",
    "raw_protease",
    "cold_starch",
    "raw_egg",
    "sets_with_pectin",
    "cold_water_fish",
    "locust_bean",
    "starch_of",
    "ph",
    "allergens",
    "origins",
    "density_g_per_ml",
    "pieces",
    "pack_g",
    "pack_price",
    "source",
    "note",
    "sources",
    "label",
    "replaces",
];

fn header() -> Vec<String> {
    let mut columns: Vec<String> = TEXT_COLUMNS[..4].iter().map(|c| (*c).to_owned()).collect();
    columns.extend(Part::ALL.iter().map(|part| format!("{}_percent", key_of(*part))));
    columns.extend(TEXT_COLUMNS[4..].iter().map(|c| (*c).to_owned()));
    columns
}

fn number(value: f64) -> String {
    if value == 0.0 { String::new() } else { value.to_string() }
}

fn yes(value: bool) -> String {
    if value { "yes".to_owned() } else { String::new() }
}

/// The table of some ingredients. Lists inside a field are parted by semicolons; an empty field is 0, no,
/// or nothing.
pub fn to_csv(ingredients: &[IngredientDocument]) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(header()).expect("writing to memory does not fail");
    for one in ingredients {
        let mut row = vec![one.key.clone(), one.name.clone(), one.also.join("; "), one.group.clone()];
        row.extend(
            Part::ALL.iter().map(|part| number(one.composition_percent.get(part).copied().unwrap_or(0.0))),
        );
        let pieces: Vec<String> = one.pieces.iter().map(|p| format!("{}={}", p.unit, p.weight_g)).collect();
        let origins: Vec<&str> = one.origins.iter().map(|origin| origin.word()).collect();
        let json = |value: &dyn erased::Json| value.text();
        row.extend([
            number(one.bloom_g),
            if one.starch_strength == 1.0 { String::new() } else { one.starch_strength.to_string() },
            if one.gum_strength == 1.0 { String::new() } else { one.gum_strength.to_string() },
            yes(one.fat_in_globules),
            number(one.body_pa),
            yes(one.raw_protease),
            yes(one.cold_starch),
            yes(one.raw_egg),
            yes(one.sets_with_pectin),
            yes(one.cold_water_fish),
            yes(one.locust_bean),
            one.starch_of.map_or(String::new(), |kind| kind.word().to_owned()),
            one.ph.map_or(String::new(), |ph| ph.to_string()),
            one.allergens.join("; "),
            origins.join("; "),
            one.density_g_per_ml.map_or(String::new(), |density| density.to_string()),
            pieces.join("; "),
            one.pack.map_or(String::new(), |pack| pack.pack_g.to_string()),
            one.pack.map_or(String::new(), |pack| pack.pack_price.to_string()),
            one.source.clone(),
            one.note.clone(),
            if one.sources.is_empty() { String::new() } else { json(&one.sources) },
            one.label.as_ref().map_or(String::new(), |label| json(label)),
            one.replaces.clone().unwrap_or_default(),
        ]);
        let row: Vec<String> = row.iter().map(|cell| harmless(cell)).collect();
        writer.write_record(&row).expect("a row has as many fields as the header");
    }
    String::from_utf8(writer.into_inner().expect("memory flushes")).expect("text was written")
}

/// What can be written as JSON inside a field.
mod erased {
    pub trait Json {
        fn text(&self) -> String;
    }
    impl<T: serde::Serialize> Json for T {
        fn text(&self) -> String {
            serde_json::to_string(self).expect("plain data serialises")
        }
    }
}

/// The list of some ingredients as JSON.
pub fn to_json(ingredients: Vec<IngredientDocument>) -> PantryDocument {
    PantryDocument { format: FORMAT.to_owned(), version: 1, ingredients }
}

/// Reads a table.
///
/// # Errors
/// In words, when it is no table of ingredients at all.
pub fn from_csv(text: &str) -> Result<Reading, String> {
    // Files from spreadsheets part fields by semicolons where commas are decimal points.
    let first = text.lines().next().unwrap_or_default().trim_start_matches('\u{feff}');
    let delimiter = if first.matches(';').count() > first.matches(',').count() { b';' } else { b',' };
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter)
        .flexible(true)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let heads: Vec<String> = reader
        .headers()
        .map_err(|error| format!("the table cannot be read: {error}"))?
        .iter()
        .map(|name| name.trim().to_lowercase())
        .collect();
    let columns: BTreeMap<String, usize> =
        heads.iter().enumerate().map(|(at, name)| (name.clone(), at)).collect();
    if let Some(twice) = heads.iter().enumerate().find(|(at, name)| !name.is_empty() && columns[*name] != *at)
    {
        return Err(format!("the column “{}” stands twice: take one out", twice.1));
    }
    if !columns.contains_key("name") || !columns.keys().any(|name| name.ends_with("_percent")) {
        return Err(
            "this is no table of ingredients: the first line must name the columns name, group and shares \
            such as water_percent; download the pantry as CSV to see them all"
                .to_owned(),
        );
    }
    let known = header();
    let unknown: Vec<&String> =
        columns.keys().filter(|name| !name.is_empty() && !known.contains(name)).collect();
    if let Some(name) = unknown.first() {
        return Err(format!("the column “{name}” is not known here: rename it, or take it out"));
    }
    if !columns.contains_key("allergens") {
        return Err(
            "the table has no column allergens: add it, and leave it empty only where there are none"
                .to_owned(),
        );
    }
    let mut reading = Reading::default();
    for (at, record) in reader.records().enumerate() {
        if at >= MOST {
            return Err(format!("the table has more than {MOST} rows: split it"));
        }
        match record {
            Ok(record) => {
                let line = record.position().map_or(at + 2, |position| position.line() as usize);
                let field = |name: &str| {
                    columns
                        .get(name)
                        .and_then(|at| record.get(*at))
                        .map(str::trim)
                        .map(as_it_was)
                        .unwrap_or_default()
                };
                // A cell too many or too few moves every cell behind it: 36,5 without quotes is two.
                let more = record.iter().skip(heads.len()).any(|cell| !cell.trim().is_empty());
                let read = if more || record.len() < heads.len() {
                    let (here, there) = (record.len(), heads.len());
                    let message = format!(
                        "the row has {here} cells where the first line names {there}: put what holds a \
                        comma in quotes, and leave no cell out"
                    );
                    Err(vec![Fault::new("", FaultCode::Cells, message)])
                } else {
                    row_document(&field)
                };
                keep(&mut reading, line, field("name"), read);
            }
            Err(error) => {
                let fault = Fault::new("", FaultCode::Unreadable, format!("the row cannot be read: {error}"));
                reading.bad.push(BadRow { line: at + 2, name: String::new(), faults: vec![fault] });
            }
        }
    }
    Ok(reading)
}

/// Reads a list of documents: a pantry file, or one ingredient. `shape` says what the published schema does not take in
/// an entry as it stands in the file.
///
/// # Errors
/// In words, when it is neither, or a pantry without its list.
pub fn from_json(text: &str, shape: &dyn Fn(&serde_json::Value) -> Vec<Fault>) -> Result<Reading, String> {
    let value: serde_json::Value =
        serde_json::from_str(text).map_err(|error| format!("this is not JSON: {error}"))?;
    let list = match value["format"].as_str() {
        Some(FORMAT) => match &value["ingredients"] {
            serde_json::Value::Array(list) => list.clone(),
            _ => {
                return Err(
                    "the pantry has no list of ingredients: its field “ingredients” must be one".to_owned()
                );
            }
        },
        Some(document::FORMAT) => vec![value],
        _ => {
            return Err(format!(
                "this is no pantry: its format field must say {FORMAT} or {}",
                document::FORMAT
            ));
        }
    };
    if list.len() > MOST {
        return Err(format!("the file has more than {MOST} ingredients: split it"));
    }
    let mut reading = Reading::default();
    for (at, entry) in list.into_iter().enumerate() {
        let name = entry["name"].as_str().unwrap_or_default().to_owned();
        let amiss = shape(&entry);
        let read = serde_json::from_value::<IngredientDocument>(entry)
            .map_err(|error| vec![Fault::new("", FaultCode::Unreadable, error.to_string())])
            .and_then(|document| if amiss.is_empty() { Ok(document) } else { Err(amiss) });
        keep(&mut reading, at + 1, &name, read);
    }
    Ok(reading)
}

/// Sorts one row into good or bad; a key may come only once.
fn keep(reading: &mut Reading, line: usize, name: &str, read: Result<IngredientDocument, Vec<Fault>>) {
    let judged = read.and_then(|document| {
        let mut faults = document.faults();
        if reading.good.iter().any(|other| other.key == document.key) {
            let message = format!("the key {} stands in the file twice: give one another", document.key);
            faults.push(Fault::new("key", FaultCode::KeyTwice, message));
        }
        if faults.is_empty() { Ok(document) } else { Err(faults) }
    });
    match judged {
        Ok(document) => reading.good.push(document),
        Err(faults) => reading.bad.push(BadRow { line, name: name.chars().take(120).collect(), faults }),
    }
}

fn row_document<'a>(field: &impl Fn(&str) -> &'a str) -> Result<IngredientDocument, Vec<Fault>> {
    let mut faults = Vec::new();
    let mut read = |name: &str, empty: f64| -> f64 {
        let text = field(name);
        if text.is_empty() {
            return empty;
        }
        crate::units::number::read(text).unwrap_or_else(|error| {
            faults.push(Fault::new(name, FaultCode::NotANumber, error.to_string()));
            empty
        })
    };
    let composition_percent: BTreeMap<Part, f64> = Part::ALL
        .into_iter()
        .map(|part| (part, read(&format!("{}_percent", key_of(part)), 0.0)))
        .filter(|(_, percent)| *percent != 0.0)
        .collect();
    let [bloom_g, starch_strength, gum_strength, body_pa] =
        [("bloom_g", 0.0), ("starch_strength", 1.0), ("gum_strength", 1.0), ("body_pa", 0.0)]
            .map(|(name, empty)| read(name, empty));
    let (density, ph) = (read("density_g_per_ml", 0.0), read("ph", 0.0));
    let (pack_g, pack_price) = (read("pack_g", 0.0), read("pack_price", 0.0));
    let mut flag = |name: &str| match field(name).to_lowercase().as_str() {
        "" | "no" | "0" | "false" => false,
        "yes" | "1" | "true" => true,
        other => {
            faults.push(Fault::new(name, FaultCode::NotYesOrNo, format!("“{other}”: write yes or no")));
            false
        }
    };
    let [fat_in_globules, raw_protease, cold_starch, raw_egg, sets_with_pectin, cold_water_fish, locust_bean] =
        [
            "fat_in_globules",
            "raw_protease",
            "cold_starch",
            "raw_egg",
            "sets_with_pectin",
            "cold_water_fish",
            "locust_bean",
        ]
        .map(&mut flag);
    let starch_of = match field("starch_of") {
        "" => None,
        word => {
            let kind = StarchKind::parse(word);
            if kind.is_none() {
                let all: Vec<&str> = StarchKind::ALL.iter().map(|kind| kind.word()).collect();
                let message = format!("“{word}”: write {}", all.join(", "));
                faults.push(Fault::new("starch_of", FaultCode::OutOfRange, message));
            }
            kind
        }
    };
    let mut origins = Vec::new();
    for word in words(field("origins")) {
        match Origin::parse(&word) {
            Some(origin) => origins.push(origin),
            None => faults.push(Fault::new(
                "origins",
                FaultCode::UnknownOrigin,
                format!("“{word}” is not an origin"),
            )),
        }
    }
    let mut pieces = Vec::new();
    for pair in words(field("pieces")) {
        match pair
            .split_once('=')
            .and_then(|(unit, g)| Some((unit.trim(), crate::units::number::read(g).ok()?)))
        {
            Some((unit, weight_g)) => pieces.push(Piece { unit: unit.to_owned(), weight_g }),
            None => {
                faults.push(Fault::new("pieces", FaultCode::Unreadable, format!("“{pair}”: write leaf=2.0")))
            }
        }
    }
    let mut inside = |name: &str| -> Option<serde_json::Value> {
        let text = field(name);
        if text.is_empty() {
            return None;
        }
        serde_json::from_str(text)
            .map_err(|error| {
                faults.push(Fault::new(name, FaultCode::Unreadable, format!("is not JSON: {error}")))
            })
            .ok()
    };
    let sources = inside("sources").and_then(|value| serde_json::from_value(value).ok()).unwrap_or_default();
    let label = inside("label").and_then(|value| serde_json::from_value(value).ok());
    if !faults.is_empty() {
        return Err(faults);
    }
    let name = field("name").to_owned();
    let key = match field("key") {
        "" => key_for(&name),
        key => key.to_owned(),
    };
    Ok(IngredientDocument {
        format: document::FORMAT.to_owned(),
        version: document::VERSION,
        key,
        also: words(field("also")),
        group: match field("group") {
            "" => "other".to_owned(),
            group => group.to_owned(),
        },
        composition_percent,
        sources,
        replaces: Some(field("replaces").to_owned()).filter(|own| !own.is_empty()),
        label,
        bloom_g,
        starch_strength,
        gum_strength,
        fat_in_globules,
        body_pa,
        raw_protease,
        cold_starch,
        raw_egg,
        sets_with_pectin,
        cold_water_fish,
        locust_bean,
        starch_of,
        ph: (ph != 0.0).then_some(ph),
        allergens: words(field("allergens")),
        origins,
        density_g_per_ml: (density != 0.0).then_some(density),
        pieces,
        pack: (pack_g != 0.0).then_some(Pack { pack_g, pack_price }),
        source: field("source").to_owned(),
        note: field("note").to_owned(),
        name,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::catalogue;

    fn copies() -> Vec<IngredientDocument> {
        catalogue()
            .iter()
            .map(|i| IngredientDocument::copy_of(i, key_for(&i.id.replace('_', " ")), i.name.clone()))
            .collect()
    }

    #[test]
    fn the_whole_pantry_goes_out_and_comes_back_without_loss() {
        let all = copies();
        let back = from_csv(&to_csv(&all)).unwrap();
        assert!(back.bad.is_empty(), "{:?}", back.bad.first());
        let json = serde_json::to_string(&to_json(all.clone())).unwrap();
        let from_json = from_json(&json, &|_| Vec::new()).unwrap();
        assert_eq!((back.good.len(), from_json.good.len()), (all.len(), all.len()));
        for (at, one) in all.iter().enumerate() {
            assert_eq!(&back.good[at], one, "through the table");
            assert_eq!(&from_json.good[at], one, "through JSON");
        }
    }

    #[test]
    fn a_bad_row_is_named_by_its_line_and_the_good_ones_are_kept() {
        let table = "name,group,water_percent,milk_fat_percent,allergens\n\
            Meadow cream,dairy,60,40,milk\n\
            Bad sums,dairy,60,10,milk\n\
            Bad number,dairy,sixty,40,milk\n\
            Hill cream,dairy,\"52,5\",47.5,milk\n\
            Unquoted cream,dairy,52,5,47.5,milk\n\
            Short cream,dairy,60,40\n";
        let reading = from_csv(table).unwrap();
        let good: Vec<&str> = reading.good.iter().map(|one| one.key.as_str()).collect();
        assert_eq!(good, ["own-meadow-cream", "own-hill-cream"]);
        let bad: Vec<usize> = reading.bad.iter().map(|row| row.line).collect();
        assert_eq!(bad, [3, 4, 6, 7]);
        assert!(reading.bad[2].faults[0].message.contains("in quotes"));
        assert!(reading.bad[0].faults[0].message.contains("add up to 70.0 %"));
        assert!(from_csv("a,b\n1,2\n").unwrap_err().contains("no table of ingredients"));
        assert!(from_csv("name,water_percent\nW,100\n").unwrap_err().contains("no column allergens"));
        assert!(from_csv("name,name,water_percent,allergens\nW,V,100,\n").unwrap_err().contains("twice"));
        let read = |text: &str| from_json(text, &|_| Vec::new());
        assert!(read("{}").unwrap_err().contains("no pantry"));
        let bare = format!(r#"{{"format": "{FORMAT}", "version": 1, "ingredient": []}}"#);
        assert!(read(&bare).unwrap_err().contains("no list"));
    }
}
