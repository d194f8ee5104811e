//! Systems of the consistency model: which phase is outside, when sugar dissolves, how much air is usual.
//! Several families of the kitchen are computed as one system.

use serde::{Deserialize, Serialize};

/// A system of the model.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum System {
    /// Chocolate and cream.
    Ganache,
    /// Ganache whipped after a cold rest.
    WhippedGanache,
    /// Butter and icing sugar.
    Buttercream,
    /// Butter on egg foam.
    MeringueButtercream,
    /// Pastry cream, anglaise, curd.
    Custard,
    /// Pastry cream and butter.
    Mousseline,
    /// Pastry cream and whipped cream.
    Diplomat,
    /// Base folded with whipped cream or egg foam.
    Mousse,
    /// Cream, whipped.
    WhippedCream,
    /// Set with gelatin, without air.
    Jelly,
    /// Mirror glaze.
    Glaze,
    /// Sugar and water.
    Syrup,
    /// Whites and sugar.
    Meringue,
    /// Plain fat.
    Fat,
}

/// Which phase carries the others when nothing speaks against it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Continuous {
    /// Water outside.
    Water,
    /// Fat outside.
    Fat,
}

/// What the model knows of a system beforehand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SystemTraits {
    /// The phase outside.
    pub continuous: Continuous,
    /// Temperature at which sugar dissolves in the making, °C. Not a statement that egg or starch
    /// was cooked.
    pub mixing_c: f64,
    /// Whether the fat melts in the making and is undercooled when fresh.
    pub melted: bool,
    /// Usual volume gained per volume.
    pub overrun: f64,
    /// Usual whipping: 0 none, 1 stiff.
    pub whip: f64,
    /// Standard deviation of ln yield stress. Fitted, with model-form error added.
    pub sigma_yield: f64,
    /// Standard deviation of ln viscosity at 10 /s.
    pub sigma_viscosity: f64,
    /// Whether its starch was made and set before mixing.
    pub premade_starch: bool,
    /// Whether whipping can link its fat.
    pub whips: bool,
}

impl System {
    /// All systems.
    pub const ALL: [System; 14] = [
        System::Ganache,
        System::WhippedGanache,
        System::Buttercream,
        System::MeringueButtercream,
        System::Custard,
        System::Mousseline,
        System::Diplomat,
        System::Mousse,
        System::WhippedCream,
        System::Jelly,
        System::Glaze,
        System::Syrup,
        System::Meringue,
        System::Fat,
    ];

    /// Temperatures at which it was checked, °C: set, and fresh.
    pub fn checked_c(self) -> ([f64; 2], [f64; 2]) {
        let both = |range: [f64; 2]| (range, range);
        match self {
            System::Ganache => ([4.0, 33.0], [28.0, 45.0]),
            System::WhippedGanache | System::Diplomat | System::Mousse => both([4.0, 8.0]),
            System::Buttercream => both([4.0, 28.5]),
            System::MeringueButtercream => both([4.0, 27.0]),
            System::Custard => ([5.0, 20.0], [20.0, 85.0]),
            System::Mousseline => both([4.0, 25.0]),
            System::WhippedCream => both([4.0, 15.0]),
            System::Jelly => ([4.0, 10.0], [30.0, 60.0]),
            System::Glaze => ([4.0, 20.0], [30.0, 36.0]),
            System::Syrup => both([0.0, 80.0]),
            System::Meringue => both([15.0, 45.0]),
            System::Fat => both([4.0, 35.0]),
        }
    }

    /// Most liquid between the solids that fat outside was seen to hold, volume share: what mousselines and buttercreams of
    /// common practice come to (assumed).
    pub fn wet_to(self) -> f64 {
        if self == System::Mousseline { 0.72 } else { 0.58 }
    }

    /// What the model knows of it beforehand.
    pub fn traits(self) -> SystemTraits {
        use Continuous::{Fat, Water};
        let base = |continuous, mixing_c, melted, overrun, whip, sigma_yield, sigma_viscosity| SystemTraits {
            continuous,
            mixing_c,
            melted,
            overrun,
            whip,
            sigma_yield,
            sigma_viscosity,
            premade_starch: matches!(self, System::Mousseline | System::Diplomat),
            whips: matches!(self, System::WhippedCream | System::WhippedGanache),
        };
        match self {
            System::Ganache => base(Water, 40.0, true, 0.0, 0.0, 0.46, 0.45),
            System::WhippedGanache => base(Water, 40.0, true, 0.6, 0.8, 0.66, 0.66),
            System::Buttercream => base(Fat, 20.0, false, 0.35, 0.0, 0.45, 0.45),
            System::MeringueButtercream => base(Fat, 95.0, false, 0.4, 0.0, 0.45, 0.45),
            System::Custard => base(Water, 95.0, true, 0.0, 0.0, 0.59, 0.59),
            System::Mousseline => base(Fat, 95.0, false, 0.15, 0.0, 0.56, 0.55),
            System::Diplomat => base(Water, 95.0, false, 0.35, 0.5, 0.36, 0.36),
            System::Mousse => base(Water, 40.0, false, 0.5, 0.6, 0.5, 0.5),
            System::WhippedCream => base(Water, 10.0, false, 1.0, 0.9, 0.71, 0.71),
            System::Jelly => base(Water, 95.0, true, 0.0, 0.0, 0.3, 0.3),
            System::Glaze => base(Water, 60.0, true, 0.0, 0.0, 0.54, 0.42),
            System::Syrup => base(Water, 95.0, true, 0.0, 0.0, 0.11, 0.05),
            System::Meringue => base(Water, 95.0, true, 4.0, 0.0, 0.7, 0.7),
            System::Fat => base(Fat, 20.0, false, 0.0, 0.0, 0.45, 0.45),
        }
    }
}
