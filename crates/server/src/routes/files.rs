//! Files in and out: the pantry as CSV or JSON, a formula with the own ingredients it needs.

use crate::body::{Asked, Body};
use crate::cupboard::Cupboard;
use crate::download::download;
use crate::error::ApiError;
use crate::routes::recipes::{Form, WantedForm};
use crate::saving::Saving;
use crate::shape::faults;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use axum::response::Response;
use pastry::assess::FormulaDocument;
use pastry::exchange::bring;
use pastry::exchange::pantry::{BadRow, PantryDocument, Reading, from_csv, from_json, to_csv, to_json};
use pastry::exchange::recipe::formula_recipe;
use pastry::fault::{Fault, FaultCode};
use pastry::ingredient::catalogue;
use pastry::ingredient::document::IngredientDocument;
use pastry::ingredient::key::key_for;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A kind of file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FileKind {
    /// A table.
    Csv,
    /// A list of documents.
    Json,
}

/// What to write out.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Wanted {
    /// As a table or as documents.
    #[param(inline)]
    kind: FileKind,
    /// Also the catalogue, as copies under own keys.
    #[serde(default)]
    all: bool,
}

/// A pantry file to read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PantryFile {
    /// What kind of file it is.
    pub kind: FileKind,
    /// All of its text.
    pub text: String,
    /// Keep what is good; without it the file is only read.
    #[serde(default)]
    pub take: bool,
}

/// An ingredient of a file, and what taking it would do.
#[derive(Debug, Serialize, ToSchema)]
pub struct Offered {
    /// The ingredient.
    pub document: IngredientDocument,
    /// The revision here that it would follow; 0 when it is new here.
    pub replaces_revision: i64,
}

/// What a file holds, and whether it was taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct ImportAnswer {
    /// Ingredients that can be taken, or were.
    pub good: Vec<Offered>,
    /// Rows that cannot, with their line.
    pub bad: Vec<BadRow>,
    /// Whether the good ones were kept.
    pub taken: bool,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(export_ingredients))
        .routes(routes!(import_ingredients))
        .routes(routes!(export_component))
}

/// The kitchen's own ingredients as a file.
#[utoipa::path(get, path = "/ingredients/export", tag = "ingredients", params(Wanted), responses(
    (status = 200, body = pastry::exchange::pantry::PantryDocument, description = "The file: CSV, or a pantry document")
))]
async fn export_ingredients(
    State(state): State<AppState>,
    Asked(wanted): Asked<Wanted>,
) -> Result<Response, ApiError> {
    let own = state.store.all::<IngredientDocument>().await?;
    let mut documents: Vec<IngredientDocument> = own.into_iter().map(|own| own.document).collect();
    if wanted.all {
        documents.extend(catalogue().iter().map(|ingredient| {
            let key = key_for(&ingredient.id.replace('_', " "));
            IngredientDocument::copy_of(ingredient, key, ingredient.name.clone())
        }));
    }
    Ok(match wanted.kind {
        FileKind::Csv => download("text/csv; charset=utf-8", "pantry", to_csv(&documents)),
        FileKind::Json => {
            let text = serde_json::to_string_pretty(&to_json(documents)).expect("a pantry serialises");
            download("application/json", "pantry", text)
        }
    })
}

/// Reads a pantry file; keeps the good ones when asked to. A bad row is named by its line and stops
/// nothing.
#[utoipa::path(post, path = "/ingredients/import", tag = "ingredients", request_body = PantryFile, params(Saving), responses(
    (status = 200, body = ImportAnswer, description = "What it holds")
))]
async fn import_ingredients(
    State(state): State<AppState>,
    saving: Saving,
    Body(file): Body<PantryFile>,
) -> Result<Json<ImportAnswer>, ApiError> {
    let read = match file.kind {
        FileKind::Csv => from_csv(&file.text),
        FileKind::Json => {
            pantry_faults(&file.text)?;
            from_json(&file.text, &faults::<IngredientDocument>)
        }
    };
    let Reading { good, bad } =
        read.map_err(|words| ApiError::Faults(vec![Fault::new("text", FaultCode::NoPantryFile, words)]))?;
    let known: HashMap<String, i64> = state
        .store
        .all::<IngredientDocument>()
        .await?
        .into_iter()
        .map(|own| (own.document.key, own.revision))
        .collect();
    let pairs: Vec<(IngredientDocument, i64)> = good
        .into_iter()
        .map(|document| {
            let revision = known.get(&document.key).copied().unwrap_or(0);
            (document, revision)
        })
        .collect();
    if file.take {
        let documents: Vec<_> = pairs
            .iter()
            .map(|(document, revision)| (document.key.clone(), document.clone(), *revision))
            .collect();
        state.store.save_all(&documents, &saving.by()).await?;
    }
    let good = pairs
        .into_iter()
        .map(|(document, replaces_revision)| Offered { document, replaces_revision })
        .collect();
    Ok(Json(ImportAnswer { good, bad, taken: file.take }))
}

/// What the published schema does not take in the frame of a pantry; its entries are looked at one by one.
fn pantry_faults(text: &str) -> Result<(), ApiError> {
    let Ok(mut value) = serde_json::from_str::<serde_json::Value>(text) else { return Ok(()) };
    if value["format"] != pastry::exchange::pantry::FORMAT || !value["ingredients"].is_array() {
        return Ok(());
    }
    value["ingredients"] = serde_json::Value::Array(Vec::new());
    let amiss = faults::<PantryDocument>(&value);
    if amiss.is_empty() { Ok(()) } else { Err(ApiError::Faults(amiss)) }
}

/// A formula as a file, with the own ingredients it needs in another kitchen.
#[utoipa::path(get, path = "/components/{id}/export", tag = "components",
    params(("id" = String, Path, description = "Key of the component"), WantedForm),
    responses(
        (status = 200, body = FormulaDocument, description = "The file")
    ))]
async fn export_component(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Asked(wanted): Asked<WantedForm>,
) -> Result<Response, ApiError> {
    let kept = state.store.read::<FormulaDocument>(&id, None).await?.document;
    let cupboard = Cupboard::of_formula(&state, &kept).await?;
    let document = bring::formula(&kept, &cupboard.known());
    if wanted.form == Form::Recipe {
        let recipe = formula_recipe(&document, &cupboard.known()).map_err(ApiError::Faults)?;
        let text = serde_json::to_string_pretty(&recipe).expect("a recipe serialises");
        return Ok(download("application/ld+json", &document.name, text));
    }
    let text = serde_json::to_string_pretty(&document).expect("a formula serialises");
    Ok(download("application/json", &document.name, text))
}
