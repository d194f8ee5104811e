//! What must be made: each component and bake over all cakes of an order, weighed out.

use crate::assess::prepared::is_changed;
use crate::formula::to_make::{MadeFor, Takes, ToMake, ToWeigh, to_make};
use crate::formula::{WeighedLine, flat};
use crate::ingredient::Ingredient;
use crate::ingredient::key::MADE;
use crate::number::{self, batch_g, hundredths};
use crate::order::document::OrderDocument;
use crate::stack::part::{EqualShare, PartKind};
use crate::stack::{Makings, StackAnswer};
use serde::Serialize;
use std::sync::Arc;
use utoipa::ToSchema;

/// One batch: all an order takes of a component or bake.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Batch {
    /// A cream or a bake.
    pub kind: PartKind,
    /// Its key.
    pub key: String,
    /// Its name.
    pub name: String,
    /// The colour it is drawn in.
    pub tint: String,
    /// On the cakes, g.
    pub grams: f64,
    /// To be made, g: the sum of its lines, less what is boiled off.
    pub to_make_g: f64,
    /// Weighed for it, g: more than is made where water boils off.
    pub weighed_g: f64,
    /// How many times the saved formula.
    pub times: f64,
    /// What is weighed; nothing for what is bought.
    pub lines: Vec<ToWeigh>,
    /// What else it goes into, and for what it is used as it is; empty when it only stands on cakes.
    pub made_for: Vec<MadeFor>,
    /// The same in one sentence; none when it only stands on cakes.
    pub made_for_sentence: Option<String>,
    /// What is taken off what is weighed, line by line, in words; empty when nothing is.
    pub taken_off: Vec<String>,
    /// How it is shared out, over all cakes.
    pub shares: Vec<EqualShare>,
    /// Trimmed off, g.
    pub trimmed_g: f64,
    /// What runs off a glaze and can be used again, g.
    pub runs_off_g: f64,
    /// Its allergens.
    pub allergens: Vec<String>,
    /// What is bought for it costs, in the kitchen's currency, without what is made for it by a sheet of its own; none where a
    /// price is missing.
    pub cost: Option<f64>,
}

/// All batches of an order: bakes first, then components as they are met, what goes into others before these.
pub fn batches(
    order: &OrderDocument,
    answers: &[StackAnswer],
    makings: &[Makings],
    price: &dyn Fn(&Ingredient) -> Option<f64>,
) -> Vec<Batch> {
    let mut batches: Vec<Batch> = Vec::new();
    let mut of: Vec<&[WeighedLine]> = Vec::new();
    for ((cake, answer), makings) in order.cakes.iter().zip(answers).zip(makings) {
        let count = f64::from(cake.count);
        for part in &answer.parts {
            // Two cakes may each bring a bake of one key that is not the same.
            let lines = lines_of(makings, part.kind, &part.key);
            let known = batches.iter().zip(&of).position(|(batch, own)| {
                batch.kind == part.kind
                    && batch.key == part.key
                    && batch.name == part.name
                    && same(own, lines)
            });
            let index = known.unwrap_or_else(|| {
                let called = [part.key.clone(), part.name.clone(), part.tint.clone()];
                let allergens = allergens_of(lines.iter().map(|line| &line.ingredient));
                batches.push(begun(part.kind, called, allergens));
                of.push(lines);
                batches.len() - 1
            });
            let batch = &mut batches[index];
            batch.grams = hundredths(batch.grams + count * part.grams);
            batch.to_make_g += count * part.to_make_g;
            batch.trimmed_g = hundredths(batch.trimmed_g + count * part.trimmed_g);
            batch.runs_off_g = hundredths(batch.runs_off_g + count * part.runs_off_g);
            for share in &part.shares {
                add_share(&mut batch.shares, share, cake.count);
            }
        }
    }
    let inside = inside(&of);
    let (mut shared, mut alone) = (Vec::new(), Vec::new());
    for (batch, lines) in batches.into_iter().zip(of) {
        let component = batch.kind == PartKind::Component;
        let goes_into_others = inside.iter().find(|own| component && is_made_of(own, &batch.key, lines));
        match goes_into_others {
            Some(own) => shared.push((batch, Arc::clone(own))),
            None => alone.push((batch, lines)),
        }
    }
    for (batch, lines) in &mut alone {
        weigh_out(batch, lines, price);
    }
    let straight: Vec<(Arc<Ingredient>, MadeFor)> = shared
        .iter()
        .map(|(batch, own)| {
            let mass_g = batch_g(batch.to_make_g);
            (Arc::clone(own), MadeFor { name: "the cakes".to_owned(), mass_g, beside: None })
        })
        .collect();
    let takes: Vec<Takes> = alone
        .iter()
        .map(|(batch, lines)| Takes {
            name: &batch.name,
            lines: lines.iter().zip(&batch.lines).map(|(line, own)| (&line.ingredient, own.mass_g)).collect(),
        })
        .collect();
    let before = to_make(&takes, &straight);
    let mut all: Vec<Batch> =
        before.iter().map(|own| made_before(own, &mut shared, makings, price)).collect();
    all.extend(alone.into_iter().map(|(batch, _)| batch));
    all.sort_by_key(|batch| batch.kind);
    all
}

