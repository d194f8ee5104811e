//! How a batch looks: what comes next, what is still to pour and how far off it may be, and what it is with what is in the bowl.

use crate::assess::Ready;
use crate::assess::document::FormulaDocument;
use crate::balance::edges::Asked;
use crate::batch::arrival::{Arrival, of_step};
use crate::batch::bowls::{OwnBowl, own_bowls};
use crate::batch::contents::in_bowl;
use crate::batch::cooling::{CoolingClock, cooling_clock};
use crate::batch::document::{BatchDocument, BatchStep};
use crate::batch::end::{BatchShare, shares};
use crate::batch::event::{BatchEntry, Came, OverWay};
use crate::batch::fold::{BatchState, LineState, StepState, TemperatureRead, Timer, after, counting};
use crate::batch::judged::{Judged, SpoonToSee, judged};
use crate::batch::said::{Happening, happenings};
use crate::batch::tested::{BatchTest, tests};
use crate::batch::tolerance::{Band, band, needs_step, of_the_trade, one_in_ten};
use crate::code::codes;
use crate::fault::Fault;
use crate::formula::WeighedLine;
use crate::formula::kitchen_words::in_pieces;
use crate::ingredient::Shelf;
use crate::number::{hundredths, weighed_g};
use crate::rescue::{Overpour, OverpourAsk, overpour};
use crate::rheology::consistency::History;
use crate::units::Mass;
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;

codes! {
    /// Where a line of a batch stands.
    LineStands {
        /// Nothing of it is in.
        Open = "open",
        /// Some of it is in, and not enough.
        Short = "short",
        /// It is in.
        In = "in",
        /// More is in than may be, and nothing was decided about it.
        Over = "over",
        /// More or less is in than planned, and it stays so.
        Settled = "settled",
        /// It is left out on purpose.
        LeftOut = "left_out",
    }
}

/// How a batch looks.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BatchView {
    /// In a sentence: what it is with what is in the bowl.
    pub sentence: String,
    /// Whether it is inside its window, with what is in.
    pub inside: bool,
    /// What a spoonful does at its work, with what is in; none while it cannot be judged.
    pub spoon: Option<SpoonToSee>,
    /// What comes next: its number among the lines, where a line is to be weighed.
    pub line: Option<usize>,
    /// Else its number among the steps.
    pub step: Option<usize>,
    /// The lines in the order in which they are weighed.
    pub order: Vec<usize>,
    /// Its lines, in the order of the formula.
    pub lines: Vec<ViewLine>,
    /// Its steps.
    pub steps: Vec<ViewBatchStep>,
    /// What went in that no line asks for, in words.
    pub added: Vec<String>,
    /// What the marks of all lines are multiplied by, since it was made larger.
    pub factor: f64,
    /// In the bowl, g.
    pub in_g: f64,
    /// In it when everything is in, g.
    pub whole_g: f64,
    /// Weighed out of it, g.
    pub yielded_g: Option<f64>,
    /// What each of those it is made for gets of what is really there.
    pub shares: Vec<BatchShare>,
    /// Where it stands.
    pub stands_in: Option<String>,
    /// What is left over of it, g; none while nobody said.
    pub left_over_g: Option<f64>,
    /// How it gets to where the step that comes next wants it, as far as readings tell.
    pub arrival: Option<Arrival>,
    /// Until when it must be cold, where it must cool fast and was read to be hot.
    pub cooling: Option<CoolingClock>,
    /// The cook's own bowls.
    pub bowls: Vec<OwnBowl>,
    /// Temperatures, in the order in which they were read.
    pub reads: Vec<TemperatureRead>,
    /// What has happened to it when it is at its work.
    pub history: History,
    /// Tests that were done on it, each beside the book.
    pub tests: Vec<BatchTest>,
    /// Clocks that run, the first to ring first.
    pub timers: Vec<Timer>,
    /// How it came out.
    pub came: Option<Came>,
    /// Since when it is made.
    #[schema(value_type = Option<String>)]
    pub begun: Option<Timestamp>,
    /// Until when.
    #[schema(value_type = Option<String>)]
    pub closed: Option<Timestamp>,
    /// What stands in the way of closing it, in words; empty when it can be closed.
    pub open: Vec<String>,
    /// Everything that happened, in words, the last first.
    pub happened: Vec<Happening>,
    /// What is in the bowl, as a formula.
    pub contents: FormulaDocument,
    /// What could be done about the line that comes next, where more of it is in than may be.
    pub over: Option<Overpour>,
}

