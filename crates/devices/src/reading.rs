//! What was heard of a device, and how old that is.

use crate::address::{DeviceAddress, DeviceKind};
use crate::message::Message;
use serde::Serialize;
use std::collections::VecDeque;
use std::time::Duration;
use tokio::time::Instant;
use utoipa::ToSchema;

/// Older than this nothing is live.
pub const LIVE: Duration = Duration::from_secs(2);

/// What a probe shows is remembered so often, and so many times: six hours.
const REMEMBERED: Duration = Duration::from_secs(5);
const REMEMBERED_TIMES: usize = 4320;

/// How a device stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DeviceState {
    /// It speaks: what it shows is now.
    Live,
    /// It is connected and shows nothing: its fault says why.
    Faulty,
    /// It said nothing for two seconds: what it showed is old.
    Old,
    /// Nothing answers at its address.
    Away,
    /// Something else answers at its address.
    Wrong,
}

/// A device as it stands now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DeviceNow {
    /// What it is.
    pub kind: DeviceKind,
    /// What the cooks call it.
    pub name: String,
    /// How it stands.
    pub state: DeviceState,
    /// The same in a sentence.
    pub words: String,
    /// Whether it is a stand-in, which plays scenarios.
    pub stand_in: bool,
    /// A scale: net, g.
    pub g: Option<f64>,
    /// A scale: its step there, g.
    pub step_g: Option<f64>,
    /// A scale: what it was set to nothing with, g.
    pub tare_g: Option<f64>,
    /// A scale: whether it stands still.
    pub steady: bool,
    /// A probe or a fridge: °C.
    pub c: Option<f64>,
    /// A fridge: whether its door is open.
    pub open: bool,
    /// A printer: tape left, mm.
    pub left_mm: Option<f64>,
    /// Lines that were torn, since it was connected first.
    pub torn: u64,
    /// Lines that never came, by their numbers.
    pub missed: u64,
}

/// What was heard of a device.
#[derive(Debug, Clone, Default)]
pub struct Heard {
    /// Its first line, of this connection.
    pub hello: Option<(DeviceKind, bool)>,
    /// The last reading, and when it came.
    pub last: Option<(Message, Instant)>,
    /// When it said last that it cannot, and why; none once it can again.
    pub fault: Option<(String, Instant)>,
    /// What a probe showed: when, and °C.
    pub past: VecDeque<(Instant, f64)>,
    /// Whether it is connected.
    pub connected: bool,
    /// Lines that were torn.
    pub torn: u64,
    /// Lines that never came.
    pub missed: u64,
}

impl Heard {
    /// Takes what a device says; whether anything is different to the eye.
    pub fn takes(&mut self, message: Message, now: Instant) -> bool {
        match message {
            Message::Hello { kind, stand_in, .. } => {
                self.hello = Some((kind, stand_in));
                true
            }
            Message::Fault { code } => {
                let same = self.fault.as_ref().is_some_and(|(own, _)| *own == code);
                self.fault = Some((code, now));
                !same
            }
            reading @ (Message::Weight { .. }
            | Message::Temperature { .. }
            | Message::Fridge { .. }
            | Message::Printer { .. }) => {
                let old = self.last.as_ref().is_none_or(|(_, at)| now - *at > LIVE);
                let same = self.fault.is_none() && self.last.as_ref().is_some_and(|(own, _)| *own == reading);
                self.fault = None;
                if let Message::Temperature { c } = reading
                    && self.past.back().is_none_or(|(at, _)| now - *at >= REMEMBERED)
                {
                    self.past.push_back((now, c));
                    let many = self.past.len();
                    self.past.drain(..many.saturating_sub(REMEMBERED_TIMES));
                }
                self.last = Some((reading, now));
                old || !same
            }
            _ => false,
        }
    }

    fn state(&self, kind: DeviceKind, now: Instant) -> DeviceState {
        if !self.connected {
            return DeviceState::Away;
        }
        match self.hello {
            Some((own, _)) if own != kind => return DeviceState::Wrong,
            _ => {}
        }
        let fresh = |at: &Instant| now - *at <= LIVE;
        match (&self.fault, &self.last) {
            (Some((_, at)), _) if fresh(at) => DeviceState::Faulty,
            (None, Some((_, at))) if fresh(at) => DeviceState::Live,
            _ => DeviceState::Old,
        }
    }

    /// A device of the kitchen as it stands now.
    pub fn now(&self, of: &DeviceAddress, now: Instant) -> DeviceNow {
        let state = self.state(of.kind, now);
        let mut shown = DeviceNow {
            kind: of.kind,
            name: of.name.trim().to_owned(),
            state,
            words: self.words(of, state),
            stand_in: self.hello.is_some_and(|(_, stand_in)| stand_in),
            g: None,
            step_g: None,
            tare_g: None,
            steady: false,
            c: None,
            open: false,
            left_mm: None,
            torn: self.torn,
            missed: self.missed,
        };
        // What something else says is no reading of this device.
        let last = self.last.as_ref().filter(|_| state != DeviceState::Wrong);
        match (of.kind, last.map(|(own, _)| own)) {
            (DeviceKind::Scale, Some(Message::Weight { g, step_g, steady, tare_g })) => {
                (shown.g, shown.step_g, shown.steady) = (Some(*g), Some(*step_g), *steady);
                shown.tare_g = Some(*tare_g);
            }
            (DeviceKind::Probe, Some(Message::Temperature { c })) => shown.c = Some(*c),
            (DeviceKind::Fridge, Some(Message::Fridge { c, open })) => {
                (shown.c, shown.open) = (Some(*c), *open);
            }
            (DeviceKind::Printer, Some(Message::Printer { left_mm, .. })) => shown.left_mm = Some(*left_mm),
            _ => {}
        }
        shown
    }

    fn words(&self, of: &DeviceAddress, state: DeviceState) -> String {
        let name = of.name.trim();
        match state {
            DeviceState::Live => match self.last {
                Some((Message::Printer { ready: false, .. }, _)) => format!("{name} cannot print now."),
                Some((Message::Fridge { open: true, .. }, _)) => format!("The door of {name} is open."),
                _ => format!("{name} is live."),
            },
            DeviceState::Faulty => {
                let code = self.fault.as_ref().map_or("", |(code, _)| code.as_str());
                match code {
                    "overload" => format!("{name} carries more than it can weigh: take something off."),
                    "in_air" => format!("{name} hangs in the air: put it back into the mass."),
                    "no_probe" => format!("Nothing is plugged into {name}: plug its probe in."),
                    "no_tape" => format!("{name} is out of tape: put a new roll in."),
                    "no_power" => format!("{name} has no power: look at its plug."),
                    _ => format!("{name} shows nothing ({code}): look at it."),
                }
            }
            DeviceState::Old => {
                format!("{name} has said nothing for more than 2 seconds: what it showed is old.")
            }
            DeviceState::Away => {
                format!("{name} does not answer at {}: is it on? It is tried again.", of.address.trim())
            }
            DeviceState::Wrong => {
                let other = self.hello.map_or("another device", |(kind, _)| kind.word());
                let own = of.kind.word();
                format!("At {} answers a {other}, not a {own}: set its address right.", of.address.trim())
            }
        }
    }
}
