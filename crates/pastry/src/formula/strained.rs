//! What is strained off: skins and pips in the sieve, the syrup of thawed fruit, the whey of a yoghurt, and what coffee beans or
//! tea take with them when they are lifted out again.
//!
//! A gram is parted constituent by constituent: of each the same share goes through, wherever in the bowl it came from.

use crate::fault::{Fault, FaultCode};
use crate::ingredient::composition::{Composition, Part, SUGARS};
use crate::ingredient::{Ingredient, Leaf};
use crate::number::{batch_g, limit, weighed_g};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

/// How it is parted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Straining {
    /// Pressed through a sieve: skins and pips stay in it.
    Sieved,
    /// Left to drip: the liquid runs off, and nothing else.
    Drained,
}

/// Which part of it is kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// What goes through the sieve or runs off.
    Through,
    /// What stays in it.
    Stays,
}

/// How much is kept.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "to", rename_all = "snake_case", deny_unknown_fields)]
pub enum Kept {
    /// A weight.
    Weight {
        /// What is kept, g.
        #[schema(exclusive_minimum = 0, maximum = 1000000)]
        left_g: f64,
    },
    /// A share of what it was.
    Share {
        /// Of its weight.
        #[schema(minimum = 0.02, maximum = 1)]
        of_weight: f64,
    },
}

/// What is strained off.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Strained {
    /// How.
    pub how: Straining,
    /// Which part is kept.
    pub keeps: Side,
    /// How much of it.
    pub left: Kept,
}

/// Steeped in the rest, and taken out again.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Steeped {
    /// What it weighs wet when it is taken out, g: weighed back. Three times its dry weight when nobody has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000000)]
    pub wet_g: Option<f64>,
}

/// Of what is steeped, its wet weight over its dry one where nobody weighed it: ground coffee holds about twice its weight of
/// water (from memory of brewing handbooks), tea leaves more, pods less (common practice).
pub const WET_OF_DRY: f64 = 3.0;
/// Most of the liquid that can be had out of something by draining, of all that is dissolved and its water (assumed).
const RUNS_OFF: f64 = 0.97;
/// What goes along of the rest: never is a side quite without it, and never is its allergen (assumed).
const TRACE: f64 = 0.004;
/// Sugar that a gram of water dissolves at 20 °C, g (sucrose, standard sugar handbooks, from memory).
const DISSOLVES: f64 = 2.0;
/// Pips and skins are richer in fibre than what goes through the sieve by this (assumed).
const IN_SIEVE: f64 = 3.0;

/// How much of a constituent goes with the liquid, 0 to 1: what is dissolved all, of milk protein its whey protein (a fifth:
/// standard dairy texts, from memory), of minerals and the rest one half (assumed).
///
/// # Arguments
/// * `sugar`: of the sugar, what is dissolved.
fn dissolved(part: Part, sugar: f64) -> f64 {
    match part {
        Part::Water | Part::Alcohol | Part::Salt | Part::Acid => 1.0,
        Part::Gelatin | Part::Pectin | Part::Agar | Part::Gum => 1.0,
        part if SUGARS.contains(&part) => sugar,
        Part::MilkProtein => 0.2,
        Part::Other => 0.5,
        _ => TRACE,
    }
}

/// Shares that are kept of each constituent.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Parting {
    kept: [f64; Part::COUNT],
    /// What of a structure that stands by itself, as in yoghurt, stays with what is kept: all of it, as much as of the
    /// weight, or nothing.
    body: Body,
}

#[derive(Debug, Clone, Copy, PartialEq)]
enum Body {
    Stays,
    Alike,
    Goes,
}

impl Strained {
    /// The same for so many times as much.
    #[must_use]
    pub fn of_times(mut self, factor: f64) -> Self {
        if let Kept::Weight { left_g } = &mut self.left {
            *left_g *= factor;
        }
        self
    }

