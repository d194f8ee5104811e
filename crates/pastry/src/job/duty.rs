//! What every job answers about itself, each in its own file of [`crate::job::jobs`], and what a judgement is.

use crate::code::codes;
use crate::formula::{Family, System};
use crate::job::ask::Ask;
use crate::number::{digits, limit, two_digits};
use crate::rheology::chance::chance;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::kernel::Prepared;
use crate::rheology::warning::Warning;
use crate::rheology::{History, Options, Unchecked};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Half width of the 90 % band in standard deviations.
pub const BAND_90: f64 = 1.64;
/// Above any map, where a window is open at the top.
pub const OPEN: f64 = 1e7;

/// What is measured to judge a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Measured {
    /// Length of a drip, mm.
    DripLengthMm,
    /// Thickness of a film, mm.
    FilmMm,
    /// Yield stress, Pa.
    YieldStressPa,
    /// Sag under its own weight, per cent of its height.
    SagPercent,
    /// Depth a sponge drinks, mm.
    DepthMm,
    /// Viscosity at 10 /s, Pa·s.
    ViscosityPaS,
}

/// What the map's upright axis counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MapAxis {
    /// Yield stress, Pa.
    YieldStressPa,
    /// Viscosity at 10 /s, Pa·s: for what runs.
    ViscosityPaS,
}

/// How a formula stands to its job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outcome {
    /// In the window.
    Inside,
    /// Stiffer than the window.
    TooStiff,
    /// Looser than the window.
    TooLoose,
    /// Too warm for it, whatever its stiffness.
    TooWarm,
    /// Too little fat for it, whatever its stiffness.
    TooLean,
    /// The geometry leaves no window: nothing both holds and yields.
    NoWindow,
}

impl Outcome {
    /// A value against its window, where more is stiffer.
    pub fn of(value: f64, [low, high]: [f64; 2]) -> Outcome {
        if low >= high {
            Outcome::NoWindow
        } else if value < low {
            Outcome::TooLoose
        } else if value > high {
            Outcome::TooStiff
        } else {
            Outcome::Inside
        }
    }

    /// For what is measured the other way round: deep or long means thin.
    pub fn flipped(self) -> Outcome {
        match self {
            Outcome::TooLoose => Outcome::TooStiff,
            Outcome::TooStiff => Outcome::TooLoose,
            other => other,
        }
    }
}

/// A value with the ends of its 90 % band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Estimate {
    /// The middle.
    pub value: f64,
    /// Lower end of the 90 % band.
    pub low: f64,
    /// Upper end of the 90 % band.
    pub high: f64,
}

impl Estimate {
    /// A log-normal estimate.
    pub fn log_normal(value: f64, sigma: f64) -> Self {
        let factor = (BAND_90 * sigma).exp();
        Estimate { value, low: value / factor, high: value * factor }
    }

    /// The same with nothing below a least.
    pub fn not_below(self, least: f64) -> Self {
        let Estimate { value, low, high } = self;
        Estimate { value: value.max(least), low: low.max(least), high: high.max(least) }
    }

    /// The same with the digits that are shown.
    pub fn shown(value: f64, sigma: f64) -> Self {
        let Estimate { value, low, high } = Self::log_normal(value, sigma);
        Estimate { value: digits(value), low: digits(low), high: digits(high) }
    }
}

/// One temperature judged.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Judged {
    /// Inside or not.
    pub outcome: Outcome,
    /// What the job measures.
    pub measured: Estimate,
    /// The window of it.
    pub window: [f64; 2],
    /// Chance of being inside, 0 to 1.
    pub chance: f64,
    /// The window on the map's axis at this temperature, Pa or Pa·s: what the map draws.
    pub map_window: [f64; 2],
    /// What in it undoes it: no dose helps.
    pub undone: Option<Undone>,
    /// Whether it is agar that makes it too stiff: it breaks short, and is no rubber.
    pub crumbles: bool,
    /// Whether it stays right while it is held there.
    pub stands: Stands,
    /// What it is not known for here; then no chance is claimed.
    pub unknown: Option<Unchecked>,
    /// What is measured and the ends of its band before they are cut off at what can be seen, where a map reads points off
    /// their neighbours: only uncut it goes on smoothly.
    pub uncut: [f64; 3],
    /// What a judgement hands to the next temperature of a sweep, to start near its answer.
    pub hint: Hint,
}

impl Judged {
    /// Nothing judged yet, and nothing else in the way: the rest of a judgement.
    pub const PLAIN: Judged = Judged {
        outcome: Outcome::NoWindow,
        measured: Estimate { value: 0.0, low: 0.0, high: 0.0 },
        window: [0.0; 2],
        chance: 0.0,
        map_window: [0.0; 2],
        undone: None,
        crumbles: false,
        stands: Stands::Stays,
        unknown: None,
        uncut: [0.0; 3],
        hint: None,
    };
}

