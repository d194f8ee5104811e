//! What is boiled down, against teaching tables of sugar, the laws of mass and energy, and what kitchens see.

use crate::clock_practice::{custard, formula};
use pastry::assess::FormulaDocument;
use pastry::clock::boil::Ring;
use pastry::clock::{BoilAnswer, BoilDocument, boil};
use pastry::formula::BoilTo;
use pastry::ingredient::Shelf;

fn asked(formula: FormulaDocument, boil: BoilTo) -> BoilDocument {
    BoilDocument { formula, boil, kg: None, from_c: None, altitude_m: 0.0, watts: None, ring: None }
}

fn answer(document: &BoilDocument) -> BoilAnswer {
    boil(document, &Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// Two of sugar to one of water: 66.7 °Bx.
fn syrup(grams: f64) -> FormulaDocument {
    formula("syrup", "soak", &[("sugar", grams * 2.0 / 3.0), ("water", grams / 3.0)])
}

#[test]
fn sugar_comes_to_its_stages_at_the_weights_of_its_strength() {
    // Teaching tables (McWilliams; from memory): soft ball about 85 % sugar, firm ball 87, hard ball 92, soft crack 95, hard crack
    // 99; approximate, within two and a half points.
    for (c, percent) in [(114.0, 85.0), (119.0, 87.5), (126.0, 92.0), (137.0, 95.5), (150.0, 98.5)] {
        let told = answer(&asked(syrup(300.0), BoilTo::Temperature { c }));
        assert!((told.brix[1] - percent).abs() < 2.5, "{c} °C: {:?}", told.brix);
        // What does not boil away stays: 200 g of sugar at that strength.
        assert!((told.left_g - 200.0 / (told.brix[1] / 100.0)).abs() < 1.5, "{c} °C: {} g", told.left_g);
        assert!((told.left_g + told.gone_g - 300.0).abs() < 1.1, "{told:?}");
    }
    let told = answer(&asked(syrup(300.0), BoilTo::Temperature { c: 118.0 }));
    assert_eq!(
        told.stages.iter().filter(|own| own.asked).map(|own| own.stage.as_str()).next_back(),
        Some("firm ball")
    );
    assert!(told.sentence.contains("firm ball") && told.sentence.contains("118"), "{}", told.sentence);
    assert!(
        told.cautions.iter().any(|caution| caution.words.contains("Boiling sugar")),
        "{:?}",
        told.cautions
    );
}

#[test]
fn up_a_mountain_the_same_syrup_is_cooler_and_weighs_the_same() {
    let at = |altitude_m: f64| {
        answer(&BoilDocument { altitude_m, ..asked(syrup(300.0), BoilTo::Temperature { c: 118.0 }) })
    };
    let (sea, high) = (at(0.0), at(1600.0));
    // The vectors of an independent reckoning: 118 °C at the sea is 112.1 °C at 1600 m.
    assert!((high.temperature_c - 112.1).abs() < 0.1, "{}", high.temperature_c);
    assert!((sea.left_g - high.left_g).abs() < 1.1, "{} and {}", sea.left_g, high.left_g);
    assert!(high.sentence.contains("at 1600 m"), "{}", high.sentence);
}

#[test]
fn mass_and_minutes_add_up() {
    let by_half = answer(&asked(syrup(600.0), BoilTo::Brix { brix: 80.0 }));
    assert!((by_half.left_g - 400.0 / 0.8).abs() < 1.1, "{}", by_half.left_g);
    let min = |document: &BoilDocument, pan: usize| answer(document).pans[pan].min.unwrap();
    let cream = |grams: f64| formula("ganache", "fill", &[("cream36", grams)]);
    let reduce = |grams: f64, watts: f64, ring: Ring| BoilDocument {
        watts: Some(watts),
        ring: Some(ring),
        ..asked(cream(grams), BoilTo::Share { of_weight: 0.7 })
    };
    // Twice as much takes about twice as long; more power, less time; a wide pan is never slower for what foams.
    let (one, two) = (reduce(500.0, 2000.0, Ring::Electric), reduce(1000.0, 2000.0, Ring::Electric));
    assert!((min(&two, 0) / min(&one, 0) - 2.0).abs() < 0.2, "{} {}", min(&one, 0), min(&two, 0));
    assert!(min(&reduce(500.0, 3000.0, Ring::Induction), 1) < min(&one, 1));
    assert!(min(&one, 1) < min(&one, 0), "{} {}", min(&one, 0), min(&one, 1));
    // common practice: half a litre of cream by a third in a wide pan, a quarter of an hour or so.
    assert!((3.0..=30.0).contains(&min(&one, 1)), "{}", min(&one, 1));
    let weak = BoilDocument { watts: Some(100.0), ring: Some(Ring::Gas), ..one.clone() };
    assert_eq!(answer(&weak).pans[1].min, None, "too weak a ring boils nothing");
}

#[test]
fn a_custard_loses_little_and_its_egg_is_safe_or_held() {
    let told = answer(&asked(custard(1000.0), BoilTo::Temperature { c: 83.0 }));
    assert!(told.gone_g == 0.0 && told.sentence.contains("without boiling"), "{}", told.sentence);
    let lost = told.pans[1].loses_g.unwrap();
    // common practice: a custard cooked in an open pan comes back one to three per cent lighter.
    assert!((1.0..=40.0).contains(&lost), "{lost} g");
    assert!(told.egg.unwrap().contains("safe at 83.0 °C"));
    let held = answer(&asked(custard(1000.0), BoilTo::Temperature { c: 65.0 })).egg.unwrap();
    assert!(held.contains("held at 65.0 °C for 9.5 min"), "{held}");
    let raw = answer(&asked(custard(1000.0), BoilTo::Temperature { c: 50.0 }));
    assert!(raw.egg.unwrap().contains("stays raw"));
    assert!(raw.cautions.iter().any(|caution| caution.words.contains("raw")), "{:?}", raw.cautions);
}

#[test]
fn what_cannot_be_boiled_says_why() {
    let says = |document: &BoilDocument| boil(document, &Shelf::catalogue()).unwrap_err()[0].message.clone();
    let water = formula("syrup", "soak", &[("water", 500.0)]);
    assert!(says(&asked(water, BoilTo::Temperature { c: 118.0 })).contains("gets no hotter"));
    assert!(says(&asked(syrup(300.0), BoilTo::Brix { brix: 50.0 })).contains("°Bx already"));
    assert!(says(&asked(syrup(300.0), BoilTo::Share { of_weight: 0.3 })).contains("not so much water"));
    assert!(says(&asked(syrup(300.0), BoilTo::Temperature { c: 400.0 })).contains("between 30 and 180"));
}
