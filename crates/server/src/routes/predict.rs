//! What a formula will do, alone or beside others, and what an amount weighs.

use crate::body::{Asked, Body};
use crate::convert::{Conversion, ConvertRequest, convert};
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::assess::{Assessment, Comparison, FormulaDocument, assess_from, compare};
use pastry::ingredient::measure::OwnWeights;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Formulas to set side by side.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CompareRequest {
    /// Two or three.
    #[schema(min_items = 2, max_items = 3)]
    pub documents: Vec<FormulaDocument>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(predict))
        .routes(routes!(compare_formulas))
        .routes(routes!(convert_amount))
}

/// By what it is judged.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct JudgedBy {
    /// By the book alone, whatever this kitchen has learned.
    #[serde(default)]
    book: bool,
}

/// Judges a formula: the verdict, the map, totals, warnings, why. Keeps nothing.
#[utoipa::path(
    post, path = "/predict", tag = "predict", params(JudgedBy), request_body = FormulaDocument,
    responses((status = 200, body = Assessment, description = "The answer"))
)]
async fn predict(
    State(state): State<AppState>,
    Asked(by): Asked<JudgedBy>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Assessment>, ApiError> {
    let shelf = state.shelf_of([&document]).await?;
    let shelf = if by.book { shelf.by_the_book() } else { shelf };
    assess_from(&document, &shelf).map(Json).map_err(ApiError::Faults)
}

/// Sets two or three formulas side by side and marks what differs. Keeps nothing.
#[utoipa::path(post, path = "/compare", tag = "predict", request_body = CompareRequest, responses(
    (status = 200, body = Comparison, description = "Side by side")
))]
async fn compare_formulas(
    State(state): State<AppState>,
    Body(request): Body<CompareRequest>,
) -> Result<Json<Comparison>, ApiError> {
    let shelf = state.shelf_of(&request.documents).await?;
    compare(&request.documents, &shelf).map(Json).map_err(ApiError::Faults)
}

/// Weighs an amount of an ingredient and writes it back in spoons and pieces.
#[utoipa::path(get, path = "/convert", tag = "predict", params(ConvertRequest), responses(
    (status = 200, body = Conversion, description = "The amount in grams")
))]
async fn convert_amount(
    State(state): State<AppState>,
    Asked(request): Asked<ConvertRequest>,
) -> Result<Json<Conversion>, ApiError> {
    let shelf = state.store.shelf([request.ingredient.as_str()]).await?;
    let item = state.store.pantry_item(&request.ingredient).await?;
    let own = OwnWeights { density: item.density_g_per_ml, piece: item.piece_g };
    convert(&request, &shelf, own).map(Json)
}
