//! The whole answer to an order: its cakes, what to make, buy and label, what it costs, what is left.

use crate::caution::CautionAnswer;
use crate::fault::Fault;
use crate::ingredient::{Diet, Ingredient, diet};
use crate::number::{hundredths, limit};
use crate::order::batch::{Batch, batches};
use crate::order::document::OrderDocument;
use crate::order::label::{TapeLabel, labels};
use crate::order::leftover::{Leftover, UsesOf, leftovers};
use crate::order::shopping::Larder;
use crate::order::shopping::{PackOf, ShoppingLine, shopping};
use crate::stack::address::Address;
use crate::stack::answer::stack_of;
use crate::stack::check::finding::{BenchWork, Finding, FindingCode, Mend, Said, Standing};
use crate::stack::part::PartKind;
use crate::stack::{Known, Makings, StackAnswer};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// A share of the cost.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CostShare {
    /// What it is paid for.
    pub name: String,
    /// How much.
    pub cost: f64,
    /// Per cent of the whole cost.
    pub of_cost_percent: f64,
}

/// What an order costs in ingredients.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OrderCost {
    /// What is used, in the kitchen's currency.
    pub used: f64,
    /// What the packs to buy cost.
    pub packs: f64,
    /// For one portion.
    pub per_portion: Option<f64>,
    /// By component and bake, the dearest first.
    pub by_part: Vec<CostShare>,
    /// By ingredient, the dearest first.
    pub by_ingredient: Vec<CostShare>,
    /// Ingredients without a price: the cost is without them.
    pub without_price: Vec<String>,
}

/// A line of the bill of materials.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BillLine {
    /// Name of the cake.
    pub cake: String,
    /// How many of it.
    pub count: u32,
    /// Its tier, from 1.
    pub tier: u32,
    /// What the place is: "filling 6 mm".
    pub place: String,
    /// What it is made of.
    pub part: String,
    /// In one of it, g.
    pub each_g: f64,
    /// In all of them, g.
    pub all_g: f64,
}

/// The answer to an order.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OrderAnswer {
    /// Its name.
    pub name: String,
    /// How it stands, in one sentence.
    pub headline: String,
    /// What is behind it.
    pub detail: String,
    /// How it stands on the whole.
    pub standing: Standing,
    /// Portions of all cakes.
    pub portions: u32,
    /// Finished, g.
    pub finished_g: f64,
    /// Its cakes, in their order.
    pub cakes: Vec<StackAnswer>,
    /// What is found of the order itself: portions, what must not be in it.
    pub findings: Vec<Finding>,
    /// What to make.
    pub batches: Vec<Batch>,
    /// What to buy.
    pub shopping: Vec<ShoppingLine>,
    /// What it costs.
    pub cost: OrderCost,
    /// What is left over.
    pub leftovers: Vec<Leftover>,
    /// Every place of every cake.
    pub bill: Vec<BillLine>,
    /// Labels.
    pub labels: Vec<TapeLabel>,
    /// Allergens of all of it.
    pub allergens: Vec<String>,
    /// What can hurt, in words.
    pub cautions: Vec<CautionAnswer>,
    /// What is not known of its cakes: no list, label or cost of it is whole while anything stands here.
    pub incomplete: Vec<String>,
}

