//! A line poured past its mark: leave it, bring it back with the least of something, or scale the batch.

use crate::assess::answer::{Assessment, assess_from};
use crate::assess::document::FormulaDocument;
use crate::balance::edges::Asked;
use crate::fault::{Fault, FaultCode};
use crate::formula::{Mixture, WeighedLine, flat};
use crate::ingredient::Role;
use crate::ingredient::{Ingredient, Part, Shelf};
use crate::job::duty::MapAxis;
use crate::job::duty::Outcome;
use crate::number::{limit, on_a_scale, two_digits};
use crate::rescue::addition::first_root;
use crate::rescue::bowl::Bowl;
use crate::rescue::report::{Addition, Basis};
use crate::scale::batch::grams_of;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

/// A line and what went in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OverpourAsk {
    /// The formula as it was planned.
    pub document: FormulaDocument,
    /// The line.
    pub line: usize,
    /// What really went in, as a cook writes it: "212 g".
    #[schema(example = "212 g", max_length = 60)]
    pub poured: String,
}

/// One way on.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OverpourWay {
    /// In a few words: "leave it", "+5.9 g Skimmed milk", "scale the rest by 1.17".
    pub title: String,
    /// What else goes in.
    pub additions: Vec<Addition>,
    /// What differs from the plan then, in words.
    pub differs: String,
    /// The verdict then, in one sentence.
    pub headline: String,
    /// Whether it is inside its window then.
    pub inside: bool,
    /// The formula then.
    pub document: FormulaDocument,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Overpour {
    /// Planned, g.
    pub planned_g: f64,
    /// Poured, g.
    pub poured_g: f64,
    /// In one sentence.
    pub sentence: String,
    /// Leave it as it is.
    pub leave: OverpourWay,
    /// Bring the consistency back with the least grams of one thing, the smallest first.
    pub restore: Vec<OverpourWay>,
    /// The same cream, more of it; none when too little was poured, for then the rest can be poured.
    pub scale: Option<OverpourWay>,
}

/// Additions to bring it back, at most, g per 100 g in the bowl.
const MOST: f64 = 25.0;
/// Most of gelatin, g per 100 g.
const MOST_GELATIN: f64 = 1.0;
/// Salt and acid of what seasons, share of it: lemon juice has a twentieth.
const SEASONING: f64 = 0.3;
/// Most ways that bring it back.
const MOST_WAYS: usize = 3;

/// Things that may bring a cream back, beside what is in it already.
const LEVERS: [&str; 3] = ["milk_skim", "cocoa_mass", "gelatin200"];

/// What to do about a line poured past its mark.
///
/// * leave: the formula with what was poured
/// * restore: grams of one ingredient at which ln yield stress (viscosity, where the job asks for it) at the
///   working temperature is that of the plan
/// * scale: k = poured / planned; (k − 1) × planned of every other line
///
/// # Errors
/// Faults of the document; a line that is not there; an amount that cannot be read, or is that of the plan.
pub fn overpour(ask: &OverpourAsk, shelf: &Shelf) -> Result<Overpour, Vec<Fault>> {
    let before = assess_from(&ask.document, shelf)?;
    let plan = Bowl::of(&ask.document, shelf, None, None)?;
    let Some(line) = plan.lines.get(ask.line) else {
        let message = format!("there is no line {}: pick one of the formula", ask.line + 1);
        return Err(vec![Fault::new("line", FaultCode::NoSuchLine, message)]);
    };
    let written = &ask.document.lines[ask.line];
    let poured_g = grams_of(&ask.poured, written, &line.ingredient, ask.document.measures)
        .map_err(|words| vec![Fault::new("poured", FaultCode::BadAmount, words)])?;
    let planned_g = line.mass.grams();
    let name = line.ingredient.name.clone();
    if planned_g <= 0.0 || poured_g <= 0.0 || (poured_g / planned_g - 1.0).abs() < 1e-3 {
        let message = format!("{name}: {} g is planned; write what really went in", limit(planned_g));
        return Err(vec![Fault::new("poured", FaultCode::NothingPoured, message)]);
    }
    let mut document = plan.document.clone();
    document.lines[ask.line].amount = format!("{poured_g} g");
    let now = Bowl::of(&document, shelf, None, None)?;
    let way = |title: String, additions: Vec<Addition>, document: FormulaDocument| -> Result<_, Vec<Fault>> {
        let after = assess_from(&document, shelf)?;
        Ok(OverpourWay {
            title,
            additions,
            differs: differs(&before, &after),
            inside: after.at.outcome == Outcome::Inside,
            headline: after.at.headline.clone(),
            document,
        })
    };
    let leave = way("leave it".to_owned(), Vec::new(), document)?;
    let mut restore = Vec::new();
    for (grams, ingredient) in restoring(&plan, &now, ask.line, shelf) {
        let addition = put_in(&ingredient, grams, Basis::Solved);
        let title = format!("+{} g {}", on_a_scale(grams), ingredient.name);
        restore.push(way(title, vec![addition], now.document_with(&ingredient, grams))?);
    }
    let factor = poured_g / planned_g;
    let scale = (factor > 1.0).then(|| scaled(&plan, ask.line, factor));
    let scale = match scale {
        Some((additions, document)) => {
            Some(way(format!("scale the rest by {factor:.2}"), additions, document)?)
        }
        None => None,
    };
    let word = if factor > 1.0 { "more" } else { "less" };
    let sentence = format!(
        "{} g {word} of {name} than planned ({} %).",
        on_a_scale((poured_g - planned_g).abs()),
        limit((100.0 * (factor - 1.0).abs()).round())
    );
    Ok(Overpour { planned_g, poured_g, sentence, leave, restore, scale })
}

