//! What an ingredient does, by what it is made of: a couverture a cook has put on the shelf for odds and ends is still
//! chocolate.
//!
//! The shares are drawn between the rows of `data/ingredients.csv` (assumed; `roles_follow_the_shelves` holds every row
//! to them and names the exceptions), except where a source is given.

use crate::code::codes;
use crate::ingredient::composition::Part;
use crate::ingredient::item::Ingredient;
use crate::ingredient::origin::Origin;

codes! {
    /// What an ingredient does, by what it is made of.
    Role {
        /// Everything there is, or the rest of it.
        All = "rest",
        /// Cocoa butter with something dry in it: chocolate of any colour, cocoa mass.
        Chocolate = "chocolate",
        /// Milk fat for the most part, not as droplets in water.
        Butter = "butter",
        /// Milk fat as droplets, more than milk has and less than butter.
        Cream = "cream",
        /// What can be whipped: of milk, its fat in droplets, 28 % of it and more.
        Whippable = "whippable",
        /// Milk and what is made of it.
        Dairy = "dairy",
        /// Eggs and their parts.
        Egg = "egg",
        /// What has yolk in it.
        Yolk = "yolk",
        /// What has egg white in it.
        White = "white",
        /// Starch and flour, swelling cold or hot.
        Starch = "starch",
        /// Starch and flour that must boil.
        BoiledStarch = "boiled_starch",
        /// What has gelatin in it.
        Gelatin = "gelatin",
        /// Raw fruit that eats gelatin.
        Protease = "protease",
        /// Sugar, syrup, honey: sugars for the most part, and no fat.
        Sugar = "sugar",
        /// Water and nothing else.
        Water = "water",
        /// What has alcohol in it that boils away.
        Spirit = "spirit",
    }
}

/// Least milk fat of a butter, mass fraction: a spread of 80 % and more (Regulation (EU) 1308/2013, annex VII, from
/// memory), with room for half-fat butters and for what a label rounds.
const BUTTER_FAT: f64 = 0.6;
/// Least cocoa butter of a chocolate, and the least of it for each part of cocoa solids: powder is no chocolate.
const CHOCOLATE_FAT: (f64, f64) = (0.15, 0.5);
/// More cocoa butter than this, or more water, is no chocolate.
const CHOCOLATE_MOST: (f64, f64) = (0.9, 0.08);
/// Least share of milk solids, and of egg solids, in what is not water.
const OF_MILK: f64 = 0.35;
const OF_EGG: f64 = 0.35;
/// Least starch of a starch.
const STARCH: f64 = 0.6;
/// Least sugars of a sugar or a syrup: maple syrup has two thirds.
const SUGARS: f64 = 0.65;
/// Most fat of a sugar.
const SUGAR_FAT: f64 = 0.02;
/// Least water of water.
const ALL_WATER: f64 = 0.99;
/// Least alcohol of a spirit: wine has a tenth.
const SPIRIT: f64 = 0.05;
/// Least fat of what can be whipped (common practice: 30 % whips with care, less does not).
const WHIPS: f64 = 0.28;

impl Ingredient {
    /// Whether it does this.
    pub fn is(&self, role: Role) -> bool {
        let part = |part: Part| self.composition.get(part);
        let dry = (1.0 - part(Part::Water)).max(1e-9);
        match role {
            Role::All => true,
            Role::Chocolate => {
                let fat = part(Part::CocoaButter);
                (CHOCOLATE_FAT.0..CHOCOLATE_MOST.0).contains(&fat)
                    && fat >= CHOCOLATE_FAT.1 * part(Part::Cocoa)
                    && part(Part::Water) < CHOCOLATE_MOST.1
            }
            Role::Butter => part(Part::MilkFat) >= BUTTER_FAT && self.globule < 0.5,
            Role::Cream => {
                self.globule > 0.5
                    && (0.15..BUTTER_FAT).contains(&part(Part::MilkFat))
                    && part(Part::Water) > 0.3
            }
            Role::Whippable => {
                self.is(Role::Dairy) && self.globule > 0.5 && self.composition.phases().fat >= WHIPS
            }
            Role::Dairy => {
                let milk = part(Part::MilkFat) + part(Part::Lactose) + part(Part::MilkProtein);
                let of_milk = self.origins.contains(&Origin::Milk)
                    || part(Part::Lactose) > 0.001
                    || part(Part::MilkFat) >= BUTTER_FAT;
                of_milk && milk / dry >= OF_MILK
            }
            Role::Egg => (part(Part::Yolk) + part(Part::EggWhite)) / dry >= OF_EGG,
            Role::Yolk => part(Part::Yolk) > 0.0,
            Role::White => part(Part::EggWhite) > 0.0,
            Role::Starch => part(Part::Starch) >= STARCH,
            Role::BoiledStarch => self.is(Role::Starch) && !self.flags.cold_starch,
            Role::Gelatin => part(Part::Gelatin) > 0.0,
            Role::Protease => self.flags.protease,
            Role::Sugar => {
                let phases = self.composition.phases();
                phases.sugar >= SUGARS && phases.fat <= SUGAR_FAT
            }
            Role::Water => part(Part::Water) >= ALL_WATER,
            Role::Spirit => part(Part::Alcohol) >= SPIRIT,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::Group;
    use crate::ingredient::catalogue::{catalogue, find};

    #[test]
    fn roles_follow_the_shelves() {
        for (role, group) in [
            (Role::Chocolate, Group::Chocolate),
            (Role::Dairy, Group::Dairy),
            (Role::Egg, Group::Egg),
            (Role::Starch, Group::Starch),
        ] {
            for own in catalogue() {
                // A drink of soya is milk to a cook, and no milk.
                assert_eq!(own.is(role), own.group == group, "{} as {role}", own.id);
            }
        }
    }

    #[test]
    fn what_it_does_does_not_hang_on_where_it_stands() {
        let mut own = find("dark60").unwrap().as_ref().clone();
        own.group = Group::Other;
        assert!(own.is(Role::Chocolate) && !own.is(Role::Dairy) && !own.is(Role::Butter));
        let is = |id: &str, role: Role| find(id).unwrap().is(role);
        assert!(is("butter82", Role::Butter) && !is("buttermilk", Role::Butter) && is("ghee", Role::Butter));
        assert!(is("cream36", Role::Cream) && !is("milk", Role::Cream) && !is("mascarpone", Role::Butter));
        assert!(is("cream30", Role::Whippable) && !is("cream20", Role::Whippable));
        assert!(is("corn_starch", Role::BoiledStarch) && !is("instant_starch", Role::BoiledStarch));
        assert!(!is("cocoa22", Role::Chocolate) && !is("cocoa_butter", Role::Chocolate));
        assert!(!is("margarine80", Role::Dairy) && !is("soy_drink", Role::Dairy));
        assert!(is("sugar", Role::Sugar) && is("honey", Role::Sugar) && is("water", Role::Water));
        assert!(!is("dark60", Role::Sugar) && !is("milk", Role::Sugar) && !is("milk", Role::Water));
    }
}
