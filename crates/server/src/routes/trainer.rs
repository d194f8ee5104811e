//! The trainer: a question from this kitchen's own formulas, what an answer is worth, and what a person knows.

use crate::body::{Asked, Body};
use crate::error::ApiError;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use jiff::Timestamp;
use jiff::civil::Time;
use pastry::assess::{FormulaDocument, assess_from};
use pastry::fault::{Fault, FaultCode};
use pastry::ingredient::Shelf;
use pastry::job::Job;
use pastry::trainer::dice::Dice;
use pastry::trainer::{
    TrainerAnswer, TrainerAsk, TrainerEntry, TrainerEvent, TrainerFormula, TrainerKind, TrainerQuestion,
    TrainerScore, answer, ask, can_be_asked, score, spoon_of,
};
use pastry::zone::Zone;
use serde::{Deserialize, Serialize};
use store::SaveId;
use store::component::Component;
use store::journal::NewEvent;
use store::kept::hash;
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Longest name of a person, letters.
const LONGEST_NAME: usize = 60;
/// How many bowls stand beside the right one to be looked through.
const BESIDE: usize = 4;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(trainer_question))
        .routes(routes!(trainer_answer))
        .routes(routes!(trainer_score, trainer_anew))
}

/// Who is asked, and by which dice.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhoIsAsked {
    /// Name of the person; empty for whoever is at this device.
    #[serde(default)]
    #[param(max_length = 60)]
    who: String,
    /// What the dice fall by.
    seed: u32,
    /// Only questions of this kind.
    #[serde(default)]
    #[param(inline)]
    kind: Option<TrainerKind>,
}

/// A question, and by what it is asked again.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerAsked {
    /// Which question it is.
    pub ask: TrainerAsk,
    /// As it is shown.
    pub question: TrainerQuestion,
    /// Of all that is shown: an answer to something else, asked before a formula was changed or a test was done, counts for nothing.
    pub seal: String,
}

impl TrainerAsked {
    fn of(ask: TrainerAsk, question: TrainerQuestion) -> Self {
        let seal = seal_of(&question);
        TrainerAsked { ask, question, seal }
    }
}

fn seal_of(question: &TrainerQuestion) -> String {
    hash(&serde_json::to_string(question).unwrap_or_default())
}

/// What can be asked now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerNow {
    /// A question; none where no formula can be asked about.
    pub asked: Option<TrainerAsked>,
    /// How the person does.
    pub score: TrainerScore,
    /// Names of those who were here before.
    pub people: Vec<String>,
}

/// The name a score is kept under: as it was written first, whatever a tablet makes of its capitals.
async fn name_of(state: &AppState, who: &str) -> Result<String, ApiError> {
    let own = who.trim();
    if own.chars().count() > LONGEST_NAME {
        let words = format!("a name has at most {LONGEST_NAME} letters: shorten it");
        return Err(ApiError::Faults(vec![Fault::new("who", FaultCode::TooLong, words)]));
    }
    let own = if own.is_empty() { "everybody" } else { own };
    let known = state.store.trainees().await?;
    Ok(known
        .into_iter()
        .find(|one| one.to_lowercase() == own.to_lowercase())
        .unwrap_or_else(|| own.to_owned()))
}

async fn score_of(state: &AppState, who: &str) -> Result<TrainerScore, ApiError> {
    let zone: Zone = state.store.kitchen().await?.time_zone.unwrap_or_default();
    let begins = zone.moment(zone.wall(Timestamp::now()).date().to_datetime(Time::midnight()));
    let kept = state.store.training(who).await?;
    let entries: Vec<TrainerEntry> = kept
        .into_iter()
        .map(|own| TrainerEntry {
            at: own.kept_at.parse().unwrap_or(Timestamp::UNIX_EPOCH),
            event: own.event,
        })
        .collect();
    Ok(score(&entries, begins))
}

