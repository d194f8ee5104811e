//! A batch while it is made: what is weighed, heated, seen and decided, as events that are only added.
//!
//! [`document`] is what is begun: a formula at its size with the steps of its method. [`event`] is what can happen, [`fold`] where
//! the batch is after all that did, [`check`] what cannot be taken, [`tolerance`] how far a line may be off its mark,
//! [`view`] how the batch looks then: what comes next, what is still to pour, and what it is with what is in the bowl.
//! [`contents`] is that as a formula, [`judged`] what it is and does on a spoon, [`arrival`] when it will be as warm or cold as
//! a step wants it, [`bowls`] are the cook's own by name, [`cooling`] counts the hours in which it must be cold, [`end`] what
//! becomes of it when it is made, [`next_test`] which test of a formula would teach, [`took`] how long its
//! steps took.

pub mod arrival;
pub mod bowls;
pub mod check;
pub mod contents;
pub mod cooling;
pub mod document;
pub mod end;
pub mod event;
pub mod fold;
pub mod judged;
pub mod next_test;
pub mod said;
pub mod tested;
pub mod tolerance;
pub mod took;
pub mod view;

pub use check::refused;
pub use document::{BatchAsk, BatchDocument, BatchFor, BatchStep};
pub use event::{BatchEntry, BatchEvent, Came, OverWay, ReadBy};
pub use fold::{BatchState, fold};
pub use view::{BatchView, look};
