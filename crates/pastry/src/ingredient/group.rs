//! The shelf an ingredient stands on: where a cook looks for it, not what it does.

use crate::code::codes;

codes! {
    /// The shelf an ingredient stands on. What it does in a formula is its [`Role`](crate::ingredient::Role), which
    /// asks what it is made of.
    Group {
        /// Chocolates, cocoa mass, nibs.
        Chocolate = "chocolate",
        /// Cocoa powder.
        Cocoa = "cocoa",
        /// Fats and oils of plants.
        Fat = "fat",
        /// Milk and what is made of it.
        Dairy = "dairy",
        /// Eggs and their parts.
        Egg = "egg",
        /// Sugars and syrups.
        Sugar = "sugar",
        /// Starches and flours.
        Starch = "starch",
        /// Gelatin, agar, pectin, gums.
        Gel = "gel",
        /// Fruit, juice, jam.
        Fruit = "fruit",
        /// Nuts and their pastes.
        Nut = "nut",
        /// Water, coffee, tea, drinks of plants.
        Liquid = "liquid",
        /// Wine, spirit, liqueur.
        Alcohol = "alcohol",
        /// All else.
        Other = "other",
    }
}

impl Group {
    /// Whether a cup of it is mostly air: grains, chips, flakes.
    pub fn is_grainy(self) -> bool {
        matches!(self, Group::Chocolate | Group::Cocoa | Group::Starch | Group::Gel)
    }

    /// Whether what is left of a pack goes off.
    pub fn is_perishable(self) -> bool {
        matches!(self, Group::Dairy | Group::Fruit | Group::Egg)
    }
}
