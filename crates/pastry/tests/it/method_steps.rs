//! Steps as a planner counts them: each of them leads somewhere, waits stand somewhere, nothing hot is left to wait for
//! something cold, what is begun with is made first, and what a batch does not hold is left out without tearing the rest.

use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::caution::Caution;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Role, Shelf, find};
use pastry::method::course::{MethodStep, course, least_through};
use pastry::method::school::{School, school, schools};
use pastry::method::step::{Clock, LimitClass, Moment, Spot, Step, Worker};
use pastry::method::{Gear, Resource};

fn start(family: Family) -> FormulaDocument {
    starts(family)[0].clone()
}

fn steps_of(document: &FormulaDocument, key: &str) -> Vec<MethodStep> {
    let lines = document.formula().weigh(&Shelf::catalogue()).unwrap();
    course(school(key).unwrap_or_else(|| panic!("no school {key}")), &lines)
}

fn step<'a>(steps: &'a [MethodStep], key: &str) -> &'a MethodStep {
    steps.iter().find(|step| step.key == key).unwrap_or_else(|| panic!("no step {key}"))
}

/// Those that need a step.
fn after(school: &School, at: usize) -> Vec<&Step> {
    school.steps.iter().filter(|step| step.needs.contains(&at)).collect()
}

#[test]
fn every_step_leads_to_the_last_one() {
    for school in schools() {
        let last = school.steps.len() - 1;
        for (at, step) in school.steps.iter().enumerate() {
            let name = format!("{}: {}", school.id, step.key);
            assert_eq!(after(school, at).is_empty(), at == last, "{name} leads nowhere, or on from the end");
            // What is done at the cake comes after all that is done at the bowl.
            let then = after(school, at);
            assert!(
                step.at == Moment::Make || then.iter().all(|next| next.at == Moment::Use),
                "{name}: used, and then made on"
            );
            // At the end of the making a limit is how soon it is used; at the cake there is no next.
            let ends = at == last && step.at == Moment::Use;
            assert!(step.limit.is_none() || !ends, "{name} limits a next step, and there is none");
        }
    }
}

#[test]
fn a_wait_stands_somewhere_and_no_hands_are_in_it() {
    for school in schools() {
        for step in &school.steps {
            let name = format!("{}: {}", school.id, step.key);
            assert_eq!(step.kind == Worker::Wait, step.place.is_some(), "{name}");
            if step.kind != Worker::Wait {
                continue;
            }
            let first = step.what.split([' ', ',']).next().unwrap();
            let work = ["Cut", "Lay", "Spread", "Into", "Portion", "Pour", "Press", "Film", "Sieve"];
            assert!(!work.contains(&first) || step.what == "Into the fridge.", "{name}: {}", step.what);
            if step.gear.contains(&Gear::Fridge) {
                assert_eq!(step.place, Some(Spot::Fridge), "{name}");
            }
            assert!(!step.resources().contains(&Resource::Mixer), "{name}");
        }
    }
}

/// Butter that softens for half an hour between the syrup and its whipping stopped a hot mass: side branches stand beside.
#[test]
fn nothing_hot_waits_for_what_is_cold() {
    for school in schools() {
        for (at, step) in school.steps.iter().enumerate() {
            let hot = step.kind != Worker::Wait && step.t.is_some_and(|[low, _]| low >= 60.0);
            if !hot {
                continue;
            }
            for next in after(school, at) {
                let stands = next.kind == Worker::Wait && next.time.minutes(1.0)[0] >= 20.0;
                let cools = matches!(next.clock, Some(Clock::Cool { .. } | Clock::Starch(_) | Clock::Set(_)));
                assert!(!stands || cools, "{}: {} waits hot for {}", school.id, step.key, next.key);
            }
        }
    }
    // And what is got ready beside says for which step.
    let swiss = steps_of(&start(Family::SwissButtercream), "swiss_71");
    assert_eq!(step(&swiss, "whip").needs, ["egg"]);
    assert_eq!(step(&swiss, "pieces").needs, ["butter", "whip"]);
    let pieces = swiss.iter().position(|step| step.key == "pieces").unwrap() as u32 + 1;
    assert_eq!(step(&swiss, "butter").ready_for, Some(pieces));
    assert_eq!(step(&swiss, "whip").ready_for, None);
}

