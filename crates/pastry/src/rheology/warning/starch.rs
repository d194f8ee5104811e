//! Starch that was not boiled.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::ingredient::Role;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::Options;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, grams, holds, warning};

/// Starch that was not boiled.
pub(super) fn starch_warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    options: &Options,
) -> Vec<Warning> {
    // Only what is added to thicken: icing sugar, cocoa and purees have starch of their own.
    let thickens = |l: &WeighedLine| l.ingredient.is(Role::BoiledStarch);
    let starch =
        grams(lines, |l| f64::from(u8::from(thickens(l))) * l.ingredient.composition.get(Part::Starch));
    let share = 100.0 * starch / grams(lines, |_| 1.0).max(1e-9);
    if share <= 0.5 {
        return Vec::new();
    }
    let cook = options.cooks.starch.or(options.cook_c);
    let needed = prepared.cooking.starch_raw_under_c.ceil();
    let (short, cause) = match cook {
        Some(cook) if cook < needed && cook < boils_c(prepared) => (
            true,
            format!("Its starch reached {cook:.0} °C and needs {needed:.0}: it stays thin and tastes raw."),
        ),
        None if !family.traits().boils_starch => {
            (true, format!("No step says its starch is boiled; it needs {needed:.0} °C."))
        }
        _ => (false, String::new()),
    };
    if !short {
        return amylase(lines, cook);
    }
    let way_out = if needed > 96.5 {
        "Sugar lifts it: bring it to a real boil, 100 °C or more, for 1 to 2 minutes."
    } else {
        "Boil it 1 to 2 minutes, until bubbles break and the gloss comes back."
    };
    vec![warning(WarningCode::StarchRaw, Severity::Care, cause, way_out)]
}

/// Where it boils in an open pan, °C: 100 + 28.4 ln(1/a_w), from the boiling point of water and its heat of vaporisation.
pub(crate) fn boils_c(prepared: &Prepared) -> f64 {
    100.0 - 28.4 * prepared.serum.water_activity.unwrap_or(0.7).ln()
}

/// Yolk bound with starch and not heated through: its enzyme goes on cutting (common practice: bring it to the boil).
fn amylase(lines: &[WeighedLine], cook: Option<f64>) -> Vec<Warning> {
    const ENDS_C: f64 = 85.0;
    let yolk = holds(lines, |l| l.ingredient.composition.get(Part::Yolk) > 0.01);
    match cook.filter(|cook| yolk && *cook < ENDS_C) {
        Some(cook) => vec![warning(
            WarningCode::Amylase,
            Severity::Care,
            format!("Yolk and starch reached {cook:.0} °C only: an enzyme of yolk thins it by tomorrow."),
            "Bring it to the boil, 1 to 2 minutes, stirring.",
        )],
        None => Vec::new(),
    }
}
