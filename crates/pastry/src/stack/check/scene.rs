//! A cake with all that is needed to ask whether it stands, and how its numbers are said.

use crate::assess::document::Work;
use crate::job::kind::Job;
use crate::number::two_digits;
use crate::stack::address::At;
use crate::stack::amount::Amount;
use crate::stack::check::finding::BenchWork;
use crate::stack::cream::{Cream, Makings};
use crate::stack::document::StackDocument;
use crate::stack::place::{Layout, Spot, Stuff};
use crate::units::{Length, RoomTemperature, Temperature};

/// A cake with all that is needed to ask whether it stands.
pub struct Scene<'a> {
    /// The cake.
    pub document: &'a StackDocument,
    /// Laid out.
    pub layout: &'a Layout<'a>,
    /// What it is made of.
    pub makings: &'a Makings,
    /// How much of it.
    pub amounts: &'a [Amount],
    /// The room it is eaten in, °C.
    pub room_c: f64,
}

impl<'a> Scene<'a> {
    /// The temperature it is eaten at, °C.
    pub fn serve_c(&self) -> f64 {
        self.document.serve_c.filter(|t| t.is_finite()).unwrap_or(self.room_c).clamp(0.0, 45.0)
    }

    /// The warmest it must stand at, °C, and when: on the table or on the way.
    pub fn warmest(&self) -> (f64, &'static str) {
        match self.document.transport_c.filter(|t| t.is_finite()) {
            Some(way) if way > self.serve_c() => (way.clamp(0.0, 45.0), "on the way"),
            _ => (self.serve_c(), "when it is eaten"),
        }
    }

    /// The component of a place, with its key.
    pub fn cream_of(&self, spot: &Spot<'a>) -> Option<(&'a str, &'a Cream)> {
        let Stuff::Component(Some(key)) = spot.stuff else { return None };
        Some((key, self.makings.cream(Some(key))?))
    }

    /// Work for the Bench.
    pub fn bench(&self, key: &str, cream: &Cream, job: Job, t_c: f64) -> Option<BenchWork> {
        let usual = crate::assess::usual::jobs(cream.document.family);
        usual.contains(&job.word()).then(|| BenchWork {
            component: key.to_owned(),
            work: Work {
                job,
                temperature_c: Temperature::from_celsius(t_c.clamp(0.0, cream.document.grid().hottest_c())),
                room_temperature_c: RoomTemperature::from_celsius(self.room_c.clamp(0.0, 45.0)),
                history: None,
                pour_temperature_c: cream.document.work.pour_temperature_c,
            },
        })
    }

    /// A place by where it stands.
    pub fn spot(&self, tier: usize, at: At) -> Option<(usize, &Spot<'a>)> {
        self.layout.spots.iter().enumerate().find(|(_, spot)| (spot.tier, spot.at) == (tier, at))
    }
}

/// A length as the document takes one.
pub fn mm(cm: f64) -> Length {
    Length::from_millimetres((10.0 * cm).clamp(Length::MIN, Length::MAX))
}

/// Grams as they are said: "1.2 kg", "340 g".
pub fn weight(grams: f64) -> String {
    if grams >= 1000.0 { format!("{:.1} kg", 1e-3 * grams) } else { format!("{} g", two_digits(grams)) }
}
