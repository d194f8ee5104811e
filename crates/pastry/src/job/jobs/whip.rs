//! To whip: cream before it takes air.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Cream, Duty, Estimate, Hint, Judged, Measured, Outcome, Said};
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::whipping::{THINNEST_TO_WHIP, WhipLimits, Whips};
use crate::rheology::{History, Options};
use crate::units::{Percent, Temperature, Viscosity};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Cream before it is whipped.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct WhipGeometry {
    /// Warmest at which it is whipped, °C.
    pub warmest_c: Temperature,
    /// Least fat in fat and water, per cent.
    pub least_fat_percent: Percent,
    /// Thickest that still takes air, Pa·s at 10 /s: 2 for plain cream, more with mascarpone or chocolate.
    pub thickest_pa_s: Viscosity,
}

impl Default for WhipGeometry {
    fn default() -> Self {
        WhipGeometry {
            warmest_c: Temperature::from_celsius(8.0),
            least_fat_percent: Percent::from_percent(30.0),
            thickest_pa_s: Viscosity::from_pascal_seconds(2.0),
        }
    }
}

impl WhipGeometry {
    fn limits(&self) -> WhipLimits {
        WhipLimits {
            least_fat_percent: self.least_fat_percent.percent(),
            warmest_c: self.warmest_c.celsius(),
            thickest_pa_s: self.thickest_pa_s.pascal_seconds(),
        }
    }
}

impl Duty for WhipGeometry {
    fn word(&self) -> &'static str {
        "whip"
    }

    fn does(&self) -> &'static str {
        "whips"
    }

    fn measured(&self) -> Measured {
        Measured::ViscosityPaS
    }

    fn runs(&self) -> bool {
        true
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Rested]
    }

    /// Whipping is judged on the liquid cream.
    fn options(&self, options: Options) -> Options {
        Options { overrun: Some(0.0), whip: Some(0.0), ..options }
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("Whipped at"),
            number::<Temperature>("warmest_c", "Warmest", 1.0),
            words("or colder, with at least"),
            number::<Percent>("least_fat_percent", "Least fat", 1.0),
            words("fat, and no thicker than"),
            number::<Viscosity>("thickest_pa_s", "Thickest before whipping", 0.5),
        ]
    }

    /// From 5 mPa·s at 10 /s before whipping (assumed) to what the person set.
    fn window(&self, _density: f64) -> [f64; 2] {
        [THINNEST_TO_WHIP, self.thickest_pa_s.pascal_seconds()]
    }

    fn value(&self, _cream: Cream, point: &Consistency, _t_c: f64) -> f64 {
        point.viscosity_pa_s
    }

    fn sigma(&self, _cream: Cream, banded: &Banded) -> f64 {
        banded.sigma_viscosity
    }

    fn multipliers(&self, _cream: Cream, point: &Consistency, _t_c: f64, window: [f64; 2]) -> [f64; 2] {
        window.map(|limit| limit / point.viscosity_pa_s)
    }

    fn outcome(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2]) -> Outcome {
        let whips = Whips::new(cream.prepared, point, 1e-9, t_c, &self.limits());
        if whips.fat < 0.5 {
            Outcome::TooLean
        } else if whips.cold < 0.5 {
            Outcome::TooWarm
        } else {
            Outcome::of(point.viscosity_pa_s, window)
        }
    }

    fn judge(&self, cream: Cream, banded: &Banded, t_c: f64, _hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        let point = &banded.middle;
        let whips = Whips::new(cream.prepared, point, banded.sigma_viscosity, t_c, &self.limits());
        Judged {
            outcome: self.outcome(cream, point, t_c, window),
            measured: Estimate::log_normal(point.viscosity_pa_s, banded.sigma_viscosity),
            window,
            chance: whips.chance(),
            map_window: cream.scaled(point, self.multipliers(cream, point, t_c, window)),
            ..Judged::PLAIN
        }
    }

    fn extremes(&self) -> [&'static str; 2] {
        ["Too thin", "Too thick"]
    }

    fn verdict(&self, judged: &Judged, _at: &str) -> Option<String> {
        (judged.outcome == Outcome::NoWindow)
            .then(|| "Nothing so thin keeps its bubbles apart: allow it to be thicker".to_owned())
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, [low, high]) = (said.value(), said.worked_out());
        match judged.outcome {
            Outcome::TooLean => format!(
                "Under {:.0} % fat in fat and water, cream does not hold its air.",
                self.least_fat_percent.percent()
            ),
            Outcome::TooWarm => format!(
                "Its fat must be set to hold air: chill it to {:.0} °C or less, best overnight.",
                self.warmest_c.celsius()
            ),
            Outcome::Inside => {
                format!("It pours at {value} Pa·s, and its fat is set: it takes air and keeps it.")
            }
            Outcome::NoWindow => format!(
                "It pours at {value} Pa·s; it takes air from {low} Pa·s, and you allow {high} at most."
            ),
            _ => format!("It pours at {value} Pa·s; between {low} and {high} it takes air."),
        }
    }
}
