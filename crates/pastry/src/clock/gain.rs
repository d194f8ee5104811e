//! What would be sooner: a stir, a wider tray, a draught, the fridge, iced water.

use crate::clock::cooling::{Begins, Cooling, Mass, USUAL};
use crate::clock::document::ClockDocument;
use crate::clock::path::gelatin_rate;
use crate::clock::sets::SetStage;
use crate::clock::when::{Wall, minutes, rounded};
use crate::clock::window::right;
use crate::heat::body::Watched;
use crate::heat::network::Until;
use crate::heat::stand::StandDocument;
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::{VesselDocument, VesselKind};
use crate::job::judge::Question;
use serde::Serialize;
use utoipa::ToSchema;

/// Another way to stand, and what it gains.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Gain {
    /// "Stirred every 5 min".
    pub words: String,
    /// The vessel then.
    pub vessel: VesselDocument,
    /// Where it stands then.
    pub places: Vec<StandDocument>,
    /// When it is ready or right then, min.
    pub from_min: f64,
    /// Until when; none where it stays right or nobody asks.
    pub to_min: Option<f64>,
    /// Sooner by so many minutes; later where below 0.
    pub sooner_min: f64,
    /// "right to drip 13:31 to 13:39, 39 min sooner".
    pub says: String,
}

/// What is waited for.
#[derive(Clone, Copy)]
pub enum Waited<'a> {
    /// Right for its job, at these temperatures.
    Right(&'a Question<'a>, &'a [[f64; 2]]),
    /// Set so far: gelatin, hours at full rate.
    Gelatin(&'a Question<'a>, f64),
    /// A point at a temperature, °C.
    Comes(Watched, f64),
}

/// Not worth saying: less than this many minutes, or this share.
const LEAST_MIN: f64 = 1.0;
const LEAST_SHARE: f64 = 0.05;
/// What takes longer is no help, min.
const LONGEST_MIN: f64 = 2880.0;

/// From and to, min, of the usual way; none where it never comes there.
fn waits(cooling: &Cooling, waited: Waited) -> Option<[Option<f64>; 2]> {
    match waited {
        Waited::Right(question, spans) => {
            let coldest = spans.iter().map(|span| span[0]).fold(f64::INFINITY, f64::min);
            let hottest = spans.iter().map(|span| span[1]).fold(f64::NEG_INFINITY, f64::max);
            let last = if cooling.cools() { coldest } else { hottest };
            let goals = [(cooling.watched(), cooling.reachable(last))];
            let course = cooling.course(USUAL, Until::Beyond(&goals, 1.1, 0.0));
            let stay = right(question, &course, cooling.watched(), spans)?;
            Some([Some(stay.from_s / 60.0), stay.to_s.map(|s| s / 60.0)])
        }
        Waited::Gelatin(question, hours) => {
            let goals = [(Watched::Hottest, cooling.reachable(8.0))];
            let course = cooling.course(USUAL, Until::Beyond(&goals, 1.1, 0.0));
            let rate = |t_c: f64| gelatin_rate(question.prepared, t_c);
            let end = crate::clock::sets::counted(&course, Watched::Hottest, hours, rate)?;
            Some([Some(end / 60.0), None])
        }
        Waited::Comes(watched, t_c) => {
            let goals = [(watched, t_c)];
            let course = cooling.course(USUAL, Until::Beyond(&goals, 1.0, 0.0));
            Some([Some(course.time_to(watched, t_c)? / 60.0), None])
        }
    }
}

