//! Films: one that drains down a side and sets, one that a spoon keeps.

use crate::units::GRAVITY;

/// Thermal diffusivity of the cream, m²/s (assumed, as water-rich foods).
pub const DIFFUSIVITY: f64 = 1.1e-7;
/// Temperature at which a film stops running, °C (assumed).
const SETS_AT_C: f64 = 28.0;
/// Time that a film drains where nothing sets it, s (assumed).
const DRAINS_S: f64 = 300.0;
/// Thickness of what meets a side in a film or a drip, mm.
const THIN_LAYER_MM: f64 = 2.0;

/// Share of the way from a side's temperature to the cream's at which a layer of `thickness_mm` meets it:
/// 0.5 (1 − 0.4^(d/2 mm)). Like bodies meet half-way, a thin layer lower (assumed).
pub fn contact_share(thickness_mm: f64) -> f64 {
    0.5 * (1.0 - 0.4f64.powf(thickness_mm / 2.0))
}

/// Temperature at which a thin layer of cream at `cream_c` meets a side at `side_c`, °C.
pub fn contact_c(cream_c: f64, side_c: f64) -> f64 {
    side_c + contact_share(THIN_LAYER_MM) * (cream_c - side_c)
}

/// erf⁻¹(u) for 0 ≤ u < 1 in the closed form of Winitzki, from memory: within 3 in a thousand.
pub fn erf_inverse(u: f64) -> f64 {
    const A: f64 = 0.147;
    let l = (1.0 - u * u).ln();
    let k = 2.0 / (A * std::f64::consts::PI) + l / 2.0;
    ((k * k - l / A).sqrt() - k).sqrt()
}

/// How fast the set front moves into a film of cream at `cream_c` on a side at `side_c`: 2λ√(αt), λ from the
/// error-function solution with the front at 28 °C, where such creams stop running.
pub fn set_front(cream_c: f64, side_c: f64) -> f64 {
    use crate::rheology::smooth::{smin, spos};
    let below = spos(SETS_AT_C - contact_c(cream_c, side_c), 1.0);
    erf_inverse(smin(below / (below + spos(cream_c - SETS_AT_C, 1.0)), 0.60, 0.05))
}

/// A film: what its yield stress holds up, and what viscosity holds until it sets or is looked at.
///
/// Thickness = held·y + (caught·v + draining·v²)^¼ where yield stress is y times and viscosity v times what it was.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Film {
    /// τ₀/(ρ g), m.
    pub held: f64,
    /// 4 λ² α K, m⁴: what the set front catches of the film that drains (Jeffreys 1930).
    pub caught: f64,
    /// (K/t)², m⁴: what is left after draining for t.
    pub draining: f64,
}

impl Film {
    fn new(yield_pa: f64, plastic_pa_s: f64, weight: f64, height: f64, lambda: f64, seconds: f64) -> Self {
        // K = η H/(ρ g), m²·s.
        let k = plastic_pa_s * height / weight;
        Film {
            held: yield_pa / weight,
            caught: 4.0 * lambda * lambda * DIFFUSIVITY * k,
            draining: (k / seconds).powi(2),
        }
    }

    /// On a side of `height` m: the set front meets the draining film; where nothing sets it, it drains 300 s.
    pub fn on_side(stress: [f64; 2], density: f64, height: f64, cream_c: f64, side_c: f64) -> Self {
        Self::new(stress[0], stress[1], density * GRAVITY, height, set_front(cream_c, side_c), DRAINS_S)
    }

    /// On a spoon of `height` m that drains for `seconds`; nothing sets it.
    pub fn on_spoon(stress: [f64; 2], density: f64, height: f64, seconds: f64) -> Self {
        Self::new(stress[0], stress[1], density * GRAVITY, height, 0.0, seconds)
    }

    /// Thickness, mm.
    pub fn thickness_mm(&self) -> f64 {
        self.at(0.0, [0.0; 2])[0].exp()
    }

    /// Thickness, mm, `z` standard deviations stiffer.
    pub fn thickness_at(&self, z: f64, sigma: [f64; 2]) -> f64 {
        self.at(z, sigma)[0].exp()
    }

    /// ln of the thickness in mm and its slope in z, with yield stress and viscosity times exp(z σ).
    #[inline]
    fn at(&self, z: f64, [of_yield, of_viscosity]: [f64; 2]) -> [f64; 2] {
        let held = self.held * (z * of_yield).exp();
        let v = (z * of_viscosity).exp();
        let (caught, draining) = (self.caught * v, self.draining * v * v);
        let flowing = caught + draining;
        let root = flowing.sqrt().sqrt();
        let slope = if flowing > 0.0 { 0.25 * root * (caught + 2.0 * draining) / flowing } else { 0.0 };
        let whole = held + root;
        [(1e3 * whole).ln(), (held * of_yield + slope * of_viscosity) / whole]
    }

    /// Standard deviation of ln thickness near the middle.
    pub fn sigma(&self, sigma: [f64; 2]) -> f64 {
        self.at(0.0, sigma)[1]
    }

    /// The z at which it is `thickness_mm`, within ± 40: Newton, held in a bracket.
    pub fn z_for(&self, thickness_mm: f64, sigma: [f64; 2]) -> f64 {
        const FAR: f64 = 40.0;
        let wanted = thickness_mm.ln();
        let (mut low, mut high, mut z) = (-FAR, FAR, 0.0);
        for _ in 0..60 {
            let [ln, slope] = self.at(z, sigma);
            if ln < wanted {
                low = z;
            } else {
                high = z;
            }
            let step = (wanted - ln) / slope;
            if step.abs() < 1e-10 || high - low < 1e-10 {
                break;
            }
            let next = z + step;
            z = if next > low && next < high { next } else { 0.5 * (low + high) };
        }
        z
    }

    /// By how much yield stress and viscosity together would have to be multiplied for a film of `thickness_mm`.
    pub fn multiplier_for(&self, thickness_mm: f64) -> f64 {
        self.z_for(thickness_mm, [1.0; 2]).exp()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_multiplier_gives_the_film_that_was_asked_for() {
        let side = |m: f64| Film::on_side([12.0 * m, 1.5 * m], 1100.0, 0.05, 32.0, 20.0);
        let spoon = |m: f64| Film::on_spoon([0.05 * m, 0.02 * m], 1050.0, 0.06, 5.0);
        for wanted in [0.3, 3.0, 12.0] {
            let film = side(side(1.0).multiplier_for(wanted));
            assert!((film.thickness_mm() - wanted).abs() < 1e-6, "{wanted}: {}", film.thickness_mm());
            let film = spoon(spoon(1.0).multiplier_for(wanted));
            assert!((film.thickness_mm() - wanted).abs() < 1e-6, "{wanted}: {}", film.thickness_mm());
        }
    }

    #[test]
    fn the_side_is_no_switch() {
        let film = |side_c: f64| Film::on_side([5.0, 1.0], 1100.0, 0.05, 32.0, side_c).thickness_mm();
        assert!((film(-0.1) / film(0.1) - 1.0).abs() < 1e-3);
        assert!(film(-18.0) > 1.3 * film(35.0), "{} and {}", film(-18.0), film(35.0));
    }
}
