//! Shells, choux, tubes, pairs and sheets: what they hold, how many, how much each, and how long they stay crisp.

use crate::cakes::{chosen, found, mended, template, with, worked_out, written};
use pastry::number::hundredths;
use pastry::stack::check::finding::FindingCode;
use pastry::stack::{Body, PlaceKind, ResizeAsk, StackAnswer, StackDocument, Standing, resize, templates};
use proptest::prelude::*;
use serde_json::json;
use std::f64::consts::PI;

const CASED: [&str; 10] =
    ["shells", "crust", "crumb", "buns", "long", "pile", "tubes", "cored", "pairs", "wafers"];

fn place(answer: &StackAnswer, kind: PlaceKind) -> &pastry::stack::place_answer::PlaceAnswer {
    answer.places.iter().find(|place| place.kind == kind).unwrap_or_else(|| panic!("no {kind:?}"))
}

/// Each with a formula in every place: nothing is missing, and what lies in a case and the case are its shape.
#[test]
fn every_form_is_worked_out_and_filled_to_its_brim() {
    for key in CASED {
        let document = chosen(&template(key));
        let answer = worked_out(&document);
        assert!(answer.incomplete.is_empty(), "{key}: {:?}", answer.incomplete);
        assert!(found(&answer, FindingCode::RunsOver).is_none(), "{key}: {:?}", answer.findings);
        let tier = &document.tiers[0];
        let count = f64::from(tier.count());
        assert_eq!(answer.tiers[0].count, tier.count(), "{key}");
        if let Some(case) = &tier.case {
            let (hollow, _) = case.cavity(&tier.body).unwrap();
            let inside = hollow.part(0.0, 0.1 * hollow.own_height_mm().unwrap());
            let whole = tier.body.part(0.0, 0.1 * tier.body.own_height_mm().unwrap());
            let filling = place(&answer, PlaceKind::Filling);
            assert!(
                (filling.volume_ml / (count * inside) - 1.0).abs() < 1e-4,
                "{key}: {}",
                filling.volume_ml
            );
            let walls = place(&answer, PlaceKind::Case);
            assert!((walls.volume_ml / (count * (whole - inside)) - 1.0).abs() < 1e-4, "{key}");
            assert_eq!(walls.bake, case.bake, "{key}");
            assert!(answer.tiers[0].hollow_mm.as_ref().is_some_and(|points| points.len() > 10), "{key}");
        }
        // Grams add up, and each piece is a portion.
        let sum: f64 = answer.places.iter().map(|place| place.grams).sum();
        assert!((answer.finished_g - hundredths(sum)).abs() < 1e-9, "{key}");
        if tier.many.is_some() {
            assert_eq!(answer.portions, tier.count(), "{key}");
        }
    }
}

/// A straight shell by hand: 80 mm across and 20 mm high outside, wall and floor 3 mm.
#[test]
fn a_shell_takes_what_its_hollow_holds_and_says_what_each_takes() {
    let document = chosen(&template("shells"));
    let answer = worked_out(&document);
    let filling = place(&answer, PlaceKind::Filling);
    let by_hand = PI / 4.0 * 7.4 * 7.4 * 1.7;
    assert!((filling.volume_ml - 12.0 * by_hand).abs() < 0.01, "{}", filling.volume_ml);
    let each = filling.grams / 12.0;
    assert!((each / (by_hand * filling.density_g_per_ml.unwrap()) - 1.0).abs() < 0.01, "{each}");
    assert!(filling.words.contains(" g in each of 12"), "{}", filling.words);
    let cream =
        answer.parts.iter().find(|part| part.kind == pastry::stack::part::PartKind::Component).unwrap();
    assert_eq!(cream.shares[0].count, 12);
    assert!((cream.shares[0].each_g - each).abs() < 0.01);
    // One more is made for what breaks, and some stays in the bag.
    assert!((cream.to_make_g / (cream.grams * 13.0 / 12.0 / 0.94) - 1.0).abs() < 0.01, "{cream:?}");
}

