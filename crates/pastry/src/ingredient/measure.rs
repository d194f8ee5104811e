//! From cups, spoons and pieces to grams, saying what was assumed.

use crate::ingredient::item::Ingredient;
use crate::ingredient::weights::HouseholdWeight;
use crate::units::amount::{Amount, AmountError};
use crate::units::kitchen::{Measures, Unit, UnitKind};
use crate::units::{Density, Mass};

/// The kitchen's own weights for an ingredient, where it has measured them.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct OwnWeights {
    /// Mass of a volume.
    pub density: Option<Density>,
    /// Mass of one piece, whatever the piece is called.
    pub piece: Option<Mass>,
}

/// Grams, and in words what they rest on.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighed {
    /// The mass.
    pub mass: Mass,
    /// "1 cup = 236.6 ml (US), 1.006 g/ml (USDA SR24 household weight)"; none when grams were written.
    pub assumed: Option<String>,
}

/// Why an amount could not be turned into grams.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum MeasureError {
    /// The text is not an amount.
    #[error(transparent)]
    Amount(#[from] AmountError),
    /// A volume of something whose density nobody here knows.
    #[error(
        "{ingredient}: what a {unit} of it weighs is not known here; write grams, or give its density in g/ml"
    )]
    NoDensity {
        /// Name of the ingredient.
        ingredient: String,
        /// Unit written.
        unit: &'static str,
    },
    /// A piece of something that does not come in such pieces.
    #[error("{ingredient} is not counted in {unit}s here; write grams, or give the weight of one")]
    NoPiece {
        /// Name of the ingredient.
        ingredient: String,
        /// Unit written.
        unit: &'static str,
    },
    /// Per cent where there is nothing to be a share of.
    #[error("per cent need a formula to be a share of: write grams here")]
    ShareAlone,
    /// More than a tonne.
    #[error("{grams:.0} g is more than a kitchen can weigh; write at most 1,000 kg")]
    TooLarge {
        /// What it came to.
        grams: f64,
    },
}

/// Weighs an amount of an ingredient.
///
/// # Arguments
/// * `measures`: whose cups and spoons.
/// * `own`: the kitchen's own density or piece weight, which goes before the tables.
///
/// # Errors
/// [`MeasureError::NoDensity`] for a volume without density, [`MeasureError::NoPiece`] for a piece
/// without weight, [`MeasureError::TooLarge`] above a tonne.
pub fn weigh(
    amount: Amount,
    ingredient: &Ingredient,
    measures: Measures,
    own: OwnWeights,
) -> Result<Weighed, MeasureError> {
    let many = amount.number.value();
    let (grams, assumed) = match amount.unit {
        None => (many, Some("no unit written: taken as grams".to_owned())),
        Some(unit) => match unit.kind(measures) {
            UnitKind::Mass(grams) => {
                let metric = matches!(unit, Unit::Gram | Unit::Kilogram | Unit::Milligram);
                (many * grams, (!metric).then(|| format!("1 {} = {} g", unit.short(), short_number(grams))))
            }
            UnitKind::Volume(ml) => {
                let (density, why) = density_of(ingredient, own).ok_or_else(|| MeasureError::NoDensity {
                    ingredient: ingredient.name.clone(),
                    unit: unit.short(),
                })?;
                let said = match unit {
                    Unit::Millilitre | Unit::Centilitre | Unit::Decilitre | Unit::Litre => String::new(),
                    _ => format!("1 {} = {} ml ({}), ", unit.short(), short_number(ml), measures.word()),
                };
                (many * ml * density, Some(format!("{said}{} g/ml ({why})", short_number(density))))
            }
            UnitKind::Share => return Err(MeasureError::ShareAlone),
            UnitKind::Piece => {
                let (piece, why) = piece_of(ingredient, unit, own).ok_or_else(|| MeasureError::NoPiece {
                    ingredient: ingredient.name.clone(),
                    unit: unit.short(),
                })?;
                (many * piece, Some(format!("1 {} = {} g ({why})", unit.short(), short_number(piece))))
            }
        },
    };
    if grams.is_nan() || grams > Mass::MAX {
        return Err(MeasureError::TooLarge { grams });
    }
    Ok(Weighed { mass: Mass::from_grams(grams), assumed })
}

