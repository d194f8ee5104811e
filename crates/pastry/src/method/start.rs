//! The temperature a school leaves its mass at.

use crate::formula::WeighedLine;
use crate::heat::wall::Wall;
use crate::heat::{HeatShares, MixPart, mix_temperature, part_temperature_for};
use crate::ingredient::Ingredient;
use crate::ingredient::Role;
use crate::ingredient::composition::Part;
use crate::method::school::Start;
use crate::number::limit;
use serde::Serialize;
use utoipa::ToSchema;

/// Share of a bowl that takes part (assumed).
const BOWL_SHARE: f64 = 0.5;
/// Air of the room the bowl stands in, °C.
const BOWL_C: f64 = 20.0;
/// Half the width of the band of a mixing temperature, K (assumed): pans and bowls differ.
const MIX_BAND_K: f64 = 3.0;
/// A ganache should come together at this or above, °C: dark, and milk or white (common practice).
const COMES_TOGETHER: (f64, f64) = (38.0, 35.0);

/// Where it starts.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StartTemperature {
    /// Between these, °C.
    pub from_c: f64,
    /// Between these, °C.
    pub to_c: f64,
    /// How it was come by, in words.
    pub how: String,
    /// What to do about it, where something should be.
    pub advice: Option<String>,
}

/// Where a school leaves a formula; none when nothing of it is warm.
pub fn start_temperature(start: &Start, lines: &[WeighedLine]) -> Option<StartTemperature> {
    if let Some([from_c, to_c]) = start.at {
        let how = "as the school has it".to_owned();
        return Some(StartTemperature { from_c, to_c, how, advice: None });
    }
    let warmth = |ingredient: &Ingredient| {
        let named = start.mix.iter().find(|warmth| warmth.of != Role::All && ingredient.is(warmth.of));
        named.or_else(|| start.mix.iter().find(|warmth| warmth.of == Role::All)).map(|warmth| warmth.t)
    };
    let parts: Vec<MixPart> = lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .filter_map(|line| {
            Some(MixPart {
                shares: HeatShares::of(&line.ingredient.composition),
                kg: 1e-3 * line.mass.grams(),
                t_c: warmth(&line.ingredient)?,
            })
        })
        .collect();
    if parts.is_empty() {
        return None;
    }
    // The bowl grows with the batch, less than it.
    let kg: f64 = parts.iter().map(|part| part.kg).sum();
    let bowl = (start.bowl_g > 0.0).then(|| {
        (BOWL_SHARE * Wall::Steel.capacity() * 1e-3 * start.bowl_g * (kg / 0.4).max(0.25).sqrt(), BOWL_C)
    });
    let t = mix_temperature(&parts, bowl);
    let spoken = |of: Role| match of {
        Role::Whippable => "whipped cream",
        Role::All => "the rest",
        of => of.word(),
    };
    let words: Vec<String> =
        start.mix.iter().map(|warmth| format!("{} at {} °C", spoken(warmth.of), limit(warmth.t))).collect();
    Some(StartTemperature {
        from_c: (t - MIX_BAND_K).round(),
        to_c: (t + MIX_BAND_K).round(),
        how: format!(
            "{} come out at {} °C, give or take {} °C",
            words.join(", "),
            limit(t.round()),
            limit(MIX_BAND_K)
        ),
        advice: advice(start, lines, &parts, bowl, t),
    })
}

/// A ganache that would come together too cold: how hot its cream should be, or to melt the chocolate first.
fn advice(
    start: &Start,
    lines: &[WeighedLine],
    parts: &[MixPart],
    bowl: Option<(f64, f64)>,
    t: f64,
) -> Option<String> {
    let hot = start.mix.iter().find(|warmth| warmth.of == Role::All && warmth.t >= 80.0)?;
    let chocolate = lines.iter().any(|l| l.ingredient.is(Role::Chocolate));
    let pale = lines.iter().any(|line| {
        line.ingredient.is(Role::Chocolate) && line.ingredient.composition.get(Part::MilkProtein) > 0.02
    });
    let wanted = if pale { COMES_TOGETHER.1 } else { COMES_TOGETHER.0 };
    if !chocolate || t >= wanted + 4.0 {
        return None;
    }
    let hottest = parts.iter().position(|part| part.t_c == hot.t)?;
    if t >= wanted {
        return Some(format!(
            "Just warm enough: keep the bowl warm and do not let the cream fall below {} °C.",
            limit(hot.t)
        ));
    }
    // The whole of the hot part moves together.
    let one = MixPart { kg: parts.iter().filter(|p| p.t_c == hot.t).map(|p| p.kg).sum(), ..parts[hottest] };
    let mut merged: Vec<MixPart> = parts.iter().filter(|part| part.t_c != hot.t).copied().collect();
    merged.push(one);
    let needed = part_temperature_for(&merged, merged.len() - 1, bowl, wanted);
    Some(match needed.filter(|needed| *needed <= 98.0) {
        Some(needed) => format!(
            "Too cold to come together at {} °C: heat it to {} °C, or melt a third of the chocolate first.",
            limit(t.round()),
            limit(needed.ceil())
        ),
        None => format!(
            "It would come out at {} °C, too cold to come together: melt half of the chocolate first.",
            limit(t.round())
        ),
    })
}
