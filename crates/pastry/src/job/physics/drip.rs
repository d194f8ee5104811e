//! How far a drip runs before it stops.
//!
//! A dose leaves the edge and runs down a colder side as a strip. It thins as it lengthens and cools
//! as it thins; it stops when its own weight no longer beats the yield stress, or when it creeps.
//! Strip flow of a Bingham fluid, with the temperature of a plane layer that cools on one side.

use crate::job::physics::film::{DIFFUSIVITY, contact_c};
use crate::rheology::clock::Clock;
use crate::rheology::consistency::History;
use crate::rheology::kernel::Prepared;
use crate::units::GRAVITY;

/// Width of a drip, m (assumed).
const WIDTH: f64 = 0.009;
/// Length of lip that the dose wets before it falls, m (assumed).
const LIP: f64 = 0.010;
/// Longest drip followed, m: past the board of any tier.
const LONGEST: f64 = 0.2;
/// Longest time followed, s.
const LONGEST_TIME: f64 = 300.0;
/// Creep at which a drip has stopped, m/s.
const STOPPED: f64 = 5e-5;
/// Temperatures at which the cream is evaluated on its way down.
const NODES: usize = 7;
/// Slices of the table between the nodes.
const SLICES: usize = 192;
/// Longest stride it is followed by, share of the length it has with its lip, and the shortest, m.
const STRIDE: f64 = 0.3;
const FINEST: f64 = 4e-5;

/// Longest drip that is told apart, mm.
pub const LONGEST_MM: f64 = 1e3 * LONGEST;

/// A cream at the edge: yield stress and viscosity over the temperatures it passes through.
#[derive(Debug, Clone)]
pub struct DripCourse {
    /// τ₀/(ρ g), m, and 6 η/(ρ g), m·s, on equal temperature slices from interface to start.
    table: [[f64; 2]; SLICES + 1],
    dose: f64,
}

impl DripCourse {
    /// A fresh cream at `t_c` on a side of `side_c`, `dose_ml` a drip. What has set in it by then has set; on the side it
    /// cools for seconds, in which nothing sets.
    pub fn new(prepared: &Prepared, t_c: f64, side_c: f64, dose_ml: f64, clock: Clock) -> Self {
        let set = prepared.set_by(t_c, History::Fresh, clock);
        let still = (t_c - side_c).abs() < 1e-6;
        let interface_c = if still { t_c } else { contact_c(t_c, side_c) };
        let weight = prepared.density * GRAVITY;
        let mut nodes = [[0.0; 2]; NODES];
        for (k, node) in nodes.iter_mut().enumerate() {
            let share = k as f64 / (NODES - 1) as f64;
            let point = prepared.at_set(interface_c + share * (t_c - interface_c), History::Fresh, &set);
            *node =
                [(point.yield_stress_pa / weight).ln(), (6.0 * point.plastic_viscosity_pa_s / weight).ln()];
        }
        // ln interpolates linearly between nodes; a fine table of the exponentials is within 1e-5.
        let mut table = [[0.0; 2]; SLICES + 1];
        let per_node = SLICES / (NODES - 1);
        for (k, pair) in nodes.windows(2).enumerate() {
            let ratio = [0, 1].map(|q| ((pair[1][q] - pair[0][q]) / per_node as f64).exp());
            let mut value = pair[0].map(f64::exp);
            for slice in &mut table[k * per_node..(k + 1) * per_node] {
                *slice = value;
                value = [value[0] * ratio[0], value[1] * ratio[1]];
            }
        }
        table[SLICES] = nodes[NODES - 1].map(f64::exp);
        DripCourse { table, dose: 1e-6 * dose_ml }
    }

