//! Orders: saved with their revisions, and worked out.

use crate::app::AppState;
use crate::body::Body;
use crate::cupboard::Cupboard;
use crate::error::{ApiError, Problem};
use crate::larder::Larder;
use crate::saving::Saving;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use jiff::Timestamp;
use pastry::fault::Fault;
use pastry::order::{OrderAnswer, OrderDocument};
use serde::Deserialize;
use store::StoreError;
use store::kept::RevisionSummary;
use store::orders::{Order, OrderSummary};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

/// A document to save, and the revision it started from.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveOrder {
    /// The order.
    pub document: OrderDocument,
    /// The revision the change started from; when another was saved since, nothing is overwritten.
    pub based_on_revision: i64,
}

/// Where an order stands in the list.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArchiveOrder {
    /// Put away.
    pub archived: bool,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_orders, create_order))
        .routes(routes!(read_order, save_order))
        .routes(routes!(archive_order))
        .routes(routes!(list_order_revisions))
        .routes(routes!(read_order_revision))
        .routes(routes!(order))
}

/// An order fit to be kept: it has a name, and is one. What does not stand yet is kept as it is.
fn fit(document: &OrderDocument) -> Result<(), ApiError> {
    let mut faults = document.faults();
    if document.name.trim().is_empty() {
        faults.insert(0, Fault::new("name", "no_name", "it has no name yet: write one to save it"));
    }
    if faults.is_empty() {
        return Ok(());
    }
    for fault in &mut faults {
        fault.field = format!("document.{}", fault.field);
    }
    Err(ApiError::Faults(faults))
}

/// All orders, the next to be eaten first.
#[utoipa::path(get, path = "/orders", tag = "orders", responses(
    (status = 200, body = [OrderSummary], description = "All orders")
))]
async fn list_orders(State(state): State<AppState>) -> Result<Json<Vec<OrderSummary>>, ApiError> {
    Ok(Json(state.store.orders().await?))
}

/// Saves an order as a new one.
#[utoipa::path(post, path = "/orders", tag = "orders", request_body = OrderDocument, params(Saving), responses(
    (status = 201, body = Order, description = "Saved, at revision 1"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
))]
async fn create_order(
    State(state): State<AppState>,
    saving: Saving,
    Body(document): Body<OrderDocument>,
) -> Result<(StatusCode, Json<Order>), ApiError> {
    fit(&document)?;
    let kept = state.store.create_order(Uuid::now_v7(), &document, saving.id(), Timestamp::now()).await?;
    Ok((StatusCode::CREATED, Json(kept)))
}

/// An order at its newest revision.
#[utoipa::path(get, path = "/orders/{id}", tag = "orders",
    params(("id" = String, Path, description = "Key of the order")),
    responses(
        (status = 200, body = Order, description = "The order"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such order")
    ))]
async fn read_order(State(state): State<AppState>, Path(id): Path<String>) -> Result<Json<Order>, ApiError> {
    Ok(Json(state.store.order(&id, None).await?))
}

/// Saves a new revision of an order on top of the one it started from.
#[utoipa::path(put, path = "/orders/{id}", tag = "orders", request_body = SaveOrder,
    params(Saving, ("id" = String, Path, description = "Key of the order")),
    responses(
        (status = 200, body = Order, description = "Saved, with its new revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such order"),
        (status = 409, body = Problem, content_type = "application/problem+json", description = "Saved in between"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn save_order(
    State(state): State<AppState>,
    Path(id): Path<String>,
    saving: Saving,
    Body(save): Body<SaveOrder>,
) -> Result<Json<Order>, ApiError> {
    fit(&save.document)?;
    let (document, based_on) = (&save.document, save.based_on_revision);
    Ok(Json(state.store.save_order(&id, document, based_on, saving.id(), Timestamp::now()).await?))
}

/// Puts an order away, or takes it out again. Makes no revision.
#[utoipa::path(put, path = "/orders/{id}/place", tag = "orders", request_body = ArchiveOrder,
    params(("id" = String, Path, description = "Key of the order")),
    responses(
        (status = 204, description = "Done"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such order")
    ))]
async fn archive_order(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Body(place): Body<ArchiveOrder>,
) -> Result<StatusCode, ApiError> {
    state.store.archive_order(&id, place.archived).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// All revisions of an order, newest first.
#[utoipa::path(get, path = "/orders/{id}/revisions", tag = "orders",
    params(("id" = String, Path, description = "Key of the order")),
    responses(
        (status = 200, body = [RevisionSummary], description = "All revisions"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such order")
    ))]
async fn list_order_revisions(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<Vec<RevisionSummary>>, ApiError> {
    Ok(Json(state.store.order_revisions(&id).await?))
}

/// One revision of an order.
#[utoipa::path(get, path = "/orders/{id}/revisions/{revision}", tag = "orders",
    params(
        ("id" = String, Path, description = "Key of the order"),
        ("revision" = i64, Path, description = "Number of the revision")
    ),
    responses(
        (status = 200, body = Order, description = "That revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such revision")
    ))]
async fn read_order_revision(
    State(state): State<AppState>,
    Path((id, revision)): Path<(String, String)>,
) -> Result<Json<Order>, ApiError> {
    let number = revision
        .parse::<i64>()
        .map_err(|_| StoreError::NotFound { noun: "revision", key: revision.chars().take(20).collect() })?;
    Ok(Json(state.store.order(&id, Some(number)).await?))
}

/// Works an order out.
///
/// # Errors
/// What makes it none.
pub async fn worked_out(state: &AppState, document: OrderDocument) -> Result<OrderAnswer, ApiError> {
    let stacks: Vec<_> = document.cakes.iter().map(|cake| &cake.stack).collect();
    let cupboard = Cupboard::of(state, &stacks).await?;
    let larder = Larder::of(state).await?;
    let used = state.store.used_by_name().await?;
    state
        .work_out(move || {
            let pack = |ingredient: &pastry::ingredient::Ingredient| larder.pack(ingredient);
            let uses = |key: &str| used.get(key).cloned().unwrap_or_default();
            pastry::order::order(&document, &cupboard.known(), &pack, &uses)
        })
        .await
}

/// Works an order out: its cakes, what to make, buy and label, what it costs, what is left over. Keeps nothing.
#[utoipa::path(post, path = "/order", tag = "orders", request_body = OrderDocument, responses(
    (status = 200, body = OrderAnswer, description = "The order worked out"),
    (status = 400, body = Problem, content_type = "application/problem+json", description = "Not JSON"),
    (status = 413, body = Problem, content_type = "application/problem+json", description = "Too large"),
    (status = 415, body = Problem, content_type = "application/problem+json", description = "Not sent as JSON"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "No order, or fields of the wrong kind")
))]
async fn order(
    State(state): State<AppState>,
    Body(document): Body<OrderDocument>,
) -> Result<Json<OrderAnswer>, ApiError> {
    worked_out(&state, document).await.map(Json)
}
