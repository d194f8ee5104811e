//! The pantry: every ingredient with what it is made of, and those of the kitchen's own.

use crate::app::AppState;
use crate::body::{Asked, Body};
use crate::error::{ApiError, Problem};
use crate::pantry_view::{IngredientDetail, IngredientEntry, KitchenValues, detail, entry};
use crate::saving::Saving;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use jiff::Timestamp;
use pastry::fault::Fault;
use pastry::ingredient::label::Inferred;
use pastry::ingredient::search::search;
use pastry::ingredient::{IngredientDocument, Label, Shelf, find};
use serde::Deserialize;
use std::collections::HashMap;
use store::StoreError;
use store::ingredients::OwnIngredient;
use store::pantry::PantryItem;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// What to look for in the pantry.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Sought {
    /// Words of its name here or elsewhere; slips are forgiven.
    #[serde(default)]
    #[param(example = "double cream", max_length = 120)]
    search: String,
    /// Shelf it stands on.
    #[param(example = "dairy")]
    group: Option<String>,
    /// Also what was put away.
    #[serde(default)]
    archived: bool,
}

/// An own ingredient to save, and the revision it started from.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveIngredient {
    /// What it is.
    pub document: IngredientDocument,
    /// The revision the change started from; when another was saved since, nothing is overwritten.
    pub based_on_revision: i64,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_ingredients, create_ingredient))
        .routes(routes!(read_ingredient, save_ingredient))
        .routes(routes!(save_kitchen_values))
        .routes(routes!(infer_ingredient))
}

/// The whole shelf: own ingredients over the catalogue.
pub async fn shelf(state: &AppState) -> Result<Shelf, ApiError> {
    let own = state.store.own_ingredients().await?;
    Ok(Shelf::catalogue().with(own.iter().filter_map(|own| own.document.ingredient().ok())))
}

/// Ingredients, own ones first; with words to look for, best match first.
#[utoipa::path(get, path = "/ingredients", tag = "ingredients", params(Sought), responses(
    (status = 200, body = [IngredientEntry], description = "What was found")
))]
async fn list_ingredients(
    State(state): State<AppState>,
    Asked(sought): Asked<Sought>,
) -> Result<Json<Vec<IngredientEntry>>, ApiError> {
    let shelf = shelf(&state).await?;
    let uses = state.store.uses().await?;
    let said: HashMap<String, PantryItem> =
        state.store.pantry().await?.into_iter().map(|item| (item.ingredient.clone(), item)).collect();
    let wanted: String = sought.search.chars().take(120).collect();
    let found = search(shelf.all(), &wanted)
        .into_iter()
        .filter(|ingredient| sought.group.as_ref().is_none_or(|group| ingredient.group == *group))
        .map(|ingredient| {
            let many = uses.get(&ingredient.id).copied().unwrap_or(0);
            entry(ingredient, said.get(&ingredient.id), many)
        })
        .filter(|entry| sought.archived || !entry.kitchen.archived);
    Ok(Json(found.collect()))
}

async fn full(state: &AppState, key: &str) -> Result<IngredientDetail, ApiError> {
    let item = state.store.pantry_item(key).await?;
    if let Some(ingredient) = find(key) {
        let used_in = state.store.used_in(key).await?;
        return Ok(detail(ingredient, None, None, &item, used_in));
    }
    whole(state, state.store.own_ingredient(key).await?, &item).await
}

/// An own ingredient whole, as it was read or as a save left it: never read again after it.
async fn whole(
    state: &AppState,
    own: OwnIngredient,
    item: &PantryItem,
) -> Result<IngredientDetail, ApiError> {
    let ingredient = own.document.ingredient().map_err(ApiError::Faults)?;
    let used_in = state.store.used_in(&own.document.key).await?;
    Ok(detail(&ingredient, Some(own.document), Some(own.revision), item, used_in))
}

/// Saves one own ingredient and answers with what this save made.
async fn keep(
    state: &AppState,
    document: IngredientDocument,
    based_on: i64,
    saving: &Saving,
) -> Result<IngredientDetail, ApiError> {
    let saved =
        state.store.save_own_ingredients(&[(document, based_on)], saving.id(), Timestamp::now()).await?;
    let own = saved.into_iter().next().expect("one was saved");
    let item = state.store.pantry_item(&own.document.key).await?;
    whole(state, own, &item).await
}

/// One ingredient whole: composition with sources, weights, allergens, diet, price, where it is used.
#[utoipa::path(get, path = "/ingredients/{key}", tag = "ingredients",
    params(("key" = String, Path, description = "Key of the ingredient", example = "cream36")),
    responses(
        (status = 200, body = IngredientDetail, description = "The ingredient"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such ingredient")
    ))]
