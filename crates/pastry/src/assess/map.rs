//! A job over the temperatures of a map, before words.

use crate::job::duty::{Estimate, Hint, Judged, MapAxis, Outcome, Stands};
use crate::job::judge::Question;
use crate::job::kind::Job;
use crate::job::physics::drip::LONGEST_MM;
use crate::rheology::consistency::Banded;
use crate::rheology::sweep::{Grid, SWEEP_POINTS, sweep};
use crate::rheology::{History, Predictor};

/// The numbers of a whole map, before words: nothing in it is allocated.
pub struct Map {
    /// Predictions with bands.
    pub sweep: [Banded; SWEEP_POINTS],
    /// Judgements.
    pub judged: [Judged; SWEEP_POINTS],
}

/// Predicts and judges every point of a grid.
pub fn map(predictor: &Predictor, job: &Job, axis: MapAxis, history: History, grid: Grid) -> Map {
    let sweep = sweep(predictor, history, grid);
    let question = Question { job, prepared: &predictor.base, axis, history };
    let judge = |k: usize, hint: Hint| question.judge(&sweep[k], grid.temperature(k), hint);
    let judged = if job.duty().edges_tell() { between(&judge, axis, &sweep) } else { each(&judge) };
    Map { sweep, judged }
}

/// Every point judged, one after the other.
fn each(judge: &impl Fn(usize, Hint) -> Judged) -> [Judged; SWEEP_POINTS] {
    let mut hint: Hint = None;
    std::array::from_fn(|k| {
        let judged = judge(k, hint);
        hint = judged.hint;
        judged
    })
}

/// Points between the judged ones at first.
const FIRST: usize = 8;
/// A middle that comes out this near to what its neighbours promise needs no more judging around it: share of a length, mm,
/// standard deviations, chance. What is then read off is nearer by an order still.
const NEAR_SHARE: f64 = 0.01;
const NEAR_MM: f64 = 0.1;
const NEAR_Z: f64 = 0.08;
const NEAR_CHANCE: f64 = 0.02;
/// A chance under which it hardly ever comes out right.
const UNLIKELY: f64 = 0.03;

/// Judges where it is dear: at a few points, at the middles between them, and at all others where a middle is not what its
/// neighbours promise (a corner of the law) or where the verdict changes. The rest is read off: its numbers off cubics through
/// what was judged, its verdict off the points on either side, which agree.
fn between(
    judge: &impl Fn(usize, Hint) -> Judged,
    axis: MapAxis,
    sweep: &[Banded; SWEEP_POINTS],
) -> [Judged; SWEEP_POINTS] {
    let mut found: [Option<Judged>; SWEEP_POINTS] = [None; SWEEP_POINTS];
    let mut hint = None;
    // From the warm end: there a drip runs, and what is searched for is near.
    for k in [SWEEP_POINTS - 1].into_iter().chain((0..SWEEP_POINTS).step_by(FIRST).rev()) {
        let judged = judge(k, hint);
        (hint, found[k]) = (judged.hint, Some(judged));
    }
    // Where the numbers are not yet what was promised: everywhere until a middle keeps it.
    let mut open = [true; SWEEP_POINTS];
    let mut stride = FIRST;
    while stride > 1 {
        for from in (0..SWEEP_POINTS - 1).step_by(stride) {
            let to = (from + stride).min(SWEEP_POINTS - 1);
            let middle = (from + to) / 2;
            if found[middle].is_some() || !(open[from] || differ(&found[from], &found[to])) {
                continue;
            }
            let promised = Beside::of(&found, middle).map(|beside| beside.read(&found, middle));
            let hint = found[from].as_ref().and_then(|judged| judged.hint);
            let judged = judge(middle, promised.map_or(hint, |promised| Some(promised.z)));
            if promised.is_some_and(|promised| promised.is_near(&judged)) {
                open[from..to].fill(false);
            }
            found[middle] = Some(judged);
        }
        stride /= 2;
    }
    let known = found;
    std::array::from_fn(|k| {
        known[k].unwrap_or_else(|| {
            let Some(beside) = Beside::of(&known, k) else { return judge(k, None) };
            let read_off = beside.judged(&known, k, axis, &sweep[k]);
            if agrees(&read_off) { read_off } else { judge(k, read_off.hint) }
        })
    })
}

/// Whether two points are told different verdicts: then the point between is judged.
fn differ(a: &Option<Judged>, b: &Option<Judged>) -> bool {
    let verdict = |own: &Judged| (own.outcome, own.stands, own.crumbles);
    a.as_ref().zip(b.as_ref()).is_some_and(|(a, b)| verdict(a) != verdict(b))
}

