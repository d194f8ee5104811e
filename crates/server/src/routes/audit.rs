//! What was done lately: who wrote what and when.

use crate::body::Asked;
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use store::audit::{AuditLine, MOST_LINES, What};
use store::noun::NOUNS;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// How much of it.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct HowMuch {
    /// Most lines, at most 500.
    #[serde(default = "a_screen")]
    #[param(minimum = 1, maximum = 500, default = 50)]
    most: u32,
}

fn a_screen() -> u32 {
    50
}

/// One thing that was done.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Done {
    /// When, RFC 3339.
    pub at: String,
    /// From which device, if that said so.
    pub device: Option<String>,
    /// What was done, in words.
    pub words: String,
    /// Kind of the thing.
    pub noun: String,
    /// Its key.
    pub key: String,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(list_audit))
}

/// What was done last, the newest first.
#[utoipa::path(get, path = "/audit", tag = "kitchen", params(HowMuch), responses(
    (status = 200, body = [Done], description = "Lines of the audit")
))]
async fn list_audit(
    State(state): State<AppState>,
    Asked(how): Asked<HowMuch>,
) -> Result<Json<Vec<Done>>, ApiError> {
    if !(1..=MOST_LINES).contains(&how.most) {
        let message = format!("{} lines: ask for 1 to {MOST_LINES} at once", how.most);
        return Err(ApiError::Faults(vec![Fault::new("most", FaultCode::OutOfRange, message)]));
    }
    let lines = state.store.audit(how.most).await?;
    let shelf = state.store.whole_shelf().await?;
    let done = lines.into_iter().map(|line| {
        let ingredient = || shelf.find(&line.key).map(|found| found.name.clone());
        let name = line.name.clone().or_else(ingredient).unwrap_or_else(|| line.key.clone());
        Done { words: words(&line, &name), at: line.at, device: line.device, noun: line.noun, key: line.key }
    });
    Ok(Json(done.collect()))
}

fn words(line: &AuditLine, name: &str) -> String {
    let said = NOUNS.iter().find(|noun| noun.word == line.noun).map_or(line.noun.as_str(), |noun| noun.said);
    match (line.what, line.noun.as_str(), line.revision) {
        (What::Saved, "kitchen", _) => "the kitchen's own settings".to_owned(),
        (What::Saved, "devices", _) => "the list of devices".to_owned(),
        (What::Saved, "pantry", _) => format!("price and weights of {name}"),
        (_, "learning", _) => "what was learned: an offset begins anew".to_owned(),
        (_, "trainer", _) => format!("an answer at the trainer: {}", line.key),
        (What::Saved, _, Some(1)) => format!("a new {said}: {name}"),
        (What::Saved, _, Some(revision)) => format!("version {revision} of the {said} {name}"),
        (What::Saved, _, None) => format!("the {said} {name}"),
        (What::Placed, ..) => format!("tags or place of the {said} {name}"),
        (What::Happened, ..) => format!("something that happened to the {said} {name}"),
    }
}
