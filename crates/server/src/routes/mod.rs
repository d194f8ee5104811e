//! The interface, one file per noun. Paths here are below `/api`.

pub mod components;
pub mod health;
pub mod jobs;
pub mod kitchen;
pub mod pantry;
pub mod predict;

use crate::app::AppState;
use utoipa_axum::router::OpenApiRouter;

/// All routes.
pub fn all() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .merge(health::routes())
        .merge(predict::routes())
        .merge(jobs::routes())
        .merge(pantry::routes())
        .merge(kitchen::routes())
        .merge(components::routes())
}
