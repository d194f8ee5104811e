//! What happens to a batch while it is made: events that are only added.

use crate::assess::spoon_sign::SpoonSign;
use crate::bench_test::test::{BenchTest, BenchTestKind};
use crate::code::codes;
use crate::rheology::consistency::History;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most that a bench scale of a pastry room weighs at once, g (assumed).
pub const MOST_G: f64 = 200_000.0;
/// Coldest and hottest that anything in a pastry room is, °C: a blast freezer, caramel.
pub const READ_C: [f64; 2] = [-60.0, 220.0];
/// Longest a timer runs, min: two days.
pub const LONGEST_TIMER_MIN: f64 = 2880.0;
/// Most letters of what a cook says in an event.
pub const LONGEST_WORDS: usize = 400;

codes! {
    /// What a number was read from.
    ReadBy {
        /// A scale or a probe that is connected.
        Device = "device",
        /// The cook, who typed it.
        Hand = "hand",
    }
}

codes! {
    /// What was done about a line that went past its mark.
    OverWay {
        /// It stays as it is.
        Leave = "leave",
        /// Something else brings it back.
        Restore = "restore",
        /// Everything else is made more.
        Scale = "scale",
    }
}

codes! {
    /// How a batch came out.
    Came {
        /// As it should.
        Good = "good",
        /// Stiffer than wanted.
        Stiff = "stiff",
        /// Looser than wanted.
        Loose = "loose",
        /// Fat and water went apart.
        Split = "split",
        /// Not smooth.
        Grainy = "grainy",
        /// It was thrown away.
        Thrown = "thrown",
    }
}

/// What happened to a batch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "what", rename_all = "snake_case", deny_unknown_fields)]
pub enum BatchEvent {
    /// So much of a line went in.
    Weighed {
        /// Number of the line in the formula.
        #[schema(maximum = 59)]
        line: usize,
        /// How much went in, g.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
        /// What it was read from.
        by: ReadBy,
        /// From which lot, as the cook says.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        #[schema(max_length = 80)]
        lot: Option<String>,
    },
    /// The scale was set to nothing with a bowl on it.
    Tared {
        /// Weight of the bowl, g; 0 where the kitchen has it no more.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
        /// Which of the cook's own bowls.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        #[schema(max_length = 80)]
        bowl: Option<String>,
    },
    /// Somebody is at a step.
    Begun {
        /// Its key.
        #[schema(max_length = 120)]
        step: String,
    },
    /// A step is done.
    Done {
        /// Its key.
        #[schema(max_length = 120)]
        step: String,
    },
    /// A line is left out on purpose.
    LineLeftOut {
        /// Number of the line in the formula.
        #[schema(maximum = 59)]
        line: usize,
        /// Why.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        why: String,
    },
    /// A step is left out on purpose.
    StepLeftOut {
        /// Its key.
        #[schema(max_length = 120)]
        step: String,
        /// Why.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        why: String,
    },
    /// A temperature was read.
    Read {
        /// °C.
        #[schema(minimum = -60, maximum = 220)]
        c: f64,
        /// What it was read from.
        by: ReadBy,
    },
    /// The sign of a step was looked for.
    Seen {
        /// Key of the step.
        #[schema(max_length = 120)]
        step: String,
        /// Whether it was there.
        there: bool,
        /// What was seen instead.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        words: String,
    },
    /// What was decided about a line that went past its mark.
    Decided {
        /// Number of the line in the formula.
        #[schema(maximum = 59)]
        line: usize,
        /// What.
        way: OverWay,
        /// By what every line is multiplied, where the batch is made larger.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        #[schema(minimum = 1, maximum = 10)]
        factor: Option<f64>,
    },
    /// Something went in that no line asks for.
    Added {
        /// Key of the ingredient.
        #[schema(max_length = 60)]
        ingredient: String,
        /// How much, g.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
        /// Why.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        why: String,
    },
    /// Some of what was in was lost or taken out.
    Lost {
        /// Of which line, where it is of one; of everything else.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        #[schema(maximum = 59)]
        line: Option<usize>,
        /// How much, g.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
        /// Why.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        why: String,
    },
    /// A test was done at the bench.
    Tested {
        /// What was done and read.
        test: BenchTest,
        /// At which temperature, °C.
        #[schema(minimum = -60, maximum = 220)]
        c: f64,
        /// What had happened to the cream; what its work asks for when nobody says.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        history: Option<History>,
    },
    /// Whether a test counts for what the kitchen learns; it does while nobody says.
    Counted {
        /// Id of the event of the test.
        #[schema(max_length = 64)]
        of: String,
        /// Whether it counts.
        counts: bool,
    },
    /// Something worth remembering.
    Noted {
        /// What.
        #[schema(max_length = 400)]
        words: String,
    },
    /// A clock was set.
    TimerSet {
        /// What for.
        #[schema(max_length = 80)]
        name: String,
        /// For how long, min.
        #[schema(minimum = 0, maximum = 2880)]
        min: f64,
    },
    /// A clock was stopped, or its ring was heard.
    TimerOff {
        /// Id of the event that set it.
        #[schema(max_length = 64)]
        timer: String,
    },
    /// What came out was weighed.
    Yielded {
        /// g.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
    },
    /// How it came out.
    Judged {
        /// In a word.
        came: Came,
        /// What was seen on the spoon.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        spoon: Option<SpoonSign>,
        /// And in more.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        #[schema(max_length = 400)]
        words: String,
    },
    /// Where it stands now.
    Put {
        /// A place as the kitchen calls it: one of its fridges, a shelf.
        #[schema(min_length = 1, max_length = 80)]
        place: String,
    },
    /// So much of it is left over.
    LeftOver {
        /// g.
        #[schema(minimum = 0, maximum = 200000)]
        grams: f64,
    },
    /// Nothing of it is left.
    UsedUp {},
    /// The batch is made.
    Closed {},
    /// An event said another number than was read: the old one stays readable.
    Corrected {
        /// Id of the event.
        #[schema(max_length = 64)]
        of: String,
        /// The number it should have said: grams, or °C of a temperature.
        #[schema(minimum = -60, maximum = 200000)]
        to: f64,
    },
    /// An event does not count: it was said by mistake.
    TakenBack {
        /// Id of the event.
        #[schema(max_length = 64)]
        of: String,
    },
}

