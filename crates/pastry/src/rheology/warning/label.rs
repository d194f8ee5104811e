//! What belongs on a label.

use crate::formula::line::WeighedLine;
use crate::ingredient::origin::Origin;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, holds, warning};

/// What belongs on a label.
pub(super) fn label_warnings(lines: &[WeighedLine], prepared: &Prepared) -> Vec<Warning> {
    let mut found = Vec::new();
    if prepared.alcohol_by_volume_percent > 0.5 {
        found.push(warning(
            WarningCode::Alcohol,
            Severity::Note,
            format!("It has {:.1} % alcohol by volume.", prepared.alcohol_by_volume_percent),
            "Say so on the label; not for children.",
        ));
    }
    if holds(lines, |l| l.ingredient.origins.contains(&Origin::Honey)) {
        found.push(warning(
            WarningCode::Honey,
            Severity::Note,
            "It has honey, which is not for infants under one year.".to_owned(),
            "Use invert sugar for them, and say honey on the label.",
        ));
    }
    for (origin, word) in [(Origin::Pork, "pork"), (Origin::Beef, "beef"), (Origin::Fish, "fish")] {
        if holds(lines, |l| l.ingredient.origins.contains(&origin)) {
            found.push(warning(
                WarningCode::GelatinOrigin,
                Severity::Note,
                format!("Its gelatin is of {word}."),
                "Say so to guests who ask, and check the pack: makers change.",
            ));
        }
    }
    found
}
