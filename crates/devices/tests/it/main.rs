//! Devices and their stand-ins.

#![allow(missing_docs, clippy::unwrap_used)]

mod addresses;
mod labels;
mod lines;
mod links;
mod stand_ins;
