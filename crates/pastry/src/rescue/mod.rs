//! From what a cook sees in the bowl to what to do: wait, warm, cool, stir, then grams, and additions only.
//!
//! [`sign`] is what can be seen, [`remedy`] the trade's table of remedies, [`signal`] what the numbers say
//! for one of them, [`bowl`] what is really there, [`addition`] how much of one thing mends it; [`answer`]
//! puts them together in a [`report`]. [`overpour`] is for a line poured past its mark.

pub mod addition;
pub mod answer;
pub mod bowl;
pub mod overpour;
pub mod quantity;
pub mod remedy;
pub mod report;
pub mod sign;
pub mod signal;
mod step;

pub use answer::{RescueAsk, rescue, signs_for};
pub use overpour::{Overpour, OverpourAsk, overpour};
pub use remedy::{Remedy, remedies};
pub use report::{RemedyAnswer, Rescue};
pub use sign::Sign;
