//! One reading of a probe, and what it says of where the vessel stands: how well that takes heat.

use crate::clock::cooling::{Begins, Cooling, Mass, USUAL};
use crate::clock::document::{ClockDocument, ProbeDocument};
use crate::fault::{Fault, FaultCode};
use crate::heat::case::BodyPoint;
use crate::heat::network::Until;
use crate::heat::stand::StandDocument;
use crate::number::two_digits;
use serde::Serialize;
use utoipa::ToSchema;

/// Heat transfer looked at, W/(m² K), and what air can be: past that the probe was elsewhere, or it was stirred.
const LOOKED_AT: [f64; 2] = [2.0, 80.0];
const OF_AIR: [f64; 2] = [3.0, 60.0];
const HALVINGS: usize = 20;

/// What it says of the place.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ProbeAnswer {
    /// Heat transfer there, W/(m² K).
    pub h: f64,
    /// Of what is usual there.
    pub of_usual: f64,
    /// In one sentence.
    pub sentence: String,
}

/// The heat transfer at which the usual way passes the reading, by halving; a fault where no air does that.
///
/// # Errors
/// That the reading does not fit, and what may be amiss.
pub fn fitted(
    probe: &ProbeDocument,
    mass: &Mass,
    document: &ClockDocument,
    kg: f64,
    begins: Begins,
) -> Result<ProbeAnswer, Fault> {
    let point = probe.point.unwrap_or(BodyPoint::Core).watched();
    let room_c = document.formula.work.room_temperature_c.celsius();
    let place = document.places[0];
    let at = |h: f64| {
        let places = [StandDocument { h: Some(h), min: Some(probe.min), ..place }];
        let cooling = Cooling::new(mass, kg, &document.vessel, &places, begins, room_c);
        cooling.course(USUAL, Until::TimeIsUp).at(point, 60.0 * probe.min)
    };
    let cools = place.there_c(room_c) <= begins.0[USUAL];
    let slower = |h: f64| if cools { at(h) > probe.c } else { at(h) < probe.c };
    let (mut low, mut high) = (LOOKED_AT[0], LOOKED_AT[1]);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if slower(middle) { low = middle } else { high = middle }
    }
    let h = 0.5 * (low + high);
    if !(OF_AIR[0]..=OF_AIR[1]).contains(&h) {
        let words = match (cools, h < OF_AIR[0]) {
            (true, true) | (false, true) => {
                "nothing takes heat so slowly: was it covered, or the air warmer than is said? Read it again"
            }
            _ => {
                "no air takes heat so fast: was the probe near the wall, or was it stirred? Read it again in the middle"
            }
        };
        return Err(Fault::new("probe.c", FaultCode::WrongValue, words));
    }
    let usual = place.place.transfer(false)[USUAL];
    let words = match h / usual {
        times if times > 1.05 => format!("{} times as fast as is usual", two_digits(times)),
        times if times < 0.95 => format!("{} of as fast as is usual", two_digits(times)),
        _ => "just as fast as is usual".to_owned(),
    };
    Ok(ProbeAnswer {
        h: (10.0 * h).round() / 10.0,
        of_usual: (100.0 * h / usual).round() / 100.0,
        sentence: format!("Yours takes heat {words} {}: {} W/(m² K)", place.place.words(), two_digits(h)),
    })
}