    /// Length at which it stops, mm, with yield stress and viscosity multiplied; 200 mm at most.
    ///
    /// Followed over its length, not its time: a drip that is almost still takes long and gets nowhere. Strides are of fourth
    /// order and cut where it slows or cools much; within 0.5 % of steps so fine that they do not matter (the vectors ask that).
    pub fn length_mm(&self, times_yield: f64, times_viscosity: f64) -> f64 {
        crate::patience::checkpoint();
        let cooling = std::f64::consts::PI.powi(2) * DIFFUSIVITY / 4.0;
        let flow = |length: f64, warmth: f64| {
            let slice = warmth * SLICES as f64;
            let k = (slice as usize).min(SLICES - 1);
            let part = slice - k as f64;
            let [cold, warm] = [self.table[k], self.table[k + 1]];
            let held = times_yield * (cold[0] + part * (warm[0] - cold[0]));
            let drag = times_viscosity * (cold[1] + part * (warm[1] - cold[1]));
            let thick = self.dose / (WIDTH * (length + LIP));
            let flowing = thick - held;
            let speed = flowing * flowing * (2.0 * thick + held) / (drag * thick);
            // Warmth lost a metre of way; the way to where it would thin to what is held.
            (flowing > 0.0 && speed >= STOPPED)
                .then(|| (speed, cooling / (thick * thick * speed), flowing / thick * (length + LIP)))
        };
        let (mut length, mut time, mut warmth) = (0.0, 0.0, 1.0);
        let mut stride = LONGEST;
        while time < LONGEST_TIME && length < LONGEST {
            let Some((speed, cools, reach)) = flow(length, warmth) else { break };
            let step = stride
                .min(STRIDE * (length + LIP))
                .min(0.6 / cools)
                .min(0.45 * reach)
                .max(FINEST)
                .min(LONGEST - length);
            // Runge and Kutta, fourth order, of ln warmth over the way.
            let ahead = |way: f64, cools: f64| flow(length + way, warmth * shrink(way * cools));
            let strides = ahead(0.5 * step, cools).and_then(|second| {
                let third = ahead(0.5 * step, second.1)?;
                Some([second, third, ahead(step, third.1)?])
            });
            match strides {
                Some([b, c, d]) if d.0 > 0.15 * speed || step <= FINEST => {
                    length += step;
                    time += step * (1.0 / speed + 2.0 / b.0 + 2.0 / c.0 + 1.0 / d.0) / 6.0;
                    warmth *= shrink(step * (cools + 2.0 * b.1 + 2.0 * c.1 + d.1) / 6.0);
                    stride = 2.0 * step;
                }
                _ if step <= FINEST => break,
                _ => stride = 0.4 * step,
            }
        }
        (1e3 * length).min(LONGEST_MM)
    }

    /// The z at which the drip is `length_mm` long when yield stress is multiplied by
    /// exp(z σ_yield) and viscosity by exp(z σ_viscosity): stiffer is shorter, so length falls as z
    /// rises. Searched within ± 40 from `guess`; an end is returned where the length is never met.
    pub fn z_for_length(&self, length_mm: f64, sigma: [f64; 2], guess: f64) -> f64 {
        const FAR: f64 = 40.0;
        const CLOSE: f64 = 2e-4;
        /// A twentieth of what a ruler on a cake can tell.
        const CLOSE_MM: f64 = 0.05;
        let excess = |z: f64| self.length_mm((z * sigma[0]).exp(), (z * sigma[1]).exp()) - length_mm;
        let mut a = guess.clamp(-FAR, FAR);
        let mut excess_a = excess(a);
        if excess_a.abs() < CLOSE_MM {
            return a;
        }
        // Walk until the length is passed, tripling the stride.
        let mut stride = if excess_a > 0.0 { 0.04 } else { -0.04 };
        let (mut b, mut excess_b) = (a, excess_a);
        while (excess_a > 0.0) == (excess_b > 0.0) {
            if b.abs() >= FAR && b.signum() == f64::signum(stride) {
                return FAR * f64::signum(stride);
            }
            (a, excess_a) = (b, excess_b);
            b = (b + stride).clamp(-FAR, FAR);
            excess_b = excess(b);
            stride *= 3.0;
        }
        // Bracketed: Illinois, falling back to halves. The length has small steps of its own.
        for round in 0..60 {
            if (b - a).abs() < CLOSE {
                break;
            }
            let secant = b - excess_b * (b - a) / (excess_b - excess_a);
            let (low, high) = (a.min(b), a.max(b));
            let z = if round % 4 == 3 || !(low..=high).contains(&secant) { 0.5 * (a + b) } else { secant };
            let excess_z = excess(z);
            if excess_z.abs() < CLOSE_MM {
                return z;
            }
            if (excess_z > 0.0) == (excess_b > 0.0) {
                excess_a *= 0.5;
            } else {
                (a, excess_a) = (b, excess_b);
            }
            (b, excess_b) = (z, excess_z);
        }
        0.5 * (a + b)
    }
}

/// e^−x for a small step; exact beyond it.
#[inline]
fn shrink(x: f64) -> f64 {
    if x < 0.6 { (1.0 - 0.5 * x + x * x / 12.0) / (1.0 + 0.5 * x + x * x / 12.0) } else { (-x).exp() }
}
