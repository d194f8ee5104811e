//! Taking connections: so many at once, each within its times, all let go in good order.

use crate::error::{ApiError, respond};
use axum::Router;
use axum::body::to_bytes;
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use std::pin::Pin;
use std::sync::Arc;
use std::time::Duration;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::{Semaphore, watch};
use tokio_io_timeout::TimeoutStream;

/// What a connection may take.
#[derive(Debug, Clone, Copy)]
pub struct Limits {
    /// Connections at once.
    pub connections: usize,
    /// Until the head of a request has arrived; also how long a connection may rest between two requests.
    pub head: Duration,
    /// Until the other side takes the next piece of an answer.
    pub write: Duration,
    /// Until the last requests are answered when the server stops.
    pub last_requests: Duration,
}

impl Default for Limits {
    fn default() -> Self {
        Limits {
            connections: 512,
            head: Duration::from_secs(30),
            write: Duration::from_secs(20),
            last_requests: Duration::from_secs(3),
        }
    }
}

/// Largest head of a request, bytes.
const LARGEST_HEAD: usize = 32 * 1024;

/// How long accepting rests when the machine has no more files to give.
const BREATH: Duration = Duration::from_millis(50);

/// Takes connections until it is told to stop, then answers what was asked.
///
/// The router is built once and shared: a connection costs its buffers and nothing else.
pub async fn listen(
    listener: TcpListener,
    router: Router,
    limits: Limits,
    mut stopped: watch::Receiver<bool>,
) {
    let places = Arc::new(Semaphore::new(limits.connections));
    let graceful = GracefulShutdown::new();
    let full = no_place().await;
    let mut http = http1::Builder::new();
    http.timer(TokioTimer::new()).header_read_timeout(limits.head).max_buf_size(LARGEST_HEAD);
    loop {
        let stream = tokio::select! {
            () = asked_to_stop(&mut stopped) => break,
            taken = listener.accept() => match taken {
                Ok((stream, _)) => stream,
                Err(error) => {
                    tracing::warn!(%error, "a connection could not be taken");
                    tokio::time::sleep(BREATH).await;
                    continue;
                }
            },
        };
        let Ok(place) = Arc::clone(&places).try_acquire_owned() else {
            tokio::spawn(turn_away(stream, full.clone()));
            continue;
        };
        // Small answers go out at once.
        let _ = stream.set_nodelay(true);
        let mut timed = TimeoutStream::new(stream);
        timed.set_write_timeout(Some(limits.write));
        let io: TokioIo<Pin<Box<TimeoutStream<TcpStream>>>> = TokioIo::new(Box::pin(timed));
        let connection = http.serve_connection(io, TowerToHyperService::new(router.clone()));
        let watched = graceful.watch(connection);
        tokio::spawn(async move {
            let _place = place;
            if let Err(error) = watched.await {
                tracing::debug!(%error, "a connection ended early");
            }
        });
    }
    drop(listener);
    if tokio::time::timeout(limits.last_requests, graceful.shutdown()).await.is_err() {
        tracing::warn!("some requests did not finish in time and were cut off");
    }
}

async fn asked_to_stop(stopped: &mut watch::Receiver<bool>) {
    let _ = stopped.wait_for(|stop| *stop).await;
}

/// The whole answer to a connection too many, as it goes over the wire.
async fn no_place() -> Vec<u8> {
    let (_, body) = respond(ApiError::Busy.into_problem()).into_parts();
    let body = to_bytes(body, 4096).await.unwrap_or_default();
    let head = format!(
        "HTTP/1.1 503 Service Unavailable\r\ncontent-type: application/problem+json\r\nretry-after: 1\r\n\
         connection: close\r\ncontent-length: {}\r\n\r\n",
        body.len()
    );
    [head.as_bytes(), &body].concat()
}

async fn turn_away(mut stream: TcpStream, words: Vec<u8>) {
    let _ = tokio::time::timeout(Duration::from_secs(1), async {
        stream.write_all(&words).await?;
        stream.shutdown().await?;
        // What was asked is taken in before the door shuts, or the words would be cut off by a reset.
        let mut asked = [0; 1024];
        while stream.read(&mut asked).await? > 0 {}
        std::io::Result::Ok(())
    })
    .await;
}
