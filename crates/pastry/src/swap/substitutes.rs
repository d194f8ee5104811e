//! What the trade puts in the place of what must not be there: `data/substitutes.csv`.

use crate::formula::Family;
use crate::swap::ask::Avoid;
use serde::Deserialize;
use std::sync::LazyLock;

/// One stand-in.
#[derive(Debug, Clone, PartialEq)]
pub struct Substitute {
    /// What is avoided.
    pub avoid: Avoid,
    /// Key of what it stands in for.
    pub of: String,
    /// Families it is meant for; all when empty.
    families: Vec<String>,
    /// First choice, second …
    pub rank: u8,
    /// Keys, and grams of each for one gram; none where its strength decides.
    pub by: Vec<(String, Option<f64>)>,
    /// What to know of it.
    pub words: String,
    /// Where it is from.
    pub source: String,
}

#[derive(Deserialize)]
struct Row {
    avoid: Avoid,
    of: String,
    r#where: String,
    rank: u8,
    by: String,
    words: String,
    source: String,
}

static SUBSTITUTES: LazyLock<Vec<Substitute>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/substitutes.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: Row = row.expect("the table of substitutes is well formed");
            let by = row.by.split(';').map(|part| match part.trim().split_once(' ') {
                Some((key, grams)) => {
                    (key.to_owned(), Some(grams.parse().expect("the table of substitutes holds grams")))
                }
                None => (part.trim().to_owned(), None),
            });
            let families = row.r#where.split(' ').filter(|word| *word != "*").map(str::to_owned).collect();
            Substitute {
                avoid: row.avoid,
                of: row.of,
                families,
                rank: row.rank,
                by: by.collect(),
                words: row.words,
                source: row.source,
            }
        })
        .collect()
});

/// All of them.
pub fn substitutes() -> &'static [Substitute] {
    &SUBSTITUTES
}

/// Stand-ins for an ingredient in a family, the first choice first; those meant for the family by name go
/// before those for all.
pub fn stand_ins(avoid: Avoid, of: &str, family: Family) -> Vec<&'static Substitute> {
    let key = serde_json::to_value(family).unwrap_or_default();
    let named = |s: &Substitute| s.families.iter().any(|own| key == own.as_str());
    let of_it = |s: &&Substitute| s.avoid == avoid && s.of == of && (s.families.is_empty() || named(s));
    let mut found: Vec<&Substitute> = SUBSTITUTES.iter().filter(of_it).collect();
    found.sort_by_key(|s| (s.rank, !named(s)));
    found.dedup_by_key(|s| s.rank);
    found
}
