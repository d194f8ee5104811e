//! Who may come in: requests that name this server as it is reached, and writes from its own page.
//!
//! A foreign page can give its own name this machine's address (rebinding) and then asks as if it were ours: so the
//! Host must be an address that is listened on, localhost, or a name the kitchen was started with. A foreign page that
//! posts straight to us is known by its Origin.

use crate::error::ApiError;
use axum::body::Body;
use axum::extract::{Request, State};
use axum::http::header::HOST;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::net::{IpAddr, SocketAddr};
use std::sync::Arc;

/// The names this server answers to.
#[derive(Debug, Clone)]
pub struct Names {
    listening: SocketAddr,
    others: Arc<[String]>,
}

impl Names {
    /// The names of a server that listens at an address and was given some names more.
    pub fn of(listening: SocketAddr, others: &[String]) -> Self {
        Names { listening, others: others.iter().map(|name| name.to_ascii_lowercase()).collect() }
    }

    /// Whether a Host is one of them: its port does not matter, a page cannot choose it for another server.
    pub fn know(&self, host: &str) -> bool {
        let name = without_port(host).to_ascii_lowercase();
        if name == "localhost" || self.others.contains(&name) {
            return true;
        }
        let bare = name.strip_prefix('[').and_then(|name| name.strip_suffix(']')).unwrap_or(&name);
        // An address cannot be rebound: behind "every address of this machine" any is one of them.
        bare.parse::<IpAddr>().is_ok_and(|address| {
            let own = self.listening.ip();
            address == own || own.is_unspecified() || (own.is_loopback() && address.is_loopback())
        })
    }
}

fn without_port(host: &str) -> &str {
    match host.rsplit_once(':') {
        Some((name, port)) if port.bytes().all(|byte| byte.is_ascii_digit()) && !name.ends_with(':') => name,
        _ => host,
    }
}

/// Lets a request in when it names this server.
pub async fn known_host(State(names): State<Names>, request: Request, next: Next) -> Response {
    let host = request
        .uri()
        .authority()
        .map(|authority| authority.as_str().to_owned())
        .or_else(|| request.headers().get(HOST).and_then(|value| value.to_str().ok()).map(str::to_owned));
    match host {
        Some(host) if names.know(&host) => next.run(request).await,
        _ => ApiError::UnknownHost { address: names.listening }.into_response(),
    }
}

/// The answer to a write that another page sent.
pub fn foreign_page() -> Response<Body> {
    ApiError::ForeignPage.into_response()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_server_answers_to_its_address_to_localhost_and_to_the_names_it_was_given() {
        let names = Names::of("127.0.0.1:4710".parse().unwrap(), &["Kitchen.Local".to_owned()]);
        for good in [
            "127.0.0.1:4710",
            "127.0.0.1",
            "localhost:4710",
            "LOCALHOST",
            "[::1]:4710",
            "kitchen.local",
            "kitchen.local:80",
        ] {
            assert!(names.know(good), "{good}");
        }
        for bad in [
            "evil.example",
            "evil.example:4710",
            "192.168.0.7:4710",
            "localhost.evil.example",
            "",
            ":4710",
            "127.0.0.1.evil.example",
        ] {
            assert!(!names.know(bad), "{bad}");
        }
        let open = Names::of("0.0.0.0:4710".parse().unwrap(), &[]);
        assert!(open.know("192.168.0.7:4710") && open.know("[fe80::1]:4710") && !open.know("evil.example"));
    }
}
