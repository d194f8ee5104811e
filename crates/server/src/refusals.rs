//! What each route may answer instead of what was asked for, out of the one list of problems: the description of every
//! route is made here.

use crate::problem::ProblemCode;
use serde_json::{Value, json};
use std::collections::BTreeMap;

/// Which routes it can come from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum When {
    /// From any.
    Any,
    /// From those that take a body.
    Body,
    /// From those that take a body or a question in the address.
    Asked,
    /// From those with a key in their address.
    Key,
    /// From those that write.
    Write,
    /// From no route: the address is none.
    None,
}

fn when(code: ProblemCode) -> When {
    match code {
        ProblemCode::Faults => When::Asked,
        ProblemCode::BrokenJson
        | ProblemCode::BodyLost
        | ProblemCode::NotJson
        | ProblemCode::TooLarge
        | ProblemCode::TooLong => When::Body,
        ProblemCode::NotFound => When::Key,
        ProblemCode::SavedInBetween
        | ProblemCode::SaveIdUsed
        | ProblemCode::DiskFull
        | ProblemCode::FileReadOnly
        | ProblemCode::ForeignPage => When::Write,
        ProblemCode::FileLocked
        | ProblemCode::Damaged
        | ProblemCode::Busy
        | ProblemCode::Internal
        | ProblemCode::UnknownHost => When::Any,
        ProblemCode::NoRoute | ProblemCode::NoMethod => When::None,
    }
}

/// Writes into the description of every route what may be answered instead.
pub fn describe(description: &mut Value) {
    let Some(paths) = description["paths"].as_object_mut() else { return };
    for (path, operations) in paths {
        for (method, operation) in operations.as_object_mut().into_iter().flatten() {
            let takes_body = operation.get("requestBody").is_some();
            let asked = takes_body
                || operation["parameters"]
                    .as_array()
                    .is_some_and(|all| all.iter().any(|one| one["in"] == "query" || one["in"] == "header"));
            let writes = method != "get" && operation["parameters"].to_string().contains("Idempotency-Key");
            let mut by_status: BTreeMap<u16, Vec<&str>> = BTreeMap::new();
            for code in ProblemCode::ALL {
                let can = match when(code) {
                    When::Any => true,
                    When::Body => takes_body,
                    When::Asked => asked,
                    When::Key => path.contains('{'),
                    When::Write => writes,
                    When::None => false,
                };
                if can {
                    by_status.entry(code.status().as_u16()).or_default().push(code.means());
                }
            }
            for (status, means) in by_status {
                operation["responses"][status.to_string()] = json!({
                    "description": means.join("; "),
                    "content": { "application/problem+json": {
                        "schema": { "$ref": "#/components/schemas/Problem" }
                    } }
                });
            }
        }
    }
}
