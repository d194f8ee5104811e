//! What a change of one component does to another it goes into: how its verdict stood and how it stands.

use crate::assess::answer::{Assessment, assess_from};
use crate::assess::document::FormulaDocument;
use crate::fault::Fault;
use crate::ingredient::Shelf;
use crate::job::Outcome;
use crate::number::two_digits;
use serde::Serialize;
use utoipa::ToSchema;

/// How another formula moves.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Moved {
    /// Its verdict as it stands; none when it could not be worked out.
    pub before: Option<String>,
    /// Its verdict with the change; none when it cannot be worked out any more.
    pub after: Option<String>,
    /// Whether it is right for its job as it stands.
    pub was_right: bool,
    /// Whether it is right for its job with the change.
    pub is_right: bool,
    /// What moves, in words; nothing when nothing does that a cook would see.
    pub words: Vec<String>,
}

impl Moved {
    /// Whether a cook would see anything of it.
    pub fn is_seen(&self) -> bool {
        self.before != self.after || !self.words.is_empty()
    }
}

/// Less than this share of a change in stiffness is nobody's to see.
const SEEN: f64 = 0.03;

/// How a formula moves between two shelves.
pub fn moved(document: &FormulaDocument, before: &Shelf, after: &Shelf) -> Moved {
    let [was, is] = [before, after].map(|shelf| assess_from(document, shelf));
    let right = |answer: &Result<Assessment, Vec<Fault>>| {
        answer.as_ref().is_ok_and(|answer| answer.at.outcome == Outcome::Inside)
    };
    let mut words = Vec::new();
    match (&was, &is) {
        (Ok(was), Ok(is)) => {
            let change = is.at.on_map.value / was.at.on_map.value.max(1e-12);
            if change.ln().abs() > SEEN {
                let by = two_digits(100.0 * (change - 1.0).abs());
                words.push(format!("{by} % {}", if change > 1.0 { "stiffer" } else { "looser" }));
            }
            let brought = is.totals.allergens.iter().filter(|own| !was.totals.allergens.contains(own));
            words.extend(brought.map(|own| format!("now has {own}")));
            let gone = was.totals.allergens.iter().filter(|own| !is.totals.allergens.contains(own));
            words.extend(gone.map(|own| format!("no longer has {own}")));
            let warned =
                is.warnings.iter().filter(|own| !was.warnings.iter().any(|old| old.code == own.code));
            words.extend(warned.map(|own| own.cause.clone()));
        }
        (Ok(_), Err(faults)) => words.extend(faults.iter().map(|fault| fault.message.clone())),
        _ => {}
    }
    Moved {
        was_right: right(&was),
        is_right: right(&is),
        before: was.ok().map(|answer| answer.at.headline),
        after: is.ok().map(|answer| answer.at.headline),
        words,
    }
}
