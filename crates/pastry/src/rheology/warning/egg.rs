//! Raw and scrambled egg.

use crate::formula::egg_heat::{EggKind, safe};
use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::mixture::Mixture;
use crate::ingredient::Role;
use crate::number::two_digits;
use crate::rheology::consistency::Options;
use crate::rheology::scramble::scrambled;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, holds, warning};

/// Raw and scrambled egg.
pub(super) fn egg_warnings(lines: &[WeighedLine], family: Family, options: &Options) -> Vec<Warning> {
    let mut found = Vec::new();
    let raw = holds(lines, |l| l.ingredient.flags.raw_egg);
    if raw {
        let cook = options.cooks.raw_egg;
        let kind = EggKind::of(lines);
        if !cook.is_some_and(|cook| safe(kind, cook, options.held_min)) {
            let cause = match cook {
                Some(cook) if cook >= 60.0 => format!(
                    "Its egg reached {cook:.0} °C: raw or lightly heated egg, unless it was held there for {} minutes.",
                    two_digits(kind.hold_min(cook))
                ),
                Some(cook) => format!("Its egg reached {cook:.0} °C: raw or lightly heated egg."),
                None => "It has egg, and no step here says it is heated to 71 °C.".to_owned(),
            };
            found.push(warning(
                WarningCode::EggRaw,
                Severity::Trouble,
                cause,
                "Use pasteurised egg or heat it to 71 °C, say so on the label, and follow your local food code.",
            ));
        }
    }
    let mixture = Mixture::of(lines);
    let scrambled = scrambled(&mixture, family.traits().system, options);
    if scrambled > 0.15 {
        let severity = if scrambled > 0.5 { Severity::Trouble } else { Severity::Care };
        let starch = holds(lines, |l| l.ingredient.is(Role::Starch));
        let cause = match starch {
            false => "Without starch, egg scrambles above 86 °C.",
            true => "Its starch is too little to keep the egg from scrambling at this heat.",
        };
        found.push(warning(
            WarningCode::EggScrambles,
            severity,
            cause.to_owned(),
            "Stop at 82 to 84 °C; if it happened, blend and sieve at once.",
        ));
    }
    found
}
