//! A batch in another size: what must hold of every formula and every target.

use crate::support::grams_of;
use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess};
use pastry::fault::FaultCode;
use pastry::formula::Family;
use pastry::ingredient::{Ingredient, Shelf};
use pastry::scale::{Have, ScaleAsk, Scaled, ShareAsk, Target, Whole, scale, shares};
use proptest::prelude::*;

fn pack(ingredient: &Ingredient) -> Option<f64> {
    ingredient.pack.map(|pack| pack.pack_g)
}

fn ask(document: &FormulaDocument, target: Target) -> ScaleAsk {
    ScaleAsk {
        document: document.clone(),
        target,
        loss_percent: 0.0,
        whole: Whole::Nothing,
        whole_line: None,
    }
}

fn done(ask: &ScaleAsk) -> Scaled {
    scale(ask, &Shelf::catalogue(), &pack).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn every_start() -> impl Iterator<Item = FormulaDocument> {
    Family::ALL.iter().flat_map(|family| starts(*family).iter().cloned())
}

#[test]
fn a_batch_of_another_size_is_the_same_cream() {
    for document in every_start() {
        let before = assess(&document).unwrap();
        for grams in [900.0, 12_500.0] {
            let scaled = done(&ask(&document, Target::Mass { grams }));
            let after = assess(&scaled.document).unwrap();
            let name = format!("{} {} to {grams} g", document.family.word(), document.work.job.verb());
            assert!((scaled.batch_g - grams).abs() < 0.006 * grams, "{name}: {} g", scaled.batch_g);
            assert!((after.totals.batch_mass_g - scaled.batch_g).abs() < 1e-6, "{name}");
            let by = |a: f64, b: f64| (a / b).ln().abs();
            let (a, b) = (after.at.measured.value, before.at.measured.value);
            // Rounding to the scale moves a gram in twenty at most.
            assert!(by(a, b) < 0.06, "{name}: {a} for {b}");
            assert!(by(after.figures.density_g_per_ml.value, before.figures.density_g_per_ml.value) < 0.01);
            for line in &scaled.lines {
                assert!(line.to_g == 0.0 || line.rounded_percent.abs() <= 2.6, "{name}: {line:?}");
            }
        }
    }
}

#[test]
fn what_is_short_sets_the_size_and_is_never_exceeded() {
    for document in every_start() {
        let grams = grams_of(&document);
        for (at, g) in grams.iter().enumerate().filter(|(_, g)| **g > 0.0) {
            let amount = format!("{:.1} g", 0.62 * g);
            let have: f64 = amount.trim_end_matches(" g").parse().unwrap();
            let target = Target::Short { have: vec![Have { line: at, amount }] };
            if have <= 0.0 {
                continue;
            }
            let scaled = done(&ask(&document, target));
            assert_eq!(scaled.limited_by, Some(at));
            assert!((scaled.factor - have / g).abs() < 1e-9);
            // To the gram of the scale.
            assert!(scaled.lines[at].to_g <= have + 0.5, "{:?}", scaled.lines[at]);
        }
    }
}

#[test]
fn the_shortest_of_several_sets_the_size() {
    let ganache = &starts(Family::Ganache)[1];
    let target = Target::Short {
        have: vec![
            Have { line: 0, amount: "180 g".into() },
            Have { line: 1, amount: "150 ml".into() },
            Have { line: 2, amount: "1 kg".into() },
        ],
    };
    let scaled = done(&ask(ganache, target));
    assert_eq!(scaled.limited_by, Some(1), "{}", scaled.sentence);
    assert!(scaled.sentence.contains("Cream 36 % sets the size"), "{}", scaled.sentence);
}

#[test]
fn pieces_with_their_loss_come_out_with_enough_in_each() {
    let mousse = starts(Family::FruitMousse).first().unwrap();
    let target = Target::Pieces { count: 24, each: 85.0, by_volume: false };
    let scaled = done(&ScaleAsk { loss_percent: 4.0, ..ask(mousse, target) });
    // 24 × 85 g = 2040 g in use, 2125 g in the bowl.
    assert!((scaled.batch_g - 2125.0).abs() < 3.0 && (scaled.usable_g - 2040.0).abs() < 3.0, "{scaled:?}");
    let target = Target::Pieces { count: 24, each: 120.0, by_volume: true };
    let by_volume = done(&ScaleAsk { loss_percent: 4.0, ..ask(mousse, target) });
    assert!((by_volume.volume_ml * 0.96 - 2880.0).abs() < 5.0, "{}", by_volume.volume_ml);
}

#[test]
fn eggs_leaves_and_packs_come_out_whole() {
    let mut custard = starts(Family::PastryCream)[0].clone();
    let yolk = custard.lines.iter().position(|line| line.ingredient == "yolk").unwrap();
    custard.lines[yolk].amount = "85 g".into();
    let wanted = ScaleAsk { whole: Whole::Pieces, ..ask(&custard, Target::Factor { by: 0.5 }) };
    let scaled = done(&wanted);
    let yolks = scaled.lines[yolk].to_g / 17.0;
    assert!((yolks - yolks.round()).abs() < 1e-6 && yolks >= 2.5, "{yolks} yolks");
    assert!(scaled.not_whole.is_empty(), "{:?}", scaled.not_whole);
    // Only butter by its pack: 250 g ones here.
    let butter = &starts(Family::Buttercream)[0];
    let at = butter.lines.iter().position(|line| line.ingredient == "butter82").unwrap();
    let packs =
        ScaleAsk { whole: Whole::Packs, whole_line: Some(at), ..ask(butter, Target::Mass { grams: 1000.0 }) };
    let of_250 = |_: &Ingredient| Some(250.0);
    let scaled = scale(&packs, &Shelf::catalogue(), &of_250).unwrap();
    assert!((scaled.lines[at].to_g % 250.0).abs() < 1e-6 && scaled.batch_g >= 999.0, "{scaled:?}");
    assert_eq!(scaled.lines[at].packs_opened, Some(scaled.lines[at].to_g / 250.0));
}

#[test]
fn amounts_keep_their_unit_where_it_can_be_measured() {
    let mut cream = starts(Family::WhippedCream)[0].clone();
    cream.lines[0].amount = "1 1/2 cups".into();
    cream.lines[1].amount = "7 %".into();
    let scaled = done(&ask(&cream, Target::Factor { by: 1.5 }));
    assert_eq!(scaled.document.lines[0].amount, "2 1/4 cup");
    assert_eq!(scaled.document.lines[1].amount, "7 %");
    let odd = done(&ask(&cream, Target::Factor { by: 1.37 }));
    assert!(odd.document.lines[0].amount.ends_with(" g"), "{}", odd.document.lines[0].amount);
}

#[test]
fn what_cannot_be_meant_is_said_at_its_field() {
    let ganache = &starts(Family::Ganache)[0];
    let refused = |ask: ScaleAsk| scale(&ask, &Shelf::catalogue(), &pack).unwrap_err()[0].clone();
    assert_eq!(refused(ask(ganache, Target::Mass { grams: 0.0 })).field, "target");
    assert_eq!(refused(ask(ganache, Target::Mass { grams: -20.0 })).field, "target");
    assert_eq!(refused(ask(ganache, Target::Mass { grams: f64::NAN })).field, "target");
    assert_eq!(refused(ask(ganache, Target::Factor { by: 2000.0 })).code, FaultCode::OutOfRange);
    let far = Target::Short { have: vec![Have { line: 9, amount: "5 g".into() }] };
    assert_eq!(refused(ask(ganache, far)).code, FaultCode::NoSuchLine);
    let words = Target::Short { have: vec![Have { line: 0, amount: "a handful".into() }] };
    assert_eq!(refused(ask(ganache, words)).field, "target.have.0.amount");
    let none = Target::Short { have: vec![] };
    assert_eq!(refused(ask(ganache, none)).code, FaultCode::NothingShort);
    let whole = ScaleAsk { whole: Whole::Pieces, ..ask(ganache, Target::Factor { by: 2.0 }) };
    assert_eq!(refused(whole).code, FaultCode::NothingCounted);
    let loss = ScaleAsk { loss_percent: 80.0, ..ask(ganache, Target::Factor { by: 2.0 }) };
    assert_eq!(refused(loss).field, "loss_percent");
}

#[test]
fn ways_and_sizes_go_together() {
    // The way for ten times the batch is ten times the way.
    use pastry::balance::ways;
    let mut stiff = starts(Family::Ganache).iter().find(|s| s.work.job.word() == "mask").unwrap().clone();
    stiff.lines[0].amount = "420 g".into();
    let large = done(&ask(&stiff, Target::Factor { by: 10.0 })).document;
    let of = |document: &FormulaDocument| ways(document, &Shelf::catalogue(), &|_| None).unwrap();
    let (one, ten) = (of(&stiff), of(&large));
    assert_eq!(one.ways.len(), ten.ways.len());
    for (a, b) in one.ways.iter().zip(&ten.ways) {
        assert_eq!(a.kind, b.kind, "{} and {}", a.title, b.title);
        for (x, y) in a.changes.iter().zip(&b.changes) {
            let (x, y) = (x.to_g - x.from_g, y.to_g - y.from_g);
            assert!((10.0 * x - y).abs() < 6.0, "{x} and {y}");
        }
    }
}

#[test]
fn limits_of_a_line_grow_with_it() {
    let mut ganache = starts(Family::Ganache)[0].clone();
    ganache.lines[0].rule.least_g = Some(100.0);
    ganache.lines[1].rule.most_g = Some(200.0);
    ganache.lines[1].rule.pack_g = Some(50.0);
    let scaled = done(&ask(&ganache, Target::Factor { by: 4.0 }));
    assert_eq!(scaled.document.lines[0].rule.least_g, Some(400.0));
    assert_eq!(scaled.document.lines[1].rule.most_g, Some(800.0));
    assert_eq!(scaled.document.lines[1].rule.pack_g, Some(50.0), "a pack is a pack");
}

proptest! {
    #[test]
    fn whole_eggs_are_whole_and_never_too_few(by in 0.3f64..6.0, yolks in 2.0f64..12.0) {
        let mut custard = starts(Family::PastryCream)[0].clone();
        let yolk = custard.lines.iter().position(|line| line.ingredient == "yolk").unwrap();
        custard.lines[yolk].amount = format!("{:.1} g", 17.0 * yolks);
        let wanted = ScaleAsk { whole: Whole::Pieces, ..ask(&custard, Target::Factor { by }) };
        let scaled = done(&wanted);
        let many = scaled.lines[yolk].to_g / 17.0;
        prop_assert!((many - many.round()).abs() < 1e-2, "{many} yolks");
        prop_assert!(scaled.factor >= by * (1.0 - 1e-9) || many.round() == 1.0);
        prop_assert!(scaled.factor <= 1.6 * by + 1.0 / yolks);
    }

    #[test]
    fn shares_add_up_and_differ_by_one_step_at_most(
        tenths in 50u32..200_000, n in 1usize..60, loss in 0.0f64..20.0, fine in any::<bool>()
    ) {
        let grams = f64::from(tenths) / 10.0;
        let step_g = if fine { 0.1 } else { 1.0 };
        let question = ShareAsk {
            in_the_bowl_g: grams, bowl_g: 0.0, loss_percent: loss, sizes: vec![1.0; n], step_g,
        };
        if let Ok(shared) = shares(&question) {
            let sum: f64 = shared.shares.iter().map(|share| share.grams).sum();
            prop_assert!((sum - shared.shared_g).abs() < 1e-6);
            prop_assert!((shared.shared_g + shared.stays_g - grams).abs() < 0.006);
            let (least, most) = shared.shares.iter().fold((f64::MAX, 0.0f64), |(a, b), s| (a.min(s.grams), b.max(s.grams)));
            prop_assert!(most - least <= step_g + 1e-9);
            prop_assert!(sum <= grams * (1.0 - loss / 100.0) + 1e-6);
            prop_assert!((shared.shares[n - 1].bowl_then_g - shared.stays_g).abs() < 0.006 * n as f64);
        }
    }

    #[test]
    fn shares_by_size_are_each_within_a_step_of_their_part(
        sizes in prop::collection::vec(0.2f64..9.0, 1..12), grams in 200.0f64..5000.0
    ) {
        let question = ShareAsk {
            in_the_bowl_g: grams, bowl_g: 0.0, loss_percent: 0.0, sizes: sizes.clone(), step_g: 1.0,
        };
        let shared = shares(&question).unwrap();
        let sum: f64 = sizes.iter().sum();
        for (share, size) in shared.shares.iter().zip(&sizes) {
            prop_assert!((share.grams - shared.shared_g * size / sum).abs() <= 1.0 + 1e-6);
        }
    }
}
