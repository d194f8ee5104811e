//! Grams written back as a cook measures: cups and spoons, eggs, leaves, sticks.

use crate::ingredient::Ingredient;
use crate::units::kitchen::{Measures, Unit, UnitKind};

/// Fractions a set of cups and spoons has.
const CUPS: [(f64, &str); 7] = [
    (1.0, ""),
    (0.75, "3/4"),
    (2.0 / 3.0, "2/3"),
    (0.5, "1/2"),
    (1.0 / 3.0, "1/3"),
    (0.25, "1/4"),
    (0.0, ""),
];
const SPOONS: [(f64, &str); 6] =
    [(1.0, ""), (0.75, "3/4"), (0.5, "1/2"), (0.25, "1/4"), (0.125, "1/8"), (0.0, "")];

/// Nearest whole number and fraction of a spoon, below or above.
fn nearest(value: f64, fractions: &[(f64, &'static str)]) -> (f64, String) {
    let whole = value.floor();
    let (mut best, mut text) = (f64::INFINITY, String::new());
    for base in [whole, whole + 1.0] {
        for (fraction, word) in fractions.iter().filter(|(fraction, _)| *fraction < 1.0) {
            let candidate = base + fraction;
            if (candidate - value).abs() < (best - value).abs() {
                best = candidate;
                text = match (base as u32, *word) {
                    (0, word) => word.to_owned(),
                    (n, "") => n.to_string(),
                    (n, word) => format!("{n} {word}"),
                };
            }
        }
    }
    (best, text)
}

/// A mass in cups and spoons of the kitchen's set: "1 1/2 cup + 2 tsp"; none without a density, or
/// where an eighth of a teaspoon is too much.
///
/// Cups carry the bulk from half a dozen tablespoons up, spoons the rest, to within a quarter teaspoon.
pub fn in_spoons(grams: f64, ingredient: &Ingredient, measures: Measures) -> Option<String> {
    let density = ingredient.weights.density.as_ref()?.weight;
    let size = |unit: Unit| match unit.kind(measures) {
        UnitKind::Volume(ml) => ml,
        _ => unreachable!("cups and spoons are volumes"),
    };
    let (cup, tbsp, tsp) = (size(Unit::Cup), size(Unit::Tablespoon), size(Unit::Teaspoon));
    let mut left = grams / density;
    if left < 0.06 * tsp {
        return None;
    }
    let mut parts = Vec::new();
    if left >= 0.24 * cup {
        // The largest measure that does not pass it by more than half a teaspoon.
        let whole = (left / cup + 1e-9).floor();
        let rest = left - whole * cup;
        let (fraction, word) = CUPS[1..]
            .iter()
            .find(|(fraction, _)| fraction * cup <= rest + 0.5 * tsp)
            .copied()
            .unwrap_or((0.0, ""));
        left -= (whole + fraction) * cup;
        let text = match (whole as u32, word) {
            (0, word) => word.to_owned(),
            (n, "") => n.to_string(),
            (n, word) => format!("{n} {word}"),
        };
        parts.push(format!("{text} cup"));
    }
    if left >= 0.9 * tbsp {
        let whole = (left / tbsp + 0.02).floor();
        left -= whole * tbsp;
        parts.push(format!("{whole} tbsp"));
    }
    let (spoons, text) = nearest((left / tsp).max(0.0), &SPOONS);
    if spoons > 0.0 {
        parts.push(format!("{text} tsp"));
    }
    (!parts.is_empty()).then(|| parts.join(" + "))
}

/// A mass in the pieces the ingredient is counted in: "2 1/2 leaf (gold)"; none when it has none.
pub fn in_pieces(grams: f64, ingredient: &Ingredient) -> Option<String> {
    // An envelope is a pack of powder; a leaf or an egg is the thing itself.
    let (unit, known) = ingredient
        .weights
        .pieces
        .iter()
        .find(|(unit, _)| *unit != Unit::Envelope)
        .or(ingredient.weights.pieces.first())?;
    let many = grams / known.weight;
    if many < 0.05 {
        return None;
    }
    let word = unit.short();
    let plural = match word {
        "leaf" => "leaves".to_owned(),
        word => format!("{word}s"),
    };
    let number = format!("{many:.1}");
    let number = number.strip_suffix(".0").unwrap_or(&number);
    let noun = if number == "1" { word } else { &plural };
    let how = known.how.split(',').next().unwrap_or_default();
    Some(if how.is_empty() { format!("{number} {noun}") } else { format!("{number} {noun} ({how})") })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;
    use crate::ingredient::measure::{OwnWeights, weigh};
    use crate::units::amount;

    #[test]
    fn spoons_are_read_back_within_a_quarter_teaspoon() {
        for id in ["cream36", "sugar", "icing", "flour", "honey"] {
            let ingredient = find(id).unwrap();
            let tsp = ingredient.weights.density.as_ref().unwrap().weight * 4.93;
            for grams in [3.0, 12.0, 47.0, 119.0, 238.0, 500.0, 1234.0] {
                let text = in_spoons(grams, ingredient, Measures::Us).unwrap();
                let back: f64 = text
                    .split(" + ")
                    .map(|part| {
                        let amount = amount::parse(part).unwrap_or_else(|e| panic!("{text}: {e}"));
                        weigh(amount, ingredient, Measures::Us, OwnWeights::default()).unwrap().mass.grams()
                    })
                    .sum();
                assert!((back - grams).abs() < 0.26 * tsp + 1e-6, "{grams} g of {id}: {text} is {back:.1} g");
            }
        }
    }

    #[test]
    fn gelatin_is_counted_in_leaves_and_eggs_in_eggs() {
        assert_eq!(in_pieces(6.0, find("gelatin200").unwrap()).unwrap(), "3 leaves (gold)");
        assert_eq!(in_pieces(50.0, find("egg").unwrap()).unwrap(), "1 egg (large)");
        assert_eq!(in_pieces(51.0, find("yolk").unwrap()).unwrap(), "3 yolks (large)");
        assert_eq!(in_pieces(51.0, find("sugar").unwrap()), None);
    }
}
