//! What is wrong with something from outside, where, and what to do.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One thing wrong with what was asked, where it is, and what to do.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fault {
    /// Path of the field: `lines.2.amount`.
    pub field: String,
    /// Stable code.
    pub code: String,
    /// What is wrong and what to do, in words.
    pub message: String,
}

impl Fault {
    /// A fault at a field.
    pub fn new(field: impl Into<String>, code: &str, message: impl Into<String>) -> Self {
        Fault { field: field.into(), code: code.to_owned(), message: message.into() }
    }
}