    /// How a gram is parted.
    ///
    /// # Arguments
    /// * `m`: what is strained, all of it together; `grams`: how much there is of it; `at`: path of what says so.
    ///
    /// # Errors
    /// More is to be kept than there is; more liquid than runs off.
    pub fn parting(self, m: &Composition, grams: f64, at: &str) -> Result<Parting, Fault> {
        let (field, share) = match self.left {
            Kept::Weight { left_g } => ("left_g", left_g / grams.max(1e-9)),
            Kept::Share { of_weight } => ("of_weight", of_weight),
        };
        let fault = |words: String| Fault::new(format!("{at}.left.{field}"), FaultCode::OutOfRange, words);
        if !share.is_finite() || share < 0.02 - 1e-12 {
            return Err(fault("at least a fiftieth of it is kept: write what the scale shows".to_owned()));
        }
        if share > 1.0 + 1e-9 {
            return Err(fault(format!("there are {} g of it: keep that or less", batch_g(grams))));
        }
        let share = share.min(1.0);
        let through = if self.keeps == Side::Through { share } else { 1.0 - share };
        let mut gone = match self.how {
            Straining::Drained => {
                let sugars: f64 = SUGARS.iter().map(|sugar| m.get(*sugar)).sum();
                let sugar = (DISSOLVES * m.get(Part::Water) / sugars.max(1e-9)).min(1.0);
                let all: f64 = Part::ALL.iter().map(|part| dissolved(*part, sugar) * m.get(*part)).sum();
                if through > RUNS_OFF * all {
                    let most = RUNS_OFF * all * grams;
                    return Err(fault(match self.keeps {
                        Side::Through => format!("at most {} g of it can run off", batch_g(most)),
                        Side::Stays => format!(
                            "at most {} g of it can run off: keep at least {} g",
                            batch_g(most),
                            batch_g(grams - most)
                        ),
                    }));
                }
                Part::ALL.map(|part| 1.0 - dissolved(part, sugar) * through / all.max(1e-12))
            }
            Straining::Sieved => {
                let (stays, fibre) = (1.0 - through, m.get(Part::Fibre));
                let alike = stays / (1.0 + (IN_SIEVE - 1.0) * fibre);
                let of_fibre = (IN_SIEVE * alike).min(1.0);
                let rest =
                    if fibre < 1.0 - 1e-9 { (stays - of_fibre * fibre) / (1.0 - fibre) } else { stays };
                Part::ALL.map(|part| if part == Part::Fibre { of_fibre } else { rest })
            }
        };
        // Until here: what stays in the sieve.
        if self.keeps == Side::Through {
            gone.iter_mut().for_each(|stays| *stays = 1.0 - *stays);
        }
        let body = match (self.how, self.keeps) {
            (Straining::Sieved, _) => Body::Alike,
            (Straining::Drained, Side::Stays) => Body::Stays,
            (Straining::Drained, Side::Through) => Body::Goes,
        };
        Ok(Parting { kept: gone, body })
    }

    /// What the other part is called.
    pub fn beside_of(self, name: &str) -> String {
        match (self.how, self.keeps) {
            (Straining::Sieved, Side::Through) => format!("{name}: what stayed in the sieve"),
            (Straining::Sieved, Side::Stays) => format!("{name}: what went through the sieve"),
            (Straining::Drained, Side::Stays) => format!("{name}: the liquid drained off"),
            (Straining::Drained, Side::Through) => format!("{name}: what was drained"),
        }
    }

    /// "sieved to 420 g", "drained, 60 % of its weight kept".
    pub fn words(self) -> String {
        let done = match (self.how, self.keeps) {
            (Straining::Sieved, Side::Through) => "pressed through a sieve",
            (Straining::Sieved, Side::Stays) => "sieved, what stays in the sieve kept",
            (Straining::Drained, Side::Stays) => "drained",
            (Straining::Drained, Side::Through) => "drained, its liquid kept",
        };
        match self.left {
            Kept::Weight { left_g } => format!("{done}, to {} g", weighed_g(left_g)),
            Kept::Share { of_weight } => format!("{done}, to {} % of its weight", limit(100.0 * of_weight)),
        }
    }
}

impl Steeped {
    /// The same for so many times as much.
    #[must_use]
    pub fn of_times(self, factor: f64) -> Self {
        Steeped { wet_g: self.wet_g.map(|wet_g| factor * wet_g) }
    }
}

impl Parting {
    /// Of what is lifted out again: what is dissolved of it stays behind in the rest, and a trace of all.
    pub fn steeped() -> Self {
        let kept = Part::ALL.map(|part| match part {
            // What it had of water it takes with it, with more.
            Part::Water => TRACE,
            part => dissolved(part, 1.0).max(TRACE),
        });
        Parting { kept, body: Body::Goes }
    }

    /// As much of everything.
    pub fn alike(share: f64) -> Self {
        Parting { kept: [share; Part::COUNT], body: Body::Alike }
    }

    /// The other side of it.
    #[must_use]
    pub fn other(self) -> Self {
        let body = match self.body {
            Body::Stays => Body::Goes,
            Body::Goes => Body::Stays,
            Body::Alike => Body::Alike,
        };
        Parting { kept: self.kept.map(|kept| 1.0 - kept), body }
    }

