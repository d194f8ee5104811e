//! A batch as it is kept and sent: the formula it is made by, at its size, the steps of its method, and what it is for.

use crate::assess::document::FormulaDocument;
use crate::assess::spoon_sign::SpoonSign;
use crate::batch::event::{BatchEntry, MOST_G};
use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::heat::stand::LearnedPlace;
use crate::ingredient::Shelf;
use crate::method::course::{MethodStep, StepFault, wanted_c};
use crate::method::school::school;
use crate::method::sheet::chosen;
use crate::method::step::Worker;
use crate::number::{hundredths, limit};
use crate::scale::{ScaleAsk, Target, Whole, scale};
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa::openapi::schema::{ArrayBuilder, ObjectBuilder, Schema, Type};

/// Most events of a batch that are read from a file.
pub const MOST_EVENTS: usize = 20_000;
/// Most places alike that a batch is made for.
const MOST_ALIKE: u32 = 10_000;
/// Most steps of a batch.
const MOST_STEPS: usize = 200;

/// A batch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchDocument {
    /// Always `bright-spoon/batch`.
    #[schema(example = "bright-spoon/batch")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// What it is called.
    #[schema(max_length = 120)]
    pub name: String,
    /// What it is made by, as it was when it was begun, every line in grams.
    pub formula: FormulaDocument,
    /// Key of the formula in the library; none for one that is not kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub component: Option<String>,
    /// The revision it was.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 1000000)]
    pub revision: Option<i64>,
    /// What it is made for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub made_for: Vec<BatchFor>,
    /// How it is made, step by step, as it was when it was begun.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub steps: Vec<BatchStep>,
    /// When it was made, RFC 3339, for one that is written in afterwards: what nobody weighed is taken to be as the formula
    /// has it, and nothing of it is open.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(
        value_type = Option<String>, example = "2026-10-02T11:00:00Z",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?(Z|[+-]([01]\d|2[0-3]):[0-5]\d)$"
    )]
    pub made_at: Option<Timestamp>,
    /// What happened to it, in a file that travels; the kitchen keeps each event by itself.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20000)]
    pub events: Vec<BatchEntry>,
}

/// What a batch is made for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchFor {
    /// Key of the order; none for one that is not kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub order: Option<String>,
    /// Name of the order, and of what of it.
    #[schema(max_length = 200)]
    pub name: String,
    /// How much of it is for that, g, before what stays in bowl and bag; none where nobody worked that out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 200000)]
    pub grams: Option<f64>,
    /// For how many alike; one where it is not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 10000)]
    pub count: Option<u32>,
}

/// A step of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchStep {
    /// Its key within the method.
    #[schema(max_length = 120)]
    pub key: String,
    /// What is done.
    #[schema(max_length = 600)]
    pub what: String,
    /// Who works.
    pub kind: Worker,
    /// Minutes, from and to.
    #[schema(min_items = 2, max_items = 2)]
    pub minutes: [f64; 2],
    /// The same as it is read.
    #[schema(max_length = 60)]
    pub time: String,
    /// Temperature, °C, from and to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(min_items = 2, max_items = 2)]
    pub temperature_c: Option<[f64; 2]>,
    /// The sign that it is done.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 600)]
    pub until: String,
    /// What a spoonful does then, where that is the sign.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spoon: Option<SpoonSign>,
    /// What goes wrong, and why.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub wrong: Vec<StepFault>,
    /// What can hurt, in words.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub cautions: Vec<String>,
    /// Numbers of the lines that go in at it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(schema_with = numbers_of_lines)]
    pub lines: Vec<usize>,
}

/// Up to sixty numbers of lines.
fn numbers_of_lines() -> Schema {
    let number = ObjectBuilder::new().schema_type(Type::Integer).minimum(Some(0)).maximum(Some(59));
    ArrayBuilder::new()
        .items(number)
        .max_items(Some(60))
        .description(Some("Numbers of the lines that go in at it."))
        .into()
}

