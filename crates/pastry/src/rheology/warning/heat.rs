//! Temperatures that cannot be.

use crate::formula::line::WeighedLine;
use crate::formula::process::can_reach;
use crate::rheology::consistency::Options;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, warning};

/// Temperatures nothing wet reaches in an open pan: most often degrees Fahrenheit.
pub(super) fn impossible_heat(lines: &[WeighedLine], options: &Options) -> Option<Warning> {
    let (line, cook_c) = lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .filter_map(|line| Some((line, line.reached(options.cook_c)?)))
        .find(|(line, cook_c)| !can_reach(line, *cook_c))?;
    let celsius = (cook_c - 32.0) / 1.8;
    Some(warning(
        WarningCode::HeatImpossible,
        Severity::Trouble,
        format!(
            "{} cannot reach {cook_c:.0} °C: its water boils before. It is taken as not heated.",
            line.ingredient.name
        ),
        &format!(
            "If the probe showed {cook_c:.0} °F, write {celsius:.0} °C; if only the syrup was that hot, leave it out."
        ),
    ))
}
