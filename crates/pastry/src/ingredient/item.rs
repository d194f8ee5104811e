//! An ingredient: what it is made of and what a kitchen knows of it. What is made here is one too, with all that it comes down
//! to: a pastry cream in a diplomat, a ganache in a buttercream.

use crate::ingredient::composition::{Composition, Part};
use crate::ingredient::group::Group;
use crate::ingredient::origin::Origin;
use crate::ingredient::starch::StarchKind;
use crate::ingredient::weights::HouseholdWeights;
use serde::{Deserialize, Serialize};
use std::sync::{Arc, LazyLock};
use utoipa::ToSchema;

/// Properties some ingredients have besides their composition.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Flags {
    /// Raw fruit whose enzyme cuts gelatin.
    pub protease: bool,
    /// Starch that swells without boiling.
    pub cold_starch: bool,
    /// Egg that was not pasteurised.
    pub raw_egg: bool,
    /// Its pectin is added to set: fruit's own never does.
    pub sets_with_pectin: bool,
    /// Locust bean gum, which sets with xanthan though neither does alone.
    pub locust_bean: bool,
    /// Gelatin of cold-water fish, which hardly sets in a fridge.
    pub cold_water_fish: bool,
}

/// A pack as it is bought.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pack {
    /// Net weight, g.
    #[schema(exclusive_minimum = 0, maximum = 1000000)]
    pub pack_g: f64,
    /// What it costs, in the kitchen's currency.
    #[schema(minimum = 0, maximum = 1000000)]
    pub pack_price: f64,
}

impl Pack {
    /// Price of a kilogram.
    pub fn price_per_kg(&self) -> f64 {
        1000.0 * self.pack_price / self.pack_g
    }
}

/// A row of the catalogue.
#[derive(Debug, Clone, PartialEq)]
pub struct Ingredient {
    /// Stable key, used in files.
    pub id: String,
    /// Name in the kitchen.
    pub name: String,
    /// What other countries or cooks call it.
    pub also: Vec<String>,
    /// Shelf it stands on.
    pub group: Group,
    /// Mass fractions, adding up to 1.
    pub composition: Composition,
    /// Bloom strength of its gelatin, g.
    pub bloom: f64,
    /// Strength of its starch; corn starch is 1.
    pub starch_strength: f64,
    /// What its starch is of, where that is not corn.
    pub starch_of: Option<StarchKind>,
    /// Its own pH; none where nobody measured one.
    pub ph: Option<f64>,
    /// Strength of its gum; xanthan is 1.
    pub gum_strength: f64,
    /// 1 when its fat sits in globules of its own, as in cream; 0 when it melts into the common fat.
    pub globule: f64,
    /// Yield stress it brings ready-made, Pa (curds and jams).
    pub body_pa: f64,
    /// Enzyme and starch properties.
    pub flags: Flags,
    /// Allergens it brings, EU and US lists.
    pub allergens: Vec<String>,
    /// Where it comes from, for diet and faith.
    pub origins: Vec<Origin>,
    /// What a cup or a piece of it weighs.
    pub weights: HouseholdWeights,
    /// The pack it usually comes in.
    pub pack: Option<Pack>,
    /// Where the composition is from.
    pub source: String,
    /// high, medium or low.
    pub confidence: String,
    /// What it comes down to, when it is made here and not bought.
    pub made: Option<Arc<Made>>,
    /// Water that is boiled off it before it goes in, g of each gram that is weighed.
    pub steam: f64,
    /// What of it goes in when part of it is strained off: shares of what is weighed.
    pub left: Option<Arc<Vec<Leaf>>>,
    /// Keys of those in whose place it is bought, the last one first.
    pub replaced: Vec<String>,
}

impl Ingredient {
    /// Its pH: its own, else that of most things on its shelf.
    pub fn ph(&self) -> f64 {
        self.ph.unwrap_or_else(|| self.group.usual_ph())
    }
}

impl AsRef<Ingredient> for Ingredient {
    fn as_ref(&self) -> &Ingredient {
        self
    }
}

/// An ingredient in something that is made here.
#[derive(Debug, Clone, PartialEq)]
pub struct Leaf {
    /// The ingredient. Egg that its making made safe is no longer raw.
    pub ingredient: Arc<Ingredient>,
    /// Grams of it in a gram of what is made.
    pub share: f64,
    /// Highest temperature it reached in the making, °C; none where nobody said.
    pub cook_c: Option<f64>,
}

