//! The words a page chooses from: shelves, allergens, origins, cups, how stiff cream is whipped. They do not change while
//! the program runs.

use crate::state::AppState;
use axum::Json;
use pastry::formula::process::WhipStage;
use pastry::ingredient::diet::ALLERGENS;
use pastry::ingredient::{Group, Origin};
use pastry::units::kitchen::Measures;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// Whose cups and spoons, in words.
#[derive(Debug, Serialize, ToSchema)]
pub struct MeasuresWords {
    /// Which.
    pub measures: Measures,
    /// In kitchen words.
    pub words: &'static str,
    /// With their sizes.
    pub long: &'static str,
}

/// How stiff cream is whipped, in words.
#[derive(Debug, Serialize, ToSchema)]
pub struct WhipWords {
    /// Which.
    pub whip: WhipStage,
    /// In kitchen words.
    pub words: &'static str,
}

/// Everything there is to choose from.
#[derive(Debug, Serialize, ToSchema)]
pub struct Words {
    /// Shelves an ingredient can stand on.
    pub shelves: Vec<Group>,
    /// Allergens, EU and US lists.
    pub allergens: Vec<&'static str>,
    /// Where ingredients come from.
    pub origins: Vec<Origin>,
    /// Whose cups and spoons.
    pub measures: Vec<MeasuresWords>,
    /// How stiff cream is whipped, from the loosest.
    pub whip: Vec<WhipWords>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(words))
}

/// The words a page chooses from.
#[utoipa::path(get, path = "/words", tag = "kitchen", responses(
    (status = 200, body = Words, description = "Everything there is to choose from")
))]
async fn words() -> Json<Words> {
    Json(Words {
        shelves: Group::ALL.to_vec(),
        allergens: ALLERGENS.to_vec(),
        origins: Origin::ALL.to_vec(),
        measures: Measures::ALL
            .into_iter()
            .map(|measures| MeasuresWords {
                measures,
                words: measures.cups(),
                long: measures.cups_with_sizes(),
            })
            .collect(),
        whip: WhipStage::ALL.into_iter().map(|whip| WhipWords { whip, words: whip.word() }).collect(),
    })
}
