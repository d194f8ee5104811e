//! Saved formulas and their revisions.

use crate::body::Body;
use crate::error::ApiError;
use crate::kept_routes;
use crate::listed_routes;
use crate::routes::kept::Fit;
use crate::state::AppState;
use axum::Json;
use axum::extract::{Path, State};
use pastry::assess::made_here::circle;
use pastry::assess::moved::{Moved, moved};
use pastry::assess::open::{Opened, open};
use pastry::assess::{FormulaDocument, assess_from};
use pastry::fault::Fault;
use pastry::ingredient::key::component_of;
use pastry::ingredient::made::DEEPEST;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::component::{Component, ComponentSummary};
use store::noun::COMPONENT;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

kept_routes!(
    FormulaDocument,
    tag = "components",
    one = "component",
    path = "/components",
    save = SaveComponent,
    revision = Component
);
listed_routes!(
    FormulaDocument,
    tag = "components",
    one = "component",
    all = "components",
    path = "/components",
    revision = Component,
    listed = ComponentSummary
);

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new()
        .routes(routes!(list, create))
        .routes(routes!(read, save))
        .routes(routes!(place))
        .routes(routes!(versions))
        .routes(routes!(read_version))
        .routes(routes!(reaches))
        .routes(routes!(open_line))
}

impl Fit for FormulaDocument {
    /// It can be judged, and does not go into itself.
    async fn faults(&self, state: &AppState, key: Option<&str>) -> Result<Vec<Fault>, ApiError> {
        let named: Vec<&str> = self.made_here().collect();
        let inside = state.store.inside(named).await?;
        let shelf = state.shelf_of([self]).await?;
        let mut faults = assess_from(self, &shelf).err().unwrap_or_default();
        if let Some(key) = key {
            let documents = inside.iter().map(|(named, own)| (named.as_str(), own)).collect();
            faults.extend(circle(key, self, &documents));
        }
        Ok(faults)
    }
}

/// Another formula that a change of this one reaches.
#[derive(Debug, Serialize, ToSchema)]
pub struct Reached {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
    /// The revisions at which it holds what is changed: then it stays as it is.
    pub held_at: Vec<i64>,
    /// How it moves; none when it is held.
    pub moved: Option<Moved>,
}

/// What saving this document would do to the formulas it goes into, straight or inside others: their verdicts before and
/// after. What holds it at a revision stays as it is. Keeps nothing.
#[utoipa::path(post, path = "/components/{id}/reaches", tag = "components", operation_id = "reaches_of_component",
    params(("id" = String, Path, description = "Key of the component")), request_body = FormulaDocument,
    responses((status = 200, body = [Reached], description = "Every formula it goes into, the nearest first")))]
async fn reaches(
    State(state): State<AppState>,
    Path(id): Path<String>,
    Body(document): Body<FormulaDocument>,
) -> Result<Json<Vec<Reached>>, ApiError> {
    state.store.read::<FormulaDocument>(&id, None).await?;
    let users = state.store.uses(COMPONENT, COMPONENT).await?;
    // Near ones first; what goes round in a circle is met once.
    let mut met: Vec<(String, String)> = Vec::new();
    let mut near = vec![id.clone()];
    for _ in 0..=DEEPEST {
        let next: Vec<(String, String)> = near
            .iter()
            .filter_map(|key| users.get(key))
            .flatten()
            .filter(|own| own.id != id && !met.iter().any(|(key, _)| *key == own.id))
            .map(|own| (own.id.clone(), own.name.clone()))
            .collect::<BTreeMap<_, _>>()
            .into_iter()
            .collect();
        near = next.iter().map(|(key, _)| key.clone()).collect();
        met.extend(next);
    }
    let keys: Vec<&str> = met.iter().map(|(key, _)| key.as_str()).collect();
    let others = state.store.formulas(&keys).await?;
    let named: Vec<&str> = others.values().chain([&document]).flat_map(|own| own.made_here()).collect();
    let inside = state.store.inside(named).await?;
    let mut changed = inside.clone();
    changed.insert(id.clone(), document);
    let keys: Vec<&str> =
        others.values().chain(changed.values()).flat_map(FormulaDocument::ingredient_keys).collect();
    let before = state.store.shelf_over(keys.clone(), &inside).await?;
    let after = state.store.shelf_over(keys, &changed).await?;
    state
        .work_out(move || {
            let one = |(key, name): (String, String)| {
                let other = others.get(&key)?;
                let of_it = other.lines.iter().filter_map(|line| component_of(&line.ingredient));
                let of_it: Vec<Option<i64>> =
                    of_it.filter(|(component, _)| *component == id).map(|(_, revision)| revision).collect();
                // Straight and only held: it cannot move by this, whatever else it is made of.
                let held_at: Vec<i64> = of_it.iter().flatten().copied().collect();
                let held = !of_it.is_empty() && of_it.iter().all(Option::is_some);
                let moved = (!held).then(|| moved(other, &before, &after));
                Some(Reached { id: key, name, held_at, moved })
            };
            Ok(met.into_iter().filter_map(one).collect::<Vec<_>>())
        })
        .await
        .map(Json)
}

/// A line to open.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenAsk {
    /// The formula.
    pub document: FormulaDocument,
    /// Which line, from 0.
    pub line: u32,
}

/// Opens a line of something made here: its own lines stand in its place. Keeps nothing.
#[utoipa::path(post, path = "/open", tag = "components", operation_id = "open_line", request_body = OpenAsk, responses(
    (status = 200, body = Opened, description = "The formula with its lines")
))]
async fn open_line(
    State(state): State<AppState>,
    Body(ask): Body<OpenAsk>,
) -> Result<Json<Opened>, ApiError> {
    let shelf = state.shelf_of([&ask.document]).await?;
    open(&ask.document, ask.line as usize, &shelf).map(Json).map_err(ApiError::Faults)
}