/// A custard that is cooked is cooled by a rule, and the rule has its class (FDA Food Code 2022, 3-501.14, from memory).
#[test]
fn what_is_cooked_with_milk_or_egg_has_its_cooling_rule() {
    let cooked = [
        "pastry_tempered",
        "pastry_one_pan",
        "slice_poured",
        "anglaise_spatula",
        "curd_late",
        "curd_together",
        "condensed_starch",
        "mousseline_halves",
    ];
    for key in cooked {
        let school = school(key).unwrap();
        let rule = school.steps.iter().find(|step| step.cautions.contains(&Caution::CoolFast));
        let rule = rule.unwrap_or_else(|| panic!("{key} has no cooling rule"));
        assert_eq!(rule.class, LimitClass::Safety, "{key}");
        assert!(rule.clock.is_some(), "{key}: its minutes hang on nothing");
    }
    let spoken =
        |key: &str| school(key).unwrap().steps.iter().any(|step| step.cautions.contains(&Caution::CoolFast));
    assert!(spoken("diplomat_hot"));
    let words = pastry::caution::CautionAnswer::from(Caution::CoolFast).words;
    assert!(words.contains("local food code"));
}

#[test]
fn a_whisk_in_the_hand_is_no_mixer() {
    let takes = |key: &str, step: &str| {
        school(key).unwrap().steps.iter().find(|own| own.key == step).unwrap().resources()
    };
    assert_eq!(takes("swiss_71", "egg"), [Resource::Hob]);
    assert_eq!(takes("swiss_71", "whip"), [Resource::Mixer]);
    assert_eq!(takes("swiss_71", "pieces"), [Resource::Mixer]);
    assert_eq!(takes("diplomat_cold", "beat"), []);
    assert_eq!(takes("italian", "pour"), [Resource::Mixer, Resource::Hob]);
}

#[test]
fn what_it_begins_with_is_made_first() {
    for (family, key, first) in [
        (Family::CustardButtercream, "custard_butter", "pastry_tempered"),
        (Family::GanacheButtercream, "ganache_butter", "ganache_pour"),
        (Family::Diplomat, "diplomat_cold", "pastry_tempered"),
        (Family::Mousseline, "mousseline_halves", "pastry_tempered"),
    ] {
        let document = start(family);
        let steps = steps_of(&document, key);
        let before = steps.iter().take_while(|step| step.part.is_some()).count();
        assert!(before >= 3, "{key}: {before} steps before its own");
        assert!(steps[..before].iter().all(|step| step.key.starts_with(first)), "{key}");
        assert!(steps[before..].iter().all(|step| step.part.is_none()), "{key}");
        let joined =
            steps[before..].iter().filter(|step| step.needs.contains(&steps[before - 1].key)).count();
        assert_eq!(joined, 1, "{key}: the {first} goes nowhere");
        // On its own lines alone: the butter is not boiled with the milk.
        let lines = document.formula().weigh(&Shelf::catalogue()).unwrap();
        let kg: f64 = 1e-3 * lines.iter().map(|line| line.mass.grams()).sum::<f64>();
        let alone =
            school(first).unwrap().steps.iter().find(|own| own.time.minutes(1.0) != own.time.minutes(2.0));
        let alone = alone.unwrap();
        let own = step(&steps, &format!("{first}.{}", alone.key));
        assert!(own.minutes[0] < alone.time.minutes(kg)[0], "{key}: made on the whole batch");
    }
}

