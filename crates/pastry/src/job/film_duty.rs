//! What coating a cake and coating a spoon have in common: a film against the thinnest and the thickest that pleases.

use crate::job::duty::{BAND_90, Cream, Estimate, Judged, Outcome};
use crate::job::physics::film::Film;
use crate::rheology::chance::normal_cdf;
use crate::rheology::consistency::Banded;

/// Judges a film. Yield stress and viscosity go up and down together: one z for both.
pub(super) fn judge_film(film: Film, cream: Cream, banded: &Banded, window: [f64; 2]) -> Judged {
    let sigma = [banded.sigma_yield, banded.sigma_viscosity];
    let [thin, thick] = window.map(|mm| film.z_for(mm, sigma));
    let middle = film.thickness_mm();
    Judged {
        outcome: Outcome::of(middle, window),
        measured: Estimate {
            value: middle,
            low: film.thickness_at(-BAND_90, sigma),
            high: film.thickness_at(BAND_90, sigma),
        },
        window,
        chance: (normal_cdf(thick) - normal_cdf(thin)).max(0.0),
        map_window: cream.axis.drawn(banded, [thin, thick]),
        hint: Some([thin, thick]),
        ..Judged::PLAIN
    }
}
