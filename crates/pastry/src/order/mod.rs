//! An order: its cakes, and from them what to make, buy, label and pay, and what is left over.
//!
//! [`document`] is the open format; [`answer`] works it out: [`batch`]es to weigh, [`shopping`], [`leftover`]s,
//! [`label`]s.

pub mod answer;
pub mod batch;
pub mod document;
pub mod label;
pub mod leftover;
pub mod shopping;

pub use answer::{OrderAnswer, order};
pub use document::{OrderDocument, OrderedCake, Without};
