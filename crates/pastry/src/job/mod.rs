//! What a cream must do, the window its geometry asks for, and whether this one does it.
//!
//! [`geometry`] is what the person sets, [`kind`] what each job measures; [`drip`], [`film`], [`slump`]
//! and [`soak`] are the physics; [`judge`] compares a prediction with the window.

pub mod chance;
pub mod drip;
pub mod film;
pub mod geometry;
pub mod judge;
pub mod kind;
pub mod slump;
pub mod soak;

pub use judge::{Judged, Outcome};
pub use kind::Job;