fn others(document: &ClockDocument) -> Vec<(String, VesselDocument, Vec<StandDocument>)> {
    let vessel = document.vessel;
    let Some(last) = document.places.last().copied() else { return Vec::new() };
    let place = |place: Surroundings| StandDocument { min: None, ..StandDocument::at(place) };
    let mut all = Vec::new();
    let bowl = vessel.kind == VesselKind::Bowl;
    let calm = StandDocument { min: None, stir_min: None, ..last };
    if bowl && last.stir_min.is_none() {
        all.push(("Stirred every 5 min".to_owned(), vessel, vec![calm.stirred(5.0)]));
    }
    let tray = VesselDocument::usual(VesselKind::Tray);
    if bowl || vessel.kind == VesselKind::Bag {
        all.push(("In a wide tray".to_owned(), tray, vec![calm]));
    }
    if bowl && last.place != Surroundings::IceBath {
        let ice = place(Surroundings::IceBath).stirred(1.0);
        all.push(("Over ice, stirred".to_owned(), vessel, vec![ice]));
    }
    let colder: &[Surroundings] = match last.place {
        Surroundings::Bench => &[Surroundings::Draught, Surroundings::Fridge],
        Surroundings::Draught => &[Surroundings::Fridge],
        Surroundings::Fridge => &[Surroundings::FanFridge, Surroundings::Blast, Surroundings::Freezer],
        Surroundings::FanFridge => &[Surroundings::Blast, Surroundings::Freezer],
        Surroundings::Freezer => &[Surroundings::FanFreezer, Surroundings::HardBlast],
        Surroundings::FanFreezer => &[Surroundings::HardBlast],
        _ => &[],
    };
    for other in colder {
        let words = other.words();
        let said = format!("{}{}", words[..1].to_uppercase(), &words[1..]);
        all.push((said, vessel, vec![place(*other)]));
    }
    if bowl && last.place == Surroundings::Bench && last.stir_min.is_none() {
        all.push(("In a wide tray, stirred every 5 min".to_owned(), tray, vec![calm.stirred(5.0)]));
    }
    all
}

/// What would be sooner than `now`, min (or at all, where it never comes to it), the soonest last that still gives time.
#[allow(clippy::too_many_arguments)]
pub fn gains(
    mass: &Mass,
    document: &ClockDocument,
    kg: f64,
    begins: Begins,
    waited: Waited,
    now: Option<f64>,
    wall: Wall,
) -> Vec<Gain> {
    let room_c = document.formula.work.room_temperature_c.celsius();
    let density = mass.material(true).density();
    let mut found: Vec<Gain> = others(document)
        .into_iter()
        .filter_map(|(words, vessel, places)| {
            let vessel = match vessel.kind {
                VesselKind::Tray => wide_enough(vessel, kg, density),
                _ => vessel,
            };
            if !vessel.faults("", kg, density).is_empty() {
                return None;
            }
            let cooling = Cooling::new(mass, kg, &vessel, &places, begins, room_c).poured();
            let [from, to] = waits(&cooling, waited)?;
            let from_min = from.filter(|min| *min < LONGEST_MIN)?;
            let sooner = now.map_or(f64::INFINITY, |now| now - from_min);
            if sooner < LEAST_MIN || now.is_some_and(|now| sooner < LEAST_SHARE * now) {
                return None;
            }
            let by = if sooner.is_finite() { format!(", {} sooner", minutes(sooner)) } else { String::new() };
            let says = match (waited, to) {
                (Waited::Right(question, _), Some(to)) => {
                    format!("right to {} {}{by}", question.job.verb(), wall.span(from_min, to))
                }
                (Waited::Right(question, _), None) => {
                    format!("right to {} {}{by}", question.job.verb(), from_words(wall, from_min))
                }
                (Waited::Gelatin(..), _) => {
                    format!("{} {}{by}", SetStage::TurnsOut.says().to_lowercase(), wall.at(from_min))
                }
                (Waited::Comes(_, t_c), _) => format!("{t_c:.0} °C {}{by}", wall.at(from_min)),
            };
            Some(Gain {
                words,
                vessel,
                places,
                from_min: rounded(from_min),
                to_min: to.map(rounded),
                sooner_min: if sooner.is_finite() { rounded(sooner) } else { 0.0 },
                says,
            })
        })
        .collect();
    found.sort_by(|a, b| b.from_min.total_cmp(&a.from_min));
    found
}

fn from_words(wall: Wall, min: f64) -> String {
    match wall.0 {
        Some(_) => format!("from {}", wall.time(min)),
        None => format!("from {} on", minutes(min)),
    }
}

/// As many trays as keep it under four centimetres.
fn wide_enough(tray: VesselDocument, kg: f64, density: f64) -> VesselDocument {
    let depth_m = tray.filled(kg, density).depth_m;
    let count = (depth_m / 0.04).ceil().clamp(1.0, 200.0) as u32;
    VesselDocument { count: (count > 1).then_some(count), ..tray }
}
