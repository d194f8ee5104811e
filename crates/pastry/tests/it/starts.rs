//! Every family opens with a formula for each of its jobs, and the formula does the job.

use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess};
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::job::Outcome;
use pastry::method::school::schools_of;
use pastry::method::sheet::applied;
use pastry::rheology::warning::WarningCode;

fn raw(document: &FormulaDocument) -> bool {
    assess(document).unwrap().warnings.iter().any(|warning| warning.code == WarningCode::EggRaw)
}

/// Whether the usual school of its family leaves the egg of a start raw or lightly heated.
fn egg_stays_raw(start: &FormulaDocument) -> bool {
    let lines = start.formula().weigh(&Shelf::catalogue()).unwrap();
    schools_of(start.family).next().is_some_and(|school| raw(&applied(start, &lines, school)))
}

/// Italian whites get 56 to 60 °C of their syrup and an egg mousse none: a start that said 71 °C hid that.
#[test]
fn a_start_is_as_raw_as_the_usual_school_of_its_family_makes_it() {
    let mut habits = Vec::new();
    for family in Family::ALL {
        for start in starts(*family) {
            assert_eq!(raw(start), egg_stays_raw(start), "{family:?} to {}", start.work.job.verb());
            if raw(start) && !habits.contains(family) {
                habits.push(*family);
            }
        }
    }
    assert_eq!(habits, [Family::ItalianButtercream, Family::EggMousse]);
}

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
            // A family that is raw by habit says so from the first; nothing else may be the matter.
            let raw_by_habit = egg_stays_raw(start);
            for warning in answer
                .warnings
                .iter()
                .filter(|w| w.severity > pastry::rheology::warning::Severity::Note)
                .filter(|w| !(w.code == WarningCode::EggRaw && raw_by_habit))
            {
                wrong.push(format!("{name}: {} {}", warning.code, warning.cause));
            }
            checked += 1;
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert!(checked >= 60, "{checked} starts");
}
