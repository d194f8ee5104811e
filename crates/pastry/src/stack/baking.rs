//! How a batter is mixed, baked, cooled and rested, and how long it keeps: what the day is planned by.

use crate::number::limit;
use crate::units::Minutes;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;

/// Who mixes it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Mixed {
    /// In a mixer.
    Mixer,
    /// By hand.
    Hand,
}

/// In what it is baked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BakedIn {
    /// A tin of its own for each layer, or one tall one that is split.
    Tin,
    /// A sheet, under 15 mm high.
    Sheet,
}

/// The oven: its temperature, °C, and minutes: so many, and so many more for each mm of baked height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Oven {
    /// Still air, °C; a fan oven runs 15 to 20 °C lower (common practice).
    pub c: f64,
    /// Minutes whatever the height.
    pub base: Minutes,
    /// Minutes more for each mm.
    pub per_mm: Minutes,
}

/// How a kind of sponge is made.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Baking {
    /// Who mixes it.
    pub mixed: Mixed,
    /// Minutes of mixing, and minutes more for each kilogram.
    pub mix: [Minutes; 2],
    /// It is in the oven within so many minutes; none where it may stand.
    #[serde(default)]
    pub oven_within: Option<Minutes>,
    /// It rises or firms before it is baked, minutes from and to, and at what temperature, °C.
    #[serde(default)]
    pub before: Option<Before>,
    /// In a tin; none where it is only baked as a sheet.
    #[serde(default)]
    pub tin: Option<Oven>,
    /// As a sheet; none where it is only baked in a tin.
    #[serde(default)]
    pub sheet: Option<Oven>,
    /// It is cold enough to wrap at, °C.
    pub cool_c: f64,
    /// It rests wrapped, minutes at least and at most, before it is split and filled.
    pub rest: [Minutes; 2],
    /// Days wrapped in the room.
    pub keeps_days: f64,
    /// Days frozen.
    pub frozen_days: f64,
    /// What else is done with it, in one sentence (common practice).
    #[serde(default)]
    pub also: Option<String>,
}

/// What happens to a dough before the oven.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Before {
    /// Minutes from and to.
    pub minutes: [Minutes; 2],
    /// At what temperature, °C.
    pub c: f64,
}

/// Highest that is baked as a sheet, mm (common practice).
pub const SHEET_MM: f64 = 15.0;

#[derive(Deserialize)]
struct Row {
    sponge: String,
    baking: Baking,
}

#[derive(Deserialize)]
struct File {
    bake: Vec<Row>,
}

static BAKINGS: LazyLock<Vec<(String, Baking)>> = LazyLock::new(|| {
    let file: File =
        toml::from_str(include_str!("../../data/bakes.toml")).expect("the table of bakes is well formed");
    file.bake.into_iter().map(|row| (row.sponge, row.baking)).collect()
});

/// How a kind of sponge is made.
pub fn baking(sponge: &str) -> Option<&'static Baking> {
    BAKINGS.iter().find(|(key, _)| key == sponge).map(|(_, baking)| baking)
}

impl Baking {
    /// How it is baked so high, mm: as a sheet where it is thin, in a tin where it is not, else as it can be.
    pub fn oven(&self, height_mm: f64) -> Option<(BakedIn, Oven)> {
        let sheet = self.sheet.map(|oven| (BakedIn::Sheet, oven));
        let tin = self.tin.map(|oven| (BakedIn::Tin, oven));
        if height_mm < SHEET_MM { sheet.or(tin) } else { tin.or(sheet) }
    }

    /// Minutes in the oven, so high, mm.
    pub fn minutes(&self, height_mm: f64) -> Option<f64> {
        self.oven(height_mm).map(|(_, oven)| oven.base.minutes() + oven.per_mm.minutes() * height_mm)
    }

    /// In words, for a layer so high: "In its tin at 175 °C, about 22 min; rests wrapped up to 2 days."
    pub fn words(&self, height_mm: f64) -> String {
        let mut said = String::new();
        if let Some(before) = self.before {
            let [least, most] = before.minutes.map(Minutes::minutes);
            let verb = if before.c > 15.0 { "Rises" } else { "Chills" };
            said.push_str(&format!(
                "{verb} {} at {} °C first. ",
                crate::number::span_min([least, most]),
                limit(before.c)
            ));
        }
        if let (Some((how, oven)), Some(minutes)) = (self.oven(height_mm), self.minutes(height_mm)) {
            let place = match how {
                BakedIn::Tin => "In its tin",
                BakedIn::Sheet => "As a sheet",
            };
            said.push_str(&format!(
                "{place} at {} °C, about {} min for {} mm",
                limit(oven.c),
                limit(minutes.round()),
                limit(height_mm)
            ));
            if let Some(within) = self.oven_within {
                said.push_str(&format!(", in the oven within {} min", limit(within.minutes())));
            }
            said.push_str(". ");
        }
        if let Some(also) = &self.also {
            said.push_str(&format!("{also} "));
        }
        let [least, most] = self.rest.map(Minutes::minutes);
        if least > 0.0 {
            said.push_str(&format!("Rests wrapped {}. ", crate::number::span_min([least, most])));
        }
        said.push_str(&format!(
            "Keeps {} days wrapped, {} frozen.",
            limit(self.keeps_days),
            limit(self.frozen_days)
        ));
        said
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sponge::sponges;

    #[test]
    fn every_sponge_is_baked_somehow_and_higher_takes_longer() {
        for sponge in sponges() {
            let baking = baking(&sponge.key).unwrap_or_else(|| panic!("{} is not baked", sponge.key));
            let [thin, high] = [8.0, 40.0].map(|mm| baking.minutes(mm).expect("an oven"));
            assert!(thin > 2.0 && high > thin && high < 90.0, "{}: {thin} and {high} min", sponge.key);
            let (_, oven) = baking.oven(20.0).unwrap();
            assert!((120.0..=240.0).contains(&oven.c), "{}: {} °C", sponge.key, oven.c);
            assert!(baking.rest[0].minutes() <= baking.rest[1].minutes(), "{}", sponge.key);
            assert!(baking.frozen_days >= baking.keeps_days && baking.keeps_days >= 1.0, "{}", sponge.key);
            assert!(baking.words(20.0).ends_with("frozen."), "{}", baking.words(20.0));
        }
    }

    /// Common practice: a genoise of 40 mm in its tin takes a good half hour at 175 °C.
    #[test]
    fn a_genoise_is_baked_as_every_cook_does() {
        let genoise = baking("genoise").unwrap();
        assert_eq!(genoise.minutes(40.0), Some(32.0));
        assert_eq!(genoise.oven(8.0).unwrap().0, BakedIn::Sheet);
        assert_eq!(
            genoise.words(40.0),
            "In its tin at 175 °C, about 32 min for 40 mm, in the oven within 5 min. Keeps 2 days wrapped, 30 frozen."
        );
    }
}
