//! The day: from orders and a kitchen to a problem that can be planned.

pub mod again;
pub mod assembly;
pub mod baking;
pub mod bend;
pub mod building;
pub mod compile;
pub mod cure;
pub mod document;
pub mod draft;
pub mod gone;
pub mod happened;
pub mod hours;
pub mod kitchen;
pub mod limits;
pub mod making;
pub mod odds;
pub mod part;
pub mod quicker;
pub mod reasons;
pub mod report;
pub mod sheet;
pub mod shorter;
pub mod take;
pub mod view;

pub use bend::{Bent, bend};
pub use compile::{Compiled, ToPlan, compile, eaten_before};
pub use cure::{Cure, cures};
pub use document::{PlanDocument, PlannedOrder};
pub use gone::{Gone, GoneWhat};
pub use happened::{BendAsk, CureAsk, Happened};
pub use kitchen::KitchenDocument;
pub use report::{Report, Said, progress};
pub use take::{Taken, take};
pub use view::{DayView, view};
