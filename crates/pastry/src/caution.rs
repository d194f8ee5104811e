//! What can hurt someone, in words that defer to local codes.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A caution.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Caution {
    /// Time out of the cold.
    Cold,
    /// Boiling liquid.
    Burn,
    /// Boiling sugar.
    Sugar,
    /// Steam.
    Steam,
    /// Egg under 71 °C.
    RawEgg,
    /// A stick blender.
    Blade,
    /// Spirit near a flame.
    Flame,
    /// What was cooked and must cool fast.
    CoolFast,
    /// What is held hot.
    HotHold,
    /// No remedy.
    Discard,
}

impl Caution {
    /// What to mind.
    pub fn words(self) -> &'static str {
        match self {
            Caution::Cold => {
                "Milk, cream and egg: mending a texture does not start the clock again. Out of the cold for more than four hours in all, or nobody knows how long: throw it away. Your local food code and your own plan decide."
            }
            Caution::Burn => "It is boiling: stir away from you, and keep the handle turned in.",
            Caution::Sugar => {
                "Boiling sugar sticks and burns: a bowl of iced water at hand, dry tools, long sleeves, no bare hands."
            }
            Caution::Steam => "Steam burns: lift the bowl away from you, and use the probe and not a finger.",
            Caution::RawEgg => {
                "Egg under 71 °C is raw or lightly heated: say so on the label, and not for the young, the old, the pregnant or the ill. Heating does not undo hours in the warm."
            }
            Caution::Blade => "Stick blender: unplug it before you clear the head.",
            Caution::Flame => "Spirit off the heat, below 60 °C, and away from a gas flame.",
            Caution::CoolFast => {
                "Cooked milk, cream and egg must cool fast: through the warm, from 60 °C down to 5 °C, within the hours your code allows, often two for the first part. Shallow trays, ice, a probe in the middle. Your local food code and your own plan decide."
            }
            Caution::HotHold => {
                "Held hot, it stays above the line of your code (57 to 63 °C, by country), and is thrown away when it fell below for long. Your local food code and your own plan decide."
            }
            Caution::Discard => {
                "Burnt, sour, mouldy, or with something in it that does not belong: there is no remedy. Throw it away."
            }
        }
    }

    /// Where it is from.
    pub fn source(self) -> &'static str {
        match self {
            Caution::Cold => {
                "FDA Food Code 2022, 3-501.19; Food Safety and Hygiene (England) Regulations 2013 (both from memory)"
            }
            Caution::RawEgg => {
                "USDA FSIS safe minimum temperatures; UK FSA advice on eggs (both from memory)"
            }
            Caution::CoolFast => {
                "FDA Food Code 2022, 3-501.14; FSANZ Standard 3.2.2; UK and French guidance (all from memory)"
            }
            Caution::HotHold => {
                "FDA Food Code 2022, 3-501.16; FSANZ Standard 3.2.2; UK 2013 Regulations (all from memory)"
            }
            _ => "common practice",
        }
    }
}

/// A caution in words.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CautionAnswer {
    /// Which.
    pub caution: Caution,
    /// What to mind.
    pub words: String,
    /// Where it is from.
    pub source: String,
}

impl From<Caution> for CautionAnswer {
    fn from(caution: Caution) -> Self {
        CautionAnswer { caution, words: caution.words().to_owned(), source: caution.source().to_owned() }
    }
}
