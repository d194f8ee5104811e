//! What a formula will do.

use crate::app::AppState;
use crate::body::Body;
use crate::error::{ApiError, Problem};
use axum::Json;
use pastry::job::{Assessment, FormulaDocument, assess};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(predict))
}

/// Judges a formula: the verdict, the map over 0 to 45 °C, totals, warnings. Keeps nothing.
#[utoipa::path(post, path = "/predict", tag = "predict", request_body = FormulaDocument, responses(
    (status = 200, body = Assessment, description = "The answer"),
    (status = 400, body = Problem, content_type = "application/problem+json", description = "Not JSON"),
    (status = 413, body = Problem, content_type = "application/problem+json", description = "Too large"),
    (status = 415, body = Problem, content_type = "application/problem+json", description = "Not sent as JSON"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault, each named")
))]
async fn predict(Body(document): Body<FormulaDocument>) -> Result<Json<Assessment>, ApiError> {
    assess(&document).map(Json).map_err(ApiError::Faults)
}
