//! Files that go out.

use axum::http::header;
use axum::response::{IntoResponse, Response};

/// A file to keep under a name.
pub(crate) fn download(kind: &'static str, name: &str, text: String) -> Response {
    let name: String = name.chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let extension = match kind {
        kind if kind.starts_with("text/csv") => "csv",
        "application/ld+json" => "jsonld",
        _ => "json",
    };
    let disposition = format!("attachment; filename=\"{name}.{extension}\"");
    ([(header::CONTENT_TYPE, kind.to_owned()), (header::CONTENT_DISPOSITION, disposition)], text)
        .into_response()
}
