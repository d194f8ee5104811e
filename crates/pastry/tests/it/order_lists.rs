//! The lists of an order by hand: a small order worked out on paper, and what each start says of diets and labels.

use crate::cakes::{start, with_known};
use pastry::assess::starts::starts;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Ingredient, Pack, Shelf};
use pastry::order::{OrderAnswer, OrderDocument, OrderedCake, Without, order};
use pastry::stack::check::finding::FindingCode;
use pastry::stack::{Known, StackDocument, Standing};
use serde_json::json;
use std::collections::HashMap;

/// A plate of 100 cm² and 10 mm of one filling: 100 ml of it, and nothing else.
fn plate(component: &str) -> StackDocument {
    serde_json::from_value(json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Plate",
        "tiers": [{
            "body": { "shape": "rectangle", "length_mm": 100, "width_mm": 100 },
            "layers": [{ "kind": "filling", "component": component, "thickness_mm": 10 }]
        }]
    }))
    .unwrap()
}

fn of(stack: StackDocument, count: u32) -> OrderDocument {
    OrderDocument { cakes: vec![OrderedCake { stack, count }], ..OrderDocument::empty(21.0) }
}

fn pack(ingredient: &Ingredient) -> Option<Pack> {
    ingredient.pack
}

fn answer(
    document: &OrderDocument,
    formulas: &HashMap<String, pastry::assess::FormulaDocument>,
) -> OrderAnswer {
    let shelf = Shelf::catalogue();
    let known = Known { formulas, shelf: &shelf };
    order(document, &known, &pack, &|_| Vec::new()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// 100 ml of syrup, half sugar and half water, ten times; 3 % stay in the bowl. On paper: density ρ, 1000 ρ/0.97
/// grams, half of them sugar.
#[test]
fn a_small_order_comes_out_as_on_paper() {
    let mut syrup = start(Family::Syrup, "soak");
    syrup.lines = serde_json::from_value(json!([
        { "ingredient": "sugar", "amount": "100 g" }, { "ingredient": "water", "amount": "100 g" }
    ]))
    .unwrap();
    let formulas = HashMap::from([("s".to_owned(), syrup)]);
    let answer = answer(&of(plate("s"), 10), &formulas);
    let place = &answer.cakes[0].places[0];
    assert!((place.volume_ml - 100.0).abs() < 1e-9);
    let density = place.density_g_per_ml.unwrap();
    // 50 °Bx at 20 °C: 1.2296 g/ml (NBS Circular 440, from memory).
    assert!((density / 1.2296 - 1.0).abs() < 0.02, "{density}");
    assert!((place.grams - 100.0 * density).abs() <= 0.5, "{}", place.grams);
    let made = 10.0 * (place.grams / 0.97).round();
    let batch = &answer.batches[0];
    assert!((batch.to_make_g - made).abs() < 1.5, "{} made, {made} on paper", batch.to_make_g);
    assert!((batch.lines[0].mass_g - 0.5 * made).abs() < 1.0 && batch.lines.len() == 2);
    assert!((batch.times - made / 200.0).abs() < 0.01);
    // Water is not bought; sugar comes in packs of a kilogram.
    assert_eq!(answer.shopping.len(), 1);
    let sugar = &answer.shopping[0];
    let own = Shelf::catalogue().find("sugar").unwrap().pack.unwrap();
    let packs = (sugar.needed_g / own.pack_g).ceil();
    assert_eq!(sugar.packs, Some(packs as u32));
    assert!((sugar.price.unwrap() - packs * own.pack_price).abs() < 0.005);
    assert!((sugar.left_g.unwrap() - (packs * own.pack_g - sugar.needed_g)).abs() < 0.01);
    let cost = sugar.needed_g * own.pack_price / own.pack_g;
    assert!((answer.cost.used - cost).abs() < 0.006, "{} for {cost}", answer.cost.used);
    let portions = f64::from(answer.portions);
    assert!((answer.cost.per_portion.unwrap() - cost / portions).abs() < 0.006);
}

/// The same component in two cakes is one batch; the same ingredient in two batches one line.
#[test]
fn what_is_alike_is_merged() {
    let named = |name: &str, job: &str| {
        let mut formula = start(Family::Ganache, job);
        formula.name = name.to_owned();
        (name.to_owned(), formula)
    };
    let formulas = HashMap::from([named("a", "fill"), named("b", "mask")]);
    let mut document = of(plate("a"), 2);
    document.cakes.push(OrderedCake { stack: plate("a"), count: 3 });
    document.cakes.push(OrderedCake { stack: plate("b"), count: 1 });
    let answer = answer(&document, &formulas);
    assert_eq!(answer.batches.len(), 2);
    let each = answer.cakes[0].places[0].grams;
    assert!((answer.batches[0].grams - 5.0 * each).abs() < 0.01);
    let shares: u32 = answer.batches[0].shares.iter().map(|share| share.count).sum();
    assert_eq!(shares, 5);
    assert_eq!(answer.batches[0].shares[0].words, format!("5 fillings of {each} g"));
    for line in &answer.shopping {
        let twice = answer.shopping.iter().filter(|other| other.ingredient == line.ingredient).count();
        assert_eq!(twice, 1, "{} stands twice", line.name);
    }
    let shared: Vec<&str> = formulas["a"].lines.iter().map(|line| line.ingredient.as_str()).collect();
    for line in answer.shopping.iter().filter(|line| shared.contains(&line.ingredient.as_str())) {
        let both = formulas["b"].lines.iter().any(|own| own.ingredient == line.ingredient);
        assert_eq!(line.used_in.len(), if both { 2 } else { 1 }, "{}: {:?}", line.name, line.used_in);
    }
}

/// Every start of every family against what its ingredients are: found when it is, quiet when it is not.
#[test]
fn what_must_not_be_in_it_is_found_for_every_family() {
    let shelf = Shelf::catalogue();
    for family in Family::ALL {
        let formula = starts(*family)[0].clone();
        let lines = formula.formula().weigh(&shelf).unwrap();
        let own =
            pastry::ingredient::diet(lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams())));
        let milk =
            lines.iter().any(|line| line.ingredient.allergens.iter().any(|allergen| allergen == "milk"));
        let formulas = HashMap::from([("x".to_owned(), formula)]);
        let asks: [(&str, Without, bool); 5] = [
            ("animals", Without { animals: true, ..Without::default() }, !own.vegan),
            ("meat", Without { meat: true, ..Without::default() }, !own.vegetarian),
            ("pork", Without { pork: true, ..Without::default() }, !own.no_pork),
            ("alcohol", Without { alcohol: true, ..Without::default() }, !own.no_alcohol),
            ("milk", Without { allergens: vec!["milk".to_owned()], ..Without::default() }, milk),
        ];
        for (name, without, wanted) in asks {
            let document = OrderDocument { without, ..of(plate("x"), 1) };
            let found = answer(&document, &formulas).findings.iter().any(|finding| {
                finding.code == FindingCode::MustNotBeInIt
                    && finding.standing == Standing::Trouble
                    && finding.bench.is_some()
            });
            assert_eq!(found, wanted, "{family:?} without {name}");
        }
    }
}