/// Everything made here that some lines name, at any depth, each once.
fn inside(of: &[&[WeighedLine]]) -> Vec<Arc<Ingredient>> {
    fn add(ingredient: &Arc<Ingredient>, all: &mut Vec<Arc<Ingredient>>) {
        let Some(made) = ingredient.made.as_ref().filter(|_| !all.contains(ingredient)) else { return };
        all.push(Arc::clone(ingredient));
        if let Some((main, _)) = &made.beside {
            add(main, all);
        }
        made.lines.iter().for_each(|inner| add(&inner.ingredient, all));
    }
    let mut all = Vec::new();
    of.iter().copied().flatten().for_each(|line| add(&line.ingredient, &mut all));
    all
}

/// Whether something made here is what these lines make.
fn is_made_of(own: &Ingredient, key: &str, lines: &[WeighedLine]) -> bool {
    let Some(made) = own.made.as_ref().filter(|_| own.id.strip_prefix(MADE) == Some(key)) else {
        return false;
    };
    let left_g: f64 = flat(lines).iter().map(|line| line.mass.grams()).sum();
    made.lines.len() == lines.len()
        && made.lines.iter().zip(lines).all(|(inner, line)| {
            inner.ingredient == line.ingredient && (inner.share * left_g - line.mass.grams()).abs() < 1e-6
        })
}

/// The batch of something that goes into others: what of it stands on cakes as well is in it.
fn made_before(
    own: &ToMake,
    shared: &mut Vec<(Batch, Arc<Ingredient>)>,
    makings: &[Makings],
    price: &dyn Fn(&Ingredient) -> Option<f64>,
) -> Batch {
    let on_cakes = shared.iter().position(|(_, of)| of.same_batch(&own.of)).map(|at| shared.remove(at).0);
    let cream = makings.iter().find_map(|makings| makings.cream(Some(&own.key)));
    let tint = cream.map_or_else(String::new, |cream| cream.tint.clone());
    let allergens = allergens_of(own.weighed.iter().map(|(line, _)| line));
    let bought = own.weighed.iter().filter(|(line, _)| line.made.is_none());
    let begin = || begun(PartKind::Component, [own.key.clone(), own.name.clone(), tint], allergens);
    Batch {
        to_make_g: own.to_make_g,
        weighed_g: hundredths(own.weighed.iter().map(|(_, mass_g)| mass_g).sum()),
        times: own.times,
        lines: own.lines.clone(),
        made_for: own.made_for.clone(),
        made_for_sentence: Some(own.sentence.clone()),
        cost: bought.map(|(line, mass_g)| Some(1e-3 * price(line)? * mass_g)).sum(),
        ..on_cakes.unwrap_or_else(begin)
    }
}

fn begun(kind: PartKind, [key, name, tint]: [String; 3], allergens: Vec<String>) -> Batch {
    Batch {
        kind,
        key,
        name,
        tint,
        grams: 0.0,
        to_make_g: 0.0,
        weighed_g: 0.0,
        times: 0.0,
        lines: Vec::new(),
        made_for: Vec::new(),
        made_for_sentence: None,
        taken_off: Vec::new(),
        shares: Vec::new(),
        trimmed_g: 0.0,
        runs_off_g: 0.0,
        allergens,
        cost: None,
    }
}

