//! What a clock says of what cannot be, and of what never comes.

use crate::clock_practice::{answer, asked, at, bowl, custard, formula, ganache, minutes, vessel};
use pastry::clock::ClockDocument;
use pastry::clock::sets::SetStage;
use pastry::clock::words::ClockVerdict;
use pastry::heat::Surroundings;
use pastry::heat::case::BodyPoint;
use pastry::heat::vessel::VesselKind;
use pastry::ingredient::Shelf;
use pastry::method::clocked;

#[test]
fn what_cannot_be_is_said_field_by_field() {
    let good = asked(custard(1000.0), bowl(240.0), at(Surroundings::Fridge), 85.0);
    let says = |document: &ClockDocument| -> Vec<(String, String)> {
        let faults = clocked(document, &Shelf::catalogue()).expect_err("a fault");
        faults.into_iter().map(|fault| (fault.field, fault.message)).collect()
    };
    let mut cases: Vec<(&str, &str, ClockDocument)> = Vec::new();
    let mut add = |field: &'static str, words: &'static str, change: &dyn Fn(&mut ClockDocument)| {
        let mut document = good.clone();
        change(&mut document);
        cases.push((field, words, document));
    };
    add("vessel.diameter_mm", "take a bowl of 16 cm", &|own| own.vessel.diameter_mm = Some(120.0));
    add("vessel.height_mm", "leave it out", &|own| own.vessel.height_mm = Some(20.0));
    add("places", "1 to 6 places", &|own| own.places.clear());
    add("places.0.min", "only the last place", &|own| own.places.push(at(Surroundings::Bench)));
    add("places.0.min", "between", &|own| own.places[0].min = Some(f64::INFINITY));
    add("places", "more than two weeks", &|own| {
        own.places = vec![pastry::heat::stand::StandDocument { min: Some(12_000.0), ..own.places[0] }; 2];
    });
    add("places.0.stir_min", "nothing is stirred", &|own| {
        own.vessel = vessel(VesselKind::Jar);
        own.places[0].stir_min = Some(2.0);
    });
    add("places.0.place", "does not stand in water", &|own| {
        own.vessel = vessel(VesselKind::Boxed);
        own.places[0].place = Surroundings::IceBath;
    });
    add("places.0.watts", "only a microwave", &|own| own.places[0].watts = Some(800.0));
    add("start_c", "between", &|own| own.start_c = Some(400.0));
    add("kg", "between", &|own| own.kg = Some(0.0));
    add("at", "13:05", &|own| own.at = Some("noon".to_owned()));
    add("lines.0.ingredient", "", &|own| own.formula.lines[0].ingredient = "moon".to_owned());
    add("vessel.count", "more than one bowl holds", &|own| {
        own.vessel.diameter_mm = None;
        own.kg = Some(900.0);
    });
    for (field, words, document) in cases {
        let found = says(&document);
        assert!(
            found.iter().any(|(at, message)| at == field && message.contains(words)),
            "{field}, {words}: {found:?}"
        );
    }
}

#[test]
fn where_it_never_is_right_it_says_why_and_what_is_nearest() {
    let hot_room = {
        let mut document = asked(ganache(500.0), vessel(VesselKind::Bowl), at(Surroundings::Bench), 55.0);
        document.formula.work.room_temperature_c = pastry::units::RoomTemperature::from_celsius(42.0);
        document
    };
    let answer_hot = answer(&hot_room);
    assert_eq!(answer_hot.verdict, ClockVerdict::Never);
    assert!(
        answer_hot.sentence.contains("it stands in 42.0 °C, and is right from"),
        "{}",
        answer_hot.sentence
    );
    assert!(answer_hot.gains.iter().any(|gain| gain.words.contains("fridge")), "{:?}", answer_hot.gains);
    let frozen = asked(custard(500.0), vessel(VesselKind::Bowl), at(Surroundings::Freezer), 20.0);
    let answer_frozen = answer(&frozen);
    assert!(answer_frozen.notes.iter().any(|note| note.serious && note.words.contains("freezes")));
    let hardness = answer_frozen.frozen.unwrap().hardness;
    assert!(hardness.windows(2).all(|pair| pair[0].ice_percent >= pair[1].ice_percent));
    let far = ClockDocument {
        to_c: Some(-5.0),
        ..asked(ganache(500.0), bowl(160.0), at(Surroundings::Fridge), 45.0)
    };
    assert!(answer(&far).sentence.contains("never comes to"), "{}", answer(&far).sentence);
}

#[test]
fn what_goes_the_other_way_or_never_freezes_says_so() {
    let bowl_at = |place: Surroundings| asked(ganache(400.0), bowl(160.0), at(place), 18.0);
    // heat_checks: 300 g of ganache from 18 to 30 °C at 800 W and half the level: 30 to 75 s (common practice); 400 g here.
    let warmed = minutes(&bowl_at(Surroundings::Microwave), BodyPoint::Mean, 30.0);
    assert!((0.5..=1.6).contains(&warmed), "{warmed}");
    let endless = answer(&bowl_at(Surroundings::Microwave));
    assert!(endless.curve.usual.iter().all(|t| *t <= 100.0), "{:?}", endless.curve.usual.last());
    let mut hot = bowl_at(Surroundings::Fridge);
    (hot.places[0].air_c, hot.start_c) = (Some(90.0), Some(60.0));
    assert!(answer(&hot).sentence.contains("gets warmer there"), "{}", answer(&hot).sentence);
    let rum = formula("syrup", "soak", &[("rum40", 500.0)]);
    let cold = answer(&asked(rum, vessel(VesselKind::Bottle), at(Surroundings::Freezer), 20.0));
    assert!(cold.sets.iter().all(|own| own.stage != SetStage::Frozen), "{:?}", cold.sets);
}
