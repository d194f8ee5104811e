//! What must be bought: ingredients merged over all batches, yolks and whites as eggs, in packs, with their price.

use crate::formula::kitchen_words::in_pieces;
use crate::ingredient::Group;
use crate::ingredient::{Ingredient, Pack, Shelf};
use crate::number::{hundredths, on_a_scale};
use crate::order::batch::Batch;
use crate::order::document::OrderDocument;
use crate::stack::Makings;
use crate::stack::case::Many;
use crate::units::kitchen::Unit;
use serde::Serialize;
use std::collections::{BTreeMap, HashMap};
use utoipa::ToSchema;

/// What a kitchen knows of packs.
pub type PackOf<'a> = &'a dyn Fn(&Ingredient) -> Option<Pack>;

/// A line of the shopping list.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShoppingLine {
    /// Key of the ingredient; empty for what is not in the pantry.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// Its shelf: dairy, sugar, fruit.
    pub group: Group,
    /// Needed, g.
    pub needed_g: f64,
    /// The same in eggs, leaves, sticks.
    pub in_pieces: Option<String>,
    /// What it is for.
    pub used_in: Vec<String>,
    /// Packs to buy; none where no pack is known.
    pub packs: Option<u32>,
    /// Weight of a pack, g.
    pub pack_g: Option<f64>,
    /// What the packs cost.
    pub price: Option<f64>,
    /// Left of the packs, g.
    pub left_g: Option<f64>,
}

/// Eggs to crack, and what is left of them.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Eggs {
    /// Whites nobody uses, g.
    pub whites_g: f64,
    /// Yolks nobody uses, g.
    pub yolks_g: f64,
    /// How many whites that is.
    pub whites: f64,
    /// How many yolks.
    pub yolks: f64,
}

/// Every ingredient an order may name: of its formulas and bakes, wherever they come from, and of the shelf.
pub struct Larder<'a> {
    weighed: HashMap<&'a str, &'a Ingredient>,
    shelves: Vec<&'a Shelf>,
}

impl<'a> Larder<'a> {
    /// Of the makings of its cakes.
    pub fn of(makings: &'a [Makings]) -> Self {
        let creams = makings.iter().flat_map(|own| own.creams.values().flatten()).flat_map(|own| &own.lines);
        let bakes = makings.iter().flat_map(|own| own.bakes.values().flatten()).flat_map(|own| &own.lines);
        let mut weighed = HashMap::new();
        for line in creams.chain(bakes) {
            // What a file brings may be inside something made of it alone.
            for (leaf, _) in line.ingredient.leaves(1.0) {
                weighed.insert(leaf.id.as_str(), leaf);
            }
            weighed.insert(line.ingredient.id.as_str(), line.ingredient.as_ref());
        }
        Larder { weighed, shelves: makings.iter().map(|own| &own.shelf).collect() }
    }

    /// The ingredient with this key.
    pub fn find(&self, key: &str) -> Option<&'a Ingredient> {
        let on_a_shelf = || self.shelves.iter().find_map(|shelf| shelf.find(key)).map(AsRef::as_ref);
        self.weighed.get(key).copied().or_else(on_a_shelf)
    }
}

