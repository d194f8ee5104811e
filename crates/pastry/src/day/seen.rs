//! What is seen of a plan: its verdict, its orders and days, who does what when, and what stands where.

use crate::day::reasons::Reason;
use plan::cost::Cost;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A plan as it is looked at. Minutes count from 00:00 of its first day, as they pass.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayView {
    /// The verdict.
    pub sentence: String,
    /// Whether every step has its place and every rule is kept.
    pub stands: bool,
    /// What is not in it, or why it does not stand.
    pub incomplete: Vec<String>,
    /// What is to be minded, in sentences: what cools too slowly.
    pub cautions: Vec<String>,
    /// Limits that this plan exceeds, each in words: by consent, on a day that was bent.
    pub exceeds: Vec<String>,
    /// 00:00 of its first day, RFC 3339.
    pub begins_at: String,
    /// Name of the kitchen's time zone.
    pub zone: String,
    /// Minutes to the end of its last day.
    pub horizon: i32,
    /// Orders, in the order of the plan.
    pub orders: Vec<ViewOrder>,
    /// Days with work, in order.
    pub days: Vec<ViewDay>,
    /// When the kitchen is open.
    pub open: Vec<[i32; 2]>,
    /// Who works.
    pub cooks: Vec<ViewCook>,
    /// Machines, and places where things stand.
    pub lanes: Vec<Lane>,
    /// Steps, in the order of the problem; a serving is none of them.
    pub steps: Vec<ViewStep>,
    /// What stands somewhere in between.
    pub waits: Vec<ViewWait>,
    /// What the plan is judged by.
    pub cost: Cost,
}

/// An order of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ViewOrder {
    /// A letter for its blocks.
    pub letter: String,
    /// What it is called.
    pub name: String,
    /// Its key, where it is kept.
    pub key: Option<String>,
    /// When it leaves, min.
    pub serve: i32,
    /// When it was promised, min.
    pub promised: i32,
    /// When it could leave at the earliest, as the plan stands, min.
    pub ready: Option<i32>,
    /// Minutes between the two.
    pub spare_min: Option<i32>,
    /// Minutes of hands it takes.
    pub hands_min: i32,
    /// Of those, on the day it leaves.
    pub hands_on_its_day_min: i32,
    /// What it says of itself: "leaves Sat 15:00, ready 14:20".
    pub words: String,
}

/// A day with work.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ViewDay {
    /// Its date.
    pub date: String,
    /// Where its strip begins and ends, min: its first and last work or serving, to the hour.
    pub strip: [i32; 2],
    /// Its first start and last end of work, min; none where only something leaves.
    pub work: Option<[i32; 2]>,
    /// Minutes of hands.
    pub hands_min: i32,
}

/// A cook of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ViewCook {
    /// Name.
    pub name: String,
    /// When they are there.
    pub hours: Vec<[i32; 2]>,
    /// Minutes of hands given to them.
    pub hands_min: i32,
}

/// A machine, or a place where things stand.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Lane {
    /// Its key among the resources.
    pub key: String,
    /// How many, or how much, there is.
    pub cap: i32,
    /// Whether steps run on it, and not only things stand there.
    pub runs: bool,
}

/// A step of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ViewStep {
    /// Its number in the problem.
    pub step: usize,
    /// Its key, the same in every plan of the same orders.
    pub key: String,
    /// Number of its order.
    pub order: usize,
    /// Letters of all orders it is for.
    pub letters: String,
    /// For which orders it makes one batch, and how much is weighed, where it is not for one order alone or in one bowl.
    pub batch: Option<String>,
    /// The formula that makes what is worked on; none for what no formula makes.
    pub makes: Option<StepMakes>,
    /// What is worked on.
    pub of: String,
    /// What is done, one after the other.
    pub what: Vec<String>,
    /// A few words for its block.
    pub short: String,
    /// Whether a cook does it.
    pub hands: bool,
    /// When it begins, min; none without a place.
    pub begins: Option<i32>,
    /// How long it lasts, min.
    pub lasts: i32,
    /// Number of the cook it is given to.
    pub cook: Option<usize>,
    /// Machines it takes.
    pub on: Vec<String>,
    /// What an oven is set to.
    pub setup: Option<String>,
    /// Whether it stays where it is.
    pub pinned: bool,
    /// It could begin from here to here, were nothing else moved.
    pub anywhere: Option<[i32; 2]>,
    /// No minute of delay can be made up by pushing what follows.
    pub no_time_to_lose: bool,
    /// Why it is not later, from it to what cannot be moved.
    pub not_later: Vec<Reason>,
    /// Why it is not earlier.
    pub not_earlier: Vec<Reason>,
}

/// What a step makes a batch of.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepMakes {
    /// Key of the formula.
    pub component: String,
    /// What is weighed for one bowl of it, g.
    pub weighed_g: f64,
    /// Numbers of the orders it is for.
    pub orders: Vec<usize>,
}

/// What stands somewhere between two steps.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ViewWait {
    /// Its number in the problem.
    pub wait: usize,
    /// The step it begins after.
    pub from: usize,
    /// The step it ends with.
    pub to: usize,
    /// Number of its order.
    pub order: usize,
    /// Letters of all orders it is for.
    pub letters: String,
    /// What stands.
    pub of: String,
    /// What it does meanwhile.
    pub name: String,
    /// The same in a word or two, beside what stands.
    pub called: String,
    /// Where; none for where it was made.
    pub place: Option<String>,
    /// From and until, min.
    pub stands: Option<[i32; 2]>,
    /// It is wanted no earlier than this, min.
    pub not_before: Option<i32>,
    /// And no later, min.
    pub not_after: Option<i32>,
    /// Whether its longest is for safety.
    pub safety: bool,
    /// Whether a clock says how long it lasts, and so what would make it shorter.
    pub clocked: bool,
}

/// A letter for the blocks of an order.
pub fn letter(order: usize) -> String {
    let one = |at: usize| char::from(b'A' + (at % 26) as u8);
    match order / 26 {
        0 => one(order).to_string(),
        more => format!("{}{}", one(more - 1), one(order)),
    }
}

/// Letters of several orders.
pub fn letters(orders: &[usize]) -> String {
    orders.iter().map(|own| letter(*own)).collect::<Vec<_>>().join("+")
}
