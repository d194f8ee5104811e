//! What is boiled down: juice by half, a syrup to its strength, sugar for a meringue to its stage.

use crate::fault::{Fault, FaultCode};
use crate::number::{limit, weighed_g};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How far it is boiled down.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "to", rename_all = "snake_case", deny_unknown_fields)]
pub enum BoilTo {
    /// To a temperature.
    Temperature {
        /// °C, as it is written for the sea: 118 for an Italian meringue.
        #[schema(minimum = 30, maximum = 180)]
        c: f64,
    },
    /// To a strength.
    Brix {
        /// Dissolved solids of the liquid, °Bx.
        #[schema(minimum = 1, maximum = 99)]
        brix: f64,
    },
    /// To a weight.
    Weight {
        /// What is left, g: what the scale shows without the pan.
        #[schema(exclusive_minimum = 0, maximum = 1000000)]
        left_g: f64,
    },
    /// To a share of its weight: 0.5 for "by half".
    Share {
        /// Of its weight.
        #[schema(minimum = 0.05, maximum = 1)]
        of_weight: f64,
    },
}

impl BoilTo {
    /// The same for so many times as much.
    #[must_use]
    pub fn of_times(self, factor: f64) -> Self {
        match self {
            BoilTo::Weight { left_g } => BoilTo::Weight { left_g: factor * left_g },
            other => other,
        }
    }

    /// Name of the field that says how far.
    pub fn field(self) -> &'static str {
        match self {
            BoilTo::Temperature { .. } => "c",
            BoilTo::Brix { .. } => "brix",
            BoilTo::Weight { .. } => "left_g",
            BoilTo::Share { .. } => "of_weight",
        }
    }

    /// A number nothing is boiled to.
    ///
    /// # Arguments
    /// * `at`: path of what it stands in.
    pub fn fault(self, at: &str) -> Option<Fault> {
        let (value, [low, high]) = match self {
            BoilTo::Temperature { c } => (c, [30.0, 180.0]),
            BoilTo::Brix { brix } => (brix, [1.0, 99.0]),
            BoilTo::Weight { left_g } => (left_g, [1e-3, 1e6]),
            BoilTo::Share { of_weight } => (of_weight, [0.05, 1.0]),
        };
        let field = format!("{at}.{}", self.field());
        (!(low..=high).contains(&value))
            .then(|| Fault::new(field, FaultCode::OutOfRange, format!("between {low} and {high}")))
    }

    /// "boiled to 118 °C", "boiled down by half".
    pub fn words(self) -> String {
        match self {
            BoilTo::Temperature { c } => format!("boiled to {} °C", limit(c)),
            BoilTo::Brix { brix } => format!("boiled down to {} °Bx", limit(brix)),
            BoilTo::Weight { left_g } => format!("boiled down to {} g", weighed_g(left_g)),
            BoilTo::Share { of_weight } if (of_weight - 0.5).abs() < 1e-9 => "boiled down by half".to_owned(),
            BoilTo::Share { of_weight } => format!("boiled down to {:.0} % of its weight", 100.0 * of_weight),
        }
    }
}
