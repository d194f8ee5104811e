//! Tests of a batch: what each says of what was in the bowl then, beside the book, and what there is to learn from it.

use crate::assess::Ready;
use crate::assess::document::FormulaDocument;
use crate::assess::ready::bearing;
use crate::batch::contents::what_is_in;
use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent};
use crate::batch::fold::{after, counting};
use crate::belief::Quantity;
use crate::bench_test::reading::{Known, ReadSide, Reading, Says, overrun_percent, read};
use crate::bench_test::test::BenchTest;
use crate::ingredient::Shelf;
use crate::job::duty::Estimate;
use crate::learn::Taught;
use crate::number::two_digits;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::History;
use crate::rheology::{Predictor, kernel::Prepared};
use jiff::Timestamp;
use serde::Serialize;
use std::collections::HashSet;
use utoipa::ToSchema;

/// A kitchen's probe is this well, K, beside the kelvin that a prediction allows for: the other half is where in the bowl it stood
/// (assumed).
pub(crate) const PROBE: f64 = 0.5;
/// One side of a limit says as much as a value there that is read so (standard deviation of ln, assumed); the side that was
/// predicted says nothing.
const ONE_SIDE: f64 = 0.5;

/// A test that was done on a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchTest {
    /// Id of its event.
    pub id: String,
    /// When.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// What was done and read.
    pub test: BenchTest,
    /// At which temperature, °C.
    pub c: f64,
    /// What had happened to the cream.
    pub history: History,
    /// What follows from it, with its 90 % band by ruler and clock.
    pub measured: Estimate,
    /// What it speaks of.
    pub says: Says,
    /// Whether it is that, or one side of it.
    pub side: ReadSide,
    /// What the book predicts there, with its band.
    pub book: Estimate,
    /// Yield stress by the book there, Pa.
    pub yield_stress_pa: f64,
    /// Why it says little; none where it says what it says.
    pub outside: Option<String>,
    /// In a sentence: both beside each other.
    pub sentence: String,
    /// Whether the cook leaves it out of what is learned.
    pub left_out: bool,
}

/// A test with what can be learned of it.
struct Seen {
    shown: BatchTest,
    reading: Reading,
    document: FormulaDocument,
    /// What a kelvin either way does to ln of yield stress and viscosity.
    by_degree: [f64; 2],
    book: f64,
}

/// Every test of a batch that counts, in the order in which they were done.
pub fn tests(batch: &BatchDocument, entries: &[BatchEntry], shelf: &Shelf) -> Vec<BatchTest> {
    seen(batch, entries, shelf).into_iter().map(|own| own.shown).collect()
}

/// What there is to learn from a batch, of each quantity, and its tests.
///
/// # Arguments
/// * `key`: of the batch.
pub fn taught(
    batch: &BatchDocument,
    key: &str,
    entries: &[BatchEntry],
    shelf: &Shelf,
) -> (Vec<(Quantity, Taught)>, Vec<BatchTest>) {
    let book = shelf.by_the_book();
    let (mut all, mut done) = (Vec::new(), Vec::new());
    for own in seen(batch, entries, shelf) {
        done.push(own.shown.clone());
        let Seen { shown, reading, document, by_degree, book: predicted } = own;
        let quantities: &[Quantity] = match reading.says {
            Says::YieldStress => &[Quantity::Yield],
            Says::Viscosity => &[Quantity::Viscosity],
            Says::Both => &[Quantity::Yield, Quantity::Viscosity],
            Says::Density => &[],
        };
        // What a test cannot show is a side at most, and nobody learns a number from it.
        if reading.outside.is_some() {
            continue;
        }
        let told = match reading.side {
            ReadSide::Is => true,
            ReadSide::Above => predicted < reading.value,
            ReadSide::Below => predicted > reading.value,
        };
        if !told {
            continue;
        }
        let Ok(ready) = Ready::of(&document, &book) else { continue };
        let terms = bearing(&ready.lines, document.family, &ready.options, (shown.c, shown.history));
        let sigma =
            if reading.side == ReadSide::Is { reading.ln_sigma } else { reading.ln_sigma.max(ONE_SIDE) };
        for quantity in quantities {
            let at = *quantity as usize;
            let by_probe = PROBE * by_degree[at];
            let taught = Taught {
                id: shown.id.clone(),
                batch: key.to_owned(),
                at: shown.at,
                terms: terms[at].clone(),
                ln_over: (reading.value / predicted).ln(),
                reading: sigma * sigma + by_probe * by_probe,
                left_out: shown.left_out,
            };
            all.push((*quantity, taught));
        }
    }
    (all, done)
}

