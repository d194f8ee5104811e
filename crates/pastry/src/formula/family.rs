//! Families of creams: what is outside, when sugar dissolves, how much air is usual.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A family of creams and fillings.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Family {
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

/// What the model knows of a family beforehand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FamilyTraits {
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

impl Family {
    /// All families.
    pub const ALL: [Family; 14] = [
        Family::Ganache,
        Family::WhippedGanache,
        Family::Buttercream,
        Family::MeringueButtercream,
        Family::Custard,
        Family::Mousseline,
        Family::Diplomat,
        Family::Mousse,
        Family::WhippedCream,
        Family::Jelly,
        Family::Glaze,
        Family::Syrup,
        Family::Meringue,
        Family::Fat,
    ];

    /// Name in the kitchen.
    pub fn word(self) -> &'static str {
        match self {
            Family::Ganache => "ganache",
            Family::WhippedGanache => "whipped ganache",
            Family::Buttercream => "buttercream",
            Family::MeringueButtercream => "meringue buttercream",
            Family::Custard => "custard",
            Family::Mousseline => "mousseline",
            Family::Diplomat => "diplomat",
            Family::Mousse => "mousse",
            Family::WhippedCream => "whipped cream",
            Family::Jelly => "jelly",
            Family::Glaze => "glaze",
            Family::Syrup => "syrup",
            Family::Meringue => "meringue",
            Family::Fat => "fat",
        }
    }

    /// Whether the jobs of this release have been checked for the family.
    pub fn has_jobs(self) -> bool {
        self == Family::Ganache
    }

    /// What the model knows of it.
    pub fn traits(self) -> FamilyTraits {
        use Continuous::{Fat, Water};
        let base = |continuous, mixing_c, melted, overrun, whip, sigma_yield, sigma_viscosity| FamilyTraits {
            continuous,
            mixing_c,
            melted,
            overrun,
            whip,
            sigma_yield,
            sigma_viscosity,
            premade_starch: matches!(self, Family::Mousseline | Family::Diplomat),
            whips: matches!(self, Family::WhippedCream | Family::WhippedGanache),
        };
        match self {
            Family::Ganache => base(Water, 40.0, true, 0.0, 0.0, 0.46, 0.45),
            Family::WhippedGanache => base(Water, 40.0, true, 0.6, 0.8, 0.66, 0.66),
            Family::Buttercream => base(Fat, 20.0, false, 0.35, 0.0, 0.45, 0.45),
            Family::MeringueButtercream => base(Fat, 95.0, false, 0.4, 0.0, 0.45, 0.45),
            Family::Custard => base(Water, 95.0, true, 0.0, 0.0, 0.59, 0.59),
            Family::Mousseline => base(Fat, 95.0, false, 0.15, 0.0, 0.56, 0.55),
            Family::Diplomat => base(Water, 95.0, false, 0.35, 0.5, 0.36, 0.36),
            Family::Mousse => base(Water, 40.0, false, 0.5, 0.6, 0.5, 0.5),
            Family::WhippedCream => base(Water, 10.0, false, 1.0, 0.9, 0.71, 0.71),
            Family::Jelly => base(Water, 95.0, true, 0.0, 0.0, 0.3, 0.3),
            Family::Glaze => base(Water, 60.0, true, 0.0, 0.0, 0.54, 0.42),
            Family::Syrup => base(Water, 95.0, true, 0.0, 0.0, 0.11, 0.05),
            Family::Meringue => base(Water, 95.0, true, 4.0, 0.0, 0.7, 0.7),
            Family::Fat => base(Fat, 20.0, false, 0.0, 0.0, 0.45, 0.45),
        }
    }
}
