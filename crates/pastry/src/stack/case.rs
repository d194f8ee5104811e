//! What holds the filling of a tier: a shell or crust, what is hollow all round, a tube, a hole cut from the top; and equal
//! pieces of which there are many, loose or piled up.

use crate::stack::shape::body::Body;
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use utoipa::ToSchema;

/// What holds the filling of a tier, in its shape.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Case {
    /// Its form.
    pub form: CaseForm,
    /// Key of what it is baked of; none when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub bake: Option<String>,
    /// A film inside that keeps wet from crisp.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub film: Option<Film>,
}

/// The form of a case, mm. The tier's shape is its outside.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum CaseForm {
    /// Floor and wall, open above: a tart shell, a pie crust, a crumb crust.
    Shell {
        /// Thickness of its wall.
        wall_mm: f64,
        /// Thickness of its floor.
        floor_mm: f64,
        /// Depth of the flutes of its wall; 0 when it is straight.
        #[serde(default)]
        flutes_mm: f64,
    },
    /// Hollow, and filled through a hole: choux, round or long.
    Closed {
        /// Thickness of its wall all round.
        wall_mm: f64,
    },
    /// Open at both ends, and filled from them.
    Tube {
        /// Thickness of its wall.
        wall_mm: f64,
    },
    /// Whole but for a hole cut from the top: a cored cupcake.
    Cored {
        /// Across the hole.
        across_mm: f64,
        /// How deep it is.
        deep_mm: f64,
    },
}

/// A film between a case and what is in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Film {
    /// Key of its component: cocoa butter, chocolate, a boiled jam. None when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub component: Option<String>,
    /// Its thickness, mm.
    pub thickness_mm: f64,
}

/// Equal pieces: the tier is one of them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Many {
    /// How many.
    #[schema(minimum = 1, maximum = 2000)]
    pub count: u32,
    /// How many more are made, for those that break.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 500)]
    pub spare: u32,
    /// Piled up, and what holds them together.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pile: Option<Pile>,
}

/// A pile of pieces.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pile {
    /// Key of what holds it together: boiled sugar. None when nobody said yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub component: Option<String>,
    /// What of it each piece takes, g.
    pub each_g: f64,
}

/// A tray as it is cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutInto {
    /// Rows, along its shorter side.
    #[schema(minimum = 1, maximum = 40)]
    pub rows: u32,
    /// Pieces in each.
    #[schema(minimum = 1, maximum = 40)]
    pub columns: u32,
}

impl CutInto {
    /// Rows and columns, as far as they are cut.
    pub fn counted(self) -> [u32; 2] {
        [self.rows.clamp(1, 40), self.columns.clamp(1, 40)]
    }
}

/// Most pieces of one tier.
pub const MOST_PIECES: u32 = 2000;
/// A row of a pile sinks into the one below by this share of its height (assumed).
const NESTS: f64 = 0.15;

/// A cavity narrower or lower than this holds nothing, mm.
const LEAST: f64 = 2.0;

/// A hollow in a body: its own shape, and how far above the foot it begins, cm.
pub type Cavity = (Body, f64);

impl Case {
    /// The hollow of it in a body; none where nothing is left, or where the body gives it no height.
    ///
    /// Fluted walls take half their depth on the mean.
    pub fn cavity(&self, body: &Body) -> Option<Cavity> {
        let sizes = match self.form {
            CaseForm::Shell { wall_mm, floor_mm, flutes_mm } => vec![wall_mm, floor_mm, flutes_mm],
            CaseForm::Closed { wall_mm } | CaseForm::Tube { wall_mm } => vec![wall_mm],
            CaseForm::Cored { across_mm, deep_mm } => vec![across_mm, deep_mm],
        };
        if sizes.iter().any(|mm| !(0.0..=500.0).contains(mm)) {
            return None;
        }
        let (hollow, foot_mm) = match self.form {
            CaseForm::Shell { wall_mm, floor_mm, flutes_mm } => {
                (within(body, wall_mm + 0.5 * flutes_mm, [floor_mm, 0.0])?, floor_mm)
            }
            CaseForm::Closed { wall_mm } => (within(body, wall_mm, [wall_mm, wall_mm])?, wall_mm),
            CaseForm::Tube { wall_mm } => match *body {
                Body::Tube { diameter_mm, length_mm } => {
                    (Body::Tube { diameter_mm: diameter_mm - 2.0 * wall_mm, length_mm }, wall_mm)
                }
                _ => return None,
            },
            CaseForm::Cored { across_mm, deep_mm } => match *body {
                Body::Cup { bottom_mm, top_mm, height_mm } if across_mm < bottom_mm.min(top_mm) => {
                    let hole = Body::Cup { bottom_mm: across_mm, top_mm: across_mm, height_mm: deep_mm };
                    (hole, height_mm - deep_mm)
                }
                _ => return None,
            },
        };
        let fits = hollow.sizes().iter().all(|(_, mm)| *mm >= LEAST) && foot_mm >= 0.0;
        fits.then_some((hollow, 0.1 * foot_mm))
    }

