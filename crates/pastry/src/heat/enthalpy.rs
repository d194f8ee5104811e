//! Heat of a mass over its temperature, how it conducts and how dense it is, from composition.
//!
//! Heat capacities: Choi & Okos 1986, as in the ASHRAE Handbook, Refrigeration (from memory; water 4176.2,
//! ASHRAE reprints 4128.9). Alcohol: CRC tables, linearised (from memory). Crystal sucrose: Bubník 1995 (from
//! memory). Melting heat: cocoa butter 140 kJ/kg (form V 137 to 157 J/g, Schlichter-Aronhime & Garti 1988, from
//! memory), milk fat 80 (Walstra 70 to 85, from memory), coconut fat 110 (from memory).

use crate::ingredient::composition::{Composition, Part};
use crate::rheology::solid_fat::{COCOA_BUTTER, Curve, LAURIC, MILK_FAT};

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

/// Heat of melting ice, J/kg.
const ICE_MELTS: f64 = 333.6e3;
/// Where fats have set as far as they do, °C, and how far, per cent (assumed: a straight line from the tables' 0 °C).
const COLD_C: f64 = -20.0;
const COLD: [f64; 3] = [99.0, 86.0, 98.0];
/// Conductivity of air, W/(m K).
const AIR_CONDUCTS: f64 = 0.025;

/// a + bT + cT².
type Law = [f64; 3];

fn at([a, b, c]: Law, t: f64) -> f64 {
    a + t * (b + t * c)
}

/// ∫ cp dT from 0, of cp = a + bT + cT².
fn integral([a, b, c]: Law, t: f64) -> f64 {
    t * (a + t * (b / 2.0 + t * c / 3.0))
}

/// What one part does: heat capacity, J/(kg K), conductivity, W/(m K), density, kg/m³.
struct Laws {
    capacity: Law,
    conducts: Law,
    density: Law,
}

const fn laws(conducts: Law, density: Law, capacity: Law) -> Laws {
    Laws { capacity, conducts, density }
}

const WATER: Laws =
    laws([0.57109, 1.7625e-3, -6.7036e-6], [997.18, 3.1439e-3, -3.7574e-3], [4176.2, -0.090864, 5.4731e-3]);
const ICE: Laws = laws([2.2196, -6.2489e-3, 1.0154e-4], [916.89, -0.13071, 0.0], [2062.3, 6.0769, 0.0]);
const PROTEIN: Laws =
    laws([0.17881, 1.1958e-3, -2.7178e-6], [1329.9, -0.5184, 0.0], [2008.2, 1.2089, -1.3129e-3]);
const FAT: Laws =
    laws([0.18071, -2.7604e-4, -1.7749e-7], [925.59, -0.41757, 0.0], [1984.2, 1.4733, -4.8008e-3]);
const CARBOHYDRATE: Laws =
    laws([0.20141, 1.3874e-3, -4.3312e-6], [1599.1, -0.31046, 0.0], [1548.8, 1.9625, -5.9399e-3]);
const FIBRE: Laws =
    laws([0.18331, 1.2497e-3, -3.1683e-6], [1311.5, -0.36589, 0.0], [1845.9, 1.8306, -4.6509e-3]);
const ASH: Laws =
    laws([0.32962, 1.4011e-3, -2.9069e-6], [2423.8, -0.28063, 0.0], [1092.6, 1.8896, -3.6817e-3]);
const ALCOHOL: Laws = laws([0.171, -1.8e-4, 0.0], [806.3, -0.86, 0.0], [2270.0, 8.0, 0.0]);
const CRYSTAL: Law = [1126.9, 4.524, 6.24e-3];

/// Solid fat at `t`, of 1: the tables down to 0 °C, a straight line to `cold` per cent at −20.
fn solid(curve: &Curve, cold: f64, t: f64) -> f64 {
    let at_0 = curve.at(0.0);
    let percent = match t {
        t if t >= 0.0 => curve.at(t),
        t => at_0 + (cold - at_0) * (t / COLD_C).min(1.0),
    };
    0.01 * percent
}

/// Maxwell and Eucken: a share `p` of volume that conducts `inside`, in something that conducts `around`.
fn in_drops(around: f64, inside: f64, p: f64) -> f64 {
    let (sum, less) = (2.0 * around + inside, around - inside);
    around * (sum - 2.0 * p * less) / (sum + p * less)
}

impl HeatShares {
    /// So much of it, by mass, and the rest of another.
    pub fn mixed(&self, other: &HeatShares, share: f64) -> HeatShares {
        let of = |own: f64, other: f64| share * own + (1.0 - share) * other;
        HeatShares {
            water: of(self.water, other.water),
            protein: of(self.protein, other.protein),
            sugar: of(self.sugar, other.sugar),
            starch: of(self.starch, other.starch),
            fibre: of(self.fibre, other.fibre),
            ash: of(self.ash, other.ash),
            alcohol: of(self.alcohol, other.alcohol),
            cocoa_fat: of(self.cocoa_fat, other.cocoa_fat),
            milk_fat: of(self.milk_fat, other.milk_fat),
            lauric_fat: of(self.lauric_fat, other.lauric_fat),
            oil: of(self.oil, other.oil),
        }
    }

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

