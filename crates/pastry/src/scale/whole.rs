//! The nearest size at which what is counted comes out whole.

/// A batch may grow to this many times what was asked, or shrink to its inverse, for whole pieces.
const FURTHEST: f64 = 1.6;
/// A line a tenth of a piece off weighs like a batch 30 % off (assumed).
const MISFIT_WEIGHT: f64 = 3.0;

/// The factor near `asked` at which lines of `pieces` (how many there are at factor 1) come out whole:
/// at or below it when `at_most`, else at or above it. Where several lines cannot all be whole, the one
/// with the smallest misfit and change together. None when nothing is counted.
pub(super) fn whole_factor(asked: f64, at_most: bool, pieces: &[Option<f64>]) -> Option<f64> {
    let counted: Vec<f64> = pieces.iter().flatten().copied().collect();
    if counted.is_empty() {
        return None;
    }
    let (low, high) = if at_most { (asked / FURTHEST, asked) } else { (asked, asked * FURTHEST) };
    let slack = 1.0 + 1e-9;
    let mut candidates: Vec<f64> = Vec::new();
    for many in &counted {
        let (from, to) = ((many * low / slack).ceil().max(1.0), (many * high * slack).floor());
        let reach = (to - from).min(200.0);
        let mut n = if at_most { (to - reach).max(from) } else { from };
        while n <= to && candidates.len() < 4000 {
            candidates.push(n / many);
            n += 1.0;
        }
        // Less than one of it in reach: one it is, or as it falls.
        if to < from && !at_most {
            candidates.push(from / many);
        }
    }
    let misfit = |factor: f64| -> f64 {
        counted
            .iter()
            .map(|many| {
                let now = factor * many;
                (now - now.round().max(1.0)).abs() / now.max(1.0)
            })
            .sum()
    };
    let score = |factor: f64| MISFIT_WEIGHT * misfit(factor) + (factor / asked).ln().abs();
    candidates.into_iter().min_by(|a, b| score(*a).total_cmp(&score(*b)))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_line_comes_out_whole_at_the_next_piece() {
        // 2.4 eggs at factor 1: 1.25 is three of them.
        assert!((whole_factor(1.0, false, &[Some(2.4), None]).unwrap() - 1.25).abs() < 1e-12);
        assert!((whole_factor(1.0, true, &[Some(2.4)]).unwrap() - 2.0 / 2.4).abs() < 1e-12);
        assert_eq!(whole_factor(1.0, false, &[None]), None);
    }

    #[test]
    fn two_lines_that_agree_are_both_whole() {
        // 2.5 eggs and 5 leaves: at twice, 5 and 10; at 1.2, 3 and 6.
        assert!((whole_factor(1.0, false, &[Some(2.5), Some(5.0)]).unwrap() - 1.2).abs() < 1e-12);
    }
}
