//! The stand-in of a logger in a fridge.

use crate::address::DeviceKind;
use crate::message::Message;
use crate::stand_in::script::Action;
use crate::stand_in::{StandIn, follows, scatter};

/// The machine starts above the one and stops below the other, °C.
const SWITCHES_C: [f64; 2] = [2.5, 5.5];
/// The room, °C.
const ROOM_C: f64 = 21.0;
/// What its air goes to while the machine runs, °C, and how soon, s.
const COLD_C: f64 = -6.0;
const COLD_S: f64 = 900.0;
/// How soon it goes to the room's: shut, and with its door open, s.
const SHUT_S: f64 = 14_400.0;
const OPEN_S: f64 = 240.0;
const NOISE_K: f64 = 0.05;

/// A fridge that cycles.
#[derive(Debug)]
pub struct Fridge {
    air_c: f64,
    runs: bool,
    open_s: f64,
    off_s: f64,
    noise_k: f64,
}

impl Default for Fridge {
    fn default() -> Self {
        Fridge { air_c: 4.0, runs: false, open_s: 0.0, off_s: 0.0, noise_k: 0.0 }
    }
}

impl StandIn for Fridge {
    fn kind(&self) -> DeviceKind {
        DeviceKind::Fridge
    }

    fn act(&mut self, action: &Action) -> Result<(), String> {
        match action {
            Action::OpenDoor { seconds } => self.open_s = *seconds,
            Action::PowerOff { seconds } => self.off_s = *seconds,
            Action::Cool { from_c, .. } => self.air_c = *from_c,
            Action::Wait { .. } | Action::Repeat | Action::Unplug { .. } => {}
            Action::Garbage { .. } | Action::Tear { .. } => {}
            _ => return Err("that does not happen to a fridge".to_owned()),
        }
        Ok(())
    }

    fn pass(&mut self, seconds: f64, dice: &mut fastrand::Rng) {
        let mut left = seconds;
        while left > 0.0 {
            let step = left.min(1.0);
            left -= step;
            let soon = if self.open_s > 0.0 { OPEN_S } else { SHUT_S };
            self.air_c += (ROOM_C - self.air_c) * follows(step, soon);
            match self.air_c {
                c if c > SWITCHES_C[1] => self.runs = true,
                c if c < SWITCHES_C[0] => self.runs = false,
                _ => {}
            }
            if self.runs && self.off_s <= 0.0 {
                self.air_c += (COLD_C - self.air_c) * follows(step, COLD_S);
            }
            self.open_s = (self.open_s - step).max(0.0);
            self.off_s = (self.off_s - step).max(0.0);
        }
        self.noise_k = NOISE_K * scatter(dice);
    }

    fn says(&self) -> Message {
        Message::Fridge { c: (10.0 * (self.air_c + self.noise_k)).round() / 10.0, open: self.open_s > 0.0 }
    }

    fn hears(&mut self, _: &Message) -> Result<Vec<Message>, String> {
        Err("a fridge does not do that".to_owned())
    }
}
