//! Ways with a scale: one ingredient more or less, one for another like it, the smallest rebalance.

use crate::assess::answer::assess_from;
use crate::balance::effects::signed;
use crate::balance::search::{Candidate, Search};
use crate::balance::sense::most_new;
use crate::balance::single::nearest_met;
use crate::balance::solve::{HELD, solve};
use crate::balance::way::{Change, Nearest, WayKind};
use crate::formula::family::FamilyGroup;
use crate::formula::{Mixture, WeighedLine};
use crate::ingredient::Role;
use crate::ingredient::{Ingredient, catalogue};
use crate::number::on_a_scale;
use crate::rheology::warning::WarningCode;

/// Ingredients that may be added when the formula lacks them. Yolk is left out on purpose: the response
/// to it is too steep to promise a gram.
fn levers(group: FamilyGroup) -> &'static [&'static str] {
    match group {
        FamilyGroup::Ganache => &["milk", "cream36", "glucose40", "butter82"],
        FamilyGroup::Buttercream => &["milk", "butter82"],
        FamilyGroup::WhippedCream => &["cream48", "mascarpone", "milk"],
        FamilyGroup::Mousse => &["gelatin200", "milk", "cream36"],
        FamilyGroup::Custard => &["milk", "corn_starch", "butter82"],
        FamilyGroup::Soak => &["water", "sugar"],
        FamilyGroup::Glaze => &["water", "glucose40", "gelatin200"],
    }
}

