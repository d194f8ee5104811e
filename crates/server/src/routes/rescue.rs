//! From what is seen in the bowl to what to do.

use crate::body::{Asked, Body};
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::formula::Family;
use pastry::rescue::{Overpour, OverpourAsk, Rescue, RescueAsk, Sign, signs_for};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(rescue)).routes(routes!(signs)).routes(routes!(overpour))
}

/// Remedies for what is seen in a bowl, solved for what is in it: additions only, the smallest first. Keeps
/// nothing.
#[utoipa::path(post, path = "/rescue", tag = "rescue", request_body = RescueAsk, responses(
    (status = 200, body = Rescue, description = "Remedies, the likeliest first, then their look-alikes")
))]
async fn rescue(State(state): State<AppState>, Body(ask): Body<RescueAsk>) -> Result<Json<Rescue>, ApiError> {
    let shelf = state.shelf_of([&ask.document]).await?;
    state.work_out(move || pastry::rescue::rescue(&ask, &shelf)).await.map(Json)
}

/// What is made, and for what.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Made {
    /// Family of the cream.
    family: Family,
    /// Word of the job: drip, coat, mask …
    #[param(max_length = 20, example = "drip")]
    job: String,
}

/// A sign that can be picked.
#[derive(Debug, Serialize, ToSchema)]
pub struct SignEntry {
    /// Key.
    pub sign: Sign,
    /// In kitchen words.
    pub words: String,
}

/// What can be seen of a family at a job that has a remedy here.
#[utoipa::path(get, path = "/rescue/signs", tag = "rescue", params(Made), responses(
    (status = 200, body = Vec<SignEntry>, description = "Signs, in the order they are offered")
))]
async fn signs(Asked(made): Asked<Made>) -> Json<Vec<SignEntry>> {
    let known = signs_for(made.family, &made.job);
    Json(known.into_iter().map(|sign| SignEntry { sign, words: sign.words().to_owned() }).collect())
}

/// A line poured past its mark: leave it, bring it back with the least of one thing, or scale the batch.
#[utoipa::path(post, path = "/overpour", tag = "rescue", request_body = OverpourAsk, responses(
    (status = 200, body = Overpour, description = "Three ways on")
))]
async fn overpour(
    State(state): State<AppState>,
    Body(ask): Body<OverpourAsk>,
) -> Result<Json<Overpour>, ApiError> {
    let shelf = state.shelf_of([&ask.document]).await?;
    state.work_out(move || pastry::rescue::overpour(&ask, &shelf)).await.map(Json)
}
