//! What sets while it cools: gelatin, starch, melted fat, over any history of temperature.

use crate::rheology::clock::slow_rate;
use crate::rheology::gelatin::set_share;

/// A history: seconds and °C.
pub type History<'a> = &'a [(f64, f64)];

/// Hours of it, each counted by how fast it sets there: ∫ rate dt, by the trapezium.
fn counted_h(history: History, rate: impl Fn(f64) -> f64) -> f64 {
    history
        .windows(2)
        .map(|pair| {
            let [(from, a), (to, b)] = [pair[0], pair[1]];
            0.5 * (rate(a) + rate(b)) * (to - from) / 3600.0
        })
        .sum()
}

/// How fast gelatin sets, of what it does at 10 °C: (20 − T)/10, from 0 to 1.6.
pub fn gelatin_rate(t_c: f64) -> f64 {
    ((20.0 - t_c) / 10.0).clamp(0.0, 1.6)
}

/// Stages of a gel, share of its strength after 17 h at 10 °C (assumed): carries a layer, takes the next, comes out of its mould.
pub const CARRIES: f64 = 0.35;
/// Takes the next layer.
pub const TAKES_A_LAYER: f64 = 0.50;
/// Comes out of its mould.
pub const UNMOULDS: f64 = 0.68;

/// Hours at 10 °C that a history is worth to gelatin: what the Bench calls hours set.
pub fn gelatin_hours(history: History) -> f64 {
    counted_h(history, gelatin_rate)
}

/// Hours at 10 °C after which gelatin has a share of its strength: 0.2 (86^f − 1).
pub fn hours_at_10_c(share: f64) -> f64 {
    0.2 * (86f64.powf(share) - 1.0)
}

/// When gelatin has a share of its strength, s, the last temperature held on; none where it does not set there.
pub fn gelatin_sets_at(history: History, share: f64) -> Option<f64> {
    let wanted = hours_at_10_c(share);
    let mut had = 0.0;
    for pair in history.windows(2) {
        let gained = counted_h(pair, gelatin_rate);
        if had + gained >= wanted && gained > 0.0 {
            let (mut low, mut high) = (0.0, 1.0);
            let [(from, a), (to, b)] = [pair[0], pair[1]];
            let upto = |part: f64| {
                had + counted_h(&[pair[0], (from + part * (to - from), a + part * (b - a))], gelatin_rate)
            };
            for _ in 0..50 {
                let middle = 0.5 * (low + high);
                if upto(middle) < wanted { low = middle } else { high = middle }
            }
            return Some(from + high * (to - from));
        }
        had += gained;
    }
    let (end, t_c) = *history.last()?;
    let rate = gelatin_rate(t_c);
    (rate > 0.0).then(|| end + 3600.0 * (wanted - had) / rate)
}

/// Share of its strength that gelatin has after a history; thin jellies begin later (`percent` of gelatin on water).
pub fn gelatin_share(history: History, percent: f64) -> f64 {
    set_share(gelatin_hours(history), percent)
}

/// Share of a starch custard that has set: 1 − exp(−age), the age in hours counted by (40 − T)/35, 0 to 1 (assumed). From 0.9 it
/// can be cut.
pub fn starch_share(history: History) -> f64 {
    1.0 - (-counted_h(history, |t_c| ((40.0 - t_c) / 35.0).clamp(0.0, 1.0))).exp()
}

/// Share of a ganache's fat that has set: 1 − exp(−y^1.5), y counted by its slow step; `slower` is 1 for dark chocolate, 1.5 for
/// milk, 1.7 for white. Under 0.1 it is fresh, from 0.9 rested (fitted to 12 to 24 h at 18 to 20 °C, common practice).
pub fn ganache_share(history: History, slower: f64) -> f64 {
    1.0 - (-counted_h(history, |t_c| slow_rate(t_c) / slower).powf(1.5)).exp()
}

/// Hours at one temperature until so much of a ganache has set; none where it stays liquid.
pub fn ganache_hours(t_c: f64, share: f64, slower: f64) -> Option<f64> {
    let rate = slow_rate(t_c) / slower;
    (rate > 0.0).then(|| (-(1.0 - share).ln()).powf(2.0 / 3.0) / rate)
}