/// An event with where it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchEntry {
    /// Made on the device that wrote it, once for each.
    #[schema(min_length = 8, max_length = 64, pattern = "^[A-Za-z0-9-]+$")]
    pub id: String,
    /// When it happened, RFC 3339.
    #[schema(
        value_type = String, example = "2026-12-05T11:42:00Z",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?(Z|[+-]([01]\d|2[0-3]):[0-5]\d)$"
    )]
    pub at: Timestamp,
    /// On which device, if that said so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 80)]
    pub device: Option<String>,
    /// What happened.
    pub event: BatchEvent,
}

impl BatchEvent {
    /// Whether a correction can mean it: it says a number that was read.
    pub fn says_a_number(&self) -> bool {
        matches!(
            self,
            BatchEvent::Weighed { .. }
                | BatchEvent::Read { .. }
                | BatchEvent::Added { .. }
                | BatchEvent::Lost { .. }
                | BatchEvent::Tared { .. }
                | BatchEvent::Yielded { .. }
                | BatchEvent::LeftOver { .. }
        ) || matches!(self, BatchEvent::Tested { test, .. } if test.kind() != BenchTestKind::SpoonFall)
    }

    /// The same with another number.
    pub fn corrected(&self, to: f64) -> BatchEvent {
        let mut event = self.clone();
        match &mut event {
            BatchEvent::Weighed { grams, .. }
            | BatchEvent::Added { grams, .. }
            | BatchEvent::Lost { grams, .. }
            | BatchEvent::Tared { grams, .. }
            | BatchEvent::Yielded { grams }
            | BatchEvent::LeftOver { grams } => *grams = to,
            BatchEvent::Read { c, .. } => *c = to,
            BatchEvent::Tested { test, .. } => *test = test.with_read(to),
            _ => {}
        }
        event
    }

    /// Whether it can happen to a batch that is made: it is moved, tested, tasted, and used.
    pub fn happens_afterwards(&self) -> bool {
        matches!(
            self,
            BatchEvent::Put { .. }
                | BatchEvent::LeftOver { .. }
                | BatchEvent::UsedUp {}
                | BatchEvent::Tested { .. }
                | BatchEvent::Counted { .. }
                | BatchEvent::Noted { .. }
                | BatchEvent::Judged { .. }
        )
    }

    /// The line it is about.
    pub fn line(&self) -> Option<usize> {
        match self {
            BatchEvent::Weighed { line, .. }
            | BatchEvent::LineLeftOut { line, .. }
            | BatchEvent::Decided { line, .. } => Some(*line),
            BatchEvent::Lost { line, .. } => *line,
            _ => None,
        }
    }

    /// The step it is about.
    pub fn step(&self) -> Option<&str> {
        match self {
            BatchEvent::Begun { step }
            | BatchEvent::Done { step }
            | BatchEvent::StepLeftOut { step, .. }
            | BatchEvent::Seen { step, .. } => Some(step),
            _ => None,
        }
    }

    /// What a cook says in it, each at its field.
    pub fn texts(&self) -> Vec<(&'static str, &str)> {
        match self {
            BatchEvent::LineLeftOut { why, .. }
            | BatchEvent::StepLeftOut { why, .. }
            | BatchEvent::Added { why, .. }
            | BatchEvent::Lost { why, .. } => vec![("why", why)],
            BatchEvent::Seen { words, .. }
            | BatchEvent::Noted { words }
            | BatchEvent::Judged { words, .. } => vec![("words", words)],
            BatchEvent::TimerSet { name, .. } => vec![("name", name)],
            BatchEvent::Put { place } => vec![("place", place)],
            BatchEvent::Weighed { lot: Some(words), .. } => vec![("lot", words)],
            BatchEvent::Tared { bowl: Some(words), .. } => vec![("bowl", words)],
            _ => Vec::new(),
        }
    }
}
