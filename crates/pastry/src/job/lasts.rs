//! How long something stays right when it is held where it is.

/// Longest that is told apart, minutes: past a day it stays.
pub const LONGEST_MIN: f64 = 1440.0;
/// First look, minutes.
const FIRST_MIN: f64 = 0.5;
/// Nearer than this, as a share, nobody asks.
const WITHIN: f64 = 1e-3;

/// Minutes until `right` ends, looked for in strides that grow by a half and then halved; none when it is still right after a
/// day, 0 when it is not right at the start. What ends and begins again within a stride is not seen.
pub fn lasts_min(right: impl Fn(f64) -> bool) -> Option<f64> {
    if !right(0.0) {
        return Some(0.0);
    }
    let (mut low, mut high) = (0.0, FIRST_MIN);
    while right(high) {
        if high >= LONGEST_MIN {
            return None;
        }
        (low, high) = (high, (1.5 * high).min(LONGEST_MIN));
    }
    while high - low > WITHIN * high {
        let middle = 0.5 * (low + high);
        if right(middle) { low = middle } else { high = middle }
    }
    Some(0.5 * (low + high))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_end_is_found_and_a_day_is_for_ever() {
        for end in [0.2, 3.0, 47.0, 1300.0] {
            let found = lasts_min(|minutes| minutes < end).unwrap();
            assert!((found / end - 1.0).abs() < 2e-3, "{found} for {end}");
        }
        assert_eq!(lasts_min(|_| false), Some(0.0));
        assert_eq!(lasts_min(|minutes| minutes < 1500.0), None);
    }
}
