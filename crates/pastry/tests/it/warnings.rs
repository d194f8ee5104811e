//! Every warning, raised by a formula that earns it and silent for its neighbour that does not. Causes
//! carry their number; ways out say what to do. The facts are common practice.

use pastry::assess::{Assessment, FormulaDocument, assess};
use pastry::formula::Family;
use serde_json::{Value, json};

/// Judges lines of a family for a job; `work` and `process` are merged in.
fn judged(family: Family, job: &str, lines: &[(&str, &str)], t_c: f64, process: Value) -> Assessment {
    let lines: Vec<Value> = lines
        .iter()
        .map(|(ingredient, amount)| match amount.split_once(" @") {
            // "400 g @90" is a line that reached 90 °C.
            Some((amount, cook)) => {
                json!({ "ingredient": ingredient, "amount": amount, "cook_c": cook.parse::<f64>().unwrap() })
            }
            None => json!({ "ingredient": ingredient, "amount": amount }),
        })
        .collect();
    let document: FormulaDocument = serde_json::from_value(json!({
        "format": "bright-spoon/formula", "version": 1, "family": family, "lines": lines, "process": process,
        "work": { "job": { "kind": job }, "temperature_c": t_c, "room_temperature_c": 21.0 }
    }))
    .unwrap();
    assess(&document).unwrap_or_else(|faults| panic!("{faults:?}"))
}

#[track_caller]
fn raises(answer: &Assessment, code: &str, number: &str) {
    let warning = answer.warnings.iter().find(|warning| warning.code == code);
    let warning = warning.unwrap_or_else(|| {
        panic!("no {code} in {:?}", answer.warnings.iter().map(|w| &w.code).collect::<Vec<_>>())
    });
    assert!(warning.cause.contains(number), "{code} says: {}", warning.cause);
    assert!(!warning.way_out.is_empty());
}

#[track_caller]
fn silent(answer: &Assessment, code: &str) {
    if let Some(warning) = answer.warnings.iter().find(|warning| warning.code == code) {
        panic!("{code}: {}", warning.cause);
    }
}

const NONE: fn() -> Value = || json!({});

#[test]
fn raw_fruit_cuts_gelatin_unless_it_was_boiled_on_its_own_line() {
    let kiwi = |amount: &str| {
        let lines = [("kiwi_raw", amount), ("cream36", "400 g"), ("gelatin200", "12 g")];
        judged(Family::FruitMousse, "set", &lines, 5.0, json!({ "set_hours": 6 }))
    };
    let raw = kiwi("400 g");
    raises(&raw, "protease", "% of its strength");
    let boiled = kiwi("400 g @90");
    silent(&boiled, "protease");
    assert!(boiled.at.yield_stress_pa.value > 3.0 * raw.at.yield_stress_pa.value);
    // Another line's heat does not help: the lowest of the fruit counts.
    let lines =
        [("kiwi_raw", "200 g @90"), ("pineapple_raw", "200 g"), ("cream36", "400 g"), ("gelatin200", "12 g")];
    raises(&judged(Family::FruitMousse, "set", &lines, 5.0, NONE()), "protease", "strength");
}

#[test]
fn sour_and_strong_liquids_weaken_gelatin() {
    let lemon = [("lemon", "400 g"), ("sugar", "120 g"), ("gelatin200", "10 g")];
    raises(&judged(Family::Jelly, "set", &lemon, 6.0, NONE()), "gelatin_acid", "% of the gelatin");
    let pear = [("pear", "400 g"), ("sugar", "60 g"), ("gelatin200", "10 g")];
    silent(&judged(Family::Jelly, "set", &pear, 6.0, NONE()), "gelatin_acid");
    let spirit = [("water", "200 g"), ("brandy40", "200 g"), ("sugar", "60 g"), ("gelatin200", "10 g")];
    let answer = judged(Family::Jelly, "set", &spirit, 6.0, NONE());
    raises(&answer, "gelatin_alcohol", "% alcohol by volume");
    raises(&answer, "alcohol", "% alcohol by volume");
}

#[test]
fn gelatin_says_whose_it_is() {
    let of = |gelatin| {
        let lines = [("pear", "400 g"), ("sugar", "60 g"), (gelatin, "8 g")];
        judged(Family::Jelly, "set", &lines, 6.0, NONE())
    };
    raises(&of("gelatin200"), "gelatin_origin", "pork");
    raises(&of("gelatin_fish"), "gelatin_origin", "fish");
    silent(&of("agar"), "gelatin_origin");
}

#[test]
fn starch_must_boil_and_sugar_asks_for_more() {
    let milk = |cook: f64| {
        let lines = [("milk", "500 g"), ("yolk", "85 g"), ("sugar", "100 g"), ("corn_starch", "44 g")];
        judged(Family::PastryCream, "fill", &lines, 6.0, json!({ "cook_c": cook }))
    };
    raises(&milk(85.0), "starch_raw", "reached 85 °C");
    silent(&milk(96.0), "starch_raw");
    // A sugar-rich filling needs a real boil: 96 °C is not enough.
    let condensed = |cook: f64| {
        let lines = [("condensed", "397 g"), ("evap", "200 g"), ("corn_starch", "34 g")];
        judged(Family::CondensedFilling, "fill", &lines, 10.0, json!({ "cook_c": cook }))
    };
    raises(&condensed(96.0), "starch_raw", "needs 99");
    silent(&condensed(104.0), "starch_raw");
    // The starch of icing sugar is not there to thicken.
    let frosting = [("icing", "500 g"), ("butter82", "250 g")];
    silent(&judged(Family::Buttercream, "mask", &frosting, 21.0, NONE()), "starch_raw");
    let cold = [("milk", "500 g"), ("instant_starch", "45 g"), ("sugar", "80 g")];
    silent(&judged(Family::PastryCream, "fill", &cold, 8.0, json!({ "cook_c": 20 })), "starch_raw");
}

