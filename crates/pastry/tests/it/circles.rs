//! No files of a crate use each other in a circle: what is below never asks what is above.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

/// A crate's files by their module: "job::kind" is `src/job/kind.rs`, "" the root.
fn modules(src: &Path) -> BTreeMap<String, PathBuf> {
    let mut found = BTreeMap::new();
    let mut open = vec![src.to_owned()];
    while let Some(dir) = open.pop() {
        for entry in fs::read_dir(&dir).unwrap() {
            let path = entry.unwrap().path();
            if path.is_dir() {
                open.push(path);
            } else if path.extension().is_some_and(|ending| ending == "rs") {
                let name = path.strip_prefix(src).unwrap().with_extension("");
                let parts: Vec<_> = name.iter().map(|part| part.to_string_lossy().into_owned()).collect();
                let parts = match parts.last().map(String::as_str) {
                    Some("mod" | "lib") => &parts[..parts.len() - 1],
                    Some("main") => continue,
                    _ => &parts[..],
                };
                found.insert(parts.join("::"), path);
            }
        }
    }
    found
}

/// What a text names below `crate::`, groups in braces taken apart: "job::kind::Job".
fn named(text: &str, own: &str) -> BTreeSet<String> {
    let mut found = BTreeSet::new();
    for (head, base) in [("crate::", String::new()), ("super::", above(own)), ("self::", own.to_owned())] {
        for (at, _) in text.match_indices(head) {
            let boundary = text[..at].chars().next_back();
            if boundary.is_some_and(|before| before.is_alphanumeric() || before == '_' || before == ':') {
                continue;
            }
            branches(&text[at + head.len()..], &base, &mut found);
        }
    }
    found
}

fn above(module: &str) -> String {
    module.rsplit_once("::").map_or(String::new(), |(above, _)| above.to_owned())
}

fn join(base: &str, name: &str) -> String {
    if base.is_empty() { name.to_owned() } else { format!("{base}::{name}") }
}

/// Takes apart what stands behind `crate::`: names joined by colons, or a group in braces.
fn branches(text: &str, base: &str, found: &mut BTreeSet<String>) {
    let name: String = text.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect();
    let rest = &text[name.len()..];
    if let Some(group) = rest.strip_prefix('{').filter(|_| name.is_empty()) {
        let mut depth = 0;
        let mut start = 0;
        for (at, letter) in group.char_indices() {
            match letter {
                '{' => depth += 1,
                '}' if depth > 0 => depth -= 1,
                ',' | '}' if depth == 0 => {
                    branches(group[start..at].trim_start(), base, found);
                    start = at + 1;
                    if letter == '}' {
                        return;
                    }
                }
                _ => {}
            }
        }
        return;
    }
    if name.is_empty() {
        return;
    }
    let whole = join(base, &name);
    match rest.strip_prefix("::") {
        Some(more) => branches(more, &whole, found),
        None => _ = found.insert(whole),
    }
}

/// Without comments and without the tests at the end of a file.
fn code(path: &Path) -> String {
    let text = fs::read_to_string(path).unwrap();
    let text = text.split("#[cfg(test)]").next().unwrap_or_default();
    text.lines().filter(|line| !line.trim_start().starts_with("//")).collect::<Vec<_>>().join("\n")
}