/// What undoes a cream, whatever the dose.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Undone {
    /// Raw fruit cuts its gelatin.
    Fruit,
    /// Its egg scrambles.
    Scrambled,
}

codes! {
    /// Whether something just made stays right when it is held at a temperature.
    Stands {
        /// For hours.
        Stays = "stays",
        /// For as long as the job takes and less than hours.
        Briefly = "briefly",
        /// It sets before the job is done.
        SetsFirst = "sets_first",
    }
}

/// Standard deviations from the middle at which the loose and the stiff limit are met.
pub type Hint = Option<[f64; 2]>;

/// The numbers of a judgement as they are read.
#[derive(Clone, Copy)]
pub struct Said<'a>(&'a Judged);

impl<'a> Said<'a> {
    /// Those of a judgement.
    pub fn of(judged: &'a Judged) -> Self {
        Said(judged)
    }

    /// What is measured.
    pub fn value(self) -> String {
        two_digits(self.0.measured.value)
    }

    /// Its band: "25 to 60".
    pub fn band(self) -> String {
        let Estimate { low, high, .. } = self.0.measured;
        format!("{} to {}", two_digits(low), two_digits(high))
    }

    /// The window as the person set it.
    pub fn limits(self) -> [String; 2] {
        self.0.window.map(limit)
    }

    /// The window as it was worked out.
    pub fn worked_out(self) -> [String; 2] {
        self.0.window.map(two_digits)
    }
}

/// What is judged: a mixture made ready, and what its map counts.
#[derive(Debug, Clone, Copy)]
pub struct Cream<'a> {
    /// The mixture.
    pub prepared: &'a Prepared,
    /// What the map counts.
    pub axis: MapAxis,
    /// The time since it was made, while it is fresh.
    pub clock: Clock,
}

impl MapAxis {
    /// A prediction on the axis, Pa or Pa·s.
    pub fn of(self, point: &Consistency) -> f64 {
        match self {
            MapAxis::YieldStressPa => point.yield_stress_pa,
            MapAxis::ViscosityPaS => point.viscosity_pa_s,
        }
    }

    /// So many standard deviations from a prediction, on the axis.
    pub fn drawn(self, banded: &Banded, z: [f64; 2]) -> [f64; 2] {
        let sigma = match self {
            MapAxis::YieldStressPa => banded.sigma_yield,
            MapAxis::ViscosityPaS => banded.sigma_viscosity,
        };
        z.map(|z| self.of(&banded.middle) * (z * sigma).exp())
    }
}

impl Cream<'_> {
    /// A window of common multipliers on the axis.
    pub fn scaled(&self, point: &Consistency, multipliers: [f64; 2]) -> [f64; 2] {
        multipliers.map(|m| (self.axis.of(point) * m).min(OPEN))
    }
}

/// A job: what it measures, its window, how a prediction stands to it, and how that is said. A geometry that answers this
/// is a job; everything else about it (the map, ways there, places in a cake) follows.
pub trait Duty {
    /// Its word, as on the wire and on the switch: "drip".
    fn word(&self) -> &'static str;

