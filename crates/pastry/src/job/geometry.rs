//! Jobs and the geometry a person sets for them.

use crate::formula::Fault;
use crate::rheology::History;
use crate::units::{Area, Dose, Force, GRAVITY, Length, Mass, Stress, SurfaceTemperature};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A drip down a cake's side.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct DripGeometry {
    /// Volume let go at the edge for one drip, ml. The length is nearly proportional to it.
    pub dose_ml: Dose,
    /// Shortest drip that pleases, mm.
    pub shortest_mm: Length,
    /// Longest drip that pleases, mm.
    pub longest_mm: Length,
    /// Temperature of the side it runs down, °C.
    pub side_temperature_c: SurfaceTemperature,
}

impl Default for DripGeometry {
    fn default() -> Self {
        DripGeometry {
            dose_ml: Dose::from_millilitres(0.9),
            shortest_mm: Length::from_millimetres(25.0),
            longest_mm: Length::from_millimetres(70.0),
            side_temperature_c: SurfaceTemperature::from_celsius(5.0),
        }
    }
}

/// A film poured over a cake.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct CoatGeometry {
    /// Thinnest film that covers, mm.
    pub thinnest_mm: Length,
    /// Thickest film that pleases, mm.
    pub thickest_mm: Length,
    /// Height of the side it runs down, mm.
    pub height_mm: Length,
    /// Temperature of that side, °C.
    pub side_temperature_c: SurfaceTemperature,
}

impl Default for CoatGeometry {
    fn default() -> Self {
        CoatGeometry {
            thinnest_mm: Length::from_millimetres(1.5),
            thickest_mm: Length::from_millimetres(4.0),
            height_mm: Length::from_millimetres(50.0),
            side_temperature_c: SurfaceTemperature::from_celsius(20.0),
        }
    }
}

/// A layer spread on a side with a knife, that must stay there.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct MaskGeometry {
    /// Thickness of the layer, mm.
    pub thickness_mm: Length,
    /// Push of the hand on the knife, N.
    pub knife_force_n: Force,
    /// Area of the knife in contact, cm².
    pub knife_area_cm2: Area,
}

impl Default for MaskGeometry {
    fn default() -> Self {
        MaskGeometry {
            thickness_mm: Length::from_millimetres(10.0),
            knife_force_n: Force::from_newtons(10.0),
            knife_area_cm2: Area::from_square_centimetres(45.0),
        }
    }
}

/// A layer between sponges, that must bear what stands on it and not tear the crumb.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct FillGeometry {
    /// Thickness of the filling, mm.
    pub thickness_mm: Length,
    /// Diameter of the cake, mm.
    pub diameter_mm: Length,
    /// What stands on it, g.
    pub load_above_g: Mass,
    /// Stress at which the crumb tears, Pa (assumed).
    pub crumb_strength_pa: Stress,
}

impl Default for FillGeometry {
    fn default() -> Self {
        FillGeometry {
            thickness_mm: Length::from_millimetres(10.0),
            diameter_mm: Length::from_millimetres(180.0),
            load_above_g: Mass::from_grams(2075.0),
            crumb_strength_pa: Stress::from_pascals(1500.0),
        }
    }
}

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
}

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
}

impl Job {
    /// Every job with its usual geometry, in the order of the page.
    pub fn usual() -> [Job; 4] {
        [
            Job::Drip(DripGeometry::default()),
            Job::Coat(CoatGeometry::default()),
            Job::Mask(MaskGeometry::default()),
            Job::Fill(FillGeometry::default()),
        ]
    }

    /// Its verb: "drip".
    pub fn verb(&self) -> &'static str {
        match self {
            Job::Drip(_) => "drip",
            Job::Coat(_) => "coat",
            Job::Mask(_) => "mask",
            Job::Fill(_) => "fill",
        }
    }

    /// What is compared with the window.
    pub fn measured(&self) -> Measured {
        match self {
            Job::Drip(_) => Measured::DripLengthMm,
            Job::Coat(_) => Measured::FilmMm,
            Job::Mask(_) | Job::Fill(_) => Measured::YieldStressPa,
        }
    }

    /// Histories in which the job is done, the usual one first.
    pub fn histories(&self) -> &'static [History] {
        match self {
            Job::Drip(_) | Job::Coat(_) => &[History::Fresh],
            Job::Mask(_) => &[History::Worked],
            Job::Fill(_) => &[History::Worked, History::Fresh],
        }
    }

    /// The window [low, high] of what is measured, in mm or Pa, for a cream of `density` kg/m³.
    ///
    /// * drip and coat: as the person set it.
    /// * mask: it stays when τ₀ > 1.5 ρ g h, and the hand can spread it when τ₀ < F/A.
    /// * fill: squeezed between plates it bears P when τ₀ > 1.5·3hP/(2R) (squeeze film of a yield
    ///   stress fluid, safety 1.5), and it does not tear the crumb when τ₀ is under its strength.
    pub fn window(&self, density: f64) -> [f64; 2] {
        match self {
            Job::Drip(drip) => [drip.shortest_mm.millimetres(), drip.longest_mm.millimetres()],
            Job::Coat(coat) => [coat.thinnest_mm.millimetres(), coat.thickest_mm.millimetres()],
            Job::Mask(mask) => mask_window(
                density,
                1e-3 * mask.thickness_mm.millimetres(),
                mask.knife_force_n.newtons(),
                1e-4 * mask.knife_area_cm2.square_centimetres(),
            ),
            Job::Fill(fill) => {
                let radius = 0.5e-3 * fill.diameter_mm.millimetres();
                let area = std::f64::consts::PI * radius * radius;
                let pressure = 1e-3 * fill.load_above_g.grams() * GRAVITY / area;
                let thickness = 1e-3 * fill.thickness_mm.millimetres();
                fill_window(thickness, radius, pressure, fill.crumb_strength_pa.pascals())
            }
        }
    }

    /// Faults of the geometry as such: limits that cross.
    pub fn faults(&self, path: &str) -> Vec<Fault> {
        let crossed = |low: Length, high: Length, name: &str, what: &str| {
            let (low, high) = (low.millimetres(), high.millimetres());
            (low >= high).then(|| {
                let message = format!("the {what} is from {low} to {high} mm: swap them, or widen one");
                Fault::new(format!("{path}.{name}"), "limits_crossed", message)
            })
        };
        match self {
            Job::Drip(drip) => crossed(drip.shortest_mm, drip.longest_mm, "shortest_mm", "length of a drip"),
            Job::Coat(coat) => crossed(coat.thinnest_mm, coat.thickest_mm, "thinnest_mm", "film"),
            Job::Mask(_) | Job::Fill(_) => None,
        }
        .into_iter()
        .collect()
    }
}

/// [1.5 ρ g h, F/A], Pa, for a layer of `thickness` m on a wall and a knife of `area` m².
pub fn mask_window(density: f64, thickness: f64, force: f64, area: f64) -> [f64; 2] {
    [1.5 * density * GRAVITY * thickness, force / area]
}

/// [1.5·3hP/(2R), tear], Pa, for a filling of `thickness` m under `pressure` Pa on a cake of `radius` m.
pub fn fill_window(thickness: f64, radius: f64, pressure: f64, tear: f64) -> [f64; 2] {
    [1.5 * 3.0 * thickness * pressure / (2.0 * radius), tear]
}
