//! What a mass stands in while it cools or warms: its sizes, its wall, what is open of it, and what is wrong with those.

use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use crate::heat::form::bowl_volume;
use crate::heat::underneath::Underneath;
use crate::heat::wall::{Wall, table};
use crate::number::limit;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::LazyLock;
use utoipa::ToSchema;

codes! {
    /// What a mass stands in.
    VesselKind {
        /// A round bowl.
        Bowl = "bowl",
        /// A wide flat tray.
        Tray = "tray",
        /// Moulds of one piece each.
        Mould = "mould",
        /// Half balls.
        Dome = "dome",
        /// A ring.
        Ring = "ring",
        /// Cups and glasses.
        Cup = "cup",
        /// Jars with a lid.
        Jar = "jar",
        /// Bottles.
        Bottle = "bottle",
        /// Piping bags, lying.
        Bag = "bag",
        /// Spread or poured on a cake.
        OnCake = "on_cake",
        /// A finished cake in its box.
        Boxed = "boxed",
    }
}

/// A vessel. Sizes that are not said are usual ones; a bowl's hangs on what goes in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VesselDocument {
    /// What it is.
    pub kind: VesselKind,
    /// What its wall is made of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall: Option<Wall>,
    /// How wide, mm: a bowl at its rim; the shorter way of a dome's foot.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub diameter_mm: Option<f64>,
    /// How high it is filled, mm; of a coat how thick.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 500)]
    pub height_mm: Option<f64>,
    /// How long a tray is, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub length_mm: Option<f64>,
    /// How wide a tray is, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 5, maximum = 1500)]
    pub width_mm: Option<f64>,
    /// So many bowls, trays or bags, the mass shared between them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 200)]
    pub count: Option<u32>,
    /// Whether film or a lid is on it; as is usual for it when it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub covered: Option<bool>,
    /// What it comes on; of a coat alone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<Underneath>,
    /// How cold that is, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40, maximum = 45)]
    pub on_c: Option<f64>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub(super) enum Kind {
    Bowl,
    Tray,
    Piece,
    Dome,
    Bag,
    Coat,
    Boxed,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub(super) enum Cover {
    Film,
    Open,
    Lid,
    Closed,
}

#[derive(Debug, Clone, Deserialize)]
pub(super) struct Usual {
    vessel: VesselKind,
    pub(super) words: String,
    pub(super) form: Kind,
    pub(super) wall: Wall,
    pub(super) diameter_mm: Option<f64>,
    pub(super) height_mm: Option<f64>,
    most_kg: Option<f64>,
    pub(super) cover: Cover,
}

static USUAL: LazyLock<HashMap<VesselKind, Usual>> =
    LazyLock::new(|| table(include_str!("../../data/vessels.csv"), |row: &Usual| row.vessel));
/// Rims of bowls, mm (common practice).
const RIMS_MM: [f64; 12] =
    [120.0, 140.0, 160.0, 180.0, 200.0, 220.0, 240.0, 280.0, 320.0, 360.0, 420.0, 500.0];
/// Trays, mm (common practice), and how low a mass stands in one.
const TRAYS_MM: [[f64; 2]; 3] = [[300.0, 200.0], [400.0, 300.0], [600.0, 400.0]];
const LOW_M: f64 = 0.012;
/// A bowl is filled to this share of what it holds.
pub(super) const FILLED: f64 = 0.6;
/// Deepest a tray or a bag is filled, m.
const DEEPEST_M: f64 = 0.1;
/// Millimetres as centimetres are said.
pub(super) fn cm(mm: f64) -> String {
    limit((mm * 0.1 * 10.0).round() / 10.0)
}

impl VesselKind {
    pub(super) fn row(self) -> &'static Usual {
        &USUAL[&self]
    }
}

impl VesselDocument {
    /// One of usual sizes.
    pub fn usual(kind: VesselKind) -> Self {
        VesselDocument {
            kind,
            wall: None,
            diameter_mm: None,
            height_mm: None,
            length_mm: None,
            width_mm: None,
            count: None,
            covered: None,
            on: None,
            on_c: None,
        }
    }

