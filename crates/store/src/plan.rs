//! Plans of days, with what the cooks say of their steps meanwhile.

use crate::journal::{Event, KeptEvent};
use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{Kept, Noun, ORDER, PLAN};
use crate::{Store, StoreError};
use pastry::day::{PlanDocument, Report};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A revision of a plan.
pub type Plan = Revision<PlanDocument>;
/// A plan as the list shows it.
pub type PlanSummary = Listed<PlanDocument>;
/// What was said of a step, as it is kept.
pub type KeptReport = KeptEvent<Report>;

/// The key of the plan that stands: there is one at a time, with all that stood before as its versions.
pub const THE_PLAN: &str = "day";

/// What the list shows of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanShown {
    /// How many orders it is for.
    pub orders: i64,
}

impl Event for Report {
    const DESCRIBED: &'static str = "KeptReport";
}

impl Kept for PlanDocument {
    type Shown = PlanShown;
    const NOUN: Noun = PLAN;
    const DESCRIBED: (&'static str, &'static str) = ("Plan", "PlanSummary");

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> PlanShown {
        PlanShown { orders: self.orders.len() as i64 }
    }

    fn uses(&self) -> Vec<(Noun, &str)> {
        self.orders.iter().filter_map(|own| own.key.as_deref()).map(|key| (ORDER, key)).collect()
    }
}

impl Store {
    /// The plan that stands; none while there is none.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn plan(&self) -> Result<Option<Plan>, StoreError> {
        match self.read::<PlanDocument>(THE_PLAN, None).await {
            Ok(plan) => Ok(Some(plan)),
            Err(StoreError::NotFound { .. }) => Ok(None),
            Err(error) => Err(error),
        }
    }

    /// Everything that was said of the steps of the plan, in the order it came.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn reports(&self, key: &str, behind: i64) -> Result<Vec<KeptReport>, StoreError> {
        self.events::<Report>(PLAN, key, behind).await
    }
}
