//! Checks of the core, by question.

// Helpers of tests say what they do by name, and stop at once when something is amiss.
#![allow(missing_docs, clippy::unwrap_used)]

mod assessment;
mod balance;
mod balance_optimum;
mod cakes;
mod changed;
mod circles;
mod composition;
mod films;
mod fuzz;
mod handbook;
mod harms;
mod heat;
mod incomplete;
mod invariants;
mod jobs;
mod laws;
mod method;
mod method_steps;
mod module_order;
mod order_lists;
mod orders;
mod overpour;
mod published;
mod recipe_lines;
mod rescue;
mod scale;
mod stack;
mod stack_built;
mod stack_fuzz;
mod stack_geometry;
mod stack_links;
mod stack_shares;
mod stack_stands;
mod stack_steps;
mod stack_trade;
mod starts;
mod support;
mod swap;
mod tables;
mod trade_clock;
mod trade_facts;
mod vectors;
mod warnings;
