//! Predicted against measured, how an offset came to be, and what to measure next.

use crate::body::Asked;
use crate::error::ApiError;
use crate::routes::learned::shelf_of_offsets;
use crate::state::AppState;
use crate::teaching::{Lessons, TestOf};
use axum::Json;
use axum::extract::State;
use jiff::Timestamp;
use pastry::assess::FormulaDocument;
use pastry::assess::learned::offset_name;
use pastry::batch::next_test::{TestFor, test_for};
use pastry::belief::{Offset, OffsetKind, Quantity};
use pastry::bench_test::guide::guide;
use pastry::bench_test::reading::{ReadSide, Says};
use pastry::bench_test::test::BenchTestKind;
use pastry::fault::{Fault, FaultCode};
use pastry::formula::Family;
use pastry::job::duty::{BAND_90, Estimate};
use pastry::learn::{Candidate, Counts, OverTime, Since, history_of, most_worth, worth_words};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use store::log::LogOf;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// So many formulas are looked at for what to measure next: those that are made most.
const MOST_MADE: usize = 60;
/// So many tests are proposed.
const PROPOSED: usize = 3;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_measured))
        .routes(routes!(read_history))
        .routes(routes!(next_tests))
}

/// A test beside what was predicted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasuredPoint {
    /// Id of the test.
    pub test: String,
    /// Key of the batch.
    pub batch: String,
    /// Its name.
    pub name: String,
    /// Its family.
    pub family: Family,
    /// The family in a cook's words.
    pub family_word: String,
    /// When it was tested.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// At which temperature, °C.
    pub c: f64,
    /// What was predicted with all that had been learned before that test, with its 90 % band.
    pub said: Estimate,
    /// What the book predicts.
    pub book: Estimate,
    /// What was measured, with its 90 % band by ruler and clock.
    pub measured: Estimate,
    /// Whether it is that, or one side of it.
    pub side: ReadSide,
    /// Whether it counts; none where nothing can be learned from it.
    pub counts: Option<Counts>,
    /// In a sentence.
    pub sentence: String,
}

/// Every test of one kind.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasuredKind {
    /// Which.
    pub kind: BenchTestKind,
    /// Its name.
    pub name: String,
    /// What both axes count: yield stress, viscosity, density.
    pub counts: String,
    /// Its unit.
    pub unit: String,
    /// Tests, the oldest first.
    pub points: Vec<MeasuredPoint>,
    /// How many lie within the band that was said: those that do not fit do not.
    pub inside: usize,
    /// Of how many: every one that says a number and was not left out.
    pub of: usize,
}

/// Predicted against measured.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitchenMeasured {
    /// By kind of test, those with the most first.
    pub kinds: Vec<MeasuredKind>,
    /// Whether it gets better.
    pub over_time: OverTime,
}

/// Every test beside what was predicted, and whether the predictions get better.
#[utoipa::path(get, path = "/learned/measured", tag = "learned", operation_id = "read_measured", responses(
    (status = 200, body = KitchenMeasured, description = "Tests by kind")
))]
async fn read_measured(State(state): State<AppState>) -> Result<Json<KitchenMeasured>, ApiError> {
    let lessons = state.teaching.now();
    let all = move || {
        let mut kinds: Vec<MeasuredKind> =
            BenchTestKind::ALL.iter().filter_map(|kind| of_kind(*kind, &lessons)).collect();
        kinds.sort_by(|a, b| b.points.len().cmp(&a.points.len()).then_with(|| a.kind.cmp(&b.kind)));
        Ok(KitchenMeasured { kinds, over_time: lessons.over_time() })
    };
    state.work_out(all).await.map(Json)
}

