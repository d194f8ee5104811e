//! To be eaten with a spoon from a glass.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Duty, Judged, Outcome, Said, gives_way, limits_crossed, spread_histories};
use crate::rheology::History;
use crate::units::Stress;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something eaten with a spoon from a glass.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SpoonGeometry {
    /// Softest that still mounds, Pa.
    pub softest_pa: Stress,
    /// Firmest that still melts, Pa.
    pub firmest_pa: Stress,
}

impl Default for SpoonGeometry {
    fn default() -> Self {
        SpoonGeometry { softest_pa: Stress::from_pascals(60.0), firmest_pa: Stress::from_pascals(900.0) }
    }
}

impl Duty for SpoonGeometry {
    fn word(&self) -> &'static str {
        "spoon"
    }

    fn verb(&self) -> &'static str {
        "eat with a spoon"
    }

    fn does(&self) -> &'static str {
        "eats well"
    }

    fn histories(&self, family: Family) -> &'static [History] {
        spread_histories(family, &[History::Rested, History::Worked, History::Fresh])
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("On a spoon, from"),
            number::<Stress>("softest_pa", "Softest", 10.0),
            words("to"),
            number::<Stress>("firmest_pa", "Firmest", 50.0),
        ]
    }

    /// As the person set it.
    fn window(&self, _density: f64) -> [f64; 2] {
        [self.softest_pa.pascals(), self.firmest_pa.pascals()]
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        limits_crossed("softest_pa", "softness", self.window(0.0), "Pa")
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, [low, high]) = (said.value(), said.worked_out());
        match judged.outcome {
            Outcome::TooLoose => {
                format!("It gives way at {value} Pa; from {low} it mounds on the spoon.")
            }
            Outcome::TooStiff => format!("It gives way at {value} Pa; past {high} it eats heavy."),
            _ => gives_way(said),
        }
    }
}