/// Whether a number read off is on the side of its window that the verdict of its neighbour says.
fn agrees(read_off: &Judged) -> bool {
    let inside = (read_off.window[0]..=read_off.window[1]).contains(&read_off.measured.value);
    read_off.stands == Stands::SetsFirst || inside == (read_off.outcome == Outcome::Inside)
}

/// What is smooth in a judgement.
#[derive(Clone, Copy)]
struct Smooth {
    uncut: [f64; 3],
    z: [f64; 2],
    chance: f64,
}

impl Smooth {
    fn is_near(&self, judged: &Judged) -> bool {
        let seen = |mm: f64| mm.max(0.0);
        let lengths = self
            .uncut
            .into_iter()
            .zip(judged.uncut)
            .all(|(mine, own)| (seen(mine) - seen(own)).abs() < NEAR_MM + NEAR_SHARE * own.abs());
        // Where it hardly ever comes out right nobody looks at how far off the edges are.
        let far = if judged.chance < UNLIKELY { 4.0 } else { 1.0 };
        let z = judged.hint.is_some_and(|own| {
            self.z.iter().zip(own).all(|(a, b)| (a - b).abs() < far * NEAR_Z * (1.0 + b * b))
        });
        lengths && z && (self.chance - judged.chance).abs() < NEAR_CHANCE
    }
}

/// The judged points beside another: two below and two above, or as many as there are, of which all are known and whole.
struct Beside {
    at: [usize; 4],
}

impl Beside {
    /// None where a cubic through them says nothing of what lies between.
    fn of(found: &[Option<Judged>; SWEEP_POINTS], k: usize) -> Option<Self> {
        let mut below = (0..k).rev().filter(|k| found[*k].is_some());
        let mut above = (k + 1..SWEEP_POINTS).filter(|k| found[*k].is_some());
        let (low, high) = (below.next()?, above.next()?);
        let (lower, higher) = (below.next(), above.next());
        let outer = match (lower, higher) {
            (Some(lower), Some(higher)) => [lower, higher],
            (Some(lower), None) => [below.next()?, lower],
            (None, Some(higher)) => [higher, above.next()?],
            (None, None) => return None,
        };
        let at = [low, high, outer[0], outer[1]];
        // Past the longest that is told apart a length stands still: no cubic follows that.
        let ends = |k: usize| found[k].as_ref().map(|judged| judged.uncut.map(|mm| mm >= LONGEST_MM));
        if at.into_iter().any(|k| ends(k) != ends(low)) {
            return None;
        }
        // What is undone or not known has no chance: that comes of a sudden.
        let sort = |k: usize| found[k].map(|own| (own.undone, own.unknown, own.hint.is_some()));
        (sort(low) == sort(high)).then_some(Beside { at })
    }

    /// Lagrange's cubic through the four.
    fn read(&self, found: &[Option<Judged>; SWEEP_POINTS], k: usize) -> Smooth {
        let mut smooth = Smooth { uncut: [0.0; 3], z: [0.0; 2], chance: 0.0 };
        for own in self.at {
            let (mut above, mut below) = (1.0, 1.0);
            for other in self.at.into_iter().filter(|other| *other != own) {
                above *= k as f64 - other as f64;
                below *= own as f64 - other as f64;
            }
            let weight: f64 = above / below;
            let Some(judged) = &found[own] else { continue };
            for (sum, own) in smooth.uncut.iter_mut().zip(judged.uncut) {
                *sum += weight * own;
            }
            for (sum, own) in smooth.z.iter_mut().zip(judged.hint.unwrap_or_default()) {
                *sum += weight * own;
            }
            smooth.chance += weight * judged.chance;
        }
        smooth.chance = smooth.chance.clamp(0.0, 1.0);
        smooth
    }

    fn judged(
        &self,
        found: &[Option<Judged>; SWEEP_POINTS],
        k: usize,
        axis: MapAxis,
        banded: &Banded,
    ) -> Judged {
        let Smooth { uncut, z, chance } = self.read(found, k);
        let [value, low, high] = uncut;
        let neighbour = found[self.at[0]].expect("a judged point");
        Judged {
            measured: Estimate { value, low, high }.not_below(0.0),
            uncut,
            chance,
            map_window: axis.drawn(banded, z),
            hint: neighbour.hint.map(|_| z),
            ..neighbour
        }
    }
}
