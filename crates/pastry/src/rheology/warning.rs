//! Warnings a formula earns, each with cause, number and the way out.

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::mixture::Mixture;
use crate::formula::process::can_reach;
use crate::formula::system::{Continuous, System};
use crate::ingredient::Role;
use crate::ingredient::composition::Part;
use crate::ingredient::origin::Origin;
use crate::number::two_digits;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::{Consistency, History, Options, Structure};
use crate::rheology::kernel::Prepared;
use crate::rheology::predictor::Predictor;
use crate::rheology::scramble::scrambled;
use crate::rheology::whipping::{THINNEST_TO_WHIP, WhipLimits, Whips};
use serde::Serialize;
use utoipa::ToSchema;

pub use crate::rheology::warning_code::WarningCode;

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
    pub code: WarningCode,
    /// How much it matters.
    pub severity: Severity,
    /// What is the matter, with its number, in one sentence.
    pub cause: String,
    /// What to do about it.
    pub way_out: String,
}

fn warning(code: WarningCode, severity: Severity, cause: String, way_out: &str) -> Warning {
    Warning { code, severity, cause, way_out: way_out.to_owned() }
}

/// All warnings of a formula at its working temperature, worst first.
///
/// Thresholds: split 0.15, 0.6 and 0.9 (set by hand from common practice), graining 1.15 (assumed),
/// lactose 2 (assumed), crowding 1; whipping: fat 30 %, 8 °C, 40 % solid, 0.02 to 2 Pa·s (common practice; 6 with mascarpone or gelatin, 20 for ganache, assumed).
pub fn warnings(
    lines: &[WeighedLine],
    family: Family,
    prepared: &Prepared,
    options: &Options,
    t_c: f64,
    history: History,
) -> Vec<Warning> {
    let at = prepared.at(t_c, history);
    let mut found = Vec::new();
    found.extend(structure_warnings(lines, family, prepared, &at));
    found.extend(sugar_warnings(prepared, t_c));
    found.extend(gelatin_warnings(lines, prepared));
    found.extend(starch_warnings(lines, family, prepared, options));
    found.extend(egg_warnings(lines, family, options));
    found.extend(impossible_heat(lines, options));
    found.extend(whip_warnings(lines, family, options, t_c));
    found.extend(label_warnings(lines, prepared));
    found.sort_by_key(|warning| std::cmp::Reverse(warning.severity));
    found
}

/// Grams over all lines, of what `of` says of each.
fn grams(lines: &[WeighedLine], of: impl Fn(&WeighedLine) -> f64) -> f64 {
    lines.iter().map(|line| line.mass.grams() * of(line)).sum()
}

fn holds(lines: &[WeighedLine], what: impl Fn(&WeighedLine) -> bool) -> bool {
    lines.iter().any(|line| line.mass.grams() > 0.0 && what(line))
}

/// Too little water, splitting, crowding, fat outside.
fn structure_warnings(
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

/// Sugar that may come back out, or never went in.
fn sugar_warnings(prepared: &Prepared, t_c: f64) -> Vec<Warning> {
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
    found
}

/// What weakens gelatin.
fn gelatin_warnings(lines: &[WeighedLine], prepared: &Prepared) -> Vec<Warning> {
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

/// Starch that was not boiled.
fn starch_warnings(
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
        return Vec::new();
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

/// Temperatures nothing wet reaches in an open pan: most often degrees Fahrenheit.
fn impossible_heat(lines: &[WeighedLine], options: &Options) -> Option<Warning> {
    let (line, cook_c) = lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .filter_map(|line| Some((line, line.cook_c.or(options.cook_c)?)))
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

/// Raw and scrambled egg.
fn egg_warnings(lines: &[WeighedLine], family: Family, options: &Options) -> Vec<Warning> {
    let mut found = Vec::new();
    let raw = holds(lines, |l| l.ingredient.flags.raw_egg);
    if raw {
        let cook = options.cooks.raw_egg;
        if !cook.is_some_and(|cook| cook >= 71.0) {
            let cause = match cook {
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

/// Whether it will take air, asked of the liquid cream.
fn whip_warnings(lines: &[WeighedLine], family: Family, options: &Options, t_c: f64) -> Vec<Warning> {
    let system = family.traits().system;
    if !matches!(system, System::WhippedCream | System::WhippedGanache) {
        return Vec::new();
    }
    // Gelatin is stirred in while it whips: it has not set by then.
    let at_once = Clock { hours: 0.0, cooled_k_h: f64::INFINITY };
    let liquid = Options { overrun: Some(0.0), whip: Some(0.0), clock: Some(at_once), ..*options };
    let predictor = Predictor::new(&Mixture::of(lines), system, &liquid);
    // Ganache rests before it is whipped; gelatin in cream has not set when it is.
    let (history, thickest_pa_s) = match family {
        Family::WhippedGanache => (History::Rested, 20.0),
        Family::StabilisedCream => (History::Fresh, 6.0),
        _ => (History::Fresh, 2.0),
    };
    let here = predictor.at(t_c, history);
    let limits = WhipLimits { least_fat_percent: 30.0, warmest_c: 8.0, thickest_pa_s };
    let whips = Whips::new(&predictor.base, &here.middle, here.sigma_viscosity, t_c, &limits);
    let (fat, thick) = (predictor.base.whip_fat_percent, here.middle.viscosity_pa_s);
    let mut found = Vec::new();
    if whips.fat < 0.5 {
        found.push(warning(
            WarningCode::WhipFat,
            Severity::Trouble,
            format!("Fat is {fat:.0} % of fat and water: much under 30 % it does not hold its air."),
            "Use a richer cream, or add mascarpone, or cream cheese.",
        ));
    }
    if whips.cold < 0.5 {
        found.push(warning(
            WarningCode::WhipWarm,
            Severity::Care,
            format!(
                "At {t_c:.0} °C {:.0} % of its fat is set; to whip it wants to be cold, with 40 % set.",
                100.0 * here.middle.solid_fat
            ),
            "Chill cream, bowl and whisk to 5 °C, best overnight.",
        ));
    } else if whips.thickness < 0.5 && thick > THINNEST_TO_WHIP {
        found.push(warning(
            WarningCode::WhipThick,
            Severity::Care,
            format!(
                "Unwhipped it is {} Pa·s, too thick to take air; it turns to butter instead.",
                two_digits(thick)
            ),
            "Let it down with cold cream or milk.",
        ));
    } else if whips.thickness < 0.5 {
        found.push(warning(
            WarningCode::WhipThin,
            Severity::Care,
            format!("Unwhipped it is {} Pa·s, too thin to keep bubbles apart.", two_digits(thick)),
            "Use a richer cream, or add a little gelatin.",
        ));
    }
    found
}

/// What belongs on a label.
fn label_warnings(lines: &[WeighedLine], prepared: &Prepared) -> Vec<Warning> {
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
    Some(warning(WarningCode::Split, severity, cause, way_out))
}
