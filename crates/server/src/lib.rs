//! Bright Spoon's server: a typed JSON interface over the core and the kitchen's file, with the page
//! inside the same binary.
//!
//! [`state`] is what every handler can reach, [`app`] puts the routes together, [`door`] says who may come in, [`listen`] takes connections, [`desk`] does long
//! work, [`batch_log`] reads what happened to a batch, [`log_book`] keeps the log true, [`live`] tells pages what they did not ask for, [`fridges`] watches how warm they are, [`stand_ins`] are the demo's devices, [`error`] alone turns what went wrong into an answer,
//! [`routes`] has one file per noun, [`serve`] runs it, [`demo`] fills a throwaway kitchen,
//! [`commands`] are the command line's questions.

pub mod app;
pub mod assets;
pub mod batch_log;
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
pub mod fridges;
pub mod larder;
pub mod listen;
pub mod live;
pub mod log_book;
pub mod openapi;
pub mod pantry_view;
pub mod planner;
pub mod problem;
pub mod refusals;
pub mod routes;
pub mod saving;
pub mod serve;
pub mod shape;
pub mod stand_ins;
pub mod state;
pub mod teaching;
