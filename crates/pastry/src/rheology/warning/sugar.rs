//! Sugar that may come back out, or never went in.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::system::System;
use crate::ingredient::composition::Part;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, grams, warning};

/// Sugar that may come back out, or never went in.
pub(super) fn sugar_warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    t_c: f64,
) -> Vec<Warning> {
    let mut found = Vec::new();
    let graining = prepared.serum.graining(t_c);
    if graining > 1.15 {
        found.push(warning(
            WarningCode::Graining,
            Severity::Care,
            format!("At {t_c:.0} °C it holds {graining:.1} times the sugar its water can keep; it may turn grainy."),
            "Swap some sugar for glucose syrup or invert sugar.",
        ));
    }
    let sand = prepared.serum.lactose_sand(t_c);
    if sand > 2.0 {
        found.push(warning(
            WarningCode::LactoseSand,
            Severity::Care,
            format!("At {t_c:.0} °C it holds {sand:.1} times the milk sugar its water can keep; it may turn sandy."),
            "Less milk powder or white chocolate, or more water.",
        ));
    }
    // Crystals beaten into butter without heat stay crystals.
    let coarse = grams(lines, |l| {
        let m = &l.ingredient.composition;
        let crystals = m.get(Part::Sucrose) > 0.9 && m.get(Part::Starch) < 0.005;
        if crystals && l.cook_c.is_none() { m.get(Part::Sucrose) } else { 0.0 }
    });
    let share = 100.0 * coarse / grams(lines, |_| 1.0).max(1e-9);
    let beaten_cold = family.traits().system == System::Buttercream;
    if beaten_cold && share > 3.0 && 100.0 * prepared.serum.undissolved > 1.0 {
        found.push(warning(
            WarningCode::Grit,
            Severity::Care,
            format!(
                "{share:.0} % of it is granulated sugar that does not dissolve in butter: it stays gritty."
            ),
            "Take icing sugar, or dissolve the sugar in warm egg white, milk or syrup first.",
        ));
    }
    found
}
