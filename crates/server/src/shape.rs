//! The shape of what comes in, held against the published description: a body is taken exactly when its schema takes it.
//!
//! The types read a body first, because they have the better words; what they let pass and the schema does not (a size
//! past its range, a list too long, a field nobody knows) is refused here, field by field.

use crate::openapi;
use jsonschema::Validator;
use jsonschema::error::ValidationErrorKind as Kind;
use pastry::fault::Fault;
use serde_json::{Value, json};
use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex};
use utoipa::ToSchema;

/// Most faults told at once.
const MOST: usize = 20;

static DESCRIPTION: LazyLock<Value> = LazyLock::new(openapi::document);
static READY: LazyLock<Mutex<HashMap<String, Arc<Validator>>>> = LazyLock::new(Mutex::default);

/// The schema of a type of the description, made ready once.
fn validator(name: &str) -> Option<Arc<Validator>> {
    let mut ready = READY.lock().ok()?;
    if let Some(known) = ready.get(name) {
        return Some(Arc::clone(known));
    }
    DESCRIPTION["components"]["schemas"].get(name)?;
    let schema = json!({
        "$ref": format!("#/components/schemas/{name}"),
        "components": DESCRIPTION["components"],
    });
    let made = Arc::new(jsonschema::draft202012::new(&schema).expect("the description holds schemas"));
    ready.insert(name.to_owned(), Arc::clone(&made));
    Some(made)
}

/// What the schema of a type does not take in a value; nothing for a type that is not described.
pub fn faults<T: ToSchema>(value: &Value) -> Vec<Fault> {
    faults_of(&T::name(), value)
}

/// The same by the name of the type.
pub fn faults_of(name: &str, value: &Value) -> Vec<Fault> {
    let Some(validator) = validator(name) else { return Vec::new() };
    if validator.is_valid(value) {
        return Vec::new();
    }
    validator
        .iter_errors(value)
        .take(MOST)
        .map(|error| {
            let path = error.instance_path.to_string();
            let field = path.trim_start_matches('/').replace('/', ".");
            if field == "version" || field.ends_with(".version") {
                let message = "only version 1 is known here: it was written by a newer program";
                return Fault::new(field, "unknown_version", message);
            }
            let code = match error.kind {
                Kind::MaxLength { .. } => "too_long",
                Kind::MinItems { .. } | Kind::MaxItems { .. } => "how_many",
                _ => "out_of_range",
            };
            Fault::new(field, code, words(&error.kind, &error.to_string()))
        })
        .collect()
}

/// What is wrong, without the value: that may be long.
fn words(kind: &Kind, otherwise: &str) -> String {
    match kind {
        Kind::Minimum { limit } => format!("write at least {limit}"),
        Kind::Maximum { limit } => format!("write at most {limit}"),
        Kind::ExclusiveMinimum { limit } => format!("write more than {limit}"),
        Kind::ExclusiveMaximum { limit } => format!("write less than {limit}"),
        Kind::MaxLength { limit } => format!("write at most {limit} letters"),
        Kind::MinLength { limit } => format!("write at least {limit} letters"),
        Kind::MaxItems { limit } => format!("at most {limit} of them"),
        Kind::MinItems { limit } => format!("at least {limit} of them"),
        Kind::AdditionalProperties { unexpected } => {
            format!("nothing is known by the name of {}: take it out", unexpected.join(", "))
        }
        Kind::Constant { expected_value } => format!("write {expected_value}"),
        Kind::OneOfNotValid { .. } | Kind::AnyOf { .. } => {
            "it is none of the kinds that are known, or a value in it is past its range".to_owned()
        }
        _ => otherwise.chars().take(200).collect(),
    }
}
