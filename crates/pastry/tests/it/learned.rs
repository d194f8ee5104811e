//! What was learned as a cook meets it: set back, over time, told in words, in the place of another, with an answer.

use crate::learning::{FORMULAS, Kitchen, READING, day, normal, some, taught};
use fastrand::Rng;
use pastry::assess::ready::bearing;
use pastry::assess::starts::starts;
use pastry::assess::{Ready, assess_from};
use pastry::belief::{Beliefs, Offset, OffsetKind, Posterior, Quantity, Terms};
use pastry::formula::Family;
use pastry::ingredient::{IngredientDocument, Shelf};
use pastry::learn::{
    Candidate, Counts, Learned, LearningEntry, LearningEvent, Taught, as_they_were, before_each, history_of,
    learn, most_worth, over_time, report, standing, worth_words,
};

fn set_back(id: &str, turn: usize, of: Offset) -> LearningEntry {
    let event = LearningEvent::SetBack { of, quantity: Quantity::Yield, why: "another maker".to_owned() };
    LearningEntry { id: id.to_owned(), at: day(turn), event }
}

/// An offset that begins anew is as before any test, and what was read goes on to speak of all the rest.
#[test]
fn an_offset_that_is_set_back_begins_anew_and_what_was_is_kept() {
    let all = some(30);
    let before = learn(&all).posterior;
    let bears = |own: &Taught, of: &Offset| own.terms.weights.iter().any(|one| one.0 == *of);
    let both = |of: &&Offset| {
        of.kind() == OffsetKind::Ingredient
            && all.iter().any(|own| own.at <= day(8) && bears(own, of))
            && all.iter().any(|own| own.at > day(8) && own.at <= day(20) && bears(own, of))
    };
    let of = before.offsets().map(|own| own.0).find(both).unwrap().clone();
    let (_, was) = before.offset(&of).unwrap();
    assert!(was < of.variance().sqrt());
    let decided = [set_back("decided-1", 20, of.clone())];
    let back = as_they_were(&all, Quantity::Yield, &standing(&decided));
    let after = learn(&back).posterior;
    let past = of.past(day(20));
    assert!(after.offset(&past).unwrap().1 < past.variance().sqrt(), "what it was is still known");
    let since = all.iter().filter(|own| own.at > day(20));
    let since = since.filter(|own| own.terms.weights.iter().any(|one| one.0 == of)).count();
    let bears =
        |name: &Offset| back.iter().filter(|own| own.terms.weights.iter().any(|one| one.0 == *name)).count();
    assert_eq!(bears(&of), since, "only what was read since speaks of it as it is now");
    assert!(bears(&past) > 0);
    // Of the other quantity nothing was set back; and what is taken back was never said.
    assert_eq!(as_they_were(&all, Quantity::Viscosity, &standing(&decided)), all);
    let taken = LearningEvent::TakenBack { of: "decided-1".to_owned() };
    let taken = LearningEntry { id: "decided-2".to_owned(), at: day(25), event: taken };
    let both = [decided[0].clone(), taken];
    assert_eq!(as_they_were(&all, Quantity::Yield, &standing(&both)), all);
    // Set back twice there are three of it.
    let twice = [set_back("decided-3", 8, of.clone()), set_back("decided-1", 20, of.clone())];
    let thrice = as_they_were(&all, Quantity::Yield, &standing(&twice));
    let names: std::collections::BTreeSet<&Offset> = thrice
        .iter()
        .flat_map(|own| &own.terms.weights)
        .map(|own| &own.0)
        .filter(|own| own.key() == of.key())
        .collect();
    assert!(names.contains(&of.past(day(8))) && names.contains(&of.past(day(20))), "{names:?}");
}

/// What is said before a test knows nothing of it, nor of anything later.
#[test]
fn what_was_said_before_a_test_is_what_all_before_it_taught() {
    let all = some(12);
    let before = before_each(&all);
    assert_eq!(before[0], (0.0, all[0].terms.book().sqrt()));
    let mut longer = all.clone();
    longer.extend(taught(&Kitchen::drawn(8).history(5, 0.0)).into_iter().enumerate().map(|(at, own)| {
        Taught { id: format!("later-{at}"), batch: format!("later-{at}"), at: day(50 + at), ..own }
    }));
    assert_eq!(before_each(&longer)[..12], before[..]);
    // However they are given.
    let mut turned = all.clone();
    turned.reverse();
    let mut again = before_each(&turned);
    again.reverse();
    for (one, other) in again.iter().zip(&before) {
        assert!((one.0 - other.0).abs() < 1e-9 && (one.1 - other.1).abs() < 1e-9);
    }
}

