//! How a cake is built, case by case: sizes, shapes on shapes, what it must fit into, dowels, dams, words.

use crate::cakes::{chosen, found, template, with, worked_out};
use pastry::stack::check::bears::dam_needs;
use pastry::stack::check::dowels::dowels_needed;
use pastry::stack::check::finding::FindingCode;
use pastry::stack::place::is_a_body;
use pastry::stack::{Body, Finding, PlaceKind, StackAnswer, StackDocument, Standing};
use serde_json::json;

fn finding(answer: &StackAnswer, code: FindingCode) -> &Finding {
    found(answer, code).unwrap_or_else(|| panic!("{code} is not found: {:#?}", answer.findings))
}

/// Sizes no oven has, shapes that are none; and the edges that still are some.
#[test]
fn bodies_are_told_from_what_is_none() {
    let good = [
        Body::Round { diameter_mm: 10.0 },
        Body::Round { diameter_mm: 1500.0 },
        Body::Rectangle { length_mm: 300.0, width_mm: 200.0, corner_mm: 100.0 },
        Body::Ring { diameter_mm: 200.0, hole_mm: 0.0 },
        Body::Ring { diameter_mm: 200.0, hole_mm: 199.0 },
        Body::Trough { width_mm: 80.0, height_mm: 40.0, length_mm: 250.0 },
        Body::Dome { diameter_mm: 70.0, height_mm: 60.0 },
        Body::Roll { sheet_mm: 300.0, length_mm: 200.0 },
    ];
    let bad = [
        Body::Round { diameter_mm: 0.0 },
        Body::Round { diameter_mm: -20.0 },
        Body::Round { diameter_mm: f64::NAN },
        Body::Round { diameter_mm: 1501.0 },
        Body::Rectangle { length_mm: 300.0, width_mm: 0.0, corner_mm: 0.0 },
        Body::Rectangle { length_mm: 300.0, width_mm: 200.0, corner_mm: 101.0 },
        Body::Ring { diameter_mm: 200.0, hole_mm: 200.0 },
        Body::Trough { width_mm: 80.0, height_mm: 39.0, length_mm: 250.0 },
        Body::Cup { bottom_mm: 70.0, top_mm: 70.0, height_mm: 0.0 },
        Body::Dome { diameter_mm: f64::INFINITY, height_mm: 35.0 },
        Body::Heart { side_mm: 5.0 },
        Body::Hexagon { across_mm: 2000.0 },
    ];
    for body in good {
        assert!(is_a_body(&body), "{body:?} is one");
    }
    for body in bad {
        assert!(!is_a_body(&body), "{body:?} is none");
        let mut document = chosen(&template("drip"));
        document.tiers[0].body = body;
        let answer = worked_out(&document);
        assert_eq!(finding(&answer, FindingCode::NoSize).standing, Standing::Trouble, "{body:?}");
        assert!(answer.finished_g.is_finite() && answer.tiers.len() == 1, "{body:?}");
    }
}

/// What each shape is called on the page and on paper.
#[test]
fn shapes_have_names() {
    for (body, words) in [
        (Body::Round { diameter_mm: 180.0 }, "round of 180 mm"),
        (Body::Rectangle { length_mm: 200.0, width_mm: 200.0, corner_mm: 0.0 }, "square of 200 mm"),
        (Body::Rectangle { length_mm: 300.0, width_mm: 200.0, corner_mm: 0.0 }, "300 by 200 mm"),
        (Body::Ring { diameter_mm: 220.0, hole_mm: 80.0 }, "ring of 220 mm round 80 mm"),
        (Body::Heart { side_mm: 140.0 }, "heart of 140 mm sides"),
        (Body::Hexagon { across_mm: 180.0 }, "hexagon, 180 mm across"),
        (Body::Cup { bottom_mm: 50.0, top_mm: 70.0, height_mm: 35.0 }, "cup, 70 mm wide, 35 mm deep"),
        (Body::Dome { diameter_mm: 70.0, height_mm: 35.0 }, "dome of 70 mm"),
        (Body::HalfLog { diameter_mm: 80.0, length_mm: 250.0 }, "log of 80 mm, 250 mm long"),
        (Body::Roll { sheet_mm: 350.0, length_mm: 250.0 }, "roll, 250 mm long"),
    ] {
        assert_eq!(body.words(), words);
    }
}

