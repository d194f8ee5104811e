//! Whether an answer is right, and why it is so: the term that decided.

use crate::assess::Assessment;
use crate::assess::spoon_sign::SpoonSign;
use crate::number::{degrees, two_digits};
use crate::trainer::question::{Asked, SpoonSeen, TrainerKind};
use serde::Serialize;
use utoipa::ToSchema;

/// What an answer was worth.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrainerAnswer {
    /// Whether it was right.
    pub good: bool,
    /// Which choice is right.
    pub right: usize,
    /// What is right, in words.
    pub right_words: String,
    /// What was said, in words.
    pub said_words: String,
    /// The verdict, in a sentence.
    pub sentence: String,
    /// Why, in sentences: the term that decided first.
    pub why: Vec<String>,
    /// What the spoon shows.
    pub spoon: SpoonSeen,
    /// The formula's name.
    pub name: String,
}

/// Judges an answer; none where it names no choice.
pub fn answer(asked: &Asked, said: usize) -> Option<TrainerAnswer> {
    let Asked { question, right, is } = asked;
    let words = |at: usize| Some(question.choices.get(at)?.words.clone());
    let (right_words, said_words) = (words(*right)?, words(said)?);
    let good = said == *right;
    let so = match question.kind {
        TrainerKind::Spoon => format!("a spoonful is a {}", noun(is.at.spoon)),
        TrainerKind::Drip => format!("the drip runs {} mm", two_digits(is.at.measured.value)),
        TrainerKind::Holds => format!("it goes on up to {right_words}"),
        TrainerKind::WhatIsIn => format!("that is {right_words}, {}", is.name),
    };
    let sentence = if good { format!("Right: {so}.") } else { format!("Not quite: {so}.") };
    Some(TrainerAnswer {
        good,
        right: *right,
        right_words,
        said_words,
        sentence,
        why: why(is),
        spoon: SpoonSeen::of(is),
        name: is.name.clone(),
    })
}

fn noun(own: SpoonSign) -> &'static str {
    match own {
        SpoonSign::HoldsUpsideDown => "lump that holds upside down",
        other => other.word(),
    }
}

/// Why it is so: the limit it stands beyond, and where that comes from.
fn why(is: &Assessment) -> Vec<String> {
    let (pa, flow) = (is.at.yield_stress_pa.value, is.at.viscosity_pa_s.value);
    let at = degrees(is.at.temperature_c);
    let place = SpoonSign::ALL.iter().position(|own| *own == is.at.spoon).unwrap_or(0);
    let from = is.at.spoon.begins();
    let next = SpoonSign::ALL.get(place + 1).and_then(|own| own.begins());
    let stands = match (from, next) {
        (Some((limit, true)), _) => {
            format!(
                "About {} Pa at {at} °C; a {} begins at {} Pa.",
                two_digits(pa),
                noun(is.at.spoon),
                two_digits(limit)
            )
        }
        (Some((limit, false)), _) => format!(
            "Its own weight moves it ({} Pa), so its flow decides: about {} Pa·s at {at} °C; a {} begins at {} Pa·s.",
            two_digits(pa),
            two_digits(flow),
            noun(is.at.spoon),
            two_digits(limit)
        ),
        (None, Some((limit, _))) => format!(
            "About {} Pa·s at {at} °C; from {} Pa·s on it would be a {}.",
            two_digits(flow),
            two_digits(limit),
            SpoonSign::ALL.get(place + 1).map_or("", |own| own.word())
        ),
        (None, None) => String::new(),
    };
    let mut all = vec![stands];
    match is.why.terms.first() {
        Some(term) if pa >= 1.0 => all.push(format!(
            "Most of that is {}, {:.0} % of it: {}",
            term.name, term.of_yield_percent, term.sentence
        )),
        _ => all.push(is.why.structure.clone()),
    }
    all.retain(|own| !own.is_empty());
    all
}
