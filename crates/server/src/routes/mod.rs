//! The interface, one file per noun. Paths here are below `/api`.

pub mod balance;
pub mod components;
pub mod families;
pub mod files;
pub mod health;
pub mod ingredients;
pub mod kitchen;
pub mod predict;

use crate::app::AppState;
use utoipa_axum::router::OpenApiRouter;

/// All routes.
pub fn all() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .merge(health::routes())
        .merge(predict::routes())
        .merge(balance::routes())
        .merge(families::routes())
        .merge(ingredients::routes())
        .merge(files::routes())
        .merge(kitchen::routes())
        .merge(components::routes())
}
