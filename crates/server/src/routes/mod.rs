//! The interface, one file per noun. Paths here are below `/api`.

pub mod audit;
pub mod balance;
pub mod batch_end;
pub mod batches;
pub mod clock;
pub mod components;
pub mod devices;
pub mod families;
pub mod files;
pub mod health;
pub mod ingredients;
pub mod kept;
pub mod kitchen;
pub mod learned;
pub mod live;
pub mod log;
pub mod log_files;
pub mod measured;
pub mod methods;
pub mod orders;
pub mod pictures;
pub mod planning;
pub mod plans;
pub mod predict;
pub mod recipes;
pub mod rescue;
pub mod rooms;
pub mod scale;
pub mod stacks;
pub mod trainer;
pub mod words;

use crate::state::AppState;
use utoipa_axum::router::OpenApiRouter;

/// All routes.
pub fn all() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .merge(health::routes())
        .merge(audit::routes())
        .merge(predict::routes())
        .merge(balance::routes())
        .merge(rescue::routes())
        .merge(scale::routes())
        .merge(clock::routes())
        .merge(methods::routes())
        .merge(stacks::routes())
        .merge(orders::routes())
        .merge(rooms::routes())
        .merge(plans::routes())
        .merge(planning::routes())
        .merge(batches::routes())
        .merge(batch_end::routes())
        .merge(pictures::routes())
        .merge(log::routes())
        .merge(log_files::routes())
        .merge(learned::routes())
        .merge(measured::routes())
        .merge(trainer::routes())
        .merge(recipes::routes())
        .merge(families::routes())
        .merge(words::routes())
        .merge(ingredients::routes())
        .merge(files::routes())
        .merge(kitchen::routes())
        .merge(devices::routes())
        .merge(live::routes())
        .merge(components::routes())
}
