//! What was learned, in words: every offset with how far it is off the book, and from how many tests.

use crate::belief::{Offset, Quantity};
use crate::job::duty::Estimate;
use crate::learn::robust::{Counts, Learned, Taught};
use crate::number::two_digits;
use serde::Serialize;
use utoipa::ToSchema;

/// An offset that some test bears on.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedOffset {
    /// Of what.
    pub of: Offset,
    /// Its name.
    pub name: String,
    /// Of yield stress or of viscosity.
    pub quantity: Quantity,
    /// Times the book, with its 90 % band.
    pub times: Estimate,
    /// How many tests that count bear on it.
    pub tests: usize,
    /// In a sentence.
    pub sentence: String,
}

/// Every offset that some test bears on: the kitchen's, the families', the ingredients', each as far off as it is surely off.
///
/// # Arguments
/// * `readings`: those that were learned from, in the order in which they were given; `name`: what an offset is called.
pub fn report(
    learned: &Learned,
    readings: [&[Taught]; 2],
    name: &dyn Fn(&Offset) -> String,
) -> Vec<LearnedOffset> {
    let mut all = Vec::new();
    for (quantity, readings) in Quantity::ALL.iter().copied().zip(readings) {
        let of = learned.of(quantity);
        for (offset, mean, sigma) in of.posterior.offsets() {
            let tests = readings
                .iter()
                .zip(&of.judged)
                .filter(|(own, judged)| {
                    judged.0 == Counts::Yes && own.terms.weights.iter().any(|(beside, _)| beside == offset)
                })
                .count();
            if tests == 0 {
                continue;
            }
            let (times, name) = (Estimate::log_normal(mean.exp(), sigma), name(offset));
            let sentence = sentence(&name, quantity, &times, tests);
            all.push(LearnedOffset { of: offset.clone(), name, quantity, times, tests, sentence });
        }
    }
    let surely = |own: &LearnedOffset| {
        let band = (own.times.high / own.times.low).ln().max(1e-9);
        own.times.value.ln().abs() / band
    };
    all.sort_by(|a, b| surely(b).total_cmp(&surely(a)).then_with(|| a.name.cmp(&b.name)));
    all
}

fn sentence(name: &str, quantity: Quantity, times: &Estimate, tests: usize) -> String {
    let from = if tests == 1 { "one test".to_owned() } else { format!("{tests} tests") };
    let (more, less) = match quantity {
        Quantity::Yield => ("stiffer", "softer"),
        Quantity::Viscosity => ("thicker in its flow", "thinner in its flow"),
    };
    match times.value {
        value if value >= 1.05 => {
            format!("{name}: {} times {more} than the book, from {from}.", two_digits(value))
        }
        value if value <= 1.0 / 1.05 => {
            format!("{name}: {} times {less} than the book, from {from}.", two_digits(1.0 / value))
        }
        _ => format!("{name}: as the book has it, from {from}."),
    }
}
