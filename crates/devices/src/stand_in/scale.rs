//! The stand-in of a bench scale.

use crate::address::DeviceKind;
use crate::message::Message;
use crate::stand_in::script::Action;
use crate::stand_in::{StandIn, follows, scatter};

/// It carries so much, g.
pub const CARRIES_G: f64 = 6000.0;
/// To this it counts tenths, above it whole grams, g.
pub const FINE_TO_G: f64 = 200.0;
/// It has settled in about 0.8 s: four times this, s.
const LAG_S: f64 = 0.2;
/// Its noise, g.
const NOISE_G: f64 = 0.025;
/// It stands still when it moved less than this, g, for so long, s.
const STILL_G: f64 = 0.3;
const STILL_S: f64 = 0.4;

/// A bench scale with two steps, a lag, noise and drift.
#[derive(Debug, Default)]
pub struct Scale {
    /// What lies on it, g.
    load_g: f64,
    /// What is being poured: still to come, g, and how fast, g/s.
    pours: (f64, f64),
    /// What its cell shows, g.
    cell_g: f64,
    noise_g: f64,
    tare_g: f64,
    drift_g: f64,
    drifts: f64,
    /// Where it stood when it moved last, and how long it has stood since.
    stood: (f64, f64),
}

impl Scale {
    fn gross(&self) -> f64 {
        self.cell_g + self.drift_g
    }

    fn step(&self) -> f64 {
        if self.gross() < FINE_TO_G { 0.1 } else { 1.0 }
    }

    fn steady(&self) -> bool {
        self.stood.1 >= STILL_S
    }
}

impl StandIn for Scale {
    fn kind(&self) -> DeviceKind {
        DeviceKind::Scale
    }

    fn act(&mut self, action: &Action) -> Result<(), String> {
        match action {
            Action::Pour { grams, rate, over } => self.pours = (self.pours.0 + grams + over, *rate),
            Action::Put { grams } => self.load_g = (self.load_g + grams).max(0.0),
            Action::TakeOff => (self.load_g, self.pours) = (0.0, (0.0, 0.0)),
            Action::Drift { rate } => self.drifts = *rate,
            Action::Wait { .. } | Action::Repeat | Action::Unplug { .. } => {}
            Action::Garbage { .. } | Action::Tear { .. } => {}
            _ => return Err("that does not happen to a scale".to_owned()),
        }
        Ok(())
    }

    fn pass(&mut self, seconds: f64, dice: &mut fastrand::Rng) {
        // A lag is followed in short steps, or a long one would skip the way there.
        let mut left = seconds;
        while left > 0.0 {
            let step = left.min(0.02);
            left -= step;
            let poured = self.pours.0.min(self.pours.1 * step);
            self.pours.0 -= poured;
            self.load_g += poured;
            self.cell_g += (self.load_g - self.cell_g) * follows(step, LAG_S);
            self.drift_g += self.drifts * step / 60.0;
            if (self.gross() - self.stood.0).abs() > STILL_G || self.pours.0 > 0.0 {
                self.stood = (self.gross(), 0.0);
            } else {
                self.stood.1 += step;
            }
        }
        self.noise_g = NOISE_G * scatter(dice);
    }

    fn says(&self) -> Message {
        if self.gross() > CARRIES_G {
            return Message::Fault { code: "overload".to_owned() };
        }
        let step = self.step();
        let net = self.gross() + self.noise_g - self.tare_g;
        Message::Weight {
            g: (net / step).round() * step,
            step_g: step,
            steady: self.steady(),
            tare_g: self.tare_g,
        }
    }

    fn hears(&mut self, message: &Message) -> Result<Vec<Message>, String> {
        match message {
            Message::Tare if self.gross() > CARRIES_G => {
                Err("more lies on it than it can weigh: take something off first".to_owned())
            }
            Message::Tare if !self.steady() => {
                Err("it still moves: wait until it stands, then set it to 0".to_owned())
            }
            Message::Tare => {
                self.tare_g = self.gross();
                Ok(Vec::new())
            }
            _ => Err("a scale does not do that".to_owned()),
        }
    }
}