    /// What it is to do, after "to": "drip", "cut clean", "eat with a spoon".
    fn verb(&self) -> &'static str {
        self.word()
    }

    /// What a formula does that is right for it: "drips".
    fn does(&self) -> &'static str;

    /// What is compared with the window: the yield stress, where the job says nothing else.
    fn measured(&self) -> Measured {
        Measured::YieldStressPa
    }

    /// What runs: its map counts viscosity whatever the family.
    fn runs(&self) -> bool {
        false
    }

    /// Histories in which it is done by a family, the usual one first.
    fn histories(&self, family: Family) -> &'static [History];

    /// Minutes it must stay right for, when it is done fresh (common practice).
    fn minutes_needed(&self) -> f64 {
        5.0
    }

    /// The process as this job asks it.
    fn options(&self, options: Options) -> Options {
        options
    }

    /// Its geometry as a sentence with blanks.
    fn asks(&self) -> Vec<Ask>;

    /// The window [low, high] of what is measured, for a cream of `density` kg/m³.
    fn window(&self, density: f64) -> [f64; 2];

    /// What is wrong with the geometry as such: the field, and what to do.
    fn crossed(&self) -> Option<(&'static str, String)> {
        None
    }

    /// What is measured, of the middle of a prediction.
    fn value(&self, _cream: Cream, point: &Consistency, _t_c: f64) -> f64 {
        point.yield_stress_pa
    }

    /// Whether more is measured of what is looser: a depth, a length.
    fn looser_is_more(&self) -> bool {
        false
    }

    /// Standard deviation of ln of what is measured.
    fn sigma(&self, _cream: Cream, banded: &Banded) -> f64 {
        banded.sigma_yield
    }

    /// The common factors by which yield stress and viscosity would have to be multiplied to stand on the loose and on the
    /// stiff edge of `window`.
    fn multipliers(&self, _cream: Cream, point: &Consistency, _t_c: f64, window: [f64; 2]) -> [f64; 2] {
        window.map(|limit| limit / point.yield_stress_pa)
    }

    /// Only inside or not, of the middle: for searches.
    fn outcome(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2]) -> Outcome {
        let outcome = Outcome::of(self.value(cream, point, t_c), window);
        if self.looser_is_more() { outcome.flipped() } else { outcome }
    }

    /// ln of the multipliers to the loose and the stiff edge. Open edges are far away.
    fn edges(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2]) -> [f64; 2] {
        self.multipliers(cream, point, t_c, window).map(|m| m.max(1e-12).ln())
    }

    /// Whether the edges tell the outcome by themselves: where asking for it again is dear.
    fn edges_tell(&self) -> bool {
        false
    }

    /// Whether the middle is inside with so much room to either edge, ln of stiffness.
    fn within(&self, cream: Cream, point: &Consistency, t_c: f64, window: [f64; 2], margin: f64) -> bool {
        let [loose, stiff] = self.edges(cream, point, t_c, window);
        loose <= -margin && stiff >= margin
    }

    /// How the two edges move when yield stress alone stiffens, per ln, −1 to 0: the rest of the way to −1 is viscosity's.
    /// None for jobs whose edges are closed forms.
    fn slopes_by_yield(&self, _cream: Cream, _t_c: f64, _edges: [f64; 2]) -> Option<[f64; 2]> {
        None
    }

    /// A prediction judged at `t_c`, °C.
    fn judge(&self, cream: Cream, banded: &Banded, t_c: f64, _hint: Hint) -> Judged {
        let window = self.window(cream.prepared.density);
        let point = &banded.middle;
        let (value, sigma) = (self.value(cream, point, t_c), self.sigma(cream, banded));
        let outcome = self.outcome(cream, point, t_c, window);
        let z = window.map(|limit| (limit / value).ln() / sigma);
        let barred = matches!(outcome, Outcome::TooWarm | Outcome::TooLean);
        Judged {
            outcome,
            measured: Estimate::log_normal(value, sigma),
            window,
            chance: if barred { 0.0 } else { chance(value, window[0], window[1], sigma) },
            map_window: cream.scaled(point, self.multipliers(cream, point, t_c, window)),
            hint: Some(if self.looser_is_more() { [-z[1], -z[0]] } else { z }),
            ..Judged::PLAIN
        }
    }

    /// Standard deviations from the middle at which the stiff limit is met: what a later moment is asked for.
    fn stiff_z(&self, cream: Cream, banded: &Banded, t_c: f64, hint: Hint) -> f64 {
        self.judge(cream, banded, t_c, hint).hint.map_or(f64::INFINITY, |[_, stiff]| stiff)
    }

    /// What this job alone warns of.
    fn warning(&self, _prepared: &Prepared) -> Option<Warning> {
        None
    }

    /// What is said before "to" and its verb when it is looser or stiffer than the window.
    fn extremes(&self) -> [&'static str; 2] {
        ["Too loose", "Too stiff"]
    }

    /// A verdict that this job says in other words; `at` is "at 26.0 °C".
    fn verdict(&self, _judged: &Judged, _at: &str) -> Option<String> {
        None
    }

    /// What stands behind the verdict, in one sentence with its numbers.
    fn detail(&self, judged: &Judged, said: Said) -> String;
}

/// A window from `low` to `high` of one field that has its ends the wrong way round.
pub(super) fn limits_crossed(
    field: &'static str,
    what: &str,
    [low, high]: [f64; 2],
    unit: &str,
) -> Option<(&'static str, String)> {
    let message = || format!("the {what} is from {low} to {high} {unit}: swap them, or widen one");
    (low >= high).then(|| (field, message()))
}

/// Histories of what is spread, filled, piped or eaten; those of a ganache are the job's own.
pub(super) fn spread_histories(family: Family, ganache: &'static [History]) -> &'static [History] {
    use History::{Fresh, Rested, Worked};
    match family.traits().system {
        System::Ganache => ganache,
        System::Buttercream | System::MeringueButtercream | System::Mousseline | System::Fat => {
            &[Fresh, Worked, Rested]
        }
        System::WhippedCream if family != Family::StabilisedCream => &[Fresh, Rested],
        System::Custard => &[Rested, Worked],
        _ => &[Rested, Fresh, Worked],
    }
}

/// What is said of a yield stress in its window, or on either side of it.
pub(super) fn gives_way(said: Said) -> String {
    let [low, high] = said.worked_out();
    format!("It gives way at {} Pa; the window is {low} to {high}.", said.value())
}