/// A tier on a tier: how wide the lower is decides, whatever the shapes are.
#[test]
fn tiers_stand_on_what_is_as_wide() {
    let tiers = chosen(&template("tiers"));
    let on = |below: Body, above: Body| {
        let mut document = tiers.clone();
        document.tiers[0].body = below;
        document.tiers[1].body = above;
        found(&worked_out(&document), FindingCode::Overhangs).is_some()
    };
    let round = |diameter_mm: f64| Body::Round { diameter_mm };
    let square = |side: f64| Body::Rectangle { length_mm: side, width_mm: side, corner_mm: 0.0 };
    for (below, above, wanted) in [
        (round(220.0), round(160.0), false),
        (round(220.0), round(220.0), false),
        (round(220.0), round(230.0), true),
        (square(220.0), round(220.0), false),
        (square(200.0), round(240.0), true),
        (round(240.0), Body::Hexagon { across_mm: 180.0 }, false),
        (round(180.0), Body::Hexagon { across_mm: 180.0 }, true),
        (round(260.0), Body::Heart { side_mm: 140.0 }, false),
        (round(220.0), Body::Heart { side_mm: 140.0 }, true),
    ] {
        assert_eq!(on(below, above), wanted, "{} on {}", above.words(), below.words());
    }
}

/// Collar, smoother, board and box against the cake, each just too small and just large enough.
#[test]
fn what_it_must_fit_is_measured() {
    let drip = chosen(&template("drip"));
    let answer = worked_out(&drip);
    // Four sponges of 20 mm, two fillings of 6 and one of 8, coats of 1.5 and 5 mm on the top.
    assert!((answer.height_mm - 106.5).abs() < 1e-6, "{} mm", answer.height_mm);
    assert!((answer.width_mm - 173.0).abs() < 1e-6, "{} mm", answer.width_mm);
    let cases: [(FindingCode, &str, serde_json::Value, bool); 10] = [
        (FindingCode::Collar, "collar_mm", json!(106.0), true),
        (FindingCode::Collar, "collar_mm", json!(107.0), false),
        (FindingCode::Smoother, "smoother_mm", json!(100.0), true),
        (FindingCode::Smoother, "smoother_mm", json!(150.0), false),
        (FindingCode::Board, "board_mm", json!(180.0), true),
        (FindingCode::Board, "board_mm", json!(200.0), false),
        (FindingCode::BoxLow, "box_mm", json!([300.0, 108.0]), true),
        (FindingCode::BoxLow, "box_mm", json!([300.0, 150.0]), false),
        (FindingCode::BoxNarrow, "box_mm", json!([180.0, 300.0]), true),
        (FindingCode::BoxNarrow, "box_mm", json!([260.0, 300.0]), false),
    ];
    for (code, field, value, wanted) in cases {
        let mut whole = serde_json::to_value(&drip).unwrap();
        let place = if field == "collar_mm" { &mut whole["tiers"][0][field] } else { &mut whole[field] };
        *place = value.clone();
        let document: StackDocument = serde_json::from_value(whole).unwrap();
        let answer = worked_out(&document);
        assert_eq!(found(&answer, code).is_some(), wanted, "{field} {value}: {code}");
        if let Some(own) = found(&answer, code) {
            assert!(own.value > own.limit && own.unit.as_deref() == Some("mm"), "{own:?}");
        }
    }
    // A board wider than the box does not fit either.
    let mut wide = drip;
    (wide.board_mm, wide.box_mm) = (Some(320.0), Some([300.0, 300.0]));
    assert!(found(&worked_out(&wide), FindingCode::BoxNarrow).is_some());
}

