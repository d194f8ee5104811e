//! How much each place takes: volume times predicted density, syrup by what its sponge drinks, rounded as a
//! scale shows it.

use crate::number::on_a_scale;
use crate::sponge::{Sponge, over_layers};
use crate::stack::case::Many;
use crate::stack::cream::{Cream, Makings};
use crate::stack::document::{Layer, SoakGrade, Soaking, StackDocument};
use crate::stack::place::{Layout, PlaceKind, Spot, Stuff};

/// How long a soaked layer is left before the next goes on, s (common practice).
pub const SOAK_SECONDS: f64 = 600.0;

/// What a place takes.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Amount {
    /// As a scale shows it, g; 0 while nobody said of what.
    pub grams: f64,
    /// Before it is rounded, g.
    pub exact_g: f64,
    /// Density it rests on, g/ml; none for what is counted in pieces.
    pub density: Option<f64>,
    /// Batter that bakes to it and its trimmings, g.
    pub batter_g: f64,
    /// Trimmed off, g.
    pub trimmed_g: f64,
    /// What a soak does.
    pub soak: Option<SoakAmount>,
}

/// What a soak does to its sponge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SoakAmount {
    /// Syrup on sponge, g per g.
    pub gram_per_gram: f64,
    /// How deep it gets, mm: what there is of it and its time, the smaller of both.
    pub depth_mm: f64,
    /// The sponge it is for, g.
    pub sponge_g: f64,
}

/// One amount per place, in their order.
pub fn amounts(document: &StackDocument, layout: &Layout, makings: &Makings) -> Vec<Amount> {
    let mut amounts: Vec<Amount> = layout.spots.iter().map(|spot| dry(document, spot, makings)).collect();
    for tier in 0..layout.tiers.len() {
        soak(document, layout, makings, tier, &mut amounts);
    }
    amounts
}

/// What a place takes that hangs on no other.
fn dry(document: &StackDocument, spot: &Spot, makings: &Makings) -> Amount {
    match spot.stuff {
        Stuff::Bake(key) => {
            let Some(baked) = makings.baked(key) else { return Amount::default() };
            let density = 1e-3 * baked.sponge.bulk;
            let exact_g = spot.volume * density;
            let grams = on_a_scale(exact_g);
            let trimmed_g = on_a_scale(spot.trimmed * density);
            let batter_g = on_a_scale(baked.batter_for(grams + trimmed_g));
            Amount { grams, exact_g, density: Some(density), batter_g, trimmed_g, soak: None }
        }
        Stuff::Component(key) => {
            let Some(cream) = makings.cream(key) else { return Amount::default() };
            let exact_g = match (spot.kind, &document.tiers[spot.tier].many) {
                // What holds a pile together is taken by weight.
                (PlaceKind::Pile, Some(Many { pile: Some(pile), .. })) if pile.each_g.is_finite() => {
                    f64::from(spot.count) * pile.each_g.clamp(0.0, 500.0)
                }
                _ => spot.volume * cream.density(),
            };
            Amount {
                grams: on_a_scale(exact_g),
                exact_g,
                density: Some(cream.density()),
                ..Amount::default()
            }
        }
        Stuff::Pieces => {
            let pieces = spot.at.number();
            let each =
                pieces.and_then(|at| document.tiers[spot.tier].pieces.get(at)).map_or(0.0, |p| p.each_g);
            let exact_g = f64::from(spot.count) * if each.is_finite() { each.clamp(0.0, 1e5) } else { 0.0 };
            Amount { grams: on_a_scale(exact_g), exact_g, ..Amount::default() }
        }
    }
}

/// The soaking of a layer.
fn soaking_of<'a>(document: &'a StackDocument, spot: &Spot) -> Option<&'a Soaking> {
    match spot.layer(document)? {
        Layer::Sponge { soak, .. } => soak.as_ref(),
        Layer::Filling { .. } => None,
    }
}

/// A soak of one layer on its way to grams.
struct Want<'a> {
    at: usize,
    grams: f64,
    sponge: &'a Sponge,
    cream: &'a Cream,
    sponge_g: f64,
    /// Written by the cook, g per g: it stays as it is.
    written: bool,
}

