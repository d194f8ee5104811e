//! The pastry room: when it is open, who works there, what stands in it. There is one.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{Kept, Noun, ROOM};
use crate::{Store, StoreError};
use pastry::day::KitchenDocument;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A revision of the pastry room.
pub type Room = Revision<KitchenDocument>;
/// The pastry room as a list shows it.
pub type RoomSummary = Listed<KitchenDocument>;

/// The key it is kept under.
pub const THE_ROOM: &str = "room";

/// What a list shows of a pastry room.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RoomShown {
    /// How many cooks work there.
    pub cooks: i64,
}

impl Kept for KitchenDocument {
    type Shown = RoomShown;
    const NOUN: Noun = ROOM;
    const DESCRIBED: (&'static str, &'static str) = ("Room", "RoomSummary");

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> RoomShown {
        RoomShown { cooks: self.cooks.len() as i64 }
    }
}

impl Store {
    /// The pastry room; none while nobody set it.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn room(&self) -> Result<Option<Room>, StoreError> {
        match self.read::<KitchenDocument>(THE_ROOM, None).await {
            Ok(room) => Ok(Some(room)),
            Err(StoreError::NotFound { .. }) => Ok(None),
            Err(error) => Err(error),
        }
    }
}
