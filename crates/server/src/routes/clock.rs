//! When something is cold, warm or set enough.

use crate::body::{Body, json_of, parse, read};
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::{FromRequest, Request, State};
use pastry::clock::{BoilAnswer, BoilDocument, ClockAnswer, ClockDocument, boil};
use pastry::heat::{CaseAnswer, CaseDocument, cool};
use pastry::ingredient::Shelf;
use pastry::method::clocked;
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// What is asked: a formula in its vessel, or a bare body.
#[derive(ToSchema)]
#[serde(untagged)]
pub enum ClockAsk {
    /// A formula in its vessel, and where it stands.
    Formula(Box<ClockDocument>),
    /// A bare body: its shape, what it is made of, what its faces look at.
    Case(Box<CaseDocument>),
}

/// The answer to either.
#[derive(Serialize, ToSchema)]
#[serde(untagged)]
pub enum ClockReply {
    /// To a formula.
    Formula(Box<ClockAnswer>),
    /// To a bare body.
    Case(CaseAnswer),
}

impl ClockAsk {
    /// Reads either: what names a formula is one.
    ///
    /// # Errors
    /// What is no JSON, or does not fit, field by field.
    pub fn parse(bytes: &[u8]) -> Result<Self, ApiError> {
        let value: Value = read(bytes)?;
        match value.get("formula") {
            Some(_) => parse(bytes).map(|document| ClockAsk::Formula(Box::new(document))),
            None => parse(bytes).map(|document| ClockAsk::Case(Box::new(document))),
        }
    }

    /// Answers it.
    ///
    /// # Errors
    /// Faults, field by field.
    pub fn answer(&self, kitchen: &Shelf) -> Result<ClockReply, Vec<pastry::fault::Fault>> {
        match self {
            ClockAsk::Formula(document) => {
                clocked(document, kitchen).map(|answer| ClockReply::Formula(Box::new(answer)))
            }
            ClockAsk::Case(document) => cool(document).map(ClockReply::Case),
        }
    }
}

impl<S: Send + Sync> FromRequest<S> for ClockAsk {
    type Rejection = ApiError;

    async fn from_request(request: Request, _state: &S) -> Result<Self, ApiError> {
        ClockAsk::parse(&json_of(request).await?)
    }
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(clock)).routes(routes!(boil_down))
}

/// Follows a formula in its vessel from where its school of method leaves it: when it is right for its job, when it has set,
/// what would be sooner, whether it cools fast enough; or a bare body: when a point of it comes to a temperature, or how warm it
/// is after a time. With the spread that the heat transfer has. Places are the kitchen's own, as a probe read them, where nothing
/// else is said of them. Keeps nothing.
#[utoipa::path(post, path = "/clock", tag = "clock", request_body = ClockAsk, responses(
    (status = 200, body = ClockReply, description = "To a formula its clock; to a bare body answers in the order of its marks")
))]
async fn clock(State(state): State<AppState>, mut ask: ClockAsk) -> Result<Json<ClockReply>, ApiError> {
    let shelf = match &mut ask {
        ClockAsk::Formula(document) => {
            if document.learned.is_empty() {
                document.learned = state.learned().await?;
            }
            state.shelf_of([&document.formula]).await?
        }
        ClockAsk::Case(_) => Shelf::catalogue(),
    };
    state.work_out(move || ask.answer(&shelf)).await.map(Json)
}

/// Follows a formula over a ring: the weight at which to stop, the temperature then as high as the kitchen lies, minutes over a
/// small and a wide pan, and whether its egg is safe. Keeps nothing.
#[utoipa::path(post, path = "/clock/boil", tag = "clock", request_body = BoilDocument, responses(
    (status = 200, body = BoilAnswer, description = "When to stop")
))]
async fn boil_down(
    State(state): State<AppState>,
    Body(document): Body<BoilDocument>,
) -> Result<Json<BoilAnswer>, ApiError> {
    let shelf = state.shelf_of([&document.formula]).await?;
    state.work_out(move || boil(&document, &shelf)).await.map(Json)
}
