//! One thing for another because the person asks for it, the rest brought back round it: consistency,
//! sweetness and cost, in the order the person ranks; and what still differs, said.
//!
//! [`ask`] is the question, [`substitutes`] the trade's stand-ins, [`gelatin`] the two schools of exchange,
//! [`exchange`] the formula with the stand-in in it, [`keep`] the rest rebalanced, [`differs`] what is left.

pub mod answer;
pub mod ask;
pub mod differs;
mod exchange;
pub mod gelatin;
mod keep;
pub mod substitutes;

pub use answer::{SwapOption, Swaps, swap};
pub use ask::{Avoid, Goal, SwapAsk, SwapFor};
pub use gelatin::{GelatinExchange, School};