impl Search<'_> {
    /// One chocolate or cream for another of its kind, gram for gram.
    pub fn swaps(&self) -> Vec<Candidate> {
        let mut found = Vec::new();
        let asked = self.asked();
        for (at, line) in self.lines.iter().enumerate() {
            let id = &line.ingredient.id;
            let rule = &self.document.lines[at].rule;
            let Some(kind) = kin(id).filter(|_| !self.document.lines[at].is_held() && !rule.kept) else {
                continue;
            };
            let rules = &self.document.rules;
            if rules.shares.iter().any(|share| share.of == *id)
                || rules.ratios.iter().flatten().any(|key| key == id)
            {
                continue;
            }
            for other in catalogue().iter().filter(|other| other.id != *id && kin(&other.id) == Some(kind)) {
                let parts = self.lines.iter().enumerate().map(|(k, each)| {
                    let ingredient = if k == at { other.as_ref() } else { each.ingredient.as_ref() };
                    (ingredient, each.mass.grams())
                });
                if !self.met(&asked, &Mixture::new(parts)) {
                    continue;
                }
                let grams = on_a_scale(line.mass.grams());
                let mut document = self.document.clone();
                document.lines[at].ingredient.clone_from(&other.id);
                document.lines[at].amount = format!("{grams} g");
                let own = line.ingredient.composition.0;
                let apart: f64 = other.composition.0.iter().zip(own).map(|(a, b)| (a - b).abs()).sum();
                found.push(Candidate {
                    score: 0.16 + apart * grams / self.batch(),
                    kind: WayKind::Swap,
                    title: format!("{} for {}", other.name, line.ingredient.name),
                    changes: vec![
                        Change {
                            line: Some(at),
                            name: line.ingredient.name.clone(),
                            from_g: grams,
                            to_g: 0.0,
                            pieces: None,
                        },
                        Change {
                            line: Some(at),
                            name: other.name.clone(),
                            from_g: 0.0,
                            to_g: grams,
                            pieces: None,
                        },
                    ],
                    document,
                });
            }
        }
        found
    }

    /// Agar for a gelatin that is cut: by strength, as in a swap (0.3 g of agar sets as 1 g of gelatin of 200 bloom,
    /// common practice).
    pub fn other_gel(&self) -> Option<Candidate> {
        const AGAR_FOR_GELATIN: f64 = 0.3;
        if !self.now.warnings.iter().any(|warning| warning.code == WarningCode::Protease) {
            return None;
        }
        let is_sheets = |line: &WeighedLine| line.ingredient.bloom > 0.0 && line.ingredient.made.is_none();
        let at = self.lines.iter().position(is_sheets)?;
        let (line, rule) = (&self.lines[at], &self.document.lines[at].rule);
        if self.document.lines[at].is_held() || rule.kept {
            return None;
        }
        let agar = self.kitchen.find("agar")?;
        let strength = (line.ingredient.bloom / 200.0).sqrt();
        let asked = self.asked();
        let base = AGAR_FOR_GELATIN * line.mass.grams() * strength;
        let with = |grams: f64| {
            Mixture::new(self.lines.iter().enumerate().map(|(k, own)| {
                if k == at { (agar.as_ref(), grams) } else { (own.ingredient.as_ref(), own.mass.grams()) }
            }))
        };
        let wanted = nearest_met(base, 0.2 * base, 4.0 * base, |g| self.met(&asked, &with(g)))?;
        let to = on_a_scale(wanted);
        let mut document = self.document.clone();
        document.lines[at].ingredient.clone_from(&agar.id);
        document.lines[at].amount = format!("{to} g");
        let from = line.mass.grams();
        let name = line.ingredient.name.clone();
        let out = Change { line: Some(at), name: name.clone(), from_g: from, to_g: 0.0, pieces: None };
        let agar_in = Change { line: Some(at), name: agar.name.clone(), from_g: 0.0, to_g: to, pieces: None };
        Some(Candidate {
            score: 0.1,
            kind: WayKind::Swap,
            title: format!("{to} g {} for the {name}", agar.name),
            changes: vec![out, agar_in],
            document,
        })
    }

    /// One line more or less, or one ingredient added.
    pub fn one(&self) -> Vec<Candidate> {
        let (asked, start, batch) = (self.asked(), self.start(), self.batch());
        let mut found = Vec::new();
        for (at, line) in self.lines.iter().enumerate() {
            if self.document.lines[at].is_held() || start[at] <= 0.0 || line.ingredient.is(Role::Egg) {
                continue;
            }
            let [least, most] = self.reach(line, &self.document.lines[at]);
            let (low, high) = (least.max(0.01).min(start[at]), most.max(start[at]));
            let met = |g: f64| {
                self.with_one(&start, at, g).is_some_and(|grams| {
                    self.limits_hold(&grams, None, HELD) && self.met(&asked, &self.mixture(&grams))
                })
            };
            let Some(wanted) = nearest_met(start[at], low, high, met) else { continue };
            let Some(wanted) = self.in_whole_pieces(at, start[at], wanted).filter(|g| met(*g)) else {
                continue;
            };
            let Some(grams) = self.with_one(&start, at, wanted) else { continue };
            let (document, changes) = self.with_grams(&grams, None);
            let Some(by) = changes.iter().find(|change| change.line == Some(at)).map(|c| c.to_g - c.from_g)
            else {
                continue;
            };
            // Most of a line gone, or thrice of it, is a bigger change than the grams say.
            let score = 0.06 + by.abs() / batch + 0.1 * (wanted / start[at]).ln().abs();
            let title = self.more_or_less(at, by);
            found.push(Candidate { score, kind: WayKind::One, title, changes, document });
        }
        if !self.document.rules.keep_total {
            found
                .extend(levers(self.document.family.traits().group).iter().filter_map(|key| self.added(key)));
        }
        found
    }

    /// So much of something that is not in the formula yet.
    fn added(&self, key: &str) -> Option<Candidate> {
        if self.lines.iter().any(|line| line.ingredient.id == key) {
            return None;
        }
        let ingredient: &Ingredient = self.kitchen.find(key)?;
        let (asked, start, batch) = (self.asked(), self.start(), self.batch());
        let most = most_new(ingredient, self.document.family) * batch;
        let met = |g: f64| {
            let lines = self.lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams()));
            let mixture = Mixture::new(lines.chain([(ingredient, g)]));
            self.limits_hold(&start, Some((ingredient, g)), HELD) && self.met(&asked, &mixture)
        };
        let wanted = nearest_met(0.0, 0.0, most, met)?;
        let (document, changes) = self.with_grams(&start, Some((ingredient, wanted)));
        // A new thing in the bowl is a bigger change than more of what is there.
        Some(Candidate {
            score: 0.14 + wanted / batch,
            kind: WayKind::One,
            title: format!("{} {}", signed(on_a_scale(wanted)), ingredient.name),
            changes,
            document,
        })
    }

    /// The smallest overall rebalance, or what blocks it.
    pub fn rebalance(&self) -> Result<Candidate, Option<Box<Nearest>>> {
        let problem = self.problem();
        let solution = self.whole(&problem, solve(&problem));
        let (document, changes) = self.with_grams(&solution.grams, None);
        if solution.met && changes.is_empty() {
            return Err(None);
        }
        if solution.met {
            let by = |change: &Change| (change.to_g - change.from_g).abs();
            let moved: f64 = changes.iter().map(by).sum();
            let mut largest: Vec<&Change> = changes.iter().collect();
            largest.sort_by(|a, b| by(b).total_cmp(&by(a)));
            // What moves a twentieth of the largest or less is in the amounts, not in the title.
            let least = largest.first().map_or(0.0, |change| 0.05 * by(change));
            let words: Vec<String> = largest
                .iter()
                .filter(|change| by(change) > least)
                .take(3)
                .map(|change| {
                    let moved = change.to_g - change.from_g;
                    match change.line {
                        Some(at) => self.more_or_less(at, moved),
                        None => format!("{} {}", signed(moved), change.name),
                    }
                })
                .collect();
            return Ok(Candidate {
                score: 0.12 + 0.5 * moved / self.batch(),
                kind: WayKind::Rebalance,
                title: words.join(", "),
                changes,
                document,
            });
        }
        let Ok(answer) = assess_from(&document, self.kitchen) else { return Err(None) };
        let stands = match solution.blocked_by.as_slice() {
            [] => "the job at this temperature".to_owned(),
            [only] => only.clone(),
            [first, second, ..] => format!("{first}, and {second}"),
        };
        let sentence = format!("No amounts meet all you ask. In the way: {stands}. This comes nearest.");
        let blocked_by = solution.blocked_by;
        Err(Some(Box::new(Nearest { sentence, blocked_by, changes, document, at: answer.at })))
    }
}

/// Ingredients that take one another's place gram for gram.
fn kin(id: &str) -> Option<&'static str> {
    ["dark", "cream"].into_iter().find(|kind| {
        id.strip_prefix(kind).is_some_and(|rest| rest.chars().all(|c| c.is_ascii_digit()) && !rest.is_empty())
    })
}
