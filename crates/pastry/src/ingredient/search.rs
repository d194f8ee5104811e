//! Finding an ingredient by what somebody types: other countries' names, accents, slips of the finger.

use crate::ingredient::item::Ingredient;
use std::sync::Arc;

/// How far a typed word is from a word of the pantry: 0 the word itself, 1 its beginning, 2 inside it,
/// 3 and more one or two slips. None when it is another word.
fn distance(typed: &str, word: &str) -> Option<u32> {
    if word == typed {
        return Some(0);
    }
    if word.starts_with(typed) {
        return Some(1);
    }
    if typed.len() >= 3 && word.contains(typed) {
        return Some(2);
    }
    let slips = match typed.chars().count() {
        0..=3 => return None,
        4..=6 => 1,
        _ => 2,
    };
    // A slip in a word still being typed counts against its beginning.
    let begun: String = word.chars().take(typed.chars().count()).collect();
    let off = strsim::osa_distance(typed, word).min(strsim::osa_distance(typed, &begun));
    (off <= slips).then_some(2 + off as u32)
}

/// Small letters without accents.
fn plain(text: &str) -> String {
    deunicode::deunicode(text).to_lowercase()
}

fn words(text: &str) -> impl Iterator<Item = &str> {
    text.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty())
}

/// How well an ingredient answers what was typed; smaller is better. Every typed word must be found in
/// one of its names or in its shelf; its own name goes before what others call it.
pub fn score(ingredient: &Ingredient, typed: &str) -> Option<u32> {
    let typed = plain(typed);
    let mut worst_sum = 0;
    let names: Vec<(u32, String)> = std::iter::once((0, plain(&ingredient.name)))
        .chain(ingredient.also.iter().map(|name| (1, plain(name))))
        .chain(std::iter::once((6, plain(ingredient.group.word()))))
        .collect();
    for word in words(&typed) {
        let best = names
            .iter()
            .flat_map(|(rank, name)| words(name).filter_map(move |w| Some(4 * distance(word, w)? + rank)))
            .min()?;
        worst_sum += best;
    }
    // The whole phrase at the front of a name is what was meant.
    let phrase = words(&typed).collect::<Vec<_>>().join(" ");
    let begins = names
        .iter()
        .take(names.len() - 1)
        .any(|(_, name)| words(name).collect::<Vec<_>>().join(" ").starts_with(&phrase));
    Some(2 * worst_sum + u32::from(!begins))
}

/// Ingredients that answer what was typed, best first; all of them, in their order, for nothing typed.
pub fn search<'a>(shelf: impl Iterator<Item = &'a Arc<Ingredient>>, typed: &str) -> Vec<&'a Arc<Ingredient>> {
    let mut found: Vec<(u32, usize, &Arc<Ingredient>)> = shelf
        .enumerate()
        .filter_map(|(at, ingredient)| Some((score(ingredient, typed)?, at, ingredient)))
        .collect();
    found.sort_by_key(|(score, at, _)| (*score, *at));
    found.into_iter().map(|(_, _, ingredient)| ingredient).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::catalogue;

    fn first(typed: &str) -> &'static str {
        search(catalogue().iter(), typed).first().map_or("nothing", |found| found.id.as_str())
    }

    #[test]
    fn other_countries_names_are_known() {
        for (typed, id) in [
            ("double cream", "cream48"),
            ("heavy whipping", "cream36"),
            ("cornflour", "corn_starch"),
            ("caster sugar", "sugar"),
            ("castor sugar", "sugar"),
            ("superfine", "sugar"),
            ("confectioners", "icing"),
            ("powdered sugar", "icing"),
            ("golden syrup", "treacle"),
            ("single cream", "cream20"),
            ("half and half", "half_cream12"),
            ("plain flour", "flour"),
            ("soured cream", "sour_cream"),
            ("cassis", "blackcurrant"),
            ("gelatine fish", "gelatin_fish"),
        ] {
            assert_eq!(first(typed), id, "{typed}");
        }
    }

    #[test]
    fn slips_and_accents_are_forgiven() {
        for (typed, id) in [
            ("mascapone", "mascarpone"),
            ("rasberry", "raspberry"),
            ("crème fraîche", "creme_fraiche"),
            ("creme fraiche", "creme_fraiche"),
            ("hazlenut paste", "hazelnut_paste"),
            ("buttermlik", "buttermilk"),
            ("pasion fruit", "passion"),
        ] {
            assert_eq!(first(typed), id, "{typed}");
        }
        assert_eq!(first("zirconium"), "nothing");
    }

    #[test]
    fn nothing_typed_is_the_whole_shelf_in_its_order() {
        assert_eq!(search(catalogue().iter(), "  ").len(), catalogue().len());
        assert_eq!(first(""), "dark55");
    }
}
