//! What is kept with all its revisions, for every noun alike: listed, begun, saved, put in its place, and every version
//! with what changed in it.
//!
//! A noun says what makes it fit to be kept ([`Fit`]) and where its routes are ([`kept_routes!`](crate::kept_routes), [`listed_routes!`](crate::listed_routes)); what they do is here.

use crate::error::ApiError;
use crate::saving::Saving;
use crate::state::AppState;
use axum::Json;
use axum::http::StatusCode;
use pastry::changed::changed;
use pastry::fault::{Fault, FaultCode};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::future::Future;
use store::kept::Revision;
use store::list::{LONGEST_TAG, Listed, MOST_TAGS, Place};
use store::noun::Kept;
use store::{StoreError, component};
use utoipa::ToSchema;
use uuid::Uuid;

/// A document that can be kept here.
pub trait Fit: Kept + ToSchema {
    /// What keeps it from being kept, each with its field in the document; what has no name yet is told by all alike.
    ///
    /// # Arguments
    /// * `key`: the key it is to be kept under; none for a new one.
    fn faults(
        &self,
        state: &AppState,
        key: Option<&str>,
    ) -> impl Future<Output = Result<Vec<Fault>, ApiError>> + Send;

    /// The key of a new one.
    fn new_key(&self) -> String {
        Uuid::now_v7().to_string()
    }

    /// The document as it is kept under a key that an address names.
    #[must_use]
    fn under(self, _key: &str) -> Self {
        self
    }
}

/// A version as a history lists it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Version {
    /// Its number, from 1.
    pub revision: i64,
    /// When it was saved, RFC 3339.
    pub saved_at: String,
    /// The device it was saved from, if that said so.
    pub saved_by: Option<String>,
    /// The name it had.
    pub name: String,
    /// What changed since the version before, in words; nothing for the first.
    pub changed: Vec<String>,
}

/// Everything of a noun.
///
/// # Errors
/// When the file fails.
pub async fn list<D: Fit>(state: &AppState) -> Result<Json<Vec<Listed<D>>>, ApiError> {
    Ok(Json(state.store.list::<D>().await?))
}

async fn fit<D: Fit>(
    state: &AppState,
    document: &D,
    key: Option<&str>,
    within: &str,
) -> Result<(), ApiError> {
    let mut faults = document.faults(state, key).await?;
    if document.called().trim().is_empty() && !faults.iter().any(|fault| fault.field == "name") {
        faults.insert(0, Fault::new("name", FaultCode::NoName, "it has no name yet: write one to save it"));
    }
    if faults.is_empty() {
        return Ok(());
    }
    for fault in &mut faults {
        fault.field = format!("{within}{}", fault.field);
    }
    Err(ApiError::Faults(faults))
}

/// Keeps something new.
///
/// # Errors
/// What keeps it from being kept; the key is taken.
pub async fn create<D: Fit>(
    state: &AppState,
    saving: Saving,
    document: D,
) -> Result<(StatusCode, Json<Revision<D>>), ApiError> {
    fit(state, &document, None, "").await?;
    let made = state.store.create(&document.new_key(), &document, &saving.by()).await?;
    Ok((StatusCode::CREATED, Json(made)))
}

/// Saves a new revision.
///
/// # Errors
/// What keeps it from being kept; somebody saved in between; there is no such thing.
pub async fn save<D: Fit>(
    state: &AppState,
    id: &str,
    saving: Saving,
    document: D,
    based_on: i64,
) -> Result<Json<Revision<D>>, ApiError> {
    let document = document.under(id);
    fit(state, &document, Some(id), "document.").await?;
    Ok(Json(state.store.save(id, &document, based_on, &saving.by()).await?))
}

/// The newest revision.
///
/// # Errors
/// There is no such thing.
pub async fn read<D: Fit>(state: &AppState, id: &str) -> Result<Json<Revision<D>>, ApiError> {
    Ok(Json(state.store.read(id, None).await?))
}

/// One revision, by its number as it is written.
///
/// # Errors
/// There is no such one.
pub async fn read_revision<D: Fit>(
    state: &AppState,
    id: &str,
    revision: &str,
) -> Result<Json<Revision<D>>, ApiError> {
    let number = revision
        .parse::<i64>()
        .map_err(|_| StoreError::NotFound { noun: "version", key: revision.chars().take(20).collect() })?;
    Ok(Json(state.store.read(id, Some(number)).await?))
}

