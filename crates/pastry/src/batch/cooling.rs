//! The clock of what was cooked and must cool fast, as the readings have it: through the warm, within the hours of a code.

use crate::batch::document::BatchDocument;
use crate::batch::fold::TemperatureRead;
use crate::caution::Caution;
use crate::heat::safety::CoolingRule;
use jiff::{SignedDuration, Timestamp};
use serde::Serialize;
use utoipa::ToSchema;

/// A part of the way down, and until when it must be gone.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CoolingStage {
    /// To, °C.
    pub to_c: f64,
    /// By then.
    #[schema(value_type = String)]
    pub by: Timestamp,
    /// When it was read to be there; none while it was not.
    #[schema(value_type = Option<String>)]
    pub there: Option<Timestamp>,
}

/// The clock of a cooling.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CoolingClock {
    /// Whose limits it counts by.
    pub rule: CoolingRule,
    /// When it was last read as warm as the limits begin, or warmer.
    #[schema(value_type = String)]
    pub since: Timestamp,
    /// The parts of the way.
    pub stages: Vec<CoolingStage>,
    /// What is to be minded, with whose figures these are.
    pub words: String,
}

/// The clock of a batch that must cool fast; none while nothing of it was read to be hot, and for what need not.
///
/// It begins with the last reading that is as warm as the limits begin: between two readings the earlier counts.
pub fn cooling_clock(batch: &BatchDocument, reads: &[TemperatureRead]) -> Option<CoolingClock> {
    let minds = Caution::CoolFast.words();
    batch.steps.iter().find(|step| step.cautions.iter().any(|own| own == minds))?;
    let rule = CoolingRule::UsFda;
    let limits = rule.limits();
    let from_c = limits.first()?.from_c;
    let hot = reads.iter().rposition(|own| own.c >= from_c)?;
    let since = reads[hot].at;
    let stages = limits
        .iter()
        .map(|limit| CoolingStage {
            to_c: limit.to_c,
            by: since + SignedDuration::from_secs((60.0 * limit.minutes) as i64),
            there: reads[hot..].iter().find(|own| own.c <= limit.to_c).map(|own| own.at),
        })
        .collect();
    let words = "Counted by the FDA Food Code 2022, 3-501.14 (from memory). Your local food code and your own plan decide.";
    Some(CoolingClock { rule, since, stages, words: words.to_owned() })
}
