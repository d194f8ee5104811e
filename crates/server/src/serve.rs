//! Running the server: open the file, listen, stop cleanly.

use crate::app::app;
use crate::config::{LogForm, Serve, default_data_file};
use crate::demo;
use crate::desk::Desk;
use crate::door::Names;
use crate::listen::{Limits, listen};
use crate::live::Live;
use crate::log_book::LogBook;
use crate::state::AppState;
use crate::teaching::Teaching;
use crate::{fridges, stand_ins};
use devices::Hub;
use jiff::Timestamp;
use std::net::SocketAddr;
use store::{Opening, Store, StoreError};
use tempfile::TempDir;
use tokio::net::TcpListener;
use tokio::signal::unix::{Signal, SignalKind, signal};
use tokio::sync::watch;
use tracing_subscriber::EnvFilter;

/// A server that listens.
pub struct Running {
    /// Where.
    pub address: SocketAddr,
    stop: watch::Sender<bool>,
    task: tokio::task::JoinHandle<()>,
    watch: tokio::task::JoinHandle<()>,
    reading: tokio::task::JoinHandle<()>,
    hub: Hub,
    store: Store,
    _demo: Option<TempDir>,
}

impl Running {
    /// The kitchen's file behind it.
    pub fn store(&self) -> &Store {
        &self.store
    }

    /// Asks it to stop and waits until it has, three seconds at most.
    pub async fn stop(self) {
        let _ = self.stop.send(true);
        let _ = self.task.await;
        self.watch.abort();
        self.reading.abort();
        self.hub.connect(&[]);
        self.store.close().await;
    }
}

/// Starts the structured log on standard error. `RUST_LOG` sets what is said.
pub fn start_log(form: LogForm) {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("info"));
    let log = tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr);
    match form {
        LogForm::Text => log.with_target(false).init(),
        LogForm::Json => log.json().init(),
    }
}

/// Opens the kitchen's file and listens.
///
/// # Errors
/// In words: the file cannot be opened, or the port is taken.
pub async fn start(options: &Serve) -> Result<Running, String> {
    start_within(options, Limits::default()).await
}

/// The same within other limits.
///
/// # Errors
/// See [`start`].
pub async fn start_within(options: &Serve, limits: Limits) -> Result<Running, String> {
    let (store, demo) = if options.demo {
        let dir = tempfile::Builder::new()
            .prefix("bright-spoon-demo-")
            .tempdir()
            .map_err(|error| format!("cannot make a folder for the demo kitchen: {error}"))?;
        let store = open(&dir.path().join("kitchen.db"), false).await?;
        let filled = async {
            demo::fill(&store, Timestamp::now()).await?;
            stand_ins::plug_in(&store, Timestamp::now()).await
        };
        filled.await.map_err(|error| format!("cannot fill the demo kitchen: {error}"))?;
        (store, Some(dir))
    } else {
        let path = options.data.clone().map_or_else(default_data_file, Ok)?;
        if let Some(folder) = path.parent() {
            std::fs::create_dir_all(folder)
                .map_err(|error| format!("cannot make the folder {}: {error}", folder.display()))?;
        }
        tracing::info!(file = %path.display(), "the kitchen's file");
        (open(&path, options.new).await?, None)
    };
    let listener = TcpListener::bind((options.host, options.port)).await.map_err(|error| {
        format!(
            "cannot listen on {}:{} ({error}); another program may use it, try --port 0",
            options.host, options.port
        )
    })?;
    let address = listener.local_addr().map_err(|error| error.to_string())?;
    let (stop, stopped) = watch::channel(false);
    store.say_where(&format!("http://{address}"));
    let hub = Hub::default();
    let settings =
        store.devices().await.map_err(|error| format!("cannot read the list of devices: {error}"))?;
    hub.connect(&settings.devices);
    let live = Live::begin(hub.clone(), store.clone(), stopped.clone());
    let watch = tokio::spawn(fridges::watch(hub.clone(), store.clone()));
    let state = AppState {
        store: store.clone(),
        demo: options.demo,
        desk: Desk::default(),
        hub: hub.clone(),
        live,
        teaching: Teaching::default(),
        log: LogBook::default(),
        most_pictures: options.pictures_mb.saturating_mul(1_000_000),
        begun_ms: Timestamp::now().as_millisecond(),
    };
    let teaching = state.teaching.clone();
    teaching
        .learn(&state.store, &state.desk)
        .await
        .map_err(|error| format!("cannot read what was tested: {error:?}"))?;
    // A kitchen of before there was a log has one when it is looked at.
    let (log, of, desk) = (state.log.clone(), store.clone(), state.desk.clone());
    let reading = tokio::spawn(async move {
        log.read_all(&of, &desk).await;
        teaching.follow(&of, &desk).await;
    });
    let router = app(state, Names::of(address, &options.names));
    let task = tokio::spawn(listen(listener, router, limits, stopped));
    Ok(Running { address, stop, task, watch, reading, hub, store, _demo: demo })
}

async fn open(path: &std::path::Path, new: bool) -> Result<Store, String> {
    Store::open_as(path, Opening { new, ..Opening::default() }).await.map_err(|error| match error {
        StoreError::Disk(_)
        | StoreError::Database(_)
        | StoreError::Migration(_)
        | StoreError::Document(_) => {
            format!("cannot open the kitchen's file {}: {error}", path.display())
        }
        worded => worded.to_string(),
    })
}

/// Ctrl+C, requests to terminate, and a terminal that went away, heeded from the moment this is made.
pub struct Signals {
    interrupt: Signal,
    terminate: Signal,
    hang_up: Signal,
}

impl Signals {
    /// Starts to listen.
    ///
    /// # Errors
    /// When the machine gives no signals.
    pub fn listen() -> std::io::Result<Self> {
        Ok(Signals {
            interrupt: signal(SignalKind::interrupt())?,
            terminate: signal(SignalKind::terminate())?,
            hang_up: signal(SignalKind::hangup())?,
        })
    }

    /// Waits for any of them.
    pub async fn asked_to_stop(&mut self) {
        tokio::select! {
            _ = self.interrupt.recv() => {}
            _ = self.terminate.recv() => {}
            _ = self.hang_up.recv() => {}
        }
    }
}
