//! Batches while they are made: begun, what happens to them, and how they look then.

use crate::batch_log::{entries, keys_of, shelf_of};
use crate::body::{Asked, Body};
use crate::error::ApiError;
use crate::routes::kept::Fit;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use jiff::Timestamp;
use pastry::batch::fold::counting;
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent, BatchView, look, refused};
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::batch::{Batch, BatchSummary, KeptBatchEvent};
use store::journal::NewEvent;
use store::list::Place;
use store::noun::BATCH;
use store::{By, SaveId, StoreError};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

/// Most events sent at once.
const MOST_AT_ONCE: usize = 500;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_batches, begin_batch))
        .routes(routes!(write_batch))
        .routes(routes!(read_batch))
        .routes(routes!(list_batch_events, add_batch_events))
        .routes(routes!(batch_file))
}

/// A batch, what happened to it and how it looks.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchNow {
    /// As it was begun.
    pub kept: Batch,
    /// Place of the last event that is in the view.
    pub place: i64,
    /// How it looks.
    pub view: BatchView,
    /// What of it is made here and was changed since: the key its lines name it by, and the key that holds it at its version of then. A
    /// formula that is to be as this batch was names it by the second.
    pub held: BTreeMap<String, String>,
    /// Devices whose clocks are ahead of the kitchen's, in words: what happened on them is taken as of when it came here.
    pub clocks: Vec<String>,
}

/// Which batches.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Which {
    /// Only those that are being made.
    #[serde(default)]
    running: bool,
}

/// Batches, the last begun first.
#[utoipa::path(get, path = "/batches", tag = "batches", operation_id = "list_batches", params(Which), responses(
    (status = 200, body = [BatchSummary], description = "Batches")
))]
async fn list_batches(
    State(state): State<AppState>,
    Asked(which): Asked<Which>,
) -> Result<Json<Vec<BatchSummary>>, ApiError> {
    let mut all: Vec<BatchSummary> = state.store.list::<BatchDocument>().await?;
    if which.running {
        let mut running = Vec::new();
        for own in all.into_iter().filter(|own| !own.archived && own.shown.made_at.is_none()) {
            let (entries, _) = entries(&state.store.batch_events(&own.id, 0).await?);
            if !is_closed(&entries) {
                running.push(own);
            }
        }
        all = running;
    }
    Ok(Json(all))
}

/// Begins a batch: the formula at its size with the steps of its method, as they are now. One with the day on which it was made
/// is written in afterwards: nothing of it is open.
#[utoipa::path(
    post, path = "/batches", tag = "batches", operation_id = "begin_batch", request_body = BatchAsk,
    params(Saving), responses((status = 201, body = BatchNow, description = "Begun"))
)]
async fn begin_batch(
    State(state): State<AppState>,
    saving: Saving,
    Body(ask): Body<BatchAsk>,
) -> Result<(StatusCode, Json<BatchNow>), ApiError> {
    let by = saving.by();
    if let Some(before) = begun_before(&state, &ask, &by).await? {
        return Ok((StatusCode::CREATED, Json(before)));
    }
    let document = begun(&state, ask, by.now).await?;
    let kept = state.store.create(&Uuid::now_v7().to_string(), &document, &by).await?;
    if document.made_at.is_some() {
        state.store.place(BATCH, &kept.id, &Place { archived: true, tags: None }, &by).await?;
    }
    let events = state.store.batch_events(&kept.id, 0).await?;
    Ok((StatusCode::CREATED, Json(seen(&state, kept, &events).await?)))
}

/// What the same save began before. Worked out anew it could be another batch: what was learned in between is in its steps.
async fn begun_before(state: &AppState, ask: &BatchAsk, by: &By) -> Result<Option<BatchNow>, ApiError> {
    let Some(kept) = state.store.kept_before::<BatchDocument>(by).await? else { return Ok(None) };
    let own = &kept.document;
    if own.formula.lines.len() != ask.formula.lines.len()
        || own.formula.name != ask.formula.name
        || own.component != ask.component
    {
        return Err(StoreError::SaveIdUsed.into());
    }
    let events = state.store.batch_events(&kept.id, 0).await?;
    seen(state, kept, &events).await.map(Some)
}

async fn begun(state: &AppState, ask: BatchAsk, now: Timestamp) -> Result<BatchDocument, ApiError> {
    let shelf = state.shelf_of([&ask.formula]).await?;
    let learned = state.learned().await?;
    let ask = ask.come_at(now);
    let begun = move || {
        let batch = BatchDocument::begin(ask, &shelf, &learned)?;
        batch.made_too_late(now).map_or(Ok(batch), |fault| Err(vec![fault]))
    };
    state.work_out(begun).await
}

