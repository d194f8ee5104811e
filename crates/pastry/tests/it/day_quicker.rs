//! Waits that hold a day up, made shorter.

use crate::day::{kitchen, lantern_street, orders};
use crate::day_view::week;
use pastry::assess::assessed;
use pastry::day::quicker::{QuickerAnswer, QuickerAsked, order_of, quicker_ways};
use pastry::day::shorter::Quicker;
use pastry::day::{BendAsk, Happened, PlanDocument, bend, cures, view};
use pastry::job::duty::Outcome;
use pastry::order::OrderDocument;
use pastry::stack::Known;
use plan::check::check;
use plan::replan::Level;

fn ways(plan: &PlanDocument, orders: &[OrderDocument], wait: usize, enough: Option<i32>) -> QuickerAnswer {
    let (formulas, shelf) = kitchen();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let kitchen = lantern_street();
    let order = &orders[order_of(plan, wait).unwrap()];
    let asked = QuickerAsked { order, known, kitchen: &kitchen, learned: &[] };
    quicker_ways(plan, wait, enough, &asked).unwrap()
}

fn clocked(plan: &PlanDocument) -> Vec<usize> {
    plan.parts.iter().flat_map(|part| &part.waits).map(|own| own.wait).collect()
}

/// Every wait that hangs on a clock knows what would make it shorter, or says that nothing does; each way is shorter by what it
/// says.
#[test]
fn every_clocked_wait_says_what_would_be_sooner() {
    let (plan, seen) = week();
    let orders = orders();
    let all = clocked(plan);
    assert!(all.len() >= 4, "{all:?}");
    let mut found = 0;
    for wait in all {
        assert!(seen.waits[wait].clocked);
        let own = &plan.problem.waits[wait];
        let answer = ways(plan, &orders, wait, None);
        assert!(!answer.sentence.contains("changed since"), "{}", answer.sentence);
        for way in &answer.ways {
            assert_eq!(own.min - way.quicker.min, way.sooner_min, "{}", way.words);
            assert!(way.sooner_min > 0 && way.quicker.max.is_none_or(|max| max >= way.quicker.min));
            found += 1;
        }
        let mins: Vec<i32> = answer.ways.iter().map(|way| way.quicker.min).collect();
        assert!(mins.is_sorted(), "{mins:?}");
    }
    assert!(found >= 4, "{found}");
    // Where no clock is asked, none answers.
    let other = seen.waits.iter().find(|wait| !wait.clocked).unwrap();
    let answer = ways(plan, &orders, other.wait, None);
    assert!(answer.ways.is_empty() && answer.sentence.contains("no clock"), "{}", answer.sentence);
}

/// More gelatin turns out sooner, stays in its window, and the least that is enough is taken.
#[test]
fn more_gelatin_turns_out_sooner_and_stays_in_its_window() {
    let (plan, _) = week();
    let orders = orders();
    let (_, shelf) = kitchen();
    let with: Vec<(usize, QuickerAnswer)> = clocked(plan)
        .into_iter()
        .map(|wait| (wait, ways(plan, &orders, wait, None)))
        .filter(|(_, answer)| answer.ways.iter().any(|way| way.formula.is_some()))
        .collect();
    assert!(!with.is_empty(), "no wait of the week is mended by its formula");
    for (wait, answer) in &with {
        let most = answer.ways.iter().find(|way| way.formula.is_some()).unwrap();
        let formula = most.formula.as_ref().unwrap();
        let (formulas, _) = kitchen();
        let before = &formulas[&formula.component];
        let changed: Vec<usize> = (0..before.lines.len())
            .filter(|at| before.lines[*at].amount != formula.document.lines[*at].amount)
            .collect();
        assert!(
            !changed.is_empty() && changed.iter().all(|at| before.lines[*at].ingredient.contains("gelatin"))
        );
        let (_, then) = assessed(&formula.document, &shelf).unwrap();
        assert_eq!(then.at.outcome, Outcome::Inside, "{}", most.words);
        // A little is enough: no more gelatin than that asks for.
        let own = &plan.problem.waits[*wait];
        let little = ways(plan, &orders, *wait, Some(own.min - 5));
        let least = little.ways.iter().find(|way| way.formula.is_some()).unwrap();
        assert!(
            least.sooner_min <= most.sooner_min && least.sooner_min >= 5,
            "{} {}",
            least.words,
            most.words
        );
    }
}

