//! Saved formulas and their revisions.

use crate::app::AppState;
use crate::body::Body;
use crate::error::{ApiError, Problem};
use crate::saving::Saving;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use jiff::Timestamp;
use pastry::formula::Fault;
use pastry::job::{FormulaDocument, assess_from};
use serde::Deserialize;
use store::StoreError;
use store::components::{Component, ComponentSummary};
use store::kept::RevisionSummary;
use store::library::{LONGEST_TAG, MOST_TAGS, Place};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

/// A document to save, and the revision it started from.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveComponent {
    /// The formula and its work.
    pub document: FormulaDocument,
    /// The revision the change started from; when another was saved since, nothing is overwritten.
    pub based_on_revision: i64,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list_components, create_component))
        .routes(routes!(read_component, save_component))
        .routes(routes!(place_component))
        .routes(routes!(list_revisions))
        .routes(routes!(read_revision))
}

/// A document fit to be kept: it has a name and can be judged.
async fn fit(state: &AppState, document: &FormulaDocument) -> Result<(), ApiError> {
    let shelf = state.store.shelf(document.lines.iter().map(|line| line.ingredient.as_str())).await?;
    let mut faults = assess_from(document, &shelf).err().unwrap_or_default();
    if document.name.trim().is_empty() {
        faults.insert(0, Fault::new("name", "no_name", "it has no name yet: write one to save it"));
    }
    if faults.is_empty() {
        return Ok(());
    }
    for fault in &mut faults {
        fault.field = format!("document.{}", fault.field);
    }
    Err(ApiError::Faults(faults))
}

/// All components, by name.
#[utoipa::path(get, path = "/components", tag = "components", responses(
    (status = 200, body = [ComponentSummary], description = "All components")
))]
async fn list_components(State(state): State<AppState>) -> Result<Json<Vec<ComponentSummary>>, ApiError> {
    Ok(Json(state.store.components().await?))
}

/// Saves a new component.
#[utoipa::path(post, path = "/components", tag = "components", request_body = FormulaDocument, params(Saving), responses(
    (status = 201, body = Component, description = "Saved at revision 1"),
    (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
))]
async fn create_component(
    State(state): State<AppState>,
    saving: Saving,
    Body(document): Body<FormulaDocument>,
) -> Result<(StatusCode, Json<Component>), ApiError> {
    fit(&state, &document).await?;
    let made = state.store.create_component(Uuid::now_v7(), &document, saving.id(), Timestamp::now()).await?;
    Ok((StatusCode::CREATED, Json(made)))
}

/// A component at its newest revision.
#[utoipa::path(get, path = "/components/{id}", tag = "components",
    params(("id" = String, Path, description = "Key of the component")),
    responses(
        (status = 200, body = Component, description = "The newest revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such component")
    ))]
async fn read_component(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<Component>, ApiError> {
    Ok(Json(state.store.component(&id, None).await?))
}

/// Saves a new revision. When somebody saved in between, nothing is written and the answer says so.
#[utoipa::path(put, path = "/components/{id}", tag = "components", request_body = SaveComponent,
    params(Saving, ("id" = String, Path, description = "Key of the component")),
    responses(
        (status = 200, body = Component, description = "Saved as a new revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such component"),
        (status = 409, body = Problem, content_type = "application/problem+json", description = "Saved in between"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn save_component(
    State(state): State<AppState>,
    Path(id): Path<String>,
    saving: Saving,
    Body(save): Body<SaveComponent>,
) -> Result<Json<Component>, ApiError> {
    fit(&state, &save.document).await?;
    let (document, based_on) = (&save.document, save.based_on_revision);
    let saved = state.store.save_component(&id, document, based_on, saving.id(), Timestamp::now()).await?;
    Ok(Json(saved))
}

/// Puts a component in its place in the library: tags, put away or not. Makes no revision.
#[utoipa::path(put, path = "/components/{id}/place", tag = "components", request_body = Place,
    params(("id" = String, Path, description = "Key of the component")),
    responses(
        (status = 204, description = "Done"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such component"),
        (status = 422, body = Problem, content_type = "application/problem+json", description = "Fields at fault")
    ))]
async fn place_component(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Body(mut place): Body<Place>,
) -> Result<StatusCode, ApiError> {
    let mut faults = Vec::new();
    if place.tags.len() > MOST_TAGS {
        let message = format!("a formula has at most {MOST_TAGS} tags, not {}", place.tags.len());
        faults.push(Fault::new("tags", "too_many", message));
    }
    for (at, tag) in place.tags.iter_mut().enumerate() {
        *tag = tag.split_whitespace().collect::<Vec<_>>().join(" ");
        let letters = tag.chars().count();
        if letters == 0 || letters > LONGEST_TAG {
            let message = format!("a tag has 1 to {LONGEST_TAG} letters, not {letters}");
            faults.push(Fault::new(format!("tags.{at}"), "bad_tag", message));
        }
    }
    if !faults.is_empty() {
        return Err(ApiError::Faults(faults));
    }
    state.store.place_component(&id, &place).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// All revisions of a component, newest first.
#[utoipa::path(get, path = "/components/{id}/revisions", tag = "components",
    params(("id" = String, Path, description = "Key of the component")),
    responses(
        (status = 200, body = [RevisionSummary], description = "All revisions"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such component")
    ))]
async fn list_revisions(
    State(state): State<AppState>,
    Path(id): Path<String>,
) -> Result<Json<Vec<RevisionSummary>>, ApiError> {
    Ok(Json(state.store.component_revisions(&id).await?))
}

/// One revision of a component.
#[utoipa::path(get, path = "/components/{id}/revisions/{revision}", tag = "components",
    params(
        ("id" = String, Path, description = "Key of the component"),
        ("revision" = i64, Path, description = "Number of the revision")
    ),
    responses(
        (status = 200, body = Component, description = "That revision"),
        (status = 404, body = Problem, content_type = "application/problem+json", description = "No such revision")
    ))]
async fn read_revision(
    State(state): State<AppState>,
    Path((id, revision)): Path<(String, String)>,
) -> Result<Json<Component>, ApiError> {
    let number = revision
        .parse::<i64>()
        .map_err(|_| StoreError::NotFound { noun: "revision", key: revision.chars().take(20).collect() })?;
    Ok(Json(state.store.component(&id, Some(number)).await?))
}
