//! To mask: a layer spread on a side with a knife, that must stay there.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Duty, Judged, Outcome, Said, gives_way, spread_histories};
use crate::number::limit;
use crate::rheology::History;
use crate::units::{Area, Force, GRAVITY, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A layer spread on a side with a knife, that must stay there.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct MaskGeometry {
    /// Thickness of the layer, mm.
    pub thickness_mm: Length,
    /// Push of the hand on the knife, N.
    pub knife_force_n: Force,
    /// Area of the knife in contact, cm².
    pub knife_area_cm2: Area,
}

impl Default for MaskGeometry {
    fn default() -> Self {
        MaskGeometry {
            thickness_mm: Length::from_millimetres(10.0),
            knife_force_n: Force::from_newtons(10.0),
            knife_area_cm2: Area::from_square_centimetres(45.0),
        }
    }
}

impl Duty for MaskGeometry {
    fn word(&self) -> &'static str {
        "mask"
    }

    fn does(&self) -> &'static str {
        "masks"
    }

    fn histories(&self, family: Family) -> &'static [History] {
        spread_histories(family, &[History::Worked])
    }

    fn minutes_needed(&self) -> f64 {
        10.0
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("A layer of"),
            number::<Length>("thickness_mm", "Thickness of the layer", 1.0),
            words("spread with"),
            number::<Force>("knife_force_n", "Push on the knife", 1.0),
            words("on a blade of"),
            number::<Area>("knife_area_cm2", "Blade in contact", 5.0),
        ]
    }

    /// [`mask_window`].
    fn window(&self, density: f64) -> [f64; 2] {
        mask_window(
            density,
            1e-3 * self.thickness_mm.millimetres(),
            self.knife_force_n.newtons(),
            1e-4 * self.knife_area_cm2.square_centimetres(),
        )
    }

    fn verdict(&self, judged: &Judged, _at: &str) -> Option<String> {
        (judged.outcome == Outcome::NoWindow)
            .then(|| "No cream both stays on and spreads at this thickness".to_owned())
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, [low, high]) = (said.value(), said.worked_out());
        let thickness = limit(self.thickness_mm.millimetres());
        match judged.outcome {
            Outcome::TooLoose => {
                format!("A layer of {thickness} mm needs {low} Pa to stay up; it has {value}.")
            }
            Outcome::TooStiff => format!("It takes {value} Pa to spread; your knife gives {high}."),
            Outcome::NoWindow => format!(
                "A layer of {thickness} mm needs {low} Pa to stay up, and your knife gives {high}: spread it thinner, or in two coats."
            ),
            _ => gives_way(said),
        }
    }
}

/// [1.5 ρ g h, F/A], Pa, for a layer of `thickness` m on a wall and a knife of `area` m²: it stays when the
/// yield stress beats its weight with safety 1.5, and the hand can spread it below the push of the knife.
pub fn mask_window(density: f64, thickness: f64, force: f64, area: f64) -> [f64; 2] {
    [1.5 * density * GRAVITY * thickness, force / area]
}
