//! A line of something made here, opened: its own lines stand in its place, so that each of them can be changed.

use crate::assess::document::FormulaDocument;
use crate::assess::prepared::is_changed;
use crate::assess::ready::Ready;
use crate::fault::{Fault, FaultCode};
use crate::formula::{Line, WhipStage};
use crate::ingredient::Shelf;
use crate::number::hundredths;
use crate::units::{CookTemperature, Overrun};
use serde::Serialize;
use utoipa::ToSchema;

/// A formula with a line of it opened.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Opened {
    /// Name of what was opened.
    pub name: String,
    /// What of it is no longer told by itself and was written down, or must be looked at, in words.
    pub said: Vec<String>,
    /// The formula with its lines.
    pub document: FormulaDocument,
}

/// Opens a line.
///
/// The lines weigh together what the line weighed; each keeps the heat it has been through; the air that it brought is
/// written as air of the whole.
///
/// # Errors
/// Faults of the document; a line that is not there, or that nothing is inside of.
pub fn open(document: &FormulaDocument, at: usize, kitchen: &Shelf) -> Result<Opened, Vec<Fault>> {
    let ready = Ready::of(document, kitchen)?;
    let Some(line) = ready.lines.get(at) else {
        let message = format!("there is no line {}: pick one of the formula", at + 1);
        return Err(vec![Fault::new("line", FaultCode::NoSuchLine, message)]);
    };
    let name = line.ingredient.name.clone();
    let Some(made) = &line.ingredient.made else {
        let message = format!("{name} is bought: nothing in it can be opened");
        return Err(vec![Fault::new("line", FaultCode::NothingInIt, message)]);
    };
    if line.ingredient.left.is_some() || made.lines.iter().any(|own| is_changed(&own.ingredient)) {
        let message = format!(
            "something is boiled or strained off {name}: change it on its own sheet, where that is told"
        );
        return Err(vec![Fault::new("line", FaultCode::NothingInIt, message)]);
    }
    let mut opened = document.clone();
    let mut said = Vec::new();
    // Shares of a line that goes away are shares of nothing.
    if opened.percent_of.is_some() || opened.lines.iter().any(|own| own.amount.contains('%')) {
        opened.percent_of = None;
        for (own, weighed) in opened.lines.iter_mut().zip(&ready.lines) {
            if own.amount.contains('%') {
                own.amount = format!("{} g", hundredths(weighed.mass.grams()));
            }
        }
        said.push("Per cent became grams.".to_owned());
    }
    let key = &line.ingredient.id;
    let rules = opened.rules.ratios.len() + opened.rules.shares.len();
    opened.rules.ratios.retain(|ratio| !ratio.contains(key));
    opened.rules.shares.retain(|share| share.of != *key);
    if rules != opened.rules.ratios.len() + opened.rules.shares.len() {
        said.push(format!("What was asked of {name} as a whole is asked no more."));
    }
    let mass_g = hundredths(line.mass.grams());
    let mut grams: Vec<f64> = made.lines.iter().map(|own| hundredths(own.share * mass_g)).collect();
    let over = grams.iter().sum::<f64>() - mass_g;
    if let Some(largest) = grams.iter_mut().max_by(|a, b| a.total_cmp(b)) {
        *largest = hundredths(*largest - over);
    }
    let warmed = document.lines[at].cook_c.map(CookTemperature::celsius);
    let inner = made.lines.iter().zip(&grams).map(|(own, grams)| {
        let cook_c = crate::formula::line::warmest(own.cook_c, warmed);
        Line {
            cook_c: cook_c.map(CookTemperature::from_celsius),
            had_set: document.lines[at].had_set && own.ingredient.made.is_some(),
            ..Line::new(&own.ingredient.id, format!("{grams} g"))
        }
    });
    let inner: Vec<Line> = inner.collect();
    opened.lines.splice(at..=at, inner);
    if made.overrun > 0.0 {
        let air = document.air(&ready.lines);
        let stage = WhipStage::nearest(air.whip);
        opened.process.overrun_percent = Some(Overrun::from_percent(hundredths(air.overrun_percent)));
        opened.process.whip = Some(stage);
        said.push(format!(
            "The air it brought is written as air of the whole: {} %, whipped {}.",
            air.overrun_percent.round(),
            stage.word()
        ));
    }
    if document.lines[at].had_set {
        said.push("That it had set is no longer counted.".to_owned());
    }
    Ok(Opened { name, said, document: opened })
}