/// A line of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = BatchLine)]
pub struct ViewLine {
    /// Its number in the formula.
    pub line: usize,
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// What it may weigh.
    pub band: Band,
    /// The same in words.
    pub may: String,
    /// In the bowl, g.
    pub in_g: f64,
    /// Still to pour, g: to its mark.
    pub still_g: f64,
    /// Its mark in eggs, leaves, sticks; none when it is not counted.
    pub in_pieces: Option<String>,
    /// Where it stands.
    pub stands: LineStands,
    /// From which lots.
    pub lots: Vec<String>,
    /// The step it goes in at; none for what is weighed before all.
    pub step: Option<usize>,
    /// The coarsest step of a scale it can be weighed with, g: one that fits into what it may weigh.
    pub needs_step_g: f64,
    /// What is weighed instead of it where no scale is fine enough, in words: of a solution of one in ten.
    pub one_in_ten: Option<String>,
    /// What it would be without it, in a sentence; of the next line alone.
    pub without: Option<String>,
}

/// A step of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ViewBatchStep {
    /// As it was when the batch was begun.
    #[serde(flatten)]
    pub own: BatchStep,
    /// Since when somebody is at it.
    #[schema(value_type = Option<String>)]
    pub begun: Option<Timestamp>,
    /// Until when.
    #[schema(value_type = Option<String>)]
    pub done: Option<Timestamp>,
    /// Left out on purpose.
    pub left_out: bool,
    /// Whether its sign was there.
    pub sign: Option<bool>,
    /// The spoon's sign to look for: the method's, or where it is to be at its work, as worked out.
    pub look: Option<SpoonToSee>,
}

/// A batch as far as it can be told without judging it.
struct Told {
    state: BatchState,
    lines: Vec<ViewLine>,
    /// What counts of each line in the judgement, g.
    bowl: Vec<f64>,
}

fn told(batch: &BatchDocument, counts: &[BatchEntry], shelf: &Shelf) -> Result<Told, Vec<Fault>> {
    let state = after(batch, counts);
    let ready = Ready::of(&batch.formula, shelf)?;
    let marks: Vec<f64> =
        ready.lines.iter().map(|line| hundredths(line.mass.grams() * state.factor)).collect();
    let asked = Asked::of(&batch.formula, &ready.options);
    // Where the others stand: what is in of those that are in, the mark of those that are open.
    let all = state.lines.iter().zip(&marks).zip(&ready.lines);
    let bowl: Vec<f64> =
        all.map(|((own, mark), line)| counted(own, *mark, of_the_trade(&line.ingredient))).collect();
    let at_marks = with(&ready.lines, &marks);
    let one = |(at, line): (usize, &WeighedLine)| {
        let own = &state.lines[at];
        // What is in was poured to the mark of the plan; what is open must fit what is in.
        let touched = own.in_g > 0.0 || own.left_out.is_some();
        let band = match (marks[at] > 0.0, touched) {
            (false, _) => Band { from_g: 0.0, mark_g: 0.0, to_g: 0.0 },
            (true, true) => band(&asked, &at_marks, at),
            (true, false) => band(&asked, &with(&ready.lines, &set(&bowl, at, marks[at])), at),
        };
        ViewLine {
            line: at,
            ingredient: line.ingredient.id.clone(),
            name: line.ingredient.name.clone(),
            may: band.words(),
            in_g: own.in_g,
            still_g: hundredths(marks[at] - own.in_g),
            in_pieces: in_pieces(marks[at], &line.ingredient),
            needs_step_g: needs_step(&band),
            one_in_ten: one_in_ten(&band, &line.ingredient),
            stands: stands(own, &band),
            lots: own.lots.clone(),
            step: batch.steps.iter().position(|step| step.lines.contains(&at)),
            without: None,
            band,
        }
    };
    let lines = ready.lines.iter().enumerate().map(one).collect();
    Ok(Told { lines, bowl, state })
}

/// What stands in the way of closing a batch, in words.
///
/// # Errors
/// Faults of its formula in this kitchen.
pub fn still_open(
    batch: &BatchDocument,
    entries: &[BatchEntry],
    shelf: &Shelf,
) -> Result<Vec<String>, Vec<Fault>> {
    let counts = counting(entries);
    if thrown_away(&after(batch, &counts)) {
        return Ok(Vec::new());
    }
    let Told { state, lines, .. } = told(batch, &counts, shelf)?;
    Ok(open(&state, &lines, batch))
}

