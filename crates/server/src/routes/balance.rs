//! The smallest ways into the window, and one thing for another.

use crate::body::Body;
use crate::error::ApiError;
use crate::larder::Larder;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::assess::FormulaDocument;
use pastry::balance::{Ways, ways};
use pastry::swap::{SwapAsk, SwapFor, Swaps};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(balance)).routes(routes!(swap))
}

/// Looks for the smallest ways into the window: in grams, degrees, hours. Locks, limits and rules of the
/// formula hold in every one. Keeps nothing.
#[utoipa::path(post, path = "/balance", tag = "balance", request_body = FormulaDocument, responses(
    (status = 200, body = Ways, description = "Ways there, the smallest first; or what stands in the way")
))]
async fn balance(
    State(state): State<AppState>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Ways>, ApiError> {
    let shelf = state.shelf_of([&document]).await?;
    let larder = Larder::of(&state).await?;
    // A drip is integrated some thousand times.
    state.work_out(move || ways(&document, &shelf, &|i| larder.price(i))).await.map(Json)
}

/// Puts one ingredient in the place of another, or takes something out, and brings the rest back: consistency,
/// sweetness and cost, in the order asked for. Keeps nothing.
#[utoipa::path(post, path = "/swap", tag = "balance", request_body = SwapAsk, responses(
    (status = 200, body = Swaps, description = "Ways to do it, the first choice first, with what still differs")
))]
async fn swap(State(state): State<AppState>, Body(ask): Body<SwapAsk>) -> Result<Json<Swaps>, ApiError> {
    let mut wanted: Vec<&str> = ask.document.lines.iter().map(|line| line.ingredient.as_str()).collect();
    if let SwapFor::Replace { by, .. } = &ask.ask {
        wanted.push(by);
    }
    let shelf = state.store.shelf(wanted).await?;
    let larder = Larder::of(&state).await?;
    state.work_out(move || pastry::swap::swap(&ask, &shelf, &|i| larder.price(i))).await.map(Json)
}
