//! The geometry a person sets for a job. The defaults are assumed.

use crate::units::{
    Area, Dose, Force, Length, Mass, Percent, Seconds, Stress, SurfaceTemperature, Temperature, Viscosity,
};
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

/// Something piped that must stand, through a nozzle a hand can push it through.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct PipeGeometry {
    /// Height of the piped piece, mm.
    pub height_mm: Length,
    /// Opening of the nozzle, mm.
    pub nozzle_mm: Length,
    /// Length of the nozzle, mm.
    pub nozzle_length_mm: Length,
    /// Push of the hand on the bag, N.
    pub hand_force_n: Force,
    /// Area of the hand on the bag, cm².
    pub hand_area_cm2: Area,
    /// Width of the bag above the nozzle, mm.
    pub bag_mm: Length,
}

impl Default for PipeGeometry {
    fn default() -> Self {
        PipeGeometry {
            height_mm: Length::from_millimetres(30.0),
            nozzle_mm: Length::from_millimetres(10.0),
            nozzle_length_mm: Length::from_millimetres(15.0),
            hand_force_n: Force::from_newtons(60.0),
            hand_area_cm2: Area::from_square_centimetres(28.0),
            bag_mm: Length::from_millimetres(60.0),
        }
    }
}

/// How firmly something set must stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SetGrade {
    /// Trembles, and stays whole.
    Wobble,
    /// Turns out of its mould.
    Firm,
    /// Cuts with a clean edge.
    CleanSlice,
}

impl SetGrade {
    /// Most it may sag under its own weight, share of its height.
    pub fn most_sag(self) -> f64 {
        match self {
            SetGrade::Wobble => 0.30,
            SetGrade::Firm => 0.10,
            SetGrade::CleanSlice => 0.05,
        }
    }

    /// What it is to do.
    pub fn verb(self) -> &'static str {
        match self {
            SetGrade::Wobble => "stand with a wobble",
            SetGrade::Firm => "turn out",
            SetGrade::CleanSlice => "cut clean",
        }
    }
}

/// Something set that stands on a plate.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SetGeometry {
    /// Height of the piece, mm.
    pub height_mm: Length,
    /// How firm it must be.
    pub grade: SetGrade,
}

impl Default for SetGeometry {
    fn default() -> Self {
        SetGeometry { height_mm: Length::from_millimetres(45.0), grade: SetGrade::Firm }
    }
}

/// Something eaten with a spoon from a glass.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SpoonGeometry {
    /// Softest that still mounds, Pa.
    pub softest_pa: Stress,
    /// Firmest that still melts, Pa.
    pub firmest_pa: Stress,
}

impl Default for SpoonGeometry {
    fn default() -> Self {
        SpoonGeometry { softest_pa: Stress::from_pascals(60.0), firmest_pa: Stress::from_pascals(900.0) }
    }
}

/// How sweet a soak is meant to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Richness {
    /// 25 to 35 °Bx: moistens.
    Light,
    /// 45 to 57 °Bx: sweetens and keeps.
    Rich,
    /// Whatever it is.
    Any,
}

impl Richness {
    /// Its window, °Bx (common practice).
    pub fn window(self) -> Option<[f64; 2]> {
        match self {
            Richness::Light => Some([25.0, 35.0]),
            Richness::Rich => Some([45.0, 57.0]),
            Richness::Any => None,
        }
    }
}

/// A syrup that a sponge drinks.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SoakGeometry {
    /// Least depth it should reach, mm.
    pub shallowest_mm: Length,
    /// Greatest depth before it runs to the board, mm.
    pub deepest_mm: Length,
    /// Time it has, s.
    pub time_s: Seconds,
    /// How sweet it is meant to be.
    pub richness: Richness,
    /// Sponge to be soaked, g.
    pub sponge_g: Mass,
    /// Syrup on sponge, per cent: 30 light, 45 medium, 60 wet (common practice).
    pub on_sponge_percent: Percent,
}

impl Default for SoakGeometry {
    fn default() -> Self {
        SoakGeometry {
            shallowest_mm: Length::from_millimetres(6.0),
            deepest_mm: Length::from_millimetres(25.0),
            time_s: Seconds::from_seconds(120.0),
            richness: Richness::Any,
            sponge_g: Mass::from_grams(300.0),
            on_sponge_percent: Percent::from_percent(45.0),
        }
    }
}

/// Cream before it is whipped.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct WhipGeometry {
    /// Warmest at which it is whipped, °C.
    pub warmest_c: Temperature,
    /// Least fat in fat and water, per cent.
    pub least_fat_percent: Percent,
    /// Thickest that still takes air, Pa·s at 10 /s: 2 for plain cream, more with mascarpone or chocolate.
    pub thickest_pa_s: Viscosity,
}

impl Default for WhipGeometry {
    fn default() -> Self {
        WhipGeometry {
            warmest_c: Temperature::from_celsius(8.0),
            least_fat_percent: Percent::from_percent(30.0),
            thickest_pa_s: Viscosity::from_pascal_seconds(2.0),
        }
    }
}

/// A film on a spoon that a finger line stays in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct NappeGeometry {
    /// Thinnest film that coats, mm.
    pub thinnest_mm: Length,
    /// Thickest that still pours, mm.
    pub thickest_mm: Length,
    /// Height of the spoon, mm.
    pub height_mm: Length,
    /// How long it drains, s.
    pub time_s: Seconds,
}

impl Default for NappeGeometry {
    fn default() -> Self {
        NappeGeometry {
            thinnest_mm: Length::from_millimetres(0.1),
            thickest_mm: Length::from_millimetres(0.6),
            height_mm: Length::from_millimetres(60.0),
            time_s: Seconds::from_seconds(5.0),
        }
    }
}
