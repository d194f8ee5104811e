//! The smallest ways into the window.

use crate::app::AppState;
use crate::body::Body;
use crate::error::{ApiError, Problem};
use crate::routes::predict::keys;
use axum::Json;
use axum::extract::State;
use pastry::balance::{Ways, ways};
use pastry::ingredient::Ingredient;
use pastry::job::FormulaDocument;
use std::collections::HashMap;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(balance))
}

/// Looks for the smallest ways into the window: in grams, degrees, hours. Locks, limits and rules of the
/// formula hold in every one. Keeps nothing.
#[utoipa::path(post, path = "/balance", tag = "balance", request_body = FormulaDocument, responses(
    (status = 200, body = Ways, description = "Ways there, the smallest first; or what stands in the way"),
    (status = 400, body = Problem, content_type = "application/problem+json", description = "Not JSON"),
    (status = 413, body = Problem, content_type = "application/problem+json", description = "Too large"),
    (status = 415, body = Problem, content_type = "application/problem+json", description = "Not sent as JSON"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault, each named")
))]
async fn balance(
    State(state): State<AppState>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Ways>, ApiError> {
    let shelf = state.store.shelf(keys([&document])).await?;
    let prices: HashMap<String, f64> = state
        .store
        .pantry()
        .await?
        .into_iter()
        .filter_map(|item| Some((item.ingredient, item.pack?.price_per_kg())))
        .collect();
    // A drip is integrated some thousand times: off the threads that answer everybody else.
    let found = tokio::task::spawn_blocking(move || {
        let price = |ingredient: &Ingredient| {
            prices.get(&ingredient.id).copied().or_else(|| ingredient.pack.map(|pack| pack.price_per_kg()))
        };
        ways(&document, &shelf, &price)
    })
    .await
    .map_err(|error| {
        tracing::error!(%error, "a balance broke off");
        ApiError::BrokeOff
    })?;
    found.map(Json).map_err(ApiError::Faults)
}
