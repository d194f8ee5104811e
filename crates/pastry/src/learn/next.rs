//! What to measure next: the test that narrows most what this kitchen really makes.

use crate::belief::{Posterior, Terms};
use crate::job::duty::BAND_90;
use crate::number::two_digits;

/// A band that is left at less than this is worth saying.
const NARROWER: f64 = 0.92;
/// And one at less than this is halved.
const HALVED: f64 = 0.55;

/// A formula that could be tested, and that is made.
#[derive(Debug, Clone, PartialEq)]
pub struct Candidate {
    /// Which offsets bear on it.
    pub terms: Terms,
    /// How often it is made, in any unit; 0 for one that is only tested.
    pub made: f64,
    /// Variance of a reading of the test that fits it best; none where no test does.
    pub reading: Option<f64>,
}

/// What a test of a candidate is worth.
#[derive(Debug, Clone, PartialEq)]
pub struct Worth {
    /// Which.
    pub at: usize,
    /// Standard deviation of ln of each that is made, its next batch: before the test and after it, in the order of the candidates.
    pub bands: Vec<[f64; 2]>,
    /// By how much it narrows all of them, by how often each is made: sum of ln before over after.
    pub gain: f64,
}

/// Every test that could be done, the most worth first. After a test of x with noise r the variance of z is less by
/// cov(z, x)²/(var(x) + r), whatever is read.
pub fn most_worth(candidates: &[Candidate], belief: &Posterior) -> Vec<Worth> {
    let before: Vec<f64> = candidates.iter().map(|own| belief.next(&own.terms).1).collect();
    let mut all: Vec<Worth> = candidates
        .iter()
        .enumerate()
        .filter_map(|(at, tested)| {
            let noise = belief.believed(&tested.terms).1 + tested.terms.scatter + tested.reading?;
            let bands: Vec<[f64; 2]> = candidates
                .iter()
                .zip(&before)
                .map(|(own, before)| {
                    let less = belief.together(&own.terms, &tested.terms).powi(2) / noise.max(1e-12);
                    [before.sqrt(), (before - less).max(own.terms.scatter).sqrt()]
                })
                .collect();
            let gain = candidates
                .iter()
                .zip(&bands)
                .map(|(own, [before, after])| own.made * (before.max(1e-9) / after.max(1e-9)).ln())
                .sum();
            Some(Worth { at, bands, gain })
        })
        .collect();
    all.sort_by(|a, b| b.gain.total_cmp(&a.gain).then(a.at.cmp(&b.at)));
    all
}

/// What a test is worth, in a sentence; none where it narrows nothing worth saying.
///
/// # Arguments
/// * `test`: its name; `names`: of the candidates; `made`: how often each is made.
pub fn worth_words(own: &Worth, test: &str, names: &[&str], made: &[f64]) -> Option<String> {
    let of = names.get(own.at)?;
    let left = |at: usize| own.bands[at][1] / own.bands[at][0].max(1e-9);
    let worth: Vec<usize> =
        (0..own.bands.len()).filter(|at| made[*at] > 0.0 && left(*at) < NARROWER).collect();
    let most = worth.iter().copied().min_by(|a, b| left(*a).total_cmp(&left(*b)))?;
    let halved = worth.iter().filter(|at| left(**at) < HALVED).count();
    let formulas =
        |many: usize| if many == 1 { "one formula".to_owned() } else { format!("{many} formulas") };
    let times = |sigma: f64| two_digits((BAND_90 * sigma).exp());
    let by = format!("from {} times either way to {}", times(own.bands[most][0]), times(own.bands[most][1]));
    let test = test.to_lowercase();
    if worth == [own.at] {
        return Some(format!("A {test} of {of} narrows its own band {by}."));
    }
    let does = match halved {
        0 => format!("narrows the band of {}", formulas(worth.len())),
        many => format!("halves the band of {}", formulas(many)),
    };
    Some(format!("A {test} of {of} {does}, most of {}: {by}.", names[most]))
}
