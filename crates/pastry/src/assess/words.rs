//! The verdict in words: a sentence, then what stands behind it. Two digits at most, because the
//! prediction is not better than that.

use crate::assess::reach::Span;
use crate::job::drip::LONGEST_MM;
use crate::job::geometry::SetGrade;
use crate::job::judge::{Judged, Outcome};
use crate::job::kind::Job;
use crate::number::{limit, two_digits};

/// The verdict in one sentence: "Too stiff to drip at 26.0 °C".
pub fn headline(job: &Job, judged: &Judged, t_c: f64) -> String {
    let verb = job.verb();
    if judged.undone {
        return "Will not set: raw fruit in it cuts the gelatin".to_owned();
    }
    let at = format!("at {t_c:.1} °C");
    match (judged.outcome, job) {
        (Outcome::TooStiff, Job::Set(_)) => format!("Too rubbery to eat {at}"),
        (Outcome::TooLoose, Job::Set(_)) => format!("Too soft to {verb} {at}"),
        (Outcome::TooStiff, Job::Soak(_) | Job::Whip(_)) => format!("Too thick to {verb} {at}"),
        (Outcome::TooLoose, Job::Soak(_) | Job::Whip(_) | Job::Nappe(_)) => {
            format!("Too thin to {verb} {at}")
        }
        (Outcome::TooStiff, _) => format!("Too stiff to {verb} {at}"),
        (Outcome::TooLoose, _) => format!("Too loose to {verb} {at}"),
        (Outcome::TooWarm, _) => format!("Too warm to {verb} {at}"),
        (Outcome::TooLean, _) => format!("Too little fat to {verb}"),
        (Outcome::NoWindow, Job::Fill(_)) => {
            "No filling holds this load without tearing the crumb".to_owned()
        }
        (Outcome::NoWindow, Job::Pipe(_)) => {
            "Nothing both stands this high and goes through this nozzle".to_owned()
        }
        (Outcome::NoWindow, _) => "No cream both stays on and spreads at this thickness".to_owned(),
        (Outcome::Inside, _) => {
            let does = match judged.chance {
                c if c >= 0.8 => "Right to",
                c if c >= 0.5 => "Should be right to",
                _ => "Only just right to",
            };
            format!("{does} {verb} {at}")
        }
    }
}

