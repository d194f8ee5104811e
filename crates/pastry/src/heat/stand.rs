//! A stretch of time that a vessel stands somewhere: as it is written down, and as its faces meet it.

use crate::fault::{Fault, FaultCode};
use crate::heat::body::{AsOne, Face, Moist, Stretch};
use crate::heat::filled::Filled;
use crate::heat::stirred::{STIRRED_S, microwave_w};
use crate::heat::surroundings::{By, Surroundings};
use crate::heat::vessel::{VesselDocument, VesselKind};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Longest that anything is followed, min.
pub const LONGEST_MIN: f64 = 20160.0;
/// What stirring all the time comes to, s: so often the spatula comes by the same wall (assumed).
const ALL_THE_TIME_S: f64 = 10.0;
/// A box and its board, m² K/W.
const BOARD: f64 = 4.3e-2;
/// Still air above what stands in water, W/(m² K): least, usual, most.
const ABOVE: [f64; 3] = [7.0, 10.0, 13.0];
/// A microwave's usual rating, W, and level.
const RATED_W: f64 = 800.0;
const LEVEL: f64 = 0.5;

/// A vessel stands somewhere for a while.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StandDocument {
    /// Where.
    pub place: Surroundings,
    /// How long, min; of the last one as long as it takes where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 20160)]
    pub min: Option<f64>,
    /// How warm it is there, °C; as is usual, or as the room.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40, maximum = 100)]
    pub air_c: Option<f64>,
    /// Heat transfer there, W/(m² K), where it was measured: then there is no band.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 3000)]
    pub h: Option<f64>,
    /// Minutes from stir to stir; 0 for all the time; not stirred where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 1440)]
    pub stir_min: Option<f64>,
    /// A microwave's rating, W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 50, maximum = 5000)]
    pub watts: Option<f64>,
    /// Its level, 0 to 1.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.05, maximum = 1)]
    pub level: Option<f64>,
}

/// A place of the kitchen, as a probe has read it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LearnedPlace {
    /// Which.
    pub place: Surroundings,
    /// How well it takes heat, W/(m² K).
    #[schema(minimum = 3, maximum = 60)]
    pub h: f64,
}

impl LearnedPlace {
    /// What is wrong with it: it is a place with air in it, and air takes 3 to 60 W/(m² K).
    pub fn fault(&self, path: &str) -> Option<Fault> {
        if self.place.known().by != By::Air {
            let words = "a reading tells of a place with air in it: leave this one as usual";
            return Some(Fault::new(format!("{path}.place"), FaultCode::WrongValue, words));
        }
        let words = "between 3 and 60 W/(m² K): else the probe was not in the middle";
        (!(3.0..=60.0).contains(&self.h))
            .then(|| Fault::new(format!("{path}.h"), FaultCode::OutOfRange, words))
    }
}

/// What stands: how much of it is water, and how moist it is where it is open.
#[derive(Debug, Clone, Copy)]
pub struct Stands<'a> {
    /// The vessel with what is in it.
    pub filled: &'a Filled,
    /// Water, share of total.
    pub water: f64,
    /// Water activity; none where its surface gives off none.
    pub activity: Option<f64>,
    /// The room, °C.
    pub room_c: f64,
}

impl StandDocument {
    /// As the kitchen's own probe has read the place, where nobody says otherwise.
    pub fn as_read(self, learned: &[LearnedPlace]) -> Self {
        let read = learned.iter().find(|own| own.place == self.place).map(|own| own.h);
        StandDocument { h: self.h.or(read), ..self }
    }

    /// As long as it takes in a place.
    pub fn at(place: Surroundings) -> Self {
        StandDocument { place, min: None, air_c: None, h: None, stir_min: None, watts: None, level: None }
    }

    /// The same, stirred.
    pub fn stirred(self, every_min: f64) -> Self {
        StandDocument { stir_min: Some(every_min), ..self }
    }

    /// How warm it is there, °C.
    pub fn there_c(&self, room_c: f64) -> f64 {
        self.air_c.unwrap_or_else(|| self.place.air_c(room_c))
    }

