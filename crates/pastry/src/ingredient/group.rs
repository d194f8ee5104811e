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
    /// The pH of most things on it: what is taken where nobody measured one (medians of `data/ph.csv`).
    pub fn usual_ph(self) -> f64 {
        match self {
            Group::Chocolate | Group::Sugar | Group::Starch | Group::Gel => 6.0,
            Group::Cocoa => 5.5,
            Group::Fat | Group::Dairy => 6.5,
            Group::Egg => 7.0,
            Group::Fruit => 3.3,
            Group::Nut => 6.2,
            Group::Liquid => 6.6,
            Group::Alcohol => 5.0,
            Group::Other => 6.3,
        }
    }

    /// Whether a cup of it is mostly air: grains, chips, flakes.
    pub fn is_grainy(self) -> bool {
        matches!(self, Group::Chocolate | Group::Cocoa | Group::Starch | Group::Gel)
    }

    /// Whether what is left of a pack goes off.
    pub fn is_perishable(self) -> bool {
        matches!(self, Group::Dairy | Group::Fruit | Group::Egg)
    }
}
