//! What a test says of a cream: yield stress or viscosity, with how well a ruler, a clock and a cup are read in it.

use crate::bench_test::test::BenchTest;
use crate::code::codes;
use crate::job::physics::drip::DripCourse;
use crate::number::two_digits;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::Consistency;
use crate::rheology::kernel::Prepared;
use crate::units::GRAVITY;
use serde::Serialize;
use std::f64::consts::PI;
use utoipa::ToSchema;

/// A ruler on something soft, mm, and the mean of two ways across (assumed).
const RULER_MM: f64 = 1.5;
/// A cup filled level, share of its volume (assumed).
const CUP: f64 = 0.03;
/// A dose from a spoon or a bag, share (assumed).
const DOSE: f64 = 0.10;
/// An angle read off a wall, degrees (assumed).
const ANGLE_DEG: f64 = 2.0;
/// A hand on a clock, s (assumed).
const CLOCK_S: f64 = 0.4;
/// A kitchen scale, g (assumed).
const SCALE_G: f64 = 1.0;
/// How well the density is known, share (assumed: the model's own).
const DENSITY: f64 = 0.03;
/// How far a formula itself may be off, standard deviation of ln: ideal plates, rings and rods are not of this world (assumed).
const PLATE: f64 = 0.12;
const RING: f64 = 0.15;
const TILT: f64 = 0.15;
const ROD: f64 = 0.25;
const DRIP: f64 = 0.15;
const FUNNEL: f64 = 0.12;
/// A spoon says which side of its limit a cream is on: how sharply, standard deviation of ln (assumed).
const SPOON: f64 = 0.35;
/// How far a drip can be from what was predicted, times: past that it is another cream.
pub const DRIP_TIMES: [f64; 2] = [0.05, 20.0];

codes! {
    /// What a test speaks of.
    Says {
        /// Yield stress, Pa.
        YieldStress = "yield_stress_pa",
        /// Plastic viscosity, Pa·s.
        Viscosity = "viscosity_pa_s",
        /// By what yield stress and viscosity are multiplied, both alike.
        Both = "both",
        /// Density, kg/m³.
        Density = "density_kg_m3",
    }
}

codes! {
    /// Whether a reading is a value, or one side of it.
    ReadSide {
        /// It is the value.
        Is = "is",
        /// It is more than that.
        Above = "above",
        /// It is less than that.
        Below = "below",
    }
}

/// What follows from a test.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = BenchReading)]
pub struct Reading {
    /// What it speaks of.
    pub says: Says,
    /// How much that is, in the unit of what it speaks of; times the prediction for both alike.
    pub value: f64,
    /// Whether it is that, or more, or less.
    pub side: ReadSide,
    /// Standard deviation of its logarithm: what ruler, clock, cup and formula are off.
    pub ln_sigma: f64,
    /// Why it says little: outside what the test shows; none where it is inside.
    pub outside: Option<String>,
}

/// What is known of a cream when it is tested.
#[derive(Debug, Clone, Copy)]
pub struct Known<'a> {
    /// As it is predicted at the temperature of the test.
    pub now: &'a Consistency,
    /// The cream prepared, for what is followed on its way down a side.
    pub prepared: &'a Prepared,
    /// Its temperature, °C.
    pub t_c: f64,
    /// How it came to that, while fresh.
    pub clock: Clock,
}

impl Known<'_> {
    pub(crate) fn density(&self) -> f64 {
        self.prepared.density
    }
}

/// Yield stress of what spread on a plate, Pa: 225 ρ g V² / (128 π² R⁵), Roussel and Coussot 2005 (J. Rheol. 49, 705).
///
/// # Arguments
/// * `density`: kg/m³; `volume`: m³; `across`: m.
pub fn of_spread(density: f64, volume: f64, across: f64) -> f64 {
    225.0 * density * GRAVITY * volume * volume / (128.0 * PI * PI * (0.5 * across).powi(5))
}

/// How far a ring sinks, share of its height, for a yield stress over ρ g H: 1 − 2x (1 − ln 2x), Pashias, Boger, Summers and
/// Glenister 1996 (J. Rheol. 40, 1179; from memory).
pub fn sunk(x: f64) -> f64 {
    let x = x.clamp(1e-6, 0.5);
    1.0 - 2.0 * x * (1.0 - (2.0 * x).ln())
}

