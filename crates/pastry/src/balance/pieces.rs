//! What comes in eggs, leaves, sticks or packs, and stays whole where the person asks for it.

use crate::balance::effects::signed;
use crate::balance::problem::Problem;
use crate::balance::search::Search;
use crate::balance::solve::{Solution, solve};
use crate::ingredient::Ingredient;
use crate::ingredient::{Group, Role};

/// Lines brought to whole pieces in every way round them, at most: two ways each.
const MOST_TRIED: usize = 2;

impl Search<'_> {
    /// Weight of one piece of a line that stays whole, g, and what it is; none where it may be any amount.
    fn piece(&self, at: usize) -> Option<(f64, &'static str)> {
        let rule = &self.document.lines[at].rule;
        if let Some(pack) = rule.pack_g.filter(|g| *g > 0.0) {
            return Some((pack, "pack"));
        }
        if self.document.rules.whole_pieces { counted(&self.lines[at].ingredient) } else { None }
    }

    /// An amount at the next whole piece beyond it, where pieces stay whole and it is counted; as it is where
    /// not. None when that is no change.
    pub(super) fn in_whole_pieces(&self, at: usize, start: f64, wanted: f64) -> Option<f64> {
        let Some((piece, _)) = self.piece(at) else { return Some(wanted) };
        let many = wanted / piece;
        let whole = if wanted > start { (many - 1e-9).ceil() } else { (many + 1e-9).floor() } * piece;
        (whole > 0.0 && (whole - start).abs() > 1e-9).then_some(whole)
    }

    /// "+24 g Cream 36 %"; "+1 leaf Gelatin 200 bloom" where pieces stay whole and it is so many of them.
    pub(super) fn more_or_less(&self, at: usize, by: f64) -> String {
        let name = &self.lines[at].ingredient.name;
        if let Some((piece, unit)) = self.piece(at) {
            let many = by.abs() / piece;
            if many > 0.5 && (many - many.round()).abs() < 0.01 {
                let word = match (unit, many.round() as u32) {
                    (word, 1) => word.to_owned(),
                    ("leaf", _) => "leaves".to_owned(),
                    (word, _) => format!("{word}s"),
                };
                let sign = if by < 0.0 { "−" } else { "+" };
                return format!("{sign}{} {word} {name}", many.round());
            }
        }
        format!("{} {name}", signed(by))
    }

    /// Eggs, leaves, sticks and packs brought to whole ones, the rest solved again round them: each a little more
    /// or a little less, the smallest change that does it.
    pub(super) fn whole(&self, problem: &Problem, solution: Solution) -> Solution {
        let counted: Vec<(usize, f64)> = (0..self.lines.len())
            .filter(|at| !self.document.lines[*at].is_held())
            .filter_map(|at| Some((at, self.piece(at)?.0)))
            .collect();
        if counted.is_empty() {
            return solution;
        }
        let tried = counted.len().min(MOST_TRIED);
        let mut best: Option<Solution> = None;
        for choice in 0..1u32 << tried {
            let mut fixed = problem.clone();
            for (k, (at, piece)) in counted.iter().enumerate() {
                let many = solution.grams[*at] / piece;
                // Beyond what is tried, the nearest.
                let whole = match (k < tried, choice >> k & 1) {
                    (false, _) => many.round(),
                    (true, 0) => many.floor(),
                    (true, _) => many.floor() + 1.0,
                };
                let to = whole.max(1.0) * piece;
                let variable = &mut fixed.variables[*at];
                (variable.least_g, variable.most_g) = (to, to);
            }
            let found = solve(&fixed);
            let better = match &best {
                None => true,
                Some(other) => (found.met, -found.cost) > (other.met, -other.cost),
            };
            if better {
                best = Some(found);
            }
        }
        best.unwrap_or(solution)
    }
}

/// The smallest piece of what a kitchen counts rather than weighs, g, and what it is.
fn counted(ingredient: &Ingredient) -> Option<(f64, &'static str)> {
    let by_number = matches!(ingredient.group, Group::Egg | Group::Gel) || ingredient.is(Role::Butter);
    let pieces = ingredient.weights.pieces.iter().map(|(unit, piece)| (piece.weight, unit.short()));
    pieces.min_by(|a, b| a.0.total_cmp(&b.0)).filter(|_| by_number)
}