#[test]
fn a_step_left_out_tears_nothing() {
    let mut diplomat = start(Family::Diplomat);
    diplomat.lines.retain(|line| find(&line.ingredient).is_none_or(|own| !own.is(Role::Gelatin)));
    let without = steps_of(&diplomat, "diplomat_cold");
    assert!(!without.iter().any(|step| ["leaves", "bloomed", "gelatin"].contains(&step.key.as_str())));
    assert_eq!(step(&without, "fold").needs, ["beat", "whip_medium"]);
    diplomat.lines.push(Line::new("gelatin200", "6 g"));
    let with = steps_of(&diplomat, "diplomat_cold");
    assert_eq!(step(&with, "fold").needs, ["gelatin", "whip_medium"]);
    assert_eq!(step(&with, "gelatin").needs, ["bloomed", "beat"]);
    // Every family, every school: whatever is needed is there, above.
    for family in Family::ALL {
        for document in starts(*family) {
            for own in pastry::method::schools_of(*family) {
                let steps = steps_of(document, &own.id);
                for (at, one) in steps.iter().enumerate() {
                    for key in &one.needs {
                        let above = steps[..at].iter().any(|other| other.key == *key);
                        assert!(above, "{}: {} needs {key}", own.id, one.key);
                    }
                    assert!(one.ready_for.is_none_or(|n| n as usize <= steps.len()), "{}", own.id);
                }
            }
        }
    }
}

/// By hand, for one kilogram of whites and sugar: 5 + 6 kg over water, 8 + 6 kg whipped, the butter softens meanwhile.
#[test]
fn the_way_through_is_the_longest_one() {
    let mut swiss = start(Family::SwissButtercream);
    swiss.lines =
        vec![Line::new("white", "100 g"), Line::new("sugar", "200 g"), Line::new("butter82", "200 g")];
    let steps = steps_of(&swiss, "swiss_71");
    let egg = 5.0 + 6.0 * 0.5;
    let whip = 8.0 + 6.0 * 0.5;
    let butter = (1.0 + 2.0 * 0.2) + 30.0;
    let rest = (5.0 + 3.0 * 0.5) + (2.0 + 0.5);
    let through = f64::max(egg + whip, butter) + rest;
    assert!((least_through(&steps) - through).abs() < 1e-9, "{} and {through}", least_through(&steps));
    // What a kitchen keeps cold is cold: whipping cream takes minutes, not hours.
    let cream = steps_of(&start(Family::WhippedCream), "cream_plain");
    assert!(step(&cream, "cold_cream").given && least_through(&cream) < 30.0);
}

/// Waits that hang on a clock are this batch's: warmer rooms and deeper trays take longer, and what has set is never told before.
#[test]
fn waits_come_from_the_clock() {
    let told = |document: &FormulaDocument, key: &str| {
        let sheets = pastry::method::sheet(document, &Shelf::catalogue(), &[]).unwrap();
        step(&sheets.iter().find(|own| own.school == key).unwrap().steps, "cool").minutes
    };
    let mut mild = start(Family::PouredGlaze);
    let mut warm = mild.clone();
    mild.work.room_temperature_c = pastry::units::RoomTemperature::from_celsius(18.0);
    warm.work.room_temperature_c = pastry::units::RoomTemperature::from_celsius(27.0);
    let (cool, hot) = (told(&mild, "ganache_pour"), told(&warm, "ganache_pour"));
    assert!(cool[0] < hot[0], "{cool:?} and {hot:?}");
    for family in Family::ALL {
        for sheet in
            pastry::method::sheet(&start(*family), &pastry::ingredient::Shelf::catalogue(), &[]).unwrap()
        {
            for step in &sheet.steps {
                let [least, most] = step.minutes;
                assert!(
                    0.0 <= least && least <= most && most <= 20_160.0,
                    "{} {}: {least} {most}",
                    sheet.school,
                    step.key
                );
                let by_hand = step.by_clock.is_none() || step.kind == pastry::method::Worker::Wait;
                assert!(by_hand, "{} {}", sheet.school, step.key);
            }
        }
    }
}
