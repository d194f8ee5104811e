//! A prediction against a job's window: inside or not, with what chance, and what yield stress the
//! window would ask for at this temperature.

use crate::job::chance::{chance, normal_cdf};
use crate::job::drip::{DripCourse, LONGEST_MM};
use crate::job::film::Film;
use crate::job::geometry::Job;
use crate::rheology::consistency::Banded;
use crate::rheology::kernel::Prepared;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Half width of the 90 % band in standard deviations.
pub const BAND_90: f64 = 1.64;

/// How a formula stands to its job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outcome {
    /// In the window.
    Inside,
    /// Stiffer than the window.
    TooStiff,
    /// Looser than the window.
    TooLoose,
    /// The geometry leaves no window: nothing both holds and yields.
    NoWindow,
}

/// A value with the ends of its 90 % band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Estimate {
    /// The middle.
    pub value: f64,
    /// Lower end of the 90 % band.
    pub low: f64,
    /// Upper end of the 90 % band.
    pub high: f64,
}

impl Estimate {
    /// A log-normal estimate.
    pub fn log_normal(value: f64, sigma: f64) -> Self {
        let factor = (BAND_90 * sigma).exp();
        Estimate { value, low: value / factor, high: value * factor }
    }
}

/// One temperature judged.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Judged {
    /// Inside or not.
    pub outcome: Outcome,
    /// What the job measures: mm or Pa.
    pub measured: Estimate,
    /// The window of it.
    pub window: [f64; 2],
    /// Chance of being inside, 0 to 1.
    pub chance: f64,
    /// The window as yield stress at this temperature, Pa: what the map draws.
    pub yield_window_pa: [f64; 2],
}

/// What one judgement hands to the next temperature of a sweep, to start near its answer.
pub type Hint = Option<[f64; 2]>;

/// Judges a prediction at `t_c`. `hint` is the yield window of a neighbouring temperature.
pub fn judge(job: &Job, prepared: &Prepared, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
    let window = job.window(prepared.density);
    let (tau, sigma) = (banded.middle.yield_stress_pa, [banded.sigma_yield, banded.sigma_viscosity]);
    match job {
        Job::Mask(_) | Job::Fill(_) => Judged {
            outcome: stiffness(tau, window),
            measured: Estimate::log_normal(tau, sigma[0]),
            window,
            chance: chance(tau, window[0], window[1], sigma[0]),
            yield_window_pa: window,
        },
        Job::Coat(coat) => {
            let film =
                film_of(prepared, banded, coat.height_mm.millimetres(), coat.side_temperature_c.celsius());
            let thickness = film.thickness_mm();
            let sigma = film.sigma(sigma[0], sigma[1]);
            Judged {
                outcome: stiffness(thickness, window),
                measured: Estimate::log_normal(thickness, sigma),
                window,
                chance: chance(thickness, window[0], window[1], sigma),
                yield_window_pa: window.map(|limit| tau * film.multiplier_for(limit)),
            }
        }
        Job::Drip(drip) => {
            let course =
                DripCourse::new(prepared, t_c, drip.side_temperature_c.celsius(), drip.dose_ml.millilitres());
            let length = |z: f64| course.length_mm((z * sigma[0]).exp(), (z * sigma[1]).exp());
            let middle = length(0.0);
            // Length falls as the cream is stiffer: the longest drip is the loosest end.
            let near = |end: usize| hint.map_or(0.0, |hint| (hint[end] / tau).ln() / sigma[0]);
            let z_loose = course.z_for_length(window[1], sigma, near(0));
            let z_stiff = course.z_for_length(window[0], sigma, near(1));
            let outcome = match middle {
                mm if mm < window[0] => Outcome::TooStiff,
                mm if mm > window[1] => Outcome::TooLoose,
                _ => Outcome::Inside,
            };
            Judged {
                outcome,
                measured: Estimate { value: middle, low: length(BAND_90), high: length(-BAND_90) },
                window,
                chance: (normal_cdf(z_stiff) - normal_cdf(z_loose)).max(0.0),
                yield_window_pa: [z_loose, z_stiff].map(|z| tau * (z * sigma[0]).exp()),
            }
        }
    }
}

/// Only inside or not, of the middle: for searches.
pub fn outcome_of_middle(
    job: &Job,
    prepared: &Prepared,
    t_c: f64,
    history: crate::rheology::History,
) -> Outcome {
    let window = job.window(prepared.density);
    match job {
        Job::Mask(_) | Job::Fill(_) => stiffness(prepared.at(t_c, history).yield_stress_pa, window),
        Job::Coat(coat) => {
            let point = prepared.at(t_c, history);
            let (height, side) = (1e-3 * coat.height_mm.millimetres(), coat.side_temperature_c.celsius());
            let film = Film::new(
                point.yield_stress_pa,
                point.plastic_viscosity_pa_s,
                prepared.density,
                height,
                side,
            );
            stiffness(film.thickness_mm(), window)
        }
        Job::Drip(drip) => {
            let course =
                DripCourse::new(prepared, t_c, drip.side_temperature_c.celsius(), drip.dose_ml.millilitres());
            match course.length_mm(1.0, 1.0) {
                mm if mm < window[0] => Outcome::TooStiff,
                mm if mm > window[1].min(LONGEST_MM) => Outcome::TooLoose,
                _ => Outcome::Inside,
            }
        }
    }
}

fn film_of(prepared: &Prepared, banded: &Banded, height_mm: f64, side_c: f64) -> Film {
    let middle = &banded.middle;
    Film::new(
        middle.yield_stress_pa,
        middle.plastic_viscosity_pa_s,
        prepared.density,
        1e-3 * height_mm,
        side_c,
    )
}

fn stiffness(value: f64, [low, high]: [f64; 2]) -> Outcome {
    if low >= high {
        Outcome::NoWindow
    } else if value < low {
        Outcome::TooLoose
    } else if value > high {
        Outcome::TooStiff
    } else {
        Outcome::Inside
    }
}
