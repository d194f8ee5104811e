//! The devices of a kitchen: where each is, and how warm its fridges may be.

use crate::audit::What;
use crate::noun::Noun;
use crate::{By, Store, StoreError};
use devices::DeviceAddress;
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use utoipa::ToSchema;

/// A fridge is too warm above this where the kitchen says nothing else, °C: the legal limit for chilled food in the United
/// Kingdom (Food Safety and Hygiene (England) Regulations 2013, schedule 4, from memory); local codes differ.
pub const FRIDGE_MOST_C: f64 = 8.0;

/// And it is told after so long, min (assumed).
pub const FRIDGE_MOST_MIN: f64 = 20.0;

/// Devices and what is asked of fridges.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = DeviceSettings)]
pub struct Settings {
    /// Every device, and where it is. Nothing else is ever connected to.
    #[schema(max_items = 40)]
    pub devices: Vec<DeviceAddress>,
    /// A fridge warmer than this is told, °C.
    #[schema(minimum = 0, maximum = 15)]
    pub fridge_most_c: f64,
    /// And for longer than this, min: a door that is open warms the air, not the food.
    #[schema(minimum = 0, maximum = 240)]
    pub fridge_most_min: f64,
    /// Revision; give back the one read when saving.
    #[schema(minimum = 0, maximum = 1000000)]
    pub revision: i64,
}

/// Devices in the audit. They have no history of their own.
const DEVICES: Noun = Noun { word: "devices", said: "list of devices" };

/// What stands in the file; the revision stands beside it.
#[derive(Serialize, Deserialize)]
struct Written {
    devices: Vec<DeviceAddress>,
    fridge_most_c: f64,
    fridge_most_min: f64,
}

/// What nobody has set is as usual.
impl Default for Settings {
    fn default() -> Self {
        Settings {
            devices: Vec::new(),
            fridge_most_c: FRIDGE_MOST_C,
            fridge_most_min: FRIDGE_MOST_MIN,
            revision: 0,
        }
    }
}

fn read(row: &SqliteRow) -> Result<Settings, StoreError> {
    let Some(text) = row.try_get::<Option<String>, _>("settings")? else {
        return Ok(Settings::default());
    };
    let Written { devices, fridge_most_c, fridge_most_min } = serde_json::from_str(&text)?;
    Ok(Settings { devices, fridge_most_c, fridge_most_min, revision: row.try_get("revision")? })
}

const ROW: &str = "SELECT settings, revision, save_id FROM devices";

impl Store {
    /// The devices.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn devices(&self) -> Result<Settings, StoreError> {
        read(&sqlx::query(ROW).fetch_one(&self.readers).await?)
    }

    /// Saves the devices when `settings.revision` is still the one in the file. The same save id again gets the answer of the
    /// first time, as long as nobody saved since.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved in between.
    pub async fn save_devices(&self, settings: &Settings, by: &By) -> Result<Settings, StoreError> {
        let Settings { devices, fridge_most_c, fridge_most_min, revision } = settings.clone();
        let text = serde_json::to_string(&Written { devices, fridge_most_c, fridge_most_min })?;
        let mut writing = self.write().await?;
        let row = sqlx::query(ROW).fetch_one(writing.connection()).await?;
        let (now, saved_as) = (read(&row)?, row.try_get::<Option<String>, _>("save_id")?);
        if by.save_id().is_some_and(|id| saved_as.as_deref() == Some(id)) {
            writing.undo().await?;
            return Ok(now);
        }
        if now.revision != revision {
            writing.undo().await?;
            let current = now.revision;
            return Err(StoreError::Conflict { noun: DEVICES.said, based_on: revision, current });
        }
        sqlx::query("UPDATE devices SET settings = ?, revision = revision + 1, save_id = ?")
            .bind(&text)
            .bind(by.save_id())
            .execute(writing.connection())
            .await?;
        writing.note(by, What::Saved, DEVICES, "devices", Some(revision + 1)).await?;
        writing.commit().await?;
        Ok(Settings { revision: revision + 1, ..settings.clone() })
    }
}
