//! Orders: everything adds up to the gram, lists agree with each other, files come back as they were.

use crate::cakes::{chosen, formulas, template, with_known};
use pastry::exchange::bring;
use pastry::exchange::lists::{ListKind, to_csv};
use pastry::exchange::read::{ReadFile, read};
use pastry::exchange::recipe::{formula_recipe, order_recipe, stack_recipe};
use pastry::formula::Family;
use pastry::ingredient::{Ingredient, IngredientDocument, Shelf, find};
use pastry::order::{OrderAnswer, OrderDocument, OrderedCake, Without, order};
use pastry::stack::check::finding::FindingCode;
use pastry::stack::onto::Pieces;
use pastry::stack::resize::ResizeTo;
use pastry::stack::{Body, Known, ResizeAsk, StackDocument, Standing, resize, templates};
use serde_json::json;
use std::collections::HashMap;

/// A gram, and the tenths that rounding of many lines may add.
const GRAM: f64 = 1.0;

fn of(cakes: &[(&str, u32)]) -> OrderDocument {
    OrderDocument {
        name: "Quay table".to_owned(),
        served_at: Some("2026-12-05T15:00:00".parse().unwrap()),
        made_on: Some("2026-12-04".parse().unwrap()),
        cakes: cakes
            .iter()
            .map(|(key, count)| OrderedCake { stack: chosen(&template(key)), count: *count })
            .collect(),
        ..OrderDocument::empty(21.0)
    }
}

