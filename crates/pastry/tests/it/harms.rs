//! What must never happen in silence: egg called cooked, an allergen slipped in, a dose that overshoots, a catalyst that
//! is diluted away, a boil under what must not boil. Each was once measured on this program.

use crate::support::{disturbed, grams_of};
use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess};
use pastry::balance::way::{Way, WayKind};
use pastry::balance::ways;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Group, Role};
use pastry::ingredient::{Shelf, catalogue, find};
use pastry::job::Outcome;
use pastry::rescue::remedy::{Deed, remedies};
use pastry::rescue::report::Basis;
use pastry::rescue::{RescueAsk, Sign, rescue};
use pastry::rheology::warning::WarningCode;
use pastry::swap::{SwapAsk, SwapFor, swap};
use pastry::units::{CookTemperature, Temperature};

fn start(family: Family, job: &str) -> FormulaDocument {
    starts(family).iter().find(|own| own.work.job.word() == job).unwrap().clone()
}

fn all_ways(document: &FormulaDocument) -> Vec<Way> {
    ways(document, &Shelf::catalogue(), &|_| None).unwrap().ways
}

fn warned(document: &FormulaDocument, code: WarningCode) -> bool {
    assess(document).unwrap().warnings.iter().any(|warning| warning.code == code)
}

#[test]
fn a_way_that_brings_an_allergen_or_an_animal_says_so_first() {
    let vegan = FormulaDocument {
        lines: vec![Line::new("dark60", "200 g"), Line::new("water", "90 g")],
        ..start(Family::Ganache, "drip")
    };
    let mut asked = 0;
    for (t_c, water) in
        [18.0, 22.0, 26.0, 30.0, 34.0].into_iter().flat_map(|t_c| [50, 70, 90, 110].map(|water| (t_c, water)))
    {
        let mut document = vegan.clone();
        document.work.temperature_c = Temperature::from_celsius(t_c);
        document.lines[1].amount = format!("{water} g");
        let found = all_ways(&document);
        let mut seen_asked = false;
        for way in &found {
            let brings_milk = way
                .document
                .lines
                .iter()
                .any(|line| find(&line.ingredient).unwrap().allergens.iter().any(|own| own == "milk"));
            assert_eq!(
                brings_milk,
                way.asks_first.iter().any(|words| words.contains("milk")),
                "{}",
                way.title
            );
            // What nobody need be asked about stands before it.
            assert!(!(seen_asked && way.asks_first.is_empty()), "{}", way.title);
            seen_asked |= !way.asks_first.is_empty();
            asked += usize::from(brings_milk);
        }
    }
    assert!(asked > 0, "no way brought milk: the check checks nothing");

    // Agar in a mousse: gelatin is offered only after a plain question about pork.
    let mut agar = start(Family::FruitMousse, "set");
    for line in &mut agar.lines {
        if find(&line.ingredient).unwrap().bloom > 0.0 {
            *line = Line::new("agar", "1 g");
        }
    }
    for way in all_ways(&agar) {
        let gelatin = way.document.lines.iter().any(|line| find(&line.ingredient).unwrap().bloom > 0.0);
        assert_eq!(gelatin, way.asks_first.iter().any(|words| words.contains("pork")), "{}", way.title);
    }
}

#[test]
fn a_swap_that_brings_an_allergen_says_so_and_comes_last() {
    let document = start(Family::Ganache, "drip");
    let line = document.lines.iter().position(|line| line.ingredient.starts_with("cream")).unwrap();
    let to = |by: &str| SwapAsk {
        document: document.clone(),
        ask: SwapFor::Replace { line, by: by.to_owned() },
        keep: Vec::new(),
    };
    let options = swap(&to("hazelnut_paste"), &Shelf::catalogue(), &|_| None).unwrap().options;
    assert!(options.iter().all(|own| own.asks_first.iter().any(|words| words.contains("hazelnut"))));
    let options = swap(&to("cream40"), &Shelf::catalogue(), &|_| None).unwrap().options;
    assert!(options.iter().all(|own| own.asks_first.is_empty()), "{:?}", options[0].asks_first);
}

