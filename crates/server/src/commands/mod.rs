//! The command line's questions: the same answers as the interface, from files and words.

pub mod copies;
pub mod day;

use crate::body::parse;
use crate::convert::weigh_amount;
use crate::error::ApiError;
use crate::pantry_view::{IngredientEntry, entry};
use crate::routes::clock::ClockAsk;
use crate::routes::families::{FamilyEntry, families};
use pastry::assess::{FormulaDocument, assess, compare};
use pastry::balance::ways;
use pastry::batch::{BatchDocument, check, look};
use pastry::clock::{BoilDocument, boil};
use pastry::exchange::lists::{ListKind, to_csv};
use pastry::exchange::read::{ReadFile, read as read_any};
use pastry::exchange::recipe::{formula_recipe, order_recipe, stack_recipe};
use pastry::fault::Fault;
use pastry::ingredient::search::search;
use pastry::ingredient::{Ingredient, Shelf, catalogue};
use pastry::method::sheet;
use pastry::order::{OrderDocument, order};
use pastry::rescue::{RescueAsk, Sign, rescue};
use pastry::scale::{ScaleAsk, Target, Whole, scale};
use pastry::stack::{Known, StackDocument, stack};
use pastry::swap::{SwapAsk, swap};
use pastry::units::kitchen::Measures;
use serde::de::DeserializeOwned;
use std::collections::HashMap;
use std::io::Read;
use std::path::{Path, PathBuf};

/// Largest file read, bytes.
const LARGEST_FILE: u64 = 4 * 1024 * 1024;

/// A formula, or a question with one in it, from a file; `-` is standard input.
fn read<T: DeserializeOwned + utoipa::ToSchema>(file: &Path) -> Result<T, String> {
    let bytes = bytes_of(file)?;
    parse::<T>(&bytes).map_err(|error| refused(file, error))
}

/// Any JSON of a file.
fn read_any_json(file: &Path) -> Result<serde_json::Value, String> {
    let bytes = bytes_of(file)?;
    crate::body::read(&bytes).map_err(|error| refused(file, error))
}

fn refused(file: &Path, error: ApiError) -> String {
    let shown = file.display();
    match error {
        ApiError::Faults(faults) => lines(&shown.to_string(), &faults),
        other => format!("{shown}: {other}"),
    }
}

fn bytes_of(file: &Path) -> Result<Vec<u8>, String> {
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
    Ok(bytes)
}

/// The text of a file.
///
/// # Errors
/// In words: it cannot be read, or is no text.
pub fn text_of(file: &Path) -> Result<String, String> {
    String::from_utf8(bytes_of(file)?).map_err(|_| format!("{}: this is no text", file.display()))
}

/// One line per fault, each with its field and what to do.
fn lines(shown: &str, faults: &[Fault]) -> String {
    let lines: Vec<String> = faults
        .iter()
        .map(|fault| match fault.field.as_str() {
            "" => format!("{shown}: {}", fault.message),
            field => format!("{shown}: {field}: {}", fault.message),
        })
        .collect();
    lines.join("\n")
}

fn written(answer: &impl serde::Serialize) -> String {
    serde_json::to_string(answer).expect("an answer serialises")
}

