//! The open format of a formula: a JSON document, versioned, with a published schema. The same
//! document is read from a file, taken by the HTTP interface and kept as a revision.

use crate::assess::usual;
use crate::fault::FaultCode;
use crate::format;
use crate::formula::process::GroupCooks;
use crate::formula::{Air, Family, Fault, Formula, Line, Process, Rules, WeighedLine};
use crate::ingredient::IngredientDocument;
use crate::ingredient::key::named_in;
use crate::job::kind::Job;
use crate::rheology::consistency::Correction;
use crate::rheology::{Grid, History, Options};
use crate::units::kitchen::Measures;
use crate::units::{CookTemperature, Hours, Minutes, RoomTemperature, Temperature};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the `format` field says.
pub const FORMAT: &str = format::FORMULA.name;
/// The version of the format written and read here.
pub const VERSION: u32 = format::FORMULA.version;

/// The work a cream is meant for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Work {
    /// The job and its geometry.
    pub job: Job,
    /// Temperature of the cream at work, °C: up to 45, or 90 for what is worked hot.
    #[schema(minimum = 0, maximum = 95, example = 29.0)]
    pub temperature_c: Temperature,
    /// Temperature of the room, °C.
    #[schema(minimum = 0, maximum = 45, example = 21.5)]
    pub room_temperature_c: RoomTemperature,
    /// Whether it is worked fresh, rested or worked; the job's own when not given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub history: Option<History>,
    /// Temperature at which it is poured before it sets, °C, for families that are.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 95)]
    pub pour_temperature_c: Option<Temperature>,
}

/// A formula with the work it is for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulaDocument {
    /// Always `bright-spoon/formula`.
    #[schema(example = "bright-spoon/formula")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
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
    /// What was done in the making, where it matters.
    #[serde(default, skip_serializing_if = "Process::is_usual")]
    pub process: Process,
    /// Key of the school of method it is made by; the family's first when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60, example = "ganache_pour")]
    pub method: Option<String>,
    /// The ingredient that per cent are of; of the whole when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub percent_of: Option<String>,
    /// Own ingredients that its lines use, so that another kitchen weighs and judges the same. A kitchen
    /// that has one by the same key uses its own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub ingredients: Vec<IngredientDocument>,
    /// Components its lines name, and those these name, so that another kitchen makes the same. A kitchen that has one by
    /// the same key uses its own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60, no_recursion)]
    pub components: Vec<BroughtComponent>,
    /// What must hold when ways are looked for.
    #[serde(default, skip_serializing_if = "Rules::is_free")]
    pub rules: Rules,
    /// What it is for.
    pub work: Work,
}

impl FormulaDocument {
    /// A document of a family for a job, with nothing in it yet.
    pub fn empty(family: Family, job: Job, temperature_c: f64) -> Self {
        FormulaDocument {
            format: FORMAT.to_owned(),
            version: VERSION,
            name: String::new(),
            note: String::new(),
            family,
            measures: Measures::default(),
            lines: Vec::new(),
            process: Process::default(),
            method: None,
            percent_of: None,
            ingredients: Vec::new(),
            components: Vec::new(),
            rules: Rules::default(),
            work: Work {
                job,
                temperature_c: Temperature::from_celsius(temperature_c),
                room_temperature_c: RoomTemperature::from_celsius(21.0),
                history: None,
                pour_temperature_c: None,
            },
        }
    }

    /// The formula in it.
    pub fn formula(&self) -> Formula {
        Formula {
            family: self.family,
            lines: self.lines.clone(),
            measures: self.measures,
            percent_of: self.percent_of.clone(),
        }
    }

    /// The history it is judged in.
    pub fn history(&self) -> History {
        self.work.history.unwrap_or(self.work.job.histories(self.family)[0])
    }

    /// The temperatures of its map.
    pub fn grid(&self) -> Grid {
        Grid::reaching(self.family.traits().hottest_c)
    }

    /// Process options: what was done, else the family's habits.
    pub fn options(&self, lines: &[WeighedLine]) -> Options {
        let cook_c = self.process.cook_c.map(CookTemperature::celsius);
        let air = self.air(lines);
        Options {
            overrun: Some(air.overrun_percent / 100.0),
            whip: Some(air.whip),
            cook_c,
            worked: None,
            hours: self.process.set_hours.map(Hours::hours),
            held_min: self.process.held_min.map(Minutes::minutes),
            cooks: GroupCooks::of(lines, cook_c),
            clock: None,
            worked_c: None,
            least_sigma: self.family.traits().least_sigma,
            // What was taught is added where the kitchen's shelf is known.
            learned: Correction::NONE,
        }
    }

    /// The air in it, as it is beaten or brought.
    ///
    /// # Arguments
    /// * `lines`: its lines as they are weighed.
    pub fn air(&self, lines: &[WeighedLine]) -> Air {
        Air::of(&self.process, self.family, lines)
    }

    /// Its name, or what it is.
    pub fn called(&self) -> &str {
        match self.name.trim() {
            "" => self.family.word(),
            name => name,
        }
    }

    /// Keys of all ingredients that it and the components it brings name.
    pub fn ingredient_keys(&self) -> Vec<&str> {
        let mut keys: Vec<&str> = self.lines.iter().map(|line| line.ingredient.as_str()).collect();
        for own in &self.components {
            keys.extend(own.document.ingredient_keys());
        }
        keys
    }

    /// Keys of the components its lines name, without what stands before them.
    pub fn made_here(&self) -> impl Iterator<Item = &str> {
        self.lines.iter().filter_map(|line| named_in(&line.ingredient))
    }

    /// Faults of everything but the lines: format, texts, geometry, a history the job cannot have.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::FORMULA.faults(&self.format, self.version);
        faults.extend(format::text_faults(&self.name, &self.note));
        let jobs = usual::jobs(self.family);
        if !jobs.contains(&self.work.job.word()) {
            let message = format!(
                "a {} is not judged here to {}: choose {}",
                self.family.word(),
                self.work.job.verb(),
                jobs.join(", ")
            );
            faults.push(Fault::new("work.job.kind", FaultCode::JobOfAnotherFamily, message));
        } else if !self.work.job.histories(self.family).contains(&self.history()) {
            let allowed: Vec<&str> =
                self.work.job.histories(self.family).iter().map(|h| history_word(*h)).collect();
            let message = format!(
                "to {}, it is judged {}: choose that, or leave it out",
                self.work.job.verb(),
                allowed.join(" or ")
            );
            faults.push(Fault::new("work.history", FaultCode::HistoryOfAnotherJob, message));
        }
        faults.extend(self.work.job.faults("work.job"));
        let hottest = self.grid().hottest_c();
        let temperatures = [
            ("work.temperature_c", Some(self.work.temperature_c)),
            ("work.pour_temperature_c", self.work.pour_temperature_c),
        ];
        for (field, t) in temperatures {
            if let Some(t) = t.filter(|t| t.celsius() > hottest) {
                let message = format!(
                    "a {} is judged up to {hottest} °C here, not {}",
                    self.family.word(),
                    t.celsius()
                );
                faults.push(Fault::new(field, FaultCode::OutOfRange, message));
            }
        }
        faults
    }
}

/// A component that a document brings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BroughtComponent {
    /// The key it is named by; of a revision that is held, with `@` and its number.
    #[schema(max_length = 60)]
    pub key: String,
    /// The formula.
    pub document: FormulaDocument,
}

/// A history in kitchen words.
pub fn history_word(history: History) -> &'static str {
    match history {
        History::Fresh => "just made",
        History::Rested => "set overnight",
        History::Worked => "set, then stirred",
    }
}
