//! Reading: our own documents, alone or inside a Schema.org Recipe; and recipes of others, line by line.

use crate::assess::FormulaDocument;
use crate::assess::starts::starts;
use crate::exchange::recipe::media_type;
use crate::formula::{Family, Line};
use crate::ingredient::Role;
use crate::ingredient::composition::Part;
use crate::ingredient::{Ingredient, Shelf};
use crate::order::document::{self, OrderDocument};
use crate::stack::StackDocument;
use crate::units::amount;
use crate::units::kitchen::Unit;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::sync::Arc;
use utoipa::ToSchema;

/// Most lines of a recipe that are taken into a formula.
const MOST_LINES: usize = crate::formula::line::MOST_LINES;
/// Most lines of a recipe that are read.
const MOST_TEXTS: usize = 200;

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
        /// Every line as it stood, with what was made of it: to be looked over before anything is kept.
        lines: Vec<ReadLine>,
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
            crate::assess::document::FORMAT,
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
        crate::assess::document::FORMAT => {
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
        for format in [crate::assess::document::FORMAT, crate::stack::document::FORMAT, document::FORMAT] {
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
    if texts.len() > MOST_TEXTS {
        return Err(format!(
            "the recipe has {} lines, more than the {MOST_TEXTS} that are read",
            texts.len()
        ));
    }
    let names = Names::of(shelf);
    let (mut lines, mut read, mut not_understood) = (Vec::new(), Vec::new(), Vec::new());
    for text in texts {
        let short: String = text.split_whitespace().collect::<Vec<_>>().join(" ").chars().take(200).collect();
        // What no longer fits into a formula is said, as what is not understood is.
        let found = (lines.len() < MOST_LINES).then(|| line(&without_egg_size(&short), &names)).flatten();
        match found {
            Some(line) => {
                let name = shelf.find(&line.ingredient).map_or("", |own| own.name.as_str());
                let taken_as = Some(format!("{} {name}", line.amount));
                read.push(ReadLine { text: short, line: Some(lines.len()), taken_as });
                lines.push(line);
            }
            None => {
                read.push(ReadLine { text: short.clone(), line: None, taken_as: None });
                not_understood.push(short);
            }
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
    document.note = noted(&text_of(recipe, "description", 4000), &read);
    document.percent_of = None;
    document.lines = lines;
    Ok(ReadFile::Recipe { document, lines: read, not_understood })
}

/// The note of what was read: what was not understood first, so that it cannot be overlooked, then the rest.
fn noted(description: &str, read: &[ReadLine]) -> String {
    let open: Vec<&str> = read.iter().filter(|own| own.line.is_none()).map(|own| own.text.as_str()).collect();
    let mut note = String::new();
    if !open.is_empty() {
        note.push_str(&format!("NOT TAKEN IN: {}. ", open.join("; ")));
    }
    note.push_str(description);
    note.chars().take(4000).collect::<String>().trim().to_owned()
}

fn text_of(recipe: &Value, field: &str, most: usize) -> String {
    recipe.get(field).and_then(Value::as_str).unwrap_or_default().trim().chars().take(most).collect()
}

/// A line of somebody's recipe, and what was made of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadLine {
    /// As it stood.
    pub text: String,
    /// Which line of the formula it became; none when it was not understood.
    pub line: Option<usize>,
    /// What was understood: "250 g Dark chocolate 60 %".
    pub taken_as: Option<String>,
}

/// Words behind a comma that say how a thing is cut or how warm it is, and change nothing of what it is (common
/// practice); anything else there is not understood.
const PREPARED: [&str; 22] = [
    "chopped",
    "finely",
    "roughly",
    "coarsely",
    "softened",
    "soft",
    "sifted",
    "melted",
    "cold",
    "chilled",
    "warm",
    "diced",
    "cubed",
    "cut",
    "in",
    "cubes",
    "at",
    "room",
    "temperature",
    "sieved",
    "broken",
    "pieces",
];

/// Sizes of eggs, which a recipe names and the pantry does not.
const SIZES: [&str; 4] = ["large", "medium", "small", "extra-large"];

/// What a bare word means in a recipe (common practice): "milk" is no milk chocolate. Where strength decides, as for
/// chocolate and gelatin, a bare word means nothing.
const PLAIN: [(&str, &str); 6] = [
    ("milk", "milk"),
    ("cream", "cream36"),
    ("butter", "butter82"),
    ("flour", "flour"),
    ("sugar", "sugar"),
    ("water", "water"),
];

/// Small letters without accents, as words; a number with its decimal point is one word.
fn plain_words(text: &str) -> Vec<String> {
    deunicode::deunicode(text)
        .to_lowercase()
        .split(|c: char| !(c.is_alphanumeric() || c == '.'))
        .map(|word| word.trim_matches('.').to_owned())
        .filter(|word| !word.is_empty())
        .collect()
}

/// The names of a shelf as words, made once for a whole recipe.
pub struct Names<'a>(Vec<(&'a Arc<Ingredient>, Vec<Vec<String>>)>);

