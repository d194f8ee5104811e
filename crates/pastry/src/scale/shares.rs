//! What is really in the bowl, shared out by weight, with rounding that adds up.

use crate::fault::{Fault, FaultCode};
use crate::number::{hundredths, limit};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most vessels at once.
pub const MOST_VESSELS: usize = 2000;

/// What is to be shared.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShareAsk {
    /// What the scale says is in the bowl, g; with the bowl when `bowl_g` is given.
    #[schema(minimum = 0, maximum = 1000000)]
    pub in_the_bowl_g: f64,
    /// The bowl itself, g, when it stands on the scale too.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 100000)]
    pub bowl_g: f64,
    /// What will stay in bowl and bag, per cent of what is in it.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 50)]
    pub loss_percent: f64,
    /// Sizes of the vessels against one another: all 1 for equal ones.
    #[schema(min_items = 1, max_items = 2000)]
    pub sizes: Vec<f64>,
    /// Smallest step of the scale, g.
    #[serde(default = "one")]
    #[schema(minimum = 0.01, maximum = 100)]
    pub step_g: f64,
}

fn one() -> f64 {
    1.0
}

/// What goes into one vessel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct VesselShare {
    /// How much, g.
    pub grams: f64,
    /// What the scale under the bowl shows when it is out, g, the bowl included.
    pub bowl_then_g: f64,
}

/// The shares.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Shares {
    /// One per vessel, in their order.
    pub shares: Vec<VesselShare>,
    /// What is shared out: the sum of the shares, g.
    pub shared_g: f64,
    /// What stays: the loss, and what a scale of this step cannot tell, g.
    pub stays_g: f64,
    /// In one sentence.
    pub sentence: String,
}

/// Shares in whole steps of the scale: each gets the steps its part holds, and the steps left over go to
/// the largest remainders, the first vessel first. They add up to what can be shared, to the step.
///
/// # Errors
/// Less than nothing in the bowl, no or too many vessels, sizes or a step that are not above 0, or less
/// than a step for each.
pub fn shares(ask: &ShareAsk) -> Result<Shares, Vec<Fault>> {
    let mut faults = Vec::new();
    let mut bad =
        |field: &str, message: String| faults.push(Fault::new(field, FaultCode::OutOfRange, message));
    let inside = ask.in_the_bowl_g - ask.bowl_g;
    if !(ask.in_the_bowl_g.is_finite() && inside > 0.0 && inside <= 1e6) || ask.bowl_g < 0.0 {
        bad(
            "in_the_bowl_g",
            "the bowl is empty: write what the scale shows, and the bowl's own weight".into(),
        );
    }
    if !(0.0..=50.0).contains(&ask.loss_percent) {
        bad("loss_percent", "what stays in bowl and bag is 0 to 50 %".into());
    }
    if !(0.01..=100.0).contains(&ask.step_g) {
        bad("step_g", "a scale steps in 0.01 to 100 g".into());
    }
    if ask.sizes.is_empty() || ask.sizes.len() > MOST_VESSELS {
        bad("sizes", format!("share between 1 and {MOST_VESSELS} vessels"));
    }
    for (at, size) in ask.sizes.iter().enumerate() {
        if !(size.is_finite() && *size > 0.0 && *size <= 1e6) {
            bad(&format!("sizes.{at}"), "a vessel has a size above 0".into());
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let steps = (inside * (1.0 - ask.loss_percent / 100.0) / ask.step_g + 1e-9).floor();
    if steps < ask.sizes.len() as f64 {
        let message = format!(
            "{} g do not give {} vessels one step of the scale ({} g) each: take fewer or a finer scale",
            limit(inside),
            ask.sizes.len(),
            limit(ask.step_g)
        );
        return Err(vec![Fault::new("sizes", FaultCode::TooMany, message)]);
    }
    let parts = whole_parts(steps as u64, &ask.sizes);
    let mut left = ask.in_the_bowl_g;
    let shares: Vec<VesselShare> = parts
        .iter()
        .map(|steps| {
            let grams = hundredths(*steps as f64 * ask.step_g);
            left -= grams;
            VesselShare { grams, bowl_then_g: hundredths(left) }
        })
        .collect();
    let shared_g = hundredths(steps * ask.step_g);
    let stays_g = hundredths(inside - shared_g);
    let (least, most) = shares
        .iter()
        .fold((f64::INFINITY, 0.0f64), |(least, most), s| (least.min(s.grams), most.max(s.grams)));
    let each = if least == most { limit(least) } else { format!("{} to {}", limit(least), limit(most)) };
    let rest = if stays_g > 0.0 { format!("; {} g stay", limit(stays_g)) } else { String::new() };
    let sentence = format!("{each} g in each of {}, {shared_g} g in all{rest}.", shares.len());
    Ok(Shares { shares, shared_g, stays_g, sentence })
}

/// A number of steps parted by sizes, by largest remainder.
fn whole_parts(steps: u64, sizes: &[f64]) -> Vec<u64> {
    let sum: f64 = sizes.iter().sum();
    let exact: Vec<f64> = sizes.iter().map(|size| steps as f64 * size / sum).collect();
    // A hair under a whole number is that number.
    let mut parts: Vec<u64> = exact.iter().map(|part| (part + 1e-9).floor() as u64).collect();
    let mut order: Vec<usize> = (0..sizes.len()).collect();
    let remainder = |k: usize| exact[k] - parts[k] as f64;
    order.sort_by(|a, b| remainder(*b).total_cmp(&remainder(*a)).then(a.cmp(b)));
    let left = steps - parts.iter().sum::<u64>().min(steps);
    for k in order.into_iter().cycle().take(left as usize) {
        parts[k] += 1;
    }
    parts
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of(grams: f64, n: usize) -> ShareAsk {
        ShareAsk { in_the_bowl_g: grams, bowl_g: 0.0, loss_percent: 0.0, sizes: vec![1.0; n], step_g: 1.0 }
    }

    #[test]
    fn a_hundred_in_three_is_34_33_33() {
        let shared = shares(&of(100.0, 3)).unwrap();
        let grams: Vec<f64> = shared.shares.iter().map(|s| s.grams).collect();
        assert_eq!(grams, [34.0, 33.0, 33.0]);
        assert_eq!(shared.shares[2].bowl_then_g, 0.0);
        assert_eq!(shared.sentence, "33 to 34 g in each of 3, 100 g in all.");
    }

    #[test]
    fn the_bowl_on_the_scale_is_taken_off() {
        let ask = ShareAsk { in_the_bowl_g: 1450.0, bowl_g: 450.0, loss_percent: 4.0, ..of(1.0, 24) };
        let shared = shares(&ask).unwrap();
        assert_eq!((shared.shares[0].grams, shared.stays_g), (40.0, 40.0));
        assert_eq!(shared.shares[23].bowl_then_g, 490.0);
    }

    #[test]
    fn too_many_vessels_for_the_scale_are_refused() {
        assert_eq!(shares(&of(10.0, 11)).unwrap_err()[0].code, FaultCode::TooMany);
        assert_eq!(shares(&of(-5.0, 2)).unwrap_err()[0].field, "in_the_bowl_g");
        assert_eq!(
            shares(&ShareAsk { sizes: vec![1.0, 0.0], ..of(9.0, 2) }).unwrap_err()[0].field,
            "sizes.1"
        );
    }
}
