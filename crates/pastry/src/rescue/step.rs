//! A step of a remedy, worked out for one bowl.

use crate::assess::Ready;
use crate::assess::answer::{Assessment, assess_from};
use crate::assess::document::FormulaDocument;
use crate::balance::single::nearest_met;
use crate::formula::family::FamilyGroup;
use crate::formula::flat;
use crate::ingredient::diet::brings;
use crate::ingredient::{Group, Role};
use crate::ingredient::{Ingredient, Shelf};
use crate::number::on_a_scale;
use crate::rescue::addition::{Found, Lever};
use crate::rescue::bowl::{Bowl, cooked_document};
use crate::rescue::remedy::{Deed, SolvedFor, Step};
use crate::rescue::report::{Addition, Basis, StepAnswer};
use crate::swap::differs::differs;
use crate::units::Temperature;
use std::sync::Arc;

/// Additions together, grams per 100 g in the bowl (assumed): beyond it, a second batch or another job.
pub const MOST_ADDED: f64 = 25.0;
/// What reaches this, °C, is cooked by it: egg and starch answer to it.
const COOKED_C: f64 = 70.0;
/// Room inside the window that a temperature should leave, of its width, and at most, ln.
const ROOM: (f64, f64) = (0.25, 0.35);

/// What a role stands for in a formula.
fn resolve<'a>(key: &str, bowl: &'a Bowl, shelf: &'a Shelf) -> Option<&'a Arc<Ingredient>> {
    let group = bowl.document.family.traits().group;
    match key {
        "same_chocolate" => bowl
            .largest(|i| i.is(Role::Chocolate) && i.composition.phases().fat > 0.25)
            .or_else(|| shelf.find("dark60")),
        "same_liquid" => bowl.largest(|i| i.group == Group::Fruit).or_else(|| shelf.find("milk")),
        "stiffener" => match group {
            FamilyGroup::Ganache => resolve("same_chocolate", bowl, shelf),
            FamilyGroup::Buttercream => shelf.find("butter82"),
            FamilyGroup::WhippedCream => shelf.find("mascarpone"),
            // Egg thickens these alone: starch makes another cream of them.
            FamilyGroup::Custard if !bowl.document.family.traits().boils_starch => {
                resolve("gelatin200", bowl, shelf)
            }
            FamilyGroup::Custard => shelf.find("instant_starch"),
            _ => resolve("gelatin200", bowl, shelf),
        },
        // Whose gelatin it is stays as it is.
        "gelatin200" => bowl.largest(|i| i.bloom > 0.0).or_else(|| shelf.find(key)),
        "butter82" => bowl.largest(|i| i.is(Role::Butter)).or_else(|| shelf.find(key)),
        "cream36" => bowl.largest(|i| i.is(Role::Cream)).or_else(|| shelf.find(key)),
        key => shelf.find(key),
    }
}

/// One step for a bowl; the bowl after it too, when heat changed what is in it.
///
/// Where the numbers are `doubted`, because they say the opposite of what is seen, no amount is solved for by them.
pub(super) fn work_out(
    step: &Step,
    bowl: &Bowl,
    shelf: &Shelf,
    not_at_hand: &[String],
    doubted: bool,
) -> StepAnswer {
    let mut answer = StepAnswer {
        deed: step.deed,
        words: step.say.clone(),
        temperature_c: step.t,
        aim_c: None,
        minutes: step.min,
        addition: None,
        then: None,
        besides: Vec::new(),
        document: None,
    };
    match step.deed {
        Deed::Add => add(step, bowl, shelf, (not_at_hand, doubted), &mut answer),
        Deed::Warm | Deed::Cool if step.by == Some(SolvedFor::Job) => {
            temperature(step, bowl, shelf, &mut answer)
        }
        Deed::Warm => cook(step, bowl, shelf, &mut answer),
        _ => {}
    }
    answer
}

/// The verdict on a document, in a few words.
fn then(document: &FormulaDocument, shelf: &Shelf) -> Option<(String, Assessment)> {
    let answer = assess_from(document, shelf).ok()?;
    Some((answer.at.headline.clone(), answer))
}

/// The nearest temperature, warmer or cooler than the bowl, at which the job is met.
fn temperature(step: &Step, bowl: &Bowl, shelf: &Shelf, answer: &mut StepAnswer) {
    let Some([low, high]) = step.t else { return };
    let asked = bowl.asked();
    let now = bowl.t_c.unwrap_or(asked.t_c);
    let hottest = bowl.document.grid().hottest_c();
    let (from, to) = match step.deed {
        Deed::Warm => (now, high.min(hottest).max(now)),
        _ => (low.min(now), now),
    };
    let margin = (ROOM.0 * bowl.edges.width()).clamp(0.0, ROOM.1);
    let met = |t: f64| asked.met_by(bowl.prepared(), t, margin, f64::INFINITY);
    if from >= to || met(now) {
        return;
    }
    let Some(found) = nearest_met(now, from, to, met) else { return };
    let rounded = if found > now { (2.0 * found).ceil() / 2.0 } else { (2.0 * found).floor() / 2.0 };
    let mut document = bowl.document.clone();
    document.work.temperature_c = Temperature::from_celsius(rounded.clamp(0.0, hottest));
    if let Some((headline, _)) = then(&document, shelf) {
        answer.aim_c = Some(rounded);
        answer.then = Some(headline);
        answer.document = Some(document);
    }
}

