//! To set: a piece that stands on a plate.

use crate::formula::Family;
use crate::job::ask::{Ask, choice, number, words};
use crate::job::duty::{Cream, Duty, Estimate, Hint, Judged, Measured, OPEN, Outcome, Said};
use crate::job::physics::slump::{RUBBERY_PA, gives_way_below, sag};
use crate::number::limit;
use crate::rheology::History;
use crate::rheology::agar::CRUMBLES_PA;
use crate::rheology::chance::normal_cdf;
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::params::yield_strain;
use crate::units::Length;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How firmly something set must stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SetGrade {
    /// Trembles, and stays whole.
    Wobble,
    /// Turns out of its mould.
    Firm,
    /// Cuts with a clean edge.
    CleanSlice,
}

impl SetGrade {
    /// Most it may sag under its own weight, share of its height.
    pub fn most_sag(self) -> f64 {
        match self {
            SetGrade::Wobble => 0.30,
            SetGrade::Firm => 0.10,
            SetGrade::CleanSlice => 0.05,
        }
    }

    /// Its key, as in a document.
    pub fn key(self) -> &'static str {
        match self {
            SetGrade::Wobble => "wobble",
            SetGrade::Firm => "firm",
            SetGrade::CleanSlice => "clean_slice",
        }
    }

    /// What it is to do.
    pub fn verb(self) -> &'static str {
        match self {
            SetGrade::Wobble => "stand with a wobble",
            SetGrade::Firm => "turn out",
            SetGrade::CleanSlice => "cut clean",
        }
    }
}

/// Something set that stands on a plate.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SetGeometry {
    /// Height of the piece, mm.
    pub height_mm: Length,
    /// How firm it must be.
    pub grade: SetGrade,
}

impl Default for SetGeometry {
    fn default() -> Self {
        SetGeometry { height_mm: Length::from_millimetres(45.0), grade: SetGrade::Firm }
    }
}

impl SetGeometry {
    fn sags(&self, cream: Cream, point: &Consistency) -> f64 {
        sag(cream.prepared.density, 1e-3 * self.height_mm.millimetres(), point.set_modulus_pa())
    }
}

/// The common factor at which its gelatin turns to rubber.
fn rubber(point: &Consistency) -> f64 {
    if point.gelatin_modulus_pa > 1e-6 { RUBBERY_PA / point.gelatin_modulus_pa } else { OPEN }
}

/// The common factor at which its agar crumbles.
fn crumbles(point: &Consistency) -> f64 {
    let modulus = point.contributions.agar / yield_strain::AGAR;
    if modulus > 1e-6 { CRUMBLES_PA / modulus } else { OPEN }
}

impl Duty for SetGeometry {
    fn word(&self) -> &'static str {
        "set"
    }

    fn verb(&self) -> &'static str {
        self.grade.verb()
    }

    fn does(&self) -> &'static str {
        match self.grade {
            SetGrade::Wobble => "stands",
            SetGrade::Firm => "turns out",
            SetGrade::CleanSlice => "cuts clean",
        }
    }

    fn measured(&self) -> Measured {
        Measured::SagPercent
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Rested]
    }

    fn asks(&self) -> Vec<Ask> {
        let grades = [SetGrade::Wobble, SetGrade::Firm, SetGrade::CleanSlice];
        vec![
            words("A piece"),
            number::<Length>("height_mm", "Height of the piece", 1.0),
            words("high, to"),
            choice(
                "grade",
                "How firm it is to be",
                grades.map(|grade| {
                    (grade.key(), format!("{} (sags {:.0} %)", grade.verb(), 100.0 * grade.most_sag()))
                }),
            ),
        ]
    }

    /// Sag up to the grade's limit, per cent.
    fn window(&self, _density: f64) -> [f64; 2] {
        [0.0, 100.0 * self.grade.most_sag()]
    }

    fn value(&self, cream: Cream, point: &Consistency, _t_c: f64) -> f64 {
        100.0 * self.sags(cream, point)
    }

    /// The least and the greatest common factor with which a set piece stands and is not rubber.
    fn multipliers(&self, cream: Cream, point: &Consistency, _t_c: f64, _window: [f64; 2]) -> [f64; 2] {
        let (density, height) = (cream.prepared.density, 1e-3 * self.height_mm.millimetres());
        let least = (self.sags(cream, point) / self.grade.most_sag())
            .max(gives_way_below(density, height) / point.set_yield_pa().max(1e-12));
        [least, rubber(point).min(crumbles(point))]
    }

    fn outcome(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2]) -> Outcome {
        match self.multipliers(cream, point, t_c, window) {
            [least, _] if least > 1.0 => Outcome::TooLoose,
            [_, most] if most < 1.0 => Outcome::TooStiff,
            _ => Outcome::Inside,
        }
    }

    /// Sag, strength and modulus all grow with the common multiplier: it must be large enough for the
    /// first two, and the gel must not turn to rubber.
    fn judge(&self, cream: Cream, banded: &Banded, t_c: f64, _hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        let point = &banded.middle;
        let [least, most] = self.multipliers(cream, point, t_c, window);
        let stands = normal_cdf(-least.ln() / banded.sigma_yield);
        let rubbery = normal_cdf(-most.ln() / banded.base_sigma);
        Judged {
            outcome: self.outcome(cream, point, t_c, window),
            measured: Estimate::log_normal(self.value(cream, point, t_c), banded.sigma_yield),
            window,
            chance: (stands - rubbery).max(0.0),
            map_window: cream.scaled(point, [least, most.max(least)]),
            crumbles: crumbles(point) < rubber(point),
            ..Judged::PLAIN
        }
    }

    fn extremes(&self) -> [&'static str; 2] {
        ["Too soft", "Too stiff"]
    }

    fn verdict(&self, judged: &Judged, at: &str) -> Option<String> {
        (judged.outcome == Outcome::TooStiff).then(|| match judged.crumbles {
            true => format!("Too hard {at}: it crumbles"),
            false => format!("Too rubbery to eat {at}"),
        })
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, band, [_, high]) = (said.value(), said.band(), said.limits());
        let height = limit(self.height_mm.millimetres());
        match judged.outcome {
            Outcome::Inside => format!("A piece of {height} mm sags {value} %, anywhere from {band}."),
            Outcome::TooStiff if judged.crumbles => {
                "Agar this firm breaks short instead of melting: less agar.".to_owned()
            }
            Outcome::TooStiff => {
                "Its gel is past where it melts on the tongue: less gelatin, or warmer.".to_owned()
            }
            _ if judged.measured.value > 60.0 => format!("A piece of {height} mm would run, not stand."),
            _ if judged.measured.value <= judged.window[1] => {
                format!("A piece of {height} mm would give way at its foot.")
            }
            _ => format!("A piece of {height} mm would sag {value} %; you want {high} at most."),
        }
    }
}