#[test]
fn what_a_formula_is_for_is_never_less_in_any_way() {
    let (mut would_shrink, mut checked) = (0, 0);
    for (name, mut document) in disturbed() {
        let Some(at) = document
            .lines
            .iter()
            .position(|line| find(&line.ingredient).is_some_and(|own| own.group == Group::Fruit))
        else {
            continue;
        };
        let key = document.lines[at].ingredient.clone();
        let grams = |document: &FormulaDocument| -> f64 {
            let of = document.lines.iter().zip(grams_of(document));
            of.filter(|(line, _)| line.ingredient == key).map(|(_, grams)| grams).sum()
        };
        let had = grams(&document);
        would_shrink += usize::from(all_ways(&document).iter().any(|way| grams(&way.document) < had - 0.01));
        document.lines[at].rule.kept = true;
        for way in all_ways(&document) {
            assert!(grams(&way.document) >= had - 0.01, "{name}: {} of {had} g", way.title);
            checked += 1;
        }
    }
    assert!(would_shrink > 5 && checked > 20, "{would_shrink} would shrink, {checked} ways checked");
}

/// Every raw fruit that cuts gelatin, at every dose of gelatin: no chance, and the ways are heat or another gel.
#[test]
fn raw_fruit_undoes_gelatin_at_any_dose_and_the_way_is_heat() {
    let raw: Vec<&str> =
        catalogue().iter().filter(|own| own.flags.protease).map(|own| own.id.as_str()).collect();
    for name in ["kiwi_raw", "pineapple_raw", "papaya_raw", "fig_raw", "ginger_raw", "mango_raw"] {
        assert!(raw.contains(&name), "{name} is not known to cut gelatin");
    }
    for fruit in raw {
        for gelatin in ["4 g", "12 g", "40 g"] {
            for much in ["4 g", "60 g", "400 g"] {
                let mut document = start(Family::FruitMousse, "set");
                document.lines = vec![
                    Line::new("raspberry", "250 g"),
                    Line::new(fruit, much),
                    Line::new("cream36", "300 g"),
                    Line::new("sugar", "50 g"),
                    Line::new("gelatin200", gelatin),
                ];
                let answer = assess(&document).unwrap();
                let name = format!("{much} of {fruit}, {gelatin} of gelatin");
                assert_eq!(answer.at.chance, 0.0, "{name}");
                assert_ne!(answer.at.outcome, Outcome::Inside, "{name}");
                assert!(answer.spans.is_empty(), "{name}: {:?}", answer.spans);
                assert!(answer.at.headline.contains("raw fruit"), "{name}: {}", answer.at.headline);
                for way in all_ways(&document) {
                    assert!(
                        matches!(way.kind, WayKind::Heat | WayKind::Swap),
                        "{name}: {} leaves the fruit raw",
                        way.title
                    );
                    assert!(!warned(&way.document, WarningCode::Protease), "{name}: {}", way.title);
                }
            }
        }
    }
    let mut boiled = start(Family::FruitMousse, "set");
    boiled.lines.insert(1, Line::new("kiwi_raw", "40 g"));
    let found = all_ways(&boiled);
    assert!(
        found.iter().any(|way| way.kind == WayKind::Heat && way.title.contains("85 °C")),
        "{:?}",
        found.iter().map(|way| &way.title).collect::<Vec<_>>()
    );
    boiled.lines[1].cook_c = Some(CookTemperature::from_celsius(85.0));
    assert!(assess(&boiled).unwrap().at.chance > 0.3);
}

#[test]
fn an_under_boiled_custard_is_boiled_and_not_starched() {
    let mut document = start(Family::PastryCream, "fill");
    document.process.cook_c = Some(CookTemperature::from_celsius(80.0));
    assert!(warned(&document, WarningCode::StarchRaw));
    let found = all_ways(&document);
    assert!(!found.is_empty());
    for way in &found {
        assert_eq!(way.kind, WayKind::Heat, "{}", way.title);
        assert!(way.title.starts_with("Boil it"), "{}", way.title);
        assert!(
            !way.title.contains("starch 1") && !warned(&way.document, WarningCode::StarchRaw),
            "{}",
            way.title
        );
    }
}

