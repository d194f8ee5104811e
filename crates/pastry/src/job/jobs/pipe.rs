//! To pipe: something that must stand, through a nozzle a hand can push it through.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Duty, Judged, Outcome, Said, gives_way, spread_histories};
use crate::number::limit;
use crate::rheology::History;
use crate::units::{Area, Force, GRAVITY, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something piped that must stand, through a nozzle a hand can push it through.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct PipeGeometry {
    /// Height of the piped piece, mm.
    pub height_mm: Length,
    /// Opening of the nozzle, mm.
    pub nozzle_mm: Length,
    /// Length of the nozzle, mm.
    pub nozzle_length_mm: Length,
    /// Push of the hand on the bag, N.
    pub hand_force_n: Force,
    /// Area of the hand on the bag, cm².
    pub hand_area_cm2: Area,
    /// Width of the bag above the nozzle, mm.
    pub bag_mm: Length,
}

impl Default for PipeGeometry {
    fn default() -> Self {
        PipeGeometry {
            height_mm: Length::from_millimetres(30.0),
            nozzle_mm: Length::from_millimetres(10.0),
            nozzle_length_mm: Length::from_millimetres(15.0),
            hand_force_n: Force::from_newtons(60.0),
            hand_area_cm2: Area::from_square_centimetres(28.0),
            bag_mm: Length::from_millimetres(60.0),
        }
    }
}

impl Duty for PipeGeometry {
    fn word(&self) -> &'static str {
        "pipe"
    }

    fn does(&self) -> &'static str {
        "pipes"
    }

    fn histories(&self, family: Family) -> &'static [History] {
        spread_histories(family, &[History::Worked, History::Fresh])
    }

    fn minutes_needed(&self) -> f64 {
        10.0
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("Pieces"),
            number::<Length>("height_mm", "Height of a piece", 1.0),
            words("high through a nozzle of"),
            number::<Length>("nozzle_mm", "Opening of the nozzle", 1.0),
            words("and"),
            number::<Length>("nozzle_length_mm", "Length of the nozzle", 1.0),
            words("long; the hand pushes"),
            number::<Force>("hand_force_n", "Push of the hand", 5.0),
            words("on"),
            number::<Area>("hand_area_cm2", "Hand on the bag", 2.0),
            words("of a bag"),
            number::<Length>("bag_mm", "Width of the bag", 1.0),
            words("wide"),
        ]
    }

    /// [`pipe_window`].
    fn window(&self, density: f64) -> [f64; 2] {
        pipe_window(
            density,
            1e-3 * self.height_mm.millimetres(),
            self.hand_force_n.newtons() / (1e-4 * self.hand_area_cm2.square_centimetres()),
            [
                0.5e-3 * self.nozzle_mm.millimetres(),
                1e-3 * self.nozzle_length_mm.millimetres(),
                0.5e-3 * self.bag_mm.millimetres(),
            ],
        )
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        let (nozzle, bag) = (self.nozzle_mm.millimetres(), self.bag_mm.millimetres());
        let message = || format!("a nozzle of {nozzle} mm does not fit a bag of {bag} mm: a wider bag");
        (nozzle >= bag).then(|| ("nozzle_mm", message()))
    }

    fn verdict(&self, judged: &Judged, _at: &str) -> Option<String> {
        (judged.outcome == Outcome::NoWindow)
            .then(|| "Nothing both stands this high and goes through this nozzle".to_owned())
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, [low, high]) = (said.value(), said.worked_out());
        match judged.outcome {
            Outcome::TooLoose => format!(
                "A piece {} mm high asks for {low} Pa to stand; it has {value}.",
                limit(self.height_mm.millimetres()),
            ),
            Outcome::TooStiff => {
                format!("It takes {value} Pa; your hand pushes {high} through this nozzle.")
            }
            Outcome::NoWindow => format!(
                "It asks for {low} Pa to stand, and your hand pushes {high}: a wider nozzle, or lower pieces."
            ),
            _ => gives_way(said),
        }
    }
}

/// [1.5 ρ g H/√3, p/(2 L/R + 2√3 ln(R_bag/R))], Pa: a piece of `height` m stands by its own strength, and
/// `pressure` Pa of the hand pushes it through the cone of the bag and a nozzle of radius, length and bag
/// radius `nozzle`, m, as a plastic.
pub fn pipe_window(density: f64, height: f64, pressure: f64, [radius, length, bag]: [f64; 3]) -> [f64; 2] {
    let root3 = 3f64.sqrt();
    [
        1.5 * density * GRAVITY * height / root3,
        pressure / (2.0 * length / radius + 2.0 * root3 * (bag / radius).ln()),
    ]
}
