//! What is done at a cake: `data/assembly.toml`, read once.

use crate::day::draft::ByClock;
use crate::method::step::Spot;
use serde::Deserialize;
use std::sync::LazyLock;

/// One thing done at a cake.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Doing {
    /// What is done.
    pub name: String,
    /// Minutes whatever the size, and more for each piece of what is counted.
    pub minutes: [f64; 2],
    /// What is counted.
    pub of: String,
    /// Minutes until what comes next, least and most; at once when none.
    #[serde(default)]
    pub stands: Option<[f64; 2]>,
    /// What it does until then.
    #[serde(default)]
    pub meanwhile: String,
    /// Where it stands until then.
    #[serde(default)]
    pub place: Option<Spot>,
    /// Points for every 5 min older at the serving.
    #[serde(default)]
    pub age: i32,
    /// As good as fresh for so long, min.
    #[serde(default)]
    pub grace: i32,
    /// Whose clock says how long it stands, where one does.
    #[serde(skip)]
    pub clock: Option<ByClock>,
}

/// All of them.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Assembly {
    pub split: Doing,
    pub soak: Doing,
    pub dam: Doing,
    pub fill: Doing,
    pub many: Doing,
    pub film: Doing,
    pub insert: Doing,
    pub mould: Doing,
    pub turn_out: Doing,
    pub jar: Doing,
    pub close: Doing,
    pub roll: Doing,
    pub crumb_coat: Doing,
    pub coat: Doing,
    pub glaze: Doing,
    pub drip: Doing,
    pub tiers: Doing,
    pub pipe: Doing,
    pub lay: Doing,
    pub pile: Doing,
    pub r#box: Doing,
    pub box_small: Doing,
}

/// The table.
pub static ASSEMBLY: LazyLock<Assembly> = LazyLock::new(|| {
    toml::from_str(include_str!("../../data/assembly.toml")).expect("the table of assembly is well formed")
});

/// Whether a step is one done at a cake.
pub fn is_at_a_cake(name: &str) -> bool {
    let own = &*ASSEMBLY;
    let all = [
        &own.split,
        &own.soak,
        &own.dam,
        &own.fill,
        &own.many,
        &own.film,
        &own.insert,
        &own.mould,
        &own.turn_out,
        &own.jar,
        &own.close,
        &own.roll,
        &own.crumb_coat,
        &own.coat,
        &own.glaze,
        &own.drip,
        &own.tiers,
        &own.pipe,
        &own.lay,
        &own.pile,
        &own.r#box,
        &own.box_small,
    ];
    name.split(';').any(|one| all.iter().any(|doing| doing.name == one.trim()))
}

impl Doing {
    /// Minutes for so many.
    pub fn time(&self, count: f64) -> f64 {
        self.minutes[0] + self.minutes[1] * count
    }
}
