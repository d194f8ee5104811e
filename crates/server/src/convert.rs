//! What an amount weighs, and how it is written in spoons and pieces.

use crate::error::{ApiError, unknown_ingredient};
use pastry::fault::{Fault, FaultCode};
use pastry::formula::kitchen_words::{in_pieces, in_spoons};
use pastry::ingredient::Shelf;
use pastry::ingredient::measure::{OwnWeights, weigh};
use pastry::units::amount::parse;
use pastry::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// An amount to weigh.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct ConvertRequest {
    /// As a cook writes it.
    #[param(example = "1 1/2 cups", max_length = 60)]
    pub amount: String,
    /// Key of the ingredient.
    #[param(example = "cream36", max_length = 60)]
    pub ingredient: String,
    /// Whose cups and spoons.
    #[serde(default)]
    #[param(inline)]
    pub measures: Measures,
}

/// An amount weighed.
#[derive(Debug, Serialize, ToSchema)]
pub struct Conversion {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// Grams.
    pub mass_g: f64,
    /// Millilitres, where a density is known.
    pub volume_ml: Option<f64>,
    /// What the grams rest on; none when grams were written.
    pub assumed: Option<String>,
    /// The same in cups and spoons.
    pub in_spoons: Option<String>,
    /// The same in eggs, leaves, sticks.
    pub in_pieces: Option<String>,
}

/// Weighs an amount.
///
/// # Errors
/// An unknown ingredient, an amount that cannot be read or weighed.
pub fn convert(request: &ConvertRequest, shelf: &Shelf, own: OwnWeights) -> Result<Conversion, ApiError> {
    let ingredient =
        shelf.find(&request.ingredient).ok_or_else(|| unknown_ingredient(&request.ingredient))?;
    let fault = |words: String| ApiError::Faults(vec![Fault::new("amount", FaultCode::BadAmount, words)]);
    let amount = parse(&request.amount).map_err(|error| fault(error.to_string()))?;
    let weighed =
        weigh(amount, ingredient, request.measures, own).map_err(|error| fault(error.to_string()))?;
    let grams = weighed.mass.grams();
    let density = own.density.map(|density| density.grams_per_millilitre()).or(ingredient
        .weights
        .density
        .as_ref()
        .map(|known| known.weight));
    Ok(Conversion {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        mass_g: grams,
        volume_ml: density.map(|density| grams / density),
        assumed: weighed.assumed,
        in_spoons: in_spoons(grams, ingredient, request.measures),
        in_pieces: in_pieces(grams, ingredient),
    })
}

/// An amount of an ingredient of the catalogue, weighed.
///
/// # Errors
/// An unknown ingredient, an amount that cannot be read or weighed.
pub fn weigh_amount(amount: &str, ingredient: &str, measures: Measures) -> Result<Conversion, ApiError> {
    let request = ConvertRequest { amount: amount.to_owned(), ingredient: ingredient.to_owned(), measures };
    convert(&request, &Shelf::catalogue(), OwnWeights::default())
}
