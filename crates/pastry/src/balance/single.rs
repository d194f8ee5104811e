//! One thing moved alone: scanned, because some responses turn round, then halved to the nearest place
//! where the job is met with its margin.

/// Places looked at on either side.
const SCAN: i32 = 16;
/// Halvings after the scan.
const HALVINGS: usize = 16;

/// The value nearest to `start` between `low` and `high` at which `met` holds; none when it never does on
/// the scan. `met` at the answer is guaranteed.
pub fn nearest_met(start: f64, low: f64, high: f64, met: impl Fn(f64) -> bool) -> Option<f64> {
    if met(start) {
        return Some(start);
    }
    let mut best: Option<f64> = None;
    for (end, side) in [(low, -1.0), (high, 1.0)] {
        let reach = (end - start).abs();
        if reach <= 0.0 || (end - start) * side < 0.0 {
            continue;
        }
        let at = |k: i32| start + side * reach * f64::from(k) / f64::from(SCAN);
        if let Some(k) = (1..=SCAN).find(|k| met(at(*k))) {
            let (mut outside, mut inside) = (at(k - 1), at(k));
            for _ in 0..HALVINGS {
                let middle = 0.5 * (outside + inside);
                if met(middle) { inside = middle } else { outside = middle }
            }
            if best.is_none_or(|other| (inside - start).abs() < (other - start).abs()) {
                best = Some(inside);
            }
        }
    }
    best
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_nearer_of_two_places_is_taken_and_it_is_met() {
        let met = |x: f64| (2.0..3.0).contains(&x) || x > 8.0;
        let found = nearest_met(4.0, 0.0, 10.0, met).unwrap();
        assert!((found - 3.0).abs() < 1e-4 && met(found), "{found}");
        assert_eq!(nearest_met(2.5, 0.0, 10.0, met), Some(2.5));
        assert_eq!(nearest_met(5.0, 4.0, 6.0, met), None);
    }
}
