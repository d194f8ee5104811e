//! What is to be planned, and how it is called.

use crate::day::kitchen::KitchenDocument;
use crate::day::sharing::Sharing;
use crate::fault::{Fault, FaultCode};
use crate::heat::stand::LearnedPlace;
use crate::order::document::OrderDocument;
use crate::zone::Zone;
use jiff::civil::DateTime;

/// What is to be planned.
pub struct ToPlan<'a> {
    /// The orders.
    pub orders: &'a [&'a OrderDocument],
    /// The kitchen.
    pub kitchen: &'a KitchenDocument,
    /// Where it is.
    pub zone: &'a Zone,
    /// Nothing begins before this, on the wall.
    pub from: DateTime,
    /// Places of the kitchen as they were read.
    pub learned: &'a [LearnedPlace],
    /// Which batches are made once for several orders.
    pub sharing: &'a Sharing,
}

/// What is served is worked on as this.
pub const SERVED: &str = "served";

/// A fault of what stands at a place.
pub fn under(place: &str, fault: Fault) -> Fault {
    Fault { field: format!("{place}.{}", fault.field), ..fault }
}

/// What an order is called.
pub fn title(order: &OrderDocument, at: usize) -> String {
    match order.name.trim() {
        "" => format!("Order {}", at + 1),
        name => name.to_owned(),
    }
}

/// What is wrong with an order that was eaten before it is planned.
pub fn eaten_before(order: &OrderDocument, at: usize, now: DateTime) -> Option<Fault> {
    let wall = order.served_at.filter(|wall| *wall <= now)?;
    let words = format!("{} was eaten on {}: give it a date to come", title(order, at), said(wall));
    Some(Fault::new(format!("orders.{at}.served_at"), FaultCode::OutOfRange, words))
}

fn said(wall: DateTime) -> String {
    wall.strftime("%-d %B %Y, %H:%M").to_string()
}
