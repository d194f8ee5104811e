//! What is boiled off the lines of a formula, and what is left of them.

use crate::fault::{Fault, FaultCode};
use crate::formula::line::warmest;
use crate::formula::{BoilTo, Line, Mixture, WeighedLine, flat};
use crate::heat::syrup::Syrup;
use crate::ingredient::Ingredient;
use crate::ingredient::composition::Part;
use crate::number::{batch_g, degrees, digits};
use serde::Serialize;
use std::sync::Arc;
use utoipa::ToSchema;

/// Cream and milk boiled with sugar catch past a firm caramel, °C (common practice: 118 to 125 for soft caramels).
const MILK_BURNS_C: f64 = 130.0;
/// Less milk and egg solids than this have nothing to burn, mass fraction.
const LEAST_TO_BURN: f64 = 0.002;

/// What was boiled down, as it is counted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BoiledDown {
    /// The line; none for all of it.
    pub line: Option<usize>,
    /// How hot it is when it is done, °C, at the sea.
    pub temperature_c: f64,
    /// What is left of it, g.
    pub left_g: f64,
    /// What has gone, g.
    pub gone_g: f64,
    /// "Juice, boiled down by half: 240 g are left, at 101.2 °C".
    pub sentence: String,
}

/// Boils all of it down. As it is left so it is computed; higher up the same is reached cooler, which the clock tells.
///
/// # Errors
/// That it cannot be boiled so far, at its field.
pub fn boil_all(lines: &mut [WeighedLine], to: BoilTo, name: &str) -> Result<BoiledDown, Fault> {
    let (gone_g, to_c) = boil(lines, to, "process.boiled")?;
    let left_g: f64 = flat(lines).iter().map(|line| line.mass.grams()).sum();
    Ok(told(None, name, to, [left_g, gone_g, to_c], spirit(lines)))
}

/// Boils down the lines that are written so, each by itself.
pub fn boil_lines(lines: &mut [WeighedLine], written: &[Line]) -> (Vec<BoiledDown>, Vec<Fault>) {
    let (mut boiled, mut faults) = (Vec::new(), Vec::new());
    for (at, (line, asked)) in lines.iter_mut().zip(written).enumerate() {
        let Some(to) = asked.boiled.filter(|_| line.mass.grams() > 0.0) else { continue };
        let name = line.ingredient.name.clone();
        match boil(std::slice::from_mut(line), to, &format!("lines.{at}.boiled")) {
            Ok((gone_g, to_c)) => {
                let left_g: f64 = line.ingredient.leaves(line.mass.grams()).map(|(_, grams)| grams).sum();
                boiled.push(told(
                    Some(at),
                    &name,
                    to,
                    [left_g, gone_g, to_c],
                    spirit(std::slice::from_ref(line)),
                ));
            }
            Err(fault) => faults.push(fault),
        }
    }
    (boiled, faults)
}

/// Boils some lines as one: grams that have gone, and how hot it is then, °C.
fn boil(lines: &mut [WeighedLine], to: BoilTo, at: &str) -> Result<(f64, f64), Fault> {
    if let Some(fault) = to.fault(at) {
        return Err(fault);
    }
    let grams: f64 = flat(lines).iter().map(|line| line.mass.grams()).sum();
    let composition = Mixture::of(lines).composition;
    let (gone, to_c) = Syrup::of(&composition, 1e-3 * grams, 0.0).boiled_to(to, at)?;
    let solids = composition.sum(&[Part::MilkProtein, Part::EggWhite, Part::Yolk]);
    if gone > 0.0 && to_c > MILK_BURNS_C && solids > LEAST_TO_BURN {
        let words = format!(
            "milk and egg in it burn near {MILK_BURNS_C} °C, and it would be {} °C by then: stop sooner",
            degrees(to_c)
        );
        return Err(Fault::new(format!("{at}.{}", to.field()), FaultCode::OutOfRange, words));
    }
    let share = 1e3 * gone / (grams * composition.get(Part::Water)).max(1e-9);
    for line in lines.iter_mut() {
        let wet: f64 =
            line.ingredient.leaves(1.0).map(|(own, grams)| grams * own.composition.get(Part::Water)).sum();
        line.cook_c = warmest(line.cook_c, Some(to_c));
        if gone > 0.0 && wet > 0.0 {
            let steam = line.ingredient.steam + share * wet;
            line.ingredient = Arc::new(Ingredient { steam, ..line.ingredient.as_ref().clone() });
        }
    }
    Ok((1e3 * gone, to_c))
}

/// Whether spirit is in it: it goes before the water does, and how much of it is not known.
fn spirit(lines: &[WeighedLine]) -> bool {
    Mixture::of(lines).composition.get(Part::Alcohol) > 0.002
}

fn told(
    line: Option<usize>,
    name: &str,
    to: BoilTo,
    [left_g, gone_g, to_c]: [f64; 3],
    spirit: bool,
) -> BoiledDown {
    let mut sentence = match gone_g > 0.0 {
        true => format!(
            "{name}, {}: {} g are left of {} g, at {} °C",
            to.words(),
            batch_g(left_g),
            batch_g(left_g + gone_g),
            degrees(to_c)
        ),
        false => format!("{name} comes to {} °C without boiling: nothing goes", degrees(to_c)),
    };
    if spirit && gone_g > 0.0 {
        sentence.push_str(
            "; its spirit goes with the first of it, how much nobody knows, and is counted as if it stayed",
        );
    }
    BoiledDown {
        line,
        temperature_c: digits((10.0 * to_c).round() / 10.0),
        left_g: digits(left_g),
        gone_g: digits(gone_g),
        sentence,
    }
}
