//! What is no cake at all, and refused; everything else that is wrong with one is a finding.

use crate::fault::{Fault, FaultCode};
use crate::stack::document::{FORMAT, MOST_LAYERS, MOST_TIERS, StackDocument, VERSION};

/// Longest name, characters.
const LONGEST_NAME: usize = 120;

/// What makes it no cake at all: another format, nothing or far too much in it.
pub fn faults(document: &StackDocument) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault =
        |field: &str, code: FaultCode, message: String| faults.push(Fault::new(field, code, message));
    if document.format != FORMAT {
        let shown: String = document.format.chars().take(40).collect();
        fault(
            "format",
            FaultCode::UnknownFormat,
            format!("this is “{shown}”, not a cake: the format field must say {FORMAT}"),
        );
    }
    if document.version != VERSION {
        let words =
            format!("version {} is not known here: this program reads version {VERSION}", document.version);
        fault("version", FaultCode::UnknownVersion, words);
    }
    let letters = document.name.chars().count();
    if letters > LONGEST_NAME {
        fault(
            "name",
            FaultCode::TooLong,
            format!("the name has {letters} letters: shorten it to {LONGEST_NAME}"),
        );
    }
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
