//! To fill: a layer between sponges, that must bear what stands on it and not tear the crumb.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Duty, Judged, Outcome, Said, gives_way, spread_histories};
use crate::number::{limit, two_digits};
use crate::rheology::History;
use crate::units::{GRAVITY, Length, Mass, Stress};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;
use utoipa::ToSchema;

/// A layer between sponges, that must bear what stands on it and not tear the crumb.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct FillGeometry {
    /// Thickness of the filling, mm.
    pub thickness_mm: Length,
    /// Diameter of the cake, mm.
    pub diameter_mm: Length,
    /// What stands on it, g.
    pub load_above_g: Mass,
    /// Stress at which the crumb tears, Pa (assumed).
    pub crumb_strength_pa: Stress,
}

impl Default for FillGeometry {
    fn default() -> Self {
        FillGeometry {
            thickness_mm: Length::from_millimetres(10.0),
            diameter_mm: Length::from_millimetres(180.0),
            load_above_g: Mass::from_grams(2075.0),
            crumb_strength_pa: Stress::from_pascals(1500.0),
        }
    }
}

impl Duty for FillGeometry {
    fn word(&self) -> &'static str {
        "fill"
    }

    fn does(&self) -> &'static str {
        "fills"
    }

    fn histories(&self, family: Family) -> &'static [History] {
        spread_histories(family, &[History::Worked, History::Fresh])
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("A filling of"),
            number::<Length>("thickness_mm", "Thickness of the filling", 1.0),
            words("in a cake"),
            number::<Length>("diameter_mm", "Diameter of the cake", 10.0),
            words("wide, under"),
            number::<Mass>("load_above_g", "Load above", 100.0),
            words("whose crumb tears at"),
            number::<Stress>("crumb_strength_pa", "Strength of the crumb", 100.0),
        ]
    }

    /// [`fill_window`].
    fn window(&self, _density: f64) -> [f64; 2] {
        let radius = 0.5e-3 * self.diameter_mm.millimetres();
        let pressure = 1e-3 * self.load_above_g.grams() * GRAVITY / (PI * radius * radius);
        let thickness = 1e-3 * self.thickness_mm.millimetres();
        fill_window(thickness, radius, pressure, self.crumb_strength_pa.pascals())
    }

    fn verdict(&self, judged: &Judged, _at: &str) -> Option<String> {
        (judged.outcome == Outcome::NoWindow)
            .then(|| "No filling holds this load without tearing the crumb".to_owned())
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, [low, high]) = (said.value(), said.worked_out());
        let load = two_digits(1e-3 * self.load_above_g.grams());
        match judged.outcome {
            Outcome::TooLoose => format!("{load} kg above asks for {low} Pa; it has {value}."),
            Outcome::TooStiff => format!("It takes {value} Pa to spread; the crumb tears at {high}."),
            Outcome::NoWindow => format!(
                "{load} kg on {} mm of filling asks for {low} Pa, and the crumb tears at {high}: thinner layers, a wider cake, or dowels.",
                limit(self.thickness_mm.millimetres()),
            ),
            _ => gives_way(said),
        }
    }
}

/// [1.5·3hP/(2R), tear], Pa, for a filling of `thickness` m under `pressure` Pa on a cake of `radius` m:
/// squeeze film of a yield stress fluid with safety 1.5; above its strength the crumb tears.
pub fn fill_window(thickness: f64, radius: f64, pressure: f64, tear: f64) -> [f64; 2] {
    [1.5 * 3.0 * thickness * pressure / (2.0 * radius), tear]
}
