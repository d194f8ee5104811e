//! How a cream is made: the trade's schools as steps with temperatures, times, signs and faults.
//!
//! [`step`] is one step, [`gear`] what it is done with, [`school`] the data, [`start`] the temperature a school leaves its mass at, [`clocked`] the clock from there, [`course`] its steps for one batch, `waits` those of them that hang on a clock, [`quicker`] what makes one of them shorter, [`listed`] what of all of them is work, [`sheet`] a school worked
//! out for one formula, with what choosing it changes.

pub mod clocked;
pub mod course;
pub mod gear;
pub mod listed;
pub mod quicker;
pub mod school;
pub mod sheet;
pub mod start;
pub mod step;
mod waits;

pub use clocked::clocked;
pub use gear::{Gear, Resource};
pub use school::{School, schools, schools_of};
pub use sheet::{MethodSheet, sheet};
pub use step::{Step, Worker};
