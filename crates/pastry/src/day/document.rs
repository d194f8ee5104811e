//! The document of a plan: the problem as it was when it was planned, when each step begins, and for which orders.

use crate::day::compile::Compiled;
use crate::day::gone::{Gone, MOST_GONE};
use crate::day::hours::Days;
use crate::day::part::PlannedPart;
use crate::day::sharing::SharedBatch;
use crate::day::shorter::{MOST_QUICKER, Quicker};
use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::zone::Zone;
use jiff::civil::{Date, DateTime};
use plan::problem::{Kind, Problem};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::ToSchema;

/// Most orders of one plan.
pub const MOST_ORDERS: usize = 60;

/// A plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlanDocument {
    /// Always `bright-spoon/plan`.
    #[schema(example = "bright-spoon/plan")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// What it is called: its days.
    #[schema(max_length = 120)]
    pub name: String,
    /// The zone the kitchen's wall clock is in.
    pub zone: Zone,
    /// Nothing was to begin before this, on the wall.
    #[schema(
        value_type = String, example = "2026-12-01T07:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub from: DateTime,
    /// For which orders, in the order of the problem.
    #[schema(max_items = 60)]
    pub orders: Vec<PlannedOrder>,
    /// The revision of the pastry room it was planned for; none for a room that is not kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub room: Option<i64>,
    /// What was said to be away or out of use while it stood.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub gone: Vec<Gone>,
    /// Waits that were made shorter while it stood.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub quicker: Vec<Quicker>,
    /// Batches in it that are made by formulas.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 1500)]
    pub parts: Vec<PlannedPart>,
    /// Batches in it that are made once for several orders.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 1500)]
    pub shared: Vec<SharedBatch>,
    /// What was planned.
    pub problem: Problem,
    /// When each step begins, minutes since 00:00 of the first day; none for one without a place.
    #[schema(max_items = 1500)]
    pub start: Vec<Option<i32>>,
    /// Steps that stay where they are.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 1500)]
    pub pinned: Vec<usize>,
    /// What is to be minded in it, in words: what cools too slowly.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub cautions: Vec<String>,
    /// What of the orders is not in it, in words.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 200)]
    pub notes: Vec<String>,
}

/// An order in a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlannedOrder {
    /// The key it is kept under; none for one that is not kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub key: Option<String>,
    /// The revision that was planned.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub revision: Option<i64>,
    /// What it is called.
    #[schema(max_length = 200)]
    pub name: String,
    /// When it is promised, on the wall.
    #[schema(
        value_type = String, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub promised: DateTime,
    /// Since when it is made, on the wall: what was said of its steps before is of an earlier making, for another day.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(
        value_type = Option<String>, example = "2026-12-01T07:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub since: Option<DateTime>,
}

impl PlannedOrder {
    /// Whether it is still the making that was planned before, and not one for another day.
    pub fn goes_on(&self, before: &PlannedOrder, now: DateTime) -> bool {
        self.key.is_some()
            && self.key == before.key
            && (self.promised == before.promised || before.promised > now)
    }
}

impl PlanDocument {
    /// The batch a step works on, where a formula makes it.
    pub fn part_of(&self, step: usize) -> Option<&PlannedPart> {
        let (of, orders) = (&self.problem.steps[step].comp, self.orders_of(step));
        self.parts.iter().find(|part| part.of == *of && orders.contains(&part.order))
    }

    /// A plan of what was compiled.
    ///
    /// # Arguments
    /// * `orders`: in the order they were compiled in; `start`: minutes, one a step.
    pub fn of(
        compiled: Compiled,
        zone: Zone,
        from: DateTime,
        orders: Vec<PlannedOrder>,
        start: Vec<Option<i32>>,
    ) -> PlanDocument {
        let mut plan = PlanDocument {
            format: format::PLAN.name.to_owned(),
            version: format::PLAN.version,
            name: String::new(),
            zone,
            from,
            orders,
            room: None,
            gone: Vec::new(),
            quicker: Vec::new(),
            parts: compiled.parts,
            shared: compiled.shared,
            problem: compiled.problem,
            start,
            pinned: Vec::new(),
            cautions: compiled.cautions,
            notes: compiled.notes,
        };
        plan.name = plan.its_days();
        plan
    }

    /// What its minutes are on the wall.
    pub fn days(&self) -> Days {
        let first: Date = self.problem.day0.parse().unwrap_or_else(|_| self.from.date());
        Days::of(first, self.problem.days, &self.zone)
    }

    /// From the first day with work to the last serving, in words.
    pub fn its_days(&self) -> String {
        let days = self.days();
        let date = |minute: i32| days.wall(minute).date();
        let (first, last) = (self.start.iter().flatten().min(), self.start.iter().flatten().max());
        match (first.map(|at| date(*at)), last.map(|at| date(*at))) {
            (Some(first), Some(last)) if first == last => first.strftime("%a %-d %b %Y").to_string(),
            (Some(first), Some(last)) => {
                format!("{} to {}", first.strftime("%a %-d %b"), last.strftime("%a %-d %b %Y"))
            }
            _ => "Nothing planned".to_owned(),
        }
    }

