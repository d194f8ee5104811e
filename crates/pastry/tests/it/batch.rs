//! A batch while it is made: what happens to it, in any order, and how far off a line may be.

use jiff::Timestamp;
use pastry::assess::FormulaDocument;
use pastry::assess::spoon_sign::SpoonSign;
use pastry::assess::starts::starts;
use pastry::balance::edges::Asked;
use pastry::batch::fold::counting;
use pastry::batch::tolerance::{LOOSE, TIGHT, band, of_the_trade};
use pastry::batch::view::{LineStands, still_open};
use pastry::batch::{
    BatchAsk, BatchDocument, BatchEntry, BatchEvent, BatchView, Came, OverWay, ReadBy, fold, look, refused,
};
use pastry::fault::FaultCode;
use pastry::formula::{Family, Mixture};
use pastry::ingredient::Shelf;
use pastry::units::Mass;
use proptest::prelude::*;

fn shelf() -> Shelf {
    Shelf::catalogue()
}

fn begun(formula: &FormulaDocument, weigh_g: Option<f64>) -> BatchDocument {
    let ask = BatchAsk {
        formula: formula.clone(),
        weigh_g,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: None,
    };
    BatchDocument::begin(ask, &shelf(), &[]).unwrap()
}

fn ganache() -> BatchDocument {
    begun(&starts(Family::Ganache)[0], Some(500.0))
}

/// An event so many seconds after eight.
fn at(second: i64, id: &str, event: BatchEvent) -> BatchEntry {
    let at = Timestamp::from_second(1_796_112_000 + second).unwrap();
    BatchEntry { id: format!("event-{id}"), at, device: None, event }
}

fn poured(line: usize, grams: f64) -> BatchEvent {
    BatchEvent::Weighed { line, grams, by: ReadBy::Device, lot: None }
}

fn view(batch: &BatchDocument, entries: &[BatchEntry]) -> BatchView {
    look(batch, entries, &shelf()).unwrap()
}

/// Everything weighed to its mark, in the order in which it is asked for, and every step done.
fn made(batch: &BatchDocument) -> Vec<BatchEntry> {
    let mut all: Vec<BatchEntry> = Vec::new();
    for turn in 0.. {
        let seen = view(batch, &all);
        let event = match (seen.line, seen.step) {
            (Some(line), _) => poured(line, seen.lines[line].still_g),
            (None, Some(step)) => BatchEvent::Done { step: batch.steps[step].key.clone() },
            (None, None) => break,
        };
        all.push(at(60 * turn, &format!("made-{turn:03}"), event));
        assert!(all.len() < 200, "it never ends: {:?}", seen.open);
    }
    all
}

/// Every start of every family is begun at another size, weighed and made to its end, and is then what the formula was.
#[test]
fn a_batch_of_every_start_is_made_from_the_first_gram_to_the_last_step() {
    let mut tried = 0;
    for family in Family::ALL {
        for formula in starts(*family) {
            let batch = begun(formula, Some(730.0));
            assert_eq!(batch.faults(&shelf()), [], "{}", formula.name);
            let entries = made(&batch);
            let seen = view(&batch, &entries);
            assert!(seen.open.is_empty() && seen.line.is_none() && seen.step.is_none(), "{}", formula.name);
            // Lines are weighed as a scale shows them.
            assert!((seen.in_g - 730.0).abs() < 5.0, "{}: {} g", formula.name, seen.in_g);
            let before = view(&batch, &[]);
            assert_eq!(
                seen.inside, before.inside,
                "{}: {} / {}",
                formula.name, before.sentence, seen.sentence
            );
            let mut order = seen.order.clone();
            order.sort_unstable();
            assert_eq!(order, (0..batch.formula.lines.len()).collect::<Vec<_>>(), "{}", formula.name);
            let closing = at(90_000, "closing", BatchEvent::Closed {});
            assert_eq!(refused(&batch, &entries, std::slice::from_ref(&closing), &shelf()), []);
            tried += 1;
        }
    }
    assert!(tried > 20, "{tried}");
}

