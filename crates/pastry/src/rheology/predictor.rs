//! A prediction with its band.

use crate::formula::mixture::Mixture;
use crate::formula::system::System;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::{Banded, Consistency, History, Options};
use crate::rheology::kernel::Prepared;
use crate::rheology::serum::water_viscosity;
use crate::rheology::volumes::Nudge;

/// By how much an uncertain swelling is raised to ask what it does.
const RAISED: f64 = 1.08;

/// A mixture prepared together with what its uncertainty needs.
#[derive(Debug, Clone, Copy)]
pub struct Predictor {
    /// The middle.
    pub base: Prepared,
    swollen: Prepared,
    /// With yolk swollen more; none when it has no yolk.
    yolky: Option<Prepared>,
}

/// Where a band comes from, standard deviations of ln yield stress and of ln viscosity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BandTerms {
    /// The system itself.
    pub base: [f64; 2],
    /// One kelvin either way.
    pub by_degree: [f64; 2],
    /// Swelling of cocoa and milk protein 8 % off.
    pub by_swelling: [f64; 2],
    /// Swelling of yolk 8 % off.
    pub by_yolk: [f64; 2],
    /// Distance from what was checked.
    pub by_distance: [f64; 2],
}

impl BandTerms {
    fn sigma(&self) -> [f64; 2] {
        let terms = [self.base, self.by_degree, self.by_swelling, self.by_yolk, self.by_distance];
        [0, 1].map(|q| terms.iter().map(|term| term[q] * term[q]).sum::<f64>().sqrt())
    }
}

/// ln of what one point has over another, of yield stress and viscosity.
#[inline]
fn ln_over(above: &Consistency, below: &Consistency) -> [f64; 2] {
    [(above.yield_stress_pa / below.yield_stress_pa).ln(), (above.viscosity_pa_s / below.viscosity_pa_s).ln()]
}

impl Predictor {
    /// Prepares a mixture and its band.
    pub fn new(mixture: &Mixture, system: System, options: &Options) -> Self {
        let nudged = |nudge: Nudge| Prepared::nudged(mixture, system, options, nudge);
        let base = Prepared::new(mixture, system, options);
        Predictor {
            swollen: nudged(Nudge { cocoa_and_protein: RAISED, ..Nudge::NONE }),
            yolky: (mixture.composition.get(Part::Yolk) > 0.0)
                .then(|| nudged(Nudge { yolk: RAISED, ..Nudge::NONE })),
            base,
        }
    }

    /// One evaluation with its band: σ² = base² + dT² + dS² + dE² + added², where dT is one kelvin either way, dS the
    /// swelling of cocoa and milk protein raised by 8 %, dE that of yolk, and added the distance from what was checked.
    pub fn at(&self, t_c: f64, history: History) -> Banded {
        let neighbours = [t_c - 1.0, t_c + 1.0].map(|t_c| self.base.at(t_c, history));
        self.banded_from(self.base.at(t_c, history), t_c, history, &neighbours[0], &neighbours[1])
    }

    /// Where the band at a point comes from.
    pub fn band_terms(&self, t_c: f64, history: History) -> BandTerms {
        let [colder, middle, warmer] = [-1.0, 0.0, 1.0].map(|by| self.base.at(t_c + by, history));
        self.terms(&middle, t_c, history, &colder, &warmer)
    }

    #[inline]
    fn terms(
        &self,
        middle: &Consistency,
        t_c: f64,
        history: History,
        colder: &Consistency,
        warmer: &Consistency,
    ) -> BandTerms {
        BandTerms {
            base: self.base.doubt.base(middle, water_viscosity(t_c)),
            by_degree: ln_over(warmer, colder).map(|ln| 0.5 * ln),
            by_swelling: ln_over(&self.swollen.at(t_c, history), middle),
            by_yolk: self.yolky.as_ref().map_or([0.0; 2], |yolky| ln_over(&yolky.at(t_c, history), middle)),
            by_distance: self.base.doubt.added(middle, t_c, history).sigma(),
        }
    }

    #[inline]
    pub(crate) fn banded_from(
        &self,
        middle: Consistency,
        t_c: f64,
        history: History,
        colder: &Consistency,
        warmer: &Consistency,
    ) -> Banded {
        let [sigma_yield, sigma_viscosity] = self.terms(&middle, t_c, history, colder, warmer).sigma();
        let unknown = self.base.doubt.added(&middle, t_c, history).unknown();
        Banded { middle, sigma_yield, sigma_viscosity, unknown, base_sigma: self.base.doubt.base_of_yield() }
    }
}
