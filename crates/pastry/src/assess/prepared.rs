//! Lines in grams with what is strained and boiled off them: everything that works a formula out weighs it here.

use crate::assess::boiled::{BoiledDown, boil_all, boil_lines};
use crate::assess::document::FormulaDocument;
use crate::assess::strained::{StrainedOff, lift_out, strain, strain_lines};
use crate::fault::Fault;
use crate::formula::strained::{Kept, Parting, Strained};
use crate::formula::{BoilTo, Line, Mixture, WeighedLine};
use crate::ingredient::{Ingredient, Shelf};
use crate::number::hundredths;
use crate::units::CookTemperature;

/// Lines, and what was taken off them.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Weighed {
    /// The lines in grams, as they are weighed.
    pub lines: Vec<WeighedLine>,
    /// What is boiled down.
    pub boiled: Vec<BoiledDown>,
    /// What is strained off, and taken out again.
    pub strained: Vec<StrainedOff>,
    /// The same lines as the other part of what all of it was strained into; none when it was not.
    pub beside: Option<Vec<WeighedLine>>,
}

/// What is done to each line before it goes in: strained, then boiled down; then what is only steeped is taken out.
pub fn prepare_lines(weighed: &mut Weighed, written: &[Line]) -> Vec<Fault> {
    let (strained, mut faults) = strain_lines(&mut weighed.lines, written);
    let (boiled, more) = boil_lines(&mut weighed.lines, written);
    let (lifted, last) = lift_out(&mut weighed.lines, written);
    weighed.strained.extend(strained);
    weighed.strained.extend(lifted);
    weighed.boiled.extend(boiled);
    faults.extend(more);
    faults.extend(last);
    faults
}

/// The lines of a formula in grams, with what is taken off them: off each, then off all of it, which is boiled down first
/// and strained then.
///
/// # Errors
/// Faults of the lines; that something cannot be boiled or strained so far, at its field.
pub fn weighed(document: &FormulaDocument, shelf: &Shelf) -> Result<Weighed, Vec<Fault>> {
    let mut weighed = Weighed { lines: document.formula().weigh(shelf)?, ..Weighed::default() };
    let mut faults = prepare_lines(&mut weighed, &document.lines);
    let name = document.called();
    if let Some(to) = document.process.boiled {
        let whole = document.process.cook_c.map(CookTemperature::celsius);
        for line in &mut weighed.lines {
            line.cook_c = line.reached(whole);
        }
        match boil_all(&mut weighed.lines, to, name) {
            Ok(own) => weighed.boiled.push(own),
            Err(fault) => faults.push(fault),
        }
    }
    if let Some(strained) = document.process.strained {
        let before = weighed.lines.clone();
        match strain(&mut weighed.lines, strained, ["process.strained", name]) {
            Ok((parting, own)) => {
                weighed.strained.push(own);
                weighed.beside = Some(other_side(before, parting));
            }
            Err(fault) => faults.push(fault),
        }
    }
    if faults.is_empty() { Ok(weighed) } else { Err(faults) }
}

fn other_side(mut lines: Vec<WeighedLine>, parting: Parting) -> Vec<WeighedLine> {
    let other = parting.other();
    for line in &mut lines {
        line.ingredient = other.kept_of(&line.ingredient);
    }
    lines
}

/// A formula whose boiling and straining are done, as it stands in the bowl: what went off each line stays off it, and what
/// comes in now is neither boiled nor strained with it.
///
/// # Arguments
/// * `lines`: its lines as they were prepared.
pub fn settled(document: &FormulaDocument, lines: &[WeighedLine]) -> FormulaDocument {
    /// Less than this is left of water alone: it is written as the drop it is.
    const LEAST: f64 = 0.05;
    let mut settled = document.clone();
    let boiled = settled.process.boiled.take().is_some();
    let strained = settled.process.strained.take();
    let lifted = settled.lines.iter().any(|own| own.steeped.is_some());
    for (own, line) in settled.lines.iter_mut().zip(lines) {
        let left: f64 = line.ingredient.leaves(1.0).map(|(_, share)| share).sum();
        // By itself each line gives as much of each constituent as it did with the rest.
        let by_itself = |strained: Strained| Strained {
            left: Kept::Share { of_weight: (left + line.ingredient.steam).min(1.0) },
            ..strained
        };
        let twice = own.strained.is_some() && (strained.is_some() || lifted);
        // Of a line that only lent liquid to what was steeped as much of everything went: it is a smaller line, boiled as far.
        let lent = lifted && own.steeped.is_none() && own.strained.is_none() && strained.is_none();
        own.strained = own.strained.or(strained).map(by_itself);
        own.steeped = None;
        let before_boil = left + line.ingredient.steam;
        let of_weight = left / before_boil.max(1e-9);
        own.boiled = (LEAST..1.0 - 1e-9).contains(&of_weight).then_some(BoilTo::Share { of_weight });
        // What is too dry to be strained by itself is written as what is left of it.
        let not_by_itself = own.strained.is_some_and(|own| {
            let bare = Ingredient { left: None, steam: 0.0, ..line.ingredient.as_ref().clone() };
            own.parting(&Mixture::new([(&bare, 1.0)]).composition, 1.0, "").is_err()
        });
        if lent && of_weight >= LEAST {
            own.amount = format!("{} g", hundredths(before_boil * line.mass.grams()));
        } else if of_weight < LEAST || not_by_itself || twice || lifted {
            own.amount = format!("{} g", hundredths(left.max(0.0) * line.mass.grams()));
            (own.strained, own.boiled) = (None, None);
        }
        if boiled {
            own.cook_c = line.cook_c.map(CookTemperature::from_celsius);
        }
    }
    settled
}

/// Whether something was taken off an ingredient on its way into what it is weighed for.
pub fn is_changed(ingredient: &Ingredient) -> bool {
    ingredient.steam > 0.0 || ingredient.left.is_some()
}