#[test]
fn egg_is_raw_until_somebody_says_it_was_heated_and_scrambles_without_starch() {
    let swiss = |egg: &'static str, process: Value| {
        let lines = [(egg, "100 g"), ("sugar", "180 g"), ("butter82", "300 g")];
        judged(Family::SwissButtercream, "mask", &lines, 20.0, process)
    };
    raises(&swiss("white", NONE()), "egg_raw", "71 °C");
    raises(&swiss("white", json!({ "cook_c": 60 })), "egg_raw", "reached 60 °C");
    silent(&swiss("white", json!({ "cook_c": 71 })), "egg_raw");
    silent(&swiss("white_powder", NONE()), "egg_raw");
    let sauce = |cook: f64, starch: &'static str| {
        let lines = [
            ("milk", "400 g"),
            ("cream36", "100 g"),
            ("yolk", "110 g"),
            ("sugar", "90 g"),
            ("corn_starch", starch),
        ];
        judged(Family::Anglaise, "nappe", &lines, 70.0, json!({ "cook_c": cook }))
    };
    raises(&sauce(90.0, "0 g"), "egg_scrambles", "86 °C");
    silent(&sauce(83.0, "0 g"), "egg_scrambles");
    silent(&sauce(96.0, "30 g"), "egg_scrambles");
    // Raw whites folded into a cooked custard stay raw whites.
    let bavarois = [
        ("milk", "250 g"),
        ("yolk", "60 g @83"),
        ("white", "60 g"),
        ("gelatin200", "6 g"),
        ("cream36", "200 g"),
    ];
    raises(&judged(Family::Bavarois, "set", &bavarois, 5.0, NONE()), "egg_raw", "71 °C");
}

#[test]
fn cream_that_will_not_whip_says_why() {
    let cream = |lines: &[(&str, &str)], t_c: f64| judged(Family::WhippedCream, "whip", lines, t_c, NONE());
    let lean = cream(&[("cream20", "500 g"), ("sugar", "40 g")], 5.0);
    raises(&lean, "whip_fat", "under 30 %");
    assert_eq!(lean.at.headline, "Too little fat to whip");
    let warm = cream(&[("cream36", "500 g"), ("sugar", "40 g")], 15.0);
    raises(&warm, "whip_warm", "At 15 °C");
    assert_eq!(warm.at.headline, "Too warm to whip at 15.0 °C");
    let thick = cream(&[("mascarpone", "500 g"), ("sugar", "40 g")], 5.0);
    raises(&thick, "whip_thick", "Pa·s");
    let good = cream(&[("cream36", "500 g"), ("sugar", "40 g")], 5.0);
    for code in ["whip_fat", "whip_warm", "whip_thick", "whip_thin"] {
        silent(&good, code);
    }
}

#[test]
fn too_much_water_curdles_a_buttercream_but_not_a_mousseline() {
    let wet = [("butter82", "250 g"), ("icing", "250 g"), ("milk", "500 g")];
    raises(&judged(Family::Buttercream, "mask", &wet, 21.0, NONE()), "too_wet", "70 %");
    let usual = [("butter82", "250 g"), ("icing", "500 g"), ("milk", "20 g")];
    silent(&judged(Family::Buttercream, "mask", &usual, 21.0, NONE()), "too_wet");
    let mousseline = [
        ("milk", "500 g"),
        ("yolk", "85 g"),
        ("sugar", "110 g"),
        ("corn_starch", "40 g"),
        ("butter82", "350 g"),
    ];
    silent(&judged(Family::Mousseline, "fill", &mousseline, 18.0, json!({ "cook_c": 96 })), "too_wet");
}

#[test]
fn sugar_that_comes_back_out_is_said() {
    let grainy = [("sugar", "300 g"), ("water", "90 g")];
    raises(&judged(Family::Syrup, "soak", &grainy, 20.0, NONE()), "graining", "times the sugar");
    let held = [("sugar", "150 g"), ("glucose60", "150 g"), ("water", "120 g")];
    silent(&judged(Family::Syrup, "soak", &held, 20.0, NONE()), "graining");
    let sandy = [("white30", "300 g"), ("cream36", "70 g"), ("smp", "30 g")];
    raises(&judged(Family::Ganache, "mask", &sandy, 20.0, NONE()), "lactose_sand", "times the milk sugar");
}

#[test]
fn a_soak_off_its_richness_says_its_brix() {
    let rich = |sugar: &'static str| {
        let lines = [("sugar", sugar), ("water", "200 g")];
        let mut document = FormulaDocument::empty(
            Family::Syrup,
            serde_json::from_value(json!({ "kind": "soak", "richness": "rich" })).unwrap(),
            20.0,
        );
        document.lines = lines.iter().map(|(i, a)| pastry::formula::Line::new(*i, *a)).collect();
        assess(&document).unwrap()
    };
    raises(&rich("90 g"), "soak_brix", "31 °Bx, less than the 45 to 57");
    silent(&rich("200 g"), "soak_brix");
}
