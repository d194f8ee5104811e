//! What was learned, in words: every offset with how far it is off the book, and from how many tests.

use crate::belief::{Offset, Quantity};
use crate::job::duty::Estimate;
use crate::learn::robust::Learned;
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
/// * `name`: what an offset is called.
pub fn report(learned: &Learned, name: &dyn Fn(&Offset) -> String) -> Vec<LearnedOffset> {
    let mut all = Vec::new();
    for quantity in Quantity::ALL.iter().copied() {
        let of = learned.of(quantity);
        for (offset, mean, sigma) in of.posterior.offsets() {
            let tests = of.posterior.tests(offset);
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
    format!("{name}: {}, {}.", times_the_book(quantity, times.value), from_tests(tests))
}

/// Times the book in words: "1.3 times stiffer than the book".
pub fn times_the_book(quantity: Quantity, times: f64) -> String {
    let (more, less) = match quantity {
        Quantity::Yield => ("stiffer", "softer"),
        Quantity::Viscosity => ("thicker in its flow", "thinner in its flow"),
    };
    match times {
        value if value >= 1.05 => format!("{} times {more} than the book", two_digits(value)),
        value if value <= 1.0 / 1.05 => format!("{} times {less} than the book", two_digits(1.0 / value)),
        _ => "as the book has it".to_owned(),
    }
}

/// From how many tests, in words.
pub fn from_tests(tests: usize) -> String {
    if tests == 1 { "from one test".to_owned() } else { format!("from {tests} tests") }
}
