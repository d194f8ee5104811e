//! Who may come in, and how long they may take.

use crate::{Kitchen, formula};
use server::listen::Limits;
use std::time::Duration;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::TcpStream;

fn authority(kitchen: &Kitchen) -> String {
    kitchen.address.trim_start_matches("http://").to_owned()
}

/// A request as it goes over the wire, and all that comes back until the other side closes.
async fn wire(kitchen: &Kitchen, head: &str, body: &str) -> String {
    let mut stream = TcpStream::connect(authority(kitchen)).await.unwrap();
    stream.write_all(format!("{head}\r\nconnection: close\r\n\r\n{body}").as_bytes()).await.unwrap();
    let mut answer = String::new();
    stream.read_to_string(&mut answer).await.unwrap();
    answer
}

#[tokio::test]
async fn a_page_that_gives_its_own_name_this_address_reads_and_writes_nothing() {
    let kitchen = Kitchen::open(false).await;
    for path in ["/api/kitchen", "/api/components", "/", "/api/openapi.json"] {
        let answer = wire(&kitchen, &format!("GET {path} HTTP/1.1\r\nhost: evil.example:4710"), "").await;
        assert!(answer.starts_with("HTTP/1.1 421"), "{path}: {answer}");
        assert!(answer.contains("unknown_host") && answer.contains("--name"), "{answer}");
    }
    let body = formula().to_string();
    let head = format!(
        "POST /api/components HTTP/1.1\r\nhost: evil.example\r\norigin: http://evil.example\r\n\
         content-type: application/json\r\ncontent-length: {}",
        body.len()
    );
    assert!(wire(&kitchen, &head, &body).await.starts_with("HTTP/1.1 421"));
    // No host at all, and two of them, are no request.
    assert!(!wire(&kitchen, "GET /api/kitchen HTTP/1.1", "").await.starts_with("HTTP/1.1 200"));
    let known =
        wire(&kitchen, &format!("GET /api/kitchen HTTP/1.1\r\nhost: {}", authority(&kitchen)), "").await;
    assert!(known.starts_with("HTTP/1.1 200"), "{known}");
    assert!(known.to_lowercase().contains("cache-control: no-store"), "{known}");
    assert_eq!(kitchen.get("/api/components").await.1, serde_json::json!([]));
    kitchen.close().await;
}

#[tokio::test]
async fn another_pages_write_is_refused_and_our_own_is_not() {
    let kitchen = Kitchen::open(false).await;
    let own = kitchen.address.clone();
    let post = async |headers: &[(&str, &str)]| {
        let mut request = kitchen.http.post(format!("{own}/api/components")).json(&formula());
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let response = request.send().await.unwrap();
        (response.status().as_u16(), response.text().await.unwrap())
    };
    for foreign in [
        vec![("origin", "http://evil.example")],
        vec![("origin", "null")],
        vec![("origin", "http://127.0.0.1:1")],
        vec![("sec-fetch-site", "cross-site")],
        vec![("sec-fetch-site", "same-site"), ("origin", "http://127.0.0.1:1")],
    ] {
        let (status, words) = post(&foreign).await;
        assert_eq!(status, 403, "{foreign:?}: {words}");
        assert!(words.contains("foreign_page"), "{words}");
    }
    assert_eq!(post(&[("origin", own.as_str()), ("sec-fetch-site", "same-origin")]).await.0, 201);
    assert_eq!(post(&[("origin", own.as_str())]).await.0, 201);
    // A program that is no browser sends neither.
    assert_eq!(post(&[]).await.0, 201);
    kitchen.close().await;
}

#[tokio::test]
async fn a_head_that_does_not_come_and_a_connection_that_rests_are_let_go() {
    let limits = Limits { head: Duration::from_millis(200), ..Limits::default() };
    let kitchen = Kitchen::within(false, limits).await;
    let mut slow = TcpStream::connect(authority(&kitchen)).await.unwrap();
    slow.write_all(b"GET /api/kitchen HT").await.unwrap();
    let mut answer = Vec::new();
    slow.read_to_end(&mut answer).await.unwrap();
    assert!(!String::from_utf8_lossy(&answer).starts_with("HTTP/1.1 200"));
    let mut resting = TcpStream::connect(authority(&kitchen)).await.unwrap();
    let ask = format!("GET /api/kitchen HTTP/1.1\r\nhost: {}\r\n\r\n", authority(&kitchen));
    resting.write_all(ask.as_bytes()).await.unwrap();
    // Answered, then closed from the other side: reading comes to an end.
    let mut answer = String::new();
    resting.read_to_string(&mut answer).await.unwrap();
    assert!(answer.starts_with("HTTP/1.1 200"), "{answer}");
    kitchen.close().await;
}

#[tokio::test]
async fn a_reader_that_takes_nothing_is_let_go_and_its_place_is_free() {
    let limits = Limits { connections: 1, write: Duration::from_millis(200), ..Limits::default() };
    let kitchen = Kitchen::within(false, limits).await;
    let mut stuck = TcpStream::connect(authority(&kitchen)).await.unwrap();
    // More than any buffer between the two holds; nothing of it is read.
    let large = format!("GET /api/openapi.json HTTP/1.1\r\nhost: {}\r\n\r\n", authority(&kitchen));
    let asking = tokio::spawn(async move {
        for _ in 0..1000 {
            if stuck.write_all(large.as_bytes()).await.is_err() {
                break;
            }
        }
        stuck
    });
    let ask = format!("GET /api/kitchen HTTP/1.1\r\nhost: {}", authority(&kitchen));
    loop {
        if wire(&kitchen, &ask, "").await.starts_with("HTTP/1.1 200") {
            break;
        }
        tokio::time::sleep(Duration::from_millis(20)).await;
    }
    // Still open on its own side: it was the server that let go.
    drop(asking.await.unwrap());
    kitchen.close().await;
}

#[tokio::test]
async fn one_connection_too_many_is_told_so_and_there_is_room_again_afterwards() {
    let kitchen = Kitchen::within(false, Limits { connections: 2, ..Limits::default() }).await;
    let held = [
        TcpStream::connect(authority(&kitchen)).await.unwrap(),
        TcpStream::connect(authority(&kitchen)).await.unwrap(),
    ];
    let ask = format!("GET /api/kitchen HTTP/1.1\r\nhost: {}", authority(&kitchen));
    let answer = wire(&kitchen, &ask, "").await;
    assert!(answer.starts_with("HTTP/1.1 503") && answer.contains("retry-after: 1"), "{answer}");
    assert!(answer.contains("wait a moment and try again"), "{answer}");
    drop(held);
    loop {
        if wire(&kitchen, &ask, "").await.starts_with("HTTP/1.1 200") {
            break;
        }
        tokio::task::yield_now().await;
    }
    kitchen.close().await;
}
