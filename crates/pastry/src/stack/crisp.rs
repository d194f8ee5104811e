//! How long something crisp stays so beside something wet: an estimate.
//!
//! Water diffuses into a sheet of thickness L that is wet on one side and closed on the other, from its own activity to that of
//! what lies on it. Share taken up (Crank, The Mathematics of Diffusion, 2nd ed. 1975, plane sheet; from memory):
//! M/M∞ = 1 − Σ 8/((2n+1)²π²) exp(−(2n+1)²π² D t/(4 L²)). What it holds at an activity is Oswin's isotherm,
//! m = C (a/(1−a))^n (Oswin 1946; from memory). It is soft when its mean reaches the activity at which it no longer snaps. A
//! film of fat on it is crossed first, in l²/(6 D) (the time lag of Daynes 1920; from memory). Good to a factor of three.

use serde::Deserialize;
use std::f64::consts::PI;
use std::sync::LazyLock;

/// The truth lies between a third and three times of it (assumed: diffusivities of one food spread as widely).
pub const SPREAD: f64 = 3.0;
/// Diffusivity of water through a film of cocoa butter or chocolate, m²/s (order of magnitude of the literature, from memory).
const FILM: f64 = 2e-13;
/// Energy by which diffusion slows in the cold, J/mol (assumed).
const ENERGY: f64 = 35e3;
const GAS: f64 = 8.314;
/// Nothing filled is wetter than this.
const WETTEST: f64 = 0.97;

/// What is crisp, and until when.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct Crisp {
    /// Key of the bake it is.
    pub sponge: String,
    oswin_c: f64,
    oswin_n: f64,
    /// Water activity as it leaves the oven.
    pub starts_aw: f64,
    /// Water activity at which it no longer snaps.
    pub soft_aw: f64,
    diffusivity_m2_s: f64,
    #[serde(rename = "source")]
    _source: String,
}

static CRISP: LazyLock<Vec<Crisp>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/crisp.csv").as_bytes())
        .deserialize()
        .collect::<Result<_, _>>()
        .expect("the table of what is crisp is well formed")
});

/// What is known of a bake that is crisp; none of one that is soft by nature.
pub fn crisp(sponge: &str) -> Option<&'static Crisp> {
    CRISP.iter().find(|own| own.sponge == sponge)
}

/// Share of all it takes up that a sheet has taken up.
///
/// # Arguments
/// * `fourier`: D t/L², L its thickness with one side wet.
pub fn taken_up(fourier: f64) -> f64 {
    // The series is slow at first, where the sheet is as good as endless: 2 √(D t/(π L²)).
    if fourier < 0.02 {
        return 2.0 * (fourier.max(0.0) / PI).sqrt();
    }
    let term = |n: u32| {
        let odd = f64::from(2 * n + 1).powi(2) * PI * PI;
        8.0 / odd * (-odd * fourier / 4.0).exp()
    };
    1.0 - (0..12).map(term).sum::<f64>()
}

impl Crisp {
    /// Water it holds at an activity, g per g dry.
    fn water(&self, aw: f64) -> f64 {
        let aw = aw.clamp(0.01, WETTEST);
        self.oswin_c * (aw / (1.0 - aw)).powf(self.oswin_n)
    }

    /// Hours until it is soft; none when what lies on it is too dry ever to soften it.
    ///
    /// # Arguments
    /// * `thickness_mm`: of what water goes through, one side wet; `aw`: of what lies on it, 0 to 1; `film_mm`: of fat between
    ///   them, 0 for none; `t_c`: where it stands, °C.
    pub fn hours(&self, thickness_mm: f64, aw: f64, film_mm: f64, t_c: f64) -> Option<f64> {
        let (dry, soft, wet) = (self.water(self.starts_aw), self.water(self.soft_aw), self.water(aw));
        if wet <= soft || thickness_mm <= 0.0 {
            return None;
        }
        let share = (soft - dry) / (wet - dry);
        let (mut low, mut high) = (0.0, 10.0);
        for _ in 0..60 {
            let middle = 0.5 * (low + high);
            if taken_up(middle) < share { low = middle } else { high = middle }
        }
        let slower = (-ENERGY / GAS * (1.0 / (t_c + 273.15) - 1.0 / 293.15)).exp();
        let metres = 1e-3 * thickness_mm;
        let film = (1e-3 * film_mm.max(0.0)).powi(2) / (6.0 * FILM);
        Some((0.5 * (low + high) * metres * metres / self.diffusivity_m2_s + film) / slower / 3600.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Crank, The Mathematics of Diffusion: half is taken up at D t/l² = 0.049 of a sheet l thick wet on both sides (from
    /// memory), which is 0.196 of half of it; and the short-time law, where both overlap.
    #[test]
    fn a_sheet_takes_up_half_when_crank_says() {
        assert!((taken_up(4.0 * 0.0492) - 0.5).abs() < 2e-3, "{}", taken_up(0.1968));
        for fourier in [0.021, 0.05, 0.1] {
            let endless = 2.0 * (fourier / PI).sqrt();
            assert!((taken_up(fourier) / endless - 1.0).abs() < 5e-3, "{fourier}");
        }
        assert!((taken_up(5.0) - 1.0).abs() < 1e-4);
    }

    #[test]
    fn thicker_drier_filmed_and_colder_stay_crisp_for_longer() {
        for own in CRISP.iter() {
            assert!(
                own.starts_aw < own.soft_aw && crate::sponge::sponges().iter().any(|s| s.key == own.sponge),
                "{own:?}"
            );
            let hours = |mm: f64, aw: f64, film: f64, t_c: f64| own.hours(mm, aw, film, t_c).unwrap();
            let plain = hours(3.0, 0.95, 0.0, 4.0);
            assert!(hours(4.0, 0.95, 0.0, 4.0) > plain && hours(3.0, 0.85, 0.0, 4.0) > plain, "{own:?}");
            assert!(hours(3.0, 0.95, 0.3, 4.0) > plain && hours(3.0, 0.95, 0.0, 20.0) < plain, "{own:?}");
            assert_eq!(own.hours(3.0, own.soft_aw - 0.05, 0.0, 4.0), None);
        }
    }

    /// Common practice: a tart of custard is best on its day, a shell with a film of chocolate the day after too, and choux
    /// is filled within hours of being eaten.
    #[test]
    fn it_says_what_cooks_know() {
        let tart = crisp("short_crust").unwrap();
        let plain = tart.hours(3.0, 0.96, 0.0, 4.0).unwrap();
        assert!((2.0..24.0).contains(&plain), "{plain} h");
        assert!(tart.hours(3.0, 0.96, 0.4, 4.0).unwrap() > 24.0);
        let choux = crisp("choux").unwrap().hours(3.0, 0.97, 0.0, 4.0).unwrap();
        assert!((0.5..8.0).contains(&choux), "{choux} h");
    }
}
