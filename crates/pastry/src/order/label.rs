//! Tape labels: what, how much, made, use by, allergens, keep at.

use crate::formula::keeping::{RAW_EGG_DAYS, cold_days, keeping};
use crate::formula::{Family, Mixture, WeighedLine, flat};
use crate::ingredient::origin::Origin;
use crate::ingredient::{Group, Ingredient, Part, Role};
use crate::number::{hundredths, limit};
use crate::order::batch::Batch;
use crate::order::document::{OrderDocument, OrderedCake};
use crate::rheology::warning::{Warning, WarningCode, warnings};
use crate::rheology::{History, Options, Predictor};
use crate::stack::cream::Cream;
use crate::stack::part::PartKind;
use crate::stack::{Makings, StackAnswer};
use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

/// A label.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TapeLabel {
    /// What it is.
    pub what: String,
    /// How much of it.
    pub amount: String,
    /// The order it is for.
    pub order: String,
    /// Made on; none while nobody said.
    #[schema(value_type = Option<String>)]
    pub made_on: Option<Date>,
    /// Use by; none while nobody said when it is made.
    #[schema(value_type = Option<String>)]
    pub use_by: Option<Date>,
    /// Days it keeps in the cold, counted from the day it is made.
    pub keeps_days: i64,
    /// Where it is kept.
    pub keep_at: String,
    /// Allergens.
    pub allergens: Vec<String>,
    /// Raw egg, alcohol, honey, whose gelatin.
    pub notes: Vec<String>,
    /// What is not known of what is in it: the label says INCOMPLETE while anything stands here.
    pub incomplete: Vec<String>,
    /// How many of this label.
    pub copies: u32,
}

/// What a label says of a cream besides what is in it.
#[derive(Debug, Clone, PartialEq)]
pub struct CreamSays {
    /// Raw egg, alcohol, honey, whose gelatin.
    pub notes: Vec<String>,
    /// Where it is kept.
    pub keep_at: String,
    raw_egg: bool,
}

impl CreamSays {
    /// Days it keeps, of the days of its family: fewer with raw egg.
    pub fn keeps_days(&self, of_family: i64) -> i64 {
        if self.raw_egg { of_family.min(RAW_EGG_DAYS) } else { of_family }
    }
}

/// What the label of a cream must say, from its lines as they are worked at a temperature.
pub fn cream_says(
    lines: &[WeighedLine],
    family: Family,
    options: &Options,
    t_c: f64,
    history: History,
) -> CreamSays {
    let base = Predictor::new(&Mixture::of(lines), family.traits().system, options).base;
    says(lines, family, &warnings(lines, family, &base, options, t_c, history))
}

fn says(lines: &[WeighedLine], family: Family, warnings: &[Warning]) -> CreamSays {
    let mut notes = Vec::new();
    for warning in warnings {
        let word = match warning.code {
            WarningCode::EggRaw => "raw or lightly heated egg",
            WarningCode::Alcohol => "contains alcohol",
            WarningCode::Honey => "honey: not for infants",
            _ => continue,
        };
        notes.push(word.to_owned());
    }
    for (origin, word) in
        [(Origin::Pork, "pork gelatin"), (Origin::Beef, "beef gelatin"), (Origin::Fish, "fish gelatin")]
    {
        let of_it = |own: &Ingredient| own.is(Role::Gelatin) && own.origins.contains(&origin);
        if flat(lines).iter().any(|line| of_it(&line.ingredient)) {
            notes.push(word.to_owned());
        }
    }
    CreamSays {
        notes,
        keep_at: keep_at(family),
        raw_egg: warnings.iter().any(|warning| warning.code == WarningCode::EggRaw),
    }
}

fn of_cream(cream: &Cream) -> CreamSays {
    says(&cream.lines, cream.document.family, &cream.warnings)
}

/// What a cream's label must say.
fn notes(cream: &Cream) -> Vec<String> {
    of_cream(cream).notes
}

/// Days a cream keeps.
fn days(cream: &Cream) -> i64 {
    of_cream(cream).keeps_days(cold_days(cream.document.family, &cream.lines))
}

/// Where a family is kept until it is used.
fn keep_at(family: Family) -> String {
    format!("at or below 5 °C, under {}", keeping(family).cover)
}

/// Days anything baked keeps wrapped (common practice).
const BAKED_DAYS: i64 = 2;

/// Days a cake keeps with cut or fresh fruit on it (common practice).
const FRESH_DAYS: i64 = 1;
/// From so much water a piece is fresh, mass fraction: fruit, not jam and not candied peel.
const FRESH_WATER: f64 = 0.6;

