//! A ranked handful of really different ways into the window.

use crate::assess::document::FormulaDocument;
use crate::balance::problem::Problem;
use crate::balance::search::{Candidate, Price, Search};
use crate::balance::way::{Way, WayKind, Ways};
use crate::fault::Fault;
use crate::formula::Mixture;
use crate::ingredient::Shelf;
use crate::job::Outcome;

/// Most ways shown.
const MOST_WAYS: usize = 5;
/// This much of that room is enough to be left alone: amounts are rounded to the scale.
const SETTLED: f64 = 0.6;
/// Looks for ways into the window.
///
/// # Arguments
/// * `price`: price of a kilogram of an ingredient in this kitchen, where one is known.
///
/// # Errors
/// Faults of the document and its rules.
pub fn ways(document: &FormulaDocument, kitchen: &Shelf, price: Price) -> Result<Ways, Vec<Fault>> {
    let search = Search::of(document, kitchen, price)?;
    let enough = SETTLED * search.margin;
    // What was not done is done; more of something does not make up for it.
    let heat = search.heat();
    let undone = !heat.is_empty();
    if !undone && search.held && search.asked().met(&Mixture::of(&search.lines), enough, search.most_split) {
        return Ok(Ways { settled: true, ways: Vec::new(), nearest: None });
    }
    // What is not known here is not mended by grams.
    if search.now.at.unknown.is_some() {
        return Ok(Ways { settled: false, ways: Vec::new(), nearest: None });
    }
    let mut candidates: Vec<Candidate> = Vec::new();
    if search.held {
        // What leaves the grams alone, or one thing for another, cannot mend a limit.
        candidates.extend(search.temperature());
        candidates.extend(search.wait());
        candidates.extend(search.air());
        candidates.extend(search.whip_further());
        candidates.extend(search.swaps());
        candidates.extend(search.other_gel());
    }
    if undone {
        candidates.retain(|own| own.kind == WayKind::Swap);
    } else {
        candidates.extend(search.one());
    }
    let nearest = match search.rebalance() {
        _ if undone => None,
        Ok(candidate) => {
            candidates.push(candidate);
            None
        }
        Err(nearest) => nearest,
    };
    candidates.sort_by(|a, b| a.score.total_cmp(&b.score));
    let mut ways: Vec<Way> = Vec::new();
    for candidate in heat {
        ways.extend(heated(&search, candidate, kitchen, price)?);
    }
    for candidate in candidates {
        // Different ways, not five sizes of one: two of one ingredient, one of every other kind.
        let most = if candidate.kind == WayKind::One { 2 } else { 1 };
        let full = ways.iter().filter(|way| way.kind == candidate.kind).count() >= most;
        let said = ways.iter().any(|way| way.title == candidate.title);
        if ways.len() < MOST_WAYS && !full && !said {
            ways.extend(search.judged(candidate));
        }
    }
    // What nobody need be asked about comes first.
    ways.sort_by_key(|way| !way.asks_first.is_empty());
    let grams = ways.iter().any(|way| !way.changes.is_empty());
    // Nothing a scale could tell would do more.
    let settled = ways.is_empty() && nearest.is_none() && search.now.at.outcome == Outcome::Inside;
    Ok(Ways { settled, ways, nearest: nearest.filter(|_| !grams) })
}

/// The formula heated, or heated and brought the rest of the way.
fn heated(
    search: &Search,
    candidate: Candidate,
    kitchen: &Shelf,
    price: Price,
) -> Result<Vec<Way>, Vec<Fault>> {
    let (title, document) = (candidate.title.clone(), candidate.document.clone());
    if let Some(way) = search.judged(candidate) {
        return Ok(vec![way]);
    }
    let further = ways(&document, kitchen, price)?.ways;
    Ok(further
        .into_iter()
        .take(2)
        .map(|way| Way { kind: WayKind::Heat, title: format!("{title}, then {}", way.title), ..way })
        .collect())
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
    let search = Search::of(document, kitchen, &|_| None)?;
    Ok(with(&search.problem()))
}
