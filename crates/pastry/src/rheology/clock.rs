//! What has happened to something just made by the time it is asked: it came down from where it was made, and has been
//! held for some minutes since.
//!
//! Melted fat sets in two steps: cocoa butter's quick first one, and the slow one that ends in a rested ganache. Both are
//! integrals of one over a time that hangs on temperature, and both have closed forms.

use crate::rheology::smooth::smin;

/// Where the way down begins for melted fat, °C: above it nothing sets.
const FAT_FROM_C: f64 = 28.0;

/// The time since something came to its temperature, and how fast it came there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Clock {
    /// Hours held at its temperature.
    pub hours: f64,
    /// How fast it came down, K/h: 120 stirred on ice, 24 in a tray, 3 in a bowl on the bench.
    pub cooled_k_h: f64,
}

impl Clock {
    /// Just there, having been stirred on ice.
    pub const ARRIVED: Clock = Clock { hours: 0.0, cooled_k_h: 120.0 };

    /// The same, so many minutes later.
    pub fn minutes(self, minutes: f64) -> Self {
        Clock { hours: minutes / 60.0, ..self }
    }
}

/// 1/h at which the slow step goes: one over 1.15 exp(0.143 (max(T, 2) − 4.5)) h, times 4/(28 − T) above 24 °C, infinite
/// at 28 (fitted to 12 to 24 h at 18 to 20 °C and 1 to 3 h in a fridge, common practice).
pub fn slow_rate(t_c: f64) -> f64 {
    let slope = ((FAT_FROM_C - t_c) / 4.0).clamp(0.0, 1.0);
    slope * (-0.143 * (t_c.max(2.0) - 4.5)).exp() / 1.15
}

/// 1/h at which the quick step goes: one over 0.7 exp(0.35 (max(T, 8) − 20)) h below 25 °C, times 2/(27 − T) above it,
/// infinite at 27 (half time 0.6 h at 20, 2.5 h at 24 °C: order of Foubert and of Loisel, from memory, low).
pub fn quick_rate(t_c: f64) -> f64 {
    let slope = ((27.0 - t_c) / 2.0).clamp(0.0, 1.0);
    slope * (-0.35 * (t_c.max(8.0) - 20.0)).exp() / 0.7
}

/// ∫ of exp(−k (max(T, floor) − middle)) · clamp((end − T)/width, 0, 1) over T from `t_c` to `end`.
fn integral(t_c: f64, k: f64, [floor, end, width]: [f64; 3], middle: f64) -> f64 {
    let exponential = |t: f64| (-k * (t - middle)).exp();
    let full = end - width;
    let mut sum = 0.0;
    if t_c < end {
        // ∫ (end − t)/width e^(−k(t − m)) dt from a to end.
        let a = t_c.max(full);
        sum += exponential(a) * ((end - a) / k - (1.0 - (-k * (end - a)).exp()) / (k * k)) / width;
    }
    if t_c < full {
        let a = t_c.max(floor);
        sum += (exponential(a) - exponential(full)) / k;
    }
    if t_c < floor {
        sum += (floor - t_c) * exponential(floor);
    }
    sum
}

/// How far melted fat has set, 0 just made to 1 rested: half of it by the quick step, half by the slow.
///
/// # Arguments
/// * `slower`: 1 for dark chocolate, 1.5 milk, 1.7 white.
pub fn fat_felt(t_c: f64, clock: Clock, slower: f64) -> f64 {
    let [quick, slow] = fat_progress(t_c, clock, slower);
    0.5 * (1.0 - (-quick.powi(3)).exp()) + 0.5 * (1.0 - (-slow * slow.sqrt()).exp())
}

/// The two integrals of time over its scale, on the way down and since: quick and slow.
pub fn fat_progress(t_c: f64, clock: Clock, slower: f64) -> [f64; 2] {
    if t_c >= FAT_FROM_C {
        return [0.0; 2];
    }
    let way = [
        integral(t_c, 0.35, [8.0, 27.0, 2.0], 20.0) / 0.7,
        integral(t_c, 0.143, [2.0, FAT_FROM_C, 4.0], 4.5) / 1.15,
    ];
    let rate = [quick_rate(t_c), slow_rate(t_c)];
    [0, 1].map(|k| (way[k] / clock.cooled_k_h + clock.hours * rate[k]) / slower)
}

/// ∫ of smin(x, `most`, `e`) from 0 to `x`: closed.
pub fn smin_integral(x: f64, most: f64, e: f64) -> f64 {
    if x <= 0.0 {
        return 0.0;
    }
    // smin = (x + a − √(x² − 2 a (1 − 2 e²) x + a²))/2; the root is √((x − b)² + c²).
    let b = most * (1.0 - 2.0 * e * e);
    let c2 = most * most - b * b;
    let c = c2.sqrt();
    let primitive = |u: f64| 0.5 * (u * (u * u + c2).sqrt() + c2 * (u / c).asinh());
    0.5 * (0.5 * x * x + most * x - (primitive(x - b) - primitive(-b)))
}

/// Rate at which a gel of which the way down is `x` of a reference width sets.
pub fn gel_rate(x: f64) -> f64 {
    smin(x.max(0.0), 1.6, 0.03)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// By the trapezium, in fine steps.
    fn summed(from: f64, to: f64, of: impl Fn(f64) -> f64) -> f64 {
        const STEPS: usize = 20_000;
        let h = (to - from) / STEPS as f64;
        (0..STEPS).map(|k| h * of(from + (k as f64 + 0.5) * h)).sum()
    }

    #[test]
    fn the_closed_forms_are_the_integrals() {
        for t_c in [-4.0, 1.0, 2.0, 6.0, 8.0, 15.0, 23.9, 24.0, 25.0, 26.5, 27.0, 27.9] {
            let clock = Clock { hours: 0.0, cooled_k_h: 30.0 };
            let [quick, slow] = fat_progress(t_c, clock, 1.5);
            for (got, rate) in [(quick, quick_rate as fn(f64) -> f64), (slow, slow_rate)] {
                let want = summed(t_c, 28.0, rate) / 30.0 / 1.5;
                assert!((got - want).abs() < 1e-7 * want.max(1e-3), "{t_c} °C: {got} for {want}");
            }
        }
        for x in [0.0, 0.3, 1.5, 1.6, 1.9, 6.0] {
            let want = summed(0.0, x, |x| smin(x, 1.6, 0.03));
            assert!((smin_integral(x, 1.6, 0.03) - want).abs() < 1e-8, "{x}: {want}");
        }
    }
}
