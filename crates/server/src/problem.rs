//! What is answered instead of what was asked for: RFC 9457 problem+json, with its code out of a closed list.

use axum::http::StatusCode;
use pastry::fault::Fault;
use serde::{Deserialize, Serialize};
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
    pub code: ProblemCode,
    /// What is wrong and what to do, in words.
    pub detail: String,
    /// Every field at fault, where fields are.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<Fault>,
    /// The revision that is there now, for a conflict.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub current_revision: Option<i64>,
}

/// Why something was refused or failed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProblemCode {
    /// Fields are at fault, each named.
    Faults,
    /// The body is not JSON.
    BrokenJson,
    /// The body did not arrive whole.
    BodyLost,
    /// The body is not said to be JSON.
    NotJson,
    /// The body is too large.
    TooLarge,
    /// Nothing is kept under this key.
    NotFound,
    /// Somebody saved in between, or the key is taken.
    SavedInBetween,
    /// The id of this save was used for another.
    SaveIdUsed,
    /// The disk is full.
    DiskFull,
    /// Another program holds the file.
    FileLocked,
    /// The file cannot be written.
    FileReadOnly,
    /// The file is damaged.
    Damaged,
    /// More is asked than can be done at once.
    Busy,
    /// The work took longer than it may.
    TooLong,
    /// A fault of ours.
    Internal,
    /// The server is not known by that name.
    UnknownHost,
    /// A write that another page sent.
    ForeignPage,
    /// There is nothing at this address.
    NoRoute,
    /// The address does not take that method.
    NoMethod,
}

impl ProblemCode {
    /// All of them.
    pub const ALL: [ProblemCode; 19] = [
        ProblemCode::Faults,
        ProblemCode::BrokenJson,
        ProblemCode::BodyLost,
        ProblemCode::NotJson,
        ProblemCode::TooLarge,
        ProblemCode::NotFound,
        ProblemCode::SavedInBetween,
        ProblemCode::SaveIdUsed,
        ProblemCode::DiskFull,
        ProblemCode::FileLocked,
        ProblemCode::FileReadOnly,
        ProblemCode::Damaged,
        ProblemCode::Busy,
        ProblemCode::TooLong,
        ProblemCode::Internal,
        ProblemCode::UnknownHost,
        ProblemCode::ForeignPage,
        ProblemCode::NoRoute,
        ProblemCode::NoMethod,
    ];

    /// The status it is answered with.
    pub fn status(self) -> StatusCode {
        match self {
            ProblemCode::Faults => StatusCode::UNPROCESSABLE_ENTITY,
            ProblemCode::BrokenJson => StatusCode::BAD_REQUEST,
            ProblemCode::BodyLost => StatusCode::BAD_REQUEST,
            ProblemCode::NotJson => StatusCode::UNSUPPORTED_MEDIA_TYPE,
            ProblemCode::TooLarge => StatusCode::PAYLOAD_TOO_LARGE,
            ProblemCode::NotFound => StatusCode::NOT_FOUND,
            ProblemCode::SavedInBetween => StatusCode::CONFLICT,
            ProblemCode::SaveIdUsed => StatusCode::UNPROCESSABLE_ENTITY,
            ProblemCode::DiskFull => StatusCode::INSUFFICIENT_STORAGE,
            ProblemCode::FileLocked => StatusCode::SERVICE_UNAVAILABLE,
            ProblemCode::FileReadOnly => StatusCode::INTERNAL_SERVER_ERROR,
            ProblemCode::Damaged => StatusCode::INTERNAL_SERVER_ERROR,
            ProblemCode::Busy => StatusCode::SERVICE_UNAVAILABLE,
            ProblemCode::TooLong => StatusCode::SERVICE_UNAVAILABLE,
            ProblemCode::Internal => StatusCode::INTERNAL_SERVER_ERROR,
            ProblemCode::UnknownHost => StatusCode::MISDIRECTED_REQUEST,
            ProblemCode::ForeignPage => StatusCode::FORBIDDEN,
            ProblemCode::NoRoute => StatusCode::NOT_FOUND,
            ProblemCode::NoMethod => StatusCode::METHOD_NOT_ALLOWED,
        }
    }

    /// What it means.
    pub fn means(self) -> &'static str {
        match self {
            ProblemCode::Faults => "Fields at fault, each named",
            ProblemCode::BrokenJson => "Not JSON",
            ProblemCode::BodyLost => "The body did not arrive whole",
            ProblemCode::NotJson => "Not sent as JSON",
            ProblemCode::TooLarge => "Too large",
            ProblemCode::NotFound => "There is no such one",
            ProblemCode::SavedInBetween => "Somebody saved in between, or the key is taken",
            ProblemCode::SaveIdUsed => "The id of this save was used for another",
            ProblemCode::DiskFull => "The disk is full",
            ProblemCode::FileLocked => "Another program holds the file: ask again",
            ProblemCode::FileReadOnly => "The file cannot be written",
            ProblemCode::Damaged => "The file is damaged",
            ProblemCode::Busy => "Too much is asked at once: ask again",
            ProblemCode::TooLong => "It took too long: ask for less",
            ProblemCode::Internal => "Something went wrong here",
            ProblemCode::UnknownHost => "The server is not known by that name",
            ProblemCode::ForeignPage => "Another page sent it",
            ProblemCode::NoRoute => "There is nothing at this address",
            ProblemCode::NoMethod => "The address does not take that method",
        }
    }

    /// Seconds after which asking again may help; none when it does not pass by itself.
    pub fn again(self) -> Option<&'static str> {
        match self {
            ProblemCode::Busy => Some("1"),
            ProblemCode::FileLocked | ProblemCode::TooLong => Some("2"),
            _ => None,
        }
    }

    /// A problem of this kind.
    pub fn problem(self, detail: impl Into<String>) -> Problem {
        let status = self.status();
        Problem {
            kind: "about:blank".to_owned(),
            title: status.canonical_reason().unwrap_or("Problem").to_owned(),
            status: status.as_u16(),
            code: self,
            detail: detail.into(),
            errors: Vec::new(),
            current_revision: None,
        }
    }
}
