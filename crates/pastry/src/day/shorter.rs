//! A wait that was made shorter while a plan stood.

use plan::problem::Problem;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most waits of one plan that were made shorter.
pub const MOST_QUICKER: usize = 200;

/// A wait that was made shorter while a plan stood.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Quicker {
    /// Key of the step it begins after.
    #[schema(max_length = 240)]
    pub from: String,
    /// Key of the step it ends with.
    #[schema(max_length = 240)]
    pub to: String,
    /// How long it lasts now, at least, min.
    #[schema(minimum = 0, maximum = 44640)]
    pub min: i32,
    /// And at most, where it is past its work then, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 44640)]
    pub max: Option<i32>,
    /// By what, in words: "in a wide tray".
    #[schema(max_length = 200)]
    pub how: String,
}

impl Quicker {
    /// Shortens it in a problem, where it is there and longer.
    ///
    /// # Arguments
    /// * `keys`: of the problem's steps.
    pub fn shorten(&self, problem: &mut Problem, keys: &[String]) {
        let wait =
            problem.waits.iter_mut().filter(|own| keys[own.from] == self.from && keys[own.to] == self.to);
        let Some(wait) = wait.max_by_key(|own| own.min).filter(|own| own.min > self.min) else { return };
        wait.min = self.min;
        if let Some(max) = self.max {
            wait.max = Some(wait.max.map_or(max, |own| own.min(max)).max(self.min));
        }
        wait.name = format!("{}, {}", wait.name, self.how);
    }
}

/// What a wait is called beside what stands: "setting", "until it can be used".
pub fn called<'a>(name: &'a str, comp: &str) -> &'a str {
    match name.strip_prefix(comp) {
        Some(rest) if rest.starts_with(": ") => &rest[2..],
        Some(rest) if rest.starts_with(" keeps") || rest.starts_with(" is used") => "until it can be used",
        _ => name,
    }
}
