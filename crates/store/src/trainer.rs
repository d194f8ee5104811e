//! What was answered at the trainer, of each person.

use crate::journal::{Event, KeptEvent, NewEvent};
use crate::noun::TRAINER;
use crate::{By, Store, StoreError};
use pastry::trainer::TrainerEvent;

/// Something that was answered, as it is kept.
pub type KeptTrainerEvent = KeptEvent<TrainerEvent>;

impl Event for TrainerEvent {
    const DESCRIBED: &'static str = "KeptTrainerEvent";
}

impl Store {
    /// Everything a person answered that can be read, in the order it came: an answer that cannot is one less, which `verify` tells.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn training(&self, who: &str) -> Result<Vec<KeptTrainerEvent>, StoreError> {
        Ok(self.readable_events::<TrainerEvent>(TRAINER, who).await?.0)
    }

    /// Keeps what a person answered.
    ///
    /// # Errors
    /// [`StoreError::EventIdUsed`] when the id was used for something else.
    pub async fn trained(&self, who: &str, event: NewEvent<TrainerEvent>, by: &By) -> Result<(), StoreError> {
        self.append(TRAINER, who, &[event], by).await.map(|_| ())
    }

    /// Names of those who were at the trainer.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn trainees(&self) -> Result<Vec<String>, StoreError> {
        let sql = "SELECT DISTINCT key FROM events WHERE noun = ? ORDER BY key COLLATE NOCASE";
        Ok(sqlx::query_scalar(sql).bind(TRAINER.word).fetch_all(&self.readers).await?)
    }
}
