//! The page, inside the binary. Development builds read it from disk as it is.

use axum::body::Body;
use axum::http::{Method, Response, StatusCode, Uri, header};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
struct Page;

/// A file of the page; any other path is the page itself, which reads its own address.
pub async fn serve(method: Method, uri: Uri) -> Response<Body> {
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
            answer(file.data.into_owned(), kind.as_ref(), cache)
        }
        None if path.starts_with("assets/") => plain(StatusCode::NOT_FOUND, "no such file"),
        None => match Page::get("index.html") {
            Some(page) => answer(page.data.into_owned(), "text/html; charset=utf-8", "no-cache"),
            None => plain(StatusCode::NOT_FOUND, "the page was not built: run make web"),
        },
    }
}

fn answer(data: Vec<u8>, kind: &str, cache: &str) -> Response<Body> {
    Response::builder()
        .header(header::CONTENT_TYPE, kind)
        .header(header::CACHE_CONTROL, cache)
        .body(Body::from(data))
        .expect("a response of fixed headers")
}

fn plain(status: StatusCode, words: &'static str) -> Response<Body> {
    Response::builder().status(status).body(Body::from(words)).expect("a response of fixed headers")
}
