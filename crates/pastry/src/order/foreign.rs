//! Reading: our own documents, alone or inside a Schema.org Recipe; and recipes of others, line by line.

use crate::formula::{Family, Line};
use crate::ingredient::composition::Part;
use crate::ingredient::search::search;
use crate::ingredient::{Ingredient, Shelf};
use crate::job::FormulaDocument;
use crate::job::starts::starts;
use crate::order::document::{self, OrderDocument};
use crate::order::recipe::media_type;
use crate::stack::StackDocument;
use crate::units::amount;
use crate::units::kitchen::Unit;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::sync::Arc;
use utoipa::ToSchema;

/// Most lines of a recipe that are read.
const MOST_LINES: usize = 60;

/// What a file held.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum ReadFile {
    /// A formula as we write it.
    Formula {
        /// It.
        document: FormulaDocument,
    },
    /// A cake as we write it.
    Stack {
        /// It.
        document: StackDocument,
    },
    /// An order as we write it.
    Order {
        /// It.
        document: OrderDocument,
    },
    /// Somebody else's recipe, as a formula.
    Recipe {
        /// What was understood, as a formula to be looked over.
        document: FormulaDocument,
        /// Lines that were not understood, as they stand there.
        not_understood: Vec<String>,
    },
}

/// Reads a file of JSON or JSON-LD.
///
/// # Errors
/// In words: no JSON, nothing known in it, a document of ours that does not fit its schema.
pub fn read(text: &str, shelf: &Shelf) -> Result<ReadFile, String> {
    let value: Value = serde_json::from_str(text).map_err(|error| {
        format!("this is not JSON: it breaks at line {}, column {}", error.line(), error.column())
    })?;
    if let Some(format) = value.get("format").and_then(Value::as_str) {
        return ours(format, value.clone());
    }
    let recipe = find_recipe(&value, 0).ok_or_else(|| {
        format!(
            "nothing in it is known here: write a {}, a {}, a {} or a Schema.org Recipe",
            crate::job::document::FORMAT,
            crate::stack::document::FORMAT,
            document::FORMAT
        )
    })?;
    if let Some(found) = encoded(recipe) {
        return found;
    }
    foreign(recipe, shelf)
}

fn ours(format: &str, value: Value) -> Result<ReadFile, String> {
    let fits = |error: serde_json::Error| format!("it says it is a {format} and does not fit: {error}");
    match format {
        crate::job::document::FORMAT => {
            serde_json::from_value(value).map(|document| ReadFile::Formula { document }).map_err(fits)
        }
        crate::stack::document::FORMAT => {
            serde_json::from_value(value).map(|document| ReadFile::Stack { document }).map_err(fits)
        }
        document::FORMAT => {
            serde_json::from_value(value).map(|document| ReadFile::Order { document }).map_err(fits)
        }
        other => {
            let shown: String = other.chars().take(40).collect();
            Err(format!("“{shown}” is not known here"))
        }
    }
}

/// Whether a type is said, alone or in a list.
fn is_a(value: &Value, kind: &str) -> bool {
    match value.get("@type") {
        Some(Value::String(own)) => own == kind,
        Some(Value::Array(own)) => own.iter().any(|own| own == kind),
        _ => false,
    }
}

/// The first recipe, or list of ours, in a document, a list or a graph.
fn find_recipe(value: &Value, depth: usize) -> Option<&Value> {
    if depth > 6 {
        return None;
    }
    if is_a(value, "Recipe") || (is_a(value, "ItemList") && value.get("encoding").is_some()) {
        return Some(value);
    }
    match value {
        Value::Array(all) => all.iter().find_map(|own| find_recipe(own, depth + 1)),
        Value::Object(fields) => ["@graph", "mainEntity", "itemListElement", "item"]
            .iter()
            .filter_map(|name| fields.get(*name))
            .find_map(|own| find_recipe(own, depth + 1)),
        _ => None,
    }
}

/// A document of ours inside a recipe.
fn encoded(recipe: &Value) -> Option<Result<ReadFile, String>> {
    let encoding = recipe.get("encoding")?;
    let all = encoding.as_array().map_or_else(|| std::slice::from_ref(encoding), Vec::as_slice);
    for own in all {
        let kind = own.get("encodingFormat").and_then(Value::as_str)?;
        for format in [crate::job::document::FORMAT, crate::stack::document::FORMAT, document::FORMAT] {
            if kind == media_type(format) {
                let text = own.get("text").and_then(Value::as_str).unwrap_or_default();
                return Some(match serde_json::from_str(text) {
                    Ok(value) => ours(format, value),
                    Err(_) => Err("the document inside it is broken: write it out again".to_owned()),
                });
            }
        }
    }
    None
}

