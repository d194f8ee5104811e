//! What leads from a cake to the rest: work for the Bench that the Bench takes, other sizes of every build, recipes that
//! name everything, diets and cautions of the whole.

use crate::cakes::{chosen, formulas, template, with, with_known, worked_out};
use pastry::assess::assess;
use pastry::exchange::bring;
use pastry::exchange::recipe::{formula_recipe, media_type, order_recipe, stack_recipe};
use pastry::ingredient::Shelf;
use pastry::order::{OrderDocument, OrderedCake};
use pastry::stack::resize::ResizeTo;
use pastry::stack::{Body, ResizeAsk, StackDocument, resize, templates};
use serde_json::{Value, json};

/// Every build, cold, warm and hot, with its doses and sizes pushed: many findings, many of them with work.
fn pushed() -> Vec<StackDocument> {
    let mut all = Vec::new();
    for own in templates() {
        let full = chosen(&own.document);
        for t_c in [4.0, 21.0, 33.0] {
            let mut document = full.clone();
            document.serve_c = Some(t_c);
            if let Some(drip) = &mut document.tiers[0].drip {
                drip.dose_ml = if t_c > 30.0 { 3.0 } else { 0.2 };
            }
            if let Some(coat) = &mut document.tiers[0].coat {
                coat.side_mm = if t_c > 30.0 { 40.0 } else { 0.5 };
            }
            all.push(document);
        }
    }
    all
}

#[test]
fn the_bench_takes_the_work_it_is_handed() {
    let kitchen = formulas();
    let mut handed = 0;
    let mut jobs = Vec::new();
    for document in pushed() {
        for finding in worked_out(&document).findings {
            let Some(bench) = finding.bench else { continue };
            let mut formula = kitchen[&bench.component].clone();
            formula.work = bench.work;
            let answer = assess(&formula).unwrap_or_else(|faults| panic!("{}: {faults:?}", finding.sentence));
            assert!(!answer.at.headline.is_empty());
            jobs.push(formula.work.job.word());
            handed += 1;
        }
    }
    jobs.sort_unstable();
    jobs.dedup();
    assert!(handed > 30 && jobs.len() >= 4, "{handed} handed over, {jobs:?}");
}

/// What the cake says of a place and what the Bench says of the same work are one number.
#[test]
fn the_bench_says_the_number_the_cake_said() {
    let kitchen = formulas();
    let mut compared = 0;
    for document in pushed() {
        for finding in worked_out(&document).findings {
            let measured = ["drip_short", "drip_long", "drip_reaches_board", "glaze_film"];
            let Some(bench) = finding.bench.filter(|_| measured.contains(&finding.code.word())) else {
                continue;
            };
            let mut formula = kitchen[&bench.component].clone();
            formula.work = bench.work;
            let there = assess(&formula).unwrap().at.measured.value;
            let here = finding.value.unwrap();
            // A drip that runs off the cake is followed to 200 mm.
            assert!(
                (there / here - 1.0).abs() < 0.03,
                "{}: {here} on the cake, {there} on the Bench",
                finding.code
            );
            compared += 1;
        }
    }
    assert!(compared >= 6, "{compared} compared");
}

#[test]
fn every_build_goes_into_another_size_and_back() {
    for own in templates() {
        let document = chosen(&own.document);
        let before = worked_out(&document);
        let ask = ResizeAsk {
            document: document.clone(),
            to: ResizeTo::Servings { servings: 2 * before.portions.max(1) },
            room_c: 21.0,
        };
        let larger = with_known(|known| resize(&ask, known))
            .unwrap_or_else(|faults| panic!("{}: {faults:?}", own.key));
        assert!(larger.portions[1] >= 2 * before.portions, "{}: {}", own.key, larger.sentence);
        assert!(larger.portions[1] <= 4 * before.portions.max(1), "{}: {}", own.key, larger.sentence);
        assert!(larger.sentence.ends_with('.') && larger.factor > 1.0, "{}", larger.sentence);
        // What is counted grows in number inside the one document.
        let counted = document.tiers.iter().any(|tier| tier.many.is_some());
        let moulded = !counted && document.tiers.iter().all(|tier| !tier.body.stands());
        assert_eq!(larger.pieces > 1, moulded, "{}: {} pieces", own.key, larger.pieces);
        // Heights stay: only outlines grow. A pile of more pieces has more rows.
        let after = worked_out(&larger.document);
        let stays = (after.height_mm - before.height_mm).abs() < 1e-6;
        assert!(stays || after.tiers[0].rows.is_some(), "{}", own.key);
    }
}

#[test]
fn a_deeper_mould_keeps_the_shares_of_its_layers() {
    let dome = chosen(&template("dome"));
    let to = ResizeTo::Tin { body: Body::Dome { diameter_mm: 140.0, height_mm: 70.0 } };
    let large =
        with_known(|known| resize(&ResizeAsk { document: dome.clone(), to, room_c: 21.0 }, known)).unwrap();
    let [small, big] = [&dome, &large.document].map(worked_out);
    // Twice as wide and high is eight times as much inside.
    let filling = |answer: &pastry::stack::StackAnswer| answer.tiers[0].inner_mm;
    assert!((filling(&big) / filling(&small) - 2.0).abs() < 1e-9);
    let insert = |answer: &pastry::stack::StackAnswer| {
        answer.places.iter().find(|place| place.path.ends_with("inserts.1")).unwrap().volume_ml
    };
    assert!((insert(&big) / insert(&small) - 8.0).abs() < 0.05, "{}", insert(&big) / insert(&small));
}

