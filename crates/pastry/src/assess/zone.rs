//! Words of the map: what a stress or a viscosity is like, from the loosest.

use crate::job::duty::MapAxis;
use crate::number::limit;
use serde::Serialize;
use utoipa::ToSchema;

/// A stretch of the map with its word.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MapZone {
    /// In kitchen words.
    pub word: &'static str,
    /// At its foot, in the unit of the axis.
    pub from: f64,
    /// From and to, with the unit: "5–40 Pa".
    pub says: String,
}

/// Yield stress at the foot of each word, Pa (common practice put into numbers, assumed; 2,200 Pa is where a spoonful cuts
/// clean, see [`SpoonSign`](crate::assess::spoon_sign::SpoonSign)).
const STIFFNESS: [(&str, f64); 6] = [
    ("runs", 0.0),
    ("ribbons", 5.0),
    ("soft", 40.0),
    ("spreads", 160.0),
    ("firm", 2200.0),
    ("hard", 20_000.0),
];

/// Viscosity at 10 /s at the foot of each word, Pa·s (common practice put into numbers, assumed).
const THICKNESS: [(&str, f64); 6] =
    [("water", 0.0), ("syrup", 0.004), ("cream", 0.05), ("ribbons", 0.5), ("rope", 5.0), ("paste", 50.0)];

/// The words of an axis.
pub fn zones(axis: MapAxis) -> Vec<MapZone> {
    let (words, unit) = match axis {
        MapAxis::YieldStressPa => (STIFFNESS, "Pa"),
        MapAxis::ViscosityPaS => (THICKNESS, "Pa·s"),
    };
    let write = |value: f64| if value < 10.0 { format!("{value}") } else { limit(value) };
    words
        .iter()
        .enumerate()
        .map(|(at, (word, from))| {
            let says = match words.get(at + 1) {
                None => format!("over {} {unit}", write(*from)),
                Some((_, to)) if *from == 0.0 => format!("under {} {unit}", write(*to)),
                Some((_, to)) => format!("{}–{} {unit}", write(*from), write(*to)),
            };
            MapZone { word, from: *from, says }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_words_cover_the_axis_without_a_gap() {
        for axis in [MapAxis::YieldStressPa, MapAxis::ViscosityPaS] {
            let zones = zones(axis);
            assert_eq!(zones[0].from, 0.0);
            assert!(zones.windows(2).all(|pair| pair[0].from < pair[1].from), "{zones:?}");
        }
        let says: Vec<String> = zones(MapAxis::YieldStressPa).into_iter().map(|zone| zone.says).collect();
        assert_eq!(says[0], "under 5 Pa");
        assert_eq!(says[3], "160–2,200 Pa");
        assert_eq!(says[5], "over 20,000 Pa");
        assert_eq!(zones(MapAxis::ViscosityPaS)[1].says, "0.004–0.05 Pa·s");
    }
}
