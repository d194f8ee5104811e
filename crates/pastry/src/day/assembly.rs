//! What is done at a cake: `data/assembly.toml`, read once.

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
    /// Where it stands until then.
    #[serde(default)]
    pub place: Option<Spot>,
    /// Points for every 5 min older at the serving.
    #[serde(default)]
    pub age: i32,
    /// As good as fresh for so long, min.
    #[serde(default)]
    pub grace: i32,
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

impl Doing {
    /// Minutes for so many.
    pub fn time(&self, count: f64) -> f64 {
        self.minutes[0] + self.minutes[1] * count
    }
}