#[test]
fn a_kitchen_that_is_off_the_book_gets_better_and_it_is_said() {
    let terms = FORMULAS[0].1.clone();
    let mut dice = Rng::with_seed(5);
    let all: Vec<Taught> = (0..24)
        .map(|turn| Taught {
            id: format!("test-{turn:02}"),
            batch: format!("batch-{turn:02}"),
            at: day(turn),
            terms: terms.clone(),
            ln_over: 0.45 + 0.08 * normal(&mut dice),
            reading: 0.01,
            left_out: false,
        })
        .collect();
    let learned = learn(&all);
    let seen = over_time(&all, &before_each(&all), &learned);
    assert_eq!(seen.tests.len(), 24);
    assert!(seen.sentence.starts_with("They are better than the book: "), "{}", seen.sentence);
    let few = over_time(&all[..3], &before_each(&all[..3]), &learn(&all[..3]));
    assert_eq!(few.sentence, "After 3 more tests it can be said whether the predictions get better.");
    let kitchen = history_of(&Offset::Kitchen {}, &all);
    assert_eq!(kitchen.len(), 24);
    let width = |at: usize| (kitchen[at].times.high / kitchen[at].times.low).ln();
    assert!(kitchen.windows(2).all(|two| two[0].at < two[1].at) && width(23) < width(0));
    let (mean, _) = learned.posterior.offset(&Offset::Kitchen {}).unwrap();
    assert!((kitchen[23].times.value - mean.exp()).abs() < 1e-9, "the last is what is believed now");
}

#[test]
fn every_offset_is_told_with_its_tests_and_what_a_test_is_worth_with_its_formulas() {
    let all = some(20);
    let learned = Learned::from(&all, &all[..5]);
    let told = report(&learned, &|own| format!("{} {}", own.kind().word(), own.key()));
    for own in &told {
        let of: &[Taught] = if own.quantity == Quantity::Yield { &all } else { &all[..5] };
        let judged = &learned.of(own.quantity).judged;
        let bears = |taught: &Taught| taught.terms.weights.iter().any(|one| one.0 == own.of);
        let counted =
            of.iter().zip(judged).filter(|(taught, judged)| judged.0 == Counts::Yes && bears(taught)).count();
        assert_eq!(own.tests, counted, "{}", own.name);
        assert!(own.sentence.contains(&own.name) && own.times.low < own.times.high);
    }
    let candidates: Vec<Candidate> = FORMULAS
        .iter()
        .map(|own| Candidate { terms: own.1.clone(), made: 1.0, reading: Some(READING) })
        .collect();
    let names: Vec<String> = (0..candidates.len()).map(|at| format!("Formula {at}")).collect();
    let names: Vec<&str> = names.iter().map(String::as_str).collect();
    let made = vec![1.0; candidates.len()];
    let worth = most_worth(&candidates, &Posterior::default());
    let words = worth_words(&worth[0], "Plate spread", &names, &made).unwrap();
    assert!(words.starts_with("A plate spread of Formula "), "{words}");
    assert!(words.contains(" formulas, most of Formula "), "{words}");
    // Where everything is known nothing is worth saying.
    let many: Vec<Taught> = (0..400)
        .map(|at| Taught {
            id: format!("known-{at}"),
            batch: format!("known-{at}"),
            at: day(at),
            terms: FORMULAS[at % FORMULAS.len()].1.clone(),
            ln_over: 0.0,
            reading: 1e-4,
            left_out: false,
        })
        .collect();
    let known = most_worth(&candidates, &learn(&many).posterior);
    assert_eq!(worth_words(&known[0], "Plate spread", &names, &made), None);
}

fn own_chocolate(key: &str, replaces: Option<&str>) -> IngredientDocument {
    let shelf = Shelf::catalogue();
    let of = shelf.find("dark70").unwrap();
    let copy = IngredientDocument::copy_of(of, key.to_owned(), key.to_owned());
    IngredientDocument { replaces: replaces.map(str::to_owned), ..copy }
}

fn terms_with(shelf: &Shelf, chocolate: &str) -> Terms {
    let mut own = starts(Family::Ganache)[0].clone();
    own.lines.retain(|line| line.ingredient.starts_with("cream"));
    let mut line = own.lines[0].clone();
    line.ingredient = chocolate.to_owned();
    line.amount = own.lines[0].amount.clone();
    own.lines.push(line);
    let ready = Ready::of(&own, shelf).unwrap();
    let at = (own.work.temperature_c.celsius(), own.history());
    let [of_yield, _] = bearing(&ready.lines, Family::Ganache, &ready.options, at);
    of_yield
}

