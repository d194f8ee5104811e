//! A prediction against a job's window: inside or not, with what chance, for how long, and where the window lies on the
//! map at this temperature.

use crate::job::duty::{Cream, Hint, Judged, MapAxis, Outcome, Stands, Undone};
use crate::job::kind::Job;
use crate::job::lasts::lasts_min;
use crate::rheology::chance::normal_cdf;
use crate::rheology::clock::Clock;
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::kernel::Prepared;
use crate::rheology::{History, pectin};

/// From here it is said to stay, minutes.
const STAYS_MIN: f64 = 240.0;
/// Standard deviation of ln of the minutes something takes to set (assumed: a factor 1.8 either way).
const SIGMA_TIME: f64 = 0.6;
/// So near to an edge, in standard deviations, that where it is found and what is said of it may differ by rounding: there the
/// middle is asked itself.
const KNIFE_Z: f64 = 0.2;

/// What is judged: a job, the mixture it is judged on, and in which state.
#[derive(Debug, Clone, Copy)]
pub struct Question<'a> {
    /// The job.
    pub job: &'a Job,
    /// The mixture.
    pub prepared: &'a Prepared,
    /// What the map counts.
    pub axis: MapAxis,
    /// Its state.
    pub history: History,
}

/// A cream as a job meets it: when it comes to its temperature, and when the job is done.
#[derive(Debug, Clone, Copy)]
pub struct Met {
    /// As it comes.
    pub now: Consistency,
    /// As it is when the job is done; none where it stays as it is.
    pub then: Option<Consistency>,
}

