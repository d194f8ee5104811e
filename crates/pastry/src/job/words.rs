//! The verdict in words: a sentence, then what stands behind it. Two digits at most, because the
//! prediction is not better than that.

use crate::job::drip::LONGEST_MM;
use crate::job::geometry::Job;
use crate::job::judge::{Judged, Outcome};
use crate::job::reach::Span;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a spoonful does, one scale from thin to firm. Limits are common practice put into numbers
/// (assumed).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpoonSign {
    /// Runs like syrup.
    ThinStream,
    /// A narrow ribbon that vanishes.
    ThinRibbon,
    /// A ribbon that folds on itself.
    FoldingRibbon,
    /// A thick rope, slow to fall.
    SlowRope,
    /// Falls in a soft lump.
    SoftDollop,
    /// Stays on a spoon turned over.
    HoldsUpsideDown,
    /// Cuts with a clean edge.
    CleanCut,
}

impl SpoonSign {
    /// From yield stress, Pa, and viscosity at 10 /s, Pa·s.
    pub fn of(yield_pa: f64, viscosity_pa_s: f64) -> Self {
        match (yield_pa, viscosity_pa_s) {
            (tau, _) if tau >= 2200.0 => SpoonSign::CleanCut,
            (tau, _) if tau >= 260.0 => SpoonSign::HoldsUpsideDown,
            (tau, _) if tau >= 55.0 => SpoonSign::SoftDollop,
            (_, eta) if eta >= 7.0 => SpoonSign::SlowRope,
            (_, eta) if eta >= 1.5 => SpoonSign::FoldingRibbon,
            (_, eta) if eta >= 0.2 => SpoonSign::ThinRibbon,
            _ => SpoonSign::ThinStream,
        }
    }

    /// In words.
    pub fn word(self) -> &'static str {
        match self {
            SpoonSign::ThinStream => "thin stream",
            SpoonSign::ThinRibbon => "thin ribbon",
            SpoonSign::FoldingRibbon => "folding ribbon",
            SpoonSign::SlowRope => "slow rope",
            SpoonSign::SoftDollop => "soft dollop",
            SpoonSign::HoldsUpsideDown => "holds upside down",
            SpoonSign::CleanCut => "clean cut",
        }
    }
}

/// Two significant digits, thousands with a comma: 58, 1.2, 3,100, 0.85.
pub fn two_digits(value: f64) -> String {
    if !value.is_finite() || value <= 0.0 {
        return "0".to_owned();
    }
    let mut power = value.log10().floor() as i32 - 1;
    let mut rounded = (value / 10f64.powi(power)).round();
    if rounded >= 100.0 {
        rounded /= 10.0;
        power += 1;
    }
    if power >= 0 {
        let whole = (rounded * 10f64.powi(power)).round() as u64;
        let digits = whole.to_string();
        let mut text = String::new();
        for (at, digit) in digits.chars().enumerate() {
            if at > 0 && (digits.len() - at).is_multiple_of(3) {
                text.push(',');
            }
            text.push(digit);
        }
        text
    } else {
        format!("{:.*}", (-power) as usize, rounded * 10f64.powi(power))
    }
}

/// A limit as the person set it: no more digits than it needs.
fn limit(value: f64) -> String {
    if value >= 1000.0 {
        return two_digits(value);
    }
    let text = format!("{value:.1}");
    text.strip_suffix(".0").map_or(text.clone(), str::to_owned)
}

/// The verdict in one sentence: "Too stiff to drip at 26.0 °C".
pub fn headline(job: &Job, judged: &Judged, t_c: f64) -> String {
    let verb = job.verb();
    match judged.outcome {
        Outcome::TooStiff => format!("Too stiff to {verb} at {t_c:.1} °C"),
        Outcome::TooLoose => format!("Too loose to {verb} at {t_c:.1} °C"),
        Outcome::NoWindow => match job {
            Job::Fill(_) => "No filling holds this load without tearing the crumb".to_owned(),
            _ => "No cream both stays on and spreads at this thickness".to_owned(),
        },
        Outcome::Inside => {
            let does = match judged.chance {
                c if c >= 0.8 => "Right to",
                c if c >= 0.5 => "Should be right to",
                _ => "Only just right to",
            };
            format!("{does} {verb} at {t_c:.1} °C")
        }
    }
}

