//! A prediction against a job's window: inside or not, with what chance, and where the window lies on
//! the map at this temperature.

use crate::job::duty::{Cream, Hint, Judged, MapAxis, Outcome};
use crate::job::kind::Job;
use crate::rheology::consistency::{Banded, Consistency};
use crate::rheology::kernel::Prepared;

/// What is judged: a job, and the mixture it is judged on.
#[derive(Debug, Clone, Copy)]
pub struct Question<'a> {
    /// The job.
    pub job: &'a Job,
    /// The mixture.
    pub prepared: &'a Prepared,
    /// What the map counts.
    pub axis: MapAxis,
}

impl Question<'_> {
    fn cream(&self) -> Cream<'_> {
        Cream { prepared: self.prepared, axis: self.axis }
    }

    fn window(&self) -> [f64; 2] {
        self.job.window(self.prepared.density)
    }

    /// Judges a prediction at `t_c`. What is undone by something in it has no chance, however it stands in its first
    /// hour.
    pub fn judge(&self, banded: &Banded, t_c: f64, hint: Hint) -> Judged {
        let judged = self.job.duty().judge(self.cream(), banded, t_c, hint);
        if !self.undone() {
            return judged;
        }
        Judged { outcome: Outcome::TooLoose, chance: 0.0, undone: true, ..judged }
    }

    /// Whether its gelatin is cut by raw fruit.
    fn undone(&self) -> bool {
        self.prepared.networks.gelatin_undone
    }

    /// ln of the common factors by which yield stress and viscosity would have to be multiplied to stand on
    /// the loose and on the stiff edge of the window: for searches. Open edges are far away.
    pub fn edges(&self, point: &Consistency, t_c: f64) -> [f64; 2] {
        self.job.duty().edges(self.cream(), point, t_c, self.window())
    }

    /// Whether the middle is inside with so much room to either edge, ln of stiffness: the same as asking
    /// [`Question::edges`], and for a drip ten times cheaper.
    pub fn within(&self, point: &Consistency, t_c: f64, margin: f64) -> bool {
        !self.undone() && self.job.duty().within(self.cream(), point, t_c, self.window(), margin)
    }

    /// How the two edges of a drip move when yield stress alone stiffens, per ln: the rest of the way to −1
    /// is viscosity's. Both lie in −1 to 0. None for jobs whose edges are closed forms.
    pub fn slopes_by_yield(&self, t_c: f64, edges: [f64; 2]) -> Option<[f64; 2]> {
        self.job.duty().slopes_by_yield(self.cream(), t_c, edges)
    }

    /// Only inside or not, of the middle: for searches.
    pub fn outcome_of_middle(&self, point: &Consistency, t_c: f64) -> Outcome {
        if self.undone() {
            return Outcome::TooLoose;
        }
        self.job.duty().outcome(self.cream(), point, t_c, self.window())
    }

    /// The same where the edges are known: what they tell is not asked for again.
    pub fn outcome_by_edges(&self, [loose, stiff]: [f64; 2], point: &Consistency, t_c: f64) -> Outcome {
        match () {
            () if self.undone() => Outcome::TooLoose,
            () if !self.job.duty().edges_tell() => self.outcome_of_middle(point, t_c),
            () if loose > 0.0 => Outcome::TooLoose,
            () if stiff < 0.0 => Outcome::TooStiff,
            () => Outcome::Inside,
        }
    }

    /// Whether it is inside with so much room and nothing else of the job stands in the way.
    pub fn met(&self, point: &Consistency, t_c: f64, margin: f64) -> bool {
        let known = self.job.duty().edges_tell();
        self.within(point, t_c, margin) && (known || self.outcome_of_middle(point, t_c) == Outcome::Inside)
    }
}
