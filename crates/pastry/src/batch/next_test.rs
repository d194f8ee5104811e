//! Which test of a formula would teach something of its stiffness, and how well it would be read.

use crate::assess::Ready;
use crate::assess::document::FormulaDocument;
use crate::assess::ready::bearing;
use crate::batch::tested::PROBE;
use crate::belief::Terms;
use crate::bench_test::expected::as_read;
use crate::bench_test::reading::{Known, read};
use crate::bench_test::test::BenchTestKind;
use crate::bench_test::{Fit, fits};
use crate::fault::Fault;
use crate::ingredient::Shelf;
use crate::job::Job;
use crate::rheology::Predictor;
use crate::rheology::clock::Clock;

/// The test of a formula that would teach most of its yield stress.
#[derive(Debug, Clone, PartialEq)]
pub struct TestFor {
    /// What bears on its yield stress at its work.
    pub terms: Terms,
    /// The test that fits it, its name, and the variance of ln of its reading; none where no test says a number.
    pub test: Option<(BenchTestKind, String, f64)>,
    /// At which temperature, °C.
    pub c: f64,
}

/// Of a formula, asked where it does its work.
///
/// # Errors
/// What is wrong with the formula.
pub fn test_for(document: &FormulaDocument, shelf: &Shelf) -> Result<TestFor, Vec<Fault>> {
    let ready = Ready::of(document, shelf)?;
    let (c, history) = (document.work.temperature_c.celsius(), document.history());
    let [terms, _] = bearing(&ready.lines, document.family, &ready.options, (c, history));
    let predictor = Predictor::new(&ready.mixture(), document.family.traits().system, &ready.options);
    let now = predictor.base.at(c, history);
    let drips = matches!(document.work.job, Job::Drip(_));
    let by_degree = predictor.band_terms(c, history).by_degree[0];
    let known = Known { now: &now, prepared: &predictor.base, t_c: c, clock: Clock::ARRIVED };
    let test = fits(&now, predictor.base.density, predictor.base.air, history, drips)
        .into_iter()
        .find(|own| own.fits && says_a_number(own))
        .map(|own| {
            let sigma = read(&as_read(&own.usual, &known, 1.0), &known).ln_sigma;
            let by_probe = PROBE * by_degree;
            (own.kind, own.guide.name.to_owned(), sigma * sigma + by_probe * by_probe)
        });
    Ok(TestFor { terms, test, c })
}

/// Whether a test says how stiff something is, and not only on which side of a limit.
fn says_a_number(own: &Fit) -> bool {
    match own.kind {
        BenchTestKind::PlateSpread
        | BenchTestKind::RingSlump
        | BenchTestKind::Tilt
        | BenchTestKind::Rod
        | BenchTestKind::DripLength => true,
        BenchTestKind::SpoonFall | BenchTestKind::CupFlow | BenchTestKind::HeldWeight => false,
    }
}
