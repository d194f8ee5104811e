//! The one place that turns what went wrong into an answer: RFC 9457 problem+json with a stable
//! code, the field, and what to do.

use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use pastry::fault::Fault;
use serde::{Deserialize, Serialize};
use std::net::SocketAddr;
use store::StoreError;
use utoipa::ToSchema;

/// What went wrong, as problem+json (RFC 9457).
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct Problem {
    /// Always `about:blank`: the code says which.
    #[serde(rename = "type")]
    pub kind: String,
    /// Short title.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// Stable code.
    pub code: String,
    /// What is wrong and what to do, in words.
    pub detail: String,
    /// Every field at fault, where fields are.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<Fault>,
    /// The revision that is there now, for a conflict.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub current_revision: Option<i64>,
}

/// An answer that is not what was asked for.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The document has faults.
    #[error("{} of the fields need another look", .0.len())]
    Faults(Vec<Fault>),
    /// The body is not JSON.
    #[error("{0}")]
    BrokenJson(String),
    /// The body is not said to be JSON.
    #[error("send the body as application/json")]
    NotJson,
    /// The body is too large.
    #[error("the body is larger than {limit_kb} kB; a formula is a few kB")]
    TooLarge {
        /// Largest body taken, kB.
        limit_kb: usize,
    },
    /// The body did not arrive.
    #[error("the body did not arrive whole; send it again")]
    BodyLost,
    /// No such path.
    #[error("there is nothing at this address; GET /api/openapi.json lists what there is")]
    NoRoute,
    /// The path exists, the method does not.
    #[error("this address does not take that method; GET /api/openapi.json lists what it takes")]
    NoMethod,
    /// The Host is none of this server's names.
    #[error("this server is not known by that name: open http://{address}, or start it with --name NAME")]
    UnknownHost {
        /// Where it listens.
        address: SocketAddr,
    },
    /// A write that another page sent.
    #[error("another page tried to change this kitchen and was not let in: change it on its own page")]
    ForeignPage,
    /// Too much is asked at once.
    #[error("this server has more to do than it can: wait a moment and try again")]
    Busy,
    /// The work took longer than it may.
    #[error(
        "this took too long and was called off: ask for less at once, or try again when less is going on"
    )]
    TooLong,
    /// The computation broke off.
    #[error("something went wrong here; try again")]
    BrokeOff,
    /// The store refused or failed.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl ApiError {
    /// The problem it is answered with.
    pub fn into_problem(self) -> Problem {
        let mut problem = Problem {
            kind: "about:blank".to_owned(),
            title: String::new(),
            status: 0,
            code: String::new(),
            detail: self.to_string(),
            errors: Vec::new(),
            current_revision: None,
        };
        let (status, code) = match self {
            ApiError::Faults(faults) => {
                if let [only] = faults.as_slice() {
                    problem.detail = only.message.clone();
                }
                problem.errors = faults;
                (StatusCode::UNPROCESSABLE_ENTITY, "faults")
            }
            ApiError::BrokenJson(_) => (StatusCode::BAD_REQUEST, "broken_json"),
            ApiError::NotJson => (StatusCode::UNSUPPORTED_MEDIA_TYPE, "not_json"),
            ApiError::TooLarge { .. } => (StatusCode::PAYLOAD_TOO_LARGE, "too_large"),
            ApiError::BodyLost => (StatusCode::BAD_REQUEST, "body_lost"),
            ApiError::NoRoute => (StatusCode::NOT_FOUND, "no_route"),
            ApiError::NoMethod => (StatusCode::METHOD_NOT_ALLOWED, "no_method"),
            ApiError::BrokeOff => (StatusCode::INTERNAL_SERVER_ERROR, "internal"),
            ApiError::UnknownHost { .. } => (StatusCode::MISDIRECTED_REQUEST, "unknown_host"),
            ApiError::ForeignPage => (StatusCode::FORBIDDEN, "foreign_page"),
            ApiError::Busy => (StatusCode::SERVICE_UNAVAILABLE, "busy"),
            ApiError::TooLong => (StatusCode::SERVICE_UNAVAILABLE, "too_long"),
            ApiError::Store(fault) => store_problem(&fault, &mut problem),
        };
        problem.title = status.canonical_reason().unwrap_or("Problem").to_owned();
        problem.status = status.as_u16();
        problem.code = code.to_owned();
        problem
    }
}

/// The error of a key that no ingredient has.
pub fn unknown_ingredient(key: &str) -> ApiError {
    StoreError::NotFound { noun: "ingredient", key: key.chars().take(60).collect() }.into()
}

/// What the store refused or failed at: the words it has for a cook stay, the rest is for the log.
fn store_problem(fault: &StoreError, problem: &mut Problem) -> (StatusCode, &'static str) {
    match fault {
        StoreError::NotFound { .. } => (StatusCode::NOT_FOUND, "not_found"),
        StoreError::Conflict { current, noun, .. } => {
            problem.current_revision = Some(*current);
            problem.detail = format!("{fault}; look at theirs, then save on top of it or as a new {noun}");
            if *noun == "kitchen" {
                problem.detail = format!("{fault}; look at it again, then change it");
            }
            (StatusCode::CONFLICT, "saved_in_between")
        }
        StoreError::SaveIdUsed => (StatusCode::UNPROCESSABLE_ENTITY, "save_id_used"),
        StoreError::Full => (StatusCode::INSUFFICIENT_STORAGE, "disk_full"),
        StoreError::Locked => (StatusCode::SERVICE_UNAVAILABLE, "file_locked"),
        StoreError::ReadOnly => (StatusCode::INTERNAL_SERVER_ERROR, "file_read_only"),
        StoreError::Damaged { .. } | StoreError::DamagedFile { .. } => {
            tracing::error!(error = %fault, "the kitchen's file is damaged");
            (StatusCode::INTERNAL_SERVER_ERROR, "damaged")
        }
        _ => {
            tracing::error!(error = ?fault, "the kitchen's file failed");
            problem.detail = "something went wrong here; try again".to_owned();
            (StatusCode::INTERNAL_SERVER_ERROR, "internal")
        }
    }
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        respond(self.into_problem())
    }
}

/// An answer from a problem.
pub fn respond(problem: Problem) -> Response {
    // What passes by itself may be asked again.
    let again = match problem.code.as_str() {
        "busy" => Some("1"),
        "file_locked" | "too_long" => Some("2"),
        _ => None,
    };
    let status = StatusCode::from_u16(problem.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
    let mut response = (status, Json(problem)).into_response();
    response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
    if let Some(seconds) = again {
        response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from_static(seconds));
    }
    response
}

/// The answer to a fault of ours.
pub fn internal() -> Response {
    respond(Problem {
        kind: "about:blank".to_owned(),
        title: "Internal Server Error".to_owned(),
        status: 500,
        code: "internal".to_owned(),
        detail: "something went wrong here; try again".to_owned(),
        errors: Vec::new(),
        current_revision: None,
    })
}
