//! Warnings a formula earns, each with cause, number and the way out.

mod egg;
mod gel;
mod handling;
mod heat;
mod label;
pub mod said;
mod starch;
mod structure;
mod sugar;
mod whip;

use crate::formula::family::Family;
use crate::formula::line::{WeighedLine, flat};
use crate::rheology::consistency::{History, Options};
use crate::rheology::kernel::Prepared;
use egg::egg_warnings;
use gel::{broken_warnings, gelatin_warnings, other_gel_warnings};
use handling::handling_warnings;
use heat::impossible_heat;
use label::label_warnings;
use starch::starch_warnings;
use structure::structure_warnings;
use sugar::sugar_warnings;
use whip::whip_warnings;

pub use said::{Severity, Warning, WarningCode};
pub(crate) use starch::boils_c;

/// All warnings of a formula at its working temperature, worst first.
///
/// Thresholds: split 0.15, 0.6 and 0.9 (set by hand from common practice), graining 1.15 (assumed),
/// lactose 2 (assumed), crowding 1; whipping: fat 30 %, 8 °C, 5 mPa·s to 2 Pa·s (common practice; 6 with mascarpone or gelatin, 20 for ganache, assumed).
pub fn warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    options: &Options,
    t_c: f64,
    history: History,
) -> Vec<Warning> {
    let at = prepared.at(t_c, history);
    let broken = broken_warnings(lines);
    let flat = flat(lines);
    let lines = flat.as_ref();
    let mut found = Vec::new();
    found.extend(structure_warnings(lines, family, prepared, &at));
    found.extend(sugar_warnings(lines, family, prepared, t_c));
    found.extend(handling_warnings(lines, family, prepared, options));
    found.extend(gelatin_warnings(lines, prepared));
    found.extend(other_gel_warnings(prepared));
    found.extend(broken);
    found.extend(starch_warnings(lines, family, prepared, options));
    found.extend(egg_warnings(lines, family, options));
    found.extend(impossible_heat(lines, options));
    found.extend(whip_warnings(lines, family, options, t_c));
    found.extend(label_warnings(lines, prepared));
    found.sort_by_key(|warning| std::cmp::Reverse(warning.severity));
    found
}