fn worked_out(document: &OrderDocument) -> OrderAnswer {
    let pack = |ingredient: &Ingredient| ingredient.pack;
    let uses = |key: &str| if key == "white" { vec!["Cloud mousse".to_owned()] } else { Vec::new() };
    with_known(|known| order(document, known, &pack, &uses)).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn everything() -> OrderDocument {
    of(&[
        ("tiers", 1),
        ("dome", 24),
        ("jar", 30),
        ("roll", 3),
        ("ring", 2),
        ("tray", 1),
        ("log", 2),
        ("naked", 1),
    ])
}

#[test]
fn places_add_up_to_parts_parts_to_batches_and_lines_to_what_is_made() {
    let document = everything();
    let answer = worked_out(&document);
    for cake in &answer.cakes {
        let places: f64 = cake.places.iter().map(|place| place.grams).sum();
        assert!((places - cake.finished_g).abs() < 0.01, "{}: {places} of {}", cake.name, cake.finished_g);
        let parts: f64 = cake.parts.iter().map(|part| part.grams).sum();
        assert!(
            (parts - cake.finished_g).abs() < 0.01,
            "{}: parts {parts} of {}",
            cake.name,
            cake.finished_g
        );
        for part in &cake.parts {
            let shared: f64 = part.shares.iter().map(|share| f64::from(share.count) * share.each_g).sum();
            let whole =
                if part.kind == pastry::stack::part::PartKind::Bake { part.to_make_g } else { part.grams };
            assert!((shared - whole).abs() < GRAM, "{}: shares {shared} of {whole}", part.name);
            assert!(
                part.to_make_g >= part.grams - 0.01,
                "{}: {} for {}",
                part.name,
                part.to_make_g,
                part.grams
            );
        }
    }
    for batch in &answer.batches {
        let lines: f64 = batch.lines.iter().map(|line| line.mass_g).sum();
        assert!((lines - batch.to_make_g).abs() < 0.01, "{}: {lines} of {}", batch.name, batch.to_make_g);
        let asked: f64 = answer
            .cakes
            .iter()
            .zip(&document.cakes)
            .flat_map(|(cake, ordered)| cake.parts.iter().map(move |part| (part, f64::from(ordered.count))))
            .filter(|(part, _)| part.kind == batch.kind && part.key == batch.key && part.name == batch.name)
            .map(|(part, count)| count * part.to_make_g)
            .sum();
        // Each line is rounded as a scale shows it: half a gram a line at most.
        let off = (batch.to_make_g - asked).abs();
        assert!(off <= 0.5 * batch.lines.len() as f64, "{}: {} for {asked}", batch.name, batch.to_make_g);
    }
    let bill: f64 = answer.bill.iter().map(|line| line.all_g).sum();
    assert!((bill - answer.finished_g).abs() < 0.05, "bill {bill} of {}", answer.finished_g);
}

#[test]
fn the_shopping_list_holds_every_line_of_every_batch() {
    let answer = worked_out(&everything());
    let mut needed: HashMap<&str, f64> = HashMap::new();
    for line in answer.batches.iter().flat_map(|batch| &batch.lines) {
        *needed.entry(&line.ingredient).or_default() += line.mass_g;
    }
    for line in &answer.shopping {
        let packs = f64::from(line.packs.unwrap_or(0)) * line.pack_g.unwrap_or(0.0);
        if line.packs.is_some() {
            assert!(packs >= line.needed_g - 0.01, "{}: {packs} g of packs for {}", line.name, line.needed_g);
            assert!(packs - line.needed_g < line.pack_g.unwrap() + 0.01, "{}: a pack too many", line.name);
        }
        if !["egg", "yolk", "white"].contains(&line.ingredient.as_str()) {
            let batches = needed.get(line.ingredient.as_str()).copied().unwrap_or_default();
            assert!((line.needed_g - batches).abs() < 0.01, "{}: {} for {batches}", line.name, line.needed_g);
        }
    }
    for key in needed.keys().filter(|key| !["water", "yolk", "white"].contains(key)) {
        assert!(answer.shopping.iter().any(|line| line.ingredient == **key), "{key} is not bought");
    }
    let used: f64 = answer.cost.by_part.iter().map(|share| share.cost).sum();
    let by_ingredient: f64 = answer.cost.by_ingredient.iter().map(|share| share.cost).sum();
    assert!((used - answer.cost.used).abs() < 0.2 && (by_ingredient - answer.cost.used).abs() < 0.2);
    let percent: f64 = answer.cost.by_part.iter().map(|share| share.of_cost_percent).sum();
    assert!((percent - 100.0).abs() < 1e-6, "{percent}");
}

/// A yolk is 17 g and a white 33 g (USDA household weights): a curd of yolks leaves its whites.
#[test]
fn yolks_leave_whites_and_whites_yolks() {
    let mut document = of(&[("layers", 1)]);
    document.cakes[0].stack.bakes[0].lines = serde_json::from_value(
        json!([{ "ingredient": "yolk", "amount": "170 g" }, { "ingredient": "flour", "amount": "100 g" }]),
    )
    .unwrap();
    let answer = worked_out(&document);
    let yolks = answer.batches[0].lines[0].mass_g;
    let eggs = (yolks / 17.0).ceil();
    let bought = answer.shopping.iter().find(|line| line.ingredient == "egg").expect("eggs are bought");
    assert!((bought.needed_g - 50.0 * eggs).abs() < 1.0, "{} g for {eggs} eggs", bought.needed_g);
    let whites = answer.leftovers.iter().find(|left| left.what == "Egg whites").expect("whites are left");
    assert!((whites.grams - 33.0 * eggs).abs() < 1.0, "{} g of whites of {eggs} eggs", whites.grams);
    assert!(whites.serves.iter().any(|word| word == "Cloud mousse"), "{:?}", whites.serves);
    assert!(answer.shopping.iter().all(|line| line.ingredient != "yolk" && line.ingredient != "white"));
}

#[test]
fn more_of_a_cake_is_as_many_times_as_much() {
    let [one, many] = [1, 24].map(|count| worked_out(&of(&[("dome", count)])));
    assert!((many.finished_g / one.finished_g - 24.0).abs() < 1e-6);
    for (a, b) in one.batches.iter().zip(&many.batches) {
        // What rounding to a scale does to a small batch.
        assert!(
            (b.to_make_g / a.to_make_g / 24.0 - 1.0).abs() < 0.12,
            "{}: {} and {}",
            a.name,
            a.to_make_g,
            b.to_make_g
        );
    }
    assert_eq!(many.labels.last().map(|label| label.copies), Some(24));
}

#[test]
fn what_must_not_be_in_it_is_found_with_whose_it_is() {
    let mut document = of(&[("dome", 12)]);
    assert!(worked_out(&document).findings.is_empty());
    document.without = Without {
        pork: true,
        alcohol: true,
        allergens: vec!["nuts (almond)".to_owned()],
        ..Without::default()
    };
    let answer = worked_out(&document);
    let sentences: Vec<&str> = answer.findings.iter().map(|finding| finding.sentence.as_str()).collect();
    for wanted in ["mousse has something of a pig", "Almond sponge has nuts (almond)"] {
        assert!(sentences.iter().any(|sentence| sentence.contains(wanted)), "{wanted}: {sentences:?}");
    }
    assert_eq!(answer.standing, Standing::Trouble);
    let mousse = answer.findings.iter().find(|finding| finding.sentence.starts_with("mousse")).unwrap();
    assert_eq!(mousse.bench.as_ref().map(|bench| bench.component.as_str()), Some("mousse"));
}

#[test]
fn too_few_portions_are_said_and_a_larger_cake_has_enough() {
    let mut document = of(&[("layers", 1)]);
    let had = worked_out(&document).portions;
    document.servings = Some(had + 20);
    let answer = worked_out(&document);
    assert_eq!(answer.findings[0].code, FindingCode::Portions);
    assert!(answer.headline.starts_with(&format!("{had} portions for {}", had + 20)), "{}", answer.headline);
    let ask = ResizeAsk {
        document: document.cakes[0].stack.clone(),
        to: ResizeTo::Servings { servings: had + 20 },
        room_c: 21.0,
    };
    let larger = with_known(|known| resize(&ask, known)).unwrap();
    document.cakes[0].stack = larger.document;
    let enough = worked_out(&document);
    assert!(enough.portions >= had + 20 && enough.portions < had + 40, "{} portions", enough.portions);
    assert!((larger.factor - enough.finished_g / answer.finished_g).abs() < 1e-9);
}

/// Areas decide: from 16 cm to 24 cm every layer takes 2.25 times as much.
#[test]
fn another_tin_takes_the_ratio_of_the_areas() {
    let mut small = chosen(&template("layers"));
    small.tiers[0].body = Body::Round { diameter_mm: 160.0 };
    let ask = ResizeAsk {
        document: small.clone(),
        to: ResizeTo::Tin { body: Body::Round { diameter_mm: 240.0 } },
        room_c: 21.0,
    };
    let large = with_known(|known| resize(&ask, known)).unwrap();
    let [a, b] = [&small, &large.document].map(crate::cakes::worked_out);
    for (before, after) in a.places.iter().zip(&b.places).filter(|(place, _)| place.path.contains("layers")) {
        assert!(
            (after.grams / before.grams - 2.25).abs() < 0.06,
            "{}: {} to {}",
            before.path,
            before.grams,
            after.grams
        );
    }
    let bad = ResizeAsk { to: ResizeTo::Tin { body: Body::Round { diameter_mm: 2.0 } }, ..ask.clone() };
    assert_eq!(with_known(|known| resize(&bad, known)).unwrap_err()[0].field, "to.body");
    let none = ResizeAsk { to: ResizeTo::Servings { servings: 0 }, ..ask };
    assert_eq!(with_known(|known| resize(&none, known)).unwrap_err()[0].field, "to.servings");
    let domes = ResizeAsk {
        document: chosen(&template("dome")),
        to: ResizeTo::Servings { servings: 30 },
        room_c: 21.0,
    };
    assert_eq!(with_known(|known| resize(&domes, known)).unwrap().pieces, 30);
}

/// A raw egg is a day's label whatever its family keeps; the cake takes the shortest of its parts.
#[test]
fn labels_count_from_the_day_it_is_made_and_raw_egg_is_one_day() {
    let mut document = of(&[("ring", 1)]);
    let answer = worked_out(&document);
    let mousse = answer.labels.iter().find(|label| label.what == "mousse").unwrap();
    assert_eq!(
        (mousse.keeps_days, mousse.use_by.map(|day| day.to_string()).as_deref()),
        (2, Some("2026-12-06"))
    );
    assert!(
        mousse.notes.iter().any(|note| note == "pork gelatin")
            && mousse.allergens.iter().any(|a| a == "milk")
    );
    let mut raw = crate::cakes::start(Family::EggMousse, "set");
    raw.name = "raw".to_owned();
    raw.process.cook_c = None;
    for line in &mut raw.lines {
        line.cook_c = None;
    }
    document.cakes[0].stack.components =
        vec![serde_json::from_value(json!({ "key": "raw", "document": raw })).unwrap()];
    document.cakes[0].stack =
        crate::cakes::with(&document.cakes[0].stack, "/tiers/0/layers/1/component", json!("raw"));
    document.made_on = None;
    let answer = worked_out(&document);
    let label = answer.labels.iter().find(|label| label.what == "raw").unwrap();
    assert_eq!((label.keeps_days, label.use_by), (1, None), "{label:?}");
    assert!(label.notes.iter().any(|note| note.contains("raw")), "{:?}", label.notes);
    assert_eq!(answer.labels.last().unwrap().keeps_days, 1);
    assert!(answer.cautions.iter().any(|caution| caution.words.contains("Egg under 71 °C")));
}

#[test]
fn lists_are_tables_that_hold_what_the_answer_holds() {
    let answer = worked_out(&everything());
    let lines = |kind: ListKind| {
        let text = to_csv(&answer, kind);
        let mut reader = csv::Reader::from_reader(text.as_bytes());
        reader.records().collect::<Result<Vec<_>, _>>().expect("every row fits the header").len()
    };
    assert_eq!(lines(ListKind::Shopping), answer.shopping.len());
    assert_eq!(lines(ListKind::Bill), answer.bill.len());
    assert_eq!(lines(ListKind::Labels), answer.labels.len());
    let weighed: usize = answer.batches.iter().map(|batch| batch.lines.len() + 1).sum();
    assert_eq!(lines(ListKind::Weighing), weighed);
}

#[test]
fn files_come_back_as_they_were_as_json_and_as_recipes() {
    let document = everything();
    let shelf = Shelf::catalogue();
    let kitchen = formulas();
    let known = Known { formulas: &kitchen, shelf: &shelf };
    let whole = bring::order(&document, &known);
    for text in [serde_json::to_string(&whole).unwrap(), order_recipe(&document, &known).to_string()] {
        assert_eq!(read(&text, &shelf).unwrap(), ReadFile::Order { document: whole.clone() });
    }
    // Another kitchen that knows none of the formulas works out the same.
    let nothing = HashMap::new();
    let elsewhere = Known { formulas: &nothing, shelf: &shelf };
    let pack = |ingredient: &Ingredient| ingredient.pack;
    let there = order(&whole, &elsewhere, &pack, &|_| Vec::new()).unwrap();
    assert_eq!(there.finished_g, worked_out(&document).finished_g);
    for own in templates() {
        let cake: StackDocument = bring::stack(&chosen(&own.document), &known);
        let recipe = stack_recipe(&chosen(&own.document), &known, 21.0);
        assert_eq!(recipe["@type"], "Recipe");
        assert_eq!(recipe["@context"], "https://schema.org");
        assert!(recipe["recipeIngredient"].as_array().is_some_and(|all| all.len() > 3), "{}", own.key);
        assert_eq!(read(&recipe.to_string(), &shelf).unwrap(), ReadFile::Stack { document: cake });
    }
    for formula in kitchen.values() {
        let recipe = formula_recipe(formula, &Known { formulas: &nothing, shelf: &shelf }).unwrap();
        assert!(
            recipe["recipeInstructions"].as_array().is_some_and(|steps| !steps.is_empty()),
            "{}",
            formula.name
        );
        assert_eq!(
            read(&recipe.to_string(), &shelf).unwrap(),
            ReadFile::Formula { document: formula.clone() }
        );
    }
}

/// A sponge of a kitchen's own flour, and pieces of its own nut brittle: without them another kitchen could neither shop
/// nor name the allergens, and would not say so.
#[test]
fn own_ingredients_of_sponges_and_pieces_go_with_the_cake() {
    let own = |from: &str, key: &str, name: &str| IngredientDocument {
        note: "From the mill at the quay.".to_owned(),
        ..IngredientDocument::copy_of(find(from).unwrap(), key.to_owned(), name.to_owned())
    };
    let flour = own("flour", "own-quay-flour", "Quay flour");
    let brittle = own("peanut_butter", "own-brittle", "Quay brittle");
    let here = Shelf::catalogue().with([&flour, &brittle]);
    let mut cake = chosen(&template("drip"));
    for line in cake.bakes.iter_mut().flat_map(|bake| &mut bake.lines) {
        if line.ingredient == "flour" {
            line.ingredient.clone_from(&flour.key);
        }
    }
    cake.tiers[0].pieces = vec![Pieces {
        name: "Brittle".to_owned(),
        ingredient: Some(brittle.key.clone()),
        count: 8,
        each_g: 5.0,
    }];
    let mut ordered = OrderDocument::empty(21.0);
    ordered.cakes = vec![OrderedCake { stack: cake, count: 1 }];
    let kitchen = formulas();
    let known = Known { formulas: &kitchen, shelf: &here };
    let pack = |ingredient: &Ingredient| ingredient.pack;
    let at_home = order(&ordered, &known, &pack, &|_| Vec::new()).unwrap();
    assert!(at_home.allergens.iter().any(|one| one == "peanut"), "{:?}", at_home.allergens);
    let whole = bring::order(&ordered, &known);
    let nothing = HashMap::new();
    let bare = Shelf::catalogue();
    let elsewhere = Known { formulas: &nothing, shelf: &bare };
    let there = order(&whole, &elsewhere, &pack, &|_| Vec::new()).unwrap();
    assert_eq!(there.allergens, at_home.allergens);
    assert_eq!(there.incomplete, at_home.incomplete);
    let names = |answer: &OrderAnswer| {
        answer.shopping.iter().map(|line| (line.name.clone(), line.needed_g)).collect::<Vec<_>>()
    };
    assert_eq!(names(&there), names(&at_home));
    // As they were written, word for word, and through every door.
    let stack = &whole.cakes[0].stack;
    assert_eq!(stack.ingredients.len(), 2);
    assert!(stack.ingredients.contains(&flour) && stack.ingredients.contains(&brittle));
    let recipe = order_recipe(&ordered, &known).to_string();
    assert_eq!(read(&recipe, &bare).unwrap(), ReadFile::Order { document: whole.clone() });
    // Without them it says that it is not whole.
    let mut torn = whole;
    torn.cakes[0].stack.ingredients.clear();
    let there = order(&torn, &elsewhere, &pack, &|_| Vec::new()).unwrap();
    assert!(!there.incomplete.is_empty());
    // One that is no ingredient is refused with its place.
    torn.cakes[0].stack.ingredients = vec![IngredientDocument { name: String::new(), ..flour }];
    let faults = order(&torn, &elsewhere, &pack, &|_| Vec::new()).unwrap_err();
    assert_eq!(faults[0].field, "cakes.0.stack.ingredients.0.name");
}

/// The fields are those of schema.org/Recipe; the recipe is invented here.
#[test]
fn a_recipe_of_others_becomes_a_formula_with_what_was_not_understood() {
    let text = json!({
        "@context": "https://schema.org",
        "@graph": [{ "@type": "WebPage" }, {
            "@type": ["Recipe"],
            "name": "Harbour pot",
            "recipeIngredient": [
                "250 g dark chocolate 60 %, chopped", "1 1/2 cups heavy cream", "2 egg yolks",
                "30 g unsalted butter (soft)", "a few grains of patience"
            ]
        }]
    })
    .to_string();
    let ReadFile::Recipe { document, not_understood, lines } = read(&text, &Shelf::catalogue()).unwrap()
    else {
        panic!("it is somebody else's recipe")
    };
    let keys: Vec<&str> = document.lines.iter().map(|line| line.ingredient.as_str()).collect();
    assert_eq!(keys, ["dark60", "cream36", "yolk", "butter82"]);
    assert_eq!(document.lines[1].amount, "1 1/2 cups");
    assert_eq!(not_understood, ["a few grains of patience"]);
    assert_eq!(document.name, "Harbour pot");
    assert!(document.formula().weigh(&Shelf::catalogue()).is_ok());
    // Every line is there as it stood, with what was made of it; what was not taken in stands first in the note.
    assert_eq!(lines.len(), 5);
    assert_eq!(lines[0].text, "250 g dark chocolate 60 %, chopped");
    assert_eq!(lines[0].taken_as.as_deref(), Some("250 g Dark chocolate 60 %"));
    assert_eq!((lines[4].line, lines[4].taken_as.as_deref()), (None, None));
    assert!(document.note.starts_with("NOT TAKEN IN: a few grains of patience."), "{}", document.note);
}

#[test]
fn files_that_are_none_say_why() {
    let shelf = Shelf::catalogue();
    for (text, words) in [
        ("{", "not JSON"),
        ("{\"a\": 1}", "nothing in it is known"),
        ("{\"format\": \"somebody/else\"}", "not known here"),
        ("{\"format\": \"bright-spoon/order\"}", "does not fit"),
        ("{\"@type\": \"Recipe\"}", "lists no ingredients"),
        ("{\"@type\": \"Recipe\", \"recipeIngredient\": [\"love\"]}", "none of its lines"),
    ] {
        let refused = read(text, &shelf).unwrap_err();
        assert!(refused.contains(words), "{text}: {refused}");
    }
}

#[test]
fn what_is_no_order_is_refused_at_its_fields() {
    let mut document = of(&[("jar", 0)]);
    document.servings = Some(0);
    document.made_on = Some("2026-12-09".parse().unwrap());
    document.cakes[0].stack.version = 3;
    let faults = document.faults();
    let fields: Vec<&str> = faults.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["servings", "cakes.0.count", "cakes.0.stack.version", "made_on"]);
    let empty = worked_out(&OrderDocument::empty(21.0));
    assert_eq!(empty.headline, "Nothing is ordered yet");
}

/// Fresh fruit on top is a day's cake, whatever is in it (common practice); jam is not fresh.
#[test]
fn fresh_fruit_on_top_shortens_a_cake_s_life() {
    let days = |ingredient: &str| {
        let mut document = of(&[("ring", 1)]);
        let pieces = json!({ "name": "On top", "ingredient": ingredient, "count": 9, "each_g": 5.0 });
        document.cakes[0].stack.tiers[0].pieces = vec![serde_json::from_value(pieces).unwrap()];
        worked_out(&document).labels.last().unwrap().keeps_days
    };
    assert_eq!((days("raspberry"), days("jam")), (1, 2));
}
