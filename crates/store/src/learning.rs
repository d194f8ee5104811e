//! What cooks decided of what was learned: offsets that begin anew.

use crate::journal::{Event, KeptEvent, NewEvent};
use crate::noun::LEARNING;
use crate::{By, Store, StoreError};
use pastry::learn::LearningEvent;

/// A decision as it is kept.
pub type KeptLearningEvent = KeptEvent<LearningEvent>;

/// All of it is of this kitchen.
const THE_KITCHEN: &str = "kitchen";

impl Event for LearningEvent {
    const DESCRIBED: &'static str = "KeptLearningEvent";
}

impl Store {
    /// Everything that was decided and can be read, in the order it came, and how many decisions cannot.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn learning(&self) -> Result<(Vec<KeptLearningEvent>, usize), StoreError> {
        self.readable_events::<LearningEvent>(LEARNING, THE_KITCHEN).await
    }

    /// Decides something of what was learned.
    ///
    /// # Errors
    /// [`StoreError::EventIdUsed`] when the id was used for something else.
    pub async fn decide_learning(&self, event: NewEvent<LearningEvent>, by: &By) -> Result<(), StoreError> {
        self.append(LEARNING, THE_KITCHEN, &[event], by).await.map(|_| ())
    }
}
