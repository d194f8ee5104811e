//! A formula made ready to be asked: its shelf, its lines in grams, what was done to them. Everything that works a formula
//! out begins here.

use crate::assess::boiled::BoiledDown;
use crate::assess::document::FormulaDocument;
use crate::assess::prepared::{Weighed, weighed};
use crate::assess::strained::StrainedOff;
use crate::belief::{Posterior, Terms};
use crate::fault::Fault;
use crate::formula::{Family, Mixture, WeighedLine, flat};
use crate::ingredient::Shelf;
use crate::learn::terms;
use crate::rheology::Options;
use crate::rheology::consistency::{Correction, History};
use crate::rheology::kernel::Prepared;
use crate::rheology::serum::water_viscosity;

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
        let mut options = document.options(&lines);
        options.learned = learned(document, &shelf, &lines, &options);
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

/// What this kitchen's own tests taught of a formula, asked where it does its work.
fn learned(
    document: &FormulaDocument,
    shelf: &Shelf,
    lines: &[WeighedLine],
    options: &Options,
) -> Correction {
    let Some(beliefs) = shelf.beliefs() else { return Correction::NONE };
    let work = &document.work;
    let at = (work.temperature_c.celsius(), document.history());
    let terms = bearing(lines, document.family, options, at);
    let one = |belief: &Posterior, terms: &Terms| {
        let (mean, variance) = belief.next(terms);
        (mean, (variance / terms.book().max(1e-12)).sqrt().min(1.0))
    };
    let (stiffer, of_yield) = one(&beliefs.of_yield, &terms[0]);
    let (thicker, of_viscosity) = one(&beliefs.of_viscosity, &terms[1]);
    Correction { ln_over: [stiffer, thicker], narrower: [of_yield, of_viscosity] }
}

/// Which offsets bear on a mass at a temperature: of its yield stress, and of its viscosity.
///
/// # Arguments
/// * `at`: °C, and how it came there.
pub fn bearing(
    lines: &[WeighedLine],
    family: Family,
    options: &Options,
    (t_c, history): (f64, History),
) -> [Terms; 2] {
    let book = Options { learned: Correction::NONE, ..*options };
    let prepared = Prepared::new(&Mixture::of(lines), family.traits().system, &book);
    let now = prepared.at(t_c, history);
    let base = prepared.doubt.base(&now, water_viscosity(t_c));
    base.map(|base| terms(lines, family.key(), &now.contributions, base))
}
