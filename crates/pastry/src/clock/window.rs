//! When it is right for its job on its way.

use crate::clock::cooling::Courses;
use crate::clock::path::Path;
use crate::clock::sets::{SetStage, Sets};
use crate::clock::when::{Wall, When};
use crate::heat::body::Watched;
use crate::heat::network::Course;
use crate::job::judge::Question;
use crate::number::digits;
use serde::Serialize;
use utoipa::ToSchema;

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

/// When it is right for its job.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockWindow {
    /// From.
    pub from: When,
    /// To; none where it stays right.
    pub to: Option<When>,
    /// Temperatures there, °C.
    pub temperature_c: [f64; 2],
}

/// Of what is judged fresh.
pub fn fresh_window([soonest, usual, latest]: [Option<Stay>; 3], wall: Wall) -> Option<ClockWindow> {
    let usual = usual?;
    let min = |stay: Option<Stay>| stay.map(|stay| stay.from_s / 60.0);
    let end = |stay: Option<Stay>| stay.and_then(|stay| stay.to_s).map(|s| s / 60.0);
    let from = wall.when(usual.from_s / 60.0, min(soonest), min(latest));
    let to = usual.to_s.map(|s| wall.when(s / 60.0, end(soonest), end(latest)));
    Some(ClockWindow { from, to, temperature_c: usual.t_c.map(|t| digits((10.0 * t).round() / 10.0)) })
}

/// A finished coat stands until it is warmer than it is right at; colder does it no harm.
pub fn stands(courses: &Courses, watched: Watched, spans: &[[f64; 2]], wall: Wall) -> Option<ClockWindow> {
    let softens = spans.iter().map(|span| span[1]).fold(f64::NEG_INFINITY, f64::max);
    let first = courses.usual.moments[0].of(watched);
    if spans.is_empty() || first > softens {
        return None;
    }
    let [low, usual, high] = courses.time_to(watched, softens);
    let to = usual.map(|min| wall.when(min, low, high));
    let last = to.as_ref().map_or(courses.usual.moments.last()?.of(watched), |_| softens);
    let temperature_c = [first, last].map(|t| digits((10.0 * t).round() / 10.0));
    Some(ClockWindow { from: wall.when(0.0, None, None), to, temperature_c })
}

/// What is judged as set: at its temperatures, once it has set.
pub fn set_window(
    courses: &Courses,
    watched: Watched,
    spans: &[[f64; 2]],
    sets: &[Sets],
    wall: Wall,
) -> Option<ClockWindow> {
    let cools = courses.usual.moments[0].of(watched) > courses.usual.moments.last()?.of(watched);
    let inside = |t_c: f64| spans.iter().any(|[low, high]| (*low..=*high).contains(&t_c));
    let end = courses.usual.moments.last()?;
    let span = spans.iter().find(|span| {
        let [first, last] = [courses.usual.moments[0].of(watched), end.of(watched)];
        span[0] <= first.max(last) && span[1] >= first.min(last)
    })?;
    let [enters, leaves] = if cools { [span[1], span[0]] } else { [span[0], span[1]] };
    // What begins inside is there at once, each way for itself.
    let starts = [&courses.soonest, &courses.usual, &courses.latest]
        .map(|course| inside(course.moments[0].of(watched)));
    let found = courses.time_to(watched, enters);
    let [low, usual, high] = [0, 1, 2].map(|k: usize| if starts[k] { Some(0.0) } else { found[k] });
    let set = sets.iter().rev().find(|own| own.stage != SetStage::TakesALayer);
    let (from, low, high) = match set.map(|own| own.when.as_ref()) {
        // It never sets there.
        Some(None) => return None,
        Some(Some(when)) => (
            usual?.max(when.min),
            low.zip(when.low).map(|(a, b)| a.max(b)),
            high.zip(when.high).map(|(a, b)| a.max(b)),
        ),
        None => (usual?, low, high),
    };
    let left = courses.time_to(watched, leaves);
    let to = left[1].filter(|to| *to > from).map(|to| wall.when(to, left[0], left[2]));
    if left[1].is_some_and(|to| to <= from) {
        return None;
    }
    let at = |min: f64| digits((10.0 * courses.usual.at(watched, 60.0 * min)).round() / 10.0);
    let temperature_c =
        [at(from), to.as_ref().map_or(digits((10.0 * end.of(watched)).round() / 10.0), |to| at(to.min))];
    Some(ClockWindow { from: wall.when(from, low, high), to, temperature_c })
}