    /// All its fat.
    fn fat(&self) -> f64 {
        self.cocoa_fat + self.milk_fat + self.lauric_fat + self.oil
    }

    /// Heat over that of the same mass, all liquid, at 0 °C: J/kg at `t_c` between −45 and 130 °C, nothing frozen.
    ///
    /// * `cooling`: whether it comes from above, for then its fats are still liquid at a temperature at which
    ///   they would not yet have melted.
    pub fn enthalpy(&self, t_c: f64, cooling: bool) -> f64 {
        self.enthalpy_with(t_c, cooling, 0.0)
    }

    /// The same with so much of it frozen, of total.
    pub fn enthalpy_with(&self, t_c: f64, cooling: bool, ice: f64) -> f64 {
        let (shift, lauric) = if cooling { (UNDERCOOLED_K, LAURIC_UNDERCOOLED_K) } else { (0.0, 0.0) };
        let crystal = (self.sugar - DISSOLVES * self.water).max(0.0);
        // Undercooled water keeps the heat capacity it has at 0 °C.
        let water = if t_c < 0.0 { WATER.capacity[0] * t_c } else { integral(WATER.capacity, t_c) };
        let sensible = (self.water - ice) * water
            + ice * (integral(ICE.capacity, t_c) - ICE_MELTS)
            + self.protein * integral(PROTEIN.capacity, t_c)
            + self.fat() * integral(FAT.capacity, t_c)
            + (self.sugar + self.starch) * integral(CARBOHYDRATE.capacity, t_c)
            + self.fibre * integral(FIBRE.capacity, t_c)
            + self.ash * integral(ASH.capacity, t_c)
            + self.alcohol * integral(ALCOHOL.capacity, t_c)
            + crystal * (integral(CRYSTAL, t_c) - integral(CARBOHYDRATE.capacity, t_c));
        sensible
            - self.cocoa_fat * COCOA_MELTS * solid(&COCOA_BUTTER, COLD[0], t_c + shift)
            - self.milk_fat * MILK_FAT_MELTS * solid(&MILK_FAT, COLD[1], t_c + shift)
            - self.lauric_fat * LAURIC_MELTS * solid(&LAURIC, COLD[2], t_c + lauric)
    }

    /// Volumes of what is no fat, with how each conducts, and of the fat, m³/kg of total.
    fn volumes(&self, t_c: f64, ice: f64) -> ([(f64, f64); 7], (f64, f64)) {
        let liquid_c = t_c.max(0.0);
        let of = |share: f64, laws: &Laws, t: f64| (share / at(laws.density, t), at(laws.conducts, t));
        let rest = [
            of(self.water - ice, &WATER, liquid_c),
            of(ice, &ICE, t_c),
            of(self.protein, &PROTEIN, t_c),
            of(self.sugar + self.starch, &CARBOHYDRATE, t_c),
            of(self.fibre, &FIBRE, t_c),
            of(self.ash, &ASH, t_c),
            of(self.alcohol, &ALCOHOL, t_c),
        ];
        (rest, of(self.fat(), &FAT, t_c))
    }

    /// Density without its air, kg/m³.
    pub fn density(&self, t_c: f64, ice: f64) -> f64 {
        let (rest, fat) = self.volumes(t_c, ice);
        1.0 / (rest.iter().map(|(volume, _)| volume).sum::<f64>() + fat.0)
    }

    /// Conductivity, W/(m K): the mean by volume of what is no fat, with the fat in drops in it or the other way round, and
    /// bubbles in both (Maxwell and Eucken).
    ///
    /// * `air`: of volume.
    /// * `fat_outside`: whether the fat surrounds the rest.
    pub fn conducts(&self, t_c: f64, ice: f64, air: f64, fat_outside: bool) -> f64 {
        let (rest, (fat_volume, fat)) = self.volumes(t_c, ice);
        let rest_volume: f64 = rest.iter().map(|(volume, _)| volume).sum();
        let mean = match rest_volume {
            volume if volume > 0.0 => rest.iter().map(|(own, k)| own * k).sum::<f64>() / volume,
            _ => fat,
        };
        let share = fat_volume / (fat_volume + rest_volume);
        let whole = if fat_outside { in_drops(fat, mean, 1.0 - share) } else { in_drops(mean, fat, share) };
        in_drops(whole, AIR_CONDUCTS, air)
    }

    /// Heat capacity without melting at `t_c`, J/(kg K).
    pub fn sensible_capacity(&self, t_c: f64) -> f64 {
        let no_fat_melts =
            HeatShares { oil: self.fat(), cocoa_fat: 0.0, milk_fat: 0.0, lauric_fat: 0.0, ..*self };
        no_fat_melts.enthalpy(t_c + 0.5, false) - no_fat_melts.enthalpy(t_c - 0.5, false)
    }
}
