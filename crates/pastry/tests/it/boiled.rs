//! What is boiled down: the prediction is made of what is left, whatever way it was said.

use pastry::assess::starts::starts;
use pastry::assess::{Assessment, BroughtComponent, FormulaDocument, assess};
use pastry::fault::FaultCode;
use pastry::formula::{BoilTo, Family, Line};
use pastry::ingredient::Shelf;
use pastry::ingredient::key::made_key;
use pastry::rescue::{RescueAsk, Sign, rescue};
use pastry::rheology::warning::WarningCode;
use pastry::scale::{ScaleAsk, Target, Whole, scale};
use proptest::prelude::*;

/// A formula of a family for its usual work, in grams.
pub fn formula(family: Family, lines: &[(&str, f64)]) -> FormulaDocument {
    let start = &starts(family)[0];
    let mut document = FormulaDocument::empty(family, start.work.job, start.work.temperature_c.celsius());
    document.work = start.work.clone();
    document.lines = lines.iter().map(|(id, grams)| Line::new(*id, format!("{grams} g"))).collect();
    document
}

fn boiled(mut document: FormulaDocument, to: BoilTo) -> FormulaDocument {
    document.process.boiled = Some(to);
    document
}

fn answer(document: &FormulaDocument) -> Assessment {
    assess(document).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn alike(one: &Assessment, other: &Assessment, within: f64) {
    let pairs = [
        (one.totals.batch_mass_g, other.totals.batch_mass_g),
        (one.totals.water.mass_g, other.totals.water.mass_g),
        (one.at.yield_stress_pa.value, other.at.yield_stress_pa.value),
        (one.at.viscosity_pa_s.value, other.at.viscosity_pa_s.value),
        (one.figures.density_g_per_ml.value, other.figures.density_g_per_ml.value),
    ];
    for (a, b) in pairs {
        assert!((a - b).abs() <= within * a.abs().max(1e-9), "{a} and {b}");
    }
}

/// However it is said, a syrup that has lost a hundred grams of water is the syrup with a hundred grams less.
#[test]
fn what_is_left_is_what_is_predicted() {
    let thin = formula(Family::Syrup, &[("sugar", 200.0), ("water", 200.0)]);
    let thick = formula(Family::Syrup, &[("sugar", 200.0), ("water", 100.0)]);
    let strong = answer(&thick);
    for to in [
        BoilTo::Weight { left_g: 300.0 },
        BoilTo::Share { of_weight: 0.75 },
        // Two parts of sugar to one of water.
        BoilTo::Brix { brix: 200.0 / 3.0 },
    ] {
        let own = answer(&boiled(thin.clone(), to));
        alike(&own, &strong, 2e-2);
        let told = own.boiled.last().unwrap();
        // Sugar brings a fifth of a gram of water itself.
        assert!((told.gone_g - 100.0).abs() < 0.4 && (told.left_g - 300.0).abs() < 0.4, "{told:?}");
        // It is weighed as it is written.
        assert_eq!(own.lines[1].mass_g, 200.0);
    }
}

/// Thread 110 to 112 °C is about 80 % sugar, soft ball 112 to 116 about 85, firm ball 118 about 87, hard ball 121 to 130 about 92
/// (teaching tables of sugar cookery, from memory; between tables they differ by 3 points).
#[test]
fn sugar_to_its_stage_is_as_strong_as_the_handbook_has_it() {
    let thin = formula(Family::Syrup, &[("sugar", 300.0), ("water", 300.0)]);
    for (c, from, to) in [(111.0, 77.0, 83.5), (114.0, 82.0, 88.0), (118.0, 84.0, 90.0), (125.0, 88.0, 95.0)]
    {
        let own = answer(&boiled(thin.clone(), BoilTo::Temperature { c }));
        let brix = 100.0 * 300.0 / own.boiled[0].left_g;
        assert!((from..to).contains(&brix), "{c} °C: {brix} °Bx");
        assert!((own.boiled[0].temperature_c - c).abs() < 0.1);
    }
}

#[test]
fn one_line_is_boiled_down_and_the_rest_is_not() {
    let lines = [("dark60", 300.0), ("cream36", 200.0), ("orange", 200.0)];
    let mut mixed = formula(Family::Ganache, &lines);
    let plain = answer(&mixed);
    mixed.lines[2].boiled = Some(BoilTo::Share { of_weight: 0.5 });
    let own = answer(&mixed);
    assert_eq!((own.boiled[0].line, own.boiled.len()), (Some(2), 1));
    assert!((own.totals.batch_mass_g - 600.0).abs() < 1e-6, "{}", own.totals.batch_mass_g);
    assert!((plain.totals.water.mass_g - own.totals.water.mass_g - 100.0).abs() < 1e-6);
    assert!(own.at.viscosity_pa_s.value > plain.at.viscosity_pa_s.value);
    assert!(
        own.boiled[0].sentence.contains("boiled down by half: 100 g are left of 200 g"),
        "{:?}",
        own.boiled
    );
    // Nothing of it but water has gone.
    assert_eq!(own.totals.allergens, plain.totals.allergens);
    assert!((own.totals.milk_fat.mass_g - plain.totals.milk_fat.mass_g).abs() < 1e-9);
}

/// Syrup at 118 °C on whites, as a component: the water that went is not in the buttercream.
#[test]
fn a_boiled_syrup_goes_into_a_meringue() {
    let syrup = boiled(
        formula(Family::Syrup, &[("sugar", 240.0), ("water", 80.0)]),
        BoilTo::Temperature { c: 118.0 },
    );
    let left_g = answer(&syrup).boiled[0].left_g;
    assert!((272.0..285.0).contains(&left_g), "{left_g}");
    let mut cream = formula(Family::ItalianButtercream, &[("white", 120.0), ("butter82", 320.0)]);
    cream.lines.push(Line::new(made_key("syrup", None), format!("{left_g} g")));
    cream.components = vec![BroughtComponent { key: "syrup".into(), document: syrup }];
    let nested = answer(&cream);
    let flat = formula(
        Family::ItalianButtercream,
        &[("white", 120.0), ("butter82", 320.0), ("sugar", 240.0), ("water", left_g - 240.0)],
    );
    let flat = answer(&flat);
    alike(&nested, &flat, 2e-3);
    let told = &nested.to_make[0];
    assert!(told.sentence.contains("It is boiled down from 320 g."), "{}", told.sentence);
    let weighed: f64 = told.lines.iter().map(|line| line.mass_g).sum();
    assert!((weighed - 320.0).abs() < 1.0 && (told.to_make_g - left_g).abs() < 1.0, "{weighed} {told:?}");
}

#[test]
fn sugar_that_is_boiled_grains_and_glucose_keeps_it() {
    let of = |glucose: f64| {
        let lines = [("sugar", 300.0 - glucose), ("glucose40", glucose), ("water", 120.0)];
        let lines: Vec<_> = lines.into_iter().filter(|(_, grams)| *grams > 0.0).collect();
        let own = answer(&boiled(formula(Family::Syrup, &lines), BoilTo::Brix { brix: 80.0 }));
        own.warnings.iter().any(|warning| warning.code == WarningCode::Graining)
    };
    assert!(of(0.0), "80 °Bx of plain sugar crystallises in the room");
    assert!(!of(150.0), "half of it glucose syrup does not");
}

#[test]
fn what_cannot_be_is_said_at_its_field() {
    let thin = || formula(Family::Syrup, &[("sugar", 200.0), ("water", 200.0)]);
    for (to, field, words) in [
        (BoilTo::Share { of_weight: 0.4 }, "process.boiled.of_weight", "not so much water"),
        (BoilTo::Weight { left_g: 500.0 }, "process.boiled.left_g", "there are 400 g of it"),
        (BoilTo::Weight { left_g: 100.0 }, "process.boiled.left_g", "not so much water"),
        (BoilTo::Brix { brix: 40.0 }, "process.boiled.brix", "°Bx already"),
        (BoilTo::Brix { brix: 120.0 }, "process.boiled.brix", "between 1 and 99"),
        (BoilTo::Temperature { c: 400.0 }, "process.boiled.c", "between 30 and 180"),
    ] {
        let faults = assess(&boiled(thin(), to)).unwrap_err();
        assert_eq!((faults[0].field.as_str(), faults[0].code), (field, FaultCode::OutOfRange), "{to:?}");
        assert!(faults[0].message.contains(words), "{}", faults[0].message);
    }
    let faults =
        assess(&boiled(formula(Family::Syrup, &[("water", 200.0)]), BoilTo::Temperature { c: 118.0 }));
    assert!(faults.unwrap_err()[0].message.contains("gets no hotter"));
    let caramel = formula(Family::Syrup, &[("sugar", 200.0), ("cream36", 200.0)]);
    assert!(assess(&boiled(caramel.clone(), BoilTo::Temperature { c: 121.0 })).is_ok());
    let burnt = assess(&boiled(caramel, BoilTo::Temperature { c: 150.0 })).unwrap_err();
    assert!(burnt[0].field == "process.boiled.c" && burnt[0].message.contains("burn near 130"), "{burnt:?}");
    let mut line = thin();
    line.lines[1].boiled = Some(BoilTo::Brix { brix: 60.0 });
    assert_eq!(assess(&line).unwrap_err()[0].field, "lines.1.boiled.brix");
}

#[test]
fn a_larger_batch_is_boiled_to_a_larger_weight() {
    let thin = boiled(
        formula(Family::Syrup, &[("sugar", 200.0), ("water", 200.0)]),
        BoilTo::Weight { left_g: 300.0 },
    );
    let ask = ScaleAsk {
        document: thin,
        target: Target::Mass { grams: 900.0 },
        loss_percent: 0.0,
        whole: Whole::Nothing,
        whole_line: None,
    };
    let scaled = scale(&ask, &Shelf::catalogue(), &|_| None).unwrap();
    assert!((scaled.factor - 3.0).abs() < 1e-9 && (scaled.batch_g - 900.0).abs() < 1e-6, "{scaled:?}");
    assert_eq!(scaled.document.process.boiled, Some(BoilTo::Weight { left_g: 900.0 }));
    assert!((answer(&scaled.document).totals.batch_mass_g - 900.0).abs() < 1e-6);
}

/// What is in the bowl was boiled already: it is judged as it was, and what is stirred in now is not boiled with it.
#[test]
fn a_rescue_does_not_boil_again_what_it_adds() {
    let lines = [("sugar", 200.0), ("water", 260.0), ("glucose40", 40.0)];
    let mut looked_at = 0;
    for to in
        [BoilTo::Weight { left_g: 330.0 }, BoilTo::Share { of_weight: 0.66 }, BoilTo::Brix { brix: 72.0 }]
    {
        let thick = boiled(formula(Family::Syrup, &lines), to);
        let before = answer(&thick);
        for bowl_g in [None, Some(150.0)] {
            let ask = RescueAsk {
                document: thick.clone(),
                sign: Sign::TooStiff,
                bowl_c: None,
                bowl_g,
                not_at_hand: Vec::new(),
            };
            let told = rescue(&ask, &Shelf::catalogue()).unwrap();
            let in_bowl = bowl_g.unwrap_or(before.totals.batch_mass_g);
            assert!((told.bowl_g - in_bowl).abs() < 0.5, "{} of {in_bowl}", told.bowl_g);
            let steps = told.remedies.iter().flat_map(|own| &own.steps);
            for step in steps.filter(|step| step.document.is_some()) {
                looked_at += usize::from(step.addition.is_some());
                let mended = answer(step.document.as_ref().unwrap());
                let added = step.addition.as_ref().map_or(0.0, |own| own.grams);
                let gone = mended.totals.batch_mass_g - in_bowl - added;
                // A step that adds comes after those that only heat.
                assert!(gone.abs() < 0.02 * in_bowl, "{to:?}: {gone} g went, {:?}", step.words);
            }
        }
    }
    assert!(looked_at > 0, "nothing was added in any of them");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, ..ProptestConfig::default() })]

    #[test]
    fn nothing_goes_but_water_and_it_never_grows_thinner(
        sugar in 50f64..400.0, water in 50f64..400.0, glucose in 0.5f64..200.0, left in 0.55f64..0.99, t_c in 10f64..60.0,
    ) {
        let mut thin = formula(Family::Syrup, &[("sugar", sugar), ("glucose40", glucose), ("water", water)]);
        thin.work.temperature_c = pastry::units::Temperature::from_celsius(t_c);
        let before = answer(&thin);
        match assess(&boiled(thin.clone(), BoilTo::Share { of_weight: left })) {
            Ok(after) => {
                let (was, is) = (&before.totals, &after.totals);
                let gone = was.batch_mass_g - is.batch_mass_g;
                prop_assert!((gone - (was.water.mass_g - is.water.mass_g)).abs() < 1e-6 * gone.max(1.0));
                prop_assert!((gone - (1.0 - left) * was.batch_mass_g).abs() < 1e-6 * was.batch_mass_g);
                prop_assert!((was.sucrose.mass_g - is.sucrose.mass_g).abs() < 1e-9 * was.sucrose.mass_g.max(1.0));
                prop_assert!(after.at.viscosity_pa_s.value >= before.at.viscosity_pa_s.value * (1.0 - 1e-9));
            }
            Err(faults) => {
                let words = &faults[0].message;
                prop_assert!(words.contains("not so much water") || words.contains("burns"), "{words}");
            }
        }
    }
}
