//! What a cook can see.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One thing seen in the bowl or on the cake.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sign {
    /// Oil stands out of it.
    Split,
    /// Small curds.
    Curdled,
    /// Stiffer than the work wants.
    TooStiff,
    /// Softer than the work wants.
    TooLoose,
    /// It pours.
    Soupy,
    /// Lumps in it.
    Lumpy,
    /// Sand or grains.
    Grainy,
    /// Liquid comes out.
    Weeping,
    /// Whipped too far.
    OverWhipped,
    /// It will not take air.
    WillNotWhip,
    /// Air has gone.
    Deflated,
    /// A skin on top.
    Skin,
    /// Bubbles or holes.
    Bubbles,
    /// Matt or grey.
    Dull,
    /// It tears the sponge.
    PullsCrumbs,
    /// It slides or sags.
    Slides,
    /// Rubbery or hard threads.
    Strings,
    /// It sets under the hand.
    SetsTooFast,
    /// It will not set.
    NotSetting,
    /// Burnt.
    Scorched,
    /// It tastes wrong.
    TastesWrong,
    /// The sponge is too wet or too dry.
    Soaked,
    /// Something was left out.
    Forgotten,
}

impl Sign {
    /// All of them, in the order they are offered.
    pub const ALL: [Sign; 23] = [
        Sign::Split,
        Sign::Curdled,
        Sign::TooStiff,
        Sign::TooLoose,
        Sign::Soupy,
        Sign::Lumpy,
        Sign::Grainy,
        Sign::Weeping,
        Sign::OverWhipped,
        Sign::WillNotWhip,
        Sign::Deflated,
        Sign::Skin,
        Sign::Bubbles,
        Sign::Dull,
        Sign::PullsCrumbs,
        Sign::Slides,
        Sign::Strings,
        Sign::SetsTooFast,
        Sign::NotSetting,
        Sign::Scorched,
        Sign::TastesWrong,
        Sign::Soaked,
        Sign::Forgotten,
    ];

    /// Two or three kitchen words.
    pub fn words(self) -> &'static str {
        match self {
            Sign::Split => "Split, oily",
            Sign::Curdled => "Curdled",
            Sign::TooStiff => "Too stiff",
            Sign::TooLoose => "Too loose",
            Sign::Soupy => "Soup",
            Sign::Lumpy => "Lumps",
            Sign::Grainy => "Grainy, sandy",
            Sign::Weeping => "Weeping",
            Sign::OverWhipped => "Whipped too far",
            Sign::WillNotWhip => "Will not whip",
            Sign::Deflated => "Lost its air",
            Sign::Skin => "A skin",
            Sign::Bubbles => "Bubbles, holes",
            Sign::Dull => "Dull, grey",
            Sign::PullsCrumbs => "Pulls crumbs",
            Sign::Slides => "Slides, sags",
            Sign::Strings => "Strings in it",
            Sign::SetsTooFast => "Sets too fast",
            Sign::NotSetting => "Will not set",
            Sign::Scorched => "Burnt",
            Sign::TastesWrong => "Tastes wrong",
            Sign::Soaked => "Sponge too wet or dry",
            Sign::Forgotten => "Something left out",
        }
    }
}
