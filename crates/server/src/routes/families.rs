//! Families of creams: what each is, what it is used for, and a formula to start with for each job.

use crate::state::AppState;
use axum::Json;
use pastry::assess::FormulaDocument;
use pastry::assess::document::history_word;
use pastry::assess::starts::starts;
use pastry::formula::Air;
use pastry::formula::family::{FamilyGroup, Figure, Setting};
use pastry::formula::process::WhipStage;
use pastry::formula::{Family, Process};
use pastry::job::Job;
use pastry::job::ask::Ask;
use pastry::job::duty::{MapAxis, Measured};
use pastry::rheology::History;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// A history in which a job is done.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobHistory {
    /// Which.
    pub history: History,
    /// In kitchen words.
    pub words: &'static str,
}

/// A job of a family.
#[derive(Debug, Serialize, ToSchema)]
pub struct FamilyJob {
    /// The job with its usual geometry for this family.
    pub job: Job,
    /// Its word: drip, coat, mask …
    pub word: &'static str,
    /// What it is to do, after "to".
    pub verb: &'static str,
    /// What is compared with its window.
    pub measured: Measured,
    /// What its map counts.
    pub axis: MapAxis,
    /// Histories in which it is done, the usual one first.
    pub histories: Vec<JobHistory>,
    /// Its geometry as a sentence with blanks.
    pub asks: Vec<Ask>,
    /// A formula to start with.
    pub start: FormulaDocument,
}

/// A family.
#[derive(Debug, Serialize, ToSchema)]
pub struct FamilyEntry {
    /// Its key.
    pub family: Family,
    /// Its name in the kitchen.
    pub word: &'static str,
    /// Shelf of the list.
    pub group: FamilyGroup,
    /// That shelf in words.
    pub group_word: &'static str,
    /// What it is, in one sentence.
    pub about: &'static str,
    /// Process settings that matter for it.
    pub settings: &'static [Setting],
    /// Numbers a cook of it looks at first.
    pub looks_at: &'static [Figure],
    /// Usual volume gained, per cent.
    pub usual_overrun_percent: f64,
    /// Usual whipping.
    pub usual_whip: WhipStage,
    /// Hottest that a cook of it means when it is said how hot it got, °C.
    pub hottest_heat_c: f64,
    /// Hottest temperature of its map, °C.
    pub hottest_c: f64,
    /// Whether it is poured before it sets.
    pub poured: bool,
    /// What it is used for, the usual job first.
    pub jobs: Vec<FamilyJob>,
}

/// Routes of this noun.
pub fn routes() -> OpenApiRouter<AppState> {
    OpenApiRouter::new().routes(routes!(list_families))
}

/// All families, with their jobs and a starting formula for each.
#[utoipa::path(get, path = "/families", tag = "predict", responses(
    (status = 200, body = [FamilyEntry], description = "All families, shelf by shelf")
))]
async fn list_families() -> Json<Vec<FamilyEntry>> {
    Json(families())
}

/// All families.
pub fn families() -> Vec<FamilyEntry> {
    Family::ALL.iter().map(|family| entry(*family)).collect()
}

fn entry(family: Family) -> FamilyEntry {
    let traits = family.traits();
    let usual = Air::of(&Process::default(), family, &[]);
    FamilyEntry {
        family,
        word: &traits.word,
        group: traits.group,
        group_word: traits.group.word(),
        about: &traits.about,
        settings: &traits.settings,
        looks_at: &traits.looks_at,
        usual_overrun_percent: usual.overrun_percent,
        usual_whip: WhipStage::nearest(usual.whip),
        hottest_heat_c: family.hottest_heat_c(),
        hottest_c: traits.hottest_c,
        poured: traits.poured,
        jobs: starts(family)
            .iter()
            .map(|start| {
                let job = start.work.job;
                FamilyJob {
                    word: job.word(),
                    verb: job.verb(),
                    measured: job.measured(),
                    axis: job.axis(family),
                    histories: job
                        .histories(family)
                        .iter()
                        .map(|history| JobHistory { history: *history, words: history_word(*history) })
                        .collect(),
                    asks: job.asks(),
                    start: start.clone(),
                    job,
                }
            })
            .collect(),
    }
}
