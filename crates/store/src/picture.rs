//! Pictures of batches: small, with nothing in them but what is seen.

use crate::audit::What;
use crate::noun::{BATCH, Noun, missing};
use crate::{By, SaveId, Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::Row;
use utoipa::ToSchema;

/// A picture in a sentence.
const PICTURE: Noun = Noun { word: "picture", said: "picture" };
/// What a kitchen's pictures may take while nobody says otherwise, bytes.
pub const MOST_BYTES: u64 = 25_000_000;
/// Largest picture, bytes.
pub const LARGEST: usize = 2_000_000;

/// A picture of a batch, without what is seen on it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Picture {
    /// Its id.
    pub id: String,
    /// When it came here, RFC 3339.
    pub kept_at: String,
    /// From which device, if that said so.
    pub device: Option<String>,
    /// What the cook says of it.
    pub words: String,
    /// What it takes, bytes.
    pub bytes: i64,
}

impl Store {
    /// Keeps a picture of a batch. The same one sent twice is there once.
    ///
    /// # Errors
    /// [`StoreError::PicturesFull`] when it has no room; [`StoreError::SaveIdUsed`] when the id is another picture's.
    pub async fn add_picture(
        &self,
        key: &str,
        id: &SaveId,
        picture: (&str, &[u8]),
        most: u64,
        by: &By,
    ) -> Result<(), StoreError> {
        let (words, bytes) = picture;
        let mut writing = self.write().await?;
        let there: Option<(String, i64)> = sqlx::query_as("SELECT key, bytes = ? FROM pictures WHERE id = ?")
            .bind(bytes)
            .bind(id.as_str())
            .fetch_optional(writing.connection())
            .await?;
        if let Some((of, same)) = there {
            writing.undo().await?;
            return if of == key && same == 1 { Ok(()) } else { Err(StoreError::SaveIdUsed) };
        }
        let has: i64 = sqlx::query_scalar("SELECT coalesce(sum(length(bytes)), 0) FROM pictures")
            .fetch_one(writing.connection())
            .await?;
        if has as u64 + bytes.len() as u64 > most {
            let mb = |bytes: u64| bytes as f64 / 1e6;
            let (has_mb, needs_mb, most_mb) = (mb(has as u64), mb(bytes.len() as u64), mb(most));
            return Err(writing.give_up(StoreError::PicturesFull { has_mb, needs_mb, most_mb }).await);
        }
        sqlx::query(
            "INSERT INTO pictures (id, key, kept_at, device, words, bytes) VALUES (?, ?, ?, ?, ?, ?)",
        )
        .bind(id.as_str())
        .bind(key)
        .bind(by.now.to_string())
        .bind(by.device())
        .bind(words)
        .bind(bytes)
        .execute(writing.connection())
        .await?;
        writing.note(by, What::Happened, BATCH, key, None).await?;
        writing.commit().await
    }

    /// Pictures of a batch, the first first.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pictures(&self, key: &str) -> Result<Vec<Picture>, StoreError> {
        let sql = "SELECT id, kept_at, device, words, length(bytes) AS size FROM pictures WHERE key = ? ORDER BY kept_at, id";
        let rows = sqlx::query(sql).bind(key).fetch_all(&self.readers).await?;
        rows.iter()
            .map(|row| {
                Ok(Picture {
                    id: row.try_get("id")?,
                    kept_at: row.try_get("kept_at")?,
                    device: row.try_get("device")?,
                    words: row.try_get("words")?,
                    bytes: row.try_get("size")?,
                })
            })
            .collect()
    }

    /// What is seen on a picture of a batch.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn picture(&self, key: &str, id: &str) -> Result<Vec<u8>, StoreError> {
        let found = sqlx::query_scalar("SELECT bytes FROM pictures WHERE key = ? AND id = ?")
            .bind(key)
            .bind(id)
            .fetch_optional(&self.readers)
            .await?;
        found.ok_or_else(|| missing(PICTURE, id))
    }

    /// Takes a picture away: it is gone.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub async fn take_picture_away(&self, key: &str, id: &str, by: &By) -> Result<(), StoreError> {
        let mut writing = self.write().await?;
        let gone = sqlx::query("DELETE FROM pictures WHERE key = ? AND id = ?")
            .bind(key)
            .bind(id)
            .execute(writing.connection())
            .await?;
        if gone.rows_affected() == 0 {
            writing.undo().await?;
            return Err(missing(PICTURE, id));
        }
        writing.note(by, What::Happened, BATCH, key, None).await?;
        writing.commit().await
    }

    /// What all pictures of the kitchen take, bytes.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn pictures_take(&self) -> Result<i64, StoreError> {
        let sql = "SELECT coalesce(sum(length(bytes)), 0) FROM pictures";
        Ok(sqlx::query_scalar(sql).fetch_one(&self.readers).await?)
    }
}
