//! The formula as a cook writes it, and its lines weighed.

use crate::formula::family::Family;
use crate::ingredient::catalogue::{self, Ingredient};
use crate::ingredient::measure::{MeasureError, OwnWeights, weigh};
use crate::units::amount;
use crate::units::kitchen::Measures;
use crate::units::{Density, Mass};
use serde::{Deserialize, Serialize};
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
}

/// A line in grams.
#[derive(Debug, Clone, PartialEq)]
pub struct WeighedLine {
    /// The ingredient.
    pub ingredient: &'static Ingredient,
    /// How much.
    pub mass: Mass,
    /// What the grams rest on, in words; none when grams were written.
    pub assumed: Option<String>,
}

/// One thing wrong with what was asked, where it is, and what to do.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fault {
    /// Path of the field: `lines.2.amount`.
    pub field: String,
    /// Stable code.
    pub code: String,
    /// What is wrong and what to do, in words.
    pub message: String,
}

impl Fault {
    /// A fault at a field.
    pub fn new(field: impl Into<String>, code: &str, message: impl Into<String>) -> Self {
        Fault { field: field.into(), code: code.to_owned(), message: message.into() }
    }
}

impl Formula {
    /// All lines in grams.
    ///
    /// # Errors
    /// Every fault of every line at once, so that a cook sees them all: unknown ingredients,
    /// amounts that cannot be read or weighed, no lines, a total of nothing.
    pub fn weigh(&self) -> Result<Vec<WeighedLine>, Vec<Fault>> {
        if self.lines.is_empty() {
            return Err(vec![Fault::new(
                "lines",
                "no_lines",
                "nothing is in the bowl yet: add an ingredient",
            )]);
        }
        if self.lines.len() > MOST_LINES {
            let message = format!(
                "{} lines are too many for one formula: write at most {MOST_LINES}",
                self.lines.len()
            );
            return Err(vec![Fault::new("lines", "too_many_lines", message)]);
        }
        let mut faults = Vec::new();
        let mut weighed = Vec::with_capacity(self.lines.len());
        for (at, line) in self.lines.iter().enumerate() {
            let Some(ingredient) = catalogue::find(&line.ingredient) else {
                let shown: String = line.ingredient.chars().take(40).collect();
                let message = format!("“{shown}” is not in the pantry: pick an ingredient from the list");
                faults.push(Fault::new(format!("lines.{at}.ingredient"), "unknown_ingredient", message));
                continue;
            };
            let own = OwnWeights { density: line.density_g_per_ml, piece: line.piece_g };
            match amount::parse(&line.amount)
                .map_err(MeasureError::from)
                .and_then(|amount| weigh(amount, ingredient, self.measures, own))
            {
                Ok(done) => weighed.push(WeighedLine { ingredient, mass: done.mass, assumed: done.assumed }),
                Err(error) => {
                    faults.push(Fault::new(format!("lines.{at}.amount"), code(&error), error.to_string()));
                }
            }
        }
        if !faults.is_empty() {
            return Err(faults);
        }
        if weighed.iter().map(|line| line.mass.grams()).sum::<f64>() <= 0.0 {
            let message = "all amounts are 0: write how much of at least one ingredient";
            return Err(vec![Fault::new("lines.0.amount", "nothing_weighed", message)]);
        }
        Ok(weighed)
    }
}

fn code(error: &MeasureError) -> &'static str {
    match error {
        MeasureError::Amount(_) => "bad_amount",
        MeasureError::NoDensity { .. } => "no_density",
        MeasureError::NoPiece { .. } => "no_piece_weight",
        MeasureError::TooLarge { .. } => "too_large",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(ingredient: &str, amount: &str) -> Line {
        Line { ingredient: ingredient.into(), amount: amount.into(), density_g_per_ml: None, piece_g: None }
    }

    fn formula(lines: Vec<Line>) -> Formula {
        Formula { family: Family::Ganache, lines, measures: Measures::Us }
    }

    #[test]
    fn every_bad_line_is_named_at_once() {
        let faults = formula(vec![
            line("dark60", "200 g"),
            line("unobtainium", "10 g"),
            line("cream36", "-3 g"),
            line("cream48", "1 cup"),
        ])
        .weigh()
        .unwrap_err();
        let fields: Vec<_> = faults.iter().map(|fault| (fault.field.as_str(), fault.code.as_str())).collect();
        assert_eq!(
            fields,
            [
                ("lines.1.ingredient", "unknown_ingredient"),
                ("lines.2.amount", "bad_amount"),
                ("lines.3.amount", "no_density"),
            ]
        );
    }

    #[test]
    fn an_empty_bowl_is_an_error_but_a_zero_line_is_not() {
        assert_eq!(formula(vec![]).weigh().unwrap_err()[0].code, "no_lines");
        assert_eq!(formula(vec![line("dark60", "0")]).weigh().unwrap_err()[0].code, "nothing_weighed");
        assert!(formula(vec![line("dark60", "100 g"), line("cream36", "0 g")]).weigh().is_ok());
    }
}
