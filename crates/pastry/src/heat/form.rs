//! From a form to a body of cells.

use crate::heat::body::{Body, Face, Layer, Moist, Outline, Stretch};
use crate::heat::material::Material;
use std::f64::consts::PI;

/// Rows of cells by how much the face lets through against what the body conducts (h d/2k): few are enough where the inside is
/// nearly of one temperature.
fn rows_for(biot: f64) -> usize {
    match biot {
        // As good as of one temperature throughout; fewer would make the strides too long.
        b if b < 0.01 => 3,
        b if b < 0.1 => 5,
        b if b < 0.4 => 9,
        b if b < 1.0 => 11,
        b if b < 4.0 => 15,
        _ => 23,
    }
}

/// Shells of a ball, rings and rows of what is round.
const SHELLS: usize = 20;
const RINGS: [usize; 2] = [6, 14];
const ROWS: [usize; 2] = [7, 13];
/// A thin layer, its cells, those of a thick one, m, and most cells of one.
const THIN_M: f64 = 5e-3;
const THIN_CELL_M: f64 = 1e-3;
const THICK_CELL_M: f64 = 3e-3;
const MOST_CELLS: usize = 16;

/// How much of a bowl's own skin is counted, as a power: all of it would tell its middle cold too early, for that lies further from
/// the wall than in a cylinder. By depth over rim, fitted so that the hottest point is never told early, and at most a twelfth late,
/// against finite differences in the bowl itself (`scripts/oracle_clock.py`).
fn of_bowl(filled: f64) -> f64 {
    (0.15 + 1.28 * (filled - 0.25)).clamp(0.0, 0.4)
}

/// What a body of one material is like, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Form {
    /// Wide and flat.
    Slab {
        /// How thick.
        thickness_m: f64,
        /// Whether one side gives off nothing.
        one_sided: bool,
    },
    /// Round, with or without a hole.
    Round {
        /// Radius.
        radius_m: f64,
        /// Radius of the hole.
        hole_m: f64,
        /// Height.
        height_m: f64,
    },
    /// A ball.
    Ball {
        /// Diameter.
        diameter_m: f64,
    },
    /// A cap of a ball on its flat side.
    Dome {
        /// Radius of its foot.
        radius_m: f64,
        /// Height.
        height_m: f64,
    },
    /// What stands in a round bowl.
    Bowl {
        /// Radius of the rim.
        rim_m: f64,
        /// How deep it stands.
        depth_m: f64,
    },
}

/// What cells of a form are like, with what its real skin is of the skin of its cells.
struct Sizes {
    outline: Outline,
    height_m: f64,
    rows: usize,
    top: f64,
    side: f64,
    foot: f64,
}

impl Form {
    /// Cells, for faces of which the strongest lets through so much, W/(m² K), and what conducts so much, W/(m K).
    fn sizes(self, strongest: f64, conducts: f64) -> Sizes {
        let round = |radius_m: f64, hole_m: f64, height_m: f64, [top, side, foot]: [f64; 3]| {
            let fine = usize::from(strongest * (radius_m - hole_m).max(0.5 * height_m) / conducts > 3.0);
            let rings = if hole_m > 0.0 { ROWS[fine] } else { RINGS[fine] };
            let outline = Outline::Round { radius_m, hole_m, rings };
            Sizes { outline, height_m, rows: ROWS[fine], top, side, foot }
        };
        match self {
            Form::Slab { thickness_m, one_sided } => {
                let biot = strongest * thickness_m / conducts * if one_sided { 1.0 } else { 0.5 };
                let (outline, rows) = (Outline::Wide, rows_for(biot));
                Sizes { outline, height_m: thickness_m, rows, top: 1.0, side: 1.0, foot: 1.0 }
            }
            Form::Ball { diameter_m } => {
                let outline = Outline::Ball { shells: SHELLS };
                Sizes { outline, height_m: diameter_m, rows: 1, top: 1.0, side: 1.0, foot: 1.0 }
            }
            Form::Round { radius_m, hole_m, height_m } => round(radius_m, hole_m, height_m, [1.0; 3]),
            Form::Dome { radius_m: a, height_m: h } => {
                let volume = PI * h / 6.0 * (3.0 * a * a + h * h);
                let radius = (volume / (PI * h)).sqrt();
                let skin = PI * (a * a + h * h) / (2.0 * PI * radius * h + PI * radius * radius);
                round(radius, 0.0, h, [skin, skin, (a / radius).powi(2)])
            }
            Form::Bowl { rim_m, depth_m } => {
                let radius = (bowl_volume(rim_m, depth_m) / (PI * depth_m)).sqrt();
                // A bowl is wider above than the cylinder of its volume, and has another wall.
                let in_ball = depth_m.min(rim_m);
                let above = (2.0 * rim_m * in_ball - in_ball * in_ball) / (radius * radius);
                let wall = 2.0 * rim_m * depth_m / (2.0 * radius * depth_m + radius * radius);
                let power = of_bowl(depth_m / rim_m);
                round(radius, 0.0, depth_m, [above, wall, wall].map(|share| share.powf(power)))
            }
        }
    }
}

