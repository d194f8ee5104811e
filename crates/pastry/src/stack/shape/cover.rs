//! What goes onto a tier: coats, drips, borders, rosettes and glazes, ml.

use crate::stack::shape::footprint::Footprint;
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use utoipa::ToSchema;

/// A crumb coat, cm.
pub const CRUMB_COAT: f64 = 0.15;
/// A drip's width and thickness on the side, cm (assumed).
const DRIP: (f64, f64) = (0.8, 0.25);
/// One drip in so much edge, cm.
const DRIP_SPACING: f64 = 2.0;
/// The pool on top that the drips come from, cm.
pub const DRIP_POOL: f64 = 0.2;
/// A glaze as it stays, cm.
pub const GLAZE: f64 = 0.25;
/// How much more of a glaze is poured than stays: most of the rest comes back.
pub const POURED: f64 = 1.5;

/// A coat of `side` cm round a tier of `height` cm and `top` cm on it, ml: what the larger outline holds more, and
/// the top over all of it.
pub fn coat(footprint: &Footprint, height: f64, side: f64, top: f64) -> f64 {
    let outside = footprint.grown(side);
    (outside.area() - footprint.area()) * height + outside.area() * top
}

/// A crumb coat round and on a tier, ml.
pub fn crumb_coat(footprint: &Footprint, height: f64) -> f64 {
    coat(footprint, height, CRUMB_COAT, CRUMB_COAT)
}

/// How many drips an edge takes.
pub fn drip_count(footprint: &Footprint) -> u32 {
    (footprint.perimeter() / DRIP_SPACING).round().max(0.0) as u32
}

/// So many drips of `length` cm, ml: 0.8 w t L for the run and π/3 w² t for its foot.
pub fn drips(count: u32, length: f64) -> f64 {
    let (width, thick) = DRIP;
    f64::from(count) * (0.8 * width * thick * length + PI / 3.0 * width * width * thick)
}

/// The pool on top of a dripped tier, ml.
pub fn drip_pool(footprint: &Footprint) -> f64 {
    footprint.area() * DRIP_POOL
}

/// How a border is piped.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Border {
    /// A plain rope.
    Rope,
    /// Overlapping shells.
    Shell,
    /// Dots side by side.
    Dots,
}

/// A border of `length` cm from a nozzle of `tip` cm, ml.
///
/// * rope: π tip²/4 × length; shell: 1.6 times that (assumed)
/// * dots: length/tip balls of π tip³/6, each flattened to 0.8 of it (assumed)
pub fn border(kind: Border, length: f64, tip: f64) -> f64 {
    let rope = PI * tip * tip / 4.0 * length;
    match kind {
        Border::Rope => rope,
        Border::Shell => 1.6 * rope,
        Border::Dots => length / tip * PI * tip.powi(3) / 6.0 * 0.8,
    }
}

/// One rosette, ml: 0.55 of the cylinder round it (assumed).
pub fn rosette(diameter: f64, height: f64) -> f64 {
    0.55 * PI * diameter * diameter / 4.0 * height
}

/// A glaze to be poured over a tier, ml: half as much again as stays.
pub fn glaze_pour(footprint: &Footprint, height: f64) -> f64 {
    POURED * coat(footprint, height, GLAZE, GLAZE)
}
