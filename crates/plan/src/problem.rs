//! The open format of a problem: what must be done, in what order, with what, when the kitchen is open.
//!
//! All times are whole minutes since 00:00 of day 0, elapsed and not read off the wall: on the night the clocks change an hour is
//! still sixty minutes.

use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What the `format` field of a file of problems says.
pub const FORMAT: &str = "bright-spoon-plan-1";
/// Most steps of one problem.
pub const MOST_STEPS: usize = 1500;
/// Most days of one problem.
pub const MOST_DAYS: i32 = 31;
/// The resource that hands are.
pub const COOK: &str = "cook";

/// A file of problems.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Problems {
    /// Always `bright-spoon-plan-1`.
    pub format: String,
    /// Anything worth saying.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// The problems.
    pub instances: Vec<Problem>,
}

/// One problem.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanProblem)]
pub struct Problem {
    /// Its name.
    pub id: String,
    /// Anything worth saying.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// Starts lie on multiples of this, min.
    #[serde(default = "five")]
    pub grid_min: i32,
    /// Date of day 0, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub day0: String,
    /// Days from the first to the last.
    pub days: i32,
    /// Nothing starts or ends after this, min.
    pub horizon: i32,
    /// A kitchen day begins so many minutes after 00:00.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub day_starts: i32,
    /// Opening hours, from and to, min.
    pub windows: Vec<[i32; 2]>,
    /// What there is so many of.
    pub resources: Vec<Resource>,
    /// Who does what can be done by hand: with nobody named, any of the `cook`s does anything.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cooks: Vec<Cook>,
    /// What is to be ready when.
    pub orders: Vec<Order>,
    /// What is to be done.
    pub steps: Vec<Step>,
    /// What stands between two steps, and where.
    pub waits: Vec<Wait>,
    /// What comes after what.
    pub links: Vec<Link>,
    /// What a plan is judged by.
    pub weights: Weights,
    /// What is held back for a day that goes wrong; nothing when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reserve: Option<Reserve>,
}

fn five() -> i32 {
    5
}

fn is_zero(value: &i32) -> bool {
    *value == 0
}

/// Something there is so much of.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanResource)]
pub struct Resource {
    /// Its key.
    pub id: String,
    /// How much there is.
    pub cap: i32,
    /// Stretches when there is less: from, to, how much; where they overlap the least counts.
    #[serde(default)]
    pub less: Vec<[i32; 3]>,
    /// Steps on it at the same time must have the same `setup`: an oven has one temperature.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub setups: bool,
}

/// A pair of hands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanCook)]
pub struct Cook {
    /// Name.
    pub name: String,
    /// When they are there: from, to, min.
    pub hours: Vec<[i32; 2]>,
    /// What of the skills that steps ask for they cannot do.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub without: Vec<String>,
}

/// What is to be ready when.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanOrder)]
pub struct Order {
    /// Its number: that of its place.
    pub id: usize,
    /// What it is called.
    pub title: String,
    /// When it leaves, min.
    pub serve: i32,
}

/// Who works in a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = PlanStepKind)]
pub enum Kind {
    /// A cook, and whatever else it takes.
    Hands,
    /// A machine alone; the kitchen must be open.
    Machine,
    /// The order leaves: at its time, whether the kitchen is open or not.
    Serve,
}

/// A step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanStep)]
pub struct Step {
    /// Its number: that of its place.
    pub id: usize,
    /// Number of the order it is for.
    pub order: usize,
    /// What is being worked on: steps of one order and one of these belong together.
    pub comp: String,
    /// What is done.
    pub name: String,
    /// Who works.
    pub kind: Kind,
    /// How long, min.
    pub dur: i32,
    /// What it takes while it lasts.
    #[serde(default)]
    pub r#use: BTreeMap<String, i32>,
    /// Points for each 5 min between its end and the serving, after its grace.
    #[serde(default)]
    pub age: i32,
    /// As good as fresh for so long after its end, min.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub grace: i32,
    /// What a resource with setups must be set to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub setup: Option<String>,
    /// What the cook must be able to do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub skill: Option<String>,
}

/// What a limit is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = PlanLimitClass)]
pub enum Class {
    /// Someone may fall ill: it is never stretched.
    Safety,
    /// It turns out worse.
    #[default]
    Quality,
    /// Somebody is waiting, or the door is locked.
    Hours,
}

