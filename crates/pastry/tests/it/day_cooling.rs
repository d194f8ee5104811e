//! What cools too slowly by the rule a kitchen keeps, and what a blast chiller is good for.

use crate::day::{compiled, kitchen, lantern_street, orders};
use crate::day_view::week;
use pastry::clock::safe::rule_words;
use pastry::day::quicker::{QuickerAsked, quicker_ways};
use pastry::day::{Compiled, KitchenDocument};
use pastry::heat::safety::CoolingRule;
use pastry::order::OrderDocument;
use pastry::stack::Known;

fn by(rule: CoolingRule, times: u32) -> Compiled {
    let (formulas, shelf) = kitchen();
    let mut all = orders();
    for cake in all.iter_mut().flat_map(|order| &mut order.cakes) {
        cake.count *= times;
    }
    let all: Vec<&OrderDocument> = all.iter().collect();
    let room = KitchenDocument { cooling_rule: rule, ..lantern_street() };
    compiled(&all, &room, "2026-11-30T06:00:00", &Known { formulas: &formulas, shelf: &shelf })
}

/// What is too slow is said by name, with whose rule it is (their limits and sources: `heat::safety`). The stricter rule says no less;
/// twenty times as much in one go is too slow by any.
#[test]
fn what_cools_too_slowly_is_said_with_whose_rule_it_is() {
    let of = |own: &Compiled| -> Vec<String> {
        own.cautions.iter().map(|words| words.split_once(": ").unwrap().0.to_owned()).collect()
    };
    let (food_code, kingdom) = (by(CoolingRule::UsFda, 1), by(CoolingRule::Uk, 1));
    for (own, rule) in [(&food_code, CoolingRule::UsFda), (&kingdom, CoolingRule::Uk)] {
        for (words, of) in own.cautions.iter().zip(of(own)) {
            assert!(own.problem.steps.iter().any(|step| step.comp == of), "{words}");
            assert!(words.contains(rule_words(rule)) && words.contains("Your local rules differ"), "{words}");
        }
    }
    assert!(of(&kingdom).contains(&"Daily pastry cream".to_owned()), "{:?}", kingdom.cautions);
    assert!(of(&food_code).iter().all(|own| of(&kingdom).contains(own)), "{:?}", food_code.cautions);
    let much = by(CoolingRule::UsFda, 20);
    assert!(of(&much).len() > of(&food_code).len(), "{:?}", much.cautions);
    assert!(much.cautions.iter().any(|words| words.contains("It does in ")), "{:?}", much.cautions);
}

/// Nothing is proposed that the kitchen has not: with trays of a blast chiller, it is one of the ways.
#[test]
fn a_blast_chiller_is_proposed_where_there_is_one() {
    let (plan, _) = week();
    let (formulas, shelf) = kitchen();
    let all = orders();
    let words = |room: &KitchenDocument| -> Vec<String> {
        let waits =
            plan.parts.iter().flat_map(|part| part.waits.iter().map(move |own| (part.order, own.wait)));
        let ways = waits.flat_map(|(order, wait)| {
            let asked = QuickerAsked {
                order: &all[order],
                known: Known { formulas: &formulas, shelf: &shelf },
                kitchen: room,
                learned: &[],
            };
            quicker_ways(plan, wait, None, &asked).unwrap().ways
        });
        ways.map(|way| way.words).collect()
    };
    let mut room = lantern_street();
    let without = words(&room);
    room.equipment.blast_trays = 2;
    let with = words(&room);
    let blast = |all: &[String]| all.iter().filter(|own| own.to_lowercase().contains("blast")).count();
    assert_eq!(blast(&without), 0, "{without:?}");
    assert!(blast(&with) > 0, "{with:?}");
}
