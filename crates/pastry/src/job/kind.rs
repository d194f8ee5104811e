//! The jobs a cream can have: what is measured for each, in what state, and the window its geometry asks.

use crate::fault::Fault;
use crate::formula::{Family, System};
use crate::job::geometry::*;
use crate::rheology::{History, Options};
use crate::units::{GRAVITY, Length};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use utoipa::ToSchema;

/// A job with its geometry.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Job {
    /// Runs down a side in drips.
    Drip(DripGeometry),
    /// Covers a side in a film when poured.
    Coat(CoatGeometry),
    /// Spreads on a side and stays.
    Mask(MaskGeometry),
    /// Bears the layers above.
    Fill(FillGeometry),
    /// Goes through a nozzle and stands.
    Pipe(PipeGeometry),
    /// Stands on a plate, set.
    Set(SetGeometry),
    /// Is eaten with a spoon.
    Spoon(SpoonGeometry),
    /// Is drunk by a sponge.
    Soak(SoakGeometry),
    /// Whips up.
    Whip(WhipGeometry),
    /// Coats the spoon.
    Nappe(NappeGeometry),
}

/// Thinner than this, cream does not keep bubbles apart, Pa·s at 10 /s (common practice).
pub const THINNEST_TO_WHIP: f64 = 0.02;

/// What is measured to judge a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Measured {
    /// Length of a drip, mm.
    DripLengthMm,
    /// Thickness of a film, mm.
    FilmMm,
    /// Yield stress, Pa.
    YieldStressPa,
    /// Sag under its own weight, per cent of its height.
    SagPercent,
    /// Depth a sponge drinks, mm.
    DepthMm,
    /// Viscosity at 10 /s, Pa·s.
    ViscosityPaS,
}

/// What the map's upright axis counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MapAxis {
    /// Yield stress, Pa.
    YieldStressPa,
    /// Viscosity at 10 /s, Pa·s: for what runs.
    ViscosityPaS,
}

impl Job {
    /// Every job with its usual geometry, in the order of the page.
    pub fn usual() -> [Job; 10] {
        [
            Job::Drip(DripGeometry::default()),
            Job::Coat(CoatGeometry::default()),
            Job::Mask(MaskGeometry::default()),
            Job::Fill(FillGeometry::default()),
            Job::Pipe(PipeGeometry::default()),
            Job::Set(SetGeometry::default()),
            Job::Spoon(SpoonGeometry::default()),
            Job::Soak(SoakGeometry::default()),
            Job::Whip(WhipGeometry::default()),
            Job::Nappe(NappeGeometry::default()),
        ]
    }

