//! Tests of the planner.

#![allow(clippy::unwrap_used)]

mod broken;
mod days_that_go_wrong;
mod made_up;
mod odds;
mod proofs;
mod reference;
mod support;
mod why;