fn texts(value: &Value, found: &mut Vec<String>) {
    match value {
        Value::String(text) => found.push(text.clone()),
        Value::Array(all) => all.iter().for_each(|own| texts(own, found)),
        Value::Object(fields) => {
            fields.iter().filter(|(name, _)| *name != "encoding").for_each(|(_, own)| texts(own, found));
        }
        _ => {}
    }
}

/// A person who has only the recipe can weigh and build the cake.
#[test]
fn a_recipe_names_every_ingredient_and_every_place() {
    for own in templates() {
        let document = chosen(&own.document);
        let answer = worked_out(&document);
        let recipe = with_known(|known| stack_recipe(&document, known, 21.0));
        let mut all = Vec::new();
        texts(&recipe, &mut all);
        let whole = all.join("\n");
        for part in &answer.parts {
            assert!(whole.contains(&part.name), "{}: {} is not in it", own.key, part.name);
        }
        let building = recipe["recipeInstructions"].as_array().unwrap().last().unwrap();
        assert_eq!(building["itemListElement"].as_array().unwrap().len(), answer.places.len(), "{}", own.key);
        assert_eq!(recipe["recipeYield"], format!("{} portions", answer.portions));
        assert_eq!(recipe["encoding"]["encodingFormat"], media_type("bright-spoon/stack"));
    }
}

/// The fields are those of schema.org/Recipe, schema.org/HowToStep and schema.org/MediaObject.
#[test]
fn recipes_have_the_types_of_schema_org() {
    let shelf = Shelf::catalogue();
    for formula in formulas().values() {
        let recipe =
            formula_recipe(formula, &pastry::stack::Known { formulas: &Default::default(), shelf: &shelf })
                .unwrap();
        assert_eq!(recipe["@type"], "Recipe");
        for step in recipe["recipeInstructions"].as_array().unwrap() {
            assert_eq!(step["@type"], "HowToStep");
            assert!(step["text"].as_str().is_some_and(|text| text.len() > 8), "{step}");
        }
        let listed = recipe["recipeIngredient"].as_array().unwrap();
        assert_eq!(listed.len(), formula.lines.len());
        assert!(
            listed.iter().all(|line| line.as_str().is_some_and(|text| text.contains(" g"))),
            "{listed:?}"
        );
        assert_eq!(recipe["encoding"]["@type"], "MediaObject");
    }
    let order = OrderDocument {
        cakes: ["jar", "roll"]
            .map(|key| OrderedCake { stack: chosen(&template(key)), count: 3 })
            .into_iter()
            .collect(),
        ..OrderDocument::empty(21.0)
    };
    let list = with_known(|known| order_recipe(&order, known));
    assert_eq!(list["@type"], "ItemList");
    let items = list["itemListElement"].as_array().unwrap();
    for (at, item) in items.iter().enumerate() {
        assert_eq!((&item["@type"], &item["position"]), (&json!("ListItem"), &json!(at + 1)));
        assert_eq!(item["item"]["@type"], "Recipe");
        assert!(item["item"].get("encoding").is_none(), "the order brings it once");
    }
}

#[test]
fn a_cake_that_goes_out_brings_what_it_names_and_nothing_else() {
    for own in templates() {
        let document = chosen(&own.document);
        let whole = with_known(|known| bring::stack(&document, known));
        let mut brought: Vec<&str> = whole.components.iter().map(|own| own.key.as_str()).collect();
        brought.sort_unstable();
        assert_eq!(brought, document.component_keys(), "{}", own.key);
        // What is brought already and not known here stays.
        let nothing = std::collections::HashMap::new();
        let shelf = Shelf::catalogue();
        let elsewhere = pastry::stack::Known { formulas: &nothing, shelf: &shelf };
        assert_eq!(bring::stack(&whole, &elsewhere), whole, "{}", own.key);
    }
}

/// The whole is no better than its worst part, for diets and for care.
#[test]
fn diets_and_cautions_are_those_of_the_parts() {
    let answer = worked_out(&chosen(&template("dome")));
    assert!(!answer.diet.vegan && !answer.diet.vegetarian && !answer.diet.no_pork, "{:?}", answer.diet);
    for allergen in ["egg", "milk", "nuts (almond)", "gluten (wheat)"] {
        assert!(answer.allergens.iter().any(|own| own == allergen), "{allergen}: {:?}", answer.allergens);
    }
    assert!(answer.cautions.iter().any(|caution| caution.words.contains("four hours")));
    let mut sorted = answer.allergens.clone();
    sorted.dedup();
    assert_eq!(sorted, answer.allergens, "each once");
    // Only sugar on a plate: nobody need be warned.
    let mut plain = with(
        &chosen(&template("layers")),
        "/bakes/0/lines",
        json!([{ "ingredient": "sugar", "amount": "1 kg" }]),
    );
    if let pastry::stack::Layer::Sponge { soak, .. } = &mut plain.tiers[0].layers[0] {
        *soak = None;
    }
    let plain = StackDocument {
        tiers: vec![pastry::stack::Tier {
            layers: vec![plain.tiers[0].layers[0].clone()],
            ..pastry::stack::Tier::empty(Body::Round { diameter_mm: 180.0 })
        }],
        ..plain
    };
    let answer = worked_out(&plain);
    assert!(
        answer.diet.vegan && answer.diet.no_alcohol && answer.allergens.is_empty(),
        "{:?}",
        answer.allergens
    );
    assert!(answer.cautions.is_empty(), "{:?}", answer.cautions);
}
