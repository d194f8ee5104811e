//! How a tier is cut into portions, seen from above: pieces of one area, as straight cuts and rings.

use crate::stack::shape::footprint::Footprint;
use serde::Serialize;
use std::f64::consts::PI;
use utoipa::ToSchema;

/// A round wider than this is cut in rings, mm (common practice: a wedge longer than 100 mm tips).
const WEDGE_MOST: f64 = 200.0;
/// Most portions drawn of one tier.
const MOST_DRAWN: u32 = 400;

/// How a tier is cut.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cut {
    /// Which tier.
    pub tier: usize,
    /// Portions of it.
    pub portions: u32,
    /// The outline, mm: "round" with its diameter, or "rectangle" with length and width; others as the rectangle
    /// or round that holds them.
    pub outline: CutOutline,
    /// Straight cuts, mm from the middle: x and y of both ends.
    pub lines_mm: Vec<[f64; 4]>,
    /// Diameters of round cuts, mm.
    pub rings_mm: Vec<f64>,
    /// In words: "4 rows of 6, each 33 by 40 mm".
    pub words: String,
}

/// The outline seen from above.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
#[serde(tag = "shape", rename_all = "snake_case")]
pub enum CutOutline {
    /// A circle, with a hole in the middle or none.
    Round {
        /// Across, mm.
        diameter_mm: f64,
        /// Across its hole, mm.
        hole_mm: f64,
    },
    /// A rectangle.
    Rectangle {
        /// Longer side, mm.
        length_mm: f64,
        /// Shorter side, mm.
        width_mm: f64,
    },
    /// A heart.
    Heart {
        /// Side of its square, mm.
        side_mm: f64,
    },
    /// Six equal sides.
    Hexagon {
        /// From side to opposite side, mm.
        across_mm: f64,
    },
}

/// Cuts a tier into so many portions.
///
/// Rectangle: the rows and columns nearest to square pieces with at least so many. Round: wedges; wider than
/// 200 mm a round middle and a ring round it, parted by area: n_in = n (d_in/d)².
///
/// # Arguments
/// * `written`: rows and columns of a rectangle, where the cook says.
pub fn cut(tier: usize, outline: &Footprint, portions: u32, written: Option<[u32; 2]>) -> Cut {
    let portions = portions.min(MOST_DRAWN);
    let whole = |outline, words: &str| Cut {
        tier,
        portions,
        outline,
        lines_mm: Vec::new(),
        rings_mm: Vec::new(),
        words: words.to_owned(),
    };
    match *outline {
        Footprint::Rectangle { length, width, .. } => {
            let (length_mm, width_mm) = (10.0 * length, 10.0 * width);
            let shape = CutOutline::Rectangle { length_mm, width_mm };
            if portions < 2 {
                return whole(shape, "whole");
            }
            let (columns, rows) = match written {
                Some([rows, columns]) => (columns, rows),
                None => grid(length_mm, width_mm, portions),
            };
            let (a, b) = (length_mm / f64::from(columns), width_mm / f64::from(rows));
            let mut lines = Vec::new();
            for k in 1..columns {
                let x = -0.5 * length_mm + f64::from(k) * a;
                lines.push([x, -0.5 * width_mm, x, 0.5 * width_mm]);
            }
            for k in 1..rows {
                let y = -0.5 * width_mm + f64::from(k) * b;
                lines.push([-0.5 * length_mm, y, 0.5 * length_mm, y]);
            }
            let pieces = columns * rows;
            let words = format!("{rows} rows of {columns}: {pieces} pieces of {a:.0} by {b:.0} mm");
            Cut { lines_mm: lines, words, ..whole(shape, "") }
        }
        Footprint::Round { diameter } => round(
            tier,
            CutOutline::Round { diameter_mm: 10.0 * diameter, hole_mm: 0.0 },
            [10.0 * diameter, 0.0],
            portions,
        ),
        Footprint::Ring { diameter, hole } => {
            let (diameter_mm, hole_mm) = (10.0 * diameter, 10.0 * hole);
            wedges(tier, CutOutline::Round { diameter_mm, hole_mm }, [diameter_mm, hole_mm], portions)
        }
        Footprint::Heart { side } => {
            let across = 20.0 * side * (2f64.sqrt() / 4.0 + 0.5);
            whole(
                CutOutline::Heart { side_mm: 10.0 * side },
                &format!("about {portions} pieces over {across:.0} mm"),
            )
        }
        Footprint::Hexagon { across } => wedges(
            tier,
            CutOutline::Hexagon { across_mm: 10.0 * across },
            [20.0 * across / 3f64.sqrt(), 0.0],
            portions,
        ),
    }
}

