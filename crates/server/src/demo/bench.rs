//! Tests at the bench of the made-up history: what a plate, a ring or a rod would have shown of a batch, by dice.

use fastrand::Rng;
use pastry::assess::{FormulaDocument, Ready};
use pastry::batch::BatchEvent;
use pastry::bench_test::expected::as_read;
use pastry::bench_test::fits;
use pastry::bench_test::reading::{Known, read};
use pastry::bench_test::test::BenchTestKind;
use pastry::job::Job;
use pastry::rheology::Predictor;
use pastry::rheology::clock::Clock;

/// A probe is so far off, K.
const PROBE_K: f64 = 0.4;

/// A test of a batch that is so far off the book, and how far what it says is; none where no test fits it.
///
/// # Arguments
/// * `off`: ln of the batch over the book; `wild`: by how much it is read wrong, ln: a ruler in inches, the wrong ring; `normal`: the next number of the standard normal distribution.
pub fn tested(
    formula: &FormulaDocument,
    ready: &Ready,
    (off, wild): (f64, f64),
    dice: &mut Rng,
    normal: fn(&mut Rng) -> f64,
) -> Option<BatchEvent> {
    let history = formula.history();
    let predictor = Predictor::new(&ready.mixture(), formula.family.traits().system, &ready.options);
    let really_c = formula.work.temperature_c.celsius() + 0.7 * normal(dice);
    let now = predictor.base.at(really_c, history);
    let drips = matches!(formula.work.job, Job::Drip(_));
    let fitting: Vec<_> = fits(&now, predictor.base.density, predictor.base.air, history, drips)
        .into_iter()
        .filter(|own| {
            own.fits && own.kind != BenchTestKind::SpoonFall && own.kind != BenchTestKind::HeldWeight
        })
        .take(2)
        .collect();
    let own = fitting.get(dice.usize(..fitting.len().max(1)))?;
    let known = Known { now: &now, prepared: &predictor.base, t_c: really_c, clock: Clock::ARRIVED };
    let sigma = read(&as_read(&own.usual, &known, 1.0), &known).ln_sigma;
    let shown = as_read(&own.usual, &known, (off + sigma * normal(dice) + wild).exp());
    let c = (10.0 * (really_c + PROBE_K * normal(dice))).round() / 10.0;
    let test = shown.with_read(rounded(shown.was_read()?));
    // What no ruler shows is not written down.
    test.faults().is_empty().then_some(BatchEvent::Tested { test, c, history: Some(history) })
}

/// As a ruler, a clock or a scale shows it.
fn rounded(read: f64) -> f64 {
    if read < 20.0 { (10.0 * read).round() / 10.0 } else { read.round() }
}