/// Somebody else's recipe: its lines as a formula.
fn foreign(recipe: &Value, shelf: &Shelf) -> Result<ReadFile, String> {
    let listed = recipe.get("recipeIngredient").or_else(|| recipe.get("ingredients"));
    let texts: Vec<String> = match listed {
        Some(Value::String(one)) => one.lines().map(str::to_owned).collect(),
        Some(Value::Array(all)) => all.iter().filter_map(Value::as_str).map(str::to_owned).collect(),
        _ => Vec::new(),
    };
    if texts.is_empty() {
        return Err("the recipe lists no ingredients".to_owned());
    }
    let (mut lines, mut not_understood) = (Vec::new(), Vec::new());
    for text in texts.into_iter().take(MOST_LINES) {
        let short: String = text.split_whitespace().collect::<Vec<_>>().join(" ").chars().take(200).collect();
        match line(&short, shelf) {
            Some(line) => lines.push(line),
            None => not_understood.push(short),
        }
    }
    if lines.is_empty() {
        return Err(format!(
            "none of its lines could be understood: “{}”",
            not_understood.first().map_or("", String::as_str)
        ));
    }
    let word = recipe.get("recipeCategory").and_then(Value::as_str).unwrap_or_default().to_lowercase();
    let family = Family::ALL
        .iter()
        .copied()
        .find(|family| family.word().to_lowercase() == word)
        .unwrap_or_else(|| guess(&lines, shelf));
    let mut document = starts(family)[0].clone();
    document.name = text_of(recipe, "name", 120);
    document.note = text_of(recipe, "description", 4000);
    document.percent_of = None;
    document.lines = lines;
    Ok(ReadFile::Recipe { document, not_understood })
}

fn text_of(recipe: &Value, field: &str, most: usize) -> String {
    recipe.get(field).and_then(Value::as_str).unwrap_or_default().trim().chars().take(most).collect()
}

/// "250 g dark chocolate 70 %, chopped" as a line: the longest beginning that is an amount, then the ingredient.
pub fn line(text: &str, shelf: &Shelf) -> Option<Line> {
    // An egg's size is the egg's: the pantry has one.
    let words: Vec<&str> = text.split(' ').filter(|word| !SIZES.contains(word)).collect();
    (1..=words.len().min(4)).rev().find_map(|n| {
        let (front, rest) = words.split_at(n);
        let amount = front.join(" ");
        let unit = amount::parse(&amount).ok()?.unit?;
        let rest = rest.join(" ");
        let named = rest.split([',', '(', ';']).next().unwrap_or_default();
        let named = named.trim().trim_start_matches("of ").trim();
        // "2 egg yolks": the egg is not the unit.
        let part = (unit == Unit::Egg)
            .then(|| {
                [("yolk", "yolks"), ("white", "whites")].into_iter().find(|(one, _)| named.starts_with(one))
            })
            .flatten();
        if let Some((key, many)) = part {
            return Some(Line::new(key, format!("{} {many}", words[0])));
        }
        let counted = match unit {
            Unit::Egg => Some("egg"),
            Unit::Yolk => Some("yolk"),
            Unit::White => Some("white"),
            _ => None,
        };
        let ingredient = match counted {
            Some(key) => shelf.find(key),
            None => best(named, shelf),
        }?;
        Some(Line::new(ingredient.id.clone(), amount))
    })
}

/// Sizes of eggs, which a recipe names and the pantry does not.
const SIZES: [&str; 4] = ["large", "medium", "small", "extra-large"];

/// What a bare word means in a recipe (common practice): "milk" is no milk chocolate.
const PLAIN: [(&str, &str); 8] = [
    ("milk", "milk"),
    ("cream", "cream36"),
    ("butter", "butter82"),
    ("chocolate", "dark60"),
    ("flour", "flour"),
    ("egg", "egg"),
    ("eggs", "egg"),
    ("gelatin", "gelatin200"),
];

/// The ingredient a name means; words at its end or its front may say how it is cut.
fn best<'a>(named: &str, shelf: &'a Shelf) -> Option<&'a Arc<Ingredient>> {
    let words: Vec<&str> = named.split(' ').filter(|word| !word.is_empty()).collect();
    if words.is_empty() {
        return None;
    }
    let bare = named.to_lowercase();
    if let Some((_, key)) = PLAIN.iter().find(|(word, _)| *word == bare) {
        return shelf.find(key);
    }
    let ends = (1..=words.len()).rev().map(|n| words[..n].join(" "));
    let fronts = (1..words.len()).map(|n| words[n..].join(" "));
    ends.chain(fronts).find_map(|name| search(shelf.all(), &name).first().copied())
}

/// The family a list of lines is nearest to.
fn guess(lines: &[Line], shelf: &Shelf) -> Family {
    let found: Vec<&Arc<Ingredient>> = lines.iter().filter_map(|line| shelf.find(&line.ingredient)).collect();
    let group = |name: &str| found.iter().any(|ingredient| ingredient.group == name);
    let part = |part: Part, least: f64| found.iter().any(|own| own.composition.get(part) > least);
    let cream = found
        .iter()
        .any(|own| own.group == "dairy" && own.globule > 0.5 && own.composition.get(Part::MilkFat) > 0.25);
    let butter = found.iter().any(|own| own.composition.get(Part::MilkFat) > 0.6);
    match () {
        () if part(Part::Gelatin, 0.5) && cream => Family::FruitMousse,
        () if part(Part::Gelatin, 0.5) => Family::Jelly,
        () if group("chocolate") && !part(Part::Yolk, 0.05) => Family::Ganache,
        () if part(Part::Starch, 0.5) => Family::PastryCream,
        () if butter && part(Part::EggWhite, 0.05) => Family::SwissButtercream,
        () if butter => Family::Buttercream,
        () if part(Part::Yolk, 0.05) => Family::Anglaise,
        () if cream => Family::WhippedCream,
        () => Family::Syrup,
    }
}
