//! How a cream is made: schools as steps.

use crate::body::Body;
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::assess::FormulaDocument;
use pastry::method::listed::{SchoolWork, listed};
use pastry::method::{MethodSheet, sheet};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(methods, listed_methods))
}

/// Every school of a formula's family, worked out for it: steps with their minutes, where it starts, what
/// choosing it changes, its waits in the kitchen's own fridge as a probe read it. Keeps nothing.
#[utoipa::path(post, path = "/methods", tag = "methods", request_body = FormulaDocument, responses(
    (status = 200, body = Vec<MethodSheet>, description = "Schools, the usual one first")
))]
async fn methods(
    State(state): State<AppState>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Vec<MethodSheet>>, ApiError> {
    let shelf = state.shelf_of([&document]).await?;
    let learned = state.learned().await?;
    state.work_out(move || sheet(&document, &shelf, &learned)).await.map(Json)
}

/// Every school with the steps that take minutes of work, and their usual minutes. Keeps nothing.
#[utoipa::path(get, path = "/methods", tag = "methods", operation_id = "listed_methods", responses(
    (status = 200, body = Vec<SchoolWork>, description = "Schools with their steps")
))]
async fn listed_methods() -> Json<Vec<SchoolWork>> {
    Json(listed())
}