    /// Its word, as on the wire and on the switch: "drip".
    pub fn word(&self) -> &'static str {
        match self {
            Job::Drip(_) => "drip",
            Job::Coat(_) => "coat",
            Job::Mask(_) => "mask",
            Job::Fill(_) => "fill",
            Job::Pipe(_) => "pipe",
            Job::Set(_) => "set",
            Job::Spoon(_) => "spoon",
            Job::Soak(_) => "soak",
            Job::Whip(_) => "whip",
            Job::Nappe(_) => "nappe",
        }
    }

    /// What it is to do, after "to": "drip", "cut clean", "eat with a spoon".
    pub fn verb(&self) -> &'static str {
        match self {
            Job::Set(set) => set.grade.verb(),
            Job::Spoon(_) => "eat with a spoon",
            Job::Nappe(_) => "coat the spoon",
            other => other.word(),
        }
    }

    /// What is compared with the window.
    pub fn measured(&self) -> Measured {
        match self {
            Job::Drip(_) => Measured::DripLengthMm,
            Job::Coat(_) | Job::Nappe(_) => Measured::FilmMm,
            Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_) => Measured::YieldStressPa,
            Job::Set(_) => Measured::SagPercent,
            Job::Soak(_) => Measured::DepthMm,
            Job::Whip(_) => Measured::ViscosityPaS,
        }
    }

    /// What the map counts for this job of this family.
    pub fn axis(&self, family: Family) -> MapAxis {
        match self {
            Job::Soak(_) | Job::Whip(_) | Job::Nappe(_) => MapAxis::ViscosityPaS,
            _ if family.traits().thin => MapAxis::ViscosityPaS,
            _ => MapAxis::YieldStressPa,
        }
    }

    /// Histories in which the job is done by this family, the usual one first.
    pub fn histories(&self, family: Family) -> &'static [History] {
        use History::{Fresh, Rested, Worked};
        match self {
            Job::Drip(_) | Job::Coat(_) | Job::Nappe(_) => &[Fresh],
            Job::Set(_) | Job::Whip(_) | Job::Soak(_) => &[Rested],
            Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_) => match family.traits().system {
                System::Ganache => match self {
                    Job::Mask(_) => &[Worked],
                    Job::Spoon(_) => &[Rested, Worked, Fresh],
                    _ => &[Worked, Fresh],
                },
                System::Buttercream | System::MeringueButtercream | System::Mousseline | System::Fat => {
                    &[Fresh, Worked, Rested]
                }
                System::WhippedCream if family != Family::StabilisedCream => &[Fresh, Rested],
                System::Custard => &[Rested, Worked],
                _ => &[Rested, Fresh, Worked],
            },
        }
    }

    /// The process as this job asks it: whipping is judged on the liquid cream.
    pub fn options(&self, options: Options) -> Options {
        match self {
            Job::Whip(_) => Options { overrun: Some(0.0), whip: Some(0.0), ..options },
            _ => options,
        }
    }

    /// The window [low, high] of what is measured, for a cream of `density` kg/m³.
    ///
    /// * drip, coat, spoon, soak, nappe: as the person set it.
    /// * mask, fill, pipe: [`mask_window`], [`fill_window`], [`pipe_window`].
    /// * set: sag up to the grade's limit.
    /// * whip: from 0.02 Pa·s at 10 /s before whipping (common practice) to what the person set.
    pub fn window(&self, density: f64) -> [f64; 2] {
        match self {
            Job::Drip(drip) => [drip.shortest_mm.millimetres(), drip.longest_mm.millimetres()],
            Job::Coat(coat) => [coat.thinnest_mm.millimetres(), coat.thickest_mm.millimetres()],
            Job::Nappe(nappe) => [nappe.thinnest_mm.millimetres(), nappe.thickest_mm.millimetres()],
            Job::Soak(soak) => [soak.shallowest_mm.millimetres(), soak.deepest_mm.millimetres()],
            Job::Spoon(spoon) => [spoon.softest_pa.pascals(), spoon.firmest_pa.pascals()],
            Job::Set(set) => [0.0, 100.0 * set.grade.most_sag()],
            Job::Whip(whip) => [THINNEST_TO_WHIP, whip.thickest_pa_s.pascal_seconds()],
            Job::Mask(mask) => mask_window(
                density,
                1e-3 * mask.thickness_mm.millimetres(),
                mask.knife_force_n.newtons(),
                1e-4 * mask.knife_area_cm2.square_centimetres(),
            ),
            Job::Fill(fill) => {
                let radius = 0.5e-3 * fill.diameter_mm.millimetres();
                let pressure = 1e-3 * fill.load_above_g.grams() * GRAVITY / (PI * radius * radius);
                let thickness = 1e-3 * fill.thickness_mm.millimetres();
                fill_window(thickness, radius, pressure, fill.crumb_strength_pa.pascals())
            }
            Job::Pipe(pipe) => pipe_window(
                density,
                1e-3 * pipe.height_mm.millimetres(),
                pipe.hand_force_n.newtons() / (1e-4 * pipe.hand_area_cm2.square_centimetres()),
                [
                    0.5e-3 * pipe.nozzle_mm.millimetres(),
                    1e-3 * pipe.nozzle_length_mm.millimetres(),
                    0.5e-3 * pipe.bag_mm.millimetres(),
                ],
            ),
        }
    }

    /// Faults of the geometry as such: limits that cross.
    pub fn faults(&self, path: &str) -> Vec<Fault> {
        let crossed = |low: f64, high: f64, name: &str, what: &str, unit: &str| {
            (low >= high).then(|| {
                let message = format!("the {what} is from {low} to {high} {unit}: swap them, or widen one");
                Fault::new(format!("{path}.{name}"), "limits_crossed", message)
            })
        };
        let lengths = |low: Length, high: Length, name: &str, what: &str| {
            crossed(low.millimetres(), high.millimetres(), name, what, "mm")
        };
        match self {
            Job::Drip(drip) => lengths(drip.shortest_mm, drip.longest_mm, "shortest_mm", "length of a drip"),
            Job::Coat(coat) => lengths(coat.thinnest_mm, coat.thickest_mm, "thinnest_mm", "film"),
            Job::Nappe(nappe) => lengths(nappe.thinnest_mm, nappe.thickest_mm, "thinnest_mm", "film"),
            Job::Soak(soak) => lengths(soak.shallowest_mm, soak.deepest_mm, "shallowest_mm", "depth"),
            Job::Spoon(spoon) => crossed(
                spoon.softest_pa.pascals(),
                spoon.firmest_pa.pascals(),
                "softest_pa",
                "softness",
                "Pa",
            ),
            Job::Pipe(pipe) => {
                let (nozzle, bag) = (pipe.nozzle_mm.millimetres(), pipe.bag_mm.millimetres());
                (nozzle >= bag).then(|| {
                    let message =
                        format!("a nozzle of {nozzle} mm does not fit a bag of {bag} mm: a wider bag");
                    Fault::new(format!("{path}.nozzle_mm"), "limits_crossed", message)
                })
            }
            Job::Mask(_) | Job::Fill(_) | Job::Set(_) | Job::Whip(_) => None,
        }
        .into_iter()
        .collect()
    }
}

/// [1.5 ρ g h, F/A], Pa, for a layer of `thickness` m on a wall and a knife of `area` m²: it stays when the
/// yield stress beats its weight with safety 1.5, and the hand can spread it below the push of the knife.
pub fn mask_window(density: f64, thickness: f64, force: f64, area: f64) -> [f64; 2] {
    [1.5 * density * GRAVITY * thickness, force / area]
}

/// [1.5·3hP/(2R), tear], Pa, for a filling of `thickness` m under `pressure` Pa on a cake of `radius` m:
/// squeeze film of a yield stress fluid with safety 1.5; above its strength the crumb tears.
pub fn fill_window(thickness: f64, radius: f64, pressure: f64, tear: f64) -> [f64; 2] {
    [1.5 * 3.0 * thickness * pressure / (2.0 * radius), tear]
}

/// [1.5 ρ g H/√3, p/(2 L/R + 2√3 ln(R_bag/R))], Pa: a piece of `height` m stands by its own strength, and
/// `pressure` Pa of the hand pushes it through the cone of the bag and a nozzle of radius, length and bag
/// radius `nozzle`, m, as a plastic.
pub fn pipe_window(density: f64, height: f64, pressure: f64, [radius, length, bag]: [f64; 3]) -> [f64; 2] {
    let root3 = 3f64.sqrt();
    [
        1.5 * density * GRAVITY * height / root3,
        pressure / (2.0 * length / radius + 2.0 * root3 * (bag / radius).ln()),
    ]
}
