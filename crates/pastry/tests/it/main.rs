//! Checks of the core, by question.

mod assessment;
mod handbook;
mod invariants;
mod jobs;
mod module_order;
mod support;
mod trade_facts;
mod vectors;
