//! A plan as a calendar (RFC 5545): an event for every step of hands and for every order that leaves. Times are in UTC. The same step
//! keeps its id over all versions of the plan; what was planned once and is no more is cancelled.

use icalendar::{Alarm, Calendar, Component, Event, EventLike, EventStatus, Property};
use jiff::Timestamp;
use pastry::day::{DayView, PlanDocument, view};
use std::collections::BTreeMap;
use store::plan::Plan;

/// Ahead of a step for which something comes out of the cold, or that begins a stretch of work, min.
const AHEAD_MIN: i64 = 10;
/// A gap before a step after which it is told of, min.
const GAP_MIN: i32 = 15;

/// What an event says.
struct Entry {
    begins: Timestamp,
    lasts_min: Option<i32>,
    title: String,
    words: String,
    alarm: bool,
}

fn stamp(moment: Timestamp) -> String {
    moment.strftime("%Y%m%dT%H%M%SZ").to_string()
}

fn entries(plan: &PlanDocument, seen: &DayView) -> BTreeMap<String, Entry> {
    let days = plan.days();
    let keys = plan.step_keys();
    let mut all = BTreeMap::new();
    for step in seen.steps.iter().filter(|step| step.hands) {
        let Some(begins) = step.begins else { continue };
        let order = seen.orders.get(step.order).map_or("", |own| own.name.as_str());
        let cook = step.cook.and_then(|cook| seen.cooks.get(cook)).map(|own| own.name.as_str());
        let out = seen.waits.iter().filter(|wait| wait.to == step.step && wait.place.is_some());
        let outs: Vec<String> = out
            .filter_map(|wait| {
                let place = wait.place.as_deref()?;
                let last = wait.not_after.map(|at| days.wall(at).strftime("%a %H:%M").to_string());
                let by = last.map_or_else(String::new, |by| format!(", by {by} at the latest"));
                Some(format!("{} out of the {place}{by}", wait.of))
            })
            .collect();
        let busy = seen.steps.iter().filter(|own| own.cook == step.cook && own.step != step.step);
        let before = busy.filter_map(|own| Some(own.begins? + own.lasts)).filter(|end| *end <= begins).max();
        let gap = before.is_none_or(|end| begins - end >= GAP_MIN);
        let mut words =
            vec![step.what.join("; "), step.batch.clone().unwrap_or_else(|| format!("For {order}"))];
        words.extend(cook.map(|cook| format!("By {cook}")));
        let alarm = gap || !outs.is_empty();
        words.extend(outs);
        all.insert(
            keys[step.step].clone(),
            Entry {
                begins: days.moment(begins),
                lasts_min: Some(step.lasts),
                title: format!("{} {}: {}", step.letters, step.of, step.short),
                words: words.join("\n"),
                alarm,
            },
        );
    }
    for step in plan.problem.steps.iter().filter(|step| step.kind == plan::problem::Kind::Serve) {
        let Some(own) = seen.orders.get(step.order) else { continue };
        all.insert(
            keys[step.id].clone(),
            Entry {
                begins: days.moment(own.serve),
                lasts_min: None,
                title: format!("{} {} leaves", own.letter, own.name),
                words: own.words.clone(),
                alarm: true,
            },
        );
    }
    all
}

fn event(key: &str, own: &Entry, plan: &Plan) -> Event {
    let mut event = Event::new();
    event.uid(&format!("{key}@{}.bright-spoon", plan.id));
    let saved = plan.saved_at.parse::<Timestamp>().unwrap_or(own.begins);
    event.append_property(Property::new("DTSTAMP", stamp(saved)));
    event.append_property(Property::new("DTSTART", stamp(own.begins)));
    if let Some(minutes) = own.lasts_min {
        event.append_property(Property::new("DURATION", format!("PT{minutes}M")));
    }
    event.append_property(Property::new("SEQUENCE", plan.newest_revision.to_string()));
    event.summary(&own.title);
    event.description(&own.words);
    event
}

/// The calendar of a plan.
///
/// # Arguments
/// * `history`: its versions, the newest first.
pub fn calendar(history: &[Plan]) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(Property::new("VERSION", "2.0"));
    calendar.append_property(Property::new("PRODID", "-//Bright Spoon//Day//EN"));
    calendar.append_property(Property::new("CALSCALE", "GREGORIAN"));
    calendar.append_property(Property::new("METHOD", "PUBLISH"));
    let Some(newest) = history.first() else { return folded(&calendar.to_string()) };
    let stands = entries(&newest.document, &view(&newest.document));
    for (key, own) in &stands {
        let mut event = event(key, own, newest);
        event.status(EventStatus::Confirmed);
        if own.alarm {
            let mut alarm = Alarm::display(&own.title, -chrono::Duration::minutes(AHEAD_MIN));
            // The same calendar twice is the same text.
            alarm.uid(&format!("{key}@{}.alarm.bright-spoon", newest.id));
            let saved = newest.saved_at.parse::<Timestamp>().unwrap_or(own.begins);
            alarm.append_property(Property::new("DTSTAMP", stamp(saved)));
            event.alarm(alarm);
        }
        calendar.push(event);
    }
    let since = newest.document.days().moment(0);
    let mut gone: BTreeMap<String, Event> = BTreeMap::new();
    for before in &history[1..] {
        for (key, own) in entries(&before.document, &view(&before.document)) {
            if own.begins >= since && !stands.contains_key(&key) && !gone.contains_key(&key) {
                let mut event = event(&key, &own, newest);
                event.status(EventStatus::Cancelled);
                gone.insert(key, event);
            }
        }
    }
    gone.into_values().for_each(|event| {
        calendar.push(event);
    });
    folded(&calendar.to_string())
}

/// Longest line, octets without its end (RFC 5545, 3.1).
const LONGEST: usize = 75;

/// Lines folded anew: a space that goes on counts too.
fn folded(text: &str) -> String {
    let mut all = String::with_capacity(text.len());
    for line in text.replace("\r\n ", "").split_terminator("\r\n") {
        let mut octets = 0;
        for letter in line.chars() {
            if octets + letter.len_utf8() > LONGEST {
                all.push_str("\r\n ");
                octets = 1;
            }
            all.push(letter);
            octets += letter.len_utf8();
        }
        all.push_str("\r\n");
    }
    all
}