/// Works an order out.
///
/// # Arguments
/// * `pack`: the pack of an ingredient in this kitchen, where one is known.
/// * `uses`: names of this kitchen's formulas that use an ingredient.
///
/// # Errors
/// What makes it no order or one of its cakes no cake; all else is a finding at its place.
pub fn order(
    document: &OrderDocument,
    known: &Known,
    pack: PackOf,
    uses: UsesOf,
) -> Result<OrderAnswer, Vec<Fault>> {
    let wrong = document.faults();
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let room_c = document.room_temperature_c.celsius();
    let makings: Vec<Makings> = document.cakes.iter().map(|cake| Makings::of(&cake.stack, known)).collect();
    let cakes: Vec<StackAnswer> = document
        .cakes
        .iter()
        .zip(&makings)
        .map(|(cake, makings)| stack_of(&cake.stack, makings, room_c))
        .collect();
    let price = |ingredient: &Ingredient| pack(ingredient).map(|pack| pack.price_per_kg());
    let batches = batches(document, &cakes, &makings, &price);
    // What a file brings is not on the shelf: a line of it must not be missing from a list.
    let larder = Larder::of(&makings);
    let (shopping, eggs) = shopping(document, &batches, &larder, pack);
    let portions: u32 = document
        .cakes
        .iter()
        .zip(&cakes)
        .map(|(cake, answer)| cake.count.saturating_mul(answer.portions))
        .sum();
    let finished_g = hundredths(
        document
            .cakes
            .iter()
            .zip(&cakes)
            .map(|(cake, answer)| f64::from(cake.count) * answer.finished_g)
            .sum(),
    );
    let mut findings = portions_found(document, portions);
    findings.extend(without(document, &makings));
    findings.sort_by_key(|finding| std::cmp::Reverse(finding.standing));
    let mut allergens: Vec<String> = cakes.iter().flat_map(|cake| cake.allergens.clone()).collect();
    allergens.sort();
    allergens.dedup();
    let mut cautions: Vec<CautionAnswer> = cakes.iter().flat_map(|cake| cake.cautions.clone()).collect();
    cautions.sort_by_key(|caution| caution.caution);
    cautions.dedup();
    let (standing, headline, detail) = verdict(document, &cakes, &findings, portions);
    let incomplete = cakes
        .iter()
        .flat_map(|cake| cake.incomplete.iter().map(|words| format!("{}: {words}", named(&cake.name))))
        .collect();
    Ok(OrderAnswer {
        name: document.name.clone(),
        headline,
        detail,
        standing,
        portions,
        finished_g,
        findings,
        cost: cost(&batches, &shopping, &price, &larder, portions),
        leftovers: leftovers(&batches, &shopping, eggs, uses),
        bill: bill(document, &cakes),
        labels: labels(document, &batches, &cakes, &makings),
        batches,
        shopping,
        cakes,
        allergens,
        cautions,
        incomplete,
    })
}

/// Enough for everybody, or not.
fn portions_found(document: &OrderDocument, portions: u32) -> Vec<Finding> {
    let Some(wanted) = document.servings else { return Vec::new() };
    let (standing, sentence) = if portions < wanted {
        (
            Standing::Trouble,
            Said::with(format!("{portions} portions for {wanted}"), format!("{} short.", wanted - portions)),
        )
    } else {
        (Standing::Holds, format!("{portions} portions for {wanted}.").into())
    };
    let mend = (portions < wanted).then(|| Mend::by_hand("Make a cake larger, or more of them"));
    vec![
        Finding::new(FindingCode::Portions, Address::Whole("servings"), standing, sentence)
            .of(f64::from(portions), f64::from(wanted), "portions")
            .mended(mend),
    ]
}

/// What is in it and must not be.
fn without(document: &OrderDocument, makings: &[Makings]) -> Vec<Finding> {
    let wanted = &document.without;
    let mut found = Vec::new();
    if wanted.is_empty() {
        return found;
    }
    let mut say = |at: usize, name: &str, allergens: &[String], diet: Diet, bench: Option<BenchWork>| {
        let mut wrong: Vec<String> =
            allergens.iter().filter(|own| wanted.allergens.contains(own)).cloned().collect();
        for (asked, good, word) in [
            (wanted.animals, diet.vegan, "something of an animal"),
            (wanted.meat, diet.vegetarian, "something of a dead animal"),
            (wanted.pork, diet.no_pork, "something of a pig"),
            (wanted.alcohol, diet.no_alcohol, "alcohol"),
        ] {
            if asked && !good {
                wrong.push(word.to_owned());
            }
        }
        if !wrong.is_empty() {
            let sentence = format!("{name} has {}, which must not be in this order.", wrong.join(", "));
            let mend = bench.as_ref().map(|_| Mend::by_hand("Swap it out on the Bench"));
            found.push(
                Finding::new(FindingCode::MustNotBeInIt, Address::Cake(at), Standing::Trouble, sentence)
                    .mended(mend)
                    .on_the_bench(bench),
            );
        }
    };
    for (at, (cake, makings)) in document.cakes.iter().zip(makings).enumerate() {
        let mut keys: Vec<&String> = makings.creams.keys().collect();
        keys.sort();
        for key in keys {
            // What is only inside another is told by that.
            let Some(cream) = makings.cream(Some(key)).filter(|cream| !cream.inside) else { continue };
            let bench = BenchWork { component: key.clone(), work: cream.document.work.clone() };
            say(at, &cream.name(), &cream.allergens, cream.diet, Some(bench));
        }
        for bake in &cake.stack.bakes {
            let Some(baked) = makings.baked(Some(&bake.key)) else { continue };
            let own = diet(baked.lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams())));
            say(at, &bake.name, &baked.allergens, own, None);
        }
        for pieces in cake.stack.tiers.iter().flat_map(|tier| &tier.pieces) {
            if let Some(own) = pieces.ingredient.as_deref().and_then(|key| makings.shelf.find(key)) {
                say(at, &pieces.name, &own.allergens, diet(std::iter::once((own.as_ref(), 1.0))), None);
            }
        }
    }
    found
}

