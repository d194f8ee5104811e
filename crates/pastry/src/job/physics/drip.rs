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
/// Slices of the table from interface to start, and of it between two nodes.
const SLICES: usize = 96;
const PER_NODE: usize = SLICES / (NODES - 1);
/// Where the burst is over: it lengthens by less than this, of itself, while it loses a share e of its warmth.
const BURST_ENDS: f64 = 8.0;
/// Shortest stride of the burst, share of the length with its lip: what is as thin as water comes so near to where it stops
/// before it has cooled at all.
const ARRIVED: f64 = 1e-6;
/// Longest stride after that, of ln warmth: between two strides the cream is not looked at.
const STRIDE: f64 = 0.6;

/// How finely a drip is followed.
#[derive(Clone, Copy)]
struct Strides {
    /// Longest stride of the burst, share of the length with its lip.
    burst: f64,
    /// Longest stride of it, of the way to where it would stop in the burst.
    reach: f64,
    /// Error allowed a stride after that, share of the length with its lip.
    tolerance: f64,
}

/// For a length that is said.
const FINE: Strides = Strides { burst: 0.3, reach: 0.3, tolerance: 4e-4 };
/// For the ends of a band and for what is searched: within a per cent.
const COARSE: Strides = Strides { burst: 0.4, reach: 0.4, tolerance: 3e-3 };

/// Longest drip that is told apart, mm.
pub const LONGEST_MM: f64 = 1e3 * LONGEST;

/// A cream at the edge: yield stress and viscosity over the temperatures it passes through.
#[derive(Debug, Clone)]
pub struct DripCourse {
    /// How much ln τ₀ and ln η rise from node to node, at equal steps of temperature from interface to start.
    rises: [[f64; 2]; NODES - 1],
    /// τ₀/(ρ g), m, and ρ g/(6 η), 1/(m·s), on finer slices of the same: ln interpolates linearly between the nodes, and so
    /// fine the values do.
    slices: [[f64; 2]; SLICES + 1],
    /// Thickness at the lip times its length: a drip of length L is this over L + lip thick, m².
    section: f64,
}

/// The cream at one warmth, 0 to 1: τ₀/(ρ g), m, ρ g/(6 η), 1/(m·s), and how the ln of τ₀ and η grow by −ln warmth.
#[derive(Clone, Copy)]
struct Resists {
    warmth: f64,
    held: f64,
    yields: f64,
    ln_held_by_x: f64,
    ln_drag_by_x: f64,
}

impl Resists {
    /// A little colder, between the same two nodes.
    #[inline]
    fn after(self, x: f64) -> Resists {
        let lost = 1.0 - shrink(x);
        Resists {
            held: self.held * shrink(-lost * self.ln_held_by_x),
            yields: self.yields * shrink(lost * self.ln_drag_by_x),
            ..self
        }
    }

    /// Speed of a strip `thick` m thick, m/s: (h − s)² (2 h + s)/(d h), 0 where its yield stress holds it.
    #[inline]
    fn speed(self, thick: f64) -> f64 {
        let flowing = (thick - self.held).max(0.0);
        flowing * flowing * (2.0 * thick + self.held) * self.yields / thick
    }

    /// Thickness at which a strip just stops, m.
    fn stops_at(self) -> f64 {
        // w² (3 s + 2 w) b = v (s + w) for what flows, w = h − s: the right quotient hardly changes.
        let (s, still) = (self.held, STOPPED / self.yields);
        let flowing = |w: f64| (still * (s + w) / (3.0 * s + 2.0 * w)).sqrt();
        s + flowing(flowing(flowing(0.0)))
    }

    /// Length gained by −ln warmth, m: v h²/a.
    #[inline]
    fn growth(self, thick: f64) -> f64 {
        let flowing = (thick - self.held).max(0.0);
        flowing * flowing * (2.0 * thick + self.held) * self.yields * thick / COOLS
    }
}

/// Where a drip is: what it resists with, how long it is with its lip, m, how thick there, m, and how fast, m/s.
#[derive(Clone, Copy)]
struct Strip {
    with: Resists,
    u: f64,
    thick: f64,
    speed: f64,
}

/// Warmth is lost at this over the thickness squared, m²/s: π² D/4.
const COOLS: f64 = std::f64::consts::PI * std::f64::consts::PI * DIFFUSIVITY / 4.0;

