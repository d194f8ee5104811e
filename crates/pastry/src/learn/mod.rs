//! What a kitchen's own tests teach: offsets of ln yield stress and ln viscosity, and the narrower band that comes of them.
//!
//! [`terms`] says which offsets bear on a formula and how much, [`robust`] which readings do not fit and count for nothing until a
//! second one agrees, [`next`] which test would teach most, [`report`] what was
//! learned, in words. What is believed then is [`crate::belief`].

pub mod next;
pub mod report;
pub mod robust;
pub mod terms;

pub use next::{Candidate, Worth, most_worth};
pub use report::{LearnedOffset, report};
pub use robust::{Counts, Learned, LearnedOf, Taught, learn};
pub use terms::{shares, terms};
