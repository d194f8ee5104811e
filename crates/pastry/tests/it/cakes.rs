//! Cakes for checks: templates with a formula in every place, and a tall one.

use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::formula::Family;
use pastry::ingredient::Shelf;
use pastry::stack::check::finding::{FindingCode, Mend, Write};
use pastry::stack::{Finding, Known, StackAnswer, StackDocument, stack, templates};
use serde_json::{Value, json};
use std::collections::HashMap;

/// The starting formula of a family for a job.
pub fn start(family: Family, job: &str) -> FormulaDocument {
    let found = starts(family).iter().find(|start| start.work.job.word() == job);
    found.unwrap_or_else(|| panic!("no {} to {job}", family.word())).clone()
}

/// Formulas of a kitchen that has one for every place.
pub fn formulas() -> HashMap<String, FormulaDocument> {
    let named = |name: &str, family, job| {
        let mut document = start(family, job);
        document.name = name.to_owned();
        (name.to_owned(), document)
    };
    let mut loose = start(Family::Curd, "fill");
    loose.name = "loose".to_owned();
    let juice = loose.lines.iter_mut().find(|line| line.ingredient == "lemon").expect("a curd of lemon");
    juice.amount = "900 g".to_owned();
    HashMap::from([
        ("loose".to_owned(), loose),
        named("fill", Family::Ganache, "fill"),
        named("coat", Family::Buttercream, "mask"),
        named("mask", Family::Ganache, "mask"),
        named("drip", Family::Ganache, "drip"),
        named("soak", Family::Syrup, "soak"),
        named("pipe", Family::SwissButtercream, "pipe"),
        named("curd", Family::Curd, "fill"),
        named("mousse", Family::FruitMousse, "set"),
        named("jelly", Family::Jelly, "set"),
        named("glaze", Family::MirrorGlaze, "coat"),
        named("spoon", Family::WhippedCream, "spoon"),
    ])
}

/// What is known beside the catalogue.
pub fn with_known<T>(ask: impl FnOnce(&Known) -> T) -> T {
    let (formulas, shelf) = (formulas(), Shelf::catalogue());
    ask(&Known { formulas: &formulas, shelf: &shelf })
}

/// A cake worked out in a room of 21 °C.
pub fn worked_out(document: &StackDocument) -> StackAnswer {
    with_known(|known| stack(document, known, 21.0)).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// A template as it stands, no formula in it yet.
pub fn template(key: &str) -> StackDocument {
    templates().into_iter().find(|own| own.key == key).unwrap_or_else(|| panic!("no template {key}")).document
}

/// Every place of a document given a formula that suits it.
pub fn chosen(document: &StackDocument) -> StackDocument {
    let mut value = serde_json::to_value(document).unwrap();
    for tier in value["tiers"].as_array_mut().unwrap() {
        for layer in tier["layers"].as_array_mut().unwrap() {
            match (layer["kind"].as_str(), layer["task"].as_str()) {
                (Some("sponge"), _) if layer.get("soak").is_some() => {
                    layer["soak"]["component"] = json!("soak")
                }
                (Some("filling"), Some("set")) => layer["component"] = json!("mousse"),
                (Some("filling"), Some("spoon")) => layer["component"] = json!("spoon"),
                (Some("filling"), _) => layer["component"] = json!("fill"),
                _ => {}
            }
            if layer.get("dam").is_some() {
                layer["dam"]["component"] = json!("mask");
            }
            for insert in layer.get_mut("inserts").and_then(Value::as_array_mut).into_iter().flatten() {
                if insert.get("bake").is_none() {
                    insert["component"] = json!("jelly");
                }
            }
        }
        for (name, key) in [("crumb_coat", "coat"), ("coat", "coat"), ("glaze", "glaze"), ("drip", "drip")] {
            if tier.get(name).is_some() {
                tier[name]["component"] = json!(key);
            }
        }
        if tier.get("case").is_some_and(|case| case.get("film").is_some()) {
            tier["case"]["film"]["component"] = json!("fill");
        }
        if tier.get("many").is_some_and(|many| many.get("pile").is_some()) {
            tier["many"]["pile"]["component"] = json!("soak");
        }
        for name in ["borders", "rosettes"] {
            for own in tier.get_mut(name).and_then(Value::as_array_mut).into_iter().flatten() {
                own["component"] = json!("pipe");
            }
        }
    }
    serde_json::from_value(value).unwrap()
}

/// A document with another value at a JSON pointer.
pub fn with(document: &StackDocument, pointer: &str, value: Value) -> StackDocument {
    let mut whole = serde_json::to_value(document).unwrap();
    *whole.pointer_mut(pointer).unwrap_or_else(|| panic!("nothing at {pointer}")) = value;
    serde_json::from_value(whole).unwrap()
}

/// A document with what a path of the page names written, or taken away: as its button does.
pub fn written(document: &StackDocument, path: &str, value: Option<&Value>) -> StackDocument {
    let mut whole = serde_json::to_value(document).unwrap();
    let (parent, last) = path.rsplit_once('.').unwrap_or(("", path));
    let pointer = if parent.is_empty() { String::new() } else { format!("/{}", parent.replace('.', "/")) };
    let inside = whole.pointer_mut(&pointer).unwrap_or_else(|| panic!("nothing at {pointer}"));
    match (inside, value) {
        (Value::Array(all), Some(value)) => all[last.parse::<usize>().unwrap()] = value.clone(),
        (inside, Some(value)) => inside[last] = value.clone(),
        (inside, None) => {
            inside.as_object_mut().unwrap().remove(last);
        }
    }
    serde_json::from_value(whole).unwrap()
}

/// A document with everything written that a mend writes.
pub fn mended(document: &StackDocument, mend: &Mend) -> StackDocument {
    let one = |own: StackDocument, write: &Write| written(&own, &write.path, write.value.as_ref());
    mend.writes.iter().fold(document.clone(), one)
}

/// The finding of a code, or none.
pub fn found(answer: &StackAnswer, code: FindingCode) -> Option<&Finding> {
    answer.findings.iter().find(|finding| finding.code == code)
}

/// Five tiers of twelve places each.
pub fn tall() -> StackDocument {
    let mut document = chosen(&template("tiers"));
    let tier = document.tiers[0].clone();
    document.tiers = (0..5)
        .map(|at| {
            let mut own = tier.clone();
            own.body = pastry::stack::Body::Round { diameter_mm: 400.0 - 60.0 * f64::from(at) };
            own
        })
        .collect();
    document
}
