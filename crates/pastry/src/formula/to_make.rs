//! What must be made before: every component that lines name, once, whatever uses it, in the order of making.

use crate::formula::kitchen_words::in_pieces;
use crate::formula::line::WeighedLine;
use crate::ingredient::key::MADE;
use crate::ingredient::{Ingredient, Made};
use crate::number::{batch_g, hundredths};
use serde::Serialize;
use std::sync::Arc;
use utoipa::ToSchema;

/// What a batch is made for.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MadeFor {
    /// What it goes into.
    pub name: String,
    /// How much of it, g.
    pub mass_g: f64,
    /// What of it, where that is not itself but comes beside it: the liquid drained off. None for itself.
    pub beside: Option<String>,
}

/// A line to be weighed for a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ToWeigh {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// As a scale shows it, g.
    pub mass_g: f64,
    /// The same in eggs, leaves, sticks; none when it is not counted.
    pub in_pieces: Option<String>,
    /// Whether it is made here, by a sheet of its own.
    pub made_here: bool,
}

impl ToWeigh {
    /// So many grams of an ingredient.
    pub fn of(ingredient: &Ingredient, mass_g: f64) -> Self {
        ToWeigh {
            ingredient: ingredient.id.clone(),
            name: ingredient.name.clone(),
            mass_g,
            in_pieces: in_pieces(mass_g, ingredient),
            made_here: ingredient.made.is_some(),
        }
    }
}

/// A batch of something that goes into others.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ToMake {
    /// Key it is named by, without what stands before it; with `@` and its number when it is held at a revision.
    pub key: String,
    /// Key of the component.
    pub component: String,
    /// The revision it is held at; none for the newest.
    pub revision: Option<i64>,
    /// Its name.
    pub name: String,
    /// Its family in kitchen words.
    pub word: String,
    /// What it is made for, the largest first.
    pub made_for: Vec<MadeFor>,
    /// Needed, g.
    pub needed_g: f64,
    /// To be made, g: the sum of its lines, less what is boiled and strained off.
    pub to_make_g: f64,
    /// Left of it, g.
    pub rest_g: f64,
    /// Left of the other part of what it is strained into, g; none when nothing asks for that.
    pub beside_rest_g: Option<f64>,
    /// How many times its formula as it is written.
    pub times: f64,
    /// What is weighed for it.
    pub lines: Vec<ToWeigh>,
    /// Days it keeps in the cold.
    pub cold_days: i64,
    /// "Make 820 g of Daily pastry cream: 300 g for Feast, 420 g for Jars, 100 g are left."
    pub sentence: String,
    /// What it is to the lines that take it.
    #[serde(skip)]
    #[schema(ignore)]
    pub of: Arc<Ingredient>,
    /// Its ingredients, as they are priced.
    #[serde(skip)]
    #[schema(ignore)]
    pub weighed: Vec<(Arc<Ingredient>, f64)>,
}

/// What something takes of what is made here: its name, and grams as they are weighed for it.
pub struct Takes<'a> {
    /// Its name.
    pub name: &'a str,
    /// Ingredients, of which those that are made here count, and grams of each.
    pub lines: Vec<(&'a Arc<Ingredient>, f64)>,
}

impl<'a> Takes<'a> {
    /// Of lines at a size.
    pub fn of(name: &'a str, lines: &'a [WeighedLine]) -> Self {
        Takes { name, lines: lines.iter().map(|line| (&line.ingredient, line.mass.grams())).collect() }
    }
}

/// All batches that some things take, what goes into others first. Two that take the same one share a batch of it; what has
/// one key and is not the same inside, as two files may bring it, is two.
///
/// # Arguments
/// * `straight`: what is used as it is as well, and how much of it for what.
pub fn to_make(takes: &[Takes], straight: &[(Arc<Ingredient>, MadeFor)]) -> Vec<ToMake> {
    let mut open: Vec<Needed> = Vec::new();
    let need = |open: &mut Vec<Needed>, name: &str, ingredient: &Arc<Ingredient>, mass_g: f64| {
        let Some(made) = ingredient.made.as_ref().filter(|_| mass_g > 0.0) else { return };
        let (main, beside) = match &made.beside {
            Some((main, _)) => (main, Some(ingredient.name.clone())),
            None => (ingredient, None),
        };
        let at = open.iter().position(|own| own.of.same_batch(main)).unwrap_or_else(|| {
            let own = straight.iter().filter(|(own, used)| own.same_batch(main) && used.mass_g > 0.0);
            let made_for = own.map(|(_, used)| used.clone()).collect();
            open.push(Needed { of: Arc::clone(main), made_for, per: None });
            open.len() - 1
        });
        if let Some((_, per)) = &made.beside {
            open[at].per = Some(*per);
        }
        let all = &mut open[at].made_for;
        match all.iter_mut().find(|own| own.name == name && own.beside == beside) {
            Some(own) => own.mass_g = hundredths(own.mass_g + mass_g),
            None => all.push(MadeFor { name: name.to_owned(), mass_g, beside }),
        }
    };
    for own in takes {
        for (ingredient, mass_g) in &own.lines {
            need(&mut open, own.name, ingredient, *mass_g);
        }
    }
    let mut made: Vec<ToMake> = Vec::new();
    // What has most inside it is weighed first: only then is known how much of the rest it takes.
    let deepest = |open: &[Needed]| {
        let by = |at: &usize| (levels(&open[*at].of), std::cmp::Reverse(open[*at].of.id.clone()));
        (0..open.len()).max_by_key(by)
    };
    while let Some(at) = deepest(&open) {
        let needed = open.swap_remove(at);
        let Some(own) = &needed.of.made else { continue };
        let batch = batch(&needed.of, own, needed.made_for, needed.per);
        for (inner, mass_g) in &batch.weighed {
            need(&mut open, &batch.name, inner, *mass_g);
        }
        made.push(batch);
    }
    made.reverse();
    made
}

