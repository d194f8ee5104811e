//! Orders of creams made of creams: every batch once, each with what it is for, and nothing bought or paid twice.

use crate::cakes::start;
use pastry::assess::FormulaDocument;
use pastry::assess::made_here::with_made;
use pastry::exchange::bring;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Ingredient, Pack, Shelf};
use pastry::order::{OrderAnswer, OrderDocument, OrderedCake, order};
use pastry::stack::{Known, StackDocument};
use proptest::prelude::*;
use serde_json::json;
use std::collections::HashMap;

type Formulas = HashMap<String, FormulaDocument>;

fn plate(component: &str, thickness_mm: f64) -> StackDocument {
    serde_json::from_value(json!({
        "format": "bright-spoon/stack", "version": 1, "name": format!("Plate of {component}"),
        "tiers": [{
            "body": { "shape": "rectangle", "length_mm": 100, "width_mm": 100 },
            "layers": [{ "kind": "filling", "component": component, "thickness_mm": thickness_mm }]
        }]
    }))
    .unwrap()
}

fn named(name: &str, family: Family, job: &str, lines: &[(&str, &str)]) -> FormulaDocument {
    let mut document = start(family, job);
    document.name = name.to_owned();
    document.process = Default::default();
    document.lines = lines.iter().map(|(id, amount)| Line::new(*id, *amount)).collect();
    document
}

/// A custard that stands on plates itself, and goes into two creams; a syrup inside the custard.
fn formulas() -> Formulas {
    let daily = [("milk", "500 g"), ("yolk", "85 g"), ("made-syrup", "150 g"), ("corn_starch", "44 g")];
    HashMap::from([
        (
            "syrup".to_owned(),
            named("Bay syrup", Family::Syrup, "soak", &[("sugar", "200 g"), ("water", "100 g")]),
        ),
        ("daily".to_owned(), named("Daily pastry cream", Family::PastryCream, "fill", &daily)),
        (
            "feast".to_owned(),
            named("Feast", Family::Diplomat, "fill", &[("made-daily", "300 g"), ("cream36", "130 g")]),
        ),
        (
            "almond".to_owned(),
            named("Almond", Family::Mousseline, "fill", &[("made-daily", "420 g"), ("butter82", "200 g")]),
        ),
    ])
}

fn shelf(formulas: &Formulas) -> Shelf {
    with_made(Shelf::catalogue(), &formulas.iter().map(|(key, own)| (key.as_str(), own)).collect())
}

fn pack(ingredient: &Ingredient) -> Option<Pack> {
    ingredient.pack
}

fn of(cakes: &[(&str, f64, u32)]) -> OrderDocument {
    let cakes = cakes.iter().map(|(key, mm, count)| OrderedCake { stack: plate(key, *mm), count: *count });
    OrderDocument { cakes: cakes.collect(), ..OrderDocument::empty(21.0) }
}