/// A question for a person: of what they confuse more often than of the rest, and as hard as they are good.
#[utoipa::path(
    get, path = "/trainer/question", tag = "trainer", operation_id = "trainer_question", params(WhoIsAsked),
    responses((status = 200, body = TrainerNow, description = "A question, and how the person does"))
)]
async fn trainer_question(
    State(state): State<AppState>,
    Asked(asked): Asked<WhoIsAsked>,
) -> Result<Json<TrainerNow>, ApiError> {
    let who = name_of(&state, &asked.who).await?;
    let score = score_of(&state, &who).await?;
    let people = state.store.trainees().await?;
    let listed = state.store.list::<FormulaDocument>().await?;
    let keys: Vec<&str> = listed.iter().filter(|own| !own.archived).map(|own| own.id.as_str()).collect();
    let mut all: Vec<Component> = state.store.some::<FormulaDocument>(&keys).await?.into_values().collect();
    all.sort_by(|a, b| a.id.cmp(&b.id));
    let needed: Vec<&str> = all.iter().flat_map(|own| own.document.ingredient_keys()).collect();
    let shelf = state.store.shelf(needed).await?;
    let confused = score.confused.first().map(|own| own.right.clone());
    let levels: Vec<(TrainerKind, u8)> =
        TrainerKind::ALL.iter().map(|kind| (*kind, score.level(*kind))).collect();
    let found = state.work_out(move || Ok(drawn(&all, &shelf, &asked, &levels, confused.as_deref()))).await?;
    Ok(Json(TrainerNow { asked: found, score, people }))
}

/// A question drawn by the dice.
fn drawn(
    all: &[Component],
    shelf: &Shelf,
    asked: &WhoIsAsked,
    levels: &[(TrainerKind, u8)],
    confused: Option<&str>,
) -> Option<TrainerAsked> {
    let mut dice = Dice::of(asked.seed);
    // Every third question is of what is confused, where there is that.
    let wanted = confused.filter(|_| dice.below(3) == 0);
    let fits = |own: &Component| match (wanted, spoon_of(&own.document, shelf)) {
        (None, _) => true,
        (Some(word), Ok(spoon)) => spoon.word() == word,
        (Some(_), Err(_)) => false,
    };
    let mut left: Vec<&Component> = all.iter().filter(|own| fits(own)).collect();
    if left.is_empty() {
        left = all.iter().collect();
    }
    if asked.kind == Some(TrainerKind::Drip) {
        left.retain(|own| matches!(own.document.work.job, Job::Drip(_)));
    }
    while !left.is_empty() {
        let own = left.swap_remove(dice.below(left.len()));
        let Ok(is) = assess_from(&own.document, shelf) else { continue };
        let mut kinds = can_be_asked(&is);
        if let Some(kind) = asked.kind {
            kinds.retain(|own| *own == kind);
        } else if wanted.is_some() {
            kinds.retain(|own| *own == TrainerKind::Spoon);
        }
        let Some(kind) = dice.one(&kinds).copied() else { continue };
        let mut others: Vec<&Component> = all.iter().filter(|other| other.id != own.id).collect();
        let mut beside = Vec::new();
        while kind == TrainerKind::WhatIsIn && beside.len() < BESIDE && !others.is_empty() {
            beside.push(others.swap_remove(dice.below(others.len())));
        }
        let which = TrainerAsk {
            kind,
            component: own.id.clone(),
            revision: own.revision,
            others: beside.iter().map(|own| own.id.clone()).collect(),
            seed: asked.seed,
            level: levels.iter().find(|own| own.0 == kind).map_or(1, |own| own.1),
        };
        let formulas: Vec<TrainerFormula> =
            std::iter::once(own).chain(beside.iter().copied()).map(formula).collect();
        if let Ok(Some(found)) = ask(&which, &formulas, shelf) {
            return Some(TrainerAsked::of(which, found.question));
        }
    }
    None
}

fn formula(own: &Component) -> TrainerFormula {
    TrainerFormula { key: own.id.clone(), document: own.document.clone() }
}

/// An answer.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrainerSaid {
    /// Name of the person; empty for whoever is at this device.
    #[serde(default)]
    #[schema(max_length = 60)]
    pub who: String,
    /// Made on the device, once for each answer: sent twice it is there once.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
    /// Which question.
    pub ask: TrainerAsk,
    /// The seal it came with.
    #[schema(max_length = 64)]
    pub seal: String,
    /// Place of the choice, from 0.
    #[schema(maximum = 6)]
    pub said: usize,
}

/// What an answer was worth, and how the person does with it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerJudged {
    /// What it was worth, and why.
    pub answer: TrainerAnswer,
    /// How the person does.
    pub score: TrainerScore,
}

