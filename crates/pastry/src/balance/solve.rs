//! The least weighted change of ln amounts that meets the window and the limits.
//!
//! Sequential convex programming: at each step the window's edges, the split index, the total and the
//! limits are linearised, and a small quadratic problem with elastic rows is solved by clarabel inside a
//! trust region. A step is taken when it lowers the merit ½ Σ w (u − u₀)² + ρ Σ max(0, broken). It is
//! deterministic: no randomness, fixed order, fixed starts.

use crate::balance::edges::Edges;
use crate::balance::problem::{Problem, SPLIT_SCALE};
use clarabel::algebra::CscMatrix;
use clarabel::solver::{DefaultSettings, DefaultSolver, IPSolver, SolverStatus, SupportedConeT};

/// What was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Solution {
    /// Amounts, g, in the order of the variables.
    pub grams: Vec<f64>,
    /// Whether everything that must hold does.
    pub met: bool,
    /// What the change costs: ½ Σ w (u − u₀)².
    pub cost: f64,
    /// What stands in the way, worst first; empty when met.
    pub blocked_by: Vec<String>,
    /// Steps taken.
    pub steps: usize,
}

/// Step of the central differences, in ln grams.
const DIFFERENCE: f64 = 1e-4;
/// Most steps from one start.
const MOST_STEPS: usize = 40;
/// First radius of trust, in ln grams: a change by a third.
const FIRST_RADIUS: f64 = 0.3;
/// Greatest radius.
const GREATEST_RADIUS: f64 = 1.0;
/// A radius under which a step is no longer worth its question.
const LEAST_RADIUS: f64 = 1e-4;
/// A gain under which the search has arrived: a hundredth of a per cent of a line.
const LEAST_GAIN: f64 = 1e-7;
/// Weight of what is broken against what it costs.
const RHO: f64 = 60.0;
/// Broken by less than this is held.
pub const HELD: f64 = 1e-4;

/// Rows of the linearised problem: a row over the variables, and its bound: row · d ≤ bound, elastic.
struct Rows {
    elastic: Vec<(Vec<f64>, f64)>,
    /// row · d = value, elastic on both sides.
    equal: Vec<(Vec<f64>, f64)>,
}

/// A change that costs less than this is the smallest there is: no other valley is nearer than its rim.
const NEAR: f64 = 0.1;

/// Solves a problem, from the formula as it is and, when that fails or asks for much, from two starts
/// beside it.
pub fn solve(problem: &Problem) -> Solution {
    let start = problem.start();
    let first = from(problem, &start);
    if first.met && first.cost < NEAR {
        return first;
    }
    // Some responses turn round: look from a stiffer and a looser side too.
    let mut best = first;
    for shift in [0.5, -0.5] {
        let gradient = gradient_of_edges(problem, &start);
        let moved: Vec<f64> = start
            .iter()
            .zip(&problem.variables)
            .zip(&gradient)
            .map(|((u, variable), slope)| {
                (u + shift * slope.signum()).clamp(variable.least_g.ln(), variable.most_g.ln())
            })
            .collect();
        let other = from(problem, &moved);
        let better = match (other.met, best.met) {
            (true, false) => true,
            (false, true) => false,
            (true, true) => other.cost < best.cost,
            (false, false) => merit(problem, &other.grams) < merit(problem, &best.grams),
        };
        if better {
            best = other;
        }
    }
    best
}

fn merit(problem: &Problem, grams: &[f64]) -> f64 {
    let ln: Vec<f64> = grams.iter().map(|g| g.ln()).collect();
    merit_at(problem, &ln)
}

fn merit_at(problem: &Problem, u: &[f64]) -> f64 {
    problem.cost(u) + RHO * problem.broken(u).iter().map(|(by, _)| by.max(0.0)).sum::<f64>()
}

/// Slope of stiffness against every ln amount: minus that of the loose edge.
fn gradient_of_edges(problem: &Problem, u: &[f64]) -> Vec<f64> {
    differences(problem, u, &problem.edges(u)).into_iter().map(|slopes| -slopes[0]).collect()
}

