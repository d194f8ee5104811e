//! A batch in another size, and shares of what is in the bowl.

use crate::body::Body;
use crate::error::ApiError;
use crate::larder::Larder;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::scale::{ScaleAsk, Scaled, ShareAsk, Shares};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(scale)).routes(routes!(shares))
}

/// Brings a formula to a mass, a volume, a number of pieces, or to what is short; eggs, leaves or packs whole
/// when asked. Keeps nothing.
#[utoipa::path(post, path = "/scale", tag = "scale", request_body = ScaleAsk, responses(
    (status = 200, body = Scaled, description = "The formula at its new size")
))]
async fn scale(State(state): State<AppState>, Body(ask): Body<ScaleAsk>) -> Result<Json<Scaled>, ApiError> {
    let shelf = state.shelf_of([&ask.document]).await?;
    let larder = Larder::of(&state).await?;
    state
        .work_out(move || pastry::scale::scale(&ask, &shelf, &|i| larder.pack(i).map(|pack| pack.pack_g)))
        .await
        .map(Json)
}

/// Shares what is really in the bowl by weight, with rounding that adds up.
#[utoipa::path(post, path = "/shares", tag = "scale", request_body = ShareAsk, responses(
    (status = 200, body = Shares, description = "One weight per vessel, and what the scale shows after each")
))]
async fn shares(Body(ask): Body<ShareAsk>) -> Result<Json<Shares>, ApiError> {
    pastry::scale::shares(&ask).map(Json).map_err(ApiError::Faults)
}
