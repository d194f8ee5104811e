//! The clock of a formula that is made by its school.

use crate::assess::{FormulaDocument, Ready};
use crate::clock::{ClockAnswer, ClockDocument, clock};
use crate::fault::Fault;
use crate::ingredient::Shelf;
use crate::method::course::school_of;
use crate::method::start::start_temperature;

/// Where its school leaves it, °C from and to; none where nothing of it is warm.
fn starts(document: &FormulaDocument, ready: &Ready) -> Option<[f64; 2]> {
    let start = start_temperature(&school_of(document, &ready.lines)?.start, &ready.lines)?;
    Some([start.from_c, start.to_c])
}

/// Answers a formula in its vessel, from where its school leaves it.
///
/// # Errors
/// Faults of the formula and of all else, each with what to do.
pub fn clocked(document: &ClockDocument, kitchen: &Shelf) -> Result<ClockAnswer, Vec<Fault>> {
    clock(document, kitchen, starts)
}
