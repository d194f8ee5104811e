//! The log as a file, out and in: as a table that a spreadsheet reads, or as documents. Neither loses anything.

use crate::batch_log::shelf_of;
use crate::body::{FileBody, asked};
use crate::download::download;
use crate::error::ApiError;
use crate::log_book::whole;
use crate::routes::files::FileKind;
use crate::routes::log::LogQuery;
use crate::saving::Saving;
use crate::shape::faults;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use axum::response::Response;
use jiff::civil::Time;
use pastry::assess::FormulaDocument;
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent, Came, refused};
use pastry::fault::{Fault, FaultCode};
use pastry::log::table::{Good, LogRow, Made, from_csv, to_csv};
use pastry::log::{LogDocument, LogLine, LoggedBatch, log_line};
use pastry::zone::Zone;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::{HashMap, HashSet};
use store::batch::WholeBatch;
use store::journal::NewEvent;
use store::kept::hash;
use store::{By, Device, SaveId, StoreError};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Most batches of one file that goes out.
const MOST_OUT: usize = 5_000;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(export_log)).routes(routes!(import_log))
}

/// As what.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct AsKind {
    /// As a table or as documents.
    #[param(inline)]
    kind: FileKind,
}

/// The log, or what is looked for in it, as a file.
#[utoipa::path(get, path = "/log/export", tag = "log", operation_id = "export_log", params(AsKind, LogQuery), responses(
    (status = 200, body = LogDocument, description = "The file: CSV, or a log document")
))]
async fn export_log(
    State(state): State<AppState>,
    request: axum::extract::Request,
) -> Result<Response, ApiError> {
    let (kind, query) = kind_and_query(&request)?;
    state.log.read_all(&state.store, &state.desk).await;
    let mut ask = query.ask(&state).await?;
    ask.most = store::log::MOST;
    let mut lines: Vec<LogLine> = Vec::new();
    loop {
        let found = state.store.log(&ask).await?;
        lines.extend(found.lines);
        if lines.len() > MOST_OUT {
            let words = format!(
                "more than {MOST_OUT} batches in one file: choose from when to when, and take several"
            );
            return Err(ApiError::Faults(vec![Fault::new("from", FaultCode::TooMany, words)]));
        }
        match found.more_behind {
            Some(behind) => ask.behind = Some(behind),
            None => break,
        }
    }
    let mut all: Vec<(LogLine, LoggedBatch)> = Vec::with_capacity(lines.len());
    for line in lines {
        let own = whole(&state.store, &line.key).await?;
        let batch = BatchDocument { events: own.entries, ..own.document };
        all.push((line, LoggedBatch { key: own.key, batch }));
    }
    Ok(match kind {
        FileKind::Csv => download("text/csv; charset=utf-8", "log", to_csv(&all)),
        FileKind::Json => {
            let document = LogDocument::of(all.into_iter().map(|own| own.1).collect());
            let text = serde_json::to_string(&document).expect("a log serialises");
            download("application/json", "log", text)
        }
    })
}

/// The kind of file, and what of the log: two lists of one address, of which each refuses what it does not know.
fn kind_and_query(request: &axum::extract::Request) -> Result<(FileKind, LogQuery), ApiError> {
    let query = request.uri().query().unwrap_or_default();
    let of_kind = |own: &&str| own.starts_with("kind=");
    let kind: String = query.split('&').filter(of_kind).collect::<Vec<_>>().join("&");
    let rest: String = query.split('&').filter(|own| !of_kind(own)).collect::<Vec<_>>().join("&");
    let AsKind { kind } = asked(&kind)?;
    Ok((kind, asked(&rest)?))
}

/// A log to read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogFile {
    /// What kind of file it is.
    pub kind: FileKind,
    /// All of its text.
    pub text: String,
    /// Keep what is good; without it the file is only read.
    #[serde(default)]
    pub take: bool,
}

