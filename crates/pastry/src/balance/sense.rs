//! What a practised cook would not do, whatever the numbers say: how far a line moves, how cold a cream is worked, how much
//! water a butter takes (common practice put into numbers, assumed).

use crate::formula::Family;
use crate::formula::system::Continuous;
use crate::ingredient::composition::Part;
use crate::ingredient::{Group, Ingredient, Role};

/// A line under this share of the batch is a pinch: it may move further.
const PINCH: f64 = 0.03;
/// Most of something wet that goes into a cream with fat outside, share of the batch.
const WET_IN_BUTTER: f64 = 0.06;
/// Most of anything that goes in new, share of the batch.
const NEW: f64 = 0.15;
/// Most gelatin that goes in new, share of the batch.
const NEW_GELATIN: f64 = 0.02;

/// Least and most a line becomes of itself, `share` being its part of the batch: never half of the fruit away, eggs hardly.
pub fn moves(ingredient: &Ingredient, share: f64) -> [f64; 2] {
    let part = |part: Part| ingredient.composition.get(part);
    let sets = part(Part::Gelatin) + part(Part::Agar) + part(Part::Gum) > 0.3
        || ingredient.flags.sets_with_pectin
        || ingredient.is(Role::Starch);
    match () {
        () if sets => [0.4, 2.5],
        () if ingredient.group == Group::Fruit && share >= PINCH => [0.7, 1.5],
        () if ingredient.is(Role::Egg) => [0.75, 1.35],
        () if share < PINCH => [0.3, 3.0],
        () if ingredient.group == Group::Sugar => [0.6, 1.6],
        () => [0.5, 2.0],
    }
}

/// Most of something new, share of the batch.
pub fn most_new(ingredient: &Ingredient, family: Family) -> f64 {
    let fat_outside = family.traits().system.traits().continuous == Continuous::Fat;
    match () {
        () if ingredient.bloom > 0.0 => NEW_GELATIN,
        () if fat_outside && ingredient.composition.get(Part::Water) > 0.5 => WET_IN_BUTTER,
        () => NEW,
    }
}

/// Most that a line of something wet may grow by in a cream with fat outside, share of the batch; none elsewhere.
pub fn most_wetter(ingredient: &Ingredient, family: Family) -> Option<f64> {
    let fat_outside = family.traits().system.traits().continuous == Continuous::Fat;
    (fat_outside && ingredient.composition.get(Part::Water) > 0.5).then_some(WET_IN_BUTTER)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;

    #[test]
    fn fruit_stays_and_butter_takes_little_water() {
        let of = |id: &str| find(id).unwrap().as_ref();
        assert!(moves(of("raspberry"), 0.4)[0] > 0.5);
        assert!(moves(of("yolk"), 0.2)[1] < 1.5);
        assert!(moves(of("salt"), 0.004)[1] > 2.0 && moves(of("gelatin200"), 0.01)[1] > 2.0);
        assert!(most_new(of("milk"), Family::SwissButtercream) < most_new(of("milk"), Family::Ganache));
        assert_eq!(most_wetter(of("water"), Family::Ganache), None);
    }
}
