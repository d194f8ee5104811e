//! Everything ways are looked for with: the formula as it is, what counts as there, and how an answer in
//! grams becomes a formula again.

use crate::assess::Ready;
use crate::assess::answer::{Assessment, assess_from};
use crate::assess::assessed;
use crate::assess::document::FormulaDocument;
use crate::balance::edges::Asked;
use crate::balance::effects::{effect_words, effects};
use crate::balance::limits::{limits, pairs, rule_faults};
use crate::balance::problem::{Limit, Problem, Variable};
use crate::balance::sense::{most_wetter, moves};
use crate::balance::solve::HELD;
use crate::balance::way::{Change, Way, WayKind};
use crate::fault::Fault;
use crate::formula::kitchen_words::in_pieces;
use crate::formula::{Line, Mixture, WeighedLine};
use crate::ingredient::Role;
use crate::ingredient::diet::brings;
use crate::ingredient::{Ingredient, Shelf};
use crate::job::Outcome;
use crate::number::{hundredths, on_a_scale};
use crate::rheology::Options;
use crate::rheology::warning::Severity;
use std::sync::Arc;

/// Egg comes in pieces and the response to it is steep: it moves last.
const EGG_WEIGHT: f64 = 6.0;
/// A share may be broken by this much through rounding to the scale.
const ROUNDED: f64 = 5e-4;

/// How far inside a way should land: this share of the window's width from the edge …
const MARGIN_OF_WIDTH: f64 = 0.25;
/// … and at most this much in ln of stiffness.
const MOST_MARGIN: f64 = 0.35;
/// Split index that a way may leave: "safe" (common practice), or what it was.
const SAFE_SPLIT: f64 = 0.15;

/// Price of a kilogram of an ingredient in a kitchen, where one is known.
pub type Price<'a> = &'a dyn Fn(&Ingredient) -> Option<f64>;

/// Everything a way is looked for with.
pub(crate) struct Search<'a> {
    pub document: &'a FormulaDocument,
    pub kitchen: &'a Shelf,
    pub price: Price<'a>,
    pub lines: Vec<WeighedLine>,
    pub options: Options,
    pub now: Assessment,
    pub margin: f64,
    pub most_split: f64,
    pub limits: Vec<Limit>,
    pub pairs: Vec<(usize, usize)>,
    /// Whether floors, ceilings, shares and ratios hold as it is.
    pub held: bool,
}

/// A way before it is judged as a whole: the smaller its score, the smaller the change.
pub(crate) struct Candidate {
    pub score: f64,
    pub kind: WayKind,
    pub title: String,
    pub changes: Vec<Change>,
    pub document: FormulaDocument,
}

/// Ingredients with their grams.
pub(crate) fn parts(lines: &[WeighedLine]) -> impl Iterator<Item = (&Ingredient, f64)> {
    lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams()))
}

impl<'a> Search<'a> {
    /// Looks at a formula.
    ///
    /// # Errors
    /// Faults of the document and its rules.
    pub fn of(
        document: &'a FormulaDocument,
        kitchen: &'a Shelf,
        price: Price<'a>,
    ) -> Result<Self, Vec<Fault>> {
        let (Ready { lines, options, .. }, now) = assessed(document, kitchen)?;
        let faults = rule_faults(document, &lines);
        if !faults.is_empty() {
            return Err(faults);
        }
        let edges = Asked::of(document, &options).edges(&Mixture::of(&lines));
        let margin = (MARGIN_OF_WIDTH * edges.width()).clamp(0.0, MOST_MARGIN);
        let most_split = SAFE_SPLIT.max(edges.split);
        let (limits, pairs) = Search::rules_of(document, &lines);
        let mut search = Search {
            document,
            kitchen,
            price,
            lines,
            options,
            now,
            margin,
            most_split,
            limits,
            pairs,
            held: true,
        };
        search.held = search.limits_hold(&search.start(), None, 5e-4);
        Ok(search)
    }
}