/// A batch that is written in, with what is said of it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchWritten {
    /// What was made, and when.
    pub batch: BatchAsk,
    /// What is said of it, in its order: how it came out, a test.
    #[schema(max_items = 500)]
    pub events: Vec<NewBatchEvent>,
}

/// Writes a batch in with what is said of it: both are kept or neither, so that no batch is left behind of which nothing is said.
#[utoipa::path(
    post, path = "/batches/written", tag = "batches", operation_id = "write_batch", request_body = BatchWritten,
    params(Saving), responses((status = 201, body = BatchNow, description = "Written in"))
)]
async fn write_batch(
    State(state): State<AppState>,
    saving: Saving,
    Body(new): Body<BatchWritten>,
) -> Result<(StatusCode, Json<BatchNow>), ApiError> {
    let by = saving.by();
    let (events, mut faults) = read(new.events);
    if new.batch.made_at.is_none() {
        let words = "what is written in was made at some time: say when";
        faults.push(Fault::new("batch.made_at", FaultCode::WrongValue, words));
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    if let Some(before) = begun_before(&state, &new.batch, &by).await? {
        return Ok((StatusCode::CREATED, Json(before)));
    }
    let document = begun(&state, new.batch, by.now).await?;
    let told = told(&events, by.now);
    let shelf = shelf_of(&state.store, "", &document, told.iter()).await?;
    let (of, said) = (document.clone(), told.clone());
    let faults = state.work_out(move || Ok(refused(&of, &[], &said, &shelf))).await?;
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let to_learn = is_tested(&told).then(|| state.teaching.promise());
    let kept = state.store.write_in(document, events, &Uuid::now_v7().to_string(), &by).await?;
    if let Some(to_learn) = to_learn {
        to_learn.learn(&state.store, &state.desk).await?;
    }
    let events = state.store.batch_events(&kept.id, 0).await?;
    Ok((StatusCode::CREATED, Json(seen(&state, kept, &events).await?)))
}

/// Events as the batch counts them: nothing happened later than it came here.
fn told(events: &[NewEvent<BatchEvent>], now: Timestamp) -> Vec<BatchEntry> {
    let one = |own: &NewEvent<BatchEvent>| BatchEntry {
        id: own.id.as_str().to_owned(),
        at: own.at.min(now),
        device: None,
        event: own.event.clone(),
    };
    events.iter().map(one).collect()
}

/// Whatever is said of a batch that was tested may change what was in it then: it is learned from anew.
fn is_tested(entries: &[BatchEntry]) -> bool {
    entries.iter().any(|own| matches!(own.event, BatchEvent::Tested { .. }))
}

/// One batch: what happened to it, and how it looks.
#[utoipa::path(
    get, path = "/batches/{id}", tag = "batches", operation_id = "read_batch",
    params(("id" = String, Path, description = "Its key")),
    responses((status = 200, body = BatchNow, description = "The batch"))
)]
async fn read_batch(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<BatchNow>, ApiError> {
    let kept = state.store.read::<BatchDocument>(&id, None).await?;
    let events = state.store.batch_events(&id, 0).await?;
    seen(&state, kept, &events).await.map(Json)
}

/// Events behind a place.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct BehindPlace {
    /// Only those behind this place.
    #[serde(default)]
    #[param(minimum = 0)]
    behind: i64,
}

/// What happened to a batch, in the order in which it came here.
#[utoipa::path(
    get, path = "/batches/{id}/events", tag = "batches", operation_id = "list_batch_events",
    params(("id" = String, Path, description = "Key of the batch"), BehindPlace),
    responses((status = 200, body = [KeptBatchEvent], description = "Events"))
)]
async fn list_batch_events(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Asked(asked): Asked<BehindPlace>,
) -> Result<Json<Vec<KeptBatchEvent>>, ApiError> {
    state.store.read::<BatchDocument>(&id, None).await?;
    Ok(Json(state.store.batch_events(&id, asked.behind).await?))
}

/// An event with the id it has on the device that sends it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewBatchEvent {
    /// Made on the device, once for each: sent twice it is there once.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
    /// When it happened, by the clock of the device, RFC 3339.
    #[schema(
        value_type = String, example = "2026-12-05T11:42:00Z",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?(Z|[+-]([01]\d|2[0-3]):[0-5]\d)$"
    )]
    pub at: Timestamp,
    /// What happened.
    pub event: BatchEvent,
}

/// Events to add.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewBatchEvents {
    /// In their order.
    #[schema(max_items = 500)]
    pub events: Vec<NewBatchEvent>,
}

