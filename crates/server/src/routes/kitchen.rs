//! The kitchen: name, room temperature, cups.

use crate::body::Body;
use crate::error::ApiError;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::fault::FaultCode;
use pastry::formula::Fault;
use store::kitchen::Kitchen;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Longest name of a kitchen, characters.
const LONGEST_NAME: usize = 80;

/// Longest name of a currency, characters.
const LONGEST_CURRENCY: usize = 8;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(read_kitchen, save_kitchen))
}

/// The kitchen.
#[utoipa::path(get, path = "/kitchen", tag = "kitchen", responses(
    (status = 200, body = Kitchen, description = "The kitchen")
))]
async fn read_kitchen(State(state): State<AppState>) -> Result<Json<Kitchen>, ApiError> {
    Ok(Json(state.store.kitchen().await?))
}

/// Saves the kitchen on top of the revision it was read at.
#[utoipa::path(put, path = "/kitchen", tag = "kitchen", request_body = Kitchen, params(Saving), responses(
    (status = 200, body = Kitchen, description = "Saved, with its new revision")
))]
async fn save_kitchen(
    State(state): State<AppState>,
    saving: Saving,
    Body(kitchen): Body<Kitchen>,
) -> Result<Json<Kitchen>, ApiError> {
    let long = kitchen.name.chars().count();
    if kitchen.name.trim().is_empty() || long > LONGEST_NAME {
        let message = format!("a kitchen's name has 1 to {LONGEST_NAME} letters; this has {long}");
        return Err(ApiError::Faults(vec![Fault::new("name", FaultCode::BadName, message)]));
    }
    let signs = kitchen.currency.chars().count();
    if kitchen.currency.trim().is_empty() || signs > LONGEST_CURRENCY {
        let message = format!("a currency is 1 to {LONGEST_CURRENCY} signs, such as EUR; this has {signs}");
        return Err(ApiError::Faults(vec![Fault::new("currency", FaultCode::BadCurrency, message)]));
    }
    if !(-500.0..=6000.0).contains(&kitchen.altitude_m) {
        let message =
            "a kitchen lies between 500 m below and 6000 m above the sea: write its height in metres";
        return Err(ApiError::Faults(vec![Fault::new("altitude_m", FaultCode::OutOfRange, message)]));
    }
    let twice = |at: usize| kitchen.places[..at].iter().any(|own| own.place == kitchen.places[at].place);
    if let Some(at) = (0..kitchen.places.len()).find(|at| twice(*at)) {
        let message = "this place stands there twice: keep one reading of it";
        return Err(ApiError::Faults(vec![Fault::new(format!("places.{at}"), FaultCode::Twice, message)]));
    }
    if let Some(fault) =
        (0..kitchen.places.len()).find_map(|at| kitchen.places[at].fault(&format!("places.{at}")))
    {
        return Err(ApiError::Faults(vec![fault]));
    }
    Ok(Json(state.store.save_kitchen(&kitchen, &saving.by()).await?))
}
