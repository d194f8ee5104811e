//! Whether a cake stands: every finding can be met, says its number and its limit, and its mend mends it.

use crate::cakes::{chosen, formulas, found, mended, start, template, with, with_known, worked_out};
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::stack::check::finding::FindingCode;
use pastry::stack::{Known, StackDocument, Standing, stack, templates};
use serde_json::json;

fn standing(document: &StackDocument, code: FindingCode) -> Option<Standing> {
    found(&worked_out(document), code).map(|finding| finding.standing)
}

#[test]
fn every_template_says_what_is_not_chosen_at_each_open_place_and_nothing_else_is_wrong_with_it() {
    for own in templates() {
        let empty = worked_out(&own.document);
        let open: Vec<&str> = empty
            .places
            .iter()
            .filter(|place| place.name.is_none())
            .map(|place| place.path.as_str())
            .collect();
        let said: Vec<String> = empty
            .findings
            .iter()
            .filter(|f| f.code == FindingCode::Unlinked)
            .map(|f| f.place.to_string())
            .collect();
        assert!(!open.is_empty() && open == said, "{}: open {open:?}, said {said:?}", own.key);
        let full = worked_out(&chosen(&own.document));
        let trouble: Vec<&str> = full
            .findings
            .iter()
            .filter(|finding| finding.standing == Standing::Trouble)
            .map(|finding| finding.sentence.as_str())
            .collect();
        assert!(trouble.is_empty(), "{}: {trouble:?}", own.key);
        assert!(full.finished_g > 20.0 && full.portions >= 1, "{}", own.key);
    }
}

/// Common practice: a curd under three layers needs a dam, a firm ganache does not.
#[test]
fn a_soft_filling_gives_way_and_a_dam_mends_it() {
    let four = chosen(&template("layers"));
    assert_eq!(standing(&four, FindingCode::FillingBears), Some(Standing::Holds));
    let mut soft = with(&four, "/tiers/0/layers/1/component", json!("loose"));
    soft.tiers[0].coat.as_mut().unwrap().component = Some("mask".to_owned());
    let answer = worked_out(&soft);
    let finding = found(&answer, FindingCode::FillingGivesWay).expect("a curd gives way");
    assert_eq!(finding.place, "tiers.0.layers.1");
    assert!(finding.value < finding.limit && finding.unit.as_deref() == Some("Pa"));
    let bench = finding.bench.as_ref().expect("it opens on the Bench");
    assert_eq!((bench.component.as_str(), bench.work.job.word()), ("loose", "fill"));
    assert!(answer.headline.contains("gives way"), "{}", answer.headline);
    let mend = finding.mend.as_ref().expect("something mends it");
    let left = worked_out(&mended(&soft, mend));
    assert!(
        !left
            .findings
            .iter()
            .any(|f| f.place.to_string().starts_with("tiers.0.layers.1") && f.standing == Standing::Trouble),
        "{} does not mend it: {:?}",
        mend.words,
        left.findings
    );
}