    /// A key for every step that is the same in another plan of the same orders: its order, what is worked on, what is done,
    /// and which of those it is.
    pub fn step_keys(&self) -> Vec<String> {
        let order_key = |order: usize, of: &str| {
            let batch = self.shared.iter().find(|own| own.of == of && own.orders.first() == Some(&order));
            let own = self.orders.get(order);
            batch
                .and_then(|own| own.named.clone())
                .or_else(|| own.and_then(|own| own.key.clone()))
                .unwrap_or_else(|| format!("order-{}", order + 1))
        };
        let mut seen: HashMap<String, usize> = HashMap::new();
        let steps = self.problem.steps.iter().map(|step| {
            let words = format!("{} {}", step.comp, step.name);
            let slug: String = words
                .split(|letter: char| !letter.is_alphanumeric())
                .filter(|word| !word.is_empty())
                .collect::<Vec<_>>()
                .join("-")
                .to_lowercase();
            let own = format!(
                "{}/{}",
                order_key(step.order, &step.comp),
                slug.chars().take(120).collect::<String>()
            );
            let times = seen.entry(own.clone()).or_default();
            *times += 1;
            if *times == 1 { own } else { format!("{own}-{times}") }
        });
        steps.collect()
    }

    /// Numbers of the orders a step is for: of one, or of all that share what it makes.
    pub fn orders_of(&self, step: usize) -> Vec<usize> {
        let Some(own) = self.problem.steps.get(step) else { return Vec::new() };
        let batch =
            self.shared.iter().find(|batch| batch.of == own.comp && batch.orders.contains(&own.order));
        batch.map_or_else(|| vec![own.order], |batch| batch.orders.clone())
    }

    /// Whether every step has its place.
    pub fn is_whole(&self) -> bool {
        self.start.iter().all(Option::is_some)
    }

    /// What makes it no plan, each at its field.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::PLAN.faults(&self.format, self.version);
        let mut say = |field: &str, words: String| {
            faults.push(Fault::new(field, FaultCode::OutOfRange, words));
        };
        let steps = self.problem.steps.len();
        if self.problem.day0.parse::<Date>().is_err() {
            say("problem.day0", format!("“{}” is no date: write the first day", self.problem.day0));
        }
        if self.start.len() != steps {
            say("start", format!("{} starts for {steps} steps: write one a step", self.start.len()));
        }
        if self.start.iter().flatten().any(|at| *at < 0 || *at > self.problem.horizon) {
            say("start", "a step begins outside the days planned".to_owned());
        }
        if self.pinned.iter().any(|step| *step >= steps) {
            say("pinned", "name steps that are there".to_owned());
        }
        if self.orders.len() != self.problem.orders.len() || self.orders.len() > MOST_ORDERS {
            let words = format!(
                "{} orders for {} of the problem: write each, at most {MOST_ORDERS}",
                self.orders.len(),
                self.problem.orders.len()
            );
            say("orders", words);
        }
        if self.gone.len() > MOST_GONE {
            say("gone", format!("{} times: write at most {MOST_GONE}", self.gone.len()));
        }
        if self.quicker.len() > MOST_QUICKER {
            say("quicker", format!("{} waits: write at most {MOST_QUICKER}", self.quicker.len()));
        }
        let (orders, waits) = (self.orders.len(), self.problem.waits.len());
        let strange =
            |part: &PlannedPart| part.order >= orders || part.waits.iter().any(|own| own.wait >= waits);
        if let Some(at) = self.parts.iter().position(strange) {
            say(&format!("parts.{at}"), "name an order and waits that are there".to_owned());
        }
        let strange =
            |own: &SharedBatch| own.orders.is_empty() || own.orders.iter().any(|own| *own >= orders);
        if let Some(at) = self.shared.iter().position(strange) {
            say(&format!("shared.{at}.orders"), "name orders that are there".to_owned());
        }
        faults.extend(self.gone.iter().enumerate().filter_map(|(at, own)| own.fault(at)));
        let mut say = |field: &str, words: String| {
            faults.push(Fault::new(field, FaultCode::OutOfRange, words));
        };
        for own in self.problem.faults() {
            say(&format!("problem.{}", own.field), own.message);
        }
        faults
    }

    /// The starts that steps of another plan have here, where they are the same steps.
    pub fn carried(&self, to: &PlanDocument) -> Vec<Option<i32>> {
        let keys = self.step_keys();
        let at: HashMap<&str, usize> = keys.iter().enumerate().map(|(at, key)| (key.as_str(), at)).collect();
        // Minutes are counted from another midnight.
        let days = to.days();
        let own = self.days();
        let carried = to.step_keys();
        let carried = carried.iter().zip(&to.problem.steps).map(|(key, step)| {
            let from = *at.get(key.as_str())?;
            let minute = days.minute_at(own.moment(self.start[from]?));
            (step.kind != Kind::Serve).then_some(minute)
        });
        carried.collect()
    }
}
