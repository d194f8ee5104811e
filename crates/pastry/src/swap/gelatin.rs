//! The two schools of exchanging gelatin of different strength.

use crate::ingredient::Ingredient;
use serde::Serialize;
use utoipa::ToSchema;

/// How gelatin of another strength is weighed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum School {
    /// m₂ = m₁ √(B₁/B₂): equal firmness, for the strength of a gel goes with the square of its gelatin.
    SquareRoot,
    /// m₂ = m₁ B₁/B₂: equal grams times Bloom, as older kitchen tables have it.
    Linear,
}

impl School {
    /// Grams of gelatin of `to_bloom` in place of `grams` of `from_bloom`.
    ///
    /// # Arguments
    /// * `grams`: as weighed, g, 0 or more.
    /// * `from_bloom`, `to_bloom`: Bloom strength, g, above 0.
    pub fn grams(self, grams: f64, from_bloom: f64, to_bloom: f64) -> f64 {
        match self {
            School::SquareRoot => grams * (from_bloom / to_bloom).sqrt(),
            School::Linear => grams * from_bloom / to_bloom,
        }
    }
}

/// One gelatin for another by both schools.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct GelatinExchange {
    /// What there was.
    pub from: String,
    /// What takes its place.
    pub to: String,
    /// As it was weighed, g.
    pub from_g: f64,
    /// By the square root, g.
    pub square_root_g: f64,
    /// By proportion, g.
    pub linear_g: f64,
    /// Which of them is followed here.
    pub follows: School,
    /// Why, in words.
    pub why: String,
}

impl GelatinExchange {
    /// Both schools for one exchange; none when either has no strength.
    pub fn of(from: &Ingredient, to: &Ingredient, grams: f64) -> Option<Self> {
        if from.bloom <= 0.0 || to.bloom <= 0.0 {
            return None;
        }
        let linear_g = School::Linear.grams(grams, from.bloom, to.bloom);
        let square_root_g = School::SquareRoot.grams(grams, from.bloom, to.bloom);
        let why = if (from.bloom - to.bloom).abs() < 0.5 {
            "The same strength: gram for gram, leaf or powder.".to_owned()
        } else if to.bloom < from.bloom {
            format!(
                "Square root: as firm as it was. Proportion errs on the firm side here ({:+.0} %): take it for slices that must stand in a warm room.",
                100.0 * (linear_g / grams - 1.0)
            )
        } else {
            format!(
                "Square root: as firm as it was. Proportion errs on the soft side here ({:+.0} %): take it only where softer is welcome.",
                100.0 * (linear_g / grams - 1.0)
            )
        };
        Some(GelatinExchange {
            from: from.name.clone(),
            to: to.name.clone(),
            from_g: grams,
            square_root_g,
            linear_g,
            follows: School::SquareRoot,
            why,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;

    #[test]
    fn silver_for_gold_is_a_quarter_more_by_proportion_and_an_eighth_by_the_root() {
        // Common practice for proportion; the root from equal firmness.
        let exchange =
            GelatinExchange::of(find("gelatin200").unwrap(), find("gelatin160").unwrap(), 10.0).unwrap();
        assert!((exchange.linear_g - 12.5).abs() < 1e-9);
        assert!((exchange.square_root_g - 11.18).abs() < 0.01);
        assert!(exchange.why.contains("firm side"), "{}", exchange.why);
        assert!(GelatinExchange::of(find("gelatin200").unwrap(), find("agar").unwrap(), 10.0).is_none());
    }
}
