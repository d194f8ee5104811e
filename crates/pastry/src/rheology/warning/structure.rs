//! Too little water, splitting, crowding, fat outside.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::system::{Continuous, System};
use crate::ingredient::composition::Part;
use crate::rheology::consistency::{Consistency, Structure};
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, grams, warning};

/// Too little water, splitting, crowding, fat outside.
pub(super) fn structure_warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    at: &Consistency,
) -> Vec<Warning> {
    let mut found = Vec::new();
    let system = family.traits().system;
    let water_outside = system.traits().continuous == Continuous::Water;
    let water_percent =
        100.0 * grams(lines, |l| l.ingredient.composition.get(Part::Water)) / grams(lines, |_| 1.0).max(1e-9);
    if water_outside && water_percent < 1.0 {
        found.push(warning(
            WarningCode::NoWater,
            Severity::Trouble,
            format!("Only {water_percent:.1} % of it is water, too little for a {}.", family.word()),
            "Add cream, milk or another liquid.",
        ));
    } else if matches!(system, System::Ganache | System::WhippedGanache) {
        found.extend(split_warning(at.split));
        if prepared.structure() != Structure::WaterContinuous {
            let word =
                if prepared.structure() == Structure::FatContinuous { "outside" } else { "partly outside" };
            found.push(warning(
                WarningCode::FatOutside,
                Severity::Note,
                format!(
                    "With this much butter or oil the fat is {word}, so it sets and softens like butter."
                ),
                "Less butter, or more cream, turns it back.",
            ));
        }
    } else if !water_outside && system != System::Mousseline && at.split > 0.15 {
        // An ordinary mousseline reads 0.63 and holds: starch keeps its water.
        let severity = if at.split > 0.5 { Severity::Trouble } else { Severity::Care };
        found.push(warning(
            WarningCode::TooWet,
            severity,
            format!(
                "There is much water for the fat: {:.0} % of the two is water; past 70 % it curdles.",
                100.0 * prepared.inside_out.fat_of_fluid
            ),
            "Have all parts at 20 to 22 °C, add liquid in small parts, or beat in more soft butter.",
        ));
    }
    let wet = prepared.inside_out.fat_of_fluid;
    if system == System::Mousseline && wet > system.wet_to() + 0.02 {
        found.push(warning(
            WarningCode::TooWet,
            Severity::Care,
            format!(
                "There is more custard than its butter holds: {:.0} % of the two is liquid, up to {:.0} % is usual. It is \
                 a custard with butter in it, and softer.",
                100.0 * wet,
                100.0 * system.wet_to()
            ),
            "Beat in more soft butter, or boil the custard with more starch.",
        ));
    }
    if water_outside && prepared.crowding > 1.0 {
        found.push(warning(
            WarningCode::Crowded,
            Severity::Care,
            format!(
                "It is a paste: its solids want {:.0} % of the room there is.",
                100.0 * prepared.crowding
            ),
            "Add cream or another liquid, in small parts.",
        ));
    }
    found
}

pub(super) fn split_warning(split: f64) -> Option<Warning> {
    let (severity, cause) = match split {
        s if s < 0.15 => return None,
        s if s < 0.6 => (
            Severity::Care,
            format!("It wants care: split index {s:.2}; there is little liquid for its fat."),
        ),
        s if s < 0.9 => (
            Severity::Care,
            format!("It is likely to split: index {s:.2}; there is little liquid for its fat."),
        ),
        s => (Severity::Trouble, format!("It splits: index {s:.2}; there is too much fat for the liquid.")),
    };
    let way_out = if split < 0.9 {
        "Work warm, add the liquid in small parts, blend without air."
    } else {
        "Warm it to 40 °C and work in skimmed milk a spoon at a time until it shines: it brings water and no fat."
    };
    Some(warning(WarningCode::Split, severity, cause, way_out))
}
