//! Smooth minimum, smooth positive part and friends: where a formula must not have a corner.

/// Smooth minimum for a, b ≥ 0: about `e` below the smaller when they are equal, 0 when either is 0.
///
/// 0.5 (a + b − √((a−b)² + 4e²ab)), written so that numbers far apart do not cancel.
#[inline]
pub fn smin(a: f64, b: f64, e: f64) -> f64 {
    let divisor = a + b + ((a - b).powi(2) + 4.0 * e * e * a * b).sqrt();
    if divisor > 0.0 { 2.0 * a * b * (1.0 - e * e) / divisor } else { 0.0 }
}

/// Smooth max(0, x) with a corner `d` wide.
#[inline]
pub fn spos(x: f64, d: f64) -> f64 {
    0.5 * (x + (x * x + d * d).sqrt())
}

/// Smooth step from 0 at u = 0 to 1 at u = 1.
#[inline]
pub fn step(u: f64) -> f64 {
    let u = u.clamp(0.0, 1.0);
    u * u * (3.0 - 2.0 * u)
}

/// 1 / (1 + e^−x).
#[inline]
pub fn logistic(x: f64) -> f64 {
    1.0 / (1.0 + (-x).exp())
}

/// A divisor that is never 0.
#[inline]
pub fn above_zero(x: f64) -> f64 {
    x.max(1e-9)
}
