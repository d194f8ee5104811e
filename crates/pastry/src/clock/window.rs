//! When it is right for its job on its way.

use crate::clock::cooling::Courses;
use crate::clock::path::Path;
use crate::heat::body::Watched;
use crate::heat::network::Course;
use crate::job::judge::Question;

/// Further from where it is right than this nobody looks, K.
const AROUND_K: f64 = 5.0;
/// Looks at the way at first: so many by temperature and so many by time.
const BY_DEGREES: usize = 18;
const BY_TIME: usize = 12;

/// From and to, s; no end where it stays right as long as it was followed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stay {
    /// From.
    pub from_s: f64,
    /// To.
    pub to_s: Option<f64>,
    /// Temperatures there, °C.
    pub t_c: [f64; 2],
}

/// When a point of a course is right for a job; `spans` are the temperatures at which it would be, had it just come there.
pub fn right(question: &Question, course: &Course, watched: Watched, spans: &[[f64; 2]]) -> Option<Stay> {
    let coldest = spans.iter().map(|span| span[0]).fold(f64::INFINITY, f64::min) - AROUND_K;
    let hottest = spans.iter().map(|span| span[1]).fold(f64::NEG_INFINITY, f64::max) + AROUND_K;
    let path = Path::of(question.prepared, course, watched);
    let seen: Vec<usize> =
        (0..path.steps.len()).filter(|at| (coldest..=hottest).contains(&path.steps[*at].t_c)).collect();
    let (first, last) = (*seen.first()?, *seen.last()?);
    let right = |at: usize| question.right_after(path.steps[at].t_c, path.clock(at));
    let mut looks: Vec<usize> = Vec::with_capacity(BY_DEGREES + BY_TIME + 2);
    let [from, to] = [first, last].map(|at| path.steps[at].t_c);
    for k in 0..=BY_DEGREES {
        let t_c = from + (to - from) * k as f64 / BY_DEGREES as f64;
        let falls = from >= to;
        looks.push(
            seen[seen
                .partition_point(|at| (path.steps[*at].t_c > t_c) == falls && path.steps[*at].t_c != t_c)
                .min(seen.len() - 1)],
        );
    }
    let [begins_s, ends_s] = [first, last].map(|at| path.steps[at].s);
    for k in 0..=BY_TIME {
        looks.push(
            path.nearest(begins_s + (ends_s - begins_s) * k as f64 / BY_TIME as f64).clamp(first, last),
        );
    }
    looks.sort_unstable();
    looks.dedup();
    let enters = looks.iter().position(|at| right(*at))?;
    let leaves = (enters..looks.len()).find(|k| !right(looks[*k]));
    // Between two looks of which one is right: the moment next to the edge that still is.
    let halve = |mut good: usize, mut bad: usize| {
        while good.abs_diff(bad) > 1 {
            let middle = usize::midpoint(good, bad);
            if right(middle) { good = middle } else { bad = middle }
        }
        good
    };
    let begin = match enters {
        0 if looks[0] > 0 && !right(looks[0] - 1) => looks[0],
        0 => looks[0],
        at => halve(looks[at], looks[at - 1]),
    };
    let end = leaves.map(|at| halve(looks[at - 1], looks[at]));
    let at_end = end.unwrap_or(last);
    // What is right where the way was followed to stays so as far as anybody knows; what went out of sight did not.
    let goes_on = end.is_none() && last + 1 == path.steps.len();
    Some(Stay {
        from_s: path.steps[begin].s,
        to_s: (!goes_on).then_some(path.steps[at_end].s),
        t_c: [path.steps[begin].t_c, path.steps[at_end].t_c],
    })
}

/// The same of a band: soonest, usual, latest.
pub fn rights(
    question: &Question,
    courses: &Courses,
    watched: Watched,
    spans: &[[f64; 2]],
) -> [Option<Stay>; 3] {
    [&courses.soonest, &courses.usual, &courses.latest].map(|course| right(question, course, watched, spans))
}
