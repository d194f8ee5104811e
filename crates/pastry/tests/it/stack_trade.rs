//! What every cook knows of tins, coats, drips, soaks and portions. Common practice unless a source is named; the
//! ranges are wide on purpose.

use crate::cakes::{chosen, start, template, with, with_known, worked_out};
use pastry::formula::Family;
use pastry::formula::keeping::keeping;
use pastry::sponge::{Wetness, sponges};
use pastry::stack::shape::cut::cut;
use pastry::stack::{Body, Footprint, PlaceKind, StackDocument, Standing, Vessel, stack};
use serde_json::json;

/// Volumes printed on or known of common tins, ml; π and arithmetic for those that are exact.
#[test]
fn tins_hold_what_is_printed_on_them() {
    let round = |diameter_mm: f64, height_mm: f64| Body::Cup {
        bottom_mm: diameter_mm,
        top_mm: diameter_mm,
        height_mm,
    };
    let loaf = |top: [f64; 2], bottom: [f64; 2], height_mm: f64| Body::Loaf {
        top_length_mm: top[0],
        top_width_mm: top[1],
        bottom_length_mm: bottom[0],
        bottom_width_mm: bottom[1],
        height_mm,
    };
    let cases: [(&str, Body, [f64; 2]); 12] = [
        ("15 cm round, 5 cm", round(150.0, 50.0), [883.0, 884.0]),
        ("18 cm round, 5 cm", round(180.0, 50.0), [1272.0, 1273.0]),
        ("20 cm round, 5 cm", round(200.0, 50.0), [1570.0, 1571.5]),
        ("23 cm round, 5 cm", round(230.0, 50.0), [2077.0, 2078.0]),
        ("20 cm square, 5 cm", loaf([200.0, 200.0], [200.0, 200.0], 50.0), [1999.0, 2001.0]),
        ("900 g loaf tin", loaf([235.0, 130.0], [215.0, 110.0], 70.0), [1750.0, 2050.0]),
        ("450 g loaf tin", loaf([165.0, 95.0], [150.0, 80.0], 60.0), [750.0, 900.0]),
        ("muffin cup", Body::Cup { bottom_mm: 50.0, top_mm: 70.0, height_mm: 35.0 }, [95.0, 105.0]),
        ("7 cm dome", Body::Dome { diameter_mm: 70.0, height_mm: 35.0 }, [89.0, 91.0]),
        ("half-ball of 16 cm", Body::Dome { diameter_mm: 160.0, height_mm: 80.0 }, [1071.0, 1073.0]),
        (
            "log of 25 cm",
            Body::Trough { width_mm: 80.0, height_mm: 65.0, length_mm: 250.0 },
            [1120.0, 1135.0],
        ),
        ("half log of 30 cm", Body::HalfLog { diameter_mm: 80.0, length_mm: 300.0 }, [750.0, 756.0]),
    ];
    for (name, body, [low, high]) in cases {
        let ml = body.vessel().unwrap().volume();
        assert!((low..=high).contains(&ml), "{name}: {ml:.0} ml, expected {low} to {high}");
    }
}

/// From tin to tin: the factors that kitchens have pinned to the wall.
#[test]
fn tin_factors_are_those_on_the_wall() {
    let round = |diameter: f64| Vessel::Straight { footprint: Footprint::Round { diameter }, height: 5.0 };
    let square = |side: f64| Vessel::Straight {
        footprint: Footprint::Rectangle { length: side, width: side, corner: 0.0 },
        height: 5.0,
    };
    for (from, to, factor) in [
        (round(20.0), round(23.0), 1.32),
        (round(20.0), round(26.0), 1.69),
        (round(20.0), round(28.0), 1.96),
        (round(18.0), round(26.0), 2.09),
        (round(26.0), round(18.0), 0.48),
        (round(26.0), round(20.0), 0.59),
        (round(20.0), square(20.0), 1.27),
        (square(20.0), round(23.0), 1.04),
        (round(15.0), round(30.0), 4.00),
    ] {
        let ours = from.factor_to(&to);
        assert!((ours - factor).abs() < 0.006, "{from:?} to {to:?}: {ours:.3}, on the wall {factor}");
    }
}

fn round_cake(diameter_mm: f64) -> StackDocument {
    let mut document = chosen(&template("drip"));
    document.tiers[0].body = Body::Round { diameter_mm };
    document
}

