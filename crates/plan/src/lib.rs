//! Plan: when to do what, so that everything is ready together and the hands that do it can live with it.
//!
//! Knows nothing of pastry: steps of fixed length, time lags at least and at most, opening hours, hands and machines, and
//! shelves that are taken for as long as something stands on them. No clock, disk, network or randomness that is not seeded: the
//! same problem is planned the same twice.
//!
//! From the ground up:
//! 1. [`problem`]: the open format, and what makes it no problem
//! 2. [`graph`], [`lags`], [`net`]: the same on a grid of slots, ready to be asked
//! 3. [`proof`]: that there is no plan, by lags and opening hours alone
//! 4. [`cost`]: what makes a plan a good one; [`hand_out`]: who does what
//! 5. [`push`], [`search`]: the planner; [`answer`]: a problem's plan
//! 6. [`check`]: whether a plan keeps every rule; it shares nothing with the planner
//! 7. [`why`]: why a step stands where it stands, and how far it can move
//! 8. [`event`], [`replan`]: when the day is not as planned
//! 9. [`odds`]: how likely it is to hold

pub mod answer;
pub mod check;
pub mod cost;
pub mod event;
pub mod graph;
pub mod hand_out;
mod insert;
pub mod lags;
mod moves;
pub mod net;
pub mod odds;
pub mod problem;
pub mod proof;
pub mod push;
pub mod replan;
mod ruin;
pub mod search;
mod state;
pub mod why;