/// Each trouble, how it comes about, and whether what is proposed ends it.
#[test]
fn every_mend_mends() {
    let drip = chosen(&template("drip"));
    let tiers = chosen(&template("tiers"));
    let dome = chosen(&template("dome"));
    let jar = chosen(&template("jar"));
    let mut no_dowels = tiers.clone();
    no_dowels.tiers[0].dowels = None;
    let mut few = tiers.clone();
    few.tiers[0].body = pastry::stack::Body::Round { diameter_mm: 360.0 };
    few.tiers[1].body = pastry::stack::Body::Round { diameter_mm: 300.0 };
    let mut low = drip.clone();
    low.tiers[0].collar_mm = Some(60.0);
    let mut narrow = drip.clone();
    narrow.board_mm = Some(150.0);
    // A rectangle on a round, and one more on it: both come in.
    let mut broad = tiers.clone();
    broad.tiers[1].body =
        pastry::stack::Body::Rectangle { length_mm: 330.0, width_mm: 220.0, corner_mm: 10.0 };
    let mut third = broad.tiers[1].clone();
    third.body = pastry::stack::Body::Heart { side_mm: 190.0 };
    broad.tiers.push(third);
    let mut hot = dome.clone();
    hot.serve_c = Some(34.0);
    let mut thick = drip.clone();
    thick.tiers[0].coat.as_mut().unwrap().side_mm = 60.0;
    thick.serve_c = Some(27.0);
    let cases = [
        (FindingCode::NoDowels, no_dowels),
        (FindingCode::FewDowels, few),
        (FindingCode::Collar, low),
        (FindingCode::Board, narrow),
        (FindingCode::MouldSags, hot),
        (FindingCode::CoatSlides, thick),
        (FindingCode::DripReachesBoard, with(&drip, "/tiers/0/drip/dose_ml", json!(2.6))),
        (FindingCode::DripMeltsCoat, with(&drip, "/tiers/0/drip/coat_c", json!(26.0))),
        (
            FindingCode::SoakTooWet,
            with(&drip, "/tiers/0/layers/0/soak", json!({ "component": "soak", "gram_per_gram": 0.5 })),
        ),
        (
            FindingCode::SoakPools,
            with(&drip, "/tiers/0/layers/0/soak", json!({ "component": "soak", "gram_per_gram": 2.5 })),
        ),
        (
            FindingCode::SoakDry,
            with(&drip, "/tiers/0/layers/0/soak", json!({ "component": "soak", "gram_per_gram": 0.02 })),
        ),
        (FindingCode::SoakReachesCoat, with(&drip, "/tiers/0/layers/0/soak/dry_rim_mm", json!(0.0))),
        (FindingCode::GlazeFilm, with(&dome, "/tiers/0/glaze/side_mm", json!(6.0))),
        (FindingCode::RunsOver, with(&jar, "/tiers/0/layers/2/thickness_mm", json!(60.0))),
        (FindingCode::InsertTooLarge, with(&dome, "/tiers/0/layers/0/inserts/1/diameter_mm", json!(66.0))),
        (FindingCode::Overhangs, with(&tiers, "/tiers/1/body/diameter_mm", json!(300.0))),
        (FindingCode::Overhangs, broad),
        (FindingCode::NoThickness, with(&drip, "/tiers/0/layers/1/thickness_mm", json!(0.0))),
    ];
    for (code, document) in cases {
        let answer = worked_out(&document);
        let finding = found(&answer, code)
            .filter(|finding| finding.standing != Standing::Holds)
            .unwrap_or_else(|| panic!("{code} is not found: {:#?}", answer.findings));
        let mend =
            finding.mend.as_ref().unwrap_or_else(|| panic!("{code}: nothing mends “{}”", finding.sentence));
        let after = worked_out(&mended(&document, mend));
        if code == FindingCode::Overhangs {
            assert_eq!(found(&after, code), None, "{}", mend.words);
        }
        let still = after.findings.iter().find(|own| own.code == code && own.place == finding.place);
        assert!(
            still.is_none_or(|own| own.standing < finding.standing || own.standing == Standing::Holds),
            "{code}: {} leaves {:?}",
            mend.words,
            still
        );
    }
}