impl Search<'_> {
    /// The question as it stands.
    pub fn asked(&self) -> Asked<'_> {
        Asked::of(self.document, &self.options)
    }

    /// Inside, with its margin to either edge, and no closer to splitting than it may be.
    pub fn met(&self, asked: &Asked, mixture: &Mixture) -> bool {
        asked.met(mixture, (self.margin - HELD).max(0.0), self.most_split + HELD)
    }

    /// Weight of the batch, g.
    pub fn batch(&self) -> f64 {
        self.lines.iter().map(|line| line.mass.grams()).sum()
    }

    /// Grams as they are.
    pub fn start(&self) -> Vec<f64> {
        self.lines.iter().map(|line| line.mass.grams()).collect()
    }

    /// The mixture of the same lines at other grams.
    pub fn mixture(&self, grams: &[f64]) -> Mixture {
        Mixture::new(self.lines.iter().zip(grams).map(|(line, g)| (line.ingredient.as_ref(), *g)))
    }

    /// Grams with one line moved: the others make room in proportion when the total is kept. None when
    /// nothing is free to make room.
    pub fn with_one(&self, start: &[f64], at: usize, to: f64) -> Option<Vec<f64>> {
        let mut grams = start.to_vec();
        grams[at] = to;
        if !self.document.rules.keep_total {
            return Some(grams);
        }
        let free = |k: usize| k != at && !self.document.lines[k].is_held();
        let loose: f64 = (0..grams.len()).filter(|k| free(*k)).map(|k| start[k]).sum();
        let factor = (loose - (to - start[at])) / loose;
        if loose <= 0.0 || factor <= 0.0 {
            return None;
        }
        for (k, g) in grams.iter_mut().enumerate().filter(|(k, _)| free(*k)) {
            debug_assert!(k != at);
            *g *= factor;
        }
        Some(grams)
    }

    /// Whether floors, ceilings, shares and ratios hold, beside so many grams of something new.
    pub fn limits_hold(&self, grams: &[f64], added: Option<(&Ingredient, f64)>, slack: f64) -> bool {
        let within = |k: usize| {
            let rule = &self.document.lines[k].rule;
            rule.least_g.is_none_or(|least| grams[k] >= least - 1e-9)
                && rule.most_g.is_none_or(|most| grams[k] <= most + 1e-9)
        };
        let sum: f64 = grams.iter().sum::<f64>() + added.map_or(0.0, |(_, g)| g);
        (0..grams.len()).all(within)
            && self.limits.iter().all(|limit| {
                let own: f64 = limit.coefficients.iter().zip(grams).map(|(c, g)| c * g).sum();
                let new = added.map_or(0.0, |(ingredient, g)| limit.coefficient_of(ingredient) * g);
                (own + new) / sum <= slack
            })
            && self.pairs.iter().all(|(a, b)| {
                let start = |k: usize| self.lines[k].mass.grams();
                ((grams[*a] / grams[*b]) / (start(*a) / start(*b))).ln().abs() < HELD + 10.0 * slack
            })
    }

    /// The document with other grams, rounded to the scale where all that is asked still holds, and to
    /// hundredths where it would not; `added` is a line at the end.
    pub fn with_grams(
        &self,
        grams: &[f64],
        added: Option<(&Ingredient, f64)>,
    ) -> (FormulaDocument, Vec<Change>) {
        let coarse = self.rounded(grams, on_a_scale);
        let fine = self.limits_hold(grams, added, ROUNDED) && !self.limits_hold(&coarse, added, ROUNDED);
        let grams = if fine { self.rounded(grams, hundredths) } else { coarse };
        let mut document = self.document.clone();
        let mut changes = Vec::new();
        for (at, (line, to)) in self.lines.iter().zip(&grams).enumerate() {
            let from = line.mass.grams();
            if (to - from).abs() < 1e-9 {
                continue;
            }
            document.lines[at].amount = format!("{to} g");
            let name = line.ingredient.name.clone();
            let pieces = in_pieces(*to, &line.ingredient);
            changes.push(Change { line: Some(at), name, from_g: from, to_g: *to, pieces });
        }
        if let Some((ingredient, grams)) = added {
            let to = on_a_scale(grams);
            document.lines.push(Line::new(&ingredient.id, format!("{to} g")));
            let pieces = in_pieces(to, ingredient);
            changes.push(Change { line: None, name: ingredient.name.clone(), from_g: 0.0, to_g: to, pieces });
        }
        (document, changes)
    }

    /// Grams brought to what a scale shows: what hardly moves stays as it was, limits hold, and the
    /// largest of the free lines takes up what rounding did to a total that is kept.
    fn rounded(&self, grams: &[f64], round: fn(f64) -> f64) -> Vec<f64> {
        let start = self.start();
        let mut rounded: Vec<f64> = (0..grams.len())
            .map(|at| {
                let rule = &self.document.lines[at].rule;
                if self.document.lines[at].is_held()
                    || (grams[at] - start[at]).abs() < 0.004 * start[at].max(0.5)
                {
                    return start[at];
                }
                let (least, most) = (rule.least_g.unwrap_or(0.0), rule.most_g.unwrap_or(f64::INFINITY));
                round(grams[at]).max(least).min(most)
            })
            .collect();
        let free = |at: &usize| {
            let rule = &self.document.lines[*at].rule;
            rule.is_free() && !self.document.lines[*at].by_taste && (rounded[*at] - start[*at]).abs() > 1e-9
        };
        if self.document.rules.keep_total
            && let Some(at) =
                (0..rounded.len()).filter(free).max_by(|a, b| rounded[*a].total_cmp(&rounded[*b]))
        {
            let over = rounded.iter().sum::<f64>() - start.iter().sum::<f64>();
            rounded[at] = hundredths(rounded[at] - over).max(0.0);
        }
        rounded
    }

    /// Least and most of a line, g: what the person wrote, else what a cook would take.
    pub fn reach(&self, line: &WeighedLine, asked: &Line) -> [f64; 2] {
        let (grams, rule, batch) = (line.mass.grams(), &asked.rule, self.batch());
        let [least, most] = moves(&line.ingredient, grams / batch.max(1e-9));
        let wettest = most_wetter(&line.ingredient, self.document.family).map(|share| grams + share * batch);
        let least = if rule.kept { 1.0 } else { least };
        [
            rule.least_g.unwrap_or(least * grams),
            rule.most_g.unwrap_or((most * grams).min(wettest.unwrap_or(f64::INFINITY))),
        ]
    }

    /// The problem of the smallest overall rebalance; lines at 0 g stay there.
    pub fn problem(&self) -> Problem<'_> {
        let variables = self
            .lines
            .iter()
            .zip(&self.document.lines)
            .map(|(line, asked)| {
                let grams = line.mass.grams().max(1e-6);
                let fixed = asked.is_held() || line.mass.grams() <= 0.0;
                let (least, most) = if fixed {
                    (grams, grams)
                } else {
                    let [least, most] = self.reach(line, asked);
                    (least.max(1e-6), most.max(least.max(1e-6)))
                };
                Variable {
                    ingredient: Arc::clone(&line.ingredient),
                    start_g: grams,
                    least_g: least,
                    most_g: most,
                    weight: if line.ingredient.is(Role::Egg) { EGG_WEIGHT } else { 1.0 },
                }
            })
            .collect();
        Problem {
            asked: self.asked(),
            variables,
            total_g: self.document.rules.keep_total.then(|| self.batch()),
            limits: self.limits.clone(),
            pairs: self.pairs.clone(),
            room: [self.margin; 2],
            most_split: self.most_split,
        }
    }

    /// Looks at a formula, for its limits and pairs.
    pub fn rules_of(document: &FormulaDocument, lines: &[WeighedLine]) -> (Vec<Limit>, Vec<(usize, usize)>) {
        (limits(&document.rules, lines), pairs(&document.rules, lines))
    }

    /// The candidate as it is shown: judged as a whole. None when its rounded amounts no longer do it.
    pub fn judged(&self, candidate: Candidate) -> Option<Way> {
        let answer = assess_from(&candidate.document, self.kitchen).ok()?;
        let new_trouble = answer.warnings.iter().any(|warning| {
            warning.severity > Severity::Note && !self.now.warnings.iter().any(|old| old.code == warning.code)
        });
        if answer.at.outcome != Outcome::Inside || answer.at.unknown.is_some() || new_trouble {
            return None;
        }
        let price = |key: &str| self.kitchen.find(key).and_then(|ingredient| (self.price)(ingredient));
        let effects = effects(&self.now, &answer, price);
        let shelf = candidate.document.shelf(self.kitchen).ok()?;
        let lines = candidate.document.formula().weigh(&shelf).ok()?;
        Some(Way {
            asks_first: brings(parts(&self.lines), parts(&lines)),
            kind: candidate.kind,
            title: candidate.title,
            changes: candidate.changes,
            effect_words: effect_words(&effects, &self.now, &answer),
            effects,
            on_map: answer.sweep.iter().map(|point| point.on_map.value).collect(),
            spans: answer.spans,
            phases_of_total_percent: answer.totals.phases_of_total_percent,
            at: answer.at,
            document: candidate.document,
        })
    }
}
