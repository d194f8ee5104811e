//! The invented kitchen: one pastry room, its own creams and ingredients, in a throwaway file.

mod bench;
pub mod history;

use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Span, Timestamp};
use pastry::assess::FormulaDocument;
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent, ReadBy, look};
use pastry::day::KitchenDocument;
use pastry::exchange::bring;
use pastry::exchange::pantry::{Reading, from_csv};
use pastry::ingredient::Shelf;
use pastry::ingredient::key::named_in;
use pastry::order::OrderDocument;
use pastry::stack::Known;
use pastry::units::RoomTemperature;
use rust_embed::RustEmbed;
use serde_json::Value;
use std::collections::HashMap;
use store::journal::NewEvent;
use store::list::Place;
use store::noun::{BATCH, COMPONENT};
use store::room::THE_ROOM;
use store::{By, Device, SaveId, Store, StoreError};
use uuid::Uuid;

/// The first day on which one of the invented orders leaves, as they are written: a Thursday.
const FIRST_LEAVES: Date = jiff::civil::date(2026, 12, 3);
/// Days there are at least to make it.
const DAYS_BEFORE: i64 = 3;

#[derive(RustEmbed)]
#[folder = "demo"]
struct Files;

fn text(name: &str) -> String {
    let file = Files::get(name).expect("the demo kitchen is inside the program");
    String::from_utf8_lossy(&file.data).into_owned()
}

/// Names of the formula files, without ending, in order.
fn names() -> Vec<String> {
    let mut names: Vec<String> = Files::iter()
        .filter(|name| !name.contains('/'))
        .filter_map(|name| name.strip_suffix(".json").map(str::to_owned))
        .collect();
    names.sort();
    names
}

/// The shelf of the invented kitchen: its own ingredients over the catalogue.
fn shelf() -> Shelf {
    Shelf::catalogue().with(&ingredients().good)
}

/// The invented creams by the names of their files, in that order; what is made here is named by the file it is in.
///
/// # Errors
/// When a file is no formula; the tests read them all.
fn written() -> Result<Vec<(String, FormulaDocument)>, serde_json::Error> {
    names()
        .into_iter()
        .map(|name| {
            let document = serde_json::from_str(&text(&format!("{name}.json")))?;
            Ok((name, document))
        })
        .collect()
}

/// The invented creams, in the order of their files, each with the components that it is made of.
///
/// # Errors
/// When a file is no formula; the tests read them all.
pub fn documents() -> Result<Vec<FormulaDocument>, serde_json::Error> {
    let all = written()?;
    let formulas: HashMap<String, FormulaDocument> = all.iter().cloned().collect();
    let shelf = shelf();
    let known = Known { formulas: &formulas, shelf: &shelf };
    Ok(all
        .into_iter()
        .map(|(_, document)| FormulaDocument {
            components: bring::formula(&document, &known).components,
            ..document
        })
        .collect())
}

/// The invented orders: their places name components by the file of the formula, which `key` turns into the key
/// it was saved under.
///
/// # Errors
/// When a file is no order; the tests read them all.
pub fn orders(key: impl Fn(&str) -> Option<String>) -> Result<Vec<OrderDocument>, serde_json::Error> {
    let mut names: Vec<String> =
        Files::iter().filter(|name| name.starts_with("orders/")).map(|name| name.into_owned()).collect();
    names.sort();
    names
        .iter()
        .map(|name| {
            let mut value: Value = serde_json::from_str(&text(name))?;
            rename(&mut value, &key);
            serde_json::from_value(value)
        })
        .collect()
}

/// Every component named in a document, by its other key.
fn rename(value: &mut Value, key: &impl Fn(&str) -> Option<String>) {
    match value {
        Value::Object(fields) => {
            for (name, own) in fields.iter_mut() {
                match own.as_str().filter(|_| name == "component").and_then(key) {
                    Some(other) => *own = other.into(),
                    None => rename(own, key),
                }
            }
        }
        Value::Array(all) => all.iter_mut().for_each(|own| rename(own, key)),
        _ => {}
    }
}

/// The ingredients of the kitchen's own.
pub fn ingredients() -> Reading {
    from_csv(&text("pantry.csv")).expect("the demo pantry is a table of ingredients")
}

/// Tags by the name of the formula file.
fn tags() -> HashMap<String, Vec<String>> {
    text("library.csv")
        .lines()
        .skip(1)
        .filter_map(|line| line.split_once(','))
        .map(|(file, tags)| (file.to_owned(), tags.split(';').map(str::to_owned).collect()))
        .collect()
}

/// The pastry room.
///
/// # Errors
/// When the file is no kitchen; the tests read it.
pub fn room() -> Result<KitchenDocument, serde_json::Error> {
    serde_json::from_str(&text("kitchen/room.json"))
}

/// By how much orders are moved on a day.
fn later(today: Date) -> Span {
    let days = (today - FIRST_LEAVES).get_days() as i64 + DAYS_BEFORE;
    Span::new().weeks(days.div_euclid(7) + i64::from(days.rem_euclid(7) > 0))
}