#[test]
fn bad_input_is_said_at_its_place_and_the_rest_is_still_worked_out() {
    let drip = chosen(&template("drip"));
    let mut forty = drip.clone();
    let pair = forty.tiers[0].layers[..2].to_vec();
    forty.tiers[0].layers = std::iter::repeat_n(pair, 20).flatten().collect();
    let mut nobody = drip.clone();
    nobody.tiers[0].layers[1] =
        serde_json::from_value(json!({ "kind": "filling", "thickness_mm": 8 })).unwrap();
    let cases = [
        (FindingCode::ManyLayers, "tiers.0.layers", forty),
        (FindingCode::Unlinked, "tiers.0.layers.1", nobody),
        (FindingCode::Unlinked, "tiers.0.coat", with(&drip, "/tiers/0/coat/component", json!("gone"))),
        (FindingCode::NoSize, "tiers.0.body", with(&drip, "/tiers/0/body/diameter_mm", json!(0.0))),
        (
            FindingCode::NoThickness,
            "tiers.0.layers.0",
            with(&drip, "/tiers/0/layers/0/thickness_mm", json!(-4.0)),
        ),
        (FindingCode::NoLayers, "tiers.0.layers", with(&drip, "/tiers/0/layers", json!([]))),
        (FindingCode::NotSoaked, "tiers.0.layers.0", {
            let mut dry = chosen(&template("layers"));
            dry.tiers[0].layers[0] =
                serde_json::from_value(json!({ "kind": "sponge", "bake": "genoise", "thickness_mm": 20 }))
                    .unwrap();
            dry
        }),
        (FindingCode::InsertTooLarge, "tiers.0.layers.1.inserts.0", {
            let disc = json!([{ "component": "jelly", "diameter_mm": 60, "thickness_mm": 9, "above_mm": 2 }]);
            let filled =
                json!({ "kind": "filling", "component": "fill", "thickness_mm": 8, "inserts": disc });
            with(&drip, "/tiers/0/layers/1", filled)
        }),
        (FindingCode::NothingBetween, "tiers.0.layers.1", {
            let mut twice = drip.clone();
            twice.tiers[0].layers.remove(1);
            twice
        }),
    ];
    for (code, place, document) in cases {
        let answer = worked_out(&document);
        let finding = answer
            .findings
            .iter()
            .find(|finding| finding.code == code && finding.place == place)
            .unwrap_or_else(|| panic!("{code} at {place}: {:#?}", answer.findings));
        assert!(
            finding.standing != Standing::Holds && finding.sentence.ends_with('.'),
            "{}",
            finding.sentence
        );
        assert!(answer.finished_g.is_finite());
    }
    // What is no cake at all is refused, each fault at its field.
    let mut none = drip.clone();
    (none.format, none.version) = ("bright-spoon/formula".to_owned(), 7);
    none.tiers.clear();
    let faults = with_known(|known| stack(&none, known, 21.0)).unwrap_err();
    let fields: Vec<&str> = faults.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["format", "version", "tiers"]);
}

#[test]
fn a_formula_that_cannot_be_weighed_is_said_at_the_place_that_names_it() {
    let mut kitchen = formulas();
    let mut broken = start(Family::Ganache, "fill");
    broken.lines[0].amount = "a handful".to_owned();
    kitchen.insert("fill".to_owned(), broken);
    let shelf = Shelf::catalogue();
    let known = Known { formulas: &kitchen, shelf: &shelf };
    let answer = stack(&chosen(&template("layers")), &known, 21.0).unwrap();
    let finding = found(&answer, FindingCode::Unlinked).unwrap();
    assert!(finding.sentence.contains("cannot be worked out"), "{}", finding.sentence);
    assert!(
        answer.places.iter().any(|place| place.kind == pastry::stack::PlaceKind::Coat && place.grams > 100.0)
    );
}

#[test]
fn a_warmer_table_never_makes_it_stand_better() {
    let mut document = chosen(&template("layers"));
    let margins = [12.0, 16.0, 20.0, 24.0, 28.0].map(|t_c| {
        document.serve_c = Some(t_c);
        let answer = worked_out(&document);
        let at = |finding: &&pastry::stack::Finding| {
            finding.place == "tiers.0.layers.1" && finding.code.word().starts_with("filling")
        };
        let finding = answer.findings.iter().find(at).expect("a filling is judged");
        finding.value.unwrap() / finding.limit.unwrap()
    });
    assert!(margins.windows(2).all(|pair| pair[1] <= pair[0] * 1.001), "{margins:?}");
}
