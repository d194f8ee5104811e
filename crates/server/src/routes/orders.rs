//! Orders: saved with their revisions, and worked out.

use crate::body::Body;
use crate::cupboard::Cupboard;
use crate::error::ApiError;
use crate::kept_routes;
use crate::larder::Larder;
use crate::listed_routes;
use crate::routes::kept::Fit;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::fault::Fault;
use pastry::order::{OrderAnswer, OrderDocument};
use store::noun::{COMPONENT, INGREDIENT};
use store::order::{Order, OrderSummary};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

kept_routes!(
    OrderDocument,
    tag = "orders",
    one = "order",
    path = "/orders",
    save = SaveOrder,
    revision = Order
);
listed_routes!(
    OrderDocument,
    tag = "orders",
    one = "order",
    all = "orders",
    path = "/orders",
    revision = Order,
    listed = OrderSummary
);

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list, create))
        .routes(routes!(read, save))
        .routes(routes!(place))
        .routes(routes!(versions))
        .routes(routes!(read_version))
        .routes(routes!(work_out))
}

impl Fit for OrderDocument {
    /// It is one. What does not stand yet is kept as it is.
    async fn faults(&self, _state: &AppState, _key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        Ok(OrderDocument::faults(self))
    }
}

/// Works an order out.
///
/// # Errors
/// What makes it none.
pub async fn worked_out(state: &AppState, document: OrderDocument) -> Result<OrderAnswer, ApiError> {
    let stacks: Vec<_> = document.cakes.iter().map(|cake| &cake.stack).collect();
    let cupboard = Cupboard::of(state, &stacks).await?;
    let larder = Larder::of(state).await?;
    let used = state.store.uses(COMPONENT, INGREDIENT).await?;
    state
        .work_out(move || {
            let pack = |ingredient: &pastry::ingredient::Ingredient| larder.pack(ingredient);
            let uses = |key: &str| {
                used.get(key).map_or_else(Vec::new, |by| by.iter().map(|own| own.name.clone()).collect())
            };
            pastry::order::order(&document, &cupboard.known(), &pack, &uses)
        })
        .await
}

/// Works an order out: its cakes, what to make, buy and label, what it costs, what is left over. Keeps nothing.
#[utoipa::path(post, path = "/order", tag = "orders", operation_id = "order", request_body = OrderDocument, responses(
    (status = 200, body = OrderAnswer, description = "The order worked out")
))]
async fn work_out(
    State(state): State<AppState>,
    Body(document): Body<OrderDocument>,
) -> Result<Json<OrderAnswer>, ApiError> {
    worked_out(&state, document).await.map(Json)
}
