//! What goes wrong in the handling and is on nobody's list: sour in hot milk, salt by the hundred, spirit in cream, a
//! spoonful of water in chocolate.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::mixture::Mixture;
use crate::formula::system::System;
use crate::ingredient::Role;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::Options;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, grams, warning};

/// Hot milk curdles below this pH (5.2 to 5.6: food chemistry texts, from memory).
const CURDLES_PH: f64 = 5.3;
/// Milk from this is hot, °C.
const HOT_C: f64 = 60.0;
/// Less milk protein than this, per cent of total, leaves nothing to curdle: butter, a little chocolate.
const LEAST_PROTEIN: f64 = 0.8;
/// More salt than this, per cent of total, is a slip of the hand: salted caramel has 1 to 1.5 (common practice).
const SALTY: f64 = 2.0;
/// Spirit from which cream curdles or does not whip, per cent by volume (common practice, assumed).
const SPIRIT_IN_WHIPPED: f64 = 5.0;
const SPIRIT_IN_CREAM: f64 = 14.0;
/// Chocolate of this share with less water than that, per cent of total, is a stiff paste (common practice, assumed).
const MOSTLY_CHOCOLATE: f64 = 60.0;
const SEIZES_UNDER: f64 = 9.0;

/// All of them.
pub(super) fn handling_warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    options: &Options,
) -> Vec<Warning> {
    let total = grams(lines, |_| 1.0).max(1e-9);
    let percent = |of: &dyn Fn(&WeighedLine) -> f64| 100.0 * grams(lines, of) / total;
    let part = |part: Part| percent(&|line| line.ingredient.composition.get(part));
    let mut found = Vec::new();

    let salt = part(Part::Salt);
    if salt > SALTY {
        found.push(warning(
            WarningCode::Salty,
            Severity::Trouble,
            format!("It is {salt:.0} % salt, {:.0} g in a kilogram: nobody can eat that.", 10.0 * salt),
            "Is that line sugar, or tenths of a gram? Look at its amount again.",
        ));
    }

    let protein = part(Part::MilkProtein);
    let boils = family.traits().boils_starch;
    let hot = lines.iter().any(|line| {
        let cook = line.reached(options.cook_c);
        line.ingredient.composition.get(Part::MilkProtein) > 0.01
            && (boils || cook.is_some_and(|cook| cook >= HOT_C))
    });
    if hot
        && protein > LEAST_PROTEIN
        && let Some(ph) = Mixture::of(lines).acidity.ph().filter(|ph| *ph < CURDLES_PH)
    {
        found.push(warning(
            WarningCode::Curdles,
            Severity::Care,
            format!("At pH {ph:.1} hot milk curdles, about {CURDLES_PH} and below."),
            "Stir the sour part in when it has cooled under 40 °C, or bind the milk with starch first.",
        ));
    }

    let spirit = prepared.alcohol_by_volume_percent;
    let whips = matches!(family.traits().system, System::WhippedCream | System::WhippedGanache);
    let most = if whips { SPIRIT_IN_WHIPPED } else { SPIRIT_IN_CREAM };
    if spirit > most && protein > 0.3 {
        found.push(warning(
            WarningCode::Spirit,
            Severity::Care,
            match whips {
                true => format!("{spirit:.0} % alcohol by volume thins the cream: it whips badly and weeps."),
                false => format!("{spirit:.0} % alcohol by volume curdles milk and cream."),
            },
            "Less spirit, stirred in last and cold, or a syrup of it for the sponge.",
        ));
    }

    let chocolate = percent(&|line| f64::from(u8::from(line.ingredient.is(Role::Chocolate))));
    let water = part(Part::Water);
    if chocolate > MOSTLY_CHOCOLATE && (1.0..SEIZES_UNDER).contains(&water) {
        found.push(warning(
            WarningCode::Seizes,
            Severity::Care,
            format!("With {water:.1} % water chocolate seizes: a stiff, rough paste."),
            "Add hot cream, milk or water in spoons until it shines, a fifth of the chocolate at least; or keep every drop out.",
        ));
    }
    found
}