/// Every family makes a label with a day to use it by and where to keep it.
#[test]
fn every_family_has_a_label() {
    for family in Family::ALL {
        let mut formula = starts(*family)[0].clone();
        formula.name = format!("The {}", family.word());
        let formulas = HashMap::from([("x".to_owned(), formula)]);
        let mut document = of(plate("x"), 1);
        document.made_on = Some("2026-02-27".parse().unwrap());
        let labels = answer(&document, &formulas).labels;
        assert_eq!(labels.len(), 2, "{family:?}: one for the batch, one for the cake");
        for label in &labels {
            assert!(label.keeps_days >= 1 && label.keep_at.contains("5 °C"), "{label:?}");
            // Over the end of February.
            let days = label.use_by.unwrap() - label.made_on.unwrap();
            assert_eq!(i64::from(days.get_days()), label.keeps_days, "{label:?}");
        }
        assert_eq!(labels[0].what, format!("The {}", family.word()));
        assert!(labels[1].keeps_days <= labels[0].keeps_days.max(1), "{labels:?}");
        assert!(labels[1].amount.ends_with(" g"), "{}", labels[1].amount);
    }
}

#[test]
fn honey_in_a_filling_is_on_the_label_of_batch_and_cake() {
    for (with, named) in [(true, true), (false, false)] {
        let mut document = start(Family::Ganache, "fill");
        if with {
            document.lines.push(Line::new("honey", "15 g"));
        }
        let formulas = HashMap::from([("x".to_owned(), document)]);
        let labels = answer(&of(plate("x"), 1), &formulas).labels;
        assert_eq!(labels.len(), 2);
        for label in labels {
            assert_eq!(label.notes.iter().any(|note| note.contains("infants")), named, "{label:?}");
        }
    }
}

