//! The pantry: every ingredient with what it is made of, and those of the kitchen's own.

use crate::body::{Asked, Body};
use crate::error::{ApiError, unknown_ingredient};
use crate::kept_routes;
use crate::pantry_view::{IngredientDetail, IngredientEntry, KitchenValues, detail, entry};
use crate::routes::kept::Fit;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use pastry::fault::{Fault, FaultCode};
use pastry::ingredient::Group;
use pastry::ingredient::label::Inferred;
use pastry::ingredient::search::search;
use pastry::ingredient::{IngredientDocument, Label, find};
use serde::Deserialize;
use std::collections::HashMap;
use store::ingredient::OwnIngredient;
use store::noun::{COMPONENT, INGREDIENT};
use store::pantry::PantryItem;
use utoipa::IntoParams;
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
    group: Option<Group>,
    /// Also what was put away.
    #[serde(default)]
    archived: bool,
}

kept_routes!(
    IngredientDocument,
    tag = "ingredients",
    one = "ingredient",
    path = "/ingredients",
    save = SaveIngredient,
    revision = OwnIngredient
);

impl Fit for IngredientDocument {
    /// It is one, and none of the catalogue's.
    async fn faults(&self, _state: &AppState, _key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        if find(&self.key).is_some() {
            let message =
                "the catalogue's ingredients do not change: make a copy of your own and change that";
            return Ok(vec![Fault::new("key", FaultCode::NotOwn, message)]);
        }
        Ok(self.ingredient().err().unwrap_or_default())
    }

    fn new_key(&self) -> String {
        self.key.clone()
    }

    fn under(self, key: &str) -> Self {
        IngredientDocument { key: key.to_owned(), ..self }
    }
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_ingredients, create))
        .routes(routes!(read_ingredient, save))
        .routes(routes!(versions))
        .routes(routes!(read_version))
        .routes(routes!(save_kitchen_values))
        .routes(routes!(infer_ingredient))
}

/// Ingredients, own ones first; with words to look for, best match first.
#[utoipa::path(get, path = "/ingredients", tag = "ingredients", params(Sought), responses(
    (status = 200, body = [IngredientEntry], description = "What was found")
))]
async fn list_ingredients(
    State(state): State<AppState>,
    Asked(sought): Asked<Sought>,
) -> Result<Json<Vec<IngredientEntry>>, ApiError> {
    let shelf = state.store.whole_shelf().await?;
    let uses = state.store.uses(COMPONENT, INGREDIENT).await?;
    let said: HashMap<String, PantryItem> =
        state.store.pantry().await?.into_iter().map(|item| (item.ingredient.clone(), item)).collect();
    let wanted: String = sought.search.chars().take(120).collect();
    let found = search(shelf.all(), &wanted)
        .into_iter()
        .filter(|ingredient| sought.group.is_none_or(|group| ingredient.group == group))
        .map(|ingredient| {
            let many = uses.get(&ingredient.id).map_or(0, Vec::len) as i64;
            entry(ingredient, said.get(&ingredient.id), many)
        })
        .filter(|entry| sought.archived || !entry.kitchen.archived);
    Ok(Json(found.collect()))
}

async fn full(state: &AppState, key: &str) -> Result<IngredientDetail, ApiError> {
    let item = state.store.pantry_item(key).await?;
    if let Some(ingredient) = find(key) {
        let used_in = state.store.used_in(COMPONENT, INGREDIENT, key).await?;
        return Ok(detail(ingredient, None, None, &item, used_in));
    }
    whole(state, state.store.read(key, None).await?, &item).await
}

/// An own ingredient whole, as it was read or as a save left it: never read again after it.
async fn whole(
    state: &AppState,
    own: OwnIngredient,
    item: &PantryItem,
) -> Result<IngredientDetail, ApiError> {
    let ingredient = own.document.ingredient().map_err(ApiError::Faults)?;
    let used_in = state.store.used_in(COMPONENT, INGREDIENT, &own.id).await?;
    Ok(detail(&ingredient, Some(own.document), Some(own.revision), item, used_in))
}

/// One ingredient whole: composition with sources, weights, allergens, diet, price, where it is used.
#[utoipa::path(get, path = "/ingredients/{id}", tag = "ingredients",
    params(("id" = String, Path, description = "Key of the ingredient", example = "cream36")),
    responses(
        (status = 200, body = IngredientDetail, description = "The ingredient")
    ))]
async fn read_ingredient(
    State(state): State<AppState>,
    Path(key): Path<String>,
) -> Result<Json<IngredientDetail>, ApiError> {
    Ok(Json(full(&state, &key).await?))
}

/// Saves what the kitchen says of any ingredient: its own density, piece, pack and price, put away or not.
#[utoipa::path(put, path = "/ingredients/{id}/kitchen", tag = "ingredients", request_body = KitchenValues,
    params(Saving, ("id" = String, Path, description = "Key of the ingredient", example = "cream48")),
    responses(
        (status = 200, body = IngredientDetail, description = "Saved")
    ))]
async fn save_kitchen_values(
    State(state): State<AppState>,
    Path(key): Path<String>,
    saving: Saving,
    Body(values): Body<KitchenValues>,
) -> Result<Json<IngredientDetail>, ApiError> {
    let own = match find(&key) {
        Some(_) => None,
        None => Some(state.store.read(&key, None).await?),
    };
    if let Some(pack) = values.pack
        && !(pack.pack_g > 0.0 && pack.pack_g <= 1e6 && (0.0..=1e6).contains(&pack.pack_price))
    {
        let message = "a pack weighs more than 0 g, at most 1,000 kg, and costs 0 or more";
        return Err(ApiError::Faults(vec![Fault::new("pack", FaultCode::OutOfRange, message)]));
    }
    let item = PantryItem {
        ingredient: key.clone(),
        density_g_per_ml: values.density_g_per_ml,
        piece_g: values.piece_g.filter(|piece| piece.grams() > 0.0),
        pack: values.pack,
        archived: values.archived,
        revision: values.revision,
    };
    let item = state.store.save_pantry_item(&item, &saving.by()).await?;
    Ok(Json(match (own, find(&key)) {
        (Some(own), _) => whole(&state, own, &item).await?,
        (None, Some(ingredient)) => {
            detail(ingredient, None, None, &item, state.store.used_in(COMPONENT, INGREDIENT, &key).await?)
        }
        (None, None) => return Err(unknown_ingredient(&key)),
    }))
}

/// Infers a whole composition from a label, with the reason of every value. Keeps nothing.
#[utoipa::path(post, path = "/ingredients/infer", tag = "ingredients", request_body = Label, responses(
    (status = 200, body = Inferred, description = "A composition that adds up to 100")
))]
async fn infer_ingredient(Body(label): Body<Label>) -> Result<Json<Inferred>, ApiError> {
    label.infer().map(Json).map_err(ApiError::Faults)
}
