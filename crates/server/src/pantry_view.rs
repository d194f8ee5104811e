//! An ingredient as the interface shows it.

use pastry::ingredient::Group;
use pastry::ingredient::composition::FATS;
use pastry::ingredient::weights::HouseholdWeight;
use pastry::ingredient::{Diet, Ingredient, IngredientDocument, Origin, Pack, Part, PhaseShares, diet};
use pastry::rheology::solid_fat::Pool;
use pastry::units::{Density, Mass};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use store::list::UsedIn;
use store::pantry::PantryItem;
use utoipa::ToSchema;

/// What a piece weighs.
#[derive(Debug, Serialize, ToSchema)]
pub struct PieceWeight {
    /// Unit: stick, egg, leaf.
    pub unit: &'static str,
    /// Weight of one, g.
    pub weight_g: f64,
    /// Where the value is from.
    pub source: String,
}

/// What the kitchen says of an ingredient.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitchenValues {
    /// Density as scooped or poured, g/ml; none to follow the tables.
    pub density_g_per_ml: Option<Density>,
    /// Weight of one piece, g; none to follow the tables.
    pub piece_g: Option<Mass>,
    /// The pack it buys; none to follow the tables.
    #[serde(default)]
    pub pack: Option<Pack>,
    /// Put away: not offered any more.
    #[serde(default)]
    pub archived: bool,
    /// Revision it was read at; 0 when nothing was saved yet.
    pub revision: i64,
}

/// An ingredient on the shelf.
#[derive(Debug, Serialize, ToSchema)]
pub struct IngredientEntry {
    /// Its key.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// What others call it.
    pub also: Vec<String>,
    /// Shelf it stands on.
    pub group: Group,
    /// Whether it is the kitchen's own.
    pub own: bool,
    /// The five phases, per cent of its weight.
    pub phases_percent: PhaseShares,
    /// Allergens it brings.
    pub allergens: Vec<String>,
    /// Where its composition is from.
    pub source: String,
    /// high, medium or low; your own.
    pub confidence: String,
    /// Density from the tables, g/ml.
    pub table_density_g_per_ml: Option<f64>,
    /// Where that is from.
    pub table_density_source: Option<String>,
    /// Pieces from the tables.
    pub table_pieces: Vec<PieceWeight>,
    /// Price of a kilogram, in the kitchen's currency.
    pub price_per_kg: Option<f64>,
    /// In how many formulas it is used.
    pub used_in: i64,
    /// What the kitchen says.
    pub kitchen: KitchenValues,
}

/// A constituent of an ingredient.
#[derive(Debug, Serialize, ToSchema)]
pub struct Constituent {
    /// Which.
    pub part: Part,
    /// In kitchen words.
    pub name: &'static str,
    /// Share, per cent of its weight.
    pub percent: f64,
    /// Where it is from.
    pub source: String,
}

/// An ingredient whole.
#[derive(Debug, Serialize, ToSchema)]
pub struct IngredientDetail {
    /// As on the shelf.
    pub entry: IngredientEntry,
    /// What it is made of, in the order of the table; only what it has.
    pub constituents: Vec<Constituent>,
    /// Who may eat it.
    pub diet: Diet,
    /// Where it comes from.
    pub origins: Vec<Origin>,
    /// Bloom strength, g; 0 without gelatin.
    pub bloom_g: f64,
    /// The pack of the tables.
    pub table_pack: Option<Pack>,
    /// Solid fat at 0 to 45 °C in whole degrees, per cent of its fat; none with next to no fat.
    pub solid_fat_percent: Option<Vec<f64>>,
    /// Formulas that use it.
    pub used_in: Vec<UsedIn>,
    /// The document, when it is the kitchen's own.
    pub document: Option<IngredientDocument>,
    /// Its revision, when it is the kitchen's own.
    pub revision: Option<i64>,
}

fn said(known: &HouseholdWeight) -> String {
    if known.how.is_empty() { known.source.clone() } else { format!("{}; {}", known.how, known.source) }
}

/// Two decimals: more than any table knows.
fn percent(share: f64) -> f64 {
    (1e4 * share).round() / 100.0
}

/// An ingredient as the shelf shows it.
pub fn entry(ingredient: &Ingredient, item: Option<&PantryItem>, used_in: i64) -> IngredientEntry {
    let shares = ingredient.composition.phases();
    let weights = &ingredient.weights;
    let kitchen = item.map_or(
        KitchenValues { density_g_per_ml: None, piece_g: None, pack: None, archived: false, revision: 0 },
        |item| KitchenValues {
            density_g_per_ml: item.density_g_per_ml,
            piece_g: item.piece_g,
            pack: item.pack,
            archived: item.archived,
            revision: item.revision,
        },
    );
    IngredientEntry {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        also: ingredient.also.clone(),
        group: ingredient.group,
        own: ingredient.id.starts_with(pastry::ingredient::key::OWN),
        phases_percent: PhaseShares {
            fat: percent(shares.fat),
            sugar: percent(shares.sugar),
            water: percent(shares.water),
            dry: percent(shares.dry),
            setting: percent(shares.setting),
        },
        allergens: ingredient.allergens.clone(),
        source: ingredient.source.clone(),
        confidence: ingredient.confidence.clone(),
        table_density_g_per_ml: weights.density.as_ref().map(|known| known.weight),
        table_density_source: weights.density.as_ref().map(said),
        table_pieces: weights
            .pieces
            .iter()
            .map(|(unit, known)| PieceWeight {
                unit: unit.short(),
                weight_g: known.weight,
                source: said(known),
            })
            .collect(),
        price_per_kg: kitchen.pack.or(ingredient.pack).map(|pack| pack.price_per_kg()),
        used_in,
        kitchen,
    }
}

/// An ingredient whole.
pub fn detail(
    ingredient: &Ingredient,
    document: Option<IngredientDocument>,
    revision: Option<i64>,
    item: &PantryItem,
    used_in: Vec<UsedIn>,
) -> IngredientDetail {
    let sources: BTreeMap<Part, String> =
        document.as_ref().map(|document| document.sources.clone()).unwrap_or_default();
    let fats = FATS.map(|fat| ingredient.composition.get(fat));
    IngredientDetail {
        entry: entry(ingredient, Some(item), used_in.len() as i64),
        constituents: Part::ALL
            .into_iter()
            .filter(|part| ingredient.composition.get(*part) > 0.0)
            .map(|part| Constituent {
                part,
                name: part.word(),
                percent: percent(ingredient.composition.get(part)),
                source: sources.get(&part).cloned().unwrap_or_else(|| ingredient.source.clone()),
            })
            .collect(),
        diet: diet(std::iter::once((ingredient, 1.0))),
        origins: ingredient.origins.clone(),
        bloom_g: ingredient.bloom,
        table_pack: ingredient.pack,
        solid_fat_percent: (fats.iter().sum::<f64>() > 0.005).then(|| {
            let pool = Pool::new(fats);
            (0..=45).map(|t| (1000.0 * pool.solid(f64::from(t))).round() / 10.0).collect()
        }),
        used_in,
        document,
        revision,
    }
}