#[test]
fn what_has_no_price_is_named_and_left_out() {
    let formulas = HashMap::from([("a".to_owned(), start(Family::Ganache, "fill"))]);
    let shelf = Shelf::catalogue();
    let known = Known { formulas: &formulas, shelf: &shelf };
    let nobody = |ingredient: &Ingredient| ingredient.pack.filter(|_| !ingredient.id.starts_with("cream"));
    let answer = order(&of(plate("a"), 4), &known, &nobody, &|_| Vec::new()).unwrap();
    assert!(
        answer.cost.without_price.iter().any(|name| name.starts_with("Cream")),
        "{:?}",
        answer.cost.without_price
    );
    assert!(answer.cost.used > 0.0 && answer.batches[0].cost.is_none());
    let cream = answer.shopping.iter().find(|line| line.name.starts_with("Cream")).unwrap();
    assert_eq!((cream.packs, cream.price, cream.left_g), (None, None, None));
}

#[test]
fn loose_pieces_are_bought_whether_the_pantry_knows_them_or_not() {
    let mut stack = plate("fill");
    stack.tiers[0].pieces = serde_json::from_value(json!([
        { "name": "Nibs", "ingredient": "cocoa_nib", "count": 4, "each_g": 1.5 },
        { "name": "Paper flags", "count": 2, "each_g": 1.0 },
        { "name": "Moon dust", "ingredient": "own-nobody", "count": 1, "each_g": 3.0 }
    ]))
    .unwrap();
    let answer = with_known(|known| order(&of(stack, 10), known, &pack, &|_| Vec::new())).unwrap();
    let line = |name: &str| answer.shopping.iter().find(|line| line.name == name);
    assert_eq!(line("Cocoa nibs").map(|own| own.needed_g), Some(60.0));
    assert_eq!(line("Paper flags").map(|own| (own.needed_g, own.packs)), Some((20.0, None)));
    assert_eq!(line("Moon dust").map(|own| own.needed_g), Some(30.0));
    let pieces: f64 =
        answer.bill.iter().filter(|line| line.place.ends_with("pieces")).map(|line| line.all_g).sum();
    assert!((pieces - 110.0).abs() < 1e-9, "{pieces}");
}

/// What a glaze runs off, offcuts and an opened pack are said with what they could serve; a gram of this and that is not.
#[test]
fn left_overs_are_worth_a_label_or_not_named() {
    let mut stack = crate::cakes::chosen(&crate::cakes::template("dome"));
    stack.tiers[0].glaze.as_mut().unwrap().side_mm = 2.0;
    let uses = |key: &str| if key == "cream36" { vec!["Sunday cream".to_owned()] } else { Vec::new() };
    let [one, many] = [1, 40]
        .map(|count| with_known(|known| order(&of(stack.clone(), count), known, &pack, &uses)).unwrap());
    let named =
        |answer: &OrderAnswer, what: &str| answer.leftovers.iter().any(|left| left.what.contains(what));
    assert!(named(&many, "runs off") && !named(&one, "runs off"));
    for left in &many.leftovers {
        assert!(left.grams >= 15.0 && !left.words.is_empty() && !left.keeps.is_empty(), "{left:?}");
    }
    let cream =
        many.leftovers.iter().find(|left| left.what.contains("Cream 36")).map(|left| left.serves.clone());
    assert!(cream.is_none_or(|serves| serves == ["Sunday cream"]));
}