/// Says what happened to a batch. All events are kept or none; one that is kept already changes nothing.
#[utoipa::path(
    post, path = "/batches/{id}/events", tag = "batches", operation_id = "add_batch_events",
    request_body = NewBatchEvents, params(Saving, ("id" = String, Path, description = "Key of the batch")),
    responses((status = 201, body = BatchNow, description = "How the batch looks with them"))
)]
async fn add_batch_events(
    State(state): State<AppState>,
    Path(id): Path<String>,
    saving: Saving,
    Body(new): Body<NewBatchEvents>,
) -> Result<(StatusCode, Json<BatchNow>), ApiError> {
    let kept = state.store.read::<BatchDocument>(&id, None).await?;
    let before = state.store.batch_events(&id, 0).await?;
    let (events, faults) = read(new.events);
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let by = saving.by();
    let told = told(&events, by.now);
    let (was, _) = entries(&before);
    let shelf = shelf_of(&state.store, &id, &kept.document, was.iter().chain(&told)).await?;
    let (document, was_closed) = (kept.document.clone(), is_closed(&was));
    let both: Vec<BatchEntry> = was.iter().chain(&told).cloned().collect();
    let faults = state.work_out(move || Ok(refused(&document, &was, &told, &shelf))).await?;
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    // One that goes on is among those that are made before it is, and one that is made no more only afterwards: whatever
    // stops in between, nothing that is being made is missed.
    let closes = is_closed(&both);
    let to_learn = is_tested(&both).then(|| state.teaching.promise());
    let put_away = |archived: bool| Place { archived, tags: None };
    if was_closed && !closes {
        state.store.place(BATCH, &id, &put_away(false), &by).await?;
    }
    state.store.append(BATCH, &id, &events, &by).await?;
    if closes && !was_closed {
        state.store.place(BATCH, &id, &put_away(true), &by).await?;
    }
    if let Some(to_learn) = to_learn {
        to_learn.learn(&state.store, &state.desk).await?;
    }
    let after = state.store.batch_events(&id, 0).await?;
    Ok((StatusCode::CREATED, Json(seen(&state, kept, &after).await?)))
}

/// A batch with everything that happened to it, as a file that travels.
#[utoipa::path(
    get, path = "/batches/{id}/file", tag = "batches", operation_id = "batch_file",
    params(("id" = String, Path, description = "Key of the batch")),
    responses((status = 200, body = BatchDocument, description = "The batch with its events"))
)]
async fn batch_file(State(state): State<AppState>, Path(id): Path<String>) -> Result<Response, ApiError> {
    let kept = state.store.read::<BatchDocument>(&id, None).await?;
    let (events, _) = entries(&state.store.batch_events(&id, 0).await?);
    let name = "attachment; filename=\"batch.json\"";
    Ok(([(header::CONTENT_DISPOSITION, name)], Json(BatchDocument { events, ..kept.document }))
        .into_response())
}

/// New events as they are kept, and what is wrong with their ids.
fn read(new: Vec<NewBatchEvent>) -> (Vec<NewEvent<BatchEvent>>, Vec<Fault>) {
    let mut faults = Vec::new();
    let mut events = Vec::with_capacity(new.len());
    if new.len() > MOST_AT_ONCE {
        let message = format!("at most {MOST_AT_ONCE} at once, not {}", new.len());
        faults.push(Fault::new("events", FaultCode::TooMany, message));
    }
    for (at, own) in new.into_iter().enumerate() {
        match SaveId::read(&own.id) {
            Some(id) => events.push(NewEvent { id, at: own.at, event: own.event }),
            None => {
                let message = "an id has 8 to 64 letters, digits or hyphens: make a new one for each";
                faults.push(Fault::new(format!("events.{at}.id"), FaultCode::BadSaveId, message));
            }
        }
    }
    (events, faults)
}

fn is_closed(entries: &[BatchEntry]) -> bool {
    counting(entries).iter().any(|own| matches!(own.event, BatchEvent::Closed {}))
}

async fn seen(state: &AppState, kept: Batch, events: &[KeptBatchEvent]) -> Result<BatchNow, ApiError> {
    let (entries, clocks) = entries(events);
    let shelf = shelf_of(&state.store, &kept.id, &kept.document, entries.iter()).await?;
    let held = state.store.held_then(&kept.id, keys_of(&kept.document, entries.iter())).await?;
    let document = kept.document.clone();
    let mut view = state.work_out(move || look(&document, &entries, &shelf)).await?;
    // What is in the bowl is asked about by itself, too: by a rescue, a test, a new formula of it.
    for line in &mut view.contents.lines {
        if let Some(then) = held.get(&line.ingredient) {
            line.ingredient.clone_from(then);
        }
    }
    Ok(BatchNow { place: events.last().map_or(0, |own| own.place), kept, view, held, clocks })
}

impl Fit for BatchDocument {
    async fn faults(&self, state: &AppState, key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        let shelf = shelf_of(&state.store, key.unwrap_or_default(), self, self.events.iter()).await?;
        Ok(BatchDocument::faults(self, &shelf))
    }
}
