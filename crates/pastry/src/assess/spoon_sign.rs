//! What a spoonful does, in seven words.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a spoonful does, one scale from thin to firm. Limits are common practice put into numbers
/// (assumed).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpoonSign {
    /// Runs like syrup.
    ThinStream,
    /// A narrow ribbon that vanishes.
    ThinRibbon,
    /// A ribbon that folds on itself.
    FoldingRibbon,
    /// A thick rope, slow to fall.
    SlowRope,
    /// Falls in a soft lump.
    SoftDollop,
    /// Stays on a spoon turned over.
    HoldsUpsideDown,
    /// Cuts with a clean edge.
    CleanCut,
}

impl SpoonSign {
    /// From yield stress, Pa, and viscosity at 10 /s, Pa·s.
    pub fn of(yield_pa: f64, viscosity_pa_s: f64) -> Self {
        match (yield_pa, viscosity_pa_s) {
            (tau, _) if tau >= 2200.0 => SpoonSign::CleanCut,
            (tau, _) if tau >= 260.0 => SpoonSign::HoldsUpsideDown,
            (tau, _) if tau >= 55.0 => SpoonSign::SoftDollop,
            (_, eta) if eta >= 7.0 => SpoonSign::SlowRope,
            (_, eta) if eta >= 1.5 => SpoonSign::FoldingRibbon,
            (_, eta) if eta >= 0.2 => SpoonSign::ThinRibbon,
            _ => SpoonSign::ThinStream,
        }
    }

    /// A yield stress, Pa, and a viscosity at 10 /s, Pa·s, in the middle of what does so.
    pub fn typical(self) -> (f64, f64) {
        match self {
            SpoonSign::ThinStream => (0.2, 0.05),
            SpoonSign::ThinRibbon => (1.0, 0.6),
            SpoonSign::FoldingRibbon => (6.0, 3.2),
            SpoonSign::SlowRope => (30.0, 14.0),
            SpoonSign::SoftDollop => (120.0, 30.0),
            SpoonSign::HoldsUpsideDown => (800.0, 120.0),
            SpoonSign::CleanCut => (5000.0, 600.0),
        }
    }

    /// In words.
    pub fn word(self) -> &'static str {
        match self {
            SpoonSign::ThinStream => "thin stream",
            SpoonSign::ThinRibbon => "thin ribbon",
            SpoonSign::FoldingRibbon => "folding ribbon",
            SpoonSign::SlowRope => "slow rope",
            SpoonSign::SoftDollop => "soft dollop",
            SpoonSign::HoldsUpsideDown => "holds upside down",
            SpoonSign::CleanCut => "clean cut",
        }
    }
}
