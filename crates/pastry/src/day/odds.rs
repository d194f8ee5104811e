//! Odds, not promises: a plan lived through on a thousand days, with the bands of hands and of the clock.

use crate::day::document::PlanDocument;
use crate::day::reasons::{short, span};
use jiff::civil::DateTime;
use plan::odds::{Odds, Spread};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Days lived through.
pub const DAYS: u32 = 1000;
/// Seed of the dice: the same plan, the same odds.
const SEED: u64 = 14;

/// A plan whose odds are asked.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OddsAsk {
    /// The plan.
    pub plan: PlanDocument,
    /// What was to begin before this went as planned, on the wall; none: nothing has begun.
    #[serde(default)]
    #[schema(value_type = Option<String>, example = "2026-12-05T11:42:00")]
    pub now: Option<DateTime>,
}

/// The odds of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OddsAnswer {
    /// Days lived through.
    pub days: u32,
    /// What was assumed, in words.
    pub assumed: String,
    /// Of each order, in its order.
    pub orders: Vec<OrderOdds>,
}

/// The odds of an order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OrderOdds {
    /// In a sentence: "ready by 15:00 93 times in 100; the drip is to blame in 5".
    pub sentence: String,
    /// Times in a hundred it is ready in time.
    pub in_time_percent: f64,
    /// How late it is on a bad day, one in twenty worse, min.
    pub bad_day_min: i32,
    /// The step that is most to blame, where it is late at all.
    pub step: Option<usize>,
}

/// Lives through a whole plan.
pub fn odds(ask: &OddsAsk) -> OddsAnswer {
    let plan = &ask.plan;
    let days = plan.days();
    let from = ask.now.map_or(i32::MIN, |now| days.minute(now));
    let spread = Spread::default();
    let all = plan::odds::odds(&plan.problem, &plan.start, spread, DAYS, SEED, from);
    let orders = all.iter().map(|own| {
        let serve = plan.problem.orders[own.order].serve;
        let clock = days.wall(serve).strftime("%a %H:%M").to_string();
        OrderOdds {
            sentence: sentence(plan, own, &clock),
            in_time_percent: 100.0 * f64::from(own.in_time) / f64::from(DAYS),
            bad_day_min: own.bad_day_min,
            step: own.blame.first().map(|blame| blame.step),
        }
    });
    OddsAnswer {
        days: DAYS,
        assumed: "Two times in three, hands are within a fifth of their minutes, what cools or sets within an eighth, machines within a twentieth (assumed).".to_owned(),
        orders: orders.collect(),
    }
}

/// So many of a thousand as times in a hundred, never all or none where it was not.
fn times(days: u32) -> String {
    match days * 100 / DAYS {
        0 if days > 0 => "less than once".to_owned(),
        1 => "once".to_owned(),
        many => format!("{many} times"),
    }
}

fn sentence(plan: &PlanDocument, own: &Odds, clock: &str) -> String {
    if own.in_time == DAYS {
        return format!("Ready by {clock} on every one of {DAYS} days.");
    }
    let late = format!("on a bad day {} late", span(own.bad_day_min));
    let blame = own.blame.first().map(|blame| {
        let step = &plan.problem.steps[blame.step];
        let what = match blame.wait {
            Some(wait) => {
                let name = &plan.problem.waits[wait].name;
                name.clone()
            }
            None => format!("{} ({})", short(step), step.comp),
        };
        format!("{what} is to blame in {}", times(blame.days).replace(" times", ""))
    });
    let rest: Vec<String> = blame.into_iter().chain((own.bad_day_min > 0).then_some(late)).collect();
    format!("Ready by {clock} {} in 100; {}.", times(own.in_time), rest.join("; "))
}
