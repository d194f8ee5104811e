//! When it will be as warm or cold as a step wants it, as far as readings tell.
//!
//! What cools goes to where it stands as Newton's law has it: T = A + D exp(-k t). A is one of the places of a pastry room; for each
//! that the goal lies before, D and k come out of the readings by weighted least squares of ln |T - A|, and the places share the
//! answer by how well they fit. What is heated goes along a line through its last readings.

use crate::batch::document::BatchDocument;
use crate::batch::fold::BatchState;
use crate::number::two_digits;
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;

/// A probe reads this well, K: noise, and where in the mass it sits (assumed).
const READS_K: f64 = 0.15;
/// How well the air of a place is known, K (assumed).
const AIR_K: f64 = 1.0;
/// Ice bath, fridge, freezer, °C.
const COLD_C: [f64; 3] = [0.5, 4.0, -18.0];
/// Least of the way that must have been gone, K, before anything is said.
const MOVED_K: f64 = 1.0;
/// Fewest readings.
const FEWEST: usize = 3;
/// What is heated is followed through so many minutes before its last reading.
const HEATED_MIN: f64 = 4.0;
/// Readings this long before the last belong to something else, min.
const LONGEST_MIN: f64 = 24.0 * 60.0;
/// The tenth of the whole way by which it is rung for before it is there: at least, and at most, min (assumed).
const RUNG_MIN: [f64; 2] = [1.0, 10.0];
/// A point of the curve each so many parts of the way.
const POINTS: usize = 24;

/// How something gets to a temperature.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = BatchArrival)]
pub struct Arrival {
    /// The temperature it is wanted at, °C.
    pub to_c: f64,
    /// Minutes from the last reading on: soonest, likely, latest. Empty while nothing can be said.
    #[schema(min_items = 0, max_items = 3)]
    pub min: Vec<f64>,
    /// When it is rung for, minutes from the last reading on: before it is there, by a tenth of the whole way or by how surely
    /// that is known. None while nothing can be said.
    pub ring_min: Option<f64>,
    /// When the last reading was.
    #[schema(value_type = String)]
    pub since: Timestamp,
    /// In a sentence.
    pub sentence: String,
    /// The way there, from the last reading on.
    pub way: Vec<WarmthPoint>,
}

/// How warm something is at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WarmthPoint {
    /// Minutes from the last reading on, or from now on; less than nothing for what was.
    pub min: f64,
    /// °C.
    pub c: f64,
}

/// A reading: minutes, °C.
type Reading = (f64, f64);

/// Since when a step's readings count: since somebody is at it, or since the step before it was done, or since the batch was begun.
pub fn since(state: &BatchState, step: usize) -> Option<Timestamp> {
    let before = || state.steps[..step].iter().filter_map(|own| own.done).max();
    state.steps[step].begun.or_else(before).or(state.begun)
}

/// How the mass of a step gets to where the step wants it; none where it wants no temperature, or nothing was read.
pub fn of_step(batch: &BatchDocument, state: &BatchState, step: usize) -> Option<Arrival> {
    let band = batch.steps[step].temperature_c?;
    let since = since(state, step)?;
    let of_it: Vec<(Timestamp, f64)> =
        state.reads.iter().filter(|own| own.at >= since).map(|own| (own.at, own.c)).collect();
    arrival(&of_it, band, batch.formula.work.room_temperature_c.celsius())
}

/// How something gets into a band of temperatures, from what was read of it.
///
/// # Arguments
/// * `reads`: in the order in which they were read; `band`: °C, from and to; `room_c`: of the room, °C.
pub fn arrival(reads: &[(Timestamp, f64)], band: [f64; 2], room_c: f64) -> Option<Arrival> {
    let (since, last_c) = *reads.last()?;
    let min = |at: Timestamp| at.duration_since(since).as_secs_f64() / 60.0;
    let all: Vec<Reading> =
        reads.iter().map(|(at, c)| (min(*at), *c)).filter(|own| own.0 > -LONGEST_MIN).collect();
    let [from_c, to_c] = band;
    if (from_c - 0.05..=to_c + 0.05).contains(&last_c) {
        let sentence = "It is there now.".to_owned();
        return Some(Arrival {
            to_c: last_c,
            min: vec![0.0; 3],
            ring_min: Some(0.0),
            since,
            sentence,
            way: Vec::new(),
        });
    }
    let goal = if last_c > to_c { to_c } else { from_c };
    let none = |sentence: &str| {
        Some(Arrival {
            to_c: goal,
            min: Vec::new(),
            ring_min: None,
            since,
            sentence: sentence.to_owned(),
            way: Vec::new(),
        })
    };
    let first_c = all.first().map_or(last_c, |own| own.1);
    let towards = (first_c - last_c) * (last_c - goal).signum();
    if all.len() < FEWEST || towards.abs() < MOVED_K {
        return none("Read it a few times more: then it is said when it will be there.");
    }
    if towards < 0.0 {
        return none("It goes the other way: look where it stands.");
    }
    let cools = last_c > goal;
    let found =
        if cools || last_c <= room_c - MOVED_K { settles(&all, goal, room_c) } else { heated(&all, goal) };
    let Some((soon, likely, late, way)) = found else {
        return none("It will not get there where it stands now: put it somewhere else.");
    };
    let gone = -all.first().map_or(0.0, |own| own.0);
    let ring_min = Some(rung_at(soon, likely, gone));
    let sentence = match two_digits(likely).as_str() {
        "0" => format!("{goal:.0} °C any moment now."),
        words => format!("{goal:.0} °C in about {words} min ({} to {}).", two_digits(soon), two_digits(late)),
    };
    Some(Arrival { to_c: goal, min: vec![soon, likely, late], ring_min, since, sentence, way })
}

