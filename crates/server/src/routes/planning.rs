//! Orders planned, and plans bent: asked, looked at, kept nowhere.

use crate::body::Body;
use crate::error::ApiError;
use crate::planner::{Gathered, PlanReply, StandingPlan, Told, Wanted, planned};
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, header};
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::response::{IntoResponse, Response};
use jiff::civil::DateTime;
use pastry::day::odds::{OddsAnswer, OddsAsk, odds};
use pastry::day::quicker::{QuickerAnswer, order_of, quicker_ways};
use pastry::day::sheet::{RunSheet, run_sheets};
use pastry::day::{
    BendAsk, Bent, Cure, CureAsk, DayView, KitchenDocument, PlanDocument, Report, Sharing, Taken, bend,
    cures, eaten_before, take, view,
};
use pastry::fault::{Fault, FaultCode};
use pastry::order::OrderDocument;
use pastry::zone::Zone;
use plan::search::Budget;
use serde::Deserialize;
use std::convert::Infallible;
use tokio::sync::mpsc;
use tokio_stream::StreamExt;
use tokio_stream::wrappers::UnboundedReceiverStream;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// What to plan.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlanAsk {
    /// Keys of orders that are kept here.
    #[serde(default)]
    #[schema(max_items = 60)]
    pub orders: Vec<String>,
    /// Orders that are not, with the formulas they need in them.
    #[serde(default)]
    #[schema(max_items = 60)]
    pub documents: Vec<OrderDocument>,
    /// In this kitchen; in the room that is kept here when none is given.
    #[serde(default)]
    pub kitchen: Option<KitchenDocument>,
    /// The zone of its clock; that of the kitchen's settings when none is given.
    #[serde(default)]
    pub zone: Option<Zone>,
    /// Nothing begins before this, on the wall.
    #[schema(
        value_type = String, example = "2026-12-01T07:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub from: DateTime,
    /// The plan that stands, with what was begun and done of it: that stays, and only the rest is planned.
    #[serde(default)]
    pub standing: Option<StandingPlan>,
    /// Seed of the search.
    #[serde(default)]
    #[schema(maximum = 1000000)]
    pub seed: Option<u64>,
    /// Look four times as long.
    #[serde(default)]
    pub longer: bool,
}

/// Whether an order can be taken into a plan that stands.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakeAsk {
    /// The plan that stands.
    pub plan: PlanDocument,
    /// What was begun and done of it.
    #[serde(default)]
    #[schema(max_items = 5000)]
    pub reports: Vec<Report>,
    /// Now, on the wall.
    #[schema(
        value_type = String, example = "2026-12-01T09:30:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub now: DateTime,
    /// Key of the order, where it is kept.
    #[serde(default)]
    #[schema(max_length = 80)]
    pub order: Option<String>,
    /// The order, where it is not.
    #[serde(default)]
    pub document: Option<OrderDocument>,
}

/// What would make a wait of a plan shorter.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct QuickerAsk {
    /// The plan.
    pub plan: PlanDocument,
    /// Number of the wait.
    pub wait: usize,
    /// It need not be shorter than this, min: of more gelatin the least that is enough is told.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 44640)]
    pub enough_min: Option<i32>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(plan_orders))
        .routes(routes!(look_at_plan))
        .routes(routes!(bend_plan))
        .routes(routes!(cures_of_day))
        .routes(routes!(take_order))
        .routes(routes!(odds_of_plan))
        .routes(routes!(quicker_wait))
        .routes(routes!(sheets_of_plan))
}

async fn wanted(
    state: &AppState,
    keys: &[String],
    documents: Vec<OrderDocument>,
) -> Result<Vec<Wanted>, ApiError> {
    let mut all = Vec::new();
    for key in keys {
        all.push(Wanted::from(state.store.read::<OrderDocument>(key, None).await?));
    }
    all.extend(documents.into_iter().map(|document| Wanted { document, kept: None }));
    Ok(all)
}

fn budget(ask: &PlanAsk) -> Budget {
    let budget = if ask.longer { Budget::LONGER } else { Budget::default() };
    Budget { seed: ask.seed.unwrap_or(budget.seed), ..budget }
}