/// What stands from the end of one step to the start of another.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanWait)]
pub struct Wait {
    /// Its number.
    #[serde(default)]
    pub id: usize,
    /// Number of the step it begins after.
    pub from: usize,
    /// Number of the step it ends with.
    pub to: usize,
    /// What it is.
    #[serde(default)]
    pub name: String,
    /// At least, min.
    pub min: i32,
    /// At most, min; as long as one likes when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub max: Option<i32>,
    /// What it takes for as long as it lasts.
    #[serde(default)]
    pub r#use: BTreeMap<String, i32>,
    /// What its longest is for.
    #[serde(default, skip_serializing_if = "is_quality")]
    pub class: Class,
}

fn is_quality(class: &Class) -> bool {
    *class == Class::Quality
}

/// What comes after what, on no shelf.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanLink)]
pub struct Link {
    /// Number of the step that ends.
    pub from: usize,
    /// Number of the step that begins.
    pub to: usize,
    /// At least, min.
    pub min: i32,
    /// At most, min; as long as one likes when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub max: Option<i32>,
    /// The same hands go on: it is better without a gap.
    #[serde(default)]
    pub flow: bool,
    /// What its longest is for.
    #[serde(default, skip_serializing_if = "is_quality")]
    pub class: Class,
}

/// What a plan is judged by, in points: four are a minute of the kitchen's time (assumed).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanWeights)]
pub struct Weights {
    /// For each day with any work.
    pub day_open: i32,
    /// For each 5 min from a day's first start to its last end.
    pub span_per_slot: i32,
    /// For each link that should go on at once and does not.
    pub interruption: i32,
    /// For each time a cook goes on with something else.
    #[serde(default)]
    pub switch: i32,
    /// For each 5 min of hands-on work in the last hours before its own serving.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub calm_per_slot: i32,
    /// How long those last hours are, min.
    #[serde(default = "ten_hours", skip_serializing_if = "is_ten_hours")]
    pub calm_min: i32,
}

fn ten_hours() -> i32 {
    600
}

fn is_ten_hours(value: &i32) -> bool {
    *value == ten_hours()
}

/// What is held back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PlanReserve)]
pub struct Reserve {
    /// Before each serving, min.
    pub serve: i32,
    /// Inside each longest wait, min.
    pub inside: i32,
}

/// What makes it no problem, at its place.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ProblemFault {
    /// The place: "steps.3.dur".
    pub field: String,
    /// What to do about it.
    pub message: String,
}

