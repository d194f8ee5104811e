//! Long work: done off the threads that answer everybody else, so many at a time, within a time, and called off when
//! the asker leaves.

use crate::error::ApiError;
use pastry::fault::Fault;
use pastry::patience::until_called_off;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Longest a piece of work may take, waiting for its turn included.
const DEADLINE: Duration = Duration::from_secs(10);
/// The same where a plan is looked for.
const PLANNED_BY: Duration = Duration::from_secs(60);

/// Pieces of work that may wait beside those under way.
const MOST_WAITING: usize = 64;

/// Where long work is done.
#[derive(Debug, Clone)]
pub struct Desk {
    hands: Arc<Semaphore>,
    places: Arc<Semaphore>,
    /// Days are planned one at a time.
    planning: Arc<Semaphore>,
    deadline: Duration,
}

impl Default for Desk {
    fn default() -> Self {
        let hands = std::thread::available_parallelism().map_or(2, std::num::NonZero::get);
        Self::with(hands, hands + MOST_WAITING, DEADLINE)
    }
}

/// Calls the work off when nobody waits for it any more.
struct CallOff(Arc<AtomicBool>);

impl Drop for CallOff {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

impl Desk {
    /// A desk for so many pieces at once, so many in all, each within a time.
    pub fn with(hands: usize, places: usize, deadline: Duration) -> Self {
        Desk {
            hands: Arc::new(Semaphore::new(hands)),
            places: Arc::new(Semaphore::new(places)),
            planning: Arc::new(Semaphore::new(1)),
            deadline,
        }
    }

    /// The turn to plan a day; until then another is planned.
    ///
    /// # Errors
    /// When the server stops.
    pub async fn turn_to_plan(&self) -> Result<OwnedSemaphorePermit, ApiError> {
        Arc::clone(&self.planning).acquire_owned().await.map_err(|_| ApiError::BrokeOff)
    }

    /// Does a piece of work.
    ///
    /// # Errors
    /// Its faults; [`ApiError::Busy`] when too many wait; [`ApiError::TooLong`] at its deadline.
    pub async fn work_out<T: Send + 'static>(
        &self,
        what: impl FnOnce() -> Result<T, Vec<Fault>> + Send + 'static,
    ) -> Result<T, ApiError> {
        self.work_out_by(self.deadline, what).await
    }

    /// The same where a plan is looked for, which takes longer.
    ///
    /// # Errors
    /// As [`Desk::work_out`].
    pub async fn plan_out<T: Send + 'static>(
        &self,
        what: impl FnOnce() -> Result<T, Vec<Fault>> + Send + 'static,
    ) -> Result<T, ApiError> {
        self.work_out_by(self.deadline.max(PLANNED_BY), what).await
    }

    async fn work_out_by<T: Send + 'static>(
        &self,
        deadline: Duration,
        what: impl FnOnce() -> Result<T, Vec<Fault>> + Send + 'static,
    ) -> Result<T, ApiError> {
        let Ok(place) = Arc::clone(&self.places).try_acquire_owned() else { return Err(ApiError::Busy) };
        let flag = Arc::new(AtomicBool::new(false));
        // Dropped with this future: by the deadline, or because the asker went.
        let _call_off = CallOff(Arc::clone(&flag));
        let work = async {
            let hand = Arc::clone(&self.hands).acquire_owned().await.map_err(|_| ApiError::BrokeOff)?;
            let task = tokio::task::spawn_blocking(move || {
                // The hand is free when the work has really stopped, not when its asker stopped waiting.
                let _held = (hand, place);
                until_called_off(&flag, what)
            });
            task.await.map_err(|error| {
                tracing::error!(%error, "a computation broke off");
                ApiError::BrokeOff
            })
        };
        match tokio::time::timeout(deadline, work).await {
            Err(_) | Ok(Ok(Err(_))) => Err(ApiError::TooLong),
            Ok(Err(error)) => Err(error),
            Ok(Ok(Ok(done))) => done.map_err(ApiError::Faults),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::mpsc;

    /// Works until it is called off, and says so.
    fn endless(ended: mpsc::Sender<()>) -> impl FnOnce() -> Result<(), Vec<Fault>> + Send + 'static {
        struct Says(mpsc::Sender<()>);
        impl Drop for Says {
            fn drop(&mut self) {
                let _ = self.0.send(());
            }
        }
        move || {
            let _says = Says(ended);
            loop {
                pastry::patience::checkpoint();
                std::thread::yield_now();
            }
        }
    }

    #[tokio::test]
    async fn work_stops_at_its_deadline_and_the_desk_is_free_again() {
        let desk = Desk::with(1, 1, Duration::from_millis(20));
        let (ended, stopped) = mpsc::channel();
        assert!(matches!(desk.work_out(endless(ended)).await, Err(ApiError::TooLong)));
        tokio::task::spawn_blocking(move || stopped.recv()).await.unwrap().unwrap();
        let patient = Desk { deadline: DEADLINE, ..desk };
        // The place is given back after the work's own things are dropped.
        while patient.places.available_permits() == 0 {
            tokio::task::yield_now().await;
        }
        assert_eq!(patient.work_out(|| Ok(7)).await.unwrap(), 7);
    }

    #[tokio::test]
    async fn work_is_called_off_when_its_asker_leaves() {
        let desk = Desk::default();
        let (ended, stopped) = mpsc::channel();
        let asked = tokio::spawn(async move { desk.work_out(endless(ended)).await });
        tokio::task::yield_now().await;
        asked.abort();
        // Aborted before it began, its closure is dropped as well; either way it ends.
        tokio::task::spawn_blocking(move || stopped.recv()).await.unwrap().ok();
    }

    #[tokio::test]
    async fn too_much_work_at_once_is_refused_in_words() {
        let desk = Desk::with(1, 1, DEADLINE);
        let (ended, _stopped) = mpsc::channel();
        let first = {
            let desk = desk.clone();
            tokio::spawn(async move { desk.work_out(endless(ended)).await })
        };
        while desk.places.available_permits() > 0 {
            tokio::task::yield_now().await;
        }
        let second = desk.work_out(|| Ok(1)).await.unwrap_err();
        assert!(matches!(second, ApiError::Busy), "{second}");
        first.abort();
    }
}
