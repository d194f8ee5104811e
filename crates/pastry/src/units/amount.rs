//! Amounts as cooks write them: "1 1/2 cups", "1½ cup", "1,5 dl", "200 g", "1 stick".

use crate::units::kitchen::{Unit, VAGUE};
use crate::units::number::{self, NumberError};
use std::fmt;

/// Largest number taken in an amount field.
pub const LARGEST: f64 = 1e6;

/// A number as written, kept so that it prints as it was meant.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Number {
    /// A decimal number.
    Decimal(f64),
    /// A whole number and a fraction, as in 1 1/2.
    Fraction {
        /// Whole part.
        whole: u32,
        /// Above the line.
        above: u32,
        /// Below the line, never 0.
        below: u32,
    },
}

impl Number {
    /// The value.
    pub fn value(self) -> f64 {
        match self {
            Number::Decimal(value) => value,
            Number::Fraction { whole, above, below } => {
                f64::from(whole) + f64::from(above) / f64::from(below)
            }
        }
    }
}

impl fmt::Display for Number {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match *self {
            Number::Decimal(value) => write!(f, "{value}"),
            Number::Fraction { whole: 0, above, below } => write!(f, "{above}/{below}"),
            Number::Fraction { whole, above, below } => write!(f, "{whole} {above}/{below}"),
        }
    }
}

/// A number and its unit. `unit` is none when only a number was written, which means grams.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Amount {
    /// How many.
    pub number: Number,
    /// Of what; none means grams.
    pub unit: Option<Unit>,
}

impl fmt::Display for Amount {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self.unit {
            Some(unit) => write!(f, "{} {}", self.number, unit.short()),
            None => write!(f, "{}", self.number),
        }
    }
}

/// Why a text is not an amount, and what to write instead.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum AmountError {
    /// Nothing was written.
    #[error("no amount: write how much, for example 200 g or 1 1/2 cups; write 0 to leave it out")]
    Empty,
    /// It does not begin with a number.
    #[error("“{text}” has no number at the front: write for example 200 g")]
    NoNumber {
        /// What was written.
        text: String,
    },
    /// Below zero.
    #[error("{text} is below zero: nothing can be taken out of a bowl; write 0 or more")]
    Negative {
        /// What was written.
        text: String,
    },
    /// Too much for any kitchen.
    #[error("{text} is more than a kitchen can weigh: write at most 1,000 kg")]
    TooLarge {
        /// What was written.
        text: String,
    },
    /// A comma followed by three digits can mean two things.
    #[error("{text} can be read two ways: write {thousands} or {decimal}")]
    Ambiguous {
        /// What was written.
        text: String,
        /// Read as thousands.
        thousands: String,
        /// Read as a decimal.
        decimal: String,
    },
    /// A range, as in 2-3.
    #[error("{text} is a range: write the amount you will weigh")]
    Range {
        /// What was written.
        text: String,
    },
    /// A fraction over nothing.
    #[error("{text} divides by zero: write a fraction such as 1/2")]
    ZeroBelow {
        /// What was written.
        text: String,
    },
    /// A unit without a size.
    #[error("a {unit} has no fixed weight: weigh it once and write grams, for example 0.4 g")]
    Vague {
        /// The word.
        unit: String,
    },
    /// A unit nobody here knows.
    #[error(
        "“{unit}” is not a unit known here: use g, kg, oz, lb, ml, dl, l, cup, tbsp, tsp, fl oz, stick, egg, leaf or envelope"
    )]
    UnknownUnit {
        /// The word.
        unit: String,
    },
}

/// Unicode fractions and what they stand for.
const GLYPHS: &[(char, u32, u32)] = &[
    ('½', 1, 2),
    ('⅓', 1, 3),
    ('⅔', 2, 3),
    ('¼', 1, 4),
    ('¾', 3, 4),
    ('⅕', 1, 5),
    ('⅖', 2, 5),
    ('⅗', 3, 5),
    ('⅘', 4, 5),
    ('⅙', 1, 6),
    ('⅚', 5, 6),
    ('⅛', 1, 8),
    ('⅜', 3, 8),
    ('⅝', 5, 8),
    ('⅞', 7, 8),
];

/// Reads an amount.
///
/// Takes decimals with point or comma, fractions ("3/4", "1 1/2", "1-1/2", "1½"), and the units of
/// [`Unit`]. A bare number means grams. A comma before exactly three digits is refused, because it
/// is thousands to one cook and a decimal to another.
///
/// # Errors
/// [`AmountError`], each with what to write instead.
///
/// # Examples
/// ```
/// use pastry::units::amount::parse;
/// assert_eq!(parse("1½ cups").unwrap().to_string(), "1 1/2 cup");
/// assert_eq!(parse("1,5 dl").unwrap().number.value(), 1.5);
/// assert!(parse("1,500 g").is_err());
/// ```
pub fn parse(text: &str) -> Result<Amount, AmountError> {
    let text = text.trim();
    if text.is_empty() {
        return Err(AmountError::Empty);
    }
    let shown: String = text.chars().take(40).collect();
    let tidy = text
        .replace(['\u{2044}', '\u{2215}'], "/")
        .replace(['\u{2212}', '\u{2013}'], "-")
        .replace('\u{a0}', " ");
    if tidy.starts_with('-')
        && tidy.chars().nth(1).is_some_and(|c| c.is_ascii_digit() || c == '.' || c == ' ')
    {
        return Err(AmountError::Negative { text: shown });
    }
    let (number, rest) = front(&tidy, &shown)?;
    if number.value().is_nan() || number.value() > LARGEST {
        return Err(AmountError::TooLarge { text: shown });
    }
    let word = rest.trim();
    if word.is_empty() {
        return Ok(Amount { number, unit: None });
    }
    if word.starts_with('-') && word[1..].trim_start().starts_with(|c: char| c.is_ascii_digit()) {
        return Err(AmountError::Range { text: shown });
    }
    match Unit::parse(word) {
        Some(unit) => Ok(Amount { number, unit: Some(unit) }),
        None if VAGUE.contains(&word.to_lowercase().as_str()) => {
            Err(AmountError::Vague { unit: word.to_lowercase() })
        }
        None => Err(AmountError::UnknownUnit { unit: word.chars().take(30).collect() }),
    }
}

