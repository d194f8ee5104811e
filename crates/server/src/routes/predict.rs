//! What a formula will do, alone or beside others, and what an amount weighs.

use crate::app::AppState;
use crate::body::{Asked, Body};
use crate::error::{ApiError, Problem};
use crate::routes::ingredients::unknown;
use axum::Json;
use axum::extract::State;
use pastry::fault::Fault;
use pastry::formula::kitchen_words::{in_pieces, in_spoons};
use pastry::ingredient::Shelf;
use pastry::ingredient::measure::{OwnWeights, weigh};
use pastry::job::{Assessment, Comparison, FormulaDocument, assess_from, compare};
use pastry::units::amount::parse;
use pastry::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
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

/// An amount to weigh.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct ConvertRequest {
    /// As a cook writes it.
    #[param(example = "1 1/2 cups", max_length = 60)]
    pub amount: String,
    /// Key of the ingredient.
    #[param(example = "cream36", max_length = 60)]
    pub ingredient: String,
    /// Whose cups and spoons.
    #[serde(default)]
    #[param(inline)]
    pub measures: Measures,
}

/// An amount weighed.
#[derive(Debug, Serialize, ToSchema)]
pub struct Conversion {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// Grams.
    pub mass_g: f64,
    /// Millilitres, where a density is known.
    pub volume_ml: Option<f64>,
    /// What the grams rest on; none when grams were written.
    pub assumed: Option<String>,
    /// The same in cups and spoons.
    pub in_spoons: Option<String>,
    /// The same in eggs, leaves, sticks.
    pub in_pieces: Option<String>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(predict))
        .routes(routes!(compare_formulas))
        .routes(routes!(convert_amount))
}

/// Keys of everything some formulas use.
pub fn keys<'a>(documents: impl IntoIterator<Item = &'a FormulaDocument>) -> Vec<&'a str> {
    documents.into_iter().flat_map(|d| d.lines.iter().map(|line| line.ingredient.as_str())).collect()
}

/// Judges a formula: the verdict, the map, totals, warnings, why. Keeps nothing.
#[utoipa::path(post, path = "/predict", tag = "predict", request_body = FormulaDocument, responses(
    (status = 200, body = Assessment, description = "The answer"),
    (status = 400, body = Problem, content_type = "application/problem+json", description = "Not JSON"),
    (status = 413, body = Problem, content_type = "application/problem+json", description = "Too large"),
    (status = 415, body = Problem, content_type = "application/problem+json", description = "Not sent as JSON"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault, each named")
))]
async fn predict(
    State(state): State<AppState>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Assessment>, ApiError> {
    let shelf = state.store.shelf(keys([&document])).await?;
    assess_from(&document, &shelf).map(Json).map_err(ApiError::Faults)
}

/// Sets two or three formulas side by side and marks what differs. Keeps nothing.
#[utoipa::path(post, path = "/compare", tag = "predict", request_body = CompareRequest, responses(
    (status = 200, body = Comparison, description = "Side by side"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault, each named")
))]
async fn compare_formulas(
    State(state): State<AppState>,
    Body(request): Body<CompareRequest>,
) -> Result<Json<Comparison>, ApiError> {
    let shelf = state.store.shelf(keys(&request.documents)).await?;
    compare(&request.documents, &shelf).map(Json).map_err(ApiError::Faults)
}

/// Weighs an amount of an ingredient and writes it back in spoons and pieces.
#[utoipa::path(get, path = "/convert", tag = "predict", params(ConvertRequest), responses(
    (status = 200, body = Conversion, description = "The amount in grams"),
    (status = 404, body = Problem, content_type = "application/problem+json", description = "No such ingredient"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "The amount cannot be weighed")
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

/// Weighs an amount.
///
/// # Errors
/// An unknown ingredient, an amount that cannot be read or weighed.
pub fn convert(request: &ConvertRequest, shelf: &Shelf, own: OwnWeights) -> Result<Conversion, ApiError> {
    let ingredient = shelf.find(&request.ingredient).ok_or_else(|| unknown(&request.ingredient))?;
    let fault = |words: String| ApiError::Faults(vec![Fault::new("amount", "bad_amount", words)]);
    let amount = parse(&request.amount).map_err(|error| fault(error.to_string()))?;
    let weighed =
        weigh(amount, ingredient, request.measures, own).map_err(|error| fault(error.to_string()))?;
    let grams = weighed.mass.grams();
    let density = own.density.map(|density| density.grams_per_millilitre()).or(ingredient
        .weights
        .density
        .as_ref()
        .map(|known| known.weight));
    Ok(Conversion {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        mass_g: grams,
        volume_ml: density.map(|density| grams / density),
        assumed: weighed.assumed,
        in_spoons: in_spoons(grams, ingredient, request.measures),
        in_pieces: in_pieces(grams, ingredient),
    })
}