fn of_kind(kind: BenchTestKind, lessons: &Lessons) -> Option<MeasuredKind> {
    let points: Vec<MeasuredPoint> = lessons
        .tests
        .iter()
        .filter(|own| own.test.test.kind() == kind)
        .map(|own| point(own, lessons))
        .collect();
    let (counts, unit) = match lessons.tests.iter().find(|own| own.test.test.kind() == kind)?.test.says {
        Says::YieldStress | Says::Both => ("stiffness (yield stress)", "Pa"),
        Says::Viscosity => ("flow (viscosity)", "Pa·s"),
        Says::Density => ("density", "kg/m³"),
    };
    // A reading that does not fit is one that did not come out as predicted: only what the cook left out is none.
    let says = |own: &&MeasuredPoint| matches!(own.counts, Some(Counts::Yes | Counts::DoesNotFit));
    let told: Vec<&MeasuredPoint> =
        points.iter().filter(|own| own.side == ReadSide::Is).filter(says).collect();
    let inside = told.iter().filter(|own| meets(&own.said, &own.measured)).count();
    let (name, of) = (guide(kind).name.to_owned(), told.len());
    Some(MeasuredKind { kind, name, counts: counts.to_owned(), unit: unit.to_owned(), inside, of, points })
}

/// Whether what was measured is within what was said, both with their own uncertainty: in ln, by the root of both squares.
fn meets(said: &Estimate, measured: &Estimate) -> bool {
    let half = |own: &Estimate| 0.5 * (own.high / own.low).ln();
    (measured.value / said.value).ln().abs() <= half(said).hypot(half(measured))
}

fn point(own: &TestOf, lessons: &Lessons) -> MeasuredPoint {
    let test = &own.test;
    let (quantity, by) = match test.says {
        Says::Viscosity => (Quantity::Viscosity, 1.0),
        // A drip says by what both are multiplied: it is drawn as the stiffness that it speaks of.
        Says::Both => (Quantity::Yield, test.yield_stress_pa),
        Says::YieldStress | Says::Density => (Quantity::Yield, 1.0),
    };
    let at = quantity as usize;
    let place = lessons.readings[at].iter().position(|one| one.id == test.id);
    let scaled = |own: &Estimate| Estimate { value: by * own.value, low: by * own.low, high: by * own.high };
    let book = scaled(&test.book);
    let said = place.map_or(book, |place| {
        let (mean, sigma) = lessons.before()[at][place];
        let by_book = (test.book.high / test.book.value).ln() / BAND_90;
        let base = lessons.readings[at][place].terms.book();
        let left = (by_book * by_book - base + sigma * sigma).max(0.0).sqrt();
        Estimate::log_normal(book.value * mean.exp(), left)
    });
    MeasuredPoint {
        test: test.id.clone(),
        batch: own.batch.clone(),
        name: own.name.clone(),
        family: own.family,
        family_word: own.family.word().to_owned(),
        at: test.at,
        c: test.c,
        said,
        book,
        measured: scaled(&test.measured),
        side: test.side,
        counts: place.map(|place| lessons.learned.of(quantity).judged[place].0),
        sentence: test.sentence.clone(),
    }
}

/// Which offset.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichOffset {
    /// Of what kind it is.
    #[param(inline)]
    kind: OffsetKind,
    /// Key of the family or the ingredient; empty for the kitchen.
    #[serde(default)]
    #[param(max_length = 60)]
    key: String,
    /// Until when, for one that was set back, RFC 3339.
    #[serde(default)]
    #[param(value_type = Option<String>)]
    until: Option<Timestamp>,
    /// Of yield stress or of viscosity.
    #[param(inline)]
    quantity: Quantity,
}

impl WhichOffset {
    fn offset(&self) -> Offset {
        let key = || self.key.clone();
        match (self.until, self.kind) {
            (Some(until), kind) => Offset::Past { kind, key: key(), until },
            (None, OffsetKind::Kitchen) => Offset::Kitchen {},
            (None, OffsetKind::Family) => Offset::Family { family: key() },
            (None, OffsetKind::Ingredient) => Offset::Ingredient { ingredient: key() },
        }
    }
}

/// How an offset came to be.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OffsetHistory {
    /// Its name.
    pub name: String,
    /// After each test that bears on it, the oldest first.
    pub steps: Vec<OffsetStep>,
}

/// An offset after a test.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OffsetStep {
    /// What it was then.
    #[serde(flatten)]
    pub since: Since,
    /// Name of the batch.
    pub name: String,
    /// What was done and read, in words.
    pub words: String,
}

