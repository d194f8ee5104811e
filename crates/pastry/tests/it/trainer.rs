//! The trainer: every question has one right answer, which the model gives, and what a person knows is counted as it was.

use jiff::Timestamp;
use pastry::assess::spoon_sign::SpoonSign;
use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess, assess_from};
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::trainer::{
    TrainerAsk, TrainerEntry, TrainerEvent, TrainerFormula, TrainerKind, answer, ask, can_be_asked, score,
    spoon_of,
};

fn formulas() -> Vec<TrainerFormula> {
    let every = Family::ALL.iter().flat_map(|family| starts(*family));
    every
        .enumerate()
        .map(|(at, own)| TrainerFormula { key: format!("formula-{at}"), document: own.clone() })
        .collect()
}

fn which(kind: TrainerKind, own: &TrainerFormula, seed: u32, level: u8) -> TrainerAsk {
    let component = own.key.clone();
    TrainerAsk { kind, component, revision: 1, others: Vec::new(), seed, level }
}

#[test]
fn every_question_of_every_start_has_one_right_answer_and_says_why() {
    let shelf = Shelf::catalogue();
    let all = formulas();
    let mut asked = [0; 4];
    for (at, own) in all.iter().enumerate() {
        let is = assess(&own.document).unwrap();
        for kind in can_be_asked(&is) {
            let level = 1 + (at % 4) as u8;
            let beside: Vec<TrainerFormula> = std::iter::once(own)
                .chain(all.iter().cycle().skip(at + 1).step_by(7).take(4))
                .cloned()
                .collect();
            let which = which(kind, own, at as u32, level);
            let Some(found) = ask(&which, &beside, &shelf).unwrap() else { continue };
            asked[kind as usize] += 1;
            let question = &found.question;
            let mut words: Vec<&str> = question.choices.iter().map(|own| own.words.as_str()).collect();
            words.sort_unstable();
            words.dedup();
            assert_eq!(words.len(), question.choices.len(), "{}: two choices alike", own.document.name);
            assert!((2..=7).contains(&words.len()));
            let good = answer(&found, found.right).unwrap();
            assert!(good.good && good.sentence.starts_with("Right: "), "{}", good.sentence);
            assert!(!good.why.is_empty() && good.why.iter().all(|own| own.ends_with('.')), "{:?}", good.why);
            let other = (found.right + 1) % question.choices.len();
            let wrong = answer(&found, other).unwrap();
            assert!(!wrong.good && wrong.right == found.right, "{}", wrong.sentence);
            assert!(answer(&found, question.choices.len()).is_none());
            // The same question again is the same.
            let again = ask(&which, &beside, &shelf).unwrap().unwrap();
            assert_eq!((&again.question, again.right), (question, found.right));
        }
    }
    assert!(asked.iter().all(|own| *own > 1), "{asked:?}");
}

/// What is right is what the model says, at the temperature that is asked about.
#[test]
fn what_is_right_is_what_the_model_says() {
    let shelf = Shelf::catalogue();
    for (at, own) in formulas().iter().enumerate() {
        for level in 1..=4 {
            let Some(found) =
                ask(&which(TrainerKind::Spoon, own, at as u32, level), std::slice::from_ref(own), &shelf)
                    .unwrap()
            else {
                continue;
            };
            let mut document = own.document.clone();
            document.work.temperature_c = pastry::units::Temperature::from_celsius(found.is.at.temperature_c);
            let sign = assess_from(&document, &shelf).unwrap().at.spoon;
            assert_eq!(found.question.choices[found.right].words, sign.word(), "{}", own.document.name);
            assert_eq!(found.question.choices.len(), if level == 1 { 3 } else { 7 });
            assert_eq!(found.question.changed.is_some(), level >= 3);
            if level < 3 {
                assert_eq!(spoon_of(&own.document, &shelf).unwrap(), sign);
            }
        }
    }
}