/// What something made here comes down to.
#[derive(Debug, Clone, PartialEq)]
pub struct Made {
    /// Key of the component.
    pub component: String,
    /// The revision it is held at; none for the newest.
    pub revision: Option<i64>,
    /// Its family in kitchen words: "pastry cream".
    pub word: &'static str,
    /// What its batch weighs as it is written, g.
    pub batch_g: f64,
    /// Its own lines: what is weighed for it, made here or bought.
    pub lines: Vec<Leaf>,
    /// Everything it comes down to.
    pub leaves: Vec<Leaf>,
    /// Volume gained in its making, of the volume before.
    pub overrun: f64,
    /// How stiff it is whipped, 0 to 1.
    pub whip: f64,
    /// Days it keeps in the cold.
    pub cold_days: i64,
    /// Levels of components inside it, itself counted.
    pub levels: usize,
    /// What had set in it before it went in, in words: it holds nothing any more. Empty when nothing had.
    pub broken: Vec<&'static str>,
    /// How much of what is weighed for it is strained off, g of each gram of it.
    pub strained: f64,
    /// Of what only comes beside something made: that, and grams of it that come with a gram of this.
    pub beside: Option<(Arc<Ingredient>, f64)>,
}

impl Ingredient {
    /// What it comes down to, with grams of each in `grams` of it: itself, when it is bought; and what boils off it, less
    /// than nothing of water.
    pub fn leaves(&self, grams: f64) -> impl Iterator<Item = (&Ingredient, f64)> {
        let inside = self.inside();
        let of_it = inside.into_iter().flatten();
        let bought = inside.is_none().then_some((self, grams));
        let steam = (self.steam > 0.0).then(|| (STEAM.as_ref(), -self.steam * grams));
        bought
            .into_iter()
            .chain(of_it.map(move |leaf| (leaf.ingredient.as_ref(), leaf.share * grams)))
            .chain(steam)
    }

    /// What goes in when it is not the ingredient itself: what it comes down to, or what is left of it.
    pub fn inside(&self) -> Option<&[Leaf]> {
        let made = self.made.as_ref().map(|made| made.leaves.as_slice());
        self.left.as_ref().map(|left| left.as_slice()).or(made)
    }

    /// What is made when this is needed: itself, or what it comes beside; and grams of that for each gram of this.
    pub fn batch(&self) -> Option<(&Made, f64)> {
        let made = self.made.as_deref()?;
        match &made.beside {
            None => Some((made, 1.0)),
            Some((main, per)) => Some((main.made.as_deref()?, *per)),
        }
    }

    /// Whether two are of one batch, whatever was done to each on its way in.
    pub fn same_batch(&self, other: &Ingredient) -> bool {
        match (self.batch(), other.batch()) {
            (Some((one, _)), Some((two, _))) => {
                (&one.component, one.revision) == (&two.component, two.revision) && one.lines == two.lines
            }
            _ => false,
        }
    }

    /// What a kilogram costs by what a kilogram of each thing that is bought costs; none where a price is missing.
    pub fn price_per_kg(&self, price: &dyn Fn(&Ingredient) -> Option<f64>) -> Option<f64> {
        match &self.made {
            None => price(self),
            // What is boiled or strained off was bought too.
            Some(made) => made
                .lines
                .iter()
                .filter(|line| line.share > 0.0)
                .map(|line| Some(line.share * line.ingredient.price_per_kg(price)?))
                .sum(),
        }
    }
}

/// What goes off with the steam: water, and nothing that was in it.
pub static STEAM: LazyLock<Arc<Ingredient>> = LazyLock::new(|| {
    let mut composition = Composition::NONE;
    composition.0[Part::Water as usize] = 1.0;
    Arc::new(Ingredient {
        id: "steam".to_owned(),
        name: "Steam".to_owned(),
        also: Vec::new(),
        group: Group::Other,
        composition,
        bloom: 0.0,
        starch_strength: 1.0,
        starch_of: None,
        ph: Some(7.0),
        gum_strength: 1.0,
        globule: 0.0,
        body_pa: 0.0,
        flags: Flags::default(),
        allergens: Vec::new(),
        origins: Vec::new(),
        weights: HouseholdWeights::default(),
        pack: None,
        source: "water".to_owned(),
        confidence: "high".to_owned(),
        made: None,
        steam: 0.0,
        left: None,
        replaced: Vec::new(),
    })
});
