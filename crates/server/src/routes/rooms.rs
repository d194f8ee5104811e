//! The pastry room: hours, cooks, equipment. There is one, with all its versions.

use crate::error::ApiError;
use crate::kept_routes;
use crate::routes::kept::Fit;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::batch::took::TookMinutes;
use pastry::day::KitchenDocument;
use pastry::fault::Fault;
use serde::{Deserialize, Serialize};
use store::room::{Room, THE_ROOM};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

kept_routes!(KitchenDocument, tag = "rooms", one = "room", path = "/rooms", save = SaveRoom, revision = Room);

/// The pastry room as plans use it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RoomNow {
    /// As it is kept; none while nobody set it.
    pub kept: Option<Room>,
    /// What plans use while there is none: a usual one, assumed.
    pub usual: KitchenDocument,
    /// What steps take by this kitchen's own batches; plans use it where the room has no minutes of its own for a step.
    pub took: Vec<TookMinutes>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_room, create))
        .routes(routes!(save))
        .routes(routes!(versions))
        .routes(routes!(read_version))
}

impl Fit for KitchenDocument {
    /// It can be planned in.
    async fn faults(&self, _state: &AppState, _key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        Ok(KitchenDocument::faults(self))
    }

    fn new_key(&self) -> String {
        THE_ROOM.to_owned()
    }
}

/// The pastry room, and the usual one that is used while nobody set it.
#[utoipa::path(get, path = "/rooms", tag = "rooms", responses(
    (status = 200, body = RoomNow, description = "The room")
))]
async fn read_room(State(state): State<AppState>) -> Result<Json<RoomNow>, ApiError> {
    let took = state.took().await?;
    Ok(Json(RoomNow { kept: state.store.room().await?, usual: KitchenDocument::usual(), took }))
}
