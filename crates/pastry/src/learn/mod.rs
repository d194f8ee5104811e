//! What a kitchen's own tests teach: offsets of ln yield stress and ln viscosity, and the narrower band that comes of them.
//!
//! [`terms`] says which offsets bear on a formula and how much, [`robust`] which readings do not fit and count for nothing until a
//! second one agrees, [`next`] which test would teach most, [`report`] what was learned, in words, [`over_time`] how that came to
//! be, [`set_back`] what begins anew. What is believed then is [`crate::belief`].

pub mod next;
pub mod over_time;
pub mod report;
pub mod robust;
pub mod set_back;
pub mod terms;

pub use next::{Candidate, Worth, most_worth, worth_words};
pub use over_time::{OffBy, OverTime, Since, before_each, history_of, over_time};
pub use report::{LearnedOffset, report};
pub use robust::{Counts, Learned, LearnedOf, Taught, learn};
pub use set_back::{LearningEntry, LearningEvent, SetBack, as_they_were, standing};
pub use terms::{shares, terms};
