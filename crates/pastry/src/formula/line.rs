//! The formula as a cook writes it, and its lines weighed.

use crate::fault::{Fault, FaultCode};
use crate::formula::boiled::BoilTo;
use crate::formula::family::Family;
use crate::formula::rules::LineRule;
use crate::formula::strained::{Steeped, Strained};
use crate::ingredient::item::Ingredient;
use crate::ingredient::item::STEAM;
use crate::ingredient::measure::{MeasureError, OwnWeights, Weighed, weigh};
use crate::ingredient::shelf::Shelf;
use crate::units::amount;
use crate::units::kitchen::{Measures, Unit};
use crate::units::{CookTemperature, Density, Mass};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use std::sync::Arc;
use utoipa::ToSchema;

/// Most lines taken in one formula.
pub const MOST_LINES: usize = 60;

/// One line: an ingredient and how much of it, as written.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Line {
    /// Key of the ingredient, as in the pantry.
    #[schema(example = "dark60", max_length = 60)]
    pub ingredient: String,
    /// Amount as the cook writes it: "200 g", "1 1/2 cups", "1,5 dl".
    #[schema(example = "1 1/2 cups", max_length = 60)]
    pub amount: String,
    /// The kitchen's own density of it, g/ml, where it has weighed a cup.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_g_per_ml: Option<Density>,
    /// The kitchen's own weight of one piece, g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub piece_g: Option<Mass>,
    /// Highest temperature this line reached, °C, where it differs from the whole.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cook_c: Option<CookTemperature>,
    /// Of something made here: it had set before it went in. What is broken so holds nothing until it is warmed and runs
    /// again.
    #[serde(default, skip_serializing_if = "is_false")]
    pub had_set: bool,
    /// What is strained off it before it goes in, and before it is boiled.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub strained: Option<Strained>,
    /// That it is only steeped in the rest and taken out again: coffee beans, tea, pods.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steeped: Option<Steeped>,
    /// How far it is boiled down before it goes in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub boiled: Option<BoilTo>,
    /// That it is added by taste: shares and per cent are of the rest, and nothing moves it when ways are looked for.
    #[serde(default, skip_serializing_if = "is_false")]
    pub by_taste: bool,
    /// What it may do when ways are looked for.
    #[serde(default, skip_serializing_if = "LineRule::is_free")]
    pub rule: LineRule,
}

fn is_false(value: &bool) -> bool {
    !*value
}

impl Line {
    /// Whether nothing moves it when ways are looked for.
    pub fn is_held(&self) -> bool {
        self.rule.locked || self.by_taste
    }

    /// A line of an ingredient with nothing special about it.
    pub fn new(ingredient: impl Into<String>, amount: impl Into<String>) -> Self {
        Line {
            ingredient: ingredient.into(),
            amount: amount.into(),
            density_g_per_ml: None,
            piece_g: None,
            cook_c: None,
            had_set: false,
            strained: None,
            steeped: None,
            boiled: None,
            by_taste: false,
            rule: LineRule::default(),
        }
    }
}

/// What goes into the bowl.
#[derive(Debug, Clone, PartialEq)]
pub struct Formula {
    /// Family it belongs to.
    pub family: Family,
    /// Lines in the order of the cook.
    pub lines: Vec<Line>,
    /// Whose cups and spoons.
    pub measures: Measures,
    /// The ingredient that per cent are of; of the whole when none.
    pub percent_of: Option<String>,
}

/// A line in grams.
#[derive(Debug, Clone, PartialEq)]
pub struct WeighedLine {
    /// The ingredient.
    pub ingredient: Arc<Ingredient>,
    /// How much.
    pub mass: Mass,
    /// What the grams rest on, in words; none when grams were written.
    pub assumed: Option<String>,
    /// Highest temperature it reached, °C, where it differs from the whole.
    pub cook_c: Option<f64>,
    /// Whether it is part of something made before: then the heat of the whole comes on top of its own.
    pub within: bool,
}

impl WeighedLine {
    /// Highest temperature it reached in something of which the whole reached `whole`, °C: its own where it was given one;
    /// what was made before keeps what it has been through.
    pub fn reached(&self, whole: Option<f64>) -> Option<f64> {
        if self.within { warmest(self.cook_c, whole) } else { self.cook_c.or(whole) }
    }
}

/// The ingredient of a line: of what had set before, what became of it.
fn as_it_goes_in(ingredient: &Arc<Ingredient>, line: &Line) -> Arc<Ingredient> {
    match ingredient.made.as_ref().filter(|_| line.had_set) {
        None => Arc::clone(ingredient),
        Some(made) => {
            let made = made.set_before(line.cook_c.map(CookTemperature::celsius));
            Arc::new(Ingredient { made: Some(Arc::new(made)), ..ingredient.as_ref().clone() })
        }
    }
}

