//! The first of two states on one map: what is poured before it sets.

use crate::assess::reach::{Span, span_of, spans_where};
use crate::assess::words::lasts_sentence;
use crate::job::duty::{Estimate, Outcome};
use crate::job::lasts::lasts_min;
use crate::job::physics::slump::{levels_below, settles_below};
use crate::number::two_digits;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::History;
use crate::rheology::sweep::Grid;
use crate::rheology::{Predictor, Prepared};
use serde::Serialize;
use utoipa::ToSchema;

/// Bump it may leave in the mould, m, and half the width of a small mould, m (assumed).
const BUMP: f64 = 0.012;
const REACH: f64 = 0.035;
/// Softer than this a foam drains and fruit sinks, Pa (assumed).
const FOAM_HOLDS_PA: f64 = 1.0;
/// What was thicker from the start may stiffen this much while it is put in (assumed).
const STIFFENS: f64 = 4.0;

/// Minutes that pouring takes (common practice).
const POURS_MIN: f64 = 2.0;

/// How stiff it may be, Pa.
#[derive(Debug, Clone, Copy)]
struct Limits {
    /// Its bubbles rise below.
    loose: f64,
    /// It finds its level by itself below.
    levels: f64,
    /// Spooned in and knocked on the table it settles below.
    settles: f64,
}

impl Limits {
    fn of(prepared: &Prepared) -> Self {
        Limits {
            loose: if prepared.air > 0.02 { FOAM_HOLDS_PA } else { 0.0 },
            levels: levels_below(prepared.density, BUMP, REACH),
            settles: settles_below(prepared.density, BUMP),
        }
    }

    /// What it may come to while it sets: what has begun to set no longer runs together when it is knocked, and what was
    /// thick from the start is spooned.
    fn while_it_sets(self, came: f64) -> f64 {
        (STIFFENS * came).clamp(self.levels, self.settles)
    }

    fn outcome(self, tau: f64) -> Outcome {
        match tau {
            tau if tau < self.loose => Outcome::TooLoose,
            tau if tau > self.settles => Outcome::TooStiff,
            _ => Outcome::Inside,
        }
    }
}

/// A cream to be poured.
struct Poured<'a> {
    prepared: &'a Prepared,
    limits: Limits,
}

impl Poured<'_> {
    fn tau(&self, t_c: f64, minutes: f64) -> f64 {
        let now = self.prepared.clock();
        let clock = Clock { hours: now.hours + minutes / 60.0, ..now };
        self.prepared.at_after(t_c, History::Fresh, clock).yield_stress_pa
    }

    /// Whether it pours when it comes and, where it sets, until it is poured.
    fn outcome(&self, t_c: f64) -> Outcome {
        let came = self.tau(t_c, 0.0);
        let sets_first =
            || self.prepared.sets_at(t_c) && self.tau(t_c, POURS_MIN) > self.limits.while_it_sets(came);
        match self.limits.outcome(came) {
            Outcome::Inside if sets_first() => Outcome::TooStiff,
            other => other,
        }
    }

    /// Whether it stands near enough to what was checked.
    fn known(&self, t_c: f64) -> bool {
        self.prepared.unknown(&self.prepared.at(t_c, History::Fresh), t_c, History::Fresh).is_none()
    }

    /// Minutes it still pours when it is held at `t_c`; none when there is no end to it.
    fn lasts_min(&self, t_c: f64) -> Option<f64> {
        if !self.prepared.sets_at(t_c) {
            return None;
        }
        let limit = self.limits.while_it_sets(self.tau(t_c, 0.0));
        lasts_min(|minutes| self.tau(t_c, minutes) <= limit)
    }
}

/// Pouring, judged fresh.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Pour {
    /// Temperature at which it is poured, °C.
    pub temperature_c: f64,
    /// Yield stress there with its 90 % band, Pa.
    pub yield_stress_pa: Estimate,
    /// The opening, Pa: what settles in the mould, by itself or knocked on the table, and holds its bubbles when it has some.
    pub window_pa: [f64; 2],
    /// Whether it pours.
    pub outcome: Outcome,
    /// Temperatures at which it pours.
    pub spans: Vec<Span>,
    /// In one sentence.
    pub sentence: String,
}

/// Judges the pour at `t_c`.
pub fn pour(predictor: &Predictor, t_c: f64, grid: Grid) -> Pour {
    let poured = Poured { prepared: &predictor.base, limits: Limits::of(&predictor.base) };
    let limits = poured.limits;
    let banded = predictor.at(t_c, History::Fresh);
    let tau = banded.middle.yield_stress_pa;
    let inside = |t_c: f64| poured.outcome(t_c) == Outcome::Inside && poured.known(t_c);
    let spans = spans_where(grid, |k| inside(grid.temperature(k)), inside);
    let here = poured.outcome(t_c);
    let value = two_digits(tau);
    let when = match span_of(&spans, t_c) {
        Some(span) if span.from_c > 0.0 => {
            let does = if tau <= limits.levels { "It pours" } else { "So it goes in" };
            format!(" {does} down to {:.0} °C.", span.from_c.ceil())
        }
        _ => String::new(),
    };
    let when = match poured.lasts_min(t_c) {
        Some(minutes) if here == Outcome::Inside => format!(" {}{when}", lasts_sentence(minutes)),
        _ => when,
    };
    let sentence = match here {
        _ if banded.unknown.is_some() => {
            format!("Whether it pours at {t_c:.0} °C is not known here: try a spoonful.")
        }
        Outcome::Inside if tau <= limits.levels => {
            let stiff = if tau < 0.1 { "under 0.1 Pa".to_owned() } else { format!("{value} Pa") };
            format!("Poured at {t_c:.0} °C it finds its level ({stiff}).{when}")
        }
        Outcome::Inside => format!(
            "At {t_c:.0} °C it is spooned in and settles when the mould is knocked on the table ({value} Pa; under {} it \
             would find its level).{when}",
            two_digits(limits.levels)
        ),
        Outcome::TooStiff if tau <= limits.settles => {
            format!("At {t_c:.0} °C it pours as it comes and sets before you are done. Pour it warmer.")
        }
        Outcome::TooStiff => format!(
            "At {t_c:.0} °C it no longer settles: {value} Pa, under {} it would. Pour it warmer.",
            two_digits(limits.settles)
        ),
        _ => format!("At {t_c:.0} °C it is too thin to keep its bubbles: {value} Pa. Let it thicken first."),
    };
    Pour {
        temperature_c: t_c,
        yield_stress_pa: Estimate::log_normal(tau, banded.sigma_yield),
        window_pa: [limits.loose, limits.settles],
        outcome: here,
        spans,
        sentence,
    }
}