impl Question<'_> {
    fn cream(&self, clock: Clock) -> Cream<'_> {
        Cream { prepared: self.prepared, axis: self.axis, clock }
    }

    fn window(&self) -> [f64; 2] {
        self.job.window(self.prepared.density)
    }

    fn now(&self) -> Clock {
        self.prepared.clock()
    }

    /// So many minutes later.
    fn later(&self, minutes: f64) -> Clock {
        let now = self.now();
        Clock { hours: now.hours + minutes / 60.0, ..now }
    }

    fn done(&self) -> Clock {
        self.later(self.job.duty().minutes_needed())
    }

    fn sets_at(&self, t_c: f64) -> bool {
        self.history == History::Fresh && self.prepared.sets_at(t_c)
    }

    /// The cream at `t_c` as the job meets it.
    pub fn meet(&self, t_c: f64) -> Met {
        self.met_from(self.prepared.at(t_c, self.history), t_c)
    }

    fn met_from(&self, now: Consistency, t_c: f64) -> Met {
        let then = self.sets_at(t_c).then(|| self.prepared.at_after(t_c, self.history, self.done()));
        Met { now, then }
    }

    /// Judges a prediction at `t_c`. What is undone by something in it has no chance, however it stands in its first hour;
    /// what is not known here claims none.
    pub fn judge(&self, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
        let mut judged = self.job.duty().judge(self.cream(self.now()), banded, t_c, hint);
        if self.sets_at(t_c) && judged.chance > 1e-3 {
            self.judge_setting(&mut judged, banded, t_c);
        }
        let contributions = &banded.middle.contributions;
        if contributions.pectin > 0.5 * banded.middle.yield_stress_pa {
            judged.chance = judged.chance.min(pectin::MOST_CHANCE);
        }
        judged.chance *= 1.0 - self.prepared.scrambled;
        if let Some(undone) = self.undone() {
            judged.outcome = Outcome::TooLoose;
            judged.chance = 0.0;
            judged.undone = Some(undone);
        }
        if banded.unknown.is_some() {
            judged.unknown = banded.unknown;
            judged.chance = 0.0;
        }
        judged
    }

    /// What sets while the job is done must be inside when it comes and inside when it is done: the loose edge is met as it
    /// comes, the stiff one as it is then, how fast it sets being known to a factor 1.8.
    fn judge_setting(&self, judged: &mut Judged, banded: &Banded, t_c: f64) {
        let duty = self.job.duty();
        let need = duty.minutes_needed();
        let Some([loose, stiff]) = judged.hint else {
            if judged.outcome == Outcome::Inside && self.outcome_at(t_c) != Outcome::Inside {
                (judged.outcome, judged.stands) = (Outcome::TooStiff, Stands::SetsFirst);
            }
            return;
        };
        let stiff_after = |minutes: f64, near: f64| {
            let clock = self.later(minutes);
            let middle = self.prepared.at_after(t_c, self.history, clock);
            duty.stiff_z(self.cream(clock), &Banded { middle, ..*banded }, t_c, Some([loose, near]))
        };
        let done = stiff_after(need, stiff);
        if judged.outcome == Outcome::Inside {
            let stiff_in_hours = || {
                let clock = self.later(STAYS_MIN);
                let point = self.prepared.at_after(t_c, self.history, clock);
                duty.outcome(self.cream(clock), &point, t_c, self.window()) == Outcome::TooStiff
            };
            let sets_first = || match done.abs() < KNIFE_Z {
                true => self.outcome_at(t_c) == Outcome::TooStiff,
                false => done < 0.0,
            };
            judged.stands = match () {
                () if sets_first() => Stands::SetsFirst,
                () if stiff_in_hours() => Stands::Briefly,
                () => Stands::Stays,
            };
            if judged.stands == Stands::SetsFirst {
                judged.outcome = Outcome::TooStiff;
            }
        }
        // Little happens in the time: half a point in a hundred of chance.
        if (stiff - done).abs() < 0.02 {
            judged.chance = (normal_cdf(stiff.min(done)) - normal_cdf(loose)).max(0.0);
            return;
        }
        // Gauss and Hermite: three points carry a normal's mean, spread and more.
        let spread = (3f64.sqrt() * SIGMA_TIME).exp();
        let of = |then: f64| (normal_cdf(stiff.min(then)) - normal_cdf(loose)).max(0.0);
        let late = stiff_after(need * spread, done);
        // The parabola through what it is as it comes, when it is done and late.
        let [far, near] = [spread, 1.0 / spread];
        let early = stiff * (near - 1.0) * (near - far) / far
            + done * near * (near - far) / (1.0 - far)
            + late * near * (near - 1.0) / (far * (far - 1.0));
        judged.chance = (of(early) + 4.0 * of(done) + of(late)) / 6.0;
    }

    /// Minutes it stays right when it is held at `t_c`; none when there is no end to it, 0 when it is not right as it comes.
    pub fn lasts_min(&self, t_c: f64) -> Option<f64> {
        let inside = |minutes: f64| {
            let clock = self.later(minutes);
            let point = self.prepared.at_after(t_c, self.history, clock);
            self.job.duty().outcome(self.cream(clock), &point, t_c, self.window()) == Outcome::Inside
        };
        if inside(0.0) && !self.sets_at(t_c) {
            return None;
        }
        lasts_min(inside)
    }

    /// What undoes it, whatever the dose.
    pub fn undone(&self) -> Option<Undone> {
        match () {
            () if self.prepared.networks.gelatin_undone => Some(Undone::Fruit),
            () if self.prepared.scrambled >= 0.5 => Some(Undone::Scrambled),
            () => None,
        }
    }

    /// ln of the common factors by which yield stress and viscosity would have to be multiplied to stand on
    /// the loose and on the stiff edge of the window: for searches. Open edges are far away.
    pub fn edges(&self, met: &Met, t_c: f64) -> [f64; 2] {
        let (duty, window) = (self.job.duty(), self.window());
        let [loose, stiff] = duty.edges(self.cream(self.now()), &met.now, t_c, window);
        match &met.then {
            Some(then) if stiff > 0.0 => {
                let [_, done] = duty.edges(self.cream(self.done()), then, t_c, window);
                [loose, stiff.min(done)]
            }
            _ => [loose, stiff],
        }
    }

    /// Whether the middle is inside with so much room to either edge, ln of stiffness: the same as asking
    /// [`Question::edges`], and for a drip ten times cheaper.
    pub fn within(&self, met: &Met, t_c: f64, margin: f64) -> bool {
        let (duty, window) = (self.job.duty(), self.window());
        self.undone().is_none()
            && duty.within(self.cream(self.now()), &met.now, t_c, window, margin)
            && met.then.as_ref().is_none_or(|then| {
                let cream = self.cream(self.done());
                // The loose edge was met as it came.
                duty.within(cream, then, t_c, window, margin)
                    || duty.edges(cream, then, t_c, window)[1] >= margin
            })
    }

    /// How the two edges of a drip move when yield stress alone stiffens, per ln: the rest of the way to −1
    /// is viscosity's. Both lie in −1 to 0. None for jobs whose edges are closed forms.
    pub fn slopes_by_yield(&self, t_c: f64, edges: [f64; 2]) -> Option<[f64; 2]> {
        self.job.duty().slopes_by_yield(self.cream(self.now()), t_c, edges)
    }

    /// Only inside or not, of the middle: for searches.
    pub fn outcome_of_middle(&self, met: &Met, t_c: f64) -> Outcome {
        if self.undone().is_some() {
            return Outcome::TooLoose;
        }
        let (duty, window) = (self.job.duty(), self.window());
        let now = duty.outcome(self.cream(self.now()), &met.now, t_c, window);
        match &met.then {
            Some(then) if now == Outcome::Inside => {
                match duty.outcome(self.cream(self.done()), then, t_c, window) {
                    // Sets before it is done.
                    Outcome::TooStiff => Outcome::TooStiff,
                    // The loose edge was met as it came: what thins by a hair while fat that was free is caught in
                    // crystals is not stiff.
                    _ => Outcome::Inside,
                }
            }
            _ => now,
        }
    }

    /// The same at a temperature.
    pub fn outcome_at(&self, t_c: f64) -> Outcome {
        self.outcome_of_middle(&self.meet(t_c), t_c)
    }

    /// Whether it is right at a temperature, and known there.
    pub fn right_at(&self, t_c: f64) -> bool {
        let met = self.meet(t_c);
        self.outcome_of_middle(&met, t_c) == Outcome::Inside && self.knows(&met, t_c)
    }

    /// Whether it is right at a temperature it came to in its own time, and still is when the job is done.
    pub fn right_after(&self, t_c: f64, clock: Clock) -> bool {
        let outcome = |clock: Clock| {
            let point = self.prepared.at_after(t_c, self.history, clock);
            (self.job.duty().outcome(self.cream(clock), &point, t_c, self.window()), point)
        };
        let (as_it_comes, now) = outcome(clock);
        if as_it_comes != Outcome::Inside || self.undone().is_some() {
            return false;
        }
        let done = Clock { hours: clock.hours + self.job.duty().minutes_needed() / 60.0, ..clock };
        self.prepared.unknown(&now, t_c, self.history).is_none()
            && (!self.sets_at(t_c) || outcome(done).0 != Outcome::TooStiff)
    }

    /// Whether it stands near enough to what was checked.
    pub fn knows(&self, met: &Met, t_c: f64) -> bool {
        self.prepared.unknown(&met.now, t_c, self.history).is_none()
    }

    /// The same where the edges are known: what they tell is not asked for again.
    pub fn outcome_by_edges(&self, [loose, stiff]: [f64; 2], met: &Met, t_c: f64) -> Outcome {
        match () {
            () if self.undone().is_some() => Outcome::TooLoose,
            () if !self.job.duty().edges_tell() => self.outcome_of_middle(met, t_c),
            () if loose > 0.0 => Outcome::TooLoose,
            () if stiff < 0.0 => Outcome::TooStiff,
            () => Outcome::Inside,
        }
    }

    /// Whether it is inside with so much room and nothing else of the job stands in the way.
    pub fn met(&self, met: &Met, t_c: f64, margin: f64) -> bool {
        let known = self.job.duty().edges_tell();
        self.within(met, t_c, margin) && (known || self.outcome_of_middle(met, t_c) == Outcome::Inside)
    }
}
