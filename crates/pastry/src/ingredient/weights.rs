//! What a cup or a piece of an ingredient weighs, by the tables.

use crate::ingredient::composition::Composition;
use crate::ingredient::group::Group;
use crate::units::kitchen::Unit;
use std::collections::HashMap;
use std::sync::LazyLock;

/// What a volume or a piece of an ingredient weighs, and who says so.
#[derive(Debug, Clone, PartialEq)]
pub struct HouseholdWeight {
    /// How it is measured: "in chips", "unsifted", "gold", or nothing.
    pub how: String,
    /// g/ml for a volume, g for a piece.
    pub weight: f64,
    /// Where the value is from.
    pub source: String,
}

/// Weights known for one ingredient.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct HouseholdWeights {
    /// Mass of a volume.
    pub density: Option<HouseholdWeight>,
    /// Mass of a piece, by unit.
    pub pieces: Vec<(Unit, HouseholdWeight)>,
}

static TABLE: LazyLock<HashMap<String, HouseholdWeights>> = LazyLock::new(|| {
    let mut table: HashMap<String, HouseholdWeights> = HashMap::new();
    let mut reader = csv::Reader::from_reader(include_str!("../../data/measures.csv").as_bytes());
    for record in reader.records() {
        let record = record.expect("the table is well formed");
        let number = |at: usize| record[at].parse::<f64>().expect("the table holds numbers");
        let entry = table.entry(record[0].to_owned()).or_default();
        let weight =
            |weight| HouseholdWeight { how: record[2].to_owned(), weight, source: record[5].to_owned() };
        if &record[1] == "volume" {
            entry.density = Some(weight(number(3) / number(4)));
        } else {
            let unit = Unit::parse(&record[1]).expect("the table names known units");
            entry.pieces.push((unit, weight(number(3))));
        }
    }
    table
});

/// What the tables know of this ingredient's volumes and pieces.
pub(crate) fn table_weights(ingredient_id: &str) -> HouseholdWeights {
    TABLE.get(ingredient_id).cloned().unwrap_or_default()
}

impl HouseholdWeights {
    /// With the density added up from the volumes of the parts, where no table has one and the thing
    /// fills a cup without air, being wet or fat: within 3 % of published cup weights for liquids
    /// (checked in `tests/it/handbook.rs`), meaningless for anything scooped.
    pub fn or_computed(mut self, composition: &Composition, group: Group) -> Self {
        let phases = composition.phases();
        let fills = (phases.water >= 0.15 || phases.fat >= 0.30) && !group.is_grainy();
        if self.density.is_none() && fills {
            self.density = Some(HouseholdWeight {
                how: "without air".to_owned(),
                weight: (1.0 / composition.volume_per_kg()).round() * 1e-3,
                source: "computed from composition, ± 3 %".to_owned(),
            });
        }
        self
    }
}
