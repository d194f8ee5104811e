//! JSON bodies and queries: size, type, syntax and shape checked, each refusal in words.

use crate::error::ApiError;
use crate::shape;
use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Query, Request};
use axum::http::request::Parts;
use axum::http::{Uri, header};
use pastry::fault::FaultCode;
use pastry::formula::Fault;
use serde::de::DeserializeOwned;
use serde_json::Value;
use utoipa::ToSchema;

/// Largest body taken, bytes.
pub const LARGEST_BODY: usize = 256 * 1024;

/// Largest file taken, bytes: a log of some years.
pub const LARGEST_FILE: usize = 32 * 1024 * 1024;

/// A JSON body with a whole file in it, of the shape of `T`.
pub struct FileBody<T>(pub T);

impl<T: DeserializeOwned + ToSchema, S: Send + Sync> FromRequest<S> for FileBody<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, _state: &S) -> Result<Self, ApiError> {
        parse(&bytes_of(request, LARGEST_FILE).await?).map(FileBody)
    }
}

/// A JSON body of the shape of `T`.
pub struct Body<T>(pub T);

impl<T: DeserializeOwned + ToSchema, S: Send + Sync> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, _state: &S) -> Result<Self, ApiError> {
        parse(&json_of(request).await?).map(Body)
    }
}

/// The bytes of a JSON body, type and size checked.
///
/// # Errors
/// [`ApiError::NotJson`], [`ApiError::TooLarge`] or [`ApiError::BodyLost`].
pub async fn json_of(request: Request) -> Result<Bytes, ApiError> {
    bytes_of(request, LARGEST_BODY).await
}

async fn bytes_of(request: Request, largest: usize) -> Result<Bytes, ApiError> {
    let kind = request.headers().get(header::CONTENT_TYPE).and_then(|value| value.to_str().ok());
    let is_json = kind.is_some_and(|kind| {
        kind.split(';').next().is_some_and(|kind| kind.trim().eq_ignore_ascii_case("application/json"))
    });
    if !is_json {
        return Err(ApiError::NotJson);
    }
    let too_large = || ApiError::TooLarge { limit_kb: largest / 1024 };
    let length = request.headers().get(header::CONTENT_LENGTH).and_then(|value| value.to_str().ok());
    if length.and_then(|text| text.parse::<u64>().ok()).is_some_and(|bytes| bytes > largest as u64) {
        return Err(too_large());
    }
    let bytes = axum::body::to_bytes(request.into_body(), largest).await.map_err(|error| {
        let limit = std::error::Error::source(&error)
            .is_some_and(|source| source.to_string().contains("length limit"));
        if limit { too_large() } else { ApiError::BodyLost }
    })?;
    Ok(bytes)
}

/// The query of an address, of the shape of `T`.
pub struct Asked<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequestParts<S> for Asked<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, _state: &S) -> Result<Self, ApiError> {
        asked_of(&parts.uri).map(Asked)
    }
}

fn asked_of<T: DeserializeOwned>(address: &Uri) -> Result<T, ApiError> {
    match Query::<T>::try_from_uri(address) {
        Ok(Query(value)) => Ok(value),
        Err(error) => {
            let words = std::error::Error::source(&error).map_or(error.to_string(), ToString::to_string);
            let message = format!("the address asks for something not known here: {words}");
            Err(ApiError::Faults(vec![Fault::new("query", FaultCode::WrongValue, message)]))
        }
    }
}

/// A part of a query by itself, of the shape of `T`.
///
/// # Errors
/// [`ApiError::Faults`] when it asks for something not known.
pub fn asked<T: DeserializeOwned>(query: &str) -> Result<T, ApiError> {
    let address = format!("/?{query}").parse::<Uri>().map_err(|_| ApiError::NoRoute)?;
    asked_of(&address)
}

/// Reads JSON, naming the field that does not fit.
///
/// # Errors
/// [`ApiError::BrokenJson`] with line and column, or [`ApiError::Faults`] with the path of the field.
pub fn parse<T: DeserializeOwned + ToSchema>(bytes: &[u8]) -> Result<T, ApiError> {
    let read: T = read(bytes)?;
    let value: Value = serde_json::from_slice(bytes).map_err(|error| broken(&error))?;
    let faults = shape::faults::<T>(&value);
    if faults.is_empty() { Ok(read) } else { Err(ApiError::Faults(faults)) }
}

/// Reads JSON by its type alone.
///
/// # Errors
/// [`ApiError::BrokenJson`] with line and column, or [`ApiError::Faults`] with the path of the field.
pub fn read<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, ApiError> {
    let mut deserializer = serde_json::Deserializer::from_slice(bytes);
    let value = serde_path_to_error::deserialize(&mut deserializer).map_err(|error| {
        let (path, inner) = (error.path().to_string(), error.inner());
        if inner.is_data() {
            let message = inner.to_string();
            // serde_json ends with " at line 1 column 20": the path says it better.
            let words = message.rsplit_once(" at line ").map_or(message.as_str(), |(words, _)| words);
            // One dialect of paths: lines.0.amount.
            let path = path.replace('[', ".").replace(']', "");
            let field = if path == "." { String::new() } else { path };
            ApiError::Faults(vec![Fault::new(field, FaultCode::WrongValue, words)])
        } else {
            broken(inner)
        }
    })?;
    deserializer.end().map_err(|error| broken(&error))?;
    Ok(value)
}

fn broken(error: &serde_json::Error) -> ApiError {
    ApiError::BrokenJson(format!(
        "this is not JSON: it breaks at line {}, column {}; check the commas and quotes there",
        error.line(),
        error.column()
    ))
}
