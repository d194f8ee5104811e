//! Swaps the person asks for: what was to be avoided is gone, the rest is brought back, and what differs is
//! said.

use crate::support::grams_of;
use pastry::assess::starts::starts;
use pastry::assess::{Assessment, FormulaDocument, assess};
use pastry::fault::FaultCode;
use pastry::formula::rules::Rules;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Ingredient, Shelf, find};
use pastry::job::Outcome;
use pastry::rheology::warning::WarningCode;
use pastry::swap::substitutes::substitutes;
use pastry::swap::{Avoid, Goal, School, SwapAsk, SwapFor, Swaps, swap};

fn price(ingredient: &Ingredient) -> Option<f64> {
    ingredient.pack.map(|pack| pack.price_per_kg())
}

fn asked(document: &FormulaDocument, ask: SwapFor) -> SwapAsk {
    SwapAsk { document: document.clone(), ask, keep: Vec::new() }
}

fn done(ask: &SwapAsk) -> Swaps {
    swap(ask, &Shelf::catalogue(), &price).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn start(family: Family, verb: &str) -> FormulaDocument {
    starts(family).iter().find(|start| start.work.job.word() == verb).unwrap().clone()
}

fn replace(document: &FormulaDocument, of: &str, by: &str) -> Swaps {
    let line = document.lines.iter().position(|line| line.ingredient == of).unwrap();
    done(&asked(document, SwapFor::Replace { line, by: by.into() }))
}

fn every_start() -> impl Iterator<Item = FormulaDocument> {
    Family::ALL.iter().flat_map(|family| starts(*family).iter().cloned())
}

#[test]
fn the_table_of_substitutes_names_only_what_there_is_and_never_what_is_avoided() {
    for substitute in substitutes() {
        let of = find(&substitute.of).unwrap_or_else(|| panic!("no {}", substitute.of));
        assert!(substitute.avoid.hits(of), "{} is not {:?}", substitute.of, substitute.avoid);
        let grams: f64 = substitute.by.iter().filter_map(|(_, grams)| *grams).sum();
        assert!(grams == 0.0 || grams <= 1.001, "{} weighs {grams}", substitute.of);
        for (key, _) in &substitute.by {
            let by = find(key).unwrap_or_else(|| panic!("no {key}"));
            // Egg in cream is milk's business, not egg's: only the thing asked for must be gone.
            assert!(!substitute.avoid.hits(by), "{} brings {:?} again", key, substitute.avoid);
        }
        assert!(!substitute.source.is_empty() && substitute.words.ends_with('.'));
    }
}

/// Darker chocolate in a mask: 70 % stiffens, so less of it or more cream (common practice).
#[test]
fn seventy_for_fifty_five_keeps_the_mask_a_mask() {
    let ganache = start(Family::Ganache, "mask");
    let before = assess(&ganache).unwrap();
    let swaps = replace(&ganache, "dark55", "dark70");
    let option = &swaps.options[0];
    let after = assess(&option.document).unwrap();
    assert_eq!(option.title, "Dark chocolate 70 % for Dark chocolate 55 %");
    assert!(!option.document.lines.iter().any(|line| line.ingredient == "dark55"));
    assert!(option.kept.iter().any(|held| held.goal == Goal::Consistency && held.held), "{option:?}");
    assert!((after.at.yield_stress_pa.value / before.at.yield_stress_pa.value).ln().abs() < 0.12);
    let (a, b) = (before.totals.batch_mass_g, after.totals.batch_mass_g);
    assert!((a - b).abs() < 0.02 * a, "{a} and {b}");
    let share = |document: &FormulaDocument| grams_of(document)[0] / grams_of(document).iter().sum::<f64>();
    assert!(share(&option.document) < share(&ganache), "darker chocolate needs less of it");
    assert!(option.differs.iter().any(|words| words.starts_with("less sweet")), "{:?}", option.differs);
}

#[test]
fn no_amount_is_a_minus_nothing() {
    let swaps = replace(&start(Family::Ganache, "mask"), "dark55", "dark70");
    for change in &swaps.options[0].changes {
        assert!(change.from_g.is_sign_positive() && change.to_g.is_sign_positive(), "{change:?}");
    }
}

#[test]
fn thirty_per_cent_cream_for_thirty_six_keeps_the_drip() {
    let drip = start(Family::Ganache, "drip");
    let option = &replace(&drip, "cream36", "cream30").options[0];
    assert!(option.kept.iter().all(|held| held.goal != Goal::Consistency || held.held), "{option:?}");
    assert_eq!(option.at.outcome, Outcome::Inside);
}

#[test]
fn gold_powder_for_gold_leaf_is_gram_for_gram_and_silver_is_more() {
    let mut jelly = start(Family::Jelly, "set");
    let at = jelly.lines.iter().position(|line| line.ingredient == "gelatin200").unwrap();
    jelly.lines[at].amount = "6 leaves".into();
    // Leaf and powder of one strength are one ingredient here: 6 leaves are 12 g.
    let silver = &replace(&jelly, "gelatin200", "gelatin160").options[0];
    let exchange = silver.gelatin.as_ref().unwrap();
    assert!((exchange.from_g - 12.0).abs() < 1e-9);
    assert!((exchange.square_root_g - 13.416).abs() < 0.01 && (exchange.linear_g - 15.0).abs() < 0.01);
    assert_eq!(exchange.follows, School::SquareRoot);
    // The model agrees with the root: what it solves for is near it.
    let own = start(Family::Jelly, "set");
    let silver = &replace(&own, "gelatin200", "gelatin160").options[0];
    let grams = silver.changes.iter().find(|change| change.name.contains("160")).unwrap().to_g;
    let root = silver.gelatin.as_ref().unwrap().square_root_g;
    assert!((grams / root - 1.0).abs() < 0.05, "{grams} g, {root} g by the root");
    assert!(silver.kept[0].held && silver.differs.iter().all(|words| !words.contains("firmer")));
    let gold = &replace(&jelly, "gelatin200", "gelatin_beef").options[0];
    assert!(gold.gelatin.as_ref().unwrap().why.starts_with("The same strength"));
}

#[test]
fn what_is_avoided_is_gone_from_every_start_or_it_is_said_why_not() {
    let (mut swapped, mut refused) = (0, 0);
    for document in every_start() {
        for what in Avoid::ALL {
            let name = format!("{}: {}", document.family.word(), what.words());
            let has = document.lines.iter().any(|line| what.hits(find(&line.ingredient).unwrap()));
            match swap(&asked(&document, SwapFor::Without { what }), &Shelf::catalogue(), &price) {
                Ok(swaps) => {
                    assert!(has, "{name}");
                    swapped += 1;
                    for option in &swaps.options {
                        for line in &option.document.lines {
                            let own = find(&line.ingredient).unwrap();
                            assert!(!what.hits(own), "{name}: {} is still in it", own.name);
                        }
                        let after = assess(&option.document).unwrap();
                        let before = assess(&document).unwrap().totals.batch_mass_g;
                        assert!(
                            (after.totals.batch_mass_g / before - 1.0).abs() < 0.03,
                            "{name}: {} g of {before}",
                            after.totals.batch_mass_g
                        );
                        // What it says it kept, it kept.
                        let stiff = option.kept.iter().find(|held| held.goal == Goal::Consistency).unwrap();
                        let was = assess(&document).unwrap().at.outcome;
                        if stiff.held && was == Outcome::Inside {
                            assert_eq!(after.at.outcome, Outcome::Inside, "{name}: {}", option.title);
                        }
                        let grams: Vec<f64> = grams_of(&option.document);
                        assert!(grams.iter().all(|g| *g >= 0.0), "{name}: {grams:?}");
                    }
                }
                Err(faults) => {
                    refused += 1;
                    let code = faults[0].code.word();
                    assert_eq!(
                        code,
                        if has { "no_stand_in" } else { "nothing_to_swap" },
                        "{name}: {faults:?}"
                    );
                }
            }
        }
    }
    assert!(swapped > 60 && refused > 60, "{swapped} swapped, {refused} refused");
}

#[test]
fn whites_have_no_stand_in_and_another_family_is_named() {
    let swiss = start(Family::SwissButtercream, "pipe");
    let ask = asked(&swiss, SwapFor::Without { what: Avoid::Egg });
    let fault = swap(&ask, &Shelf::catalogue(), &price).unwrap_err()[0].clone();
    assert!(fault.message.contains("ganache buttercream"), "{}", fault.message);
}

#[test]
fn no_pork_gives_beef_first_then_fish_with_its_allergen() {
    let mousse = start(Family::FruitMousse, "set");
    let swaps = done(&asked(&mousse, SwapFor::Without { what: Avoid::Pork }));
    assert_eq!(swaps.options.len(), 2);
    assert!(swaps.options[0].title.contains("Beef") && swaps.options[1].title.contains("Fish"));
    assert!(swaps.options[1].differs.contains(&"new allergen: fish".to_owned()), "{:?}", swaps.options[1]);
    for option in &swaps.options {
        assert!(option.kept[0].held, "{option:?}");
    }
}

#[test]
fn the_ranking_decides_what_is_let_go() {
    // Dearer chocolate: the same consistency at the same cost cannot be had in a two-line ganache.
    let ganache = start(Family::Ganache, "mask");
    let line = ganache.lines.iter().position(|line| line.ingredient == "dark55").unwrap();
    let ask = |keep: &[Goal]| {
        let ask = SwapFor::Replace { line, by: "white30".into() };
        done(&SwapAsk { keep: keep.to_vec(), ..asked(&ganache, ask) }).options.remove(0)
    };
    let stiff = ask(&[Goal::Consistency]);
    let sweet = ask(&[Goal::Sweetness]);
    let off = |option: &pastry::swap::SwapOption| {
        let after = assess(&option.document).unwrap();
        let before = assess(&ganache).unwrap();
        (
            (after.at.yield_stress_pa.value / before.at.yield_stress_pa.value).ln().abs(),
            (after.figures.sweetness_percent - before.figures.sweetness_percent).abs(),
        )
    };
    let (a, b) = (off(&stiff), off(&sweet));
    assert!(a.0 <= b.0 + 1e-6 && b.1 <= a.1 + 1e-6, "{a:?} {b:?}");
    assert_eq!(sweet.kept[0].goal, Goal::Sweetness);
}

#[test]
fn locks_hold_and_what_is_there_already_grows() {
    let mut ganache = start(Family::Ganache, "fill");
    let butter = ganache.lines.iter().position(|line| line.ingredient == "butter82").unwrap();
    ganache.lines[butter].rule.locked = true;
    ganache.rules = Rules { keep_total: true, ..Rules::default() };
    let option = replace(&ganache, "cream36", "cream48").options.remove(0);
    let at = option.document.lines.iter().position(|line| line.ingredient == "butter82").unwrap();
    assert_eq!(grams_of(&option.document)[at], grams_of(&ganache)[butter]);
    let mut two = start(Family::Ganache, "mask");
    two.lines.push(Line::new("dark70", "40 g"));
    let merged = replace(&two, "dark55", "dark70").options.remove(0);
    let dark: Vec<_> = merged.document.lines.iter().filter(|line| line.ingredient == "dark70").collect();
    assert_eq!(dark.len(), 1, "{:?}", merged.document.lines);
}

#[test]
fn the_same_question_has_the_same_answer_and_scales_with_the_batch() {
    let one = start(Family::Ganache, "mask");
    let mut ten = one.clone();
    for (line, grams) in ten.lines.iter_mut().zip(grams_of(&one)) {
        line.amount = format!("{} g", 10.0 * grams);
    }
    let (a, b) = (replace(&one, "dark55", "dark70"), replace(&ten, "dark55", "dark70"));
    assert_eq!(a, replace(&one, "dark55", "dark70"));
    for (x, y) in grams_of(&a.options[0].document).iter().zip(grams_of(&b.options[0].document)) {
        assert!((10.0 * x - y).abs() < 6.0, "{x} and {y}");
    }
}

#[test]
fn what_cannot_be_meant_is_said() {
    let ganache = start(Family::Ganache, "mask");
    let refused = |ask: SwapAsk| swap(&ask, &Shelf::catalogue(), &price).unwrap_err()[0].clone();
    let by = |line: usize, by: &str| asked(&ganache, SwapFor::Replace { line, by: by.into() });
    assert_eq!(refused(by(9, "dark70")).code, FaultCode::NoSuchLine);
    assert_eq!(refused(by(0, "unobtainium")).field, "ask.by");
    assert_eq!(refused(by(0, "dark55")).code, FaultCode::TheSame);
    let twice = SwapAsk { keep: vec![Goal::Cost, Goal::Cost], ..by(0, "dark70") };
    assert_eq!(refused(twice).code, FaultCode::RankedTwice);
}

/// Every dark chocolate and every cream for another: kept is kept, and darker is less sweet.
#[test]
fn all_of_a_kind_take_one_anothers_place() {
    let darks = ["dark50", "dark55", "dark60", "dark64", "dark66", "dark70", "dark75", "dark80"];
    let mut kept = 0;
    for (k, from) in darks.iter().enumerate() {
        for (j, to) in darks.iter().enumerate().filter(|(j, _)| *j != k) {
            let mut mask = start(Family::Ganache, "fill");
            let at = mask.lines.iter().position(|line| line.ingredient == "dark60").unwrap();
            mask.lines[at].ingredient = (*from).to_owned();
            let option = replace(&mask, from, to).options.remove(0);
            let (before, after) = (assess(&mask).unwrap(), assess(&option.document).unwrap());
            let name = format!("{to} for {from}");
            let stiffness = (after.at.yield_stress_pa.value / before.at.yield_stress_pa.value).ln();
            let held = option.kept.iter().find(|held| held.goal == Goal::Consistency).unwrap().held;
            // What was outside its window is brought inside, and so is another cream.
            if before.at.outcome != Outcome::Inside {
                assert!(!held || after.at.outcome == Outcome::Inside, "{name}");
                continue;
            }
            if held {
                kept += 1;
                assert!(stiffness.abs() < 0.13, "{name}: {stiffness}");
            }
            let sweeter = after.figures.sweetness_percent - before.figures.sweetness_percent;
            assert_eq!(sweeter > 0.0, j < k, "{name}: sweetness {sweeter:+.1}");
            if sweeter.abs() >= 0.5 {
                let word = if sweeter > 0.0 { "sweeter" } else { "less sweet" };
                assert!(
                    option.differs.iter().any(|words| words.starts_with(word)),
                    "{name}: {:?}",
                    option.differs
                );
            }
        }
    }
    assert!(kept > 20, "{kept} kept their consistency");
}

#[test]
fn a_cheaper_stand_in_is_said_to_be_cheaper_and_a_missing_price_says_nothing() {
    let custard = start(Family::PastryCream, "fill");
    let ask = asked(&custard, SwapFor::Without { what: Avoid::Egg });
    let priced = done(&ask).options.remove(0);
    assert!(priced.differs.iter().any(|words| words.starts_with("cheaper by")), "{:?}", priced.differs);
    assert!(priced.differs.contains(&"no more egg".to_owned()), "{:?}", priced.differs);
    let cost = priced.kept.iter().find(|held| held.goal == Goal::Cost).unwrap();
    assert!(cost.held, "cheaper is no dearer: {:?}", priced.kept);
    let unpriced = swap(&ask, &Shelf::catalogue(), &|_| None).unwrap().options.remove(0);
    assert!(!unpriced.differs.iter().any(|words| words.contains("cheaper") || words.contains("dearer")));
    let cost = unpriced.kept.iter().find(|held| held.goal == Goal::Cost).unwrap();
    assert!(!cost.held, "nobody can say that a cost was kept that nobody knows");
}

#[test]
fn starch_in_the_place_of_egg_is_boiled() {
    let sauce = start(Family::Anglaise, "nappe");
    let option = done(&asked(&sauce, SwapFor::Without { what: Avoid::Egg })).options.remove(0);
    let starch = option.document.lines.iter().find(|line| line.ingredient == "corn_starch").unwrap();
    assert!(starch.cook_c.is_some_and(|cook| cook.celsius() >= 95.0), "{starch:?}");
    assert!(option.notes.iter().any(|note| note.contains("boil")), "{:?}", option.notes);
    let warned = assess(&option.document).unwrap().warnings;
    assert!(!warned.iter().any(|warning| warning.code == WarningCode::StarchRaw), "{warned:?}");
}

#[test]
fn gelatin_gone_for_agar_says_what_agar_is_like() {
    let jelly = start(Family::Jelly, "set");
    let option = done(&asked(&jelly, SwapFor::Without { what: Avoid::Gelatin })).options.remove(0);
    assert!(option.title.starts_with("Agar"), "{}", option.title);
    assert!(option.notes.iter().any(|note| note.contains("Brittle")), "{:?}", option.notes);
    assert!(option.gelatin.is_none(), "there is no Bloom strength to exchange");
    let agar = option.changes.iter().find(|change| change.name.starts_with("Agar")).unwrap().to_g;
    let gelatin = option.changes.iter().find(|change| change.name.starts_with("Gelatin")).unwrap().from_g;
    // Common practice: a quarter to a half of the gelatin, by what it must hold.
    assert!((0.1..0.7).contains(&(agar / gelatin)), "{agar} g for {gelatin} g");
}

#[test]
fn what_differs_is_said_the_right_way_round_and_allergens_and_raw_egg_always() {
    let custard = start(Family::PastryCream, "fill");
    let soya = replace(&custard, "milk", "soy_drink").options.remove(0);
    assert!(soya.differs.contains(&"new allergen: soya".to_owned()), "{:?}", soya.differs);
    let ganache = start(Family::Ganache, "fill");
    let egg = replace(&ganache, "butter82", "yolk").options.remove(0);
    assert!(egg.differs.contains(&"brings raw egg".to_owned()), "{:?}", egg.differs);
    let mut said = std::collections::BTreeSet::new();
    for (of, by) in [
        ("cream36", "milk"),
        ("cream36", "cream48"),
        ("dark60", "white30"),
        ("dark60", "dark80"),
        ("cream36", "water"),
    ] {
        let option = replace(&ganache, of, by).options.remove(0);
        let [was, is] = [&ganache, &option.document].map(|document| assess(document).unwrap());
        let aw = |answer: &Assessment| answer.figures.water_activity.as_ref().map_or(0.0, |aw| aw.value);
        let fat = |answer: &Assessment| answer.totals.phases_of_total_percent.fat;
        for (word, by) in [
            ("keeps less well", aw(&is) - aw(&was)),
            ("keeps longer", aw(&was) - aw(&is)),
            ("richer in fat", fat(&is) - fat(&was)),
            ("leaner", fat(&was) - fat(&is)),
        ] {
            if option.differs.iter().any(|words| words.starts_with(word)) {
                said.insert(word);
                assert!(by > 0.0, "{}: {:?}", option.title, option.differs);
            }
        }
    }
    assert!(said.len() >= 3, "{said:?}");
}

#[test]
fn egg_is_egg_by_its_allergen_alone() {
    let mut own = find("biscuit_crumb").unwrap().as_ref().clone();
    assert!(!Avoid::Egg.hits(&own));
    own.allergens = vec!["egg".to_owned()];
    own.origins.clear();
    assert!(Avoid::Egg.hits(&own));
    own.allergens = vec!["milk".to_owned()];
    assert!(Avoid::Dairy.hits(&own) && !Avoid::Egg.hits(&own));
}
