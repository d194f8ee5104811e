//! The trade's schools as data: `data/methods/*.toml`, read once.

use crate::assess::spoon_sign::SpoonSign;
use crate::caution::Caution;
use crate::formula::{Family, WhipStage};
use crate::ingredient::Role;
use crate::method::gear::{Gear, Resource};
use crate::method::step::{Clock, Duration, Limit, LimitClass, Moment, Spot, Step, Worker};
use crate::units::Minutes;
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

/// A step as it is written.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
struct StepRow {
    id: String,
    kind: Worker,
    what: String,
    #[serde(default)]
    gear: Vec<Gear>,
    minutes: [Minutes; 2],
    #[serde(default)]
    t: Option<[f64; 2]>,
    until: String,
    #[serde(default)]
    spoon: Option<SpoonSign>,
    #[serde(default)]
    wrong: Vec<[String; 2]>,
    #[serde(default)]
    cautions: Vec<Caution>,
    #[serde(default)]
    within: Option<Minutes>,
    #[serde(default)]
    class: Option<LimitClass>,
    #[serde(default)]
    only: Option<Role>,
    #[serde(default)]
    needs: Option<Vec<String>>,
    #[serde(default)]
    at: Option<Moment>,
    #[serde(default)]
    of: Vec<Role>,
    #[serde(default)]
    adds: Vec<Role>,
    #[serde(default)]
    makes: Vec<Family>,
    #[serde(default)]
    takes: Vec<Resource>,
    #[serde(default)]
    place: Option<Spot>,
    #[serde(default)]
    clock: Option<Clock>,
    #[serde(default)]
    given: bool,
    #[serde(default)]
    alone: bool,
}

/// A step written out, or shared ones by their key.
#[derive(Debug, Clone, Deserialize)]
#[serde(untagged)]
enum Written {
    Shared {
        #[serde(rename = "use")]
        key: String,
        /// What the first of them needs.
        #[serde(default)]
        needs: Option<Vec<String>>,
        #[serde(default)]
        only: Option<Role>,
    },
    Own(Box<StepRow>),
}

/// A part of the mass, and how warm it is when it comes in.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Warmth {
    /// Of what.
    pub of: Role,
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
    /// Of what.
    pub of: Role,
    /// The highest temperature it reaches, °C.
    pub c: f64,
}

/// What is made first, by another school.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Base {
    /// Key of the school.
    pub school: String,
    /// Of all lines but these.
    pub without: Vec<Role>,
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
    reduces: bool,
    #[serde(default)]
    base: Option<Base>,
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
    /// Water is boiled away in it, which is not worked out: the formula cannot be made so by a button.
    pub reduces: bool,
    /// What is made first, by another school.
    pub base: Option<Base>,
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
#[serde(deny_unknown_fields)]
struct Module {
    id: String,
    steps: Vec<StepRow>,
}

#[derive(Deserialize)]
struct Table {
    school: Vec<Row>,
}

static SCHOOLS: LazyLock<Vec<School>> = LazyLock::new(|| {
    let modules: Modules = toml::from_str(include_str!("../../data/methods/modules.toml"))
        .expect("the shared steps are well formed");
    let shared: HashMap<String, Vec<StepRow>> =
        modules.module.into_iter().map(|module| (module.id, module.steps)).collect();
    [
        include_str!("../../data/methods/ganache.toml"),
        include_str!("../../data/methods/buttercream.toml"),
        include_str!("../../data/methods/cream_and_mousse.toml"),
        include_str!("../../data/methods/custard_and_glaze.toml"),
    ]
    .into_iter()
    .flat_map(|text| toml::from_str::<Table>(text).expect("the table of schools is well formed").school)
    .map(|row| School {
        steps: steps(&row.id, row.steps, &shared),
        id: row.id,
        name: row.name,
        families: row.families,
        better: row.better,
        differs: row.differs,
        start: row.start,
        overrun_percent: row.overrun_percent,
        whip: row.whip,
        cook: row.cook,
        reduces: row.reduces,
        base: row.base,
        risks: row.risks,
        source: row.source.unwrap_or_else(|| "common practice".to_owned()),
    })
    .collect()
});

/// The steps of a school: shared ones put in their place, and what each needs found among those above it.
///
/// # Panics
/// When the table names a step or module that is not there: the tables are part of the program.
fn steps(school: &str, written: Vec<Written>, shared: &HashMap<String, Vec<StepRow>>) -> Vec<Step> {
    let rows = written.into_iter().flat_map(|one| match one {
        Written::Own(row) => vec![*row],
        Written::Shared { key, needs, only } => {
            let module = shared.get(&key).unwrap_or_else(|| panic!("{school}: no shared step {key}"));
            let mut rows = module.clone();
            for (at, row) in rows.iter_mut().enumerate() {
                if at == 0 {
                    row.needs = needs.clone().or(row.needs.take());
                }
                row.only = only.or(row.only);
            }
            rows
        }
    });
    let mut done: Vec<Step> = Vec::new();
    for row in rows {
        let at = |key: &String| {
            let found = done.iter().position(|step| step.key == *key);
            found.unwrap_or_else(|| panic!("{school}: {} needs {key}, which is no step above it", row.id))
        };
        let needs = match &row.needs {
            Some(keys) => keys.iter().map(at).collect(),
            None => done.len().checked_sub(1).into_iter().collect(),
        };
        assert!(done.iter().all(|step| step.key != row.id), "{school}: two steps are called {}", row.id);
        done.push(row.step(needs));
    }
    done
}

impl StepRow {
    fn step(self, needs: Vec<usize>) -> Step {
        let [a, b] = self.minutes;
        let class = self.class.unwrap_or(LimitClass::Quality);
        Step {
            key: self.id,
            kind: self.kind,
            what: self.what,
            gear: self.gear,
            time: match self.kind {
                Worker::Wait => Duration::Stand { least: a, most: b },
                Worker::Hands | Worker::Machine => Duration::Work { base: a, per_kg: b },
            },
            t: self.t,
            until: self.until,
            spoon: self.spoon,
            wrong: self.wrong,
            cautions: self.cautions,
            limit: self.within.map(|minutes| Limit { minutes, class }),
            class,
            only: self.only,
            needs,
            at: self.at.unwrap_or(Moment::Make),
            of: self.of,
            adds: self.adds,
            makes: self.makes,
            takes: self.takes,
            place: self.place,
            clock: self.clock,
            given: self.given,
            alone: self.alone,
        }
    }
}

/// All of them.
pub fn schools() -> &'static [School] {
    &SCHOOLS
}

/// Those of a family, the usual one first.
pub fn schools_of(family: Family) -> impl Iterator<Item = &'static School> {
    SCHOOLS.iter().filter(move |school| school.families.contains(&family))
}

/// The school with this key.
pub fn school(key: &str) -> Option<&'static School> {
    SCHOOLS.iter().find(|school| school.id == key)
}