    /// What is kept of a gram of something.
    pub fn of(&self, m: &Composition) -> f64 {
        Part::ALL.iter().map(|part| self.kept[*part as usize] * m.get(*part)).sum()
    }

    /// An ingredient of which so much is kept: of all that it comes down to, of what was strained off before, and of the
    /// water that is boiled off.
    pub fn kept_of(&self, ingredient: &Arc<Ingredient>) -> Arc<Ingredient> {
        let whole = [Leaf { ingredient: Arc::clone(ingredient), share: 1.0, cook_c: None }];
        let bare = |leaf: &Leaf| {
            let own = &leaf.ingredient;
            let share = self.of(&own.composition);
            let mut kept = own.as_ref().clone();
            (kept.left, kept.steam) = (None, 0.0);
            if share > 0.0 {
                for part in Part::ALL {
                    kept.composition.0[part as usize] =
                        self.kept[part as usize] * own.composition.get(part) / share;
                }
            }
            // The amount of body^0.4 that mixing adds up stays where the body stays.
            kept.body_pa = match self.body {
                Body::Stays => own.body_pa * share.max(1e-3).powf(-2.5),
                Body::Alike => own.body_pa,
                Body::Goes => 0.0,
            };
            Leaf { ingredient: Arc::new(kept), share: leaf.share * share, cook_c: leaf.cook_c }
        };
        let left: Vec<Leaf> = ingredient.inside().unwrap_or(&whole).iter().map(bare).collect();
        Arc::new(Ingredient {
            left: Some(Arc::new(left)),
            steam: ingredient.steam * self.kept[Part::Water as usize],
            ..ingredient.as_ref().clone()
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::catalogue::find;

    fn parted(key: &str, strained: Strained) -> (Parting, Composition) {
        let own = find(key).unwrap();
        (strained.parting(&own.composition, 1000.0, "x").unwrap(), own.composition)
    }

    fn drained(keeps: Side, of_weight: f64) -> Strained {
        Strained { how: Straining::Drained, keeps, left: Kept::Share { of_weight } }
    }

    #[test]
    fn as_much_is_kept_as_is_asked_for_and_the_other_side_is_the_rest() {
        for (key, of_weight) in [("yoghurt", 0.5), ("quark", 0.8), ("raspberry", 0.7)] {
            for how in [Straining::Sieved, Straining::Drained] {
                let strained = Strained { how, ..drained(Side::Stays, of_weight) };
                let (parting, m) = parted(key, strained);
                assert!((parting.of(&m) - of_weight).abs() < 1e-9, "{key}");
                assert!((parting.other().of(&m) - (1.0 - of_weight)).abs() < 1e-9, "{key}");
                let through = Strained {
                    keeps: Side::Through,
                    left: Kept::Weight { left_g: 1000.0 * (1.0 - of_weight) },
                    ..strained
                };
                let (same, _) = parted(key, through);
                assert!(same.kept.iter().zip(parting.other().kept).all(|(a, b)| (a - b).abs() < 1e-9));
            }
        }
    }

    /// Acid whey, fluid, of USDA FoodData Central (from memory): 93.4 % water, 5.1 % carbohydrate, 0.8 % protein, 0.1 % fat.
    #[test]
    fn what_runs_off_yoghurt_is_whey() {
        let (parting, m) = parted("yoghurt", drained(Side::Through, 0.5));
        let share = |part: Part| 100.0 * parting.kept[part as usize] * m.get(part) / 0.5;
        for (part, whey, within) in [
            (Part::Water, 93.4, 1.5),
            (Part::Lactose, 5.1, 1.6),
            (Part::MilkProtein, 0.8, 0.2),
            (Part::MilkFat, 0.1, 0.1),
        ] {
            assert!((share(part) - whey).abs() < within, "{part:?} {}", share(part));
        }
    }

    #[test]
    fn more_liquid_than_there_is_does_not_run_off() {
        for (key, of_weight) in [("dark60", 0.9), ("yoghurt", 0.05), ("butter82", 0.5)] {
            let m = find(key).unwrap().composition;
            let fault = drained(Side::Stays, of_weight).parting(&m, 500.0, "process.strained").unwrap_err();
            assert_eq!(fault.field, "process.strained.left.of_weight");
            assert!(fault.message.contains("can run off"), "{}", fault.message);
        }
        let more = Strained { left: Kept::Weight { left_g: 600.0 }, ..drained(Side::Stays, 1.0) };
        assert!(
            more.parting(&find("yoghurt").unwrap().composition, 500.0, "x")
                .unwrap_err()
                .message
                .contains("500 g")
        );
    }
}
