//! A ranked handful of really different ways into the window.

use crate::balance::edges::Asked;
use crate::balance::limits::rule_faults;
use crate::balance::problem::Problem;
use crate::balance::search::{Candidate, Price, Search};
use crate::balance::way::{Way, WayKind, Ways};
use crate::fault::Fault;
use crate::formula::Mixture;
use crate::ingredient::Shelf;
use crate::job::Outcome;
use crate::job::assess::assess_from;
use crate::job::document::FormulaDocument;

/// Most ways shown.
const MOST_WAYS: usize = 5;
/// How far inside a way should land: this share of the window's width from the edge …
const MARGIN_OF_WIDTH: f64 = 0.25;
/// … and at most this much in ln of stiffness.
const MOST_MARGIN: f64 = 0.35;
/// This much of that room is enough to be left alone: amounts are rounded to the scale.
const SETTLED: f64 = 0.6;
/// Split index that a way may leave: "safe" (common practice), or what it was.
const SAFE_SPLIT: f64 = 0.15;

/// Looks for ways into the window.
///
/// # Arguments
/// * `price`: price of a kilogram of an ingredient in this kitchen, where one is known.
///
/// # Errors
/// Faults of the document and its rules.
pub fn ways(document: &FormulaDocument, kitchen: &Shelf, price: Price) -> Result<Ways, Vec<Fault>> {
    let search = search(document, kitchen, price)?;
    let enough = SETTLED * search.margin;
    if search.held && search.asked().met(&Mixture::of(&search.lines), enough, search.most_split) {
        return Ok(Ways { settled: true, ways: Vec::new(), nearest: None });
    }
    let mut candidates: Vec<Candidate> = Vec::new();
    if search.held {
        // What leaves the grams alone, or one thing for another, cannot mend a limit.
        candidates.extend(search.temperature());
        candidates.extend(search.wait());
        candidates.extend(search.air());
        candidates.extend(search.swaps());
    }
    candidates.extend(search.one());
    let nearest = match search.rebalance() {
        Ok(candidate) => {
            candidates.push(candidate);
            None
        }
        Err(nearest) => nearest,
    };
    candidates.sort_by(|a, b| a.score.total_cmp(&b.score));
    let mut ways: Vec<Way> = Vec::new();
    for candidate in candidates {
        // Different ways, not five sizes of one: two of one ingredient, one of every other kind.
        let most = if candidate.kind == WayKind::One { 2 } else { 1 };
        let full = ways.iter().filter(|way| way.kind == candidate.kind).count() >= most;
        let said = ways.iter().any(|way| way.title == candidate.title);
        if ways.len() < MOST_WAYS && !full && !said {
            ways.extend(search.judged(candidate));
        }
    }
    let grams = ways.iter().any(|way| !way.changes.is_empty());
    // Nothing a scale could tell would do more.
    let settled = ways.is_empty() && nearest.is_none() && search.now.at.outcome == Outcome::Inside;
    Ok(Ways { settled, ways, nearest: nearest.filter(|_| !grams) })
}

/// Hands the problem of the smallest rebalance to `with`: for measuring and for comparing solvers.
///
/// # Errors
/// Faults of the document and its rules.
pub fn with_problem<R>(
    document: &FormulaDocument,
    kitchen: &Shelf,
    with: impl FnOnce(&Problem) -> R,
) -> Result<R, Vec<Fault>> {
    let search = search(document, kitchen, &|_| None)?;
    Ok(with(&search.problem()))
}

fn search<'a>(
    document: &'a FormulaDocument,
    kitchen: &'a Shelf,
    price: Price<'a>,
) -> Result<Search<'a>, Vec<Fault>> {
    let now = assess_from(document, kitchen)?;
    let shelf = document.shelf(kitchen)?;
    let lines = document.formula().weigh(&shelf)?;
    let faults = rule_faults(document, &lines);
    if !faults.is_empty() {
        return Err(faults);
    }
    let options = document.options(&lines);
    let edges = Asked::of(document, &options).edges(&Mixture::of(&lines));
    let margin = (MARGIN_OF_WIDTH * edges.width()).clamp(0.0, MOST_MARGIN);
    let most_split = SAFE_SPLIT.max(edges.split);
    let (limits, pairs) = Search::rules_of(document, &lines);
    let mut search = Search {
        document,
        kitchen,
        price,
        lines,
        options,
        now,
        margin,
        most_split,
        limits,
        pairs,
        held: true,
    };
    search.held = search.limits_hold(&search.start(), None, 5e-4);
    Ok(search)
}