/// Volume of what stands `depth` deep in half a ball of a rim's radius, with a straight wall above it, m³.
pub fn bowl_volume(rim: f64, depth: f64) -> f64 {
    let in_ball = depth.min(rim);
    PI * in_ball * in_ball * (rim - in_ball / 3.0) + PI * rim * rim * (depth - in_ball)
}

/// How deep so much stands in it, m.
pub fn bowl_depth(rim: f64, volume: f64) -> f64 {
    let half = bowl_volume(rim, rim);
    if volume >= half {
        return rim + (volume - half) / (PI * rim * rim);
    }
    let (mut low, mut high) = (0.0, rim);
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if bowl_volume(rim, middle) < volume { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

/// A body made ready: materials, layers, outline.
#[derive(Debug, Clone)]
pub struct Shaped {
    materials: Vec<Material>,
    layers: Vec<(f64, f64, usize)>,
    outline: Outline,
    watch: Option<usize>,
    /// What the real skin is of that of the cells: above, round it, and below.
    top: f64,
    side: f64,
    foot: f64,
    ball: bool,
}

impl Shaped {
    /// A form of one material at `start_c`, that goes to about `ends_c`; its strongest face lets through so much, W/(m² K).
    pub fn one(form: Form, material: Material, [start_c, ends_c]: [f64; 2], strongest: f64) -> Self {
        let conducts = material.conducts(start_c).min(material.conducts(ends_c));
        let Sizes { outline, height_m, rows, top, side, foot } = form.sizes(strongest, conducts);
        let ball = matches!(form, Form::Ball { .. });
        let layers = vec![(height_m, start_c, rows)];
        Shaped { materials: vec![material], layers, outline, watch: None, top, side, foot, ball }
    }

    /// Layers from the bottom up, each with its thickness, m, and how warm it is at first, °C; wide, or cut to a radius and a
    /// radius of the hole, m.
    pub fn stack(layers: Vec<(Material, f64, f64)>, round: Option<[f64; 2]>, watch: Option<usize>) -> Self {
        let thin = layers.iter().any(|(_, thickness_m, _)| *thickness_m <= THIN_M);
        let cells = |thickness_m: f64| {
            let cell_m = match thickness_m {
                m if m <= THIN_M => THIN_CELL_M,
                _ if thin => 0.5 * (THIN_CELL_M + THICK_CELL_M),
                _ => THICK_CELL_M,
            };
            ((thickness_m / cell_m).round() as usize).clamp(3, MOST_CELLS)
        };
        let outline = match round {
            Some([radius_m, hole_m]) => Outline::Round { radius_m, hole_m, rings: RINGS[1] },
            None => Outline::Wide,
        };
        let (materials, layers) = layers
            .into_iter()
            .map(|(material, thickness_m, t_c)| (material, (thickness_m, t_c, cells(thickness_m))))
            .unzip();
        Shaped { materials, layers, outline, watch, top: 1.0, side: 1.0, foot: 1.0, ball: false }
    }

    /// The body.
    pub fn body(&self) -> Body<'_> {
        let layers = self.layers.iter().zip(&self.materials).map(|((thickness_m, t_c, cells), material)| {
            Layer { material, thickness_m: *thickness_m, t_c: *t_c, cells: *cells }
        });
        Body { layers: layers.collect(), outline: self.outline, watch: self.watch }
    }

    /// A stretch of time as its cells meet it: their skin is not the real one. A ball has one face, its side.
    pub fn meets(&self, stretch: Stretch) -> Stretch {
        let face = |face: Face, skin: f64| Face {
            h: skin * face.h,
            resistance: face.resistance / skin,
            moist: face.moist.map(|moist| Moist { convection: skin * moist.convection, ..moist }),
            ..face
        };
        let round = if self.ball { stretch.side.or(stretch.top).or(stretch.bottom) } else { stretch.side };
        Stretch {
            top: stretch.top.map(|own| face(own, self.top)),
            side: round.map(|own| face(own, self.side)),
            bottom: stretch.bottom.map(|own| face(own, self.foot)),
            ..stretch
        }
    }
}