    /// Its outside less its hollow, ml.
    pub fn volume(&self, body: &Body) -> Option<f64> {
        let (hollow, _) = self.cavity(body)?;
        Some((whole(body) - whole(&hollow)).max(0.0))
    }

    /// What is inside its hollow to be covered, cm².
    pub fn inner_cm2(&self, body: &Body) -> f64 {
        const THIN: f64 = 1e-4;
        let Some((hollow, _)) = self.cavity(body) else { return 0.0 };
        let height = 0.1 * hollow.own_height_mm().unwrap_or(0.0);
        let floor = if matches!(self.form, CaseForm::Tube { .. }) { 0.0 } else { hollow.section(0.0).area() };
        hollow.coat(height, THIN, 0.0) / THIN + floor
    }

    /// Its thinnest, mm: what water has to go through.
    pub fn thickness_mm(&self) -> f64 {
        match self.form {
            CaseForm::Shell { wall_mm, floor_mm, .. } => wall_mm.min(floor_mm),
            CaseForm::Closed { wall_mm } | CaseForm::Tube { wall_mm } => wall_mm,
            CaseForm::Cored { across_mm, .. } => across_mm,
        }
    }
}

/// All of a body that has walls, ml.
fn whole(body: &Body) -> f64 {
    body.part(0.0, 0.1 * body.own_height_mm().unwrap_or(0.0))
}

/// A body smaller by `inset` mm all round, and by so much at its foot and its top.
fn within(body: &Body, inset: f64, [foot, top]: [f64; 2]) -> Option<Body> {
    let less = |mm: f64| mm - 2.0 * inset;
    let lower = |mm: f64| mm - foot - top;
    // Sloping sides are wider where the floor ends.
    let at = |bottom: f64, top: f64, height: f64| bottom + (top - bottom) * (foot / height).min(1.0);
    Some(match *body {
        Body::Cup { bottom_mm, top_mm, height_mm } => Body::Cup {
            bottom_mm: less(at(bottom_mm, top_mm, height_mm)),
            top_mm: less(top_mm),
            height_mm: lower(height_mm),
        },
        Body::Loaf { top_length_mm, top_width_mm, bottom_length_mm, bottom_width_mm, height_mm } => {
            Body::Loaf {
                top_length_mm: less(top_length_mm),
                top_width_mm: less(top_width_mm),
                bottom_length_mm: less(at(bottom_length_mm, top_length_mm, height_mm)),
                bottom_width_mm: less(at(bottom_width_mm, top_width_mm, height_mm)),
                height_mm: lower(height_mm),
            }
        }
        Body::Dome { diameter_mm, height_mm } => {
            Body::Dome { diameter_mm: less(diameter_mm), height_mm: height_mm - foot - inset }
        }
        Body::HalfLog { diameter_mm, length_mm } => {
            Body::HalfLog { diameter_mm: less(diameter_mm), length_mm: less(length_mm) }
        }
        Body::Trough { width_mm, height_mm, length_mm } => Body::Trough {
            width_mm: less(width_mm),
            height_mm: height_mm - foot - inset,
            length_mm: less(length_mm),
        },
        _ => return None,
    })
}

impl Many {
    /// How many of them there are, as far as they are counted.
    pub fn counted(&self) -> u32 {
        self.count.clamp(1, MOST_PIECES)
    }

    /// How many times as much is made as is used: those that break.
    pub fn made(&self) -> f64 {
        1.0 + f64::from(self.spare.min(500)) / f64::from(self.counted())
    }
}

