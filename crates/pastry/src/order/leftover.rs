//! What an order leaves over, and what that could serve.

use crate::number::{limit, on_a_scale};
use crate::order::batch::Batch;
use crate::order::shopping::{Eggs, ShoppingLine};
use serde::Serialize;
use utoipa::ToSchema;

/// Less than this is not worth a label, g.
const WORTH: f64 = 15.0;

/// What formulas of a kitchen use an ingredient, by name.
pub type UsesOf<'a> = &'a dyn Fn(&str) -> Vec<String>;

/// Something left over.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Leftover {
    /// What: "Egg whites".
    pub what: String,
    /// How much, g.
    pub grams: f64,
    /// In words: "4 whites, 130 g".
    pub words: String,
    /// What it could serve.
    pub serves: Vec<String>,
    /// How long it keeps, in words.
    pub keeps: String,
}

/// "1 white", "2.5 yolks": to half a piece.
fn counted(many: f64, word: &str) -> String {
    let halves = (2.0 * many).round() / 2.0;
    format!("{} {word}{}", limit(halves), if halves == 1.0 { "" } else { "s" })
}

/// Everything left over: eggs parted, offcuts, glaze that ran off, opened packs.
pub fn leftovers(batches: &[Batch], list: &[ShoppingLine], eggs: Eggs, uses: UsesOf) -> Vec<Leftover> {
    let mut left = Vec::new();
    let mut egg = |what: &str, key: &str, many: f64, grams: f64, serves: &[&str], keeps: &str| {
        if grams >= WORTH {
            let mut own = uses(key);
            own.extend(serves.iter().map(|word| (*word).to_owned()));
            left.push(Leftover {
                what: what.to_owned(),
                grams,
                words: format!("about {}, {} g", counted(many, key), limit(grams)),
                serves: own,
                keeps: keeps.to_owned(),
            });
        }
    };
    egg(
        "Egg whites",
        "white",
        eggs.whites,
        eggs.whites_g,
        &["Swiss or Italian buttercream", "a nut meringue disc"],
        "2 days cold, 60 frozen",
    );
    egg(
        "Egg yolks",
        "yolk",
        eggs.yolks,
        eggs.yolks_g,
        &["pastry cream or custard sauce", "French buttercream", "curd"],
        "1 day cold, covered with film",
    );
    for batch in batches {
        if batch.trimmed_g >= WORTH {
            left.push(Leftover {
                what: format!("Offcuts of {}", batch.name),
                grams: batch.trimmed_g,
                words: format!("{} g", limit(batch.trimmed_g)),
                serves: vec!["layers in jars".to_owned(), "crumbs for a side or a base".to_owned()],
                keeps: "2 days wrapped, 30 frozen".to_owned(),
            });
        }
        if batch.runs_off_g >= WORTH {
            left.push(Leftover {
                what: format!("{} that runs off", batch.name),
                grams: batch.runs_off_g,
                words: format!("about {} g", limit(on_a_scale(batch.runs_off_g))),
                serves: vec!["the next glazing: sieve it, film on it".to_owned()],
                keeps: "keep the date it was made".to_owned(),
            });
        }
    }
    for line in list {
        let (Some(grams), Some(pack_g)) = (line.left_g, line.pack_g) else { continue };
        // A pack of sugar is no left-over; cream, fruit and eggs are.
        if grams >= WORTH && line.group.is_perishable() && line.ingredient != "egg" {
            left.push(Leftover {
                what: format!("Opened {}", line.name),
                grams,
                words: format!("{} g of {} g", limit(grams.round()), limit(pack_g)),
                serves: uses(&line.ingredient)
                    .into_iter()
                    .filter(|name| !line.used_in.contains(name))
                    .collect(),
                keeps: "as its pack says once opened".to_owned(),
            });
        }
    }
    left
}
