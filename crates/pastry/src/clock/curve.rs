//! The way as it is drawn.

use crate::clock::cooling::Courses;
use crate::clock::sets::{SetStage, Sets};
use crate::clock::when::When;
use crate::clock::window::ClockWindow;
use crate::heat::body::Watched;
use crate::number::digits;
use serde::Serialize;
use utoipa::ToSchema;

/// Points of the curve.
pub const CURVE_POINTS: usize = 200;

/// The curve: the mean over time.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockCurve {
    /// Minutes between its points, the first at 0.
    pub step_min: f64,
    /// The usual way, °C.
    pub usual: Vec<f64>,
    /// The soonest, °C.
    pub soonest: Vec<f64>,
    /// The latest, °C.
    pub latest: Vec<f64>,
    /// The hottest point of the usual way, °C.
    pub hottest: Vec<f64>,
}

/// How far the curve is drawn, min.
pub fn horizon(courses: &Courses, window: Option<&ClockWindow>, sets: &[Sets], comes: Option<&When>) -> f64 {
    let whole = courses.usual.moments.last().map_or(1.0, |moment| moment.s / 60.0);
    let last = |when: &When| when.high.unwrap_or(when.min);
    let mut wanted: Vec<f64> = Vec::new();
    if let Some(window) = window {
        wanted.push(last(window.to.as_ref().unwrap_or(&window.from)));
    }
    wanted.extend(comes.map(last));
    let stages = sets.iter().any(|own| matches!(own.stage, SetStage::Firm | SetStage::Stands));
    if window.is_none() || stages {
        wanted.extend(sets.iter().filter_map(|own| own.when.as_ref().map(last)));
    }
    let wanted = wanted.into_iter().fold(0.0, f64::max);
    if wanted > 0.0 { (1.15 * wanted).min(whole).max(1.0) } else { whole.max(1.0) }
}

/// The way of a point, with its band.
pub fn curve(courses: &Courses, watched: Watched, whole_min: f64) -> ClockCurve {
    let step_min = whole_min / (CURVE_POINTS - 1) as f64;
    let of = |course: &crate::heat::Course, watched: Watched| {
        (0..CURVE_POINTS)
            .map(|k| (100.0 * course.at(watched, 60.0 * step_min * k as f64)).round() / 100.0)
            .collect()
    };
    ClockCurve {
        step_min: digits(step_min),
        usual: of(&courses.usual, watched),
        soonest: of(&courses.soonest, watched),
        latest: of(&courses.latest, watched),
        hottest: of(&courses.usual, Watched::Hottest),
    }
}
