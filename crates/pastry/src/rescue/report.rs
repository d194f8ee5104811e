//! What a rescue answers with.

use crate::assess::document::FormulaDocument;
use crate::caution::CautionAnswer;
use crate::rescue::remedy::Deed;
use crate::rescue::sign::Sign;
use serde::Serialize;
use utoipa::ToSchema;

/// What an amount rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Basis {
    /// Solved for this bowl.
    Solved,
    /// The trade's usual first amount.
    Practice,
    /// The most that may go in; it does not get there alone.
    NotByItself,
    /// It would get there and break something else: leave it.
    Breaks,
}

/// Something put in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Addition {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// In all, g.
    pub grams: f64,
    /// The first half, g: then look.
    pub first_g: f64,
    /// Never more than this, g.
    pub most_g: f64,
    /// What the amount rests on.
    pub basis: Basis,
    /// Why it does not do it alone, or should be left; none when it does it.
    pub why_not: Option<String>,
    /// What it brings that must be asked for first: allergens, alcohol, gelatin, raw egg.
    pub asks_first: Vec<String>,
    /// Whether the person said that there is none.
    pub not_at_hand: bool,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepAnswer {
    /// What the hand does.
    pub deed: Deed,
    /// In words.
    pub words: String,
    /// Temperature of the step as the trade has it, °C, from and to.
    pub temperature_c: Option<[f64; 2]>,
    /// Temperature solved for this bowl, °C.
    pub aim_c: Option<f64>,
    /// How long, min.
    pub minutes: Option<f64>,
    /// What goes in.
    pub addition: Option<Addition>,
    /// The verdict after it, in one sentence; none where the numbers do not speak.
    pub then: Option<String>,
    /// What else is different after it: weight, firmness, sweetness, fat, keeping, allergens, new warnings.
    pub besides: Vec<String>,
    /// The formula after it.
    pub document: Option<FormulaDocument>,
}

/// A question that tells it from a look-alike.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TellAnswer {
    /// To be answered with yes for this remedy.
    pub ask: String,
    /// Key of the remedy when the answer is no.
    pub no: String,
    /// What that one looks like.
    pub no_seen: String,
}

/// One remedy, worked out for the bowl.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RemedyAnswer {
    /// Key.
    pub id: String,
    /// What the cook sees.
    pub seen: String,
    /// Why it happened.
    pub cause: String,
    /// What the numbers of this bowl say for it; empty when they are silent.
    pub fired: Vec<String>,
    /// What tells it from its look-alike.
    pub tell: Option<TellAnswer>,
    /// What to do, the smallest first.
    pub steps: Vec<StepAnswer>,
    /// The sign that it worked.
    pub worked: String,
    /// When to stop.
    pub stop: String,
    /// What else it can become.
    pub becomes: Vec<String>,
    /// Next time.
    pub prevent: String,
    /// What can hurt.
    pub cautions: Vec<CautionAnswer>,
    /// Where it is from.
    pub source: String,
    /// Only reached by a question of another remedy.
    pub look_alike: bool,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Rescue {
    /// What is seen.
    pub sign: Sign,
    /// In words.
    pub sign_words: String,
    /// In the bowl, g.
    pub bowl_g: f64,
    /// What the numbers say of it, in one sentence.
    pub numbers_say: String,
    /// Remedies, the likeliest first, then their look-alikes.
    pub remedies: Vec<RemedyAnswer>,
    /// What holds for every one of them.
    pub cautions: Vec<CautionAnswer>,
}
