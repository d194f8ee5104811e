//! What a kitchen's own tests do to an answer, in words and as a factor: the book's value is the shown one over it.

use crate::assess::ready::{Ready, bearing};
use crate::belief::{Offset, OffsetKind, Posterior, Quantity};
use crate::formula::Family;
use crate::ingredient::Shelf;
use crate::job::duty::MapAxis;
use crate::learn::report::{from_tests, times_the_book};
use crate::number::digits;
use crate::rheology::consistency::History;
use serde::Serialize;
use utoipa::ToSchema;

/// What a kitchen's own tests do to an answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = AnswerLearned)]
pub struct LearnedHere {
    /// Yield stress, times the book's.
    pub yield_times: f64,
    /// Viscosity, times the book's.
    pub viscosity_times: f64,
    /// By how much the band on the map's axis is narrower than the book's, per cent of its width in ln.
    pub narrower_percent: f64,
    /// What it comes from, the most first.
    pub parts: Vec<LearnedPart>,
    /// In a sentence.
    pub sentence: String,
}

/// One offset of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedPart {
    /// Of what, by name.
    pub name: String,
    /// That by itself, times the book.
    pub times: f64,
    /// What of that bears on this formula: times the book.
    pub here: f64,
    /// How many tests that count bear on it.
    pub tests: usize,
    /// In words.
    pub words: String,
}

/// What an offset is called.
pub fn offset_name(of: &Offset, shelf: &Shelf) -> String {
    match of {
        Offset::Kitchen {} => "This kitchen".to_owned(),
        Offset::Family { family } => family_word(family),
        Offset::Ingredient { ingredient } => {
            shelf.find(ingredient).map_or_else(|| ingredient.clone(), |own| own.name.clone())
        }
        Offset::Past { kind, key, until } => {
            let was = match kind {
                OffsetKind::Kitchen => "This kitchen".to_owned(),
                OffsetKind::Family => family_word(key),
                OffsetKind::Ingredient => shelf.find(key).map_or_else(|| key.clone(), |own| own.name.clone()),
            };
            format!("{was}, until {}", until.strftime("%-d %B %Y"))
        }
    }
}

/// A family as a name: with a capital.
fn family_word(key: &str) -> String {
    let own = Family::ALL.iter().find(|own| own.key() == key).map_or(key, |own| own.word());
    let mut letters = own.chars();
    letters.next().map_or_else(String::new, |first| format!("{}{}", first.to_uppercase(), letters.as_str()))
}

/// Of a formula; none where no test bears on it.
///
/// # Arguments
/// * `at`: °C, and how it came there.
pub fn learned_here(ready: &Ready, family: Family, at: (f64, History), axis: MapAxis) -> Option<LearnedHere> {
    let beliefs = ready.shelf.beliefs()?;
    let terms = bearing(&ready.lines, family, &ready.options, at);
    let (quantity, belief, own): (Quantity, &Posterior, _) = match axis {
        MapAxis::YieldStressPa => (Quantity::Yield, &beliefs.of_yield, &terms[0]),
        MapAxis::ViscosityPaS => (Quantity::Viscosity, &beliefs.of_viscosity, &terms[1]),
    };
    let mut parts: Vec<(f64, LearnedPart)> = own
        .weights
        .iter()
        .filter(|(offset, _)| belief.tests(offset) > 0)
        .filter_map(|(offset, weight)| {
            let (mean, _) = belief.offset(offset)?;
            let (name, tests) = (offset_name(offset, &ready.shelf), belief.tests(offset));
            let words = format!("{name}: {}, {}.", times_the_book(quantity, mean.exp()), from_tests(tests));
            let (times, here) = (digits(mean.exp()), digits((weight * mean).exp()));
            Some(((weight * mean).abs(), LearnedPart { name, times, here, tests, words }))
        })
        .collect();
    parts.sort_by(|a, b| b.0.total_cmp(&a.0).then_with(|| a.1.name.cmp(&b.1.name)));
    let parts: Vec<LearnedPart> = parts.into_iter().map(|own| own.1).collect();
    if parts.is_empty() {
        return None;
    }
    let learned = ready.options.learned;
    let [stiffer, thicker] = learned.ln_over.map(f64::exp);
    let at = usize::from(axis == MapAxis::ViscosityPaS);
    let narrower_percent = 100.0 * (1.0 - learned.narrower[at]);
    let times = [stiffer, thicker][at];
    let band = match narrower_percent.round() {
        less if less >= 1.0 => format!(", band {less:.0} % narrower"),
        _ => String::new(),
    };
    Some(LearnedHere {
        yield_times: digits(stiffer),
        viscosity_times: digits(thicker),
        narrower_percent: digits(narrower_percent),
        sentence: format!("By your own tests {}{band}.", times_the_book(quantity, times)),
        parts,
    })
}
