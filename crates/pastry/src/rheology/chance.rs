//! Chance of a log-normal prediction lying in a window.

/// Standard normal distribution function.
pub fn normal_cdf(z: f64) -> f64 {
    0.5 * libm::erfc(-z / std::f64::consts::SQRT_2)
}

/// Φ(ln(high/q)/σ) − Φ(ln(low/q)/σ) for a middle q > 0 with standard deviation σ of its logarithm.
/// A low end of 0 or a high end of ∞ is open.
///
/// # Examples
/// ```
/// // Reference value of the model's published sub-function tests.
/// let p = pastry::rheology::chance::chance(300.0, 200.0, 1500.0, 0.5);
/// assert!((p - 0.790653656).abs() < 1e-8);
/// ```
pub fn chance(q: f64, low: f64, high: f64, sigma: f64) -> f64 {
    if low >= high {
        return 0.0;
    }
    let z = |limit: f64| (limit / q).ln() / sigma;
    normal_cdf(z(high)) - normal_cdf(z(low))
}
