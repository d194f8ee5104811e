//! What of a plan is made by which formula.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A batch in a plan that is made by a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlannedPart {
    /// Number of its order.
    pub order: usize,
    /// What is worked on in its steps.
    #[schema(max_length = 200)]
    pub of: String,
    /// Key of the formula.
    #[schema(max_length = 200)]
    pub component: String,
    /// What is weighed for a bowl of it, g.
    #[schema(minimum = 0, maximum = 10000000)]
    pub weighed_g: f64,
    /// In how many bowls it is made, each of so much.
    #[serde(default = "one", skip_serializing_if = "is_one")]
    #[schema(minimum = 1, maximum = 1000)]
    pub bowls: u32,
    /// Waits that last as long as its clock says.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 100)]
    pub waits: Vec<PlannedWait>,
}

fn one() -> u32 {
    1
}

#[allow(clippy::trivially_copy_pass_by_ref)]
fn is_one(bowls: &u32) -> bool {
    *bowls == 1
}

/// A wait that lasts as long as a clock says.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlannedWait {
    /// Its number in the problem.
    pub wait: usize,
    /// Key of the step in the school the formula is made by.
    #[schema(max_length = 60)]
    pub step: String,
}
