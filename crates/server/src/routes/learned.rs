//! What this kitchen's own tests taught: every offset, and what became of every reading.

use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use jiff::Timestamp;
use pastry::assess::learned::offset_name;
use pastry::assess::{FormulaDocument, Ready};
use pastry::belief::{Offset, OffsetKind, Quantity};
use pastry::bench_test::{Fit, fits};
use pastry::fault::{Fault, FaultCode};
use pastry::ingredient::Shelf;
use pastry::job::Job;
use pastry::learn::{Counts, LearnedOffset, LearningEvent, SetBack, report};
use pastry::rheology::Predictor;
use pastry::rheology::consistency::History;
use serde::{Deserialize, Serialize};
use store::journal::NewEvent;
use store::{SaveId, Store};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::body::Body;
use crate::saving::Saving;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_learned))
        .routes(routes!(decide_learned))
        .routes(routes!(fitting_tests))
}

/// What this kitchen has learned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitchenLearned {
    /// Every offset that some test bears on, the surest first.
    pub offsets: Vec<LearnedOffset>,
    /// Every reading, the newest first.
    pub readings: Vec<LearnedReading>,
    /// What was set back.
    pub set_back: Vec<SetBackNamed>,
    /// How many tested batches cannot be read: they teach nothing.
    pub unread: usize,
    /// How many decisions (an offset begins anew, or does not after all) cannot be read: they are as if they had not been made.
    pub undecided: usize,
}

/// An offset that was set back.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SetBackNamed {
    /// Which, when, why.
    #[serde(flatten)]
    pub own: SetBack,
    /// Its name.
    pub name: String,
}

/// What became of a reading.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedReading {
    /// Id of the test.
    pub test: String,
    /// Key of its batch.
    pub batch: String,
    /// Its name.
    pub name: String,
    /// What was done and read, in words.
    pub words: String,
    /// When it was done.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// Of yield stress or of viscosity.
    pub quantity: Quantity,
    /// Times the book.
    pub times: f64,
    /// Whether it counts.
    pub counts: Counts,
    /// How far it stands from what the others say, standard deviations.
    pub apart: f64,
}

/// What was learned from this kitchen's own tests.
#[utoipa::path(get, path = "/learned", tag = "learned", operation_id = "read_learned", responses(
    (status = 200, body = KitchenLearned, description = "Offsets and readings")
))]
async fn read_learned(State(state): State<AppState>) -> Result<Json<KitchenLearned>, ApiError> {
    now(&state).await.map(Json)
}

/// The shelf that holds what offsets are of.
///
/// # Errors
/// When the file fails.
pub async fn shelf_of_offsets<'a>(
    store: &Store,
    offsets: impl Iterator<Item = &'a Offset>,
) -> Result<Shelf, ApiError> {
    let keys: Vec<String> =
        offsets.filter(|own| own.kind() == OffsetKind::Ingredient).map(|own| own.key().to_owned()).collect();
    Ok(store.shelf(keys.iter().map(String::as_str)).await?)
}

async fn now(state: &AppState) -> Result<KitchenLearned, ApiError> {
    let lessons = state.teaching.now();
    let learned = &lessons.learned;
    let all = learned.of_yield.posterior.offsets().chain(learned.of_viscosity.posterior.offsets());
    let offsets = all.map(|own| own.0).chain(lessons.set_back.iter().map(|own| &own.of));
    let shelf = shelf_of_offsets(&state.store, offsets).await?;
    let offsets = report(learned, &|offset| offset_name(offset, &shelf));
    let mut readings = Vec::new();
    for (quantity, own) in Quantity::ALL.iter().copied().zip(&lessons.readings) {
        let judged = &learned.of(quantity).judged;
        for (own, (counts, apart)) in own.iter().zip(judged) {
            let Some(test) = lessons.tests.iter().find(|one| one.test.id == own.id) else { continue };
            readings.push(LearnedReading {
                test: own.id.clone(),
                batch: own.batch.clone(),
                name: test.name.clone(),
                words: test.test.test.words(),
                at: own.at,
                quantity,
                times: own.ln_over.exp(),
                counts: *counts,
                apart: *apart,
            });
        }
    }
    readings.sort_by(|a, b| b.at.cmp(&a.at).then_with(|| a.test.cmp(&b.test)));
    let named = |own: &SetBack| SetBackNamed { name: offset_name(&own.of, &shelf), own: own.clone() };
    let set_back = lessons.set_back.iter().rev().map(named).collect();
    let (unread, undecided) = (lessons.unread, lessons.undecided);
    Ok(KitchenLearned { offsets, readings, set_back, unread, undecided })
}

