//! The open format of a kitchen: when it is open, who is there, and what stands in it.

use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::heat::safety::CoolingRule;
use crate::method::gear::Resource;
use crate::method::listed::has_step;
use jiff::civil::{Date, DateTime, Time, time};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

codes! {
    /// A day of the week.
    Weekday {
        /// Monday.
        Monday = "monday",
        /// Tuesday.
        Tuesday = "tuesday",
        /// Wednesday.
        Wednesday = "wednesday",
        /// Thursday.
        Thursday = "thursday",
        /// Friday.
        Friday = "friday",
        /// Saturday.
        Saturday = "saturday",
        /// Sunday.
        Sunday = "sunday",
    }
}

codes! {
    /// What not every cook does.
    Skill {
        /// Boils sugar.
        Sugar = "sugar",
        /// Pipes and drips.
        Pipe = "pipe",
        /// Bakes.
        Bake = "bake",
    }
}

/// A kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitchenDocument {
    /// Always `bright-spoon/kitchen`.
    #[schema(example = "bright-spoon/kitchen")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// What it is called.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// Opening hours of a week.
    #[schema(max_items = 28)]
    pub hours: Vec<WeekHours>,
    /// Days on which they are others.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 400)]
    pub dates: Vec<DateHours>,
    /// When a kitchen day begins: a bakery that works through the night works one day.
    #[serde(default = "four")]
    #[schema(value_type = String, example = "04:00:00", pattern = r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$")]
    pub day_starts: Time,
    /// Who works there.
    #[schema(max_items = 12)]
    pub cooks: Vec<CookDocument>,
    /// What stands in it.
    pub equipment: Equipment,
    /// When something is out of use.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 100)]
    pub out_of_use: Vec<OutOfUse>,
    /// Whose limits of cooling are kept; local codes decide.
    #[serde(default = "us_fda")]
    pub cooling_rule: CoolingRule,
    /// What is held back for a day that goes wrong.
    #[serde(default)]
    pub reserve: HeldBack,
    /// One batch for several orders, where it keeps from the first to the last.
    #[serde(default = "yes")]
    pub shares: bool,
    /// The kitchen's own minutes for steps.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 500)]
    pub own_minutes: Vec<OwnMinutes>,
}

fn four() -> Time {
    time(4, 0, 0, 0)
}

fn yes() -> bool {
    true
}

fn us_fda() -> CoolingRule {
    CoolingRule::UsFda
}

/// The same hours on some days of the week.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WeekHours {
    /// On which days.
    #[schema(max_items = 7)]
    pub on: Vec<Weekday>,
    /// From.
    #[schema(value_type = String, example = "07:00:00", pattern = r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$")]
    pub from: Time,
    /// To; the next morning when it is not after `from`.
    #[schema(value_type = String, example = "18:00:00", pattern = r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$")]
    pub to: Time,
}

/// The hours of one date.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DateHours {
    /// The date.
    #[schema(value_type = String, example = "2026-12-24", pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
    pub on: Date,
    /// From and to; closed when there is none.
    #[serde(default)]
    #[schema(max_items = 4)]
    pub hours: Vec<TimeSpan>,
}

/// From and to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TimeSpan {
    /// From.
    #[schema(value_type = String, example = "07:00:00", pattern = r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$")]
    pub from: Time,
    /// To; the next morning when it is not after `from`.
    #[schema(value_type = String, example = "13:00:00", pattern = r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$")]
    pub to: Time,
}

/// A cook.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookDocument {
    /// Name.
    #[schema(max_length = 60)]
    pub name: String,
    /// When they are there; whenever the kitchen is open when nothing is written.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 28)]
    pub hours: Vec<WeekHours>,
    /// What they do not do.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 3)]
    pub cannot: Vec<Skill>,
}

/// Trays of an oven.
#[derive(ToSchema)]
#[schema(minimum = 0, maximum = 100)]
#[allow(dead_code)]
struct Trays(u32);

/// What stands in a kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Equipment {
    /// Mixers: litres of the bowl of each.
    #[schema(max_items = 10)]
    pub mixers_l: Vec<f64>,
    /// Ovens: trays of each.
    #[schema(max_items = 10, value_type = Vec<Trays>)]
    pub ovens_trays: Vec<u32>,
    /// Places on the hob.
    #[schema(maximum = 20)]
    pub hobs: u32,
    /// Microwave ovens.
    #[serde(default)]
    #[schema(maximum = 10)]
    pub microwaves: u32,
    /// Stick blenders.
    #[serde(default)]
    #[schema(maximum = 10)]
    pub blenders: u32,
    /// Bowls that can stand in iced water at a time.
    #[serde(default)]
    #[schema(maximum = 10)]
    pub ice: u32,
    /// Trays of a blast chiller.
    #[serde(default)]
    #[schema(maximum = 200)]
    pub blast_trays: u32,
    /// Trays that can stand on racks.
    #[schema(maximum = 200)]
    pub rack_trays: u32,
    /// The fridge.
    pub fridge: Shelves,
    /// The freezer.
    pub freezer: Shelves,
}

/// Shelves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Shelves {
    /// How many.
    #[schema(maximum = 200)]
    pub shelves: u32,
    /// Area of each, cm².
    #[schema(minimum = 100, maximum = 50000)]
    pub area_cm2: f64,
    /// From one to the next, mm.
    #[schema(minimum = 20, maximum = 2000)]
    pub spacing_mm: f64,
}

/// Something out of use for a while.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OutOfUse {
    /// What.
    pub what: Resource,
    /// From, in the kitchen's own time.
    #[schema(
        value_type = String, example = "2026-12-05T12:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub from: DateTime,
    /// To.
    #[schema(
        value_type = String, example = "2026-12-05T15:00:00",
        pattern = r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?$"
    )]
    pub to: DateTime,
    /// How many of it are left meanwhile.
    #[serde(default)]
    #[schema(maximum = 1000)]
    pub left: u32,
}