/// Dowels: four at least, more for what is wide; weight said in kilograms; none for one tier.
#[test]
fn dowels_follow_the_foot_of_what_they_bear() {
    for (diameter, wanted) in [(8.0, 4), (14.0, 4), (17.0, 4), (20.0, 6), (24.0, 8), (30.0, 13)] {
        let area = std::f64::consts::PI * diameter * diameter / 4.0;
        assert_eq!(dowels_needed(area), wanted, "{diameter} cm");
    }
    assert!(found(&worked_out(&chosen(&template("drip"))), FindingCode::DowelsCarry).is_none());
    let answer = worked_out(&chosen(&template("tiers")));
    let carry = finding(&answer, FindingCode::DowelsCarry);
    assert!(
        carry.sentence.contains(" kg above") && carry.sentence.contains("come out"),
        "{}",
        carry.sentence
    );
}

/// With dowels the tier above weighs on its dowels; without, on every filling below.
#[test]
fn dowels_take_the_load_off_the_fillings() {
    let with_dowels = chosen(&template("tiers"));
    let mut without = with_dowels.clone();
    without.tiers[0].dowels = None;
    let needed = |document: &StackDocument| {
        let answer = worked_out(document);
        let own = answer
            .findings
            .iter()
            .find(|finding| finding.place == "tiers.0.layers.1" && finding.code.word().starts_with("filling"))
            .expect("the lowest filling is judged");
        own.limit.unwrap()
    };
    let (less, more) = (needed(&with_dowels), needed(&without));
    assert!(more > 1.5 * less, "{more} Pa without, {less} with");
}

/// What a dam must be goes with the load and the height, and against its width.
#[test]
fn dams_go_by_width_height_and_load() {
    let base = dam_needs(800.0, 0.8, 1.2);
    assert!((base - 1.5 * 800.0 * 0.8 / 2.4).abs() < 1e-9);
    assert!((dam_needs(1600.0, 0.8, 1.2) / base - 2.0).abs() < 1e-12);
    assert!((dam_needs(800.0, 1.6, 1.2) / base - 2.0).abs() < 1e-12);
    assert!((dam_needs(800.0, 0.8, 2.4) / base - 0.5).abs() < 1e-12);
    let drip = chosen(&template("drip"));
    let narrow = with(&drip, "/tiers/0/layers/3/dam/width_mm", json!(4.0));
    let [a, b] = [&drip, &narrow].map(|document| {
        let answer = worked_out(document);
        answer.findings.iter().find(|own| own.place == "tiers.0.layers.3.dam").unwrap().limit.unwrap()
    });
    assert!((b / a - 3.0).abs() < 0.05, "{a} Pa for 12 mm, {b} for 4 mm");
}

/// The verdict says one thing, the worst first, and how many more there are.
#[test]
fn the_verdict_is_one_sentence_and_counts_the_rest() {
    let drip = chosen(&template("drip"));
    let good = worked_out(&drip);
    assert!(good.headline.starts_with("It stands at 21.0 °C"), "{}", good.headline);
    let mut bad = drip;
    bad.tiers[0].coat.as_mut().unwrap().component = None;
    bad.tiers[0].drip.as_mut().unwrap().component = None;
    let answer = worked_out(&bad);
    assert_eq!(answer.standing, Standing::Trouble);
    assert_eq!(answer.headline, "The coat of tier 1 has no formula yet");
    assert_eq!(answer.detail, "Choose one. And 1 more to mend.");
    assert!(answer.findings.windows(2).all(|pair| pair[0].standing >= pair[1].standing));
    // What is not chosen weighs nothing and is still drawn where it lies.
    let coat = answer.places.iter().find(|place| place.kind == PlaceKind::Coat).unwrap();
    assert!(coat.grams == 0.0 && coat.volume_ml > 100.0 && coat.tint.is_none(), "{coat:?}");
}

