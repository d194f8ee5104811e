//! Is it alive, and can it read and write its file?

use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// How the server is.
#[derive(Debug, Serialize, ToSchema)]
pub struct Health {
    /// Always "ok"; otherwise the answer is a problem.
    pub status: &'static str,
    /// Version of the program.
    pub version: &'static str,
    /// Whether this is the invented kitchen, which is thrown away at the end.
    pub demo: bool,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(health))
}

/// How the server is.
#[utoipa::path(get, path = "/health", tag = "kitchen", responses(
    (status = 200, body = Health, description = "It can read and write its file")
))]
async fn health(State(state): State<AppState>) -> Result<Json<Health>, ApiError> {
    state.store.check(jiff::Timestamp::now()).await?;
    Ok(Json(Health { status: "ok", version: env!("CARGO_PKG_VERSION"), demo: state.demo }))
}
