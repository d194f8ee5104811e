//! What this kitchen's own tests taught: every offset, and what became of every reading.

use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::assess::{FormulaDocument, Ready};
use pastry::belief::{Offset, Quantity};
use pastry::bench_test::{Fit, fits};
use pastry::formula::Family;
use pastry::job::Job;
use pastry::learn::{Counts, LearnedOffset, report};
use pastry::rheology::Predictor;
use pastry::rheology::consistency::History;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::body::Body;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(read_learned)).routes(routes!(fitting_tests))
}

/// What this kitchen has learned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitchenLearned {
    /// Every offset that some test bears on, the surest first.
    pub offsets: Vec<LearnedOffset>,
    /// Every reading.
    pub readings: Vec<LearnedReading>,
}

/// What became of a reading.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedReading {
    /// Id of the test.
    pub test: String,
    /// Key of its batch.
    pub batch: String,
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
    let lessons = state.teaching.now();
    let of_ingredients =
        lessons.learned.of_yield.posterior.offsets().chain(lessons.learned.of_viscosity.posterior.offsets());
    let keys: Vec<String> = of_ingredients
        .filter_map(|(offset, ..)| match offset {
            Offset::Ingredient { ingredient } => Some(ingredient.clone()),
            _ => None,
        })
        .collect();
    let shelf = state.store.shelf(keys.iter().map(String::as_str)).await?;
    let families: HashMap<&str, &str> = Family::ALL.iter().map(|own| (own.key(), own.word())).collect();
    let name = |offset: &Offset| match offset {
        Offset::Kitchen {} => "This kitchen".to_owned(),
        Offset::Family { family } => {
            families.get(family.as_str()).map_or(family.clone(), |own| (*own).to_owned())
        }
        Offset::Ingredient { ingredient } => {
            shelf.find(ingredient).map_or_else(|| ingredient.clone(), |own| own.name.clone())
        }
    };
    let [of_yield, of_viscosity] = &lessons.readings;
    let offsets = report(&lessons.learned, [of_yield, of_viscosity], &name);
    let mut readings = Vec::new();
    for (quantity, own) in Quantity::ALL.iter().copied().zip(&lessons.readings) {
        let judged = &lessons.learned.of(quantity).judged;
        readings.extend(own.iter().zip(judged).map(|(own, (counts, apart))| LearnedReading {
            test: own.id.clone(),
            batch: own.batch.clone(),
            quantity,
            times: own.ln_over.exp(),
            counts: *counts,
            apart: *apart,
        }));
    }
    Ok(Json(KitchenLearned { offsets, readings }))
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
