//! Formulas, cakes and orders as Schema.org Recipe in JSON-LD. What is written carries the whole document as an
//! `encoding`, so that it comes back as it was; other recipes are read by [`crate::exchange::read`].

use crate::assess::FormulaDocument;
use crate::assess::Ready;
use crate::exchange::bring;
use crate::fault::Fault;
use crate::formula::to_make::{Takes, to_make};
use crate::ingredient::Shelf;
use crate::method::sheet::{MethodSheet, sheet};
use crate::number::weighed_g;
use crate::order::batch::{Batch, batches};
use crate::order::document::{OrderDocument, OrderedCake};
use crate::stack::answer::stack_of;
use crate::stack::part::PartKind;
use crate::stack::place_answer::limit_grams;
use crate::stack::{Known, Makings, StackDocument};
use serde_json::{Value, json};

/// Context of every document written.
const CONTEXT: &str = "https://schema.org";

/// The media type of one of our documents: `application/vnd.bright-spoon.formula+json`.
pub fn media_type(format: &str) -> String {
    format!("application/vnd.{}+json", format.replace('/', "."))
}

/// The whole document, inside what describes it.
fn encoding(format: &str, document: &Value) -> Value {
    json!({
        "@type": "MediaObject",
        "encodingFormat": media_type(format),
        "text": document.to_string(),
    })
}

fn name_or(name: &str, other: &str) -> String {
    if name.trim().is_empty() { other.to_owned() } else { name.to_owned() }
}

/// Steps of the school a formula is made by.
fn steps(document: &FormulaDocument, shelf: &Shelf) -> Vec<Value> {
    let Ok(sheets) = sheet(document, shelf, &[]) else { return Vec::new() };
    let chosen: Option<&MethodSheet> = sheets.iter().find(|own| own.chosen).or(sheets.first());
    chosen
        .map(|own| own.steps.as_slice())
        .unwrap_or_default()
        .iter()
        .map(|step| {
            let until = if step.until.is_empty() { String::new() } else { format!(" {}", step.until) };
            json!({ "@type": "HowToStep", "text": format!("{}{until}", step.what) })
        })
        .collect()
}

/// What is made before, with what is weighed for it, and what is boiled down.
fn before(document: &FormulaDocument, ready: &Ready) -> Vec<Value> {
    let takes = [Takes::of(document.called(), &ready.lines)];
    let made = to_make(&takes, &[]).into_iter().map(|own| {
        let lines = own.lines.iter().map(|line| format!("{} g {}", limit_grams(line.mass_g), line.name));
        format!("{} Weigh for it: {}.", own.sentence, lines.collect::<Vec<_>>().join(", "))
    });
    let strained = ready.strained.iter().map(|own| format!("{}.", own.sentence));
    let boiled = strained.chain(ready.boiled.iter().map(|own| format!("{}.", own.sentence)));
    made.chain(boiled).map(|text| json!({ "@type": "HowToStep", "text": text })).collect()
}

/// "250 g Dark chocolate 60 %", one for each line of a batch.
fn ingredients(batch: &Batch) -> Vec<String> {
    batch.lines.iter().map(|line| format!("{} g {}", limit_grams(line.mass_g), line.name)).collect()
}

/// A formula as a recipe.
///
/// # Errors
/// Faults of the formula.
pub fn formula_recipe(document: &FormulaDocument, known: &Known) -> Result<Value, Vec<Fault>> {
    let shelf = known.shelf;
    let ready = Ready::of(document, shelf)?;
    let (lines, batch_g) = (&ready.lines, ready.batch_g());
    let written: Vec<String> = document
        .lines
        .iter()
        .zip(lines)
        .map(|(line, weighed)| {
            let grams = weighed_g(weighed.mass.grams());
            let as_written = line.amount.trim();
            let in_grams = format!("{grams} g");
            if as_written == in_grams || weighed.assumed.is_none() {
                format!("{} g {}", limit_grams(grams), weighed.ingredient.name)
            } else {
                format!("{as_written} {} ({} g)", weighed.ingredient.name, limit_grams(grams))
            }
        })
        .collect();
    let value = serde_json::to_value(bring::formula(document, known)).unwrap_or(Value::Null);
    Ok(json!({
        "@context": CONTEXT,
        "@type": "Recipe",
        "name": name_or(&document.name, document.family.word()),
        "description": document.note,
        "recipeCategory": document.family.word(),
        "keywords": document.work.job.verb(),
        "recipeYield": format!("{} g", limit_grams(batch_g)),
        "recipeIngredient": written,
        "recipeInstructions": before(document, &ready).into_iter().chain(steps(document, shelf)).collect::<Vec<_>>(),
        "encoding": encoding(crate::assess::document::FORMAT, &value),
    }))
}

