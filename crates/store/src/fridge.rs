//! What happened to the fridges: when one was too warm, and when it was cold again.

use crate::journal::{Event, KeptEvent, NewEvent};
use crate::noun::Noun;
use crate::{By, Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use utoipa::ToSchema;

/// Fridges: known by the name of their logger, never saved themselves.
const FRIDGE: Noun = Noun { word: "fridge", said: "fridge" };

/// What happened to a fridge.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "what", rename_all = "snake_case")]
pub enum FridgeEvent {
    /// It had been warmer than the limit for too long; the event's time is when it went over.
    Warm {
        /// The kitchen's limit then, °C.
        most_c: f64,
        /// As warm as it was then, °C.
        c: f64,
        /// What stood in it, as the batches say.
        held: Vec<String>,
    },
    /// It is below its limit again.
    Cold {
        /// The warmest it was, °C.
        warmest_c: f64,
    },
}

impl Event for FridgeEvent {
    const DESCRIBED: &'static str = "KeptFridgeEvent";
}

impl Store {
    /// Says what happened to a fridge.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn fridge_said(
        &self,
        name: &str,
        event: NewEvent<FridgeEvent>,
        by: &By,
    ) -> Result<(), StoreError> {
        self.append(FRIDGE, name, &[event], by).await?;
        Ok(())
    }

    /// What happened to every fridge, each with its name, in the order in which it happened.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn fridges(&self) -> Result<Vec<(String, Vec<KeptEvent<FridgeEvent>>)>, StoreError> {
        let sql = "SELECT DISTINCT key FROM events WHERE noun = ? ORDER BY key";
        let rows = sqlx::query(sql).bind(FRIDGE.word).fetch_all(&self.readers).await?;
        let mut all = Vec::with_capacity(rows.len());
        for row in rows {
            let key: String = row.try_get("key")?;
            let events = self.events::<FridgeEvent>(FRIDGE, &key, 0).await?;
            all.push((key, events));
        }
        Ok(all)
    }
}
