//! The verdict in words: a sentence, then what stands behind it. Two digits at most, because the
//! prediction is not better than that.

use crate::assess::reach::Span;
use crate::job::duty::{Judged, Outcome, Said, Stands, Undone};
use crate::job::kind::Job;
use crate::number::{degrees, two_digits};

/// The verdict in one sentence: "Too stiff to drip at 26.0 °C".
pub fn headline(job: &Job, judged: &Judged, t_c: f64) -> String {
    match (judged.unknown, judged.undone) {
        (_, Some(Undone::Fruit)) => return "Will not set: raw fruit in it cuts the gelatin".to_owned(),
        (_, Some(Undone::Scrambled)) => return "Scrambles: its egg gets too hot".to_owned(),
        (Some(unknown), _) => return format!("Not known here, because of {}", unknown.words()),
        _ => {}
    }
    let (duty, verb) = (job.duty(), job.verb());
    let at = format!("at {} °C", degrees(t_c));
    if judged.stands == Stands::SetsFirst {
        return format!("Sets before you are done {at}");
    }
    let [loose, stiff] = duty.extremes();
    // So near to right that it may come out right all the same.
    let just = |extreme: &str| match judged.chance >= 0.35 {
        true => format!("Just {}", extreme.to_lowercase()),
        false => extreme.to_owned(),
    };
    duty.verdict(judged, &at).unwrap_or_else(|| match judged.outcome {
        Outcome::TooStiff => format!("{} to {verb} {at}", just(stiff)),
        Outcome::TooLoose => format!("{} to {verb} {at}", just(loose)),
        Outcome::TooWarm => format!("Too warm to {verb} {at}"),
        Outcome::TooLean => format!("Too little fat to {verb}"),
        Outcome::NoWindow => format!("These limits leave nothing that is right to {verb}"),
        Outcome::Inside => {
            let does = match judged.chance {
                c if c >= 0.8 => "Right to",
                c if c >= 0.6 => "Should be right to",
                c if c >= 0.4 => "May be right to",
                _ => "Only just right to",
            };
            format!("{does} {verb} {at}")
        }
    })
}

/// What stands behind the verdict, in one sentence with its numbers.
pub fn detail(job: &Job, judged: &Judged) -> String {
    match (judged.unknown, judged.undone) {
        (_, Some(Undone::Fruit)) => {
            return "No dose helps: bring the fruit to 85 °C first, or set it with agar.".to_owned();
        }
        (_, Some(Undone::Scrambled)) => {
            return "Stop at 82 to 84 °C, or bind it with a little starch.".to_owned();
        }
        (Some(_), _) => {
            return "Nothing like it was ever checked, so no chance is given: try a spoonful on a cold plate first."
                .to_owned();
        }
        _ => {}
    }
    if judged.stands == Stands::SetsFirst {
        let need = job.duty().minutes_needed();
        return format!(
            "It is right as it comes there, and has set further before {need:.0} {} are over: work it warmer.",
            if need < 1.5 { "minute" } else { "minutes" }
        );
    }
    job.duty().detail(judged, Said::of(judged))
}

/// How long it stays right: "It stays so for about 12 min there."
pub fn lasts_sentence(minutes: f64) -> String {
    match minutes {
        m if m < 90.0 => format!("It stays so for about {} min there.", two_digits(m)),
        m => format!("It stays so for about {} h there.", two_digits(m / 60.0)),
    }
}

/// When it works: "This formula drips between 27.5 and 31.0 °C."; `known` whether all of the map is.
pub fn span_sentence(job: &Job, spans: &[Span], hottest_c: f64, known: bool) -> String {
    let does = job.duty().does();
    let parts = spans.iter().map(|span| span_words(span, hottest_c)).collect::<Vec<_>>();
    match parts.as_slice() {
        [] if !known => format!("At what temperature it {does} is not known here."),
        [] => format!("At no temperature from 0 to {hottest_c:.0} °C it {does}."),
        parts => format!("This formula {does} {}.", parts.join(" and ")),
    }
}

/// A span of temperatures in words.
pub fn span_words(span: &Span, hottest_c: f64) -> String {
    // The model is not good to tenths; half degrees, and never more than was found.
    let (from_c, to_c) = ((2.0 * span.from_c).ceil() / 2.0, (2.0 * span.to_c).floor() / 2.0);
    match (span.from_c <= 0.0, span.to_c >= hottest_c) {
        (true, true) => format!("from 0 to {hottest_c:.0} °C"),
        (true, false) => format!("up to {to_c:.1} °C"),
        (false, true) => format!("from {from_c:.1} °C up"),
        (false, false) if from_c >= to_c => format!("only near {:.1} °C", 0.5 * (span.from_c + span.to_c)),
        (false, false) => format!("between {from_c:.1} and {to_c:.1} °C"),
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
