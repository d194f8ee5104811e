//! One step of making: who works, for how long, with what, after which others, and within which limits.

use crate::assess::spoon_sign::SpoonSign;
use crate::caution::Caution;
use crate::code::codes;
use crate::formula::Family;
use crate::ingredient::Role;
use crate::method::gear::{Gear, Resource};
use crate::units::Minutes;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Who works in a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Worker {
    /// The cook.
    Hands,
    /// A machine alone.
    Machine,
    /// Nobody: it must stand.
    Wait,
}

codes! {
    /// Where something stands while it waits.
    Spot {
        /// In the room, in the bowl or tray it is in.
        Room = "room",
        /// In the fridge.
        Fridge = "fridge",
        /// In the freezer.
        Freezer = "freezer",
        /// On a rack, air all round.
        Rack = "rack",
        /// In iced water.
        Ice = "ice",
    }
}

codes! {
    /// What a limit is for.
    LimitClass {
        /// Someone may fall ill: it is never stretched.
        Safety = "safety",
        /// It turns out worse.
        Quality = "quality",
        /// Somebody is waiting, or the door is locked.
        Hours = "hours",
    }
}

codes! {
    /// When a step is done.
    Moment {
        /// When the batch is made.
        Make = "make",
        /// At the place it is used: brushed on, poured over, into its mould.
        Use = "use",
    }
}

/// The next step begins within so many minutes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Limit {
    /// Minutes at most.
    pub minutes: Minutes,
    /// What it is for.
    pub class: LimitClass,
}

/// How long a step takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Duration {
    /// Hands or a machine: so many minutes, and so many more for each kilogram.
    Work {
        /// Whatever the size.
        base: Minutes,
        /// More for each kilogram.
        per_kg: Minutes,
    },
    /// Standing.
    Stand {
        /// At least.
        least: Minutes,
        /// At most.
        most: Minutes,
    },
}

impl Duration {
    /// Minutes from and to, for so many kilograms.
    pub fn minutes(self, kg: f64) -> [f64; 2] {
        match self {
            Duration::Work { base, per_kg } => [base.minutes() + per_kg.minutes() * kg; 2],
            Duration::Stand { least, most } => [least.minutes(), most.minutes()],
        }
    }
}

/// What a cooling goes to.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[serde(untagged)]
pub enum CoolTo {
    /// A temperature, °C.
    Degrees(f64),
    /// The work of the formula.
    Job(OfTheJob),
}

/// The word `job`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum OfTheJob {
    /// The temperature the formula is worked at.
    Job,
}

/// What a body cools in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum CoolIn {
    /// The bowl it was made in.
    Bowl,
    /// A wide tray.
    Tray,
    /// Its mould.
    Mould,
    /// A closed bottle.
    Bottle,
    /// Iced water, stirred.
    Ice,
}

/// What the clock of a step asks, once batch, vessel and place are known; the minutes of the table stand in for it until
/// then.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Clock {
    /// Cooled to a temperature.
    Cool {
        /// In what.
        r#in: CoolIn,
        /// To what.
        to: CoolTo,
    },
    /// Gelatin set to this share of its final firmness.
    Set(f64),
    /// Fat crystals grown to this share.
    Rest(f64),
    /// Starch set to this share.
    Starch(f64),
    /// Butter softened to this, °C.
    Soften(f64),
    /// Boiled to this, °C.
    Boil(f64),
    /// Heated to this, °C.
    Heat(f64),
    /// Over water to this, °C.
    Bath(f64),
}

/// One step.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// Its key within the school: what others need it by, and a kitchen's own minutes hang on.
    pub key: String,
    /// Who works.
    pub kind: Worker,
    /// What is done.
    pub what: String,
    /// With what.
    pub gear: Vec<Gear>,
    /// How long.
    pub time: Duration,
    /// Temperature, °C, from and to.
    pub t: Option<[f64; 2]>,
    /// The sign that it is done.
    pub until: String,
    /// What a spoonful does then, where that is the sign (common practice).
    pub spoon: Option<SpoonSign>,
    /// What goes wrong, and why.
    pub wrong: Vec<[String; 2]>,
    /// What can hurt.
    pub cautions: Vec<Caution>,
    /// How soon the next must begin.
    pub limit: Option<Limit>,
    /// What its longest wait is for.
    pub class: LimitClass,
    /// Only for a formula that has some of this.
    pub only: Option<Role>,
    /// Which steps above must be done before it.
    pub needs: Vec<usize>,
    /// When it is done.
    pub at: Moment,
    /// Only these lines are in it; all of them when empty.
    pub of: Vec<Role>,
    /// What goes in at it, of what it works on.
    pub adds: Vec<Role>,
    /// What it makes of nothing but these lines: where that was made before, there is nothing to do.
    pub makes: Vec<Family>,
    /// What it takes beside its gear.
    pub takes: Vec<Resource>,
    /// Where it stands; of a wait alone.
    pub place: Option<Spot>,
    /// What its clock asks.
    pub clock: Option<Clock>,
    /// Already so in a kitchen that keeps it so: a plan need not wait for it.
    pub given: bool,
    /// Never joined to what comes before or after it.
    pub alone: bool,
}

impl Step {
    /// What the kitchen lends it: what its gear takes, the mixer of a machine, and the rest.
    pub fn resources(&self) -> Vec<Resource> {
        let of_gear = self.gear.iter().filter_map(|gear| match gear.resource()? {
            // A whisk in the hand is no mixer.
            Resource::Mixer if self.kind == Worker::Hands && *gear == Gear::Whisk => None,
            resource => Some(resource),
        });
        let mut all: Vec<Resource> = of_gear.chain(self.takes.iter().copied()).collect();
        all.sort_unstable();
        all.dedup();
        all
    }
}
