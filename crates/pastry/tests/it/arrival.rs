//! When something will be as warm or cold as it is wanted: against the exact curve of Newton's law, and against the bodies of the
//! heat model.

use jiff::{SignedDuration, Timestamp};
use pastry::batch::arrival::arrival;
use pastry::clock::cooling::{Begins, Cooling, Mass, USUAL};
use pastry::heat::Watched;
use pastry::heat::network::Until;
use pastry::heat::stand::StandDocument;
use pastry::heat::surroundings::Surroundings;
use pastry::heat::vessel::{VesselDocument, VesselKind};

/// Readings of a curve, as a probe that is 0.04 K off here and there shows them to a tenth.
fn read(curve: impl Fn(f64) -> f64, until_min: f64, every_min: f64, seed: u64) -> Vec<(Timestamp, f64)> {
    let mut dice = fastrand::Rng::with_seed(seed);
    let many = (until_min / every_min).floor() as usize;
    (0..=many)
        .map(|at| {
            let min = at as f64 * every_min;
            let off = 0.04 * ((0..12).map(|_| dice.f64()).sum::<f64>() - 6.0);
            let at = Timestamp::UNIX_EPOCH + SignedDuration::from_millis((60_000.0 * min) as i64);
            (at, (10.0 * (curve(min) + off)).round() / 10.0)
        })
        .collect()
}

/// Newton's law of cooling, solved for the time.
fn newton(from_c: f64, air_c: f64, constant_min: f64) -> (impl Fn(f64) -> f64, impl Fn(f64) -> f64) {
    let curve = move |min: f64| air_c + (from_c - air_c) * (-min / constant_min).exp();
    let when = move |c: f64| constant_min * ((from_c - air_c) / (c - air_c)).ln();
    (curve, when)
}

#[test]
fn after_a_third_of_the_way_it_is_within_a_tenth_of_what_remains() {
    for (from_c, air_c, goal, constant) in [
        (46.0, 21.0, 28.0, 55.0),
        (60.0, 21.0, 32.0, 30.0),
        (85.0, 4.0, 20.0, 70.0),
        (95.0, 0.5, 10.0, 12.0),
        (40.0, 4.0, 8.0, 90.0),
        (-18.0, 21.0, 4.0, 80.0),
        (4.0, 21.0, 16.0, 40.0),
    ] {
        let (curve, when) = newton(from_c, air_c, constant);
        let whole = when(goal);
        let third = whole / 3.0;
        for seed in 0..20 {
            let reads = read(&curve, third, third / 40.0, seed);
            let band = if from_c > goal { [goal - 2.0, goal] } else { [goal, goal + 2.0] };
            let found = arrival(&reads, band, 21.0).unwrap();
            let last = reads.last().unwrap().0.duration_since(Timestamp::UNIX_EPOCH).as_secs_f64() / 60.0;
            let remains = whole - last;
            let [soon, likely, late] = <[f64; 3]>::try_from(found.min.clone()).unwrap();
            let off = (likely - remains).abs() / remains;
            assert!(off < 0.1, "{from_c} to {goal} in {air_c}: {likely} for {remains}, {:.0} %", 100.0 * off);
            assert!(
                soon <= remains && remains <= late,
                "{from_c} to {goal}: {remains} is not in {soon} to {late}"
            );
        }
    }
}

/// Looked at every half minute as the page does, the ring comes before it is there, and not long before.
#[test]
fn it_is_rung_before_and_not_after() {
    for (from_c, air_c, goal, constant) in
        [(46.0, 21.0, 28.0, 55.0), (85.0, 4.0, 20.0, 70.0), (95.0, 0.5, 10.0, 12.0), (-18.0, 21.0, 4.0, 80.0)]
    {
        let (curve, when) = newton(from_c, air_c, constant);
        let whole = when(goal);
        for seed in 0..10 {
            let all = read(&curve, whole, 0.5, seed);
            let band = if from_c > goal { [goal - 2.0, goal] } else { [goal, goal + 2.0] };
            let rings = |many: usize| {
                let found = arrival(&all[..many], band, 21.0)?;
                // Before the next reading.
                found.ring_min.filter(|min| *min <= 0.5).map(|min| 0.5 * (many - 1) as f64 + min)
            };
            let rung = (1..=all.len()).find_map(rings).expect("it is rung");
            let before = whole - rung;
            assert!(before > 0.0, "{from_c} to {goal}, {seed}: {:.1} min late", -before);
            assert!(
                before < 0.35 * whole + 1.0,
                "{from_c} to {goal}, {seed}: {before:.1} min of {whole:.1} early"
            );
        }
    }
}

