//! What a cream must do, the window its geometry asks for, and whether this one does it.
//!
//! [`jobs`] has a file for each: what the person sets, and its [`duty`]: what it measures, its window, how a prediction
//! stands to it, how that is said. [`kind`] makes them one type; [`physics`] is what happens to a cream at work;
//! [`judge`] compares a prediction with the window; [`ask`] is the geometry as a sentence with blanks.

pub mod ask;
pub mod duty;
mod film_duty;
pub mod jobs;
pub mod judge;
pub mod kind;
pub mod lasts;
pub mod physics;

pub use duty::{Judged, Outcome};
pub use kind::Job;
