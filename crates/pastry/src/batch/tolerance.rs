//! How far a line may be off its mark while the batch stays what it is: from the model, and never wider than the trade does it.

use crate::balance::edges::{Asked, Edges};
use crate::formula::{Mixture, WeighedLine};
use crate::ingredient::Ingredient;
use crate::ingredient::composition::Part;
use crate::number::weighed_g;
use crate::units::Mass;
use serde::Serialize;
use utoipa::ToSchema;

/// Widest for what sets, salts or sours by the gram, share of the line (common practice).
pub const TIGHT: f64 = 0.02;
/// Widest for everything else, share of the line (common practice).
pub const LOOSE: f64 = 0.03;
/// How much of the room to each edge of the window must stay.
const ROOM: f64 = 0.75;
/// Split index up to which nothing is said of it.
const SPLIT: f64 = 0.15;
/// Halvings of the search: to a thousandth of the widest.
const HALVINGS: u32 = 10;

/// Half of the finest step of a bench scale, g, and a hair of rounding.
const READABLE_G: f64 = 0.050_001;
/// Its finest step, g.
const FINEST_G: f64 = 0.1;

/// Constituents of which a little does much.
const STRONG: [Part; 6] = [Part::Gelatin, Part::Agar, Part::Gum, Part::Pectin, Part::Salt, Part::Acid];

/// What a line may weigh.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
#[schema(as = WeighBand)]
pub struct Band {
    /// At least, g.
    pub from_g: f64,
    /// Its mark, g.
    pub mark_g: f64,
    /// At most, g.
    pub to_g: f64,
}

impl Band {
    /// Whether so much is in it.
    ///
    /// What no bench scale can tell from it is in it: half of its finest step.
    pub fn holds(&self, grams: f64) -> bool {
        (self.from_g - READABLE_G..=self.to_g + READABLE_G).contains(&grams)
    }

    /// In words: "anything from 87 to 96 g is fine".
    pub fn words(&self) -> String {
        if self.to_g - self.from_g < 0.1 {
            return format!("{} g, as near as the scale shows it", weighed_g(self.mark_g));
        }
        let (from, to) = self.shown();
        format!("anything from {from} to {to} g is fine")
    }

    /// Its ends as they are read, inside what they are: whole grams where it is wide enough for that.
    pub fn shown(&self) -> (f64, f64) {
        let step =
            [1.0, 0.1, 0.01].into_iter().find(|step| self.to_g - self.from_g >= 4.0 * step).unwrap_or(0.01);
        let (from, to) =
            ((self.from_g / step - 1e-6).ceil() * step, (self.to_g / step + 1e-6).floor() * step);
        (rounded(from), rounded(to))
    }
}

/// Without the dust of the arithmetic.
fn rounded(grams: f64) -> f64 {
    (1e4 * grams).round() / 1e4
}

/// How far the trade is off at most with this, share of the line.
pub fn of_the_trade(ingredient: &Ingredient) -> f64 {
    let strong = ingredient.composition.sum(&STRONG);
    if strong >= 0.5 { TIGHT } else { LOOSE }
}

/// What a line may weigh: up and down from its mark so far that the verdict stays, and three quarters of the room to each edge
/// of its window with it. Where the batch is not inside its window there is no room to keep, and the trade's limit holds.
///
/// # Arguments
/// * `lines`: what is in the bowl, and the line at its mark; `at`: which line.
pub fn band(asked: &Asked, lines: &[WeighedLine], at: usize) -> Band {
    let mark_g = lines[at].mass.grams();
    let most = of_the_trade(&lines[at].ingredient) * mark_g;
    let edges = |grams: f64| {
        let mut own = lines.to_vec();
        own[at].mass = Mass::from_grams(grams);
        asked.edges(&Mixture::of(&own))
    };
    let plan = edges(mark_g);
    let far = |way: f64| reach(most, |off| stays(&plan, &edges(mark_g + way * off)));
    Band { from_g: mark_g - far(-1.0), mark_g, to_g: mark_g + far(1.0) }
}

/// Whether what stands at `then` is still what was planned.
fn stays(plan: &Edges, then: &Edges) -> bool {
    if !plan.inside {
        return true;
    }
    then.inside
        && -then.loose >= ROOM * -plan.loose
        && then.stiff >= ROOM * plan.stiff
        && then.split <= SPLIT.max(plan.split + 0.02)
}

/// How far one can go before it no longer holds; all the way when it always does.
fn reach(most: f64, holds: impl Fn(f64) -> bool) -> f64 {
    if holds(most) {
        return most;
    }
    let (mut yes, mut no) = (0.0, most);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (yes + no);
        if holds(middle) { yes = middle } else { no = middle }
    }
    yes
}

/// The coarsest step of a scale a line can be weighed with, g: it fits into what the line may weigh. The finest of a bench scale
/// always does: finer is nobody's.
pub fn needs_step(band: &Band) -> f64 {
    (band.to_g - band.from_g).max(FINEST_G)
}

/// Lines smaller than this are weighed as a solution where no scale is fine enough, g (assumed).
const MOST_ONE_IN_TEN_G: f64 = 20.0;
/// What is at least this much of it dissolves with it, share (assumed).
const MOSTLY: f64 = 0.5;

/// What is weighed instead of something too small for the scale: ten times as much of a solution that is a tenth of it. Only of
/// salts, acids and gums (common practice); its water is taken from the formula's.
pub fn one_in_ten(band: &Band, ingredient: &Ingredient) -> Option<String> {
    let dissolves = [Part::Salt, Part::Acid, Part::Gum, Part::Pectin];
    let dissolved: f64 = dissolves.iter().map(|part| ingredient.composition.get(*part)).sum();
    let little = band.mark_g > 0.0 && band.mark_g < MOST_ONE_IN_TEN_G;
    (dissolved > MOSTLY && little).then(|| {
        let whole = weighed_g(10.0 * band.mark_g);
        format!("{whole} g of one part in ten of water, and so much less water")
    })
}