/// What a log file holds, and whether it was taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct LogRead {
    /// Batches that can be taken, or were.
    pub good: Vec<LogOffered>,
    /// Rows that cannot, with their line or place.
    pub bad: Vec<BadLogRow>,
    /// Whether the good ones were kept.
    pub taken: bool,
}

/// A batch of a file, and what taking it does.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LogOffered {
    /// As the log would show it.
    pub line: LogLine,
    /// Whether it is new here.
    pub new: bool,
    /// How many events are new here.
    pub events: usize,
}

/// A row of a log that cannot be taken.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BadLogRow {
    /// Line of the table, or place among the batches, from 1.
    pub line: usize,
    /// What is wrong with it and what to do.
    pub faults: Vec<Fault>,
}

/// A batch that is to be taken.
struct Incoming {
    key: String,
    document: BatchDocument,
    entries: Vec<BatchEntry>,
    new: bool,
}

/// Reads a log; keeps the good ones when asked to. A bad row is named and stops nothing; a batch that is here already gets what of it
/// is not.
#[utoipa::path(post, path = "/log/import", tag = "log", operation_id = "import_log", request_body = LogFile, params(Saving),
    responses((status = 200, body = LogRead, description = "What it holds")))]
async fn import_log(
    State(state): State<AppState>,
    saving: Saving,
    FileBody(file): FileBody<LogFile>,
) -> Result<Json<LogRead>, ApiError> {
    let by = saving.by();
    let (rows, mut bad) = rows_of(&file)?;
    let names = names_of_formulas(&state).await?;
    let mut good: Vec<(Incoming, LogLine)> = Vec::new();
    let mut seen: HashSet<String> = HashSet::new();
    for (line, row) in rows {
        match incoming(&state, row, &names, &by).await? {
            Ok(own) if !seen.insert(own.0.key.clone()) => {
                let words = "this batch stands in the file twice: the first is taken";
                bad.push(BadLogRow { line, faults: vec![Fault::new("key", FaultCode::KeyTwice, words)] });
            }
            Ok(own) => good.push(own),
            Err(faults) => bad.push(BadLogRow { line, faults }),
        }
    }
    bad.sort_by_key(|own| own.line);
    let mut offered = Vec::with_capacity(good.len());
    let (mut tested, mut all) = (false, Vec::new());
    for (own, line) in good {
        tested |= own.entries.iter().any(|entry| matches!(entry.event, BatchEvent::Tested { .. }));
        offered.push(LogOffered { line, new: own.new, events: own.entries.len() });
        all.push(to_keep(own, &by));
    }
    if file.take {
        let to_learn = tested.then(|| state.teaching.promise());
        state.store.keep_whole(&all).await?;
        if let Some(to_learn) = to_learn {
            to_learn.learn(&state.store, &state.desk).await?;
        }
    }
    Ok(Json(LogRead { good: offered, bad, taken: file.take }))
}

/// Rows of a file with where each stands, and what cannot be read.
fn rows_of(file: &LogFile) -> Result<(Vec<Good>, Vec<BadLogRow>), ApiError> {
    let no_log = |words: String| ApiError::Faults(vec![Fault::new("text", FaultCode::NoLogFile, words)]);
    match file.kind {
        FileKind::Csv => {
            let (good, bad) = from_csv(&file.text).map_err(no_log)?;
            Ok((good, bad.into_iter().map(|(line, faults)| BadLogRow { line, faults }).collect()))
        }
        FileKind::Json => {
            let text = file.text.trim_start_matches('\u{feff}');
            let mut value: Value = serde_json::from_str(text).map_err(|error| {
                no_log(format!(
                    "this is not JSON: it breaks at line {}, column {}",
                    error.line(),
                    error.column()
                ))
            })?;
            let batches = value.get_mut("batches").map(Value::take).unwrap_or_default();
            let Some(batches) = batches.as_array() else {
                return Err(no_log("this file holds no log: it has no list of batches".to_owned()));
            };
            value["batches"] = Value::Array(Vec::new());
            let amiss = faults::<LogDocument>(&value);
            if !amiss.is_empty() {
                return Err(ApiError::Faults(amiss));
            }
            let head: LogDocument = serde_json::from_value(value)
                .map_err(|error| no_log(format!("this file holds no log: {error}")))?;
            let wrong = head.faults();
            if !wrong.is_empty() {
                return Err(ApiError::Faults(wrong));
            }
            let row = |own: &Value| LogRow::Whole {
                key: own["key"].as_str().unwrap_or_default().to_owned(),
                document: own["batch"].clone(),
            };
            Ok((batches.iter().enumerate().map(|(at, own)| (at + 1, row(own))).collect(), Vec::new()))
        }
    }
}

