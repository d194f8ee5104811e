//! The clock of a formula that is made by its school.

use crate::assess::{FormulaDocument, Ready};
use crate::clock::{ClockAnswer, ClockDocument, clock};
use crate::fault::Fault;
use crate::ingredient::Shelf;
use crate::method::school::{School, schools_of};
use crate::method::start::start_temperature;

/// The school a formula is made by: the one it names, else the family's first.
pub fn school_of(document: &FormulaDocument) -> Option<&'static School> {
    let mut all = schools_of(document.family);
    let first = all.next();
    let named = |school: &&School| Some(school.id.as_str()) == document.method.as_deref();
    schools_of(document.family).find(named).or(first)
}

/// Where its school leaves it, °C from and to; none where nothing of it is warm.
fn starts(document: &FormulaDocument, ready: &Ready) -> Option<[f64; 2]> {
    let start = start_temperature(&school_of(document)?.start, &ready.lines)?;
    Some([start.from_c, start.to_c])
}

/// Answers a formula in its vessel, from where its school leaves it.
///
/// # Errors
/// Faults of the formula and of all else, each with what to do.
pub fn clocked(document: &ClockDocument, kitchen: &Shelf) -> Result<ClockAnswer, Vec<Fault>> {
    clock(document, kitchen, starts)
}