/// Reads a formula and answers with the JSON the interface would give.
///
/// # Errors
/// In words, one line per fault.
pub fn predict(file: &Path) -> Result<String, String> {
    let document: FormulaDocument = read(file)?;
    assess(&document)
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula and answers with the ways there that the interface would give an empty kitchen.
///
/// # Errors
/// In words, one line per fault.
pub fn balance(file: &Path) -> Result<String, String> {
    let document: FormulaDocument = read(file)?;
    let price = |ingredient: &Ingredient| {
        ingredient.price_per_kg(&|bought| bought.pack.map(|pack| pack.price_per_kg()))
    };
    ways(&document, &Shelf::catalogue(), &price)
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a batch with its events and answers with how it looks then.
///
/// # Errors
/// In words, one line per fault.
pub fn batch_file(file: &Path) -> Result<String, String> {
    let mut batch: BatchDocument = read(file)?;
    let events = std::mem::take(&mut batch.events);
    let shelf = Shelf::catalogue();
    let said = |faults: Vec<Fault>| lines(&file.display().to_string(), &faults);
    let mut faults = batch.faults(&shelf);
    if faults.is_empty() {
        faults = check::refused(&batch, &[], &events, &shelf);
    }
    if !faults.is_empty() {
        return Err(said(faults));
    }
    look(&batch, &events, &shelf).map(|view| written(&view)).map_err(said)
}

/// Reads a question for a swap and answers as the interface would an empty kitchen.
///
/// # Errors
/// In words, one line per fault.
pub fn swap_file(file: &Path) -> Result<String, String> {
    let ask: SwapAsk = read(file)?;
    let price = |ingredient: &Ingredient| {
        ingredient.price_per_kg(&|bought| bought.pack.map(|pack| pack.price_per_kg()))
    };
    swap(&ask, &Shelf::catalogue(), &price)
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula and answers with remedies for what is seen in the bowl.
///
/// # Errors
/// In words, one line per fault; a sign nobody knows.
pub fn rescue_bowl(
    file: &Path,
    sign: &str,
    bowl_c: Option<f64>,
    bowl_g: Option<f64>,
) -> Result<String, String> {
    let sign: Sign = serde_json::from_value(sign.into()).map_err(|_| {
        let known: Vec<String> = Sign::ALL.iter().filter_map(json_word).collect();
        format!("rescue: nobody sees “{sign}” here: write one of {}", known.join(", "))
    })?;
    let document: FormulaDocument = read(file)?;
    let ask = RescueAsk { document, sign, bowl_c, bowl_g, not_at_hand: Vec::new() };
    rescue(&ask, &Shelf::catalogue())
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

fn json_word(value: &impl serde::Serialize) -> Option<String> {
    serde_json::to_value(value).ok()?.as_str().map(str::to_owned)
}

/// Reads a formula and answers with it at another size.
///
/// # Errors
/// In words, one line per fault; no size.
pub fn scale_to(file: &Path, target: Option<Target>, loss_percent: f64) -> Result<String, String> {
    let target = target.ok_or_else(|| {
        "scale: say to what size: --grams 2000, --times 3, or --pieces 24 --each 85".to_owned()
    })?;
    let document: FormulaDocument = read(file)?;
    let ask = ScaleAsk { document, target, loss_percent, whole: Whole::Nothing, whole_line: None };
    scale(&ask, &Shelf::catalogue(), &|ingredient| ingredient.pack.map(|pack| pack.pack_g))
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula in its vessel, or a bare body, and answers when it is where it is asked.
///
/// # Errors
/// In words, one line per fault.
pub fn cool_file(file: &Path) -> Result<String, String> {
    let bytes = bytes_of(file)?;
    let ask = ClockAsk::parse(&bytes).map_err(|error| refused(file, error))?;
    ask.answer(&Shelf::catalogue())
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula over a ring and answers when to stop.
///
/// # Errors
/// In words, one line per fault.
pub fn boil_file(file: &Path) -> Result<String, String> {
    let document: BoilDocument = read(file)?;
    boil(&document, &Shelf::catalogue())
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula and answers with the schools it can be made by.
///
/// # Errors
/// In words, one line per fault.
pub fn methods(file: &Path) -> Result<String, String> {
    let document: FormulaDocument = read(file)?;
    sheet(&document, &Shelf::catalogue(), &[])
        .map(|answer| written(&answer))
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// What the cakes of files are made of: only what they bring, from the catalogue.
fn with_nothing<T>(ask: impl FnOnce(&Known) -> T) -> T {
    let (formulas, shelf) = (HashMap::new(), Shelf::catalogue());
    ask(&Known { formulas: &formulas, shelf: &shelf })
}

/// An answer, and what is not known of it.
pub struct Told {
    /// What is printed.
    pub answer: String,
    /// What leaves it incomplete, in words.
    pub incomplete: Vec<String>,
}

/// Reads a cake that brings its formulas and works it out for a room.
///
/// # Errors
/// In words, one line per fault.
pub fn stack_file(file: &Path, room_c: f64) -> Result<Told, String> {
    let document: StackDocument = read(file)?;
    with_nothing(|known| stack(&document, known, room_c))
        .map(|answer| Told { answer: written(&answer), incomplete: answer.incomplete })
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads an order that brings its formulas and works it out; with a list, only that, as CSV.
///
/// # Errors
/// In words, one line per fault; a list nobody knows.
pub fn order_file(file: &Path, list: Option<&str>) -> Result<Told, String> {
    let kind = list
        .map(|word| {
            serde_json::from_value::<ListKind>(word.into()).map_err(|_| {
                format!("order: there is no list “{word}”: write shopping, weighing, bill or labels")
            })
        })
        .transpose()?;
    let document: OrderDocument = read(file)?;
    let pack = |ingredient: &Ingredient| ingredient.pack;
    with_nothing(|known| order(&document, known, &pack, &|_| Vec::new()))
        .map(|answer| Told {
            answer: match kind {
                Some(kind) => to_csv(&answer, kind).trim_end().to_owned(),
                None => written(&answer),
            },
            incomplete: answer.incomplete,
        })
        .map_err(|faults| lines(&file.display().to_string(), &faults))
}

/// Reads a formula, a cake or an order of ours, or a Schema.org Recipe of anybody's, and prints it as a recipe.
///
/// # Errors
/// In words: what the file is not.
pub fn recipe_file(file: &Path) -> Result<Told, String> {
    let value: serde_json::Value = read_any_json(file)?;
    let shown = file.display();
    let wrong = crate::routes::recipes::ours_faults(&value.to_string());
    if !wrong.is_empty() {
        return Err(lines(&shown.to_string(), &wrong));
    }
    let shelf = Shelf::catalogue();
    let found = read_any(&value.to_string(), &shelf).map_err(|words| format!("{shown}: {words}"))?;
    let open = |answer: Result<Vec<String>, Vec<Fault>>| answer.unwrap_or_default();
    let (recipe, incomplete) = match &found {
        ReadFile::Formula { document } => {
            let recipe = with_nothing(|known| formula_recipe(document, known))
                .map_err(|faults| lines(&shown.to_string(), &faults))?;
            (recipe, Vec::new())
        }
        ReadFile::Recipe { document, not_understood, .. } => {
            let recipe = with_nothing(|known| formula_recipe(document, known))
                .map_err(|faults| lines(&shown.to_string(), &faults))?;
            let said =
                not_understood.iter().map(|text| format!("“{text}” was not understood and is left out"));
            (recipe, said.collect())
        }
        ReadFile::Stack { document } => with_nothing(|known| {
            let answer = stack(document, known, 21.0).map(|answer| answer.incomplete);
            (stack_recipe(document, known, 21.0), open(answer))
        }),
        ReadFile::Order { document } => with_nothing(|known| {
            let answer = order(document, known, &|ingredient| ingredient.pack, &|_| Vec::new());
            (order_recipe(document, known), open(answer.map(|answer| answer.incomplete)))
        }),
    };
    let answer = serde_json::to_string_pretty(&recipe).map_err(|error| error.to_string())?;
    Ok(Told { answer, incomplete })
}

/// Reads two or three formulas and sets them side by side.
///
/// # Errors
/// In words, one line per fault.
pub fn compare_files(files: &[PathBuf]) -> Result<String, String> {
    let documents = files.iter().map(|file| read(file)).collect::<Result<Vec<FormulaDocument>, _>>()?;
    compare(&documents, &Shelf::catalogue()).map(|answer| written(&answer)).map_err(|faults| {
        let named: Vec<Fault> = faults
            .into_iter()
            .map(|mut fault| {
                // "documents.1.lines.0.amount" is a field of the second file.
                for (at, file) in files.iter().enumerate() {
                    if let Some(rest) = fault.field.strip_prefix(&format!("documents.{at}.")) {
                        fault.field = format!("{}: {rest}", file.display());
                        break;
                    }
                }
                fault
            })
            .collect();
        lines("compare", &named)
    })
}

/// An amount of an ingredient of the catalogue, weighed, as JSON.
///
/// # Errors
/// In words.
pub fn convert_words(amount: &str, ingredient: &str, measures: Measures) -> Result<String, String> {
    weigh_amount(amount, ingredient, measures).map(|answer| written(&answer)).map_err(|error| match error {
        ApiError::Faults(faults) => lines("convert", &faults),
        other => format!("convert: {other}; bright-spoon ingredients --search WORD finds its key"),
    })
}

/// All families as JSON, or the one with this key.
///
/// # Errors
/// In words, when no family has the key.
pub fn list_families(key: Option<&str>) -> Result<String, String> {
    let all = families();
    let Some(key) = key else { return Ok(written(&all)) };
    let word = |family: &FamilyEntry| serde_json::to_value(family.family).unwrap_or_default();
    all.iter().find(|family| word(family) == key).map(written).ok_or_else(|| {
        let known: Vec<String> =
            all.iter().filter_map(|family| word(family).as_str().map(str::to_owned)).collect();
        format!("families: there is no family {key}: write one of {}", known.join(", "))
    })
}

/// Ingredients of the catalogue as JSON, best match first.
pub fn list_ingredients(sought: &str) -> String {
    let found: Vec<IngredientEntry> =
        search(catalogue().iter(), sought).into_iter().map(|found| entry(found, None, 0)).collect();
    written(&found)
}
