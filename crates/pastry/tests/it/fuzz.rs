//! Formulas nobody would write: whatever is asked, an answer comes, finite and in time, or a fault in words.

use pastry::assess::FormulaDocument;
use pastry::assess::starts::starts;
use pastry::balance::ways;
use pastry::formula::rules::ShareRule;
use pastry::formula::{Family, Line};
use pastry::ingredient::{Shelf, catalogue};
use pastry::method::sheet;
use pastry::rescue::{OverpourAsk, RescueAsk, Sign, overpour, rescue};
use pastry::scale::{ScaleAsk, Target, Whole, scale};
use pastry::swap::{Avoid, SwapAsk, SwapFor, swap};
use pastry::units::Temperature;

/// So many in every run; `FUZZ=10000` asks for more.
const USUAL: usize = 1_000;

/// A small generator of its own, so that a failure comes again: xorshift64 (Marsaglia 2003).
struct Dice(u64);

impl Dice {
    fn roll(&mut self) -> f64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        (self.0 >> 11) as f64 / (1u64 << 53) as f64
    }

    fn below(&mut self, n: usize) -> usize {
        ((self.roll() * n as f64) as usize).min(n - 1)
    }

    fn chance(&mut self, share: f64) -> bool {
        self.roll() < share
    }
}

fn random_formula(dice: &mut Dice) -> FormulaDocument {
    let family = Family::ALL[dice.below(Family::ALL.len())];
    let of_family = starts(family);
    let mut document = of_family[dice.below(of_family.len())].clone();
    let amount = |dice: &mut Dice| {
        // From a hundredth of a gram to ten kilograms, each decade as likely.
        let grams = 10f64.powf(-2.0 + 6.0 * dice.roll());
        if dice.chance(0.03) { "0 g".to_owned() } else { format!("{grams:.2} g") }
    };
    document.work.temperature_c = Temperature::from_celsius((60.0 * dice.roll()).round().min(45.0));
    if dice.chance(0.6) {
        document.lines.clear();
        for _ in 0..=dice.below(12) {
            let ingredient = &catalogue()[dice.below(catalogue().len())].id;
            let amount = amount(dice);
            document.lines.push(Line::new(ingredient, amount));
        }
    } else {
        let at = dice.below(document.lines.len());
        document.lines[at].amount = amount(dice);
    }
    for line in &mut document.lines {
        line.rule.locked = dice.chance(0.1);
        line.rule.least_g = dice.chance(0.05).then(|| 100.0 * dice.roll());
        line.rule.pack_g = dice.chance(0.05).then(|| 1.0 + 300.0 * dice.roll());
    }
    document.rules.keep_total = dice.chance(0.2);
    document.rules.whole_pieces = dice.chance(0.1);
    if dice.chance(0.1) {
        let of = document.lines[0].ingredient.clone();
        let least_percent = Some(100.0 * dice.roll());
        document.rules.shares.push(ShareRule { of, least_percent, most_percent: None });
    }
    document
}

#[test]
fn nothing_panics_and_every_number_is_one() {
    let many = std::env::var("FUZZ").ok().and_then(|many| many.parse().ok()).unwrap_or(USUAL);
    let shelf = Shelf::catalogue();
    let mut dice = Dice(0x5eed_cafe);
    let (mut answered, mut with_ways) = (0, 0);
    for round in 0..many {
        let document = random_formula(&mut dice);
        let outcome = ways(&document, &shelf, &|_| Some(5.0));
        match outcome {
            Err(faults) => {
                assert!(
                    !faults.is_empty() && faults.iter().all(|fault| !fault.message.is_empty()),
                    "{faults:?}"
                );
            }
            Ok(answer) => {
                answered += 1;
                with_ways += usize::from(!answer.ways.is_empty());
                // A number that is none is null in JSON.
                let written = serde_json::to_value(&answer).unwrap();
                for way in written["ways"].as_array().unwrap() {
                    for number in
                        ["fat_points", "sugar_points", "water_points", "sweetness_points", "batch_g"]
                    {
                        assert!(
                            way["effects"][number].is_f64(),
                            "round {round}: {number} in {}",
                            way["title"]
                        );
                    }
                    assert!(way["on_map"].as_array().unwrap().iter().all(|at| at.is_f64()), "round {round}");
                    for change in way["changes"].as_array().unwrap() {
                        assert!(change["to_g"].as_f64().is_some_and(|g| g >= 0.0), "round {round}: {change}");
                    }
                }
            }
        }
    }
    println!("{answered} answered, {with_ways} with ways");
    assert!(answered > many / 2 && with_ways > many / 10, "{answered} answered, {with_ways} with ways");
}

