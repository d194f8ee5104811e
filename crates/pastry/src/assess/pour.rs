//! The first of two states on one map: what is poured before it sets.

use crate::assess::reach::{Span, span_of, spans_where};
use crate::assess::words::lasts_sentence;
use crate::job::duty::{Estimate, Outcome};
use crate::job::physics::slump::levels_below;
use crate::number::two_digits;
use crate::rheology::consistency::History;
use crate::rheology::sweep::Grid;
use crate::rheology::{Predictor, Prepared};
use serde::Serialize;
use utoipa::ToSchema;

/// Bumps it must level out by itself in the mould, m (assumed).
const BUMP: f64 = 0.012;
/// Softer than this a foam drains and fruit sinks, Pa (assumed).
const FOAM_HOLDS_PA: f64 = 1.0;

/// Minutes that pouring takes (common practice).
const POURS_MIN: f64 = 2.0;
/// Longest that is told apart, minutes.
const LONGEST_MIN: u32 = 1440;

/// Minutes it still pours when it is held at `t_c`; none when there is no end to it.
fn minutes(prepared: &Prepared, t_c: f64, limit: f64) -> Option<f64> {
    if !prepared.sets_at(t_c) {
        return None;
    }
    let (now, hours) = (prepared.clock(), prepared.clock().hours);
    let flows = |minutes: f64| {
        let clock = now.minutes(60.0 * hours + minutes);
        prepared.at_after(t_c, History::Fresh, clock).yield_stress_pa <= limit
    };
    let (mut low, mut high) = (0.0, 1.0);
    while flows(high) {
        if high >= f64::from(LONGEST_MIN) {
            return None;
        }
        (low, high) = (high, 1.5 * high);
    }
    while high - low > 0.02 * high {
        let middle = 0.5 * (low + high);
        if flows(middle) { low = middle } else { high = middle }
    }
    Some(0.5 * (low + high))
}

/// Pouring, judged fresh.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Pour {
    /// Temperature at which it is poured, °C.
    pub temperature_c: f64,
    /// Yield stress there with its 90 % band, Pa.
    pub yield_stress_pa: Estimate,
    /// The opening, Pa: what levels by itself, and holds its bubbles when it has some.
    pub window_pa: [f64; 2],
    /// Whether it pours.
    pub outcome: Outcome,
    /// Temperatures at which it pours.
    pub spans: Vec<Span>,
    /// In one sentence.
    pub sentence: String,
}

fn outcome(tau: f64, [low, high]: [f64; 2]) -> Outcome {
    match tau {
        tau if tau < low => Outcome::TooLoose,
        tau if tau > high => Outcome::TooStiff,
        _ => Outcome::Inside,
    }
}

fn window(prepared: &Prepared) -> [f64; 2] {
    let low = if prepared.air > 0.02 { FOAM_HOLDS_PA } else { 0.0 };
    [low, levels_below(prepared.density, BUMP)]
}

/// Judges the pour at `t_c`.
pub fn pour(predictor: &Predictor, t_c: f64, grid: Grid) -> Pour {
    let prepared = &predictor.base;
    let limits = window(prepared);
    let banded = predictor.at(t_c, History::Fresh);
    let tau = banded.middle.yield_stress_pa;
    // It must pour when it comes and until it is poured.
    let done = prepared.clock().minutes(60.0 * prepared.clock().hours + POURS_MIN);
    let at = |t_c: f64| {
        let tau = |clock| prepared.at_after(t_c, History::Fresh, clock).yield_stress_pa;
        match outcome(tau(prepared.clock()), limits) {
            Outcome::Inside if prepared.sets_at(t_c) && tau(done) > limits[1] => Outcome::TooStiff,
            other => other,
        }
    };
    let inside = |t_c: f64| at(t_c) == Outcome::Inside;
    let spans = spans_where(grid, |k| inside(grid.temperature(k)), inside);
    let here = at(t_c);
    let value = two_digits(tau);
    let when = match span_of(&spans, t_c) {
        Some(span) if span.from_c > 0.0 => format!(" It pours down to {:.0} °C.", span.from_c.ceil()),
        _ => String::new(),
    };
    let when = match minutes(prepared, t_c, limits[1]) {
        Some(minutes) if here == Outcome::Inside => format!("{when} {}", lasts_sentence(minutes)),
        _ => when,
    };
    let sentence = match here {
        Outcome::Inside => format!("Poured at {t_c:.0} °C it finds its level ({value} Pa).{when}"),
        Outcome::TooStiff if tau <= limits[1] => {
            format!("At {t_c:.0} °C it pours as it comes and sets before you are done. Pour it warmer.")
        }
        Outcome::TooStiff => format!(
            "At {t_c:.0} °C it no longer levels: {value} Pa, under {} it would. Pour it warmer.",
            two_digits(limits[1])
        ),
        _ => format!("At {t_c:.0} °C it is too thin to keep its bubbles: {value} Pa. Let it thicken first."),
    };
    Pour {
        temperature_c: t_c,
        yield_stress_pa: Estimate::log_normal(tau, banded.sigma_yield),
        window_pa: limits,
        outcome: here,
        spans,
        sentence,
    }
}
