//! What no practised cook would do is never offered, whatever the numbers say (common practice): read through the ways of
//! every start put wrong, and of the swaps of every start.

use crate::support::{disturbed, grams_of};
use pastry::assess::starts::starts;
use pastry::assess::{Assessment, FormulaDocument, assess};
use pastry::balance::{Way, WayKind, ways};
use pastry::formula::system::Continuous;
use pastry::formula::{Family, WeighedLine};
use pastry::ingredient::{Group, Part, Role, Shelf};
use pastry::swap::{Avoid, SwapAsk, SwapFor, swap};

fn weighed(document: &FormulaDocument) -> Vec<WeighedLine> {
    document.formula().weigh(&Shelf::catalogue()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// What is wrong with a way, in words; nothing when a cook would take it.
fn senseless(before: &FormulaDocument, way: &Way) -> Vec<String> {
    let (old, new) = (weighed(before), weighed(&way.document));
    let batch: f64 = grams_of(before).iter().sum();
    let of = |lines: &[WeighedLine], id: &str| -> f64 {
        lines.iter().filter(|line| line.ingredient.id == id).map(|line| line.mass.grams()).sum()
    };
    let traits = before.family.traits();
    let system = traits.system.traits();
    let mut wrong = Vec::new();
    for line in &new {
        let own = line.ingredient.as_ref();
        let (was, is) = (of(&old, &own.id), of(&new, &own.id));
        let wet = own.composition.get(Part::Water) > 0.5;
        if system.continuous == Continuous::Fat && wet && is - was > 0.065 * batch {
            wrong.push(format!("{:.0} g of {} into a butter", is - was, own.name));
        }
        if was <= 0.0 && own.is(Role::Yolk) {
            wrong.push("a yolk more".to_owned());
        }
    }
    for line in &old {
        let own = line.ingredient.as_ref();
        let (was, is) = (of(&old, &own.id), of(&new, &own.id));
        let kept = if own.group == Group::Fruit && was >= 0.03 * batch {
            0.69
        } else if own.is(Role::Egg) {
            0.74
        } else {
            0.29
        };
        // One thing for another is a swap, not less of it.
        if is > 0.0 && is < kept * was {
            wrong.push(format!("{} from {was:.0} to {is:.0} g", own.name));
        }
    }
    let (t_was, t_is) = (before.work.temperature_c.celsius(), way.document.work.temperature_c.celsius());
    if t_is < t_was && t_is < traits.worked_from_c {
        wrong.push(format!("worked at {t_is} °C, from {} on it is", traits.worked_from_c));
    }
    if way.document.process.set_hours.is_some_and(|hours| hours.hours() > 24.0)
        && way.document.process.set_hours != before.process.set_hours
    {
        wrong.push("a wait of more than a day".to_owned());
    }
    let air = |document: &FormulaDocument| document.air(&[]).overrun_percent;
    if system.continuous == Continuous::Water && air(&way.document) < air(before) - 1e-9 {
        wrong.push("air out of what was whipped".to_owned());
    }
    if way.at.unknown.is_some() {
        wrong.push("what is not known here".to_owned());
    }
    wrong
}

#[test]
fn no_way_is_one_that_no_cook_would_take() {
    let (mut asked, mut read, mut wrong) = (0, 0, Vec::new());
    for (name, document) in disturbed() {
        asked += 1;
        for way in ways(&document, &Shelf::catalogue(), &|_| None).unwrap().ways {
            read += 1;
            for words in senseless(&document, &way) {
                wrong.push(format!("{name}: {}: {words}", way.title));
            }
        }
    }
    assert!(asked > 600 && read > 500, "{asked} asked, {read} ways read");
    assert!(wrong.is_empty(), "{} of {read}:\n{}", wrong.len(), wrong[..wrong.len().min(30)].join("\n"));
}

#[test]
fn every_family_says_from_where_it_is_worked() {
    for family in Family::ALL {
        for start in starts(*family) {
            let t_c = start.work.temperature_c.celsius();
            let from_c = family.traits().worked_from_c;
            assert!(t_c >= from_c - 1e-9, "{} is started at {t_c} °C, worked from {from_c}", family.word());
        }
    }
}

#[test]
fn what_a_way_does_besides_is_said_the_right_way_round() {
    let mut said = std::collections::BTreeSet::new();
    for (name, document) in disturbed().into_iter().step_by(3) {
        let before = assess(&document).unwrap();
        for way in ways(&document, &Shelf::catalogue(), &|_| None).unwrap().ways {
            let after = assess(&way.document).unwrap();
            let sweet = after.figures.sweetness_percent - before.figures.sweetness_percent;
            let fat = after.totals.phases_of_total_percent.fat - before.totals.phases_of_total_percent.fat;
            let room = |answer: &Assessment| answer.in_the_room.yield_stress_pa.value;
            let aw = |answer: &Assessment| answer.figures.water_activity.as_ref().map_or(0.0, |aw| aw.value);
            for (word, by) in [
                ("sweeter by", sweet),
                ("less sweet by", -sweet),
                ("richer by", fat),
                ("leaner by", -fat),
                ("keeps less well", aw(&after) - aw(&before)),
                ("keeps longer", aw(&before) - aw(&after)),
                ("sets firmer", room(&after) - room(&before)),
                ("sets softer", room(&before) - room(&after)),
            ] {
                if way.effect_words.contains(word) {
                    said.insert(word);
                    assert!(by > 0.0, "{name}: {}: {}", way.title, way.effect_words);
                }
            }
        }
    }
    assert_eq!(said.len(), 8, "{said:?}");
}

#[test]
fn a_way_that_cools_stays_right_for_as_long_as_the_job_takes_twice() {
    let mut cooled = 0;
    for (name, document) in disturbed() {
        for way in ways(&document, &Shelf::catalogue(), &|_| None).unwrap().ways {
            if way.kind == WayKind::Temperature && way.title.starts_with("Cool") {
                cooled += 1;
                let need = 2.0 * document.work.job.duty().minutes_needed();
                let lasts = assess(&way.document).unwrap().at.lasts_min;
                assert!(
                    lasts.is_none_or(|minutes| minutes >= 0.95 * need),
                    "{name}: {} for {lasts:?} min",
                    way.title
                );
            }
        }
    }
    assert!(cooled > 30, "{cooled}");
}

#[test]
fn no_swap_comes_back_mangled() {
    // Every start without what may be avoided: what is no stand-in keeps its place and most of its weight.
    let (mut asked, mut wrong) = (0, Vec::new());
    for family in Family::ALL {
        for start in starts(*family) {
            for what in Avoid::ALL {
                let ask =
                    SwapAsk { document: start.clone(), ask: SwapFor::Without { what }, keep: Vec::new() };
                let Ok(swaps) = swap(&ask, &Shelf::catalogue(), &|_| None) else { continue };
                for option in swaps.options {
                    asked += 1;
                    let old = weighed(start);
                    let new = weighed(&option.document);
                    let of = |lines: &[WeighedLine], id: &str| -> f64 {
                        lines
                            .iter()
                            .filter(|line| line.ingredient.id == id)
                            .map(|line| line.mass.grams())
                            .sum()
                    };
                    let batch =
                        |lines: &[WeighedLine]| lines.iter().map(|line| line.mass.grams()).sum::<f64>();
                    let name = format!("{} to {}: {}", family.word(), start.work.job.verb(), option.title);
                    if (batch(&new) / batch(&old) - 1.0).abs() > 0.02 {
                        wrong.push(format!("{name}: {:.0} g of {:.0}", batch(&new), batch(&old)));
                    }
                    for line in old.iter().filter(|line| !what.hits(&line.ingredient)) {
                        let (was, is) = (line.mass.grams(), of(&new, &line.ingredient.id));
                        let fruit = line.ingredient.group == Group::Fruit && was > 0.03 * batch(&old);
                        let least = if fruit { 0.65 } else { 0.4 };
                        // What is there already may take a stand-in in, and grow by it.
                        if is < least * was || is > 3.2 * was + 0.25 * batch(&old) {
                            wrong
                                .push(format!("{name}: {} from {was:.0} to {is:.0} g", line.ingredient.name));
                        }
                    }
                }
            }
        }
    }
    assert!(asked > 80, "{asked} swaps");
    assert!(wrong.is_empty(), "{} of {asked}:\n{}", wrong.len(), wrong.join("\n"));
}
