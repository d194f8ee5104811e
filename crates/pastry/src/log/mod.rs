//! The log: what became of every batch, in a line each; what is looked for in it; batches beside each other.
//!
//! A [`line`] is worked out from the events of a batch and never written by hand, so it is what happened. [`changed`] says what was
//! done otherwise than planned, [`words`] are what a batch is found by, [`beside`] puts two or three next to each other and marks
//! what differs, [`table`] is the log as rows that a spreadsheet reads, [`document`] the whole of it as a file that travels.

pub mod beside;
pub mod changed;
pub mod document;
pub mod line;
pub mod table;
pub mod words;

pub use beside::{Beside, beside};
pub use document::{LogDocument, LoggedBatch};
pub use line::{LogLine, log_line};
pub use words::{sought, spaced};