/// A decision with the id it has on the device that sends it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewLearningEvent {
    /// Made on the device, once for each: sent twice it is there once.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
    /// What.
    pub event: LearningEvent,
}

/// Decides something of what was learned: an offset begins anew, or does not after all.
#[utoipa::path(
    post, path = "/learned", tag = "learned", operation_id = "decide_learned", params(Saving),
    request_body = NewLearningEvent,
    responses((status = 201, body = KitchenLearned, description = "What is learned with it"))
)]
async fn decide_learned(
    State(state): State<AppState>,
    saving: Saving,
    Body(new): Body<NewLearningEvent>,
) -> Result<(StatusCode, Json<KitchenLearned>), ApiError> {
    let by = saving.by();
    let fault = |field: &str, code: FaultCode, words: String| {
        Err(ApiError::Faults(vec![Fault::new(field, code, words)]))
    };
    let Some(id) = SaveId::read(&new.id) else {
        let words = "an id has 8 to 64 letters, digits or hyphens: make a new one for each".to_owned();
        return fault("id", FaultCode::BadSaveId, words);
    };
    let lessons = state.teaching.now();
    let (before, _) = state.store.learning().await?;
    let again = before.iter().any(|own| own.id == new.id);
    match &new.event {
        LearningEvent::SetBack { of, quantity, .. } => {
            let known = lessons.learned.of(*quantity).posterior.tests(of) > 0;
            if !again && (!known || matches!(of, Offset::Past { .. })) {
                let words = "no test bears on that: only what was learned can begin anew".to_owned();
                return fault("event.of", FaultCode::NothingLearned, words);
            }
        }
        LearningEvent::TakenBack { of } => {
            if !again && !lessons.set_back.iter().any(|own| own.id == *of) {
                let words = "nothing of that id was set back, or it was taken back already".to_owned();
                return fault("event.of", FaultCode::NothingLearned, words);
            }
        }
    }
    let event = NewEvent { id, at: by.now, event: new.event };
    let to_learn = state.teaching.promise();
    state.store.decide_learning(event, &by).await?;
    to_learn.learn(&state.store, &state.desk).await?;
    Ok((StatusCode::CREATED, Json(now(&state).await?)))
}

/// A cream that is to be tested.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TestAsk {
    /// What it is.
    pub formula: FormulaDocument,
    /// Its temperature, °C.
    #[schema(minimum = -60, maximum = 220)]
    pub c: f64,
    /// What has happened to it; what its work asks for when nobody says.
    #[serde(default)]
    pub history: Option<History>,
}

/// Which tests say something of a cream as it stands.
#[utoipa::path(
    post, path = "/bench-tests", tag = "learned", operation_id = "fitting_tests", request_body = TestAsk,
    responses((status = 200, body = [Fit], description = "Every test, those that fit first"))
)]
async fn fitting_tests(
    State(state): State<AppState>,
    Body(ask): Body<TestAsk>,
) -> Result<Json<Vec<Fit>>, ApiError> {
    let shelf = state.shelf_of([&ask.formula]).await?;
    let all = state.work_out(move || {
        let ready = Ready::of(&ask.formula, &shelf)?;
        let family = ask.formula.family;
        let predictor = Predictor::new(&ready.mixture(), family.traits().system, &ready.options);
        let history = ask.history.unwrap_or(ask.formula.history());
        let now = predictor.base.at(ask.c, history);
        let drips = matches!(ask.formula.work.job, Job::Drip(_));
        Ok(fits(&now, predictor.base.density, predictor.base.air, history, drips))
    });
    Ok(Json(all.await?))
}
