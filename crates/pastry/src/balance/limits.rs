//! What the person asks for, as limits the search understands; and rules that cannot be meant.

use crate::assess::document::FormulaDocument;
use crate::balance::problem::Limit;
use crate::fault::{Fault, FaultCode};
use crate::formula::WeighedLine;
use crate::formula::rules::Rules;
use crate::ingredient::Ingredient;

/// Whether an ingredient is, or stands on the shelf, a share rule names.
pub fn belongs(ingredient: &Ingredient, of: &str) -> bool {
    ingredient.id == of || ingredient.group.word() == of
}

/// Whether some lines hold what a share rule names, inside something made here too.
pub fn is_in(of: &str, lines: &[WeighedLine]) -> bool {
    let inside = |own: &Ingredient| own.leaves(1.0).any(|(leaf, _)| belongs(leaf, of));
    lines.iter().any(|line| line.ingredient.id == of || inside(&line.ingredient))
}

/// What a share rule names, as a person would: an ingredient by its name, a shelf as it is.
fn spoken<'a>(of: &'a str, lines: &'a [WeighedLine]) -> &'a str {
    lines.iter().find(|line| line.ingredient.id == of).map_or(of, |line| line.ingredient.name.as_str())
}

/// Shares as linear limits over grams.
pub fn limits(rules: &Rules, lines: &[WeighedLine]) -> Vec<Limit> {
    let mut limits = Vec::new();
    for share in &rules.shares {
        let mut push = |least: bool, percent: f64, name: String| {
            let mut limit = Limit { coefficients: Vec::new(), of: share.of.clone(), least, percent, name };
            limit.coefficients = lines.iter().map(|line| limit.coefficient_of(&line.ingredient)).collect();
            limits.push(limit);
        };
        if let Some(least) = share.least_percent {
            push(true, least, format!("at least {least} % {}", spoken(&share.of, lines)));
        }
        if let Some(most) = share.most_percent {
            push(false, most, format!("at most {most} % {}", spoken(&share.of, lines)));
        }
    }
    limits
}

impl Limit {
    /// What one gram of an ingredient adds to the left side of Σ c x ≤ 0.
    pub fn coefficient_of(&self, ingredient: &Ingredient) -> f64 {
        // Of what is made here, as much as is inside it.
        let inside: f64 = if ingredient.id == self.of {
            1.0
        } else {
            ingredient.leaves(1.0).filter(|(own, _)| belongs(own, &self.of)).map(|(_, grams)| grams).sum()
        };
        let short = 0.01 * self.percent - inside;
        if self.least { short } else { -short }
    }
}

/// Ratios as pairs of lines.
pub fn pairs(rules: &Rules, lines: &[WeighedLine]) -> Vec<(usize, usize)> {
    let place =
        |key: &str| lines.iter().position(|line| line.ingredient.id == key && line.mass.grams() > 0.0);
    rules.ratios.iter().filter_map(|[a, b]| Some((place(a)?, place(b)?))).collect()
}

/// Rules that contradict themselves or name what is not there.
pub fn rule_faults(document: &FormulaDocument, lines: &[WeighedLine]) -> Vec<Fault> {
    let mut faults = Vec::new();
    for (at, line) in document.lines.iter().enumerate() {
        for (field, value) in [("least_g", line.rule.least_g), ("most_g", line.rule.most_g)] {
            if value.is_some_and(|g| !(0.0..=1e6).contains(&g)) {
                let message = "a limit is 0 to 1,000,000 g".to_owned();
                faults.push(Fault::new(format!("lines.{at}.rule.{field}"), FaultCode::OutOfRange, message));
            }
        }
        if line.rule.pack_g.is_some_and(|g| !(g > 0.0 && g <= 1e6)) {
            let message = "a pack weighs more than 0 and at most 1,000,000 g".to_owned();
            faults.push(Fault::new(format!("lines.{at}.rule.pack_g"), FaultCode::OutOfRange, message));
        }
        if let (Some(least), Some(most)) = (line.rule.least_g, line.rule.most_g)
            && least > most
        {
            let name = &lines[at].ingredient.name;
            let message = format!("{name}: at least {least} g is above at most {most} g; swap or widen them");
            faults.push(Fault::new(format!("lines.{at}.rule.least_g"), FaultCode::LimitsCrossed, message));
        }
    }
    for (at, share) in document.rules.shares.iter().enumerate() {
        for percent in [share.least_percent, share.most_percent].into_iter().flatten() {
            if !(0.0..=100.0).contains(&percent) {
                let message = "a share is 0 to 100 %".to_owned();
                faults.push(Fault::new(format!("rules.shares.{at}"), FaultCode::OutOfRange, message));
            }
        }
        if let (Some(least), Some(most)) = (share.least_percent, share.most_percent)
            && least > most
        {
            let message = format!(
                "{}: at least {least} % and at most {most} % cannot both hold",
                spoken(&share.of, lines)
            );
            faults.push(Fault::new(format!("rules.shares.{at}"), FaultCode::LimitsCrossed, message));
        }
        if !is_in(&share.of, lines) {
            let message = format!("there is no {} in the formula: take the limit out", share.of);
            faults.push(Fault::new(format!("rules.shares.{at}.of"), FaultCode::NothingOfIt, message));
        }
    }
    for (at, pair) in document.rules.ratios.iter().enumerate() {
        if pair.iter().any(|key| !lines.iter().any(|line| line.ingredient.id == *key)) {
            let message = "a ratio is between two ingredients of the formula: pick them again".to_owned();
            faults.push(Fault::new(format!("rules.ratios.{at}"), FaultCode::NothingOfIt, message));
        }
    }
    faults
}
