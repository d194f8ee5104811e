//! Heat of a mass over its temperature, from composition; nothing frozen.
//!
//! Heat capacities: Choi & Okos 1986, as in the ASHRAE Handbook, Refrigeration (from memory; water 4176.2,
//! ASHRAE reprints 4128.9). Alcohol: CRC tables, linearised (from memory). Crystal sucrose: Bubník 1995 (from
//! memory). Melting heat: cocoa butter 140 kJ/kg (form V 137 to 157 J/g, Schlichter-Aronhime & Garti 1988, from
//! memory), milk fat 80 (Walstra 70 to 85, from memory), coconut fat 110 (from memory).

use crate::ingredient::composition::{Composition, Part};
use crate::rheology::solid_fat::{COCOA_BUTTER, LAURIC, MILK_FAT};

/// What heat sees of a mass, shares of total.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct HeatShares {
    /// Water.
    pub water: f64,
    /// Protein.
    pub protein: f64,
    /// Sugars.
    pub sugar: f64,
    /// Starch and what is counted with it.
    pub starch: f64,
    /// Fibre, gums, pectin.
    pub fibre: f64,
    /// Salts.
    pub ash: f64,
    /// Alcohol.
    pub alcohol: f64,
    /// Cocoa butter.
    pub cocoa_fat: f64,
    /// Milk fat.
    pub milk_fat: f64,
    /// Coconut fat.
    pub lauric_fat: f64,
    /// Oil.
    pub oil: f64,
}

/// Undercooling of fats that are cooled, K (assumed): they set lower than they melt.
const UNDERCOOLED_K: f64 = 6.0;
const LAURIC_UNDERCOOLED_K: f64 = 5.0;
/// Melting heat, J/kg.
const COCOA_MELTS: f64 = 140e3;
const MILK_FAT_MELTS: f64 = 80e3;
const LAURIC_MELTS: f64 = 110e3;
/// Grams of sugar that a gram of water keeps dissolved; more counts as crystal.
const DISSOLVES: f64 = 2.0;

/// ∫ cp dT from 0, of cp = a + bT + cT².
fn integral([a, b, c]: [f64; 3], t: f64) -> f64 {
    t * (a + t * (b / 2.0 + t * c / 3.0))
}

const WATER: [f64; 3] = [4176.2, -0.090864, 5.4731e-3];
const PROTEIN: [f64; 3] = [2008.2, 1.2089, -1.3129e-3];
const FAT: [f64; 3] = [1984.2, 1.4733, -4.8008e-3];
const CARBOHYDRATE: [f64; 3] = [1548.8, 1.9625, -5.9399e-3];
const FIBRE: [f64; 3] = [1845.9, 1.8306, -4.6509e-3];
const ASH: [f64; 3] = [1092.6, 1.8896, -3.6817e-3];
const ALCOHOL: [f64; 3] = [2270.0, 8.0, 0.0];
const CRYSTAL: [f64; 3] = [1126.9, 4.524, 6.24e-3];

impl HeatShares {
    /// From a composition: dry cocoa is about a quarter protein, a third fibre, the rest like starch
    /// (assumed).
    pub fn of(m: &Composition) -> Self {
        let of = |part: Part| m.get(part);
        let cocoa = of(Part::Cocoa);
        let sugar: f64 = [
            Part::Sucrose,
            Part::Glucose,
            Part::Fructose,
            Part::Lactose,
            Part::Maltose,
            Part::Dextrin,
            Part::Polyol,
        ]
        .into_iter()
        .map(of)
        .sum();
        HeatShares {
            water: of(Part::Water) + 0.04 * cocoa,
            protein: of(Part::MilkProtein)
                + of(Part::EggWhite)
                + of(Part::Yolk)
                + of(Part::Gelatin)
                + 0.25 * cocoa,
            sugar,
            starch: of(Part::Starch) + of(Part::Acid) + of(Part::Other) + 0.30 * cocoa,
            fibre: of(Part::Fibre) + of(Part::Pectin) + of(Part::Agar) + of(Part::Gum) + 0.35 * cocoa,
            ash: of(Part::Salt) + 0.06 * cocoa,
            alcohol: of(Part::Alcohol),
            cocoa_fat: of(Part::CocoaButter),
            milk_fat: of(Part::MilkFat),
            lauric_fat: of(Part::Lauric),
            oil: of(Part::Oil),
        }
    }

    /// Heat over that of the same mass, all liquid, at 0 °C: J/kg at `t_c` between 0 and 130 °C.
    ///
    /// * `cooling`: whether it comes from above, for then its fats are still liquid at a temperature at which
    ///   they would not yet have melted.
    pub fn enthalpy(&self, t_c: f64, cooling: bool) -> f64 {
        let (shift, lauric) = if cooling { (UNDERCOOLED_K, LAURIC_UNDERCOOLED_K) } else { (0.0, 0.0) };
        let crystal = (self.sugar - DISSOLVES * self.water).max(0.0);
        let fats = self.cocoa_fat + self.milk_fat + self.lauric_fat + self.oil;
        let sensible = self.water * integral(WATER, t_c)
            + self.protein * integral(PROTEIN, t_c)
            + fats * integral(FAT, t_c)
            + (self.sugar + self.starch) * integral(CARBOHYDRATE, t_c)
            + self.fibre * integral(FIBRE, t_c)
            + self.ash * integral(ASH, t_c)
            + self.alcohol * integral(ALCOHOL, t_c)
            + crystal * (integral(CRYSTAL, t_c) - integral(CARBOHYDRATE, t_c));
        sensible
            - self.cocoa_fat * COCOA_MELTS * 0.01 * COCOA_BUTTER.at(t_c + shift)
            - self.milk_fat * MILK_FAT_MELTS * 0.01 * MILK_FAT.at(t_c + shift)
            - self.lauric_fat * LAURIC_MELTS * 0.01 * LAURIC.at(t_c + lauric)
    }

    /// Heat capacity without melting at `t_c`, J/(kg K).
    pub fn sensible_capacity(&self, t_c: f64) -> f64 {
        let no_fat_melts = HeatShares {
            oil: self.oil + self.cocoa_fat + self.milk_fat + self.lauric_fat,
            cocoa_fat: 0.0,
            milk_fat: 0.0,
            lauric_fat: 0.0,
            ..*self
        };
        no_fat_melts.enthalpy(t_c + 0.5, false) - no_fat_melts.enthalpy(t_c - 0.5, false)
    }
}