/// Plans orders so that everything is ready together. Who accepts `text/event-stream` is told on the way: `progress`, then `plan` for
/// every better one, and `done` with the last, or `refused`; to stop looking, stop listening: the last `plan` is the best so far.
/// Keeps nothing.
#[utoipa::path(
    post, path = "/plan", tag = "plans", operation_id = "plan_orders", request_body = PlanAsk,
    responses((status = 200, body = PlanReply, description = "The plan"))
)]
async fn plan_orders(
    State(state): State<AppState>,
    headers: HeaderMap,
    Body(ask): Body<PlanAsk>,
) -> Result<Response, ApiError> {
    let faults = ask.standing.as_ref().map_or_else(Vec::new, |own| own.plan.faults());
    let faults = under("standing.plan", faults);
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    let orders = wanted(&state, &ask.orders, ask.documents.clone()).await?;
    let budget = budget(&ask);
    let gathered = Gathered::of(&state, orders, ask.kitchen, ask.zone, ask.from).await?.over(ask.standing);
    let streams = headers
        .get(header::ACCEPT)
        .and_then(|value| value.to_str().ok())
        .is_some_and(|accept| accept.contains("text/event-stream"));
    let (sender, receiver) = mpsc::unbounded_channel::<Event>();
    if !streams {
        // Dropped with the answer that nobody waits for: the search looks at it and stops.
        let turn = state.desk.turn_to_plan().await?;
        let task = tokio::task::spawn_blocking(move || {
            let _turn = turn;
            planned(&gathered, budget, &|_| !sender.is_closed())
        });
        let _listening = receiver;
        let done = task.await.map_err(|_| ApiError::BrokeOff)?;
        return Ok(Json(done.map_err(ApiError::Faults)?).into_response());
    }
    tokio::spawn(async move {
        let turn = tokio::select! {
            turn = state.desk.turn_to_plan() => turn,
            () = sender.closed() => return,
        };
        let Ok(turn) = turn else { return };
        let task = tokio::task::spawn_blocking(move || {
            let _turn = turn;
            let tell = |told: Told| {
                let event = match told {
                    Told::Progress(own) => Event::default().event("progress").json_data(own),
                    Told::Better(own) => Event::default().event("plan").json_data(own),
                };
                event.is_ok_and(|event| sender.send(event).is_ok())
            };
            let last = match planned(&gathered, budget, &tell) {
                Ok(reply) => Event::default().event("done").json_data(reply),
                Err(faults) => {
                    Event::default().event("refused").json_data(ApiError::Faults(faults).into_problem())
                }
            };
            if let Ok(event) = last {
                let _ = sender.send(event);
            }
        });
        if let Err(error) = task.await {
            tracing::error!(%error, "planning broke off");
        }
    });
    let events = UnboundedReceiverStream::new(receiver).map(Ok::<Event, Infallible>);
    Ok(Sse::new(events).keep_alive(KeepAlive::default()).into_response())
}

/// Looks at a plan: the verdict, who does what when, what stands where, why each step stands where it stands. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/view", tag = "plans", operation_id = "look_at_plan", request_body = PlanDocument,
    responses((status = 200, body = DayView, description = "How it looks"))
)]
async fn look_at_plan(
    State(state): State<AppState>,
    Body(plan): Body<PlanDocument>,
) -> Result<Json<DayView>, ApiError> {
    let faults = plan.faults();
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.work_out(move || Ok(view(&plan))).await.map(Json)
}

/// Bends a plan to what happened: what must move. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/bend", tag = "plans", operation_id = "bend_plan", request_body = BendAsk,
    responses((status = 200, body = Bent, description = "The plan as it would be"))
)]
async fn bend_plan(State(state): State<AppState>, Body(ask): Body<BendAsk>) -> Result<Json<Bent>, ApiError> {
    let faults = ask.faults();
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.desk.plan_out(move || Ok(bend(&ask))).await.map(Json)
}

/// What would save a day without going past a limit, with its minutes, where bending it goes past one. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/cures", tag = "plans", operation_id = "cures_of_day", request_body = CureAsk,
    responses((status = 200, body = [Cure], description = "What would, if anything does"))
)]
async fn cures_of_day(
    State(state): State<AppState>,
    Body(ask): Body<CureAsk>,
) -> Result<Json<Vec<Cure>>, ApiError> {
    let faults = under("bend", ask.bend.faults());
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.desk.plan_out(move || Ok(cures(&ask.bend, ask.level))).await.map(Json)
}

