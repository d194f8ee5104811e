//! What becomes of a batch when it is made: who gets how much of what is really there, and what its tape says.

use crate::assess::Ready;
use crate::batch::contents::what_is_in;
use crate::batch::document::BatchDocument;
use crate::batch::event::BatchEntry;
use crate::batch::fold::fold;
use crate::fault::Fault;
use crate::formula::keeping::cold_days;
use crate::formula::totals;
use crate::ingredient::Shelf;
use crate::number::{hundredths, weighed_g};
use crate::order::label::{TapeLabel, cream_says};
use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

/// What one of those a batch is made for gets of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchShare {
    /// The order, and what of it.
    pub name: String,
    /// What was worked out for it, g.
    pub wanted_g: f64,
    /// What it gets, g: what it wants, or less where there is less.
    pub gets_g: f64,
    /// For how many alike.
    pub count: u32,
    /// What each of those gets, g.
    pub each_g: f64,
}

/// Who gets how much of what is really there: each what it wants, and where there is not enough each the same part of that.
pub fn shares(batch: &BatchDocument, there_g: f64) -> Vec<BatchShare> {
    let wanted: Vec<(&str, f64, u32)> = batch
        .made_for
        .iter()
        .filter_map(|own| Some((own.name.as_str(), own.grams?, own.count.unwrap_or(1).max(1))))
        .collect();
    let all: f64 = wanted.iter().map(|own| own.1).sum();
    let part = if all > there_g && all > 0.0 { there_g / all } else { 1.0 };
    let one = |(name, grams, count): (&str, f64, u32)| BatchShare {
        name: name.to_owned(),
        wanted_g: hundredths(grams),
        gets_g: hundredths(part * grams),
        count,
        each_g: hundredths(part * grams / f64::from(count)),
    };
    wanted.into_iter().map(one).collect()
}

/// The tape of a batch made on a day: what is really in it, what it weighs, until when it keeps. What was added and left out counts.
///
/// # Errors
/// Faults of what is in the bowl in this kitchen.
pub fn tape(
    batch: &BatchDocument,
    entries: &[BatchEntry],
    shelf: &Shelf,
    made_on: Date,
) -> Result<TapeLabel, Vec<Fault>> {
    let state = fold(batch, entries);
    let document = what_is_in(batch, &state, shelf);
    let Ready { lines, options, .. } = Ready::of(&document, shelf)?;
    let (family, work) = (document.family, &document.work);
    let said = cream_says(&lines, family, &options, work.temperature_c.celsius(), document.history());
    let weighed = state.yielded_g.unwrap_or_else(|| state.in_g());
    let for_whom: Vec<&str> = batch.made_for.iter().map(|own| own.name.as_str()).collect();
    let mut incomplete = Vec::new();
    for put in state.added.iter().filter(|put| shelf.find(&put.ingredient).is_none()) {
        incomplete.push(format!(
            "{} went in and is not in the pantry: its allergens are not known.",
            put.ingredient
        ));
    }
    let keeps_days = said.keeps_days(cold_days(family, &lines));
    Ok(TapeLabel {
        what: batch.name.clone(),
        amount: format!("{} g", weighed_g(weighed)),
        order: for_whom.join(", "),
        made_on: Some(made_on),
        use_by: made_on.checked_add(keeps_days.days()).ok(),
        keeps_days,
        keep_at: said.keep_at,
        allergens: totals(&lines).allergens,
        notes: said.notes,
        incomplete,
        copies: 1,
    })
}
