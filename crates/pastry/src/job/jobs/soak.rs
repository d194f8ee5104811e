//! To soak: a syrup that a sponge drinks.

use crate::formula::Family;
use crate::job::ask::{Ask, choice, number, words};
use crate::job::duty::{Cream, Duty, Judged, Measured, Outcome, Said, limits_crossed};
use crate::number::limit;
use crate::rheology::History;
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::{Severity, Warning, WarningCode};
use crate::sponge::SpongeKind;
use crate::units::{Length, Mass, Percent, Seconds};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How sweet a soak is meant to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Richness {
    /// 25 to 35 °Bx: moistens.
    Light,
    /// 45 to 57 °Bx: sweetens and keeps.
    Rich,
    /// Whatever it is.
    Any,
}

impl Richness {
    /// Its key, as in a document.
    pub fn key(self) -> &'static str {
        match self {
            Richness::Light => "light",
            Richness::Rich => "rich",
            Richness::Any => "any",
        }
    }

    /// In kitchen words, with its window.
    pub fn words(self) -> String {
        match self.window() {
            Some([low, high]) => format!("{}, {low:.0} to {high:.0} °Bx", self.key()),
            None => "as sweet as it is".to_owned(),
        }
    }

    /// Its window, °Bx (common practice).
    pub fn window(self) -> Option<[f64; 2]> {
        match self {
            Richness::Light => Some([25.0, 35.0]),
            Richness::Rich => Some([45.0, 57.0]),
            Richness::Any => None,
        }
    }
}

/// A syrup that a sponge drinks.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SoakGeometry {
    /// Least depth it should reach, mm.
    pub shallowest_mm: Length,
    /// Greatest depth before it runs to the board, mm.
    pub deepest_mm: Length,
    /// Time it has, s.
    pub time_s: Seconds,
    /// How sweet it is meant to be.
    pub richness: Richness,
    /// What sponge it is.
    pub sponge: SpongeKind,
    /// Sponge to be soaked, g.
    pub sponge_g: Mass,
    /// Syrup on sponge, per cent: 30 light, 45 medium, 60 wet (common practice).
    pub on_sponge_percent: Percent,
}

impl Default for SoakGeometry {
    fn default() -> Self {
        SoakGeometry {
            shallowest_mm: Length::from_millimetres(6.0),
            deepest_mm: Length::from_millimetres(25.0),
            time_s: Seconds::from_seconds(120.0),
            richness: Richness::Any,
            sponge: SpongeKind::Genoise,
            sponge_g: Mass::from_grams(300.0),
            on_sponge_percent: Percent::from_percent(45.0),
        }
    }
}

impl Duty for SoakGeometry {
    fn word(&self) -> &'static str {
        "soak"
    }

    fn does(&self) -> &'static str {
        "soaks"
    }

    fn measured(&self) -> Measured {
        Measured::DepthMm
    }

    fn runs(&self) -> bool {
        true
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Rested]
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("It goes"),
            number::<Length>("shallowest_mm", "Least depth", 1.0),
            words("to"),
            number::<Length>("deepest_mm", "Greatest depth", 1.0),
            words("deep in"),
            number::<Seconds>("time_s", "Time it has", 30.0),
            words("on"),
            number::<Mass>("sponge_g", "Sponge to soak", 50.0),
            words("of"),
            choice(
                "sponge",
                "What sponge it is",
                SpongeKind::ALL.iter().map(|kind| (kind.word(), kind.sponge().word.clone())),
            ),
            words(","),
            number::<Percent>("on_sponge_percent", "Syrup on sponge", 5.0),
            words("of its weight"),
            choice(
                "richness",
                "How sweet the soak is meant to be",
                [Richness::Any, Richness::Light, Richness::Rich]
                    .map(|richness| (richness.key(), richness.words())),
            ),
        ]
    }

    /// As the person set it.
    fn window(&self, _density: f64) -> [f64; 2] {
        [self.shallowest_mm.millimetres(), self.deepest_mm.millimetres()]
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        limits_crossed("shallowest_mm", "depth", self.window(0.0), "mm")
    }

    fn value(&self, _cream: Cream, point: &Consistency, _t_c: f64) -> f64 {
        1e3 * self.sponge.sponge().depth(point.plastic_viscosity_pa_s, self.time_s.seconds())
    }

    /// Depth goes with one over the root of viscosity, and the sponge's pores are not known well either.
    fn sigma(&self, _cream: Cream, banded: &Banded) -> f64 {
        self.sponge.sponge().depth_sigma(banded.sigma_viscosity)
    }

    /// Deep is thin.
    fn multipliers(&self, _cream: Cream, point: &Consistency, _t_c: f64, window: [f64; 2]) -> [f64; 2] {
        let (sponge, seconds) = (self.sponge.sponge(), self.time_s.seconds());
        let times = |mm: f64| sponge.viscosity_for(1e-3 * mm, seconds) / point.plastic_viscosity_pa_s;
        [times(window[1]), times(window[0])]
    }

    fn looser_is_more(&self) -> bool {
        true
    }

    /// That it is not as sweet as it was meant to be.
    fn warning(&self, prepared: &Prepared) -> Option<Warning> {
        let [low, high] = self.richness.window()?;
        let brix = prepared.serum.brix;
        // The window is read off a refractometer: half a degree is not seen.
        let (word, way_out) = match brix {
            b if b < low - 0.5 => ("less", "More sugar, or boil some water off."),
            b if b > high + 0.5 => ("more", "Let it down with water, juice or coffee."),
            _ => return None,
        };
        Some(Warning {
            code: WarningCode::SoakBrix,
            severity: Severity::Note,
            cause: format!("It has {brix:.0} °Bx, {word} than the {low:.0} to {high:.0} you want."),
            way_out: way_out.to_owned(),
        })
    }

    fn extremes(&self) -> [&'static str; 2] {
        ["Too thin", "Too thick"]
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, band, [low, high]) = (said.value(), said.band(), said.limits());
        let time = seconds(self.time_s.seconds());
        match judged.outcome {
            Outcome::Inside => {
                let dose = 0.01 * self.on_sponge_percent.percent() * self.sponge_g.grams();
                let sponge = self.sponge_g.grams();
                format!(
                    "It goes {value} mm deep in {time}, anywhere from {band}. Brush {dose:.0} g on {sponge:.0} g of sponge."
                )
            }
            _ => format!("It would go {value} mm deep in {time}; you want {low} to {high}."),
        }
    }
}

/// Seconds as a kitchen clock says them.
fn seconds(value: f64) -> String {
    match value {
        s if s < 90.0 => format!("{s:.0} s"),
        s if s < 5400.0 => format!("{} min", limit((s / 6.0).round() / 10.0)),
        s => format!("{} h", limit((s / 360.0).round() / 10.0)),
    }
}
