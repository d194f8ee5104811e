//! What is not known is said at every door: on the cake, the order, every list and every label, and in the recipe. And
//! what is printed is what was written: to the tenth of a gram, with its colons, as text.

use crate::cakes::{chosen, formulas, start, template, with_known};
use pastry::assess::assess;
use pastry::assess::starts::starts;
use pastry::exchange::lists::{ListKind, to_csv};
use pastry::exchange::recipe::{formula_recipe, order_recipe, stack_recipe};
use pastry::formula::keeping::keeping;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Ingredient, Shelf};
use pastry::order::{OrderAnswer, OrderDocument, OrderedCake, order};
use pastry::stack::{Known, Layer, StackDocument, stack};
use serde_json::Value;

const LISTS: [ListKind; 4] = [ListKind::Shopping, ListKind::Weighing, ListKind::Bill, ListKind::Labels];

fn of(cake: StackDocument) -> OrderDocument {
    OrderDocument {
        name: "Quay table".to_owned(),
        cakes: vec![OrderedCake { stack: cake, count: 1 }],
        ..OrderDocument::empty(21.0)
    }
}

fn answer(document: &OrderDocument, known: &Known) -> OrderAnswer {
    let pack = |ingredient: &Ingredient| ingredient.pack;
    order(document, known, &pack, &|_| Vec::new()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// One part of a whole cake taken away, each on its own: a formula the kitchen has no more, a batter that is not
/// written, pieces that are no ingredient.
fn with_a_part_missing() -> Vec<(String, StackDocument, Vec<String>)> {
    let mut cases = Vec::new();
    for key in ["tiers", "dome", "jar", "roll", "ring", "tray", "log", "naked"] {
        let whole = chosen(&template(key));
        let text = serde_json::to_string(&whole).unwrap();
        for name in formulas().keys().filter(|name| text.contains(&format!("\"component\":\"{name}\""))) {
            cases.push((format!("{key} without {name}"), whole.clone(), vec![name.clone()]));
        }
        let mut unwritten = whole.clone();
        unwritten.bakes.iter_mut().for_each(|bake| bake.lines.clear());
        let baked = unwritten
            .tiers
            .iter()
            .flat_map(|tier| &tier.layers)
            .any(|layer| matches!(layer, Layer::Sponge { bake: Some(_), .. }));
        if baked && !unwritten.bakes.is_empty() {
            cases.push((format!("{key} without batters"), unwritten, Vec::new()));
        }
    }
    cases
}

#[test]
fn a_part_taken_away_is_missed_on_every_list_and_label() {
    let shelf = Shelf::catalogue();
    let cases = with_a_part_missing();
    assert!(cases.len() >= 20, "{} cases", cases.len());
    for (case, cake, gone) in &cases {
        let mut left = formulas();
        left.retain(|name, _| !gone.contains(name));
        let known = Known { formulas: &left, shelf: &shelf };
        let alone = stack(cake, &known, 21.0).unwrap();
        assert!(!alone.incomplete.is_empty(), "{case}: the cake is called whole");
        let document = of(cake.clone());
        let all = answer(&document, &known);
        assert!(!all.incomplete.is_empty(), "{case}: the order is called whole");
        for kind in LISTS {
            assert!(to_csv(&all, kind).contains("INCOMPLETE"), "{case}: {kind:?} is called whole");
        }
        let cake_label = all.labels.last().unwrap();
        assert!(!cake_label.incomplete.is_empty(), "{case}: the label is called whole");
        for recipe in [stack_recipe(cake, &known, 21.0), order_recipe(&document, &known)] {
            assert!(recipe["description"].as_str().unwrap().starts_with("INCOMPLETE"), "{case}");
        }
    }
}

#[test]
fn what_is_whole_is_not_called_incomplete() {
    for key in ["tiers", "dome", "jar", "roll", "ring", "tray", "log", "naked"] {
        let document = of(chosen(&template(key)));
        let all = with_known(|known| answer(&document, known));
        assert_eq!(all.incomplete, Vec::<String>::new(), "{key}");
        for kind in LISTS {
            assert!(!to_csv(&all, kind).contains("INCOMPLETE"), "{key}: {kind:?}");
        }
    }
}

/// A label short of an allergen: every allergen of every line of every formula and batter stands on the cake's.
#[test]
fn every_allergen_of_every_line_stands_on_the_label() {
    let shelf = Shelf::catalogue();
    for key in ["tiers", "dome", "jar", "roll", "ring", "tray", "log", "naked"] {
        let document = of(chosen(&template(key)));
        let all = with_known(|known| answer(&document, known));
        let label = all.labels.last().unwrap();
        for batch in &all.batches {
            let used =
                batch.lines.iter().flat_map(|line| shelf.find(&line.ingredient).unwrap().allergens.iter());
            for allergen in used {
                assert!(label.allergens.contains(allergen), "{key}: {} has {allergen}", batch.name);
                assert!(batch.allergens.contains(allergen), "{key}: {} lacks {allergen}", batch.name);
            }
        }
    }
}

#[test]
fn a_colon_in_a_name_cuts_no_headline() {
    let shelf = Shelf::catalogue();
    for name in ["Mia: 40 years", "a: b: c", "12:30", "end:"] {
        let mut cake = chosen(&template("tiers"));
        cake.name = name.to_owned();
        let mut left = formulas();
        for document in left.values_mut() {
            document.name = format!("{name} {}", document.name);
        }
        left.remove("fill");
        let known = Known { formulas: &left, shelf: &shelf };
        let named = stack(&cake, &known, 21.0).unwrap();
        cake.name = "Plain".to_owned();
        for document in left.values_mut() {
            document.name = "Plain".to_owned();
        }
        let known = Known { formulas: &left, shelf: &shelf };
        let plain = stack(&cake, &known, 21.0).unwrap();
        let colons = |text: &str| text.matches(": ").count();
        // The headline ends at the sentence's own colon: it holds as many of the name's as the name has.
        let times = named.headline.matches(name).count();
        assert_eq!(
            colons(&named.headline),
            colons(&plain.headline) + times * colons(name),
            "{}",
            named.headline
        );
    }
}

#[test]
fn cells_that_would_run_in_a_spreadsheet_are_text_in_all_lists() {
    for danger in ["=1+1", "+SUM(A1)", "-2+3", "@cmd", "=HYPERLINK(\"x\")"] {
        let mut cake = chosen(&template("tiers"));
        cake.name = danger.to_owned();
        let mut document = of(cake);
        document.name = danger.to_owned();
        let shelf = Shelf::catalogue();
        let mut all = formulas();
        all.values_mut().for_each(|formula| formula.name = danger.to_owned());
        let known = Known { formulas: &all, shelf: &shelf };
        let worked_out = answer(&document, &known);
        for kind in LISTS {
            let text = to_csv(&worked_out, kind);
            let mut seen = 0;
            for row in csv::Reader::from_reader(text.as_bytes()).records() {
                for cell in row.unwrap().iter() {
                    let runs = cell.starts_with(['=', '+', '-', '@', '\t', '\r']);
                    assert!(!runs || cell.parse::<f64>().is_ok(), "{kind:?}: {cell}");
                    seen += usize::from(cell.starts_with(&format!("'{}", &danger[..1])));
                }
            }
            assert!(seen > 0 || kind == ListKind::Shopping, "{kind:?}: {danger} is nowhere in it");
        }
    }
}

/// The grams on paper are the formula's: xanthan by the hundredth, gelatin by the tenth.
#[test]
fn printed_grams_are_the_formulas() {
    let mut document = start(Family::Jelly, "set");
    for (amount, grams) in [("0.25 g", 0.25), ("22.5 g", 22.5), ("4.4 g", 4.4), ("166.5 g", 166.5)] {
        document.lines =
            vec![Line::new("water", "600 g"), Line::new("sugar", "120 g"), Line::new("gelatin200", amount)];
        let shown = assess(&document).unwrap();
        assert_eq!(shown.lines[2].mass_g, grams);
        let recipe: Value =
            formula_recipe(&document, &Known { formulas: &Default::default(), shelf: &Shelf::catalogue() })
                .unwrap();
        let printed = recipe["recipeIngredient"][2].as_str().unwrap();
        assert!(printed.contains(amount), "{printed}");
    }
}

/// USDA FSIS and the FDA Food Code put what must stay cold at 41 °F (5 °C) or below (from memory): no sentence leaves
/// it overnight in the room.
#[test]
fn what_must_stay_cold_is_never_left_overnight_in_the_room() {
    let mut cold = 0;
    for family in Family::ALL {
        for document in starts(*family) {
            let said = assess(document).unwrap().in_the_room.sentence;
            if keeping(*family).stands_overnight() {
                continue;
            }
            cold += 1;
            assert!(!said.contains("overnight"), "{family:?}: {said}");
            assert!(said.contains("5 °C or below") && said.contains("food code"), "{family:?}: {said}");
        }
    }
    assert!(cold >= 20, "{cold}");
    for family in
        [Family::PastryCream, Family::FruitMousse, Family::WhippedCream, Family::Curd, Family::Anglaise]
    {
        assert!(!keeping(family).stands_overnight(), "{family:?}");
    }
}
