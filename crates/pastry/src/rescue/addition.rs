//! How much of one thing mends what is in the bowl: scanned, because some responses turn round, then halved.

use crate::balance::single::nearest_met;
use crate::formula::Mixture;
use crate::ingredient::Ingredient;
use crate::rescue::bowl::Bowl;
use crate::rescue::remedy::SolvedFor;
use crate::rheology::kernel::Prepared;

/// Places looked at between nothing and the most.
const PLACES: u32 = 20;
/// Halvings in the first bracket.
const HALVINGS: usize = 40;
/// Split index that is safe (common practice).
pub const SAFE_SPLIT: f64 = 0.15;
/// Sugar over what its water keeps that is safe: nothing comes out.
const SAFE_GRAINING: f64 = 1.0;
/// A window wider than this, ln, is open at one end: its middle says nothing.
const OPEN_WIDTH: f64 = 6.0;
/// How far inside an open window an answer should land, ln.
const INSIDE_OPEN: f64 = 0.25;

/// The first x in 0..most at which f changes its sign from that at 0; none when it never does.
///
/// f(0) = 0 gives 0.
pub fn first_root(most: f64, f: impl Fn(f64) -> f64) -> Option<f64> {
    let start = f(0.0);
    if start == 0.0 || most <= 0.0 {
        return (start == 0.0).then_some(0.0);
    }
    let at = |k: u32| most * f64::from(k) / f64::from(PLACES);
    let crossed = |value: f64| value * start.signum() <= 0.0;
    let first = (1..=PLACES).find(|k| crossed(f(at(*k))))?;
    let (mut before, mut after) = (at(first - 1), at(first));
    for _ in 0..HALVINGS {
        let middle = 0.5 * (before + after);
        if crossed(f(middle)) { after = middle } else { before = middle }
    }
    Some(after)
}

/// Room to the edge, ln, when the middle is out of reach.
const INSIDE_LEAST: f64 = 0.08;

/// What an addition came to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Found {
    /// So many grams do it.
    Grams(f64),
    /// The numbers see nothing to mend.
    NothingToDo,
    /// Not even the most does it.
    NotByItself,
    /// By the numbers every gram of it leads further away.
    OtherWay,
    /// It would do it, and break something else.
    Breaks(&'static str),
}

/// One thing put into a bowl.
pub struct Lever<'a> {
    /// The bowl.
    pub bowl: &'a Bowl,
    /// What goes in.
    pub ingredient: &'a Ingredient,
}

impl Lever<'_> {
    fn mixture(&self, grams: f64) -> Mixture {
        self.bowl.with(self.ingredient, grams)
    }

    /// Stands how far from the middle of its window, ln: above 0 too loose, below 0 too stiff. In a window
    /// open at one end, how far from well inside its one edge.
    fn off_middle(&self, grams: f64) -> f64 {
        let edges = self.bowl.asked().edges(&self.mixture(grams));
        if edges.width() < OPEN_WIDTH {
            return 0.5 * (edges.loose + edges.stiff);
        }
        if edges.loose > -INSIDE_OPEN {
            edges.loose + INSIDE_OPEN
        } else {
            (edges.stiff - INSIDE_OPEN).min(0.0)
        }
    }

    /// The least that brings it inside at all, when the middle is out of reach.
    fn just_inside(&self, most: f64) -> Option<f64> {
        let asked = self.bowl.asked();
        nearest_met(0.0, 0.0, most, |g| asked.met(&self.mixture(g), INSIDE_LEAST, f64::INFINITY))
    }

    /// Grams that bring it to its aim, at most `most`.
    ///
    /// * job: the middle (geometric) of the window at the working temperature; just inside it where that is out
    ///   of reach
    /// * split: index at most 0.15, fresh at `t_c`
    /// * graining: no more sugar than the water keeps at the working temperature
    pub fn solve(&self, by: SolvedFor, most: f64, t_c: f64) -> Found {
        let found = match by {
            SolvedFor::Job => {
                // Inside already: by the numbers nothing is the matter.
                if self.bowl.edges.inside {
                    return Found::NothingToDo;
                }
                first_root(most, |g| self.off_middle(g)).or_else(|| self.just_inside(most))
            }
            SolvedFor::Split => {
                let split = |g: f64| self.bowl.fresh(&self.mixture(g), t_c).split;
                if split(0.0) <= SAFE_SPLIT {
                    return Found::NothingToDo;
                }
                first_root(most, |g| split(g) - SAFE_SPLIT)
            }
            SolvedFor::Graining => {
                let asked = self.bowl.asked();
                let graining = |g: f64| asked.prepared(&self.mixture(g)).serum.graining(asked.t_c);
                if graining(0.0) <= SAFE_GRAINING {
                    return Found::NothingToDo;
                }
                first_root(most, |g| graining(g) - SAFE_GRAINING)
            }
        };
        match found {
            None if by == SolvedFor::Job && self.leads_away(most) => Found::OtherWay,
            None => Found::NotByItself,
            Some(grams) => match self.breaks(grams) {
                Some(what) => Found::Breaks(what),
                None => Found::Grams(grams),
            },
        }
    }

    /// Whether a little and the most of it both stand further off than nothing of it.
    fn leads_away(&self, most: f64) -> bool {
        let off = |grams: f64| self.off_middle(grams).abs();
        off(most) > off(0.0) && off(0.1 * most) > off(0.0)
    }

    /// What so many grams would break that is whole now: split, crowding, sugar that grains, sweetness up by
    /// more than 15 % of itself.
    fn breaks(&self, grams: f64) -> Option<&'static str> {
        let asked = self.bowl.asked();
        let (before, after) = (self.bowl.prepared(), asked.prepared(&self.mixture(grams)));
        let worse = |now: f64, then: f64, limit: f64| then > limit && then > 1.02 * now;
        let split = |prepared: &Prepared| prepared.at(asked.t_c, asked.history).split;
        let t_c = asked.t_c;
        if worse(split(before), split(&after), SAFE_SPLIT) {
            Some("it would split")
        } else if worse(before.crowding, after.crowding, 1.0) {
            Some("it would turn to paste")
        } else if worse(before.serum.graining(t_c), after.serum.graining(t_c), 1.15) {
            Some("its sugar would grain")
        } else if worse(before.serum.lactose_sand(t_c), after.serum.lactose_sand(t_c), 2.0) {
            Some("its milk sugar would turn to sand")
        } else if after.serum.sweetness_percent > 1.15 * before.serum.sweetness_percent.max(1.0) {
            Some("it would be much sweeter")
        } else {
            None
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_first_root_is_found_even_when_the_curve_turns_round() {
        let found = first_root(10.0, |x| (x - 2.0) * (x - 7.0)).unwrap();
        assert!((found - 2.0).abs() < 1e-9, "{found}");
        assert_eq!(first_root(10.0, |x| x + 1.0), None);
        assert_eq!(first_root(10.0, |x| x), Some(0.0));
    }
}
