//! What is in the bowl, as a formula.

use crate::assess::document::FormulaDocument;
use crate::batch::document::BatchDocument;
use crate::batch::fold::BatchState;
use crate::formula::{Line, Rules};
use crate::ingredient::Shelf;
use crate::number::hundredths;

/// What is really in the bowl, as a formula.
pub fn what_is_in(batch: &BatchDocument, state: &BatchState, shelf: &Shelf) -> FormulaDocument {
    let bowl: Vec<f64> = state.lines.iter().map(|own| own.in_g).collect();
    in_bowl(&batch.formula, &bowl, state, shelf)
}

/// What is in the bowl, as a formula: what is left out is not in it, what was added is.
pub fn in_bowl(
    formula: &FormulaDocument,
    bowl: &[f64],
    state: &BatchState,
    shelf: &Shelf,
) -> FormulaDocument {
    let mut own = formula.clone();
    own.percent_of = None;
    // What must hold when ways are looked for is no matter of what is in the bowl.
    own.rules = Rules::default();
    let mut grams = bowl.to_vec();
    for put in state.added.iter().filter(|put| shelf.find(&put.ingredient).is_some()) {
        let same = |line: &Line| {
            line.ingredient == put.ingredient && line.boiled.is_none() && line.strained.is_none()
        };
        match own.lines.iter().position(same) {
            Some(at) => grams[at] += put.grams,
            None => {
                own.lines.push(Line::new(&put.ingredient, String::new()));
                grams.push(put.grams);
            }
        }
    }
    let lines = std::mem::take(&mut own.lines).into_iter().zip(grams);
    own.lines = lines
        .filter(|(_, grams)| *grams > 0.0)
        .map(|(line, grams)| Line { amount: format!("{} g", hundredths(grams)), ..line })
        .collect();
    own
}
