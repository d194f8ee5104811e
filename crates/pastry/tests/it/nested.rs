//! Components in components: what loses nothing on the way is what it would be all in one bowl.

use pastry::assess::starts::starts;
use pastry::assess::{Assessment, BroughtComponent, FormulaDocument, assess};
use pastry::formula::{Family, Line};
use pastry::ingredient::diet::diet;
use pastry::ingredient::key::made_key;
use pastry::ingredient::{Shelf, catalogue};
use pastry::job::Job;
use pastry::units::CookTemperature;
use proptest::prelude::*;

/// Rounding of sums, nothing physical.
const ROUNDING: f64 = 1e-9;

fn all_starts() -> Vec<&'static FormulaDocument> {
    Family::ALL.iter().flat_map(|family| starts(*family)).collect()
}

/// A component without air or whipping, made at the heat of the whole.
fn inner(lines: Vec<Line>, of: &FormulaDocument) -> FormulaDocument {
    let nappe = starts(Family::Anglaise)[0].work.clone();
    let mut own = FormulaDocument::empty(Family::Anglaise, nappe.job, 75.0);
    own.work = nappe;
    own.lines = lines;
    own.process.cook_c = of.process.cook_c;
    own.process.held_min = of.process.held_min;
    own
}

fn grams(line: &Line) -> f64 {
    line.amount.trim_end_matches(" g").parse().unwrap()
}

fn named(key: &str, mass: f64) -> Line {
    Line::new(made_key(key, None), format!("{mass} g"))
}

/// Which lines go into which component: each of a level, 0 for the outside.
fn nest(flat: &FormulaDocument, levels: &[usize], times: f64) -> FormulaDocument {
    let mut nested = flat.clone();
    nested.lines.clear();
    let deepest = levels.iter().copied().max().unwrap_or(0);
    let mut brought = Vec::new();
    let mut below: Option<(String, f64)> = None;
    for level in (1..=deepest).rev() {
        let mut lines: Vec<Line> = flat
            .lines
            .iter()
            .zip(levels)
            .filter(|(_, own)| **own == level)
            .map(|(line, _)| line.clone())
            .collect();
        if let Some((key, mass)) = &below {
            lines.push(named(key, *mass));
        }
        if lines.is_empty() {
            continue;
        }
        let mass: f64 = lines.iter().map(grams).sum();
        // Its own batch is of another size than what is taken of it.
        for line in &mut lines {
            line.amount = format!("{} g", times * grams(line));
        }
        let key = format!("level-{level}");
        brought.push(BroughtComponent { key: key.clone(), document: inner(lines, flat) });
        below = Some((key, mass));
    }
    nested
        .lines
        .extend(flat.lines.iter().zip(levels).filter(|(_, own)| **own == 0).map(|(line, _)| line.clone()));
    nested.lines.extend(below.map(|(key, mass)| named(&key, mass)));
    nested.components = brought;
    nested
}

fn close(what: &str, one: f64, other: f64) -> Result<(), TestCaseError> {
    let apart = (one - other).abs() / one.abs().max(other.abs()).max(1e-6);
    prop_assert!(apart <= ROUNDING, "{what}: {one} flat, {other} nested");
    Ok(())
}