impl DripCourse {
    /// A fresh cream at `t_c` on a side of `side_c`, `dose_ml` a drip. What has set in it by then has set; on the side it
    /// cools for seconds, in which nothing sets.
    pub fn new(prepared: &Prepared, t_c: f64, side_c: f64, dose_ml: f64, clock: Clock) -> Self {
        let set = prepared.set_by(t_c, History::Fresh, clock);
        let still = (t_c - side_c).abs() < 1e-6;
        let interface_c = if still { t_c } else { contact_c(t_c, side_c) };
        let weight = prepared.density * GRAVITY;
        let nodes: [[f64; 2]; NODES] = std::array::from_fn(|k| {
            let share = k as f64 / (NODES - 1) as f64;
            let point = prepared.at_set(interface_c + share * (t_c - interface_c), History::Fresh, &set);
            [(point.yield_stress_pa / weight).ln(), (6.0 * point.plastic_viscosity_pa_s / weight).ln()]
        });
        let rises = std::array::from_fn(|k| [0, 1].map(|q| nodes[k + 1][q] - nodes[k][q]));
        let mut slices = [[0.0; 2]; SLICES + 1];
        for (k, rise) in rises.iter().enumerate() {
            let grows = [rise[0], -rise[1]].map(|rise: f64| (rise / PER_NODE as f64).exp());
            let mut value = [nodes[k][0].exp(), (-nodes[k][1]).exp()];
            for slice in &mut slices[k * PER_NODE..=(k + 1) * PER_NODE] {
                *slice = value;
                value = [value[0] * grows[0], value[1] * grows[1]];
            }
        }
        DripCourse { rises, slices, section: 1e-6 * dose_ml / WIDTH }
    }

    /// What the cream does at a warmth, yield stress and viscosity multiplied.
    #[inline]
    fn resists(&self, warmth: f64, [times_yield, times_viscosity]: [f64; 2]) -> Resists {
        let slice = warmth * SLICES as f64;
        let k = (slice as usize).min(SLICES - 1);
        let part = slice - k as f64;
        let [cold, warm] = [self.slices[k], self.slices[k + 1]];
        let rises = self.rises[k / PER_NODE];
        let of_nodes = warmth * (NODES - 1) as f64;
        Resists {
            warmth,
            held: times_yield * (cold[0] + part * (warm[0] - cold[0])),
            yields: times_viscosity.recip() * (cold[1] + part * (warm[1] - cold[1])),
            ln_held_by_x: -of_nodes * rises[0],
            ln_drag_by_x: -of_nodes * rises[1],
        }
    }

    fn strip(&self, with: Resists, u: f64) -> Strip {
        let thick = self.section / u;
        Strip { with, u, thick, speed: with.speed(thick) }
    }

    /// Length at which it stops, mm, with yield stress and viscosity multiplied; 200 mm at most.
    ///
    /// x = −ln warmth and u, the length and its lip, go together: du/dx = v h²/a, h = section/u, a = π² D/4. The burst at the
    /// lip is followed over u, the creep at the end over x; within 0.5 % of strides so fine that they do not matter (a test
    /// asks that).
    pub fn length_mm(&self, times_yield: f64, times_viscosity: f64) -> f64 {
        self.uncut_mm(times_yield, times_viscosity).max(0.0)
    }

    /// The same, and below 0 where it does not leave the edge: by how much too short the lip that would stop it is.
    pub fn uncut_mm(&self, times_yield: f64, times_viscosity: f64) -> f64 {
        self.followed_mm(times_yield, times_viscosity, FINE)
    }

    /// [`DripCourse::uncut_mm`] within a per cent, in half the strides: for the ends of a band and for searching.
    pub fn about_mm(&self, times_yield: f64, times_viscosity: f64) -> f64 {
        self.followed_mm(times_yield, times_viscosity, COARSE)
    }

    /// The length where only its side of some limits matters: followed finely near them alone.
    pub fn beside_mm(&self, times: f64, limits: [f64; 2]) -> f64 {
        let about = self.about_mm(times, times);
        let near = |limit: f64| (about - limit).abs() < 0.03 * limit + 0.5;
        if limits.into_iter().any(near) { self.length_mm(times, times) } else { about }
    }