/// Rows of a pile: 1 on top, and three more in every row below (a ring of pieces grows by π with each row).
pub fn rows(count: u32) -> Vec<u32> {
    let mut rows = Vec::new();
    let mut left = count;
    let mut row = 1;
    while left > 0 {
        rows.push(row.min(left));
        left -= row.min(left);
        row += 3;
    }
    // What does not fill a row stands at the top, not at the foot.
    rows.sort_unstable();
    rows
}

/// Height and width of a pile of pieces, cm.
///
/// # Arguments
/// * `piece`: height and width of one, cm.
pub fn pile(count: u32, [high, wide]: [f64; 2]) -> [f64; 2] {
    let rows = rows(count);
    let foot = rows.last().copied().unwrap_or(1);
    let across = if foot < 2 { wide } else { f64::from(foot) * wide / PI + wide };
    [high * (1.0 + (1.0 - NESTS) * (rows.len() as f64 - 1.0)), across]
}

#[cfg(test)]
mod tests {
    use super::*;

    fn case(form: CaseForm) -> Case {
        Case { form, bake: None, film: None }
    }

    #[test]
    fn a_shell_and_its_hollow_are_its_tin() {
        let tin = Body::Cup { bottom_mm: 80.0, top_mm: 90.0, height_mm: 20.0 };
        let shell = case(CaseForm::Shell { wall_mm: 3.0, floor_mm: 3.0, flutes_mm: 0.0 });
        let (hollow, foot) = shell.cavity(&tin).unwrap();
        assert!((foot - 0.3).abs() < 1e-12);
        // By hand: a frustum of 75.5 to 84 mm, 17 mm high.
        let by_hand = PI * 1.7 / 12.0 * (7.55f64.powi(2) + 7.55 * 8.4 + 8.4f64.powi(2));
        assert!((whole(&hollow) - by_hand).abs() < 1e-9, "{} and {by_hand}", whole(&hollow));
        assert!((shell.volume(&tin).unwrap() + by_hand - whole(&tin)).abs() < 1e-9);
        // Fluted, it holds less; as thick as its tin, nothing.
        let fluted = case(CaseForm::Shell { wall_mm: 3.0, floor_mm: 3.0, flutes_mm: 4.0 });
        assert!(whole(&fluted.cavity(&tin).unwrap().0) < by_hand);
        for [wall_mm, floor_mm] in [[45.0, 3.0], [3.0, 20.0], [f64::NAN, 3.0], [-1.0, 3.0]] {
            assert_eq!(case(CaseForm::Shell { wall_mm, floor_mm, flutes_mm: 0.0 }).cavity(&tin), None);
        }
    }

    #[test]
    fn tubes_and_balls_hold_what_geometry_says() {
        let tube = Body::Tube { diameter_mm: 24.0, length_mm: 100.0 };
        let held = whole(&case(CaseForm::Tube { wall_mm: 2.0 }).cavity(&tube).unwrap().0);
        assert!((held - PI / 4.0 * 4.0 * 10.0).abs() < 1e-9, "{held}");
        assert!((tube.part(0.0, 1.2) - 0.5 * whole(&tube)).abs() < 1e-9);
        let half_ball = Body::Dome { diameter_mm: 60.0, height_mm: 30.0 };
        let (hollow, _) = case(CaseForm::Closed { wall_mm: 5.0 }).cavity(&half_ball).unwrap();
        assert_eq!(hollow, Body::Dome { diameter_mm: 50.0, height_mm: 20.0 });
        // A film covers all of it: wall and floor of a straight cup.
        let cup = Body::Cup { bottom_mm: 86.0, top_mm: 86.0, height_mm: 23.0 };
        let shell = case(CaseForm::Shell { wall_mm: 3.0, floor_mm: 3.0, flutes_mm: 0.0 });
        let by_hand = PI * 8.0 * 2.0 + PI * 16.0;
        assert!((shell.inner_cm2(&cup) / by_hand - 1.0).abs() < 1e-3, "{}", shell.inner_cm2(&cup));
    }

    #[test]
    fn a_pile_grows_by_three_a_row() {
        assert_eq!(rows(22), [1, 4, 7, 10]);
        assert_eq!(rows(24).iter().sum::<u32>(), 24);
        let [high, wide] = pile(22, [4.0, 5.0]);
        assert!((high - 4.0 * (1.0 + 3.0 * 0.85)).abs() < 1e-12 && (wide - (50.0 / PI + 5.0)).abs() < 1e-12);
        assert_eq!(pile(1, [4.0, 5.0]), [4.0, 5.0]);
    }
}
