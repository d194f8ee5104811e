//! The stream of what happens: what was written, what the devices show. A page that was away goes on where it was.

use crate::body::Asked;
use crate::error::ApiError;
use crate::live::DevicesShow;
use crate::state::AppState;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::sse::{Event, KeepAlive, KeepAliveStream, Sse};
use serde::{Deserialize, Serialize};
use std::convert::Infallible;
use std::time::Duration;
use store::audit::ChangedThing;
use tokio::sync::mpsc;
use tokio_stream::wrappers::ReceiverStream;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// So often a word goes out where nothing happens, so that both sides know of each other.
const ALIVE: Duration = Duration::from_secs(10);
/// Words that wait for a page that reads slowly; the next word waits for it.
const WAITING: usize = 4;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(live))
}

/// What was written, told to pages as `event: written`; its id is the last line of the audit that is in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WrittenWord {
    /// Everything somebody wrote since the word before, each once.
    pub changed: Vec<ChangedThing>,
    /// The kitchen's epoch then, as the header of every answer has it.
    pub epoch: String,
}

/// One of the two words of the stream.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(untagged)]
pub enum LiveWord {
    /// `event: written`.
    Written(WrittenWord),
    /// `event: devices`.
    Devices(DevicesShow),
}

/// From where on.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct From {
    /// Id of the last word that was heard; as the header Last-Event-ID, for a page that begins anew.
    #[param(minimum = 0)]
    after: Option<i64>,
}

/// What happens, as server-sent events (WHATWG HTML, section 9.2): `written` and `devices`. With `Last-Event-ID` or `after` it
/// begins with what was written since.
#[utoipa::path(
    get, path = "/live", tag = "live", operation_id = "live", params(From),
    responses((status = 200, body = LiveWord, content_type = "text/event-stream", description = "The stream"))
)]
async fn live(
    State(state): State<AppState>,
    headers: HeaderMap,
    Asked(from): Asked<From>,
) -> Result<Sse<KeepAliveStream<Words>>, ApiError> {
    let last =
        headers.get("last-event-id").and_then(|own| own.to_str().ok()).and_then(|own| own.parse().ok());
    let begun = state.store.last_line().await?;
    // An id that is ahead is of another kitchen: it begins with now.
    let after = last.or(from.after).filter(|own| (0..=begun).contains(own)).unwrap_or(begun);
    let (say, said) = mpsc::channel(WAITING);
    tokio::spawn(tell(state, after, say));
    Ok(Sse::new(ReceiverStream::new(said)).keep_alive(KeepAlive::new().interval(ALIVE)))
}

type Words = ReceiverStream<Result<Event, Infallible>>;

async fn tell(state: AppState, mut after: i64, say: mpsc::Sender<Result<Event, Infallible>>) {
    let mut written = state.live.written();
    let mut devices = state.live.devices();
    let mut stopped = state.live.stopped();
    // The first word of each goes out at once: a page knows then that it is heard.
    written.mark_changed();
    devices.mark_changed();
    let mut first = true;
    loop {
        let event = tokio::select! {
            () = say.closed() => return,
            () = async { let _ = stopped.wait_for(|stop| *stop).await; } => return,
            moved = written.changed() => {
                if moved.is_err() { return }
                let epoch = format!("{}-{}", state.begun_ms, state.store.saves());
                let (last, changed) = match state.store.changed_since(after).await {
                    Ok(told) => told,
                    Err(error) => {
                        tracing::warn!(%error, "what was written could not be told");
                        return;
                    }
                };
                if changed.is_empty() && !std::mem::take(&mut first) { continue }
                first = false;
                after = last;
                Event::default().event("written").id(last.to_string()).json_data(WrittenWord { changed, epoch })
            }
            moved = devices.changed() => {
                if moved.is_err() { return }
                let text = devices.borrow_and_update().clone();
                Ok(Event::default().event("devices").data(&*text))
            }
        };
        let Ok(event) = event else { return };
        if say.send(Ok(event)).await.is_err() {
            return;
        }
    }
}
