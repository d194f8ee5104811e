//! The id of a save, as the page sends it: the same id gets the same answer, however often it comes.

use crate::error::ApiError;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use pastry::fault::Fault;
use store::SaveId;
use utoipa::openapi::Required;
use utoipa::openapi::path::{Parameter, ParameterBuilder, ParameterIn};
use utoipa::openapi::schema::{ObjectBuilder, Type};

/// The header it comes in, named as in the IETF's draft "The Idempotency-Key HTTP Header Field" (from memory).
pub const HEADER: &str = "idempotency-key";

/// The id a save came with, if any.
#[derive(Debug, Clone)]
pub struct Saving(Option<SaveId>);

impl Saving {
    /// The id, to hand to the store.
    pub fn id(&self) -> Option<&SaveId> {
        self.0.as_ref()
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Saving {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _state: &S) -> Result<Self, ApiError> {
        let Some(value) = parts.headers.get(HEADER) else { return Ok(Saving(None)) };
        match value.to_str().ok().and_then(SaveId::read) {
            Some(id) => Ok(Saving(Some(id))),
            None => {
                let message =
                    "a save id has 8 to 64 letters, digits or hyphens: make a new one for each save";
                Err(ApiError::Faults(vec![Fault::new("Idempotency-Key", "bad_save_id", message)]))
            }
        }
    }
}

impl utoipa::IntoParams for Saving {
    fn into_params(_: impl Fn() -> Option<ParameterIn>) -> Vec<Parameter> {
        let schema = ObjectBuilder::new()
            .schema_type(Type::String)
            .min_length(Some(8))
            .max_length(Some(64))
            .pattern(Some("^[A-Za-z0-9-]+$"))
            .build();
        vec![
            ParameterBuilder::new()
                .name("Idempotency-Key")
                .parameter_in(ParameterIn::Header)
                .required(Required::False)
                .description(Some("Made once for each save: the same again gets the same answer"))
                .schema(Some(schema))
                .build(),
        ]
    }
}