/// Syrup of one tier: what the cook wrote stays; by grade, each layer by its sponge's weight, the lowest a little
/// less, adding up to the same.
fn soak(document: &StackDocument, layout: &Layout, makings: &Makings, tier: usize, amounts: &mut [Amount]) {
    let mut wants: Vec<Want> = Vec::new();
    for (at, spot) in layout.spots.iter().enumerate() {
        if spot.tier != tier || spot.kind != PlaceKind::Soak || at == 0 {
            continue;
        }
        // A soak stands right after its sponge.
        let Stuff::Bake(bake) = layout.spots[at - 1].stuff else { continue };
        let Stuff::Component(component) = spot.stuff else { continue };
        let (Some(baked), Some(cream)) = (makings.baked(bake), makings.cream(component)) else { continue };
        let Some(soaking) = soaking_of(document, spot) else { continue };
        let sponge_g = amounts[at - 1].exact_g;
        let written = soaking.gram_per_gram.filter(|own| own.is_finite());
        let gram_per_gram =
            written.map_or_else(|| grade(&baked.sponge, soaking.grade), |own| own.clamp(0.0, 5.0));
        wants.push(Want {
            at,
            grams: gram_per_gram * sponge_g,
            sponge: &baked.sponge,
            cream,
            sponge_g,
            written: written.is_some(),
        });
    }
    // Only where the lowest is among those by grade does it give to the others.
    if wants.first().is_some_and(|lowest| !lowest.written) {
        let by_grade: Vec<usize> = (0..wants.len()).filter(|k| !wants[*k].written).collect();
        let total: f64 = by_grade.iter().map(|k| wants[*k].grams).sum();
        let parts = over_layers(total, &by_grade.iter().map(|k| wants[*k].grams).collect::<Vec<f64>>());
        for (k, grams) in by_grade.into_iter().zip(parts) {
            wants[k].grams = grams;
        }
    }
    for want in wants {
        amounts[want.at] = soaked(&want, &layout.spots[want.at]);
    }
}

/// What a soak takes, and how deep it gets.
fn soaked(want: &Want, spot: &Spot) -> Amount {
    let syrup = &want.cream.predictor.base;
    let at_work = syrup.at(want.cream.worked_c(), want.cream.document.history());
    let area = f64::from(spot.count) * spot.outline.area();
    let supplied = if area > 0.0 { want.sponge.wet_depth(want.grams, syrup.density, area) } else { 0.0 };
    let in_time = want.sponge.depth(at_work.plastic_viscosity_pa_s, SOAK_SECONDS);
    let thick = 0.01 * spot.thickness;
    Amount {
        grams: on_a_scale(want.grams),
        exact_g: want.grams,
        density: Some(want.cream.density()),
        soak: Some(SoakAmount {
            gram_per_gram: if want.sponge_g > 0.0 { want.grams / want.sponge_g } else { 0.0 },
            depth_mm: 1e3 * supplied.min(in_time).min(thick),
            sponge_g: want.sponge_g,
        }),
        ..Amount::default()
    }
}

/// Syrup on sponge of a grade, g per g.
pub fn grade(sponge: &Sponge, grade: SoakGrade) -> f64 {
    match grade {
        SoakGrade::Light => sponge.light,
        SoakGrade::Moist => sponge.moist,
        SoakGrade::Drenched => sponge.drenched,
    }
}

/// What bears down on a place, g: the layers above it in its tier with what lies on them, and the tiers above
/// unless dowels bear them.
pub fn load_above(document: &StackDocument, layout: &Layout, amounts: &[Amount], at: usize) -> f64 {
    let here = &layout.spots[at];
    let mut grams = 0.0;
    for (spot, amount) in layout.spots.iter().zip(amounts) {
        if spot.tier != here.tier {
            continue;
        }
        let inside = matches!(
            spot.kind,
            PlaceKind::Sponge | PlaceKind::Soak | PlaceKind::Filling | PlaceKind::Dam | PlaceKind::Insert
        );
        // A case bears itself.
        if matches!(spot.kind, PlaceKind::Case | PlaceKind::Film | PlaceKind::Pile) {
            continue;
        }
        let above = inside && spot.z[0] >= here.z[1] - 1e-9;
        if above || spot.kind == PlaceKind::Pieces {
            grams += amount.exact_g;
        } else if !inside && spot.volume > 0.0 {
            grams += amount.exact_g * spot.on_top / spot.volume;
        }
    }
    grams /= f64::from(document.tiers[here.tier].count());
    for tier in here.tier + 1..layout.tiers.len() {
        if document.tiers[tier - 1].dowels.is_some() {
            break;
        }
        grams += tier_g(layout, amounts, tier);
    }
    grams
}

/// A tier with all that is in and on it, g.
pub fn tier_g(layout: &Layout, amounts: &[Amount], tier: usize) -> f64 {
    layout.spots.iter().zip(amounts).filter(|(spot, _)| spot.tier == tier).map(|(_, a)| a.exact_g).sum()
}