/// A shorter wait is one more thing that happened: the plan is bent to it, keeps it, and has it when it is compiled anew.
#[test]
fn a_plan_is_bent_to_a_shorter_wait() {
    let (plan, _) = week();
    let orders = orders();
    let (wait, way) = clocked(plan)
        .into_iter()
        .find_map(|wait| Some((wait, ways(plan, &orders, wait, None).ways.first()?.clone())))
        .unwrap();
    let of = plan.problem.steps[plan.problem.waits[wait].from].comp.clone();
    let minded = [format!("{of}: cools too slowly."), format!("{of} and more: cools too slowly.")];
    let ask = BendAsk {
        plan: PlanDocument { cautions: minded.to_vec(), ..plan.clone() },
        reports: Vec::new(),
        now: plan.from,
        not_begun: Vec::new(),
        happened: Happened::Quicker { quicker: way.quicker.clone() },
        also: Vec::new(),
    };
    assert!(ask.faults().is_empty());
    let bent = bend(&ask);
    assert!(bent.level <= Level::Repair, "{}", bent.sentence);
    let then = bent.plan.unwrap();
    assert_eq!(then.problem.waits[wait].min, way.quicker.min);
    assert!(then.problem.waits[wait].name.ends_with(&way.quicker.how), "{}", then.problem.waits[wait].name);
    assert_eq!(then.quicker, std::slice::from_ref(&way.quicker));
    let decided = format!("{} That was reckoned before it was decided: {}.", minded[0], way.quicker.how);
    assert_eq!(view(&then).cautions, [decided, minded[1].clone()]);
    assert_eq!(check(&then.problem, &then.start), []);
    let again = ways(&then, &orders, wait, None);
    assert!(again.ways.is_empty() && again.sentence.contains("shorter already"), "{}", again.sentence);
    let strange = Quicker { to: "no such step".to_owned(), ..way.quicker.clone() };
    let wrong = BendAsk { happened: Happened::Quicker { quicker: strange }, ..ask.clone() };
    assert_eq!(wrong.faults()[0].field, "happened.quicker");
    let turned = Quicker { max: Some(way.quicker.min - 1), ..way.quicker };
    let wrong = BendAsk { happened: Happened::Quicker { quicker: turned }, ..ask };
    assert_eq!(wrong.faults()[0].field, "happened.quicker");
}

/// What cannot be saved as it is names what would: a wait that a clock can shorten with the minutes it may last, another pair of
/// hands, a day more; each with minutes, none of them past a limit.
#[test]
fn what_cannot_be_saved_is_told_with_cures_and_their_minutes() {
    let (plan, seen) = week();
    let mut told = 0;
    for step in seen.steps.iter().filter(|step| step.hands).step_by(4) {
        let ask = BendAsk {
            plan: plan.clone(),
            reports: Vec::new(),
            now: plan.days().wall(step.begins.unwrap()),
            not_begun: Vec::new(),
            happened: Happened::Late { step: step.step, min: 90 },
            also: Vec::new(),
        };
        let bent = bend(&ask);
        let cures = cures(&ask, bent.level);
        for cure in &cures {
            assert!(cure.words.chars().any(|own| own.is_ascii_digit()), "{}", cure.words);
            if let Some(shorter) = cure.shorter {
                let wait = &plan.problem.waits[shorter.wait];
                assert!(shorter.min < wait.min, "{}", cure.words);
                assert_eq!(shorter.clocked, seen.waits[shorter.wait].clocked);
            }
            told += 1;
        }
        assert!(bent.level >= Level::Overtime || cures.is_empty(), "{}", bent.sentence);
    }
    assert!(told > 0, "nothing of the week is ever in need of a cure");
}

/// Put where it cannot be, the proof says why, on the kitchen's own days.
#[test]
fn a_step_that_cannot_be_there_says_why() {
    let (plan, seen) = week();
    let last = seen.steps.iter().filter(|step| step.hands).max_by_key(|step| step.begins).unwrap();
    let first =
        seen.steps.iter().filter(|step| step.order == last.order).min_by_key(|step| step.begins).unwrap();
    let ask = BendAsk {
        plan: plan.clone(),
        reports: Vec::new(),
        now: plan.from,
        not_begun: Vec::new(),
        happened: Happened::Moved { step: last.step, to: first.begins.unwrap() },
        also: Vec::new(),
    };
    let bent = bend(&ask);
    assert_eq!(bent.level, Level::Nothing, "{}", bent.sentence);
    assert!(bent.sentence.contains("No plan can have that") && bent.because.len() > 1, "{:?}", bent.because);
    assert!(bent.because.iter().all(|words| !words.contains("day 1 ")), "{:?}", bent.because);
}
