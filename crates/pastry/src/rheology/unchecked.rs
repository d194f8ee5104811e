//! What takes a formula away from what was ever checked.

use crate::code::codes;

codes! {
    /// What takes a formula away from what was checked.
    Unchecked {
        /// Spirit in the liquid.
        Alcohol = "alcohol",
        /// Set with agar.
        Agar = "agar",
        /// Set with pectin.
        Pectin = "pectin",
        /// Set with fish gelatin.
        FishGelatin = "fish_gelatin",
        /// More in it than there is room.
        Crowded = "crowded",
        /// Much cooked yolk.
        Yolk = "yolk",
        /// Hotter or colder than the family was checked.
        Temperature = "temperature",
        /// Gums.
        Gum = "gum",
        /// Half turned from water outside to fat outside.
        Turning = "turning",
        /// So thin that its particles hardly touch.
        Dilute = "dilute",
        /// More liquid than fat outside was ever seen to hold.
        Wet = "wet",
    }
}

impl Unchecked {
    /// In kitchen words, after "because of".
    pub fn words(self) -> &'static str {
        match self {
            Unchecked::Alcohol => "so much spirit",
            Unchecked::Agar => "its agar",
            Unchecked::Pectin => "its pectin",
            Unchecked::FishGelatin => "its fish gelatin",
            Unchecked::Crowded => "so many solids in so little liquid",
            Unchecked::Yolk => "so much cooked yolk",
            Unchecked::Temperature => "a temperature nobody works it at",
            Unchecked::Gum => "so much gum",
            Unchecked::Turning => "fat that is half outside, half inside",
            Unchecked::Dilute => "solids that hardly touch",
            Unchecked::Wet => "so much liquid in so little fat",
        }
    }
}
