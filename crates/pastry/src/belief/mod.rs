//! What is believed of how far a kitchen is off the book: numbers alone, without what they were read from.

pub mod offset;
pub mod posterior;

pub use offset::{Offset, OffsetKind, Quantity, Terms};
pub use posterior::{Posterior, Row};

/// What is believed of both quantities.
#[derive(Debug, Clone, Default)]
pub struct Beliefs {
    /// Of yield stress.
    pub of_yield: Posterior,
    /// Of viscosity.
    pub of_viscosity: Posterior,
}

impl Beliefs {
    /// Whether no test has taught anything.
    pub fn is_book(&self) -> bool {
        self.of_yield.is_book() && self.of_viscosity.is_book()
    }
}
