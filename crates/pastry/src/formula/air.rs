//! The air in it: beaten in, or brought by what is folded in. What is folded loses some; how much is common practice
//! (`data/folding.csv`).

use crate::formula::family::Family;
use crate::formula::line::WeighedLine;
use crate::formula::process::{Process, WhipStage};
use crate::formula::system::System;
use crate::ingredient::Role;
use crate::ingredient::composition::FATS;
use crate::number::{hundredths, two_digits};
use crate::units::Overrun;
use serde::Deserialize;
use std::sync::LazyLock;

/// How something with air in it is taken up by the rest.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Into {
    /// Folded in, by hand.
    Folded,
    /// Stirred in.
    Stirred,
}

#[derive(Debug, Deserialize)]
struct Row {
    /// Stage of what is whipped; `not_whipped` for foams of another kind.
    foam: String,
    into: Into,
    lost_percent: f64,
}

static FOLDING: LazyLock<Vec<Row>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/folding.csv").as_bytes())
        .deserialize()
        .map(|row| row.expect("the table of folding is well formed"))
        .collect()
});

/// Per cent of its air that something whipped to `whip` loses.
fn lost_percent(whip: f64, into: Into) -> f64 {
    let foam = match WhipStage::nearest(whip) {
        WhipStage::None => "not_whipped",
        WhipStage::Trail => "trail",
        WhipStage::Soft => "soft",
        WhipStage::Medium => "medium",
        WhipStage::Stiff => "stiff",
    };
    let row = FOLDING.iter().find(|row| row.foam == foam && row.into == into);
    row.map_or_else(|| unreachable!("every stage has its row"), |row| row.lost_percent)
}

/// The air of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct Air {
    /// Volume gained, per cent of the volume without air.
    pub overrun_percent: f64,
    /// How far its droplets of fat are linked by whipping, 0 to 1.
    pub whip: f64,
    /// Where the air comes from, in words, when it is brought by what was made before.
    pub brought: Option<String>,
}

impl Air {
    /// Of a formula: what the cook wrote, else what its parts bring, else the family's habit.
    ///
    /// V_air = Σ m_i v_i o_i (1 − lost_i) over the parts with air, overrun = V_air / Σ m v; the whipping of fat is the mean
    /// over the droplets of fat of what is whipped. What is beaten as a whole has the air of its family, whatever it
    /// was made of.
    ///
    /// # Arguments
    /// * `lines`: as they are weighed, not flat.
    pub fn of(process: &Process, family: Family, lines: &[WeighedLine]) -> Self {
        let traits = family.traits();
        let habit = (
            traits.overrun_percent.unwrap_or_else(|| 100.0 * traits.system.traits().overrun),
            traits.whip.unwrap_or_else(|| traits.system.traits().whip),
        );
        let folded = matches!(traits.system, System::Mousse | System::Diplomat);
        let takes = folded || habit.0 <= 0.0;
        let brought = if takes { Brought::of(lines, folded, habit.1) } else { None };
        let written = process.overrun_percent.map(Overrun::percent);
        Air {
            overrun_percent: written
                .or(brought.as_ref().map(|brought| brought.overrun_percent))
                .unwrap_or(habit.0),
            whip: process
                .whip
                .map(WhipStage::whip)
                .or(brought.as_ref().map(|brought| brought.whip))
                .unwrap_or(habit.1),
            brought: brought.map(|brought| brought.words).filter(|_| written.is_none()),
        }
    }
}

struct Brought {
    overrun_percent: f64,
    whip: f64,
    words: String,
}

impl Brought {
    fn of(lines: &[WeighedLine], folded: bool, habit_whip: f64) -> Option<Self> {
        let into = if folded { Into::Folded } else { Into::Stirred };
        let (mut volume, mut air) = (0.0, 0.0);
        let (mut droplets, mut linked, mut words) = (0.0, 0.0, Vec::new());
        for line in lines.iter().filter(|line| line.mass.grams() > 0.0) {
            let m = &line.ingredient.composition;
            let own = line.mass.grams() * m.volume_per_kg();
            volume += own;
            let fat =
                line.mass.grams() * line.ingredient.globule * FATS.iter().map(|fat| m.get(*fat)).sum::<f64>();
            // Liquid cream beside it is whipped as the family does; what is made here is as whipped as it is, and what was
            // never whipped tells nothing.
            let whip = match &line.ingredient.made {
                Some(made) => (made.overrun > 0.0).then_some(made.whip),
                None => line.ingredient.is(Role::Whippable).then_some(habit_whip),
            };
            if let Some(whip) = whip {
                droplets += fat;
                linked += fat * whip;
            }
            if let Some(made) = line.ingredient.made.as_ref().filter(|made| made.overrun > 0.0) {
                let lost = lost_percent(made.whip, into);
                air += own * made.overrun * (1.0 - lost / 100.0);
                words.push(format!(
                    "{} brings {} % air and loses {} % of it when it is {}",
                    line.ingredient.name,
                    two_digits(100.0 * made.overrun),
                    hundredths(lost),
                    if folded { "folded in" } else { "stirred in" }
                ));
            }
        }
        (air > 0.0).then(|| Brought {
            overrun_percent: 100.0 * air / volume.max(1e-12),
            whip: if droplets > 0.0 { linked / droplets } else { habit_whip },
            words: words.join("; "),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_stage_loses_something_and_stirring_more() {
        for stage in WhipStage::ALL {
            let [folded, stirred] =
                [Into::Folded, Into::Stirred].map(|into| lost_percent(stage.whip(), into));
            assert!(folded > 0.0 && stirred > folded && stirred < 100.0, "{stage:?}");
        }
    }
}
