//! The trade's remedies as data: `data/remedies/*.toml`, read once.

use crate::caution::Caution;
use crate::formula::Family;
use crate::rescue::sign::Sign;
use crate::rescue::signal::Signal;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;

/// What a hand does.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Deed {
    /// Leave it.
    Wait,
    /// Stop, and leave it alone.
    Rest,
    /// Warm it.
    Warm,
    /// Cool it.
    Cool,
    /// With the hands, a knife, a brush.
    Hand,
    /// Stir or blend.
    Blend,
    /// Beat.
    Whip,
    /// Fold.
    Fold,
    /// Through a sieve, and weigh again.
    Sieve,
    /// Put something in.
    Add,
    /// Blend with a second batch.
    Second,
    /// Throw it away.
    Discard,
}

impl Deed {
    /// What it costs: what can be undone first, grams later, the bin last.
    pub fn cost(self) -> u8 {
        match self {
            Deed::Wait | Deed::Rest | Deed::Warm | Deed::Cool => 0,
            Deed::Hand | Deed::Blend | Deed::Whip | Deed::Fold | Deed::Sieve => 1,
            Deed::Add => 2,
            Deed::Second => 3,
            Deed::Discard => 4,
        }
    }
}

/// What an amount or a temperature is solved for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SolvedFor {
    /// The window of the job.
    Job,
    /// A split index that is safe.
    Split,
    /// Sugar that stays dissolved.
    Graining,
}

/// One step of a remedy, as the trade has it.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Step {
    /// What the hand does.
    #[serde(rename = "do")]
    pub deed: Deed,
    /// In words.
    pub say: String,
    /// Temperature, °C, from and to.
    #[serde(default)]
    pub t: Option<[f64; 2]>,
    /// How long, min.
    #[serde(default)]
    pub min: Option<f64>,
    /// Key of what is added, or a role: `same_chocolate`, `same_liquid`, `stiffener`.
    #[serde(default)]
    pub of: Option<String>,
    /// Grams per 100 g in the bowl: the trade's usual first amount, and the most.
    #[serde(default)]
    pub g: Option<[f64; 2]>,
    /// What it is solved for; the trade's amount when none.
    #[serde(default)]
    pub by: Option<SolvedFor>,
    /// So much of what the formula has of it already, as a share: it has lost its strength.
    #[serde(default)]
    pub again: Option<f64>,
}

/// A question that tells two look-alikes apart.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Tell {
    /// To be answered with yes for this remedy.
    pub ask: String,
    /// The remedy when the answer is no.
    pub no: String,
}

/// One remedy.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Remedy {
    /// Key.
    pub id: String,
    /// What it may look like, the most telling first.
    pub signs: Vec<Sign>,
    /// Families, or groups of them, by key.
    pub families: Vec<String>,
    /// Families of those groups it is not safe for.
    #[serde(default)]
    pub not_for: Vec<Family>,
    /// Jobs it belongs to; all when empty.
    #[serde(default)]
    pub jobs: Vec<String>,
    /// What the cook sees.
    pub seen: String,
    /// What tells it from its look-alike.
    #[serde(default)]
    pub tell: Option<Tell>,
    /// Why it happened.
    pub cause: String,
    /// What the numbers say when it is this.
    #[serde(default)]
    pub when: Vec<Signal>,
    /// What must hold for it to be this at all.
    #[serde(default)]
    pub only: Vec<Signal>,
    /// What to do, in order.
    pub steps: Vec<Step>,
    /// The sign that it worked.
    pub worked: String,
    /// When to stop.
    pub stop: String,
    /// What else the batch can become.
    pub becomes: Vec<String>,
    /// Next time.
    pub prevent: String,
    /// What can hurt.
    #[serde(default)]
    pub cautions: Vec<Caution>,
    /// Where it is from; common practice when none.
    #[serde(default)]
    pub source: Option<String>,
}

#[derive(Deserialize)]
struct Table {
    remedy: Vec<Remedy>,
}

static REMEDIES: LazyLock<Vec<Remedy>> = LazyLock::new(|| {
    [
        include_str!("../../data/remedies/ganache.toml"),
        include_str!("../../data/remedies/buttercream.toml"),
        include_str!("../../data/remedies/cream_and_mousse.toml"),
        include_str!("../../data/remedies/custard_and_glaze.toml"),
        include_str!("../../data/remedies/forgotten_and_taste.toml"),
    ]
    .into_iter()
    .flat_map(|text| toml::from_str::<Table>(text).expect("the table of remedies is well formed").remedy)
    .collect()
});

/// All of them.
pub fn remedies() -> &'static [Remedy] {
    &REMEDIES
}

/// One by its key.
pub fn find_remedy(id: &str) -> Option<&'static Remedy> {
    REMEDIES.iter().find(|remedy| remedy.id == id)
}

fn key(value: &impl Serialize) -> String {
    serde_json::to_value(value).ok().and_then(|word| word.as_str().map(str::to_owned)).unwrap_or_default()
}

impl Remedy {
    /// How closely it is meant for a family: 2 by name, 1 by its group, none when it is not.
    pub fn fits(&self, family: Family) -> Option<u8> {
        if self.not_for.contains(&family) {
            return None;
        }
        if self.families.contains(&key(&family)) {
            return Some(2);
        }
        self.families.contains(&key(&family.traits().group)).then_some(1)
    }

    /// Where it is from.
    pub fn source(&self) -> &str {
        self.source.as_deref().unwrap_or("common practice")
    }
}