fn put_in(ingredient: &Ingredient, grams: f64, basis: Basis) -> Addition {
    Addition {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        grams: on_a_scale(grams),
        first_g: on_a_scale(0.5 * grams),
        most_g: on_a_scale(grams),
        basis,
        why_not: None,
        asks_first: Vec::new(),
        not_at_hand: false,
    }
}

/// ln of what the job is judged by at the working temperature.
fn measure(asked: &Asked, mixture: &Mixture, thin: bool) -> f64 {
    let point = asked.prepared(mixture).at(asked.t_c, asked.history);
    (if thin { point.viscosity_pa_s } else { point.yield_stress_pa }).max(1e-9).ln()
}

/// Whether it is salt or a dry acid: nobody mends a consistency with it.
fn seasons(ingredient: &Ingredient) -> bool {
    ingredient.composition.sum(&[Part::Salt, Part::Acid]) > SEASONING
}

/// Grams of one thing that bring the bowl back to the plan, the least first.
fn restoring(plan: &Bowl, now: &Bowl, poured: usize, shelf: &Shelf) -> Vec<(f64, Arc<Ingredient>)> {
    let thin = matches!(plan.document.work.job.axis(plan.document.family), MapAxis::ViscosityPaS);
    let wanted = measure(&plan.asked(), &Mixture::of(&plan.lines), thin);
    let fits = |key: &str| match key {
        "cocoa_mass" => plan.largest(|i| i.is(Role::Chocolate)).is_some(),
        "gelatin200" => plan.largest(|i| i.bloom > 0.0).is_some(),
        _ => flat(&plan.lines).iter().any(|l| l.ingredient.is(Role::Dairy)),
    };
    let own = now
        .lines
        .iter()
        .enumerate()
        .filter(|(at, line)| *at != poured && line.mass.grams() > 0.0 && !line.ingredient.is(Role::Egg))
        .filter(|(_, line)| !seasons(&line.ingredient));
    let mut things: Vec<Arc<Ingredient>> = own.map(|(_, line)| Arc::clone(&line.ingredient)).collect();
    let gelatin = plan.largest(|i| i.bloom > 0.0).map(|i| i.id.clone());
    for key in LEVERS.into_iter().filter(|key| fits(key)) {
        let own = if key == "gelatin200" { gelatin.as_deref().unwrap_or(key) } else { key };
        if !things.iter().any(|known| known.id == own) {
            things.extend(shelf.find(own).cloned());
        }
    }
    let options = &now.options;
    let split_now = now.asked().edges(&Mixture::of(&now.lines)).split;
    let mut found: Vec<(f64, Arc<Ingredient>)> = things
        .into_iter()
        .filter(|thing| thing.id != now.lines[poured].ingredient.id)
        .filter_map(|thing| {
            let most = if thing.bloom > 0.0 { MOST_GELATIN } else { MOST } / 100.0 * now.grams();
            let asked = Asked { options, ..now.asked() };
            let off = |g: f64| measure(&asked, &now.with(&thing, g), thin) - wanted;
            let grams = first_root(most, off).filter(|g| on_a_scale(*g) > 0.0)?;
            let after = now.asked().edges(&now.with(&thing, grams)).split;
            (after <= 0.15_f64.max(split_now)).then_some((grams, thing))
        })
        .collect();
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.truncate(MOST_WAYS);
    found
}

/// The batch made larger by what was poured.
fn scaled(plan: &Bowl, poured: usize, factor: f64) -> (Vec<Addition>, FormulaDocument) {
    let mut document = plan.document.clone();
    let more = |line: &WeighedLine| line.mass.grams() * (factor - 1.0);
    let mut additions = Vec::new();
    for (at, line) in plan.lines.iter().enumerate() {
        document.lines[at].amount = format!("{} g", (100.0 * line.mass.grams() * factor).round() / 100.0);
        if at != poured && more(line) > 0.0 {
            additions.push(put_in(&line.ingredient, more(line), Basis::Solved));
        }
    }
    (additions, document)
}

/// What differs from the plan: firmness, batch, sweetness, split.
fn differs(before: &Assessment, after: &Assessment) -> String {
    let mut said = Vec::new();
    let ratio = after.at.on_map.value / before.at.on_map.value;
    if (ratio.ln()).abs() > 0.02 {
        let word = if ratio > 1.0 { "firmer" } else { "looser" };
        let percent = 100.0 * (ratio - 1.0).abs();
        said.push(if ratio > 2.0 {
            format!("{} times as firm", two_digits(ratio))
        } else {
            format!("{word} by {} %", two_digits(percent))
        });
    }
    let more = after.totals.batch_mass_g - before.totals.batch_mass_g;
    if more.abs() >= 0.5 {
        said.push(format!("{}{} g of batch", if more > 0.0 { "+" } else { "−" }, on_a_scale(more.abs())));
    }
    let sweeter = after.figures.sweetness_percent - before.figures.sweetness_percent;
    if sweeter.abs() >= 0.5 {
        let word = if sweeter > 0.0 { "sweeter" } else { "less sweet" };
        said.push(format!("{word} by {} points", two_digits(sweeter.abs())));
    }
    let (was, is) = (before.figures.split.value, after.figures.split.value);
    if is > 0.15 && is > was + 0.02 {
        said.push(format!("closer to splitting (index {is:.2})"));
    }
    if said.is_empty() { "as planned".to_owned() } else { said.join(", ") }
}
