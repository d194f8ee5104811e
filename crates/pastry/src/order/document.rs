//! The open format of an order: when it is eaten, by how many, what must not be in it, and its cakes.

use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::stack::StackDocument;
use crate::stack::no_cake;
use crate::units::RoomTemperature;
use jiff::civil::{Date, DateTime};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the `format` field says.
pub const FORMAT: &str = format::ORDER.name;
/// The version of the format written and read here.
pub const VERSION: u32 = format::ORDER.version;
/// Most cakes of one order.
pub const MOST_CAKES: usize = 40;
/// Most pieces of one cake.
pub const MOST_PIECES: u32 = 5000;

/// An order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OrderDocument {
    /// Always `bright-spoon/order`.
    #[schema(example = "bright-spoon/order")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// What the cook calls it.
    #[serde(default)]
    #[schema(max_length = 120, example = "Harbour wedding")]
    pub name: String,
    /// Anything worth remembering.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 4000)]
    pub note: String,
    /// When it is eaten, in the kitchen's own time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(
        value_type = Option<String>, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub served_at: Option<DateTime>,
    /// The day it is made, for its labels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(
        value_type = Option<String>, example = "2026-12-04",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$"
    )]
    pub made_on: Option<Date>,
    /// How many eat of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 100000)]
    pub servings: Option<u32>,
    /// How warm the room is where it is eaten, °C.
    #[schema(minimum = 0, maximum = 45)]
    pub room_temperature_c: RoomTemperature,
    /// What must not be in it.
    #[serde(default, skip_serializing_if = "Without::is_empty")]
    pub without: Without,
    /// Its cakes.
    #[schema(max_items = 40)]
    pub cakes: Vec<OrderedCake>,
}

/// What must not be in an order.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Without {
    /// Nothing of animals.
    pub animals: bool,
    /// Nothing of dead animals.
    pub meat: bool,
    /// Nothing of pigs.
    pub pork: bool,
    /// No alcohol.
    pub alcohol: bool,
    /// Allergens by the words of the pantry: "egg", "nuts (almond)".
    #[schema(max_items = 40)]
    pub allergens: Vec<String>,
}

impl Without {
    /// Whether anything goes.
    pub fn is_empty(&self) -> bool {
        *self == Without::default()
    }
}

/// A cake and how many of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OrderedCake {
    /// The cake.
    pub stack: StackDocument,
    /// How many.
    #[schema(minimum = 1, maximum = 5000)]
    pub count: u32,
}

impl OrderDocument {
    /// An order with nothing in it yet.
    pub fn empty(room_c: f64) -> Self {
        OrderDocument {
            format: FORMAT.to_owned(),
            version: VERSION,
            name: String::new(),
            note: String::new(),
            served_at: None,
            made_on: None,
            servings: None,
            room_temperature_c: RoomTemperature::from_celsius(room_c),
            without: Without::default(),
            cakes: Vec::new(),
        }
    }

    /// What makes it no order, and no cakes, each with its field.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::ORDER.faults(&self.format, self.version);
        faults.extend(format::text_faults(&self.name, &self.note));
        let mut fault =
            |field: &str, code: FaultCode, message: String| faults.push(Fault::new(field, code, message));
        if self.cakes.len() > MOST_CAKES {
            fault(
                "cakes",
                FaultCode::TooMany,
                format!("an order has at most {MOST_CAKES} cakes: make two of it"),
            );
        }
        if self.servings == Some(0) {
            fault(
                "servings",
                FaultCode::OutOfRange,
                "somebody must eat it: write how many, or nothing".to_owned(),
            );
        }
        for (at, cake) in self.cakes.iter().enumerate() {
            if cake.count == 0 || cake.count > MOST_PIECES {
                let words = format!("{} of a cake: write 1 to {MOST_PIECES}", cake.count);
                fault(&format!("cakes.{at}.count"), FaultCode::OutOfRange, words);
            }
            for wrong in no_cake::faults(&cake.stack) {
                fault(&format!("cakes.{at}.stack.{}", wrong.field), wrong.code, wrong.message);
            }
        }
        if let (Some(made), Some(served)) = (self.made_on, self.served_at)
            && made > served.date()
        {
            fault(
                "made_on",
                FaultCode::AfterItIsEaten,
                format!("made on {made} and eaten on {}: put the making first", served.date()),
            );
        }
        faults
    }

    /// Keys of the components of all its cakes, each once.
    pub fn component_keys(&self) -> Vec<&str> {
        let mut keys: Vec<&str> = self.cakes.iter().flat_map(|cake| cake.stack.component_keys()).collect();
        keys.sort_unstable();
        keys.dedup();
        keys
    }
}
