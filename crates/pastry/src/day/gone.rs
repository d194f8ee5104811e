//! What the kitchen has less of than it says, for a while: a cook away, a machine out, as it was said while a plan stood.

use crate::day::hours::Days;
use crate::fault::{Fault, FaultCode};
use jiff::civil::DateTime;
use plan::problem::{COOK, Problem, fewer};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most of them in one plan.
pub const MOST_GONE: usize = 200;

/// What there is less of for a while.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gone {
    /// Of what.
    pub what: GoneWhat,
    /// From, on the wall.
    #[schema(
        value_type = String, example = "2026-12-05T12:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub from: DateTime,
    /// To.
    #[schema(
        value_type = String, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub to: DateTime,
}

/// Of what there is less.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "is", rename_all = "snake_case", deny_unknown_fields)]
pub enum GoneWhat {
    /// A cook is away.
    Cook {
        /// Name.
        #[schema(max_length = 60)]
        name: String,
    },
    /// There is less of a machine or a place.
    Resource {
        /// Its key.
        #[schema(max_length = 60)]
        key: String,
        /// How much is left of it.
        #[serde(default)]
        #[schema(minimum = 0, maximum = 1000)]
        left: i32,
    },
}

impl Gone {
    /// What makes it none, at its field.
    pub fn fault(&self, at: usize) -> Option<Fault> {
        let words = format!(
            "{} from {} to {}: it ends before it begins, or is less than nothing",
            match &self.what {
                GoneWhat::Cook { name } => name,
                GoneWhat::Resource { key, .. } => key,
            },
            self.from,
            self.to
        );
        let less = matches!(self.what, GoneWhat::Resource { left, .. } if left < 0);
        (self.from >= self.to || less).then(|| Fault::new(format!("gone.{at}"), FaultCode::OutOfRange, words))
    }

    /// Takes it off a problem. What the problem has nothing of is left alone.
    pub fn take_off(&self, problem: &mut Problem, days: &Days) {
        let [from, to] = [days.minute(self.from).max(0), days.minute(self.to).min(problem.horizon)];
        if from >= to {
            return;
        }
        match &self.what {
            GoneWhat::Cook { name } => {
                let Some(cook) = problem.cooks.iter_mut().find(|cook| cook.name == *name) else { return };
                let hours = std::mem::take(&mut cook.hours);
                let parts = hours.into_iter().flat_map(|[a, b]| [[a, b.min(from)], [a.max(to), b]]);
                cook.hours = parts.filter(|[a, b]| a < b).collect();
                let hours: Vec<Vec<[i32; 2]>> = problem.cooks.iter().map(|own| own.hours.clone()).collect();
                let horizon = problem.horizon;
                for own in problem.resources.iter_mut().filter(|own| own.id == COOK) {
                    own.less = fewer(&hours, horizon);
                }
            }
            GoneWhat::Resource { key, left } => {
                for own in problem.resources.iter_mut().filter(|own| own.id == *key) {
                    own.less.push([from, to, (*left).min(own.cap)]);
                }
            }
        }
    }
}
