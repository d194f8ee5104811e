//! Consistency over 0 to 45 °C in half degrees: what the map is drawn from.

use crate::rheology::consistency::{Banded, History};
use crate::rheology::kernel::Predictor;

/// Points of a sweep.
pub const SWEEP_POINTS: usize = 91;
/// Distance between points, K.
pub const SWEEP_STEP_K: f64 = 0.5;
/// Neighbours one kelvin away are this many points away.
const KELVIN: usize = 2;

/// Temperature of the k-th point, °C.
#[inline]
pub fn sweep_temperature(k: usize) -> f64 {
    SWEEP_STEP_K * k as f64
}

/// A whole sweep, in place: no allocation per point.
pub type Sweep = [Banded; SWEEP_POINTS];

/// Sweeps a predictor from 0 to 45 °C.
///
/// The neighbours that the band asks for are points of the same sweep, so a point costs two
/// evaluations instead of four.
pub fn sweep(predictor: &Predictor, history: History) -> Sweep {
    let at = |k: isize| predictor.base.at(SWEEP_STEP_K * k as f64, history);
    let mut window = [at(-2), at(-1), at(0), at(1), at(2)];
    std::array::from_fn(|k| {
        if k > 0 {
            window.rotate_left(1);
            window[4] = at((k + KELVIN) as isize);
        }
        predictor.banded_from(window[2], sweep_temperature(k), history, &window[0], &window[4])
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::{Family, Mixture};
    use crate::ingredient::find;
    use crate::rheology::Options;

    #[test]
    fn a_sweep_says_the_same_as_asking_point_by_point() {
        let mixture = Mixture::new([(find("dark60").unwrap(), 200.0), (find("cream36").unwrap(), 150.0)]);
        let predictor = Predictor::new(&mixture, Family::Ganache, &Options::default());
        for history in History::ALL {
            let swept = sweep(&predictor, history);
            for k in [0, 1, 40, 63, 90] {
                assert_eq!(swept[k], predictor.at(sweep_temperature(k), history), "point {k}, {history:?}");
            }
        }
    }
}
