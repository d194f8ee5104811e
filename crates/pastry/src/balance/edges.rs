//! How far a formula stands from each edge of its window.

use crate::assess::document::FormulaDocument;
use crate::formula::{Family, Mixture};
use crate::job::duty::Outcome;
use crate::job::judge::Question;
use crate::job::kind::Job;
use crate::rheology::kernel::Prepared;
use crate::rheology::{History, Options};

/// What a mixture is asked: its family, what was done, the job, where and in what state.
#[derive(Debug, Clone, Copy)]
pub struct Asked<'a> {
    /// Family of the cream.
    pub family: Family,
    /// What was done in the making.
    pub options: &'a Options,
    /// The job.
    pub job: &'a Job,
    /// State it is judged in.
    pub history: History,
    /// Working temperature, °C.
    pub t_c: f64,
}

/// Where a mixture stands: ln of the common factor by which it would have to be stiffer to reach the
/// loose edge (≤ 0 inside) and the stiff edge (≥ 0 inside), and what else must not get worse.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Edges {
    /// To the loose edge: at most 0 inside.
    pub loose: f64,
    /// To the stiff edge: at least 0 inside.
    pub stiff: f64,
    /// Split index, 0 to 1.
    pub split: f64,
    /// Whether it stands near enough to what was checked.
    pub known: bool,
    /// Whether the middle is inside, all conditions of the job met, and known.
    pub inside: bool,
    /// Whether something other than stiffness stands in the way: warmth, fat, a window that is none.
    pub barred: bool,
}

impl<'a> Asked<'a> {
    /// What a document asks of its mixture.
    pub fn of(document: &'a FormulaDocument, options: &'a Options) -> Self {
        Asked {
            family: document.family,
            options,
            job: &document.work.job,
            history: document.history(),
            t_c: document.work.temperature_c.celsius(),
        }
    }
}

impl Asked<'_> {
    /// A mixture made ready for any temperature.
    pub fn prepared(&self, mixture: &Mixture) -> Prepared {
        Prepared::new(mixture, self.family.traits().system, &self.job.options(*self.options))
    }

    /// The job's question to something prepared.
    pub fn question<'b>(&'b self, prepared: &'b Prepared) -> Question<'b> {
        Question { job: self.job, prepared, axis: self.job.axis(self.family), history: self.history }
    }

    /// Asks a mixture.
    pub fn edges(&self, mixture: &Mixture) -> Edges {
        self.edges_of(&self.prepared(mixture), self.t_c, self.history)
    }

    /// Whether a mixture is there: inside with so much room, nothing else in the way, split no worse.
    pub fn met(&self, mixture: &Mixture, margin: f64, most_split: f64) -> bool {
        self.met_by(&self.prepared(mixture), self.t_c, margin, most_split)
    }

    /// The same of something prepared.
    pub fn met_by(&self, prepared: &Prepared, t_c: f64, margin: f64, most_split: f64) -> bool {
        let question = self.question(prepared);
        let met = question.meet(t_c);
        met.now.split <= most_split
            && prepared.unknown(&met.now, t_c, self.history).is_none()
            && question.met(&met, t_c, margin)
    }

    /// Asks something prepared, at any temperature and in any state.
    pub fn edges_of(&self, prepared: &Prepared, t_c: f64, history: History) -> Edges {
        let question = Question { history, ..self.question(prepared) };
        let met = question.meet(t_c);
        let [loose, stiff] = question.edges(&met, t_c);
        let outcome = question.outcome_by_edges([loose, stiff], &met, t_c);
        let known = question.knows(&met, t_c);
        Edges {
            loose,
            stiff,
            split: met.now.split,
            inside: outcome == Outcome::Inside && known,
            barred: matches!(outcome, Outcome::NoWindow | Outcome::TooWarm | Outcome::TooLean)
                || question.undone().is_some()
                || !known,
            known,
        }
    }
}

impl Edges {
    /// Width of the window, ln.
    pub fn width(&self) -> f64 {
        self.stiff - self.loose
    }
}