impl Problem {
    /// What makes it no problem; nothing when it can be planned.
    pub fn faults(&self) -> Vec<ProblemFault> {
        let mut faults = Vec::new();
        let mut say = |field: String, message: String| faults.push(ProblemFault { field, message });
        if !(1..=60).contains(&self.grid_min) {
            say("grid_min".into(), format!("{} min is no grid: write 1 to 60", self.grid_min));
        }
        if !(1..=MOST_DAYS).contains(&self.days) {
            say("days".into(), format!("{} days: write 1 to {MOST_DAYS}", self.days));
        }
        if !(1..=MOST_DAYS * 1440).contains(&self.horizon) {
            say("horizon".into(), format!("{} min: write 1 to {}", self.horizon, MOST_DAYS * 1440));
        }
        if !(0..1440).contains(&self.day_starts) {
            say("day_starts".into(), format!("{} min: write 0 to 1439", self.day_starts));
        }
        if self.steps.len() > MOST_STEPS {
            say("steps".into(), format!("{} steps: plan at most {MOST_STEPS} at a time", self.steps.len()));
        }
        let mut spans = |name: &str, all: &[[i32; 2]]| {
            for (at, [from, to]) in all.iter().enumerate() {
                if from >= to || *from < 0 || *to > (MOST_DAYS + 1) * 1440 {
                    say(format!("{name}.{at}"), format!("from {from} to {to} is no stretch of time"));
                }
            }
        };
        spans("windows", &self.windows);
        for (at, cook) in self.cooks.iter().enumerate() {
            spans(&format!("cooks.{at}.hours"), &cook.hours);
        }
        for (at, resource) in self.resources.iter().enumerate() {
            let field = format!("resources.{at}");
            if !(0..=100_000).contains(&resource.cap) {
                say(format!("{field}.cap"), format!("there are {} of it: write 0 to 100000", resource.cap));
            }
            if self.resources[..at].iter().any(|other| other.id == resource.id) {
                say(format!("{field}.id"), format!("two are called {}: name each once", resource.id));
            }
            for (k, [from, to, cap]) in resource.less.iter().enumerate() {
                if from >= to || *cap < 0 {
                    say(
                        format!("{field}.less.{k}"),
                        format!("from {from} to {to} there are {cap}: no stretch"),
                    );
                }
            }
        }
        for (at, order) in self.orders.iter().enumerate() {
            if order.id != at {
                say(
                    format!("orders.{at}.id"),
                    format!("order {} stands in place {at}: number them so", order.id),
                );
            }
            if order.serve < 0 || order.serve > self.horizon {
                say(format!("orders.{at}.serve"), format!("{} is outside the days planned", order.serve));
            }
        }
        self.step_faults(&mut say);
        let waits = self.waits.iter().map(|w| (w.from, w.to, w.min, w.max, Some(&w.r#use)));
        let links = self.links.iter().map(|l| (l.from, l.to, l.min, l.max, None));
        let all = waits.enumerate().map(|w| ("waits", w)).chain(links.enumerate().map(|l| ("links", l)));
        for (name, (at, (from, to, min, max, uses))) in all {
            let field = format!("{name}.{at}");
            if from >= self.steps.len() || to >= self.steps.len() || from == to {
                say(field.clone(), format!("from step {from} to step {to}: name two steps that are there"));
            }
            if min < 0 || max.is_some_and(|max| max < min) || min > 1_000_000 {
                say(field.clone(), format!("at least {min}, at most {max:?} min: the most is less"));
            }
            self.use_faults(&field, uses.into_iter().flatten(), &mut say);
        }
        for (name, weight) in [
            ("day_open", self.weights.day_open),
            ("span_per_slot", self.weights.span_per_slot),
            ("interruption", self.weights.interruption),
            ("switch", self.weights.switch),
            ("calm_per_slot", self.weights.calm_per_slot),
        ] {
            if !(0..=100_000).contains(&weight) {
                say(format!("weights.{name}"), format!("{weight} points: write 0 to 100000"));
            }
        }
        if let Some(reserve) = self.reserve
            && !((0..=1440).contains(&reserve.serve) && (0..=1440).contains(&reserve.inside))
        {
            say("reserve".into(), "hold back 0 to 1440 min".into());
        }
        faults
    }

    fn step_faults(&self, say: &mut impl FnMut(String, String)) {
        for (at, step) in self.steps.iter().enumerate() {
            let field = format!("steps.{at}");
            if step.id != at {
                say(format!("{field}.id"), format!("step {} stands in place {at}: number them so", step.id));
            }
            if step.order >= self.orders.len() {
                say(format!("{field}.order"), format!("there is no order {}", step.order));
            }
            let least = i32::from(step.kind != Kind::Serve);
            if !(least..=10_000).contains(&step.dur) || (step.kind == Kind::Serve && step.dur != 0) {
                say(
                    format!("{field}.dur"),
                    format!("{} takes {} min: write 1 to 10000, or 0 to serve", step.name, step.dur),
                );
            }
            if !(0..=1000).contains(&step.age) || step.grace < 0 {
                say(format!("{field}.age"), format!("{} points: write 0 to 1000", step.age));
            }
            self.use_faults(&field, step.r#use.iter(), say);
        }
    }

    fn use_faults<'a>(
        &self,
        field: &str,
        uses: impl Iterator<Item = (&'a String, &'a i32)>,
        say: &mut impl FnMut(String, String),
    ) {
        for (key, amount) in uses {
            if self.resources.iter().all(|resource| resource.id != *key) {
                say(format!("{field}.use.{key}"), format!("there is no {key} among the resources"));
            }
            if *amount < 0 {
                say(format!("{field}.use.{key}"), format!("takes {amount} of it: write 0 or more"));
            }
        }
    }
}

/// Stretches in which fewer than all are there: from, to, how many.
pub fn fewer(all: &[Vec<[i32; 2]>], horizon: i32) -> Vec<[i32; 3]> {
    let mut edges: Vec<i32> = all.iter().flatten().flatten().copied().chain([0, horizon]).collect();
    edges.sort_unstable();
    edges.dedup();
    let there =
        |minute: i32| all.iter().filter(|own| own.iter().any(|[a, b]| *a <= minute && minute < *b)).count();
    let stretches = edges.windows(2).map(|pair| [pair[0], pair[1], there(pair[0]) as i32]);
    stretches.filter(|own| own[2] < all.len() as i32).collect()
}