/// How an offset came to be: what it was after each test that bears on it.
#[utoipa::path(
    get, path = "/learned/history", tag = "learned", operation_id = "read_history", params(WhichOffset),
    responses((status = 200, body = OffsetHistory, description = "The offset after each test"))
)]
async fn read_history(
    State(state): State<AppState>,
    Asked(which): Asked<WhichOffset>,
) -> Result<Json<OffsetHistory>, ApiError> {
    let (lessons, of) = (state.teaching.now(), which.offset());
    let quantity = which.quantity;
    if lessons.learned.of(quantity).posterior.offset(&of).is_none() {
        let words = "no test bears on that: look at the list of what was learned".to_owned();
        return Err(ApiError::Faults(vec![Fault::new("key", FaultCode::NothingLearned, words)]));
    }
    let shelf = shelf_of_offsets(&state.store, std::iter::once(&of)).await?;
    let name = offset_name(&of, &shelf);
    let all = move || {
        let steps = history_of(&of, &lessons.readings[quantity as usize]);
        let told = |since: Since| {
            let test = lessons.tests.iter().find(|own| own.test.id == since.test);
            let (name, words) =
                test.map_or_else(Default::default, |own| (own.name.clone(), own.test.test.words()));
            OffsetStep { since, name, words }
        };
        Ok(OffsetHistory { name, steps: steps.into_iter().map(told).collect() })
    };
    state.work_out(all).await.map(Json)
}

/// A test that would teach something.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NextTest {
    /// Key of the formula.
    pub component: String,
    /// Its name.
    pub name: String,
    /// The test that fits it.
    pub kind: BenchTestKind,
    /// At which temperature, °C.
    pub c: f64,
    /// What it is worth, in a sentence.
    pub sentence: String,
}

/// Which tests would narrow most what this kitchen really makes.
#[utoipa::path(get, path = "/learned/next", tag = "learned", operation_id = "next_tests", responses(
    (status = 200, body = [NextTest], description = "Tests, the most worth first; none where none is worth saying")
))]
async fn next_tests(State(state): State<AppState>) -> Result<Json<Vec<NextTest>>, ApiError> {
    state.log.catch_up(&state.store, &state.desk).await?;
    // What was put away is made no more, however often it was.
    let listed = state.store.list::<FormulaDocument>().await?;
    let away: HashSet<String> = listed.into_iter().filter(|own| own.archived).map(|own| own.id).collect();
    let mut made = state.store.log_counts(LogOf::Component).await?;
    made.retain(|own| !away.contains(&own.thing));
    let most: Vec<&str> = made.iter().take(MOST_MADE).map(|own| own.thing.as_str()).collect();
    let formulas = state.store.formulas(&most).await?;
    let made: Vec<(String, f64, FormulaDocument)> = made
        .iter()
        .take(MOST_MADE)
        .filter_map(|own| Some((own.thing.clone(), own.batches as f64, formulas.get(&own.thing)?.clone())))
        .collect();
    let keys: Vec<&str> = made.iter().flat_map(|own| own.2.ingredient_keys()).collect();
    let shelf = state.store.shelf(keys).await?;
    let lessons = state.teaching.now();
    let all = move || {
        // What cannot be weighed any more is not proposed.
        let fit: Vec<(&(String, f64, FormulaDocument), TestFor)> =
            made.iter().filter_map(|own| Some((own, test_for(&own.2, &shelf).ok()?))).collect();
        let candidates: Vec<Candidate> = fit
            .iter()
            .map(|(own, test)| Candidate {
                terms: test.terms.clone(),
                made: own.1,
                reading: test.test.as_ref().map(|own| own.2),
            })
            .collect();
        let names: Vec<&str> = fit.iter().map(|own| own.0.2.called()).collect();
        let often: Vec<f64> = candidates.iter().map(|own| own.made).collect();
        let proposed = most_worth(&candidates, &lessons.learned.of_yield.posterior)
            .iter()
            .filter_map(|own| {
                let ((key, _, document), test) = &fit[own.at];
                let (kind, test_name, _) = test.test.as_ref()?;
                Some(NextTest {
                    component: key.clone(),
                    name: document.called().to_owned(),
                    kind: *kind,
                    c: test.c,
                    sentence: worth_words(own, test_name, &names, &often)?,
                })
            })
            .take(PROPOSED)
            .collect();
        Ok(proposed)
    };
    state.work_out(all).await.map(Json)
}
