//! How it came to be: what was said of each batch before it was tested, whether that gets better, and the way of one offset.

use crate::belief::Offset;
use crate::job::duty::Estimate;
use crate::learn::robust::{Counts, LearnedOf, Taught, learn};
use crate::number::two_digits;
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;

/// So many tests there must be before anything is said of better or worse.
const ENOUGH: usize = 6;

/// How far a test was off what was said before it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OffBy {
    /// Id of the test.
    pub test: String,
    /// When it was done.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// Times the book.
    pub book: f64,
    /// Times what was said with all that had been learned until then.
    pub said: f64,
}

/// Whether a kitchen gets better.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OverTime {
    /// Tests that count, the oldest first.
    pub tests: Vec<OffBy>,
    /// In a sentence.
    pub sentence: String,
}

/// What an offset was after a test.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Since {
    /// Id of the test.
    pub test: String,
    /// Key of its batch.
    pub batch: String,
    /// When it was done.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// Whether it counts, by all that is known now.
    pub counts: Counts,
    /// Times the book by what was known after it, with its 90 % band.
    pub times: Estimate,
}

fn earlier(one: &Taught, other: &Taught) -> bool {
    (one.at, &one.id) < (other.at, &other.id)
}

/// What was expected of each reading by those of other batches before it: mean and standard deviation of ln over the book, with the
/// batch's own scatter and without what the reading is off; in the order in which they were given.
pub fn before_each(all: &[Taught]) -> Vec<(f64, f64)> {
    let one = |own: &Taught| {
        let before: Vec<Taught> =
            all.iter().filter(|other| earlier(other, own) && other.batch != own.batch).cloned().collect();
        let (mean, variance) = learn(&before).posterior.next(&own.terms);
        (mean, variance.sqrt())
    };
    all.iter().map(one).collect()
}

/// Whether what is said gets nearer to what is measured.
///
/// # Arguments
/// * `before`: of [`before_each`]; `now`: what was learned of all of them.
pub fn over_time(all: &[Taught], before: &[(f64, f64)], now: &LearnedOf) -> OverTime {
    let mut tests: Vec<OffBy> = all
        .iter()
        .zip(before)
        .zip(&now.judged)
        .filter(|(_, judged)| judged.0 == Counts::Yes)
        .map(|((own, said), _)| OffBy {
            test: own.id.clone(),
            at: own.at,
            book: own.ln_over.exp(),
            said: (own.ln_over - said.0).exp(),
        })
        .collect();
    tests.sort_by(|a, b| a.at.cmp(&b.at).then_with(|| a.test.cmp(&b.test)));
    let sentence = better(&tests);
    OverTime { tests, sentence }
}

fn better(tests: &[OffBy]) -> String {
    if tests.len() < ENOUGH {
        let more = ENOUGH - tests.len();
        let words = if more == 1 { "one more test".to_owned() } else { format!("{more} more tests") };
        return format!("After {words} it can be said whether the predictions get better.");
    }
    let third = tests.len() / 3;
    let off = |own: &[OffBy], by: fn(&OffBy) -> f64| {
        let mut all: Vec<f64> = own.iter().map(|own| by(own).ln().abs()).collect();
        all.sort_by(f64::total_cmp);
        all[all.len() / 2].exp()
    };
    let (early, late) = (&tests[..third], &tests[tests.len() - third..]);
    let first = off(early, |own| own.said);
    let (said, book) = (off(late, |own| own.said), off(late, |own| own.book));
    // Beside the book of the same tests: what is made now may be harder to say than what was made then.
    let verdict = match book.ln() - said.ln() {
        gained if gained > 0.03 => "They are better than the book",
        gained if gained < -0.03 => "They are no better than the book",
        _ => "They are as good as the book",
    };
    let times = |own: f64| two_digits(own.max(1.0));
    format!(
        "{verdict}: in the last {third} tests a prediction was {} times off, the book alone {}; at first it was {}.",
        times(said),
        times(book),
        times(first)
    )
}

/// The way of one offset: what it was after each test that bears on it, the oldest first.
pub fn history_of(of: &Offset, all: &[Taught]) -> Vec<Since> {
    let now = learn(all);
    let mut own: Vec<(&Taught, Counts)> = all
        .iter()
        .zip(&now.judged)
        .filter(|(own, _)| own.terms.weights.iter().any(|(offset, _)| offset == of))
        .map(|(own, judged)| (own, judged.0))
        .collect();
    own.sort_by(|a, b| a.0.at.cmp(&b.0.at).then_with(|| a.0.id.cmp(&b.0.id)));
    let one = |(own, counts): (&Taught, Counts)| {
        let known: Vec<Taught> =
            all.iter().filter(|other| other.id == own.id || earlier(other, own)).cloned().collect();
        let belief = learn(&known).posterior;
        let (_, mean, sigma) = belief.offsets().find(|one| one.0 == of)?;
        let times = Estimate::log_normal(mean.exp(), sigma);
        Some(Since { test: own.id.clone(), batch: own.batch.clone(), at: own.at, counts, times })
    };
    own.into_iter().filter_map(one).collect()
}