#[test]
fn a_bowl_of_the_heat_model_is_said_within_its_spread() {
    let shelf = pastry::ingredient::Shelf::catalogue();
    let mut said = Vec::new();
    for (formula, start_c, place, goal) in [
        (ganache(), 45.0, Surroundings::Bench, 28.0),
        (ganache(), 45.0, Surroundings::Bench, 32.0),
        (custard(), 85.0, Surroundings::Bench, 40.0),
        (custard(), 60.0, Surroundings::Fridge, 20.0),
    ] {
        let ready = pastry::assess::Ready::of(&formula, &shelf).unwrap();
        let mixture = pastry::formula::Mixture::of(&ready.lines);
        let prepared =
            pastry::rheology::Predictor::new(&mixture, formula.family.traits().system, &ready.options).base;
        let mass = Mass::of(&mixture, &prepared, &[]);
        let vessel = VesselDocument::usual(VesselKind::Bowl);
        let places = [StandDocument { min: Some(600.0), ..StandDocument::at(place) }];
        let cooling = Cooling::new(&mass, 0.5, &vessel, &places, Begins([start_c; 3]), 21.0);
        let course = cooling.course(USUAL, Until::TimeIsUp);
        let whole = course.time_to(Watched::Mean, goal).unwrap() / 60.0;
        let last = (0.5 * whole / 0.5).floor() * 0.5;
        let reads = read(|min| course.at(Watched::Mean, 60.0 * min), last, 0.5, 3);
        let found = arrival(&reads, [goal - 3.0, goal], 21.0).unwrap();
        let taken = reads.last().unwrap().0.duration_since(Timestamp::UNIX_EPOCH).as_secs_f64() / 60.0;
        let remains = whole - taken;
        let [soon, likely, late] = <[f64; 3]>::try_from(found.min.clone()).unwrap();
        said.push(format!("{goal}: {remains:.1} min, said {likely:.1} ({soon:.1} to {late:.1})"));
        assert!((soon..=late).contains(&remains), "{said:#?}");
        assert!((likely - remains).abs() < 0.25 * remains, "{said:#?}");
    }
}

fn formula(family: &str, lines: &[(&str, &str)], t_c: f64, job: &str) -> pastry::assess::FormulaDocument {
    let lines: Vec<String> = lines
        .iter()
        .map(|(key, amount)| format!(r#"{{"ingredient":"{key}","amount":"{amount}"}}"#))
        .collect();
    let text = format!(
        r#"{{"format":"bright-spoon/formula","version":1,"name":"","family":"{family}","lines":[{}],
            "work":{{"job":{{"kind":"{job}"}},"temperature_c":{t_c},"room_temperature_c":21}}}}"#,
        lines.join(",")
    );
    serde_json::from_str(&text).unwrap()
}

fn ganache() -> pastry::assess::FormulaDocument {
    formula("ganache", &[("dark60", "250 g"), ("cream36", "250 g")], 28.0, "drip")
}

fn custard() -> pastry::assess::FormulaDocument {
    formula(
        "pastry_cream",
        &[("milk", "400 g"), ("yolk", "60 g"), ("sugar", "80 g"), ("corn_starch", "30 g")],
        20.0,
        "pipe",
    )
}

#[test]
fn what_is_heated_is_followed_along_its_line() {
    // 3 K a minute, of 82 °C: 10 minutes from 52 °C.
    let reads = read(|min| 22.0 + 3.0 * min, 10.0, 0.25, 1);
    let found = arrival(&reads, [82.0, 84.0], 21.0).unwrap();
    assert!((found.min[1] - 10.0).abs() < 0.5, "{found:?}");
    assert!(found.sentence.contains("82 °C in about"), "{}", found.sentence);
}

#[test]
fn nothing_is_said_where_nothing_can_be_said() {
    assert!(arrival(&[], [27.0, 29.0], 21.0).is_none());
    let one = read(|_| 46.0, 0.0, 1.0, 1);
    assert!(arrival(&one, [27.0, 29.0], 21.0).unwrap().min.is_empty());
    // It hardly moves.
    let still = read(|_| 46.0, 20.0, 1.0, 1);
    assert!(arrival(&still, [27.0, 29.0], 21.0).unwrap().min.is_empty());
    // It warms where it is to cool.
    let (curve, _) = newton(30.0, 60.0, 30.0);
    let away = arrival(&read(curve, 20.0, 1.0, 1), [20.0, 25.0], 21.0).unwrap();
    assert!(away.min.is_empty() && away.sentence.contains("other way"), "{away:?}");
    // It is there.
    let (curve, when) = newton(46.0, 21.0, 55.0);
    let there = arrival(&read(curve, when(28.0), 1.0, 1), [27.0, 29.0], 21.0).unwrap();
    assert_eq!(there.min, [0.0; 3]);
}

#[test]
fn in_a_warm_room_it_says_that_it_will_not_get_there() {
    // The room is 30 °C, and everything colder is further from the readings than can be.
    let (curve, _) = newton(46.0, 30.0, 20.0);
    let found = arrival(&read(curve, 80.0, 1.0, 1), [-25.0, -20.0], 30.0).unwrap();
    assert!(found.min.is_empty() && found.sentence.contains("not get there"), "{found:?}");
}

#[test]
fn two_readings_of_one_moment_and_a_probe_that_jumps_break_nothing() {
    let at = Timestamp::UNIX_EPOCH;
    let _ = arrival(&[(at, 40.0), (at, 38.0), (at, 36.0)], [20.0, 25.0], 21.0);
    let jumps = read(|min| if (min as u64).is_multiple_of(2) { 60.0 } else { 20.0 }, 30.0, 1.0, 1);
    let found = arrival(&jumps, [24.0, 25.0], 21.0);
    assert!(found.is_none_or(|own| own.min.iter().all(|min| min.is_finite() && *min >= 0.0)));
}