/// Keys of the formulas of the library by their names; none for a name that several have.
async fn names_of_formulas(state: &AppState) -> Result<HashMap<String, Option<String>>, ApiError> {
    let mut names: HashMap<String, Option<String>> = HashMap::new();
    for own in state.store.list::<FormulaDocument>().await? {
        let name = own.name.trim().to_lowercase();
        names.entry(name).and_modify(|other| *other = None).or_insert(Some(own.id));
    }
    Ok(names)
}

type Taken = Result<(Incoming, LogLine), Vec<Fault>>;

async fn incoming(
    state: &AppState,
    row: LogRow,
    names: &HashMap<String, Option<String>>,
    by: &By,
) -> Result<Taken, ApiError> {
    match row {
        LogRow::Whole { key, document } => whole_batch(state, key, document, by).await,
        LogRow::Noted { made, formula, came, words } => {
            noted(state, (made, formula, came, words), names, by).await
        }
    }
}

/// A batch with everything that happened to it.
async fn whole_batch(state: &AppState, key: String, document: Value, by: &By) -> Result<Taken, ApiError> {
    if SaveId::read(&key).is_none() {
        let words = "a batch has a key of 8 to 64 letters, digits or hyphens: leave the one it came with";
        return Ok(Err(vec![Fault::new("key", FaultCode::BadKey, words)]));
    }
    let mut amiss = faults::<BatchDocument>(&document);
    let read: Option<BatchDocument> = serde_json::from_value(document).ok();
    let Some(mut document) = read.filter(|_| amiss.is_empty()) else {
        if amiss.is_empty() {
            let words = "this is no batch as the open format has it: take the file anew from where it came";
            amiss.push(Fault::new("document", FaultCode::Unreadable, words));
        }
        return Ok(Err(amiss));
    };
    let entries = std::mem::take(&mut document.events);
    let here = match whole(&state.store, &key).await {
        Ok(own) => Some(own),
        Err(ApiError::Store(StoreError::NotFound { .. })) => None,
        Err(error) => return Err(error),
    };
    if here.as_ref().is_some_and(|own| own.document != document) {
        let words = "another batch has this key here: it is left as it is";
        return Ok(Err(vec![Fault::new("key", FaultCode::KeyTwice, words)]));
    }
    let before = here.as_ref().map(|own| own.entries.clone()).unwrap_or_default();
    let fresh: Vec<BatchEntry> =
        entries.into_iter().filter(|own| before.iter().all(|other| other.id != own.id)).collect();
    if let Some(late) = fresh.iter().find(|own| own.at > by.now) {
        let words =
            format!("something in it happened at {}, which is still to come: set that right", late.at);
        return Ok(Err(vec![Fault::new("document.events", FaultCode::OutOfRange, words)]));
    }
    let new = here.is_none();
    checked(state, Incoming { key, document, entries: fresh, new }, before, by).await
}

