//! What happens to a thing while it is made: events that are only added.
//!
//! An event is written once, with the hash of its text, under an id made on the device that wrote it: sent twice it is
//! there once. Their order is the order in which they came here, whatever the clocks of the devices say.

use crate::audit::What;
use crate::kept::hash;
use crate::noun::Noun;
use crate::{By, SaveId, Store, StoreError};
use jiff::Timestamp;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqliteConnection};

/// An event as a device sends it.
#[derive(Debug, Clone, PartialEq)]
pub struct NewEvent<E> {
    /// Made on the device, once for each event.
    pub id: SaveId,
    /// When it happened, by the clock of the device.
    pub at: Timestamp,
    /// What happened.
    pub event: E,
}

/// What can be an event of the journal.
pub trait Event: Serialize + DeserializeOwned {
    /// What it is called in the description of the interface once it is kept.
    const DESCRIBED: &'static str;
}

/// An event as it is kept.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct KeptEvent<E> {
    /// Its place among the events of its thing, from 1.
    pub place: i64,
    /// Its id.
    pub id: String,
    /// When it happened, by the clock of the device, RFC 3339.
    pub at: String,
    /// When it came here, RFC 3339.
    pub kept_at: String,
    /// From which device, if that said so.
    pub device: Option<String>,
    /// What happened.
    pub event: E,
}

/// An event as it is written: place, id, when it happened, when it came, from where, its hash, its text.
type Written = (i64, String, String, String, Option<String>, String, String);

const ROW: &str = "noun, key, place, id, at, kept_at, device, hash, event";

fn read<E: Event>(row: &SqliteRow) -> Result<KeptEvent<E>, StoreError> {
    let (text, written): (String, String) = (row.try_get("event")?, row.try_get("hash")?);
    let place = row.try_get("place")?;
    if hash(&text) != written {
        let (noun, key): (String, String) = (row.try_get("noun")?, row.try_get("key")?);
        return Err(StoreError::DamagedEvent { noun, key, place });
    }
    Ok(KeptEvent {
        place,
        id: row.try_get("id")?,
        at: row.try_get("at")?,
        kept_at: row.try_get("kept_at")?,
        device: row.try_get("device")?,
        event: serde_json::from_str(&text)?,
    })
}

/// Adds one event inside a transaction, or finds it there: then the second is true.
pub(crate) async fn append_one<E: Event>(
    connection: &mut SqliteConnection,
    (noun, key): (Noun, &str),
    new: &NewEvent<E>,
    by: &By,
) -> Result<(KeptEvent<E>, bool), StoreError> {
    let text = serde_json::to_string(&new.event)?;
    let hash = hash(&text);
    let sql = format!("SELECT {ROW} FROM events WHERE id = ?");
    let there =
        sqlx::query(sqlx::AssertSqlSafe(sql)).bind(new.id.as_str()).fetch_optional(&mut *connection).await?;
    if let Some(row) = there {
        let (of, at, same): (String, String, String) =
            (row.try_get("noun")?, row.try_get("key")?, row.try_get("hash")?);
        if of != noun.word || at != key || same != hash {
            return Err(StoreError::EventIdUsed);
        }
        return Ok((read(&row)?, true));
    }
    let sql = format!(
        "INSERT INTO events ({ROW})
         SELECT ?1, ?2, coalesce(max(place), 0) + 1, ?3, ?4, ?5, ?6, ?7, ?8 FROM events WHERE noun = ?1 AND key = ?2
         RETURNING {ROW}"
    );
    let row = sqlx::query(sqlx::AssertSqlSafe(sql))
        .bind(noun.word)
        .bind(key)
        .bind(new.id.as_str())
        .bind(new.at.to_string())
        .bind(by.now.to_string())
        .bind(by.device())
        .bind(&hash)
        .bind(&text)
        .fetch_one(connection)
        .await?;
    Ok((read(&row)?, false))
}

impl Store {
    /// Adds events to a thing, in the order given: all or none. One that is there already is answered as it is kept.
    ///
    /// # Errors
    /// [`StoreError::EventIdUsed`] when an id was used for something else.
    pub async fn append<E: Event>(
        &self,
        noun: Noun,
        key: &str,
        events: &[NewEvent<E>],
        by: &By,
    ) -> Result<Vec<KeptEvent<E>>, StoreError> {
        let mut writing = self.write().await?;
        let mut kept = Vec::with_capacity(events.len());
        let mut written = false;
        for event in events {
            match append_one(writing.connection(), (noun, key), event, by).await {
                Ok((one, before)) => {
                    written |= !before;
                    kept.push(one);
                }
                Err(why) => return Err(writing.give_up(why).await),
            }
        }
        if written {
            writing.note(by, What::Happened, noun, key, None).await?;
            writing.commit().await?;
        } else {
            writing.undo().await?;
        }
        Ok(kept)
    }

    /// The events of a thing behind a place, in order; all of them behind 0.
    ///
    /// # Errors
    /// [`StoreError::DamagedEvent`] when one is not what was written.
    pub async fn events<E: Event>(
        &self,
        noun: Noun,
        key: &str,
        behind: i64,
    ) -> Result<Vec<KeptEvent<E>>, StoreError> {
        self.each_event(noun, key, behind).await?.into_iter().collect()
    }

    /// The events of a thing that can be read, in order, and how many cannot: each of them says something by itself.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn readable_events<E: Event>(
        &self,
        noun: Noun,
        key: &str,
    ) -> Result<(Vec<KeptEvent<E>>, usize), StoreError> {
        let each = self.each_event(noun, key, 0).await?;
        let many = each.len();
        let own: Vec<KeptEvent<E>> = each.into_iter().filter_map(Result::ok).collect();
        let unread = many - own.len();
        Ok((own, unread))
    }

    async fn each_event<E: Event>(
        &self,
        noun: Noun,
        key: &str,
        behind: i64,
    ) -> Result<Vec<Result<KeptEvent<E>, StoreError>>, StoreError> {
        // As one value: two thousand rows one by one take four times as long on their way out of SQLite.
        let sql = "SELECT json_group_array(json_array(place, id, at, kept_at, device, hash, event))
            FROM (SELECT * FROM events WHERE noun = ? AND key = ? AND place > ? ORDER BY place)";
        let all: String =
            sqlx::query_scalar(sql).bind(noun.word).bind(key).bind(behind).fetch_one(&self.readers).await?;
        let mut rows: Vec<Written> = serde_json::from_str(&all)?;
        rows.sort_by_key(|row| row.0);
        let one = |(place, id, at, kept_at, device, written, text): Written| {
            if hash(&text) != written {
                let (noun, key) = (noun.word.to_owned(), key.to_owned());
                return Err(StoreError::DamagedEvent { noun, key, place });
            }
            Ok(KeptEvent { place, id, at, kept_at, device, event: serde_json::from_str(&text)? })
        };
        Ok(rows.into_iter().map(one).collect())
    }
}