/// What is held back, min.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeldBack {
    /// Before each serving.
    #[schema(maximum = 1440)]
    pub serve_min: u32,
    /// Inside each longest wait.
    #[schema(maximum = 1440)]
    pub inside_min: u32,
}

impl Default for HeldBack {
    fn default() -> Self {
        HeldBack { serve_min: 30, inside_min: 10 }
    }
}

/// The kitchen's own minutes for a step of a school.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnMinutes {
    /// Key of the school.
    #[schema(max_length = 60)]
    pub school: String,
    /// Key of the step.
    #[schema(max_length = 60)]
    pub step: String,
    /// Minutes whatever the size, and more for each kilogram.
    #[schema(min_items = 2, max_items = 2)]
    pub minutes: [f64; 2],
}

impl KitchenDocument {
    /// Its own minutes for a step; those for a step of what is made first, as "custard.heat", are those of its own school where
    /// none are written for it inside the other.
    pub fn own_minutes(&self, school: &str, step: &str) -> Option<&OwnMinutes> {
        let find = |school: &str, step: &str| {
            self.own_minutes.iter().find(|own| own.school == school && own.step == step)
        };
        find(school, step).or_else(|| step.split_once('.').and_then(|(base, step)| find(base, step)))
    }

    /// A kitchen of one cook with what a small pastry room has (assumed).
    pub fn usual() -> Self {
        let open =
            |on: &[Weekday]| WeekHours { on: on.to_vec(), from: time(7, 0, 0, 0), to: time(18, 0, 0, 0) };
        KitchenDocument {
            format: format::KITCHEN.name.to_owned(),
            version: format::KITCHEN.version,
            name: String::new(),
            hours: vec![open(&Weekday::ALL[..6])],
            dates: Vec::new(),
            day_starts: four(),
            cooks: vec![CookDocument { name: "Cook".to_owned(), hours: Vec::new(), cannot: Vec::new() }],
            equipment: Equipment {
                mixers_l: vec![7.0],
                ovens_trays: vec![4],
                hobs: 4,
                microwaves: 1,
                blenders: 1,
                ice: 1,
                blast_trays: 0,
                rack_trays: 12,
                fridge: Shelves { shelves: 8, area_cm2: 2400.0, spacing_mm: 150.0 },
                freezer: Shelves { shelves: 4, area_cm2: 2400.0, spacing_mm: 120.0 },
            },
            out_of_use: Vec::new(),
            cooling_rule: us_fda(),
            reserve: HeldBack::default(),
            shares: true,
            own_minutes: Vec::new(),
        }
    }

    /// What makes it no kitchen that can be planned in, each at its field.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::KITCHEN.faults(&self.format, self.version);
        let mut say =
            |field: String, message: String| faults.push(Fault::new(field, FaultCode::OutOfRange, message));
        if self.hours.iter().all(|own| own.on.is_empty()) && self.dates.iter().all(|own| own.hours.is_empty())
        {
            say("hours".to_owned(), "the kitchen is never open: write when it is".to_owned());
        }
        if self.cooks.is_empty() {
            say("cooks".to_owned(), "nobody works there: add a cook".to_owned());
        }
        for (at, cook) in self.cooks.iter().enumerate() {
            if cook.name.trim().is_empty() {
                say(format!("cooks.{at}.name"), "write who it is, for the run sheet".to_owned());
            }
            if self.cooks[..at].iter().any(|other| other.name.trim() == cook.name.trim()) {
                let words = format!("two cooks are called {}: write them apart", cook.name.trim());
                say(format!("cooks.{at}.name"), words);
            }
            if !cook.hours.is_empty() && cook.hours.iter().all(|own| own.on.is_empty()) {
                let words = format!("{} is never there: choose the days, or no hours at all", cook.name);
                say(format!("cooks.{at}.hours"), words);
            }
        }
        for (at, litres) in self.equipment.mixers_l.iter().enumerate() {
            if !(0.5..=200.0).contains(litres) {
                say(
                    format!("equipment.mixers_l.{at}"),
                    format!("{litres} l of a mixer bowl: write 0.5 to 200"),
                );
            }
        }
        for (at, trays) in self.equipment.ovens_trays.iter().enumerate().filter(|(_, trays)| **trays > 100) {
            say(format!("equipment.ovens_trays.{at}"), format!("{trays} trays of an oven: write up to 100"));
        }
        for (name, own) in [("fridge", self.equipment.fridge), ("freezer", self.equipment.freezer)] {
            let is_one =
                (100.0..=50_000.0).contains(&own.area_cm2) && (20.0..=2000.0).contains(&own.spacing_mm);
            if !is_one || own.shelves > 200 {
                let words = "write up to 200 shelves, 100 to 50000 cm² each, 20 to 2000 mm apart";
                say(format!("equipment.{name}"), words.to_owned());
            }
        }
        for (at, out) in self.out_of_use.iter().enumerate() {
            if out.from >= out.to {
                say(format!("out_of_use.{at}.to"), format!("until {} is not after {}", out.to, out.from));
            }
        }
        for (at, own) in self.own_minutes.iter().enumerate() {
            if own.minutes.iter().any(|minutes| !(0.0..=1440.0).contains(minutes)) {
                say(format!("own_minutes.{at}.minutes"), "write 0 to 1440 min".to_owned());
            }
            if !has_step(&own.school, &own.step) {
                let words = format!(
                    "no method “{}” has a step “{}”: choose one that is there, or take the row out",
                    own.school, own.step
                );
                say(format!("own_minutes.{at}.step"), words);
            }
        }
        faults
    }
}
