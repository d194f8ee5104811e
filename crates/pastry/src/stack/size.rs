//! Sizes of a cake's places: what each is called, its unit, and the range that is one, each declared once. The document
//! holds plain numbers, so that one that is none can be spoken of at its place; the check and the page both ask here.

use crate::number::limit;
use crate::stack::place::PlaceKind;
use serde::Serialize;
use utoipa::ToSchema;

/// A size of a kind of place.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Size {
    /// Of what.
    pub kind: PlaceKind,
    /// Its field below the place: `thickness_mm`, `length_mm.0`.
    pub field: &'static str,
    /// What it is called.
    pub word: &'static str,
    /// Its unit; empty for a count.
    pub unit: &'static str,
    /// Least.
    pub least: f64,
    /// Most.
    pub most: f64,
    /// One step of it.
    pub step: f64,
    /// What it is while nothing is written.
    pub usual: f64,
}

const fn mm(kind: PlaceKind, field: &'static str, word: &'static str, range: [f64; 2], usual: f64) -> Size {
    Size { kind, field, word, unit: "mm", least: range[0], most: range[1], step: 1.0, usual }
}

const fn count(kind: PlaceKind, word: &'static str, range: [f64; 2], usual: f64) -> Size {
    Size { kind, field: "count", word, unit: "", least: range[0], most: range[1], step: 1.0, usual }
}

impl Size {
    const fn by(self, step: f64) -> Self {
        Size { step, ..self }
    }

    const fn in_unit(self, unit: &'static str) -> Self {
        Size { unit, ..self }
    }

    /// Whether a number is one.
    pub fn holds(&self, value: f64) -> bool {
        (self.least..=self.most).contains(&value)
    }

    /// What to write: "0.5 to 1,000 mm".
    pub fn range(&self) -> String {
        let gap = if self.unit.is_empty() { "" } else { " " };
        format!("{} to {}{gap}{}", limit(self.least), limit(self.most), self.unit)
    }
}

/// All of them, in the order a cook writes them. Ranges assumed: what a kitchen can make, with room.
pub const SIZES: [Size; 33] = {
    use PlaceKind::{
        Border, Case, Coat, CrumbCoat, Dam, Drip, Filling, Film, Glaze, Insert, Pieces, Pile, Rosettes, Soak,
        Sponge,
    };
    [
        mm(Sponge, "thickness_mm", "Height", [0.5, 1000.0], 20.0),
        mm(Sponge, "trim_mm", "Trimmed off", [0.0, 1000.0], 0.0),
        mm(Soak, "dry_rim_mm", "Dry rim", [0.0, 100.0], 10.0),
        mm(Filling, "thickness_mm", "Height", [0.5, 1000.0], 10.0),
        mm(Dam, "width_mm", "Width", [1.0, 1000.0], 12.0),
        mm(Insert, "diameter_mm", "Across", [5.0, 1000.0], 40.0),
        mm(Insert, "thickness_mm", "Height", [0.5, 1000.0], 10.0),
        mm(Insert, "above_mm", "Above the foot", [0.0, 1000.0], 0.0),
        mm(CrumbCoat, "side_mm", "On the side", [0.1, 1000.0], 1.5).by(0.5),
        mm(CrumbCoat, "top_mm", "On top", [0.1, 1000.0], 1.5).by(0.5),
        mm(Coat, "side_mm", "On the side", [0.1, 1000.0], 5.0),
        mm(Coat, "top_mm", "On top", [0.1, 1000.0], 5.0),
        mm(Glaze, "side_mm", "On the side", [0.1, 1000.0], 2.0).by(0.5),
        mm(Glaze, "top_mm", "On top", [0.1, 1000.0], 2.0).by(0.5),
        count(Drip, "Drips", [0.0, 400.0], 30.0),
        mm(Drip, "dose_ml", "Each", [0.05, 20.0], 0.9).by(0.05).in_unit("ml"),
        mm(Drip, "length_mm.0", "Shortest", [1.0, 190.0], 25.0),
        mm(Drip, "length_mm.1", "Longest", [1.0, 190.0], 70.0),
        mm(Drip, "coat_c", "Coat is", [-20.0, 30.0], 6.0).in_unit("°C"),
        mm(Border, "tip_mm", "Nozzle", [1.0, 1000.0], 10.0),
        count(Rosettes, "Pieces", [1.0, 1000.0], 8.0),
        mm(Rosettes, "diameter_mm", "Across", [2.0, 1000.0], 25.0),
        mm(Rosettes, "height_mm", "Height", [1.0, 1000.0], 20.0),
        mm(Rosettes, "tip_mm", "Nozzle", [1.0, 39.0], 10.0),
        count(Pieces, "Pieces", [1.0, 1000.0], 8.0),
        mm(Pieces, "each_g", "Each", [0.05, 5000.0], 10.0).in_unit("g"),
        mm(Case, "form.wall_mm", "Wall", [0.0, 100.0], 3.0).by(0.5),
        mm(Case, "form.floor_mm", "Floor", [0.0, 100.0], 3.0).by(0.5),
        mm(Case, "form.flutes_mm", "Flutes", [0.0, 50.0], 0.0),
        mm(Case, "form.across_mm", "Hole across", [2.0, 500.0], 25.0),
        mm(Case, "form.deep_mm", "Hole deep", [2.0, 500.0], 25.0),
        mm(Film, "thickness_mm", "Thickness", [0.05, 5.0], 0.4).by(0.1),
        mm(Pile, "each_g", "For each piece", [0.1, 500.0], 4.0).in_unit("g"),
    ]
};

/// The size of a field of a kind of place.
pub fn size(kind: PlaceKind, field: &str) -> Option<&'static Size> {
    SIZES.iter().find(|own| own.kind == kind && own.field == field)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_size_has_a_range_its_usual_one_is_in_and_stands_once() {
        for (at, own) in SIZES.iter().enumerate() {
            assert!(own.least < own.most && own.step > 0.0, "{own:?}");
            assert!(own.holds(own.usual), "{own:?}");
            assert!(!own.holds(f64::NAN) && !own.holds(own.most + 1.0), "{own:?}");
            let twice = SIZES[..at].iter().any(|other| (other.kind, other.field) == (own.kind, own.field));
            assert!(!twice, "{own:?} stands twice");
        }
        assert_eq!(size(PlaceKind::Coat, "side_mm").unwrap().range(), "0.1 to 1,000 mm");
        assert_eq!(size(PlaceKind::Coat, "nothing"), None);
    }
}
