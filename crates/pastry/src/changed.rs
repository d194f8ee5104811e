//! What changed between two states of a document, in a cook's words: what was written, what went in and out.
//!
//! It looks at the documents as they are written, so that it knows every kind of them, also one that comes later.

use crate::field::{unit, way};
use serde_json::{Map, Value};

/// Most changes told; the rest are counted.
pub const MOST_TOLD: usize = 12;
/// Longest text told whole, letters.
const LONG: usize = 60;

/// Fields that name another thing by its key.
const NAMES: [&str; 4] = ["ingredient", "component", "bake", "percent_of"];

/// What changed, largest place first; nothing when they are the same. `name` knows what a key is called, for those
/// fields that name an ingredient or a formula by its key.
pub fn changed(before: &Value, after: &Value, name: &dyn Fn(&str) -> Option<String>) -> Vec<String> {
    let mut told = Vec::new();
    Looking { name, told: &mut told }.at("", before, after);
    if told.len() > MOST_TOLD {
        let more = told.len() - (MOST_TOLD - 1);
        told.truncate(MOST_TOLD - 1);
        told.push(format!("and {more} more"));
    }
    told
}

struct Looking<'a> {
    name: &'a dyn Fn(&str) -> Option<String>,
    told: &'a mut Vec<String>,
}

fn below(path: &str, name: &str) -> String {
    if path.is_empty() { name.to_owned() } else { format!("{path}.{name}") }
}

/// Whether a list is one of lines: an ingredient and how much of it.
fn is_line(value: &Value) -> bool {
    value["ingredient"].is_string() && value["amount"].is_string()
}

impl Looking<'_> {
    fn at(&mut self, path: &str, before: &Value, after: &Value) {
        if before == after {
            return;
        }
        match (before, after) {
            (Value::Object(before), Value::Object(after)) => self.fields(path, before, after),
            (Value::Array(before), Value::Array(after))
                if before.iter().chain(after).all(is_line) && !(before.is_empty() && after.is_empty()) =>
            {
                self.lines(path, before, after);
            }
            (Value::Array(before), Value::Array(after)) => self.list(path, before, after),
            _ => self.value(path, before, after),
        }
    }

    fn fields(&mut self, path: &str, before: &Map<String, Value>, after: &Map<String, Value>) {
        // By their names, those that went last.
        for (name, now) in after {
            self.at(&below(path, name), before.get(name).unwrap_or(&Value::Null), now);
        }
        for (name, was) in before.iter().filter(|(name, _)| !after.contains_key(*name)) {
            self.at(&below(path, name), was, &Value::Null);
        }
    }

    /// Lines by what they are of: a line that moved did not change.
    fn lines(&mut self, path: &str, before: &[Value], after: &[Value]) {
        let place = way(path.strip_suffix("lines").unwrap_or(path).trim_end_matches('.'));
        let place = if place.is_empty() { place } else { format!("{place}: ") };
        let mut left: Vec<Option<&Value>> = before.iter().map(Some).collect();
        for now in after {
            let said = self.named(&now["ingredient"]);
            let same = |own: &Option<&Value>| own.is_some_and(|own| own["ingredient"] == now["ingredient"]);
            // Of two lines of one thing, the one that is as it was stays what it was.
            let at = left.iter().position(|own| *own == Some(now)).or_else(|| left.iter().position(same));
            let Some(was) = at.and_then(|at| left[at].take()) else {
                self.told.push(format!("{place}{said} {} added", text(&now["amount"])));
                continue;
            };
            if was["amount"] != now["amount"] {
                let (was, now) = (text(&was["amount"]), text(&now["amount"]));
                self.told.push(format!("{place}{said} {was}, now {now}"));
            }
            let rest = |line: &Value| {
                let mut line = line.clone();
                if let Some(fields) = line.as_object_mut() {
                    fields.remove("amount");
                }
                line
            };
            if rest(was) != rest(now) {
                let mut own = Vec::new();
                Looking { name: self.name, told: &mut own }.at("", &rest(was), &rest(now));
                self.told.extend(own.into_iter().map(|words| format!("{place}{said}: {words}")));
            }
        }
        for was in left.into_iter().flatten() {
            let said = self.named(&was["ingredient"]);
            self.told.push(format!("{place}{said} {} left out", text(&was["amount"])));
        }
    }

    /// A list of other things: what is the same at both ends stays, between them one by one.
    fn list(&mut self, path: &str, before: &[Value], after: &[Value]) {
        let head = before.iter().zip(after).take_while(|(was, now)| was == now).count();
        let tail = (before[head..].iter().rev().zip(after[head..].iter().rev()))
            .take_while(|(was, now)| was == now)
            .count();
        let (was, now) = (&before[head..before.len() - tail], &after[head..after.len() - tail]);
        if was.iter().chain(now).all(|value| !value.is_object()) && was.len() != now.len() {
            self.value(path, &Value::Array(before.to_vec()), &Value::Array(after.to_vec()));
            return;
        }
        for (k, pair) in was.iter().zip(now).enumerate() {
            self.at(&format!("{path}.{}", head + k), pair.0, pair.1);
        }
        for k in now.len()..was.len() {
            self.told.push(format!("{} left out", way(&format!("{path}.{}", head + k))));
        }
        for k in was.len()..now.len() {
            self.told.push(format!("{} added", way(&format!("{path}.{}", head + k))));
        }
    }

    fn value(&mut self, path: &str, before: &Value, after: &Value) {
        let (place, unit) = (way(path), unit(path));
        let by_key = NAMES.contains(&path.rsplit('.').next().unwrap_or_default());
        let say = |value: &Value| match value {
            Value::String(_) if by_key => Some(self.named(value)),
            Value::Number(_) => Some(format!("{}{unit}", text(value))),
            Value::Bool(yes) => Some(if *yes { "yes" } else { "no" }.to_owned()),
            Value::String(words) if words.chars().count() <= LONG && !words.is_empty() => {
                Some(words.replace('_', " "))
            }
            Value::Array(all) if all.len() <= 6 && all.iter().all(Value::is_string) && !all.is_empty() => {
                Some(all.iter().map(text).collect::<Vec<_>>().join(", "))
            }
            _ => None,
        };
        let empty = |value: &Value| match value {
            Value::Null => true,
            Value::String(words) => words.is_empty(),
            Value::Array(all) => all.is_empty(),
            _ => false,
        };
        self.told.push(match (say(before), say(after)) {
            (Some(was), Some(now)) => format!("{place} {was}, now {now}"),
            (None, Some(now)) if empty(before) => format!("{place} {now}"),
            _ if empty(before) => format!("{place} written"),
            _ if empty(after) => format!("{place} taken out"),
            _ => format!("{place} changed"),
        });
    }

    /// What a key is called; the key when nobody knows.
    fn named(&self, key: &Value) -> String {
        let key = text(key);
        (self.name)(&key).unwrap_or(key)
    }
}

/// A value as it is read: a whole number without its ".0".
fn text(value: &Value) -> String {
    match value {
        Value::String(words) => words.clone(),
        Value::Number(number) => {
            number.as_f64().map_or_else(|| number.to_string(), |number| number.to_string())
        }
        other => other.to_string(),
    }
}
