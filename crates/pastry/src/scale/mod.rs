//! The same formula in another size, and what is in the bowl shared out.
//!
//! [`target`] is what a batch is sized to, [`batch`] the factor and the amounts at it, [`whole`] the
//! nearest size at which eggs, leaves or packs come out whole, [`shares`] weights for vessels that add up.

pub mod batch;
pub mod shares;
pub mod target;
mod whole;

pub use batch::{Scaled, ScaledLine, scale};
pub use shares::{ShareAsk, Shares, VesselShare, shares};
pub use target::{Have, ScaleAsk, Target, Whole};
