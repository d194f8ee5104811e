//! Dowels: when a tier needs them for the one above, and how many.

use crate::stack::address::{Address, At};
use crate::stack::amount::tier_g;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::{Scene, weight};

/// Area of the tier above that one dowel bears, cm² (assumed), and fewest of them.
const PER_DOWEL: f64 = 55.0;
const FEWEST_DOWELS: u32 = 4;
/// More than this above, or more than one tier, never stands without (common practice), g.
const HEAVY_G: f64 = 3000.0;

/// How many dowels bear the tier above: one for so much of its foot, four at least.
pub fn dowels_needed(area_above_cm2: f64) -> u32 {
    ((area_above_cm2 / PER_DOWEL).round() as u32).max(FEWEST_DOWELS)
}

/// Dowels under the tier above `tier`.
pub fn dowels(scene: &Scene, tier: usize, found: &[Finding]) -> Option<Finding> {
    let above = &scene.layout.tiers[tier + 1];
    let grams: f64 =
        (tier + 1..scene.layout.tiers.len()).map(|t| tier_g(scene.layout, scene.amounts, t)).sum();
    let needed = dowels_needed(above.outside.area());
    let here = Address::In(tier, At::Dowels);
    let bears = weight(grams);
    if grams <= 0.0 || scene.layout.tiers[tier].z[1] <= scene.layout.tiers[tier].z[0] {
        return None;
    }
    let with = serde_json::json!({ "count": needed, "diameter_mm": 8.0 });
    Some(match scene.document.tiers[tier].dowels {
        None => {
            let gives_way = found.iter().any(|own| {
                own.standing == Standing::Trouble
                    && matches!(own.place, Address::In(at, place) if at == tier && place.layer().is_some())
            });
            let tiers_above = scene.layout.tiers.len() - 1 - tier;
            let heavy = grams > HEAVY_G || tiers_above > 1;
            let (standing, words) = if heavy && !gives_way {
                (
                    Standing::Trouble,
                    Said::with(
                        format!("Tier {} carries {bears} without a dowel", tier + 1),
                        "crumb and cream sink or shift under so much.",
                    ),
                )
            } else if gives_way {
                (
                    Standing::Trouble,
                    Said::with(
                        format!("Nothing bears the {bears} above tier {}", tier + 1),
                        "its filling gives way.",
                    ),
                )
            } else {
                (
                    Standing::Care,
                    format!(
                        "Tier {} carries {bears} on its fillings alone; a knock or a warm hour shifts it.",
                        tier + 1
                    )
                    .into(),
                )
            };
            Finding::new(FindingCode::NoDowels, here, standing, words)
                .of(0.0, f64::from(needed), "dowels")
                .mended(Some(Mend::set(format!("Put in {needed} dowels of 8 mm"), here.to_string(), with)))
        }
        Some(own) if own.count < needed => {
            let words = Said::with(
                format!("{} dowels are few for a tier of {bears}", own.count),
                format!("{needed} share it."),
            );
            Finding::new(FindingCode::FewDowels, here, Standing::Care, words)
                .of(f64::from(own.count), f64::from(needed), "dowels")
                .mended(Some(Mend::set(format!("Put in {needed} dowels"), here.field("count"), needed)))
        }
        Some(own) => {
            let words = format!(
                "{} dowels carry the {bears} above. Whoever cuts it must know how many come out.",
                own.count
            );
            Finding::new(FindingCode::DowelsCarry, here, Standing::Holds, words).of(
                f64::from(own.count),
                f64::from(needed),
                "dowels",
            )
        }
    })
}