/// Fills an empty store. `now` dates the newest; the others are a day older each.
///
/// # Errors
/// When the file fails.
pub async fn fill(store: &Store, now: Timestamp) -> Result<(), StoreError> {
    let by = By::at(now).on(Device::read("Office computer"));
    let mut kitchen = store.kitchen().await?;
    kitchen.name = "Lantern Street pastry room".to_owned();
    kitchen.room_temperature_c = RoomTemperature::from_celsius(21.5);
    store.save_kitchen(&kitchen, &by).await?;
    let own: Vec<_> =
        ingredients().good.into_iter().map(|document| (document.key.clone(), document, 0)).collect();
    store.save_all(&own, &by).await?;
    let tags = tags();
    let written = written()?;
    // Keys first: what goes into others is named by them.
    let keys: HashMap<String, String> =
        written.iter().map(|(name, _)| (name.clone(), Uuid::now_v7().to_string())).collect();
    for (days, (name, mut document)) in written.into_iter().enumerate() {
        for line in &mut document.lines {
            if let Some((file, key)) = named_in(&line.ingredient).and_then(|file| keys.get_key_value(file)) {
                line.ingredient = line.ingredient.replace(file.as_str(), key);
            }
        }
        let saved_at = now - SignedDuration::from_hours(24 * days as i64);
        let then = By { now: saved_at, ..by.clone() };
        let id = store.create(&keys[&name], &document, &then).await?.id;
        if let Some(tags) = tags.get(&name) {
            store.place(COMPONENT, &id, &Place { tags: Some(tags.clone()), archived: false }, &then).await?;
        }
    }
    history::write(store, now, |name| keys.get(name).cloned()).await?;
    store.create(THE_ROOM, &room()?, &by).await?;
    let today = TimeZone::UTC.to_datetime(now).date();
    for mut document in orders(|name| keys.get(name).cloned())? {
        // Written for one week: moved by whole weeks, so that they are always about to be made, each on its day of the week.
        let later = later(today);
        document.served_at = document.served_at.map(|when| when.saturating_add(later));
        document.made_on = document.made_on.map(|day| day.saturating_add(later));
        store.create(&Uuid::now_v7().to_string(), &document, &by).await?;
    }
    if let Some(drip) = keys.get(IN_HAND) {
        begin(store, drip, now).await?;
    }
    Ok(())
}

/// The file of the formula of which a batch is being made.
const IN_HAND: &str = "01-bay-milk-drip";
/// Most that happened to it.
const MOST_IN_HAND: usize = 20;
/// How much of it, g.
const IN_HAND_G: f64 = 324.0;

/// A batch in the middle of its weighing: what comes before its second largest line is in, and most of that.
async fn begin(store: &Store, component: &str, now: Timestamp) -> Result<(), StoreError> {
    let kept = store.read::<FormulaDocument>(component, None).await?;
    let shelf = store.shelf(kept.document.ingredient_keys()).await?;
    let ask = BatchAsk {
        formula: kept.document,
        weigh_g: Some(IN_HAND_G),
        component: Some(component.to_owned()),
        revision: Some(kept.revision),
        made_for: Vec::new(),
        made_at: None,
    };
    let batch = BatchDocument::begin(ask, &shelf, &[]).expect("the demo formula can be made");
    let by = By::at(now - SignedDuration::from_mins(25)).on(Device::read("Mixer tablet"));
    let id = store.create(&Uuid::now_v7().to_string(), &batch, &by).await?.id;
    let seen = |entries: &[BatchEntry]| look(&batch, entries, &shelf).expect("the demo formula can be made");
    let first = seen(&[]);
    let mut marks: Vec<(usize, f64)> = first.lines.iter().map(|own| (own.line, own.band.mark_g)).collect();
    marks.sort_by(|a, b| b.1.total_cmp(&a.1));
    let in_hand = marks.get(1).map_or(0, |own| own.0);
    let mut poured: Vec<BatchEvent> = Vec::new();
    let mut entries: Vec<BatchEntry> = Vec::new();
    // What comes next is done, until that line is the next: of it, most goes in.
    while poured.len() < MOST_IN_HAND {
        let now_is = seen(&entries);
        let part = |line: usize, share: f64| {
            let grams = (10.0 * share * now_is.lines[line].band.mark_g).round() / 10.0;
            BatchEvent::Weighed { line, grams, by: ReadBy::Hand, lot: None }
        };
        let event = match (now_is.line, now_is.step) {
            (Some(line), _) => part(line, if line == in_hand { 0.775 } else { 1.0 }),
            (None, Some(step)) => BatchEvent::Done { step: batch.steps[step].key.clone() },
            (None, None) => break,
        };
        let id = format!("demo-part-{}", poured.len());
        entries.push(BatchEntry { id, at: now, device: None, event: event.clone() });
        poured.push(event);
        if now_is.line == Some(in_hand) {
            break;
        }
    }
    let many = i64::try_from(poured.len()).unwrap_or(0);
    for (minutes, event) in (1..=many).rev().zip(poured) {
        let then = now - SignedDuration::from_mins(minutes);
        let id_of = SaveId::read(&format!("demo-{minutes}-min-ago")).expect("it is an id");
        let new = NewEvent { id: id_of, at: then, event };
        store.append(BATCH, &id, &[new], &By { now: then, ..by.clone() }).await?;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    #[test]
    fn orders_stay_on_their_day_of_the_week_and_ahead() {
        for day in 0..400 {
            let today = date(2026, 11, 20).saturating_add(Span::new().days(day));
            let first = FIRST_LEAVES.saturating_add(later(today));
            assert_eq!(first.weekday(), FIRST_LEAVES.weekday());
            let ahead = (first - today).get_days();
            assert!((3..=9).contains(&ahead), "{today}: {ahead} days ahead");
        }
    }
}