/// Yield stress of what sank in a ring, Pa: the formula of [`sunk`] solved by bisection.
///
/// # Arguments
/// * `density`: kg/m³; `high`: of the ring, m; `sank`: m.
pub fn of_slump(density: f64, high: f64, sank: f64) -> f64 {
    let share = (sank / high).clamp(0.0, 1.0);
    let (mut low, mut top) = (1e-4, 0.4999);
    for _ in 0..60 {
        let x = 0.5 * (low + top);
        // The firmer, the less it sinks.
        if sunk(x) > share { low = x } else { top = x }
    }
    0.5 * (low + top) * density * GRAVITY * high
}

/// Yield stress of a layer that moves at an angle, Pa: ρ g h sin θ (a plane layer on a slope).
pub fn of_tilt(density: f64, thick: f64, degrees: f64) -> f64 {
    density * GRAVITY * thick * degrees.to_radians().sin()
}

/// Yield stress at which a volume hangs on a spoon, Pa: ρ g V / A.
pub fn of_spoon(density: f64, volume: f64, area: f64) -> f64 {
    density * GRAVITY * volume / area
}

/// Yield stress under a flat rod that sinks slowly to about its width, Pa: M g / (6 π d²/4); the six is of deep penetration of a
/// plastic solid (assumed).
pub fn of_rod(wide: f64, kg: f64) -> f64 {
    kg * GRAVITY / (6.0 * 0.25 * PI * wide * wide)
}

/// Stress at the wall of a spout, Pa: ρ g h d / (4 L).
pub fn at_spout(density: f64, head: f64, spout: f64, long: f64) -> f64 {
    density * GRAVITY * head * spout / (4.0 * long)
}

/// Plastic viscosity of what ran through a spout, Pa·s: Buckingham and Reiner's law of a Bingham fluid in a pipe, π R⁴ ΔP/(8 L Q)
/// (1 − 4x/3 + x⁴/3) with x the yield stress over the stress at the wall; Poiseuille's where there is none.
///
/// # Arguments
/// * `density`: kg/m³; `head`, `spout`, `long`: m; `flow`: m³/s; `yield_pa`: Pa.
pub fn of_flow(density: f64, head: f64, spout: f64, long: f64, flow: f64, yield_pa: f64) -> f64 {
    let x = (yield_pa / at_spout(density, head, spout, long)).clamp(0.0, 1.0);
    let open = 1.0 - 4.0 * x / 3.0 + x.powi(4) / 3.0;
    PI * (0.5 * spout).powi(4) * density * GRAVITY * head / (8.0 * long * flow) * open
}

/// Least width of a spread that is still thin, mm: 80 for 50 mL.
pub fn thin_mm(ml: f64) -> f64 {
    80.0 * (ml / 50.0).cbrt()
}

/// What of its height a ring may sink to say something.
pub const SINKS: [f64; 2] = [0.05, 0.85];

fn root(all: &[f64]) -> f64 {
    all.iter().map(|own| own * own).sum::<f64>().sqrt()
}

