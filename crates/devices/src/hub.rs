//! All devices of a kitchen: connected as its settings say, looked at together, asked by name.

use crate::address::DeviceAddress;
use crate::link::{NotDone, Shared, Wish, keep};
use crate::message::Message;
use crate::reading::DeviceNow;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;
use tokio::sync::{mpsc, oneshot, watch};
use tokio::time::{Instant, timeout};

/// A device answers a wish within this.
const ANSWERS: Duration = Duration::from_secs(4);
/// Wishes that wait for one device.
const WAITING: usize = 16;

/// The devices of a kitchen.
#[derive(Debug, Clone)]
pub struct Hub {
    links: Arc<Mutex<Vec<Kept>>>,
    bell: watch::Sender<u64>,
}

#[derive(Debug)]
struct Kept {
    of: DeviceAddress,
    shared: Arc<Shared>,
    wishes: mpsc::Sender<Wish>,
}

impl Default for Hub {
    fn default() -> Self {
        Hub { links: Arc::default(), bell: watch::Sender::new(0) }
    }
}

impl Hub {
    fn links(&self) -> MutexGuard<'_, Vec<Kept>> {
        self.links.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Connects to these devices and to no others: those that are there stay, those that are not named any more are let go.
    /// Call it inside a Tokio runtime.
    pub fn connect(&self, all: &[DeviceAddress]) {
        let mut links = self.links();
        let mut before = std::mem::take(&mut *links);
        for of in all {
            let there = before.iter().position(|own| own.of == *of);
            links.push(match there {
                Some(at) => before.swap_remove(at),
                None => {
                    let shared = Arc::new(Shared::new(self.bell.clone()));
                    let (wishes, taken) = mpsc::channel(WAITING);
                    tokio::spawn(keep(of.clone(), Arc::clone(&shared), taken));
                    Kept { of: of.clone(), shared, wishes }
                }
            });
        }
        // Links nobody wishes anything of end by themselves.
        drop(links);
        self.bell.send_modify(|count| *count += 1);
    }

    /// Every device as it stands now, in the order of the settings.
    pub fn now(&self) -> Vec<DeviceNow> {
        let now = Instant::now();
        let heard =
            |own: &Kept| own.shared.heard.lock().unwrap_or_else(PoisonError::into_inner).now(&own.of, now);
        self.links().iter().map(heard).collect()
    }

    /// What a probe showed since so long ago: how long ago each, and °C, the first first.
    pub fn past(&self, name: &str, since: Duration) -> Vec<(Duration, f64)> {
        let links = self.links();
        let Some(own) = links.iter().find(|own| own.of.name.trim() == name.trim()) else { return Vec::new() };
        let heard = own.shared.heard.lock().unwrap_or_else(PoisonError::into_inner);
        heard.past.iter().map(|(at, c)| (at.elapsed(), *c)).filter(|(ago, _)| *ago <= since).collect()
    }

    /// Rings whenever something is different to the eye.
    pub fn bell(&self) -> watch::Receiver<u64> {
        self.bell.subscribe()
    }

    /// Asks a device for something, by its name.
    ///
    /// # Errors
    /// Why it was not done.
    pub async fn ask(&self, name: &str, message: Message) -> Result<(), NotDone> {
        let (answer, answered) = oneshot::channel();
        let wishes = {
            let links = self.links();
            let own = links.iter().find(|own| own.of.name.trim() == name.trim()).ok_or(NotDone::NoSuch)?;
            own.wishes.clone()
        };
        wishes.try_send(Wish { message, answer }).map_err(|_| NotDone::Away)?;
        match timeout(ANSWERS, answered).await {
            Ok(Ok(done)) => done,
            Ok(Err(_)) | Err(_) => Err(NotDone::NoAnswer),
        }
    }

    /// What came out of the printers' stand-ins, the last first: job and form.
    pub fn tray(&self) -> Vec<(String, String)> {
        let links = self.links();
        let mut all: Vec<(String, String)> = Vec::new();
        for own in links.iter() {
            let pictures = own.shared.pictures.lock().unwrap_or_else(PoisonError::into_inner);
            all.extend(pictures.iter().rev().map(|(job, form, _)| (job.clone(), form.clone())));
        }
        all
    }

    /// One picture of the tray in base64.
    pub fn picture(&self, job: &str, form: &str) -> Option<String> {
        let links = self.links();
        links.iter().find_map(|own| {
            let pictures = own.shared.pictures.lock().unwrap_or_else(PoisonError::into_inner);
            pictures.iter().find(|one| one.0 == job && one.1 == form).map(|one| one.2.clone())
        })
    }
}
