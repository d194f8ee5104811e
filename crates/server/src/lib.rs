//! Bright Spoon's server: a typed JSON interface over the core and the kitchen's file, with the page
//! inside the same binary.
//!
//! [`state`] is what every handler can reach, [`app`] puts the routes together, [`door`] says who may come in, [`listen`] takes connections, [`desk`] does long
//! work, [`error`] alone turns what went wrong into an answer,
//! [`routes`] has one file per noun, [`serve`] runs it, [`demo`] fills a throwaway kitchen,
//! [`commands`] are the command line's questions.

pub mod app;
pub mod assets;
pub mod body;
pub mod calendar;
pub mod commands;
pub mod config;
pub mod convert;
pub mod cupboard;
pub mod demo;
pub mod desk;
pub mod door;
pub mod download;
pub mod error;
pub mod examples;
pub mod formats;
pub mod larder;
pub mod listen;
pub mod openapi;
pub mod pantry_view;
pub mod planner;
pub mod problem;
pub mod refusals;
pub mod routes;
pub mod saving;
pub mod serve;
pub mod shape;
pub mod state;