/// Lines down to what is bought: a line of something made here is all that it comes down to.
pub fn flat(lines: &[WeighedLine]) -> Cow<'_, [WeighedLine]> {
    if lines.iter().all(|line| line.ingredient.inside().is_none() && line.ingredient.steam <= 0.0) {
        return Cow::Borrowed(lines);
    }
    let mut flat = Vec::with_capacity(lines.len() + 8);
    for line in lines {
        match line.ingredient.inside() {
            None => flat.push(line.clone()),
            Some(inside) => flat.extend(inside.iter().map(|leaf| WeighedLine {
                ingredient: Arc::clone(&leaf.ingredient),
                mass: Mass::from_grams(leaf.share * line.mass.grams()),
                assumed: None,
                cook_c: warmest(leaf.cook_c, line.cook_c),
                within: line.ingredient.made.is_some(),
            })),
        }
        if line.ingredient.steam > 0.0 {
            flat.push(WeighedLine {
                ingredient: Arc::clone(&STEAM),
                mass: Mass::from_grams(-line.ingredient.steam * line.mass.grams()),
                assumed: None,
                cook_c: line.cook_c,
                within: false,
            });
        }
    }
    Cow::Owned(flat)
}

/// The warmer of two heats, where any is known.
pub fn warmest(one: Option<f64>, other: Option<f64>) -> Option<f64> {
    match (one, other) {
        (Some(one), Some(other)) => Some(one.max(other)),
        (one, other) => one.or(other),
    }
}

/// A line on its way to grams.
enum Read {
    Grams(Weighed),
    /// Per cent of the base.
    Share(f64),
}

impl Formula {
    /// All lines in grams, from the ingredients of `shelf`.
    ///
    /// Per cent are of the grams of [`Formula::percent_of`], or of the whole batch: then the other
    /// lines are what the per cent leave, T = Σ grams / (1 − Σ p/100).
    ///
    /// # Errors
    /// Every fault of every line at once, so that a cook sees them all: unknown ingredients,
    /// amounts that cannot be read or weighed, no lines, a total of nothing.
    pub fn weigh(&self, shelf: &Shelf) -> Result<Vec<WeighedLine>, Vec<Fault>> {
        if self.lines.is_empty() {
            return Err(vec![Fault::new(
                "lines",
                FaultCode::NoLines,
                "nothing is in the bowl yet: add an ingredient",
            )]);
        }
        if self.lines.len() > MOST_LINES {
            let message = format!(
                "{} lines are too many for one formula: write at most {MOST_LINES}",
                self.lines.len()
            );
            return Err(vec![Fault::new("lines", FaultCode::TooManyLines, message)]);
        }
        let mut faults = Vec::new();
        let mut read = Vec::with_capacity(self.lines.len());
        for (at, line) in self.lines.iter().enumerate() {
            let Some(ingredient) = shelf.find(&line.ingredient) else {
                let why = shelf.why_not(&line.ingredient);
                faults.push(Fault::new(format!("lines.{at}.ingredient"), why.code, why.words));
                continue;
            };
            let own = OwnWeights { density: line.density_g_per_ml, piece: line.piece_g };
            let amount = amount::parse(&line.amount).map_err(MeasureError::from);
            match amount.and_then(|amount| match amount.unit {
                Some(Unit::Percent) => Ok(Read::Share(amount.number.value())),
                _ => weigh(amount, ingredient, self.measures, own).map(Read::Grams),
            }) {
                Ok(done) => read.push((line, ingredient, done)),
                Err(error) => {
                    faults.push(Fault::new(format!("lines.{at}.amount"), code(&error), error.to_string()));
                }
            }
        }
        if !faults.is_empty() {
            return Err(faults);
        }
        let (base, base_word) = self.percent_base(&read)?;
        let weighed: Vec<WeighedLine> = read
            .into_iter()
            .map(|(line, ingredient, read)| {
                let (mass, assumed) = match read {
                    Read::Grams(Weighed { mass, assumed }) => (mass, assumed),
                    Read::Share(percent) => {
                        let grams = percent / 100.0 * base;
                        (Mass::from_grams(grams), Some(format!("{percent} % of {base_word}")))
                    }
                };
                let cook_c = line.cook_c.map(CookTemperature::celsius);
                WeighedLine {
                    ingredient: as_it_goes_in(ingredient, line),
                    mass,
                    assumed,
                    cook_c,
                    within: false,
                }
            })
            .collect();
        if weighed.iter().map(|line| line.mass.grams()).sum::<f64>() <= 0.0 {
            let message = "all amounts are 0: write how much of at least one ingredient";
            return Err(vec![Fault::new("lines.0.amount", FaultCode::NothingWeighed, message)]);
        }
        Ok(weighed)
    }

