//! A band that knows when it does not know: it grows with what was never checked, and what is not known is claimed by nobody.

use crate::cakes::{chosen, formulas, found, template};
use crate::support::mixture;
use crate::was_wrong::{document, judged, kind};
use pastry::assess::Assessment;
use pastry::assess::starts::starts;
use pastry::balance::ways;
use pastry::formula::{Family, System};
use pastry::ingredient::Shelf;
use pastry::rescue::{RescueAsk, Sign, rescue};
use pastry::rheology::warning::WarningCode;
use pastry::rheology::{History, Options, Predictor};
use pastry::stack::check::finding::FindingCode;
use pastry::stack::{Known, Standing, stack};
use serde_json::json;

#[test]
fn the_band_grows_with_what_was_never_checked() {
    let sigma = |lines: &[(&str, f64)], system: System, t_c: f64| {
        Predictor::new(&mixture(lines), system, &Options::default()).at(t_c, History::Rested).sigma_yield
    };
    let jelly = |rum: f64| {
        sigma(
            &[("water", 400.0 - rum), ("sugar", 60.0), ("gelatin200", 9.0), ("rum40", rum + 0.001)],
            System::Jelly,
            8.0,
        )
    };
    assert!(jelly(0.0) < jelly(100.0) && jelly(100.0) < jelly(250.0));
    let mousse = |t_c: f64| {
        sigma(
            &[("raspberry", 400.0), ("sugar", 90.0), ("cream35", 500.0), ("gelatin200", 10.0)],
            System::Mousse,
            t_c,
        )
    };
    assert!(mousse(16.0) > mousse(6.0));
    // What is not known is never offered as a way out.
    for family in [Family::Jelly, Family::FruitMousse, Family::MirrorGlaze] {
        for start in starts(family) {
            for way in ways(start, &Shelf::catalogue(), &|_| None).unwrap().ways {
                assert!(way.at.unknown.is_none(), "{}", way.title);
            }
        }
    }
}

#[test]
fn a_custard_with_a_little_butter_in_it_is_no_mousseline() {
    let with = |milk: f64, butter: f64| {
        let lines = format!("milk {milk}; yolk 85; sugar 110; corn_starch 40; butter82 {butter}");
        judged(Family::Mousseline, kind("fill"), &lines, 18.0, json!({ "cook_c": 96 }))
    };
    let warned = |answer: &Assessment| answer.warnings.iter().any(|own| own.code == WarningCode::TooWet);
    // Common practice: butter from a third to two thirds of the milk.
    for butter in [200.0, 250.0, 350.0] {
        let usual = with(500.0, butter);
        assert!(usual.at.unknown.is_none() && usual.at.chance > 0.6, "{butter}: {}", usual.at.headline);
    }
    assert!(!warned(&with(500.0, 350.0)));
    let thin = with(1500.0, 350.0);
    assert!(thin.at.unknown.is_some() && warned(&thin), "{}", thin.at.headline);
    assert!(!thin.at.headline.contains("right"), "{}", thin.at.headline);
}

#[test]
fn what_is_not_known_is_not_claimed_by_any_door() {
    let lines = "milk 1500; yolk 85; sugar 110; corn_starch 40; butter82 350";
    let thin = judged(Family::Mousseline, kind("fill"), lines, 18.0, json!({ "cook_c": 96 }));
    assert!(thin.at.unknown.is_some() && thin.spans.is_empty() && thin.reach.is_empty());
    assert!(thin.span_sentence.contains("not known"), "{}", thin.span_sentence);
    assert!(!thin.in_the_room.sentence.contains("Pa"), "{}", thin.in_the_room.sentence);
    // In a cake it is said beside whatever else is found.
    let formula = document(Family::Mousseline, kind("fill"), lines, 18.0, json!({ "cook_c": 96 }));
    let mut with = formulas();
    for own in with.values_mut().filter(|own| own.work.job.word() == "fill") {
        *own = formula.clone();
    }
    let shelf = Shelf::catalogue();
    let known = Known { formulas: &with, shelf: &shelf };
    let answer = stack(&chosen(&template("drip")), &known, 21.0).unwrap();
    let finding = found(&answer, FindingCode::NotKnown).expect("said");
    assert_eq!(finding.standing, Standing::Care);
    assert!(finding.sentence.contains("so much liquid in so little fat"), "{}", finding.sentence);
    // What was brought into a bowl is not judged by it either.
    let ask = RescueAsk {
        document: formula,
        sign: Sign::TooLoose,
        bowl_c: None,
        bowl_g: None,
        not_at_hand: Vec::new(),
    };
    let rescue = rescue(&ask, &shelf).unwrap();
    assert!(rescue.numbers_say.contains("not known"), "{}", rescue.numbers_say);
}
