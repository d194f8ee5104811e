//! What a way does besides, in points and in words.

use crate::assess::answer::Assessment;
use crate::balance::way::Effects;
use crate::number::{on_a_scale, two_digits};

/// What a way does to a formula besides; `price` is that of a kilogram of an ingredient, by key.
pub(super) fn effects(now: &Assessment, then: &Assessment, price: impl Fn(&str) -> Option<f64>) -> Effects {
    let (before, after) = (&now.totals.phases_of_total_percent, &then.totals.phases_of_total_percent);
    let cost = |answer: &Assessment| -> Option<f64> {
        let mut sum = 0.0;
        for line in &answer.lines {
            sum += 1e-3 * line.mass_g * price(&line.ingredient)?;
        }
        Some(1e3 * sum / answer.totals.batch_mass_g)
    };
    let activity = |answer: &Assessment| answer.figures.water_activity.map(|aw| aw.value);
    Effects {
        fat_points: after.fat - before.fat,
        sugar_points: after.sugar - before.sugar,
        water_points: after.water - before.water,
        sweetness_points: then.figures.sweetness_percent - now.figures.sweetness_percent,
        cost_per_kg: cost(then).zip(cost(now)).map(|(after, before)| after - before),
        water_activity: activity(then).zip(activity(now)).map(|(after, before)| after - before),
        batch_g: then.totals.batch_mass_g - now.totals.batch_mass_g,
    }
}

/// Grams with their sign, as a scale shows them: "+24 g", "−1.5 g", "+0.8 g".
pub(super) fn signed(grams: f64) -> String {
    let text = on_a_scale(grams.abs());
    format!("{}{text} g", if grams < 0.0 { "−" } else { "+" })
}

/// What changes for the eater and the purse, the largest first, in a few words.
pub(super) fn effect_words(effects: &Effects, before: &Assessment, after: &Assessment) -> String {
    let mut said: Vec<(f64, String)> = Vec::new();
    let sweet = effects.sweetness_points;
    if sweet.abs() >= 0.5 {
        let word = if sweet > 0.0 { "sweeter" } else { "less sweet" };
        said.push((sweet.abs(), format!("{word} by {} points", two_digits(sweet.abs()))));
    }
    if effects.fat_points.abs() >= 1.0 {
        let word = if effects.fat_points > 0.0 { "richer" } else { "leaner" };
        said.push((
            0.8 * effects.fat_points.abs(),
            format!("{word} by {} points", two_digits(effects.fat_points.abs())),
        ));
    }
    if let Some(aw) = effects.water_activity.filter(|aw| aw.abs() >= 0.01) {
        let word = if aw > 0.0 { "keeps less well" } else { "keeps longer" };
        said.push((
            100.0 * aw.abs(),
            format!("{word} (water activity {}{:.2})", if aw > 0.0 { "+" } else { "−" }, aw.abs()),
        ));
    }
    let (room_before, room_after) =
        (before.in_the_room.yield_stress_pa.value, after.in_the_room.yield_stress_pa.value);
    let ratio = (room_after / room_before).ln();
    if ratio.abs() > 0.25 {
        let word = if ratio > 0.0 { "sets firmer" } else { "sets softer" };
        said.push((3.0 * ratio.abs(), word.to_owned()));
    }
    said.sort_by(|a, b| b.0.total_cmp(&a.0));
    match said.as_slice() {
        [] => "nothing else changes".to_owned(),
        some => some.iter().take(2).map(|(_, words)| words.clone()).collect::<Vec<_>>().join(", "),
    }
}
