//! When it has set: gelatin, agar, starch, the fat of a ganache, the butter of a coat, each by what it went through.

use crate::clock::cooling::{Cooling, Courses, USUAL};
use crate::clock::path::{gelatin_rate, starch_rate};
use crate::clock::when::{Wall, When};
use crate::code::codes;
use crate::heat::body::{Moment, Watched};
use crate::heat::network::Course;
use crate::heat::setting::TAKES_A_LAYER;
use crate::heat::vessel::VesselKind;
use crate::rheology::clock::{quick_rate, slow_rate};
use crate::rheology::gelatin::set_share;
use crate::rheology::kernel::Prepared;
use serde::Serialize;
use utoipa::ToSchema;

codes! {
    /// What has become of it.
    SetStage {
        /// Gelatin carries the next layer.
        TakesALayer = "takes_a_layer",
        /// Gelatin comes out of its mould.
        TurnsOut = "turns_out",
        /// Agar has set.
        AgarSet = "agar_set",
        /// Starch and egg have set, nine tenths of the way.
        StarchSet = "starch_set",
        /// Nine tenths of a ganache's fat have set.
        Rested = "rested",
        /// Plain chocolate that was tempered has shrunk from its mould.
        Shell = "shell",
        /// A coat of butter is firm to a finger.
        Firm = "firm",
        /// A drip or a glaze runs no more.
        Stands = "stands",
        /// Frozen right through: it comes out of its mould.
        Frozen = "frozen",
    }
}

impl SetStage {
    /// "Turns out".
    pub fn says(self) -> &'static str {
        match self {
            SetStage::TakesALayer => "Takes the next layer",
            SetStage::TurnsOut => "Turns out",
            SetStage::AgarSet => "Set right through",
            SetStage::StarchSet => "Set",
            SetStage::Rested => "Rested",
            SetStage::Shell => "Tempered, it comes off its mould or sheet",
            SetStage::Firm => "Firm to a finger",
            SetStage::Stands => "Runs no more",
            SetStage::Frozen => "Frozen through",
        }
    }
}

impl SetStage {
    /// What may be done then.
    fn then(self, vessel: VesselKind) -> &'static str {
        let mould = matches!(vessel, VesselKind::Mould | VesselKind::Dome | VesselKind::Ring);
        match self {
            SetStage::Firm => ": then the next coat, or a drip",
            SetStage::Frozen if mould => ": then it turns out, and a glaze may be poured on it",
            _ => "",
        }
    }
}

/// When something has set so far.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Sets {
    /// What.
    pub stage: SetStage,
    /// When; none where it never does there.
    pub when: Option<When>,
    /// "Turns out at 16:20, not before 15:40".
    pub sentence: String,
}

/// A coat of butter is firm at this mean, °C (fitted to 20 to 30 min in a fridge, common practice).
const FIRM_C: f64 = 14.0;
/// A drip runs no more at this mean, °C, a glaze at this (common practice).
const DRIP_STANDS_C: f64 = 22.0;
const GLAZE_STANDS_C: f64 = 15.0;
/// Agar has set right through when its hottest point is here, °C: below where agarose gels (35 to 32 °C, from memory).
const AGAR_C: f64 = 32.0;
/// Frozen through when its hottest point is here, °C (common practice).
const FROZEN_C: f64 = -15.0;
/// Share of a custard's starch, and of a ganache's fat.
const CUTS: f64 = 0.9;
const RESTED: f64 = 0.9;
/// Share of the fat of tempered chocolate that has set when it comes off (assumed; 15 to 30 min in a fridge of 10 to 12 °C,
/// common practice).
const SHRUNK: f64 = 0.7;
/// Fat that begins below this has set before, °C.
const MELTED_C: f64 = 28.0;
/// What takes longer than this is not waited for, s: two days.
const LONGEST_S: f64 = 172_800.0;

/// Seconds until something that is counted by the hour at a rate has come to `hours`; the last temperature is held on.
pub fn counted(course: &Course, watched: Watched, hours: f64, rate: impl Fn(f64) -> f64) -> Option<f64> {
    let mut had = 0.0;
    let at = |moment: &Moment| rate(moment.of(watched));
    for pair in course.moments.windows(2) {
        let (a, b) = (at(&pair[0]), at(&pair[1]));
        let gained = 0.5 * (a + b) * (pair[1].s - pair[0].s) / 3600.0;
        if had + gained >= hours && gained > 0.0 {
            return Some(pair[0].s + (pair[1].s - pair[0].s) * (hours - had) / gained);
        }
        had += gained;
    }
    let last = course.moments.last()?;
    let rate = at(last);
    (rate > 1e-6).then(|| last.s + 3600.0 * (hours - had) / rate)
}

/// Hours counted at a rate up to a moment.
pub fn hours_by(course: &Course, watched: Watched, s: f64, rate: impl Fn(f64) -> f64) -> f64 {
    let mut had = 0.0;
    for pair in course.moments.windows(2) {
        let to = pair[1].s.min(s);
        if to <= pair[0].s {
            break;
        }
        let [a, b] = [pair[0].of(watched), course.at(watched, to)].map(&rate);
        had += 0.5 * (a + b) * (to - pair[0].s) / 3600.0;
    }
    match course.moments.last() {
        Some(last) if last.s < s => had + rate(last.of(watched)) * (s - last.s) / 3600.0,
        _ => had,
    }
}

/// Hours after which gelatin has a share of its strength, by halving.
pub fn gelatin_hours_for(share: f64, percent: f64) -> f64 {
    let (mut low, mut high) = (0.0, 1000.0);
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if set_share(middle, percent) < share { low = middle } else { high = middle }
    }
    high
}