/// Answers a question.
#[utoipa::path(
    post, path = "/trainer/answers", tag = "trainer", operation_id = "trainer_answer",
    request_body = TrainerSaid, params(Saving),
    responses((status = 201, body = TrainerJudged, description = "What it was worth, and why"))
)]
async fn trainer_answer(
    State(state): State<AppState>,
    saving: Saving,
    Body(said): Body<TrainerSaid>,
) -> Result<(StatusCode, Json<TrainerJudged>), ApiError> {
    let who = name_of(&state, &said.who).await?;
    let by = saving.by();
    let Some(id) = SaveId::read(&said.id) else {
        let words = "an id has 8 to 64 letters, digits or hyphens: make a new one for each";
        return Err(ApiError::Faults(vec![Fault::new("id", FaultCode::BadSaveId, words)]));
    };
    let first = state.store.read::<FormulaDocument>(&said.ask.component, Some(said.ask.revision)).await?;
    let mut formulas = vec![TrainerFormula { key: said.ask.component.clone(), document: first.document }];
    for key in &said.ask.others {
        let document = state.store.read::<FormulaDocument>(key, None).await?.document;
        formulas.push(TrainerFormula { key: key.clone(), document });
    }
    let shelf = state.shelf_of(formulas.iter().map(|own| &own.document)).await?;
    let (asked, place) = (said.ask.clone(), said.said);
    let found = state.work_out(move || ask(&asked, &formulas, &shelf)).await?;
    let refused = |field: &str, code: FaultCode, words: &str| {
        Err(ApiError::Faults(vec![Fault::new(field, code, words)]))
    };
    let Some(found) = found.filter(|own| seal_of(&own.question) == said.seal) else {
        let words = "a formula was changed or a test was done since this was asked: it does not count, take the next question";
        return refused("seal", FaultCode::AskedOtherwise, words);
    };
    let Some(judged) = answer(&found, place) else {
        return refused("said", FaultCode::OutOfRange, "that is none of the answers of this question");
    };
    let place = |own: usize| i64::try_from(own).unwrap_or(i64::MAX);
    let event = TrainerEvent::Answered {
        kind: said.ask.kind,
        component: said.ask.component,
        level: said.ask.level,
        right: judged.right_words.clone(),
        said: judged.said_words.clone(),
        off: place(said.said) - place(judged.right),
    };
    state.store.trained(&who, NewEvent { id, at: by.now, event }, &by).await?;
    let score = score_of(&state, &who).await?;
    Ok((StatusCode::CREATED, Json(TrainerJudged { answer: judged, score })))
}

/// Whose score.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhoseScore {
    /// Name of the person; empty for whoever is at this device.
    #[serde(default)]
    #[param(max_length = 60)]
    who: String,
}

/// What a person knows and confuses.
#[utoipa::path(
    get, path = "/trainer/score", tag = "trainer", operation_id = "trainer_score", params(WhoseScore),
    responses((status = 200, body = TrainerScore, description = "How the person does"))
)]
async fn trainer_score(
    State(state): State<AppState>,
    Asked(whose): Asked<WhoseScore>,
) -> Result<Json<TrainerScore>, ApiError> {
    let who = name_of(&state, &whose.who).await?;
    score_of(&state, &who).await.map(Json)
}

/// Whose score begins anew.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrainerAnew {
    /// Name of the person; empty for whoever is at this device.
    #[serde(default)]
    #[schema(max_length = 60)]
    pub who: String,
    /// Made on the device.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
}

/// A person's score begins anew; what was answered stays in the file.
#[utoipa::path(
    post, path = "/trainer/score", tag = "trainer", operation_id = "trainer_anew", request_body = TrainerAnew,
    params(Saving), responses((status = 201, body = TrainerScore, description = "Nothing was asked yet"))
)]
async fn trainer_anew(
    State(state): State<AppState>,
    saving: Saving,
    Body(anew): Body<TrainerAnew>,
) -> Result<(StatusCode, Json<TrainerScore>), ApiError> {
    let (who, by) = (name_of(&state, &anew.who).await?, saving.by());
    let Some(id) = SaveId::read(&anew.id) else {
        let words = "an id has 8 to 64 letters, digits or hyphens: make a new one for each";
        return Err(ApiError::Faults(vec![Fault::new("id", FaultCode::BadSaveId, words)]));
    };
    let event = NewEvent { id, at: by.now, event: TrainerEvent::BegunAnew {} };
    state.store.trained(&who, event, &by).await?;
    Ok((StatusCode::CREATED, Json(score_of(&state, &who).await?)))
}