/// When it is rung for, min: as surely before it is there as the spread says, within one to three tenths of the whole way.
fn rung_at(soon: f64, likely: f64, gone: f64) -> f64 {
    let tenth = (0.1 * (gone + likely)).clamp(RUNG_MIN[0], RUNG_MIN[1]);
    (likely - (likely - soon).clamp(tenth, 3.0 * tenth)).max(0.0)
}

type Found = (f64, f64, f64, Vec<WarmthPoint>);

/// Weighted least squares of y = p - k t: p, k, and the variances of p, of k, and of both.
fn line(points: &[(f64, f64, f64)]) -> Option<[f64; 5]> {
    let sum = |of: &dyn Fn(&(f64, f64, f64)) -> f64| points.iter().map(of).sum::<f64>();
    let (w, t, y) = (sum(&|p| p.2), sum(&|p| p.2 * p.0), sum(&|p| p.2 * p.1));
    let (tt, ty) = (sum(&|p| p.2 * p.0 * p.0), sum(&|p| p.2 * p.0 * p.1));
    let all = w * tt - t * t;
    if all.is_nan() || all <= 1e-12 {
        return None;
    }
    let (p, slope) = ((tt * y - t * ty) / all, (w * ty - t * y) / all);
    Some([p, -slope, tt / all, w / all, t / all])
}

/// What goes by itself to where it stands.
fn settles(all: &[Reading], goal: f64, room_c: f64) -> Option<Found> {
    let last_c = all.last()?.1;
    let before = |air_c: f64| (last_c - goal).signum() * (goal - air_c) > 0.3;
    // What is wanted well above the room stands in the room unless the readings say otherwise.
    let places = [(room_c, 6.0)].into_iter().chain(COLD_C.map(|air_c| (air_c, 1.0)));
    let mut fits: Vec<(f64, f64, f64, f64, f64, f64)> = Vec::new();
    for (air_c, prior) in places.filter(|own| before(own.0)) {
        let side = (last_c - air_c).signum();
        let points: Vec<(f64, f64, f64)> = all
            .iter()
            .filter(|own| side * (own.1 - air_c) > 3.0 * READS_K)
            .map(|(t, c)| (*t, (side * (c - air_c)).ln(), ((c - air_c) / READS_K).powi(2)))
            .collect();
        let Some([p, k, var_p, var_k, var_pk]) = line(&points).filter(|own| own[1] > 1e-6) else { continue };
        let q = (side * (goal - air_c)).ln();
        let min = (p - q) / k;
        // How it would move with the air a kelvin warmer or colder, and with what was read.
        let air = AIR_K * (1.0 / (goal - air_c).abs() - (-p).exp()).abs() / k;
        let spread = ((var_p + min * min * var_k + 2.0 * min * var_pk).max(0.0) / (k * k) + air * air).sqrt();
        let off: f64 = points.iter().map(|(t, y, w)| w * (y - p + k * t).powi(2)).sum();
        let many = points.len() as f64;
        // Readings of one probe are not apart from each other: they count as the square root of their number.
        fits.push((prior * (-0.5 * off / many.sqrt()).exp(), min.max(0.0), spread, air_c, side * p.exp(), k));
    }
    let whole: f64 = fits.iter().map(|own| own.0).sum();
    if whole.is_nan() || whole <= 0.0 {
        return None;
    }
    let likely: f64 = fits.iter().map(|own| own.0 * own.1).sum::<f64>() / whole;
    let far = |own: &&(f64, f64, f64, f64, f64, f64)| own.0 > 0.05 * whole;
    let soon = fits.iter().filter(far).map(|own| own.1 - 2.0 * own.2).fold(likely, f64::min).max(0.0);
    let late = fits.iter().filter(far).map(|own| own.1 + 2.0 * own.2).fold(likely, f64::max);
    let best = fits.iter().max_by(|a, b| a.0.total_cmp(&b.0))?;
    let way = (0..=POINTS)
        .map(|at| {
            let t = likely * at as f64 / POINTS as f64;
            WarmthPoint { min: t, c: best.3 + best.4 * (-best.5 * t).exp() }
        })
        .collect();
    Some((soon, likely, late, way))
}

/// What is heated.
fn heated(all: &[Reading], goal: f64) -> Option<Found> {
    let recent: Vec<&Reading> = all.iter().filter(|own| own.0 >= -HEATED_MIN).collect();
    let used: Vec<&Reading> =
        if recent.len() < FEWEST { all.iter().rev().take(FEWEST).collect() } else { recent };
    let points: Vec<(f64, f64, f64)> =
        used.iter().map(|own| (own.0, own.1, 1.0 / (READS_K * READS_K))).collect();
    let [p, k, var_p, var_k, var_pk] = line(&points)?;
    let rises = -k;
    if rises < 1e-3 {
        return None;
    }
    let likely = ((goal - p) / rises).max(0.0);
    let spread = (var_p + likely * likely * var_k + 2.0 * likely * var_pk).max(0.0).sqrt() / rises;
    // A ring gives more or less heat by a tenth, at the least.
    let spread = spread.max(0.1 * likely);
    let along = (0..=POINTS).map(|at| likely * at as f64 / POINTS as f64);
    let way = along.map(|min| WarmthPoint { min, c: p + rises * min }).collect();
    Some(((likely - 2.0 * spread).max(0.0), likely, likely + 2.0 * spread, way))
}