/// Coat, filling and drip of a four-layer cake about 10 cm high, g.
#[test]
fn a_cake_takes_what_a_studio_counts_on() {
    let cases = [
        (150.0, [300.0, 480.0], [110.0, 210.0], [60.0, 120.0], [20, 28]),
        (180.0, [380.0, 580.0], [160.0, 300.0], [80.0, 160.0], [26, 32]),
        (200.0, [420.0, 660.0], [200.0, 370.0], [90.0, 190.0], [28, 36]),
        (250.0, [560.0, 860.0], [320.0, 580.0], [130.0, 280.0], [36, 44]),
        (300.0, [700.0, 1060.0], [460.0, 840.0], [180.0, 380.0], [44, 52]),
    ];
    for (diameter, coat, filling, drip, drips) in cases {
        let answer = worked_out(&round_cake(diameter));
        let sum = |kind: PlaceKind| -> f64 {
            answer.places.iter().filter(|place| place.kind == kind).map(|place| place.grams).sum()
        };
        let one_gap = answer.places.iter().find(|place| place.kind == PlaceKind::Filling).unwrap().grams;
        for (what, grams, [low, high]) in [
            ("coat", sum(PlaceKind::Coat), coat),
            ("a gap", one_gap, filling),
            ("drip", sum(PlaceKind::Drip), drip),
        ] {
            assert!(
                (low..=high).contains(&grams),
                "{diameter} mm: {what} {grams} g, expected {low} to {high}"
            );
        }
        assert!((drips[0]..=drips[1]).contains(&answer.drips), "{diameter} mm: {} drips", answer.drips);
    }
}

/// Twice as wide takes four times the filling and about twice the coat of the side.
#[test]
fn wider_is_squared_in_the_gaps_and_doubled_on_the_side() {
    let [small, large] = [150.0, 300.0].map(|diameter| worked_out(&round_cake(diameter)));
    let of = |answer: &pastry::stack::StackAnswer, kind: PlaceKind| -> f64 {
        answer.places.iter().filter(|place| place.kind == kind).map(|place| place.volume_ml).sum()
    };
    let sponge = of(&large, PlaceKind::Sponge) / of(&small, PlaceKind::Sponge);
    assert!((sponge - 4.0).abs() < 1e-3, "{sponge}");
    let coat = of(&large, PlaceKind::Coat) / of(&small, PlaceKind::Coat);
    assert!((2.0..3.0).contains(&coat), "{coat}");
}

/// What each sponge does with little, enough and too much syrup.
#[test]
fn sponges_drink_as_cooks_say() {
    use Wetness::{Drenched, Dry, Light, Moist, Pools, TooWet};
    let cases = [
        ("genoise", 0.10, Dry),
        ("genoise", 0.30, Light),
        ("genoise", 0.60, Moist),
        ("genoise", 0.90, Drenched),
        ("genoise", 1.20, TooWet),
        ("genoise", 2.50, Pools),
        ("ladyfinger", 0.80, Moist),
        ("ladyfinger", 1.20, Drenched),
        ("ladyfinger", 0.20, Dry),
        ("joconde", 0.45, Moist),
        ("joconde", 0.70, Drenched),
        ("joconde", 0.90, TooWet),
        ("butter_cake", 0.18, Moist),
        ("butter_cake", 0.60, TooWet),
        ("butter_cake", 1.00, Pools),
        ("chocolate_oil", 0.12, Moist),
        ("chocolate_oil", 0.02, Dry),
        ("savarin", 1.20, Light),
        ("savarin", 1.80, Moist),
        ("oil_foam", 0.25, Moist),
        ("nut_meringue", 0.40, TooWet),
        ("biscuit_base", 0.30, TooWet),
    ];
    for (key, gram_per_gram, wanted) in cases {
        let sponge = sponges().iter().find(|own| own.key == key).unwrap();
        // Syrup of 30 °Bx.
        let is = sponge.wetness(gram_per_gram, 1127.0);
        assert_eq!(is, wanted, "{gram_per_gram} g/g on {key}");
    }
}