/// What follows from a test of a cream.
///
/// A number that cannot have been read has no meaning here: [`BenchTest::faults`] says what is wrong with it first.
pub fn read(test: &BenchTest, known: &Known<'_>) -> Reading {
    let rho = known.density();
    let is = |says: Says, value: f64, ln_sigma: f64, outside: Option<String>| Reading {
        says,
        value,
        side: ReadSide::Is,
        ln_sigma,
        outside,
    };
    match *test {
        BenchTest::PlateSpread { ml, across_mm } => {
            let value = of_spread(rho, 1e-6 * ml, 1e-3 * across_mm);
            let least = thin_mm(ml);
            let outside = (across_mm < least).then(|| {
                format!(
                    "{ml:.0} mL that lie {across_mm:.0} mm wide are no thin sheet: the plate says something from {least:.0} mm on. \
                     Use a ring."
                )
            });
            let sigma = root(&[2.0 * CUP, 5.0 * RULER_MM / across_mm, DENSITY, PLATE]);
            is(Says::YieldStress, value, sigma, outside)
        }
        BenchTest::RingSlump { high_mm, sank_mm } => {
            let at = |sank: f64| of_slump(rho, 1e-3 * high_mm, 1e-3 * sank.clamp(0.0, high_mm));
            let share = sank_mm / high_mm;
            let outside = if share < SINKS[0] {
                Some("It hardly sank: the ring says only that it is firmer. Use the rod.".to_owned())
            } else if share > SINKS[1] {
                Some("It ran flat: the ring says only that it is looser. Use the plate.".to_owned())
            } else {
                None
            };
            let by_ruler = 0.5 * (at(sank_mm - RULER_MM) / at(sank_mm + RULER_MM)).ln();
            is(Says::YieldStress, at(sank_mm), root(&[by_ruler, DENSITY, RING]), outside)
        }
        BenchTest::Tilt { thick_mm, degrees } => {
            let value = of_tilt(rho, 1e-3 * thick_mm, degrees);
            let by_angle = ANGLE_DEG.to_radians() / degrees.to_radians().tan().max(0.05);
            let sigma = root(&[0.5 * RULER_MM / thick_mm, by_angle, DENSITY, TILT]);
            is(Says::YieldStress, value, sigma, None)
        }
        BenchTest::SpoonFall { ml, cm2, fell } => Reading {
            side: if fell { ReadSide::Below } else { ReadSide::Above },
            ..is(Says::YieldStress, of_spoon(rho, 1e-6 * ml, 1e-4 * cm2), root(&[SPOON, 2.0 * CUP]), None)
        },
        BenchTest::Rod { wide_mm, grams } => {
            let value = of_rod(1e-3 * wide_mm, 1e-3 * grams);
            let outside = (value < 200.0)
                .then(|| format!("About {} Pa is too soft for a rod: use a ring.", two_digits(value)));
            is(Says::YieldStress, value, root(&[ROD, SCALE_G / grams, 0.5 / wide_mm]), outside)
        }
        BenchTest::DripLength { dose_ml, side_c, long_mm } => {
            let solve = |dose_ml: f64, long_mm: f64| times_of_drip(known, dose_ml, side_c, long_mm);
            let value = solve(dose_ml, long_mm);
            let ln = |a: f64, b: f64| 0.5 * (a / b).ln().abs();
            let by_ruler = ln(solve(dose_ml, long_mm - RULER_MM), solve(dose_ml, long_mm + RULER_MM));
            let by_dose = ln(solve(dose_ml * (1.0 + DOSE), long_mm), solve(dose_ml * (1.0 - DOSE), long_mm));
            let at_end = value <= DRIP_TIMES[0] * 1.01 || value >= DRIP_TIMES[1] * 0.99;
            let outside = at_end.then(|| {
                "That drip is of another cream than this: look at what went in, and measure again.".to_owned()
            });
            is(Says::Both, value, root(&[by_ruler, by_dose, DRIP]), outside)
        }
        BenchTest::CupFlow { ml, spout_mm, long_mm, head_mm, seconds } => {
            let (spout, long, head) = (1e-3 * spout_mm, 1e-3 * long_mm, 1e-3 * head_mm);
            let yield_pa = known.now.yield_stress_pa;
            let value = of_flow(rho, head, spout, long, 1e-6 * ml / seconds, yield_pa);
            let x = yield_pa / at_spout(rho, head, spout, long);
            // Speed in the spout over what it can be there: inertia takes a part of the head that nobody counts here.
            let speed = 1e-6 * ml / seconds / (0.25 * PI * spout * spout);
            let of_head = speed * speed / (GRAVITY * head);
            let outside = if x > 0.2 {
                Some(
                    "It has too much body to run through that spout by its own weight: use the plate."
                        .to_owned(),
                )
            } else if of_head > 0.2 {
                Some("It runs too fast for the clock to tell: take a narrower or a longer spout.".to_owned())
            } else {
                None
            };
            let sigma = root(&[CUP, CLOCK_S / seconds, 4.0 * 0.1 / spout_mm, 0.05, x, FUNNEL]);
            is(Says::Viscosity, value, sigma, outside)
        }
        BenchTest::HeldWeight { ml, grams } => {
            let value = 1e-3 * grams / (1e-6 * ml);
            is(Says::Density, value, root(&[CUP, SCALE_G / grams]), None)
        }
    }
}

/// By what yield stress and viscosity are multiplied for a drip to be as long as it was read.
fn times_of_drip(known: &Known<'_>, dose_ml: f64, side_c: f64, long_mm: f64) -> f64 {
    let course = DripCourse::new(known.prepared, known.t_c, side_c, dose_ml, known.clock);
    let [mut low, mut top] = DRIP_TIMES.map(f64::ln);
    for _ in 0..40 {
        let middle = 0.5 * (low + top);
        let times = middle.exp();
        // The firmer, the shorter.
        if course.length_mm(times, times) > long_mm { low = middle } else { top = middle }
    }
    (0.5 * (low + top)).exp()
}

/// How full of air something is by what it weighs: its volume over what it is without air, less one, per cent.
pub fn overrun_percent(density_without_air: f64, density: f64) -> f64 {
    100.0 * (density_without_air / density - 1.0)
}
