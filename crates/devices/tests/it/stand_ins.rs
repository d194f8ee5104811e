//! Stand-ins are as awkward as real ones, and always the same for a seed.

use devices::address::DeviceKind;
use devices::line::Line;
use devices::message::Message;
use devices::stand_in::play::Play;
use devices::stand_in::script;

fn playing(kind: DeviceKind, scenario: &str) -> Play {
    let mut play = Play::new(kind, "test", 7);
    play.scenario(scenario).unwrap();
    play
}

fn grams(play: &Play) -> (f64, bool, f64) {
    match play.says() {
        Message::Weight { g, steady, step_g, .. } => (g, steady, step_g),
        other => panic!("{other:?}"),
    }
}

fn ask(play: &mut Play, message: &Message) -> Message {
    let line = Line::read(message.line(3).written().trim_end()).unwrap();
    play.hears(&line).pop().unwrap()
}

#[test]
fn a_scale_settles_in_about_eight_tenths_of_a_second() {
    let mut play = playing(DeviceKind::Scale, "put 100 g");
    play.pass(0.2);
    // First order: 63 % of the way after one time constant.
    assert!((grams(&play).0 - 63.2).abs() < 2.0, "{:?}", grams(&play));
    play.pass(0.6);
    assert!((grams(&play).0 - 98.2).abs() < 1.0, "{:?}", grams(&play));
    assert!(!grams(&play).1, "it is not steady while it moves");
    play.pass(2.0);
    let (g, steady, step) = grams(&play);
    assert!((g - 100.0).abs() <= 0.2 && steady && (step - 0.1).abs() < 1e-9, "{g} {steady} {step}");
}

#[test]
fn it_counts_tenths_to_200_g_and_grams_above() {
    let mut play = playing(DeviceKind::Scale, "put 412.4 g");
    play.pass(3.0);
    let (g, _, step) = grams(&play);
    assert!((step - 1.0).abs() < 1e-9 && (g - 412.0).abs() < 1e-9, "{g} {step}");
}

#[test]
fn tare_takes_what_is_on_it_and_not_while_it_moves() {
    let mut play = playing(DeviceKind::Scale, "put 120 g\nwait 3 s\npour 90 g at 30 g/s, overshoot 6 g");
    play.pass(0.1);
    assert!(matches!(ask(&mut play, &Message::Tare), Message::Refused { .. }));
    play.pass(2.5);
    assert!(matches!(ask(&mut play, &Message::Tare), Message::Done { of: 3 }));
    play.pass(6.0);
    let (g, steady, _) = grams(&play);
    assert!((g - 96.0).abs() <= 1.0 && steady, "{g}");
}

#[test]
fn too_much_on_it_is_said_and_no_number_is_shown() {
    let mut play = playing(DeviceKind::Scale, "put 7000 g");
    play.pass(3.0);
    assert_eq!(play.says(), Message::Fault { code: "overload".to_owned() });
    assert!(matches!(ask(&mut play, &Message::Tare), Message::Refused { .. }));
}

#[test]
fn a_scale_creeps_where_it_is_told_to() {
    let mut play = playing(DeviceKind::Scale, "put 50 g\ndrift 2 g/min");
    play.pass(120.0);
    assert!((grams(&play).0 - 54.0).abs() < 0.3, "{:?}", grams(&play));
}

#[test]
fn a_probe_is_three_tenths_off_and_lags_four_seconds() {
    let read = |play: &Play| match play.says() {
        Message::Temperature { c } => c,
        other => panic!("{other:?}"),
    };
    let mut play = playing(DeviceKind::Probe, "cool from 45 C to 21 C constant 40 min");
    play.pass(60.0 * 40.0);
    // Newton's law: 37 % of 24 K are left; and it is 0.3 K off.
    let exact = 21.0 + 24.0 * (-1.0_f64).exp() + 0.3;
    assert!((read(&play) - exact).abs() < 0.2, "{} {exact}", read(&play));
    let mut play = playing(DeviceKind::Probe, "cool from 80 C to 80 C constant 40 min\npull out");
    play.pass(4.0);
    assert!((read(&play) - (21.0 + 59.0 / std::f64::consts::E)).abs() < 1.5, "{}", read(&play));
    play.pass(60.0);
    assert_eq!(play.says(), Message::Fault { code: "in_air".to_owned() });
}

