//! Keys of own ingredients.

/// What the key of an own ingredient begins with: it never hides one of the catalogue.
pub const OWN: &str = "own-";

/// Whether a key is that of a kitchen's own ingredient.
pub fn is_own(key: &str) -> bool {
    key.starts_with(OWN)
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
    fn a_name_in_any_script_makes_a_key() {
        assert_eq!(key_for("Crème double 45 %"), "own-creme-double-45");
        assert_eq!(key_for("  "), "own-ingredient");
    }
}
