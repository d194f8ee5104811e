//! A stand-in with its scenario and its line: what it says, and how that arrives.

use crate::address::DeviceKind;
use crate::line::{COUNTED_TO, Line};
use crate::message::Message;
use crate::stand_in::script::{Action, read};
use crate::stand_in::{StandIn, new};

/// A stand-in that plays.
pub struct Play {
    device: Box<dyn StandIn>,
    name: String,
    actions: Vec<Action>,
    next: usize,
    /// Until the next thing happens, s.
    rests_s: f64,
    /// The line is dead for so long, s.
    unplugged_s: f64,
    garbage: u32,
    torn: u32,
    dice: fastrand::Rng,
}

/// Things that happen at one moment, at most: a scenario that only repeats does not hang.
const AT_ONCE: usize = 4000;

impl Play {
    /// A device that plays nothing yet.
    pub fn new(kind: DeviceKind, name: &str, seed: u64) -> Self {
        Play {
            device: new(kind),
            name: name.to_owned(),
            actions: Vec::new(),
            next: 0,
            rests_s: 0.0,
            unplugged_s: 0.0,
            garbage: 0,
            torn: 0,
            dice: fastrand::Rng::with_seed(seed),
        }
    }

    /// Plays a scenario from now on, in the place of the one before.
    ///
    /// # Errors
    /// In words: what is not understood, or cannot happen to such a device. Then nothing of it happens.
    pub fn scenario(&mut self, text: &str) -> Result<(), String> {
        let actions = read(text)?;
        let mut trial = new(self.device.kind());
        for own in &actions {
            trial.act(own)?;
        }
        (self.actions, self.next, self.rests_s) = (actions, 0, 0.0);
        Ok(())
    }

    /// How often it says what it shows, s.
    pub fn every_s(&self) -> f64 {
        match self.device.kind() {
            DeviceKind::Scale => 0.1,
            DeviceKind::Probe => 0.5,
            DeviceKind::Fridge | DeviceKind::Printer => 1.0,
        }
    }

    /// Time goes by, s.
    pub fn pass(&mut self, seconds: f64) {
        let mut left = seconds;
        for _ in 0..AT_ONCE {
            let part = self.rests_s.min(left);
            if part > 0.0 {
                self.device.pass(part, &mut self.dice);
                self.unplugged_s = (self.unplugged_s - part).max(0.0);
                (self.rests_s, left) = (self.rests_s - part, left - part);
            }
            if self.rests_s > 1e-9 || left <= 0.0 && self.next >= self.actions.len() {
                break;
            }
            match self.actions.get(self.next).cloned() {
                None => break,
                Some(Action::Repeat) => self.next = 0,
                Some(action) => {
                    self.next += 1;
                    self.rests_s = action.seconds();
                    match action {
                        Action::Unplug { seconds } => self.unplugged_s = seconds,
                        Action::Garbage { lines } => self.garbage += lines,
                        Action::Tear { lines } => self.torn += lines,
                        // What cannot happen was refused when the scenario was taken.
                        other => {
                            let _ = self.device.act(&other);
                        }
                    }
                }
            }
        }
        if left > 0.0 {
            self.device.pass(left, &mut self.dice);
            self.unplugged_s = (self.unplugged_s - left).max(0.0);
        }
    }

    /// Whether the line is dead.
    pub fn unplugged(&self) -> bool {
        self.unplugged_s > 0.0
    }

    /// Who is there.
    pub fn hello(&self) -> Message {
        Message::Hello { kind: self.device.kind(), name: self.name.clone(), stand_in: true }
    }

    /// What it shows now.
    pub fn says(&self) -> Message {
        self.device.says()
    }

    /// It is asked for something: what it answers.
    pub fn hears(&mut self, line: &Line) -> Vec<Message> {
        let of = line.number;
        let answer = match Message::read(line) {
            Err(_) | Ok(None) => Err("this device does not understand that".to_owned()),
            Ok(Some(Message::Play { scenario })) => self.scenario(&scenario).map(|()| Vec::new()),
            Ok(Some(message)) => self.device.hears(&message),
        };
        match answer {
            Ok(mut more) => {
                more.push(Message::Done { of });
                more
            }
            Err(why) => vec![Message::Refused { of, why }],
        }
    }

    /// What it shows, as it arrives: garbled while its scenario has it so.
    pub fn arrives(&mut self, number: &mut u32) -> Vec<u8> {
        let text = self.says().line(*number).written();
        *number = (*number + 1) % COUNTED_TO;
        if self.garbage > 0 {
            self.garbage -= 1;
            let mut bytes: Vec<u8> = (0..40).map(|_| self.dice.u8(..)).filter(|own| *own != b'\n').collect();
            bytes.push(b'\n');
            return bytes;
        }
        if self.torn > 0 {
            self.torn -= 1;
            // The head of one line runs into the tail of another.
            let cut = self.dice.usize(1..text.len() - 1);
            let from = self.dice.usize(0..text.len() - 1);
            return [&text.as_bytes()[..cut], &text.as_bytes()[from..]].concat();
        }
        text.into_bytes()
    }
}
