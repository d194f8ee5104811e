//! Consistency over the temperatures of a map: what it is drawn from. 91 points, from 0 to 45 °C in half
//! degrees, or to 90 °C in whole ones for what is worked hot.

use crate::rheology::consistency::{Banded, History};
use crate::rheology::predictor::Predictor;

/// Points of a sweep.
pub const SWEEP_POINTS: usize = 91;

/// The temperatures of a map.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Grid {
    /// Distance between points, K.
    pub step_k: f64,
}

impl Grid {
    /// 0 to 45 °C.
    pub const COOL: Grid = Grid { step_k: 0.5 };
    /// 0 to 90 °C.
    pub const HOT: Grid = Grid { step_k: 1.0 };

    /// The grid that reaches `hottest_c`.
    pub fn reaching(hottest_c: f64) -> Self {
        if hottest_c > Self::COOL.hottest_c() { Self::HOT } else { Self::COOL }
    }

    /// Temperature of the k-th point, °C.
    #[inline]
    pub fn temperature(self, k: usize) -> f64 {
        self.step_k * k as f64
    }

    /// Hottest point, °C.
    pub fn hottest_c(self) -> f64 {
        self.temperature(SWEEP_POINTS - 1)
    }

    /// The point nearest to a temperature.
    pub fn nearest(self, t_c: f64) -> usize {
        ((t_c / self.step_k).round().max(0.0) as usize).min(SWEEP_POINTS - 1)
    }
}

/// A whole sweep, in place: no allocation per point.
pub type Sweep = [Banded; SWEEP_POINTS];

/// Points that lie beyond each end, so that neighbours one kelvin away are known.
const MARGIN: usize = 2;

/// Sweeps a predictor over a grid.
///
/// The neighbours that the band asks for are points of the same sweep, so a point costs two
/// evaluations instead of four.
pub fn sweep(predictor: &Predictor, history: History, grid: Grid) -> Sweep {
    crate::patience::checkpoint();
    let kelvin = (1.0 / grid.step_k).round() as usize;
    let points: [_; SWEEP_POINTS + 2 * MARGIN] =
        std::array::from_fn(|k| predictor.base.at(grid.step_k * (k as f64 - MARGIN as f64), history));
    std::array::from_fn(|k| {
        let at = k + MARGIN;
        predictor.banded_from(
            points[at],
            grid.temperature(k),
            history,
            &points[at - kelvin],
            &points[at + kelvin],
        )
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::{Mixture, System};
    use crate::ingredient::find;
    use crate::rheology::Options;

    #[test]
    fn a_sweep_says_the_same_as_asking_point_by_point() {
        let mixture = Mixture::new([(find("dark60").unwrap(), 200.0), (find("cream36").unwrap(), 150.0)]);
        let predictor = Predictor::new(&mixture, System::Ganache, &Options::default());
        for history in History::ALL {
            for grid in [Grid::COOL, Grid::HOT] {
                let swept = sweep(&predictor, history, grid);
                for k in [0, 1, 40, 63, 90] {
                    assert_eq!(
                        swept[k],
                        predictor.at(grid.temperature(k), history),
                        "point {k}, {history:?}"
                    );
                }
            }
        }
    }
}
