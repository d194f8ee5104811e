//! To coat: what is poured over a cake leaves a film that covers.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{Cream, Duty, Hint, Judged, Measured, Outcome, Said, limits_crossed};
use crate::job::film_duty::judge_film;
use crate::job::physics::film::Film;
use crate::rheology::History;
use crate::rheology::consistency::{Banded, Consistency};
use crate::units::{Length, SurfaceTemperature};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A film poured over a cake.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct CoatGeometry {
    /// Thinnest film that covers, mm.
    pub thinnest_mm: Length,
    /// Thickest film that pleases, mm.
    pub thickest_mm: Length,
    /// Height of the side it runs down, mm.
    pub height_mm: Length,
    /// Temperature of that side, °C.
    pub side_temperature_c: SurfaceTemperature,
}

impl Default for CoatGeometry {
    fn default() -> Self {
        CoatGeometry {
            thinnest_mm: Length::from_millimetres(1.5),
            thickest_mm: Length::from_millimetres(4.0),
            height_mm: Length::from_millimetres(50.0),
            side_temperature_c: SurfaceTemperature::from_celsius(20.0),
        }
    }
}

impl CoatGeometry {
    fn film(&self, cream: Cream, point: &Consistency, t_c: f64) -> Film {
        Film::on_side(
            [point.yield_stress_pa, point.plastic_viscosity_pa_s],
            cream.prepared.density,
            1e-3 * self.height_mm.millimetres(),
            t_c,
            self.side_temperature_c.celsius(),
        )
    }
}

impl Duty for CoatGeometry {
    fn word(&self) -> &'static str {
        "coat"
    }

    fn does(&self) -> &'static str {
        "coats"
    }

    fn measured(&self) -> Measured {
        Measured::FilmMm
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Fresh]
    }

    fn minutes_needed(&self) -> f64 {
        1.0
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("A film of"),
            number::<Length>("thinnest_mm", "Thinnest film", 0.1),
            words("to"),
            number::<Length>("thickest_mm", "Thickest film", 0.1),
            words("on a side"),
            number::<Length>("height_mm", "Height of the side", 5.0),
            words("high, at"),
            number::<SurfaceTemperature>("side_temperature_c", "Temperature of the side", 1.0),
        ]
    }

    /// As the person set it.
    fn window(&self, _density: f64) -> [f64; 2] {
        [self.thinnest_mm.millimetres(), self.thickest_mm.millimetres()]
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        limits_crossed("thinnest_mm", "film", self.window(0.0), "mm")
    }

    fn value(&self, cream: Cream, point: &Consistency, t_c: f64) -> f64 {
        self.film(cream, point, t_c).thickness_mm()
    }

    fn multipliers(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2]) -> [f64; 2] {
        let film = self.film(cream, point, t_c);
        window.map(|mm| film.multiplier_for(mm))
    }

    fn judge(&self, cream: Cream, banded: &Banded, t_c: f64, _hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        judge_film(self.film(cream, &banded.middle, t_c), cream, banded, window)
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, band, [low, high]) = (said.value(), said.band(), said.limits());
        match judged.outcome {
            Outcome::TooStiff | Outcome::TooLoose => {
                format!("It would leave {value} mm on the side; you want {low} to {high}.")
            }
            _ => format!("It leaves {value} mm on the side, anywhere from {band}."),
        }
    }
}
