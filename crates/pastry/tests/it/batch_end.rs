//! What stands beside a batch: where its lines go in, the hours in which it must be cold, who gets how much, what its tape says.

use jiff::Timestamp;
use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::batch::end::tape;
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent, BatchFor, ReadBy, look};
use pastry::formula::Family;
use pastry::ingredient::Shelf;

fn begun(formula: &FormulaDocument) -> BatchDocument {
    let ask = BatchAsk {
        formula: formula.clone(),
        weigh_g: None,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: None,
    };
    BatchDocument::begin(ask, &Shelf::catalogue(), &[]).unwrap()
}

/// An event so many minutes after eight.
fn at(minute: i64, id: &str, event: BatchEvent) -> BatchEntry {
    let at = Timestamp::from_second(1_796_112_000 + 60 * minute).unwrap();
    BatchEntry { id: format!("event-{id}"), at, device: None, event }
}

fn formula(family: &str, lines: &[(&str, &str)], method: Option<&str>) -> FormulaDocument {
    let lines: Vec<String> = lines
        .iter()
        .map(|(key, amount)| format!(r#"{{"ingredient":"{key}","amount":"{amount}"}}"#))
        .collect();
    let method = method.map_or(String::new(), |own| format!(r#","method":"{own}""#));
    let text = format!(
        r#"{{"format":"bright-spoon/formula","version":1,"name":"Trial","family":"{family}","lines":[{}],
            "work":{{"job":{{"kind":"{}"}},"temperature_c":15,"room_temperature_c":21}}{method}}}"#,
        lines.join(","),
        if family == "syrup" { "soak" } else { "pipe" }
    );
    serde_json::from_str(&text).unwrap()
}

fn custard() -> FormulaDocument {
    formula(
        "pastry_cream",
        &[
            ("milk", "400 g"),
            ("yolk", "60 g"),
            ("sugar", "80 g"),
            ("corn_starch", "30 g"),
            ("butter82", "40 g"),
        ],
        None,
    )
}

/// The step a line goes in at, by its key.
fn goes_in(batch: &BatchDocument, ingredient: &str) -> Option<String> {
    let line = batch.formula.lines.iter().position(|own| own.ingredient == ingredient).unwrap();
    batch.steps.iter().find(|step| step.lines.contains(&line)).map(|step| step.key.clone())
}

/// Common practice: spirit into a syrup that has cooled, butter into a custard off the heat, cream on the chopped chocolate.
#[test]
fn a_line_goes_in_where_its_school_adds_it() {
    let soak = begun(&formula("syrup", &[("sugar", "200 g"), ("water", "200 g"), ("rum40", "40 g")], None));
    assert_eq!(
        ["sugar", "water", "rum40"].map(|own| goes_in(&soak, own)),
        [Some("boil".to_owned()), Some("boil".to_owned()), Some("aroma".to_owned())]
    );
    let cream = begun(&custard());
    assert_eq!(goes_in(&cream, "butter82").as_deref(), Some("butter"));
    assert_eq!(goes_in(&cream, "yolk").as_deref(), Some("yolks"));
    let ganache =
        formula("ganache", &[("dark60", "250 g"), ("cream36", "250 g"), ("butter82", "30 g")], None);
    let ganache = begun(&FormulaDocument { work: starts(Family::Ganache)[0].work.clone(), ..ganache });
    assert_eq!(
        ["dark60", "cream36", "butter82"].map(|own| goes_in(&ganache, own)),
        [Some("chop".to_owned()), Some("heat".to_owned()), Some("butter".to_owned())]
    );
}

/// Whatever the formula: no line goes in at two steps, and what goes in later is asked for later.
#[test]
fn every_line_of_every_start_goes_in_once_and_in_the_order_of_its_steps() {
    let (mut named, mut all) = (0, 0);
    for family in Family::ALL {
        for own in starts(*family) {
            let batch = begun(own);
            let view = look(&batch, &[], &Shelf::catalogue()).unwrap();
            for line in &view.lines {
                let times = batch.steps.iter().filter(|step| step.lines.contains(&line.line)).count();
                assert!(times <= 1, "{}: {} goes in {times} times", own.name, line.name);
                named += times;
                all += 1;
            }
            let turns: Vec<usize> =
                view.order.iter().map(|at| view.lines[*at].step.map_or(0, |step| step + 1)).collect();
            assert!(turns.is_sorted(), "{}: {turns:?}", own.name);
        }
    }
    // The rest is weighed before all: flavours, fruit, salt.
    assert!(3 * named > 2 * all, "{named} of {all} lines have a step of their own");
}

#[test]
fn what_is_cooled_to_its_work_says_at_which_temperature_that_is() {
    let mut own = starts(Family::Ganache)[0].clone();
    own.work.temperature_c = pastry::units::Temperature::from_celsius(29.0);
    let batch = begun(&own);
    let cool = batch.steps.iter().find(|step| step.key == "cool").unwrap();
    assert_eq!(cool.temperature_c, Some([27.5, 30.5]));
    // What the school says itself stays.
    let stir = batch.steps.iter().find(|step| step.key == "stir").unwrap();
    assert_eq!(stir.temperature_c, Some([38.0, 45.0]));
}

#[test]
fn what_must_cool_fast_has_its_clock_from_the_last_hot_reading_on() {
    // FDA Food Code 2022, 3-501.14 (from memory): 57 to 21 °C within two hours, to 5 °C within six.
    let shelf = Shelf::catalogue();
    let batch = begun(&custard());
    let read = |minute: i64, c: f64| {
        at(minute, &format!("read-{minute:03}"), BatchEvent::Read { c, by: ReadBy::Device })
    };
    let clock = |entries: &[BatchEntry]| look(&batch, entries, &shelf).unwrap().cooling;
    assert_eq!(clock(&[read(0, 40.0)]), None, "it was never read to be hot");
    let cooling = clock(&[read(0, 96.0), read(10, 58.0), read(30, 45.0), read(95, 20.5)]).unwrap();
    let since = cooling.since;
    assert_eq!(since, read(10, 58.0).at);
    let minutes = |to: Timestamp| to.duration_since(since).as_mins();
    let stages: Vec<(f64, i64, Option<i64>)> =
        cooling.stages.iter().map(|own| (own.to_c, minutes(own.by), own.there.map(minutes))).collect();
    assert_eq!(stages, [(21.0, 120, Some(85)), (5.0, 360, None)]);
    assert!(cooling.words.contains("local food code"), "{}", cooling.words);
    // Warmed up again it begins anew.
    let again = clock(&[read(0, 96.0), read(30, 20.0), read(40, 70.0)]).unwrap();
    assert_eq!(again.since, read(40, 70.0).at);
    // A ganache is no food that must cool fast.
    let ganache = begun(&starts(Family::Ganache)[0]);
    assert_eq!(look(&ganache, &[read(0, 80.0)], &shelf).unwrap().cooling, None);
}

#[test]
fn what_is_made_is_shared_out_and_its_tape_says_what_is_really_in() {
    let shelf = Shelf::catalogue();
    let mut batch = begun(&starts(Family::Ganache)[0]);
    let place = |name: &str, grams: f64, count: u32| BatchFor {
        order: None,
        name: name.to_owned(),
        grams: Some(grams),
        count: Some(count),
    };
    batch.made_for = vec![place("Quay, filling", 120.0, 3), place("Quay, coat", 60.0, 1)];
    let marks = look(&batch, &[], &shelf).unwrap().lines;
    let mut entries: Vec<BatchEntry> = marks
        .iter()
        .map(|own| {
            let (line, grams) = (own.line, own.band.mark_g);
            let event = BatchEvent::Weighed { line, grams, by: ReadBy::Hand, lot: None };
            at(line as i64, &format!("poured-{line}"), event)
        })
        .collect();
    entries.push(at(20, "yielded", BatchEvent::Yielded { grams: 200.0 }));
    let enough = look(&batch, &entries, &shelf).unwrap();
    assert_eq!((enough.shares[0].gets_g, enough.shares[0].each_g), (120.0, 40.0));
    entries.push(at(21, "weighed-anew", BatchEvent::Yielded { grams: 90.0 }));
    let short = look(&batch, &entries, &shelf).unwrap();
    // Each its part of what is there: 90 of 180 g.
    let gets: Vec<(f64, f64)> = short.shares.iter().map(|own| (own.gets_g, own.each_g)).collect();
    assert_eq!(gets, [(60.0, 20.0), (30.0, 30.0)]);
    let on = jiff::civil::date(2026, 12, 3);
    let plain = tape(&batch, &entries, &shelf, on).unwrap();
    // What a rescue put in is on the tape: an allergen that no line of the formula has.
    let added = BatchEvent::Added { ingredient: "almond_paste".to_owned(), grams: 20.0, why: String::new() };
    entries.push(at(22, "added", added));
    let label = tape(&batch, &entries, &shelf, on).unwrap();
    assert!(label.allergens.len() > plain.allergens.len(), "{label:?}");
    let text = label.text();
    for words in ["90 g", "made Thu 3 Dec 2026", "use by", "for Quay, filling, Quay, coat"] {
        assert!(text.contains(words), "{words} is not in {text}");
    }
    assert!(label.allergens.iter().all(|own| text.contains(own.as_str())), "{text}");
    // What is not in the pantry is not passed over.
    let odd = BatchEvent::Added { ingredient: "no_such_thing".to_owned(), grams: 5.0, why: String::new() };
    entries.push(at(23, "odd", odd));
    assert!(tape(&batch, &entries, &shelf, on).unwrap().text().contains("INCOMPLETE"));
}

#[test]
fn raw_egg_is_on_the_tape_and_keeps_for_a_day() {
    let shelf = Shelf::catalogue();
    let own =
        starts(Family::EggMousse).iter().find(|own| own.lines.iter().any(|line| line.ingredient == "yolk"));
    let batch = begun(own.expect("a start with yolk"));
    let marks = look(&batch, &[], &shelf).unwrap().lines;
    let entries: Vec<BatchEntry> = marks
        .iter()
        .map(|own| {
            let event =
                BatchEvent::Weighed { line: own.line, grams: own.band.mark_g, by: ReadBy::Hand, lot: None };
            at(own.line as i64, &format!("poured-{}", own.line), event)
        })
        .collect();
    let label = tape(&batch, &entries, &shelf, jiff::civil::date(2026, 12, 3)).unwrap();
    let raw = label.notes.iter().any(|own| own.contains("raw or lightly heated egg"));
    assert_eq!(raw, label.keeps_days <= 1, "{label:?}");
}

#[test]
fn it_stands_where_it_was_put_last_until_it_is_used_up() {
    let shelf = Shelf::catalogue();
    let batch = begun(&starts(Family::Ganache)[0]);
    let put = |minute: i64, place: &str| {
        at(minute, &format!("put-{minute:03}"), BatchEvent::Put { place: place.to_owned() })
    };
    let mut entries = vec![put(0, "Cream fridge"), put(5, "Cold room")];
    entries.push(at(6, "left-over", BatchEvent::LeftOver { grams: 80.0 }));
    let view = look(&batch, &entries, &shelf).unwrap();
    assert_eq!((view.stands_in.as_deref(), view.left_over_g), (Some("Cold room"), Some(80.0)));
    entries.push(at(7, "used-up", BatchEvent::UsedUp {}));
    let view = look(&batch, &entries, &shelf).unwrap();
    assert_eq!((view.stands_in, view.left_over_g), (None, Some(0.0)));
}