fn verdict(
    document: &OrderDocument,
    cakes: &[StackAnswer],
    findings: &[Finding],
    portions: u32,
) -> (Standing, String, String) {
    if document.cakes.is_empty() {
        return (Standing::Care, "Nothing is ordered yet".to_owned(), "Add a cake to begin.".to_owned());
    }
    let own = findings.first().filter(|finding| finding.standing != Standing::Holds);
    let cake = cakes.iter().filter(|cake| cake.standing == Standing::Trouble).collect::<Vec<_>>();
    if let Some(finding) = own {
        let more = match cake.len() {
            0 => String::new(),
            1 => format!(" {} does not stand yet.", named(&cake[0].name)),
            n => format!(" {n} cakes do not stand yet."),
        };
        return (
            finding.standing,
            finding.said.head.clone(),
            format!("{}{more}", finding.said.rest).trim().to_owned(),
        );
    }
    if let Some(first) = cake.first() {
        let detail = format!("{}: {} {}", named(&first.name), first.headline, first.detail);
        return (Standing::Trouble, format!("{} does not stand yet", named(&first.name)), detail);
    }
    let standing = cakes.iter().map(|cake| cake.standing).max().unwrap_or(Standing::Holds);
    let for_whom = document.servings.map_or(String::new(), |wanted| format!(" for {wanted}"));
    let headline = format!("{portions} portions{for_whom}, and everything stands");
    let pieces: u32 = document.cakes.iter().map(|cake| cake.count.saturating_mul(cake.stack.pieces())).sum();
    let word = if pieces == 1 { "piece" } else { "pieces" };
    (
        standing,
        headline,
        format!("{pieces} {word}, at {} °C in the room.", limit(document.room_temperature_c.celsius())),
    )
}

fn named(name: &str) -> &str {
    if name.is_empty() { "A cake" } else { name }
}

fn cost(
    batches: &[Batch],
    shopping: &[ShoppingLine],
    price: &dyn Fn(&Ingredient) -> Option<f64>,
    larder: &Larder,
    portions: u32,
) -> OrderCost {
    let mut parts: BTreeMap<&str, f64> = BTreeMap::new();
    let mut ingredients: BTreeMap<&str, f64> = BTreeMap::new();
    let mut without_price: Vec<String> = Vec::new();
    for batch in batches {
        for line in batch.lines.iter().filter(|line| !line.made_here) {
            let Some(ingredient) = larder.find(&line.ingredient) else { continue };
            match price(ingredient) {
                Some(per_kg) => {
                    let cost = 1e-3 * per_kg * line.mass_g;
                    *parts.entry(&batch.name).or_default() += cost;
                    *ingredients.entry(&line.name).or_default() += cost;
                }
                None if line.ingredient != "water" && !without_price.contains(&line.name) => {
                    without_price.push(line.name.clone());
                }
                None => {}
            }
        }
    }
    for batch in batches.iter().filter(|batch| batch.kind == PartKind::Bake && batch.lines.is_empty()) {
        without_price.push(batch.name.clone());
    }
    for line in shopping.iter().filter(|line| line.price.is_none()) {
        if !without_price.contains(&line.name) {
            without_price.push(line.name.clone());
        }
    }
    let used: f64 = parts.values().sum();
    let shares = |of: BTreeMap<&str, f64>| {
        let mut shares: Vec<CostShare> = of
            .into_iter()
            .map(|(name, cost)| CostShare {
                name: name.to_owned(),
                cost: hundredths(cost),
                of_cost_percent: 100.0 * cost / used.max(1e-9),
            })
            .collect();
        shares.sort_by(|a, b| b.cost.total_cmp(&a.cost));
        shares
    };
    OrderCost {
        used: hundredths(used),
        packs: hundredths(shopping.iter().filter_map(|line| line.price).sum()),
        per_portion: (portions > 0).then(|| hundredths(used / f64::from(portions))),
        by_part: shares(parts),
        by_ingredient: shares(ingredients),
        without_price,
    }
}

/// Every place of every cake with its grams.
fn bill(document: &OrderDocument, cakes: &[StackAnswer]) -> Vec<BillLine> {
    document
        .cakes
        .iter()
        .zip(cakes)
        .flat_map(|(cake, answer)| {
            answer.places.iter().map(|place| BillLine {
                cake: named(&answer.name).to_owned(),
                count: cake.count,
                tier: place.tier as u32 + 1,
                place: place.words.split(", ").next().unwrap_or_default().to_owned(),
                part: place.name.clone().unwrap_or_else(|| "not chosen yet".to_owned()),
                each_g: place.grams,
                all_g: hundredths(f64::from(cake.count) * place.grams),
            })
        })
        .collect()
}
