//! The formula with the stand-ins in it, gram for gram or by strength, before the rest is brought back.

use crate::assess::document::FormulaDocument;
use crate::fault::{Fault, FaultCode};
use crate::formula::{Line, WeighedLine};
use crate::ingredient::Role;
use crate::ingredient::{Ingredient, Shelf};
use crate::swap::ask::{Avoid, SwapFor};
use crate::swap::gelatin::{GelatinExchange, School};
use crate::swap::substitutes::{Substitute, stand_ins};
use crate::units::CookTemperature;
use std::sync::Arc;

/// Starch that stands in for egg must boil, °C.
const BOILED_C: f64 = 100.0;

/// One formula to try.
pub(super) struct Exchanged {
    /// In words: "Beef gelatin 200 bloom for Gelatin 200 bloom".
    pub title: String,
    /// With the stand-ins in it.
    pub document: FormulaDocument,
    /// Places of the stand-ins in it.
    pub stand_ins: Vec<usize>,
    /// What to know of them.
    pub notes: Vec<String>,
    /// The exchange of gelatin, where there is one.
    pub gelatin: Option<GelatinExchange>,
}

/// Formulas to try, the first choice first.
///
/// # Errors
/// A line that is not there, an ingredient nobody knows, nothing to avoid, or nothing that stands in.
pub(super) fn exchanged(
    document: &FormulaDocument,
    lines: &[WeighedLine],
    ask: &SwapFor,
    shelf: &Shelf,
) -> Result<Vec<Exchanged>, Vec<Fault>> {
    match ask {
        SwapFor::Replace { line, by } => {
            let Some(from) = lines.get(*line) else {
                let message = format!("there is no line {}: pick one of the formula", line + 1);
                return Err(vec![Fault::new("ask.line", FaultCode::NoSuchLine, message)]);
            };
            let Some(to) = shelf.find(by) else {
                let shown: String = by.chars().take(40).collect();
                let message = format!("“{shown}” is not in the pantry: pick an ingredient from the list");
                return Err(vec![Fault::new("ask.by", FaultCode::UnknownIngredient, message)]);
            };
            if to.id == from.ingredient.id {
                let message = format!("{} is what it is now: pick another", to.name);
                return Err(vec![Fault::new("ask.by", FaultCode::TheSame, message)]);
            }
            Ok(vec![replaced(document, lines, &[(*line, Replacement::one(from, to))])])
        }
        SwapFor::Without { what } => without(document, lines, *what, shelf),
    }
}

/// What takes the place of one line.
struct Replacement {
    parts: Vec<(Arc<Ingredient>, f64)>,
    words: Option<String>,
    gelatin: Option<GelatinExchange>,
}

impl Replacement {
    /// One ingredient by another: gelatin by the root of its strength, agar as the trade has it, gelatin for
    /// agar the other way round, all else gram for gram.
    fn one(from: &WeighedLine, to: &Arc<Ingredient>) -> Self {
        let (own, grams) = (&from.ingredient, from.mass.grams());
        let gelatin = GelatinExchange::of(own, to, grams);
        let wanted = match &gelatin {
            Some(exchange) => exchange.square_root_g,
            None if own.bloom > 0.0 && to.id == "agar" => 0.3 * grams,
            None if own.id == "agar" && to.bloom > 0.0 => grams / 0.3 * (200.0 / to.bloom).sqrt(),
            None if own.starch_strength > 0.0 && own.is(Role::Starch) && to.is(Role::Starch) => {
                grams * own.starch_strength / to.starch_strength.max(0.1)
            }
            None => grams,
        };
        Replacement { parts: vec![(Arc::clone(to), wanted)], words: None, gelatin }
    }

    fn by(from: &WeighedLine, substitute: &Substitute, shelf: &Shelf) -> Option<Self> {
        let mut parts = Vec::new();
        let mut gelatin = None;
        for (key, share) in &substitute.by {
            let to = shelf.find(key)?;
            let grams = from.mass.grams();
            let wanted = match share {
                Some(share) => share * grams,
                None => {
                    gelatin = GelatinExchange::of(&from.ingredient, to, grams);
                    School::SquareRoot.grams(grams, from.ingredient.bloom.max(1.0), to.bloom.max(1.0))
                }
            };
            parts.push((Arc::clone(to), wanted));
        }
        Some(Replacement { parts, words: Some(substitute.words.clone()), gelatin })
    }
}

