//! The trade's schools as data: `data/methods/*.toml`, read once.

use crate::caution::Caution;
use crate::formula::{Family, WhipStage};
use crate::rheology::History;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::LazyLock;
use utoipa::ToSchema;

/// Who works in a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Worker {
    /// The cook.
    Hands,
    /// A machine alone.
    Machine,
    /// Nobody: it must stand.
    Wait,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Step {
    /// Who works.
    pub kind: Worker,
    /// What is done.
    pub what: String,
    /// With what.
    #[serde(default)]
    pub gear: Vec<String>,
    /// Hands and machine: minutes, and minutes more for each kilogram. Wait: least and most.
    pub minutes: [f64; 2],
    /// Temperature, °C, from and to.
    #[serde(default)]
    pub t: Option<[f64; 2]>,
    /// The sign that it is done.
    pub until: String,
    /// What goes wrong, and why.
    #[serde(default)]
    pub wrong: Vec<[String; 2]>,
    /// What can hurt.
    #[serde(default)]
    pub cautions: Vec<Caution>,
    /// The next step must begin within so many minutes.
    #[serde(default)]
    pub within: Option<f64>,
    /// Only for a formula that has some of this.
    #[serde(default)]
    pub only: Option<String>,
}

/// A step written out, or a shared one by its key.
#[derive(Debug, Clone, Deserialize)]
#[serde(untagged)]
enum Written {
    Shared {
        #[serde(rename = "use")]
        key: String,
    },
    Own(Step),
}

/// A part of the mass, and how warm it is when it comes in.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Warmth {
    /// chocolate, butter, egg, whippable or rest.
    pub of: String,
    /// Temperature, °C.
    pub t: f64,
}

/// What a school starts its clock at.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Start {
    /// Between these, °C, whatever the formula.
    #[serde(default)]
    pub at: Option<[f64; 2]>,
    /// Where these come out together.
    #[serde(default)]
    pub mix: Vec<Warmth>,
    /// The bowl's weight for a batch of it, g of steel; none taken when 0.
    #[serde(default)]
    pub bowl_g: f64,
}

/// What a group of lines reaches.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Cook {
    /// all, yolk, white, starch or protease.
    pub of: String,
    /// The highest temperature it reaches, °C.
    pub c: f64,
}

#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
struct Row {
    id: String,
    name: String,
    families: Vec<Family>,
    better: String,
    differs: String,
    start: Start,
    #[serde(default)]
    overrun_percent: Option<f64>,
    #[serde(default)]
    whip: Option<WhipStage>,
    #[serde(default)]
    cook: Vec<Cook>,
    #[serde(default)]
    history: Option<History>,
    #[serde(default)]
    reduces: bool,
    risks: Vec<String>,
    steps: Vec<Written>,
    #[serde(default)]
    source: Option<String>,
}

/// One school.
#[derive(Debug, Clone, PartialEq)]
pub struct School {
    /// Key.
    pub id: String,
    /// Name.
    pub name: String,
    /// Families made by it.
    pub families: Vec<Family>,
    /// When it is the better one.
    pub better: String,
    /// Why it differs.
    pub differs: String,
    /// The temperature it leaves the mass at.
    pub start: Start,
    /// Volume gained, per cent of the volume before (assumed).
    pub overrun_percent: Option<f64>,
    /// How stiff the cream is whipped.
    pub whip: Option<WhipStage>,
    /// What its lines reach.
    pub cook: Vec<Cook>,
    /// The state it is judged in then.
    pub history: Option<History>,
    /// Water is boiled away in it, which is not worked out: the formula cannot be made so by a button.
    pub reduces: bool,
    /// What may go wrong with it.
    pub risks: Vec<String>,
    /// Its steps.
    pub steps: Vec<Step>,
    /// Where it is from.
    pub source: String,
}

#[derive(Deserialize)]
struct Modules {
    module: Vec<Module>,
}

#[derive(Deserialize)]
struct Module {
    id: String,
    #[serde(flatten)]
    step: Step,
}

#[derive(Deserialize)]
struct Table {
    school: Vec<Row>,
}

static SCHOOLS: LazyLock<Vec<School>> = LazyLock::new(|| {
    let modules: Modules = toml::from_str(include_str!("../../data/methods/modules.toml"))
        .expect("the shared steps are well formed");
    let shared: HashMap<String, Step> = modules.module.into_iter().map(|m| (m.id, m.step)).collect();
    [
        include_str!("../../data/methods/ganache.toml"),
        include_str!("../../data/methods/buttercream.toml"),
        include_str!("../../data/methods/cream_and_mousse.toml"),
        include_str!("../../data/methods/custard_and_glaze.toml"),
    ]
    .into_iter()
    .flat_map(|text| toml::from_str::<Table>(text).expect("the table of schools is well formed").school)
    .map(|row| School {
        steps: row
            .steps
            .into_iter()
            .map(|written| match written {
                Written::Own(step) => step,
                Written::Shared { key } => {
                    shared.get(&key).unwrap_or_else(|| panic!("{}: no shared step {key}", row.id)).clone()
                }
            })
            .collect(),
        id: row.id,
        name: row.name,
        families: row.families,
        better: row.better,
        differs: row.differs,
        start: row.start,
        overrun_percent: row.overrun_percent,
        whip: row.whip,
        cook: row.cook,
        history: row.history,
        reduces: row.reduces,
        risks: row.risks,
        source: row.source.unwrap_or_else(|| "common practice".to_owned()),
    })
    .collect()
});

/// All of them.
pub fn schools() -> &'static [School] {
    &SCHOOLS
}

/// Those of a family, the usual one first.
pub fn schools_of(family: Family) -> impl Iterator<Item = &'static School> {
    SCHOOLS.iter().filter(move |school| school.families.contains(&family))
}
