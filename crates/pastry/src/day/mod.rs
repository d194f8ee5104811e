//! The day: from orders and a kitchen to a problem that can be planned.

pub mod assembly;
pub mod baking;
pub mod building;
pub mod compile;
pub mod draft;
pub mod hours;
pub mod kitchen;
pub mod making;

pub use compile::{Compiled, ToPlan, compile};
pub use kitchen::KitchenDocument;
