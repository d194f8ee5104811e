//! Where parts that are put together come out.

use crate::heat::enthalpy::HeatShares;

/// One part.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MixPart {
    /// What it is made of.
    pub shares: HeatShares,
    /// How much, kg.
    pub kg: f64,
    /// How warm, °C.
    pub t_c: f64,
}

/// Coldest and hottest outcome looked at, °C.
const COLDEST: f64 = -5.0;
const HOTTEST: f64 = 130.0;
const HALVINGS: usize = 60;

/// Temperature of parts put together in a bowl, °C: Σ m h(T) + C T = Σ m h(Tᵢ) + C T_bowl, halved until it
/// stands. A part that warms melts its fat, one that cools keeps it liquid for some kelvin.
///
/// # Arguments
/// * `bowl`: heat capacity that takes part, J/K, and its temperature, °C; half of the bowl's (assumed).
pub fn mix_temperature(parts: &[MixPart], bowl: Option<(f64, f64)>) -> f64 {
    // Each part keeps its own side: what is colder than the mean of all warms.
    let mean = {
        let (mut sum, mut weight) = bowl.map_or((0.0, 0.0), |(c, t)| (c * t, c));
        for part in parts {
            let c = part.kg * part.shares.sensible_capacity(part.t_c);
            sum += c * part.t_c;
            weight += c;
        }
        sum / weight.max(1e-12)
    };
    let cooling = |part: &MixPart| part.t_c > mean;
    let held: f64 = parts.iter().map(|p| p.kg * p.shares.enthalpy(p.t_c, cooling(p))).sum::<f64>()
        + bowl.map_or(0.0, |(c, t)| c * t);
    let at = |t: f64| -> f64 {
        parts.iter().map(|p| p.kg * p.shares.enthalpy(t, cooling(p))).sum::<f64>()
            + bowl.map_or(0.0, |(c, _)| c * t)
    };
    let (mut low, mut high) = (COLDEST, HOTTEST);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if at(middle) < held { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

/// The temperature one part must have for the whole to come out at `wanted`, °C; none when −5 to 130 °C of it
/// would not do.
pub fn part_temperature_for(
    parts: &[MixPart],
    which: usize,
    bowl: Option<(f64, f64)>,
    wanted: f64,
) -> Option<f64> {
    let with = |t_c: f64| {
        let mut parts = parts.to_vec();
        parts[which].t_c = t_c;
        mix_temperature(&parts, bowl)
    };
    let (mut low, mut high) = (COLDEST, HOTTEST);
    if with(low) > wanted || with(high) < wanted {
        return None;
    }
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if with(middle) < wanted { low = middle } else { high = middle }
    }
    Some(0.5 * (low + high))
}
