//! The answer to a swap.

use crate::assess::Ready;
use crate::assess::answer::Point;
use crate::assess::assessed;
use crate::assess::document::FormulaDocument;
use crate::balance::edges::Asked;
use crate::balance::search::{Price, Search, parts};
use crate::balance::way::Change;
use crate::fault::{Fault, FaultCode};
use crate::formula::kitchen_words::in_pieces;
use crate::formula::{Mixture, WeighedLine};
use crate::ingredient::Shelf;
use crate::ingredient::diet::brings;
use crate::number::{hundredths, on_a_scale};
use crate::swap::ask::{Goal, SwapAsk, SwapFor};
use crate::swap::differs::differs;
use crate::swap::exchange::{Exchanged, exchanged};
use crate::swap::gelatin::GelatinExchange;
use crate::swap::keep::{Before, cost_per_kg, holds, kept};
use serde::Serialize;
use utoipa::ToSchema;

/// A goal, and whether it was kept.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Held {
    /// Which.
    pub goal: Goal,
    /// Whether it holds.
    pub held: bool,
}

/// One way to do it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SwapOption {
    /// "Beef gelatin 200 bloom for Gelatin 200 bloom".
    pub title: String,
    /// What to know of the stand-in.
    pub notes: Vec<String>,
    /// What it brings that was not there and must be asked for first: "brings milk, an allergen".
    pub asks_first: Vec<String>,
    /// Amounts that change.
    pub changes: Vec<Change>,
    /// What was to be kept, in the order of the person, and whether it was.
    pub kept: Vec<Held>,
    /// What still differs; empty when nothing does.
    pub differs: Vec<String>,
    /// Both schools, where one gelatin goes for another.
    pub gelatin: Option<GelatinExchange>,
    /// The verdict then.
    pub at: Point,
    /// The formula then.
    pub document: FormulaDocument,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Swaps {
    /// In one sentence.
    pub sentence: String,
    /// Ways to do it, the first choice first.
    pub options: Vec<SwapOption>,
}

/// Swaps, and brings the rest back.
///
/// The stand-in goes in gram for gram, or by its strength; then the smallest change of all amounts is
/// sought, in a batch as large as it was, under as many of the goals as can be had together: the last
/// ranked is let go first. Locks, floors, ceilings, shares and ratios of the formula hold.
///
/// # Errors
/// Faults of the document; a swap that cannot be meant; nothing that stands in.
pub fn swap(ask: &SwapAsk, kitchen: &Shelf, price: Price) -> Result<Swaps, Vec<Fault>> {
    let order = order(&ask.keep)?;
    let (Ready { shelf, lines, options, .. }, was) = assessed(&ask.document, kitchen)?;
    let before = Before {
        edges: Asked::of(&ask.document, &options).edges(&Mixture::of(&lines)),
        answer: &was,
        cost_per_kg: cost_per_kg(&lines, price),
    };
    let mut found: Vec<SwapOption> = Vec::new();
    let mut faults = Vec::new();
    for exchanged in exchanged(&ask.document, &lines, &ask.ask, &shelf)? {
        match option(exchanged, &ask.document, &lines, &before, &order, kitchen, price) {
            Ok(option) if found.iter().all(|other| other.title != option.title) => found.push(option),
            Ok(_) => {}
            Err(own) => faults = own,
        }
    }
    if found.is_empty() {
        return Err(faults);
    }
    // What nobody need be asked about comes first.
    found.sort_by_key(|option| !option.asks_first.is_empty());
    Ok(Swaps { sentence: sentence(ask, &found), options: found })
}

/// The ranking with what was not named at its end.
fn order(keep: &[Goal]) -> Result<Vec<Goal>, Vec<Fault>> {
    let mut order: Vec<Goal> = Vec::new();
    for goal in keep.iter().chain(&Goal::USUAL) {
        if !order.contains(goal) {
            order.push(*goal);
        }
    }
    if keep.iter().enumerate().any(|(at, goal)| keep[..at].contains(goal)) {
        let message = "each thing to keep is ranked once";
        return Err(vec![Fault::new("keep", FaultCode::RankedTwice, message)]);
    }
    Ok(order)
}

