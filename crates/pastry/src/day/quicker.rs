//! A wait that holds a day up, made shorter by what its clock knows: another vessel, a colder place, more gelatin in the formula.

use crate::assess::FormulaDocument;
use crate::day::document::PlanDocument;
use crate::day::kitchen::KitchenDocument;
use crate::day::making::batch_of;
use crate::day::reasons::span;
use crate::day::shorter::{Quicker, called};
use crate::fault::Fault;
use crate::heat::stand::LearnedPlace;
use crate::method::quicker::{HasCold, QuickerBy, quicker, with_more_gelatin};
use crate::order::OrderDocument;
use crate::stack::{Known, Makings};
use serde::Serialize;
use utoipa::ToSchema;

/// What would make a wait of a plan shorter.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct QuickerAnswer {
    /// In a sentence: what waits, for how long, and why nothing helps where nothing does.
    pub sentence: String,
    /// What would, the shortest first.
    pub ways: Vec<QuickerWay>,
}

/// One way.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct QuickerWay {
    /// "In a wide tray: ready at 14:10 instead of 16:20, 2 h 10 sooner".
    pub words: String,
    /// Sooner by, min.
    pub sooner_min: i32,
    /// What to tell the plan.
    pub quicker: Quicker,
    /// The formula then, where it is the formula that changes.
    pub formula: Option<QuickerFormula>,
}

/// A formula that sets sooner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct QuickerFormula {
    /// Key of the formula.
    pub component: String,
    /// The formula.
    pub document: FormulaDocument,
}

/// What a wait is asked with: the orders of the plan as they were planned, and what is known of the kitchen.
pub struct QuickerAsked<'a> {
    /// The order the wait is of.
    pub order: &'a OrderDocument,
    /// Formulas and ingredients.
    pub known: Known<'a>,
    /// The kitchen.
    pub kitchen: &'a KitchenDocument,
    /// Its places as they were read.
    pub learned: &'a [LearnedPlace],
}

/// The order a wait is of.
pub fn order_of(plan: &PlanDocument, wait: usize) -> Option<usize> {
    plan.problem.waits.get(wait).map(|own| plan.problem.steps[own.from].order)
}

/// Ways to make a wait shorter.
///
/// # Arguments
/// * `enough_min`: it need not be shorter than this.
///
/// # Errors
/// Faults of the formula.
pub fn quicker_ways(
    plan: &PlanDocument,
    wait: usize,
    enough_min: Option<i32>,
    asked: &QuickerAsked,
) -> Result<QuickerAnswer, Vec<Fault>> {
    let own = &plan.problem.waits[wait];
    let from = &plan.problem.steps[own.from];
    let name = called(&own.name, &from.comp);
    let what = format!("{} ({name}), {}", from.comp, span(own.min));
    let none = |why: &str| QuickerAnswer { sentence: format!("{what}: {why}"), ways: Vec::new() };
    let part = plan.parts.iter().find_map(|part| {
        let step = part.waits.iter().find(|own| own.wait == wait)?;
        Some((part, step))
    });
    let Some((part, step)) = part else {
        return Ok(none("no clock says how long this lasts, so none says what would be sooner."));
    };
    let makings: Vec<Makings> =
        asked.order.cakes.iter().map(|cake| Makings::of(&cake.stack, &asked.known)).collect();
    let cream = makings.iter().find_map(|own| Some((own.cream(Some(&part.component))?, &own.shelf)));
    let Some((cream, shelf)) = cream else {
        return Ok(none("its formula is not here any more."));
    };
    let batch = batch_of(cream, part.weighed_g, shelf)?;
    let cold = &asked.kitchen.equipment;
    let has = HasCold {
        ice: cold.ice > 0,
        fridge: cold.fridge.shelves > 0,
        freezer: cold.freezer.shelves > 0,
        blast: cold.blast_trays > 0,
    };
    let enough = enough_min.map(f64::from);
    let Some((now, all)) = quicker(&batch, &step.step, shelf, asked.learned, has, enough)? else {
        return Ok(none("no clock says how long this lasts, so none says what would be sooner."));
    };
    let grid = plan.problem.grid_min;
    let up = |minutes: f64| (minutes / f64::from(grid)).ceil() as i32 * grid;
    if (up(now) - own.min).abs() > grid {
        let quickened = own.min < up(now);
        return Ok(none(match quickened {
            true => "it was made shorter already.",
            false => "its formula was changed since: plan again first.",
        }));
    }
    let keys = plan.step_keys();
    let days = plan.days();
    let end = plan.start[own.from].map(|at| at + from.dur);
    let then = plan.start[own.to].unwrap_or_default();
    let ways = all.into_iter().filter_map(|way| {
        let min = up(way.min).max(grid);
        let sooner_min = own.min - min;
        if sooner_min < grid {
            return None;
        }
        let at = end.map(|end| {
            format!("ready at {} instead of {}, ", days.said(end + min, then), days.said(end + own.min, then))
        });
        let formula = match &way.by {
            QuickerBy::Stands { .. } => None,
            QuickerBy::Gelatin { by, .. } => Some(QuickerFormula {
                component: part.component.clone(),
                document: with_more_gelatin(&cream.document, &cream.lines, *by),
            }),
        };
        // Only as long as it takes: then it stands where it would have stood.
        let at_first = match way.by {
            QuickerBy::Stands { elsewhere: true, .. } => " at first",
            _ => "",
        };
        let how = way.words.chars().take(1).flat_map(char::to_lowercase).chain(way.words.chars().skip(1));
        Some(QuickerWay {
            words: format!(
                "{}{}: {}{} sooner",
                way.words,
                if way.stirred { ", by somebody who stays at it" } else { "" },
                at.unwrap_or_default(),
                span(sooner_min)
            ),
            sooner_min,
            quicker: Quicker {
                from: keys[own.from].clone(),
                to: keys[own.to].clone(),
                min,
                max: way.max.map(|max| (max / f64::from(grid)).floor() as i32 * grid).map(|max| max.max(min)),
                how: how.collect::<String>() + at_first,
            },
            formula,
        })
    });
    let ways: Vec<QuickerWay> = ways.collect();
    let sentence = match ways.first() {
        Some(best) => format!("{what}: up to {} sooner.", span(best.sooner_min)),
        None => format!("{what}: nothing the kitchen has makes it shorter."),
    };
    Ok(QuickerAnswer { sentence, ways })
}
