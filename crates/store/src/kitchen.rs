//! The kitchen itself.

use crate::audit::What;
use crate::noun::Noun;
use crate::{By, Store, StoreError};
use pastry::heat::stand::LearnedPlace;
use pastry::units::RoomTemperature;
use pastry::units::kitchen::Measures;
use pastry::zone::Zone;
use serde::{Deserialize, Serialize};
use sqlx::Row;
use sqlx::sqlite::SqliteRow;
use utoipa::ToSchema;

/// A kitchen and its habits.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Kitchen {
    /// Its name.
    #[schema(max_length = 80)]
    pub name: String,
    /// How warm the room is, °C.
    #[schema(minimum = 0, maximum = 45)]
    pub room_temperature_c: RoomTemperature,
    /// Whose cups and spoons it uses.
    pub measures: Measures,
    /// What prices are in: "EUR", "£".
    #[schema(max_length = 8)]
    pub currency: String,
    /// The time zone its clock is in; none while nobody said: that of whoever looks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub time_zone: Option<Zone>,
    /// How high above the sea it lies, m: syrup boils cooler up a mountain.
    #[serde(default)]
    #[schema(minimum = -500, maximum = 6000)]
    pub altitude_m: f64,
    /// Its own places as a probe has read them: what is not in it is as usual.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub places: Vec<LearnedPlace>,
    /// Revision; give back the one read when saving.
    pub revision: i64,
}

/// The kitchen in the audit. It has no history of its own yet.
const KITCHEN: Noun = Noun { word: "kitchen", said: "kitchen" };

fn read(row: &SqliteRow) -> Result<Kitchen, StoreError> {
    Ok(Kitchen {
        name: row.try_get("name")?,
        room_temperature_c: RoomTemperature::from_celsius(row.try_get("room_temperature_c")?),
        measures: serde_json::from_value(row.try_get::<String, _>("measures")?.into())?,
        currency: row.try_get("currency")?,
        // A name that is no zone any more is as if nobody had said.
        time_zone: row.try_get::<Option<String>, _>("time_zone")?.and_then(|name| Zone::try_from(name).ok()),
        altitude_m: row.try_get("altitude_m")?,
        places: serde_json::from_str(&row.try_get::<String, _>("places")?)?,
        revision: row.try_get("revision")?,
    })
}

impl Store {
    /// The kitchen.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn kitchen(&self) -> Result<Kitchen, StoreError> {
        let row = sqlx::query(
            "SELECT name, room_temperature_c, measures, currency, time_zone, altitude_m, places, revision FROM kitchen",
        )
        .fetch_one(&self.readers)
        .await?;
        read(&row)
    }

    /// Saves the kitchen when `kitchen.revision` is still the one in the file. The same save id again gets the answer of
    /// the first time, as long as nobody saved since.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved in between.
    pub async fn save_kitchen(&self, kitchen: &Kitchen, by: &By) -> Result<Kitchen, StoreError> {
        let measures = serde_json::to_value(kitchen.measures)?;
        let mut writing = self.write().await?;
        let row = sqlx::query(
            "SELECT name, room_temperature_c, measures, currency, time_zone, altitude_m, places, revision, save_id FROM kitchen",
        )
        .fetch_one(writing.connection())
        .await?;
        let (now, saved_as) = (read(&row)?, row.try_get::<Option<String>, _>("save_id")?);
        if by.save_id().is_some_and(|id| saved_as.as_deref() == Some(id)) {
            writing.undo().await?;
            return Ok(now);
        }
        if now.revision != kitchen.revision {
            writing.undo().await?;
            return Err(StoreError::Conflict {
                noun: KITCHEN.said,
                based_on: kitchen.revision,
                current: now.revision,
            });
        }
        let row = sqlx::query(
            "UPDATE kitchen SET name = ?, room_temperature_c = ?, measures = ?, currency = ?, time_zone = ?,
                 altitude_m = ?, places = ?, revision = revision + 1, save_id = ?
             RETURNING name, room_temperature_c, measures, currency, time_zone, altitude_m, places, revision",
        )
        .bind(&kitchen.name)
        .bind(kitchen.room_temperature_c.celsius())
        .bind(measures.as_str().expect("measures serialise to a word"))
        .bind(&kitchen.currency)
        .bind(kitchen.time_zone.as_ref().map(Zone::name))
        .bind(kitchen.altitude_m)
        .bind(serde_json::to_string(&kitchen.places)?)
        .bind(by.save_id())
        .fetch_one(writing.connection())
        .await?;
        let saved = read(&row)?;
        writing.note(by, What::Saved, KITCHEN, "kitchen", Some(saved.revision)).await?;
        writing.commit().await?;
        Ok(saved)
    }
}