impl<'a> Names<'a> {
    /// Of every ingredient of a shelf.
    pub fn of(shelf: &'a Shelf) -> Self {
        Names(
            shelf
                .all()
                .map(|own| {
                    let names = std::iter::once(&own.name).chain(&own.also).map(|name| plain_words(name));
                    (own, names.collect())
                })
                .collect(),
        )
    }

    /// The one ingredient these words name: every word must be a word of one of its names, no slip and no beginning
    /// of a word. Several that fit are none, unless one is called just so.
    fn one(&self, named: &str) -> Option<&'a Arc<Ingredient>> {
        let words = plain_words(named);
        if words.is_empty() {
            return None;
        }
        let bare = words.join(" ");
        if let Some((_, key)) = PLAIN.iter().find(|(word, _)| *word == bare) {
            return self.0.iter().find(|(own, _)| own.id == *key).map(|(own, _)| *own);
        }
        let mut sorted = words.clone();
        sorted.sort();
        // "Whole milk 3.5 %" is called whole milk too: its number says which, where there are several.
        let exact = |name: &Vec<String>| {
            let same = |mut own: Vec<String>| {
                own.sort();
                own == sorted
            };
            let number = |word: &String| word.parse::<f64>().is_ok();
            same(name.clone()) || same(name.iter().filter(|word| !number(word)).cloned().collect())
        };
        let holds = |name: &Vec<String>| words.iter().all(|word| name.contains(word));
        let only = |found: Vec<&'a Arc<Ingredient>>| match found.as_slice() {
            [one] => Some(*one),
            _ => None,
        };
        let called = |fits: &dyn Fn(&Vec<String>) -> bool| -> Vec<&'a Arc<Ingredient>> {
            self.0.iter().filter(|(_, names)| names.iter().any(fits)).map(|(own, _)| *own).collect()
        };
        let just_so = called(&exact);
        if just_so.is_empty() { only(called(&holds)) } else { only(just_so) }
    }
}

/// A number whose point or comma may part thousands: 1.500 is one and a half here and fifteen hundred there.
fn may_be_thousands(word: &str) -> bool {
    word.match_indices(['.', ',']).any(|(at, _)| {
        let after = word[at + 1..].chars().take_while(char::is_ascii_digit).count();
        after == 3 && word[..at].ends_with(|c: char| c.is_ascii_digit())
    })
}

