//! What lies between two heights of a body, what covers it, and how wide it is.

use crate::stack::shape::body::Body;
use crate::stack::shape::footprint::Footprint;
use crate::stack::shape::vessel::Vessel;
use std::f64::consts::PI;

/// The bare end of a sheet that closes a roll, mm (common practice).
const BARE_END: f64 = 20.0;

impl Body {
    /// What it holds to the rim, where it is a vessel.
    pub fn vessel(&self) -> Option<Vessel> {
        let cm = |mm: f64| 0.1 * mm;
        Some(match *self {
            Body::Cup { bottom_mm, top_mm, height_mm } => {
                Vessel::Tapered { bottom: cm(bottom_mm), top: cm(top_mm), height: cm(height_mm) }
            }
            Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, height_mm } => {
                Vessel::Loaf {
                    top: [cm(top_length_mm), cm(top_width_mm)],
                    bottom: [cm(bottom_length_mm), cm(bottom_width_mm)],
                    height: cm(height_mm),
                }
            }
            Body::Dome { diameter_mm, height_mm } => {
                Vessel::Cap { diameter: cm(diameter_mm), height: cm(height_mm) }
            }
            Body::HalfLog { diameter_mm, length_mm } => {
                Vessel::HalfLog { diameter: cm(diameter_mm), length: cm(length_mm) }
            }
            Body::Tube { diameter_mm, length_mm } => {
                Vessel::HalfLog { diameter: cm(diameter_mm), length: 2.0 * cm(length_mm) }
            }
            Body::Trough { width_mm, height_mm, length_mm } => {
                Vessel::Trough { width: cm(width_mm), height: cm(height_mm), length: cm(length_mm) }
            }
            _ => return None,
        })
    }

    /// The outline at a height of `z` cm above the plate.
    pub fn section(&self, z: f64) -> Footprint {
        let rectangle = |length: f64, width: f64, corner: f64| Footprint::Rectangle { length, width, corner };
        match *self {
            Body::Round { diameter_mm } => Footprint::Round { diameter: 0.1 * diameter_mm },
            Body::Rectangle { length_mm, width_mm, corner_mm } => {
                rectangle(0.1 * length_mm, 0.1 * width_mm, 0.1 * corner_mm)
            }
            Body::Ring { diameter_mm, hole_mm } => {
                Footprint::Ring { diameter: 0.1 * diameter_mm, hole: 0.1 * hole_mm }
            }
            Body::Heart { side_mm } => Footprint::Heart { side: 0.1 * side_mm },
            Body::Hexagon { across_mm } => Footprint::Hexagon { across: 0.1 * across_mm },
            Body::Cup { bottom_mm, top_mm, height_mm } => {
                let share = (z / (0.1 * height_mm)).clamp(0.0, 1.0);
                Footprint::Round { diameter: 0.1 * (bottom_mm + share * (top_mm - bottom_mm)) }
            }
            Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, height_mm } => {
                let share = (z / (0.1 * height_mm)).clamp(0.0, 1.0);
                rectangle(
                    0.1 * (bottom_length_mm + share * (top_length_mm - bottom_length_mm)),
                    0.1 * (bottom_width_mm + share * (top_width_mm - bottom_width_mm)),
                    0.0,
                )
            }
            Body::Dome { .. } => Footprint::Round { diameter: 2.0 * self.half_chord(z) },
            Body::HalfLog { length_mm, .. }
            | Body::Trough { length_mm, .. }
            | Body::Tube { length_mm, .. } => rectangle(0.1 * length_mm, 2.0 * self.half_chord(z), 0.0),
            Body::Roll { sheet_mm, length_mm } => {
                rectangle(0.1 * (sheet_mm - BARE_END).max(0.0), 0.1 * length_mm, 0.0)
            }
        }
    }

    /// Half the width of what is round above the plate, cm, at a height of `z` cm.
    fn half_chord(&self, z: f64) -> f64 {
        match *self {
            Body::Dome { .. } => {
                let (radius, centre) = self.sphere();
                (radius * radius - (z - centre).powi(2)).max(0.0).sqrt()
            }
            Body::HalfLog { diameter_mm, .. } => {
                let radius = 0.05 * diameter_mm;
                (radius * radius - z * z).max(0.0).sqrt()
            }
            Body::Tube { diameter_mm, .. } => {
                let radius = 0.05 * diameter_mm;
                (radius * radius - (z - radius).powi(2)).max(0.0).sqrt()
            }
            Body::Trough { width_mm, height_mm, .. } => {
                let radius = 0.05 * width_mm;
                let above = (z - (0.1 * height_mm - radius)).max(0.0);
                (radius * radius - above * above).max(0.0).sqrt()
            }
            _ => 0.0,
        }
    }

    /// Radius of the ball a dome is cut from, and the height of its centre, cm.
    fn sphere(&self) -> (f64, f64) {
        let Body::Dome { diameter_mm, height_mm } = *self else { return (0.0, 0.0) };
        let (foot, height) = (0.05 * diameter_mm, 0.1 * height_mm);
        let radius = (foot * foot + height * height) / (2.0 * height);
        (radius, height - radius)
    }

    /// Volume between the heights `from` and `to` cm above the plate, ml; for a roll, of the sheet of that
    /// thickness.
    ///
    /// Straight: A (to − from). Cup: frustum π/12 (d² + d d′ + d′²) h. Dome: [π (R² z − (z − c)³/3)]. Half log:
    /// L [z √(r² − z²) + r² asin(z/r)]. Loaf: the integral of two linear sides.
    pub fn part(&self, from: f64, to: f64) -> f64 {
        match *self {
            Body::Cup { .. } => {
                let [d0, d1] = [from, to].map(|z| match self.section(z) {
                    Footprint::Round { diameter } => diameter,
                    _ => 0.0,
                });
                PI * (to - from) / 12.0 * (d0 * d0 + d0 * d1 + d1 * d1)
            }
            Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, height_mm } => {
                let per = |top: f64, bottom: f64| (top - bottom) / height_mm;
                let (a0, a1) = (0.1 * bottom_length_mm, per(top_length_mm, bottom_length_mm));
                let (b0, b1) = (0.1 * bottom_width_mm, per(top_width_mm, bottom_width_mm));
                let below =
                    |z: f64| a0 * b0 * z + (a0 * b1 + a1 * b0) * z * z / 2.0 + a1 * b1 * z.powi(3) / 3.0;
                below(to) - below(from)
            }
            Body::Dome { .. } => {
                let (radius, centre) = self.sphere();
                let below = |z: f64| PI * (radius * radius * z - (z - centre).powi(3) / 3.0);
                below(to) - below(from)
            }
            Body::HalfLog { diameter_mm, length_mm } => {
                0.1 * length_mm * (segment(0.05 * diameter_mm, to) - segment(0.05 * diameter_mm, from))
            }
            Body::Tube { diameter_mm, length_mm } => {
                let radius = 0.05 * diameter_mm;
                let below = |z: f64| {
                    let off = (z - radius).clamp(-radius, radius);
                    off.signum() * segment(radius, off.abs())
                };
                0.1 * length_mm * (below(to) - below(from))
            }
            Body::Trough { width_mm, height_mm, length_mm } => {
                let radius = 0.05 * width_mm;
                let spring = 0.1 * height_mm - radius;
                let below = |z: f64| 2.0 * radius * z.min(spring) + segment(radius, (z - spring).max(0.0));
                0.1 * length_mm * (below(to) - below(from))
            }
            _ => self.section(0.0).area() * (to - from),
        }
    }

    /// The height, cm, below which there are `ml` above `from`; the top when there is more.
    pub fn height_of(&self, from: f64, ml: f64, top: f64) -> f64 {
        let (mut low, mut high) = (from, top);
        for _ in 0..50 {
            let middle = 0.5 * (low + high);
            if self.part(from, middle) < ml {
                low = middle;
            } else {
                high = middle;
            }
        }
        0.5 * (low + high)
    }

    /// A coat of `side` cm round it and `top` cm on it, up to `height` cm, ml. On outlines the outline is
    /// grown; on what is round above the plate, its skin times the thickness.
    pub fn coat(&self, height: f64, side: f64, top: f64) -> f64 {
        let lid = self.section(height).grown(side).area() * top;
        match *self {
            // 2 π R h is the skin of a cap; that of the middle of the coat.
            Body::Dome { .. } => {
                let (radius, _) = self.sphere();
                2.0 * PI * (radius + 0.5 * side) * (height + 0.5 * side) * side
            }
            Body::HalfLog { diameter_mm, length_mm } => {
                let radius = 0.05 * diameter_mm;
                (PI * (radius + 0.5 * side) * 0.1 * length_mm + PI * radius * radius) * side
            }
            Body::Trough { width_mm, length_mm, .. } => {
                let radius = 0.05 * width_mm;
                // Filled less than to its round part, it has that much wall.
                let straight = (height - radius).max(0.0);
                let end = 2.0 * radius * straight + PI * radius * radius / 2.0;
                ((PI * (radius + 0.5 * side) + 2.0 * straight) * 0.1 * length_mm + 2.0 * end) * side
            }
            Body::Cup { bottom_mm, top_mm, .. } => {
                let slant = (height * height + (0.05 * (top_mm - bottom_mm)).powi(2)).sqrt();
                PI * (0.05 * (bottom_mm + top_mm) + side) * slant * side + lid
            }
            Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, .. } => {
                let slant =
                    |top: f64, bottom: f64| (height * height + (0.05 * (top - bottom)).powi(2)).sqrt();
                let long = 0.1 * (top_length_mm + bottom_length_mm) * slant(top_width_mm, bottom_width_mm);
                let short = 0.1 * (top_width_mm + bottom_width_mm) * slant(top_length_mm, bottom_length_mm);
                // Four corners, each a quarter of a round.
                (long + short + PI * side * height) * side + lid
            }
            Body::Tube { diameter_mm, length_mm } => PI * (0.1 * diameter_mm + side) * side * 0.1 * length_mm,
            Body::Roll { length_mm, .. } => PI * (height + side) * side * 0.1 * length_mm,
            _ => crate::stack::shape::cover::coat(&self.section(0.0), height, side, top),
        }
    }

    /// Half the width to be drawn at a height of `z` cm, cm: across the longer side; of a log, its end.
    pub fn half_width(&self, z: f64) -> f64 {
        match (*self, self.section(z)) {
            (Body::HalfLog { .. } | Body::Trough { .. } | Body::Tube { .. }, _) => self.half_chord(z),
            (_, Footprint::Round { diameter } | Footprint::Ring { diameter, .. }) => 0.5 * diameter,
            (_, Footprint::Rectangle { length, .. }) => 0.5 * length,
            // Centres of its half circles stand s √2/4 off the middle, and reach s/2 further.
            (_, Footprint::Heart { side }) => side * (2f64.sqrt() / 4.0 + 0.5),
            (_, Footprint::Hexagon { across }) => across / 3f64.sqrt(),
        }
    }

    /// Across of a roll of a sheet and filling `thickness` cm thick together: π D²/4 is what is rolled up.
    pub fn roll_diameter(&self, thickness: f64) -> f64 {
        match *self {
            Body::Roll { sheet_mm, .. } => (4.0 * 0.1 * sheet_mm * thickness / PI).sqrt(),
            _ => 0.0,
        }
    }

    /// Whether layers rest on a flat outline and what stands on it bears down on them.
    pub fn stands(&self) -> bool {
        self.own_height_mm().is_none() && !matches!(self, Body::Roll { .. })
    }

    /// Whether it is filled and stays in its vessel.
    pub fn holds(&self) -> bool {
        matches!(self, Body::Cup { .. })
    }
}

/// Half a circle of `radius` up to the height `z` above its flat side, both halves: z √(r² − z²) + r² asin(z/r).
fn segment(radius: f64, z: f64) -> f64 {
    let z = z.clamp(0.0, radius);
    z * (radius * radius - z * z).max(0.0).sqrt() + radius * radius * (z / radius).asin()
}

/// The radius that a squeezed layer flows over, cm: twice the area on the edge it can leave by; that of a circle
/// for a circle, half the side for a square.
pub fn squeeze_radius(outline: &Footprint) -> f64 {
    let inner = match *outline {
        Footprint::Ring { hole, .. } => PI * hole,
        _ => 0.0,
    };
    2.0 * outline.area() / (outline.perimeter() + inner)
}