/// Columns and rows with at least so many pieces, nearest to square.
fn grid(length: f64, width: f64, portions: u32) -> (u32, u32) {
    let n = f64::from(portions);
    let mut best = (portions, 1, f64::INFINITY);
    for rows in 1..=portions {
        let columns = portions.div_ceil(rows);
        let (a, b) = (length / f64::from(columns), width / f64::from(rows));
        // Pieces out of square, and pieces too many, count against it.
        let cost = (a / b).ln().abs() + 2.0 * (f64::from(columns * rows) / n - 1.0);
        if cost < best.2 {
            best = (columns, rows, cost);
        }
    }
    (best.0, best.1)
}

fn wedges(tier: usize, outline: CutOutline, [outer, inner]: [f64; 2], portions: u32) -> Cut {
    let lines = if portions < 2 { Vec::new() } else { spokes(outer, inner, portions, 0.0) };
    let words = if portions < 2 {
        "whole".to_owned()
    } else {
        format!("{portions} wedges of {:.0} mm at the edge", PI * outer / f64::from(portions))
    };
    Cut { tier, portions, outline, lines_mm: lines, rings_mm: Vec::new(), words }
}

fn round(tier: usize, outline: CutOutline, [outer, hole]: [f64; 2], portions: u32) -> Cut {
    if outer <= WEDGE_MOST || portions < 8 {
        return wedges(tier, outline, [outer, hole], portions);
    }
    // The middle a little over half as wide, so that its wedges and the pieces of the ring are alike.
    let inside = ((f64::from(portions) * 0.55 * 0.55).round() as u32).max(3);
    let outside = portions - inside;
    let ring = outer * (f64::from(inside) / f64::from(portions)).sqrt();
    let mut lines = spokes(outer, ring, outside, 0.0);
    lines.extend(spokes(ring, 0.0, inside, 0.5));
    let words = format!("{outside} round the edge and {inside} wedges of the middle, cut at {ring:.0} mm");
    Cut { tier, portions, outline, lines_mm: lines, rings_mm: vec![ring], words }
}

fn spokes(outer: f64, inner: f64, count: u32, turn: f64) -> Vec<[f64; 4]> {
    (0..count)
        .map(|k| {
            let angle = 2.0 * PI * (f64::from(k) + turn) / f64::from(count) - PI / 2.0;
            let (sin, cos) = angle.sin_cos();
            [0.5 * inner * cos, 0.5 * inner * sin, 0.5 * outer * cos, 0.5 * outer * sin]
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn pieces_of_a_round_have_one_area() {
        let cut = cut(0, &Footprint::Round { diameter: 26.0 }, 30, None);
        let ring = cut.rings_mm[0];
        let inside = cut.lines_mm.iter().filter(|line| line[0].hypot(line[1]) < 1.0).count() as f64;
        let outside = cut.lines_mm.len() as f64 - inside;
        assert_eq!(inside + outside, 30.0);
        let (middle, rim) = (ring * ring / inside, (260.0 * 260.0 - ring * ring) / outside);
        assert!((middle / rim - 1.0).abs() < 1e-9, "{middle} to {rim}");
    }

    #[test]
    fn a_tray_is_cut_into_squares_and_never_into_too_few() {
        let cut = cut(0, &Footprint::Rectangle { length: 60.0, width: 40.0, corner: 0.0 }, 24, None);
        assert_eq!(cut.words, "4 rows of 6: 24 pieces of 100 by 100 mm");
        assert_eq!(cut.lines_mm.len(), 8);
    }
}
