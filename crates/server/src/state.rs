//! What every handler can reach, and the work it can ask for.

use crate::desk::Desk;
use crate::error::ApiError;
use crate::live::Live;
use crate::log_book::LogBook;
use crate::teaching::Teaching;
use devices::Hub;
use pastry::assess::FormulaDocument;
use pastry::batch::took::{TookMinutes, took_minutes};
use pastry::fault::Fault;
use pastry::heat::stand::LearnedPlace;
use pastry::ingredient::Shelf;
use store::Store;

/// What every handler can reach.
#[derive(Clone)]
pub struct AppState {
    /// The kitchen's file.
    pub store: Store,
    /// Whether this is the invented kitchen.
    pub demo: bool,
    /// Where long work is done.
    pub desk: Desk,
    /// The kitchen's devices.
    pub hub: Hub,
    /// What pages are told without asking.
    pub live: Live,
    /// What this kitchen's own tests taught.
    pub teaching: Teaching,
    /// The log, a line a batch.
    pub log: LogBook,
    /// What pictures may take, bytes.
    pub most_pictures: u64,
    /// When this server began, milliseconds since 1970: a later one is a later epoch.
    pub begun_ms: i64,
}

impl AppState {
    /// The shelf that holds everything some formulas use, over the catalogue.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn shelf_of<'a>(
        &self,
        documents: impl IntoIterator<Item = &'a FormulaDocument>,
    ) -> Result<Shelf, ApiError> {
        let keys: Vec<&str> = documents.into_iter().flat_map(FormulaDocument::ingredient_keys).collect();
        Ok(self.store.shelf(keys).await?)
    }

    /// The kitchen's places as its probe read them; what no probe can have read is left out.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn learned(&self) -> Result<Vec<LearnedPlace>, ApiError> {
        let mut places = self.store.kitchen().await?.places;
        places.retain(|own| own.fault("places").is_none());
        Ok(places)
    }

    /// What steps take by this kitchen's own batches.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn took(&self) -> Result<Vec<TookMinutes>, ApiError> {
        self.log.catch_up(&self.store, &self.desk).await?;
        Ok(took_minutes(self.store.minutes().await?))
    }

    /// Does a piece of work at this server's desk.
    ///
    /// # Errors
    /// See [`Desk::work_out`].
    pub async fn work_out<T: Send + 'static>(
        &self,
        what: impl FnOnce() -> Result<T, Vec<Fault>> + Send + 'static,
    ) -> Result<T, ApiError> {
        self.desk.work_out(what).await
    }
}
