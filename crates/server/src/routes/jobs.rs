//! The jobs a cream can have, with their usual geometry.

use crate::app::AppState;
use axum::Json;
use pastry::job::Job;
use pastry::job::document::history_word;
use pastry::job::geometry::Measured;
use pastry::rheology::History;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A history in which a job is done.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobHistory {
    /// Which.
    pub history: History,
    /// In kitchen words.
    pub words: &'static str,
}

/// A job as it usually is.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobKind {
    /// The job with its usual geometry.
    pub job: Job,
    /// Its verb: drip, coat, mask, fill.
    pub verb: &'static str,
    /// What is compared with its window.
    pub measured: Measured,
    /// Histories in which it is done, the usual one first.
    pub histories: Vec<JobHistory>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(list_jobs))
}

/// All jobs.
#[utoipa::path(get, path = "/jobs", tag = "predict", responses(
    (status = 200, body = [JobKind], description = "All jobs with their usual geometry")
))]
async fn list_jobs() -> Json<Vec<JobKind>> {
    let kinds = Job::usual().into_iter().map(|job| JobKind {
        verb: job.verb(),
        measured: job.measured(),
        histories: job
            .histories()
            .iter()
            .map(|history| JobHistory { history: *history, words: history_word(*history) })
            .collect(),
        job,
    });
    Json(kinds.collect())
}
