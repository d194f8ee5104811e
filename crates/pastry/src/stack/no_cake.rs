//! What is no cake at all, and refused; everything else that is wrong with one is a finding.

use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::ingredient::Shelf;
use crate::stack::document::{MOST_LAYERS, MOST_TIERS, StackDocument};

/// What makes it no cake at all: another format, nothing or far too much in it.
pub fn faults(document: &StackDocument) -> Vec<Fault> {
    let mut faults = format::STACK.faults(&document.format, document.version);
    faults.extend(format::text_faults(&document.name, &document.note));
    // What it brings is looked at against an empty kitchen: what is wrong with it is wrong everywhere.
    faults.extend(Shelf::catalogue().bringing(&document.ingredients).err().unwrap_or_default());
    let mut fault =
        |field: &str, code: FaultCode, message: String| faults.push(Fault::new(field, code, message));
    if document.tiers.is_empty() || document.tiers.len() > MOST_TIERS {
        fault(
            "tiers",
            FaultCode::Tiers,
            format!("a cake has 1 to {MOST_TIERS} tiers, not {}", document.tiers.len()),
        );
    }
    for (at, tier) in document.tiers.iter().enumerate() {
        if tier.layers.len() > MOST_LAYERS {
            let words =
                format!("{} layers in one tier are not read: at most {MOST_LAYERS}", tier.layers.len());
            fault(&format!("tiers.{at}.layers"), FaultCode::TooMany, words);
        }
    }
    if document.bakes.len() > 40 || document.components.len() > 60 {
        fault(
            "bakes",
            FaultCode::TooMany,
            "a cake has at most 40 bakes and brings at most 60 formulas".to_owned(),
        );
    }
    for (at, bake) in document.bakes.iter().enumerate() {
        if document.bakes[..at].iter().any(|other| other.key == bake.key) {
            fault(
                &format!("bakes.{at}.key"),
                FaultCode::Twice,
                format!("two bakes are called {}: name one otherwise", bake.key),
            );
        }
    }
    faults
}
