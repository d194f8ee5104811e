//! Syrup in a sponge: against what its pores hold, and how far it stays off the coat.

use crate::job::jobs::SoakGeometry;
use crate::job::kind::Job;
use crate::number::{limit, two_digits};
use crate::sponge::Wetness;
use crate::stack::check::finding::{Finding, FindingCode, Mend, Said, Standing};
use crate::stack::check::scene::{Scene, mm};
use crate::stack::cream::Cream;
use crate::stack::document::Layer;
use crate::stack::place::Stuff;
use crate::units::{Length, Mass, Percent, Seconds};

/// Share of its depth that syrup spreads sideways under a dry rim (assumed).
const SIDEWAYS: f64 = 0.5;

/// Syrup: against what the pores hold, and how far it stays off the coat.
pub fn soak(scene: &Scene, at: usize, key: &str, cream: &Cream) -> Option<Finding> {
    let spot = &scene.layout.spots[at];
    let amount = scene.amounts[at].soak?;
    let Stuff::Bake(bake) = scene.layout.spots[at.checked_sub(1)?].stuff else { return None };
    let baked = scene.makings.baked(bake)?;
    let sponge = &baked.sponge;
    let density = cream.predictor.base.density;
    let g = amount.gram_per_gram;
    let capacity = sponge.capacity(density);
    let wetness = sponge.wetness(g, density);
    let percent = two_digits(100.0 * g);
    let on = format!(
        "{} g of {} on {} g of {}",
        two_digits(scene.amounts[at].grams),
        cream.name(),
        two_digits(amount.sponge_g),
        baked.bake.name
    );
    let job = Job::Soak(SoakGeometry {
        deepest_mm: mm(spot.thickness),
        shallowest_mm: Length::from_millimetres((0.25 * 10.0 * spot.thickness).max(Length::MIN)),
        time_s: Seconds::from_seconds(crate::stack::amount::SOAK_SECONDS),
        sponge_g: Mass::from_grams(amount.sponge_g.clamp(0.0, Mass::MAX)),
        on_sponge_percent: Percent::from_percent((100.0 * g).clamp(0.0, 100.0)),
        ..SoakGeometry::default()
    });
    let path = spot.field("gram_per_gram");
    let less = |to: f64| {
        let to = (100.0 * to).floor() / 100.0;
        Some(Mend::set(format!("Give it {} % of its weight", limit(100.0 * to)), path.clone(), to))
    };
    let finding = |code: FindingCode, standing, sentence: Said, edge: f64| {
        Finding::new(code, spot.address(), standing, sentence).of(100.0 * g, 100.0 * edge, "% of the sponge")
    };
    Some(
        match wetness {
            Wetness::Pools => {
                let sentence = Said::with(
                    format!("{on} pools"),
                    format!(
                        "{percent} % of its weight, and its pores hold {}.",
                        two_digits(100.0 * capacity)
                    ),
                );
                finding(FindingCode::SoakPools, Standing::Trouble, sentence, capacity)
                    .mended(less(sponge.drenched.min(capacity)))
            }
            Wetness::TooWet => {
                let sentence = Said::with(
                    format!("{on} comes apart"),
                    format!("{percent} %, and it stays whole up to {}.", two_digits(115.0 * sponge.drenched)),
                );
                finding(FindingCode::SoakTooWet, Standing::Trouble, sentence, 1.15 * sponge.drenched)
                    .mended(less(sponge.drenched))
            }
            Wetness::Dry => {
                let sentence = Said::with(
                    format!("{on} leaves it dry"),
                    format!("{percent} %, and a light soak is {}.", two_digits(100.0 * sponge.light)),
                );
                finding(FindingCode::SoakDry, Standing::Care, sentence, sponge.light)
                    .mended(less(sponge.light))
            }
            _ => {
                let Some(Layer::Sponge { soak: Some(soaking), .. }) = spot.layer(scene.document) else {
                    return None;
                };
                let rim = soaking.dry_rim_mm;
                let off = rim - SIDEWAYS * amount.depth_mm;
                let coated = scene.document.tiers[spot.tier].coat.is_some()
                    || scene.document.tiers[spot.tier].crumb_coat.is_some();
                if coated && off < 2.0 {
                    let wider = (rim + 3.0 - off).ceil();
                    let sentence = Said::with(
                        format!(
                            "Syrup in {} gets {} mm deep and to the coat",
                            baked.bake.name,
                            two_digits(amount.depth_mm)
                        ),
                        format!("its dry rim of {} mm is narrow.", limit(rim)),
                    );
                    let set = Mend::set(
                        format!("Leave a rim of {} mm dry", limit(wider)),
                        spot.field("dry_rim_mm"),
                        wider,
                    );
                    return Some(
                        Finding::new(FindingCode::SoakReachesCoat, spot.address(), Standing::Care, sentence)
                            .of(off, 2.0, "mm")
                            .mended(Some(set)),
                    );
                }
                let word = match wetness {
                    Wetness::Light => "lightly soaked",
                    Wetness::Moist => "moist",
                    _ => "drenched and whole",
                };
                let stays = if coated {
                    format!(", and stays off the coat by {} mm", two_digits(off))
                } else {
                    String::new()
                };
                let sentence = Said::with(
                    format!("{} is {word}", baked.bake.name),
                    format!("{percent} % of its weight, {} mm deep{stays}.", two_digits(amount.depth_mm)),
                );
                finding(FindingCode::SoakRight, Standing::Holds, sentence, capacity)
            }
        }
        .on_the_bench(
            scene
                .bench(key, cream, job, cream.worked_c())
                .filter(|_| matches!(wetness, Wetness::Pools | Wetness::TooWet)),
        ),
    )
}