/// Whether fresh fruit or flowers of the pantry lie on it.
fn fresh_on_it(cake: &OrderedCake, makings: &Makings) -> bool {
    let pieces = cake.stack.tiers.iter().flat_map(|tier| &tier.pieces);
    pieces.filter(|own| own.count > 0).filter_map(|own| own.ingredient.as_deref()).any(|key| {
        makings
            .shelf
            .find(key)
            .is_some_and(|own| own.group == Group::Fruit && own.composition.get(Part::Water) > FRESH_WATER)
    })
}

/// What a batch without lines leaves open.
fn unknown_batch(batch: &Batch) -> Vec<String> {
    if !batch.lines.is_empty() {
        return Vec::new();
    }
    vec![format!("What is in {} is not written: its allergens are not known.", batch.name)]
}

/// One label for each batch, and one for each cake.
pub fn labels(
    order: &OrderDocument,
    batches: &[Batch],
    answers: &[StackAnswer],
    makings: &[Makings],
) -> Vec<TapeLabel> {
    let use_by = |days: i64| order.made_on.and_then(|made| made.checked_add(days.days()).ok());
    let mut labels = Vec::new();
    for batch in batches {
        let cream = makings
            .iter()
            .find_map(|own| own.cream(Some(&batch.key)))
            .filter(|_| batch.kind == PartKind::Component);
        let (keeps_days, keep_at, notes) = match cream {
            Some(cream) => (days(cream), keep_at(cream.document.family), notes(cream)),
            None => (BAKED_DAYS, "wrapped, at or below 5 °C".to_owned(), Vec::new()),
        };
        labels.push(TapeLabel {
            what: batch.name.clone(),
            amount: format!("{} g", limit_whole(batch.to_make_g)),
            order: order.name.clone(),
            made_on: order.made_on,
            use_by: use_by(keeps_days),
            keeps_days,
            keep_at,
            allergens: batch.allergens.clone(),
            notes,
            incomplete: unknown_batch(batch),
            copies: 1,
        });
    }
    for ((cake, answer), makings) in order.cakes.iter().zip(answers).zip(makings) {
        let creams: Vec<&Cream> = makings.straight().collect();
        // A filled cake takes the shortest of its parts.
        let fresh = fresh_on_it(cake, makings).then_some(FRESH_DAYS);
        let of_parts = creams.iter().map(|cream| days(cream)).chain([BAKED_DAYS + 1]);
        let keeps_days = of_parts.chain(fresh).min().unwrap_or(1);
        let mut all: Vec<String> = creams.iter().flat_map(|cream| notes(cream)).collect();
        all.sort();
        all.dedup();
        let pieces = cake.stack.pieces();
        let serve = cake.stack.serve_c.map_or(String::new(), |t_c| format!("; eat at {} °C", limit(t_c)));
        labels.push(TapeLabel {
            what: if answer.name.is_empty() { "Cake".to_owned() } else { answer.name.clone() },
            amount: match pieces {
                1 => format!("{} g", limit_whole(answer.finished_g)),
                n => format!("{} g each", limit_whole(hundredths(answer.finished_g / f64::from(n)))),
            },
            order: order.name.clone(),
            made_on: order.made_on,
            use_by: use_by(keeps_days),
            keeps_days,
            keep_at: format!("in a closed box, at or below 5 °C{serve}"),
            allergens: answer.allergens.clone(),
            notes: all,
            incomplete: answer.incomplete.clone(),
            copies: cake.count.saturating_mul(pieces),
        });
    }
    labels
}

impl TapeLabel {
    /// As lines for a printer of tape.
    pub fn text(&self) -> String {
        let mut lines = vec![self.what.clone(), self.amount.clone()];
        if !self.order.is_empty() {
            lines.push(format!("for {}", self.order));
        }
        if let Some(made_on) = self.made_on {
            lines.push(format!("made {}", day(made_on)));
        }
        match self.use_by {
            Some(use_by) => lines.push(format!("use by {}", day(use_by))),
            None => lines.push(format!("keeps {} days", self.keeps_days)),
        }
        lines.push(format!("keep {}", self.keep_at));
        match self.allergens.as_slice() {
            [] if self.incomplete.is_empty() => lines.push("no allergens known in it".to_owned()),
            [] => {}
            all => lines.push(format!("contains {}", all.join(", "))),
        }
        lines.extend(self.notes.iter().cloned());
        for words in &self.incomplete {
            lines.push(format!("INCOMPLETE: {words}"));
        }
        lines.join("\n")
    }
}

/// "Thu 3 Dec 2026".
fn day(date: Date) -> String {
    date.strftime("%a %-d %b %Y").to_string()
}

fn limit_whole(grams: f64) -> String {
    crate::stack::place_answer::limit_grams(grams)
}
