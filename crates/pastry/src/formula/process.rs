//! What was done to a cream in the making, where it matters for the prediction.

use crate::formula::boiled::BoilTo;
use crate::formula::line::{WeighedLine, flat};
use crate::formula::strained::Strained;
use crate::ingredient::Part;
use crate::units::{CookTemperature, Hours, Minutes, Overrun};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How stiff something is whipped. The numbers are starting guesses (assumed); a weighed cup knows better.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WhipStage {
    /// Not whipped.
    None,
    /// The whisk leaves a trail that sinks.
    Trail,
    /// Peaks that bend over.
    Soft,
    /// Peaks with a hooked tip.
    Medium,
    /// Upright peaks.
    Stiff,
}

impl WhipStage {
    /// All of them.
    pub const ALL: [WhipStage; 5] =
        [WhipStage::None, WhipStage::Trail, WhipStage::Soft, WhipStage::Medium, WhipStage::Stiff];

    /// How far fat droplets are linked, 0 to 1 (assumed).
    pub fn whip(self) -> f64 {
        match self {
            WhipStage::None => 0.0,
            WhipStage::Trail => 0.2,
            WhipStage::Soft => 0.4,
            WhipStage::Medium => 0.7,
            WhipStage::Stiff => 0.9,
        }
    }

    /// The stage nearest to a number.
    pub fn nearest(whip: f64) -> Self {
        let mut best = WhipStage::None;
        for stage in Self::ALL {
            if (stage.whip() - whip).abs() < (best.whip() - whip).abs() {
                best = stage;
            }
        }
        best
    }

    /// In kitchen words.
    pub fn word(self) -> &'static str {
        match self {
            WhipStage::None => "not whipped",
            WhipStage::Trail => "to a trail",
            WhipStage::Soft => "to soft peaks",
            WhipStage::Medium => "to medium peaks",
            WhipStage::Stiff => "to stiff peaks",
        }
    }
}

/// What was done, where it differs from the family's habit.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Process {
    /// Volume gained, per cent of the volume before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub overrun_percent: Option<Overrun>,
    /// How stiff it is whipped.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub whip: Option<WhipStage>,
    /// Highest temperature reached, °C. Without it, nothing is taken as cooked for safety.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cook_c: Option<CookTemperature>,
    /// Minutes held at that temperature: what makes egg safe below 71 °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub held_min: Option<Minutes>,
    /// What is strained off when all of it is done, boiled down or not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub strained: Option<Strained>,
    /// How far all of it is boiled down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub boiled: Option<BoilTo>,
    /// Hours set in the cold, 17 when not given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub set_hours: Option<Hours>,
}

impl Process {
    /// Nothing differs from the habit.
    pub fn is_usual(&self) -> bool {
        *self == Process::default()
    }
}

/// Highest temperatures by group of lines, where they differ from the whole, °C. A bavarois can hold a
/// custard at 83 °C and raw fruit: one number would switch warnings off wrongly.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct GroupCooks {
    /// Highest over lines with starch.
    pub starch: Option<f64>,
    /// Over lines with yolk solids, by weight of those.
    pub yolk: Option<f64>,
    /// Over lines with egg-white solids, by weight of those.
    pub white: Option<f64>,
    /// Lowest over agar.
    pub agar: Option<f64>,
    /// Lowest over pectin that is added to set.
    pub pectin: Option<f64>,
    /// Lowest over raw protease fruit; none when one of them has none.
    pub protease: Option<f64>,
    /// Lowest over raw egg; none when one of them has none.
    pub raw_egg: Option<f64>,
    /// Highest over what has sugar in it: how hot its syrup was.
    pub sugar: Option<f64>,
}

/// Hottest that anything with this much water gets in an open pan, °C: a syrup of 60 % sugar boils at 103 °C, one of
/// 70 % at 106 °C (boiling points of sucrose solutions at 101.3 kPa, standard sugar handbooks, from memory).
const BOILS_C: f64 = 108.0;
/// Share of sugar from which the heat of a line is that of its syrup.
const SUGARY: f64 = 0.02;
/// Share of water from which that holds.
const WET: f64 = 0.3;

/// Whether a line can have reached a temperature in an open pan.
pub fn can_reach(line: &WeighedLine, cook_c: f64) -> bool {
    // What is boiled down gets as hot as it has grown strong.
    cook_c <= BOILS_C || line.ingredient.steam > 0.0 || line.ingredient.composition.get(Part::Water) < WET
}

impl GroupCooks {
    /// From weighed lines; a line without a temperature of its own has the formula's.
    pub fn of(lines: &[WeighedLine], whole: Option<f64>) -> Self {
        let flat = flat(lines);
        let lines = flat.as_ref();
        // A number that cannot be is no number: 131 °F read as °C must not make an egg safe.
        let cook = |line: &WeighedLine| line.reached(whole).filter(|cook_c| can_reach(line, *cook_c));
        let mean = |part: Part| {
            let (mut weight, mut sum) = (0.0, 0.0);
            for line in lines {
                let solids = line.mass.grams() * line.ingredient.composition.get(part);
                if let Some(cook_c) = cook(line) {
                    weight += solids;
                    sum += solids * cook_c;
                }
            }
            (weight > 0.0).then(|| sum / weight)
        };
        let lowest = |holds: fn(&WeighedLine) -> bool| {
            lines
                .iter()
                .filter(|line| line.mass.grams() > 0.0 && holds(line))
                .map(cook)
                .reduce(|a, b| Some(a?.min(b?)))
                .flatten()
        };
        GroupCooks {
            starch: lines
                .iter()
                .filter(|line| {
                    line.mass.grams() > 0.0
                        && line.ingredient.composition.get(Part::Starch) > 0.0
                        && !line.ingredient.flags.cold_starch
                })
                .filter_map(cook)
                .reduce(f64::max),
            yolk: mean(Part::Yolk),
            white: mean(Part::EggWhite),
            agar: lowest(|line| line.ingredient.composition.get(Part::Agar) > 0.0),
            pectin: lowest(|line| line.ingredient.flags.sets_with_pectin),
            protease: lowest(|line| line.ingredient.flags.protease),
            raw_egg: lowest(|line| line.ingredient.flags.raw_egg),
            sugar: lines
                .iter()
                .filter(|line| line.mass.grams() > 0.0 && line.ingredient.composition.phases().sugar > SUGARY)
                .filter_map(cook)
                .reduce(f64::max),
        }
    }
}
