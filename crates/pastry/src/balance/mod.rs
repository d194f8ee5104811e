//! From "not in the window" to what to do: the smallest ways there, in grams, degrees or minutes.
//!
//! [`problem`] is what may move and what must hold, in log amounts; [`edges`] says how far a formula
//! stands from each edge of its window; [`solve`] finds the least weighted change with a convex solver in
//! a safeguarded sequential scheme; [`single`] moves one thing alone, by scanning and halving; [`ways`]
//! ranks a handful of really different ways and says what each does.

mod amounts;
mod conditions;
pub mod edges;
pub(crate) mod effects;
pub mod limits;
mod pieces;
pub mod problem;
pub(crate) mod search;
pub mod sense;
pub mod single;
pub mod solve;
pub mod way;
pub mod ways;

pub use problem::{Problem, Variable};
pub use solve::{Solution, solve};
pub use way::{Way, WayKind, Ways};
pub use ways::{ways, with_problem};
