//! Constants of the consistency model. "Fitted" means fitted to facts of common practice, most of
//! which stand in `tests/it/trade_facts.rs`, so they are not independent evidence.

/// Strength of the fat-crystal network at 100 % solid fat, Pa. Fitted, ×/÷ 1.32.
pub const FAT_NETWORK_PA: f64 = 370471.0;
/// The same with fat outside, where drops take strength by another power: scaled so that plain butter is as firm, Pa.
pub const FAT_OUTSIDE_PA: f64 = 327706.0;
/// Room that one volume of dissolved sugar takes in dilute syrup. Fitted, ± 0.19.
pub const CHI: f64 = 1.43309;
/// How fast that falls as the syrup thickens. Fitted, ×/÷ 1.44.
pub const HYDRATION: f64 = 0.500665;
/// Share of cream fat that mixes with melted fat. Fitted, ± 0.14.
pub const GLOBULE_MIXING: f64 = 0.573084;
/// Crowding at which droplets link half-way. Fitted, ± 0.029.
pub const LINK_CROWDING: f64 = 0.923954;
/// Sharpness of that linking. Fitted, ± 3.2.
pub const LINK_SHARPNESS: f64 = 17.538;
/// Softening of cocoa butter per share of other fat, K. Fitted, ± 2.8.
pub const SOFTEN_COCOA_BUTTER_K: f64 = 17.7034;
/// Softening of milk fat, K. Assumed.
pub const SOFTEN_MILK_FAT_K: f64 = 8.0;
/// Softening of lauric fat, K. Assumed.
pub const SOFTEN_LAURIC_K: f64 = 12.0;
/// Swelling of fat-free cocoa, volume per dry volume. Fitted, ± 0.27.
pub const SWELL_COCOA: f64 = 3.15332;
/// Swelling of milk protein. Fitted, ± 0.57.
pub const SWELL_PROTEIN: f64 = 3.38999;
/// Swelling of yolk solids cooked to 83 °C, far from where its water runs short. Fitted, ×/÷ 1.28.
pub const SWELL_YOLK_COOKED: f64 = 14.0;
/// Swelling of fibre. Assumed.
pub const SWELL_FIBRE: f64 = 15.0;
/// Packing limit without sugar. Fitted, ± 0.044.
pub const PACKING_MAX: f64 = 1.02548;
/// Yield stress scale of crowding at 30 °C, Pa. Fitted, ×/÷ 1.49.
pub const CROWD_PA: f64 = 0.271579;
/// Undercooling of just-melted fat, K. Fitted, ± 2.
pub const UNDERCOOLING_K: f64 = 6.97721;
/// Share of the fat network left after stirring or beating. Fitted, ×/÷ 1.31.
pub const WORKED_LEFT: f64 = 0.430329;
/// Linking by whipping at full whip. Fitted, ×/÷ 1.37.
pub const WHIP_LINKING: f64 = 0.100192;
/// Starch yield stress at 8 % starch on water, 5 °C, Pa. Fitted, ×/÷ 1.6.
pub const STARCH_PA: f64 = 295.132;
/// Power of starch. Fitted, ± 0.25.
pub const STARCH_POWER: f64 = 2.37983;
/// Soft stop of the crowding singularity. Assumed.
pub const CROWDING_FLOOR: f64 = 0.05;
/// Second soft stop. Assumed.
pub const CROWDING_FLOOR_2: f64 = 0.0005;
/// Gel modulus of gelatin at 1 % and 200 bloom, Pa: from the definition of Bloom (200 g on a
/// 12.7 mm punch 4 mm deep at 6.67 %, half-space).
pub const GELATIN_PA: f64 = 217.0;
/// Shape of gelatin against temperature. Assumed.
pub const GELATIN_POWER: f64 = 1.4;
/// Dry matter of sheet gelatin; the Bloom test weighs it as it is.
pub const GELATIN_DRY: f64 = 0.87;

/// Least yield stress that is told, Pa: that of water.
pub const LEAST_PA: f64 = 1e-6;

/// Yield strain of each contribution. Assumed, order of magnitude as in the literature.
pub mod yield_strain {
    /// Fat crystals.
    pub const FAT: f64 = 0.02;
    /// Gelatin.
    pub const GEL: f64 = 1.0;
    /// Starch.
    pub const STARCH: f64 = 0.15;
    /// Crowded particles.
    pub const CROWD: f64 = 0.1;
    /// Foam.
    pub const FOAM: f64 = 0.3;
    /// Agar.
    pub const AGAR: f64 = 0.30;
    /// Pectin.
    pub const PECTIN: f64 = 0.15;
    /// Stirred egg.
    pub const EGG: f64 = 0.1;
    /// Gums.
    pub const GUM: f64 = 0.3;
    /// Curds and jams.
    pub const BODY: f64 = 0.1;
}
