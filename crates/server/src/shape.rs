//! The shape of what comes in, held against the published description: a body is taken exactly when its schema takes it.
//!
//! The types read a body first, because they have the better words; what they let pass and the schema does not (a size
//! past its range, a list too long, a field nobody knows) is refused here, field by field.

use jsonschema::error::ValidationErrorKind as Kind;
use jsonschema::{ValidationError, Validator};
use pastry::fault::{Fault, FaultCode};
use pastry::field::{place, unit};
use serde_json::{Value, json};
use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex, OnceLock};
use utoipa::ToSchema;

/// Most faults told at once.
const MOST: usize = 20;

static DESCRIBE: OnceLock<fn() -> Value> = OnceLock::new();
static DESCRIPTION: LazyLock<Value> =
    LazyLock::new(|| DESCRIBE.get().expect("whoever reads a body has said what it is held against")());
static READY: LazyLock<Mutex<HashMap<String, Arc<Validator>>>> = LazyLock::new(Mutex::default);

/// Says what bodies are held against: the description of the interface, which lies above this.
pub fn describe(description: fn() -> Value) {
    // Said again it is the same.
    let _ = DESCRIBE.set(description);
}

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

/// What the schema of a type does not take in a value. The type must be in the description.
pub fn faults<T: ToSchema>(value: &Value) -> Vec<Fault> {
    faults_of(&T::name(), value)
}

/// The same by the name of the type.
pub fn faults_of(name: &str, value: &Value) -> Vec<Fault> {
    let Some(validator) = validator(name) else {
        debug_assert!(false, "{name} is not in the description: nothing would be held against it");
        return Vec::new();
    };
    if validator.is_valid(value) {
        return Vec::new();
    }
    let mut found = Vec::new();
    for error in validator.iter_errors(value) {
        told(&error, &mut found);
    }
    found.truncate(MOST);
    found
}

/// The faults of one error; of something that comes in several kinds, those of the kind it was meant as.
fn told(error: &ValidationError, found: &mut Vec<Fault>) {
    if let Kind::OneOfNotValid { context } | Kind::AnyOf { context } = &error.kind
        && let Some(meant) = meant(context, &error.instance_path.to_string())
    {
        for inner in meant {
            told(inner, found);
        }
        return;
    }
    let path = error.instance_path.to_string();
    let field = path.trim_start_matches('/').replace('/', ".");
    if field == "version" || field.ends_with(".version") {
        let message = "only version 1 is known here: it was written by a newer program";
        found.push(Fault::new(field, FaultCode::UnknownVersion, message));
        return;
    }
    let code = match error.kind {
        Kind::MaxLength { .. } => FaultCode::TooLong,
        Kind::MinItems { .. } | Kind::MaxItems { .. } => FaultCode::HowMany,
        _ => FaultCode::OutOfRange,
    };
    let words = words(&error.kind, &error.to_string(), unit(&field));
    let message = match place(&field) {
        Some(place) => format!("{place}: {words}"),
        None => words,
    };
    found.push(Fault::new(field, code, message));
}

/// The kind a value was meant as: the one whose tag and type fit, so that only a size or a name in it is amiss.
fn meant<'a>(kinds: &'a [Vec<ValidationError<'static>>], at: &str) -> Option<&'a [ValidationError<'static>]> {
    let strange = |error: &&ValidationError| {
        let path = error.instance_path.to_string();
        let below = path.strip_prefix(at).unwrap_or(&path).matches('/').count();
        match error.kind {
            Kind::Type { .. } | Kind::Required { .. } => below == 0,
            Kind::Enum { .. } | Kind::Constant { .. } => below <= 1,
            _ => false,
        }
    };
    kinds
        .iter()
        .filter(|errors| !errors.is_empty() && !errors.iter().any(|error| strange(&error)))
        .min_by_key(|errors| errors.len())
        .map(Vec::as_slice)
}

/// What is wrong, without the value: that may be long.
fn words(kind: &Kind, otherwise: &str, unit: &str) -> String {
    match kind {
        Kind::Minimum { limit } => format!("write at least {limit}{unit}"),
        Kind::Maximum { limit } => format!("write at most {limit}{unit}"),
        Kind::ExclusiveMinimum { limit } => format!("write more than {limit}{unit}"),
        Kind::ExclusiveMaximum { limit } => format!("write less than {limit}{unit}"),
        Kind::MaxLength { limit } => format!("write at most {limit} letters"),
        Kind::MinLength { limit } => format!("write at least {limit} letters"),
        Kind::MaxItems { limit } => format!("at most {limit} of them"),
        Kind::MinItems { limit } => format!("at least {limit} of them"),
        Kind::AdditionalProperties { unexpected } => {
            format!("nothing is known by the name of {}: take it out", unexpected.join(", "))
        }
        Kind::Required { property } => format!("{property} is missing"),
        Kind::Constant { expected_value } => format!("write {expected_value}"),
        Kind::OneOfNotValid { .. } | Kind::AnyOf { .. } => {
            "it is none of the kinds that are known, or a value in it is past its range".to_owned()
        }
        _ => otherwise.chars().take(200).collect(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_size_in_one_of_several_kinds_is_said_at_its_field() {
        describe(crate::openapi::document);
        let cake = |across: f64| {
            json!({
                "format": "bright-spoon/stack", "version": 1,
                "tiers": [
                    { "body": { "shape": "round", "diameter_mm": 200.0 }, "layers": [] },
                    { "body": { "shape": "round", "diameter_mm": across }, "layers": [] }
                ]
            })
        };
        assert_eq!(faults_of("StackDocument", &cake(140.0)), []);
        let found = faults_of("StackDocument", &cake(0.0));
        assert_eq!(found.len(), 1, "{found:?}");
        assert_eq!(found[0].field, "tiers.1.body.diameter_mm");
        assert_eq!(found[0].message, "diameter of tier 2: write at least 10 mm");
        let mut odd = cake(140.0);
        odd["tiers"][1]["layers"] = json!([{ "kind": "filling", "thickness_mm": 1e9, "colour": "x" }]);
        let found = faults_of("StackDocument", &odd);
        assert!(found.iter().all(|own| own.field.starts_with("tiers.1.layers.0")), "{found:?}");
        assert!(found.iter().any(|own| own.message.contains("colour")), "{found:?}");
        let mut wide = cake(140.0);
        wide["tiers"][1]["body"] = json!({ "shape": "rectangle", "length_mm": 100, "width_mm": 1e9 });
        let found = faults_of("StackDocument", &wide);
        assert_eq!(found[0].message, "width of tier 2: write at most 1500 mm");
        odd["tiers"][1]["layers"] = json!([{ "kind": "dream" }]);
        assert_eq!(faults_of("StackDocument", &odd).len(), 1);
    }
}