/// What it must come to for a stage that is a temperature: the way is followed so far.
pub fn comes_first(prepared: &Prepared, cooling: &Cooling) -> Option<(Watched, f64)> {
    let kind = cooling.filled.kind();
    let gelatin = prepared.networks.gelatin.full_pa > 0.0;
    match () {
        () if cooling.ends_c() < FROZEN_C && kind != VesselKind::OnCake => Some((Watched::Hottest, FROZEN_C)),
        () if kind == VesselKind::OnCake && prepared.fat_outside() => Some((Watched::Mean, FIRM_C)),
        () if kind == VesselKind::OnCake && gelatin => Some((Watched::Mean, GLAZE_STANDS_C)),
        () if kind == VesselKind::OnCake && prepared.melts() => Some((Watched::Mean, DRIP_STANDS_C)),
        () if !gelatin && prepared.networks.agar.percent > 0.0 => Some((Watched::Hottest, AGAR_C)),
        () => None,
    }
}

/// What of it sets, and when: soonest, usual and latest, s.
fn stages(
    prepared: &Prepared,
    cooling: &Cooling,
    courses: &Courses,
    turns_out: f64,
) -> Vec<(SetStage, [Option<f64>; 3])> {
    let all = [&courses.soonest, &courses.usual, &courses.latest];
    let networks = &prepared.networks;
    let mut found = Vec::new();
    let comes_to = |t_c: f64, watched: Watched| all.map(|course| course.time_to(watched, t_c));
    let kind = cooling.filled.kind();
    if cooling.ends_c() < FROZEN_C && kind != VesselKind::OnCake && cooling.freezes_at(FROZEN_C) {
        // What freezes comes out of its mould as ice, whatever else sets in it.
        return vec![(SetStage::Frozen, comes_to(FROZEN_C, Watched::Hottest))];
    }
    if networks.gelatin.full_pa > 0.0 && !networks.gelatin_undone {
        for (stage, share) in [(SetStage::TakesALayer, TAKES_A_LAYER), (SetStage::TurnsOut, turns_out)] {
            let hours = gelatin_hours_for(share, networks.gelatin.percent);
            let rate = |t_c: f64| gelatin_rate(prepared, t_c);
            found.push((stage, all.map(|course| counted(course, Watched::Hottest, hours, rate))));
        }
    } else if networks.agar.percent > 0.0 && !networks.agar.raw {
        found.push((SetStage::AgarSet, comes_to(AGAR_C, Watched::Hottest)));
    } else if networks.starch_sets() {
        let hours = -(1.0 - CUTS).ln();
        found.push((
            SetStage::StarchSet,
            all.map(|course| counted(course, Watched::Hottest, hours, starch_rate)),
        ));
    } else if prepared.melts() && cooling.is_shell() {
        // Seeds are there: what sets it is the quick step. At 12 °C minutes, at 18 the better part of an hour, over 27 never.
        let hours = -(1.0 - SHRUNK).ln();
        let rate = |t_c: f64| quick_rate(t_c) / prepared.chocolate_slower();
        found.push((SetStage::Shell, all.map(|course| counted(course, Watched::Hottest, hours, rate))));
    } else if prepared.melts() && cooling.begins().0[USUAL] > MELTED_C {
        let hours = (-(1.0 - RESTED).ln()).powf(2.0 / 3.0);
        let rate = |t_c: f64| slow_rate(t_c) / prepared.chocolate_slower();
        found.push((SetStage::Rested, all.map(|course| counted(course, Watched::Mean, hours, rate))));
    }
    if kind == VesselKind::OnCake {
        match () {
            () if prepared.fat_outside() => {
                found.insert(0, (SetStage::Firm, comes_to(FIRM_C, Watched::Mean)))
            }
            () if networks.gelatin.full_pa > 0.0 => {
                found.insert(0, (SetStage::Stands, comes_to(GLAZE_STANDS_C, Watched::Mean)));
            }
            () if prepared.melts() => {
                found.insert(0, (SetStage::Stands, comes_to(DRIP_STANDS_C, Watched::Mean)))
            }
            () => {}
        }
    }
    found
}

/// What of it sets, and when, in words.
///
/// # Arguments
/// * `turns_out`: share of its full strength at which gelatin comes out of its mould.
pub fn sets(
    prepared: &Prepared,
    cooling: &Cooling,
    courses: &Courses,
    turns_out: f64,
    wall: Wall,
) -> Vec<Sets> {
    stages(prepared, cooling, courses, turns_out)
        .into_iter()
        .map(|(stage, found)| {
            let found = found.map(|s| s.filter(|s| *s < LONGEST_S));
            let [soonest, usual, latest] = found.map(|s| s.map(|s| s / 60.0));
            let says = stage.says();
            let Some(usual) = usual else {
                let ends_c = cooling.ends_c();
                let sentence =
                    format!("{says}: not within two days at {ends_c:.0} °C, put it somewhere colder");
                return Sets { stage, when: None, sentence };
            };
            let latest = latest.map(|latest| latest.max(usual));
            // Nobody is told to take out early what may not have set: the latest is what counts.
            let by = latest.unwrap_or(usual);
            let not_before = match soonest {
                _ if latest.is_none() => ", perhaps never".to_owned(),
                Some(soonest) if soonest < 0.9 * by => match wall.0 {
                    Some(_) => format!(", not before {}", wall.time(soonest)),
                    None => format!(", not within {}", wall.time(soonest)),
                },
                _ => String::new(),
            };
            let at = match wall.0 {
                Some(_) => format!("by {}", wall.time(by)),
                None => wall.at(by),
            };
            let sentence = format!("{says} {at}{not_before}{}", stage.then(cooling.filled.kind()));
            Sets { stage, when: Some(wall.when(usual, soonest, latest)), sentence }
        })
        .collect()
}
