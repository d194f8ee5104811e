//! The interface over real HTTP, on a real file.

// Helpers of tests say what they do by name, and stop at once when something is amiss.
#![allow(missing_docs, clippy::unwrap_used)]

mod bad_input;
mod balance;
mod batches;
mod cakes;
mod command_line;
mod components;
mod copies;
mod description;
mod devices;
mod door;
mod failing;
mod families;
mod ingredients;
mod killed;
mod learned;
mod learned_amiss;
mod library;
mod log;
mod making;
mod nested;
mod orders;
mod planning;
mod predict;
mod saving;
mod shapes;
mod trainer;
mod versions;

use pastry::assess::FormulaDocument;
use serde_json::{Value, json};
use server::config::Serve;
use server::listen::Limits;
use server::serve::{Running, start_within};
use tempfile::TempDir;

/// A server on a free port with its own file.
pub struct Kitchen {
    pub address: String,
    pub http: reqwest::Client,
    pub dir: TempDir,
    running: Running,
}

impl Kitchen {
    pub async fn open(demo: bool) -> Self {
        Self::within(demo, Limits::default()).await
    }

    pub async fn within(demo: bool, limits: Limits) -> Self {
        let dir = tempfile::tempdir().unwrap();
        let options = Serve::here((!demo).then(|| dir.path().join("kitchen.db")));
        let running = start_within(&options, limits).await.unwrap();
        Kitchen { address: format!("http://{}", running.address), http: reqwest::Client::new(), dir, running }
    }

    /// The same kitchen begun again, on the file of one that was closed.
    pub async fn over(dir: TempDir) -> Self {
        let options = Serve::here(Some(dir.path().join("kitchen.db")));
        let running = start_within(&options, Limits::default()).await.unwrap();
        Kitchen { address: format!("http://{}", running.address), http: reqwest::Client::new(), dir, running }
    }

    pub async fn get(&self, path: &str) -> (u16, Value) {
        let response = self.http.get(format!("{}{path}", self.address)).send().await.unwrap();
        (response.status().as_u16(), response.json().await.unwrap())
    }

    pub async fn send(&self, method: reqwest::Method, path: &str, body: &Value) -> (u16, Value) {
        let response =
            self.http.request(method, format!("{}{path}", self.address)).json(body).send().await.unwrap();
        let (status, text) = (response.status().as_u16(), response.text().await.unwrap());
        (status, serde_json::from_str(&text).unwrap_or(Value::Null))
    }

    pub async fn post(&self, path: &str, body: &Value) -> (u16, Value) {
        self.send(reqwest::Method::POST, path, body).await
    }

    pub async fn put(&self, path: &str, body: &Value) -> (u16, Value) {
        self.send(reqwest::Method::PUT, path, body).await
    }

    /// The store behind the interface, for what a test does to the file.
    pub fn store(&self) -> &store::Store {
        self.running.store()
    }

    pub async fn close(self) -> TempDir {
        self.running.stop().await;
        self.dir
    }
}

pub fn formula() -> Value {
    json!({
        "format": "bright-spoon/formula", "version": 1, "name": "Test drip", "family": "ganache",
        "lines": [
            { "ingredient": "dark55", "amount": "100 g" },
            { "ingredient": "cream35", "amount": "100 g" }
        ],
        "work": { "job": { "kind": "drip" }, "temperature_c": 30.0, "room_temperature_c": 21.0 }
    })
}

pub fn document() -> FormulaDocument {
    serde_json::from_value(formula()).unwrap()
}
