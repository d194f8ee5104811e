//! Pictures of batches. The device scales them down and leaves out where and with what they were taken; what still says so is not
//! taken.

use crate::body::Asked;
use crate::error::ApiError;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Path, Request, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use pastry::batch::BatchDocument;
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use store::SaveId;
use store::picture::{LARGEST, Picture};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_pictures, add_picture))
        .routes(routes!(read_picture, take_picture_away))
}

/// Pictures of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Pictures {
    /// The pictures, the first first.
    pub pictures: Vec<Picture>,
    /// What all pictures of the kitchen take, bytes.
    pub take: i64,
    /// What they may take, bytes.
    pub most: u64,
}

async fn of_batch(state: &AppState, id: &str) -> Result<Pictures, ApiError> {
    state.store.read::<BatchDocument>(id, None).await?;
    Ok(Pictures {
        pictures: state.store.pictures(id).await?,
        take: state.store.pictures_take().await?,
        most: state.most_pictures,
    })
}

/// Pictures of a batch.
#[utoipa::path(
    get, path = "/batches/{id}/pictures", tag = "batches", operation_id = "list_pictures",
    params(("id" = String, Path, description = "Key of the batch")),
    responses((status = 200, body = Pictures, description = "The pictures, without what is seen on them"))
)]
async fn list_pictures(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<Pictures>, ApiError> {
    of_batch(&state, &id).await.map(Json)
}

/// What a picture is.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct PictureIs {
    /// Its id, made on the device: sent twice it is there once.
    #[param(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    picture: String,
    /// What is to be said of it.
    #[serde(default)]
    #[param(max_length = 400)]
    words: String,
}

/// Keeps a picture of a batch: a JPEG of at most 2 MB that does not say where or with what it was taken.
#[utoipa::path(
    post, path = "/batches/{id}/pictures", tag = "batches", operation_id = "add_picture",
    params(Saving, ("id" = String, Path, description = "Key of the batch"), PictureIs),
    request_body(content = Vec<u8>, content_type = "image/jpeg", description = "The picture"),
    responses((status = 201, body = Pictures, description = "All pictures of the batch"))
)]
async fn add_picture(
    State(state): State<AppState>,
    Path(id): Path<String>,
    saving: Saving,
    Asked(is): Asked<PictureIs>,
    request: Request,
) -> Result<(StatusCode, Json<Pictures>), ApiError> {
    let of_batch_now = state.store.read::<BatchDocument>(&id, None).await?;
    let one =
        |field: &str, code: FaultCode, words: &str| ApiError::Faults(vec![Fault::new(field, code, words)]);
    let Some(picture) = SaveId::read(&is.picture) else {
        let words = "an id has 8 to 64 letters, digits or hyphens: make a new one for each";
        return Err(one("picture", FaultCode::BadSaveId, words));
    };
    if is.words.chars().count() > 400 {
        return Err(one("words", FaultCode::TooLong, "at most 400 letters: shorten it"));
    }
    let bytes: Bytes = axum::body::to_bytes(request.into_body(), LARGEST).await.map_err(|error| {
        let limit = std::error::Error::source(&error)
            .is_some_and(|source| source.to_string().contains("length limit"));
        if limit { ApiError::TooLarge { limit_kb: LARGEST / 1000 } } else { ApiError::BodyLost }
    })?;
    match jpeg(&bytes) {
        Jpeg::No => {
            return Err(one("body", FaultCode::Unreadable, "this is no JPEG: choose a photograph"));
        }
        Jpeg::Tells => {
            let words = "this picture says where or with what it was taken: send it from the page, which leaves that out";
            return Err(one("body", FaultCode::OutOfRange, words));
        }
        Jpeg::Plain => {}
    }
    let by = saving.by();
    state
        .store
        .add_picture(&of_batch_now.id, &picture, (&is.words, &bytes), state.most_pictures, &by)
        .await?;
    Ok((StatusCode::CREATED, Json(of_batch(&state, &id).await?)))
}