/// A place that is taken away takes its weight with it, and nothing else.
#[test]
fn each_place_weighs_for_itself() {
    let drip = chosen(&template("drip"));
    let whole = worked_out(&drip);
    let of = |kind: PlaceKind| -> f64 {
        whole.places.iter().filter(|place| place.kind == kind).map(|place| place.grams).sum()
    };
    for (kind, take) in [
        (
            PlaceKind::Drip,
            (|tier: &mut pastry::stack::Tier| tier.drip = None) as fn(&mut pastry::stack::Tier),
        ),
        (PlaceKind::Border, |tier| tier.borders.clear()),
    ] {
        let mut less = drip.clone();
        take(&mut less.tiers[0]);
        let left = worked_out(&less);
        assert!((whole.finished_g - left.finished_g - of(kind)).abs() < 0.02, "{kind:?}");
    }
    // The coat is thinner round a cake without its crumb coat: a little, not a lot.
    let mut bare = drip.clone();
    bare.tiers[0].crumb_coat = None;
    let lost = whole.finished_g - worked_out(&bare).finished_g;
    let crumb = of(PlaceKind::CrumbCoat);
    assert!(lost >= crumb && lost < 1.3 * crumb, "{lost} g lost with {crumb} g of crumb coat");
}

/// Losses are of what is made: 6 % of the piped, nothing when somebody scrapes every bowl.
#[test]
fn losses_are_counted_on_what_is_made() {
    let mut document = chosen(&template("drip"));
    let made = |document: &StackDocument, name: &str| {
        let answer = worked_out(document);
        let part = answer.parts.iter().find(|part| part.name == name).unwrap().clone();
        (part.grams, part.to_make_g)
    };
    let (grams, to_make) = made(&document, "pipe");
    assert!((to_make - grams / 0.94).abs() < 1.0, "{to_make} for {grams}");
    document.losses.piped_percent = 0.0;
    let (grams, to_make) = made(&document, "pipe");
    assert!((to_make - grams).abs() < 0.6, "{to_make} for {grams}");
    document.losses.poured_percent = 20.0;
    let (grams, to_make) = made(&document, "drip");
    assert!((to_make - grams / 0.8).abs() < 1.0, "{to_make} for {grams}");
    // A glaze is poured half as much again; what runs off comes back.
    let dome = worked_out(&chosen(&template("dome")));
    let glaze = dome.parts.iter().find(|part| part.name == "glaze").unwrap();
    assert!((glaze.to_make_g - 1.5 * glaze.grams / 0.96).abs() < 1.0, "{glaze:?}");
    assert!((glaze.runs_off_g - 0.5 * glaze.grams).abs() < 0.2, "{glaze:?}");
}

/// Batter is what bakes to the layers and their trimmings, with what the oven takes.
#[test]
fn batter_counts_the_oven_and_the_knife() {
    let mut document = chosen(&template("layers"));
    let part = |document: &StackDocument| worked_out(document).parts.into_iter().next().unwrap();
    let plain = part(&document);
    // 12 % lost in the oven (common practice for a genoise).
    assert!((plain.to_make_g * 0.88 - plain.grams).abs() < 2.0, "{plain:?}");
    assert_eq!(plain.trimmed_g, 0.0);
    document = with(&document, "/tiers/0/layers/0/trim_mm", json!(5.0));
    let trimmed = part(&document);
    // 5 mm over 254 cm² at 300 kg/m³.
    assert!((trimmed.trimmed_g - 38.0).abs() < 0.6, "{} g", trimmed.trimmed_g);
    assert!((trimmed.to_make_g - plain.to_make_g - trimmed.trimmed_g / 0.88).abs() < 1.5, "{trimmed:?}");
    document.bakes[0].bulk_kg_m3 = Some(600.0);
    let dense = part(&document);
    assert!((dense.grams / trimmed.grams - 2.0).abs() < 0.01, "{dense:?}");
    document.bakes[0].oven_loss_percent = 0.0;
    let raw = part(&document);
    assert!((raw.to_make_g - raw.grams - raw.trimmed_g).abs() < 1.0, "{raw:?}");
}