/// Central differences of the two edges and the split index by every ln amount. Where the edges are
/// integrated and dear, yield stress and viscosity are differenced in their place and the edges follow by
/// the chain rule.
fn differences(problem: &Problem, u: &[f64], edges: &Edges) -> Vec<[f64; 3]> {
    crate::patience::checkpoint();
    let by_yield = problem.slopes_by_yield(u, edges);
    let mut moved = u.to_vec();
    (0..u.len())
        .map(|k| {
            let mut at = |value: f64| {
                moved[k] = value;
                if let Some([loose, stiff]) = by_yield {
                    let [ln_yield, ln_viscosity, split] = problem.consistency(&moved);
                    let follows = |a: f64| a * ln_yield + (-1.0 - a) * ln_viscosity;
                    [follows(loose), follows(stiff), split]
                } else {
                    let edges = problem.edges(&moved);
                    [edges.loose, edges.stiff, edges.split]
                }
            };
            let (low, high) = (at(u[k] - DIFFERENCE), at(u[k] + DIFFERENCE));
            moved[k] = u[k];
            [0, 1, 2].map(|q| (high[q] - low[q]) / (2.0 * DIFFERENCE))
        })
        .collect()
}

fn from(problem: &Problem, start: &[f64]) -> Solution {
    let bounds: Vec<(f64, f64)> = problem.variables.iter().map(|v| (v.least_g.ln(), v.most_g.ln())).collect();
    let mut u: Vec<f64> = start.iter().zip(&bounds).map(|(u, (low, high))| u.clamp(*low, *high)).collect();
    let mut value = merit_at(problem, &u);
    let mut radius = FIRST_RADIUS;
    let mut steps = 0;
    while steps < MOST_STEPS && radius > LEAST_RADIUS {
        steps += 1;
        let rows = linearised(problem, &u);
        let Some(step) = quadratic(problem, &u, &rows, &bounds, radius) else {
            radius *= 0.25;
            continue;
        };
        let tried: Vec<f64> = u
            .iter()
            .zip(&step)
            .zip(&bounds)
            .map(|((u, d), (low, high))| (u + d).clamp(*low, *high))
            .collect();
        let next = merit_at(problem, &tried);
        let length = step.iter().fold(0.0f64, |longest, d| longest.max(d.abs()));
        if next < value - 1e-12 {
            let gained = value - next;
            (u, value) = (tried, next);
            if length > 0.9 * radius {
                radius = (2.0 * radius).min(GREATEST_RADIUS);
            }
            if gained < LEAST_GAIN {
                break;
            }
        } else {
            radius = 0.3 * radius.min(length.max(1e-7));
        }
    }
    let mut broken: Vec<(f64, String)> =
        problem.broken(&u).into_iter().filter(|(by, _)| *by > HELD).collect();
    broken.sort_by(|a, b| b.0.total_cmp(&a.0));
    let barred = problem.edges(&u).barred;
    Solution {
        grams: u.iter().map(|u| u.exp()).collect(),
        met: broken.is_empty() && !barred,
        cost: problem.cost(&u),
        blocked_by: broken.into_iter().map(|(_, name)| name).collect(),
        steps,
    }
}

fn linearised(problem: &Problem, u: &[f64]) -> Rows {
    let edges = problem.edges(u);
    let slopes = differences(problem, u, &edges);
    let column = |q: usize| slopes.iter().map(|slope| slope[q]).collect::<Vec<f64>>();
    let mut elastic = vec![
        (column(0), -(edges.loose + problem.room[0])),
        (column(1).into_iter().map(|s| -s).collect(), edges.stiff - problem.room[1]),
    ];
    elastic.push((
        column(2).into_iter().map(|s| SPLIT_SCALE * s).collect(),
        SPLIT_SCALE * (problem.most_split - edges.split),
    ));
    let grams: Vec<f64> = u.iter().map(|u| u.exp()).collect();
    let sum: f64 = grams.iter().sum();
    for limit in &problem.limits {
        let value: f64 = limit.coefficients.iter().zip(&grams).map(|(c, g)| c * g).sum();
        // d(value/sum)/d ln g = g (c − value/sum)/sum.
        let share = value / sum;
        let row = limit.coefficients.iter().zip(&grams).map(|(c, g)| g * (c - share) / sum).collect();
        elastic.push((row, -share));
    }
    let mut equal: Vec<(Vec<f64>, f64)> = problem
        .total_g
        .map(|total| (grams.iter().map(|g| g / sum).collect(), (total / sum).ln()))
        .into_iter()
        .collect();
    for (a, b) in &problem.pairs {
        let mut row = vec![0.0; u.len()];
        row[*a] = 1.0;
        row[*b] = -1.0;
        let start = problem.variables[*a].start_g.ln() - problem.variables[*b].start_g.ln();
        equal.push((row, start - (u[*a] - u[*b])));
    }
    Rows { elastic, equal }
}

