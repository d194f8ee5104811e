//! To drip: a dose runs down a colder side and stops.

use crate::formula::Family;
use crate::job::ask::{Ask, number, words};
use crate::job::duty::{
    BAND_90, Cream, Duty, Estimate, Hint, Judged, Measured, Outcome, Said, limits_crossed,
};
use crate::job::physics::drip::{DripCourse, LONGEST_MM, Near, Parabola};
use crate::rheology::History;
use crate::rheology::chance::normal_cdf;
use crate::rheology::consistency::{Banded, Consistency};
use crate::units::{Dose, Length, SurfaceTemperature};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A drip down a cake's side.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct DripGeometry {
    /// Volume let go at the edge for one drip, ml. The length is nearly proportional to it.
    pub dose_ml: Dose,
    /// Shortest drip that pleases, mm.
    pub shortest_mm: Length,
    /// Longest drip that pleases, mm.
    pub longest_mm: Length,
    /// Temperature of the side it runs down, °C.
    pub side_temperature_c: SurfaceTemperature,
}

impl Default for DripGeometry {
    fn default() -> Self {
        DripGeometry {
            dose_ml: Dose::from_millilitres(0.9),
            shortest_mm: Length::from_millimetres(25.0),
            longest_mm: Length::from_millimetres(70.0),
            side_temperature_c: SurfaceTemperature::from_celsius(5.0),
        }
    }
}

impl DripGeometry {
    fn course(&self, cream: Cream, t_c: f64) -> DripCourse {
        DripCourse::new(
            cream.prepared,
            t_c,
            self.side_temperature_c.celsius(),
            self.dose_ml.millilitres(),
            cream.clock,
        )
    }
}

/// A length against its window; past what is followed down the side is past any window.
fn outcome(length_mm: f64, window: [f64; 2]) -> Outcome {
    match length_mm {
        mm if mm < window[0] => Outcome::TooStiff,
        mm if mm > window[1].min(LONGEST_MM) => Outcome::TooLoose,
        _ => Outcome::Inside,
    }
}

