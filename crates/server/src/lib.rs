//! Bright Spoon's server: a typed JSON interface over the core and the kitchen's file, with the page
//! inside the same binary.
//!
//! [`app`] puts the routes together, [`error`] alone turns what went wrong into an answer,
//! [`routes`] has one file per noun, [`serve`] runs it, [`demo`] fills a throwaway kitchen,
//! [`predict`] is the command line's question.

pub mod app;
pub mod assets;
pub mod body;
pub mod config;
pub mod demo;
pub mod error;
pub mod openapi;
pub mod predict;
pub mod routes;
pub mod serve;
