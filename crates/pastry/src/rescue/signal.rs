//! What the numbers say for a remedy: "split>0.15", "t<19", "stiff".

use crate::number::two_digits;
use crate::rescue::bowl::Bowl;
use crate::rescue::quantity::{Quantity, WORDS};
use serde::Deserialize;

/// One sign in the numbers.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[serde(try_from = "String")]
pub enum Signal {
    /// A quantity above a limit.
    Above(Quantity, f64),
    /// A quantity below a limit.
    Below(Quantity, f64),
    /// Stiffer than the window.
    Stiff,
    /// Looser than the window.
    Loose,
    /// Raw fruit that eats gelatin.
    Protease,
}

impl TryFrom<String> for Signal {
    type Error = String;

    fn try_from(text: String) -> Result<Self, String> {
        match text.as_str() {
            "stiff" => return Ok(Signal::Stiff),
            "loose" => return Ok(Signal::Loose),
            "protease" => return Ok(Signal::Protease),
            _ => {}
        }
        let sign = text.find(['<', '>']).ok_or_else(|| format!("{text} compares nothing"))?;
        let quantity = WORDS
            .iter()
            .find(|(word, ..)| *word == &text[..sign])
            .map(|(_, quantity, ..)| *quantity)
            .ok_or_else(|| format!("{text} names no quantity"))?;
        let limit: f64 = text[sign + 1..].parse().map_err(|_| format!("{text} has no number"))?;
        let below = text.as_bytes()[sign] == b'<';
        Ok(if below { Signal::Below(quantity, limit) } else { Signal::Above(quantity, limit) })
    }
}

impl Signal {
    /// What it says of a bowl, in words; none when it does not speak.
    pub fn says(self, bowl: &Bowl) -> Option<String> {
        let worded = |quantity: Quantity, value: f64, word: &str, limit: f64| {
            let (_, _, name, unit) = WORDS.iter().find(|(_, of, ..)| *of == quantity)?;
            let shown = if value == 0.0 { "0".to_owned() } else { two_digits(value) };
            Some(format!("{name} {shown}{unit}, {word} {limit}"))
        };
        match self {
            Signal::Above(quantity, limit) => {
                let value = bowl.quantity(quantity)?;
                if value > limit { worded(quantity, value, "above", limit) } else { None }
            }
            Signal::Below(quantity, limit) => {
                let value = bowl.quantity(quantity)?;
                if value < limit { worded(quantity, value, "below", limit) } else { None }
            }
            Signal::Stiff => (bowl.beyond() > 0.0).then(|| "stiffer than the job wants".to_owned()),
            Signal::Loose => (bowl.beyond() < 0.0).then(|| "looser than the job wants".to_owned()),
            Signal::Protease => bowl.protease().then(|| "raw fruit that eats gelatin".to_owned()),
        }
    }

    /// How much it tells: what names a cause tells more than what any fault would show.
    pub fn weight(self) -> i32 {
        match self {
            Signal::Protease => 4,
            Signal::Below(Quantity::Water, _) => 3,
            Signal::Above(Quantity::Alcohol | Quantity::Acid, _)
            | Signal::Below(Quantity::Cook | Quantity::Hours, _) => 2,
            _ => 1,
        }
    }

    /// Whether it can be told for a bowl at all.
    pub fn known(self, bowl: &Bowl) -> bool {
        match self {
            Signal::Above(quantity, _) | Signal::Below(quantity, _) => bowl.quantity(quantity).is_some(),
            _ => true,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(text: &str) -> Result<Signal, String> {
        Signal::try_from(text.to_owned())
    }

    #[test]
    fn a_signal_reads_as_it_is_written() {
        assert_eq!(read("split>0.15"), Ok(Signal::Above(Quantity::Split, 0.15)));
        assert_eq!(read("t<-2.5"), Ok(Signal::Below(Quantity::Temperature, -2.5)));
        assert_eq!(read("stiff"), Ok(Signal::Stiff));
        for wrong in ["split", "moon>1", "t<", "t=5", ""] {
            assert!(read(wrong).is_err(), "{wrong} was taken");
        }
    }

    #[test]
    fn every_quantity_has_one_key_and_one_name() {
        for (k, (key, quantity, name, _)) in WORDS.iter().enumerate() {
            assert!(WORDS[..k].iter().all(|(other, of, ..)| other != key && of != quantity), "{key}");
            assert!(!name.is_empty());
        }
    }
}