fn option(
    exchanged: Exchanged,
    was: &FormulaDocument,
    old: &[WeighedLine],
    before: &Before,
    order: &[Goal],
    kitchen: &Shelf,
    price: Price,
) -> Result<SwapOption, Vec<Fault>> {
    let search = Search::of(&exchanged.document, kitchen, price)?;
    let grams = kept(&search, before, order, &exchanged.stand_ins);
    let written = |round: fn(f64) -> f64| {
        let mut document = exchanged.document.clone();
        for (at, line) in document.lines.iter_mut().enumerate() {
            let own = was.lines.iter().position(|own| own.ingredient == line.ingredient);
            let untouched =
                own.is_some_and(|k| (old[k].mass.grams() - grams[at]).abs() < 0.004 * grams[at].max(0.5));
            // What hardly moves stays as it was written.
            line.amount = match own.filter(|_| untouched) {
                Some(k) => format!("{} g", hundredths(old[k].mass.grams())),
                None => format!("{} g", round(grams[at])),
            };
        }
        document
    };
    let asked = |document: FormulaDocument| -> Result<_, Vec<Fault>> {
        let (Ready { lines, options, .. }, after) = assessed(&document, kitchen)?;
        let edges = Asked::of(&document, &options).edges(&Mixture::of(&lines));
        Ok((document, lines, after, edges))
    };
    let (mut document, mut lines, mut after, mut edges) = asked(written(on_a_scale))?;
    // A steep formula does not bear the usual rounding: to the gram then.
    if !holds(Goal::Consistency, before, &edges, &after, None) {
        let finer = asked(written(hundredths))?;
        if holds(Goal::Consistency, before, &finer.3, &finer.2, None) {
            (document, lines, after, edges) = finer;
        }
    }
    let cost = cost_per_kg(&lines, price);
    Ok(SwapOption {
        title: exchanged.title,
        notes: exchanged.notes,
        asks_first: brings(parts(old), parts(&lines)),
        changes: changes(old, &lines),
        kept: order
            .iter()
            .map(|goal| Held { goal: *goal, held: holds(*goal, before, &edges, &after, cost) })
            .collect(),
        differs: differs((before.answer, old), (&after, &lines), before.cost_per_kg.zip(cost)),
        gelatin: exchanged.gelatin,
        at: after.at,
        document,
    })
}

/// Amounts before and after, by ingredient: first what was there, then what came in.
fn changes(old: &[WeighedLine], new: &[WeighedLine]) -> Vec<Change> {
    let grams = |lines: &[WeighedLine], id: &str| -> f64 {
        // A sum over nothing is −0.0, which nobody weighs.
        0.0 + lines.iter().filter(|l| l.ingredient.id == id).map(|l| l.mass.grams()).sum::<f64>()
    };
    let mut seen: Vec<&str> = Vec::new();
    let mut all = Vec::new();
    for line in old.iter().chain(new) {
        let id = line.ingredient.id.as_str();
        if seen.contains(&id) {
            continue;
        }
        seen.push(id);
        let (from_g, to_g) = (grams(old, id), grams(new, id));
        if (from_g - to_g).abs() > 1e-9 {
            let at = new.iter().position(|l| l.ingredient.id == id);
            let pieces = in_pieces(to_g, &line.ingredient);
            all.push(Change { line: at, name: line.ingredient.name.clone(), from_g, to_g, pieces });
        }
    }
    all
}

fn sentence(ask: &SwapAsk, options: &[SwapOption]) -> String {
    let first = &options[0];
    let word = match &ask.ask {
        SwapFor::Replace { .. } => first.title.clone(),
        SwapFor::Without { what } => {
            let words = what.words();
            format!("{}{}", words[..1].to_uppercase(), &words[1..])
        }
    };
    let lost: Vec<&str> = first.kept.iter().filter(|held| !held.held).map(|held| held.goal.word()).collect();
    if lost.is_empty() {
        format!("{word}: consistency, sweetness and cost are kept.")
    } else {
        format!("{word}: {} could not be kept.", lost.join(" and "))
    }
}