/// Heat that cooks what is in the bowl.
fn cook(step: &Step, bowl: &Bowl, shelf: &Shelf, answer: &mut StepAnswer) {
    let Some(reached) = step.t.and_then(cooks_to) else { return };
    if reached <= bowl.options.cook_c.unwrap_or(0.0) {
        return;
    }
    let document = cooked_document(&bowl.document, reached);
    if let Some((headline, _)) = then(&document, shelf) {
        answer.then = Some(headline);
        answer.document = Some(document);
    }
}

/// What a step's heat cooks to, °C: the middle of 95 to 100 °C is a boil. None when it cooks nothing.
fn cooks_to([low, high]: [f64; 2]) -> Option<f64> {
    (low >= COOKED_C).then_some(0.5 * (low + high))
}

/// So much of something.
fn add(
    step: &Step,
    bowl: &Bowl,
    shelf: &Shelf,
    (not_at_hand, doubted): (&[String], bool),
    answer: &mut StepAnswer,
) {
    let (Some(key), Some([usual, most])) = (&step.of, step.g) else { return };
    let Some(ingredient) = resolve(key, bowl, shelf).cloned() else { return };
    let ingredient = ingredient.as_ref();
    let per_100 = bowl.grams() / 100.0;
    let most_g = most.min(MOST_ADDED) * per_100;
    let middle_t = step.t.map_or(35.0, |[low, high]| 0.5 * (low + high));
    // Starch boiled in boils the rest with it.
    let boiled = step.t.and_then(cooks_to).filter(|_| ingredient.is(Role::Starch));
    let heated = boiled.and_then(|cook_c| bowl.cooked(cook_c, shelf).ok());
    let bowl = heated.as_ref().unwrap_or(bowl);
    let lever = Lever { bowl, ingredient };
    let found = step.by.map(|by| match by {
        SolvedFor::Job if doubted => Found::OtherWay,
        by => lever.solve(by, most_g, middle_t),
    });
    let (grams, basis, why_not) = match (found, step.again) {
        (_, Some(share)) => {
            let has: f64 = flat(&bowl.lines)
                .iter()
                .filter(|line| line.ingredient.bloom > 0.0)
                .map(|line| line.mass.grams())
                .sum();
            let grams = if has > 0.0 { share * has } else { usual * per_100 };
            (grams.min(most_g), Basis::Practice, None)
        }
        (Some(Found::Grams(grams)), _) => (grams, Basis::Solved, None),
        // The numbers say the opposite of the eye: the eye is followed, carefully.
        (Some(Found::OtherWay), _) => (
            usual * per_100,
            Basis::Practice,
            Some("by the numbers it goes the other way; what you see counts".to_owned()),
        ),
        (Some(Found::NotByItself), _) => {
            (most_g, Basis::NotByItself, Some("not enough by itself, even so much".to_owned()))
        }
        (Some(Found::Breaks(what)), _) => (0.0, Basis::Breaks, Some(what.to_owned())),
        // The numbers see nothing to mend: the cook does, and the trade's first amount stands.
        (Some(Found::NothingToDo), _) => {
            (usual * per_100, Basis::Practice, Some("by the numbers none is needed".to_owned()))
        }
        (None, _) => (usual * per_100, Basis::Practice, None),
    };
    let total = on_a_scale(grams);
    let document = bowl.document_with(ingredient, grams);
    if let Some((headline, after)) = then(&document, shelf).filter(|_| grams > 0.0) {
        answer.then = Some(headline);
        answer.besides = besides(bowl, &document, &after, shelf);
    }
    answer.addition = Some(Addition {
        ingredient: ingredient.id.clone(),
        name: ingredient.name.clone(),
        grams: total,
        first_g: on_a_scale(0.5 * grams),
        most_g: on_a_scale(most_g),
        basis,
        why_not,
        asks_first: asks_first(ingredient, bowl),
        not_at_hand: not_at_hand.contains(&ingredient.id),
    });
    answer.document = (grams > 0.0).then_some(document);
}

/// What else an addition does, with the weight of the bowl first.
fn besides(bowl: &Bowl, document: &FormulaDocument, after: &Assessment, shelf: &Shelf) -> Vec<String> {
    let (Ok(ready), Some(before)) = (Ready::of(document, shelf), bowl.before(shelf)) else {
        return Vec::new();
    };
    let mut said = vec![format!("{} g in the bowl", on_a_scale(after.totals.batch_mass_g))];
    said.extend(differs((before, &bowl.lines), (after, &ready.lines), None));
    said
}

/// What an ingredient would bring that is not in the bowl and must be asked for first.
fn asks_first(ingredient: &Ingredient, bowl: &Bowl) -> Vec<String> {
    let now = || bowl.lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams()));
    brings(now(), now().chain([(ingredient, 1.0)]))
}
