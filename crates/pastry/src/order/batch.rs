//! What must be made: each component and bake over all cakes of an order, weighed out.

use crate::formula::WeighedLine;
use crate::formula::kitchen_words::in_pieces;
use crate::ingredient::Ingredient;
use crate::number::{batch_g, hundredths, weighed_g};
use crate::order::document::OrderDocument;
use crate::stack::part::{EqualShare, PartAnswer, PartKind};
use crate::stack::{Makings, StackAnswer};
use serde::Serialize;
use utoipa::ToSchema;

/// A line to be weighed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchLine {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// As a scale shows it, g.
    pub mass_g: f64,
    /// The same in eggs, leaves, sticks; none when it is not counted.
    pub in_pieces: Option<String>,
}

/// One batch: all an order takes of a component or bake.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Batch {
    /// A cream or a bake.
    pub kind: PartKind,
    /// Its key.
    pub key: String,
    /// Its name.
    pub name: String,
    /// The colour it is drawn in.
    pub tint: String,
    /// On the cakes, g.
    pub grams: f64,
    /// To be made, g: the sum of its lines.
    pub to_make_g: f64,
    /// How many times the saved formula.
    pub times: f64,
    /// What is weighed; nothing for what is bought.
    pub lines: Vec<BatchLine>,
    /// How it is shared out, over all cakes.
    pub shares: Vec<EqualShare>,
    /// Trimmed off, g.
    pub trimmed_g: f64,
    /// What runs off a glaze and can be used again, g.
    pub runs_off_g: f64,
    /// Its allergens.
    pub allergens: Vec<String>,
    /// What it costs, in the kitchen's currency; none where a price is missing.
    pub cost: Option<f64>,
}

/// All batches of an order: bakes first, then components, as they are met.
pub fn batches(
    order: &OrderDocument,
    answers: &[StackAnswer],
    makings: &[Makings],
    price: &dyn Fn(&Ingredient) -> Option<f64>,
) -> Vec<Batch> {
    let mut batches: Vec<Batch> = Vec::new();
    let mut of: Vec<&[WeighedLine]> = Vec::new();
    for ((cake, answer), makings) in order.cakes.iter().zip(answers).zip(makings) {
        let count = f64::from(cake.count);
        for part in &answer.parts {
            // Two cakes may each bring a bake of one key that is not the same.
            let lines = lines_of(makings, part.kind, &part.key);
            let known = batches.iter().zip(&of).position(|(batch, own)| {
                batch.kind == part.kind
                    && batch.key == part.key
                    && batch.name == part.name
                    && same(own, lines)
            });
            let index = known.unwrap_or_else(|| {
                batches.push(begun(part, lines));
                of.push(lines);
                batches.len() - 1
            });
            let batch = &mut batches[index];
            batch.grams = hundredths(batch.grams + count * part.grams);
            batch.to_make_g += count * part.to_make_g;
            batch.trimmed_g = hundredths(batch.trimmed_g + count * part.trimmed_g);
            batch.runs_off_g = hundredths(batch.runs_off_g + count * part.runs_off_g);
            for share in &part.shares {
                add_share(&mut batch.shares, share, cake.count);
            }
        }
    }
    for (batch, lines) in batches.iter_mut().zip(of) {
        weigh_out(batch, lines, price);
    }
    batches.sort_by_key(|batch| batch.kind);
    batches
}

fn begun(part: &PartAnswer, lines: &[WeighedLine]) -> Batch {
    Batch {
        kind: part.kind,
        key: part.key.clone(),
        name: part.name.clone(),
        tint: part.tint.clone(),
        grams: 0.0,
        to_make_g: 0.0,
        times: 0.0,
        lines: Vec::new(),
        shares: Vec::new(),
        trimmed_g: 0.0,
        runs_off_g: 0.0,
        allergens: allergens_of(lines),
        cost: None,
    }
}

fn lines_of<'a>(makings: &'a Makings, kind: PartKind, key: &str) -> &'a [WeighedLine] {
    match kind {
        PartKind::Bake => makings.baked(Some(key)).map(|baked| baked.lines.as_slice()),
        PartKind::Component => makings.cream(Some(key)).map(|cream| cream.lines.as_slice()),
    }
    .unwrap_or_default()
}

/// Whether two lists of lines weigh out the same.
fn same(one: &[WeighedLine], two: &[WeighedLine]) -> bool {
    one.len() == two.len()
        && one.iter().zip(two).all(|(a, b)| {
            a.ingredient.id == b.ingredient.id && (a.mass.grams() - b.mass.grams()).abs() < 1e-6
        })
}

fn allergens_of(lines: &[WeighedLine]) -> Vec<String> {
    let mut allergens: Vec<String> =
        lines.iter().flat_map(|line| line.ingredient.allergens.clone()).collect();
    allergens.sort();
    allergens.dedup();
    allergens
}

fn add_share(shares: &mut Vec<EqualShare>, share: &EqualShare, count: u32) {
    let found =
        shares.iter_mut().find(|own| own.what == share.what && (own.each_g - share.each_g).abs() < 0.005);
    let many = share.count * count;
    match found {
        Some(own) => own.count += many,
        None => shares.push(EqualShare { count: many, ..share.clone() }),
    }
    for own in shares {
        own.say();
    }
}

/// The lines of the formula at the size of the batch, each as a scale shows it; the batch is their sum.
fn weigh_out(batch: &mut Batch, lines: &[WeighedLine], price: &dyn Fn(&Ingredient) -> Option<f64>) {
    let formula_g: f64 = lines.iter().map(|line| line.mass.grams()).sum();
    if formula_g <= 0.0 {
        batch.to_make_g = hundredths(batch.to_make_g);
        return;
    }
    batch.times = batch.to_make_g / formula_g;
    let mut cost = Some(0.0);
    // The formula as it is saved is weighed as it is written.
    let round = if (batch.times - 1.0).abs() < 1e-9 { weighed_g } else { batch_g };
    for line in lines {
        let mass_g = round(batch.times * line.mass.grams());
        cost = cost.zip(price(&line.ingredient)).map(|(sum, per_kg)| sum + 1e-3 * per_kg * mass_g);
        // Two lines of one ingredient stay two: they go in at different times.
        batch.lines.push(BatchLine {
            ingredient: line.ingredient.id.clone(),
            name: line.ingredient.name.clone(),
            mass_g,
            in_pieces: in_pieces(mass_g, &line.ingredient),
        });
    }
    batch.to_make_g = hundredths(batch.lines.iter().map(|line| line.mass_g).sum());
    batch.cost = cost;
}
