//! "Impossible" is said with its proof, and only then.

use crate::support::{instance, small};
use plan::answer::plan;
use plan::problem::Reserve;
use plan::search::Budget;

const SHORT: Budget = Budget { rounds: 300, seed: 1 };

#[test]
fn a_recipe_that_contradicts_itself_names_its_circle() {
    let mut problem = small();
    problem.links.push(serde_json::from_str(r#"{"from": 0, "to": 2, "min": 0, "max": 60}"#).unwrap());
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(answer.impossible);
    let words = answer.because.join(" ");
    assert!(words.contains("contradict") && words.contains("fill") && words.contains("bake"), "{words}");
}

/// Freezing 8 h and thawing 5 h do not fit between opening and serving.
#[test]
fn what_cannot_be_ready_in_the_opening_hours_is_proved() {
    let mut problem = small();
    (problem.windows, problem.cooks) = (vec![[1920, 2520]], Vec::new());
    problem.waits[1].min = 480;
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(answer.impossible, "{answer:?}");
    let words = answer.because.join("\n");
    assert!(
        words.contains("no time for") && words.contains("closed") && words.contains("at least"),
        "{words}"
    );
    // With the day before there is time for it.
    problem.windows = vec![[480, 1080], [1920, 2520]];
    problem.waits[1].max = Some(1440);
    problem.resources[3].less.clear();
    assert!(plan(&problem, SHORT, &|_| true).is_whole());
}

#[test]
fn more_than_there_is_of_something_is_proved() {
    let mut problem = small();
    problem.steps[1].r#use.insert("oven".into(), 3);
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(answer.impossible && answer.because.join(" ").contains("more oven than there is"), "{answer:?}");
}

/// No proof: the shelf is too small for both, which lags and hours alone do not show.
#[test]
fn what_is_only_not_found_is_not_called_impossible() {
    let mut problem = small();
    problem.resources[3].cap = 1;
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(!answer.impossible && !answer.unplaced.is_empty(), "{answer:?}");
    assert!(answer.because[0].starts_with("I found no plan; the closest leaves out"), "{answer:?}");
}

#[test]
fn what_is_held_back_is_there_before_the_serving_or_it_is_said_that_it_is_not() {
    let mut problem = instance("s32");
    problem.reserve = Some(Reserve { serve: 30, inside: 10 });
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(answer.is_whole());
    assert_eq!(answer.reserve_kept, Some(true));
    let end = |step: usize| answer.start[step].unwrap() + problem.steps[step].dur;
    for wait in problem.waits.iter().filter(|wait| problem.steps[wait.to].dur == 0) {
        let room = (wait.max.unwrap() - wait.min) / 2;
        let spare = answer.start[wait.to].unwrap() - end(wait.from) - wait.min;
        assert!(spare >= 30.min(room), "{}: {spare}", wait.name);
    }
    // A kitchen that is open for no longer than it must be has none to spare.
    let mut tight = small();
    (tight.windows, tight.cooks, tight.reserve) =
        (vec![[1980, 2520]], Vec::new(), Some(Reserve { serve: 90, inside: 10 }));
    (tight.waits[1].min, tight.waits[2].max) = (180, Some(60));
    tight.windows[0][0] = 2400 - 30 - 10 - 180 - 30 - 60 - 40 - 20;
    tight.resources[3].less.clear();
    tight.steps[5].setup = Some("175".into());
    let answer = plan(&tight, SHORT, &|_| true);
    assert!(answer.is_whole(), "{answer:?}");
    assert_eq!(answer.reserve_kept, Some(false));
    assert!(answer.because[0].contains("none to spare"), "{answer:?}");
}

/// A plan is no plan when nobody is there to follow it: a step is not given to a cook who is not there, or cannot do it.
#[test]
fn what_nobody_is_there_to_do_is_not_planned() {
    let mut problem = small();
    problem.cooks.iter_mut().for_each(|cook| cook.without = vec!["fill".to_owned()]);
    let answer = plan(&problem, SHORT, &|_| true);
    assert!(answer.unplaced == [2] && answer.start[2].is_none() && !answer.is_whole(), "{answer:?}");
    assert!(answer.because[0].contains("somebody is there for the whole of fill"), "{answer:?}");
    problem.cooks.iter_mut().for_each(|cook| cook.hours.clear());
    assert_eq!(plan(&problem, SHORT, &|_| true).unplaced, [0, 2, 3]);
}
