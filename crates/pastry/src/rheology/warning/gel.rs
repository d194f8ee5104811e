//! What weakens a gel, or keeps it from setting.

use crate::formula::line::WeighedLine;
use crate::ingredient::composition::Part;
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::said::{Severity, Warning, WarningCode, grams, warning};

/// What weakens gelatin.
pub(super) fn gelatin_warnings(lines: &[WeighedLine], prepared: &Prepared) -> Vec<Warning> {
    let mut found = Vec::new();
    let gelatin = grams(lines, |l| l.ingredient.composition.get(Part::Gelatin));
    if gelatin <= 0.0 {
        return found;
    }
    if prepared.networks.gelatin_undone {
        let fruit = lines.iter().find(|l| l.mass.grams() > 0.0 && l.ingredient.flags.protease);
        let name = fruit.map_or("Raw fruit", |line| line.ingredient.name.as_str());
        found.push(warning(
            WarningCode::Protease,
            Severity::Trouble,
            format!("{name} cuts gelatin: 0 % of its strength is left by the time it should have set, at any dose."),
            "Bring the fruit to 85 °C first and say so on its line, or set it with agar or pectin.",
        ));
    }
    let sour = prepared.networks.gelatin.left_by_acid;
    if sour < 0.95 {
        found.push(warning(
            WarningCode::GelatinAcid,
            Severity::Note,
            format!(
                "Acid takes about {:.0} % of the gelatin's strength, which is counted.",
                100.0 * (1.0 - sour)
            ),
            "Stir the gelatin into the sweet part, not into the boiling juice.",
        ));
    }
    // Spirit past a tenth of the liquid weakens and clouds a gel: common practice, not in the numbers.
    if prepared.alcohol_by_volume_percent > 10.0 {
        found.push(warning(
            WarningCode::GelatinAlcohol,
            Severity::Care,
            format!(
                "{:.0} % alcohol by volume weakens gelatin; how much is not counted.",
                prepared.alcohol_by_volume_percent
            ),
            "Keep spirit under a tenth, or add a fifth more gelatin and try it.",
        ));
    }
    found
}

/// What keeps agar and pectin from setting.
pub(super) fn other_gel_warnings(prepared: &Prepared) -> Vec<Warning> {
    let mut found = Vec::new();
    let networks = &prepared.networks;
    if networks.agar.percent > 0.0 && networks.agar.raw {
        found.push(warning(
            WarningCode::AgarRaw,
            Severity::Trouble,
            "Its agar was not boiled: it does not dissolve, and nothing sets.".to_owned(),
            "Bring it to the boil with the liquid for 1 to 2 minutes, before anything cold goes in.",
        ));
    }
    let pectin = &networks.pectin;
    if pectin.percent > 0.0 && pectin.wants {
        let ph = prepared.ph.map_or(String::new(), |ph| format!(" and pH {ph:.1}"));
        found.push(warning(
            WarningCode::PectinNeeds,
            Severity::Care,
            format!(
                "At {:.0} °Bx{ph} this pectin sets badly: it wants 30 °Bx or more and a pH of 3.0 to 4.2.",
                prepared.serum.brix
            ),
            "More sugar, or a little lemon; boil it, and test a spoonful on a cold plate.",
        ));
    }
    found
}

/// What was made before and had set when it went in: its gel is broken and holds nothing.
pub(super) fn broken_warnings(lines: &[WeighedLine]) -> Vec<Warning> {
    lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .filter_map(|line| Some((&line.ingredient.name, line.ingredient.made.as_ref()?)))
        .filter(|(_, made)| !made.broken.is_empty())
        .map(|(name, made)| {
            let gels = made.broken.join(" and ");
            let way_out = match made.broken.as_slice() {
                ["gelatin"] => "Warm it to 40 °C until it runs and write that on its line, or fold it in before it sets.",
                ["agar"] => "Boil it up again and write that on its line, or fold it in before it sets.",
                _ => "Fold it in before it sets, or count on it for taste alone.",
            };
            warning(
                WarningCode::SetBefore,
                Severity::Care,
                format!("The {gels} of {name} had set: broken, it holds nothing any more, and none of it is counted."),
                way_out,
            )
        })
        .collect()
}
