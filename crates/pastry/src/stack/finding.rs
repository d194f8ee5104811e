//! What is found of a cake: a sentence with its number and its limit, the smallest mend, and the work to be put
//! on the Bench.

use crate::assess::document::Work;
use serde::Serialize;
use utoipa::ToSchema;

/// How a place stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Standing {
    /// It holds.
    Holds,
    /// Only just, or with care.
    Care,
    /// It does not.
    Trouble,
}

/// One thing found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Stable code.
    pub code: String,
    /// The place it is at: a path in the document.
    pub place: String,
    /// How it stands.
    pub standing: Standing,
    /// In one sentence, with its number.
    pub sentence: String,
    /// The number, where there is one.
    pub value: Option<f64>,
    /// Its limit.
    pub limit: Option<f64>,
    /// Unit of both.
    pub unit: Option<String>,
    /// The smallest change that mends it.
    pub mend: Option<Mend>,
    /// What to judge on the Bench.
    pub bench: Option<BenchWork>,
}

/// A change of the document that mends.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mend {
    /// What to do, as on a button: "Set it to 6 mm".
    pub words: String,
    /// Where in the document; empty for what is done by hand or on the Bench.
    pub path: String,
    /// What to write there; absent takes it away.
    pub value: Option<serde_json::Value>,
}

/// A component with the work this place asks of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BenchWork {
    /// Key of the component.
    pub component: String,
    /// The job as this place asks it.
    pub work: Work,
}

impl Finding {
    /// A finding with words alone.
    pub fn new(
        code: &str,
        place: impl Into<String>,
        standing: Standing,
        sentence: impl Into<String>,
    ) -> Self {
        Finding {
            code: code.to_owned(),
            place: place.into(),
            standing,
            sentence: sentence.into(),
            value: None,
            limit: None,
            unit: None,
            mend: None,
            bench: None,
        }
    }

    /// With its number and its limit.
    pub fn of(mut self, value: f64, limit: f64, unit: &str) -> Self {
        use crate::number::digits;
        (self.value, self.limit, self.unit) =
            (Some(digits(value)), Some(digits(limit)), Some(unit.to_owned()));
        self
    }

    /// Its head, and what stands behind its colon; a colon inside one of the `names` in it parts nothing.
    pub fn parted(&self, names: &[String]) -> (&str, &str) {
        let sentence = self.sentence.as_str();
        let inside = |at: usize| {
            names.iter().filter(|name| name.contains(": ")).any(|name| {
                sentence
                    .match_indices(name.as_str())
                    .any(|(from, own)| (from..from + own.len()).contains(&at))
            })
        };
        let colon = sentence.match_indices(": ").map(|(at, _)| at).find(|at| !inside(*at));
        match colon {
            Some(at) => (&sentence[..at], &sentence[at + 2..]),
            None => (sentence.trim_end_matches('.'), ""),
        }
    }

    /// With a mend.
    pub fn mended(mut self, mend: Option<Mend>) -> Self {
        self.mend = mend;
        self
    }

    /// With the work for the Bench.
    pub fn on_the_bench(mut self, bench: Option<BenchWork>) -> Self {
        self.bench = bench;
        self
    }
}

impl Mend {
    /// Writes a value at a path.
    pub fn set(
        words: impl Into<String>,
        path: impl Into<String>,
        value: impl Into<serde_json::Value>,
    ) -> Self {
        Mend { words: words.into(), path: path.into(), value: Some(value.into()) }
    }

    /// Done by hand.
    pub fn by_hand(words: impl Into<String>) -> Self {
        Mend { words: words.into(), path: String::new(), value: None }
    }
}