impl From<MethodStep> for BatchStep {
    fn from(own: MethodStep) -> Self {
        BatchStep {
            key: own.key,
            what: own.what,
            kind: own.kind,
            minutes: own.minutes,
            time: own.time,
            temperature_c: own.temperature_c,
            until: own.until,
            spoon: own.spoon,
            wrong: own.wrong,
            cautions: own.cautions.iter().map(|own| own.words().to_owned()).collect(),
            lines: own.lines,
        }
    }
}

/// A batch that is to be begun.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchAsk {
    /// What it is made by.
    pub formula: FormulaDocument,
    /// How much is weighed for it, g; as much as the formula says when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 200000)]
    pub weigh_g: Option<f64>,
    /// Key of the formula in the library; none for one that is not kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub component: Option<String>,
    /// The revision it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 1000000)]
    pub revision: Option<i64>,
    /// What it is made for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub made_for: Vec<BatchFor>,
    /// When it was made, RFC 3339, for one that is written in afterwards; it is being made when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(
        value_type = Option<String>, example = "2026-10-02T11:00:00Z",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?(Z|[+-]([01]\d|2[0-3]):[0-5]\d)$"
    )]
    pub made_at: Option<Timestamp>,
}

/// A device's clock that is ahead of the kitchen's by less than this is one that is wrong, and no day that is still to come (assumed).
const CLOCK_AHEAD: SignedDuration = SignedDuration::from_hours(2);

impl BatchAsk {
    /// As it came here: what a device says was made just now was made no later than that.
    ///
    /// # Arguments
    /// * `now`: by the clock of the kitchen.
    pub fn come_at(mut self, now: Timestamp) -> Self {
        let ahead = |at: Timestamp| at > now && at.duration_since(now) <= CLOCK_AHEAD;
        self.made_at = self.made_at.map(|at| if ahead(at) { now } else { at });
        self
    }
}

impl BatchDocument {
    /// A batch about to be begun: its lines in grams at its size, the steps of its method worked out for it.
    ///
    /// # Errors
    /// Faults of the formula; a weight that is no batch's.
    pub fn begin(ask: BatchAsk, shelf: &Shelf, learned: &[LearnedPlace]) -> Result<Self, Vec<Fault>> {
        let whole = ScaleAsk {
            document: ask.formula,
            target: Target::Factor { by: 1.0 },
            loss_percent: 0.0,
            whole: Whole::default(),
            whole_line: None,
        };
        let now = scale(&whole, shelf, &|_| None)?;
        let weighed_g: f64 = now.lines.iter().map(|line| line.from_g).sum();
        let sized = match ask.weigh_g {
            None => now,
            Some(grams) if !(grams > 0.0 && grams.is_finite()) => {
                let words = "write how much is to be weighed, in grams above 0";
                return Err(vec![Fault::new("weigh_g", FaultCode::OutOfRange, words)]);
            }
            Some(grams) => {
                let target = Target::Factor { by: grams / weighed_g.max(1e-9) };
                scale(&ScaleAsk { target, ..whole }, shelf, &|_| None).map_err(|faults| {
                    faults
                        .into_iter()
                        .map(|own| Fault { field: size_of(own.field), ..own })
                        .collect::<Vec<_>>()
                })?
            }
        };
        // In grams, whatever it was written in: what is weighed, and what is known of it when the cups are others.
        let mut formula = sized.document;
        formula.percent_of = None;
        for (line, own) in formula.lines.iter_mut().zip(&sized.lines) {
            line.amount = format!("{} g", hundredths(own.to_g));
        }
        let sheet = chosen(&formula, shelf, learned)?;
        let of = sheet.as_ref().and_then(|sheet| school(&sheet.school));
        let job_c = formula.work.temperature_c.celsius();
        let one = |own: MethodStep| {
            let wanted = of.and_then(|of| wanted_c(of, &own.key, job_c));
            let step = BatchStep::from(own);
            BatchStep { temperature_c: step.temperature_c.or(wanted), ..step }
        };
        let steps = sheet.map(|sheet| sheet.steps).unwrap_or_default().into_iter().map(one).collect();
        Ok(BatchDocument {
            format: format::BATCH.name.to_owned(),
            version: format::BATCH.version,
            name: formula.called().to_owned(),
            formula,
            component: ask.component,
            revision: ask.revision,
            made_for: ask.made_for,
            made_at: ask.made_at,
            steps,
            events: Vec::new(),
        })
    }

