//! The jobs a cream can have, as one type. What each answers about itself is its [`Duty`].

use crate::fault::{Fault, FaultCode};
use crate::formula::Family;
use crate::job::ask::Ask;
use crate::job::duty::{Duty, MapAxis, Measured};
use crate::job::jobs::*;
use crate::rheology::{History, Options};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A job with its geometry.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Job {
    /// Runs down a side in drips.
    Drip(DripGeometry),
    /// Covers a side in a film when poured.
    Coat(CoatGeometry),
    /// Spreads on a side and stays.
    Mask(MaskGeometry),
    /// Bears the layers above.
    Fill(FillGeometry),
    /// Goes through a nozzle and stands.
    Pipe(PipeGeometry),
    /// Stands on a plate, set.
    Set(SetGeometry),
    /// Is eaten with a spoon.
    Spoon(SpoonGeometry),
    /// Is drunk by a sponge.
    Soak(SoakGeometry),
    /// Whips up.
    Whip(WhipGeometry),
    /// Coats the spoon.
    Nappe(NappeGeometry),
}

impl Job {
    /// Every job with its usual geometry, in the order of the page.
    pub fn usual() -> [Job; 10] {
        [
            Job::Drip(DripGeometry::default()),
            Job::Coat(CoatGeometry::default()),
            Job::Mask(MaskGeometry::default()),
            Job::Fill(FillGeometry::default()),
            Job::Pipe(PipeGeometry::default()),
            Job::Set(SetGeometry::default()),
            Job::Spoon(SpoonGeometry::default()),
            Job::Soak(SoakGeometry::default()),
            Job::Whip(WhipGeometry::default()),
            Job::Nappe(NappeGeometry::default()),
        ]
    }

    /// What answers for it.
    pub fn duty(&self) -> &dyn Duty {
        match self {
            Job::Drip(job) => job,
            Job::Coat(job) => job,
            Job::Mask(job) => job,
            Job::Fill(job) => job,
            Job::Pipe(job) => job,
            Job::Set(job) => job,
            Job::Spoon(job) => job,
            Job::Soak(job) => job,
            Job::Whip(job) => job,
            Job::Nappe(job) => job,
        }
    }

    /// Its word, as on the wire and on the switch: "drip".
    pub fn word(&self) -> &'static str {
        self.duty().word()
    }

    /// What it is to do, after "to": "drip", "cut clean", "eat with a spoon".
    pub fn verb(&self) -> &'static str {
        self.duty().verb()
    }

    /// What is compared with the window.
    pub fn measured(&self) -> Measured {
        self.duty().measured()
    }

    /// What the map counts for this job of this family.
    pub fn axis(&self, family: Family) -> MapAxis {
        match self.duty().runs() || family.traits().thin {
            true => MapAxis::ViscosityPaS,
            false => MapAxis::YieldStressPa,
        }
    }

    /// Histories in which the job is done by this family, the usual one first.
    pub fn histories(&self, family: Family) -> &'static [History] {
        self.duty().histories(family)
    }

    /// The process as this job asks it: whipping is judged on the liquid cream.
    pub fn options(&self, options: Options) -> Options {
        self.duty().options(options)
    }

    /// Its geometry as a sentence with blanks.
    pub fn asks(&self) -> Vec<Ask> {
        self.duty().asks()
    }

    /// The window [low, high] of what is measured, for a cream of `density` kg/m³.
    pub fn window(&self, density: f64) -> [f64; 2] {
        self.duty().window(density)
    }

    /// Faults of the geometry as such: limits that cross.
    pub fn faults(&self, path: &str) -> Vec<Fault> {
        let crossed = self.duty().crossed();
        crossed
            .map(|(field, message)| Fault::new(format!("{path}.{field}"), FaultCode::LimitsCrossed, message))
            .into_iter()
            .collect()
    }
}
