//! What is believed of the offsets after some readings: linear and Gaussian, so exact.
//!
//! A reading is y = Σ wᵢ θᵢ + ε: y is ln of what was measured over what the book predicts, θ are the offsets with their variances
//! before any test, ε is the batch's own scatter and what ruler and clock are off. After n readings θ is normal with precision
//! P = diag(1/v) + Σ w wᵀ/σ² and mean P⁻¹ Σ w y/σ².

use crate::belief::offset::{Offset, Terms};
use nalgebra::{DMatrix, DVector};
use std::collections::BTreeMap;

/// A reading that counts, or several of one batch together.
#[derive(Debug, Clone, PartialEq)]
pub struct Row {
    /// Which offsets bear on it.
    pub terms: Terms,
    /// ln of what was measured over what the book predicts.
    pub ln_over: f64,
    /// Variance of what ruler, clock and thermometer are off.
    pub reading: f64,
}

impl Row {
    /// Variance of what is the batch's own and the reading's.
    pub fn noise(&self) -> f64 {
        self.terms.scatter + self.reading
    }
}

/// What is believed of the offsets.
#[derive(Debug, Clone)]
pub struct Posterior {
    places: BTreeMap<Offset, usize>,
    mean: DVector<f64>,
    spread: DMatrix<f64>,
    /// Precision-weighted sum, for taking a reading out again.
    pull: DVector<f64>,
    /// How many tests that count bear on each.
    tests: BTreeMap<Offset, usize>,
}

/// Where the offsets of a formula stand, with their weights, and the variance of those that stand nowhere.
fn placed(places: &BTreeMap<Offset, usize>, terms: &Terms) -> (Vec<(usize, f64)>, f64) {
    let mut placed = Vec::with_capacity(terms.weights.len());
    let mut elsewhere = 0.0;
    for (offset, weight) in &terms.weights {
        match places.get(offset) {
            Some(at) => placed.push((*at, *weight)),
            None => elsewhere += weight * weight * offset.variance(),
        }
    }
    (placed, elsewhere)
}

impl Default for Posterior {
    fn default() -> Self {
        Posterior::of(&[])
    }
}

impl Posterior {
    /// After these readings; the same whatever their order.
    pub fn of(rows: &[Row]) -> Self {
        Self::over(rows, rows.iter())
    }

    /// After readings put together by batch, over the offsets of all that were read.
    pub(crate) fn of_batches(all: &[Row], batches: &[Row]) -> Self {
        Self::over(all, batches.iter())
    }

