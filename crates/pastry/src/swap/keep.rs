//! The rest brought back round a stand-in: as many of the goals as can be had, in the order of the person.

use crate::assess::answer::Assessment;
use crate::balance::edges::Edges;
use crate::balance::problem::Limit;
use crate::balance::search::Search;
use crate::balance::solve::solve;
use crate::formula::WeighedLine;
use crate::ingredient::Ingredient;
use crate::rheology::serum::sweetness_percent;
use crate::swap::ask::Goal;

/// Consistency counts as kept within this, ln: less than a hand can tell.
const AS_STIFF: f64 = 0.06;
/// Sweetness counts as kept within this share of itself …
const AS_SWEET: f64 = 0.05;
/// … or within this, points of total.
const SWEET_POINTS: f64 = 0.4;
/// Cost counts as kept up to this share above what it was.
const AS_DEAR: f64 = 0.10;
/// A stand-in's amount is nobody's habit: it moves before the rest.
const STAND_IN_WEIGHT: f64 = 0.15;
/// Further than any edge: nothing is asked of the consistency.
const ANYWHERE: f64 = -40.0;

/// What was, and is to be kept.
pub(super) struct Before<'a> {
    /// Where it stood to its window.
    pub edges: Edges,
    /// The answer to it.
    pub answer: &'a Assessment,
    /// Price of a kilogram; none where one is missing.
    pub cost_per_kg: Option<f64>,
}

/// Price of a kilogram of some lines, in the kitchen's currency.
pub(super) fn cost_per_kg(lines: &[WeighedLine], price: &dyn Fn(&Ingredient) -> Option<f64>) -> Option<f64> {
    let (mut cost, mut grams) = (0.0, 0.0);
    for line in lines {
        cost += line.mass.grams() * price(&line.ingredient)?;
        grams += line.mass.grams();
    }
    (grams > 0.0).then_some(cost / grams)
}

/// A line that keeps Σ of × x / Σ x at most, or at least, `limit`.
fn limit(
    lines: &[WeighedLine],
    of: impl Fn(&Ingredient) -> f64,
    limit: f64,
    least: bool,
    name: &str,
) -> Limit {
    let scale = limit.abs().max(1e-9);
    let own = |ingredient: &Ingredient| (of(ingredient) - limit) / scale;
    Limit {
        coefficients: lines
            .iter()
            .map(|l| if least { -own(&l.ingredient) } else { own(&l.ingredient) })
            .collect(),
        of: String::new(),
        least,
        percent: 0.0,
        name: name.to_owned(),
    }
}

/// Amounts at which as many goals hold as can be had together.
///
/// Lexicographic: all goals first; when they cannot be had together the last is let go, and so on.
pub(super) fn kept(search: &Search, before: &Before, order: &[Goal], stand_ins: &[usize]) -> Vec<f64> {
    let mut wanted: Vec<Goal> = order.to_vec();
    loop {
        let mut problem = search.problem();
        for at in stand_ins {
            problem.variables[*at].weight = STAND_IN_WEIGHT;
        }
        // The batch stays as large as it was.
        problem.total_g = Some(before.answer.totals.batch_mass_g);
        problem.room = if wanted.contains(&Goal::Consistency) {
            if before.edges.inside {
                // As it was, and not out of its window for that.
                [-before.edges.loose - AS_STIFF, before.edges.stiff - AS_STIFF].map(|room| room.max(0.0))
            } else {
                [search.margin; 2]
            }
        } else {
            [ANYWHERE; 2]
        };
        if wanted.contains(&Goal::Sweetness) {
            let now = before.answer.figures.sweetness_percent;
            let by = (AS_SWEET * now).max(SWEET_POINTS);
            let sweet = |i: &Ingredient| sweetness_percent(&i.composition);
            problem.limits.push(limit(&search.lines, sweet, now + by, false, "no sweeter"));
            if now > by {
                problem.limits.push(limit(&search.lines, sweet, now - by, true, "as sweet"));
            }
        }
        if let (true, Some(now)) = (wanted.contains(&Goal::Cost), before.cost_per_kg) {
            let price = |i: &Ingredient| (search.price)(i).unwrap_or(0.0);
            problem.limits.push(limit(&search.lines, price, now * (1.0 + AS_DEAR), false, "no dearer"));
        }
        let solution = solve(&problem);
        if solution.met {
            return solution.grams;
        }
        if wanted.len() <= 1 {
            // Nothing can be kept: the exchange as it is, and it is said; not the nearest of mangled formulas.
            return as_much(search.start(), before.answer.totals.batch_mass_g, search);
        }
        wanted.pop();
    }
}

/// Amounts brought to a batch as large as it was: what is not locked makes up the weight.
fn as_much(mut grams: Vec<f64>, batch_g: f64, search: &Search) -> Vec<f64> {
    let locked = |at: &usize| search.document.lines[*at].is_held();
    let held: f64 = (0..grams.len()).filter(locked).map(|at| grams[at]).sum();
    let free: f64 = grams.iter().sum::<f64>() - held;
    if free > 0.0 && batch_g > held {
        let factor = (batch_g - held) / free;
        for at in (0..grams.len()).filter(|at| !locked(at)) {
            grams[at] *= factor;
        }
    }
    grams
}

/// Whether a goal holds for the answer after.
pub(super) fn holds(
    goal: Goal,
    before: &Before,
    edges: &Edges,
    after: &Assessment,
    cost: Option<f64>,
) -> bool {
    match goal {
        Goal::Consistency if before.edges.inside => {
            let moved = |after: f64, before: f64| (after - before).abs() <= 1.7 * AS_STIFF;
            // A lighter cream needs less to stay up: one of the edges moves with its weight.
            edges.inside && (moved(edges.loose, before.edges.loose) || moved(edges.stiff, before.edges.stiff))
        }
        Goal::Consistency => edges.inside,
        Goal::Sweetness => {
            let now = before.answer.figures.sweetness_percent;
            let off = (after.figures.sweetness_percent - now).abs();
            off <= 1.2 * (AS_SWEET * now).max(SWEET_POINTS)
        }
        Goal::Cost => match (before.cost_per_kg, cost) {
            (Some(before), Some(after)) => after <= before * (1.0 + 1.1 * AS_DEAR),
            _ => false,
        },
    }
}
