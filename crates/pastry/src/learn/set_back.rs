//! Offsets that begin anew: another maker under the old name, a mended thermometer. Nothing is forgotten by that: tests of before speak
//! of what it was until then, and go on saying what they say of everything else.

use crate::belief::{Offset, Quantity};
use crate::learn::robust::Taught;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a cook decides of what was learned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "what", rename_all = "snake_case", deny_unknown_fields)]
pub enum LearningEvent {
    /// An offset begins anew: tests that were done up to now say what it was.
    SetBack {
        /// Which.
        of: Offset,
        /// Of yield stress or of viscosity.
        quantity: Quantity,
        /// Why.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        why: String,
    },
    /// That was said by mistake.
    TakenBack {
        /// Id of the event.
        #[schema(max_length = 64)]
        of: String,
    },
}

/// The same with where it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct LearningEntry {
    /// Its id.
    pub id: String,
    /// When it was said.
    pub at: Timestamp,
    /// What.
    pub event: LearningEvent,
}

/// An offset that was set back.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = OffsetSetBack)]
pub struct SetBack {
    /// Id of the event.
    pub id: String,
    /// When.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// Which.
    pub of: Offset,
    /// Of yield stress or of viscosity.
    pub quantity: Quantity,
    /// Why.
    pub why: String,
}

/// Those that were not taken back, the oldest first. What cannot be set back, having been so already, is none of them.
pub fn standing(entries: &[LearningEntry]) -> Vec<SetBack> {
    let back = |id: &str| {
        entries.iter().any(|own| matches!(&own.event, LearningEvent::TakenBack { of } if of == id))
    };
    let mut all: Vec<SetBack> = entries
        .iter()
        .filter(|own| !back(&own.id))
        .filter_map(|own| match &own.event {
            LearningEvent::SetBack { of: Offset::Past { .. }, .. } | LearningEvent::TakenBack { .. } => None,
            LearningEvent::SetBack { of, quantity, why } => Some(SetBack {
                id: own.id.clone(),
                at: own.at,
                of: of.clone(),
                quantity: *quantity,
                why: why.clone(),
            }),
        })
        .collect();
    all.sort_by(|a, b| a.at.cmp(&b.at).then_with(|| a.id.cmp(&b.id)));
    all
}

/// Readings of one quantity, each of what its offsets were when it was read.
pub fn as_they_were(readings: &[Taught], quantity: Quantity, set_back: &[SetBack]) -> Vec<Taught> {
    let of_it: Vec<&SetBack> = set_back.iter().filter(|own| own.quantity == quantity).collect();
    let one = |own: &Taught| {
        let mut own = own.clone();
        for (offset, _) in &mut own.terms.weights {
            // The first time it was set back after this was read.
            if let Some(then) = of_it.iter().find(|one| one.of == *offset && own.at <= one.at) {
                *offset = offset.past(then.at);
            }
        }
        own
    };
    readings.iter().map(one).collect()
}