fn density_of(ingredient: &Ingredient, own: OwnWeights) -> Option<(f64, String)> {
    if let Some(density) = own.density {
        return Some((density.grams_per_millilitre(), "your kitchen's own".to_owned()));
    }
    ingredient.weights.density.as_ref().map(|known| (known.weight, reason(known)))
}

fn piece_of(ingredient: &Ingredient, unit: Unit, own: OwnWeights) -> Option<(f64, String)> {
    if let Some(piece) = own.piece {
        return Some((piece.grams(), "your kitchen's own".to_owned()));
    }
    let known = &ingredient.weights.pieces;
    known.iter().find(|(of, _)| *of == unit).map(|(_, known)| (known.weight, reason(known)))
}

fn reason(known: &HouseholdWeight) -> String {
    match known.how.as_str() {
        "" => known.source.clone(),
        how => format!("{how}; {}", known.source),
    }
}

/// Four significant digits at most, without trailing zeros: 236.6, 1.006, 113.
fn short_number(value: f64) -> String {
    let decimals = (3.0 - value.abs().max(1e-9).log10().floor()).clamp(0.0, 6.0) as usize;
    let text = format!("{value:.decimals$}");
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;
    use crate::ingredient::weights::HouseholdWeights;
    use crate::units::amount::parse;

    fn grams(text: &str, id: &str) -> Result<Weighed, MeasureError> {
        weigh(parse(text)?, find(id).unwrap(), Measures::Us, OwnWeights::default())
    }

    #[test]
    fn a_cup_of_cream_says_which_cup_and_which_density() {
        let cream = grams("1 cup", "cream36").unwrap();
        assert!((cream.mass.grams() - 238.0).abs() < 1e-9);
        let said = cream.assumed.unwrap();
        assert_eq!(said, "1 cup = 236.6 ml (US), 1.006 g/ml (USDA SR24 household weight)");
    }

    #[test]
    fn the_kitchens_own_density_goes_first() {
        let own = OwnWeights { density: Some(Density::from_grams_per_millilitre(0.5)), piece: None };
        let weighed = weigh(parse("2 dl").unwrap(), find("cream36").unwrap(), Measures::Us, own).unwrap();
        assert!((weighed.mass.grams() - 100.0).abs() < 1e-12);
        assert!(weighed.assumed.unwrap().contains("your kitchen's own"));
    }

    #[test]
    fn a_volume_without_density_says_what_to_do() {
        let mut crumble = crate::ingredient::Ingredient::clone(find("cocoa_nib").unwrap());
        crumble.composition.0 = find("sugar").unwrap().composition.0;
        crumble.weights =
            HouseholdWeights::default().or_computed(&crumble.composition, crate::ingredient::Group::Sugar);
        let cup = parse("1 cup").unwrap();
        let error = weigh(cup, &crumble, Measures::Us, OwnWeights::default()).unwrap_err().to_string();
        assert!(error.contains("write grams, or give its density"), "{error}");
        let error = grams("2 eggs", "cream36").unwrap_err().to_string();
        assert!(error.contains("not counted in eggs"), "{error}");
    }

    #[test]
    fn sticks_eggs_and_envelopes_have_their_table_weight() {
        assert_eq!(grams("1 stick", "butter82").unwrap().mass.grams(), 113.0);
        assert_eq!(grams("2 yolks", "yolk").unwrap().mass.grams(), 34.0);
        assert_eq!(grams("1 envelope", "gelatin200").unwrap().mass.grams(), 7.0);
        assert!(grams("1000 l", "water").is_ok());
        assert!(matches!(grams("9000 l", "water"), Err(MeasureError::TooLarge { .. })));
    }
}
