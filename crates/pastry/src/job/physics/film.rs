//! Films: one that drains down a side and sets, one that a spoon keeps.

use crate::units::GRAVITY;

/// Thermal diffusivity of the cream, m²/s (assumed, as water-rich foods).
pub const DIFFUSIVITY: f64 = 1.1e-7;

/// The two terms of a film, m: what its yield stress holds up, and what viscosity holds until it sets.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Film {
    /// τ₀/(ρ g).
    pub held: f64,
    /// √(2 λ √α √(η H/(ρ g))).
    pub caught: f64,
}

impl Film {
    /// Film on a side of `height` m at `side_c`: the set front 2λ√(αt) meets the draining film of
    /// Jeffreys 1930. λ = 0.5 on a frozen side, else 0.35 (assumed).
    pub fn new(yield_pa: f64, plastic_pa_s: f64, density: f64, height: f64, side_c: f64) -> Self {
        let weight = density * GRAVITY;
        let lambda = if side_c < 0.0 { 0.5 } else { 0.35 };
        Film {
            held: yield_pa / weight,
            caught: (2.0 * lambda * DIFFUSIVITY.sqrt() * (plastic_pa_s * height / weight).sqrt()).sqrt(),
        }
    }

    /// Thickness, mm.
    pub fn thickness_mm(&self) -> f64 {
        1e3 * (self.held + self.caught)
    }

    /// Standard deviation of ln thickness: half of each sigma, weighted by each term's share.
    pub fn sigma(&self, sigma_yield: f64, sigma_viscosity: f64) -> f64 {
        let whole = self.held + self.caught;
        let held = 0.5 * sigma_yield * self.held / whole;
        let caught = 0.5 * sigma_viscosity * self.caught / whole;
        (held * held + caught * caught).sqrt()
    }

    /// By how much yield stress and viscosity together would have to be multiplied for a film of
    /// `thickness_mm`. The film is held·m + caught·m^¼.
    pub fn multiplier_for(&self, thickness_mm: f64) -> f64 {
        let wanted = 1e-3 * thickness_mm;
        // Monotone in ln m; Newton from above after a bracketed start.
        let film = |ln_m: f64| self.held * ln_m.exp() + self.caught * (0.25 * ln_m).exp();
        let (mut low, mut high) = (-40.0, 40.0);
        for _ in 0..60 {
            let middle = 0.5 * (low + high);
            if film(middle) < wanted {
                low = middle;
            } else {
                high = middle;
            }
            if high - low < 1e-9 {
                break;
            }
        }
        (0.5 * (low + high)).exp()
    }
}

/// The film a spoon keeps: what its yield stress holds, and what drains slowly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpoonFilm {
    /// τ₀/(ρ g), m.
    pub held: f64,
    /// √(η H/(ρ g t)), m (Jeffreys 1930).
    pub draining: f64,
}

impl SpoonFilm {
    /// On a spoon of `height` m that drains for `seconds`.
    pub fn new(yield_pa: f64, plastic_pa_s: f64, density: f64, height: f64, seconds: f64) -> Self {
        let weight = density * GRAVITY;
        SpoonFilm { held: yield_pa / weight, draining: (plastic_pa_s * height / (weight * seconds)).sqrt() }
    }

    /// Thickness, mm.
    pub fn thickness_mm(&self) -> f64 {
        1e3 * (self.held + self.draining)
    }

    /// Standard deviation of ln thickness: half of each sigma, weighted by each term's share.
    pub fn sigma(&self, sigma_yield: f64, sigma_viscosity: f64) -> f64 {
        let whole = self.held + self.draining;
        let held = 0.5 * sigma_yield * self.held / whole;
        let draining = 0.5 * sigma_viscosity * self.draining / whole;
        (held * held + draining * draining).sqrt()
    }

    /// The common multiplier of yield stress and viscosity that gives a film: held·m + draining·√m.
    pub fn multiplier_for(&self, thickness_mm: f64) -> f64 {
        let wanted = 1e-3 * thickness_mm;
        // A quadratic in √m with one positive root, written without cancellation.
        let root = 2.0 * wanted
            / (self.draining + (self.draining * self.draining + 4.0 * self.held * wanted).sqrt());
        root * root
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_multiplier_gives_the_film_that_was_asked_for() {
        let (tau, eta, density, height) = (12.0, 1.5, 1100.0, 0.05);
        let m = Film::new(tau, eta, density, height, 20.0).multiplier_for(3.0);
        let film = Film::new(tau * m, eta * m, density, height, 20.0);
        assert!((film.thickness_mm() - 3.0).abs() < 1e-6, "{}", film.thickness_mm());
    }

    #[test]
    fn the_multiplier_of_a_spoon_film_gives_it() {
        let m = SpoonFilm::new(0.05, 0.02, 1050.0, 0.06, 5.0).multiplier_for(0.3);
        let film = SpoonFilm::new(0.05 * m, 0.02 * m, 1050.0, 0.06, 5.0).thickness_mm();
        assert!((film - 0.3).abs() < 1e-9, "{film}");
    }

    #[test]
    fn a_frozen_side_catches_more() {
        let warm = Film::new(5.0, 1.0, 1100.0, 0.05, 20.0).thickness_mm();
        let frozen = Film::new(5.0, 1.0, 1100.0, 0.05, -18.0).thickness_mm();
        assert!(frozen > 1.1 * warm, "{frozen} against {warm} mm");
    }
}
