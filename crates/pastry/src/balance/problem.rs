//! The problem: amounts that may move, in logarithms, and what must hold.

use crate::balance::edges::{Asked, Edges};
use crate::formula::Mixture;
use crate::ingredient::Ingredient;
use std::sync::Arc;

/// One amount that may move.
#[derive(Debug, Clone)]
pub struct Variable {
    /// The ingredient.
    pub ingredient: Arc<Ingredient>,
    /// Where it starts, g, above 0.
    pub start_g: f64,
    /// Least, g, above 0.
    pub least_g: f64,
    /// Most, g.
    pub most_g: f64,
    /// What a change of ln amount costs; 1 for an ordinary line.
    pub weight: f64,
}

/// A linear limit over grams: Σ c_i x_i ≤ 0, with its name.
#[derive(Debug, Clone, PartialEq)]
pub struct Limit {
    /// Coefficients, one per variable.
    pub coefficients: Vec<f64>,
    /// Key of the ingredient or shelf it speaks of.
    pub of: String,
    /// At least so much, or at most.
    pub least: bool,
    /// How much, per cent of total.
    pub percent: f64,
    /// Who asks: "at least 35 % chocolate".
    pub name: String,
}

/// A pair that keeps its ratio: ln x_a − ln x_b stays.
pub type Pair = (usize, usize);

/// The whole problem.
#[derive(Debug, Clone)]
pub struct Problem<'a> {
    /// What is asked of the mixture.
    pub asked: Asked<'a>,
    /// Amounts, in the order of the lines.
    pub variables: Vec<Variable>,
    /// The sum stays at this, g.
    pub total_g: Option<f64>,
    /// Linear limits.
    pub limits: Vec<Limit>,
    /// Ratios that stay.
    pub pairs: Vec<Pair>,
    /// How far inside the window it should stand, ln, from the loose and from the stiff edge. Below 0, it
    /// may stand so far outside.
    pub room: [f64; 2],
    /// Split index it may have at most.
    pub most_split: f64,
}

impl Problem<'_> {
    /// The mixture at some ln amounts.
    pub fn mixture(&self, ln_grams: &[f64]) -> Mixture {
        Mixture::new(
            self.variables.iter().zip(ln_grams).map(|(variable, u)| (variable.ingredient.as_ref(), u.exp())),
        )
    }

    /// Where it stands at some ln amounts.
    pub fn edges(&self, ln_grams: &[f64]) -> Edges {
        self.asked.edges(&self.mixture(ln_grams))
    }

    /// ln yield stress, ln viscosity and split index at some ln amounts.
    pub fn consistency(&self, ln_grams: &[f64]) -> [f64; 3] {
        let prepared = self.asked.prepared(&self.mixture(ln_grams));
        let point = prepared.at(self.asked.t_c, self.asked.history);
        [point.yield_stress_pa.max(1e-9).ln(), point.viscosity_pa_s.max(1e-9).ln(), point.split]
    }

    /// [`crate::job::judge::Question::slopes_by_yield`] at some ln amounts.
    pub fn slopes_by_yield(&self, ln_grams: &[f64], edges: &Edges) -> Option<[f64; 2]> {
        let prepared = self.asked.prepared(&self.mixture(ln_grams));
        self.asked.question(&prepared).slopes_by_yield(self.asked.t_c, [edges.loose, edges.stiff])
    }

    /// Where it starts.
    pub fn start(&self) -> Vec<f64> {
        self.variables.iter().map(|variable| variable.start_g.ln()).collect()
    }

    /// What a change costs: ½ Σ w (u − u₀)².
    pub fn cost(&self, ln_grams: &[f64]) -> f64 {
        0.5 * self
            .variables
            .iter()
            .zip(ln_grams)
            .map(|(variable, u)| variable.weight * (u - variable.start_g.ln()).powi(2))
            .sum::<f64>()
    }

    /// By how much each thing that must hold is broken, above 0 where it is, with the name of who asks:
    /// the window's two edges, the split, the total, limits. In the same order as the linearised rows.
    pub fn broken(&self, ln_grams: &[f64]) -> Vec<(f64, String)> {
        let edges = self.edges(ln_grams);
        let grams: Vec<f64> = ln_grams.iter().map(|u| u.exp()).collect();
        let sum: f64 = grams.iter().sum();
        let mut broken = vec![
            (edges.loose + self.room[0], "the window: stiff enough".to_owned()),
            (self.room[1] - edges.stiff, "the window: loose enough".to_owned()),
            (SPLIT_SCALE * (edges.split - self.most_split), "splitting".to_owned()),
        ];
        broken.extend(self.limits.iter().map(|limit| {
            let value: f64 = limit.coefficients.iter().zip(&grams).map(|(c, g)| c * g).sum();
            (value / sum, limit.name.clone())
        }));
        if let Some(total) = self.total_g {
            broken.push(((sum / total).ln().abs(), "the total".to_owned()));
        }
        broken
    }
}

/// A split index of 0.1 too much counts like a tenth of stiffness.
pub const SPLIT_SCALE: f64 = 1.0;
