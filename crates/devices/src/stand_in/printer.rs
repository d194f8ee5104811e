//! The stand-in of a label printer: what it prints goes into a tray as pictures.

use crate::address::DeviceKind;
use crate::message::Message;
use crate::stand_in::script::Action;
use crate::stand_in::{StandIn, label};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;

/// A new roll, mm.
const ROLL_MM: f64 = 8000.0;
/// Jobs it remembers, so that none is printed twice.
const REMEMBERS: usize = 200;

/// A label printer with a roll of tape.
#[derive(Debug)]
pub struct Printer {
    left_mm: f64,
    printed: Vec<String>,
}

impl Default for Printer {
    fn default() -> Self {
        Printer { left_mm: ROLL_MM, printed: Vec::new() }
    }
}

impl StandIn for Printer {
    fn kind(&self) -> DeviceKind {
        DeviceKind::Printer
    }

    fn act(&mut self, action: &Action) -> Result<(), String> {
        match action {
            Action::Tape { mm } => self.left_mm = *mm,
            Action::Wait { .. } | Action::Repeat | Action::Unplug { .. } => {}
            Action::Garbage { .. } | Action::Tear { .. } => {}
            _ => return Err("that does not happen to a printer".to_owned()),
        }
        Ok(())
    }

    fn pass(&mut self, _: f64, _: &mut fastrand::Rng) {}

    fn says(&self) -> Message {
        if self.left_mm < label::SHORTEST_MM {
            return Message::Fault { code: "no_tape".to_owned() };
        }
        Message::Printer { ready: true, left_mm: self.left_mm }
    }

    fn hears(&mut self, message: &Message) -> Result<Vec<Message>, String> {
        let Message::Print { job, text } = message else {
            return Err("a printer does not do that".to_owned());
        };
        if self.printed.contains(job) {
            return Ok(Vec::new());
        }
        let drawn = label::draw(text)?;
        if drawn.long_mm() > self.left_mm {
            return Err(format!(
                "it needs {:.0} mm of tape and has {:.0} mm: put a new roll in and print again",
                drawn.long_mm().ceil(),
                self.left_mm.floor()
            ));
        }
        self.left_mm -= drawn.long_mm();
        self.printed.push(job.clone());
        let many = self.printed.len();
        self.printed.drain(..many.saturating_sub(REMEMBERS));
        let picture = |form: &str, bytes: Vec<u8>| Message::Picture {
            job: job.clone(),
            form: form.to_owned(),
            data: STANDARD.encode(bytes),
        };
        Ok(vec![picture("png", drawn.png()?), picture("pdf", drawn.pdf())])
    }
}
