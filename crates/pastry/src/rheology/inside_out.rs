//! Which phase is outside, and whether it splits.

use crate::formula::mixture::Mixture;
use crate::ingredient::composition::FATS;
use crate::rheology::smooth::{above_zero, logistic, spos};
use crate::rheology::volumes::Volumes;

/// Fat of its room at which a mass with water outside splits half-way, and how sharply.
const SPLITS_AT: (f64, f64) = (0.652, 0.018);
/// Water of fat and water at which one with fat outside curdles half-way, and how sharply.
const CURDLES_AT: (f64, f64) = (0.70, 0.03);

/// Which phase a mass wants outside, and how close it is to splitting. Constants set by hand from common practice.
#[derive(Debug, Clone, Copy)]
pub struct InsideOut {
    /// Fat of fat and free syrup, 0 to 1: decides which phase ends up outside.
    pub fat_of_fluid: f64,
    /// Fat of fat and the water that can take it up, 0 to 1: decides whether it splits. Sugar gives no room, cocoa takes
    /// none, milk protein protects, fibre binds.
    pub fat_of_room: f64,
    /// Weight of the fat-continuous structure once it has set, 0 to 1.
    pub fat_weight: f64,
    /// Where `fat_of_room` splits it half-way, and how sharply.
    pub split_edge: (f64, f64),
    level: f64,
    soft: f64,
    fat_volume: f64,
}

impl InsideOut {
    /// With water outside as made.
    pub fn water_outside(mixture: &Mixture, v: &Volumes) -> Self {
        let held = 1.14 * v.cocoa + 0.5 * v.taken_up + 0.25 * v.sugar;
        let share = |room: f64| if v.fat > 0.0 { v.fat / (v.fat + room) } else { 0.0 };
        let fat_of_fluid = share(v.total * spos((v.serum - held) / v.total, 0.01));
        let takes = v.water + v.beside_water + 2.0 * v.milk_protein - 7.0 * v.fibre;
        let fat_of_room = share(v.total * spos(takes / v.total, 0.01));
        let fats = FATS.map(|fat| mixture.composition.get(fat));
        let soft = (1..4).map(|k| fats[k] - mixture.globule_fat[k]).sum::<f64>()
            / above_zero(fats.iter().sum::<f64>());
        InsideOut {
            fat_of_fluid,
            fat_of_room,
            fat_weight: logistic((soft - 0.25) / 0.05) * logistic((fat_of_fluid - 0.68) / 0.05),
            split_edge: SPLITS_AT,
            level: logistic((fat_of_room - SPLITS_AT.0) / SPLITS_AT.1),
            soft: logistic((soft - 0.25) / 0.08),
            fat_volume: v.fat / v.total,
        }
    }

    /// With fat outside as made: too much water for it curdles.
    pub fn fat_outside(v: &Volumes, matrix_fat: f64) -> Self {
        let wet = 1.0 - matrix_fat;
        InsideOut {
            fat_of_fluid: wet,
            fat_of_room: wet,
            fat_weight: 1.0,
            split_edge: CURDLES_AT,
            level: logistic((wet - CURDLES_AT.0) / CURDLES_AT.1),
            soft: 0.0,
            fat_volume: v.fat / v.total,
        }
    }

    /// Split index with so much of the fat solid, 0 to 1. Soft fat turns the mass over without looking broken; it oils out
    /// only when liquid fat passes 70 per cent of the volume.
    #[inline]
    pub fn split(&self, solid_fat: f64) -> f64 {
        let release = logistic((self.fat_volume * (1.0 - solid_fat) - 0.70) / 0.03);
        self.level * (1.0 - self.soft + self.soft * release)
    }
}
