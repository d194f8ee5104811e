//! What the lines say.

use crate::address::DeviceKind;
use crate::line::{Line, Torn};

/// Version of the protocol.
pub const VERSION: u32 = 1;

/// A message of a device to the kitchen, or of the kitchen to a device.
#[derive(Debug, Clone, PartialEq)]
pub enum Message {
    /// Who is there: the first line of every device.
    Hello {
        /// What it is.
        kind: DeviceKind,
        /// What it calls itself.
        name: String,
        /// Whether it is a stand-in, which plays scenarios.
        stand_in: bool,
    },
    /// What a scale shows.
    Weight {
        /// Net, g.
        g: f64,
        /// Its step there, g.
        step_g: f64,
        /// Whether it stands still.
        steady: bool,
        /// What it was set to nothing with, g.
        tare_g: f64,
    },
    /// What a probe shows.
    Temperature {
        /// °C.
        c: f64,
    },
    /// What a fridge logger shows.
    Fridge {
        /// °C of its air.
        c: f64,
        /// Whether its door is open.
        open: bool,
    },
    /// How a printer stands.
    Printer {
        /// Whether it can print.
        ready: bool,
        /// Tape left, mm.
        left_mm: f64,
    },
    /// A device cannot show anything, and why.
    Fault {
        /// In a word: overload, in_air, no_probe, no_tape.
        code: String,
    },
    /// Set the scale to nothing with what is on it.
    Tare,
    /// Print a label, its lines parted by line ends.
    Print {
        /// Made by who sends it, once for each: printed once.
        job: String,
        /// What stands on it.
        text: String,
    },
    /// Play a scenario: of stand-ins alone.
    Play {
        /// Its text.
        scenario: String,
    },
    /// It was done.
    Done {
        /// Number of the line that asked.
        of: u32,
    },
    /// It was not done, and why.
    Refused {
        /// Number of the line that asked.
        of: u32,
        /// In words.
        why: String,
    },
    /// What came out of a printer's stand-in: a picture in base64.
    Picture {
        /// Of which job.
        job: String,
        /// `png` or `pdf`.
        form: String,
        /// Base64.
        data: String,
    },
}

fn yes(value: bool) -> u8 {
    u8::from(value)
}

impl Message {
    /// As a line with a number.
    pub fn line(&self, number: u32) -> Line {
        match self {
            Message::Hello { kind, name, stand_in } => Line::new("HELLO", number)
                .with("version", VERSION)
                .with("kind", kind.word())
                .with("name", name)
                .with("stand_in", yes(*stand_in)),
            Message::Weight { g, step_g, steady, tare_g } => Line::new("WEIGHT", number)
                .with("g", tenths(*g))
                .with("step", tenths(*step_g))
                .with("steady", yes(*steady))
                .with("tare", tenths(*tare_g)),
            Message::Temperature { c } => Line::new("TEMPERATURE", number).with("c", tenths(*c)),
            Message::Fridge { c, open } => {
                Line::new("FRIDGE", number).with("c", tenths(*c)).with("open", yes(*open))
            }
            Message::Printer { ready, left_mm } => {
                Line::new("PRINTER", number).with("ready", yes(*ready)).with("left_mm", tenths(*left_mm))
            }
            Message::Fault { code } => Line::new("FAULT", number).with("code", code),
            Message::Tare => Line::new("TARE", number),
            Message::Print { job, text } => Line::new("PRINT", number).with("job", job).with("text", text),
            Message::Play { scenario } => Line::new("PLAY", number).with("scenario", scenario),
            Message::Done { of } => Line::new("DONE", number).with("of", of),
            Message::Refused { of, why } => Line::new("REFUSED", number).with("of", of).with("why", why),
            Message::Picture { job, form, data } => {
                Line::new("PICTURE", number).with("job", job).with("form", form).with("data", data)
            }
        }
    }

    /// Reads what a line says; a word that is not known is none of ours and skipped.
    ///
    /// # Errors
    /// [`Torn::Shape`] where a field is missing or is no number a device can say.
    pub fn read(line: &Line) -> Result<Option<Self>, Torn> {
        let text = |name: &str| line.field(name).map(str::to_owned).ok_or(Torn::Shape);
        let number = |name: &str| {
            let value = line.field(name).and_then(|own| own.parse::<f64>().ok());
            value.filter(|own| own.is_finite() && own.abs() <= 1e6).ok_or(Torn::Shape)
        };
        let whether = |name: &str| match line.field(name) {
            Some("0") => Ok(false),
            Some("1") => Ok(true),
            _ => Err(Torn::Shape),
        };
        let of = || line.field("of").and_then(|own| own.parse().ok()).ok_or(Torn::Shape);
        Ok(Some(match line.word.as_str() {
            "HELLO" => Message::Hello {
                kind: line.field("kind").and_then(DeviceKind::parse).ok_or(Torn::Shape)?,
                name: text("name")?.chars().take(80).collect(),
                stand_in: whether("stand_in")?,
            },
            "WEIGHT" => Message::Weight {
                g: number("g")?,
                step_g: number("step")?,
                steady: whether("steady")?,
                tare_g: number("tare")?,
            },
            "TEMPERATURE" => Message::Temperature { c: number("c")? },
            "FRIDGE" => Message::Fridge { c: number("c")?, open: whether("open")? },
            "PRINTER" => Message::Printer { ready: whether("ready")?, left_mm: number("left_mm")? },
            "FAULT" => Message::Fault { code: text("code")?.chars().take(40).collect() },
            "TARE" => Message::Tare,
            "PRINT" => Message::Print { job: text("job")?, text: text("text")? },
            "PLAY" => Message::Play { scenario: text("scenario")? },
            "DONE" => Message::Done { of: of()? },
            "REFUSED" => Message::Refused { of: of()?, why: text("why")?.chars().take(400).collect() },
            "PICTURE" => Message::Picture { job: text("job")?, form: text("form")?, data: text("data")? },
            _ => return Ok(None),
        }))
    }
}

/// As devices say numbers: to a tenth.
fn tenths(value: f64) -> f64 {
    // Never minus nothing.
    (10.0 * value).round() / 10.0 + 0.0
}
