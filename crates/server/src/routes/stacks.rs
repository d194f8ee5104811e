//! Cakes: worked out, brought to another size, begun from a template.

use crate::body::Body;
use crate::cupboard::Cupboard;
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::sponge::{Sponge, sponges};
use pastry::stack::baking::baking;
use pastry::stack::shape::body;
use pastry::stack::size::{SIZES, Size};
use pastry::stack::template::bakes;
use pastry::stack::{Bake, ResizeAsk, Resized, StackAnswer, StackDocument, Template, templates};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A cake and the room it is eaten in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StackAsk {
    /// The cake.
    pub document: StackDocument,
    /// The room it is eaten in, °C.
    #[schema(minimum = 0, maximum = 45)]
    pub room_c: f64,
}

/// What a cake can be begun with.
#[derive(Debug, Serialize, ToSchema)]
pub struct Beginnings {
    /// Builds.
    pub templates: Vec<Template>,
    /// A batter for each kind of sponge.
    pub bakes: Vec<Bake>,
    /// Kinds of sponge.
    pub sponges: Vec<Sponge>,
    /// What can be written at each kind of place, and between what.
    pub sizes: Vec<Size>,
    /// Least and most of every size of a tier's shape, mm.
    pub body_mm: [f64; 2],
    /// How each kind is baked, in words for a layer of 20 mm.
    pub bakings: Vec<BakingWords>,
}

/// How a kind of sponge is baked.
#[derive(Debug, Serialize, ToSchema)]
pub struct BakingWords {
    /// Key of the sponge.
    pub sponge: String,
    /// In words.
    pub words: String,
}

/// Height of a layer it is said for, mm.
const LAYER_MM: f64 = 20.0;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(stack)).routes(routes!(resize)).routes(routes!(begin))
}

/// Works a cake out: how large, how much of everything, whether it stands. Keeps nothing. What is wrong with it
/// is found at its place; only what is no cake is refused.
#[utoipa::path(post, path = "/stack", tag = "stack", request_body = StackAsk, responses(
    (status = 200, body = StackAnswer, description = "The cake, its places, its parts, what is found")
))]
async fn stack(
    State(state): State<AppState>,
    Body(ask): Body<StackAsk>,
) -> Result<Json<StackAnswer>, ApiError> {
    let cupboard = Cupboard::of(&state, &[&ask.document]).await?;
    state.work_out(move || pastry::stack::stack(&ask.document, &cupboard.known(), ask.room_c)).await.map(Json)
}

/// Brings a cake to another tin, or to so many portions. Keeps nothing.
#[utoipa::path(post, path = "/stack/resize", tag = "stack", request_body = ResizeAsk, responses(
    (status = 200, body = Resized, description = "The cake at its new size")
))]
async fn resize(
    State(state): State<AppState>,
    Body(ask): Body<ResizeAsk>,
) -> Result<Json<Resized>, ApiError> {
    let cupboard = Cupboard::of(&state, &[&ask.document]).await?;
    state.work_out(move || pastry::stack::resize(&ask, &cupboard.known())).await.map(Json)
}

/// The common builds, a batter for each kind of sponge, and the kinds.
#[utoipa::path(get, path = "/stack/begin", tag = "stack", responses(
    (status = 200, body = Beginnings, description = "What a cake can be begun with")
))]
async fn begin() -> Json<Beginnings> {
    Json(Beginnings {
        templates: templates(),
        bakes: bakes().to_vec(),
        sponges: sponges().to_vec(),
        sizes: SIZES.to_vec(),
        body_mm: body::SIZES,
        bakings: sponges()
            .iter()
            .filter_map(|own| {
                Some(BakingWords { sponge: own.key.clone(), words: baking(&own.key)?.words(LAYER_MM) })
            })
            .collect(),
    })
}