/// Brute force over every line of every start: all that a band holds keeps the verdict and three quarters of the room to both
/// edges; a band narrower than the trade's ends where that is over.
#[test]
fn a_band_is_as_wide_as_the_verdict_allows_and_never_wider_than_the_trade() {
    let (mut narrow, mut wide) = (0, 0);
    for formula in Family::ALL.iter().flat_map(|family| starts(*family)) {
        let ready = pastry::assess::Ready::of(formula, &shelf()).unwrap();
        let options = formula.options(&ready.lines);
        let asked = Asked::of(formula, &options);
        let plan = asked.edges(&Mixture::of(&ready.lines));
        for at in 0..ready.lines.len() {
            let mark = ready.lines[at].mass.grams();
            let own = band(&asked, &ready.lines, at);
            let trade = of_the_trade(&ready.lines[at].ingredient) * mark;
            assert!(own.from_g >= mark - trade - 1e-9 && own.to_g <= mark + trade + 1e-9);
            let room = |grams: f64| {
                let mut lines = ready.lines.clone();
                lines[at].mass = Mass::from_grams(grams);
                let then = asked.edges(&Mixture::of(&lines));
                let (loose, stiff) = (then.loose / plan.loose, then.stiff / plan.stiff);
                (then.inside, loose.min(stiff))
            };
            if !plan.inside {
                assert!((own.to_g - own.from_g - 2.0 * trade).abs() < 1e-9);
                continue;
            }
            for tick in 0..=40 {
                let grams = own.from_g + (own.to_g - own.from_g) * f64::from(tick) / 40.0;
                let (inside, left) = room(grams);
                assert!(inside && left >= 0.75 - 1e-9, "{}: {grams} of {mark}: {left}", formula.name);
            }
            for (end, way) in [(own.from_g, -1.0), (own.to_g, 1.0)] {
                if (end - mark).abs() < trade - 1e-9 {
                    let (inside, left) = room(end + way * 0.002 * trade);
                    let split = asked_split(&asked, &ready.lines, at, end + way * 0.002 * trade);
                    assert!(
                        !inside || left < 0.75 || split > 0.15,
                        "{}: {end} of {mark} could be wider",
                        formula.name
                    );
                    narrow += 1;
                } else {
                    wide += 1;
                }
            }
        }
    }
    assert!(narrow > 5 && wide > 50, "{narrow} by the model, {wide} by the trade");
}

fn asked_split(asked: &Asked, lines: &[pastry::formula::WeighedLine], at: usize, grams: f64) -> f64 {
    let mut lines = lines.to_vec();
    lines[at].mass = Mass::from_grams(grams);
    asked.edges(&Mixture::of(&lines)).split
}

/// Gelatin, agar and salt by 2 %, cream by 3 % at most (common practice).
#[test]
fn what_does_much_by_the_gram_is_weighed_closer() {
    let shelf = shelf();
    let widest = |key: &str| of_the_trade(shelf.find(key).unwrap_or_else(|| panic!("no {key}")));
    for key in ["gelatin200", "agar", "salt"] {
        assert!((widest(key) - TIGHT).abs() < 1e-12, "{key}");
    }
    for key in ["cream36", "dark60", "butter82", "sugar"] {
        assert!((widest(key) - LOOSE).abs() < 1e-12, "{key}");
    }
}

