//! Fields of documents in a cook's words: the unit a name carries, and where a field stands.
//!
//! One dialect for all: a path is the names and numbers on the way to a field, joined by dots, numbers from 0:
//! `tiers.1.body.diameter_mm`. To a cook that is "diameter of tier 2", in mm.

/// Endings of a field's name that tell its unit, and the unit as it is written behind a number.
const UNITS: [(&str, &str); 13] = [
    ("_mm", " mm"),
    ("_cm", " cm"),
    ("_c", " °C"),
    ("_g", " g"),
    ("_ml", " ml"),
    ("_percent", " %"),
    ("_min", " min"),
    ("_h", " h"),
    ("_pa", " Pa"),
    ("_cm2", " cm²"),
    ("_pa_s", " Pa·s"),
    ("_s", " s"),
    ("_n", " N"),
];

/// Lists of a document and what one of each is called.
const LISTS: [(&str, &str); 12] = [
    ("tiers", "tier"),
    ("cakes", "cake"),
    ("lines", "line"),
    ("bakes", "bake"),
    ("layers", "layer"),
    ("inserts", "insert"),
    ("borders", "border"),
    ("rosettes", "rosettes"),
    ("pieces", "pieces"),
    ("components", "formula"),
    ("ingredients", "ingredient"),
    ("weights", "weight"),
];

/// Names on the way that say nothing to a cook: what is below them is spoken of as if it stood one higher.
const SILENT: [&str; 5] = ["document", "stack", "body", "work", "process"];

/// The last name in a path: the field itself, without the numbers behind it.
fn own(field: &str) -> &str {
    field.rsplit('.').find(|part| part.parse::<usize>().is_err()).unwrap_or_default()
}

/// The unit a field carries in its name, or in that of the table it stands in, as it is written behind a number; nothing
/// when neither carries one.
pub fn unit(field: &str) -> &'static str {
    let names = field.rsplit('.').filter(|part| part.parse::<usize>().is_err()).take(2);
    let of = |name: &str| {
        let carried = |name: &str| {
            let unit = UNITS.iter().find(|(ending, _)| name.ends_with(ending) || name == &ending[1..]);
            unit.map(|(_, unit)| *unit)
        };
        carried(name).or_else(|| carried(name.trim_matches(|letter: char| letter.is_ascii_digit())))
    };
    names.into_iter().find_map(of).unwrap_or_default()
}

/// A field's name as words, without its unit.
pub fn bare(name: &str) -> String {
    UNITS.iter().find_map(|(ending, _)| name.strip_suffix(ending)).unwrap_or(name).replace('_', " ")
}

/// What one of a list is called; none for a list that has no word.
pub fn one_of(list: &str) -> Option<&'static str> {
    LISTS.iter().find(|(name, _)| *name == list).map(|(_, one)| *one)
}

/// Where a field stands: "diameter of tier 2". None for no field at all.
pub fn place(field: &str) -> Option<String> {
    let name = own(field);
    if name.is_empty() {
        return None;
    }
    let parts: Vec<&str> = field.split('.').collect();
    let within = parts.windows(2).rev().find_map(|pair| {
        let number: usize = pair[1].parse().ok()?;
        Some(format!("{} {}", one_of(pair[0])?, number + 1))
    });
    let itself = parts.last().is_some_and(|last| last.parse::<usize>().is_ok());
    Some(match within {
        Some(within) if itself => within,
        Some(within) => format!("{} of {within}", bare(name)),
        None => bare(name),
    })
}

/// The whole way to a field, the largest thing first: "cake 1, tier 2, diameter".
pub fn way(field: &str) -> String {
    let parts: Vec<&str> = field.split('.').collect();
    let mut words = Vec::new();
    for (at, part) in parts.iter().enumerate() {
        if let Ok(number) = part.parse::<usize>() {
            let list = at.checked_sub(1).map_or("", |before| parts[before]);
            match one_of(list) {
                Some(one) => words.push(format!("{one} {}", number + 1)),
                None => words.push(format!("{} {}", bare(list), number + 1)),
            }
        } else if parts.get(at + 1).is_none_or(|next| next.parse::<usize>().is_err())
            && !(SILENT.contains(part) && at + 1 < parts.len())
        {
            words.push(bare(part));
        }
    }
    words.join(", ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_field_is_said_in_words_with_its_unit() {
        for (field, words, long, of) in [
            ("tiers.1.body.diameter_mm", "diameter of tier 2", "tier 2, diameter", " mm"),
            ("lines.2.amount", "amount of line 3", "line 3, amount", ""),
            ("cakes.0.stack.tiers.2", "tier 3", "cake 1, tier 3", ""),
            ("work.temperature_c", "temperature", "temperature", " °C"),
            ("box_mm.1", "box", "box 2", " mm"),
            ("composition_percent.cocoa", "cocoa", "composition, cocoa", " %"),
            ("losses.spread_percent", "spread", "losses, spread", " %"),
            ("work.job.knife_area_cm2", "knife area", "job, knife area", " cm²"),
            ("work.job.thickest_pa_s", "thickest", "job, thickest", " Pa·s"),
            ("name", "name", "name", ""),
        ] {
            assert_eq!(place(field).as_deref(), Some(words), "{field}");
            assert_eq!((way(field).as_str(), unit(field)), (long, of), "{field}");
        }
        assert_eq!(place(""), None);
    }
}
