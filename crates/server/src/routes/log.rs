//! The log: batches found again, counted, and beside each other.

use crate::batch_log::shelf_of;
use crate::body::Asked;
use crate::error::ApiError;
use crate::log_book::whole;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use jiff::ToSpan;
use jiff::civil::Date;
use pastry::batch::Came;
use pastry::fault::{Fault, FaultCode};
use pastry::formula::Family;
use pastry::log::beside::{Beside, Told, beside};
use pastry::log::{LogLine, log_line};
use pastry::zone::Zone;
use serde::{Deserialize, Serialize};
use store::log::{LogAsk, LogOf};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Lines of a page while nobody says how many.
const A_PAGE: u32 = 40;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(read_log))
        .routes(routes!(count_log))
        .routes(routes!(batches_beside))
        .routes(routes!(read_log_line))
}

/// What is looked for.
#[derive(Debug, Clone, Default, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields, default)]
pub struct LogQuery {
    /// Words, each or one that begins so.
    #[param(max_length = 200)]
    words: String,
    /// A family.
    #[param(inline)]
    family: Option<Family>,
    /// A job: drip, coat …
    #[param(max_length = 40)]
    job: Option<String>,
    /// Key of an ingredient that went in.
    #[param(max_length = 80)]
    ingredient: Option<String>,
    /// A lot.
    #[param(max_length = 80)]
    lot: Option<String>,
    /// Key of the formula.
    #[param(max_length = 80)]
    component: Option<String>,
    /// The room at least, °C.
    room_from_c: Option<f64>,
    /// The room at most, °C.
    room_to_c: Option<f64>,
    /// How it came out.
    #[param(inline)]
    came: Option<Came>,
    /// Only what did not come out as it should.
    wrong: bool,
    /// Only what was tested.
    tested: bool,
    /// Made from this day on, as the wall of the kitchen has it.
    #[param(value_type = Option<String>, example = "2026-09-01", pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
    from: Option<Date>,
    /// Made up to this day.
    #[param(value_type = Option<String>, example = "2026-11-30", pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
    to: Option<Date>,
    /// Only lines behind this one.
    behind: Option<i64>,
    /// How many; 40 when nobody says.
    #[param(minimum = 1, maximum = 200)]
    most: Option<u32>,
}

impl LogQuery {
    /// As the file is asked.
    ///
    /// # Errors
    /// When the file fails; a room that is none, days that end before they begin.
    pub async fn ask(self, state: &AppState) -> Result<LogAsk, ApiError> {
        let mut faults = Vec::new();
        for (field, own) in [("room_from_c", self.room_from_c), ("room_to_c", self.room_to_c)] {
            if own.is_some_and(|own| !own.is_finite()) {
                faults.push(Fault::new(field, FaultCode::OutOfRange, "write the room in °C, as 21.5"));
            }
        }
        if let (Some(from), Some(to)) = (self.from, self.to)
            && to < from
        {
            let words = format!("{to} is before {from}: let the last day be the first or a later one");
            faults.push(Fault::new("to", FaultCode::LimitsCrossed, words));
        }
        if let (Some(from), Some(to)) = (self.room_from_c, self.room_to_c)
            && to < from
        {
            let words = format!("a room from {from} to {to} °C is none: let the second be the warmer one");
            faults.push(Fault::new("room_to_c", FaultCode::LimitsCrossed, words));
        }
        if !faults.is_empty() {
            return Err(ApiError::Faults(faults));
        }
        let zone: Zone = state.store.kitchen().await?.time_zone.unwrap_or_default();
        let begins = |day: Date| zone.moment(day.to_datetime(jiff::civil::Time::midnight())).as_second();
        let after = |day: Date| day.checked_add(1.day()).map_or(i64::MAX, begins);
        Ok(LogAsk {
            words: self.words,
            family: self.family.map(|own| own.key().to_owned()),
            job: self.job,
            ingredient: self.ingredient,
            lot: self.lot,
            component: self.component,
            room_c: (self.room_from_c, self.room_to_c),
            came: self.came.map(|own| own.word().to_owned()),
            wrong: self.wrong,
            tested: self.tested,
            seconds: (self.from.map(begins), self.to.map(after)),
            behind: self.behind,
            most: self.most.unwrap_or(A_PAGE),
        })
    }
}

/// Lines of the log.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogPage {
    /// Batches, the last made first.
    pub lines: Vec<LogLine>,
    /// Behind which more are to be had; none when these are all.
    pub more_behind: Option<i64>,
    /// Batches that are still being read in.
    pub still_read: i64,
    /// Batches that cannot be read.
    pub unread: i64,
}

