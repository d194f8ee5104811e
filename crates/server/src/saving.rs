//! Who saves, as the page says it: the id of the save, of which the same gets the same answer however often it comes,
//! and the name of the device.

use crate::error::ApiError;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use jiff::Timestamp;
use pastry::fault::{Fault, FaultCode};
use percent_encoding::percent_decode_str;
use store::by::LONGEST_DEVICE;
use store::{By, Device, SaveId};
use utoipa::openapi::Required;
use utoipa::openapi::path::{Parameter, ParameterBuilder, ParameterIn};
use utoipa::openapi::schema::{ObjectBuilder, Type};

/// The header it comes in, named as in the IETF's draft "The Idempotency-Key HTTP Header Field" (from memory).
pub const HEADER: &str = "idempotency-key";

/// The header with the name of the device, percent-encoded UTF-8 (RFC 3986, section 2.1): headers take no other letters.
pub const DEVICE: &str = "kitchen-device";

/// What a save came with.
#[derive(Debug, Clone)]
pub struct Saving {
    id: Option<SaveId>,
    device: Option<Device>,
}

impl Saving {
    /// Who saves, and when: now.
    pub fn by(self) -> By {
        By::at(Timestamp::now()).on(self.device).under(self.id)
    }
}

fn id(parts: &Parts) -> Result<Option<SaveId>, ApiError> {
    let Some(value) = parts.headers.get(HEADER) else { return Ok(None) };
    let id = value.to_str().ok().and_then(SaveId::read);
    id.map(Some).ok_or_else(|| {
        let message = "a save id has 8 to 64 letters, digits or hyphens: make a new one for each save";
        ApiError::Faults(vec![Fault::new("Idempotency-Key", FaultCode::BadSaveId, message)])
    })
}

fn device(parts: &Parts) -> Result<Option<Device>, ApiError> {
    let Some(value) = parts.headers.get(DEVICE) else { return Ok(None) };
    let text = value.to_str().ok().and_then(|text| percent_decode_str(text).decode_utf8().ok());
    let device = text.and_then(|text| Device::read(&text));
    device.map(Some).ok_or_else(|| {
        let message = format!("the name of a device has 1 to {LONGEST_DEVICE} letters, percent-encoded");
        ApiError::Faults(vec![Fault::new("Kitchen-Device", FaultCode::BadDevice, message)])
    })
}

impl<S: Send + Sync> FromRequestParts<S> for Saving {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _state: &S) -> Result<Self, ApiError> {
        Ok(Saving { id: id(parts)?, device: device(parts)? })
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
            ParameterBuilder::new()
                .name("Kitchen-Device")
                .parameter_in(ParameterIn::Header)
                .required(Required::False)
                .description(Some("What the device calls itself, percent-encoded; the history names it"))
                .schema(Some(ObjectBuilder::new().schema_type(Type::String).max_length(Some(540)).build()))
                .build(),
        ]
    }
}