/// Numbers of an answer, however deep: none is missing because it was no number.
fn all_finite(value: &serde_json::Value, name: &str) {
    match value {
        serde_json::Value::Number(number) => assert!(number.as_f64().is_some_and(f64::is_finite), "{name}"),
        serde_json::Value::Array(all) => all.iter().for_each(|inner| all_finite(inner, name)),
        serde_json::Value::Object(all) => all.values().for_each(|inner| all_finite(inner, name)),
        _ => {}
    }
}

#[test]
fn rescues_swaps_sizes_and_methods_answer_whatever_is_in_the_bowl() {
    let many: usize = std::env::var("FUZZ").ok().and_then(|many| many.parse().ok()).unwrap_or(USUAL) / 5;
    let shelf = Shelf::catalogue();
    let mut dice = Dice(0xb0a1_5eed);
    let (mut answered, mut refused) = (0, 0);
    for round in 0..many {
        let document = random_formula(&mut dice);
        let line = dice.below(document.lines.len());
        let ask = RescueAsk {
            document: document.clone(),
            sign: Sign::ALL[dice.below(Sign::ALL.len())],
            bowl_c: dice.chance(0.7).then(|| -20.0 + 140.0 * dice.roll()),
            bowl_g: dice.chance(0.5).then(|| 10f64.powf(4.0 * dice.roll())),
            not_at_hand: Vec::new(),
        };
        let poured = OverpourAsk {
            document: document.clone(),
            line,
            poured: format!("{:.1} g", 10f64.powf(3.0 * dice.roll())),
        };
        let by = catalogue()[dice.below(catalogue().len())].id.clone();
        let what = if dice.chance(0.5) {
            SwapFor::Replace { line, by }
        } else {
            SwapFor::Without { what: Avoid::ALL[dice.below(Avoid::ALL.len())] }
        };
        let swapped = SwapAsk { document: document.clone(), ask: what, keep: Vec::new() };
        let sized = ScaleAsk {
            document: document.clone(),
            target: Target::Mass { grams: 10f64.powf(1.0 + 4.0 * dice.roll()) },
            loss_percent: 10.0 * dice.roll(),
            whole: [Whole::Nothing, Whole::Pieces, Whole::Packs][dice.below(3)],
            whole_line: None,
        };
        let json = |value: serde_json::Result<serde_json::Value>| value.expect("an answer is JSON");
        let outcomes = [
            rescue(&ask, &shelf).map(|answer| json(serde_json::to_value(answer))),
            overpour(&poured, &shelf).map(|answer| json(serde_json::to_value(answer))),
            swap(&swapped, &shelf, &|_| Some(5.0)).map(|answer| json(serde_json::to_value(answer))),
            scale(&sized, &shelf, &|_| Some(250.0)).map(|answer| json(serde_json::to_value(answer))),
            sheet(&document, &shelf, &[]).map(|answer| json(serde_json::to_value(answer))),
        ];
        for outcome in outcomes {
            match outcome {
                Ok(answer) => {
                    answered += 1;
                    all_finite(&answer, &format!("round {round}"));
                }
                Err(faults) => {
                    refused += 1;
                    assert!(!faults.is_empty() && faults.iter().all(|fault| !fault.message.is_empty()));
                }
            }
        }
    }
    assert!(answered > 2 * refused, "{answered} answered, {refused} refused");
}