/// Whether an order more can be taken into the plan that stands: what it costs, what moves, until when one may say yes. Keeps
/// nothing.
#[utoipa::path(
    post, path = "/plan/take", tag = "plans", operation_id = "take_order", request_body = TakeAsk,
    responses((status = 200, body = Taken, description = "Yes or no, and why"))
)]
async fn take_order(
    State(state): State<AppState>,
    Body(ask): Body<TakeAsk>,
) -> Result<Json<Taken>, ApiError> {
    let mut faults = under("plan", ask.plan.faults());
    let more = match (&ask.order, &ask.document) {
        (Some(key), None) => wanted(&state, std::slice::from_ref(key), Vec::new()).await?,
        (None, Some(document)) => vec![Wanted { document: document.clone(), kept: None }],
        _ => {
            faults.push(Fault::new("order", FaultCode::OutOfRange, "name one order, or send one"));
            Vec::new()
        }
    };
    if ask.order.is_some() && ask.plan.orders.iter().any(|own| own.key == ask.order) {
        faults.push(Fault::new("order", FaultCode::Twice, "this order is in the plan already"));
    }
    let mut orders = Vec::new();
    for (at, own) in ask.plan.orders.iter().enumerate() {
        match &own.key {
            Some(key) => {
                orders.push(Wanted::from(state.store.read::<OrderDocument>(key, own.revision).await?))
            }
            None => faults.push(Fault::new(
                format!("plan.orders.{at}.key"),
                FaultCode::OutOfRange,
                format!("{} is not kept here: save that order first", own.name),
            )),
        }
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    faults.extend(more.iter().filter_map(|own| eaten_before(&own.document, orders.len(), ask.now)));
    if !faults.is_empty() {
        return Err(ApiError::Faults(at_the_order(faults, orders.len())));
    }
    orders.extend(more);
    let mut gathered = Gathered::of(&state, orders, None, Some(ask.plan.zone.clone()), ask.plan.from).await?;
    gathered.now = ask.now;
    // What is planned for one order alone is not promised to another behind its back.
    gathered.sharing = Sharing { as_is: ask.plan.shared.clone(), more: false };
    let turn = state.desk.turn_to_plan().await?;
    state
        .desk
        .plan_out(move || {
            let _turn = turn;
            let last = ask.plan.orders.len();
            let blank = gathered.blank().map_err(|faults| at_the_order(faults, last))?;
            Ok(take(&ask.plan, blank, &ask.reports, ask.now))
        })
        .await
        .map(Json)
}

/// Faults of what stands under a field.
fn under(field: &str, faults: Vec<Fault>) -> Vec<Fault> {
    faults.into_iter().map(|own| Fault { field: format!("{field}.{}", own.field), ..own }).collect()
}

/// Faults of the order that is asked about stand at it, not at its place among all.
fn at_the_order(faults: Vec<Fault>, last: usize) -> Vec<Fault> {
    let own = format!("orders.{last}.");
    faults
        .into_iter()
        .map(|fault| match fault.field.strip_prefix(&own) {
            Some(rest) => Fault { field: format!("document.{rest}"), ..fault },
            None => fault,
        })
        .collect()
}

/// The run sheets of a plan: for each cook and day what to do when, what comes out of the cold by when. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/sheets", tag = "plans", operation_id = "sheets_of_plan", request_body = PlanDocument,
    responses((status = 200, body = [RunSheet], description = "By day and cook"))
)]
async fn sheets_of_plan(
    State(state): State<AppState>,
    Body(plan): Body<PlanDocument>,
) -> Result<Json<Vec<RunSheet>>, ApiError> {
    let faults = plan.faults();
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.work_out(move || Ok(run_sheets(&plan, &view(&plan)))).await.map(Json)
}

/// What would make a wait shorter that hangs on a clock: another vessel, a colder place, more gelatin. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/quicker", tag = "plans", operation_id = "quicker_wait", request_body = QuickerAsk,
    responses((status = 200, body = QuickerAnswer, description = "What would, the shortest first"))
)]
async fn quicker_wait(
    State(state): State<AppState>,
    Body(ask): Body<QuickerAsk>,
) -> Result<Json<QuickerAnswer>, ApiError> {
    let mut faults = under("plan", ask.plan.faults());
    let Some(order) = order_of(&ask.plan, ask.wait).filter(|_| faults.is_empty()) else {
        if faults.is_empty() {
            let words = format!("there is no wait {} in this plan", ask.wait);
            faults.push(Fault::new("wait", FaultCode::OutOfRange, words));
        }
        return Err(ApiError::Faults(faults));
    };
    let planned = &ask.plan.orders[order];
    let Some(key) = &planned.key else {
        let words = format!("{} is not kept here: save that order first", planned.name);
        let field = format!("plan.orders.{order}.key");
        return Err(ApiError::Faults(vec![Fault::new(field, FaultCode::OutOfRange, words)]));
    };
    let order = Wanted::from(state.store.read::<OrderDocument>(key, planned.revision).await?);
    let gathered =
        Gathered::of(&state, vec![order], None, Some(ask.plan.zone.clone()), ask.plan.from).await?;
    state
        .work_out(move || {
            let asked = gathered.quicker_asked();
            quicker_ways(&ask.plan, ask.wait, ask.enough_min, &asked)
        })
        .await
        .map(Json)
}

/// How likely a plan is to hold, over a thousand days. Keeps nothing.
#[utoipa::path(
    post, path = "/plan/odds", tag = "plans", operation_id = "odds_of_plan", request_body = OddsAsk,
    responses((status = 200, body = OddsAnswer, description = "The odds of every order"))
)]
async fn odds_of_plan(
    State(state): State<AppState>,
    Body(ask): Body<OddsAsk>,
) -> Result<Json<OddsAnswer>, ApiError> {
    let mut faults = under("plan", ask.plan.faults());
    if faults.is_empty() && !ask.plan.is_whole() {
        faults.push(Fault::new("plan.start", FaultCode::OutOfRange, "a step has no time yet: plan it first"));
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.work_out(move || Ok(odds(&ask))).await.map(Json)
}
