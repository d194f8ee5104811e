//! What an ingredient is made of: 26 mass fractions that add up to 1.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

macro_rules! parts {
    ($($(#[$doc:meta])* $part:ident = $column:literal, $word:literal, $phase:ident, $density:expr;)*) => {
        /// One constituent of an ingredient.
        #[derive(
            Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema,
        )]
        #[serde(rename_all = "snake_case")]
        #[repr(usize)]
        pub enum Part {
            $($(#[$doc])* $part,)*
        }

        impl Part {
            /// All constituents, in the order of the table's columns.
            pub const ALL: [Part; Part::COUNT] = [$(Part::$part),*];
            /// How many there are.
            pub const COUNT: usize = [$(Part::$part),*].len();

            /// Column of the ingredient table.
            pub const fn column(self) -> &'static str {
                match self { $(Part::$part => $column),* }
            }

            /// In kitchen words.
            pub const fn word(self) -> &'static str {
                match self { $(Part::$part => $word),* }
            }

            /// Where the balance counts it.
            pub const fn phase(self) -> Phase {
                match self { $(Part::$part => Phase::$phase),* }
            }

            /// Density when mixed in, kg/m³. From memory of handbook values; milk protein, cocoa
            /// and other are effective values.
            pub const fn density(self) -> f64 {
                match self { $(Part::$part => $density),* }
            }
        }
    };
}

parts! {
    /// Water.
    Water = "water", "water", Water, 998.0;
    /// Cocoa butter.
    CocoaButter = "cb", "cocoa butter", Fat, 920.0;
    /// Milk fat.
    MilkFat = "mf", "milk fat", Fat, 920.0;
    /// Oil, liquid at any kitchen temperature.
    Oil = "oil", "oil", Fat, 915.0;
    /// Lauric fat, as in coconut.
    Lauric = "lauric", "coconut fat", Fat, 920.0;
    /// Sucrose.
    Sucrose = "sucrose", "sucrose", Sugar, 1587.0;
    /// Glucose.
    Glucose = "glucose", "glucose", Sugar, 1560.0;
    /// Fructose.
    Fructose = "fructose", "fructose", Sugar, 1600.0;
    /// Lactose.
    Lactose = "lactose", "lactose", Sugar, 1540.0;
    /// Maltose and other disaccharides.
    Maltose = "maltose", "maltose", Sugar, 1540.0;
    /// Saccharides above two units.
    Dextrin = "dextrin", "dextrins", Sugar, 1500.0;
    /// Sugar alcohols.
    Polyol = "polyol", "sugar alcohols", Sugar, 1490.0;
    /// Fat-free cocoa solids.
    Cocoa = "cocoa", "dry cocoa", Dry, 1450.0;
    /// Milk protein.
    MilkProtein = "milkprot", "milk protein", Dry, 1350.0;
    /// Egg white solids.
    EggWhite = "eggwhite", "egg-white solids", Dry, 1350.0;
    /// Fat-free yolk solids.
    Yolk = "yolk", "yolk solids", Dry, 1200.0;
    /// Starch.
    Starch = "starch", "starch", Setting, 1500.0;
    /// Fibre.
    Fibre = "fibre", "fibre and plant solids", Dry, 1500.0;
    /// Pectin.
    Pectin = "pectin", "pectin", Setting, 1500.0;
    /// Agar.
    Agar = "agar", "agar", Setting, 1500.0;
    /// Xanthan and other gums.
    Gum = "gum", "gums", Setting, 1500.0;
    /// Gelatin, dry.
    Gelatin = "gelatin", "gelatin", Setting, 1350.0;
    /// Alcohol.
    Alcohol = "alcohol", "alcohol", Water, 850.0;
    /// Salt.
    Salt = "salt", "salt", Dry, 2160.0;
    /// Acids.
    Acid = "acid", "acids", Dry, 1500.0;
    /// Everything else, insoluble or mineral.
    Other = "other", "minerals and the rest", Dry, 1600.0;
}

/// The four fats, in the order the fat kernel uses.
pub const FATS: [Part; 4] = [Part::CocoaButter, Part::MilkFat, Part::Oil, Part::Lauric];

/// The seven sugars.
pub const SUGARS: [Part; 7] =
    [Part::Sucrose, Part::Glucose, Part::Fructose, Part::Lactose, Part::Maltose, Part::Dextrin, Part::Polyol];

/// What the cook balances, in the order it is always drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Phase {
    /// All fats.
    Fat,
    /// All sugars, dissolved or not.
    Sugar,
    /// Water and alcohol.
    Water,
    /// Cocoa, milk and egg solids, fibre, salt, acid.
    Dry,
    /// Gelatin, starch, pectin, agar, gums.
    Setting,
}

impl Phase {
    /// The fixed order.
    pub const ALL: [Phase; 5] = [Phase::Fat, Phase::Sugar, Phase::Water, Phase::Dry, Phase::Setting];
}

/// Shares of the five phases; of total weight, 0 to 1, adding up to 1. Or grams, where it says so.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, ToSchema)]
pub struct PhaseShares {
    /// All fats.
    pub fat: f64,
    /// All sugars.
    pub sugar: f64,
    /// Water and alcohol.
    pub water: f64,
    /// Dry solids.
    pub dry: f64,
    /// Setting agents.
    pub setting: f64,
}

impl PhaseShares {
    /// One of them.
    pub fn get(&self, phase: Phase) -> f64 {
        match phase {
            Phase::Fat => self.fat,
            Phase::Sugar => self.sugar,
            Phase::Water => self.water,
            Phase::Dry => self.dry,
            Phase::Setting => self.setting,
        }
    }
}

/// Mass fractions by [`Part`], of the whole ingredient or mixture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Composition(pub [f64; Part::COUNT]);

impl Composition {
    /// Nothing at all, the start of a sum.
    pub const NONE: Composition = Composition([0.0; Part::COUNT]);

    /// Fraction of one constituent.
    #[inline]
    pub fn get(&self, part: Part) -> f64 {
        self.0[part as usize]
    }

    /// Sum over some constituents.
    pub fn sum(&self, parts: &[Part]) -> f64 {
        parts.iter().map(|part| self.get(*part)).sum()
    }

    /// Volume of one kilogram, m³, as component volumes.
    pub fn volume_per_kg(&self) -> f64 {
        Part::ALL.iter().map(|part| self.get(*part) / part.density()).sum()
    }

    /// The five phases of the balance.
    pub fn phases(&self) -> PhaseShares {
        let mut shares = PhaseShares::default();
        for part in Part::ALL {
            let into = match part.phase() {
                Phase::Fat => &mut shares.fat,
                Phase::Sugar => &mut shares.sugar,
                Phase::Water => &mut shares.water,
                Phase::Dry => &mut shares.dry,
                Phase::Setting => &mut shares.setting,
            };
            *into += self.get(part);
        }
        shares
    }
}
