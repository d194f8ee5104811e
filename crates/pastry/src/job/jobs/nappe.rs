//! To coat the spoon: a film that a finger line stays in.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Cream, Duty, Hint, Judged, Measured, Outcome, Said, limits_crossed};
use crate::job::film_duty::judge_film;
use crate::job::physics::film::Film;
use crate::rheology::History;
use crate::rheology::consistency::{Banded, Consistency};
use crate::units::{Length, Seconds};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A film on a spoon that a finger line stays in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct NappeGeometry {
    /// Thinnest film that coats, mm.
    pub thinnest_mm: Length,
    /// Thickest that still pours, mm.
    pub thickest_mm: Length,
    /// Height of the spoon, mm.
    pub height_mm: Length,
    /// How long it drains, s.
    pub time_s: Seconds,
}

impl Default for NappeGeometry {
    fn default() -> Self {
        NappeGeometry {
            thinnest_mm: Length::from_millimetres(0.1),
            thickest_mm: Length::from_millimetres(0.6),
            height_mm: Length::from_millimetres(60.0),
            time_s: Seconds::from_seconds(5.0),
        }
    }
}

impl NappeGeometry {
    fn film(&self, cream: Cream, point: &Consistency) -> Film {
        Film::on_spoon(
            [point.yield_stress_pa, point.plastic_viscosity_pa_s],
            cream.prepared.density,
            1e-3 * self.height_mm.millimetres(),
            self.time_s.seconds(),
        )
    }
}

impl Duty for NappeGeometry {
    fn word(&self) -> &'static str {
        "nappe"
    }

    fn verb(&self) -> &'static str {
        "coat the spoon"
    }

    fn does(&self) -> &'static str {
        "coats the spoon"
    }

    fn measured(&self) -> Measured {
        Measured::FilmMm
    }

    fn runs(&self) -> bool {
        true
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Fresh]
    }

    fn minutes_needed(&self) -> f64 {
        1.0
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("The spoon keeps"),
            number::<Length>("thinnest_mm", "Thinnest film", 0.05),
            words("to"),
            number::<Length>("thickest_mm", "Thickest film", 0.05),
            words("after"),
            number::<Seconds>("time_s", "Time it drains", 1.0),
            words("on a spoon"),
            number::<Length>("height_mm", "Height of the spoon", 5.0),
            words("high"),
        ]
    }

    /// As the person set it.
    fn window(&self, _density: f64) -> [f64; 2] {
        [self.thinnest_mm.millimetres(), self.thickest_mm.millimetres()]
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        limits_crossed("thinnest_mm", "film", self.window(0.0), "mm")
    }

    fn value(&self, cream: Cream, point: &Consistency, _t_c: f64) -> f64 {
        self.film(cream, point).thickness_mm()
    }

    fn multipliers(&self, cream: Cream, point: &Consistency, _t_c: f64, window: [f64; 2]) -> [f64; 2] {
        let film = self.film(cream, point);
        window.map(|mm| film.multiplier_for(mm))
    }

    fn judge(&self, cream: Cream, banded: &Banded, _t_c: f64, _hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        judge_film(self.film(cream, &banded.middle), cream, banded, window)
    }

    fn extremes(&self) -> [&'static str; 2] {
        ["Too thin", "Too stiff"]
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, band, [low, high]) = (said.value(), said.band(), said.limits());
        match judged.outcome {
            Outcome::TooStiff | Outcome::TooLoose => {
                format!("The spoon would keep {value} mm; you want {low} to {high}.")
            }
            _ => format!("The spoon keeps {value} mm, anywhere from {band}; a finger line stays."),
        }
    }
}
