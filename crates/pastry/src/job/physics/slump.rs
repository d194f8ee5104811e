//! A set piece under its own weight: how far it sags, and when it gives way.

use crate::units::GRAVITY;

/// Above this modulus gelatin and agar eat like rubber, Pa (common practice read as a number, assumed).
pub const RUBBERY_PA: f64 = 1400.0;

/// Sag of a piece of `height` m by its own weight, share of its height: ρ g H/(6 G), with E = 3 G.
pub fn sag(density: f64, height: f64, modulus: f64) -> f64 {
    density * GRAVITY * height / (6.0 * modulus.max(1e-9))
}

/// Yield stress under which a piece of `height` m gives way, Pa: ρ g H/√3 (von Mises).
pub fn gives_way_below(density: f64, height: f64) -> f64 {
    density * GRAVITY * height / 3f64.sqrt()
}

/// Yield stress under which something poured runs out over `reach` m and leaves no bump higher than `bump` m, Pa: ρ g h²/(2 L),
/// the slope at which a sheet comes to rest.
pub fn levels_below(density: f64, bump: f64, reach: f64) -> f64 {
    density * GRAVITY * bump * bump / (2.0 * reach)
}

/// Yield stress under which a bump of `bump` m sinks when the mould is knocked on the table, Pa: ρ g h.
pub fn settles_below(density: f64, bump: f64) -> f64 {
    density * GRAVITY * bump
}
