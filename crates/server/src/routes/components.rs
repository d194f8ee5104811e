//! Saved formulas and their revisions.

use crate::error::ApiError;
use crate::kept_routes;
use crate::listed_routes;
use crate::routes::kept::Fit;
use crate::state::AppState;
use pastry::assess::{FormulaDocument, assess_from};
use pastry::fault::Fault;
use store::component::{Component, ComponentSummary};
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
}

impl Fit for FormulaDocument {
    /// It can be judged.
    async fn faults(&self, state: &AppState) -> Result<Vec<Fault>, ApiError> {
        let shelf = state.store.shelf(self.lines.iter().map(|line| line.ingredient.as_str())).await?;
        Ok(assess_from(self, &shelf).err().unwrap_or_default())
    }
}