/// Which file each file uses. A name that a `mod.rs` only passes on is that of the file that has it.
fn arrows(src: &Path) -> BTreeMap<String, BTreeSet<String>> {
    let modules = modules(src);
    let texts: BTreeMap<&String, String> = modules.iter().map(|(name, path)| (name, code(path))).collect();
    let mut passed_on: BTreeMap<String, String> = BTreeMap::new();
    for (module, text) in &texts {
        for (at, _) in text.match_indices("pub use ") {
            let from = text[at + "pub use ".len()..].split(';').next().unwrap_or_default();
            let mut found = BTreeSet::new();
            let from = from.trim_start_matches("self::");
            match from.strip_prefix("crate::") {
                Some(from) => branches(from, "", &mut found),
                None => branches(from, module, &mut found),
            }
            for whole in found {
                let name = whole.rsplit("::").next().unwrap_or_default().to_owned();
                passed_on.insert(join(module, &name), whole);
            }
        }
    }
    let home = |named: &str| {
        let mut named = named.to_owned();
        // Through as many doors as it takes.
        while let Some(next) = passed_on.get(&named).filter(|next| **next != named) {
            named.clone_from(next);
        }
        let mut place = named.as_str();
        loop {
            if modules.contains_key(place) {
                return place.to_owned();
            }
            match place.rsplit_once("::") {
                Some((above, _)) => place = above,
                None => return String::new(),
            }
        }
    };
    texts
        .iter()
        .map(|(module, text)| {
            // What a door passes on is no use of its own.
            let own: String =
                text.split(';').filter(|part| !part.contains("pub use ")).collect::<Vec<_>>().join(";");
            let uses =
                named(&own, module).into_iter().map(|named| home(&named)).filter(|used| used != *module);
            ((*module).clone(), uses.filter(|used| !used.is_empty()).collect())
        })
        .collect()
}

/// The files that reach themselves, by what each of them uses of the others.
fn circles(arrows: &BTreeMap<String, BTreeSet<String>>) -> Vec<String> {
    let reach = |from: &String| {
        let mut seen = BTreeSet::new();
        let mut open: Vec<&String> = arrows[from].iter().collect();
        while let Some(next) = open.pop() {
            if seen.insert(next.clone()) {
                open.extend(arrows.get(next).into_iter().flatten());
            }
        }
        seen
    };
    let reached: BTreeMap<&String, BTreeSet<String>> =
        arrows.keys().map(|from| (from, reach(from))).collect();
    let in_circle: Vec<&String> = arrows.keys().filter(|from| reached[*from].contains(*from)).collect();
    in_circle
        .iter()
        .flat_map(|from| {
            let back =
                arrows[*from].iter().filter(|to| reached.get(to).is_some_and(|seen| seen.contains(*from)));
            back.map(move |to| format!("{from} -> {to}"))
        })
        .collect()
}

#[test]
fn no_files_use_each_other_in_a_circle() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).ancestors().nth(2).unwrap();
    for (name, uses) in
        [("crates/plan", 15), ("crates/pastry", 400), ("crates/store", 20), ("crates/server", 40), ("e2e", 3)]
    {
        let arrows = arrows(&root.join(name).join("src"));
        let all = arrows.values().map(BTreeSet::len).sum::<usize>();
        assert!(all >= uses, "{name}: only {all} uses are read");
        let found = circles(&arrows);
        assert!(found.is_empty(), "{name} has circles:\n{}", found.join("\n"));
    }
}

#[test]
fn a_circle_is_found_through_a_door() {
    let dir = std::env::temp_dir().join(format!("circles-{}", std::process::id()));
    fs::create_dir_all(dir.join("a")).unwrap();
    fs::write(dir.join("lib.rs"), "pub mod a;\npub mod b;\n").unwrap();
    fs::write(dir.join("a/mod.rs"), "mod one;\nmod two;\npub use one::{One, first};\n").unwrap();
    fs::write(dir.join("a/one.rs"), "use crate::{b::{Bee, Wasp}};\npub struct One;\n").unwrap();
    fs::write(dir.join("a/two.rs"), "use super::one::One;\n// use crate::b::Bee;\n").unwrap();
    fs::write(dir.join("b.rs"), "use crate::a::One;\npub struct Bee;\n").unwrap();
    let arrows = arrows(&dir);
    fs::remove_dir_all(&dir).unwrap();
    assert_eq!(circles(&arrows), ["a::one -> b", "b -> a::one"]);
    assert_eq!(arrows["a::two"], BTreeSet::from(["a::one".to_owned()]));
}
