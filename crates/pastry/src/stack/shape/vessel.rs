//! What a tin, a mould or a jar holds.

use crate::stack::shape::footprint::Footprint;
use std::f64::consts::PI;

/// A fluted ring holds this share of a plain one (assumed).
const FLUTED: f64 = 0.80;

/// A vessel, cm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Vessel {
    /// Straight walls on an outline.
    Straight {
        /// Its outline.
        footprint: Footprint,
        /// Height.
        height: f64,
    },
    /// Round, wider at the top.
    Tapered {
        /// Across the bottom.
        bottom: f64,
        /// Across the top.
        top: f64,
        /// Height.
        height: f64,
    },
    /// Half a ball.
    Hemisphere {
        /// Across.
        diameter: f64,
    },
    /// A dome flatter, or taller, than half a ball.
    Cap {
        /// Across its foot.
        diameter: f64,
        /// Height.
        height: f64,
    },
    /// Half a cylinder, lying.
    HalfLog {
        /// Across.
        diameter: f64,
        /// Length.
        length: f64,
    },
    /// A trough: half a cylinder below, straight walls above it.
    Trough {
        /// Across.
        width: f64,
        /// Height.
        height: f64,
        /// Length.
        length: f64,
    },
    /// A loaf tin, wider at the top.
    Loaf {
        /// Length and width at the top.
        top: [f64; 2],
        /// Length and width at the bottom.
        bottom: [f64; 2],
        /// Height.
        height: f64,
    },
    /// A fluted ring.
    Fluted {
        /// Across.
        diameter: f64,
        /// Across its hole.
        hole: f64,
        /// Height.
        height: f64,
    },
}

impl Vessel {
    /// Volume to the rim, ml.
    ///
    /// * tapered: π h/12 (d² + d d′ + d′²)
    /// * cap: π h/6 (3 (d/2)² + h²)
    /// * trough: (π w²/8 + w (h − w/2)) L
    /// * loaf: prismatoid, h/6 (A_top + 4 A_middle + A_bottom)
    /// * fluted: 0.80 of the plain ring (assumed)
    pub fn volume(&self) -> f64 {
        match *self {
            Vessel::Straight { footprint, height } => footprint.area() * height,
            Vessel::Tapered { bottom, top, height } => {
                PI * height / 12.0 * (bottom * bottom + bottom * top + top * top)
            }
            Vessel::Hemisphere { diameter } => PI * diameter.powi(3) / 12.0,
            Vessel::Cap { diameter, height } => {
                PI * height / 6.0 * (3.0 * (diameter / 2.0).powi(2) + height * height)
            }
            Vessel::HalfLog { diameter, length } => PI * diameter * diameter * length / 8.0,
            Vessel::Trough { width, height, length } => {
                (PI * width * width / 8.0 + width * (height - width / 2.0)) * length
            }
            Vessel::Loaf { top, bottom, height } => {
                let area = |[a, b]: [f64; 2]| a * b;
                let middle = [0.5 * (top[0] + bottom[0]), 0.5 * (top[1] + bottom[1])];
                height / 6.0 * (area(top) + 4.0 * area(middle) + area(bottom))
            }
            Vessel::Fluted { diameter, hole, height } => {
                FLUTED * Footprint::Ring { diameter, hole }.area() * height
            }
        }
    }

    /// How many times a batch for this vessel fills `other`.
    pub fn factor_to(&self, other: &Vessel) -> f64 {
        other.volume() / self.volume()
    }
}
