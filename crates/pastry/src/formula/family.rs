//! Families as a pastry cook names them: what each is, how it is usually worked, and which system of
//! the consistency model it is computed as. The table is `data/families.csv`; its overruns, whippings
//! and ratios are common practice.

use crate::formula::system::System;
use serde::{Deserialize, Deserializer, Serialize};
use std::collections::HashMap;
use std::sync::LazyLock;
use utoipa::ToSchema;

/// What a family is computed and worked as.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct FamilyTraits {
    /// The family.
    pub family: Family,
    /// Name in the kitchen.
    pub word: String,
    /// Shelf of the list of families.
    pub group: FamilyGroup,
    /// What it is, in one sentence.
    pub about: String,
    /// System of the consistency model.
    pub system: System,
    /// Usual volume gained, per cent of the volume before; the system's own when none.
    pub overrun_percent: Option<f64>,
    /// Usual whipping, 0 to 1; the system's own when none.
    pub whip: Option<f64>,
    /// Least standard deviation of ln yield stress and ln viscosity, for families that were not
    /// fitted; 0 when the system's own stands.
    pub least_sigma: f64,
    /// Whether the method boils its starch, so that it counts as cooked when no temperature is given.
    pub boils_starch: bool,
    /// Whether it is poured first and set later: two openings on one map.
    pub poured: bool,
    /// Whether viscosity says more than yield stress, so that the map is drawn in Pa·s.
    pub thin: bool,
    /// Coldest at which it is handled, °C (common practice): nobody is told to cool it further.
    pub worked_from_c: f64,
    /// Hottest temperature of its map, °C.
    pub hottest_c: f64,
    /// Process settings that matter for it.
    #[serde(deserialize_with = "listed")]
    pub settings: Vec<Setting>,
    /// Numbers a cook of this family looks at first.
    #[serde(deserialize_with = "listed")]
    pub looks_at: Vec<Figure>,
}

/// Shelf of the list of families.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FamilyGroup {
    /// Chocolate and liquid.
    Ganache,
    /// Butter and sugar.
    Buttercream,
    /// Cream, beaten.
    WhippedCream,
    /// Folded and set.
    Mousse,
    /// Thickened with egg or starch.
    Custard,
    /// Syrups and soaks.
    Soak,
    /// Glazes and jellies.
    Glaze,
}

impl FamilyGroup {
    /// In kitchen words.
    pub fn word(self) -> &'static str {
        match self {
            FamilyGroup::Ganache => "ganache",
            FamilyGroup::Buttercream => "buttercream",
            FamilyGroup::WhippedCream => "whipped cream",
            FamilyGroup::Mousse => "mousse",
            FamilyGroup::Custard => "custard and curd",
            FamilyGroup::Soak => "soaks",
            FamilyGroup::Glaze => "glazes and jellies",
        }
    }
}

/// A process setting the model asks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Setting {
    /// Volume gained.
    Overrun,
    /// How stiff it is whipped.
    Whip,
    /// Highest temperature reached.
    Cook,
    /// Hours set.
    Hours,
}

/// A number a cook looks at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Figure {
    /// Chocolate to cream, by weight.
    ChocolateToCream,
    /// Sugar to butter, by weight.
    SugarToButter,
    /// Butter on whites, yolks, custard or ganache, by weight.
    ButterToBase,
    /// Water in fat and water, by volume.
    WaterInFat,
    /// Gelatin on water, in 200 Bloom equivalents.
    GelatinOnWater,
    /// Gelatin on all of it, in 200 Bloom equivalents.
    GelatinOnTotal,
    /// Starch on liquid.
    StarchOnLiquid,
    /// Yolk on liquid.
    YolkOnLiquid,
    /// Degrees Brix of the watery phase.
    Brix,
    /// Degrees Baumé of the watery phase.
    Baume,
    /// Volume gained.
    Overrun,
    /// Fat of the liquid dairy and other wet things.
    FatOfCream,
    /// Added sugar on cream.
    SugarOnCream,
    /// Sweetness as sucrose on total.
    Sweetness,
    /// Water activity.
    WaterActivity,
    /// Density.
    Density,
    /// Volume of the batch.
    Volume,
    /// Split index.
    Split,
    /// Alcohol by volume.
    AlcoholByVolume,
    /// Total dry matter.
    DryMatter,
}

