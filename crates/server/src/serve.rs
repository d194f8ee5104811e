//! Running the server: open the file, listen, stop cleanly.

use crate::app::{AppState, app};
use crate::config::{LogForm, Serve, default_data_file};
use crate::demo;
use jiff::Timestamp;
use std::net::SocketAddr;
use std::time::Duration;
use store::Store;
use tempfile::TempDir;
use tokio::net::TcpListener;
use tokio::signal::unix::{Signal, SignalKind, signal};
use tokio::sync::watch;
use tracing_subscriber::EnvFilter;

/// How long open requests may take to finish once asked to stop.
const LAST_REQUESTS: Duration = Duration::from_secs(3);

/// A server that listens.
pub struct Running {
    /// Where.
    pub address: SocketAddr,
    stop: watch::Sender<bool>,
    task: tokio::task::JoinHandle<()>,
    store: Store,
    _demo: Option<TempDir>,
}

impl Running {
    /// Asks it to stop and waits until it has, three seconds at most.
    pub async fn stop(self) {
        let _ = self.stop.send(true);
        if tokio::time::timeout(LAST_REQUESTS, self.task).await.is_err() {
            tracing::warn!("some requests did not finish in time and were cut off");
        }
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
    let (store, demo) = if options.demo {
        let dir = tempfile::Builder::new()
            .prefix("bright-spoon-demo-")
            .tempdir()
            .map_err(|error| format!("cannot make a folder for the demo kitchen: {error}"))?;
        let store = open(&dir.path().join("kitchen.db")).await?;
        demo::fill(&store, Timestamp::now())
            .await
            .map_err(|error| format!("cannot fill the demo kitchen: {error}"))?;
        (store, Some(dir))
    } else {
        let path = options.data.clone().map_or_else(default_data_file, Ok)?;
        if let Some(folder) = path.parent() {
            std::fs::create_dir_all(folder)
                .map_err(|error| format!("cannot make the folder {}: {error}", folder.display()))?;
        }
        tracing::info!(file = %path.display(), "the kitchen's file");
        (open(&path).await?, None)
    };
    let listener = TcpListener::bind((options.host, options.port)).await.map_err(|error| {
        format!(
            "cannot listen on {}:{} ({error}); another program may use it, try --port 0",
            options.host, options.port
        )
    })?;
    let address = listener.local_addr().map_err(|error| error.to_string())?;
    let (stop, mut stopped) = watch::channel(false);
    let router = app(AppState { store: store.clone(), demo: options.demo });
    let task = tokio::spawn(async move {
        let until = async move {
            let _ = stopped.wait_for(|stop| *stop).await;
        };
        if let Err(error) = axum::serve(listener, router).with_graceful_shutdown(until).await {
            tracing::error!(%error, "the server stopped");
        }
    });
    Ok(Running { address, stop, task, store, _demo: demo })
}

async fn open(path: &std::path::Path) -> Result<Store, String> {
    Store::open(path).await.map_err(|error| {
        format!(
            "cannot open the kitchen's file {}: {error}; check that it is a Bright Spoon file and not in use by a newer version",
            path.display()
        )
    })
}

/// Ctrl+C and requests to terminate, heeded from the moment this is made.
pub struct Signals {
    interrupt: Signal,
    terminate: Signal,
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
        })
    }

    /// Waits for either.
    pub async fn asked_to_stop(&mut self) {
        tokio::select! {
            _ = self.interrupt.recv() => {}
            _ = self.terminate.recv() => {}
        }
    }
}