#[test]
fn twice_as_many_take_twice_as_much_and_stand_alike() {
    for key in ["shells", "buns", "pile", "tubes", "pairs", "cored"] {
        let one = chosen(&template(key));
        let count = one.tiers[0].count();
        let two = with(&one, "/tiers/0/many/count", json!(2 * count));
        let (few, many) = (worked_out(&one), worked_out(&two));
        assert!((many.finished_g / few.finished_g - 2.0).abs() < 0.01, "{key}");
        assert!((many.portion_g - few.portion_g).abs() < 0.2, "{key}");
        // What bears in one piece bears in each.
        let codes = |answer: &StackAnswer| -> Vec<_> { answer.findings.iter().map(|own| own.code).collect() };
        assert_eq!(codes(&few), codes(&many), "{key}");
    }
}

#[test]
fn a_pile_is_as_high_as_its_rows_and_takes_its_sugar_by_the_piece() {
    let document = chosen(&template("pile"));
    let answer = worked_out(&document);
    assert_eq!(answer.tiers[0].rows.as_deref(), Some(&[1, 4, 7, 10, 13][..]));
    let piece = answer.tiers[0].piece_mm[0];
    assert!((answer.height_mm - piece * (1.0 + 4.0 * 0.85)).abs() < 1e-6, "{}", answer.height_mm);
    let sugar = place(&answer, PlaceKind::Pile);
    assert!((sugar.grams - 35.0 * 4.0).abs() < 1e-9, "{}", sugar.grams);
}

#[test]
fn a_tray_is_cut_as_the_cook_says() {
    let document = chosen(&template("sheets"));
    let answer = worked_out(&document);
    assert_eq!((answer.portions, answer.cuts[0].lines_mm.len()), (9, 4));
    assert!(
        answer.cuts[0].words.starts_with("3 rows of 3: 9 pieces of 80 by 60 mm"),
        "{}",
        answer.cuts[0].words
    );
    assert!((answer.portion_g - answer.finished_g / 9.0).abs() < 0.01);
}

/// What cannot be: said at its place with what to do, and nothing lost.
#[test]
fn a_shell_thicker_than_its_tin_is_said_at_its_place() {
    for (key, pointer, value) in [
        ("shells", "/tiers/0/case/form/wall_mm", json!(45.0)),
        ("shells", "/tiers/0/case/form/floor_mm", json!(20.0)),
        ("buns", "/tiers/0/case/form/wall_mm", json!(30.0)),
        ("tubes", "/tiers/0/case/form/wall_mm", json!(12.0)),
        ("cored", "/tiers/0/case/form/across_mm", json!(60.0)),
        ("cored", "/tiers/0/case/form/deep_mm", json!(60.0)),
        ("shells", "/tiers/0/body", json!({"shape": "round", "diameter_mm": 80.0})),
    ] {
        let document = with(&chosen(&template(key)), pointer, value);
        let answer = worked_out(&document);
        let said = found(&answer, FindingCode::NoHollow).unwrap_or_else(|| panic!("{key} {pointer}"));
        assert_eq!((said.place, said.standing), (said.place, Standing::Trouble));
        assert!(
            said.place == "tiers.0.case" && said.sentence.contains("nothing to fill"),
            "{}",
            said.sentence
        );
        if let Some(mend) = said.mend.as_ref().filter(|mend| !mend.writes.is_empty()) {
            let after = worked_out(&mended(&document, mend));
            assert!(found(&after, FindingCode::NoHollow).is_none(), "{key} {pointer}: {}", mend.words);
        }
    }
    // Filled higher than the rim.
    let high = written(&chosen(&template("shells")), "tiers.0.layers.0.thickness_mm", Some(&json!(25.0)));
    assert!(found(&worked_out(&high), FindingCode::RunsOver).is_some());
}

