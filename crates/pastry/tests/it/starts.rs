//! Every family opens with a formula for each of its jobs, and the formula does the job.

use pastry::formula::Family;
use pastry::job::starts::starts;
use pastry::job::{Outcome, assess};

#[test]
fn every_start_of_every_family_does_its_job() {
    let mut wrong = Vec::new();
    let mut checked = 0;
    for family in Family::ALL {
        assert!(!starts(*family).is_empty(), "{family:?} has no start");
        for start in starts(*family) {
            let name = format!("{} to {}", family.word(), start.work.job.verb());
            let answer = assess(start).unwrap_or_else(|faults| panic!("{name}: {faults:?}"));
            if answer.at.outcome != Outcome::Inside || answer.at.chance < 0.4 {
                wrong.push(format!(
                    "{name}: {} {} chance {:.2} tau {:.3} eta {:.3} window {:?}",
                    answer.at.headline,
                    answer.at.detail,
                    answer.at.chance,
                    answer.at.yield_stress_pa.value,
                    answer.at.viscosity_pa_s.value,
                    answer.at.window_on_map
                ));
            }
            if let Some(pour) = &answer.pour
                && pour.outcome != Outcome::Inside
            {
                wrong.push(format!("{name}: {} {:?}", pour.sentence, pour.spans));
            }
            for figure in answer.key_figures.iter().filter(|figure| figure.outside_usual) {
                wrong.push(format!(
                    "{name}: {} {} is not usual: {:?}",
                    figure.name, figure.text, figure.usual
                ));
            }
            for warning in
                answer.warnings.iter().filter(|w| w.severity > pastry::rheology::warning::Severity::Note)
            {
                wrong.push(format!("{name}: {} {}", warning.code, warning.cause));
            }
            checked += 1;
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert!(checked >= 60, "{checked} starts");
}