/// The number at the front, and what follows it.
fn front<'a>(tidy: &'a str, shown: &str) -> Result<(Number, &'a str), AmountError> {
    let zero_below = || AmountError::ZeroBelow { text: shown.to_owned() };
    let whole_end = tidy.find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ',')).unwrap_or(tidy.len());
    let (digits, rest) = tidy.split_at(whole_end);
    if digits.is_empty() {
        return match glyph(tidy) {
            Some((above, below, rest)) => Ok((Number::Fraction { whole: 0, above, below }, rest)),
            None => Err(AmountError::NoNumber { text: shown.to_owned() }),
        };
    }
    if let Ok(whole) = digits.parse::<u32>() {
        if let Some((above, below, rest)) = glyph(rest.trim_start()) {
            return Ok((Number::Fraction { whole, above, below }, rest));
        }
        if let Some(after) = rest.trim_start().strip_prefix('/') {
            let (below, rest) =
                integer(after).ok_or_else(|| AmountError::NoNumber { text: shown.to_owned() })?;
            return match below {
                0 => Err(zero_below()),
                below => Ok((Number::Fraction { whole: 0, above: whole, below }, rest)),
            };
        }
        let tail = rest.trim_start().strip_prefix('-').unwrap_or(rest).trim_start();
        if let Some((above, after)) = integer(tail)
            && let Some(after) = after.strip_prefix('/')
            && let Some((below, rest)) = integer(after)
        {
            return match below {
                0 => Err(zero_below()),
                below => Ok((Number::Fraction { whole, above, below }, rest)),
            };
        }
    }
    match number::read(digits) {
        Ok(value) => Ok((Number::Decimal(value), rest)),
        Err(NumberError::Ambiguous { text, thousands, decimal }) => {
            Err(AmountError::Ambiguous { text, thousands, decimal })
        }
        Err(NumberError::None(_)) => Err(AmountError::NoNumber { text: shown.to_owned() }),
    }
}

fn glyph(text: &str) -> Option<(u32, u32, &str)> {
    let first = text.chars().next()?;
    let (_, above, below) = GLYPHS.iter().find(|(c, ..)| *c == first)?;
    Some((*above, *below, &text[first.len_utf8()..]))
}

fn integer(text: &str) -> Option<(u32, &str)> {
    let text = text.trim_start();
    let end = text.find(|c: char| !c.is_ascii_digit()).unwrap_or(text.len());
    Some((text[..end].parse().ok()?, &text[end..]))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn reads(text: &str, value: f64, unit: Option<Unit>) {
        let amount = parse(text).unwrap_or_else(|e| panic!("{text}: {e}"));
        assert!((amount.number.value() - value).abs() < 1e-12, "{text} read as {amount}");
        assert_eq!(amount.unit, unit, "{text}");
    }

    #[test]
    fn amounts_are_read_as_cooks_write_them() {
        reads("1 1/2 cups", 1.5, Some(Unit::Cup));
        reads("1½ cup", 1.5, Some(Unit::Cup));
        reads("1,5 dl", 1.5, Some(Unit::Decilitre));
        reads("200 g", 200.0, Some(Unit::Gram));
        reads("200g", 200.0, Some(Unit::Gram));
        reads("2 tbsp", 2.0, Some(Unit::Tablespoon));
        reads("1 stick", 1.0, Some(Unit::Stick));
        reads("7 oz", 7.0, Some(Unit::Ounce));
        reads("¾ Tsp.", 0.75, Some(Unit::Teaspoon));
        reads("1-1/2 cups", 1.5, Some(Unit::Cup));
        reads("2 fl. oz.", 2.0, Some(Unit::FluidOunce));
        reads("1 ⅓ fluid  ounces", 4.0 / 3.0, Some(Unit::FluidOunce));
        reads(".5 kg", 0.5, Some(Unit::Kilogram));
        reads("0,125 l", 0.125, Some(Unit::Litre));
        reads("3⁄4 cup", 0.75, Some(Unit::Cup));
        reads("150", 150.0, None);
        reads("3 leaves", 3.0, Some(Unit::Leaf));
    }

    #[test]
    fn what_cannot_be_weighed_is_refused_with_what_to_write() {
        let says = |text: &str| parse(text).unwrap_err().to_string();
        assert!(says("").contains("write 0 to leave it out"));
        assert!(says("cream").contains("no number at the front"));
        assert!(says("-20 g").contains("below zero"));
        assert!(says("−20 g").contains("below zero"));
        assert!(says("1,500 g").contains("write 1500 or 1.500"));
        assert!(says("2-3 tbsp").contains("range"));
        assert!(says("1/0 cup").contains("divides by zero"));
        assert!(says("1 pinch").contains("no fixed weight"));
        assert!(says("3 glugs").contains("not a unit"));
        assert!(says("9999999 kg").contains("at most 1,000 kg"));
        assert!(says("1e400").contains("not a unit"));
        assert!(says("1..2 g").contains("no number"));
    }
}
