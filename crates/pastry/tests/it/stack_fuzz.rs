//! Cakes nobody would build: every answer is an answer, and every number in it is one.

use crate::cakes::{chosen, with_known};
use pastry::exchange::lists::{ListKind, to_csv};
use pastry::ingredient::Ingredient;
use pastry::order::{OrderDocument, OrderedCake, order};
use pastry::stack::{StackDocument, Standing, stack, templates};
use proptest::prelude::*;
use serde_json::Value;

/// Numbers that hands slip to.
const ODD: [f64; 12] = [0.0, -1.0, 0.001, 0.5, 3.0, 17.0, 49.9, 250.0, 1500.0, 9999.0, 1e9, -1e9];

/// Every number of a document, by how many there are.
fn numbers<'a>(value: &'a mut Value, found: &mut Vec<&'a mut Value>) {
    match value {
        Value::Number(_) => found.push(value),
        Value::Array(all) => all.iter_mut().for_each(|own| numbers(own, found)),
        Value::Object(fields) => {
            fields.iter_mut().filter(|(name, _)| *name != "version").for_each(|(_, own)| numbers(own, found));
        }
        _ => {}
    }
}

/// A template with some of its numbers put wrong and a layer or two taken out or doubled.
fn disturbed(at: usize, slips: &[(usize, usize)], layer: usize, twice: bool) -> Option<StackDocument> {
    let all = templates();
    let mut value = serde_json::to_value(chosen(&all[at % all.len()].document)).ok()?;
    for tier in value["tiers"].as_array_mut()? {
        let layers = tier["layers"].as_array_mut()?;
        let k = layer % layers.len();
        if twice {
            let own = layers[k].clone();
            layers.insert(k, own);
        } else {
            layers.remove(k);
        }
    }
    let mut found = Vec::new();
    numbers(&mut value, &mut found);
    let many = found.len();
    for (which, odd) in slips {
        let number = ODD[odd % ODD.len()];
        let own = &mut found[which % many];
        let whole = own.is_u64() && number >= 0.0 && number.fract() == 0.0 && number < 1e6;
        **own = if whole { (number as u64).into() } else { number.into() };
    }
    // A count that is no count is refused at the door.
    serde_json::from_value(value).ok()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]
    #[test]
    fn no_cake_breaks_the_answer(
        at in 0usize..10,
        slips in prop::collection::vec((0usize..400, 0usize..12), 0..5),
        layer in 0usize..8,
        twice in any::<bool>(),
        room_c in -10.0f64..60.0,
    ) {
        let Some(document) = disturbed(at, &slips, layer, twice) else { return Ok(()) };
        let answer = with_known(|known| stack(&document, known, room_c));
        let Ok(answer) = answer else { return Ok(()) };
        prop_assert!(answer.finished_g.is_finite() && answer.height_mm.is_finite() && answer.width_mm.is_finite());
        for place in &answer.places {
            let own = [place.grams, place.volume_ml, place.thickness_mm, place.across_mm, place.z_mm[0], place.z_mm[1]];
            prop_assert!(own.iter().all(|number| number.is_finite() && *number >= -1e-6), "{place:?}");
            prop_assert!(place.steps.iter().all(|step| step.more_g.is_finite()), "{:?}", place.steps);
            prop_assert!(place.drips_mm.iter().all(|mm| mm.is_finite()), "{:?}", place.drips_mm);
        }
        let sum: f64 = answer.places.iter().map(|place| place.grams).sum();
        prop_assert!((sum - answer.finished_g).abs() < 0.01 * (1.0 + sum * 1e-6));
        for finding in &answer.findings {
            prop_assert!(!finding.sentence.contains("NaN") && !finding.sentence.contains("inf"), "{}", finding.sentence);
            prop_assert!(finding.value.is_none_or(f64::is_finite) && finding.limit.is_none_or(f64::is_finite));
        }
        prop_assert!(answer.findings.windows(2).all(|pair| pair[0].standing >= pair[1].standing));
        prop_assert!(answer.standing == Standing::Holds || !answer.detail.is_empty() || !answer.headline.is_empty());
        let ordered = OrderDocument {
            cakes: vec![OrderedCake { stack: document, count: 7 }],
            ..OrderDocument::empty(21.0)
        };
        let pack = |ingredient: &Ingredient| ingredient.pack;
        if let Ok(whole) = with_known(|known| order(&ordered, known, &pack, &|_| Vec::new())) {
            prop_assert!(whole.cost.used.is_finite() && whole.finished_g.is_finite());
            prop_assert!(!to_csv(&whole, ListKind::Bill).contains("NaN"));
        }
    }
}
