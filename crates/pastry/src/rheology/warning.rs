//! Warnings a formula earns, each with cause, number and the way out.

use crate::formula::family::{Continuous, Family};
use crate::formula::line::WeighedLine;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::{Consistency, Structure};
use crate::rheology::kernel::Prepared;
use serde::Serialize;
use utoipa::ToSchema;

/// How much it matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Good to know.
    Note,
    /// Work with care.
    Care,
    /// It will not work, or it can hurt someone.
    Trouble,
}

/// One warning.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Warning {
    /// Stable code.
    pub code: String,
    /// How much it matters.
    pub severity: Severity,
    /// What is the matter, with its number, in one sentence.
    pub cause: String,
    /// What to do about it.
    pub way_out: String,
}

fn warning(code: &str, severity: Severity, cause: String, way_out: &str) -> Warning {
    Warning { code: code.to_owned(), severity, cause, way_out: way_out.to_owned() }
}

/// All warnings of a formula at its working temperature, worst first.
///
/// Thresholds: split 0.15, 0.6 and 0.9 (set by hand from common practice), graining 1.15 (assumed),
/// lactose 2 (assumed), crowding 1.
pub fn warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    at: &Consistency,
    t_c: f64,
) -> Vec<Warning> {
    let mut found = Vec::new();
    let water: f64 = lines.iter().map(|l| l.mass.grams() * l.ingredient.composition.get(Part::Water)).sum();
    let total: f64 = lines.iter().map(|l| l.mass.grams()).sum();
    let water_family = family.traits().continuous == Continuous::Water;
    if water_family && 100.0 * water / total < 1.0 {
        found.push(warning(
            "no_water",
            Severity::Trouble,
            format!(
                "Only {:.1} % of it is water, so it is melted chocolate, not a {}.",
                100.0 * water / total,
                family.word()
            ),
            "Add cream, milk or another liquid.",
        ));
    } else if matches!(family, Family::Ganache | Family::WhippedGanache) {
        found.extend(split_warning(at.split));
        if prepared.structure() != Structure::WaterContinuous {
            let word =
                if prepared.structure() == Structure::FatContinuous { "outside" } else { "partly outside" };
            found.push(warning(
                "fat_outside",
                Severity::Note,
                format!(
                    "With this much butter or oil the fat is {word}, so it sets and softens like butter."
                ),
                "Less butter, or more cream, turns it back.",
            ));
        }
    }
    if water_family && prepared.crowding > 1.0 {
        found.push(warning(
            "crowded",
            Severity::Care,
            format!(
                "It is a paste: its solids want {:.0} % of the room there is.",
                100.0 * prepared.crowding
            ),
            "Add cream or another liquid, in small parts.",
        ));
    }
    let graining = prepared.serum.graining(t_c);
    if graining > 1.15 {
        found.push(warning(
            "graining",
            Severity::Care,
            format!("At {t_c:.0} °C it holds {graining:.1} times the sugar its water can keep; it may turn grainy."),
            "Swap some sugar for glucose syrup or invert sugar.",
        ));
    }
    let sand = prepared.serum.lactose_sand(t_c);
    if sand > 2.0 {
        found.push(warning(
            "lactose_sand",
            Severity::Care,
            format!("At {t_c:.0} °C it holds {sand:.1} times the milk sugar its water can keep; it may turn sandy."),
            "Less milk powder or white chocolate, or more water.",
        ));
    }
    if lines.iter().any(|l| l.ingredient.group == "egg" && l.mass.grams() > 0.0) {
        found.push(warning(
            "egg_raw",
            Severity::Trouble,
            "It has egg, and no step here says it is heated to 71 °C.".to_owned(),
            "Use pasteurised egg or heat it to 71 °C, and follow your local food code.",
        ));
    }
    if prepared.alcohol_by_volume_percent > 0.5 {
        found.push(warning(
            "alcohol",
            Severity::Note,
            format!("It has {:.1} % alcohol by volume.", prepared.alcohol_by_volume_percent),
            "Say so on the label; not for children.",
        ));
    }
    if lines.iter().any(|l| l.ingredient.id == "honey" && l.mass.grams() > 0.0) {
        found.push(warning(
            "honey",
            Severity::Note,
            "It has honey, which is not for infants under one year.".to_owned(),
            "Use invert sugar for them, and say honey on the label.",
        ));
    }
    found.sort_by_key(|warning| std::cmp::Reverse(warning.severity));
    found
}

fn split_warning(split: f64) -> Option<Warning> {
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
        "Add warm cream or milk a spoon at a time until it shines again."
    };
    Some(warning("split", severity, cause, way_out))
}