    /// What is wrong with it.
    pub fn faults(&self, path: &str, vessel: &VesselDocument, last: bool) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut add = |field: &str, code: FaultCode, words: String| {
            faults.push(Fault::new(format!("{path}.{field}"), code, words));
        };
        let ranges = [
            ("min", self.min, [1e-3, LONGEST_MIN], "minutes"),
            ("air_c", self.air_c, [-40.0, 100.0], "°C"),
            ("h", self.h, [1.0, 3000.0], "W/(m² K)"),
            ("stir_min", self.stir_min, [0.0, 1440.0], "minutes"),
            ("watts", self.watts, [50.0, 5000.0], "W"),
            ("level", self.level, [0.05, 1.0], ""),
        ];
        for (field, value, [low, high], unit) in ranges {
            if value.is_some_and(|value| !(low..=high).contains(&value)) {
                let words = format!("between {low} and {high} {unit}");
                add(field, FaultCode::OutOfRange, words.trim().to_owned());
            }
        }
        if self.min.is_none() && !last {
            let words = "say how long it stands there: only the last place has as long as it takes";
            add("min", FaultCode::WrongValue, words.to_owned());
        }
        let by = self.place.known().by;
        if by == By::Water && !vessel.stands_in_water() {
            add("place", FaultCode::WrongValue, "a cake does not stand in water: take a fridge".to_owned());
        }
        if by == By::Waves && !matches!(vessel.kind, VesselKind::Bowl | VesselKind::Cup | VesselKind::Jar) {
            let words = "bursts are for what can be stirred: take a bowl";
            add("place", FaultCode::WrongValue, words.to_owned());
        }
        if by != By::Waves && (self.watts.is_some() || self.level.is_some()) {
            add("watts", FaultCode::WrongValue, "only a microwave has watts: leave it out".to_owned());
        }
        if self.stir_min.is_some() && !vessel.stirs() && by != By::Waves {
            let words =
                format!("nothing is stirred in {}: leave stir_min out", vessel.kind.word().replace('_', " "));
            add("stir_min", FaultCode::WrongValue, words);
        }
        faults
    }

    /// What it takes up of a microwave, W: none elsewhere.
    pub fn watts(&self, kg: f64, water: f64) -> f64 {
        match self.place {
            Surroundings::Microwave => {
                microwave_w(self.watts.unwrap_or(RATED_W), self.level.unwrap_or(LEVEL), kg, water)
            }
            _ => 0.0,
        }
    }

    /// As its faces meet it, with the least, the usual or the most heat transfer.
    pub fn stretch(&self, which: usize, stands: &Stands) -> Stretch {
        let Stands { filled, water, activity, room_c } = *stands;
        let own = self.place.known();
        let stirred = self.stir_min.is_some();
        let h = self.h.unwrap_or(self.place.transfer(stirred)[which]);
        let air_c = self.there_c(room_c);
        let moist = activity.filter(|_| filled.steams()).map(|activity| Moist {
            activity,
            open: 1.0,
            humidity: own.humidity,
            convection: own.convection,
        });
        let boxed = filled.kind() == VesselKind::Boxed;
        let wall = Face { h, air_c, resistance: filled.wall(), moist: None };
        let foot = Face {
            // A round bowl touches the bench with next to nothing.
            h: if filled.kind() == VesselKind::Bowl { h } else { h * own.foot },
            air_c,
            resistance: if boxed { BOARD } else { filled.wall() },
            moist: None,
        };
        let top = match own.by {
            By::Water => Face { h: ABOVE[which], air_c: room_c, resistance: filled.cover(), moist },
            _ => Face { h, air_c, resistance: filled.cover(), moist },
        };
        let coat = filled.kind() == VesselKind::OnCake;
        let every_s = self.stir_min.map(|min| (60.0 * min).max(ALL_THE_TIME_S));
        let every_s = every_s.or((own.by == By::Waves).then_some(ALL_THE_TIME_S));
        // What a microwave takes up is known to a factor 0.6 to 1.6.
        let taken = [0.6, 1.0, 1.6][which] * self.watts(filled.kg_each, water);
        Stretch {
            seconds: 60.0 * self.min.unwrap_or(LONGEST_MIN),
            top: Some(top),
            side: (!coat).then_some(wall),
            bottom: (!coat).then_some(foot),
            stir_s: every_s.filter(|every| *every > STIRRED_S),
            as_one: every_s
                .filter(|every| *every <= STIRRED_S)
                .map(|every_s| AsOne { every_s, watts: taken }),
        }
    }
}
