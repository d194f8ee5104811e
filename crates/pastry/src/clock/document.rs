//! What is asked of the clock: a formula, how much of it, in what, and where that stands.

use crate::assess::FormulaDocument;
use crate::fault::{Fault, FaultCode};
use crate::heat::case::BodyPoint;
use crate::heat::safety::CoolingRule;
use crate::heat::stand::{LONGEST_MIN, LearnedPlace, StandDocument};
use crate::heat::surroundings::By;
use crate::heat::vessel::VesselDocument;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a probe read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ProbeDocument {
    /// After so long, min.
    #[schema(exclusive_minimum = 0, maximum = 20160)]
    pub min: f64,
    /// It read, °C.
    #[schema(minimum = -40, maximum = 125)]
    pub c: f64,
    /// Where it stuck; in the middle where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<BodyPoint>,
}

impl ProbeDocument {
    /// What is wrong with it where it is read of such a way.
    pub fn faults(&self, document: &ClockDocument) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut add = |field: &str, code: FaultCode, words: &str| {
            faults.push(Fault::new(format!("probe.{field}"), code, words));
        };
        if !(1e-3..=20160.0).contains(&self.min) {
            add("min", FaultCode::OutOfRange, "between 0 and 20160 minutes");
        }
        if !(-40.0..=125.0).contains(&self.c) {
            add("c", FaultCode::OutOfRange, "between -40 and 125 °C");
        }
        let one = document.places.len() == 1 && document.places[0].place.known().by == By::Air;
        if !one {
            add(
                "min",
                FaultCode::WrongValue,
                "a reading tells of one place with air in it: name that place alone",
            );
        }
        if document.places.first().is_some_and(|place| place.stir_min.is_some()) {
            add("min", FaultCode::WrongValue, "read it in a mass that is not stirred");
        }
        if document.start_c.is_none() {
            add("min", FaultCode::WrongValue, "say how warm it was at first: start_c");
        }
        faults
    }
}

/// A formula in its vessel, and where it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClockDocument {
    /// The formula; the room is that of its work.
    pub formula: FormulaDocument,
    /// How much of it, kg; the batch as it is written where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000)]
    pub kg: Option<f64>,
    /// What it stands in.
    pub vessel: VesselDocument,
    /// Where it stands, one place after the other.
    #[schema(min_items = 1, max_items = 6)]
    pub places: Vec<StandDocument>,
    /// How warm it is at first, °C; where its school of method leaves it when it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40, maximum = 125)]
    pub start_c: Option<f64>,
    /// The time on the wall when it begins: "13:05".
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 5, example = "13:05")]
    pub at: Option<String>,
    /// A temperature that is asked for besides its job, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40, maximum = 125)]
    pub to_c: Option<f64>,
    /// Of which point; of the mean where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<BodyPoint>,
    /// How long it stands before it is judged as set, min; until it turns out where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 20160)]
    pub after_min: Option<f64>,
    /// Whose limits of cooling are kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rule: Option<CoolingRule>,
    /// What a probe read in the middle of it: the place is counted as the reading has it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe: Option<ProbeDocument>,
    /// The kitchen's own places as its probe has read them: what is not said of a place is as it is there.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub learned: Vec<LearnedPlace>,
    /// Gelatin turns out at this share of its full strength; at the usual one where it is not said.
    #[serde(skip)]
    pub turns_out: Option<f64>,
    /// Only the way and when it is right: what would be sooner and safer is not looked for. For who drags a size.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub brief: bool,
}

impl ClockDocument {
    /// A formula in a vessel of usual sizes, in one place.
    pub fn of(formula: FormulaDocument, vessel: VesselDocument, place: StandDocument) -> Self {
        ClockDocument {
            formula,
            kg: None,
            vessel,
            places: vec![place],
            start_c: None,
            at: None,
            to_c: None,
            point: None,
            after_min: None,
            turns_out: None,
            rule: None,
            probe: None,
            learned: Vec::new(),
            brief: false,
        }
    }

    /// What is wrong with all but the formula.
    pub fn faults(&self, kg: f64, density: f64) -> Vec<Fault> {
        let mut faults = self.vessel.faults("vessel", kg, density);
        let many = self.places.len();
        if many == 0 || many > 6 {
            faults.push(Fault::new("places", FaultCode::HowMany, "name 1 to 6 places it stands in"));
        }
        for (at, place) in self.places.iter().enumerate() {
            faults.extend(place.faults(&format!("places.{at}"), &self.vessel, at + 1 == many));
        }
        let whole: f64 = self.places.iter().filter_map(|place| place.min).sum();
        if whole > LONGEST_MIN {
            let words = format!("{whole:.0} minutes are more than two weeks: shorten the last place");
            faults.push(Fault::new("places", FaultCode::TooLong, words));
        }
        let ranges = [
            ("kg", self.kg, [1e-3, 1000.0], "kg"),
            ("start_c", self.start_c, [-40.0, 125.0], "°C"),
            ("to_c", self.to_c, [-40.0, 125.0], "°C"),
            ("after_min", self.after_min, [1e-3, LONGEST_MIN], "minutes"),
        ];
        for (field, value, [low, high], unit) in ranges {
            if value.is_some_and(|value| !(low..=high).contains(&value)) {
                let words = format!("between {low} and {high} {unit}");
                faults.push(Fault::new(field, FaultCode::OutOfRange, words));
            }
        }
        for (at, own) in self.learned.iter().enumerate() {
            faults.extend(own.fault(&format!("learned.{at}")));
        }
        faults.extend(self.probe.iter().flat_map(|probe| probe.faults(self)));
        faults
    }
}