/// A picture.
#[utoipa::path(
    get, path = "/batches/{id}/pictures/{picture}", tag = "batches", operation_id = "read_picture",
    params(
        ("id" = String, Path, description = "Key of the batch"),
        ("picture" = String, Path, description = "Id of the picture")
    ),
    responses((status = 200, content_type = "image/jpeg", body = Vec<u8>, description = "The picture"))
)]
async fn read_picture(
    State(state): State<AppState>,
    Path((id, picture)): Path<(String, String)>,
) -> Result<Response, ApiError> {
    let bytes = state.store.picture(&id, &picture).await?;
    Ok(([(header::CONTENT_TYPE, "image/jpeg")], bytes).into_response())
}

/// Takes a picture away: it is gone from the kitchen's file.
#[utoipa::path(
    delete, path = "/batches/{id}/pictures/{picture}", tag = "batches", operation_id = "take_picture_away",
    params(
        Saving,
        ("id" = String, Path, description = "Key of the batch"),
        ("picture" = String, Path, description = "Id of the picture")
    ),
    responses((status = 200, body = Pictures, description = "Those that are left"))
)]
async fn take_picture_away(
    State(state): State<AppState>,
    Path((id, picture)): Path<(String, String)>,
    saving: Saving,
) -> Result<Json<Pictures>, ApiError> {
    state.store.take_picture_away(&id, &picture, &saving.by()).await?;
    of_batch(&state, &id).await.map(Json)
}

/// What bytes are.
#[derive(Debug, PartialEq, Eq)]
enum Jpeg {
    /// No JPEG.
    No,
    /// One with more in it than the picture: a camera's data, a comment.
    Tells,
    /// One with nothing but the picture.
    Plain,
}

/// Reads the marks of a JPEG up to its picture (ITU-T T.81, annex B: every mark but the first and last is followed by its length):
/// APP1 to APP13 and APP15 hold what cameras write (Exif, place, maker), COM a comment; APP0 and APP14 only how it is drawn.
fn jpeg(bytes: &[u8]) -> Jpeg {
    if bytes.get(..2) != Some(&[0xFF, 0xD8]) {
        return Jpeg::No;
    }
    let mut at = 2;
    loop {
        let Some([0xFF, mark, high, low]) = bytes.get(at..at + 4) else { return Jpeg::No };
        match mark {
            // How its colours are meant (ICC.1, annex B.4), as browsers write it.
            0xE2 if bytes.get(at + 4..).is_some_and(|own| own.starts_with(b"ICC_PROFILE\0")) => {
                at += 2 + usize::from(u16::from_be_bytes([*high, *low]));
            }
            0xE1..=0xED | 0xEF | 0xFE => return Jpeg::Tells,
            // The picture begins.
            0xDA => return Jpeg::Plain,
            0xC0..=0xCF | 0xDB..=0xDF | 0xE0 | 0xEE => {
                at += 2 + usize::from(u16::from_be_bytes([*high, *low]));
            }
            _ => return Jpeg::No,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_picture_that_tells_where_it_was_taken_is_known() {
        let start = [0xFF, 0xD8, 0xFF, 0xE0, 0, 4, 1, 1];
        let scan = [0xFF, 0xDA, 0, 2, 9, 9, 0xFF, 0xD9];
        let exif = [0xFF, 0xE1, 0, 6, b'E', b'x', b'i', b'f'];
        assert_eq!(jpeg(&[&start[..], &scan].concat()), Jpeg::Plain);
        assert_eq!(jpeg(&[&start[..], &exif, &scan].concat()), Jpeg::Tells);
        assert_eq!(jpeg(&[&start[..2], &exif, &scan].concat()), Jpeg::Tells);
        let colours = [&[0xFF, 0xE2, 0, 14][..], b"ICC_PROFILE\0"].concat();
        assert_eq!(jpeg(&[&start[..], &colours, &scan].concat()), Jpeg::Plain);
        let depth = [&[0xFF, 0xE2, 0, 6][..], b"MPF\0"].concat();
        assert_eq!(jpeg(&[&start[..], &depth, &scan].concat()), Jpeg::Tells);
        assert_eq!(jpeg(b"\x89PNG\r\n"), Jpeg::No);
        assert_eq!(jpeg(&start), Jpeg::No, "cut off before its picture");
        assert_eq!(jpeg(&[]), Jpeg::No);
    }
}
