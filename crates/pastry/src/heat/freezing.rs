//! Where a mass begins to freeze, and how much of it is ice below that.
//!
//! D(w) = 1.86 Σ osm(m_i): the depression in kelvin of all that is dissolved in `w` of unfrozen water, each solute by its
//! molality with the departure from the ideal that the tables of the CRC Handbook ask for (fitted by hand, from memory; checked
//! in `tests/it/published.rs`). Good from 0 to about −20 °C; spirit to 30 % of its water.

use crate::ingredient::composition::{Composition, Part, SUGARS};

/// Kelvin by mole of particles in a kilogram of water.
const CRYOSCOPIC: f64 = 1.86;
/// Molar mass of the sugars, g/mol, in the order of [`SUGARS`]; dextrin assumed.
const MOLAR: [f64; 7] = [342.3, 180.16, 180.16, 342.3, 342.3, 700.0, 182.2];
/// What each molality adds above the ideal, kg/mol: disaccharides, monosaccharides and polyols, dextrins.
const BEYOND: [f64; 7] = [0.11, 0.035, 0.035, 0.11, 0.11, 0.30, 0.035];
/// Water held by protein so that it does not freeze, of the protein (assumed).
const HELD_BY_PROTEIN: f64 = 0.4;

/// Most of what is neither sugar, fat nor protein that is dissolved salts, of the water: milk has 0.8 per cent, an ice-cream mix more (assumed).
const SALTS_OF_WATER: f64 = 0.012;

/// What a mass has dissolved in its water.
#[derive(Debug, Clone, Copy)]
pub struct Freezing {
    /// Water that can freeze, of total.
    water: f64,
    /// Moles in a kilogram of total, by solute, with what each adds above the ideal.
    sugars: [(f64, f64); 8],
    alcohol: f64,
    salt: f64,
    ash: f64,
}

impl Freezing {
    /// Of a composition. All its sugar counts as dissolved: what is not dissolves as water freezes no more.
    pub fn of(m: &Composition) -> Self {
        let protein = m.sum(&[Part::MilkProtein, Part::EggWhite, Part::Yolk]);
        let water = m.get(Part::Water);
        let moles = |part: Part, molar: f64| 1000.0 * m.get(part) / molar;
        let mut sugars = [(0.0, 0.0); 8];
        for (k, sugar) in SUGARS.into_iter().enumerate() {
            sugars[k] = (moles(sugar, MOLAR[k]), BEYOND[k]);
        }
        sugars[7] = (moles(Part::Acid, 192.1), 0.035);
        Freezing {
            water: water - water.min(HELD_BY_PROTEIN * protein),
            sugars,
            alcohol: moles(Part::Alcohol, 46.07),
            salt: moles(Part::Salt, 58.44),
            ash: 1000.0 * m.get(Part::Other).min(SALTS_OF_WATER * water) / 70.0,
        }
    }

    /// Kelvin below 0 °C at which so much unfrozen water, of total, is in balance with ice.
    fn depression(&self, unfrozen: f64) -> f64 {
        let in_water = |moles: f64| moles / unfrozen;
        let sugars: f64 = self
            .sugars
            .iter()
            .map(|(moles, beyond)| in_water(*moles) * (1.0 + beyond * in_water(*moles)))
            .sum();
        let spirit = in_water(self.alcohol);
        let salt = in_water(self.salt);
        CRYOSCOPIC
            * (sugars
                + spirit * (0.97 + 0.021 * spirit.min(10.0))
                + 2.0 * salt * (0.905 + 0.007 * salt.min(5.2).powi(2))
                + in_water(self.ash))
    }

    /// Where the first ice forms, °C; none without water that can freeze.
    pub fn begins_c(&self) -> Option<f64> {
        (self.water > 1e-6).then(|| -self.depression(self.water))
    }

    /// Ice at `t_c`, of total mass, 0 to 1: what is left of the water holds its solutes at that temperature.
    pub fn ice(&self, t_c: f64) -> f64 {
        if self.water <= 1e-6 || t_c >= -self.depression(self.water) {
            return 0.0;
        }
        let (mut low, mut high) = (0.0, self.water);
        while high - low > 1e-9 {
            let middle = 0.5 * (low + high);
            if self.depression(middle) > -t_c { low = middle } else { high = middle }
        }
        self.water - 0.5 * (low + high)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of(parts: &[(Part, f64)]) -> Freezing {
        let mut m = Composition::NONE;
        for (part, share) in parts {
            m.0[*part as usize] = *share;
        }
        Freezing::of(&m)
    }

    #[test]
    fn a_paper_case_and_the_limits() {
        // One mole of an ideal solute in a kilogram of water: 1.86 K. Glucose of 1 mol/kg departs by 3.5 %.
        let mole = of(&[(Part::Water, 1.0 / 1.18016), (Part::Glucose, 0.18016 / 1.18016)]);
        assert!((mole.begins_c().unwrap() + 1.86 * 1.035).abs() < 1e-6);
        let water = of(&[(Part::Water, 1.0)]);
        assert!(water.begins_c().unwrap().abs() < 1e-12 && (water.ice(-1.0) - 1.0).abs() < 1e-6);
        assert_eq!(water.ice(0.5), 0.0);
        assert_eq!(of(&[(Part::Oil, 1.0)]).begins_c(), None);
        // Half the water gone is twice the molality.
        let thin = of(&[(Part::Water, 0.9), (Part::Salt, 0.01)]);
        let half = thin.water - thin.ice(-thin.depression(0.45));
        assert!((half - 0.45).abs() < 1e-6);
    }

    #[test]
    fn colder_is_more_ice() {
        let mix = of(&[(Part::Water, 0.61), (Part::Sucrose, 0.16), (Part::Lactose, 0.06)]);
        let mut last = 0.0;
        for k in 0..60 {
            let ice = mix.ice(-0.5 * f64::from(k));
            assert!(ice >= last - 1e-9 && ice < 0.61, "{k}: {ice}");
            last = ice;
        }
    }
}
