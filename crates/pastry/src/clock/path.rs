//! How far something has set by any moment of its way: what the consistency model asks as hours at a temperature and how fast
//! it came down, from the temperatures it really had.
//!
//! The model knows a way down at one speed and then some time at one temperature. Of a way as it was, the integrals that count
//! are kept (fat's quick and slow step, the ageing of gelatin, of starch), and the speed and hours are found that have the same.

use crate::heat::body::Watched;
use crate::heat::network::Course;
use crate::rheology::clock::{Clock, fat_progress, gel_rate, quick_rate, slow_rate};
use crate::rheology::kernel::Prepared;

/// As fast as a mass is ever cooled, K/h.
const FASTEST_K_H: f64 = 3600.0;

/// One moment of a way.
#[derive(Debug, Clone, Copy)]
pub struct Step {
    /// Seconds since the start.
    pub s: f64,
    /// Temperature, °C.
    pub t_c: f64,
    quick: f64,
    slow: f64,
    gel: f64,
    starch: f64,
}

/// A way with what has set on it.
pub struct Path<'a> {
    prepared: &'a Prepared,
    /// Its moments.
    pub steps: Vec<Step>,
}

/// How fast gelatin ages at a temperature, of what it does at its reference.
pub fn gelatin_rate(prepared: &Prepared, t_c: f64) -> f64 {
    let gelatin = &prepared.networks.gelatin;
    if gelatin.full_pa <= 0.0 {
        return 0.0;
    }
    let x = (gelatin.sets_c - t_c) / (gelatin.sets_c - 10.0).max(4.0);
    if x <= 0.0 { 0.0 } else { gel_rate(x) }
}

/// How fast starch sets, of what it does in the cold.
pub fn starch_rate(t_c: f64) -> f64 {
    ((40.0 - t_c) / 35.0).clamp(0.0, 1.0)
}

impl<'a> Path<'a> {
    /// A point of a course: the mean, but for a finished cake.
    pub fn of(prepared: &'a Prepared, course: &Course, watched: Watched) -> Self {
        let mut steps: Vec<Step> = Vec::with_capacity(course.moments.len());
        let rates =
            |t_c: f64| [quick_rate(t_c), slow_rate(t_c), gelatin_rate(prepared, t_c), starch_rate(t_c)];
        let mut sums = [0.0; 4];
        let mut before: Option<(f64, [f64; 4])> = None;
        for moment in &course.moments {
            let t_c = moment.of(watched);
            let now = rates(t_c);
            if let Some((s, was)) = before {
                let hours = (moment.s - s) / 3600.0;
                for (sum, (a, b)) in sums.iter_mut().zip(was.into_iter().zip(now)) {
                    *sum += 0.5 * hours * (a + b);
                }
            }
            before = Some((moment.s, now));
            let [quick, slow, gel, starch] = sums;
            steps.push(Step { s: moment.s, t_c, quick, slow, gel, starch });
        }
        Path { prepared, steps }
    }

    /// Hours of ageing of its gelatin by a moment.
    pub fn gelatin_h(&self, at: usize) -> f64 {
        self.steps[at].gel
    }

    /// The same as the model asks it.
    pub fn clock(&self, at: usize) -> Clock {
        let Step { s, t_c, quick, slow, gel, starch } = self.steps[at];
        let elapsed_h = s / 3600.0;
        let networks = &self.prepared.networks;
        let melted = self.prepared.melts() && t_c < 28.0;
        if melted {
            let slower = self.prepared.chocolate_slower();
            // What a way down at one kelvin an hour would bring, and one hour here.
            let by_way = fat_progress(t_c, Clock { hours: 0.0, cooled_k_h: 1.0 }, slower);
            let [by_quick, by_slow] = [quick_rate(t_c), slow_rate(t_c)].map(|rate| rate / slower);
            let (quick, slow) = (quick / slower, slow / slower);
            let det = by_way[0] * by_slow - by_way[1] * by_quick;
            let solved =
                ((quick * by_slow - slow * by_quick) / det, (by_way[0] * slow - by_way[1] * quick) / det);
            let (way, hours) = match solved {
                (way, hours) if det.abs() > 1e-12 && way >= 0.0 && hours >= 0.0 => (way, hours),
                // More of one than any speed and time: the slow step is kept, all on the way or all here.
                (way, _) if way < 0.0 => (0.0, slow / by_slow.max(1e-9)),
                _ => (slow / by_way[1].max(1e-9), 0.0),
            };
            return Clock { hours, cooled_k_h: (1.0 / way.max(1e-9)).min(FASTEST_K_H) };
        }
        if networks.gelatin.full_pa > 0.0 {
            let by_way = networks.gelatin.age_h(t_c, Clock { hours: 0.0, cooled_k_h: 1.0 });
            let speed = if gel > 0.0 { by_way / gel } else { FASTEST_K_H };
            return Clock { hours: 0.0, cooled_k_h: speed.clamp(1e-3, FASTEST_K_H) };
        }
        let rate = starch_rate(t_c);
        let sets = networks.starch_sets() && rate > 0.0;
        let hours = if sets { starch / rate } else { 0.0 };
        // Agar counts the kelvins and the hours it is below where it sets, as they were.
        let fell = (self.steps[0].t_c - t_c).abs().max(0.1);
        let cooled_k_h = (fell / elapsed_h.max(1e-4)).clamp(1e-3, FASTEST_K_H);
        Clock {
            hours: if self.prepared.melts() { hours } else { hours.max(self.since_worked_h(at)) },
            cooled_k_h,
        }
    }

    /// Hours since something beaten was made, where that counts.
    fn since_worked_h(&self, at: usize) -> f64 {
        if self.prepared.fat_outside() { self.steps[at].s / 3600.0 } else { 0.0 }
    }

    /// The moment nearest to a time.
    pub fn nearest(&self, s: f64) -> usize {
        self.steps.partition_point(|step| step.s < s).min(self.steps.len() - 1)
    }
}