/// Days in the cold, as the trade counts them; raw egg is counted elsewhere.
#[test]
fn families_keep_as_the_trade_counts() {
    use Family::*;
    let cases = [
        (Ganache, [5, 14]),
        (WhippedGanache, [1, 2]),
        (Buttercream, [7, 14]),
        (SwissButtercream, [3, 7]),
        (ItalianButtercream, [3, 7]),
        (FrenchButtercream, [2, 4]),
        (CustardButtercream, [1, 3]),
        (GanacheButtercream, [3, 7]),
        (CreamCheeseButtercream, [2, 4]),
        (WhippedCream, [1, 1]),
        (CocoaCream, [1, 1]),
        (StabilisedCream, [1, 3]),
        (FruitMousse, [1, 3]),
        (ChocolateMousse, [1, 3]),
        (EggMousse, [1, 2]),
        (CreamCheeseMousse, [1, 3]),
        (Bavarois, [1, 3]),
        (PastryCream, [1, 3]),
        (SliceCustard, [1, 3]),
        (Diplomat, [1, 2]),
        (Mousseline, [1, 3]),
        (Anglaise, [1, 3]),
        (Curd, [5, 10]),
        (CondensedFilling, [3, 7]),
        (Syrup, [5, 30]),
        (MilkSoak, [1, 3]),
        (Jelly, [2, 4]),
        (MirrorGlaze, [5, 10]),
        (PouredGlaze, [5, 14]),
        (BrushingJelly, [7, 21]),
    ];
    assert_eq!(cases.len(), Family::ALL.len());
    for (family, [least, most]) in cases {
        let own = keeping(family);
        assert!((least..=most).contains(&own.cold_days), "{family:?}: {} days", own.cold_days);
        assert!(!own.cover.is_empty() && !own.source.is_empty(), "{family:?}");
    }
    // What weeps or falls when it thaws is not frozen.
    for family in [PastryCream, SliceCustard, Diplomat, Anglaise, MilkSoak] {
        assert_eq!(keeping(family).freeze_days, None, "{family:?}");
    }
}

/// Party portions of rounds about 10 cm high, as cake studios count them.
#[test]
fn rounds_serve_as_many_as_studios_count() {
    for (diameter, [least, most]) in
        [(150.0, [12, 20]), (180.0, [16, 28]), (200.0, [20, 34]), (250.0, [32, 52]), (300.0, [46, 76])]
    {
        let answer = worked_out(&round_cake(diameter));
        assert!((least..=most).contains(&answer.portions), "{diameter} mm: {} portions", answer.portions);
        let cut: u32 = answer.cuts.iter().map(|cut| cut.portions).sum();
        assert!(cut <= answer.portions && answer.portions - cut <= 1, "{cut} cut of {}", answer.portions);
    }
    // A small piece is one portion, whatever it weighs; a large mould is cut.
    assert_eq!(worked_out(&chosen(&template("dome"))).portions, 1);
    assert_eq!(worked_out(&chosen(&template("jar"))).portions, 1);
    assert!(worked_out(&chosen(&template("ring"))).portions >= 7);
    assert!(worked_out(&chosen(&template("tray"))).portions >= 60);
}

#[test]
fn cuts_leave_pieces_a_hand_can_lift() {
    for (outline, portions) in [
        (Footprint::Round { diameter: 15.0 }, 12),
        (Footprint::Round { diameter: 26.0 }, 36),
        (Footprint::Round { diameter: 40.0 }, 90),
        (Footprint::Rectangle { length: 60.0, width: 40.0, corner: 0.0 }, 48),
        (Footprint::Rectangle { length: 25.0, width: 8.0, corner: 0.0 }, 9),
        (Footprint::Ring { diameter: 22.0, hole: 8.0 }, 12),
        (Footprint::Hexagon { across: 18.0 }, 12),
    ] {
        let cut = cut(0, &outline, portions, None);
        assert!(!cut.words.is_empty() && cut.portions == portions, "{cut:?}");
        assert!(!cut.lines_mm.is_empty(), "{outline:?} is not cut");
        let reach = match outline {
            Footprint::Rectangle { length, width, .. } => 5.0 * length.hypot(width),
            _ => 10.0 * 0.6 * (outline.perimeter() / std::f64::consts::PI),
        };
        for line in &cut.lines_mm {
            let far = line[0].hypot(line[1]).max(line[2].hypot(line[3]));
            assert!(far <= reach + 1e-6, "{outline:?}: a cut ends at {far} mm");
        }
    }
}

/// A situation at the table: what is changed of a cake that stands, and what must be found.
#[test]
fn tables_and_vans_are_judged_as_cooks_judge_them() {
    let drip = chosen(&template("drip"));
    let ring = chosen(&template("ring"));
    let jar = chosen(&template("jar"));
    let naked = chosen(&template("naked"));
    let cases: [(&str, StackDocument, &str, bool); 12] = [
        ("butter in a summer tent", with(&serving(&drip, 31.0), "/note", json!("tent")), "coat_slides", true),
        ("the same in the cold", serving(&drip, 18.0), "coat_slides", false),
        ("a mousse on a warm table", serving(&ring, 30.0), "mould_", true),
        ("a mousse from the fridge", serving(&ring, 6.0), "mould_gives_way", false),
        ("a mousse in a warm van", carried(&ring, 30.0), "mould_", true),
        ("piped Swiss in the sun", serving(&naked, 32.0), "piped_slumps", true),
        ("piped Swiss in a cool room", serving(&naked, 18.0), "piped_slumps", false),
        ("whipped cream in a warm jar", serving(&jar, 24.0), "spoon_runs", true),
        ("whipped cream in a cold jar", serving(&jar, 6.0), "spoon_runs", false),
        (
            "a drip on a coat from the fridge",
            with(&drip, "/tiers/0/drip/coat_c", json!(5.0)),
            "drip_melts_coat",
            false,
        ),
        (
            "a drip on a coat left out",
            with(&drip, "/tiers/0/drip/coat_c", json!(24.0)),
            "drip_melts_coat",
            true,
        ),
        ("drips with a ladle", with(&drip, "/tiers/0/drip/dose_ml", json!(4.0)), "drip_reaches_board", true),
    ];
    for (name, document, code, wanted) in cases {
        let answer = worked_out(&document);
        let found = answer
            .findings
            .iter()
            .any(|finding| finding.code.word().starts_with(code) && finding.standing != Standing::Holds);
        assert_eq!(found, wanted, "{name}: {code} {:#?}", answer.findings);
    }
}