/// A cake as a recipe: one list of ingredients, a section for each component, and one for the building.
pub fn stack_recipe(document: &StackDocument, known: &Known, room_c: f64) -> Value {
    recipe_and_missing(document, known, room_c).0
}

/// The same, with what is not known of it.
fn recipe_and_missing(document: &StackDocument, known: &Known, room_c: f64) -> (Value, Vec<String>) {
    let whole = bring::stack(document, known);
    let makings = Makings::of(&whole, known);
    let answer = stack_of(&whole, &makings, room_c);
    let order = OrderDocument {
        cakes: vec![OrderedCake { stack: whole.clone(), count: 1 }],
        ..OrderDocument::empty(room_c)
    };
    let makings = [makings];
    let all = batches(&order, std::slice::from_ref(&answer), &makings, &|_| None);
    let mut sections: Vec<Value> = all
        .iter()
        .map(|batch| {
            let own = match batch.kind {
                PartKind::Component => {
                    makings[0].cream(Some(&batch.key)).map(|cream| steps(&cream.document, known.shelf))
                }
                PartKind::Bake => None,
            };
            let mut own = own.unwrap_or_default();
            let first = format!("Weigh for {}: {}.", batch.name, ingredients(batch).join(", "));
            own.insert(0, json!({ "@type": "HowToStep", "text": first }));
            json!({ "@type": "HowToSection", "name": batch.name, "itemListElement": own })
        })
        .collect();
    let building: Vec<Value> = answer
        .places
        .iter()
        .map(|place| {
            let of = place.name.as_deref().unwrap_or("not chosen yet");
            json!({ "@type": "HowToStep", "text": format!("Tier {}: {}, {of}.", place.tier + 1, place.words) })
        })
        .collect();
    sections.push(json!({ "@type": "HowToSection", "name": "Building", "itemListElement": building }));
    let value = serde_json::to_value(&whole).unwrap_or(Value::Null);
    let recipe = json!({
        "@context": CONTEXT,
        "@type": "Recipe",
        "name": name_or(&document.name, "Cake"),
        "description": described(&document.note, &answer.incomplete),
        "recipeCategory": "cake",
        "recipeYield": format!("{} portions", answer.portions),
        "recipeIngredient": all.iter().flat_map(ingredients).collect::<Vec<String>>(),
        "recipeInstructions": sections,
        "encoding": encoding(crate::stack::document::FORMAT, &value),
    });
    (recipe, answer.incomplete)
}

/// A note, after what is not known.
fn described(note: &str, incomplete: &[String]) -> String {
    if incomplete.is_empty() {
        return note.to_owned();
    }
    format!("INCOMPLETE: {} {note}", incomplete.join(" ")).trim().to_owned()
}

/// An order as a list of recipes.
pub fn order_recipe(document: &OrderDocument, known: &Known) -> Value {
    let whole = bring::order(document, known);
    let room_c = document.room_temperature_c.celsius();
    let mut missing = Vec::new();
    let items: Vec<Value> = whole
        .cakes
        .iter()
        .enumerate()
        .map(|(at, cake)| {
            let (mut recipe, own) = recipe_and_missing(&cake.stack, known, room_c);
            let name = name_or(&cake.stack.name, "cake");
            missing.extend(own.iter().map(|words| format!("{name}: {words}")));
            // The order brings it once, whole.
            if let Some(fields) = recipe.as_object_mut() {
                fields.remove("encoding");
                fields.remove("@context");
            }
            json!({ "@type": "ListItem", "position": at + 1, "name": format!("{} of {name}", cake.count), "item": recipe })
        })
        .collect();
    let value = serde_json::to_value(&whole).unwrap_or(Value::Null);
    json!({
        "@context": CONTEXT,
        "@type": "ItemList",
        "name": name_or(&document.name, "Order"),
        "description": described(&document.note, &missing),
        "itemListElement": items,
        "encoding": encoding(crate::order::document::FORMAT, &value),
    })
}