    /// After some readings, over the offsets of all of these: those nobody tested are as before.
    pub(crate) fn over<'a>(all: &[Row], counted: impl Iterator<Item = &'a Row>) -> Self {
        let mut places: BTreeMap<Offset, usize> = BTreeMap::new();
        for (offset, _) in all.iter().flat_map(|row| &row.terms.weights) {
            places.entry(offset.clone()).or_default();
        }
        for (at, place) in places.values_mut().enumerate() {
            *place = at;
        }
        let many = places.len();
        let mut precision = DMatrix::<f64>::zeros(many, many);
        for (offset, at) in &places {
            precision[(*at, *at)] = 1.0 / offset.variance();
        }
        let mut pull = DVector::<f64>::zeros(many);
        for row in counted {
            let per = 1.0 / row.noise().max(1e-12);
            let (placed, _) = placed(&places, &row.terms);
            for (at, weight) in &placed {
                pull[*at] += per * weight * row.ln_over;
                for (beside, more) in &placed {
                    precision[(*at, *beside)] += per * weight * more;
                }
            }
        }
        // What is believed before keeps it positive definite.
        let spread = precision.cholesky().map_or_else(|| DMatrix::zeros(many, many), |own| own.inverse());
        let mean = &spread * &pull;
        Posterior { places, mean, spread, pull, tests: BTreeMap::new() }
    }

    /// Takes a reading that was counted out again: rank one, Sherman and Morrison's formula.
    pub(crate) fn take_out(&mut self, row: &Row) {
        let x = self.weights(&row.terms);
        let noise = row.noise().max(1e-12);
        let along = &self.spread * &x;
        let left = noise - x.dot(&along);
        if left <= 1e-12 {
            return;
        }
        self.spread += &along * along.transpose() / left;
        self.pull -= x * (row.ln_over / noise);
        self.mean = &self.spread * &self.pull;
    }

    /// The same, with the tests that were counted.
    pub(crate) fn of_tests<'a>(mut self, counted: impl Iterator<Item = &'a Terms>) -> Self {
        for (offset, _) in counted.flat_map(|own| &own.weights) {
            *self.tests.entry(offset.clone()).or_default() += 1;
        }
        self
    }

    /// How many tests that count bear on an offset.
    pub fn tests(&self, offset: &Offset) -> usize {
        self.tests.get(offset).copied().unwrap_or(0)
    }

    /// The mean of an offset and its standard deviation, ln; none where nobody tested anything of it.
    pub fn offset(&self, offset: &Offset) -> Option<(f64, f64)> {
        let at = *self.places.get(offset)?;
        Some((self.mean[at], self.spread[(at, at)].max(0.0).sqrt()))
    }

    fn weights(&self, terms: &Terms) -> DVector<f64> {
        let mut x = DVector::zeros(self.mean.len());
        for (at, weight) in placed(&self.places, terms).0 {
            x[at] += weight;
        }
        x
    }

    /// ln of what is expected over the book, and its variance without the batch's own scatter.
    pub fn believed(&self, terms: &Terms) -> (f64, f64) {
        // What nobody tested is as before.
        let (placed, mut variance) = placed(&self.places, terms);
        let mut mean = 0.0;
        for (at, weight) in &placed {
            mean += weight * self.mean[*at];
            for (beside, more) in &placed {
                variance += weight * more * self.spread[(*at, *beside)];
            }
        }
        (mean, variance.max(0.0))
    }

    /// Whether nothing was read.
    pub fn is_book(&self) -> bool {
        self.places.is_empty()
    }

    /// How much two formulas go together: covariance of what is believed of each.
    pub fn together(&self, one: &Terms, other: &Terms) -> f64 {
        let mut sum = 0.0;
        for (offset, weight) in &one.weights {
            for (beside, more) in &other.weights {
                sum += match (self.places.get(offset), self.places.get(beside)) {
                    (Some(at), Some(to)) => weight * more * self.spread[(*at, *to)],
                    _ if offset == beside => weight * more * offset.variance(),
                    _ => 0.0,
                };
            }
        }
        sum
    }

    /// ln of the batch next made of a formula over the book, and its variance.
    pub fn next(&self, terms: &Terms) -> (f64, f64) {
        let (mean, variance) = self.believed(terms);
        (mean, variance + terms.scatter)
    }

    /// Every offset that some reading bears on: its mean and standard deviation of ln.
    pub fn offsets(&self) -> impl Iterator<Item = (&Offset, f64, f64)> {
        self.places
            .iter()
            .map(|(offset, at)| (offset, self.mean[*at], self.spread[(*at, *at)].max(0.0).sqrt()))
    }

    /// How far a counted reading stands from what all the others say, in standard deviations.
    pub(crate) fn apart_from_others(&self, row: &Row) -> f64 {
        let noise = row.noise().max(1e-12);
        let (mean, explained) = self.believed(&row.terms);
        // What is left of the noise when the reading is taken out of the belief.
        let share = 1.0 - explained / noise;
        if share <= 1e-9 {
            return 0.0;
        }
        let residual = (row.ln_over - mean) / share;
        let variance = noise + explained / share;
        residual / variance.sqrt()
    }

    /// How far a reading that is not counted stands from what is believed, in standard deviations.
    pub fn apart(&self, row: &Row) -> f64 {
        let (mean, variance) = self.believed(&row.terms);
        (row.ln_over - mean) / (variance + row.noise()).sqrt()
    }
}
