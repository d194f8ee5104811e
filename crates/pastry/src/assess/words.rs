//! The verdict in words: a sentence, then what stands behind it. Two digits at most, because the
//! prediction is not better than that.

use crate::assess::reach::Span;
use crate::job::duty::{Judged, Outcome, Said};
use crate::job::kind::Job;

/// The verdict in one sentence: "Too stiff to drip at 26.0 °C".
pub fn headline(job: &Job, judged: &Judged, t_c: f64) -> String {
    if judged.undone {
        return "Will not set: raw fruit in it cuts the gelatin".to_owned();
    }
    let (duty, verb) = (job.duty(), job.verb());
    let at = format!("at {t_c:.1} °C");
    let [loose, stiff] = duty.extremes();
    duty.verdict(judged.outcome, &at).unwrap_or_else(|| match judged.outcome {
        Outcome::TooStiff => format!("{stiff} to {verb} {at}"),
        Outcome::TooLoose => format!("{loose} to {verb} {at}"),
        Outcome::TooWarm => format!("Too warm to {verb} {at}"),
        Outcome::TooLean => format!("Too little fat to {verb}"),
        Outcome::NoWindow => format!("These limits leave nothing that is right to {verb}"),
        Outcome::Inside => {
            let does = match judged.chance {
                c if c >= 0.8 => "Right to",
                c if c >= 0.5 => "Should be right to",
                _ => "Only just right to",
            };
            format!("{does} {verb} {at}")
        }
    })
}

/// What stands behind the verdict, in one sentence with its numbers.
pub fn detail(job: &Job, judged: &Judged) -> String {
    if judged.undone {
        return "No dose helps: bring the fruit to 85 °C first, or set it with agar.".to_owned();
    }
    job.duty().detail(judged, &Said::of(judged))
}

/// When it works: "This formula drips between 27.5 and 31.0 °C."
pub fn span_sentence(job: &Job, spans: &[Span], hottest_c: f64) -> String {
    let does = job.duty().does();
    let parts = spans.iter().map(|span| span_words(span, hottest_c)).collect::<Vec<_>>();
    match parts.as_slice() {
        [] => format!("At no temperature from 0 to {hottest_c:.0} °C it {does}."),
        parts => format!("This formula {does} {}.", parts.join(" and ")),
    }
}

/// A span of temperatures in words.
pub fn span_words(span: &Span, hottest_c: f64) -> String {
    match (span.from_c <= 0.0, span.to_c >= hottest_c) {
        (true, true) => format!("from 0 to {hottest_c:.0} °C"),
        (true, false) => format!("up to {:.1} °C", span.to_c),
        (false, true) => format!("from {:.1} °C up", span.from_c),
        (false, false) => format!("between {:.1} and {:.1} °C", span.from_c, span.to_c),
    }
}

/// A chance in words a cook would use.
pub fn chance_words(chance: f64) -> String {
    match chance {
        c if c >= 0.97 => "almost always".to_owned(),
        c if c <= 0.03 => "hardly ever".to_owned(),
        c => format!("about {} in 10", (10.0 * c).round().clamp(1.0, 9.0)),
    }
}
