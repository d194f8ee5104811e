//! What still differs after a swap, in words.

use crate::assess::answer::Assessment;
use crate::formula::WeighedLine;
use crate::ingredient::Ingredient;
use crate::number::two_digits;
use std::collections::BTreeSet;

/// What a cook would want to know: firmness, sweetness, richness, keeping, allergens, diets, warnings.
pub fn differs(
    before: (&Assessment, &[WeighedLine]),
    after: (&Assessment, &[WeighedLine]),
    cost_per_kg: Option<(f64, f64)>,
) -> Vec<String> {
    let (was, is) = (before.0, after.0);
    let mut said = Vec::new();
    let ratio = is.at.on_map.value / was.at.on_map.value.max(1e-12);
    if ratio.ln().abs() > 0.06 {
        let word = if ratio > 1.0 { "firmer" } else { "looser" };
        said.push(if (0.5..=2.0).contains(&ratio) {
            format!("{word} by {} %", two_digits(100.0 * (ratio - 1.0).abs()))
        } else {
            format!("{} times as firm", two_digits(ratio))
        });
    }
    let points = |by: f64, least: f64, more: &str, less: &str| {
        let word = if by > 0.0 { more } else { less };
        (by.abs() >= least).then(|| format!("{word} by {} points of total", two_digits(by.abs())))
    };
    let (p, q) = (&was.totals.phases_of_total_percent, &is.totals.phases_of_total_percent);
    said.extend(points(
        is.figures.sweetness_percent - was.figures.sweetness_percent,
        0.5,
        "sweeter",
        "less sweet",
    ));
    said.extend(points(q.fat - p.fat, 1.0, "richer in fat", "leaner"));
    said.extend(points(q.water - p.water, 1.5, "wetter", "drier"));
    if let (Some(a), Some(b)) = (&was.figures.water_activity, &is.figures.water_activity)
        && (b.value - a.value).abs() >= 0.01
    {
        let word = if b.value > a.value { "keeps less well" } else { "keeps longer" };
        said.push(format!("{word}: water activity {:.2}, was {:.2}", b.value, a.value));
    }
    if let Some((a, b)) = cost_per_kg.filter(|(a, b)| *a > 0.0 && (b / a - 1.0).abs() >= 0.01) {
        let word = if b > a { "dearer" } else { "cheaper" };
        said.push(format!("{word} by {} %", two_digits(100.0 * (b / a - 1.0).abs())));
    }
    let allergens = |lines: &[WeighedLine]| -> BTreeSet<String> {
        let used = lines.iter().filter(|l| l.mass.grams() > 0.0);
        used.flat_map(|l| l.ingredient.allergens.iter().cloned()).collect()
    };
    let (old, new) = (allergens(before.1), allergens(after.1));
    for name in new.difference(&old) {
        said.push(format!("new allergen: {name}"));
    }
    for name in old.difference(&new) {
        said.push(format!("no more {name}"));
    }
    let raw = |lines: &[WeighedLine]| {
        let raw = |i: &Ingredient| i.flags.raw_egg;
        lines.iter().any(|l| l.mass.grams() > 0.0 && raw(&l.ingredient))
    };
    if raw(after.1) && !raw(before.1) {
        said.push("brings raw egg".to_owned());
    }
    for warning in &is.warnings {
        if !was.warnings.iter().any(|own| own.code == warning.code) {
            said.push(warning.cause.trim_end_matches('.').to_owned());
        }
    }
    said
}
