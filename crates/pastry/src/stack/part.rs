//! What a cake takes of each component and bake: the sum of its places, and what must be made for it.

use crate::ingredient::PhaseShares;
use crate::number::{hundredths, on_a_scale};
use crate::stack::check::scene::Scene;
use crate::stack::place::PlaceKind;
use crate::stack::place_answer::{PlaceAnswer, limit_grams};
use crate::stack::shape::cover::POURED;
use serde::Serialize;
use utoipa::ToSchema;

/// Whether a part is a cream or baked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartKind {
    /// Baked.
    Bake,
    /// A component.
    Component,
}

/// Places alike and how much each gets: one share of what is in the bowl.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct EqualShare {
    /// How many.
    pub count: u32,
    /// What they are: "filling", "coat".
    pub what: String,
    /// Each, g; of a bake, of batter.
    pub each_g: f64,
    /// In words: "4 fillings of 126 g".
    pub words: String,
}

/// A part of a cake.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PartAnswer {
    /// A cream or a bake.
    pub kind: PartKind,
    /// Its key.
    pub key: String,
    /// Its name.
    pub name: String,
    /// The colour it is drawn in.
    pub tint: String,
    /// On the cake, g: the sum of its places.
    pub grams: f64,
    /// To be made, g, with what stays in bowl, bag and pan, or what runs off a glaze; of a bake, the batter.
    pub to_make_g: f64,
    /// Trimmed off, g.
    pub trimmed_g: f64,
    /// What runs off a glaze and can be used again, g.
    pub runs_off_g: f64,
    /// Its phases, per cent of its weight.
    pub phases_of_total_percent: PhaseShares,
    /// Air in it, per cent of its volume before.
    pub overrun_percent: f64,
    /// How it is shared out.
    pub shares: Vec<EqualShare>,
}

/// The parts of a cake, bakes first, in the order they are met.
pub fn parts(scene: &Scene, places: &[PlaceAnswer]) -> Vec<PartAnswer> {
    let mut parts: Vec<PartAnswer> = Vec::new();
    for (at, place) in places.iter().enumerate() {
        let amount = &scene.amounts[at];
        let (kind, key) = match (&place.bake, &place.component) {
            (Some(bake), _) if scene.makings.baked(Some(bake)).is_some() => (PartKind::Bake, bake),
            (None, Some(component)) if scene.makings.cream(Some(component)).is_some() => {
                (PartKind::Component, component)
            }
            _ => continue,
        };
        let found = parts.iter().position(|part| part.kind == kind && part.key == *key);
        let index = found.unwrap_or_else(|| {
            parts.push(begun(scene, kind, key, place));
            parts.len() - 1
        });
        let part = &mut parts[index];
        part.grams = hundredths(part.grams + place.grams);
        part.trimmed_g = hundredths(part.trimmed_g + amount.trimmed_g);
        let losses = &scene.document.losses;
        let tier = &scene.document.tiers[place.tier];
        let spare = tier.many.as_ref().map_or(1.0, |many| many.made());
        let loss = match place.kind {
            PlaceKind::Border | PlaceKind::Rosettes | PlaceKind::Dam => losses.piped_percent,
            // What is filled into something small is piped.
            PlaceKind::Filling if tier.count() > 1 => losses.piped_percent,
            PlaceKind::Soak | PlaceKind::Drip | PlaceKind::Glaze => losses.poured_percent,
            PlaceKind::Film | PlaceKind::Pile => losses.poured_percent,
            _ => losses.spread_percent,
        };
        let whole = |grams: f64| spare * grams / (1.0 - 0.01 * loss.clamp(0.0, 50.0));
        match kind {
            PartKind::Bake => part.to_make_g += spare * amount.batter_g,
            PartKind::Component if place.kind == PlaceKind::Glaze => {
                part.to_make_g += whole(POURED * place.grams);
                part.runs_off_g += spare * (POURED - 1.0) * place.grams;
            }
            PartKind::Component => part.to_make_g += whole(place.grams),
        }
        share(part, place, if kind == PartKind::Bake { amount.batter_g } else { place.grams }, tier.count());
    }
    for part in &mut parts {
        part.to_make_g = on_a_scale(part.to_make_g);
        part.runs_off_g = on_a_scale(part.runs_off_g);
    }
    parts.sort_by_key(|part| part.kind);
    parts
}

fn begun(scene: &Scene, kind: PartKind, key: &str, place: &PlaceAnswer) -> PartAnswer {
    let (phases, overrun) = match kind {
        PartKind::Bake => (scene.makings.baked(Some(key)).map(|baked| baked.phases), 0.0),
        PartKind::Component => {
            let cream = scene.makings.cream(Some(key));
            let air = cream.and_then(|cream| cream.options().overrun).unwrap_or_default();
            (cream.map(|cream| cream.phases), 100.0 * air)
        }
    };
    PartAnswer {
        kind,
        key: key.to_owned(),
        name: place.name.clone().unwrap_or_default(),
        tint: place.tint.clone().unwrap_or_default(),
        grams: 0.0,
        to_make_g: 0.0,
        trimmed_g: 0.0,
        runs_off_g: 0.0,
        phases_of_total_percent: phases.unwrap_or_default(),
        overrun_percent: overrun,
        shares: Vec::new(),
    }
}

/// Adds a place to those alike.
fn share(part: &mut PartAnswer, place: &PlaceAnswer, all_g: f64, count: u32) {
    let what = place.kind.word();
    let each_g = hundredths(all_g / f64::from(count));
    match part.shares.iter_mut().find(|share| share.what == what && (share.each_g - each_g).abs() < 0.005) {
        Some(alike) => alike.count += count,
        None => part.shares.push(EqualShare { count, what: what.to_owned(), each_g, words: String::new() }),
    }
    for share in &mut part.shares {
        share.say();
    }
}

impl EqualShare {
    /// Says it in words.
    pub fn say(&mut self) {
        let grams = limit_grams(self.each_g);
        self.words = match self.count {
            1 => format!("{} {grams} g", self.what),
            n if self.what.ends_with('s') => format!("{n} × {} of {grams} g", self.what),
            n => format!("{n} {}s of {grams} g", self.what),
        };
    }
}
