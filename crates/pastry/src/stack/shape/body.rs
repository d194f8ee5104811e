//! What a tier is: an outline that layers are piled on, or a vessel or mould that they fill.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Smallest and largest size of a body taken, mm.
pub const SIZES: [f64; 2] = [10.0, 1500.0];

/// The shape and size of a tier as it stands on the plate, mm, without its coats.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "shape", rename_all = "snake_case")]
pub enum Body {
    /// A circle: as high as its layers.
    Round {
        /// Across.
        #[schema(minimum = 10, maximum = 1500)]
        diameter_mm: f64,
    },
    /// A square or rectangle: as high as its layers.
    Rectangle {
        /// Longer side.
        #[schema(minimum = 10, maximum = 1500)]
        length_mm: f64,
        /// Shorter side.
        #[schema(minimum = 10, maximum = 1500)]
        width_mm: f64,
        /// Radius of its corners.
        #[serde(default)]
        #[schema(minimum = 0, maximum = 1500)]
        corner_mm: f64,
    },
    /// A ring: as high as its layers.
    Ring {
        /// Across.
        #[schema(minimum = 10, maximum = 1500)]
        diameter_mm: f64,
        /// Across its hole.
        #[schema(minimum = 10, maximum = 1500)]
        hole_mm: f64,
    },
    /// A heart, of a square and two half circles: as high as its layers.
    Heart {
        /// Side of the square.
        #[schema(minimum = 10, maximum = 1500)]
        side_mm: f64,
    },
    /// Six equal sides: as high as its layers.
    Hexagon {
        /// From side to opposite side.
        #[schema(minimum = 10, maximum = 1500)]
        across_mm: f64,
    },
    /// A jar, cup, glass or round tin that is filled.
    Cup {
        /// Across the bottom, inside.
        #[schema(minimum = 10, maximum = 1500)]
        bottom_mm: f64,
        /// Across the top, inside.
        #[schema(minimum = 10, maximum = 1500)]
        top_mm: f64,
        /// Height inside.
        #[schema(minimum = 10, maximum = 1500)]
        height_mm: f64,
    },
    /// A box, tray or square tin that is filled, or a loaf turned out: sides that slope or stand.
    Loaf {
        /// Length at the top.
        #[schema(minimum = 10, maximum = 1500)]
        top_length_mm: f64,
        /// Width at the top.
        #[schema(minimum = 10, maximum = 1500)]
        top_width_mm: f64,
        /// Length at the bottom.
        #[schema(minimum = 10, maximum = 1500)]
        bottom_length_mm: f64,
        /// Width at the bottom.
        #[schema(minimum = 10, maximum = 1500)]
        bottom_width_mm: f64,
        /// Height.
        #[schema(minimum = 10, maximum = 1500)]
        height_mm: f64,
    },
    /// A dome turned out of its mould, flat side down.
    Dome {
        /// Across its foot.
        #[schema(minimum = 10, maximum = 1500)]
        diameter_mm: f64,
        /// Height: half of it for half a ball.
        #[schema(minimum = 10, maximum = 1500)]
        height_mm: f64,
    },
    /// Half a cylinder turned out, flat side down.
    HalfLog {
        /// Across its foot.
        #[schema(minimum = 10, maximum = 1500)]
        diameter_mm: f64,
        /// Length.
        #[schema(minimum = 10, maximum = 1500)]
        length_mm: f64,
    },
    /// A trough mould turned out: straight walls below, half a cylinder on them.
    Trough {
        /// Across.
        #[schema(minimum = 10, maximum = 1500)]
        width_mm: f64,
        /// Height.
        #[schema(minimum = 10, maximum = 1500)]
        height_mm: f64,
        /// Length.
        #[schema(minimum = 10, maximum = 1500)]
        length_mm: f64,
    },
    /// A tube lying on its side.
    Tube {
        /// Across.
        #[schema(minimum = 10, maximum = 1500)]
        diameter_mm: f64,
        /// Length.
        #[schema(minimum = 10, maximum = 1500)]
        length_mm: f64,
    },
    /// A sheet rolled up with its filling.
    Roll {
        /// Length of the sheet along the way it is rolled.
        #[schema(minimum = 10, maximum = 1500)]
        sheet_mm: f64,
        /// Length of the roll.
        #[schema(minimum = 10, maximum = 1500)]
        length_mm: f64,
    },
}

impl From<Body> for serde_json::Value {
    fn from(body: Body) -> Self {
        serde_json::to_value(body).unwrap_or_default()
    }
}

