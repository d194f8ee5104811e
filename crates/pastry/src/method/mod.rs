//! How a cream is made: the trade's schools as steps with temperatures, times, signs and faults.
//!
//! [`school`] is the data, [`start`] the temperature a school leaves its mass at, [`sheet`] a school worked
//! out for one formula, with what choosing it changes.

pub mod school;
pub mod sheet;
pub mod start;

pub use school::{School, schools, schools_of};
pub use sheet::{MethodSheet, sheet};