/// Looks at a batch.
///
/// # Errors
/// Faults of its formula in this kitchen.
pub fn look(batch: &BatchDocument, entries: &[BatchEntry], shelf: &Shelf) -> Result<BatchView, Vec<Fault>> {
    let counts = counting(entries);
    let Told { state, mut lines, bowl } = told(batch, &counts, shelf)?;
    let order = order(batch, lines.len());
    let contents = in_bowl(&batch.formula, &bowl, &state, shelf);
    let Judged { sentence, inside, spoon } = judged(&contents, shelf);
    let work_c = batch.formula.work.temperature_c.celsius();
    let (line, step) = next(&state, &lines, &order, batch);
    if let Some(at) = line.filter(|at| state.lines[*at].in_g <= 0.0) {
        let without = in_bowl(&batch.formula, &set(&bowl, at, 0.0), &state, shelf);
        lines[at].without = Some(judged(&without, shelf).sentence);
    }
    let over = line
        .filter(|at| lines[*at].stands == LineStands::Over)
        .and_then(|at| poured_over(batch, &state, (&bowl, at), &lines[at], shelf));
    let names: Vec<String> = lines.iter().map(|own| own.name.clone()).collect();
    let steps = batch.steps.iter().zip(&state.steps);
    let steps = steps.map(|(own, state)| view_step(own, state, (&spoon, work_c))).collect();
    let mut timers = state.timers.clone();
    timers.sort_by_key(|own| own.rings);
    Ok(BatchView {
        sentence,
        inside,
        line,
        step,
        order,
        open: open(&state, &lines, batch),
        steps,
        spoon,
        added: added(&state, shelf),
        factor: state.factor,
        in_g: hundredths(state.in_g()),
        whole_g: hundredths(bowl.iter().chain(state.added.iter().map(|own| &own.grams)).sum()),
        yielded_g: state.yielded_g,
        shares: shares(batch, state.yielded_g.unwrap_or_else(|| state.in_g())),
        stands_in: state.stands_in.clone(),
        left_over_g: state.left_over_g,
        arrival: step.and_then(|at| of_step(batch, &state, at)),
        cooling: cooling_clock(batch, &state.reads),
        bowls: own_bowls([entries]),
        reads: state.reads.clone(),
        history: batch.formula.history(),
        tests: tests(batch, entries, shelf),
        timers,
        came: state.came.as_ref().map(|(came, _)| *came),
        begun: state.begun,
        closed: state.closed,
        happened: happenings(batch, entries, &counts, &names, shelf),
        lines,
        contents,
        over,
    })
}

/// What could be done about a line that is over: the bowl as it would be with the line at its mark, and what went in.
fn poured_over(
    batch: &BatchDocument,
    state: &BatchState,
    (bowl, at): (&[f64], usize),
    line: &ViewLine,
    shelf: &Shelf,
) -> Option<Overpour> {
    let planned = set(bowl, at, line.band.mark_g);
    let document = in_bowl(&batch.formula, &planned, state, shelf);
    // What is left out is no line of what is in the bowl.
    let within = planned[..at].iter().filter(|grams| **grams > 0.0).count();
    // What was added of the same counts too.
    let own = document.lines.get(within)?.amount.trim_end_matches(" g").parse::<f64>().ok()?;
    let poured = format!("{} g", hundredths(own + line.in_g - line.band.mark_g));
    overpour(&OverpourAsk { document, line: within, poured }, shelf).ok()
}

/// What counts of a line in the judgement: what is in, its mark while it is still poured.
///
/// # Arguments
/// * `off`: how far off its mark it may be at most, share of it.
fn counted(own: &LineState, mark: f64, off: f64) -> f64 {
    let poured = own.in_g >= (1.0 - off) * mark || is_decided(own);
    if own.left_out.is_some() || poured { own.in_g } else { mark }
}

/// Whether something was decided about what is in of a line.
fn is_decided(own: &LineState) -> bool {
    own.decided.is_some_and(|(_, then)| (then - own.in_g).abs() < 0.005)
}

fn set(all: &[f64], at: usize, to: f64) -> Vec<f64> {
    let mut own = all.to_vec();
    own[at] = to;
    own
}

fn with(lines: &[WeighedLine], grams: &[f64]) -> Vec<WeighedLine> {
    let own = lines.iter().zip(grams);
    own.map(|(line, grams)| WeighedLine { mass: Mass::from_grams(*grams), ..line.clone() }).collect()
}