impl Duty for DripGeometry {
    fn word(&self) -> &'static str {
        "drip"
    }

    fn does(&self) -> &'static str {
        "drips"
    }

    fn measured(&self) -> Measured {
        Measured::DripLengthMm
    }

    fn histories(&self, _family: Family) -> &'static [History] {
        &[History::Fresh]
    }

    fn minutes_needed(&self) -> f64 {
        3.0
    }

    fn asks(&self) -> Vec<Ask> {
        vec![
            words("Drips of"),
            number::<Dose>("dose_ml", "Dose of a drip", 0.1),
            words("on a side at"),
            number::<SurfaceTemperature>("side_temperature_c", "Temperature of the side", 1.0),
            words("that run from"),
            number::<Length>("shortest_mm", "Shortest drip", 1.0),
            words("to"),
            number::<Length>("longest_mm", "Longest drip", 1.0),
        ]
    }

    /// As the person set it.
    fn window(&self, _density: f64) -> [f64; 2] {
        [self.shortest_mm.millimetres(), self.longest_mm.millimetres()]
    }

    fn crossed(&self) -> Option<(&'static str, String)> {
        limits_crossed("shortest_mm", "length of a drip", self.window(0.0), "mm")
    }

    fn value(&self, cream: Cream, _point: &Consistency, t_c: f64) -> f64 {
        self.course(cream, t_c).length_mm(1.0, 1.0)
    }

    /// Not asked of a drip: its edges are found along its course, which hangs on the temperature.
    fn multipliers(&self, _cream: Cream, _point: &Consistency, _t_c: f64, window: [f64; 2]) -> [f64; 2] {
        window
    }

    fn outcome(&self, cream: Cream, _point: &Consistency, t_c: f64, window: [f64; 2]) -> Outcome {
        outcome(self.course(cream, t_c).beside_mm(1.0, window), window)
    }

    fn edges(&self, cream: Cream, _point: &Consistency, t_c: f64, window: [f64; 2]) -> [f64; 2] {
        let course = self.course(cream, t_c);
        // With both sigmas 1 a standard deviation is a factor e.
        [window[1].min(LONGEST_MM), window[0]].map(|mm| course.z_for_length(mm, [1.0, 1.0], Near::default()))
    }

    fn edges_tell(&self) -> bool {
        true
    }

    /// The same as asking for the edges, and ten times cheaper.
    fn within(&self, cream: Cream, _point: &Consistency, t_c: f64, window: [f64; 2], margin: f64) -> bool {
        let [shortest, longest] = window;
        let course = self.course(cream, t_c);
        let length = |ln: f64| course.beside_mm(ln.exp(), window);
        length(margin) >= shortest && length(-margin) <= longest.min(LONGEST_MM)
    }

    fn slopes_by_yield(&self, cream: Cream, t_c: f64, edges: [f64; 2]) -> Option<[f64; 2]> {
        const STEP: f64 = 0.05;
        let course = self.course(cream, t_c);
        Some(edges.map(|z| {
            let length = |by_yield: f64, by_viscosity: f64| {
                course.length_mm((z + by_yield).exp(), (z + by_viscosity).exp())
            };
            let of_yield = length(-STEP, 0.0) - length(STEP, 0.0);
            let of_viscosity = length(0.0, -STEP) - length(0.0, STEP);
            let both = of_yield + of_viscosity;
            if both.abs() < 1e-9 { -0.5 } else { -(of_yield / both).clamp(0.0, 1.0) }
        }))
    }

    fn stiff_z(&self, cream: Cream, banded: &Banded, t_c: f64, hint: Hint) -> f64 {
        let sigma = [banded.sigma_yield, banded.sigma_viscosity];
        let near = Near { z: hint.map_or(0.0, |[_, stiff]| stiff), shrinks: None };
        self.course(cream, t_c).z_for_length(self.shortest_mm.millimetres(), sigma, near)
    }

    fn judge(&self, cream: Cream, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        let sigma = [banded.sigma_yield, banded.sigma_viscosity];
        let course = self.course(cream, t_c);
        let middle = course.uncut_mm(1.0, 1.0);
        let about = |z: f64| course.about_mm((z * sigma[0]).exp(), (z * sigma[1]).exp());
        let (low, high) = (about(BAND_90), about(-BAND_90));
        // Length falls as the cream is stiffer: the longest drip is the loosest end.
        let [beside_loose, beside_stiff] = hint.unwrap_or_default();
        let through = Parabola::through([high, middle, low], BAND_90);
        let z_at = |length_mm: f64, beside: f64| match through.and_then(|through| through.at(length_mm)) {
            // Between the three it is as near as a ruler on a cake.
            Some(near) if near.z.abs() < BAND_90 && through.is_some_and(Parabola::is_flat) => near.z,
            near => course.z_for_length(length_mm, sigma, near.unwrap_or(Near { z: beside, shrinks: None })),
        };
        let (z_loose, z_stiff) = (z_at(window[1], beside_loose), z_at(window[0], beside_stiff));
        Judged {
            outcome: outcome(middle, window),
            measured: Estimate { value: middle, low, high }.not_below(0.0),
            uncut: [middle, low, high],
            window,
            chance: (normal_cdf(z_stiff) - normal_cdf(z_loose)).max(0.0),
            map_window: cream.axis.drawn(banded, [z_loose, z_stiff]),
            hint: Some([z_loose, z_stiff]),
            ..Judged::PLAIN
        }
    }

    fn detail(&self, judged: &Judged, said: Said) -> String {
        let (value, band, [low, high]) = (said.value(), said.band(), said.limits());
        match judged.outcome {
            _ if judged.measured.value >= LONGEST_MM => {
                format!("Drips would run past {LONGEST_MM:.0} mm; you want {low} to {high}.")
            }
            Outcome::TooStiff if judged.measured.value < 1.0 => {
                format!("It would not leave the edge; you want drips of {low} to {high} mm.")
            }
            Outcome::TooStiff => format!("Drips would stop at {value} mm; you want {low} to {high}."),
            Outcome::TooLoose => format!("Drips would run to {value} mm; you want {low} to {high}."),
            _ => format!("Drips stop at {value} mm, anywhere from {band}."),
        }
    }
}
