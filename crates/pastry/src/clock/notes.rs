//! What else is to be minded: what freezing spoils, a fridge that warms, bursts, sweat, when a finished cake is ready.

use crate::clock::cooling::{Cooling, Courses, Mass, USUAL};
use crate::clock::document::ClockDocument;
use crate::clock::when::Wall;
use crate::formula::Family;
use crate::formula::keeping::keeping;
use crate::heat::air::dew_point;
use crate::heat::body::Watched;
use crate::heat::stirred::burst_s;
use crate::heat::surroundings::Surroundings;
use crate::heat::vessel::VesselKind;
use crate::number::two_digits;
use serde::Serialize;
use utoipa::ToSchema;

/// Room humidity, 0 to 1, for what sweats (assumed).
const ROOM_HUMIDITY: f64 = 0.5;
/// More than this warms a whole fridge, W (assumed): without a fan, and with one.
const FRIDGE_W: [f64; 2] = [100.0, 350.0];
/// A cake is eaten with its middle at this or above, °C (common practice).
const EATEN_C: f64 = 14.0;
/// How long it may be out of the cold, min (FDA Food Code 3-501.19, from memory; the local code decides).
const OUT_OF_THE_COLD_MIN: f64 = 240.0;

/// A note.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClockNote {
    /// Whether it stands in the way.
    pub serious: bool,
    /// In words.
    pub words: String,
}

/// What is to be minded of a way.
pub fn notes(
    document: &ClockDocument,
    mass: &Mass,
    cooling: &Cooling,
    courses: &Courses,
    wall: Wall,
) -> Vec<ClockNote> {
    let mut notes = Vec::new();
    let mut add = |serious: bool, words: String| notes.push(ClockNote { serious, words });
    let family: Family = document.formula.family;
    let coldest = courses.soonest.moments.iter().map(|moment| moment.coldest).fold(f64::INFINITY, f64::min);
    let freezing = document.places.iter().any(|place| place.place.freezes());
    if freezing && keeping(family).freeze_days.is_none() {
        let words = match mass.freezes_c() {
            Some(begins) if coldest > begins => format!(
                "A {} suffers when it freezes: take it out before its skin is at −{:.0} °C",
                family.word(),
                -begins
            ),
            _ => format!("A {} suffers when it freezes, and weeps: chill it in the fridge", family.word()),
        };
        add(true, words);
    }
    if cooling.is_shell() && cooling.cools() {
        let words = "It must be tempered: what is not sets grey and soft, and never lets go of its mould. Dip a knife \
                     first: in a room of 20 °C it is dry and shiny in five minutes";
        add(false, words.to_owned());
    }
    let kg = cooling.filled.kg_each * cooling.filled.count.max(1.0);
    let watts = |seconds: f64| {
        let [a, b] = [0.0, seconds].map(|s| courses.usual.at(Watched::Mean, s));
        kg * (cooling.material().held(a) - cooling.material().held(b)) / seconds
    };
    for (place, most) in [(Surroundings::Fridge, FRIDGE_W[0]), (Surroundings::FanFridge, FRIDGE_W[1])] {
        let load = watts(600.0);
        if document.places.first().is_some_and(|first| first.place == place) && load > most {
            let words = format!(
                "{} W at first warm the whole fridge and what stands in it: cool it over ice before",
                two_digits(load)
            );
            add(false, words);
        }
    }
    if let Some(first) = document.places.first().filter(|place| place.place == Surroundings::Microwave) {
        let kg = cooling.filled.kg_each;
        let watts = first.watts(kg, mass.water);
        let burst = burst_s(cooling.material().capacity(25.0), kg, watts);
        let words = format!(
            "In bursts of {burst:.0} s, stirred each time: hot spots run three and four times ahead of the mean, and \
             chocolate scorches above 50 °C. Check with a probe"
        );
        add(false, words);
    }
    let room_c = document.formula.work.room_temperature_c.celsius();
    let warms =
        !cooling.cools() && document.places.last().is_some_and(|place| place.place == Surroundings::Bench);
    let dew_c = dew_point(room_c, ROOM_HUMIDITY);
    let piece = !document.vessel.stirs() && document.vessel.kind != VesselKind::Bag;
    if piece && warms && cooling.begins().0[USUAL] < dew_c {
        let words = match courses.usual.time_to(Watched::Skin, dew_c) {
            Some(s) => format!(
                "It sweats until its skin is at {dew_c:.0} °C, {}: leave it wrapped or in its box till then",
                wall.at(s / 60.0)
            ),
            None => format!("It sweats there: its skin stays under {dew_c:.0} °C"),
        };
        add(false, words);
    }
    if document.vessel.kind == VesselKind::Boxed && !cooling.cools() {
        let ready = courses.time_to(Watched::Core, EATEN_C);
        let out = "four hours out of the cold in all, then it is thrown away; your food code decides";
        let words = match ready[1] {
            Some(min) => {
                let when = wall.when(min, ready[0], ready[2]);
                let spread = when.spread_words.map_or(String::new(), |spread| format!(" ({spread})"));
                match min > OUT_OF_THE_COLD_MIN {
                    true => format!(
                        "Its middle is at {EATEN_C:.0} °C only {}{spread}, later than it may stand: eat it cooler, or take it out \
                         of its box; {out}",
                        wall.at(min)
                    ),
                    false => format!(
                        "Ready to eat {}, with its middle at {EATEN_C:.0} °C{spread}; {out}",
                        when.words
                    ),
                }
            }
            None => format!("Its middle never comes to {EATEN_C:.0} °C there; {out}"),
        };
        add(false, words);
    }
    if document.vessel.kind == VesselKind::OnCake && document.vessel.on_c.is_none() {
        add(false, "The cake under it is taken to be at 5 °C".to_owned());
    }
    notes
}