/// When the numbers say the opposite of the eye, the trade's first amount stands, and half of it first.
#[test]
fn a_bowl_the_numbers_see_the_other_way_gets_the_first_amount_and_not_the_largest() {
    let (mut other_way, mut looked) = (0, 0);
    for family in Family::ALL {
        for own in starts(*family) {
            for (sign, t_c) in [(Sign::TooStiff, 40.0), (Sign::TooLoose, 3.0)] {
                let mut document = own.clone();
                document.work.temperature_c = Temperature::from_celsius(t_c);
                let ask =
                    RescueAsk { document, sign, bowl_c: Some(t_c), bowl_g: None, not_at_hand: Vec::new() };
                let Ok(answer) = rescue(&ask, &Shelf::catalogue()) else { continue };
                let opposite = answer.numbers_say.contains("opposite");
                for remedy in &answer.remedies {
                    let row = remedies().iter().find(|row| row.id == remedy.id).unwrap();
                    for (step, written) in remedy.steps.iter().zip(&row.steps) {
                        let (Some(added), Some([usual, most])) = (&step.addition, written.g) else {
                            continue;
                        };
                        looked += 1;
                        if added.why_not.as_deref().is_some_and(|words| words.contains("the other way")) {
                            other_way += 1;
                            let wanted = usual * answer.bowl_g / 100.0;
                            assert_eq!(added.basis, Basis::Practice);
                            assert!(
                                (added.grams - wanted).abs() <= 0.5 + 0.01 * wanted,
                                "{}: {added:?}",
                                remedy.id
                            );
                            assert!((added.first_g - 0.5 * wanted).abs() <= 0.5 + 0.01 * wanted, "{added:?}");
                        }
                        // Never the largest dose as something that would not even do it, against the numbers.
                        let largest = most * answer.bowl_g / 100.0;
                        let overdosed = opposite
                            && usual < most
                            && added.basis == Basis::NotByItself
                            && added.grams >= 0.99 * largest.min(added.most_g);
                        assert!(!overdosed, "{family:?} {sign:?} {}: {added:?}", remedy.id);
                    }
                }
            }
        }
    }
    assert!(other_way > 20, "{other_way} of {looked} additions went the other way");
}

/// Families whose egg thickens alone: past 86 °C it scrambles, and starch makes another cream of it.
fn egg_alone(family: Family) -> bool {
    matches!(
        family,
        Family::Anglaise
            | Family::Curd
            | Family::Bavarois
            | Family::EggMousse
            | Family::SwissButtercream
            | Family::ItalianButtercream
            | Family::FrenchButtercream
    )
}

/// Every remedy read against every family it is offered to.
#[test]
fn no_remedy_boils_or_starches_what_its_family_cannot_bear() {
    let mut read = 0;
    for remedy in remedies() {
        for family in Family::ALL.iter().filter(|family| remedy.fits(**family).is_some()) {
            read += 1;
            let at = format!("{} under {family:?}", remedy.id);
            for step in &remedy.steps {
                let hot = step.t.is_some_and(|[_, high]| high > 86.0);
                if egg_alone(*family) {
                    assert!(!(hot && step.deed == Deed::Warm), "{at}: “{}”", step.say);
                    let boils = step.say.to_lowercase().contains("back to the boil")
                        || step.say.to_lowercase().contains("re-boil");
                    assert!(!boils, "{at}: “{}”", step.say);
                }
                let starch =
                    step.of.as_deref().and_then(|key| find(key)).is_some_and(|own| own.is(Role::Starch));
                if matches!(family, Family::Anglaise | Family::Curd | Family::Bavarois) {
                    assert!(!starch, "{at}: starch, “{}”", step.say);
                }
                assert!(!(starch && hot && egg_alone(*family)), "{at}: starch to the boil");
            }
        }
        // A family taken out must have been in: else the line is a slip.
        for family in &remedy.not_for {
            let group = serde_json::to_value(family.traits().group).unwrap();
            assert!(remedy.families.iter().any(|own| group == own.as_str()), "{}: {family:?}", remedy.id);
        }
    }
    assert!(read > 500, "{read} pairs");
}

#[test]
fn degrees_fahrenheit_do_not_cook_an_egg() {
    let mut document = start(Family::SwissButtercream, "mask");
    document.process.cook_c = Some(CookTemperature::from_celsius(131.0));
    let answer = assess(&document).unwrap();
    let found = answer
        .warnings
        .iter()
        .find(|own| own.code == WarningCode::HeatImpossible)
        .expect("it is asked about");
    assert!(found.way_out.contains("131 °F") && found.way_out.contains("55 °C"), "{}", found.way_out);
    assert!(warned(&document, WarningCode::EggRaw), "131 °F passed for cooked");
    document.process.cook_c = Some(CookTemperature::from_celsius(71.0));
    assert!(!warned(&document, WarningCode::EggRaw) && !warned(&document, WarningCode::HeatImpossible));
    // A syrup is hot enough for it.
    let mut caramel = start(Family::CondensedFilling, "fill");
    caramel.process.cook_c = Some(CookTemperature::from_celsius(102.0));
    assert!(!warned(&caramel, WarningCode::HeatImpossible));
}