    fn followed_mm(&self, times_yield: f64, times_viscosity: f64, strides: Strides) -> f64 {
        crate::patience::checkpoint();
        let times = [times_yield, times_viscosity];
        let mut at = self.strip(self.resists(1.0, times), LIP);
        if at.speed < STOPPED {
            return 1e3 * (self.section / at.with.stops_at() - LIP);
        }
        let mut time = 0.0;
        let whole = LONGEST + LIP;
        while at.u < whole && time < LONGEST_TIME {
            let Some(next) = self.burst(&at, times, strides, &mut time) else { break };
            at = next;
        }
        let mut stride = STRIDE.min(0.1 * COOLS * at.u / (at.speed * at.thick * at.thick));
        while at.u < whole && time < LONGEST_TIME && stride > 1e-9 {
            let (next, error) = self.creep(&at, times, stride, strides.tolerance);
            let scale = 0.8 / error.max(1e-3).sqrt().sqrt();
            // Not a number is no stride either.
            if !(error <= 1.0 && next.u >= at.u) {
                stride *= scale.clamp(0.1, 0.7);
                continue;
            }
            if next.speed < STOPPED {
                // Where it creeps, length and speed go to their ends together.
                at.u += (next.u - at.u) * (at.speed - STOPPED) / (at.speed - next.speed);
                break;
            }
            time += 0.5 * stride * (at.thick * at.thick + next.thick * next.thick) / COOLS;
            at = next;
            stride = (stride * scale.clamp(0.3, 5.0)).min(STRIDE);
        }
        (1e3 * (at.u - LIP)).min(LONGEST_MM)
    }

    /// A stride of the burst, Runge and Kutta's of fourth order over u; none where it is over.
    fn burst(&self, at: &Strip, times: [f64; 2], strides: Strides, time: &mut f64) -> Option<Strip> {
        // x gained a metre of way.
        let cools = |thick: f64, speed: f64| COOLS / (thick * thick * speed);
        let first = cools(at.thick, at.speed);
        if first * at.u * BURST_ENDS > 1.0 {
            return None;
        }
        let reach = (at.thick / at.with.held - 1.0) * at.u;
        let step = (strides.burst * at.u).min(strides.reach * reach).min(0.1 / first);
        if step < ARRIVED * at.u {
            return None;
        }
        let ahead = |way: f64, x: f64| {
            let thick = self.section / (at.u + way);
            let speed = at.with.after(x).speed(thick);
            (speed > STOPPED).then(|| (cools(thick, speed), speed))
        };
        let second = ahead(0.5 * step, 0.5 * step * first)?;
        let third = ahead(0.5 * step, 0.5 * step * second.0)?;
        let last = ahead(step, step * third.0)?;
        let x = step * (first + 2.0 * second.0 + 2.0 * third.0 + last.0) / 6.0;
        if x > 0.1 {
            return None;
        }
        let next = self.strip(self.resists(at.with.warmth * shrink(x), times), at.u + step);
        *time += step * (1.0 / at.speed + 2.0 / second.1 + 2.0 / third.1 + 1.0 / last.1) / 6.0;
        (next.speed > STOPPED).then_some(next)
    }

    /// A stride of the creep over x and its error, of what is allowed: linearly implicit, since it is pulled to where it
    /// stops. Rodas3 (Sandu and others 1997, from memory), of third order; γ = 1/2.
    fn creep(&self, at: &Strip, times: [f64; 2], stride: f64, tolerance: f64) -> (Strip, f64) {
        let Strip { with: Resists { warmth, held, yields, ln_held_by_x, ln_drag_by_x }, u, thick, speed } =
            *at;
        let (flowing, spread) = (thick - held, thick * thick / COOLS);
        let grows = speed * spread;
        let by_u = -(6.0 * thick * flowing * yields + speed) * spread / u;
        let by_held = 3.0 * flowing * (thick + held) * held * yields / thick;
        let by_x = -(by_held * ln_held_by_x + speed * ln_drag_by_x) * spread;
        let then = self.resists(warmth * shrink(stride), times);
        let growth = |u: f64| then.growth(self.section / u);
        let (per, down) = (1.0 / stride, 1.0 / (2.0 / stride - by_u));
        let a = (grows + 0.5 * stride * by_x) * down;
        let b = (grows + 4.0 * per * a + 1.5 * stride * by_x) * down;
        let c = (growth(u + 2.0 * a) + per * (a - b)) * down;
        let d = (growth(u + 2.0 * a + c) + per * (a - b - 8.0 / 3.0 * c)) * down;
        // What flows is never longer than where its yield stress holds it.
        let held_at = self.section / held.min(then.held);
        (self.strip(then, (u + 2.0 * a + c + d).min(held_at)), d.abs() / (tolerance * u))
    }

