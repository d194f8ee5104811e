//! A line of the protocol: a word, a number that counts, fields, a checksum. Anything torn is known by it.

use percent_encoding::{AsciiSet, NON_ALPHANUMERIC, percent_decode_str, utf8_percent_encode};
use std::fmt::Write;

/// Longest line, bytes: a picture of a label is the longest.
pub const LONGEST: usize = 131_072;
/// Lines are counted up to this and then from 0.
pub const COUNTED_TO: u32 = 1_000_000;
/// Letters that stand for themselves in a value (RFC 3986, section 2.3: the unreserved ones).
const AS_THEY_ARE: &AsciiSet = &NON_ALPHANUMERIC.remove(b'-').remove(b'.').remove(b'_').remove(b'~');
/// CRC-16 with the polynomial 0x1021, begun with 0xFFFF.
const SUM: crc::Crc<u16> = crc::Crc::<u16>::new(&crc::CRC_16_IBM_3740);

/// A line.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Line {
    /// What it is.
    pub word: String,
    /// Its number among the lines of its sender.
    pub number: u32,
    /// What it says.
    pub fields: Vec<(String, String)>,
}

/// What is wrong with a line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum Torn {
    /// Letters no line has.
    #[error("letters no line has")]
    NotAscii,
    /// Too long.
    #[error("longer than any line")]
    TooLong,
    /// No checksum at its end.
    #[error("no checksum at its end")]
    NoSum,
    /// The checksum is of another line.
    #[error("the checksum is of another line")]
    WrongSum,
    /// The checksum is right and the line says nothing.
    #[error("no word, number or field where one must be")]
    Shape,
}

/// Checksum of what stands before the star.
pub fn sum(text: &str) -> u16 {
    SUM.checksum(text.as_bytes())
}

impl Line {
    /// A line without fields.
    pub fn new(word: &str, number: u32) -> Self {
        Line { word: word.to_owned(), number: number % COUNTED_TO, fields: Vec::new() }
    }

    /// The same with a field more.
    pub fn with(mut self, name: &str, value: impl std::fmt::Display) -> Self {
        self.fields.push((name.to_owned(), value.to_string()));
        self
    }

    /// What a field says.
    pub fn field(&self, name: &str) -> Option<&str> {
        self.fields.iter().find(|(own, _)| own == name).map(|(_, value)| value.as_str())
    }

    /// As it goes over the wire, with its end.
    pub fn written(&self) -> String {
        let mut text = format!("{} {}", self.word, self.number);
        for (name, value) in &self.fields {
            // Writing to a String does not fail.
            let _ = write!(text, " {name}={}", utf8_percent_encode(value, AS_THEY_ARE));
        }
        let sum = sum(&text);
        let _ = writeln!(text, "*{sum:04X}");
        text
    }

    /// Reads a line without its end.
    ///
    /// # Errors
    /// What is torn of it.
    pub fn read(text: &str) -> Result<Self, Torn> {
        if text.len() > LONGEST {
            return Err(Torn::TooLong);
        }
        if !text.bytes().all(|byte| (0x20..0x7f).contains(&byte)) {
            return Err(Torn::NotAscii);
        }
        let (body, told) = text.rsplit_once('*').ok_or(Torn::NoSum)?;
        let hexadecimal = told.len() == 4 && told.bytes().all(|byte| byte.is_ascii_hexdigit());
        let told = u16::from_str_radix(told, 16).ok().filter(|_| hexadecimal).ok_or(Torn::NoSum)?;
        if told != sum(body) {
            return Err(Torn::WrongSum);
        }
        let mut parts = body.split(' ');
        let word = parts.next().filter(|own| is_word(own)).ok_or(Torn::Shape)?;
        let number =
            parts.next().filter(|own| own.len() <= 6 && own.bytes().all(|byte| byte.is_ascii_digit()));
        let number = number.and_then(|own| own.parse().ok()).ok_or(Torn::Shape)?;
        let mut fields: Vec<(String, String)> = Vec::new();
        for part in parts {
            let (name, value) = part.split_once('=').ok_or(Torn::Shape)?;
            let twice = fields.iter().any(|(own, _)| own == name);
            if !is_name(name) || twice {
                return Err(Torn::Shape);
            }
            let value = percent_decode_str(value).decode_utf8().map_err(|_| Torn::Shape)?;
            fields.push((name.to_owned(), value.into_owned()));
        }
        Ok(Line { word: word.to_owned(), number, fields })
    }
}

fn is_word(text: &str) -> bool {
    (1..=12).contains(&text.len()) && text.bytes().all(|byte| byte.is_ascii_uppercase())
}

fn is_name(text: &str) -> bool {
    (1..=12).contains(&text.len()) && text.bytes().all(|byte| byte.is_ascii_lowercase() || byte == b'_')
}
