//! Cooked fillings cooled through the warm hours in which germs grow, by the published limits of five codes; egg made safe on its
//! way. Local rules differ, and decide.

use crate::code::codes;
use crate::formula::egg_heat::{EggKind, SAFE_AT_ONCE_C};
use crate::heat::body::{Body, Face, Layer, Outline, Stretch, Watched};
use crate::heat::material::Material;
use crate::heat::network::{Course, Until};

codes! {
    /// Whose limits of cooling are kept.
    CoolingRule {
        /// 57 to 21 °C in 2 h, to 5 °C in 6 (FDA Food Code 2022 3-501.14, from memory).
        UsFda = "us_fda",
        /// 60 to 20 °C in 2 h, to 4 °C in 6 (Canadian guidance, from memory).
        Ca = "ca",
        /// 60 to 21 °C in 2 h, to 5 °C in 6 (FSANZ Standard 3.2.2, from memory).
        Anz = "anz",
        /// 63 to 8 °C in 90 min (UK guidance, from memory).
        Uk = "uk",
        /// 63 to 10 °C in 2 h (arrêté of 21 December 2009, from memory).
        Fr = "fr",
    }
}

/// From a temperature to another, °C, in so many minutes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// From, °C.
    pub from_c: f64,
    /// To, °C.
    pub to_c: f64,
    /// Within, min.
    pub minutes: f64,
}

/// How a cooling stands to its rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kept {
    /// Within four fifths of every limit.
    Kept,
    /// Within its limits, with little to spare.
    Tight,
    /// Not.
    Broken,
}

/// A cooling held against a rule.
#[derive(Debug, Clone, PartialEq)]
pub struct Cooled {
    /// How it stands.
    pub kept: Kept,
    /// The largest share of a limit that was used; none where one is never reached.
    pub used: Option<f64>,
    /// Seconds that each stage took; none where it is never reached.
    pub stages_s: Vec<Option<f64>>,
}

impl CoolingRule {
    /// Its limits.
    pub fn limits(self) -> Vec<Limit> {
        let limit = |from_c, to_c, hours: f64| Limit { from_c, to_c, minutes: 60.0 * hours };
        match self {
            CoolingRule::UsFda => vec![limit(57.0, 21.0, 2.0), limit(57.0, 5.0, 6.0)],
            CoolingRule::Ca => vec![limit(60.0, 20.0, 2.0), limit(60.0, 4.0, 6.0)],
            CoolingRule::Anz => vec![limit(60.0, 21.0, 2.0), limit(60.0, 5.0, 6.0)],
            CoolingRule::Uk => vec![limit(63.0, 8.0, 1.5)],
            CoolingRule::Fr => vec![limit(63.0, 10.0, 2.0)],
        }
    }

    /// Holds a cooling against it: `time_to` is when the hottest point comes to a temperature, s; the clock starts where it
    /// passes the first, at once where it begins below.
    pub fn of(self, begins_c: f64, time_to: impl Fn(f64) -> Option<f64>) -> Cooled {
        let limits = self.limits();
        let from = |limit: &Limit| if begins_c <= limit.from_c { Some(0.0) } else { time_to(limit.from_c) };
        let stages_s: Vec<Option<f64>> =
            limits.iter().map(|limit| Some(time_to(limit.to_c)? - from(limit)?)).collect();
        let shares = stages_s.iter().zip(&limits);
        let used = shares
            .map(|(seconds, limit)| Some((*seconds)? / (60.0 * limit.minutes)))
            .try_fold(0.0f64, |most, share| Some(most.max(share?)));
        let kept = match used {
            Some(share) if share <= 0.8 => Kept::Kept,
            Some(share) if share <= 1.0 => Kept::Tight,
            _ => Kept::Broken,
        };
        Cooled { kept, used, stages_s }
    }

    /// The same of a course.
    pub fn of_course(self, course: &Course) -> Cooled {
        let begins_c = course.moments[0].hottest;
        self.of(
            begins_c,
            |t_c| {
                if begins_c <= t_c { Some(0.0) } else { course.time_to(Watched::Hottest, t_c) }
            },
        )
    }

    /// How deep a tray may be filled, m, so that the rule is kept: halved between 3 and 150 mm, never above what was seen to
    /// keep it; none where not even 3 mm do.
    pub fn deepest_m(self, material: &Material, start_c: f64, top: Face, bottom: Face) -> Option<f64> {
        let keeps = |depth: f64| {
            let biot = top.h.max(bottom.h) * depth / (2.0 * material.conducts(start_c));
            let cells = match biot {
                b if b < 0.1 => 3,
                b if b < 0.4 => 5,
                b if b < 2.0 => 7,
                _ => 11,
            };
            let layers = vec![Layer { material, thickness_m: depth, t_c: start_c, cells }];
            let body = Body { layers, outline: Outline::Wide, watch: None };
            let last = self.limits().last().map_or(0.0, |limit| limit.to_c);
            let stretch = Stretch {
                seconds: 86_400.0,
                top: Some(top),
                side: None,
                bottom: Some(bottom),
                stir_s: None,
                as_one: None,
            };
            let course = body.follow(&[stretch], Until::Passed(&[(Watched::Hottest, last)], 0.0));
            self.of_course(&course).kept != Kept::Broken
        };
        let (mut low, mut high) = (0.003, 0.150);
        if !keeps(low) {
            return None;
        }
        for _ in 0..12 {
            let middle = 0.5 * (low + high);
            if keeps(middle) { low = middle } else { high = middle }
        }
        Some(low)
    }
}

/// How often over egg was made safe on a way of (seconds, °C), coldest point: the integral of 10^((min(T, T_ref + 15) − T_ref)/z)
/// over the minutes, by the trapezium in steps of a second, over those it must be held; 1 and more is safe.
pub fn made_safe(kind: EggKind, way: &[(f64, f64)]) -> f64 {
    let counts = |t_c: f64| 1.0 / kind.hold_min(t_c.min(kind.reference_c() + 15.0));
    way.windows(2)
        .map(|pair| {
            let [(from, a), (to, b)] = [pair[0], pair[1]];
            let steps = (to - from).ceil().max(1.0) as usize;
            let at = |k: usize| counts(a + (b - a) * k as f64 / steps as f64);
            let whole: f64 = (0..steps).map(|k| 0.5 * (at(k) + at(k + 1))).sum();
            whole * (to - from) / steps as f64 / 60.0
        })
        .sum()
}

/// Whether egg is safe after a way: held long enough, or hot enough at once. Over a tenth of sugar protects what is to be killed:
/// then only 71 °C or the hold of anything counts.
pub fn egg_is_safe(kind: EggKind, sugar: f64, way: &[(f64, f64)]) -> bool {
    let hottest = way.iter().map(|(_, t_c)| *t_c).fold(f64::NEG_INFINITY, f64::max);
    let counted = if sugar > 0.10 { EggKind::Any } else { kind };
    hottest >= SAFE_AT_ONCE_C || made_safe(counted, way) >= 1.0
}
