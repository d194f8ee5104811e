//! Plans that are kept, with all their versions, what the cooks say of their steps, and the calendar of them.

use crate::body::{Asked, Body};
use crate::calendar::calendar;
use crate::error::ApiError;
use crate::kept_routes;
use crate::routes::kept::Fit;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use pastry::day::report::{of_steps, supposed};
use pastry::day::{DayView, PlanDocument, Report, view};
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use store::SaveId;
use store::journal::NewEvent;
use store::noun::PLAN;
use store::plan::{KeptReport, Plan, THE_PLAN};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

kept_routes!(PlanDocument, tag = "plans", one = "plan", path = "/plans", save = SavePlan, revision = Plan);

/// Most reports sent at once.
const MOST_REPORTS: usize = 500;
/// Earlier versions of which what is no more is told to calendars.
const VERSIONS_TOLD: usize = 40;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_plan, create))
        .routes(routes!(save))
        .routes(routes!(versions))
        .routes(routes!(read_version))
        .routes(routes!(list_reports, add_reports))
        .routes(routes!(read_calendar))
}

impl Fit for PlanDocument {
    /// It is one, and everything in it has its time.
    async fn faults(&self, _state: &AppState, _key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        let mut faults = PlanDocument::faults(self);
        if faults.is_empty() && !self.is_whole() {
            let message = "a step has no time yet: plan it before it is kept";
            faults.push(Fault::new("start", FaultCode::OutOfRange, message));
        }
        Ok(faults)
    }

    fn new_key(&self) -> String {
        THE_PLAN.to_owned()
    }
}

/// The plan that stands, how it looks, and what was said of its steps.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlanNow {
    /// As it is kept; none while nothing is planned.
    pub kept: Option<Plan>,
    /// How it looks.
    pub view: Option<DayView>,
    /// What was said of its steps, in the order it came; what was said of other plans is left out.
    pub reports: Vec<KeptReport>,
    /// Keys of steps nothing was said of that must be done: what comes after them was begun.
    pub supposed: Vec<String>,
}

/// The plan that stands.
#[utoipa::path(get, path = "/plans", tag = "plans", responses(
    (status = 200, body = PlanNow, description = "The plan")
))]
async fn read_plan(State(state): State<AppState>) -> Result<Json<PlanNow>, ApiError> {
    let Some(kept) = state.store.plan().await? else {
        return Ok(Json(PlanNow { kept: None, view: None, reports: Vec::new(), supposed: Vec::new() }));
    };
    let document = kept.document.clone();
    let mut reports = state.store.reports(THE_PLAN, 0).await?;
    let said: Vec<Report> = reports.iter().map(|own| own.event.clone()).collect();
    let looked =
        state.work_out(move || Ok((view(&document), of_steps(&document, &said), supposed(&document, &said))));
    let (seen, of, supposed) = looked.await?;
    let mut of = of.into_iter();
    reports.retain(|_| of.next().flatten().is_some());
    Ok(Json(PlanNow { kept: Some(kept), view: Some(seen), reports, supposed }))
}

/// Reports behind a place.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Behind {
    /// Only those behind this place.
    #[serde(default)]
    #[param(minimum = 0)]
    behind: i64,
}

/// What was said of the steps of a plan.
#[utoipa::path(
    get, path = "/plans/{id}/reports", tag = "plans", operation_id = "list_reports",
    params(("id" = String, Path, description = "Key of the plan"), Behind),
    responses((status = 200, body = [KeptReport], description = "In the order it came"))
)]
async fn list_reports(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Asked(asked): Asked<Behind>,
) -> Result<Json<Vec<KeptReport>>, ApiError> {
    state.store.read::<PlanDocument>(&id, None).await?;
    Ok(Json(state.store.reports(&id, asked.behind).await?))
}

/// A report with the id it has on the device that sends it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewReport {
    /// Made on the device, once for each: sent twice it is there once.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
    /// What is said.
    pub report: Report,
}

/// Reports to add.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewReports {
    /// In their order.
    #[schema(max_items = 500)]
    pub reports: Vec<NewReport>,
}

/// Says of steps that they are begun or done, or takes that back. All are kept or none.
#[utoipa::path(
    post, path = "/plans/{id}/reports", tag = "plans", operation_id = "add_reports", request_body = NewReports,
    params(Saving, ("id" = String, Path, description = "Key of the plan")),
    responses((status = 201, body = [KeptReport], description = "As they are kept"))
)]
async fn add_reports(
    State(state): State<AppState>,
    Path(id): Path<String>,
    saving: Saving,
    Body(new): Body<NewReports>,
) -> Result<Response, ApiError> {
    let plan = state.store.read::<PlanDocument>(&id, None).await?.document;
    let keys = plan.step_keys();
    let mut faults = Vec::new();
    let mut events = Vec::new();
    if new.reports.len() > MOST_REPORTS {
        let message = format!("at most {MOST_REPORTS} at once, not {}", new.reports.len());
        faults.push(Fault::new("reports", FaultCode::TooMany, message));
    }
    for (at, own) in new.reports.into_iter().enumerate() {
        if !keys.contains(&own.report.step) {
            let message = "this step is not in the plan any more: look at the plan again";
            faults.push(Fault::new(format!("reports.{at}.report.step"), FaultCode::OutOfRange, message));
        }
        match SaveId::read(&own.id) {
            Some(id) => events.push(NewEvent { id, at: own.report.at, event: own.report }),
            None => {
                let message = "an id has 8 to 64 letters, digits or hyphens: make a new one for each";
                faults.push(Fault::new(format!("reports.{at}.id"), FaultCode::BadSaveId, message));
            }
        }
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let kept: Vec<KeptReport> = state.store.append(PLAN, &id, &events, &saving.by()).await?;
    Ok((axum::http::StatusCode::CREATED, Json(kept)).into_response())
}

/// The plan as a calendar (RFC 5545), to be read once or looked at again and again: the same steps keep their ids, what is no
/// more is cancelled.
#[utoipa::path(
    get, path = "/plans/{id}/calendar", tag = "plans", operation_id = "read_calendar",
    params(("id" = String, Path, description = "Key of the plan")),
    responses((status = 200, body = String, content_type = "text/calendar", description = "The calendar"))
)]
async fn read_calendar(State(state): State<AppState>, Path(id): Path<String>) -> Result<Response, ApiError> {
    let mut history = state.store.history::<PlanDocument>(&id).await?;
    history.truncate(VERSIONS_TOLD);
    let text = state.work_out(move || Ok(calendar(&history))).await?;
    let name = "attachment; filename=\"plan.ics\"";
    Ok(([(header::CONTENT_TYPE, "text/calendar; charset=utf-8"), (header::CONTENT_DISPOSITION, name)], text)
        .into_response())
}
