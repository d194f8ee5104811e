//! A prediction over HTTP beside a bare Axum handler, in one run on one machine: what the framework
//! costs, what sending the answer costs, and what the answer itself costs.

// The group macro writes a public function of its own.
#![allow(missing_docs)]

use axum::Router;
use axum::routing::post;
use criterion::{Criterion, criterion_group, criterion_main};
use server::config::Serve;
use server::serve;
use tokio::runtime::Runtime;

const FORMULA: &str = include_str!("../demo/01-bay-milk-drip.json");
const MASK: &str = include_str!("../demo/03-harbour-mask.json");

async fn bare(answer: String) -> String {
    let router = Router::new()
        .route("/nothing", post(|| async { "ok" }))
        .route("/same-size", post(async move |_: axum::body::Bytes| answer.clone()));
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.expect("a free port");
    let address = listener.local_addr().expect("an address");
    tokio::spawn(async move { axum::serve(listener, router).await });
    format!("http://{address}")
}

fn http(c: &mut Criterion) {
    let runtime = Runtime::new().expect("a runtime");
    let client = reqwest::Client::new();
    let ask = |url: &str, body: &'static str| {
        let request = client.post(url).header("content-type", "application/json").body(body);
        runtime.block_on(async move {
            let response = request.send().await.expect("an answer");
            assert_eq!(response.status(), 200);
            response.bytes().await.expect("a body").len()
        })
    };
    let running = runtime.block_on(serve::start(&Serve::here(None))).expect("the server starts");
    let predict = format!("http://{}/api/predict", running.address);
    let answer = runtime.block_on(async {
        let request = client.post(&predict).header("content-type", "application/json").body(FORMULA);
        request.send().await.expect("an answer").text().await.expect("a body")
    });
    let bare = runtime.block_on(bare(answer));

    c.bench_function("bare handler, two bytes", |b| b.iter(|| ask(&format!("{bare}/nothing"), FORMULA)));
    c.bench_function("bare handler, an answer of the same size", |b| {
        b.iter(|| ask(&format!("{bare}/same-size"), FORMULA));
    });
    c.bench_function("predict a mask", |b| b.iter(|| ask(&predict, MASK)));
    c.bench_function("predict a drip", |b| b.iter(|| ask(&predict, FORMULA)));
    for path in ["/api/components", "/api/ingredients", "/api/ingredients?search=cream"] {
        let url = format!("http://{}{path}", running.address);
        c.bench_function(&format!("GET {path}, the demo kitchen"), |b| {
            b.iter(|| {
                runtime.block_on(async { client.get(&url).send().await.expect("an answer").bytes().await })
            });
        });
    }
    runtime.block_on(running.stop());
}

criterion_group!(benches, http);
criterion_main!(benches);