#[test]
fn a_fridge_cycles_warms_with_its_door_open_and_without_power() {
    let read = |play: &Play| match play.says() {
        Message::Fridge { c, open } => (c, open),
        other => panic!("{other:?}"),
    };
    let mut play = playing(DeviceKind::Fridge, "wait 1 s");
    let mut seen = Vec::new();
    for _ in 0..240 {
        play.pass(60.0);
        seen.push(read(&play).0);
    }
    let least = seen.iter().copied().fold(f64::INFINITY, f64::min);
    let most = seen.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    assert!((1.5..3.5).contains(&least) && (4.5..6.5).contains(&most), "{least} {most}");
    let mut play = playing(DeviceKind::Fridge, "open door 120 s");
    play.pass(60.0);
    assert!(read(&play).1);
    play.pass(61.0);
    assert!(!read(&play).1 && read(&play).0 > 8.0, "{:?}", read(&play));
    let mut play = playing(DeviceKind::Fridge, "power off 7200 s");
    play.pass(7100.0);
    assert!(read(&play).0 > 8.0, "{:?}", read(&play));
    play.pass(3000.0);
    assert!(read(&play).0 < 8.0, "{:?}", read(&play));
}

#[test]
fn a_printer_prints_a_job_once_and_says_when_the_tape_is_out() {
    let mut play = playing(DeviceKind::Printer, "tape 50 mm");
    play.pass(0.1);
    let print = |job: &str| Message::Print { job: job.to_owned(), text: "Bay drip\n324 g".to_owned() };
    let line = |message: &Message| Line::read(message.line(1).written().trim_end()).unwrap();
    let first = play.hears(&line(&print("a")));
    let forms: Vec<&str> = first
        .iter()
        .filter_map(|own| match own {
            Message::Picture { form, .. } => Some(form.as_str()),
            _ => None,
        })
        .collect();
    assert_eq!(forms, ["png", "pdf"]);
    assert_eq!(play.hears(&line(&print("a"))), [Message::Done { of: 1 }]);
    let _ = play.hears(&line(&print("b")));
    match play.hears(&line(&print("c"))).pop() {
        Some(Message::Refused { why, .. }) => assert!(why.contains("mm of tape"), "{why}"),
        other => panic!("{other:?}"),
    }
    assert_eq!(play.says(), Message::Fault { code: "no_tape".to_owned() });
    play.scenario("tape 8000 mm").unwrap();
    play.pass(0.1);
    assert!(matches!(play.says(), Message::Printer { .. }));
}

#[test]
fn the_same_seed_plays_the_same() {
    let all = |seed: u64| {
        let mut play = Play::new(DeviceKind::Scale, "test", seed);
        play.scenario("garbage 2 lines\ntear 2 lines\npour 90 g at 18 g/s, overshoot 6\nwait 2 s\nrepeat")
            .unwrap();
        let mut number = 0;
        (0..100)
            .flat_map(|_| {
                play.pass(0.1);
                play.arrives(&mut number)
            })
            .collect::<Vec<u8>>()
    };
    assert_eq!(all(1), all(1));
    assert_ne!(all(1), all(2));
}

#[test]
fn a_scenario_that_is_not_understood_says_where() {
    for (text, says) in [
        ("wait 2 s\nfly", "line 2"),
        ("pour -5 g at 18 g/s", "line 1"),
        ("pour 5 g at 0 g/s", "line 1"),
        ("wait nan s", "line 1"),
        ("put 1 g\nrepeat", "repeats"),
    ] {
        let why = script::read(text).unwrap_err();
        assert!(why.contains(says), "{text}: {why}");
    }
    let mut play = Play::new(DeviceKind::Scale, "test", 1);
    assert!(play.scenario("put 5 g\nopen door 5 s").unwrap_err().contains("scale"));
    play.pass(3.0);
    assert!(grams(&play).0.abs() < 0.2, "a scenario that is refused does not begin");
    assert_eq!(script::read("# nothing\n\n  wait 1 s # a while").unwrap().len(), 1);
}

#[test]
fn a_scenario_that_repeats_at_once_does_not_hang() {
    let mut play = playing(DeviceKind::Scale, "put 1 g\nwait 0.001 s\nrepeat");
    play.pass(3600.0);
}
