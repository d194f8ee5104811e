//! A body that cools or warms as it is written down: its shape, what it is made of, where it stands and for how long, and what
//! is asked of it. An open format: `POST /api/clock` and `bright-spoon cool` read it.

use crate::heat::body::Watched;
use crate::heat::enthalpy::HeatShares;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a body is like.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CaseShape {
    /// Wide and flat: `thickness_mm`.
    Slab,
    /// Round: `diameter_mm`, `height_mm`, with a hole of `inner_diameter_mm` where there is one.
    Cylinder,
    /// `diameter_mm`.
    Ball,
    /// A cap of a ball on its flat side: `diameter_mm`, `height_mm` (half the diameter where it is not said).
    Dome,
    /// What stands in a ring or has a hole: as a cylinder.
    Ring,
    /// What is in a round bowl of `diameter_mm` at the rim: `height_mm` deep, or so many `volume_ml` or `kg`.
    Bowl,
    /// `layers` from the bottom up, wide, or round of `diameter_mm`.
    Stack,
}

/// Constant properties.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ConstantMaterial {
    /// Conductivity, W/(m K).
    #[schema(exclusive_minimum = 0, maximum = 1000)]
    pub k: f64,
    /// Density, kg/m³.
    #[schema(exclusive_minimum = 0, maximum = 25000)]
    pub rho: f64,
    /// Heat capacity, J/(kg K).
    #[schema(exclusive_minimum = 0, maximum = 20000)]
    pub c: f64,
}

/// Shares of total, which add up to 1.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
#[allow(missing_docs)]
pub struct CaseShares {
    #[schema(minimum = 0, maximum = 1)]
    pub water: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub protein: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub sugar: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub starch: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub fibre: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub ash: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub alcohol: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub fat_cocoa: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub fat_milk: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub fat_lauric: f64,
    #[schema(minimum = 0, maximum = 1)]
    pub fat_oil: f64,
}

impl CaseShares {
    /// As heat sees them.
    pub fn shares(&self) -> HeatShares {
        HeatShares {
            water: self.water,
            protein: self.protein,
            sugar: self.sugar,
            starch: self.starch,
            fibre: self.fibre,
            ash: self.ash,
            alcohol: self.alcohol,
            cocoa_fat: self.fat_cocoa,
            milk_fat: self.fat_milk,
            lauric_fat: self.fat_lauric,
            oil: self.fat_oil,
        }
    }

    /// All of them.
    pub fn sum(&self) -> f64 {
        self.all().iter().sum()
    }

    /// One by one.
    pub fn all(&self) -> [f64; 11] {
        let own = self;
        [
            own.water,
            own.protein,
            own.sugar,
            own.starch,
            own.fibre,
            own.ash,
            own.alcohol,
            own.fat_cocoa,
            own.fat_milk,
            own.fat_lauric,
            own.fat_oil,
        ]
    }
}

/// What surrounds what.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Surrounds {
    /// Water, as in cream.
    #[default]
    Water,
    /// Fat, as in butter.
    Fat,
}

/// Which way its fats go.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Goes {
    /// From above: fats set later than they melt.
    Cool,
    /// From below.
    Warm,
}

/// A material by what is in it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseMaterial {
    /// Shares of total.
    pub comp: CaseShares,
    /// Air, of volume.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 0.95)]
    pub air: f64,
    /// What surrounds the rest.
    #[serde(default)]
    pub continuous: Surrounds,
    /// Mean molar mass of its sugars, g/mol; 342.3 where it is not said.
    #[serde(default, rename = "sugar_M", skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 150, maximum = 2000)]
    pub sugar_molar: Option<f64>,
    /// Which way its fats go; from where it ends up when it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mode: Option<Goes>,
}

/// A layer, from the bottom up.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseLayer {
    /// How thick, mm.
    #[schema(exclusive_minimum = 0, maximum = 2000)]
    pub thickness_mm: f64,
    /// Constant properties.
    #[serde(default, rename = "const", skip_serializing_if = "Option::is_none")]
    pub constant: Option<ConstantMaterial>,
    /// What is in it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<CaseMaterial>,
    /// How warm at first, °C; as the whole where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -60, maximum = 200)]
    pub start_c: Option<f64>,
}

