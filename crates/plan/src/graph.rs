//! Steps and what lies between them, as numbers.

use crate::problem::Class;

/// Not placed yet.
pub const OUT: i32 = i32::MIN;

/// A step.
#[derive(Debug, Clone)]
pub struct Node {
    /// Slots it lasts.
    pub dur: i32,
    /// The slot it stands at whatever happens: of a serving.
    pub fixed: Option<i32>,
    /// The slot it stands at because it was begun, or was put there by hand.
    pub stands: Option<i32>,
    /// Whether it was begun: what is done is done, whoever was there for it.
    pub begun: bool,
    /// Whether a cook works.
    pub hands: bool,
    /// What it takes: resource and how much.
    pub uses: Vec<(usize, i32)>,
    /// Points for each slot between its end and the serving.
    pub age: i32,
    /// Slots after its end that cost nothing.
    pub grace: i32,
    /// Number of its order.
    pub order: usize,
    /// What is worked on, as a number.
    pub comp: usize,
    /// Slot its order is served.
    pub serve: i32,
    /// What a resource with setups must be set to: resource and setting.
    pub setup: Option<(usize, usize)>,
    /// Hands that can do it, by the number of the cook; none when any can.
    pub able: Option<Vec<bool>>,
}

/// What lies between two steps.
#[derive(Debug, Clone)]
pub struct Arc {
    /// The step it begins after.
    pub from: usize,
    /// The step it ends with.
    pub to: usize,
    /// Slots at least.
    pub min: i32,
    /// Slots at most.
    pub max: i32,
    /// What is taken for as long as it lasts.
    pub holds: Vec<(usize, i32)>,
    /// Better without a gap.
    pub flow: bool,
    /// What its longest is for.
    pub class: Class,
    /// Which of the problem: a wait, or a link behind them.
    pub source: usize,
}

/// Slots at most, where nobody said.
pub const LONG: i32 = 1 << 20;
