//! A formula made ready to be asked: its shelf, its lines in grams, what was done to them. Everything that works a formula
//! out begins here.

use crate::assess::boiled::BoiledDown;
use crate::assess::document::FormulaDocument;
use crate::assess::prepared::{Weighed, weighed};
use crate::assess::strained::StrainedOff;
use crate::fault::Fault;
use crate::formula::{Mixture, WeighedLine, flat};
use crate::ingredient::Shelf;
use crate::rheology::Options;

/// A formula made ready.
#[derive(Debug, Clone)]
pub struct Ready {
    /// What it is weighed from: the kitchen's shelf, and on it what the formula brings.
    pub shelf: Shelf,
    /// Its lines in grams, as they are weighed.
    pub lines: Vec<WeighedLine>,
    /// What is boiled down of it.
    pub boiled: Vec<BoiledDown>,
    /// What is strained off it, and taken out of it again.
    pub strained: Vec<StrainedOff>,
    /// What was done to them.
    pub options: Options,
}

impl Ready {
    /// Of a formula in a kitchen.
    ///
    /// # Errors
    /// Faults of what it brings; else of its lines, all of them.
    pub fn of(document: &FormulaDocument, kitchen: &Shelf) -> Result<Self, Vec<Fault>> {
        let shelf = document.shelf(kitchen)?;
        let Weighed { lines, boiled, strained, .. } = weighed(document, &shelf)?;
        let options = document.options(&lines);
        Ok(Ready { shelf, lines, boiled, strained, options })
    }

    /// The mixture of its lines.
    pub fn mixture(&self) -> Mixture {
        Mixture::of(&self.lines)
    }

    /// All of it that is left, g.
    pub fn batch_g(&self) -> f64 {
        flat(&self.lines).iter().map(|line| line.mass.grams()).sum()
    }
}