/// min ½ Σ w (u + d − u₀)² + ρ Σ s, with row·d ≤ bound + s, s ≥ 0, and |d| ≤ radius inside the bounds.
fn quadratic(
    problem: &Problem,
    u: &[f64],
    rows: &Rows,
    bounds: &[(f64, f64)],
    radius: f64,
) -> Option<Vec<f64>> {
    let n = u.len();
    let slack = rows.elastic.len() + 2 * rows.equal.len();
    let width = n + slack;
    let mut diagonal: Vec<f64> = problem.variables.iter().map(|variable| variable.weight).collect();
    diagonal.resize(width, 0.0);
    let mut linear: Vec<f64> = problem
        .variables
        .iter()
        .zip(u)
        .map(|(variable, u)| variable.weight * (u - variable.start_g.ln()))
        .collect();
    linear.resize(width, RHO);
    // Entries of A by row; b beside them; all rows are A z ≤ b.
    let mut entries: Vec<(usize, usize, f64)> = Vec::new();
    let mut right = Vec::new();
    let mut row_of = |coefficients: &[(usize, f64)], bound: f64, right: &mut Vec<f64>| {
        let row = right.len();
        entries.extend(coefficients.iter().filter(|(_, c)| *c != 0.0).map(|(at, c)| (row, *at, *c)));
        right.push(bound);
    };
    let mut next_slack = n;
    for (row, bound) in &rows.elastic {
        let mut coefficients: Vec<(usize, f64)> = row.iter().copied().enumerate().collect();
        coefficients.push((next_slack, -1.0));
        row_of(&coefficients, *bound, &mut right);
        next_slack += 1;
    }
    for (row, value) in &rows.equal {
        for sign in [1.0, -1.0] {
            let mut coefficients: Vec<(usize, f64)> = row.iter().map(|c| sign * c).enumerate().collect();
            coefficients.push((next_slack, -1.0));
            row_of(&coefficients, sign * value, &mut right);
            next_slack += 1;
        }
    }
    for (k, (low, high)) in bounds.iter().enumerate() {
        row_of(&[(k, 1.0)], radius.min(high - u[k]).max(0.0), &mut right);
        row_of(&[(k, -1.0)], radius.min(u[k] - low).max(0.0), &mut right);
    }
    for s in n..width {
        row_of(&[(s, -1.0)], 0.0, &mut right);
    }
    let height = right.len();
    let p = diagonal_matrix(&diagonal);
    let a = sparse(height, width, entries);
    let cones = [SupportedConeT::NonnegativeConeT(height)];
    let settings = DefaultSettings { verbose: false, ..DefaultSettings::default() };
    let mut solver = DefaultSolver::new(&p, &linear, &a, &right, &cones, settings).ok()?;
    solver.solve();
    match solver.solution.status {
        SolverStatus::Solved | SolverStatus::AlmostSolved => {
            let step = solver.solution.x[..n].to_vec();
            step.iter().all(|d| d.is_finite()).then_some(step)
        }
        _ => None,
    }
}

fn diagonal_matrix(diagonal: &[f64]) -> CscMatrix<f64> {
    let n = diagonal.len();
    CscMatrix::new(n, n, (0..=n).collect(), (0..n).collect(), diagonal.to_vec())
}

/// A compressed-column matrix from (row, column, value), any order, no doubles.
fn sparse(height: usize, width: usize, mut entries: Vec<(usize, usize, f64)>) -> CscMatrix<f64> {
    entries.sort_by_key(|(row, column, _)| (*column, *row));
    let mut starts = vec![0; width + 1];
    for (_, column, _) in &entries {
        starts[column + 1] += 1;
    }
    for column in 0..width {
        starts[column + 1] += starts[column];
    }
    let (rows, values) = entries.into_iter().map(|(row, _, value)| (row, value)).unzip();
    CscMatrix::new(height, width, starts, rows, values)
}
