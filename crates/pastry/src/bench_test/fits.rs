//! Which test fits a cream as it is now, and why another does not.

use crate::bench_test::guide::{Guide, guide};
use crate::bench_test::reading::{
    DRIP_TIMES, SINKS, at_spout, of_slump, of_spoon, of_spread, of_tilt, thin_mm,
};
use crate::bench_test::test::{BenchTest, BenchTestKind};
use crate::number::two_digits;
use crate::rheology::consistency::{Consistency, History};
use serde::Serialize;
use utoipa::ToSchema;

/// A spoon says something of what is within so many times of its limit.
const SPOON_TIMES: f64 = 4.0;
/// What a rod sinks into, Pa.
const ROD_PA: [f64; 2] = [200.0, 30_000.0];
/// A layer holds still, or is gone, outside these angles, degrees.
const TILTS: [f64; 2] = [5.0, 60.0];
/// Share of the stress at the wall of a spout that the yield stress may be.
const RUNS: f64 = 0.2;
/// Air that is worth weighing, share of the volume.
const AIR: f64 = 0.02;

/// Whether a test fits, with what it is done with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = BenchFit)]
pub struct Fit {
    /// Which.
    pub kind: BenchTestKind,
    /// Whether it says something of this cream now.
    pub fits: bool,
    /// What it would show, or why it says nothing and which test does.
    pub why: String,
    /// With the usual plate, ring, spoon.
    pub usual: BenchTest,
    /// How it is done.
    pub guide: Guide,
}

/// With what each is usually done.
fn usual(kind: BenchTestKind) -> BenchTest {
    match kind {
        BenchTestKind::PlateSpread => BenchTest::PlateSpread { ml: 50.0, across_mm: 120.0 },
        BenchTestKind::RingSlump => BenchTest::RingSlump { high_mm: 50.0, sank_mm: 15.0 },
        BenchTestKind::Tilt => BenchTest::Tilt { thick_mm: 10.0, degrees: 20.0 },
        BenchTestKind::SpoonFall => BenchTest::SpoonFall { ml: 15.0, cm2: 20.0, fell: true },
        BenchTestKind::Rod => BenchTest::Rod { wide_mm: 10.0, grams: 100.0 },
        BenchTestKind::DripLength => BenchTest::DripLength { dose_ml: 0.9, side_c: 5.0, long_mm: 45.0 },
        BenchTestKind::CupFlow => {
            BenchTest::CupFlow { ml: 100.0, spout_mm: 8.0, long_mm: 40.0, head_mm: 100.0, seconds: 20.0 }
        }
        BenchTestKind::HeldWeight => BenchTest::HeldWeight { ml: 100.0, grams: 100.0 },
    }
}

/// What a test shows of yield stress, Pa, from and to.
fn shows(kind: BenchTestKind, density: f64) -> Option<[f64; 2]> {
    let ml = 50.0;
    match kind {
        BenchTestKind::PlateSpread => Some([0.3, of_spread(density, 1e-6 * ml, 1e-3 * thin_mm(ml))]),
        BenchTestKind::RingSlump => {
            Some([SINKS[1], SINKS[0]].map(|share| of_slump(density, 0.05, 0.05 * share)))
        }
        BenchTestKind::Tilt => Some(TILTS.map(|degrees| of_tilt(density, 0.01, degrees))),
        BenchTestKind::Rod => Some(ROD_PA),
        BenchTestKind::SpoonFall => {
            let limit = of_spoon(density, 1.5e-5, 2e-3);
            Some([limit / SPOON_TIMES, limit * SPOON_TIMES])
        }
        BenchTestKind::DripLength | BenchTestKind::CupFlow | BenchTestKind::HeldWeight => None,
    }
}

/// Every test, with whether it says something of a cream as it stands, those that do first.
///
/// # Arguments
/// * `density`: with its air, kg/m³; `air`: volume share; `drips`: whether its family is let down a side.
pub fn fits(now: &Consistency, density: f64, air: f64, history: History, drips: bool) -> Vec<Fit> {
    let pa = now.yield_stress_pa;
    let by_yield: Vec<BenchTestKind> = BenchTestKind::ALL
        .iter()
        .copied()
        .filter(|kind| shows(*kind, density).is_some_and(|[from, to]| (from..=to).contains(&pa)))
        .collect();
    // The one that stands furthest from its ends says most.
    let inside = |kind: &BenchTestKind| {
        shows(*kind, density).map_or(0.0, |[from, to]| (pa / from).ln().min((to / pa).ln()))
    };
    let best = by_yield.iter().copied().max_by(|a, b| inside(a).total_cmp(&inside(b)));
    let instead = || best.map_or(String::new(), |kind| format!(" Use the {}.", guide(kind).name));
    let one = |kind: BenchTestKind| {
        let (fits, why) = match kind {
            BenchTestKind::DripLength => match (drips, history) {
                (false, _) => (false, "This is not let down a side.".to_owned()),
                (true, History::Fresh) => (
                    true,
                    format!(
                        "It says both, stiffness and flow: from {} to {} times of what is predicted.",
                        two_digits(DRIP_TIMES[0]),
                        two_digits(DRIP_TIMES[1])
                    ),
                ),
                (true, _) => (false, format!("What has set does not drip.{}", instead())),
            },
            BenchTestKind::CupFlow => {
                let wall = at_spout(density, 0.1, 0.008, 0.04);
                if pa > RUNS * wall {
                    let words = format!(
                        "About {} Pa does not run through a spout by its own weight.{}",
                        two_digits(pa),
                        instead()
                    );
                    (false, words)
                } else {
                    (true, "It says how it flows.".to_owned())
                }
            }
            BenchTestKind::HeldWeight if air > AIR => (true, "It says how much air is in it.".to_owned()),
            BenchTestKind::HeldWeight => (false, "There is no air in it to weigh.".to_owned()),
            BenchTestKind::SpoonFall => match shows(kind, density) {
                Some([from, to]) if (from..=to).contains(&pa) => {
                    (true, "It says yes or no, and that is something here.".to_owned())
                }
                Some([from, _]) if pa < from => (false, format!("This falls in any case.{}", instead())),
                _ => (false, format!("This hangs in any case.{}", instead())),
            },
            _ => match shows(kind, density) {
                Some([from, to]) if (from..=to).contains(&pa) => (
                    true,
                    format!(
                        "It shows {} to {} Pa; this is about {}.",
                        two_digits(from),
                        two_digits(to),
                        two_digits(pa)
                    ),
                ),
                Some([from, to]) => {
                    let side = if pa < from { "too loose for it" } else { "too stiff for it" };
                    let words = format!(
                        "It shows {} to {} Pa; about {} Pa is {side}.{}",
                        two_digits(from),
                        two_digits(to),
                        two_digits(pa),
                        instead()
                    );
                    (false, words)
                }
                None => (false, String::new()),
            },
        };
        Fit { kind, fits, why, usual: usual(kind), guide: guide(kind) }
    };
    let mut all: Vec<Fit> = BenchTestKind::ALL.iter().copied().map(one).collect();
    all.sort_by(|a, b| b.fits.cmp(&a.fits).then_with(|| inside(&b.kind).total_cmp(&inside(&a.kind))));
    all
}