fn lines_of<'a>(makings: &'a Makings, kind: PartKind, key: &str) -> &'a [WeighedLine] {
    match kind {
        PartKind::Bake => makings.baked(Some(key)).map(|baked| baked.lines.as_slice()),
        PartKind::Component => makings.cream(Some(key)).map(|cream| cream.lines.as_slice()),
    }
    .unwrap_or_default()
}

/// Whether two lists of lines weigh out the same.
fn same(one: &[WeighedLine], two: &[WeighedLine]) -> bool {
    one.len() == two.len()
        && one.iter().zip(two).all(|(a, b)| {
            // Of one key and yet not the same inside, where each cake brings its own.
            a.ingredient == b.ingredient && (a.mass.grams() - b.mass.grams()).abs() < 1e-6
        })
}

fn allergens_of<'a>(ingredients: impl Iterator<Item = &'a Arc<Ingredient>>) -> Vec<String> {
    let mut allergens: Vec<String> = ingredients.flat_map(|own| own.allergens.clone()).collect();
    allergens.sort();
    allergens.dedup();
    allergens
}

fn add_share(shares: &mut Vec<EqualShare>, share: &EqualShare, count: u32) {
    let found =
        shares.iter_mut().find(|own| own.what == share.what && (own.each_g - share.each_g).abs() < 0.005);
    let many = share.count * count;
    match found {
        Some(own) => own.count += many,
        None => shares.push(EqualShare { count: many, ..share.clone() }),
    }
    for own in shares {
        own.say();
    }
}

/// The lines of the formula at the size of the batch, each as a scale shows it; the batch is their sum.
fn weigh_out(batch: &mut Batch, lines: &[WeighedLine], price: &dyn Fn(&Ingredient) -> Option<f64>) {
    let weighed_g: f64 = lines.iter().map(|line| line.mass.grams()).sum();
    let formula_g: f64 = flat(lines).iter().map(|line| line.mass.grams()).sum();
    if formula_g <= 0.0 {
        batch.to_make_g = hundredths(batch.to_make_g);
        batch.weighed_g = batch.to_make_g;
        return;
    }
    batch.times = batch.to_make_g / formula_g;
    let mut cost = Some(0.0);
    // The formula as it is saved is weighed as it is written.
    let round = if (batch.times - 1.0).abs() < 1e-9 { number::weighed_g } else { batch_g };
    for line in lines {
        let mass_g = round(batch.times * line.mass.grams());
        // What is made here has a batch of its own, which costs what is bought for it.
        if line.ingredient.made.is_none() {
            cost = cost.zip(price(&line.ingredient)).map(|(sum, per_kg)| sum + 1e-3 * per_kg * mass_g);
        }
        // Two lines of one ingredient stay two: they go in at different times.
        batch.lines.push(ToWeigh::of(&line.ingredient, mass_g));
    }
    let left = if (formula_g - weighed_g).abs() < 1e-9 { 1.0 } else { formula_g / weighed_g };
    let sum: f64 = batch.lines.iter().map(|line| line.mass_g).sum();
    batch.weighed_g = hundredths(sum);
    batch.to_make_g = hundredths(left * sum);
    batch.cost = cost;
    batch.taken_off = taken_off(batch, lines);
}

/// What is strained, lifted out and boiled off, as far as it is known without its sheet: how much of all of it stays, where
/// every line gives something, and of each line that gives more than half of it.
fn taken_off(batch: &Batch, lines: &[WeighedLine]) -> Vec<String> {
    let stays =
        |line: &WeighedLine, grams: f64| line.ingredient.leaves(grams).map(|(_, own)| own).sum::<f64>();
    let changed = |line: &WeighedLine| is_changed(&line.ingredient) && line.mass.grams() > 0.0;
    let all = lines.len() > 1 && lines.iter().all(changed);
    let mut said = Vec::new();
    if all {
        let [from, to] = [batch.weighed_g, batch.to_make_g].map(batch_g);
        said.push(format!("Of {from} g, {to} g are left when it is done: its sheet says how."));
    }
    for (line, own) in lines.iter().zip(&batch.lines).filter(|(line, _)| changed(line)) {
        let left = stays(line, own.mass_g);
        if !all || left < 0.5 * own.mass_g {
            let [from, to] = [own.mass_g, left].map(batch_g);
            said.push(format!("{}: of {from} g, {to} g stay in it; its sheet says how.", own.name));
        }
    }
    said
}
