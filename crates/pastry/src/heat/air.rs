//! Water in air.

/// Pressure of water vapour that is in balance with water at `t_c`, Pa: 610.94 exp(17.625 T/(T + 243.04)) (Magnus, constants of
/// Alduchov & Eskridge 1996, from memory; checked against `tests/it/data/water_vapour.csv`).
pub fn vapour_pressure(t_c: f64) -> f64 {
    610.94 * (17.625 * t_c / (t_c + 243.04)).exp()
}

/// Where water condenses from air of a temperature, °C, and a humidity, 0 to 1, °C.
pub fn dew_point(t_c: f64, humidity: f64) -> f64 {
    let x = humidity.ln() + 17.625 * t_c / (t_c + 243.04);
    243.04 * x / (17.625 - x)
}