/// Every line that is avoided by its stand-ins: first choices together, then second ones.
fn without(
    document: &FormulaDocument,
    lines: &[WeighedLine],
    what: Avoid,
    shelf: &Shelf,
) -> Result<Vec<Exchanged>, Vec<Fault>> {
    let hit: Vec<usize> = (0..lines.len())
        .filter(|at| lines[*at].mass.grams() > 0.0 && what.hits(&lines[*at].ingredient))
        .collect();
    if hit.is_empty() {
        let message = format!("it has {} already: there is nothing to swap", what.words());
        return Err(vec![Fault::new("ask.what", FaultCode::NothingToSwap, message)]);
    }
    let mut choices: Vec<Vec<&Substitute>> = Vec::new();
    let mut missing = Vec::new();
    for at in &hit {
        let found = stand_ins(what, &lines[*at].ingredient.id, document.family);
        if found.is_empty() {
            missing.push(lines[*at].ingredient.name.clone());
        }
        choices.push(found);
    }
    if !missing.is_empty() {
        let names = missing.join(", ");
        let message = match what {
            Avoid::Egg if document.family.traits().system.traits().overrun > 0.0 => format!(
                "nothing in the pantry holds a foam as {names} does: begin with a cream made without egg, such as a simple or a ganache buttercream"
            ),
            _ => format!("no stand-in for {names} is known here: swap the line for what you would take"),
        };
        return Err(vec![Fault::new("ask.what", FaultCode::NoStandIn, message)]);
    }
    let most = choices.iter().map(Vec::len).max().unwrap_or(1);
    let mut all = Vec::new();
    for rank in 0..most {
        let mut changes = Vec::new();
        for (at, found) in hit.iter().zip(&choices) {
            let substitute = found[rank.min(found.len() - 1)];
            let Some(replacement) = Replacement::by(&lines[*at], substitute, shelf) else { continue };
            changes.push((*at, replacement));
        }
        all.push(replaced(document, lines, &changes));
    }
    Ok(all)
}

/// The formula with lines replaced; what is in it already grows instead of standing twice.
fn replaced(
    document: &FormulaDocument,
    lines: &[WeighedLine],
    changes: &[(usize, Replacement)],
) -> Exchanged {
    let mut next = document.clone();
    next.lines.clear();
    next.percent_of = None;
    let mut grams: Vec<f64> = Vec::new();
    let (mut places, mut notes, mut titles) = (Vec::new(), Vec::<String>::new(), Vec::new());
    let mut gelatin = None;
    // What stays keeps its place; what comes in stands where it is needed, or joins what is there.
    for (at, line) in document.lines.iter().enumerate() {
        let Some((_, replacement)) = changes.iter().find(|(of, _)| *of == at) else {
            next.lines.push(line.clone());
            grams.push(lines[at].mass.grams());
            continue;
        };
        let names: Vec<&str> = replacement.parts.iter().map(|(to, _)| to.name.as_str()).collect();
        titles.push(format!("{} for {}", names.join(", "), lines[at].ingredient.name));
        if let Some(words) = replacement.words.as_ref().filter(|words| !notes.contains(*words)) {
            notes.push(words.clone());
        }
        gelatin = gelatin.or_else(|| replacement.gelatin.clone());
        for (to, wanted) in &replacement.parts {
            let there = next.lines.iter().position(|own| own.ingredient == to.id);
            match there {
                Some(k) => {
                    grams[k] += wanted;
                    places.push(k);
                }
                None => {
                    // A line further down takes it up when its turn comes.
                    let mut own = Line::new(&to.id, String::new());
                    own.cook_c = line.cook_c;
                    next.lines.push(own);
                    grams.push(*wanted);
                    places.push(next.lines.len() - 1);
                }
            }
        }
    }
    merge(&mut next, &mut grams, &mut places);
    let egg_by_starch = changes.iter().any(|(at, replacement)| {
        lines[*at].ingredient.is(Role::Egg) && replacement.parts.iter().any(|(to, _)| to.is(Role::Starch))
    });
    if egg_by_starch {
        let boiled = CookTemperature::from_celsius(BOILED_C);
        let starch = changes.iter().flat_map(|(_, r)| &r.parts).find(|(to, _)| to.is(Role::Starch));
        for line in
            next.lines.iter_mut().filter(|line| starch.is_some_and(|(to, _)| to.id == line.ingredient))
        {
            line.cook_c = Some(boiled);
        }
    }
    for (line, grams) in next.lines.iter_mut().zip(&grams) {
        line.amount = format!("{} g", (1000.0 * grams).round() / 1000.0);
    }
    places.sort_unstable();
    places.dedup();
    // Rules that speak of what is gone speak no more.
    next.rules.shares.retain(|share| {
        crate::balance::limits::is_in(&share.of, lines) || next.lines.iter().any(|l| l.ingredient == share.of)
    });
    next.rules.ratios.retain(|pair| pair.iter().all(|key| next.lines.iter().any(|l| l.ingredient == *key)));
    Exchanged { title: titles.join("; "), document: next, stand_ins: places, notes, gelatin }
}

/// Two lines of one thing become one, at the place of the first.
fn merge(document: &mut FormulaDocument, grams: &mut Vec<f64>, places: &mut [usize]) {
    let mut at = 0;
    while at < document.lines.len() {
        let first = (0..at).find(|k| {
            let (a, b) = (&document.lines[*k], &document.lines[at]);
            a.ingredient == b.ingredient && places.iter().any(|place| place == k || *place == at)
        });
        if let Some(first) = first {
            grams[first] += grams[at];
            // The line of the cook keeps its rules.
            if places.contains(&first) && !places.contains(&at) {
                document.lines[first] = document.lines[at].clone();
            }
            document.lines.remove(at);
            grams.remove(at);
            for place in places.iter_mut() {
                if *place == at {
                    *place = first;
                } else if *place > at {
                    *place -= 1;
                }
            }
        } else {
            at += 1;
        }
    }
}