fn answer(document: &OrderDocument, formulas: &Formulas) -> OrderAnswer {
    let shelf = shelf(formulas);
    order(document, &Known { formulas, shelf: &shelf }, &pack, &|_| Vec::new())
        .unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn held(answer: &OrderAnswer) {
    let mut keys: Vec<&str> = answer.batches.iter().map(|batch| batch.key.as_str()).collect();
    keys.sort_unstable();
    let many = keys.len();
    keys.dedup();
    assert_eq!(keys.len(), many, "a batch is made once");
    for batch in &answer.batches {
        let sum: f64 = batch.lines.iter().map(|line| line.mass_g).sum();
        assert!((sum - batch.to_make_g).abs() < 0.006, "{}: {sum} of {}", batch.name, batch.to_make_g);
        assert!((sum - batch.weighed_g).abs() < 0.006, "{}: {sum} of {}", batch.name, batch.weighed_g);
        if batch.made_for.is_empty() {
            continue;
        }
        // What it is for and what is left is all of it, to the gram; never less than is needed.
        let needed: f64 = batch.made_for.iter().map(|own| own.mass_g).sum();
        let rest = batch.to_make_g - needed;
        assert!((-0.006..=2.0).contains(&rest), "{}: {needed} of {}", batch.name, batch.to_make_g);
        let weighed: f64 = answer
            .batches
            .iter()
            .flat_map(|own| &own.lines)
            .filter(|line| line.ingredient == format!("made-{}", batch.key))
            .map(|line| line.mass_g)
            .sum();
        let on_cakes: f64 =
            batch.made_for.iter().filter(|own| own.name == "the cakes").map(|own| own.mass_g).sum();
        assert!((weighed + on_cakes - needed).abs() < 0.006, "{}", batch.name);
        // Before what it goes into.
        let at = |key: &str| answer.batches.iter().position(|own| own.key == key).unwrap();
        for own in answer
            .batches
            .iter()
            .filter(|own| own.lines.iter().any(|line| line.ingredient == format!("made-{}", batch.key)))
        {
            assert!(at(&batch.key) < at(&own.key), "{} before {}", batch.name, own.name);
        }
    }
    // Bought is what is weighed and not made here, and nothing else.
    assert!(answer.shopping.iter().all(|line| !line.ingredient.starts_with("made-")));
    for line in &answer.shopping {
        if line.ingredient == "egg" {
            continue;
        }
        let weighed: f64 = answer
            .batches
            .iter()
            .flat_map(|own| &own.lines)
            .filter(|own| own.ingredient == line.ingredient)
            .map(|own| own.mass_g)
            .sum();
        assert!((weighed - line.needed_g).abs() < 0.006, "{}: {weighed} of {}", line.name, line.needed_g);
    }
    let parts: f64 = answer.cost.by_part.iter().map(|part| part.cost).sum();
    assert!((parts - answer.cost.used).abs() < 0.05, "{parts} of {}", answer.cost.used);
}

#[test]
fn three_that_use_it_share_one_batch() {
    let answer = answer(&of(&[("feast", 10.0, 4), ("almond", 12.0, 3), ("daily", 8.0, 1)]), &formulas());
    held(&answer);
    let keys: Vec<&str> = answer.batches.iter().map(|batch| batch.key.as_str()).collect();
    assert_eq!(keys.len(), 4, "{keys:?}");
    assert_eq!(keys[..2], ["syrup", "daily"]);
    let daily = &answer.batches[1];
    let names: Vec<&str> = daily.made_for.iter().map(|own| own.name.as_str()).collect();
    assert_eq!(names.len(), 3, "{names:?}");
    let told = daily.made_for_sentence.as_deref().unwrap();
    assert!(
        told.starts_with(&format!("Make {} g of Daily pastry cream: ", daily.to_make_g.round())),
        "{told}"
    );
    assert!(
        told.contains("for Feast") && told.contains("for the cakes") && told.contains("for Almond"),
        "{told}"
    );
    // A label for every batch, and what is inside is on it.
    let label = |what: &str| answer.labels.iter().find(|label| label.what == what).unwrap();
    for what in ["Daily pastry cream", "Feast", "Almond"] {
        assert!(label(what).allergens.contains(&"egg".to_owned()), "{what}: {:?}", label(what).allergens);
        assert!(label(what).incomplete.is_empty());
    }
    assert!(label("Bay syrup").keep_at.contains("5 °C") && label("Bay syrup").keeps_days >= 1);
}

#[test]
fn it_costs_what_it_costs_in_one_bowl() {
    let nested = answer(&of(&[("feast", 10.0, 12)]), &formulas());
    held(&nested);
    // The same in one bowl: 300 g of custard, of which 150/779 are syrup, two parts sugar to one of water.
    let part = 300.0 / 779.0;
    let grams = |g: f64| format!("{} g", g * part);
    let mut flat = formulas();
    let mut whole = flat["feast"].clone();
    whole.lines = [
        Line::new("milk", grams(500.0)),
        Line::new("yolk", grams(85.0)),
        Line::new("sugar", grams(100.0)),
        Line::new("water", grams(50.0)),
        Line::new("corn_starch", grams(44.0)),
        Line::new("cream36", "130 g"),
    ]
    .to_vec();
    flat.insert("feast".into(), whole);
    let flat = answer(&of(&[("feast", 10.0, 12)]), &flat);
    assert!(
        (nested.cost.used / flat.cost.used - 1.0).abs() < 0.01,
        "{} {}",
        nested.cost.used,
        flat.cost.used
    );
    assert_eq!(nested.allergens, flat.allergens);
}

#[test]
fn another_kitchen_gets_all_that_is_inside() {
    let (formulas, ordered) = (formulas(), of(&[("feast", 10.0, 4), ("almond", 12.0, 3)]));
    let here = shelf(&formulas);
    let whole = bring::order(&ordered, &Known { formulas: &formulas, shelf: &here });
    let (nothing, bare) = (Formulas::new(), Shelf::catalogue());
    let there = order(&whole, &Known { formulas: &nothing, shelf: &bare }, &pack, &|_| Vec::new()).unwrap();
    let at_home = answer(&ordered, &formulas);
    assert_eq!(there.batches, at_home.batches);
    assert_eq!((there.shopping, there.cost, there.labels), (at_home.shopping, at_home.cost, at_home.labels));
    assert!(there.incomplete.is_empty());
    // And a file that lost one of them says so, and no list is taken for a whole one.
    let mut short = whole;
    for cake in &mut short.cakes {
        for own in &mut cake.stack.components {
            own.document.components.retain(|inner| inner.key != "syrup");
        }
    }
    let short = order(&short, &Known { formulas: &nothing, shelf: &bare }, &pack, &|_| Vec::new());
    assert!(short.is_err() || !short.unwrap().incomplete.is_empty());
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    #[test]
    fn whatever_is_ordered_adds_up(
        cakes in prop::collection::vec((0usize..4, 2f64..40.0, 1u32..30), 1..5), taken in 20f64..700.0,
    ) {
        let keys = ["feast", "almond", "daily", "syrup"];
        let mut formulas = formulas();
        formulas.get_mut("feast").unwrap().lines[0].amount = format!("{taken} g");
        let cakes: Vec<(&str, f64, u32)> =
            cakes.iter().map(|(which, mm, count)| (keys[*which], *mm, *count)).collect();
        held(&answer(&of(&cakes), &formulas));
    }
}

#[test]
fn a_batch_that_is_boiled_down_weighs_more_than_it_makes() {
    let mut formulas = formulas();
    let to = pastry::formula::BoilTo::Share { of_weight: 0.8 };
    formulas.get_mut("syrup").unwrap().process.boiled = Some(to);
    for cakes in [[("syrup", 10.0, 6)], [("feast", 10.0, 6)]] {
        let answer = answer(&of(&cakes), &formulas);
        let syrup = answer.batches.iter().find(|batch| batch.key == "syrup").unwrap();
        let weighed: f64 = syrup.lines.iter().map(|line| line.mass_g).sum();
        assert!((weighed - syrup.weighed_g).abs() < 0.006, "{syrup:?}");
        assert!((0.8 * weighed - syrup.to_make_g).abs() < 0.02, "{syrup:?}");
        assert!(syrup.to_make_g + 1.0 >= syrup.made_for.iter().map(|own| own.mass_g).sum::<f64>());
    }
    let inside = answer(&of(&[("feast", 10.0, 6)]), &formulas);
    let told = inside.batches[0].made_for_sentence.as_deref().unwrap();
    assert!(told.contains("It is boiled down from"), "{told}");
}

/// Two files from two kitchens may bring two custards under one key: neither is taken for the other.
#[test]
fn one_key_and_another_inside_is_another_batch() {
    let (ours, mut theirs) = (formulas(), formulas());
    theirs.get_mut("daily").unwrap().lines[3].amount = "66 g".to_owned();
    let whole = |formulas: &Formulas| {
        let shelf = shelf(formulas);
        bring::order(&of(&[("feast", 10.0, 4), ("daily", 5.0, 2)]), &Known { formulas, shelf: &shelf })
    };
    let mut both = whole(&ours);
    both.cakes.extend(whole(&theirs).cakes);
    let (nothing, bare) = (Formulas::new(), Shelf::catalogue());
    let answer = order(&both, &Known { formulas: &nothing, shelf: &bare }, &pack, &|_| Vec::new()).unwrap();
    let starch: Vec<f64> = answer
        .batches
        .iter()
        .filter(|batch| batch.key == "daily")
        .map(|batch| batch.lines[3].mass_g / batch.to_make_g)
        .collect();
    assert_eq!(starch.len(), 2, "{:?}", answer.batches.iter().map(|own| &own.name).collect::<Vec<_>>());
    assert!((starch[0] - starch[1]).abs() > 0.02, "{starch:?}");
    let weighed: f64 = answer
        .batches
        .iter()
        .flat_map(|own| &own.lines)
        .filter(|own| own.ingredient == "corn_starch")
        .map(|own| own.mass_g)
        .sum();
    let bought = answer.shopping.iter().find(|line| line.ingredient == "corn_starch").unwrap().needed_g;
    assert!((weighed - bought).abs() < 0.01);
}

/// A batter may begin with something boiled down: more of it is weighed than goes into the oven.
#[test]
fn a_batter_is_boiled_down_too() {
    let cake: StackDocument = serde_json::from_value(json!({
        "format": "bright-spoon/stack", "version": 1, "name": "Plate",
        "tiers": [{
            "body": { "shape": "rectangle", "length_mm": 100, "width_mm": 100 },
            "layers": [{ "kind": "sponge", "bake": "b", "thickness_mm": 20 }]
        }],
        "bakes": [{
            "key": "b", "name": "Juice sponge", "sponge": "genoise",
            "lines": [
                { "ingredient": "flour", "amount": "100 g" },
                { "ingredient": "orange", "amount": "100 g", "boiled": { "to": "share", "of_weight": 0.5 } }
            ]
        }]
    }))
    .unwrap();
    let ordered =
        OrderDocument { cakes: vec![OrderedCake { stack: cake, count: 3 }], ..OrderDocument::empty(21.0) };
    let answer = answer(&ordered, &formulas());
    let batch = answer.batches.iter().find(|batch| batch.name == "Juice sponge").unwrap();
    assert!((batch.to_make_g / batch.weighed_g - 0.75).abs() < 0.01, "{batch:?}");
}

/// Drained yoghurt stands on one plate and its whey is in the cream of another: one batch, bought once, and what is lifted out
/// of a line is said beside what is weighed.
#[test]
fn one_batch_gives_what_is_drained_and_what_runs_off() {
    let mut drained = named("Drained yoghurt", Family::WhippedCream, "spoon", &[("yoghurt", "1000 g")]);
    drained.process.strained = Some(
        serde_json::from_value(
            json!({ "how": "drained", "keeps": "stays", "left": { "to": "share", "of_weight": 0.6 } }),
        )
        .unwrap(),
    );
    let lines = [("cream36", "500 g"), ("beside-drained", "100 g"), ("tea_leaves", "10 g")];
    let mut whey = named("Whey cream", Family::WhippedCream, "spoon", &lines);
    whey.lines[2].steeped = Some(Default::default());
    let formulas = HashMap::from([("drained".to_owned(), drained), ("whey".to_owned(), whey)]);
    for (cakes, of_main, of_beside) in [
        (of(&[("drained", 20.0, 3), ("whey", 20.0, 1)]), true, true),
        (of(&[("whey", 20.0, 4)]), false, true),
        (of(&[("drained", 20.0, 1)]), true, false),
    ] {
        let told = answer(&cakes, &formulas);
        let own: Vec<_> = told.batches.iter().filter(|batch| batch.key == "drained").collect();
        assert_eq!(own.len(), 1, "{own:?}");
        let (own, whey) = (own[0], told.batches.iter().find(|batch| batch.key == "whey"));
        // Never less of either part than is taken.
        let beside: f64 = whey.map_or(0.0, |whey| whey.lines[1].mass_g);
        assert_eq!((own.grams > 0.0, beside > 0.0), (of_main, of_beside));
        assert!(own.to_make_g >= own.grams - 1e-9, "{own:?}");
        assert!(0.4 * own.weighed_g >= beside - 1e-9, "{own:?} for {beside} g");
        assert!((0.6 * own.weighed_g - own.to_make_g).abs() < 0.02, "{own:?}");
        let bought = told.shopping.iter().find(|line| line.ingredient == "yoghurt").unwrap();
        assert!((bought.needed_g - own.weighed_g).abs() < 1.0, "{bought:?} for {own:?}");
        if let Some(whey) = whey {
            let leaves = |words: &String| words.starts_with("Black tea leaves: of ");
            assert!(whey.taken_off.iter().any(leaves), "{:?}", whey.taken_off);
        }
    }
}