/// The shopping list, by shelf and name, and the eggs.
pub fn shopping(
    order: &OrderDocument,
    batches: &[Batch],
    shelf: &Larder,
    pack: PackOf,
) -> (Vec<ShoppingLine>, Eggs) {
    let mut needed: BTreeMap<String, (f64, Vec<String>)> = BTreeMap::new();
    let mut need = |key: &str, grams: f64, what: &str| {
        let entry = needed.entry(key.to_owned()).or_default();
        entry.0 += grams;
        if !entry.1.iter().any(|own| own == what) {
            entry.1.push(what.to_owned());
        }
    };
    for batch in batches {
        for line in batch.lines.iter().filter(|line| !line.made_here) {
            need(&line.ingredient, line.mass_g, &batch.name);
        }
    }
    let mut loose: BTreeMap<String, (f64, Vec<String>)> = BTreeMap::new();
    for cake in &order.cakes {
        let laid = cake.stack.tiers.iter().flat_map(|tier| tier.pieces.iter().map(move |own| (tier, own)));
        for (tier, pieces) in laid {
            let each = if pieces.each_g.is_finite() { pieces.each_g.max(0.0) } else { 0.0 };
            let many = f64::from(tier.count()) * tier.many.as_ref().map_or(1.0, Many::made);
            let grams = many * f64::from(cake.count) * f64::from(pieces.count) * each;
            match pieces.ingredient.as_deref().filter(|key| shelf.find(key).is_some()) {
                // What is made here is bought as what it comes down to.
                Some(key) => match shelf.find(key).filter(|own| own.made.is_some()) {
                    Some(made) => {
                        bought(made, grams, &mut |own, grams| need(&own.id, grams, &pieces.name));
                    }
                    None => need(key, grams, &pieces.name),
                },
                None => {
                    let entry = loose.entry(pieces.name.clone()).or_default();
                    entry.0 += grams;
                    if !entry.1.contains(&cake.stack.name) {
                        entry.1.push(cake.stack.name.clone());
                    }
                }
            }
        }
    }
    let eggs = eggs(&mut needed, shelf);
    let mut list: Vec<ShoppingLine> = needed
        .into_iter()
        // Water comes from the tap.
        .filter(|(key, _)| key != "water")
        .filter_map(|(key, (grams, used_in))| Some(line(shelf.find(&key)?, grams, used_in, pack)))
        .collect();
    list.extend(loose.into_iter().map(|(name, (grams, used_in))| ShoppingLine {
        ingredient: String::new(),
        name,
        group: Group::Other,
        needed_g: on_a_scale(grams),
        in_pieces: None,
        used_in,
        packs: None,
        pack_g: None,
        price: None,
        left_g: None,
    }));
    list.sort_by(|a, b| (a.group.word(), &a.name).cmp(&(b.group.word(), &b.name)));
    (list, eggs)
}

fn line(ingredient: &Ingredient, grams: f64, used_in: Vec<String>, pack: PackOf) -> ShoppingLine {
    let own = pack(ingredient).filter(|pack| pack.pack_g > 0.0);
    let packs = own.map(|pack| (grams / pack.pack_g - 1e-9).ceil().max(0.0) as u32);
    let bought = own.zip(packs).map(|(pack, packs)| pack.pack_g * f64::from(packs));
    ShoppingLine {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        group: ingredient.group,
        needed_g: hundredths(grams),
        in_pieces: in_pieces(grams, ingredient),
        used_in,
        packs,
        pack_g: own.map(|pack| pack.pack_g),
        price: own.zip(packs).map(|(pack, packs)| hundredths(pack.pack_price * f64::from(packs))),
        left_g: bought.map(|bought| hundredths(bought - grams)),
    }
}

/// Yolks and whites as whole eggs: as many as the larger of both takes; the rest is left over.
fn eggs(needed: &mut BTreeMap<String, (f64, Vec<String>)>, shelf: &Larder) -> Eggs {
    let weight = |key: &str, unit: Unit, usual: f64| {
        let pieces = shelf.find(key).map(|ingredient| &ingredient.weights.pieces);
        pieces
            .and_then(|own| own.iter().find(|(own, _)| *own == unit))
            .map_or(usual, |(_, known)| known.weight)
    };
    let (egg_g, yolk_g, white_g) = (
        weight("egg", Unit::Egg, 50.0),
        weight("yolk", Unit::Yolk, 17.0),
        weight("white", Unit::White, 33.0),
    );
    let (yolks, for_yolks) = needed.remove("yolk").unwrap_or_default();
    let (whites, for_whites) = needed.remove("white").unwrap_or_default();
    if yolks <= 0.0 && whites <= 0.0 {
        return Eggs::default();
    }
    let parted = (yolks / yolk_g).max(whites / white_g).ceil();
    let entry = needed.entry("egg".to_owned()).or_default();
    entry.0 += parted * egg_g;
    for what in for_yolks.into_iter().chain(for_whites) {
        if !entry.1.contains(&what) {
            entry.1.push(what);
        }
    }
    let (whites_left, yolks_left) = (parted - whites / white_g, parted - yolks / yolk_g);
    Eggs {
        whites_g: on_a_scale(whites_left * white_g),
        yolks_g: on_a_scale(yolks_left * yolk_g),
        whites: whites_left,
        yolks: yolks_left,
    }
}

/// What is bought for so many grams of something, with what is boiled and strained off it.
fn bought(own: &Ingredient, grams: f64, need: &mut dyn FnMut(&Ingredient, f64)) {
    match &own.made {
        Some(made) => made
            .lines
            .iter()
            .filter(|line| line.share > 0.0)
            .for_each(|line| bought(&line.ingredient, line.share * grams, need)),
        None => need(own, grams),
    }
}
