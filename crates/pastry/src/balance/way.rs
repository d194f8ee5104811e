//! One way there and what it does.

use crate::assess::answer::Point;
use crate::assess::document::FormulaDocument;
use crate::assess::reach::Span;
use crate::ingredient::PhaseShares;
use serde::Serialize;
use utoipa::ToSchema;

/// What kind of way it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WayKind {
    /// Another temperature.
    Temperature,
    /// Longer in the cold.
    Wait,
    /// Something brought to a temperature it has not reached.
    Heat,
    /// One ingredient more or less, or one added.
    One,
    /// Air beaten in or out.
    Process,
    /// One ingredient for another like it.
    Swap,
    /// The smallest overall rebalance.
    Rebalance,
}

/// An amount that changes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Change {
    /// Line of the formula; none for a line that is added.
    pub line: Option<usize>,
    /// Name of the ingredient.
    pub name: String,
    /// Before, g.
    pub from_g: f64,
    /// After, g.
    pub to_g: f64,
    /// After, in eggs, leaves or sticks; none when it is not counted.
    pub pieces: Option<String>,
}

/// What a way does besides.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Effects {
    /// Fat, points of total.
    pub fat_points: f64,
    /// Sugar, points of total.
    pub sugar_points: f64,
    /// Water, points of total.
    pub water_points: f64,
    /// Sweetness, points of total as sucrose.
    pub sweetness_points: f64,
    /// Cost of a kilogram, in the kitchen's currency; none where a price is missing.
    pub cost_per_kg: Option<f64>,
    /// Water activity.
    pub water_activity: Option<f64>,
    /// Batch, g.
    pub batch_g: f64,
}

/// One way there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Way {
    /// What kind it is.
    pub kind: WayKind,
    /// What to do, in a few words: "+24 g Cream 36 %".
    pub title: String,
    /// Amounts that change.
    pub changes: Vec<Change>,
    /// The formula after it.
    pub document: FormulaDocument,
    /// The verdict after it.
    pub at: Point,
    /// Temperatures at which it then works.
    pub spans: Vec<Span>,
    /// Value on the map's axis at every point of its map.
    pub on_map: Vec<f64>,
    /// Shares of the five phases then, per cent of total.
    pub phases_of_total_percent: PhaseShares,
    /// What it brings that was not there and must be asked for first: "brings milk, an allergen".
    pub asks_first: Vec<String>,
    /// What it does besides.
    pub effects: Effects,
    /// The same in a few words: "sweeter by 2 points".
    pub effect_words: String,
}

/// The nearest that is possible when nothing meets everything.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Nearest {
    /// What stands in the way, in one sentence.
    pub sentence: String,
    /// Who asks for what cannot be had together.
    pub blocked_by: Vec<String>,
    /// Amounts that change.
    pub changes: Vec<Change>,
    /// The formula that comes nearest.
    pub document: FormulaDocument,
    /// Its verdict.
    pub at: Point,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Ways {
    /// Whether it is inside already, with room to both edges.
    pub settled: bool,
    /// Ways there, the smallest first.
    pub ways: Vec<Way>,
    /// The nearest that is possible, when there is no way in grams.
    pub nearest: Option<Box<Nearest>>,
}
