//! The page, inside the binary. Development builds read it from disk as it is.

use axum::body::Body;
use axum::http::{HeaderMap, Method, Response, StatusCode, Uri, header};
use rust_embed::{EmbeddedFile, RustEmbed};

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
struct Page;

/// A file of the page; any other path is the page itself, which reads its own address.
pub async fn serve(method: Method, uri: Uri, headers: HeaderMap) -> Response<Body> {
    if method != Method::GET && method != Method::HEAD {
        return plain(StatusCode::METHOD_NOT_ALLOWED, "only GET here");
    }
    let path = uri.path().trim_start_matches('/');
    match Page::get(path) {
        Some(file) => {
            // Names under assets/ carry a hash of their content.
            let cache =
                if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
            let kind = mime_guess::from_path(path).first_or_octet_stream();
            answer(file, kind.as_ref(), cache, &headers)
        }
        None if path.starts_with("assets/") => plain(StatusCode::NOT_FOUND, "no such file"),
        None => match Page::get("index.html") {
            Some(page) => answer(page, "text/html; charset=utf-8", "no-cache", &headers),
            None => plain(StatusCode::NOT_FOUND, "the page was not built: run make web"),
        },
    }
}

/// A file, or word that the one the browser has is still it (RFC 9110, sections 8.8.3 and 13.1.2). The tag is weak: on
/// its way the file may be compressed.
fn answer(file: EmbeddedFile, kind: &str, cache: &str, asked: &HeaderMap) -> Response<Body> {
    let hash: String = file.metadata.sha256_hash()[..12].iter().map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("W/\"{hash}\"");
    let known = asked.get_all(header::IF_NONE_MATCH).iter().filter_map(|value| value.to_str().ok());
    let strong = tag.trim_start_matches("W/");
    let same = known
        .flat_map(|value| value.split(','))
        .map(|value| value.trim().trim_start_matches("W/"))
        .any(|value| value == strong || value == "*");
    let response = Response::builder().header(header::ETAG, &tag).header(header::CACHE_CONTROL, cache);
    if same {
        return response.status(StatusCode::NOT_MODIFIED).body(Body::empty()).expect("fixed headers");
    }
    response
        .header(header::CONTENT_TYPE, kind)
        .body(Body::from(file.data.into_owned()))
        .expect("a response of fixed headers")
}

fn plain(status: StatusCode, words: &'static str) -> Response<Body> {
    Response::builder().status(status).body(Body::from(words)).expect("a response of fixed headers")
}