impl Body {
    /// Each length of it with the name of its field, mm.
    pub fn sizes(&self) -> Vec<(&'static str, f64)> {
        match *self {
            Body::Round { diameter_mm } => vec![("diameter_mm", diameter_mm)],
            Body::Rectangle { length_mm, width_mm, .. } => {
                vec![("length_mm", length_mm), ("width_mm", width_mm)]
            }
            Body::Ring { diameter_mm, hole_mm } => vec![("diameter_mm", diameter_mm), ("hole_mm", hole_mm)],
            Body::Heart { side_mm } => vec![("side_mm", side_mm)],
            Body::Hexagon { across_mm } => vec![("across_mm", across_mm)],
            Body::Cup { bottom_mm, top_mm, height_mm } => {
                vec![("bottom_mm", bottom_mm), ("top_mm", top_mm), ("height_mm", height_mm)]
            }
            Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, height_mm } => vec![
                ("top_length_mm", top_length_mm),
                ("top_width_mm", top_width_mm),
                ("bottom_length_mm", bottom_length_mm),
                ("bottom_width_mm", bottom_width_mm),
                ("height_mm", height_mm),
            ],
            Body::Dome { diameter_mm, height_mm } => {
                vec![("diameter_mm", diameter_mm), ("height_mm", height_mm)]
            }
            Body::HalfLog { diameter_mm, length_mm } | Body::Tube { diameter_mm, length_mm } => {
                vec![("diameter_mm", diameter_mm), ("length_mm", length_mm)]
            }
            Body::Trough { width_mm, height_mm, length_mm } => {
                vec![("width_mm", width_mm), ("height_mm", height_mm), ("length_mm", length_mm)]
            }
            Body::Roll { sheet_mm, length_mm } => vec![("sheet_mm", sheet_mm), ("length_mm", length_mm)],
        }
    }

    /// Its outline in other sizes, a hole smaller than its ring by a step, mm; what has walls stays as it is.
    pub fn with_outline(self, size: impl Fn(f64) -> f64, step: f64) -> Self {
        match self {
            Body::Round { diameter_mm } => Body::Round { diameter_mm: size(diameter_mm) },
            Body::Rectangle { length_mm, width_mm, corner_mm } => {
                Body::Rectangle { length_mm: size(length_mm), width_mm: size(width_mm), corner_mm }
            }
            Body::Ring { diameter_mm, hole_mm } => {
                let diameter_mm = size(diameter_mm);
                Body::Ring { diameter_mm, hole_mm: size(hole_mm).min(diameter_mm - step) }
            }
            Body::Heart { side_mm } => Body::Heart { side_mm: size(side_mm) },
            Body::Hexagon { across_mm } => Body::Hexagon { across_mm: size(across_mm) },
            other => other,
        }
    }

    /// What it is called: "round of 180 mm".
    pub fn words(&self) -> String {
        let mm = crate::number::limit;
        match *self {
            Body::Round { diameter_mm } => format!("round of {} mm", mm(diameter_mm)),
            Body::Rectangle { length_mm, width_mm, .. } if (length_mm - width_mm).abs() < 0.5 => {
                format!("square of {} mm", mm(length_mm))
            }
            Body::Rectangle { length_mm, width_mm, .. } => {
                format!("{} by {} mm", mm(length_mm), mm(width_mm))
            }
            Body::Ring { diameter_mm, hole_mm } => {
                format!("ring of {} mm round {} mm", mm(diameter_mm), mm(hole_mm))
            }
            Body::Heart { side_mm } => format!("heart of {} mm sides", mm(side_mm)),
            Body::Hexagon { across_mm } => format!("hexagon, {} mm across", mm(across_mm)),
            Body::Cup { top_mm, height_mm, .. } => {
                format!("cup, {} mm wide, {} mm deep", mm(top_mm), mm(height_mm))
            }
            Body::Loaf { top_length_mm, top_width_mm, .. } => {
                format!("loaf of {} by {} mm", mm(top_length_mm), mm(top_width_mm))
            }
            Body::Dome { diameter_mm, .. } => format!("dome of {} mm", mm(diameter_mm)),
            Body::HalfLog { diameter_mm, length_mm }
            | Body::Trough { width_mm: diameter_mm, length_mm, .. } => {
                format!("log of {} mm, {} mm long", mm(diameter_mm), mm(length_mm))
            }
            Body::Tube { diameter_mm, length_mm } => {
                format!("tube of {} mm, {} mm long", mm(diameter_mm), mm(length_mm))
            }
            Body::Roll { length_mm, .. } => format!("roll, {} mm long", mm(length_mm)),
        }
    }

    /// Its height, mm, when the shape gives it; none when its layers do.
    pub fn own_height_mm(&self) -> Option<f64> {
        match *self {
            Body::Cup { height_mm, .. }
            | Body::Loaf { height_mm, .. }
            | Body::Dome { height_mm, .. }
            | Body::Trough { height_mm, .. } => Some(height_mm),
            Body::HalfLog { diameter_mm, .. } => Some(0.5 * diameter_mm),
            Body::Tube { diameter_mm, .. } => Some(diameter_mm),
            _ => None,
        }
    }
}