    /// The z at which the drip is `length_mm` long when yield stress is multiplied by exp(z σ_yield) and viscosity by
    /// exp(z σ_viscosity): stiffer is shorter, so length falls as z rises. Searched within ± 40 from where it is thought to be;
    /// an end is returned where the length is never met.
    pub fn z_for_length(&self, length_mm: f64, sigma: [f64; 2], near: Near) -> f64 {
        const FAR: f64 = 40.0;
        const CLOSE: f64 = 2e-4;
        const WALK: f64 = 0.2;
        // ln of the whole strip goes nearly straight with z.
        let wanted = ln_strip(length_mm);
        let excess = |z: f64| ln_strip(self.about_mm((z * sigma[0]).exp(), (z * sigma[1]).exp())) - wanted;
        // A third of a millimetre is as near as a straight line from there is right to a tenth, which no ruler on a cake
        // tells. Far out it only says that it is far.
        let close = |z: f64, excess: f64| excess.abs() < 0.3 / (length_mm + LIP_MM) * (1.0 + 0.5 * z * z);
        let mut shrinks = near.shrinks.unwrap_or(SHRINKS * sigma[0]);
        let mut a = near.z.clamp(-FAR, FAR);
        let mut excess_a = excess(a);
        if close(a, excess_a) {
            return a + excess_a / shrinks;
        }
        // Near a good guess secants are there in one or two.
        let mut b = (a + (excess_a / shrinks).clamp(-1.5, 1.5)).clamp(-FAR, FAR);
        let mut excess_b = excess(b);
        for _ in 0..3 {
            let slope = (excess_a - excess_b) / (b - a);
            if slope.is_nan() || !(0.2..5.0).contains(&(slope / shrinks)) {
                break;
            }
            shrinks = slope;
            let next = b + excess_b / shrinks;
            if close(b, excess_b) {
                return next;
            }
            if (excess_a > 0.0) != (excess_b > 0.0) || (b - next).abs() > 1.5 {
                break;
            }
            (a, excess_a) = (b, excess_b);
            b = next.clamp(-FAR, FAR);
            excess_b = excess(b);
        }
        // Walk until the length is passed, tripling the stride.
        let mut stride = WALK.copysign(excess_b);
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
            if (b - a).abs() < CLOSE * (1.0 + a * a) {
                break;
            }
            let secant = b - excess_b * (b - a) / (excess_b - excess_a);
            let (low, high) = (a.min(b), a.max(b));
            let z = if round % 4 == 3 || !(low..=high).contains(&secant) { 0.5 * (a + b) } else { secant };
            let excess_z = excess(z);
            if close(z, 3.0 * excess_z) {
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

/// Where a length is looked for.
#[derive(Debug, Clone, Copy, Default)]
pub struct Near {
    /// Standard deviations.
    pub z: f64,
    /// How much the ln of the strip, length and lip, falls by a standard deviation, where that is known.
    pub shrinks: Option<f64>,
}

/// What the ln of a strip falls by ln of yield stress, about: for a first stride.
const SHRINKS: f64 = 0.6;
const LIP_MM: f64 = 1e3 * LIP;

/// ln of a drip and its lip, of mm.
fn ln_strip(length_mm: f64) -> f64 {
    (length_mm + LIP_MM).ln()
}

/// ln of a strip over standard deviations of stiffness, through three lengths.
#[derive(Debug, Clone, Copy)]
pub struct Parabola {
    at: f64,
    falls: f64,
    bends: f64,
    reach: f64,
}

impl Parabola {
    /// Through the length at the middle and those `z` standard deviations to either side, shortest last, mm. None where one
    /// of them is no length.
    pub fn through([longer, middle, shorter]: [f64; 3], z: f64) -> Option<Self> {
        if shorter <= 0.0 || longer >= LONGEST_MM {
            return None;
        }
        let [above, at, below] = [longer, middle, shorter].map(ln_strip);
        let (falls, bends) = (0.5 * (above - below) / z, 0.5 * (above + below - 2.0 * at) / (z * z));
        Some(Parabola { at, falls, bends, reach: z })
    }

    /// Whether it bends so little that what lies between the three lies on it.
    pub fn is_flat(self) -> bool {
        self.bends.abs() * self.reach < 0.2 * self.falls
    }

    /// Where a length is met; none far outside the three, or where it never is.
    pub fn at(self, length_mm: f64) -> Option<Near> {
        const OUTSIDE: f64 = 1.5;
        let short = self.at - ln_strip(length_mm);
        let root = (self.falls * self.falls - 4.0 * self.bends * short).sqrt();
        let z = 2.0 * short / (self.falls + root);
        (z.abs() < OUTSIDE * self.reach).then_some(Near { z, shrinks: Some(root) })
    }
}

/// e^−x for a small step; exact beyond it.
#[inline]
fn shrink(x: f64) -> f64 {
    if x.abs() < 0.6 { (1.0 - 0.5 * x + x * x / 12.0) / (1.0 + 0.5 * x + x * x / 12.0) } else { (-x).exp() }
}
