//! Tests a cook can do at the bench: a plate, a ring, a spoon, a rod, and what they say of a cream in Pa and Pa·s.
//!
//! [`test`] is what was done and read, [`reading`] what follows from it with its spread, [`fits`] which test fits a cream now,
//! [`guide`] how each is done, [`expected`] what would be read of something known.

pub mod expected;
pub mod fits;
pub mod guide;
pub mod reading;
pub mod test;

pub use fits::{Fit, fits};
pub use reading::{Reading, Says, read};
pub use test::{BenchTest, BenchTestKind};
