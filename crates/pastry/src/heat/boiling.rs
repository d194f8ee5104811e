//! Syrup and what is boiled down: how hot it boils at which strength and how high above the sea, and how long that takes.

/// Pressure at the sea, Pa.
pub const SEA_PA: f64 = 101_325.0;

/// Degrees Brix and where such a syrup boils at the sea, °C (merged from Lees & Jackson 1973, Bubník 1995 and the trade's stages,
/// from memory: a kelvin to 90 °Bx, three above).
const BOILS: [(f64, f64); 20] = [
    (0.0, 100.0),
    (10.0, 100.1),
    (20.0, 100.3),
    (30.0, 100.6),
    (40.0, 101.0),
    (50.0, 101.8),
    (60.0, 103.0),
    (65.0, 103.9),
    (70.0, 105.3),
    (75.0, 107.3),
    (80.0, 110.2),
    (85.0, 114.5),
    (88.0, 118.2),
    (90.0, 121.5),
    (92.0, 125.8),
    (94.0, 131.5),
    (96.0, 138.5),
    (98.0, 147.5),
    (99.0, 154.0),
    (100.0, 165.0),
];

/// What a ring loses beside its pan, W (assumed).
const PAN_LOSES_W: f64 = 120.0;

/// Constants of IAPWS-IF97, region 4 (from memory; checked against `tests/it/data/boiling_vs_altitude.csv`).
const N: [f64; 10] = [
    0.116_705_214_527_67e4,
    -0.724_213_167_032_06e6,
    -0.170_738_469_400_92e2,
    0.120_208_247_024_70e5,
    -0.323_255_503_223_33e7,
    0.149_151_086_135_30e2,
    -0.482_326_573_615_91e4,
    0.405_113_405_420_57e6,
    -0.238_555_575_678_49,
    0.650_175_348_447_98e3,
];

/// Pressure at which water boils at `t_c`, Pa.
pub fn water_boils_at_pa(t_c: f64) -> f64 {
    let k = t_c + 273.15;
    let v = k + N[8] / (k - N[9]);
    let a = v * v + N[0] * v + N[1];
    let b = N[2] * v * v + N[3] * v + N[4];
    let c = N[5] * v * v + N[6] * v + N[7];
    1e6 * (2.0 * c / (-b + (b * b - 4.0 * a * c).sqrt())).powi(4)
}

/// Where water boils at a pressure, °C.
pub fn water_boils_c(pressure_pa: f64) -> f64 {
    let b = (1e-6 * pressure_pa).sqrt().sqrt();
    let e = b * b + N[2] * b + N[5];
    let f = N[0] * b * b + N[3] * b + N[6];
    let g = N[1] * b * b + N[4] * b + N[7];
    let d = 2.0 * g / (-f - (f * f - 4.0 * e * g).sqrt());
    0.5 * (N[9] + d - ((N[9] + d).powi(2) - 4.0 * (N[8] + N[9] * d)).sqrt()) - 273.15
}

/// Pressure of the air so many metres above the sea, Pa: 101325 (1 − 2.25577 · 10⁻⁵ m)^5.25588 (the standard atmosphere).
pub fn air_pa(altitude_m: f64) -> f64 {
    SEA_PA * (1.0 - 2.25577e-5 * altitude_m).powf(5.25588)
}

/// Where something that boils at `sea_c` at the sea boils at a pressure, °C: at the same water activity.
pub fn boils_higher_up(sea_c: f64, pressure_pa: f64) -> f64 {
    water_boils_c(water_boils_at_pa(sea_c) * pressure_pa / SEA_PA)
}

/// On straight lines through points, x rising; the last one goes on.
fn between(x: f64, points: &[(f64, f64)]) -> f64 {
    let at = points[1..points.len() - 1].partition_point(|(low, _)| *low < x);
    let [(x0, y0), (x1, y1)] = [points[at], points[at + 1]];
    y0 + (y1 - y0) * (x - x0) / (x1 - x0)
}

/// Where a syrup of `brix` boils at a pressure, °C.
pub fn syrup_boils_c(brix: f64, pressure_pa: f64) -> f64 {
    boils_higher_up(between(brix.clamp(0.0, 100.0), &BOILS), pressure_pa)
}

/// How strong a syrup is that boils at `t_c` at a pressure, °Bx, 0 to 100.
pub fn brix_boiling_at(t_c: f64, pressure_pa: f64) -> f64 {
    let sea_c = water_boils_c(water_boils_at_pa(t_c) * SEA_PA / pressure_pa);
    between(sea_c, &BOILS.map(|(brix, boils)| (boils, brix))).clamp(0.0, 100.0)
}

/// What `brix` of sugars with a mean molar mass, g/mol, boils like in °Bx of sucrose (assumed: by their moles).
pub fn brix_as_sucrose(brix: f64, molar: f64) -> f64 {
    let ratio = brix / (100.0 - brix) * 342.3 / molar;
    100.0 * ratio / (1.0 + ratio)
}

/// How long something takes to come to the boil, and to boil down.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Boiled {
    /// To the boil, s.
    pub heat_s: f64,
    /// From there to its strength, s.
    pub boil_s: f64,
    /// Water that is gone, kg.
    pub gone_kg: f64,
}

/// Heat capacity of a syrup, J/(kg K): 4186.8 − 25.1 B + 0.075 B T (Bubník 1995 at purity 100, from memory).
pub fn syrup_capacity(brix: f64, t_c: f64) -> f64 {
    4186.8 - 25.1 * brix + 0.075 * brix * t_c
}

/// `kg` of syrup from one strength and temperature to another on a ring, at the sea; none where the ring is too weak to boil it.
///
/// # Arguments
/// * `watts`: of the ring as it is set; `reaches`: how much of it reaches the pan, 0.40 gas, 0.70 electric, 0.82 induction
///   (common practice). A band of a third either way.
pub fn boil_down(kg: f64, brix: [f64; 2], t_c: f64, watts: f64, reaches: f64) -> Option<Boiled> {
    let net = watts * reaches - PAN_LOSES_W;
    if net <= 0.0 {
        return None;
    }
    let [from, to] = brix;
    let [begins, ends] = brix.map(|brix| syrup_boils_c(brix, SEA_PA));
    let left_kg = if to > 0.0 { kg * from / to } else { kg };
    let gone_kg = kg - left_kg;
    let vapour = 2.501e6 - 2430.0 * 0.5 * (begins + ends);
    let heat_s = kg * syrup_capacity(from, 0.5 * (t_c + begins)) * (begins - t_c) / net;
    let warms = left_kg * syrup_capacity(0.5 * (from + to), 100.0) * (ends - begins);
    Some(Boiled { heat_s, boil_s: (gone_kg * vapour + warms) / net, gone_kg })
}
