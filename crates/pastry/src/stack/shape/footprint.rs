//! The outline a tier stands on.

use std::f64::consts::PI;

/// An outline, cm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Footprint {
    /// A circle.
    Round {
        /// Across.
        diameter: f64,
    },
    /// A square or rectangle with round corners.
    Rectangle {
        /// Longer side.
        length: f64,
        /// Shorter side.
        width: f64,
        /// Radius of its corners.
        corner: f64,
    },
    /// A circle with a hole.
    Ring {
        /// Across.
        diameter: f64,
        /// Across the hole.
        hole: f64,
    },
    /// A square with half circles on two of its sides.
    Heart {
        /// Side of the square.
        side: f64,
    },
    /// Six equal sides.
    Hexagon {
        /// From side to opposite side.
        across: f64,
    },
}

impl Footprint {
    /// Area, cm².
    pub fn area(&self) -> f64 {
        match *self {
            Footprint::Round { diameter } => PI * diameter * diameter / 4.0,
            Footprint::Rectangle { length, width, corner } => length * width - (4.0 - PI) * corner * corner,
            Footprint::Ring { diameter, hole } => PI * (diameter * diameter - hole * hole) / 4.0,
            Footprint::Heart { side } => side * side * (1.0 + PI / 4.0),
            Footprint::Hexagon { across } => 3f64.sqrt() / 2.0 * across * across,
        }
    }

    /// Length of its outer edge, cm.
    pub fn perimeter(&self) -> f64 {
        match *self {
            Footprint::Round { diameter } | Footprint::Ring { diameter, .. } => PI * diameter,
            Footprint::Rectangle { length, width, corner } => {
                2.0 * (length + width) - (8.0 - 2.0 * PI) * corner
            }
            // Two sides of the square, and two half circles on the others.
            Footprint::Heart { side } => (2.0 + PI) * side,
            Footprint::Hexagon { across } => 2.0 * 3f64.sqrt() * across,
        }
    }

    /// The outline with `by` cm more on every side; a hole grows smaller by as much. With less than is there,
    /// nothing is left.
    pub fn grown(&self, by: f64) -> Footprint {
        match *self {
            Footprint::Round { diameter } => Footprint::Round { diameter: (diameter + 2.0 * by).max(0.0) },
            Footprint::Rectangle { length, width, corner } => Footprint::Rectangle {
                length: (length + 2.0 * by).max(0.0),
                width: (width + 2.0 * by).max(0.0),
                corner: if corner > 0.0 { (corner + by).max(0.0) } else { 0.0 },
            },
            Footprint::Ring { diameter, hole } => {
                let outer = (diameter + 2.0 * by).max(0.0);
                Footprint::Ring { diameter: outer, hole: (hole - 2.0 * by).clamp(0.0, outer) }
            }
            // What a coat of this thickness adds, to the first order: the same area as its edge times it.
            Footprint::Heart { side } => {
                let area = (self.area() + by * self.perimeter()).max(0.0);
                Footprint::Heart { side: if side > 0.0 { (area / (1.0 + PI / 4.0)).sqrt() } else { 0.0 } }
            }
            Footprint::Hexagon { across } => Footprint::Hexagon { across: (across + 2.0 * by).max(0.0) },
        }
    }

    /// Volume of a layer of `thickness` cm over all of it, ml.
    pub fn layer(&self, thickness: f64) -> f64 {
        self.area() * thickness
    }
}