#[test]
fn what_is_crisp_softens_beside_cream_and_a_film_of_fat_keeps_it() {
    let plain = chosen(&template("shells"));
    let softens = worked_out(&plain);
    let said = found(&softens, FindingCode::Softens).expect("a shell of cream softens");
    assert!(said.place == "tiers.0.case" && said.sentence.contains("estimate"), "{}", said.sentence);
    let bare = said.value.unwrap();
    // Ganache keeps its water to itself better than cream; a film of cocoa butter in it.
    let mut value = serde_json::to_value(&plain).unwrap();
    value["tiers"][0]["case"]["film"] = json!({"component": "film", "thickness_mm": 0.4});
    let filmed: StackDocument = serde_json::from_value(value).unwrap();
    let answer = {
        let mut formulas = crate::cakes::formulas();
        let mut film = crate::cakes::start(pastry::formula::Family::Ganache, "fill");
        film.lines = vec![pastry::formula::Line::new("cocoa_butter", "100 g")];
        formulas.insert("film".to_owned(), film);
        let shelf = pastry::ingredient::Shelf::catalogue();
        pastry::stack::stack(&filmed, &pastry::stack::Known { formulas: &formulas, shelf: &shelf }, 21.0)
            .unwrap()
    };
    assert!(place(&answer, PlaceKind::Film).grams > 10.0, "{:?}", answer.places);
    let kept = found(&answer, FindingCode::StaysCrisp).or(found(&answer, FindingCode::Softens)).unwrap();
    assert!(kept.value.unwrap() > 2.0 * bare, "{kept:?} after {bare} h");
    // Sponge is soft by nature, and an almond shell is to soften: of neither is it said.
    for key in ["cored", "pairs"] {
        assert!(found(&worked_out(&chosen(&template(key))), FindingCode::Softens).is_none(), "{key}");
    }
    // Between two creams a sheet softens from both sides.
    let sheets = chosen(&template("sheets"));
    let both = worked_out(&sheets);
    let hours: Vec<f64> = both
        .findings
        .iter()
        .filter(|own| own.code == FindingCode::Softens)
        .filter_map(|own| own.value)
        .collect();
    assert!(hours.len() <= 2, "sheets alike are told once: {hours:?}");
}

#[test]
fn more_guests_get_more_pieces_and_not_larger_ones() {
    let document = chosen(&template("buns"));
    let ask =
        ResizeAsk { document, to: pastry::stack::resize::ResizeTo::Servings { servings: 60 }, room_c: 21.0 };
    let more = crate::cakes::with_known(|known| resize(&ask, known)).unwrap();
    assert_eq!((more.document.tiers[0].count(), more.portions[1]), (60, 60));
    assert_eq!(more.document.tiers[0].body, ask.document.tiers[0].body);
}

#[test]
fn templates_have_each_a_key_and_every_bake_they_name() {
    let all = templates();
    for own in &all {
        assert_eq!(all.iter().filter(|other| other.key == own.key).count(), 1, "{}", own.key);
        for tier in &own.document.tiers {
            if let Some(key) = tier.case.as_ref().and_then(|case| case.bake.as_deref()) {
                assert!(own.document.bake(key).is_some(), "{}: {key}", own.key);
            }
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever numbers stand in a case: never more than its shape, never less than nothing, never NaN.
    #[test]
    fn no_case_holds_more_than_its_shape(
        wall in -5f64..80.0, floor in -5f64..60.0, flutes in -2f64..20.0, bottom in 10f64..250.0, top in 10f64..250.0,
        high in 10f64..90.0, count in 1u32..300, kind in 0usize..4,
    ) {
        let mut document = chosen(&template("shells"));
        let tier = &mut document.tiers[0];
        tier.body = match kind {
            0 | 3 => Body::Cup { bottom_mm: bottom, top_mm: top, height_mm: high },
            1 => Body::Dome { diameter_mm: bottom, height_mm: high },
            _ => Body::HalfLog { diameter_mm: bottom, length_mm: top },
        };
        let form = match kind {
            0 => json!({"kind": "shell", "wall_mm": wall, "floor_mm": floor, "flutes_mm": flutes}),
            3 => json!({"kind": "cored", "across_mm": wall, "deep_mm": floor}),
            _ => json!({"kind": "closed", "wall_mm": wall}),
        };
        tier.case.as_mut().unwrap().form = serde_json::from_value(form).unwrap();
        tier.many.as_mut().unwrap().count = count;
        let answer = worked_out(&document);
        let whole = document.tiers[0].body;
        let whole = f64::from(count) * whole.part(0.0, 0.1 * whole.own_height_mm().unwrap());
        let inside: f64 = answer.places.iter().filter(|own| [PlaceKind::Filling, PlaceKind::Case].contains(&own.kind)).map(|own| own.volume_ml).sum();
        prop_assert!(inside.is_finite() && inside >= 0.0 && inside <= whole * (1.0 + 1e-4), "{inside} in {whole}");
        prop_assert!(answer.finished_g.is_finite() && answer.height_mm.is_finite());
    }
}