/// All versions, the newest first, each with what changed in it.
///
/// # Errors
/// There is no such thing.
pub async fn versions<D: Fit>(state: &AppState, id: &str) -> Result<Json<Vec<Version>>, ApiError> {
    let history = state.store.history::<D>(id).await?;
    let mut documents = Vec::with_capacity(history.len());
    for own in &history {
        documents.push(serde_json::to_value(&own.document).map_err(StoreError::Document)?);
    }
    let named = Named::of(state, &documents).await?;
    let versions = history.iter().enumerate().map(|(at, own)| Version {
        revision: own.revision,
        saved_at: own.saved_at.clone(),
        saved_by: own.saved_by.clone(),
        name: own.document.called().to_owned(),
        changed: documents
            .get(at + 1)
            .map_or_else(Vec::new, |before| changed(before, &documents[at], &|key| named.name(key))),
    });
    Ok(Json(versions.collect()))
}

/// Puts a thing in its place: tags, put away or not.
///
/// # Errors
/// Tags that are none; there is no such thing.
pub async fn place<D: Fit>(
    state: &AppState,
    id: &str,
    saving: Saving,
    mut place: Place,
) -> Result<StatusCode, ApiError> {
    let mut faults = Vec::new();
    let tags = place.tags.as_mut();
    if let Some(many) = tags.as_ref().map(|tags| tags.len()).filter(|many| *many > MOST_TAGS) {
        let message = format!("at most {MOST_TAGS} tags, not {many}");
        faults.push(Fault::new("tags", FaultCode::TooMany, message));
    }
    for (at, tag) in tags.into_iter().flatten().enumerate() {
        *tag = tag.split_whitespace().collect::<Vec<_>>().join(" ");
        let letters = tag.chars().count();
        if letters == 0 || letters > LONGEST_TAG {
            let message = format!("a tag has 1 to {LONGEST_TAG} letters, not {letters}");
            faults.push(Fault::new(format!("tags.{at}"), FaultCode::BadTag, message));
        }
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.store.place(D::NOUN, id, &place, &saving.by()).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// What the keys in some documents are called: ingredients of the shelf, formulas of the kitchen.
struct Named {
    shelf: pastry::ingredient::Shelf,
    formulas: Vec<component::ComponentSummary>,
}

impl Named {
    async fn of(state: &AppState, documents: &[Value]) -> Result<Self, ApiError> {
        let mut keys = Vec::new();
        for document in documents {
            keys_of(document, &mut keys);
        }
        let shelf = state.store.shelf(keys.iter().copied()).await?;
        let formulas = if keys.is_empty() { Vec::new() } else { state.store.list().await? };
        Ok(Named { shelf, formulas })
    }

    fn name(&self, key: &str) -> Option<String> {
        let ingredient = self.shelf.find(key).map(|found| found.name.clone());
        ingredient.or_else(|| self.formulas.iter().find(|own| own.id == key).map(|own| own.name.clone()))
    }
}

/// Every key that a document names an ingredient or a formula by.
fn keys_of<'a>(value: &'a Value, keys: &mut Vec<&'a str>) {
    match value {
        Value::Object(fields) => fields.iter().for_each(|(name, own)| match own.as_str() {
            Some(key) if matches!(name.as_str(), "ingredient" | "component" | "percent_of") => keys.push(key),
            _ => keys_of(own, keys),
        }),
        Value::Array(all) => all.iter().for_each(|own| keys_of(own, keys)),
        _ => {}
    }
}

/// The routes that keep a noun: begun, saved, and its versions. `$crate` is spoken of in full, for they stand in the file
/// of the noun.
#[macro_export]
macro_rules! kept_routes {
    (
        $document:ty, tag = $tag:literal, one = $one:literal, path = $path:literal,
        save = $save:ident, revision = $revision:ty
    ) => {
        /// A document to save, and the revision it started from.
        #[derive(Debug, serde::Deserialize, utoipa::ToSchema)]
        #[serde(deny_unknown_fields)]
        pub struct $save {
            /// What is saved.
            pub document: $document,
            /// The revision the change started from; when another was saved since, nothing is overwritten.
            pub based_on_revision: i64,
        }

        #[utoipa::path(
            post, path = $path, tag = $tag, operation_id = concat!("create_", $one),
            summary = concat!("Saves a new ", $one, "."), request_body = $document, params($crate::saving::Saving),
            responses(
                (status = 201, body = $revision, description = "Saved at revision 1")
            )
        )]
        async fn create(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            saving: $crate::saving::Saving,
            $crate::body::Body(document): $crate::body::Body<$document>,
        ) -> Result<(axum::http::StatusCode, axum::Json<$revision>), $crate::error::ApiError> {
            $crate::routes::kept::create(&state, saving, document).await
        }

        #[utoipa::path(
            put, path = concat!($path, "/{id}"), tag = $tag, operation_id = concat!("save_", $one),
            summary = "Saves a new revision. When somebody saved in between, nothing is written and the answer says so.",
            request_body = $save, params($crate::saving::Saving, ("id" = String, Path, description = "Its key")),
            responses(
                (status = 200, body = $revision, description = "Saved as a new revision")
            )
        )]
        async fn save(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            axum::extract::Path(id): axum::extract::Path<String>,
            saving: $crate::saving::Saving,
            $crate::body::Body(save): $crate::body::Body<$save>,
        ) -> Result<axum::Json<$revision>, $crate::error::ApiError> {
            $crate::routes::kept::save(&state, &id, saving, save.document, save.based_on_revision).await
        }

        #[utoipa::path(
            get, path = concat!($path, "/{id}/revisions"), tag = $tag, operation_id = concat!("list_versions_of_", $one),
            summary = "All its versions, the newest first, each with what changed in it.",
            params(("id" = String, Path, description = "Its key")),
            responses(
                (status = 200, body = [$crate::routes::kept::Version], description = "All versions")
            )
        )]
        async fn versions(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            axum::extract::Path(id): axum::extract::Path<String>,
        ) -> Result<axum::Json<Vec<$crate::routes::kept::Version>>, $crate::error::ApiError> {
            $crate::routes::kept::versions::<$document>(&state, &id).await
        }

        #[utoipa::path(
            get, path = concat!($path, "/{id}/revisions/{revision}"), tag = $tag,
            operation_id = concat!("read_version_of_", $one), summary = "One of its versions.",
            params(
                ("id" = String, Path, description = "Its key"),
                ("revision" = i64, Path, description = "Number of the version")
            ),
            responses(
                (status = 200, body = $revision, description = "That version")
            )
        )]
        async fn read_version(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            axum::extract::Path((id, revision)): axum::extract::Path<(String, String)>,
        ) -> Result<axum::Json<$revision>, $crate::error::ApiError> {
            $crate::routes::kept::read_revision(&state, &id, &revision).await
        }
    };
}