/// Heat transfer, W/(m² K): known, or within a band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Transfer {
    /// So much.
    Known(f64),
    /// Least, usual, most.
    Band([f64; 3]),
}

impl Transfer {
    /// Least, usual, most.
    pub fn all(self) -> [f64; 3] {
        match self {
            Transfer::Known(h) => [h; 3],
            Transfer::Band(all) => all,
        }
    }
}

/// What a face looks at.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseFace {
    /// Heat transfer, W/(m² K).
    pub h: Transfer,
    /// How warm it is there, °C.
    #[schema(minimum = -60, maximum = 250)]
    pub t: f64,
    /// What stands between, m² K/W.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 10)]
    pub r: f64,
}

/// A stretch of time in one place; a face that is not named is insulated.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CasePhase {
    /// How long, min.
    #[schema(exclusive_minimum = 0, maximum = 20160)]
    pub min: f64,
    /// Above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top: Option<CaseFace>,
    /// Round it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<CaseFace>,
    /// Below.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bottom: Option<CaseFace>,
    /// Minutes from stir to stir.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 20160)]
    pub stir_min: Option<f64>,
}

/// Which point is meant.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BodyPoint {
    /// The hottest.
    Hottest,
    /// The coldest.
    Coldest,
    /// The middle.
    Core,
    /// The mean by mass.
    Mean,
    /// The mean over the open skin.
    Skin,
}

impl BodyPoint {
    /// As a course has it.
    pub fn watched(self) -> Watched {
        match self {
            BodyPoint::Hottest => Watched::Hottest,
            BodyPoint::Coldest => Watched::Coldest,
            BodyPoint::Core => Watched::Core,
            BodyPoint::Mean => Watched::Mean,
            BodyPoint::Skin => Watched::Skin,
        }
    }

    /// In words: "its middle".
    pub fn words(self) -> &'static str {
        match self {
            BodyPoint::Hottest => "its hottest point",
            BodyPoint::Coldest => "its coldest point",
            BodyPoint::Core => "its middle",
            BodyPoint::Mean => "its mean",
            BodyPoint::Skin => "its skin",
        }
    }
}

/// What is asked: when a point comes to a temperature, or how warm it is after a time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Mark {
    /// Which point.
    pub point: BodyPoint,
    /// When it comes to this, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -60, maximum = 250)]
    pub to_c: Option<f64>,
    /// How warm it is after so long, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 20160)]
    pub after_min: Option<f64>,
}

/// A case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseDocument {
    /// What it is like.
    pub shape: CaseShape,
    /// How thick, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 2000)]
    pub thickness_mm: Option<f64>,
    /// How wide, mm; of a bowl at the rim.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 2000)]
    pub diameter_mm: Option<f64>,
    /// How wide the hole is, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 2000)]
    pub inner_diameter_mm: Option<f64>,
    /// How high, mm; in a bowl how deep.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 2000)]
    pub height_mm: Option<f64>,
    /// How much is in the bowl, ml.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000000)]
    pub volume_ml: Option<f64>,
    /// How much is in the bowl, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000)]
    pub kg: Option<f64>,
    /// Layers of a stack, from the bottom up.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub layers: Vec<CaseLayer>,
    /// The layer that is watched, counted from 0 at the bottom; all where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 11)]
    pub watch: Option<usize>,
    /// Constant properties.
    #[serde(default, rename = "const", skip_serializing_if = "Option::is_none")]
    pub constant: Option<ConstantMaterial>,
    /// What it is made of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<CaseMaterial>,
    /// How warm at first, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -60, maximum = 200)]
    pub start_c: Option<f64>,
    /// Where it stands, one place after the other.
    #[schema(min_items = 1, max_items = 12)]
    pub phases: Vec<CasePhase>,
    /// What is asked.
    #[schema(min_items = 1, max_items = 40)]
    pub marks: Vec<Mark>,
}
