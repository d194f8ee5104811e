//! How far one phase of the balance may move, alone, for the job to be met; and the temperatures at
//! which it is met.

use crate::formula::{Family, Mixture};
use crate::ingredient::Phase;
use crate::job::duty::{Judged, Outcome};
use crate::job::judge::Question;
use crate::job::kind::Job;
use crate::rheology::kernel::Prepared;
use crate::rheology::sweep::{Grid, SWEEP_POINTS};
use crate::rheology::{History, Options};
use serde::Serialize;
use utoipa::ToSchema;

/// Where one phase's share would put the formula inside its window, all else in proportion.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PhaseReach {
    /// The phase.
    pub phase: Phase,
    /// Its share now, per cent of total.
    pub now_percent: f64,
    /// Least share that meets the job, per cent of total.
    pub from_percent: f64,
    /// Greatest share that meets the job, per cent of total.
    pub to_percent: f64,
    /// How far the share is off, points: below 0 short, above 0 over, 0 when it is inside.
    pub off_points: f64,
}

/// Most a phase is multiplied or divided by in the search.
const WIDEST: f64 = 2.0;
/// Steps to either side in which a place inside is looked for.
const SCAN: i32 = 12;
/// Steps of these in which its end is.
const STRIDE: i32 = 3;

/// The reach of every phase that has at least 0.5 % of total; phases that cannot do it alone within
/// a half to twice their amount are left out. Some responses turn round, so the range is scanned
/// before its ends are found by halving.
pub fn phase_reach(
    mixture: &Mixture,
    family: Family,
    options: &Options,
    job: &Job,
    history: History,
    t_c: f64,
) -> Vec<PhaseReach> {
    let shares = mixture.composition.phases();
    let step = WIDEST.ln() / f64::from(SCAN);
    Phase::ALL
        .into_iter()
        .filter(|phase| shares.get(*phase) >= 0.005)
        .filter_map(|phase| {
            let changed = |ln_factor: f64| mixture.with_phase_times(phase, ln_factor.exp());
            let inside = |ln_factor: f64| {
                let prepared = Prepared::new(&changed(ln_factor), family.traits().system, options);
                let question = Question { job, prepared: &prepared, axis: job.axis(family), history };
                question.right_at(t_c)
            };
            // The stretch of inside points nearest to where the formula stands.
            let start =
                (0..=SCAN).find_map(|k| [k, -k].into_iter().find(|k| inside(step * f64::from(*k))))?;
            let end = |direction: i32| {
                let mut k = start;
                loop {
                    let next = (k + STRIDE * direction).clamp(-SCAN, SCAN);
                    match next {
                        next if next == k => return step * f64::from(k),
                        next if inside(step * f64::from(next)) => k = next,
                        next => return halve(step * f64::from(k), step * f64::from(next), 4e-3, inside),
                    }
                }
            };
            let percent = |ln_factor: f64| 100.0 * changed(ln_factor).composition.phases().get(phase);
            let (now, from, to) = (100.0 * shares.get(phase), percent(end(-1)), percent(end(1)));
            Some(PhaseReach {
                phase,
                now_percent: now,
                from_percent: from,
                to_percent: to,
                off_points: (now - to).max(0.0) + (now - from).min(0.0),
            })
        })
        .collect()
}

/// A range of working temperatures, °C.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Span {
    /// From, °C.
    pub from_c: f64,
    /// To, °C.
    pub to_c: f64,
}

/// The spans of temperature on a grid in which the middle of the prediction is inside and known, given the judgement at
/// every point of a sweep; ends to a hundredth of a degree.
pub fn spans(question: &Question, grid: Grid, judged: &[Judged; SWEEP_POINTS]) -> Vec<Span> {
    let right = |k: usize| judged[k].outcome == Outcome::Inside && judged[k].unknown.is_none();
    spans_where(grid, right, |t_c| question.right_at(t_c))
}

/// Spans of a grid where something holds, known at its points and askable between them.
pub fn spans_where(grid: Grid, at_point: impl Fn(usize) -> bool, inside: impl Fn(f64) -> bool) -> Vec<Span> {
    let mut found = Vec::new();
    let mut k = 0;
    while k < SWEEP_POINTS {
        if !at_point(k) {
            k += 1;
            continue;
        }
        let first = k;
        while k < SWEEP_POINTS && at_point(k) {
            k += 1;
        }
        let from_c = match first {
            0 => grid.temperature(0),
            _ => halve(grid.temperature(first), grid.temperature(first - 1), 2e-3, &inside),
        };
        let to_c = match k {
            SWEEP_POINTS => grid.temperature(SWEEP_POINTS - 1),
            _ => halve(grid.temperature(k - 1), grid.temperature(k), 2e-3, &inside),
        };
        found.push(Span { from_c, to_c });
    }
    found
}

/// The span a temperature lies in.
pub fn span_of(spans: &[Span], t_c: f64) -> Option<&Span> {
    spans.iter().find(|span| (span.from_c..=span.to_c).contains(&t_c))
}

/// The edge between a point inside and a point outside, to within so much.
fn halve(mut inside_at: f64, mut outside_at: f64, within: f64, inside: impl Fn(f64) -> bool) -> f64 {
    while (inside_at - outside_at).abs() > within {
        let middle = 0.5 * (inside_at + outside_at);
        if inside(middle) {
            inside_at = middle;
        } else {
            outside_at = middle;
        }
    }
    inside_at
}
