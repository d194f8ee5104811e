//! What was done otherwise than planned, and why.

use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent, OverWay};
use crate::batch::fold::BatchState;
use crate::batch::said::words;
use crate::ingredient::Shelf;
use crate::number::{hundredths, weighed_g};

/// A line that is off by less than this part of what it was to be is as planned: a weighing, and no change (assumed).
const OFF: f64 = 0.02;
/// And by less than this, g.
const LEAST_G: f64 = 0.5;

/// What was done otherwise than planned, in words, in the order of the lines, then as it happened.
///
/// # Arguments
/// * `counts`: events that count; `names`: of the lines.
pub fn changes(
    batch: &BatchDocument,
    state: &BatchState,
    counts: &[BatchEntry],
    names: &[String],
    shelf: &Shelf,
) -> Vec<String> {
    let mut all = Vec::new();
    for (at, own) in state.lines.iter().enumerate() {
        let Some(planned) = batch.planned_g(at).map(|own| hundredths(own * state.factor)) else { continue };
        let off = hundredths(own.in_g - planned);
        // What is not in yet is no change while it is being made.
        let poured = off < 0.0 && state.closed.is_none() && own.decided.is_none();
        if own.left_out.is_some() || own.in_g <= 0.0 || poured || off.abs() < LEAST_G.max(OFF * planned) {
            continue;
        }
        let name = names.get(at).map_or("a line", String::as_str);
        let which = if off > 0.0 { "more" } else { "less" };
        all.push(format!("{name}: {} g {which} than planned.", weighed_g(off.abs())));
    }
    let happened = counts.iter().filter(|own| {
        matches!(
            own.event,
            BatchEvent::LineLeftOut { .. }
                | BatchEvent::StepLeftOut { .. }
                | BatchEvent::Added { .. }
                | BatchEvent::Lost { .. }
                | BatchEvent::Decided { way: OverWay::Restore | OverWay::Scale, .. }
                | BatchEvent::Seen { there: false, .. }
        )
    });
    all.extend(happened.filter_map(|own| Some(format!("{}.", words(&own.event, batch, names, shelf)?))));
    all
}
