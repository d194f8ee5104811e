//! The one place that turns what went wrong into an answer: RFC 9457 problem+json with a stable
//! code, the field, and what to do.

use crate::problem::{Problem, ProblemCode};
use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use pastry::fault::Fault;
use std::net::SocketAddr;
use store::StoreError;

/// What is said of a fault of ours.
const WENT_WRONG: &str = "something went wrong here; try again";

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
        let detail = self.to_string();
        match self {
            ApiError::Faults(faults) => {
                let detail = match faults.as_slice() {
                    [only] => only.message.clone(),
                    _ => detail,
                };
                Problem { errors: faults, ..ProblemCode::Faults.problem(detail) }
            }
            ApiError::BrokenJson(_) => ProblemCode::BrokenJson.problem(detail),
            ApiError::NotJson => ProblemCode::NotJson.problem(detail),
            ApiError::TooLarge { .. } => ProblemCode::TooLarge.problem(detail),
            ApiError::BodyLost => ProblemCode::BodyLost.problem(detail),
            ApiError::NoRoute => ProblemCode::NoRoute.problem(detail),
            ApiError::NoMethod => ProblemCode::NoMethod.problem(detail),
            ApiError::BrokeOff => ProblemCode::Internal.problem(detail),
            ApiError::UnknownHost { .. } => ProblemCode::UnknownHost.problem(detail),
            ApiError::ForeignPage => ProblemCode::ForeignPage.problem(detail),
            ApiError::Busy => ProblemCode::Busy.problem(detail),
            ApiError::TooLong => ProblemCode::TooLong.problem(detail),
            ApiError::Store(fault) => store_problem(&fault),
        }
    }
}

/// The error of a key that no ingredient has.
pub fn unknown_ingredient(key: &str) -> ApiError {
    StoreError::NotFound { noun: "ingredient", key: key.chars().take(60).collect() }.into()
}

/// What the store refused or failed at: the words it has for a cook stay, the rest is for the log.
fn store_problem(fault: &StoreError) -> Problem {
    let said = fault.to_string();
    match fault {
        StoreError::NotFound { .. } => ProblemCode::NotFound.problem(said),
        StoreError::Conflict { current, noun, .. } => {
            let detail = if *noun == "kitchen" {
                format!("{said}; look at it again, then change it")
            } else {
                format!("{said}; look at theirs, then save on top of it or as a new {noun}")
            };
            Problem { current_revision: Some(*current), ..ProblemCode::SavedInBetween.problem(detail) }
        }
        StoreError::SaveIdUsed | StoreError::EventIdUsed => ProblemCode::SaveIdUsed.problem(said),
        StoreError::Full | StoreError::PicturesFull { .. } => ProblemCode::DiskFull.problem(said),
        StoreError::Locked => ProblemCode::FileLocked.problem(said),
        StoreError::ReadOnly => ProblemCode::FileReadOnly.problem(said),
        StoreError::Damaged { .. } | StoreError::DamagedEvent { .. } | StoreError::DamagedFile { .. } => {
            tracing::error!(error = %fault, "the kitchen's file is damaged");
            ProblemCode::Damaged.problem(said)
        }
        _ => {
            tracing::error!(error = ?fault, "the kitchen's file failed");
            ProblemCode::Internal.problem(WENT_WRONG)
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
    let again = problem.code.again();
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
    respond(ProblemCode::Internal.problem(WENT_WRONG))
}
