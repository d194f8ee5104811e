//! What goes onto a tier, as it stands in the document: coats, drips, borders, rosettes, pieces, dowels.

use crate::stack::shape::cover::Border;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A coat spread or poured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CoatLayer {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// Thickness on the side, mm.
    pub side_mm: f64,
    /// Thickness on the top, mm; as on the side when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top_mm: Option<f64>,
}

/// Drips down the side of a tier.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Drips {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// How many; one every 20 mm of the edge when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(maximum = 400)]
    pub count: Option<u32>,
    /// Volume of each, ml.
    pub dose_ml: f64,
    /// Shortest and longest that please, mm.
    #[schema(min_items = 2, max_items = 2)]
    pub length_mm: [f64; 2],
    /// Temperature of the coat when it is dripped on, °C.
    pub coat_c: f64,
    /// Whether the top is flooded with it too.
    #[serde(default = "yes")]
    pub flood: bool,
}

fn yes() -> bool {
    true
}

/// Where a border goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edge {
    /// Round its foot.
    #[default]
    Foot,
    /// Round its top edge.
    Top,
}

/// A border piped round a tier.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PipedBorder {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// How it is piped.
    pub style: Border,
    /// Opening of the nozzle, mm.
    pub tip_mm: f64,
    /// Where.
    #[serde(default)]
    pub edge: Edge,
}

/// Piped pieces.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rosettes {
    /// Key of the component; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub component: Option<String>,
    /// How many.
    #[schema(minimum = 1, maximum = 1000)]
    pub count: u32,
    /// Across, mm.
    pub diameter_mm: f64,
    /// Height, mm.
    pub height_mm: f64,
    /// Opening of the nozzle, mm.
    pub tip_mm: f64,
}

/// Pieces laid on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pieces {
    /// What they are called.
    #[schema(max_length = 80)]
    pub name: String,
    /// Key of the ingredient, for the shopping list and its allergens; none for what is not in the pantry.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub ingredient: Option<String>,
    /// How many.
    #[schema(minimum = 1, maximum = 1000)]
    pub count: u32,
    /// Weight of each, g.
    pub each_g: f64,
}

/// Dowels that bear the tier above.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Dowels {
    /// How many.
    #[schema(minimum = 1, maximum = 60)]
    pub count: u32,
    /// Across, mm.
    pub diameter_mm: f64,
}