/// Levels of components inside an ingredient, itself counted.
pub fn levels(ingredient: &Ingredient) -> usize {
    ingredient.made.as_ref().map_or(0, |made| made.levels)
}

/// What is needed of something that is made before.
struct Needed {
    of: Arc<Ingredient>,
    made_for: Vec<MadeFor>,
    /// Grams of it that come with a gram of what comes beside it, where that is needed.
    per: Option<f64>,
}

fn batch(ingredient: &Arc<Ingredient>, made: &Made, mut made_for: Vec<MadeFor>, per: Option<f64>) -> ToMake {
    let name = &ingredient.name;
    made_for.sort_by(|a, b| b.mass_g.total_cmp(&a.mass_g).then_with(|| a.name.cmp(&b.name)));
    let sum_of = |beside: bool| -> f64 {
        hundredths(made_for.iter().filter(|own| own.beside.is_some() == beside).map(|own| own.mass_g).sum())
    };
    let (needed_g, beside_g) = (sum_of(false), sum_of(true));
    // One batch gives both parts: as much is made as the one that is shorter asks for.
    let at_least_g = needed_g.max(per.unwrap_or(0.0) * beside_g);
    let mut weighed: Vec<(Arc<Ingredient>, f64)> =
        made.lines.iter().map(|own| (Arc::clone(&own.ingredient), batch_g(own.share * at_least_g))).collect();
    // Of what is weighed so much is left once it is boiled down; all of it when it is not.
    let left = 1.0 / made.lines.iter().map(|own| own.share).sum::<f64>().max(1e-9);
    let left = if (left - 1.0).abs() < 1e-9 { 1.0 } else { left };
    let sum = |weighed: &[(Arc<Ingredient>, f64)]| {
        hundredths(left * weighed.iter().map(|(_, mass_g)| mass_g).sum::<f64>())
    };
    // What rounding took away is weighed after all: there is never less than is needed.
    let short = at_least_g - sum(&weighed);
    if short > 0.0
        && let Some((_, largest)) = weighed.iter_mut().max_by(|a, b| a.1.total_cmp(&b.1))
    {
        *largest = hundredths(*largest + (100.0 * short / left).ceil() / 100.0);
    }
    let to_make_g = sum(&weighed);
    let rest_g = hundredths(to_make_g - needed_g);
    let beside_rest_g = per.map(|per| hundredths(to_make_g / per.max(1e-9) - beside_g).max(0.0));
    let whole = format!("Make {} g of {name}", batch_g(to_make_g));
    let mut sentence = match made_for.as_slice() {
        [only] if only.beside.is_none() => format!("{whole} for {}", only.name),
        all => {
            let each = all.iter().map(|own| match &own.beside {
                None => format!("{} g for {}", batch_g(own.mass_g), own.name),
                Some(what) => {
                    let what = what.strip_prefix(&format!("{name}: ")).unwrap_or(what);
                    format!("{} g of {what} for {}", batch_g(own.mass_g), own.name)
                }
            });
            format!("{whole}: {}", each.collect::<Vec<_>>().join(", "))
        }
    };
    if rest_g >= 1.0 {
        sentence.push_str(&format!(", {} g are left", batch_g(rest_g)));
    }
    if let Some(rest) = beside_rest_g.filter(|rest| *rest >= 1.0) {
        sentence.push_str(&format!(", and {} g of the other part", batch_g(rest)));
    }
    sentence.push('.');
    let strained = made.strained > 1e-9;
    if left < 1.0 {
        let how = match (
            strained,
            made.lines.iter().map(|own| own.share).sum::<f64>() - made.strained > 1.0 + 1e-6,
        ) {
            (true, true) => "boiled down and strained",
            (true, false) => "strained",
            (false, _) => "boiled down",
        };
        sentence.push_str(&format!(" It is {how} from {} g.", batch_g(to_make_g / left)));
    }
    ToMake {
        key: ingredient.id.strip_prefix(MADE).unwrap_or_default().to_owned(),
        of: Arc::clone(ingredient),
        component: made.component.clone(),
        revision: made.revision,
        name: name.to_owned(),
        word: made.word.to_owned(),
        made_for,
        needed_g,
        to_make_g,
        rest_g,
        beside_rest_g,
        times: to_make_g / made.batch_g.max(1e-9),
        lines: weighed.iter().map(|(ingredient, mass_g)| ToWeigh::of(ingredient, *mass_g)).collect(),
        cold_days: made.cold_days,
        sentence,
        weighed,
    }
}
