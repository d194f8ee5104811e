//! What of some events cannot be taken, after others were: said in words, at its place, before any of them is kept.

use crate::batch::document::{BatchDocument, MOST_EVENTS};
use crate::batch::event::{
    BatchEntry, BatchEvent, Came, LONGEST_TIMER_MIN, LONGEST_WORDS, MOST_G, OverWay, READ_C,
};
use crate::batch::fold::{counting, fold};
use crate::batch::view::still_open;
use crate::fault::{Fault, FaultCode};
use crate::ingredient::Shelf;
use crate::number::limit;
use std::collections::{HashMap, HashSet};

/// What is wrong with new events of a batch, each at its place among them. Those that are kept already are not looked at again.
///
/// # Arguments
/// * `kept`: what happened before; `new`: what is to be added, in its order.
pub fn refused(batch: &BatchDocument, kept: &[BatchEntry], new: &[BatchEntry], shelf: &Shelf) -> Vec<Fault> {
    let mut known: HashMap<&str, &BatchEvent> =
        kept.iter().map(|own| (own.id.as_str(), &own.event)).collect();
    let there: HashSet<&str> = known.keys().copied().collect();
    let fresh: Vec<(usize, &BatchEntry)> =
        new.iter().enumerate().filter(|(_, own)| !there.contains(own.id.as_str())).collect();
    let mut faults = Vec::new();
    if kept.len() + fresh.len() > MOST_EVENTS {
        let words = format!("a batch has at most {MOST_EVENTS} events: close this one and begin another");
        faults.push(Fault::new("events", FaultCode::TooMany, words));
    }
    let before = fold(batch, kept);
    let closed = before.closed;
    let thrown = before.came.is_some_and(|(came, _)| came == Came::Thrown);
    for (at, entry) in &fresh {
        let mut own = faults_of(&entry.event, batch, shelf);
        own.extend(of_another(&entry.event, &known, batch, shelf));
        let says_of_another =
            matches!(entry.event, BatchEvent::TakenBack { .. } | BatchEvent::Corrected { .. });
        let afterwards = says_of_another || entry.event.happens_afterwards();
        let written_in = batch.made_at.is_some();
        if closed.is_some_and(|closed| entry.at > closed) && !afterwards && !written_in {
            let words = "this batch is closed: take its closing back, and go on";
            own.push(Fault::new("what", FaultCode::BatchClosed, words));
        }
        if thrown && matches!(entry.event, BatchEvent::Tested { .. }) {
            let words = "this batch was thrown away: test the one that was made instead of it";
            own.push(Fault::new("what", FaultCode::BatchClosed, words));
        }
        faults.extend(
            own.into_iter().map(|own| Fault { field: format!("events.{at}.event.{}", own.field), ..own }),
        );
        known.insert(&entry.id, &entry.event);
    }
    if !faults.is_empty() {
        return faults;
    }
    // A batch is closed with nothing left open, whoever closes it.
    let closing = fresh.iter().rev().find(|(_, own)| matches!(own.event, BatchEvent::Closed {}));
    if let Some((at, _)) = closing {
        let all: Vec<BatchEntry> = kept.iter().chain(fresh.iter().map(|own| own.1)).cloned().collect();
        let open = match counting(&all).iter().any(|own| matches!(own.event, BatchEvent::Closed {})) {
            true => still_open(batch, &all, shelf),
            false => Ok(Vec::new()),
        };
        match open {
            Ok(open) if open.is_empty() => {}
            Ok(open) => faults.push(Fault::new(
                format!("events.{at}.event.what"),
                FaultCode::BatchOpen,
                format!("something is open: {}", open.join(" ")),
            )),
            Err(own) => faults.extend(own),
        }
    }
    faults
}

/// What is wrong with an event that says something of another.
fn of_another(
    event: &BatchEvent,
    known: &HashMap<&str, &BatchEvent>,
    batch: &BatchDocument,
    shelf: &Shelf,
) -> Vec<Fault> {
    let one = |field: &str, words: &str| vec![Fault::new(field, FaultCode::OutOfRange, words)];
    match event {
        BatchEvent::TakenBack { of } if !known.contains_key(of.as_str()) => {
            one("of", "what is to be taken back is not here yet: send it first")
        }
        BatchEvent::Corrected { of, to } => match known.get(of.as_str()) {
            None => one("of", "what is to be corrected is not here yet: send it first"),
            Some(other) if !other.says_a_number() => one("of", "this says no number that could be another"),
            Some(other) => {
                let then = faults_of(&other.corrected(*to), batch, shelf);
                then.into_iter().map(|own| Fault { field: "to".to_owned(), ..own }).collect()
            }
        },
        BatchEvent::Counted { of, .. }
            if !known.get(of.as_str()).is_some_and(|own| matches!(own, BatchEvent::Tested { .. })) =>
        {
            one("of", "there is no such test: look at the batch again")
        }
        BatchEvent::TimerOff { timer }
            if !known.get(timer.as_str()).is_some_and(|own| matches!(own, BatchEvent::TimerSet { .. })) =>
        {
            one("timer", "there is no such clock: look at the batch again")
        }
        _ => Vec::new(),
    }
}