/// What stands behind the verdict, in one sentence with its numbers.
pub fn detail(job: &Job, judged: &Judged) -> String {
    if judged.undone {
        return "No dose helps: bring the fruit to 85 °C first, or set it with agar.".to_owned();
    }
    let value = two_digits(judged.measured.value);
    let [low, high] = judged.window.map(limit);
    let [low_pa, high_pa] = judged.window.map(two_digits);
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
        (Job::Nappe(_), Outcome::TooStiff | Outcome::TooLoose) => {
            format!("The spoon would keep {value} mm; you want {low} to {high}.")
        }
        (Job::Nappe(_), _) => {
            format!("The spoon keeps {value} mm, anywhere from {}; a finger line stays.", band())
        }
        (Job::Soak(soak), outcome) => {
            let time = seconds(soak.time_s.seconds());
            let dose = 0.01 * soak.on_sponge_percent.percent() * soak.sponge_g.grams();
            let pour = format!("Brush {dose:.0} g on {:.0} g of sponge.", soak.sponge_g.grams());
            match outcome {
                Outcome::Inside => {
                    format!("It goes {value} mm deep in {time}, anywhere from {}. {pour}", band())
                }
                _ => format!("It would go {value} mm deep in {time}; you want {low} to {high}."),
            }
        }
        (Job::Whip(whip), Outcome::TooLean) => format!(
            "Under {:.0} % fat in fat and water, cream does not hold its air.",
            whip.least_fat_percent.percent()
        ),
        (Job::Whip(whip), Outcome::TooWarm) => format!(
            "Its fat must be set to hold air: chill it to {:.0} °C or less, best overnight.",
            whip.warmest_c.celsius()
        ),
        (Job::Whip(_), Outcome::Inside) => {
            format!("It pours at {value} Pa·s, and its fat is set: it takes air and keeps it.")
        }
        (Job::Whip(_), _) => {
            format!("It pours at {value} Pa·s; between {low_pa} and {high_pa} it takes air.")
        }
        (Job::Set(set), outcome) => {
            let height = limit(set.height_mm.millimetres());
            match outcome {
                Outcome::Inside => {
                    format!("A piece of {height} mm sags {value} %, anywhere from {}.", band())
                }
                Outcome::TooStiff => {
                    "Its gel is past where it melts on the tongue: less gelatin, or warmer.".to_owned()
                }
                _ if judged.measured.value > 60.0 => format!("A piece of {height} mm would run, not stand."),
                _ if judged.measured.value <= judged.window[1] => {
                    format!("A piece of {height} mm would give way at its foot.")
                }
                _ => format!("A piece of {height} mm would sag {value} %; you want {high} at most."),
            }
        }
        (Job::Mask(mask), Outcome::TooLoose) => format!(
            "A layer of {} mm needs {low_pa} Pa to stay up; it has {value}.",
            limit(mask.thickness_mm.millimetres()),
        ),
        (Job::Mask(_), Outcome::TooStiff) => {
            format!("It takes {value} Pa to spread; your knife gives {high_pa}.")
        }
        (Job::Mask(mask), Outcome::NoWindow) => format!(
            "A layer of {} mm needs {low_pa} Pa to stay up, and your knife gives {high_pa}: spread it thinner, or in two coats.",
            limit(mask.thickness_mm.millimetres()),
        ),
        (Job::Fill(fill), Outcome::TooLoose) => format!(
            "{} kg above asks for {low_pa} Pa; it has {value}.",
            two_digits(1e-3 * fill.load_above_g.grams()),
        ),
        (Job::Fill(_), Outcome::TooStiff) => {
            format!("It takes {value} Pa to spread; the crumb tears at {high_pa}.")
        }
        (Job::Fill(fill), Outcome::NoWindow) => format!(
            "{} kg on {} mm of filling asks for {low_pa} Pa, and the crumb tears at {high_pa}: thinner layers, a wider cake, or dowels.",
            two_digits(1e-3 * fill.load_above_g.grams()),
            limit(fill.thickness_mm.millimetres()),
        ),
        (Job::Pipe(pipe), Outcome::TooLoose) => format!(
            "A piece {} mm high asks for {low_pa} Pa to stand; it has {value}.",
            limit(pipe.height_mm.millimetres()),
        ),
        (Job::Pipe(_), Outcome::TooStiff) => {
            format!("It takes {value} Pa; your hand pushes {high_pa} through this nozzle.")
        }
        (Job::Pipe(_), Outcome::NoWindow) => format!(
            "It asks for {low_pa} Pa to stand, and your hand pushes {high_pa}: a wider nozzle, or lower pieces."
        ),
        (Job::Spoon(_), Outcome::TooLoose) => {
            format!("It gives way at {value} Pa; from {low_pa} it mounds on the spoon.")
        }
        (Job::Spoon(_), Outcome::TooStiff) => {
            format!("It gives way at {value} Pa; past {high_pa} it eats heavy.")
        }
        (Job::Mask(_) | Job::Fill(_) | Job::Pipe(_) | Job::Spoon(_), _) => {
            format!("It gives way at {value} Pa; the window is {low_pa} to {high_pa}.")
        }
    }
}

/// Seconds as a kitchen clock says them.
fn seconds(value: f64) -> String {
    match value {
        s if s < 90.0 => format!("{s:.0} s"),
        s if s < 5400.0 => format!("{} min", limit((s / 6.0).round() / 10.0)),
        s => format!("{} h", limit((s / 360.0).round() / 10.0)),
    }
}

/// When it works: "This formula drips between 27.5 and 31.0 °C."
pub fn span_sentence(job: &Job, spans: &[Span], hottest_c: f64) -> String {
    let does = match job {
        Job::Drip(_) => "drips",
        Job::Coat(_) => "coats",
        Job::Mask(_) => "masks",
        Job::Fill(_) => "fills",
        Job::Pipe(_) => "pipes",
        Job::Spoon(_) => "eats well",
        Job::Soak(_) => "soaks",
        Job::Whip(_) => "whips",
        Job::Nappe(_) => "coats the spoon",
        Job::Set(set) => match set.grade {
            SetGrade::Wobble => "stands",
            SetGrade::Firm => "turns out",
            SetGrade::CleanSlice => "cuts clean",
        },
    };
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
