//! Devices of a pastry room: a bench scale, a probe, a fridge logger and a label printer, spoken to over TCP in plain lines.
//!
//! [`line`] is the framing with its checksum, [`message`] what the lines say, [`address`] where a device is, [`reading`] what was
//! heard of it and how old that is, [`link`] one connection that comes back, [`hub`] all of them. [`stand_in`] are devices that
//! ship with the product: as slow, noisy and unreliable as real ones, played by scenarios.

pub mod address;
pub mod hub;
pub mod line;
pub mod link;
pub mod message;
pub mod reading;
pub mod stand_in;

pub use address::{DeviceAddress, DeviceKind};
pub use hub::Hub;
pub use line::{Line, Torn};
pub use message::Message;
pub use reading::{DeviceNow, DeviceState};