/// What stands behind the verdict, in one sentence with its numbers.
pub fn detail(job: &Job, judged: &Judged) -> String {
    let value = two_digits(judged.measured.value);
    let [low, high] = judged.window.map(limit);
    let band = || format!("{} to {}", two_digits(judged.measured.low), two_digits(judged.measured.high));
    match (job, judged.outcome) {
        (Job::Drip(_), _) if judged.measured.value >= LONGEST_MM => {
            format!("Drips would run past {LONGEST_MM:.0} mm; you want {low} to {high}.")
        }
        (Job::Drip(_), Outcome::TooStiff) if judged.measured.value < 1.0 => {
            format!("It would not leave the edge; you want drips of {low} to {high} mm.")
        }
        (Job::Drip(_), Outcome::TooStiff) => {
            format!("Drips would stop at {value} mm; you want {low} to {high}.")
        }
        (Job::Drip(_), Outcome::TooLoose) => {
            format!("Drips would run to {value} mm; you want {low} to {high}.")
        }
        (Job::Drip(_), _) => format!("Drips stop at {value} mm, anywhere from {}.", band()),
        (Job::Coat(_), Outcome::TooStiff | Outcome::TooLoose) => {
            format!("It would leave {value} mm on the side; you want {low} to {high}.")
        }
        (Job::Coat(_), _) => format!("It leaves {value} mm on the side, anywhere from {}.", band()),
        (Job::Mask(mask), Outcome::TooLoose) => {
            format!(
                "A layer of {} mm needs {} Pa to stay up; it has {value}.",
                limit(mask.thickness_mm.millimetres()),
                two_digits(judged.window[0])
            )
        }
        (Job::Mask(_), Outcome::TooStiff) => {
            format!("It takes {value} Pa to spread; your knife gives {}.", two_digits(judged.window[1]))
        }
        (Job::Mask(mask), Outcome::NoWindow) => format!(
            "A layer of {} mm needs {} Pa to stay up, and your knife gives {}: spread it thinner, or in two coats.",
            limit(mask.thickness_mm.millimetres()),
            two_digits(judged.window[0]),
            two_digits(judged.window[1])
        ),
        (Job::Fill(fill), Outcome::TooLoose) => format!(
            "{} kg above asks for {} Pa; it has {value}.",
            two_digits(1e-3 * fill.load_above_g.grams()),
            two_digits(judged.window[0])
        ),
        (Job::Fill(_), Outcome::TooStiff) => {
            format!("It takes {value} Pa to spread; the crumb tears at {}.", two_digits(judged.window[1]))
        }
        (Job::Fill(fill), Outcome::NoWindow) => format!(
            "{} kg on {} mm of filling asks for {} Pa, and the crumb tears at {}: thinner layers, a wider cake, or dowels.",
            two_digits(1e-3 * fill.load_above_g.grams()),
            limit(fill.thickness_mm.millimetres()),
            two_digits(judged.window[0]),
            two_digits(judged.window[1])
        ),
        (Job::Mask(_) | Job::Fill(_), Outcome::Inside) => format!(
            "It gives way at {value} Pa; the window is {} to {}.",
            two_digits(judged.window[0]),
            two_digits(judged.window[1])
        ),
    }
}

/// When it works: "This formula drips between 27.5 and 31.0 °C."
pub fn span_sentence(job: &Job, spans: &[Span]) -> String {
    let verb = match job {
        Job::Drip(_) => "drips",
        Job::Coat(_) => "coats",
        Job::Mask(_) => "masks",
        Job::Fill(_) => "fills",
    };
    let one = |span: &Span| match (span.from_c <= 0.0, span.to_c >= 45.0) {
        (true, true) => "from 0 to 45 °C".to_owned(),
        (true, false) => format!("up to {:.1} °C", span.to_c),
        (false, true) => format!("from {:.1} °C up", span.from_c),
        (false, false) => format!("between {:.1} and {:.1} °C", span.from_c, span.to_c),
    };
    match spans {
        [] => format!("At no temperature from 0 to 45 °C it {verb}."),
        [span] => format!("This formula {verb} {}.", one(span)),
        many => {
            let parts: Vec<String> = many.iter().map(one).collect();
            format!("This formula {verb} {}.", parts.join(" and "))
        }
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_digits_are_two_digits() {
        for (value, text) in [
            (58.44, "58"),
            (1.179, "1.2"),
            (3123.0, "3,100"),
            (0.0853, "0.085"),
            (99.6, "100"),
            (9.96, "10"),
            (12345678.0, "12,000,000"),
            (f64::NAN, "0"),
        ] {
            assert_eq!(two_digits(value), text, "{value}");
        }
    }
}
