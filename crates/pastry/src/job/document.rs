//! The open format of a formula: a JSON document, versioned, with a published schema. The same
//! document is read from a file, taken by the HTTP interface and kept as a revision.

use crate::formula::{Family, Fault, Formula, Line};
use crate::job::geometry::Job;
use crate::rheology::{History, Options};
use crate::units::Temperature;
use crate::units::kitchen::Measures;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the `format` field says.
pub const FORMAT: &str = "bright-spoon/formula";
/// The version of the format written and read here.
pub const VERSION: u32 = 1;
/// Longest name, characters.
pub const LONGEST_NAME: usize = 120;
/// Longest note, characters.
pub const LONGEST_NOTE: usize = 4000;

/// The work a cream is meant for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Work {
    /// The job and its geometry.
    pub job: Job,
    /// Temperature of the cream at work, °C.
    #[schema(minimum = 0, maximum = 45, example = 29.0)]
    pub temperature_c: Temperature,
    /// Temperature of the room, °C.
    #[schema(minimum = 0, maximum = 45, example = 21.5)]
    pub room_temperature_c: Temperature,
    /// Whether it is worked fresh, rested or worked; the job's own when not given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub history: Option<History>,
}

/// A formula with the work it is for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulaDocument {
    /// Always `bright-spoon/formula`.
    #[schema(example = "bright-spoon/formula")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1)]
    pub version: u32,
    /// What the cook calls it.
    #[serde(default)]
    #[schema(max_length = 120, example = "Dark drip")]
    pub name: String,
    /// Anything worth remembering.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 4000)]
    pub note: String,
    /// Family of the cream.
    pub family: Family,
    /// Whose cups and spoons are meant.
    #[serde(default)]
    pub measures: Measures,
    /// What goes in, in the order of the cook.
    #[schema(min_items = 1, max_items = 60)]
    pub lines: Vec<Line>,
    /// What it is for.
    pub work: Work,
}

impl FormulaDocument {
    /// The formula in it.
    pub fn formula(&self) -> Formula {
        Formula { family: self.family, lines: self.lines.clone(), measures: self.measures }
    }

    /// The history it is judged in.
    pub fn history(&self) -> History {
        self.work.history.unwrap_or(self.work.job.histories()[0])
    }

    /// Process options: the family's habits.
    pub fn options(&self) -> Options {
        Options::default()
    }

    /// Faults of everything but the lines: format, texts, geometry, a history the job cannot have.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        if self.format != FORMAT {
            let shown: String = self.format.chars().take(40).collect();
            let message = format!("this is “{shown}”, not a formula: the format field must say {FORMAT}");
            faults.push(Fault::new("format", "unknown_format", message));
        }
        if self.version != VERSION {
            let message = format!(
                "version {} is not known here: this program reads version {VERSION}; update it, or save the file as version {VERSION}",
                self.version
            );
            faults.push(Fault::new("version", "unknown_version", message));
        }
        for (field, text, most) in [("name", &self.name, LONGEST_NAME), ("note", &self.note, LONGEST_NOTE)] {
            let long = text.chars().count();
            if long > most {
                let message = format!("the {field} has {long} letters: shorten it to {most}");
                faults.push(Fault::new(field, "too_long", message));
            }
        }
        if !self.family.has_jobs() {
            let message = format!("{} cannot be judged here yet: use ganache", self.family.word());
            faults.push(Fault::new("family", "family_not_ready", message));
        }
        faults.extend(self.work.job.faults("work.job"));
        if !self.work.job.histories().contains(&self.history()) {
            let verb = self.work.job.verb();
            let allowed: Vec<&str> = self.work.job.histories().iter().map(|h| history_word(*h)).collect();
            let message =
                format!("to {verb}, it is judged {}: choose that, or leave it out", allowed.join(" or "));
            faults.push(Fault::new("work.history", "history_of_another_job", message));
        }
        faults
    }
}

/// A history in kitchen words.
pub fn history_word(history: History) -> &'static str {
    match history {
        History::Fresh => "just made",
        History::Rested => "set overnight",
        History::Worked => "set, then stirred",
    }
}