#[test]
fn the_words_of_the_spoon_begin_where_they_say() {
    for (place, own) in SpoonSign::ALL.iter().enumerate().skip(1) {
        let (limit, is_yield) = own.begins().unwrap();
        let at = |times: f64| if is_yield { (limit * times, 1.0) } else { (0.5, limit * times) };
        let of = |(pa, flow): (f64, f64)| SpoonSign::of(pa, flow);
        assert_eq!(of(at(1.0001)), *own);
        let below = SpoonSign::ALL.iter().position(|one| *one == of(at(0.9999))).unwrap();
        assert!(below < place, "{own:?}");
        assert_eq!(of(own.typical()), *own);
    }
}

#[test]
fn what_is_drawn_of_bowls_differs_on_the_spoon() {
    let shelf = Shelf::catalogue();
    let all = formulas();
    let mut seen = 0;
    for seed in 0..40 {
        let at = seed as usize * 3 % all.len();
        let beside: Vec<TrainerFormula> = (0..5).map(|by| all[(at + by * 11) % all.len()].clone()).collect();
        let Some(found) = ask(&which(TrainerKind::WhatIsIn, &all[at], seed, 1), &beside, &shelf).unwrap()
        else {
            continue;
        };
        seen += 1;
        assert!(found.question.name.is_none() && found.question.lines.is_empty(), "nothing tells what it is");
        assert_eq!(found.question.spoon.unwrap().sign, found.is.at.spoon);
        let right = &found.question.choices[found.right];
        assert_eq!(right.lines.len(), found.is.lines.len());
        assert!(found.question.choices.iter().all(|own| !own.lines.is_empty()));
    }
    assert!(seen > 10, "{seen}");
}

fn said(second: i64, kind: TrainerKind, right: &str, said: &str, off: i64) -> TrainerEntry {
    let (right, said) = (right.to_owned(), said.to_owned());
    let event = TrainerEvent::Answered { kind, component: "one".to_owned(), level: 1, right, said, off };
    TrainerEntry { at: Timestamp::from_second(second).unwrap(), event }
}

#[test]
fn the_score_follows_the_person_and_says_what_is_confused() {
    let spoon = TrainerKind::Spoon;
    let mut all: Vec<TrainerEntry> = (0..3).map(|at| said(at, spoon, "slow rope", "slow rope", 0)).collect();
    let today = Timestamp::from_second(100).unwrap();
    assert_eq!(score(&all, today).level(spoon), 2, "three right in a row");
    all.push(said(100, spoon, "soft dollop", "slow rope", -1));
    assert_eq!(score(&all, today).level(spoon), 2, "one wrong is nothing yet");
    all.push(said(101, spoon, "soft dollop", "slow rope", -1));
    all.push(said(102, TrainerKind::Drip, "40 mm", "20 mm", -2));
    all.push(said(103, TrainerKind::Drip, "40 mm", "28 mm", -1));
    let now = score(&all, today);
    assert_eq!((now.level(spoon), now.today, now.today_good), (1, 4, 0));
    assert_eq!(
        (now.confused[0].right.as_str(), now.confused[0].said.as_str(), now.confused[0].times),
        ("soft dollop", "slow rope", 2)
    );
    assert_eq!(
        now.sentence,
        "3 of 7 right. You take a soft dollop for a slow rope. You mostly say drips too short."
    );
    all.push(TrainerEntry { at: today, event: TrainerEvent::BegunAnew {} });
    assert_eq!(score(&all, today).sentence, "Nothing was asked yet.");
}

/// A formula nobody has checked anything like is not asked about, and one that is amiss is a fault.
#[test]
fn what_is_not_known_is_not_asked() {
    let shelf = Shelf::catalogue();
    let mut own = formulas()[0].clone();
    own.document.lines[0].amount = "gravel".to_owned();
    assert!(ask(&which(TrainerKind::Spoon, &own, 1, 1), std::slice::from_ref(&own), &shelf).is_err());
    let empty = FormulaDocument { lines: Vec::new(), ..formulas()[0].document.clone() };
    assert!(
        ask(
            &which(TrainerKind::Spoon, &own, 1, 1),
            &[TrainerFormula { key: "e".to_owned(), document: empty }],
            &shelf
        )
        .is_err()
    );
    assert!(ask(&which(TrainerKind::Spoon, &own, 1, 1), &[], &shelf).unwrap().is_none());
}
