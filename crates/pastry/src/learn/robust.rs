//! Which readings do not fit. A reading four standard deviations from what all the others say moves nothing by itself; once a second
//! one agrees with it, both count.
//!
//! Rejection and not a heavy-tailed weight: a weight of a quarter still pulls, and a ruler read in centimetres is not a wide normal
//! but another number. The furthest is taken out first and all others are asked again, so one wild reading does not drag a good one
//! out with it; what is taken out is the same whatever the order of the readings.

use crate::belief::{Offset, Posterior, Quantity, Row, Terms};
use crate::code::codes;
use jiff::Timestamp;
use std::collections::BTreeMap;

/// A reading further than this from the others does not fit, standard deviations.
pub const FAR: f64 = 4.0;
/// Two readings agree when they are this close, standard deviations of their difference.
const AGREE: f64 = 2.0;

codes! {
    /// What becomes of a reading.
    Counts {
        /// It counts.
        Yes = "yes",
        /// It does not fit what the others say: measure again.
        DoesNotFit = "does_not_fit",
        /// The cook left it out.
        LeftOut = "left_out",
    }
}

/// A reading to learn from.
#[derive(Debug, Clone, PartialEq)]
pub struct Taught {
    /// Its id.
    pub id: String,
    /// The batch it was read of: readings of one batch share what is the batch's own.
    pub batch: String,
    /// When it was read.
    pub at: Timestamp,
    /// Which offsets bear on it.
    pub terms: Terms,
    /// ln of what was measured over what the book predicts.
    pub ln_over: f64,
    /// Variance of what ruler, clock and thermometer are off.
    pub reading: f64,
    /// The cook leaves it out.
    pub left_out: bool,
}

impl Taught {
    fn row(&self) -> Row {
        Row { terms: self.terms.clone(), ln_over: self.ln_over, reading: self.reading }
    }
}

/// What was learned of one quantity, and what became of each reading.
#[derive(Debug, Clone, Default)]
pub struct LearnedOf {
    /// What is believed.
    pub posterior: Posterior,
    /// Each reading, in the order in which they were given: whether it counts, and how far it stands from the others, in standard
    /// deviations.
    pub judged: Vec<(Counts, f64)>,
}

/// What was learned, of both quantities.
#[derive(Debug, Clone, Default)]
pub struct Learned {
    /// Of yield stress.
    pub of_yield: LearnedOf,
    /// Of viscosity.
    pub of_viscosity: LearnedOf,
}

impl Learned {
    /// Of one of them.
    pub fn of(&self, quantity: Quantity) -> &LearnedOf {
        match quantity {
            Quantity::Yield => &self.of_yield,
            Quantity::Viscosity => &self.of_viscosity,
        }
    }

    /// From all readings of both.
    pub fn from(of_yield: &[Taught], of_viscosity: &[Taught]) -> Self {
        Learned { of_yield: learn(of_yield), of_viscosity: learn(of_viscosity) }
    }
}

/// Learns from readings of one quantity.
pub fn learn(all: &[Taught]) -> LearnedOf {
    let rows: Vec<Row> = all.iter().map(Taught::row).collect();
    let mut counts: Vec<Counts> =
        all.iter().map(|own| if own.left_out { Counts::LeftOut } else { Counts::Yes }).collect();
    let counted = |counts: &[Counts]| -> Vec<usize> {
        (0..counts.len()).filter(|at| counts[*at] == Counts::Yes).collect()
    };
    let mut belief = Posterior::over(&rows, counted(&counts).into_iter().map(|at| &rows[at]));
    loop {
        let furthest = counted(&counts)
            .into_iter()
            .map(|at| (at, belief.apart_from_others(&rows[at]).abs()))
            .max_by(|a, b| a.1.total_cmp(&b.1).then_with(|| all[b.0].id.cmp(&all[a.0].id)));
        match furthest {
            Some((at, apart)) if apart > FAR => {
                counts[at] = Counts::DoesNotFit;
                belief.take_out(&rows[at]);
            }
            _ => break,
        }
    }
    // What stands apart and not alone is how it is.
    let apart: Vec<usize> = (0..all.len()).filter(|at| counts[*at] == Counts::DoesNotFit).collect();
    for at in &apart {
        if apart.iter().any(|other| other != at && agree(&all[*at], &all[*other])) {
            counts[*at] = Counts::Yes;
        }
    }
    let counted = all.iter().zip(&counts).filter(|own| *own.1 == Counts::Yes).map(|own| &own.0.terms);
    let posterior = Posterior::of_batches(&rows, &batches(all, &counts)).of_tests(counted);
    let judged = counts
        .iter()
        .enumerate()
        .map(|(at, own)| {
            let far = match own {
                Counts::Yes => belief.apart_from_others(&rows[at]),
                Counts::DoesNotFit | Counts::LeftOut => belief.apart(&rows[at]),
            };
            (*own, far)
        })
        .collect();
    LearnedOf { posterior, judged }
}

/// Whether two readings say the same of something they both bear on.
fn agree(one: &Taught, other: &Taught) -> bool {
    let own = |taught: &Taught| if one.batch == other.batch { 0.0 } else { taught.terms.scatter };
    let variance = one.reading + other.reading + own(one) + own(other);
    let shares = one.terms.weights.iter().any(|(offset, _)| {
        *offset != Offset::Kitchen {} && other.terms.weights.iter().any(|(beside, _)| beside == offset)
    });
    shares && (one.ln_over - other.ln_over).abs() <= AGREE * variance.sqrt()
}

/// Readings that count, those of one batch as one: their mean by how well each was read.
fn batches(all: &[Taught], counts: &[Counts]) -> Vec<Row> {
    let mut by_batch: BTreeMap<&str, Vec<&Taught>> = BTreeMap::new();
    for (own, _) in all.iter().zip(counts).filter(|own| *own.1 == Counts::Yes) {
        by_batch.entry(&own.batch).or_default().push(own);
    }
    by_batch
        .into_values()
        .map(|mut own| {
            own.sort_by(|a, b| a.id.cmp(&b.id));
            let precision: f64 = own.iter().map(|one| 1.0 / one.reading.max(1e-12)).sum();
            let sum: f64 = own.iter().map(|one| one.ln_over / one.reading.max(1e-12)).sum();
            Row { terms: own[0].terms.clone(), ln_over: sum / precision, reading: 1.0 / precision }
        })
        .collect()
}
