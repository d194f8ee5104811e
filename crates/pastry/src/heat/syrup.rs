//! What is dissolved in what is boiled, and how much water must go.

use crate::fault::{Fault, FaultCode};
use crate::formula::boiled::BoilTo;
use crate::heat::boiling::{air_pa, boils_higher_up, brix_as_sucrose, brix_boiling_at, syrup_boils_c};
use crate::ingredient::composition::{Composition, Part, SUGARS};
use crate::number::degrees;

/// Molar masses of the sugars, g/mol; dextrin assumed.
const MOLAR: [f64; 7] = [342.3, 180.16, 180.16, 342.3, 342.3, 700.0, 182.2];
/// Sugar burns from this, °C (common practice: past dark caramel).
const BURNS_C: f64 = 185.0;

/// What is dissolved, and in how much water, kg, with the mean molar mass of what is dissolved, g/mol.
pub struct Syrup {
    /// What is dissolved, kg.
    pub solids: f64,
    /// In how much water, kg.
    pub water: f64,
    molar: f64,
    /// Pressure of the air, Pa.
    pub pressure: f64,
    kg: f64,
}

impl Syrup {
    /// Of so many kilograms of a mass, so high above the sea.
    pub fn of(m: &Composition, kg: f64, altitude_m: f64) -> Self {
        let (mut mass, mut moles) = (0.0, 0.0);
        for (sugar, molar) in SUGARS.into_iter().zip(MOLAR) {
            mass += m.get(sugar);
            moles += m.get(sugar) / molar;
        }
        let solids = mass + m.sum(&[Part::Salt, Part::Acid]);
        let molar = if moles > 0.0 { mass / moles } else { 342.3 };
        Syrup { solids: kg * solids, water: kg * m.get(Part::Water), molar, pressure: air_pa(altitude_m), kg }
    }

    /// Dissolved solids when so many kilograms of water have gone, °Bx.
    pub fn brix(&self, gone: f64) -> f64 {
        let water = (self.water - gone).max(0.0);
        if self.solids <= 0.0 { 0.0 } else { 100.0 * self.solids / (self.solids + water) }
    }

    /// Where it boils then, °C.
    pub fn boils_c(&self, gone: f64) -> f64 {
        syrup_boils_c(brix_as_sucrose(self.brix(gone).min(99.99), self.molar), self.pressure)
    }

    /// What must go until it is so strong, kg.
    fn gone_for(&self, brix: f64) -> f64 {
        self.water - self.solids * (100.0 - brix) / brix.max(1e-9)
    }

    /// What must go until it boils at `t_c`, kg.
    pub fn gone_at(&self, t_c: f64) -> f64 {
        let as_sucrose = brix_boiling_at(t_c, self.pressure).min(99.999);
        let ratio = as_sucrose / (100.0 - as_sucrose) * self.molar / 342.3;
        self.gone_for(100.0 * ratio / (1.0 + ratio))
    }

    /// How much water must go until it is boiled so far, kg, and how hot it is then, °C.
    ///
    /// # Errors
    /// That it cannot be: nothing is dissolved in it, it is stronger already, there is not so much water, it burns before.
    pub fn boiled_to(&self, to: BoilTo, at: &str) -> Result<(f64, f64), Fault> {
        let refuse = |words: String| Fault::new(format!("{at}.{}", to.field()), FaultCode::OutOfRange, words);
        let boils_c = self.boils_c(0.0);
        let by_weight = |left: f64| (self.kg - left, self.boils_c(self.kg - left));
        let (gone, to_c) = match to {
            // A temperature is written for the sea: higher up the same syrup is cooler.
            BoilTo::Temperature { c } => {
                let here = if c > 100.0 { boils_higher_up(c, self.pressure) } else { c };
                match here <= boils_c {
                    true => (0.0, here),
                    false if self.solids <= 1e-6 => {
                        return Err(refuse(format!(
                            "nothing is dissolved in it: it boils at {} °C and gets no hotter",
                            degrees(boils_c)
                        )));
                    }
                    false => (self.gone_at(here), here),
                }
            }
            BoilTo::Brix { brix } => {
                let gone = self.gone_for(brix);
                if gone < 0.0 || self.solids <= 1e-6 {
                    return Err(refuse(format!(
                        "it has {:.0} °Bx already: boiling only makes it stronger",
                        self.brix(0.0)
                    )));
                }
                (gone, self.boils_c(gone))
            }
            BoilTo::Weight { left_g } if 1e-3 * left_g > self.kg * (1.0 + 1e-9) => {
                return Err(refuse(format!(
                    "there are {:.0} g of it: what is left is less than that",
                    1e3 * self.kg
                )));
            }
            BoilTo::Weight { left_g } => by_weight(1e-3 * left_g),
            BoilTo::Share { of_weight } => by_weight(self.kg * of_weight),
        };
        if gone > self.water {
            let least = ((self.kg - self.water) / self.kg.max(1e-12)).max(0.0);
            return Err(refuse(format!(
                "there is not so much water in it: no less than {least:.2} of its weight is left"
            )));
        }
        if gone > 1e-9 && to_c > BURNS_C {
            return Err(refuse(format!(
                "sugar burns near {BURNS_C} °C, and it would be {} °C by then: stop sooner",
                degrees(to_c)
            )));
        }
        Ok((gone.max(0.0), to_c))
    }
}