/// Past its mark there are three ways, and each leaves nothing open that is not open.
#[test]
fn a_line_poured_over_is_left_brought_back_or_the_rest_made_more() {
    let batch = ganache();
    let first = view(&batch, &[]).line.unwrap();
    let mark = view(&batch, &[]).lines[first].band.mark_g;
    let over = vec![at(0, "over", poured(first, 1.2 * mark))];
    let seen = view(&batch, &over);
    assert_eq!((seen.lines[first].stands, seen.line), (LineStands::Over, Some(first)));
    assert!(seen.open[0].contains("too much is in"), "{:?}", seen.open);
    let told = seen.over.expect("there is something to be done about it");
    assert!((told.poured_g / told.planned_g - 1.2).abs() < 1e-3 && told.scale.is_some(), "{}", told.sentence);
    let decide = |way: OverWay, factor: Option<f64>| {
        let mut all = over.clone();
        all.push(at(9, "decided", BatchEvent::Decided { line: first, way, factor }));
        view(&batch, &all)
    };
    let left = decide(OverWay::Leave, None);
    assert_eq!(left.lines[first].stands, LineStands::Settled);
    assert!(left.sentence != view(&batch, &[]).sentence || left.contents != view(&batch, &[]).contents);
    let scaled = decide(OverWay::Scale, Some(1.2));
    assert_eq!(scaled.lines[first].stands, LineStands::In);
    assert!((scaled.whole_g - 1.2 * view(&batch, &[]).whole_g).abs() < 0.5, "{}", scaled.whole_g);
    assert_eq!(scaled.inside, view(&batch, &[]).inside);
    // More of it after a decision is decided anew.
    let mut more = over.clone();
    more.push(at(9, "decided", BatchEvent::Decided { line: first, way: OverWay::Leave, factor: None }));
    more.push(at(10, "more", poured(first, 30.0)));
    assert_eq!(view(&batch, &more).lines[first].stands, LineStands::Over);
}

#[test]
fn what_was_mistyped_is_corrected_and_stays_readable() {
    let batch = ganache();
    let all = [
        at(0, "first", poured(0, 221.0)),
        at(5, "right", BatchEvent::Corrected { of: "event-first".into(), to: 212.0 }),
        at(6, "wrong", poured(1, 7.0)),
        at(7, "undo", BatchEvent::TakenBack { of: "event-wrong".into() }),
        at(8, "redo", BatchEvent::TakenBack { of: "event-undo".into() }),
        at(9, "again", BatchEvent::TakenBack { of: "event-redo".into() }),
    ];
    let state = fold(&batch, &all);
    assert_eq!((state.lines[0].in_g, state.lines[1].in_g), (212.0, 0.0));
    assert_eq!(fold(&batch, &all[..5]).lines[1].in_g, 7.0);
    let seen = view(&batch, &all);
    let first = seen.happened.iter().find(|own| own.id == "event-first").unwrap();
    assert!(first.words.contains("212 g") && first.was.as_ref().unwrap().contains("221 g"), "{first:?}");
    assert!(seen.happened.iter().find(|own| own.id == "event-wrong").unwrap().taken_back);
}

#[test]
fn what_cannot_be_is_said_at_its_place_and_not_kept() {
    let batch = ganache();
    let none = "no-such-step".to_owned();
    let gone = "event-gone".to_owned();
    let wrong = [
        (poured(0, 1e9), "grams"),
        (poured(0, -3.0), "grams"),
        (poured(0, f64::NAN), "grams"),
        (poured(99, 3.0), "line"),
        (BatchEvent::Read { c: -200.0, by: ReadBy::Device }, "c"),
        (BatchEvent::Begun { step: none }, "step"),
        (BatchEvent::TakenBack { of: gone.clone() }, "of"),
        (BatchEvent::Corrected { of: gone, to: 3.0 }, "of"),
        (BatchEvent::TimerSet { name: "Bloom".into(), min: 1e6 }, "min"),
        (BatchEvent::TimerOff { timer: "event-none".into() }, "timer"),
        (BatchEvent::Added { ingredient: "moon-dust".into(), grams: 3.0, why: String::new() }, "ingredient"),
        (BatchEvent::Decided { line: 0, way: OverWay::Scale, factor: None }, "factor"),
        (BatchEvent::Noted { words: "x".repeat(401) }, "words"),
        (BatchEvent::Closed {}, "what"),
    ];
    for (event, field) in wrong {
        let faults = refused(&batch, &[], &[at(0, "wrong", event.clone())], &shelf());
        assert_eq!(faults.len(), 1, "{event:?}: {faults:?}");
        assert_eq!(faults[0].field, format!("events.0.event.{field}"), "{event:?}");
        assert!(faults[0].message.len() > 12, "{faults:?}");
    }
    let negative = refused(&batch, &[], &[at(0, "wrong", poured(0, -3.0))], &shelf());
    assert!(negative[0].message.contains("less than nothing"), "{negative:?}");
}

