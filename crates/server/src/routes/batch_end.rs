//! Batches beside their events: how warm they are, what their tape says, what is left over.

use crate::batch_log::{entries, shelf_of};
use crate::body::Asked;
use crate::error::ApiError;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use jiff::civil::Date;
use jiff::{SignedDuration, Timestamp};
use pastry::batch::arrival::{Arrival, WarmthPoint, arrival, since};
use pastry::batch::bowls::{OwnBowl, own_bowls};
use pastry::batch::end::tape;
use pastry::batch::fold::fold;
use pastry::batch::{BatchDocument, BatchEntry};
use pastry::order::label::TapeLabel;
use serde::{Deserialize, Serialize};
use std::time::Duration;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A probe is looked back at so far, where no step was begun.
const LOOKS_BACK: Duration = Duration::from_secs(4 * 3600);

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(batch_tape))
        .routes(routes!(batch_warmth))
        .routes(routes!(list_leftovers))
        .routes(routes!(list_bowls))
}

/// On which day.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct OnDay {
    /// The day it is made, as the wall of the pastry room has it.
    #[param(value_type = String, example = "2026-12-05", pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
    on: Date,
}

/// The tape of a batch: what is really in it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchTape {
    /// The label.
    pub label: TapeLabel,
    /// The same as lines for a printer of tape.
    pub text: String,
}

/// The tape on the lid of a batch, by what is really in it.
#[utoipa::path(
    get, path = "/batches/{id}/tape", tag = "batches", operation_id = "batch_tape",
    params(("id" = String, Path, description = "Key of the batch"), OnDay),
    responses((status = 200, body = BatchTape, description = "The tape"))
)]
async fn batch_tape(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Asked(day): Asked<OnDay>,
) -> Result<Json<BatchTape>, ApiError> {
    let kept = state.store.read::<BatchDocument>(&id, None).await?;
    let (entries, _) = entries(&state.store.batch_events(&id, 0).await?);
    let shelf = shelf_of(&state.store, &id, &kept.document, entries.iter()).await?;
    let label = state.work_out(move || tape(&kept.document, &entries, &shelf, day.on)).await?;
    Ok(Json(BatchTape { text: label.text(), label }))
}

/// Which probe.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct ByProbe {
    /// Its name among the devices of the kitchen.
    #[param(max_length = 60)]
    probe: String,
}

/// What a probe showed of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchWarmth {
    /// What it showed, from now on, the first first.
    pub reads: Vec<WarmthPoint>,
    /// Where the step that comes next wants it, °C, from and to.
    pub wanted_c: Option<[f64; 2]>,
    /// When it will be there.
    pub arrival: Option<Arrival>,
}

/// What a probe has shown since the step that comes next was begun, and when it will be as that step wants it.
#[utoipa::path(
    get, path = "/batches/{id}/warmth", tag = "batches", operation_id = "batch_warmth",
    params(("id" = String, Path, description = "Key of the batch"), ByProbe),
    responses((status = 200, body = BatchWarmth, description = "The way of its temperature"))
)]
async fn batch_warmth(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Asked(by): Asked<ByProbe>,
) -> Result<Json<BatchWarmth>, ApiError> {
    let kept = state.store.read::<BatchDocument>(&id, None).await?;
    let (entries, _) = entries(&state.store.batch_events(&id, 0).await?);
    let batch = kept.document;
    let folded = fold(&batch, &entries);
    let step = folded.steps.iter().position(|own| own.done.is_none() && own.left_out.is_none());
    let wanted_c = step.and_then(|at| batch.steps[at].temperature_c);
    let now = Timestamp::now();
    let looks_back = step.and_then(|at| since(&folded, at)).map_or(LOOKS_BACK, |begun| {
        Duration::try_from(now.duration_since(begun)).unwrap_or_default().min(LOOKS_BACK)
    });
    let past = state.hub.past(&by.probe, looks_back);
    let reads: Vec<(Timestamp, f64)> = past
        .iter()
        .filter_map(|(ago, c)| Some((now.checked_sub(SignedDuration::try_from(*ago).ok()?).ok()?, *c)))
        .collect();
    let room_c = batch.formula.work.room_temperature_c.celsius();
    Ok(Json(BatchWarmth {
        reads: past.iter().map(|(ago, c)| WarmthPoint { min: -ago.as_secs_f64() / 60.0, c: *c }).collect(),
        wanted_c,
        arrival: wanted_c.and_then(|band| arrival(&reads, band, room_c)),
    }))
}

/// Something that is left over of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchLeftover {
    /// Key of the batch.
    pub batch: String,
    /// What it is.
    pub name: String,
    /// How much, g.
    pub grams: f64,
    /// Where it stands.
    pub stands_in: Option<String>,
    /// When it was made, RFC 3339.
    pub made: String,
    /// Days it keeps in the cold, from that day on.
    pub keeps_days: i64,
    /// Allergens.
    pub allergens: Vec<String>,
    /// What is not known of what is in it.
    pub incomplete: Vec<String>,
}

/// What is left over of batches and not used up, what goes off first first.
#[utoipa::path(get, path = "/leftovers", tag = "batches", operation_id = "list_leftovers", responses(
    (status = 200, body = [BatchLeftover], description = "What is left over")
))]
async fn list_leftovers(State(state): State<AppState>) -> Result<Json<Vec<BatchLeftover>>, ApiError> {
    let mut all = Vec::new();
    for id in state.store.batches_with("left_over").await? {
        let kept = state.store.read::<BatchDocument>(&id, None).await?;
        let (entries, _) = entries(&state.store.batch_events(&id, 0).await?);
        let folded = fold(&kept.document, &entries);
        let Some(grams) = folded.left_over_g.filter(|grams| *grams > 0.0) else { continue };
        let made = folded.closed.or(folded.begun).unwrap_or(Timestamp::UNIX_EPOCH);
        let shelf = shelf_of(&state.store, &id, &kept.document, entries.iter()).await?;
        let name = kept.document.name.clone();
        // Days count alike on any day: which it is, the device knows.
        let label = tape(&kept.document, &entries, &shelf, Date::MIN);
        let (keeps_days, allergens, incomplete) = match label {
            Ok(own) => (own.keeps_days, own.allergens, own.incomplete),
            Err(_) => (0, Vec::new(), vec!["What is in it cannot be read any more.".to_owned()]),
        };
        let made = made.to_string();
        all.push(BatchLeftover {
            batch: id,
            name,
            grams,
            stands_in: folded.stands_in,
            made,
            keeps_days,
            allergens,
            incomplete,
        });
    }
    let goes_off = |own: &BatchLeftover| {
        let made = own.made.parse::<Timestamp>().unwrap_or(Timestamp::UNIX_EPOCH);
        made.saturating_add(SignedDuration::from_hours(24 * own.keeps_days)).unwrap_or(made)
    };
    all.sort_by_key(goes_off);
    Ok(Json(all))
}

/// The cook's own bowls, as they were weighed in any batch.
#[utoipa::path(get, path = "/bowls", tag = "batches", operation_id = "list_bowls", responses(
    (status = 200, body = [OwnBowl], description = "Bowls, by name")
))]
async fn list_bowls(State(state): State<AppState>) -> Result<Json<Vec<OwnBowl>>, ApiError> {
    let mut all: Vec<Vec<BatchEntry>> = Vec::new();
    for id in state.store.batches_with("tared").await? {
        all.push(entries(&state.store.batch_events(&id, 0).await?).0);
    }
    Ok(Json(own_bowls(all.iter().map(Vec::as_slice))))
}