fn serving(document: &StackDocument, t_c: f64) -> StackDocument {
    let mut own = document.clone();
    own.serve_c = Some(t_c);
    own.note = " ".to_owned();
    own
}

fn carried(document: &StackDocument, t_c: f64) -> StackDocument {
    let mut own = serving(document, 8.0);
    own.transport_c = Some(t_c);
    own
}

/// Colours of the drawing: dark chocolate is darker than milk, milk than cream; a fruit tells itself.
#[test]
fn mixtures_are_drawn_in_their_own_colour() {
    let tint = |lines: &str| {
        let mut document = start(Family::Ganache, "fill");
        document.lines = serde_json::from_str(lines).unwrap();
        let lines = document.formula().weigh(&pastry::ingredient::Shelf::catalogue()).unwrap();
        let hex = pastry::formula::tint::tint(&lines, Family::Ganache);
        [1, 3, 5].map(|at| i32::from_str_radix(&hex[at..at + 2], 16).unwrap())
    };
    let of = |key: &str, grams: u32| {
        tint(&format!(
            r#"[{{"ingredient":"{key}","amount":"{grams} g"}},{{"ingredient":"cream36","amount":"100 g"}}]"#
        ))
    };
    let light = |colour: [i32; 3]| colour.iter().sum::<i32>();
    let (dark, milk, white, cream) =
        (of("dark70", 100), of("milk35", 100), of("white30", 100), of("cream36", 100));
    assert!(light(dark) < light(milk) && light(milk) < light(white), "{dark:?} {milk:?} {white:?}");
    assert!(light(white) <= light(cream) && light(cream) > 660, "{white:?} {cream:?}");
    let currant = of("blackcurrant", 100);
    assert!(currant[0] > currant[1] && currant[2] > currant[1], "{currant:?} is purple");
    let mango = of("mango", 100);
    assert!(mango[0] > mango[1] && mango[1] > mango[2], "{mango:?} is orange");
}

/// The Bench draws a cream in the colour the cake draws it in.
#[test]
fn a_cream_has_one_colour_on_the_bench_and_in_the_cake() {
    let mut document = start(Family::FruitMousse, "set");
    document.lines[0].ingredient = "blackcurrant".to_owned();
    let lines = document.formula().weigh(&pastry::ingredient::Shelf::catalogue()).unwrap();
    let on_the_bench = pastry::assess::assess(&document).unwrap().tint;
    assert_eq!(on_the_bench, pastry::formula::tint::tint(&lines, Family::FruitMousse));
    let [red, green, blue] = [1, 3, 5].map(|at| i32::from_str_radix(&on_the_bench[at..at + 2], 16).unwrap());
    assert!(red > green && blue > green, "{on_the_bench} is purple, not beige");
}

/// A cake without anything in it, and one that is only a plate of sponge, are answers too.
#[test]
fn little_is_answered_as_little() {
    let empty = StackDocument::empty(Body::Round { diameter_mm: 180.0 });
    let answer = worked_out(&empty);
    assert_eq!((answer.finished_g, answer.portions, answer.places.len()), (0.0, 0, 0));
    assert!(answer.headline.contains("has no layers yet"), "{}", answer.headline);
    let mut plain = empty;
    plain.bakes = template("layers").bakes;
    plain.tiers[0].layers =
        serde_json::from_value(json!([{ "kind": "sponge", "bake": "genoise", "thickness_mm": 30 }])).unwrap();
    let answer = with_known(|known| stack(&plain, known, 21.0)).unwrap();
    // 763 ml at 300 kg/m³.
    assert!((answer.finished_g - 229.0).abs() < 1.0, "{}", answer.finished_g);
    assert_eq!(answer.standing, Standing::Care, "{:?}", answer.findings);
}