#[test]
fn a_closed_batch_takes_nothing_more_until_its_closing_is_taken_back() {
    let batch = ganache();
    let mut all = made(&batch);
    all.push(at(90_000, "closed", BatchEvent::Closed {}));
    let late = at(90_060, "late", poured(0, 3.0));
    let faults = refused(&batch, &all, std::slice::from_ref(&late), &shelf());
    assert_eq!(faults[0].code, FaultCode::BatchClosed);
    // What a device said before, and is heard of only now, counts; the same once more is no new thing.
    assert_eq!(refused(&batch, &all, &[at(30, "before", poured(0, 0.1))], &shelf()), []);
    assert_eq!(refused(&batch, &all, &all[..1], &shelf()), []);
    let back = at(90_050, "back", BatchEvent::TakenBack { of: "event-closed".into() });
    all.push(back);
    assert_eq!(fold(&batch, &all).closed, None);
    assert_eq!(refused(&batch, &all, std::slice::from_ref(&late), &shelf()), []);
    // Nobody finishes what is thrown away.
    let thrown = [
        at(0, "thrown", BatchEvent::Judged { came: Came::Thrown, spoon: None, words: "scorched".into() }),
        at(1, "closed", BatchEvent::Closed {}),
    ];
    assert_eq!(refused(&batch, &[], &thrown, &shelf()), []);
}

/// Kinds of event that may come in any order.
fn any_event(lines: usize, steps: Vec<String>) -> impl Strategy<Value = BatchEvent> {
    let step = prop::sample::select(steps);
    let id = (0..60u32).prop_map(|id| format!("event-{id}"));
    prop_oneof![
        4 => (0..lines, 0.1..400.0).prop_map(|(line, grams)| poured(line, grams)),
        1 => (0..lines).prop_map(|line| BatchEvent::LineLeftOut { line, why: String::new() }),
        2 => step.clone().prop_map(|step| BatchEvent::Begun { step }),
        2 => step.prop_map(|step| BatchEvent::Done { step }),
        1 => (-20.0..120.0).prop_map(|c| BatchEvent::Read { c, by: ReadBy::Hand }),
        1 => (0..lines, 0.1..90.0).prop_map(|(line, grams)| BatchEvent::Lost {
            line: (line > 0).then_some(line), grams, why: String::new()
        }),
        1 => (0..lines).prop_map(|line| BatchEvent::Decided { line, way: OverWay::Leave, factor: None }),
        1 => (0.1..90.0).prop_map(|grams| BatchEvent::Added {
            ingredient: "milk".into(), grams, why: String::new()
        }),
        1 => (1.0..90.0).prop_map(|min| BatchEvent::TimerSet { name: "Set".into(), min }),
        1 => id.clone().prop_map(|timer| BatchEvent::TimerOff { timer }),
        1 => (id.clone(), 0.1..400.0).prop_map(|(of, to)| BatchEvent::Corrected { of, to }),
        2 => id.prop_map(|of| BatchEvent::TakenBack { of }),
    ]
}