/// Lines in the order in which they are weighed: what no step takes by itself before all, then step by step.
fn order(batch: &BatchDocument, lines: usize) -> Vec<usize> {
    let at = |line: usize| batch.steps.iter().position(|step| step.lines.contains(&line));
    let mut all: Vec<usize> = (0..lines).collect();
    all.sort_by_key(|line| at(*line).map_or(0, |step| step + 1));
    all
}

fn stands(own: &LineState, band: &Band) -> LineStands {
    if own.left_out.is_some() {
        LineStands::LeftOut
    } else if band.mark_g <= 0.0 || (own.in_g > 0.0 && band.holds(own.in_g)) {
        LineStands::In
    } else if own.in_g <= 0.0 {
        LineStands::Open
    } else if is_decided(own) && own.decided.is_some_and(|(way, _)| way != OverWay::Scale) {
        LineStands::Settled
    } else if own.in_g > band.to_g {
        LineStands::Over
    } else {
        LineStands::Short
    }
}

/// What comes next: a line that is over or not in, in the order of weighing, before the step it goes in at is done; else a step.
fn next(
    state: &BatchState,
    lines: &[ViewLine],
    order: &[usize],
    batch: &BatchDocument,
) -> (Option<usize>, Option<usize>) {
    if batch.made_at.is_some() {
        return (None, None);
    }
    let waits =
        |own: &ViewLine| matches!(own.stands, LineStands::Open | LineStands::Short | LineStands::Over);
    let line = order.iter().copied().find(|at| waits(&lines[*at]));
    let over = |own: &StepState| own.done.is_some() || own.left_out.is_some();
    let step = (0..batch.steps.len()).find(|at| !over(&state.steps[*at]));
    match (line, step) {
        (Some(line), Some(step)) if lines[line].step.is_some_and(|own| own > step) => (None, Some(step)),
        (Some(line), _) => (Some(line), None),
        (None, step) => (None, step),
    }
}

/// Whether it was thrown away: then nothing of it is finished first.
fn thrown_away(state: &BatchState) -> bool {
    state.came.as_ref().is_some_and(|(came, _)| *came == Came::Thrown)
}

/// What stands in the way of closing a batch.
fn open(state: &BatchState, lines: &[ViewLine], batch: &BatchDocument) -> Vec<String> {
    let mut said = Vec::new();
    if thrown_away(state) || batch.made_at.is_some() {
        return said;
    }
    for own in lines {
        match own.stands {
            LineStands::Open => said.push(format!("{} has not gone in. Left out on purpose?", own.name)),
            LineStands::Short => said.push(format!(
                "{}: {} g are missing. Is it to stay so?",
                own.name,
                weighed_g(own.still_g)
            )),
            LineStands::Over => said.push(format!(
                "{}: {} g too much is in. What is to be done about it?",
                own.name,
                weighed_g(-own.still_g)
            )),
            LineStands::In | LineStands::Settled | LineStands::LeftOut => {}
        }
    }
    for (own, state) in batch.steps.iter().zip(&state.steps) {
        if state.done.is_none() && state.left_out.is_none() {
            said.push(format!("Not done: {}", own.what));
        }
    }
    said
}

fn view_step(
    own: &BatchStep,
    state: &StepState,
    (at_work, work_c): (&Option<SpoonToSee>, f64),
) -> ViewBatchStep {
    // Brought to its work, it does what was worked out for there.
    let to_work = own.temperature_c.is_some_and(|[from, to]| (from..=to).contains(&work_c));
    ViewBatchStep {
        look: match own.spoon {
            Some(sign) => {
                let tint = at_work.as_ref().and_then(|own| own.tint.clone());
                Some(SpoonToSee { tint, ..SpoonToSee::from(sign) })
            }
            None => at_work.clone().filter(|_| to_work),
        },
        own: own.clone(),
        begun: state.begun,
        done: state.done,
        left_out: state.left_out.is_some(),
        sign: state.sign,
    }
}

fn added(state: &BatchState, shelf: &Shelf) -> Vec<String> {
    let name = |key: &str| shelf.find(key).map_or_else(|| key.to_owned(), |own| own.name.clone());
    let one = |grams: f64, key: &str| format!("{} g {}", weighed_g(grams), name(key));
    state.added.iter().map(|own| one(own.grams, &own.ingredient)).collect()
}