/// What is wrong with it by itself, at its field, whatever happened before: a number nobody can have read, a line or a step
/// that is not of the batch.
fn faults_of(event: &BatchEvent, batch: &BatchDocument, shelf: &Shelf) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut say = |field: &str, words: String| {
        faults.push(Fault::new(field, FaultCode::OutOfRange, words));
    };
    match event {
        BatchEvent::Weighed { grams, .. }
        | BatchEvent::Added { grams, .. }
        | BatchEvent::Lost { grams, .. }
            if !(*grams > 0.0 && *grams <= MOST_G) =>
        {
            say("grams", not_weighed(*grams));
        }
        BatchEvent::Tared { grams, .. } | BatchEvent::Yielded { grams } | BatchEvent::LeftOver { grams }
            if !(0.0..=MOST_G).contains(grams) =>
        {
            say("grams", not_weighed(*grams));
        }
        BatchEvent::Put { place } if place.trim().is_empty() => {
            say("place", "say where it stands: a fridge, a shelf".to_owned());
        }
        BatchEvent::Tested { c, .. } if !(READ_C[0]..=READ_C[1]).contains(c) => say("c", not_read(*c)),
        BatchEvent::Read { c, .. } if !(READ_C[0]..=READ_C[1]).contains(c) => say("c", not_read(*c)),
        BatchEvent::TimerSet { min, .. } if !(*min > 0.0 && *min <= LONGEST_TIMER_MIN) => {
            say("min", "a clock runs for up to 48 h: set it to less".to_owned());
        }
        BatchEvent::Decided { way: OverWay::Scale, factor, .. }
            if !factor.is_some_and(|own| (1.0..=10.0).contains(&own)) =>
        {
            say("factor", "say by how much the rest is made more: 1 to 10 times".to_owned());
        }
        BatchEvent::Corrected { to, .. } if !(READ_C[0]..=MOST_G).contains(to) => {
            say("to", not_weighed(*to));
        }
        _ => {}
    }
    if let Some(line) = event.line().filter(|own| *own >= batch.formula.lines.len()) {
        let words = format!("there is no line {}: pick one of the batch", line + 1);
        faults.push(Fault::new("line", FaultCode::NoSuchLine, words));
    }
    if let Some(step) = event.step().filter(|own| batch.steps.iter().all(|step| step.key != *own)) {
        let words = format!("“{}” is no step of this batch: look at it again", short(step));
        faults.push(Fault::new("step", FaultCode::OutOfRange, words));
    }
    if let BatchEvent::Added { ingredient, .. } = event
        && shelf.find(ingredient).is_none()
    {
        let words = format!("“{}” is not in the pantry: pick what went in", short(ingredient));
        faults.push(Fault::new("ingredient", FaultCode::UnknownIngredient, words));
    }
    if let BatchEvent::Tested { test, .. } = event {
        faults.extend(
            test.faults().into_iter().map(|own| Fault { field: format!("test.{}", own.field), ..own }),
        );
    }
    for (field, words) in event.texts() {
        if words.chars().count() > LONGEST_WORDS {
            faults.push(Fault::new(
                field,
                FaultCode::TooLong,
                format!("at most {LONGEST_WORDS} letters: shorten it"),
            ));
        }
    }
    faults
}

fn short(words: &str) -> String {
    words.chars().take(60).collect()
}

fn not_weighed(grams: f64) -> String {
    if grams < 0.0 {
        return format!("{} g is less than nothing: set the scale to 0 with the bowl on it", limit(grams));
    }
    if grams > 0.0 {
        return format!("no scale here weighs {} g: write grams, up to 200 kg", limit(grams));
    }
    "write how many grams went in".to_owned()
}

fn not_read(c: f64) -> String {
    format!("{} °C is nothing a probe reads here: see whether it is plugged in, and read it again", limit(c))
}