/// The log, or what is looked for in it.
#[utoipa::path(get, path = "/log", tag = "log", operation_id = "read_log", params(LogQuery), responses(
    (status = 200, body = LogPage, description = "Batches, the last made first")
))]
async fn read_log(
    State(state): State<AppState>,
    Asked(query): Asked<LogQuery>,
) -> Result<Json<LogPage>, ApiError> {
    state.log.catch_up(&state.store, &state.desk).await?;
    let ask = query.ask(&state).await?;
    let found = state.store.log(&ask).await?;
    let (still_read, unread) = state.store.log_behind_count().await?;
    Ok(Json(LogPage { lines: found.lines, more_behind: found.more_behind, still_read, unread }))
}

/// A batch as the log shows it.
#[utoipa::path(
    get, path = "/log/{id}", tag = "log", operation_id = "read_log_line",
    params(("id" = String, Path, description = "Key of the batch")),
    responses((status = 200, body = LogLine, description = "Its line"))
)]
async fn read_log_line(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<LogLine>, ApiError> {
    let own = whole(&state.store, &id).await?;
    let shelf = shelf_of(&state.store, &id, &own.document, own.entries.iter()).await?;
    let line = move || Ok(log_line(&own.key, &own.document, &own.entries, &shelf, own.kept_at).0);
    state.work_out(line).await.map(Json)
}

/// What batches of the log are of, and how many.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogCounts {
    /// All batches.
    pub batches: i64,
    /// Those that did not come out as they should.
    pub wrong: i64,
    /// Those that were tested.
    pub tested: i64,
    /// Families.
    pub families: Vec<LogCounted>,
    /// Jobs.
    pub jobs: Vec<LogCounted>,
    /// What went in.
    pub ingredients: Vec<LogCounted>,
    /// Lots.
    pub lots: Vec<LogCounted>,
}

/// Something that batches of the log are of.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogCounted {
    /// By which it is asked for.
    pub key: String,
    /// Its name.
    pub name: String,
    /// In how many batches.
    pub batches: i64,
}

/// What there is to look for: families, jobs, ingredients and lots, with how many batches of each.
#[utoipa::path(get, path = "/log/counts", tag = "log", operation_id = "count_log", responses(
    (status = 200, body = LogCounts, description = "What there is")
))]
async fn count_log(State(state): State<AppState>) -> Result<Json<LogCounts>, ApiError> {
    state.log.catch_up(&state.store, &state.desk).await?;
    let ingredients = state.store.log_counts(LogOf::Ingredient).await?;
    let shelf = state.store.shelf(ingredients.iter().map(|own| own.thing.as_str())).await?;
    let family = |key: &str| Family::ALL.iter().find(|own| own.key() == key).map(|own| own.word());
    let counted = |all: Vec<store::log::LogCount>, name: &dyn Fn(&str) -> String| -> Vec<LogCounted> {
        all.into_iter()
            .map(|own| LogCounted { name: name(&own.thing), key: own.thing, batches: own.batches })
            .collect()
    };
    let same = |key: &str| key.to_owned();
    let (batches, wrong, tested) = state.store.log_totals().await?;
    Ok(Json(LogCounts {
        batches,
        wrong,
        tested,
        families: counted(state.store.log_counts(LogOf::Family).await?, &|key| {
            family(key).unwrap_or(key).to_owned()
        }),
        jobs: counted(state.store.log_counts(LogOf::Job).await?, &same),
        ingredients: counted(ingredients, &|key| {
            shelf.find(key).map_or_else(|| key.to_owned(), |own| own.name.clone())
        }),
        lots: counted(state.store.log_counts(LogOf::Lot).await?, &same),
    }))
}

/// Which batches.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichBatches {
    /// Keys of two or three, a comma between them.
    #[param(max_length = 300)]
    keys: String,
}

/// Two or three batches beside each other, what differs marked.
#[utoipa::path(get, path = "/log/beside", tag = "log", operation_id = "batches_beside", params(WhichBatches), responses(
    (status = 200, body = Beside, description = "The batches")
))]
async fn batches_beside(
    State(state): State<AppState>,
    Asked(which): Asked<WhichBatches>,
) -> Result<Json<Beside>, ApiError> {
    let mut all: Vec<Told> = Vec::new();
    for key in which.keys.split(',').map(str::trim).filter(|own| !own.is_empty()).take(4) {
        let own = whole(&state.store, key).await?;
        let shelf = shelf_of(&state.store, key, &own.document, own.entries.iter()).await?;
        all.push(Told {
            key: own.key,
            batch: own.document,
            entries: own.entries,
            kept_at: own.kept_at,
            shelf,
        });
    }
    state.work_out(move || beside(&all)).await.map(Json)
}