/// What is bought in the place of another begins with what was learned of that, in part: its spread before any test is the same, and
/// a test of the old one moves it by 0.8 of what it moves that.
#[test]
fn what_is_bought_in_the_place_of_another_begins_where_that_one_stood() {
    let [first, second, third] =
        [("own-first", None), ("own-second", Some("own-first")), ("own-third", Some("own-second"))]
            .map(|own| own_chocolate(own.0, own.1));
    let shelf = Shelf::catalogue().with([&third, &first, &second]);
    assert_eq!(shelf.find("own-third").unwrap().replaced, ["own-second", "own-first"]);
    let terms = ["own-first", "own-second", "own-third"].map(|own| terms_with(&shelf, own));
    for own in &terms {
        assert!((own.book() - terms[0].book()).abs() < 1e-12, "the spread before any test is the family's");
        assert!((own.scatter - terms[0].scatter).abs() < 1e-12);
    }
    let of = |key: &str| Offset::Ingredient { ingredient: key.to_owned() };
    let weight =
        |at: usize, key: &str| terms[at].weights.iter().find(|own| own.0 == of(key)).map_or(0.0, |own| own.1);
    assert!((weight(1, "own-first") / weight(0, "own-first") - 0.8).abs() < 1e-12);
    assert!((weight(2, "own-first") / weight(0, "own-first") - 0.64).abs() < 1e-12);
    assert!((weight(2, "own-second") / weight(1, "own-second") - 0.8).abs() < 1e-12);
    // Tested through the old one alone.
    let all: Vec<Taught> = (0..6)
        .map(|turn| Taught {
            id: format!("test-{turn}"),
            batch: format!("batch-{turn}"),
            at: day(turn),
            terms: terms[0].clone(),
            ln_over: 0.5,
            reading: 0.01,
            left_out: false,
        })
        .collect();
    let belief = learn(&all).posterior;
    let expected: Vec<f64> = terms.iter().map(|own| belief.next(own).0).collect();
    assert!(expected[0] > expected[1] && expected[1] > expected[2] && expected[2] > 0.0, "{expected:?}");
    // Alone, without saying in whose place, it begins with the book.
    let alone = Shelf::catalogue().with([&own_chocolate("own-other", None)]);
    assert!(belief.next(&terms_with(&alone, "own-other")).0 < expected[2]);
    // A circle ends, and what is bought in its own place is said to be wrong.
    let round = [own_chocolate("own-a", Some("own-b")), own_chocolate("own-b", Some("own-a"))];
    let shelf = Shelf::catalogue().with(&round);
    assert_eq!(shelf.find("own-a").unwrap().replaced, ["own-b"]);
    // Not in its own place, and not in that of what there is nowhere; one of the kitchen's own may come later.
    for before in ["own-a", "dark5", "made-01"] {
        let faults = own_chocolate("own-a", Some(before)).faults();
        assert_eq!(faults.iter().map(|own| own.field.as_str()).collect::<Vec<_>>(), ["replaces"], "{before}");
    }
    assert_eq!(own_chocolate("own-a", Some("own-not-here-yet")).faults(), []);
}

/// What was learned is said with the answer, and is what the answer is over the book's.
#[test]
fn an_answer_says_what_the_kitchens_own_tests_do_to_it() {
    let own = starts(Family::Ganache)[0].clone();
    let shelf = Shelf::catalogue();
    assert_eq!(assess_from(&own, &shelf).unwrap().learned, None);
    let ready = Ready::of(&own, &shelf).unwrap();
    let at = (own.work.temperature_c.celsius(), own.history());
    let [terms, _] = bearing(&ready.lines, Family::Ganache, &ready.options, at);
    let all: Vec<Taught> = (0..4)
        .map(|turn| Taught {
            id: format!("test-{turn}"),
            batch: format!("batch-{turn}"),
            at: day(turn),
            terms: terms.clone(),
            ln_over: 0.4,
            reading: 0.01,
            left_out: false,
        })
        .collect();
    let beliefs = Beliefs { of_yield: learn(&all).posterior, of_viscosity: Posterior::default() };
    let taught = shelf.clone().taught(beliefs.into());
    let (book, here) = (assess_from(&own, &shelf).unwrap(), assess_from(&own, &taught).unwrap());
    let learned = here.learned.unwrap();
    let times = here.at.yield_stress_pa.value / book.at.yield_stress_pa.value;
    assert!((learned.yield_times / times - 1.0).abs() < 1e-4, "{} {times}", learned.yield_times);
    assert!(learned.yield_times > 1.2 && learned.viscosity_times == 1.0);
    assert!(
        learned.sentence.starts_with("By your own tests 1.") && learned.sentence.contains("narrower"),
        "{}",
        learned.sentence
    );
    assert!(
        learned.parts.iter().all(|own| own.tests == 4 && own.words.ends_with("from 4 tests.")),
        "{:?}",
        learned.parts
    );
    let product: f64 = learned.parts.iter().map(|own| own.here).product();
    assert!((product / learned.yield_times - 1.0).abs() < 1e-4, "the parts make the whole");
    // The band is narrower and never below what thermometer and scale allow.
    let width = |own: &pastry::job::duty::Estimate| (own.high / own.low).ln();
    assert!(width(&here.at.yield_stress_pa) < width(&book.at.yield_stress_pa));
    // One that nothing tested bears on is as the book has it.
    let syrup = assess_from(&starts(Family::Syrup)[0].clone(), &taught).unwrap();
    assert_eq!(syrup.learned, None);
}