/// What a cook noted: a day, a formula, a word.
async fn noted(
    state: &AppState,
    (made, formula, came, words): (Made, String, Option<Came>, String),
    names: &HashMap<String, Option<String>>,
    by: &By,
) -> Result<Taken, ApiError> {
    let shown: String = formula.chars().take(60).collect();
    let one = |words: String| Ok(Err(vec![Fault::new("formula", FaultCode::Unreadable, words)]));
    let component = match names.get(&formula.trim().to_lowercase()) {
        Some(Some(component)) => component,
        Some(None) => {
            return one(format!("several formulas are called “{shown}”: give them names of their own first"));
        }
        None => {
            return one(format!("no formula here is called “{shown}”: write the name as the library has it"));
        }
    };
    let kept = state.store.read::<FormulaDocument>(component, None).await?;
    let zone: Zone = state.store.kitchen().await?.time_zone.unwrap_or_default();
    let made_at = match made {
        Made::At(at) => at,
        // Of the hours of a day nobody said which: noon, and not later than now.
        Made::On(day) if day == zone.wall(by.now).date() => by.now,
        Made::On(day) => zone.moment(day.to_datetime(Time::constant(12, 0, 0, 0))),
    };
    let shelf = state.shelf_of([&kept.document]).await?;
    let ask = BatchAsk {
        formula: kept.document,
        weigh_g: None,
        component: Some(component.clone()),
        revision: Some(kept.revision),
        made_for: Vec::new(),
        made_at: Some(made_at),
    };
    let learned = state.learned().await?;
    let begun = state.desk.work_out(move || Ok(BatchDocument::begin(ask, &shelf, &learned))).await?;
    let document = match begun {
        Ok(document) => document,
        Err(faults) => return Ok(Err(faults)),
    };
    let event = match (came, words.trim()) {
        (Some(came), words) => Some(BatchEvent::Judged { came, spoon: None, words: words.to_owned() }),
        (None, "") => None,
        (None, words) => Some(BatchEvent::Noted { words: words.to_owned() }),
    };
    // The same row read again is the same batch.
    let told = serde_json::to_string(&(component, made_at, came, &words)).unwrap_or_default();
    let key = hash(&told)[..32].to_owned();
    let id = format!("{key}-said");
    let entries = event.map(|event| BatchEntry { id, at: made_at, device: None, event });
    let (new, known) = match whole(&state.store, &key).await {
        Ok(own) => {
            (false, own.entries.iter().any(|own| entries.as_ref().is_some_and(|new| new.id == own.id)))
        }
        Err(ApiError::Store(StoreError::NotFound { .. })) => (true, false),
        Err(error) => return Err(error),
    };
    let entries = entries.into_iter().filter(|_| !known).collect();
    checked(state, Incoming { key, document, entries, new }, Vec::new(), by).await
}

/// Looks at a batch as it would be looked at had it been made here.
async fn checked(
    state: &AppState,
    own: Incoming,
    before: Vec<BatchEntry>,
    by: &By,
) -> Result<Taken, ApiError> {
    let shelf = shelf_of(&state.store, &own.key, &own.document, own.entries.iter()).await?;
    let now = by.now;
    let looked = move || {
        let mut faults = own.document.faults(&shelf);
        faults.extend(own.document.made_too_late(now));
        if faults.is_empty() {
            faults.extend(refused(&own.document, &before, &own.entries, &shelf));
        }
        if !faults.is_empty() {
            return Ok(Err(faults));
        }
        let both: Vec<BatchEntry> = before.iter().chain(&own.entries).cloned().collect();
        let (line, _) = log_line(&own.key, &own.document, &both, &shelf, now);
        Ok(Ok((own, line)))
    };
    state.work_out(looked).await
}

/// A batch as the file keeps it.
fn to_keep(own: Incoming, by: &By) -> WholeBatch {
    let closes = own.entries.iter().any(|entry| matches!(entry.event, BatchEvent::Closed {}));
    let one = |entry: BatchEntry| {
        let device = entry.device.as_deref().and_then(Device::read);
        Some((device, NewEvent { id: SaveId::read(&entry.id)?, at: entry.at, event: entry.event }))
    };
    WholeBatch {
        made: closes || own.document.made_at.is_some(),
        document: own.new.then_some(own.document),
        events: own.entries.into_iter().filter_map(one).collect(),
        key: own.key,
        by: By { save_id: None, ..by.clone() },
    }
}
