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
    /// All of them, from thin to firm.
    pub const ALL: [SpoonSign; 7] = [
        SpoonSign::ThinStream,
        SpoonSign::ThinRibbon,
        SpoonSign::FoldingRibbon,
        SpoonSign::SlowRope,
        SpoonSign::SoftDollop,
        SpoonSign::HoldsUpsideDown,
        SpoonSign::CleanCut,
    ];

    /// Where it begins, and whether that is a yield stress, Pa, or a viscosity at 10 /s, Pa·s; none for the thinnest.
    pub fn begins(self) -> Option<(f64, bool)> {
        match self {
            SpoonSign::ThinStream => None,
            SpoonSign::ThinRibbon => Some((0.2, false)),
            SpoonSign::FoldingRibbon => Some((1.5, false)),
            SpoonSign::SlowRope => Some((7.0, false)),
            SpoonSign::SoftDollop => Some((55.0, true)),
            SpoonSign::HoldsUpsideDown => Some((260.0, true)),
            SpoonSign::CleanCut => Some((2200.0, true)),
        }
    }

    /// From yield stress, Pa, and viscosity at 10 /s, Pa·s.
    pub fn of(yield_pa: f64, viscosity_pa_s: f64) -> Self {
        let reached = |own: &SpoonSign| {
            own.begins().is_none_or(
                |(limit, is_yield)| {
                    if is_yield { yield_pa >= limit } else { viscosity_pa_s >= limit }
                },
            )
        };
        SpoonSign::ALL.iter().rev().copied().find(reached).unwrap_or(SpoonSign::ThinStream)
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