/// What two formulas are, in numbers nobody rounded.
fn numbers(document: &FormulaDocument) -> Vec<(String, f64)> {
    use pastry::assess::assessed;
    use pastry::rheology::{History, Predictor};
    let (ready, answer) =
        assessed(document, &Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"));
    let family = document.family;
    let predictor = Predictor::new(&ready.mixture(), family.traits().system, &ready.options);
    let mut all = Vec::new();
    for history in History::ALL {
        for t_c in [1.0, 8.0, 15.0, 22.0, 29.0, 36.0, 44.0] {
            let here = predictor.at(t_c, history);
            for (what, value) in [
                ("yield stress", here.middle.yield_stress_pa),
                ("viscosity", here.middle.viscosity_pa_s),
                ("split", here.middle.split),
                ("sigma of yield stress", here.sigma_yield),
                ("sigma of viscosity", here.sigma_viscosity),
            ] {
                all.push((format!("{what} at {t_c} °C, {history:?}"), value));
            }
        }
    }
    let totals = &answer.totals;
    let shares = [
        ("batch", totals.batch_mass_g),
        ("water", totals.water.mass_g),
        ("milk fat", totals.milk_fat.mass_g),
        ("setting agents", totals.setting_agents.mass_g),
        ("alcohol", totals.alcohol.mass_g),
        ("fat", totals.phases_g.fat),
        ("sugar", totals.phases_g.sugar),
    ];
    all.extend(shares.map(|(what, value)| (what.to_owned(), value)));
    all
}

/// What must be the same word for word.
fn words(answer: &Assessment) -> (Vec<String>, Vec<String>, String, String) {
    (
        answer.totals.allergens.clone(),
        answer.warnings.iter().map(|warning| format!("{:?} {}", warning.code, warning.cause)).collect(),
        answer.at.headline.clone(),
        answer.tint.clone(),
    )
}

fn held(flat: &FormulaDocument, nested: &FormulaDocument) -> Result<(), TestCaseError> {
    for ((what, one), (_, other)) in numbers(flat).into_iter().zip(numbers(nested)) {
        close(&what, one, other)?;
    }
    let (one, other) = (assess(flat).unwrap(), assess(nested).unwrap());
    prop_assert_eq!(words(&one), words(&other));
    let of = |document: &FormulaDocument| {
        let shelf = document.shelf(&Shelf::catalogue()).unwrap();
        let lines = document.formula().weigh(&shelf).unwrap();
        let price = |own: &pastry::ingredient::Ingredient| own.pack.map(|pack| pack.price_per_kg());
        let cost: Option<f64> = lines
            .iter()
            .map(|line| Some(1e-3 * line.mass.grams() * line.ingredient.price_per_kg(&price)?))
            .sum();
        let diet = diet(lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams())));
        (diet, cost.unwrap())
    };
    let ((diet, cost), (nested_diet, nested_cost)) = (of(flat), of(nested));
    prop_assert_eq!(diet, nested_diet);
    close("cost", cost, nested_cost)
}

/// The start with grams that are any number, and no line hotter or colder than the whole.
fn in_grams(start: &FormulaDocument) -> FormulaDocument {
    let shelf = Shelf::catalogue();
    let lines = start.formula().weigh(&shelf).unwrap();
    let mut flat = start.clone();
    flat.percent_of = None;
    for (own, line) in flat.lines.iter_mut().zip(&lines) {
        own.amount = format!("{} g", line.mass.grams());
        own.cook_c = None;
    }
    flat
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, ..ProptestConfig::default() })]

    #[test]
    fn nested_is_flat_when_nothing_is_lost(
        which in 0usize..1000, levels in prop::collection::vec(0usize..4, 12), times in 0.3f64..4.0,
        cook in prop::option::of(60f64..99.0),
    ) {
        let all = all_starts();
        let mut flat = in_grams(all[which % all.len()]);
        flat.process.cook_c = cook.map(CookTemperature::from_celsius);
        let nested = nest(&flat, &levels[..flat.lines.len().min(12)], times);
        held(&flat, &nested)?;
    }

    #[test]
    fn any_ingredients_at_any_depth(
        picked in prop::collection::vec((0usize..10_000, 0.5f64..400.0, 0usize..4), 1..11), times in 0.3f64..4.0,
    ) {
        // Where a sentence names one line of several, it is the first of them.
        let mut picked = picked;
        picked.sort_by_key(|(_, _, level)| *level);
        let job: Job = starts(Family::Ganache)[0].work.job;
        let mut flat = FormulaDocument::empty(Family::Ganache, job, 20.0);
        let shelf = catalogue();
        flat.lines = picked
            .iter()
            .map(|(which, grams, _)| Line::new(&shelf[which % shelf.len()].id, format!("{grams} g")))
            .collect();
        let levels: Vec<usize> = picked.iter().map(|(_, _, level)| *level).collect();
        held(&flat, &nest(&flat, &levels, times))?;
    }
}