async fn read_ingredient(
    State(state): State<AppState>,
    Path(key): Path<String>,
) -> Result<Json<IngredientDetail>, ApiError> {
    Ok(Json(full(&state, &key).await?))
}

fn under(path: &str, faults: Vec<Fault>) -> ApiError {
    let renamed = faults.into_iter().map(|fault| Fault { field: format!("{path}.{}", fault.field), ..fault });
    ApiError::Faults(renamed.collect())
}

/// Adds an ingredient of the kitchen's own. Its key must be new.
#[utoipa::path(post, path = "/ingredients", tag = "ingredients", request_body = IngredientDocument, params(Saving), responses(
    (status = 201, body = IngredientDetail, description = "Saved at revision 1"),
    (status = 409, body = Problem, content_type = "application/problem+json", description = "The key is taken"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
))]
async fn create_ingredient(
    State(state): State<AppState>,
    saving: Saving,
    Body(document): Body<IngredientDocument>,
) -> Result<(StatusCode, Json<IngredientDetail>), ApiError> {
    document.ingredient().map_err(ApiError::Faults)?;
    Ok((StatusCode::CREATED, Json(keep(&state, document, 0, &saving).await?)))
}

/// Saves a new revision of an own ingredient.
#[utoipa::path(put, path = "/ingredients/{key}", tag = "ingredients", request_body = SaveIngredient,
    params(Saving, ("key" = String, Path, description = "Key of the ingredient")),
    responses(
        (status = 200, body = IngredientDetail, description = "Saved as a new revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such own ingredient"),
        (status = 409, body = Problem, content_type = "application/problem+json", description = "Saved in between"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn save_ingredient(
    State(state): State<AppState>,
    Path(key): Path<String>,
    saving: Saving,
    Body(save): Body<SaveIngredient>,
) -> Result<Json<IngredientDetail>, ApiError> {
    if find(&key).is_some() {
        let message = "the catalogue's ingredients do not change: make a copy of your own and change that";
        return Err(ApiError::Faults(vec![Fault::new("document.key", "not_own", message)]));
    }
    state.store.own_ingredient(&key).await?;
    let mut document = save.document;
    document.key.clone_from(&key);
    document.ingredient().map_err(|faults| under("document", faults))?;
    Ok(Json(keep(&state, document, save.based_on_revision, &saving).await?))
}

/// Saves what the kitchen says of any ingredient: its own density, piece, pack and price, put away or not.
#[utoipa::path(put, path = "/ingredients/{key}/kitchen", tag = "ingredients", request_body = KitchenValues,
    params(Saving, ("key" = String, Path, description = "Key of the ingredient", example = "cream48")),
    responses(
        (status = 200, body = IngredientDetail, description = "Saved"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such ingredient"),
        (status = 409, body = Problem, content_type = "application/problem+json", description = "Saved in between"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn save_kitchen_values(
    State(state): State<AppState>,
    Path(key): Path<String>,
    saving: Saving,
    Body(values): Body<KitchenValues>,
) -> Result<Json<IngredientDetail>, ApiError> {
    let own = match find(&key) {
        Some(_) => None,
        None => Some(state.store.own_ingredient(&key).await?),
    };
    if let Some(pack) = values.pack
        && !(pack.pack_g > 0.0 && pack.pack_g <= 1e6 && (0.0..=1e6).contains(&pack.pack_price))
    {
        let message = "a pack weighs more than 0 g, at most 1,000 kg, and costs 0 or more";
        return Err(ApiError::Faults(vec![Fault::new("pack", "out_of_range", message)]));
    }
    let item = PantryItem {
        ingredient: key.clone(),
        density_g_per_ml: values.density_g_per_ml,
        piece_g: values.piece_g.filter(|piece| piece.grams() > 0.0),
        pack: values.pack,
        archived: values.archived,
        revision: values.revision,
    };
    let item = state.store.save_pantry_item(&item, saving.id(), Timestamp::now()).await?;
    Ok(Json(match (own, find(&key)) {
        (Some(own), _) => whole(&state, own, &item).await?,
        (None, Some(ingredient)) => detail(ingredient, None, None, &item, state.store.used_in(&key).await?),
        (None, None) => return Err(unknown(&key)),
    }))
}

/// Infers a whole composition from a label, with the reason of every value. Keeps nothing.
#[utoipa::path(post, path = "/ingredients/infer", tag = "ingredients", request_body = Label, responses(
    (status = 200, body = Inferred, description = "A composition that adds up to 100"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "The label contradicts itself")
))]
async fn infer_ingredient(Body(label): Body<Label>) -> Result<Json<Inferred>, ApiError> {
    label.infer().map(Json).map_err(ApiError::Faults)
}

/// The error of a key that nothing has.
pub fn unknown(key: &str) -> ApiError {
    StoreError::NotFound { noun: "ingredient", key: key.chars().take(60).collect() }.into()
}
