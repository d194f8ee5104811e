//! The pantry: ingredients with what they are made of, and what this kitchen has weighed itself.

use crate::app::AppState;
use crate::body::Body;
use crate::error::{ApiError, Problem};
use axum::Json;
use axum::extract::{Path, State};
use jiff::Timestamp;
use pastry::ingredient::measure::household_weights;
use pastry::ingredient::{Ingredient, PhaseShares, catalogue, find};
use pastry::units::{Density, Mass};
use serde::{Deserialize, Serialize};
use store::StoreError;
use store::pantry::PantryItem;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// What a piece weighs.
#[derive(Debug, Serialize, ToSchema)]
pub struct PieceWeight {
    /// Unit: stick, egg, leaf.
    pub unit: &'static str,
    /// Weight of one, g.
    pub weight_g: f64,
    /// Where the value is from.
    pub source: String,
}

/// An ingredient on the shelf.
#[derive(Debug, Serialize, ToSchema)]
pub struct PantryEntry {
    /// Its key.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// What others call it.
    pub also: Vec<String>,
    /// Shelf it stands on.
    pub group: String,
    /// The five phases, per cent of its weight.
    pub phases_percent: PhaseShares,
    /// Allergens it brings.
    pub allergens: Vec<String>,
    /// Where its composition is from.
    pub source: String,
    /// high, medium or low.
    pub confidence: String,
    /// Density from the tables, g/ml.
    pub table_density_g_per_ml: Option<f64>,
    /// Where that is from.
    pub table_density_source: Option<String>,
    /// Pieces from the tables.
    pub table_pieces: Vec<PieceWeight>,
    /// The kitchen's own weights.
    pub own: OwnWeights,
}

/// The kitchen's own weights of an ingredient.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnWeights {
    /// Density as scooped or poured, g/ml; none to follow the tables.
    pub density_g_per_ml: Option<Density>,
    /// Weight of one piece, g; none to follow the tables.
    pub piece_g: Option<Mass>,
    /// Revision it was read at; 0 when nothing was saved yet.
    pub revision: i64,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(list_pantry)).routes(routes!(save_pantry_item))
}

/// All ingredients.
#[utoipa::path(get, path = "/pantry", tag = "pantry", responses(
    (status = 200, body = [PantryEntry], description = "All ingredients, shelf by shelf")
))]
async fn list_pantry(State(state): State<AppState>) -> Result<Json<Vec<PantryEntry>>, ApiError> {
    let own = state.store.pantry().await?;
    let entries = catalogue().iter().map(|ingredient| {
        let item = own.iter().find(|item| item.ingredient == ingredient.id);
        entry(ingredient, item)
    });
    Ok(Json(entries.collect()))
}

/// Saves the kitchen's own weights of an ingredient, on top of the revision they were read at.
#[utoipa::path(put, path = "/pantry/{ingredient}", tag = "pantry", request_body = OwnWeights,
    params(("ingredient" = String, Path, description = "Key of the ingredient")),
    responses(
        (status = 200, body = PantryEntry, description = "Saved"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such ingredient"),
        (status = 409, body = Problem, content_type = "application/problem+json", description = "Saved in between"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn save_pantry_item(
    State(state): State<AppState>,
    Path(key): Path<String>,
    Body(own): Body<OwnWeights>,
) -> Result<Json<PantryEntry>, ApiError> {
    let ingredient =
        find(&key).ok_or(StoreError::NotFound { noun: "ingredient", key: key.chars().take(60).collect() })?;
    let item = PantryItem {
        ingredient: key,
        density_g_per_ml: own.density_g_per_ml,
        piece_g: own.piece_g.filter(|piece| piece.grams() > 0.0),
        revision: own.revision,
    };
    let saved = state.store.save_pantry_item(&item, Timestamp::now()).await?;
    Ok(Json(entry(ingredient, Some(&saved))))
}

fn entry(ingredient: &Ingredient, own: Option<&PantryItem>) -> PantryEntry {
    let shares = ingredient.composition.phases();
    let weights = household_weights(&ingredient.id);
    let source =
        |how: &str, source: &str| if how.is_empty() { source.to_owned() } else { format!("{how}; {source}") };
    PantryEntry {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        also: ingredient.also.clone(),
        group: ingredient.group.clone(),
        phases_percent: PhaseShares {
            fat: 100.0 * shares.fat,
            sugar: 100.0 * shares.sugar,
            water: 100.0 * shares.water,
            dry: 100.0 * shares.dry,
            setting: 100.0 * shares.setting,
        },
        allergens: ingredient.allergens.clone(),
        source: ingredient.source.clone(),
        confidence: ingredient.confidence.clone(),
        table_density_g_per_ml: weights.density.as_ref().map(|known| known.weight),
        table_density_source: weights.density.as_ref().map(|known| source(&known.how, &known.source)),
        table_pieces: weights
            .pieces
            .iter()
            .map(|(unit, known)| PieceWeight {
                unit: unit.short(),
                weight_g: known.weight,
                source: source(&known.how, &known.source),
            })
            .collect(),
        own: OwnWeights {
            density_g_per_ml: own.and_then(|item| item.density_g_per_ml),
            piece_g: own.and_then(|item| item.piece_g),
            revision: own.map_or(0, |item| item.revision),
        },
    }
}