fn seen(batch: &BatchDocument, entries: &[BatchEntry], shelf: &Shelf) -> Vec<Seen> {
    let counts = counting(entries);
    let book = shelf.by_the_book();
    let mut left_out: HashSet<&str> = HashSet::new();
    for own in &counts {
        match &own.event {
            BatchEvent::Counted { of, counts: true } => left_out.remove(of.as_str()),
            BatchEvent::Counted { of, counts: false } => left_out.insert(of),
            _ => false,
        };
    }
    counts
        .iter()
        .enumerate()
        .filter_map(|(at, entry)| {
            let BatchEvent::Tested { test, c, history } = &entry.event else { return None };
            // What was in the bowl then, not what was added afterwards.
            let document = what_is_in(batch, &after(batch, &counts[..at]), &book);
            let mut own = one(entry, test, *c, history.unwrap_or(batch.formula.history()), document, &book)?;
            own.shown.left_out = left_out.contains(entry.id.as_str());
            Some(own)
        })
        .collect()
}

fn one(
    entry: &BatchEntry,
    test: &BenchTest,
    c: f64,
    history: History,
    document: FormulaDocument,
    book: &Shelf,
) -> Option<Seen> {
    let ready = Ready::of(&document, book).ok()?;
    let (mixture, system) = (ready.mixture(), document.family.traits().system);
    let predictor = Predictor::new(&mixture, system, &ready.options);
    let here = predictor.at(c, history);
    let known = Known { now: &here.middle, prepared: &predictor.base, t_c: c, clock: Clock::ARRIVED };
    let reading = read(test, &known);
    let by_degree = predictor.band_terms(c, history).by_degree;
    let density = predictor.base.density;
    let book = match reading.says {
        Says::YieldStress => Estimate::log_normal(here.middle.yield_stress_pa, here.sigma_yield),
        Says::Viscosity => Estimate::log_normal(here.middle.plastic_viscosity_pa_s, here.sigma_viscosity),
        Says::Both => Estimate::log_normal(1.0, here.sigma_yield),
        Says::Density => Estimate::log_normal(density, 0.03),
    };
    let measured = Estimate::log_normal(reading.value, reading.ln_sigma);
    let sentence = sentence(&reading, &book, &predictor.base, density);
    Some(Seen {
        book: book.value,
        shown: BatchTest {
            id: entry.id.clone(),
            at: entry.at,
            test: *test,
            c,
            history,
            measured,
            says: reading.says,
            side: reading.side,
            book,
            yield_stress_pa: here.middle.yield_stress_pa,
            outside: reading.outside.clone(),
            sentence,
            left_out: false,
        },
        reading,
        document,
        by_degree,
    })
}

fn sentence(reading: &Reading, book: &Estimate, prepared: &Prepared, density: f64) -> String {
    let (value, should) = (two_digits(reading.value), two_digits(book.value));
    let unit = match reading.says {
        Says::YieldStress => "Pa",
        Says::Viscosity => "Pa·s",
        Says::Both => {
            return match reading.value {
                times if times > 1.05 => format!("{value} times as stiff as predicted."),
                times if times < 0.95 => format!("{value} times as stiff as predicted: looser."),
                _ => "As stiff as predicted.".to_owned(),
            };
        }
        Says::Density => {
            let without = density / (1.0 - prepared.air).max(1e-9);
            return format!(
                "{:.0} % air beaten in, where {:.0} % were meant.",
                overrun_percent(without, reading.value).max(0.0),
                overrun_percent(without, density).max(0.0)
            );
        }
    };
    match reading.side {
        ReadSide::Is => format!("{value} {unit}, where the book says {should} {unit}."),
        ReadSide::Above => format!("More than {value} {unit}; the book says {should} {unit}."),
        ReadSide::Below => format!("Less than {value} {unit}; the book says {should} {unit}."),
    }
}
