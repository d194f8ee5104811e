//! How long steps took, and what a kitchen's own minutes are then.

use jiff::{SignedDuration, Timestamp};
use pastry::assess::starts::starts;
use pastry::batch::took::{percentile, took, took_minutes};
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent};
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::method::listed::listed;
use pastry::method::step::Worker;

fn batch() -> BatchDocument {
    let ask = BatchAsk {
        formula: starts(Family::Ganache)[0].clone(),
        weigh_g: None,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: None,
    };
    BatchDocument::begin(ask, &Shelf::catalogue(), &[]).unwrap()
}

fn noon() -> Timestamp {
    "2026-10-05T12:00:00Z".parse().unwrap()
}

fn entry(id: usize, min: f64, event: BatchEvent) -> BatchEntry {
    let at = noon() + SignedDuration::from_secs((60.0 * min) as i64);
    BatchEntry { id: format!("event-{id:03}"), at, device: None, event }
}

#[test]
fn a_step_took_from_when_it_was_begun_until_it_was_done() {
    let batch = batch();
    let works: Vec<_> = batch.steps.iter().filter(|own| own.kind != Worker::Wait).collect();
    let (first, second) = (works[0], works[1]);
    let key = |own: &pastry::batch::BatchStep| own.key.clone();
    let long = first.minutes[1] * 1.5;
    let all = [
        entry(0, 0.0, BatchEvent::Begun { step: key(first) }),
        entry(1, 1.0, BatchEvent::Begun { step: key(first) }),
        entry(2, long, BatchEvent::Done { step: key(first) }),
        // Told late: nobody learns from it.
        entry(3, 20.0, BatchEvent::Begun { step: key(second) }),
        entry(4, 20.0 + 100.0 * second.minutes[1].max(1.0), BatchEvent::Done { step: key(second) }),
    ];
    let found = took(&batch, &all);
    assert_eq!(found.len(), 1, "{found:?}");
    assert_eq!(found[0].step, first.key);
    assert!((found[0].times - 1.5).abs() < 0.02, "{found:?}");
    // What was taken back was not said.
    let mut back = all.to_vec();
    back.push(entry(5, 30.0, BatchEvent::TakenBack { of: "event-002".to_owned() }));
    assert!(took(&batch, &back).is_empty());
    // Done without having been begun says nothing.
    assert!(took(&batch, &all[2..3]).is_empty());
}

/// The 80th percentile by its definition (nearest rank): the smallest value that at least eight in ten are no larger than.
#[test]
fn four_batches_in_five_took_no_longer() {
    assert_eq!(percentile(&[]), None);
    assert_eq!(percentile(&[3.0]), Some(3.0));
    assert_eq!(percentile(&[5.0, 1.0, 2.0, 4.0, 3.0]), Some(4.0));
    let hundred: Vec<f64> = (1..=100).rev().map(f64::from).collect();
    assert_eq!(percentile(&hundred), Some(80.0));
}

#[test]
fn after_five_batches_the_minutes_are_the_kitchens_own() {
    let schools = listed();
    let own = schools.iter().find(|own| own.steps.iter().any(|step| step.minutes[1] > 0.0)).unwrap();
    let step = own.steps.iter().find(|step| step.minutes[1] > 0.0).unwrap();
    let all = |many: usize| (0..many).map(|_| (own.school.clone(), step.step.clone(), 1.5));
    assert!(took_minutes(all(4)).is_empty());
    let found = took_minutes(all(5));
    assert_eq!((found.len(), found[0].batches), (1, 5));
    for at in 0..2 {
        assert!((found[0].own.minutes[at] - 1.5 * step.minutes[at]).abs() < 0.06, "{found:?}");
    }
    // Forty of the last ones, the newest first: what was longer ago is forgotten.
    let newer = all(40).chain((0..60).map(|_| (own.school.clone(), step.step.clone(), 3.0)));
    let found = took_minutes(newer);
    assert!((found[0].own.minutes[0] - 1.5 * step.minutes[0]).abs() < 0.06 && found[0].batches == 40);
    // A school that is no more says nothing.
    assert!(took_minutes((0..9).map(|_| ("gone".to_owned(), "pour".to_owned(), 1.0))).is_empty());
}