    /// What is wrong with it for so much of so dense a mass, kg and kg/m³.
    pub fn faults(&self, path: &str, kg: f64, density: f64) -> Vec<Fault> {
        let own = &USUAL[&self.kind];
        let at = |field: &str| format!("{path}.{field}");
        let mut faults = Vec::new();
        let read: &[&str] = match own.form {
            Kind::Bowl => &["diameter_mm", "count"],
            Kind::Tray => &["length_mm", "width_mm", "count"],
            Kind::Piece | Kind::Dome | Kind::Boxed => &["diameter_mm", "height_mm"],
            Kind::Bag => &["diameter_mm", "count"],
            Kind::Coat => &["height_mm", "on", "on_c"],
        };
        let written = [
            ("diameter_mm", self.diameter_mm.is_some()),
            ("height_mm", self.height_mm.is_some()),
            ("length_mm", self.length_mm.is_some()),
            ("width_mm", self.width_mm.is_some()),
            ("count", self.count.is_some()),
            ("on", self.on.is_some()),
            ("on_c", self.on_c.is_some()),
        ];
        for (field, _) in written.iter().filter(|(field, written)| *written && !read.contains(field)) {
            let words = format!("{} does not have it: leave it out", own.words);
            faults.push(Fault::new(at(field), FaultCode::WrongValue, words));
        }
        let sizes = [
            ("diameter_mm", self.diameter_mm, [5.0, 1500.0]),
            ("height_mm", self.height_mm, [0.5, 500.0]),
            ("length_mm", self.length_mm, [5.0, 1500.0]),
            ("width_mm", self.width_mm, [5.0, 1500.0]),
            ("on_c", self.on_c, [-40.0, 45.0]),
        ];
        for (field, size, [low, high]) in sizes {
            if size.is_some_and(|size| !(low..=high).contains(&size)) {
                let words = format!("between {} and {}", limit(low), limit(high));
                faults.push(Fault::new(at(field), FaultCode::OutOfRange, words));
            }
        }
        if self.count.is_some_and(|count| !(1..=200).contains(&count)) {
            faults.push(Fault::new(at("count"), FaultCode::OutOfRange, "1 to 200 of them"));
        }
        if !faults.is_empty() {
            return faults;
        }
        let volume = kg / density / f64::from(self.count.unwrap_or(1));
        match own.form {
            Kind::Bowl if self.diameter_mm.is_some_and(|mm| bowl_volume(5e-4 * mm, 5e-4 * mm) < volume) => {
                let words = match rim_for(volume / 0.95) {
                    Some(mm) => {
                        format!("it goes over the rim: take a bowl of {} cm, or more of them", cm(mm))
                    }
                    None => "it goes over the rim: take more of them".to_owned(),
                };
                faults.push(Fault::new(at("diameter_mm"), FaultCode::TooLarge, words));
            }
            Kind::Bowl if self.diameter_mm.is_none() && rim_for(volume / FILLED).is_none() => {
                let words = format!("{} kg are more than one bowl holds: say how many", limit(kg));
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            Kind::Tray if volume / self.area(volume) > DEEPEST_M => {
                let count = (kg / density / self.area(volume) / DEEPEST_M).ceil();
                let words = format!(
                    "it would stand {:.0} mm deep: take {count:.0} of them, or larger ones",
                    1e3 * volume / self.area(volume)
                );
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            Kind::Bag if own.most_kg.is_some_and(|most| kg > most * f64::from(self.count.unwrap_or(1))) => {
                let count = (kg / own.most_kg.unwrap_or(1.0)).ceil();
                let words = format!("{} kg need {count:.0} bags: say so", limit(kg));
                faults.push(Fault::new(at("count"), FaultCode::TooLarge, words));
            }
            _ => {}
        }
        faults
    }

    /// Length and width of a tray for so much in it, mm: where nobody said, the smallest in which it stands low.
    pub(super) fn tray_mm(&self, volume: f64) -> [f64; 2] {
        let low = |[length, width]: &[f64; 2]| volume / (1e-6 * length * width) <= LOW_M;
        let usual = TRAYS_MM.into_iter().find(low).unwrap_or(TRAYS_MM[TRAYS_MM.len() - 1]);
        match (self.length_mm, self.width_mm) {
            (None, None) => usual,
            (Some(length), None) => [length, length.min(usual[1])],
            (None, Some(width)) => [width.max(usual[0]), width],
            (Some(length), Some(width)) => [length, width],
        }
    }

    /// Area of it, m².
    pub(super) fn area(&self, volume: f64) -> f64 {
        let [length, width] = self.tray_mm(volume);
        1e-6 * length * width
    }

    /// Whether what is in it can be stirred.
    pub fn stirs(&self) -> bool {
        matches!(self.kind, VesselKind::Bowl | VesselKind::Tray)
    }

    /// Whether it can stand in water.
    pub fn stands_in_water(&self) -> bool {
        !matches!(self.kind, VesselKind::OnCake | VesselKind::Boxed)
    }
}

/// The narrowest bowl that holds so much, mm.
pub(super) fn rim_for(volume: f64) -> Option<f64> {
    RIMS_MM.into_iter().find(|mm| bowl_volume(5e-4 * mm, 5e-4 * mm) >= volume)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_vessel_takes_a_kilogram_and_says_what_it_is() {
        for kind in VesselKind::ALL {
            let vessel = VesselDocument::usual(*kind);
            assert_eq!(vessel.faults("vessel", 1.0, 1100.0), [], "{kind}");
            let filled = vessel.filled(1.0, 1100.0);
            assert!(filled.kg_each > 0.0 && filled.depth_m > 0.0 && filled.words.len() > 5, "{kind}");
            assert!(filled.count * filled.kg_each > 0.2, "{kind}: {filled:?}");
        }
        for wall in Wall::ALL {
            assert!(wall.row().resistance >= 0.0, "{wall}");
        }
    }

    #[test]
    fn a_bowl_is_as_wide_as_what_goes_in_and_never_runs_over() {
        let bowl = VesselDocument::usual(VesselKind::Bowl);
        let words = |kg: f64| bowl.filled(kg, 1100.0).words;
        assert_eq!(words(1.0), "a steel bowl 18 cm wide");
        assert_eq!(words(0.3), "a steel bowl 14 cm wide");
        let small = VesselDocument { diameter_mm: Some(120.0), ..bowl };
        let faults = small.faults("vessel", 1.0, 1100.0);
        assert_eq!(faults[0].message, "it goes over the rim: take a bowl of 16 cm, or more of them");
        let tray = VesselDocument::usual(VesselKind::Tray);
        assert!(tray.faults("vessel", 30.0, 1100.0)[0].message.contains("2 of them"));
        let odd = VesselDocument { height_mm: Some(20.0), ..tray };
        assert!(odd.faults("vessel", 1.0, 1100.0)[0].message.contains("leave it out"));
    }
}