/// The routes of a noun that has a list of its own: all of it, one of it, and its place there.
#[macro_export]
macro_rules! listed_routes {
    (
        $document:ty, tag = $tag:literal, one = $one:literal, all = $all:literal, path = $path:literal,
        revision = $revision:ty, listed = $listed:ty
    ) => {
        #[utoipa::path(
            get, path = $path, tag = $tag, operation_id = concat!("list_", $tag), summary = concat!("All ", $all, "."),
            responses((status = 200, body = [$listed], description = "All of them"))
        )]
        async fn list(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
        ) -> Result<axum::Json<Vec<$listed>>, $crate::error::ApiError> {
            $crate::routes::kept::list(&state).await
        }

        #[utoipa::path(
            get, path = concat!($path, "/{id}"), tag = $tag, operation_id = concat!("read_", $one),
            summary = concat!("The newest revision of one ", $one, "."),
            params(("id" = String, Path, description = "Its key")),
            responses(
                (status = 200, body = $revision, description = "The newest revision")
            )
        )]
        async fn read(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            axum::extract::Path(id): axum::extract::Path<String>,
        ) -> Result<axum::Json<$revision>, $crate::error::ApiError> {
            $crate::routes::kept::read(&state, &id).await
        }

        #[utoipa::path(
            put, path = concat!($path, "/{id}/place"), tag = $tag, operation_id = concat!("place_", $one),
            summary = "Puts it in its place in the list: tags, put away or not. Makes no revision.",
            request_body = store::list::Place,
            params($crate::saving::Saving, ("id" = String, Path, description = "Its key")),
            responses(
                (status = 204, description = "Done")
            )
        )]
        async fn place(
            axum::extract::State(state): axum::extract::State<$crate::state::AppState>,
            axum::extract::Path(id): axum::extract::Path<String>,
            saving: $crate::saving::Saving,
            $crate::body::Body(place): $crate::body::Body<store::list::Place>,
        ) -> Result<axum::http::StatusCode, $crate::error::ApiError> {
            $crate::routes::kept::place::<$document>(&state, &id, saving, place).await
        }
    };
}
