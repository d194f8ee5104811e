//! Keys of own ingredients.

/// What the key of an own ingredient begins with: it never hides one of the catalogue.
pub const OWN: &str = "own-";

/// Whether a key is that of a kitchen's own ingredient.
pub fn is_own(key: &str) -> bool {
    key.starts_with(OWN)
}

/// What the key of something made here begins with: the key of its component stands behind it, and `@` with the revision it
/// is held at.
pub const MADE: &str = "made-";

/// What the key of that begins with which comes beside something made here: the syrup its fruit was drained of.
pub const BESIDE: &str = "beside-";

/// What a key names of what is made here: a component, with `@` and the revision it is held at. None for what is bought.
pub fn named_in(key: &str) -> Option<&str> {
    key.strip_prefix(MADE).or_else(|| key.strip_prefix(BESIDE))
}

/// The component a key names, and the revision it is held at; none when it is not that of something made here.
pub fn component_of(key: &str) -> Option<(&str, Option<i64>)> {
    named_in(key).map(held)
}

/// What is named of what is made here: the component, and the revision it is held at.
pub fn held(named: &str) -> (&str, Option<i64>) {
    match named.split_once('@') {
        None => (named, None),
        // A revision that is no number is part of a key that nothing has.
        Some((component, revision)) => match revision.parse() {
            Ok(revision) => (component, Some(revision)),
            Err(_) => (named, None),
        },
    }
}

/// The key by which a line names a component, at its newest revision or held at one.
pub fn made_key(component: &str, revision: Option<i64>) -> String {
    match revision {
        None => format!("{MADE}{component}"),
        Some(revision) => format!("{MADE}{component}@{revision}"),
    }
}

/// A key made of a name: "Meadow cream 38 %" becomes `own-meadow-cream-38`.
pub fn key_for(name: &str) -> String {
    let plain = deunicode::deunicode(name).to_lowercase();
    let mut key = String::from(OWN);
    for word in plain.split(|c: char| !c.is_ascii_alphanumeric()).filter(|word| !word.is_empty()) {
        if key.len() + word.len() > 52 {
            break;
        }
        if !key.ends_with('-') {
            key.push('-');
        }
        key.push_str(word);
    }
    if key.len() == OWN.len() { key + "ingredient" } else { key }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_made_here_is_named_at_its_newest_or_held() {
        for (component, revision) in [("daily", None), ("daily", Some(3)), ("0198-ab", Some(12))] {
            assert_eq!(component_of(&made_key(component, revision)), Some((component, revision)));
        }
        assert_eq!(component_of("made-daily@x"), Some(("daily@x", None)));
        assert_eq!(component_of("beside-daily@3"), Some(("daily", Some(3))));
        assert_eq!(component_of("own-daily"), None);
    }

    #[test]
    fn a_name_in_any_script_makes_a_key() {
        assert_eq!(key_for("Crème double 45 %"), "own-creme-double-45");
        assert_eq!(key_for("  "), "own-ingredient");
    }
}
