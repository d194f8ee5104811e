//! The stand-in of a probe thermometer.

use crate::address::DeviceKind;
use crate::message::Message;
use crate::stand_in::script::Action;
use crate::stand_in::{StandIn, follows, scatter};

/// It lags so long, s.
pub const LAG_S: f64 = 4.0;
/// It is off by so much, K.
pub const OFF_K: f64 = 0.3;
/// Its noise, K.
const NOISE_K: f64 = 0.04;
/// The room it hangs in, °C.
const ROOM_C: f64 = 21.0;
/// A probe in the air says so, within this of the room, K.
const AIR_K: f64 = 1.5;

/// A probe in a mass that goes from one temperature to another.
#[derive(Debug)]
pub struct Probe {
    mass_c: f64,
    to_c: f64,
    constant_s: f64,
    out: bool,
    tip_c: f64,
    noise_k: f64,
}

impl Default for Probe {
    fn default() -> Self {
        Probe { mass_c: ROOM_C, to_c: ROOM_C, constant_s: 60.0, out: false, tip_c: ROOM_C, noise_k: 0.0 }
    }
}

impl StandIn for Probe {
    fn kind(&self) -> DeviceKind {
        DeviceKind::Probe
    }

    fn act(&mut self, action: &Action) -> Result<(), String> {
        match action {
            Action::Cool { from_c, to_c, constant_min } => {
                (self.mass_c, self.to_c, self.constant_s) = (*from_c, *to_c, 60.0 * constant_min);
                // It was put in a while ago.
                (self.out, self.tip_c) = (false, *from_c);
            }
            Action::PullOut => self.out = true,
            Action::PutBack => self.out = false,
            Action::Wait { .. } | Action::Repeat | Action::Unplug { .. } => {}
            Action::Garbage { .. } | Action::Tear { .. } => {}
            _ => return Err("that does not happen to a probe".to_owned()),
        }
        Ok(())
    }

    fn pass(&mut self, seconds: f64, dice: &mut fastrand::Rng) {
        let mut left = seconds;
        while left > 0.0 {
            let step = left.min(0.5);
            left -= step;
            self.mass_c += (self.to_c - self.mass_c) * follows(step, self.constant_s);
            let there_c = if self.out { ROOM_C } else { self.mass_c };
            self.tip_c += (there_c - self.tip_c) * follows(step, LAG_S);
        }
        self.noise_k = NOISE_K * scatter(dice);
    }

    fn says(&self) -> Message {
        if self.out && (self.tip_c - ROOM_C).abs() < AIR_K {
            return Message::Fault { code: "in_air".to_owned() };
        }
        Message::Temperature { c: (10.0 * (self.tip_c + OFF_K + self.noise_k)).round() / 10.0 }
    }

    fn hears(&mut self, _: &Message) -> Result<Vec<Message>, String> {
        Err("a probe does not do that".to_owned())
    }
}
