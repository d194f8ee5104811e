//! Orders with their cakes.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{COMPONENT, Kept, Noun, ORDER};
use pastry::order::OrderDocument;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A revision of an order.
pub type Order = Revision<OrderDocument>;
/// An order as the list shows it.
pub type OrderSummary = Listed<OrderDocument>;

/// What the list shows of an order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OrderShown {
    /// When it is eaten, in the kitchen's own time; none while nobody said.
    pub served_at: Option<String>,
    /// How many cakes and pieces.
    pub pieces: i64,
}

impl Kept for OrderDocument {
    type Shown = OrderShown;
    const NOUN: Noun = ORDER;
    const DESCRIBED: (&'static str, &'static str) = ("Order", "OrderSummary");
    /// The next to be eaten first, those without a date last.
    const LISTED_BY: &'static str =
        "json_extract(shown, '$.served_at') IS NULL, json_extract(shown, '$.served_at'), name COLLATE NOCASE";

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> OrderShown {
        OrderShown {
            served_at: self.served_at.map(|when| when.to_string()),
            pieces: self
                .cakes
                .iter()
                .map(|cake| i64::from(cake.count) * i64::from(cake.stack.pieces()))
                .sum(),
        }
    }

    fn uses(&self) -> Vec<(Noun, &str)> {
        self.cakes.iter().flat_map(|cake| cake.stack.component_keys()).map(|key| (COMPONENT, key)).collect()
    }
}
