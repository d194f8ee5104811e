//! What is strained off and steeped: both parts are the whole, nothing of it is lost in silence, and the prediction is made of
//! what is left.

use crate::boiled::formula;
use pastry::assess::{Assessment, BroughtComponent, FormulaDocument, Ready, assess};
use pastry::balance::ways;
use pastry::fault::FaultCode;
use pastry::formula::strained::{Kept, Side, Steeped, Strained, Straining};
use pastry::formula::to_make::{Takes, to_make};
use pastry::formula::{BoilTo, Family, Line, Mixture};
use pastry::ingredient::key::{BESIDE, made_key};
use pastry::ingredient::{Part, Shelf, catalogue};
use pastry::rescue::{RescueAsk, Sign, rescue};
use pastry::scale::{ScaleAsk, Target, Whole, scale};
use proptest::prelude::*;

fn drained(keeps: Side, of_weight: f64) -> Strained {
    Strained { how: Straining::Drained, keeps, left: Kept::Share { of_weight } }
}

fn sieved(of_weight: f64) -> Strained {
    Strained { how: Straining::Sieved, keeps: Side::Through, left: Kept::Share { of_weight } }
}

fn answer(document: &FormulaDocument) -> Assessment {
    assess(document).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn mixture(document: &FormulaDocument) -> Mixture {
    Ready::of(document, &Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}")).mixture()
}

fn taking(lines: &[(&str, f64)], key: &str, document: &FormulaDocument) -> FormulaDocument {
    let mut taking = formula(Family::Syrup, lines);
    taking.components = vec![BroughtComponent { key: key.to_owned(), document: document.clone() }];
    taking
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever is strained, however: what is kept and what is not are together what went in, of every constituent.
    #[test]
    fn both_parts_are_the_whole(
        picks in prop::collection::vec((0..catalogue().len(), 5.0..500.0f64), 1..6),
        sieve in any::<bool>(), liquid in any::<bool>(), of_weight in 0.05..0.98f64, boil in 0.9..1.0f64,
    ) {
        let lines: Vec<(&str, f64)> = picks.iter().map(|(at, grams)| (catalogue()[*at].id.as_str(), *grams)).collect();
        let mut whole = formula(Family::Syrup, &lines);
        whole.process.boiled = Some(BoilTo::Share { of_weight: boil });
        let plain = match Ready::of(&whole, &Shelf::catalogue()) {
            Ok(plain) => plain,
            Err(_) => return Ok(()),
        };
        whole.process.strained = Some(Strained {
            how: if sieve { Straining::Sieved } else { Straining::Drained },
            keeps: if liquid { Side::Through } else { Side::Stays },
            left: Kept::Share { of_weight },
        });
        // More liquid than runs off is refused, which is told elsewhere.
        let Ok(ready) = Ready::of(&whole, &Shelf::catalogue()) else { return Ok(()) };
        let batch_g = plain.batch_g();
        prop_assert!((ready.batch_g() - of_weight * batch_g).abs() < 1e-6 * batch_g);
        let both = [
            (made_key("it", None), of_weight * batch_g),
            (format!("{BESIDE}it"), (1.0 - of_weight) * batch_g),
        ];
        let both: Vec<(&str, f64)> = both.iter().map(|(key, grams)| (key.as_str(), *grams)).collect();
        let together = mixture(&taking(&both, "it", &whole));
        let once = plain.mixture();
        for part in Part::ALL {
            let (one, two) = (once.composition.get(part), together.composition.get(part));
            prop_assert!((one - two).abs() < 1e-9, "{part:?}: {one} whole, {two} in two parts");
        }
        // An allergen is on both sides.
        let all = &pastry::formula::totals(&plain.lines).allergens;
        for (key, grams) in both {
            let side = answer(&taking(&[(key, grams), ("water", 300.0)], "it", &whole));
            prop_assert_eq!(&side.totals.allergens, all, "{}", key);
        }
    }
}

#[test]
fn yoghurt_that_is_drained_is_thicker_the_longer_it_hangs() {
    let mut last = 0.0;
    for of_weight in [1.0, 0.8, 0.6, 0.45] {
        let mut own = formula(Family::WhippedCream, &[("yoghurt", 1000.0)]);
        own.process.strained = Some(drained(Side::Stays, of_weight));
        let told = answer(&own);
        let stress = told.at.yield_stress_pa.value;
        assert!(stress > last, "{of_weight}: {stress} Pa after {last}");
        last = stress;
        // It costs what was bought for it.
        let price = |own: &pastry::ingredient::Ingredient| own.pack.map(|pack| pack.price_per_kg());
        let shelf = taking(&[("made-it", 100.0)], "it", &own).shelf(&Shelf::catalogue()).unwrap();
        let [drained, plain] =
            ["made-it", "yoghurt"].map(|key| shelf.find(key).unwrap().price_per_kg(&price).unwrap());
        assert!((drained * of_weight - plain).abs() < 1e-9, "{drained} and {plain}");
    }
}

#[test]
fn thawed_fruit_gives_fruit_and_syrup_and_one_batch_gives_both() {
    let mut cherries = formula(Family::Syrup, &[("cherry", 900.0), ("sugar", 100.0)]);
    cherries.name = "Thawed cherries".to_owned();
    cherries.process.strained = Some(drained(Side::Stays, 0.6));
    let beside = format!("{BESIDE}cherries");
    let shelf = taking(&[("made-cherries", 1.0)], "cherries", &cherries).shelf(&Shelf::catalogue()).unwrap();
    let [fruit, syrup] = [&*made_key("cherries", None), &*beside].map(|key| shelf.find(key).unwrap().clone());
    assert_eq!(syrup.name, "Thawed cherries: the liquid drained off");
    assert!(syrup.composition.get(Part::Fibre) < 0.01 * fruit.composition.get(Part::Fibre));
    // Both are as sweet in their water.
    let brix = |own: &pastry::ingredient::Ingredient| {
        own.composition.phases().sugar / own.composition.get(Part::Water)
    };
    assert!((brix(&fruit) - brix(&syrup)).abs() < 1e-9);
    for (wanted_fruit, wanted_syrup, batch_g) in
        [(300.0, 100.0, 300.0), (150.0, 200.0, 300.0), (0.0, 40.0, 60.0)]
    {
        let takes = [
            Takes { name: "Jars", lines: vec![(&fruit, wanted_fruit)] },
            Takes { name: "Soak", lines: vec![(&syrup, wanted_syrup)] },
        ];
        let made = to_make(&takes, &[]);
        assert_eq!(made.len(), 1, "one batch: {made:?}");
        let own = &made[0];
        assert!((own.to_make_g - batch_g).abs() < 1.0, "{own:?}");
        let weighed: f64 = own.lines.iter().map(|line| line.mass_g).sum();
        assert!((0.6 * weighed - own.to_make_g).abs() < 0.1, "{own:?}");
        assert!((own.needed_g - wanted_fruit).abs() < 1e-9);
        let rest = own.beside_rest_g.unwrap();
        assert!((rest - (0.4 * weighed - wanted_syrup)).abs() < 0.1, "{rest} of {own:?}");
        assert!(
            own.sentence.contains(&format!("{wanted_syrup} g of the liquid drained off for Soak")),
            "{}",
            own.sentence
        );
        assert!(own.sentence.contains("It is strained from"), "{}", own.sentence);
    }
    // What nothing is strained off has no other part.
    cherries.process.strained = None;
    let faults = assess(&taking(&[(&beside, 100.0)], "cherries", &cherries)).unwrap_err();
    assert!(
        faults[0].code == FaultCode::MissingComponent && faults[0].field == "lines.0.ingredient",
        "{faults:?}"
    );
}

#[test]
fn beans_take_cream_with_them_and_leave_their_allergen() {
    let bowl = |steep: &str, wet_g: Option<f64>| {
        let mut own = formula(Family::Ganache, &[("dark60", 300.0), ("cream36", 400.0), (steep, 50.0)]);
        own.lines[2].steeped = Some(Steeped { wet_g });
        own
    };
    let plain = answer(&formula(Family::Ganache, &[("dark60", 300.0), ("cream36", 400.0)]));
    let assumed = answer(&bowl("coffee_beans", None));
    let weighed = answer(&bowl("coffee_beans", Some(200.0)));
    assert!(assumed.strained[0].sentence.contains("assumed: weigh it back"), "{:?}", assumed.strained);
    assert!(!weighed.strained[0].sentence.contains("assumed"));
    let cream = |own: &Assessment| own.totals.milk_fat.mass_g;
    assert!(cream(&plain) > cream(&assumed) && cream(&assumed) > cream(&weighed));
    // All that went in is what is left and what was lifted out.
    for (own, wet_g) in [(&assumed, 150.0), (&weighed, 200.0)] {
        assert!((own.totals.batch_mass_g + wet_g - 750.0).abs() < 1e-6, "{}", own.totals.batch_mass_g);
    }
    // The chocolate is not the liquid.
    assert!((weighed.totals.cocoa_butter.mass_g - plain.totals.cocoa_butter.mass_g).abs() < 0.01);
    let nuts = answer(&bowl("hazelnut_paste", Some(90.0)));
    assert!(nuts.totals.allergens.iter().any(|own| own.contains("nut")), "{:?}", nuts.totals.allergens);
    for (wet_g, words) in [(Some(20.0), "or more"), (Some(900.0), "would go with")] {
        let faults = assess(&bowl("coffee_beans", wet_g)).unwrap_err();
        assert!(
            faults[0].field == "lines.2.steeped.wet_g" && faults[0].message.contains(words),
            "{faults:?}"
        );
    }
    let mut dry = formula(Family::Ganache, &[("dark60", 300.0), ("coffee_beans", 50.0)]);
    dry.lines[1].steeped = Some(Steeped::default());
    assert!(assess(&dry).unwrap_err()[0].message.contains("nothing wet"));
}

#[test]
fn pips_stay_in_the_sieve_and_the_rest_is_the_fruit() {
    let mut own = formula(Family::Syrup, &[("raspberry", 500.0), ("sugar", 200.0)]);
    own.lines[0].strained = Some(sieved(0.84));
    let told = answer(&own);
    assert!((told.totals.batch_mass_g - 620.0).abs() < 1e-6);
    assert!(
        told.strained[0].sentence.contains("420 g are kept of 500 g, 80 g stay in the sieve"),
        "{:?}",
        told.strained
    );
    // Strained, then boiled: both count.
    own.lines[0].boiled = Some(BoilTo::Weight { left_g: 300.0 });
    assert!((answer(&own).totals.batch_mass_g - 500.0).abs() < 1e-6);
    own.lines[0].strained = Some(Strained { left: Kept::Weight { left_g: 600.0 }, ..sieved(1.0) });
    let faults = assess(&own).unwrap_err();
    assert!(
        faults[0].field == "lines.0.strained.left.left_g" && faults[0].message.contains("500 g"),
        "{faults:?}"
    );
}

#[test]
fn another_size_strains_to_another_weight() {
    let mut own = formula(
        Family::Ganache,
        &[("white", 300.0), ("cream36", 200.0), ("yoghurt", 200.0), ("tea_leaves", 10.0)],
    );
    own.lines[2].strained =
        Some(Strained { left: Kept::Weight { left_g: 120.0 }, ..drained(Side::Stays, 1.0) });
    own.lines[3].steeped = Some(Steeped { wet_g: Some(36.0) });
    let before = answer(&own);
    let ask = ScaleAsk {
        document: own,
        target: Target::Factor { by: 3.0 },
        loss_percent: 0.0,
        whole: Whole::default(),
        whole_line: None,
    };
    let scaled = scale(&ask, &Shelf::catalogue(), &|_| None).unwrap();
    let after = answer(&scaled.document);
    assert!((after.totals.batch_mass_g - 3.0 * before.totals.batch_mass_g).abs() < 1e-6);
    assert!((after.at.yield_stress_pa.value / before.at.yield_stress_pa.value - 1.0).abs() < 1e-9);
}

/// In the bowl stands what was strained; what a rescue adds is not strained with it.
#[test]
fn a_rescue_adds_to_what_is_left() {
    let mut own = formula(Family::WhippedCream, &[("yoghurt", 800.0), ("quark", 400.0), ("sugar", 40.0)]);
    own.process.strained = Some(drained(Side::Stays, 0.75));
    let bowl = answer(&own);
    let settled =
        pastry::assess::prepared::settled(&own, &Ready::of(&own, &Shelf::catalogue()).unwrap().lines);
    assert_eq!(settled.process.strained, None);
    let same = answer(&settled);
    // What is too dry to be strained by itself is written to a hundredth of a gram.
    assert!((same.totals.batch_mass_g - bowl.totals.batch_mass_g).abs() < 0.01);
    for part in Part::ALL {
        let [one, two] = [&own, &settled].map(|own| mixture(own).composition.get(part));
        assert!((one - two).abs() < 1e-5, "{part:?}: {one} and {two}");
    }
    let ask = RescueAsk {
        document: own,
        sign: Sign::TooLoose,
        bowl_c: None,
        bowl_g: None,
        not_at_hand: Vec::new(),
    };
    let told = rescue(&ask, &Shelf::catalogue());
    assert!(told.is_ok(), "{told:?}");
}

/// Milk boiled down to half, tea steeped in it: the water that went stays away in what a rescue stands on.
#[test]
fn what_was_boiled_and_then_steeped_in_stays_boiled() {
    let mut own = formula(Family::PastryCream, &[("milk", 600.0), ("yolk", 90.0), ("tea_leaves", 8.0)]);
    own.lines[0].boiled = Some(BoilTo::Share { of_weight: 0.5 });
    own.lines[2].steeped = Some(Steeped { wet_g: Some(32.0) });
    let settled =
        pastry::assess::prepared::settled(&own, &Ready::of(&own, &Shelf::catalogue()).unwrap().lines);
    let [was, is] = [&own, &settled].map(|own| answer(own).totals.batch_mass_g);
    assert!((was - is).abs() < 0.02, "{was} and {is}");
    for part in [Part::Water, Part::Lactose, Part::MilkFat, Part::MilkProtein] {
        let [one, two] = [&own, &settled].map(|own| mixture(own).composition.get(part));
        assert!((one - two).abs() < 1e-3, "{part:?}: {one} and {two}");
    }
}

#[test]
fn what_is_added_by_taste_stands_beside_the_shares() {
    let mut own = formula(Family::Ganache, &[("dark60", 300.0), ("cream36", 500.0)]);
    own.lines.push(Line::new("sugar", "10 %"));
    let plain = answer(&own);
    own.lines.push(Line { by_taste: true, ..Line::new("salt", "6 g") });
    own.lines.push(Line { by_taste: true, ..Line::new("vanilla_extract", "2 %") });
    let told = answer(&own);
    for at in 0..3 {
        assert!((told.lines[at].mass_g - plain.lines[at].mass_g).abs() < 1e-9, "{at}");
        assert!((told.lines[at].of_total_percent - plain.lines[at].of_total_percent).abs() < 1e-9, "{at}");
    }
    // Two per cent of the rest; it is in the bowl all the same.
    let rest: f64 = plain.lines.iter().map(|line| line.mass_g).sum();
    assert!((told.lines[4].mass_g - 0.02 * rest).abs() < 1e-3);
    assert!((told.totals.batch_mass_g - 1.02 * rest - 6.0).abs() < 1e-3);
    let found = ways(&own, &Shelf::catalogue(), &|_| None).unwrap();
    assert!(!found.ways.is_empty());
    for way in &found.ways {
        let kept = |key: &str| {
            way.document.lines.iter().find(|line| line.ingredient == key).map(|line| line.by_taste)
        };
        assert_eq!((kept("salt"), kept("vanilla_extract")), (Some(true), Some(true)), "{}", way.title);
        assert!(way.changes.iter().all(|change| change.line.is_none_or(|at| at <= 2)), "{}", way.title);
    }
}
