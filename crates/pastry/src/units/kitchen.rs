//! Units a cook writes, and how much each one is. Cups and spoons differ by country,
//! so a kitchen says which set it uses.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Which cups and spoons are meant when somebody writes "cup" or "tbsp".
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Measures {
    /// US customary: cup 236.6 ml, tablespoon 14.8 ml.
    #[default]
    Us,
    /// Metric: cup 250 ml, tablespoon 15 ml.
    Metric,
    /// Australian: cup 250 ml, tablespoon 20 ml.
    Australian,
    /// Imperial: half-pint cup 284.1 ml, fluid ounce 28.4 ml, tablespoon 15 ml.
    Imperial,
}

impl Measures {
    /// All of them.
    pub const ALL: [Measures; 4] = [Measures::Us, Measures::Metric, Measures::Australian, Measures::Imperial];

    /// As a cook calls them.
    pub fn cups(self) -> &'static str {
        match self {
            Measures::Us => "US cups",
            Measures::Metric => "metric cups",
            Measures::Australian => "Australian cups",
            Measures::Imperial => "imperial cups",
        }
    }

    /// With their sizes.
    pub fn cups_with_sizes(self) -> &'static str {
        match self {
            Measures::Us => "US cups (237 ml)",
            Measures::Metric => "metric cups (250 ml)",
            Measures::Australian => "Australian cups (250 ml, 20 ml spoon)",
            Measures::Imperial => "imperial cups (284 ml)",
        }
    }

    /// Word shown beside a converted amount.
    pub fn word(self) -> &'static str {
        match self {
            Measures::Us => "US",
            Measures::Metric => "metric",
            Measures::Australian => "Australian",
            Measures::Imperial => "imperial",
        }
    }
}

/// A unit as written in the amount field.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Unit {
    /// Milligram.
    Milligram,
    /// Gram.
    Gram,
    /// Kilogram.
    Kilogram,
    /// Avoirdupois ounce.
    Ounce,
    /// Avoirdupois pound.
    Pound,
    /// Millilitre.
    Millilitre,
    /// Centilitre.
    Centilitre,
    /// Decilitre.
    Decilitre,
    /// Litre.
    Litre,
    /// Cup of the kitchen's set.
    Cup,
    /// Tablespoon of the kitchen's set.
    Tablespoon,
    /// Teaspoon of the kitchen's set.
    Teaspoon,
    /// Fluid ounce of the kitchen's set.
    FluidOunce,
    /// Liquid pint of the kitchen's set.
    Pint,
    /// Liquid quart of the kitchen's set.
    Quart,
    /// Stick of butter.
    Stick,
    /// Whole egg without shell.
    Egg,
    /// Yolk of an egg.
    Yolk,
    /// White of an egg.
    White,
    /// Leaf or sheet of gelatin.
    Leaf,
    /// Envelope or sachet.
    Envelope,
    /// Square of block chocolate.
    Square,
    /// Per cent: of another ingredient, or of the whole.
    Percent,
}

/// What kind of thing a unit counts.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum UnitKind {
    /// Grams in one.
    Mass(f64),
    /// Millilitres in one.
    Volume(f64),
    /// A piece: its weight belongs to the ingredient.
    Piece,
    /// A share: its weight belongs to the formula.
    Share,
}