    /// The grams that 100 % stand for, and their name.
    fn percent_base(&self, read: &[(&Line, &Arc<Ingredient>, Read)]) -> Result<(f64, String), Vec<Fault>> {
        let shares: Vec<(usize, f64)> = read
            .iter()
            .enumerate()
            .filter_map(|(at, (_, _, read))| match read {
                Read::Share(percent) => Some((at, *percent)),
                Read::Grams(_) => None,
            })
            .collect();
        // What is added by taste stands beside the rest: nothing is a share of it.
        let grams = |of: Option<&str>| -> f64 {
            read.iter()
                .filter(|(line, _, _)| of.map_or(!line.by_taste, |key| line.ingredient == key))
                .filter_map(|(_, _, read)| match read {
                    Read::Grams(weighed) => Some(weighed.mass.grams()),
                    Read::Share(_) => None,
                })
                .sum()
        };
        let Some((first, _)) = shares.first() else { return Ok((0.0, String::new())) };
        let field = format!("lines.{first}.amount");
        match &self.percent_of {
            Some(key) => {
                let Some((_, ingredient, _)) = read.iter().find(|(line, _, _)| line.ingredient == *key)
                else {
                    let message = "per cent are of an ingredient that is not in the formula: pick another, or the whole";
                    return Err(vec![Fault::new("percent_of", FaultCode::NoPercentBase, message)]);
                };
                let base = grams(Some(key));
                if base <= 0.0 {
                    let message = format!("per cent are of {}: write its grams first", ingredient.name);
                    return Err(vec![Fault::new(field, FaultCode::NoPercentBase, message)]);
                }
                Ok((base, format!("the {}", ingredient.name)))
            }
            None => {
                let of_whole = shares.iter().filter(|(at, _)| !read[*at].0.by_taste);
                let (fixed, sum) = (grams(None), of_whole.map(|(_, p)| p).sum::<f64>());
                if sum >= 99.95 || fixed <= 0.0 {
                    let message = format!(
                        "the per cent add up to {sum:.0} % of the whole and nothing is weighed: write grams for at least one line"
                    );
                    return Err(vec![Fault::new(field, FaultCode::NoPercentBase, message)]);
                }
                Ok((fixed / (1.0 - sum / 100.0), "the whole".to_owned()))
            }
        }
    }
}

fn code(error: &MeasureError) -> FaultCode {
    match error {
        MeasureError::Amount(_) => FaultCode::BadAmount,
        MeasureError::NoDensity { .. } => FaultCode::NoDensity,
        MeasureError::NoPiece { .. } => FaultCode::NoPieceWeight,
        MeasureError::TooLarge { .. } => FaultCode::TooLarge,
        MeasureError::ShareAlone => FaultCode::NoPercentBase,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(ingredient: &str, amount: &str) -> Line {
        Line::new(ingredient, amount)
    }

    fn formula(lines: Vec<Line>) -> Formula {
        Formula { family: Family::Ganache, lines, measures: Measures::Us, percent_of: None }
    }

    #[test]
    fn every_bad_line_is_named_at_once() {
        let faults = formula(vec![
            line("dark60", "200 g"),
            line("unobtainium", "10 g"),
            line("cream36", "-3 g"),
            line("cream48", "2 eggs"),
        ])
        .weigh(&Shelf::catalogue())
        .unwrap_err();
        let fields: Vec<_> = faults.iter().map(|fault| (fault.field.as_str(), fault.code.word())).collect();
        assert_eq!(
            fields,
            [
                ("lines.1.ingredient", "unknown_ingredient"),
                ("lines.2.amount", "bad_amount"),
                ("lines.3.amount", "no_piece_weight"),
            ]
        );
    }

    #[test]
    fn an_empty_bowl_is_an_error_but_a_zero_line_is_not() {
        assert_eq!(formula(vec![]).weigh(&Shelf::catalogue()).unwrap_err()[0].code, FaultCode::NoLines);
        assert_eq!(
            formula(vec![line("dark60", "0")]).weigh(&Shelf::catalogue()).unwrap_err()[0].code,
            FaultCode::NothingWeighed
        );
        assert!(
            formula(vec![line("dark60", "100 g"), line("cream36", "0 g")]).weigh(&Shelf::catalogue()).is_ok()
        );
    }

    #[test]
    fn per_cent_are_of_the_whole_or_of_what_the_baker_says() {
        let mut cream = formula(vec![line("cream36", "470 g"), line("sugar", "6 %")]);
        let grams = |formula: &Formula| -> Vec<f64> {
            let weighed = formula.weigh(&Shelf::catalogue()).unwrap();
            weighed.iter().map(|line| line.mass.grams()).collect()
        };
        let weighed = grams(&cream);
        assert!((weighed[1] - 30.0).abs() < 1e-9, "6 % of 500 g: {weighed:?}");
        cream.percent_of = Some("cream36".into());
        assert!((grams(&cream)[1] - 28.2).abs() < 1e-9);
        cream.lines[0].amount = "50 %".into();
        assert_eq!(cream.weigh(&Shelf::catalogue()).unwrap_err()[0].code, FaultCode::NoPercentBase);
        cream.percent_of = None;
        cream.lines[1].amount = "60 %".into();
        assert!(cream.weigh(&Shelf::catalogue()).unwrap_err()[0].message.contains("110 %"));
    }
}