macro_rules! families {
    ($($(#[$doc:meta])* $variant:ident,)*) => {
        /// A family of creams, fillings, soaks and glazes.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum Family {
            $($(#[$doc])* $variant,)*
        }

        impl Family {
            /// All families, in the order of the list.
            pub const ALL: &'static [Family] = &[$(Family::$variant),*];
        }
    };
}

families! {
    /// Chocolate and cream.
    Ganache,
    /// Ganache whipped after a cold rest.
    WhippedGanache,
    /// Butter and icing sugar.
    Buttercream,
    /// Butter on whites and sugar warmed over water.
    SwissButtercream,
    /// Butter on whites cooked with hot syrup.
    ItalianButtercream,
    /// Butter on yolks cooked with hot syrup.
    FrenchButtercream,
    /// Butter beaten with pastry cream.
    CustardButtercream,
    /// Butter beaten with ganache.
    GanacheButtercream,
    /// Butter, icing sugar and cream cheese.
    CreamCheeseButtercream,
    /// Cream and a little sugar, whipped.
    WhippedCream,
    /// Whipped cream with cocoa.
    CocoaCream,
    /// Whipped cream with gelatin, mascarpone or cream cheese.
    StabilisedCream,
    /// Fruit, gelatin and whipped cream.
    FruitMousse,
    /// Chocolate and whipped cream.
    ChocolateMousse,
    /// Chocolate and egg foam.
    EggMousse,
    /// Cream cheese and whipped cream.
    CreamCheeseMousse,
    /// Custard, gelatin and whipped cream.
    Bavarois,
    /// Milk, yolk and starch, boiled.
    PastryCream,
    /// Pastry cream stiff enough to cut.
    SliceCustard,
    /// Pastry cream and whipped cream.
    Diplomat,
    /// Pastry cream and butter.
    Mousseline,
    /// Milk, cream and yolk, not boiled.
    Anglaise,
    /// Sharp juice, egg and butter.
    Curd,
    /// Condensed or evaporated milk, thickened.
    CondensedFilling,
    /// Sugar and water for sponges.
    Syrup,
    /// Milks for sponges.
    MilkSoak,
    /// Set with gelatin, without air.
    Jelly,
    /// Gelatin glaze for frozen pieces.
    MirrorGlaze,
    /// Ganache or cocoa glaze, poured.
    PouredGlaze,
    /// Jelly brushed on fruit.
    BrushingJelly,
}

impl Family {
    /// Its key, as documents write it.
    pub fn key(self) -> &'static str {
        static KEYS: LazyLock<HashMap<Family, String>> = LazyLock::new(|| {
            let key = |family: &Family| serde_json::to_value(family).ok()?.as_str().map(str::to_owned);
            Family::ALL.iter().filter_map(|own| Some((*own, key(own)?))).collect()
        });
        KEYS.get(&self).map_or("", String::as_str)
    }

    /// Name in the kitchen.
    pub fn word(self) -> &'static str {
        &self.traits().word
    }

    /// Hottest that a cook of it means, °C: egg alone scrambles past 86, water boils off past 106, sugar goes on
    /// (common practice). A higher number is asked about where it is typed.
    pub fn hottest_heat_c(self) -> f64 {
        match self {
            Family::Anglaise
            | Family::Curd
            | Family::Bavarois
            | Family::EggMousse
            | Family::SwissButtercream
            | Family::ItalianButtercream
            | Family::FrenchButtercream => 90.0,
            Family::Syrup | Family::MirrorGlaze | Family::BrushingJelly | Family::CondensedFilling => 125.0,
            _ => 106.0,
        }
    }

    /// What it is and how it is worked.
    pub fn traits(self) -> &'static FamilyTraits {
        &TABLE[&self]
    }
}

static TABLE: LazyLock<HashMap<Family, FamilyTraits>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/families.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let traits: FamilyTraits = row.expect("the table of families is well formed");
            (traits.family, traits)
        })
        .collect()
});

/// Words between semicolons.
fn listed<'de, D: Deserializer<'de>, T: serde::de::DeserializeOwned>(from: D) -> Result<Vec<T>, D::Error> {
    let text = String::deserialize(from)?;
    text.split(';')
        .map(str::trim)
        .filter(|word| !word.is_empty())
        .map(|word| T::deserialize(serde::de::value::StrDeserializer::<D::Error>::new(word)))
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_family_is_in_the_table_and_says_what_it_is() {
        for family in Family::ALL {
            let traits = family.traits();
            assert!(traits.about.ends_with('.'), "{family:?}");
            assert!((3..=5).contains(&traits.looks_at.len()), "{family:?} looks at {:?}", traits.looks_at);
        }
        assert_eq!(TABLE.len(), Family::ALL.len());
    }
}
