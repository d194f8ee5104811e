//! The kitchen itself.

use crate::{Store, StoreError};
use pastry::units::RoomTemperature;
use pastry::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
use sqlx::Row;
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
    /// Revision; give back the one read when saving.
    pub revision: i64,
}

impl Store {
    /// The kitchen.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn kitchen(&self) -> Result<Kitchen, StoreError> {
        let row = sqlx::query("SELECT name, room_temperature_c, measures, currency, revision FROM kitchen")
            .fetch_one(&self.pool)
            .await?;
        Ok(Kitchen {
            name: row.try_get("name")?,
            room_temperature_c: RoomTemperature::from_celsius(row.try_get("room_temperature_c")?),
            measures: serde_json::from_value(row.try_get::<String, _>("measures")?.into())?,
            currency: row.try_get("currency")?,
            revision: row.try_get("revision")?,
        })
    }

    /// Saves the kitchen when `kitchen.revision` is still the one in the file.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved in between.
    pub async fn save_kitchen(&self, kitchen: &Kitchen) -> Result<Kitchen, StoreError> {
        let measures = serde_json::to_value(kitchen.measures)?;
        let done = sqlx::query(
            "UPDATE kitchen SET name = ?, room_temperature_c = ?, measures = ?, currency = ?, revision = revision + 1
             WHERE revision = ?",
        )
        .bind(&kitchen.name)
        .bind(kitchen.room_temperature_c.celsius())
        .bind(measures.as_str().expect("measures serialise to a word"))
        .bind(&kitchen.currency)
        .bind(kitchen.revision)
        .execute(&self.pool)
        .await?;
        let now = self.kitchen().await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::Conflict { based_on: kitchen.revision, current: now.revision });
        }
        Ok(now)
    }
}