/// Every spelling understood, longest forms and plurals included. The first spelling of a unit is
/// the one printed.
const SPELLINGS: &[(Unit, &[&str])] = &[
    (Unit::Milligram, &["mg", "milligram", "milligrams"]),
    (Unit::Gram, &["g", "gr", "gram", "grams", "gramme", "grammes"]),
    (Unit::Kilogram, &["kg", "kilo", "kilos", "kilogram", "kilograms"]),
    (Unit::Ounce, &["oz", "ounce", "ounces"]),
    (Unit::Pound, &["lb", "lbs", "pound", "pounds"]),
    (Unit::Millilitre, &["ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc"]),
    (Unit::Centilitre, &["cl", "centilitre", "centilitres", "centiliter", "centiliters"]),
    (Unit::Decilitre, &["dl", "decilitre", "decilitres", "deciliter", "deciliters"]),
    (Unit::Litre, &["l", "litre", "litres", "liter", "liters"]),
    (Unit::Cup, &["cup", "cups", "c"]),
    (Unit::Tablespoon, &["tbsp", "tbsps", "tbs", "tablespoon", "tablespoons"]),
    (Unit::Teaspoon, &["tsp", "tsps", "teaspoon", "teaspoons"]),
    (Unit::FluidOunce, &["fl oz", "floz", "fluid ounce", "fluid ounces"]),
    (Unit::Pint, &["pint", "pints", "pt"]),
    (Unit::Quart, &["quart", "quarts", "qt"]),
    (Unit::Stick, &["stick", "sticks"]),
    (Unit::Egg, &["egg", "eggs"]),
    (Unit::Yolk, &["yolk", "yolks"]),
    (Unit::White, &["white", "whites"]),
    (Unit::Leaf, &["leaf", "leaves", "sheet", "sheets"]),
    (Unit::Envelope, &["envelope", "envelopes", "sachet", "sachets"]),
    (Unit::Square, &["square", "squares"]),
    (Unit::Percent, &["%", "percent", "per cent", "pct"]),
];

/// Units that have no fixed size: understood, and refused with advice.
pub const VAGUE: &[&str] = &["pinch", "pinches", "dash", "dashes", "drop", "drops", "handful", "knob"];

impl Unit {
    /// Every unit, in the order of the list of spellings.
    pub fn all() -> impl Iterator<Item = Unit> {
        SPELLINGS.iter().map(|(unit, _)| *unit)
    }

    /// The unit written by `word`, ignoring case, spaces around it and a trailing dot.
    pub fn parse(word: &str) -> Option<Unit> {
        let word = word.trim().trim_end_matches('.').to_lowercase();
        let word = word.split_whitespace().collect::<Vec<_>>().join(" ").replace("fl. oz", "fl oz");
        SPELLINGS.iter().find(|(_, forms)| forms.contains(&word.as_str())).map(|(unit, _)| *unit)
    }

    /// The short form written by the program.
    pub fn short(self) -> &'static str {
        SPELLINGS.iter().find(|(unit, _)| *unit == self).map_or("", |(_, forms)| forms[0])
    }

    /// How much one of the unit is, in the given set of cups and spoons.
    ///
    /// Source: NIST SP 811 and Handbook 44 for US units, UK Weights and Measures Act 1985 for
    /// imperial, AS 1325 for the Australian tablespoon, from memory; checked against
    /// `tests/it/data/units.csv`.
    pub fn kind(self, measures: Measures) -> UnitKind {
        use Measures::{Australian, Imperial, Metric, Us};
        use UnitKind::{Mass, Piece, Volume};
        match self {
            Unit::Milligram => Mass(1e-3),
            Unit::Gram => Mass(1.0),
            Unit::Kilogram => Mass(1000.0),
            Unit::Ounce => Mass(28.349523125),
            Unit::Pound => Mass(453.59237),
            Unit::Millilitre => Volume(1.0),
            Unit::Centilitre => Volume(10.0),
            Unit::Decilitre => Volume(100.0),
            Unit::Litre => Volume(1000.0),
            Unit::Cup => Volume(match measures {
                Us => 236.5882365,
                Metric | Australian => 250.0,
                Imperial => 284.130625,
            }),
            Unit::Tablespoon => Volume(match measures {
                Us => 14.78676478125,
                Metric | Imperial => 15.0,
                Australian => 20.0,
            }),
            Unit::Teaspoon => Volume(match measures {
                Us => 4.92892159375,
                Metric | Australian | Imperial => 5.0,
            }),
            Unit::FluidOunce => Volume(match measures {
                Us => 29.5735295625,
                Metric | Australian => 30.0,
                Imperial => 28.4130625,
            }),
            Unit::Pint => Volume(match measures {
                Us => 473.176473,
                Metric | Australian => 500.0,
                Imperial => 568.26125,
            }),
            Unit::Quart => Volume(match measures {
                Us => 946.352946,
                Metric | Australian => 1000.0,
                Imperial => 1136.5225,
            }),
            Unit::Stick
            | Unit::Egg
            | Unit::Yolk
            | Unit::White
            | Unit::Leaf
            | Unit::Envelope
            | Unit::Square => Piece,
            Unit::Percent => UnitKind::Share,
        }
    }
}
