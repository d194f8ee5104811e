//! When something is cold or warm enough.

use crate::body::Body;
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::heat::{CaseAnswer, CaseDocument};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(clock))
}

/// Follows a body that cools or warms: when a point of it comes to a temperature, or how warm it is after a time; with its
/// spread where the heat transfer is a band. Keeps nothing.
#[utoipa::path(post, path = "/clock", tag = "clock", request_body = CaseDocument, responses(
    (status = 200, body = CaseAnswer, description = "Answers, in the order of the marks")
))]
async fn clock(
    State(state): State<AppState>,
    Body(document): Body<CaseDocument>,
) -> Result<Json<CaseAnswer>, ApiError> {
    state.work_out(move || pastry::heat::cool(&document)).await.map(Json)
}
