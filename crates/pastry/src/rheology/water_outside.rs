//! Water outside: droplets and swollen solids in a syrup, from thin milk to a ganache that cuts.
//!
//! Few particles thicken the syrup one by one ([`Dilute`]); many touch and hold. Between the two lies percolation: the
//! share of the mass in which there is a way from particle to particle.

use crate::formula::mixture::Mixture;
use crate::formula::system::SystemTraits;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::Options;
use crate::rheology::params::*;
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, smin};
use crate::rheology::volumes::{Cooking, Volumes};

/// What a structure brings at one temperature.
#[derive(Debug, Clone, Copy)]
pub struct Branch {
    /// Yield stress of the network of fat crystals, Pa.
    pub fat: f64,
    /// Yield stress of crowding, Pa.
    pub crowd: f64,
    /// Plastic viscosity before air, Pa·s.
    pub thick: f64,
}

/// Particles far apart: how much each kind thickens the syrup.
#[derive(Debug, Clone, Copy)]
struct Dilute {
    /// Volume of milk protein as it swells at 0 °C, of total.
    protein: f64,
    /// Volume y of everything else, of total, as drops: y + y^(5/3).
    drops: f64,
    /// Cube of the volume share of globules: cold, half set ones touch.
    touching: f64,
}

impl Dilute {
    /// ln of viscosity over that of the syrup: 2.5 f/(1 − 1.5 f) + (2.965 + 0.00255 T)(y + y^5/3) + 4.5 sfc h³.
    ///
    /// Mooney for protein, its constants set on skim and condensed milk; Phipps 1969 for drops (from memory); the last term
    /// is assumed. Checked against `tests/it/data/dairy_viscosity.csv`.
    #[inline]
    fn ln(&self, t_c: f64, solid_fat: f64) -> f64 {
        let f = smin(self.protein * (-t_c.clamp(0.0, 95.0) / 190.0).exp(), 0.36, 0.03);
        2.5 * f / (1.0 - 1.5 * f) + (2.965 + 0.00255 * t_c) * self.drops + 4.5 * solid_fat * self.touching
    }
}

/// y + y^(5/3), by which drops of a volume share y thicken.
fn as_drops(y: f64) -> f64 {
    y + y.cbrt().powi(2) * y
}

/// The structure with water outside, ready to be asked at any temperature.
#[derive(Debug, Clone, Copy)]
pub struct WaterOutside {
    /// Crowding index: 1 is full.
    pub crowding: f64,
    /// Volume share of particles.
    pub particles: f64,
    /// Share in which particles touch, 0 to 1.
    pub percolation: f64,
    /// Linking of fat crystals through droplets, with what whipping adds, 0 to 1.
    pub linking: f64,
    /// The same before whipping.
    pub linking_liquid: f64,
    /// Fat of fat, water and alcohol, per cent: what whipping asks.
    pub whip_fat_percent: f64,
    fat_volume: f64,
    crowd_factor: f64,
    dilute: Dilute,
}

impl WaterOutside {
    /// From volumes.
    pub fn new(
        mixture: &Mixture,
        serum: &Serum,
        volumes: &Volumes,
        cooking: &Cooking,
        traits: &SystemTraits,
        options: &Options,
    ) -> Self {
        let v = volumes;
        let particles = (v.fat + v.swollen + v.undissolved) / v.total;
        let hydrated =
            if v.water > 0.0 { CHI * v.sugar * v.water / (v.water + HYDRATION * v.sugar) } else { 0.0 };
        let crowding = particles / (PACKING_MAX - hydrated / v.total);
        let room = 1.0 - crowding;
        let r = (room + (room * room + 4.0 * CROWDING_FLOOR * CROWDING_FLOOR).sqrt())
            / (1.0 + (1.0 + 4.0 * CROWDING_FLOOR * CROWDING_FLOOR).sqrt());

        // Cooked yolk is flocculated and links earlier (assumed).
        let of_yolk = if particles > 0.0 { v.yolk_swollen / v.total / particles } else { 0.0 };
        let half_touch = 0.66 - 0.25 * cooking.yolk * of_yolk;
        let rise = |x: f64, half: f64, power: f64| {
            let x = (x / half).max(0.0).powf(power);
            if x.is_finite() { x / (1.0 + x) } else { 1.0 }
        };
        let percolation = rise(crowding, half_touch, 16.0);
        let linking_liquid = percolation * rise(crowding, LINK_CROWDING, LINK_SHARPNESS);
        let m = &mixture.composition;
        let fat = m.phases().fat;
        let fat_share = fat / above_zero(fat + m.get(Part::Water) + m.get(Part::Alcohol));
        // Below 30 % fat cream whips poorly, common practice: half-point 28 %.
        let whips = if traits.whips { rise(fat_share, 0.28, 12.0) } else { 1.0 };
        let whip = options.whip.unwrap_or(traits.whip);
        WaterOutside {
            crowding,
            particles,
            percolation,
            linking: linking_liquid + (1.0 - linking_liquid) * WHIP_LINKING * whip * whips,
            linking_liquid,
            whip_fat_percent: 100.0 * fat_share,
            fat_volume: v.fat / v.total,
            crowd_factor: (1.0 + CROWDING_FLOOR_2) / (r * r + CROWDING_FLOOR_2),
            dilute: Dilute {
                protein: 1.8 * v.milk_protein_swollen * serum.water_of_syrup.powf(0.25) / v.total,
                drops: as_drops((0.95 * (particles - v.milk_protein_swollen / v.total)).max(0.0)),
                touching: (v.globules / v.total).powi(3),
            },
        }
    }

    /// At `t_c`, with so much of its fat solid and `left` of the network after working.
    #[inline]
    pub fn at(&self, t_c: f64, solid_fat: f64, left: f64, serum_viscosity: f64) -> Branch {
        let touching = self.percolation;
        let thickens = (1.0 - touching) * self.dilute.ln(t_c, solid_fat) + touching * self.crowd_factor.ln();
        Branch {
            fat: fat_network(solid_fat * self.fat_volume) * self.linking * left,
            crowd: CROWD_PA
                * (-(smin(t_c, 60.0, 0.03) - 30.0) / 15.0).exp()
                * (self.crowd_factor - 1.0)
                * touching,
            thick: serum_viscosity * thickens.exp(),
        }
    }
}

/// Yield stress of a network of fat crystals at `solid` volume share, Pa: K x^2.5.
#[inline]
pub fn fat_network(solid: f64) -> f64 {
    FAT_NETWORK_PA * solid * solid * solid.sqrt()
}
