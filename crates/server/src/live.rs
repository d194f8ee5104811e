//! What pages are told without asking: what was written, and what the devices show.
//!
//! Devices are written down once for everybody who listens, at most so often; what was written is asked of the file by each
//! listener, from the line it heard last.

use devices::{DeviceNow, Hub};
use serde::Serialize;
use std::sync::Arc;
use std::time::Duration;
use store::Store;
use tokio::sync::watch;
use tokio::time::{Instant, sleep_until, timeout};
use utoipa::ToSchema;

/// Between two words about the devices.
const REST: Duration = Duration::from_millis(40);
/// What says nothing grows old without a word: it is looked at so often.
const LOOK: Duration = Duration::from_millis(500);
/// And told anyway so often: who hears nothing for longer knows that the stream is broken.
const ALIVE: Duration = Duration::from_secs(1);

/// What the devices show, told to pages as `event: devices`.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DevicesShow {
    /// Each device of the kitchen, in the order of its settings.
    pub devices: Vec<DeviceNow>,
}

/// What pages are told.
#[derive(Debug, Clone)]
pub struct Live {
    devices: Arc<watch::Sender<Arc<str>>>,
    stopped: watch::Receiver<bool>,
    written: watch::Receiver<u64>,
}

impl Live {
    /// Begins to look at the devices, until the server stops.
    pub fn begin(hub: Hub, store: Store, stopped: watch::Receiver<bool>) -> Self {
        let devices = Arc::new(watch::Sender::new(text(&hub)));
        tokio::spawn(tell(hub, Arc::clone(&devices), stopped.clone()));
        Live { devices, stopped, written: store.written() }
    }

    /// What the devices show, as JSON: it moves whenever that is different.
    pub fn devices(&self) -> watch::Receiver<Arc<str>> {
        self.devices.subscribe()
    }

    /// Moves whenever anything was written.
    pub fn written(&self) -> watch::Receiver<u64> {
        self.written.clone()
    }

    /// Moves when the server is to stop.
    pub fn stopped(&self) -> watch::Receiver<bool> {
        self.stopped.clone()
    }
}

fn text(hub: &Hub) -> Arc<str> {
    // What is shown has no map keys and no numbers JSON has no form for.
    serde_json::to_string(&DevicesShow { devices: hub.now() }).unwrap_or_default().into()
}

async fn tell(hub: Hub, say: Arc<watch::Sender<Arc<str>>>, mut stopped: watch::Receiver<bool>) {
    let mut bell = hub.bell();
    let mut told = Instant::now();
    loop {
        let begun = Instant::now();
        // Written down only where somebody listens.
        if say.receiver_count() > 0 {
            let now = text(&hub);
            say.send_if_modified(|before| {
                let other = *before != now || told.elapsed() >= ALIVE;
                *before = now;
                if other {
                    told = Instant::now();
                }
                other
            });
        }
        tokio::select! {
            () = async { let _ = stopped.wait_for(|stop| *stop).await; } => return,
            rung = timeout(LOOK, bell.changed()) => if matches!(rung, Ok(Err(_))) { return },
        }
        sleep_until(begun + REST).await;
    }
}