    /// What a line is to weigh, g, as it is written in a batch; none where it is written otherwise, or there is no such line.
    pub fn planned_g(&self, line: usize) -> Option<f64> {
        let written = self.formula.lines.get(line)?.amount.strip_suffix(" g")?;
        written.parse().ok().filter(|own: &f64| own.is_finite() && *own >= 0.0)
    }

    /// What is wrong with when it was made: a day that is still to come.
    ///
    /// # Arguments
    /// * `now`: by the clock of the kitchen.
    pub fn made_too_late(&self, now: Timestamp) -> Option<Fault> {
        let words = "this day is still to come: write the day on which it was made";
        self.made_at.filter(|own| *own > now).map(|_| Fault::new("made_at", FaultCode::OutOfRange, words))
    }

    /// What is wrong with it, at its field; its events are looked at by `check`.
    pub fn faults(&self, shelf: &Shelf) -> Vec<Fault> {
        let mut faults = format::BATCH.faults(&self.format, self.version);
        faults.extend(format::text_faults(&self.name, ""));
        let mut own = self.formula.faults();
        if own.is_empty() {
            own.extend(crate::assess::Ready::of(&self.formula, shelf).err().unwrap_or_default());
        }
        faults.extend(own.into_iter().map(|own| Fault { field: format!("formula.{}", own.field), ..own }));
        for (field, most, is) in
            [("steps", MOST_STEPS, self.steps.len()), ("events", MOST_EVENTS, self.events.len())]
        {
            if is > most {
                let words = format!("{is} {field}: at most {} are read", limit(most as f64));
                faults.push(Fault::new(field, FaultCode::TooMany, words));
            }
        }
        for (at, own) in self.made_for.iter().enumerate() {
            if own.grams.is_some_and(|grams| !(0.0..=MOST_G).contains(&grams)) {
                let words = "write how much of it is for that, in grams from 0 up";
                faults.push(Fault::new(format!("made_for.{at}.grams"), FaultCode::OutOfRange, words));
            }
        }
        for (at, own) in self.made_for.iter().enumerate() {
            if own.count.is_some_and(|count| !(1..=MOST_ALIKE).contains(&count)) {
                let words = "write for how many alike it is, from 1 up";
                faults.push(Fault::new(format!("made_for.{at}.count"), FaultCode::OutOfRange, words));
            }
        }
        if self.made_at.is_some() {
            for at in (0..self.formula.lines.len()).filter(|at| self.planned_g(*at).is_none()) {
                let words = "write it in grams: it is what is taken to have gone in";
                faults.push(Fault::new(format!("formula.lines.{at}.amount"), FaultCode::OutOfRange, words));
            }
        }
        let lines = self.formula.lines.len();
        for (at, step) in self.steps.iter().enumerate() {
            if self.steps[..at].iter().any(|own| own.key == step.key) {
                let words = format!("two steps have the key “{}”: each must have its own", step.key);
                faults.push(Fault::new(format!("steps.{at}.key"), FaultCode::Twice, words));
            }
            if step.lines.iter().any(|line| *line >= lines) {
                let words = "a line goes in at this step that is not in the formula: take it out";
                faults.push(Fault::new(format!("steps.{at}.lines"), FaultCode::NoSuchLine, words));
            }
        }
        faults
    }
}

/// Where a size that cannot be made is written.
fn size_of(field: String) -> String {
    if field.starts_with("target") { "weigh_g".to_owned() } else { format!("formula.{field}") }
}
