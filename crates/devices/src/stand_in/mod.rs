//! Devices that ship with the product, as awkward as real ones.
//!
//! [`script`] reads what a scenario says, [`play`] lets it happen, [`scale`], [`probe`], [`fridge`] and [`printer`] are what it
//! happens to, [`label`] draws what is printed, [`serve`] puts one on a port, and
//! [`told`] a scale that shows what it is told.

pub mod fridge;
pub mod label;
pub mod play;
pub mod printer;
pub mod probe;
pub mod scale;
pub mod script;
pub mod serve;
pub mod told;

use crate::address::DeviceKind;
use crate::message::Message;
use script::Action;

/// A device whose time goes by when it is told so.
pub trait StandIn: Send {
    /// What it is.
    fn kind(&self) -> DeviceKind;
    /// Something begins to happen to it; in words, why that cannot happen to such a device.
    fn act(&mut self, action: &Action) -> Result<(), String>;
    /// Time goes by, s.
    fn pass(&mut self, seconds: f64, dice: &mut fastrand::Rng);
    /// What it says now.
    fn says(&self) -> Message;
    /// It is asked for something: what else it says then, or in words why it does not do it.
    fn hears(&mut self, message: &Message) -> Result<Vec<Message>, String>;
}

/// A device of a kind, as it comes out of its box.
pub fn new(kind: DeviceKind) -> Box<dyn StandIn> {
    match kind {
        DeviceKind::Scale => Box::new(scale::Scale::default()),
        DeviceKind::Probe => Box::new(probe::Probe::default()),
        DeviceKind::Fridge => Box::new(fridge::Fridge::default()),
        DeviceKind::Printer => Box::new(printer::Printer::default()),
    }
}

/// Something that scatters about nothing with a standard deviation of 1 (the sum of twelve even ones less six).
fn scatter(dice: &mut fastrand::Rng) -> f64 {
    (0..12).map(|_| dice.f64()).sum::<f64>() - 6.0
}

/// How far something that follows with a lag comes in a time, share of the way.
fn follows(seconds: f64, lag_s: f64) -> f64 {
    1.0 - (-seconds / lag_s).exp()
}