/// "250 g dark chocolate 60 %, chopped" as a line: the longest beginning that is an amount, then the ingredient, then
/// nothing that is not understood.
pub fn line(text: &str, names: &Names) -> Option<Line> {
    crate::patience::checkpoint();
    // Two amounts are not one, and a choice is not made for the cook.
    let lower = text.to_lowercase();
    let refused = ['+', '&', '~', '*'];
    if text.contains(refused) || lower.split_whitespace().any(|word| matches!(word, "plus" | "and" | "or")) {
        return None;
    }
    let words: Vec<&str> = text.split_whitespace().collect();
    (1..=words.len().min(4)).rev().find_map(|n| {
        let (front, rest) = words.split_at(n);
        if front.iter().any(|word| may_be_thousands(word)) {
            return None;
        }
        let amount = front.join(" ");
        let unit = amount::parse(&amount).ok()?.unit?;
        let rest = rest.join(" ");
        let (named, behind) = rest.split_once([',', ';']).unwrap_or((&rest, ""));
        let (named, inside) = match named.split_once('(') {
            Some((named, inside)) => (named, inside.strip_suffix(')').unwrap_or(inside)),
            None => (named, ""),
        };
        let said = |text: &str| plain_words(text).iter().all(|word| PREPARED.contains(&word.as_str()));
        if !said(behind) || !said(inside) {
            return None;
        }
        let named = named.trim().strip_prefix("of ").unwrap_or(named.trim()).trim();
        // An egg's size is the egg's: the pantry has one.
        let sized: Vec<&str> = named.split(' ').filter(|word| !SIZES.contains(word)).collect();
        let sized = sized.join(" ");
        let egg = |many: [&str; 2], key: &'static str| many.contains(&sized.as_str()).then_some(key);
        let counted = match unit {
            // "2 egg yolks": the egg is not the unit.
            Unit::Egg => {
                egg(["yolk", "yolks"], "yolk").or(egg(["white", "whites"], "white")).or(egg(["", ""], "egg"))
            }
            Unit::Yolk => egg(["", ""], "yolk"),
            Unit::White => egg(["", ""], "white"),
            _ => {
                let ingredient = names.one(named)?;
                return Some(Line::new(ingredient.id.clone(), amount));
            }
        }?;
        let amount = match (unit, counted) {
            (Unit::Egg, "yolk") => format!("{} yolks", words[0]),
            (Unit::Egg, "white") => format!("{} whites", words[0]),
            _ => amount,
        };
        Some(Line::new(counted, amount))
    })
}

/// An egg with its size before it: "2 large eggs" is an amount with a word between.
fn without_egg_size(text: &str) -> String {
    let words: Vec<&str> = text.split_whitespace().collect();
    let is_egg = words.iter().any(|word| {
        let word = word.trim_end_matches([',', ';']).to_lowercase();
        matches!(word.as_str(), "egg" | "eggs" | "yolk" | "yolks" | "white" | "whites")
    });
    let keep = |word: &&&str| !(is_egg && SIZES.contains(&word.to_lowercase().as_str()));
    words.iter().filter(keep).copied().collect::<Vec<_>>().join(" ")
}

/// The family a list of lines is nearest to.
fn guess(lines: &[Line], shelf: &Shelf) -> Family {
    let found: Vec<&Arc<Ingredient>> = lines.iter().filter_map(|line| shelf.find(&line.ingredient)).collect();
    let any = |role: Role| found.iter().any(|own| own.is(role));
    let part = |part: Part, least: f64| found.iter().any(|own| own.composition.get(part) > least);
    let cream = found
        .iter()
        .any(|own| own.is(Role::Dairy) && own.globule > 0.5 && own.composition.get(Part::MilkFat) > 0.25);
    let butter = found.iter().any(|own| own.composition.get(Part::MilkFat) > 0.6);
    match () {
        () if part(Part::Gelatin, 0.5) && cream => Family::FruitMousse,
        () if part(Part::Gelatin, 0.5) => Family::Jelly,
        () if any(Role::Chocolate) && !part(Part::Yolk, 0.05) => Family::Ganache,
        () if part(Part::Starch, 0.5) => Family::PastryCream,
        () if butter && part(Part::EggWhite, 0.05) => Family::SwissButtercream,
        () if butter => Family::Buttercream,
        () if part(Part::Yolk, 0.05) => Family::Anglaise,
        () if cream => Family::WhippedCream,
        () => Family::Syrup,
    }
}
