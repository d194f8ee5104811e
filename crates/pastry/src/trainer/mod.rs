//! The eye trained: see the numbers, say what it does; see the spoon, say what is in it. From this kitchen's own formulas.
//!
//! [`dice`] fall the same every time, [`question`] is what is asked and what is right, [`answer`] says why, [`score`] what a person
//! knows and confuses, and how hard the next question is.

pub mod answer;
pub mod dice;
pub mod question;
pub mod score;

pub use answer::{TrainerAnswer, answer};
pub use question::{TrainerAsk, TrainerFormula, TrainerKind, TrainerQuestion, ask, can_be_asked, spoon_of};
pub use score::{TrainerEntry, TrainerEvent, TrainerScore, score};