fn any_history(batch: &BatchDocument) -> impl Strategy<Value = Vec<BatchEntry>> {
    let steps = batch.steps.iter().map(|own| own.key.clone()).collect();
    let one = (any_event(batch.formula.lines.len(), steps), 0..400i64);
    prop::collection::vec(one, 0..60).prop_map(|all| {
        let numbered = all.into_iter().enumerate();
        numbered.map(|(id, (event, second))| at(second, &id.to_string(), event)).collect()
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    /// Two devices, heard in any order, and what was sent twice: one state. Every prefix is a state, with nothing below nothing.
    #[test]
    fn whatever_order_events_come_in_there_is_one_state(
        (all, mixed, cut) in any_history(&ganache()).prop_flat_map(|all| {
            let mixed = Just(all.clone()).prop_shuffle();
            let cut = 0..=all.len();
            (Just(all), mixed, cut)
        })
    ) {
        let batch = ganache();
        let one = fold(&batch, &all);
        prop_assert_eq!(&fold(&batch, &mixed), &one);
        let twice: Vec<BatchEntry> = all.iter().chain(&mixed).cloned().collect();
        prop_assert_eq!(&fold(&batch, &twice), &one);
        let part = fold(&batch, &mixed[..cut]);
        prop_assert!(part.lines.iter().all(|own| own.in_g >= 0.0 && own.in_g.is_finite()));
        prop_assert_eq!((part.lines.len(), part.steps.len()), (batch.formula.lines.len(), batch.steps.len()));
        prop_assert!(part.steps.iter().all(|own| own.done.is_none() || own.begun.is_some()));
        prop_assert!(counting(&mixed).len() <= all.len());
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever happened, the batch can be looked at: what comes next is open, and what is open is named.
    #[test]
    fn whatever_happened_it_can_be_looked_at(all in any_history(&ganache())) {
        let batch = ganache();
        let seen = view(&batch, &all);
        prop_assert_eq!(&still_open(&batch, &all, &shelf()).unwrap(), &seen.open);
        prop_assert_eq!(seen.open.is_empty(), seen.line.is_none() && seen.step.is_none());
        prop_assert!(!seen.sentence.is_empty());
        if let Some(line) = seen.line {
            let stands = seen.lines[line].stands;
            prop_assert!(matches!(stands, LineStands::Open | LineStands::Short | LineStands::Over));
        }
    }
}

/// Of a step whose sign is the spoon's, the method's; of the one that brings it to its work, as worked out with what is in.
#[test]
fn the_spoon_shows_what_to_look_for() {
    for sign in [
        SpoonSign::ThinStream,
        SpoonSign::ThinRibbon,
        SpoonSign::FoldingRibbon,
        SpoonSign::SlowRope,
        SpoonSign::SoftDollop,
        SpoonSign::HoldsUpsideDown,
        SpoonSign::CleanCut,
    ] {
        let (yield_pa, viscosity_pa_s) = sign.typical();
        assert_eq!(SpoonSign::of(yield_pa, viscosity_pa_s), sign, "drawn as something else");
    }
    let batch = ganache();
    let seen = view(&batch, &made(&batch));
    let spoon = seen.spoon.clone().unwrap();
    let work_c = batch.formula.work.temperature_c.celsius();
    assert_eq!(spoon.at_c, Some(work_c));
    let to_work: Vec<_> = seen.steps.iter().filter(|own| own.look.is_some()).collect();
    assert!(!to_work.is_empty(), "nothing brings it to its work");
    for own in to_work {
        let [from, to] = own.own.temperature_c.unwrap();
        assert!((from..=to).contains(&work_c));
        assert_eq!(own.look.as_ref(), Some(&spoon));
    }
    let whipped = &starts(Family::WhippedCream)[0];
    let signs: Vec<SpoonSign> = begun(whipped, None).steps.iter().filter_map(|own| own.spoon).collect();
    assert!(!signs.is_empty(), "whipped cream is whipped to a peak");
}

/// A bowl is known by its name; weighed again it weighs that; at 0 the kitchen has it no more.
#[test]
fn a_bowl_is_known_by_its_name_until_it_is_gone() {
    let batch = ganache();
    let bowl = |second: i64, grams: f64| {
        let event = BatchEvent::Tared { grams, bowl: Some("Steel 24".to_owned()) };
        at(second, &format!("bowl-{second:04}"), event)
    };
    let mut all = vec![bowl(1, 412.0)];
    let known =
        |all: &[BatchEntry]| -> Vec<f64> { view(&batch, all).bowls.iter().map(|own| own.grams).collect() };
    assert_eq!(known(&all), [412.0]);
    all.push(bowl(2, 415.5));
    assert_eq!(known(&all), [415.5]);
    all.push(bowl(3, 0.0));
    assert!(known(&all).is_empty());
}
