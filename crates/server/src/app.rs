//! The application: routes, limits, headers.

use crate::door::Names;
use crate::error::{ApiError, internal};
use crate::state::AppState;
use crate::{assets, door, openapi, routes, shape};
use axum::Router;
use axum::extract::State;
use axum::http::{HeaderName, HeaderValue, Request};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::time::Duration;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::csrf::{CsrfLayer, ProtectionError};
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::trace::TraceLayer;

/// Longest a request may take.
const LONGEST_REQUEST: Duration = Duration::from_secs(15);
/// The same where a plan is looked for.
const LONGEST_PLANNING: Duration = Duration::from_secs(75);

/// Everything the page may load comes from here; Radix sets inline styles.
const CONTENT_SECURITY_POLICY: &str = "default-src 'self'; style-src 'self' 'unsafe-inline'; \
     img-src 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'none'; object-src 'none'";

/// The header that says how often anybody saved: the page asks again what it worked out before.
const EPOCH: HeaderName = HeaderName::from_static("kitchen-epoch");

/// Told after the answer was made: it may be newer than the answer, never older.
async fn epoch(State(state): State<AppState>, mut response: Response) -> Response {
    let words = format!("{}-{}", state.begun_ms, state.store.saves());
    if let Ok(value) = HeaderValue::try_from(words) {
        response.headers_mut().insert(EPOCH, value);
    }
    response
}

/// Gives a request up in words; one that looks for a plan later than others.
async fn in_time(request: Request<axum::body::Body>, next: Next) -> Response {
    let plans = request.uri().path().starts_with("/plan/") || request.uri().path() == "/plan";
    let longest = if plans { LONGEST_PLANNING } else { LONGEST_REQUEST };
    let answer = tokio::time::timeout(longest, next.run(request)).await;
    answer.unwrap_or_else(|_| ApiError::TooLong.into_response())
}

/// The whole application, for a server that answers to these names.
pub fn app(state: AppState, names: Names) -> Router {
    shape::describe(openapi::document);
    let header = |name: &'static str, value: &'static str| {
        SetResponseHeaderLayer::if_not_present(HeaderName::from_static(name), HeaderValue::from_static(value))
    };
    let csrf = CsrfLayer::new().with_rejection_response(|_: ProtectionError| door::foreign_page());
    let (api, document) = openapi::with_routes(routes::all()).split_for_parts();
    let api = api
        .merge(openapi::served(document))
        .fallback(|| async { ApiError::NoRoute })
        .method_not_allowed_fallback(|| async { ApiError::NoMethod })
        .layer(axum::middleware::map_response_with_state(state.clone(), epoch))
        .layer(csrf)
        .layer(header("cache-control", "no-store"))
        .layer(axum::middleware::from_fn(in_time))
        .with_state(state);
    Router::new()
        .nest("/api", api)
        .fallback(assets::serve)
        .layer(CompressionLayer::new())
        .layer(CatchPanicLayer::custom(|panic: Box<dyn std::any::Any + Send>| {
            let said = panic.downcast_ref::<String>().cloned().unwrap_or_else(|| "no message".to_owned());
            tracing::error!(panic = %said, "a request failed");
            internal().into_response()
        }))
        .layer(axum::middleware::from_fn_with_state(names, door::known_host))
        .layer(header("content-security-policy", CONTENT_SECURITY_POLICY))
        .layer(header("x-content-type-options", "nosniff"))
        .layer(header("referrer-policy", "no-referrer"))
        .layer(TraceLayer::new_for_http().make_span_with(|request: &Request<_>| {
            tracing::info_span!("request", method = %request.method(), path = %request.uri().path())
        }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use axum::body::{Body, to_bytes};
    use axum::routing::get;
    use tower::ServiceExt;

    async fn slow() -> &'static str {
        tokio::time::sleep(LONGEST_REQUEST + Duration::from_secs(5)).await;
        "done"
    }

    #[tokio::test(start_paused = true)]
    async fn what_takes_too_long_is_given_up_in_words_and_a_plan_has_longer() {
        let app = Router::new()
            .route("/orders", get(slow))
            .route("/plan/bend", get(slow))
            .layer(axum::middleware::from_fn(in_time));
        let ask = async |path: &str| {
            let request = Request::builder().uri(path).body(Body::empty()).unwrap();
            let answer = app.clone().oneshot(request).await.unwrap();
            let status = answer.status().as_u16();
            (status, String::from_utf8(to_bytes(answer.into_body(), 10_000).await.unwrap().to_vec()).unwrap())
        };
        let (status, words) = ask("/orders").await;
        assert_eq!(status, 503);
        assert!(words.contains("took too long"), "{words}");
        assert_eq!(ask("/plan/bend").await, (200, "done".to_owned()));
    }
}
