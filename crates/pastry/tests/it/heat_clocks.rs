//! What boils, sets and is made safe, against the vectors of an independent implementation and published tables.

use crate::heat_vectors::{made_of, near, vectors};
use crate::support::{number, rows};
use pastry::assess::baume::baume;
use pastry::formula::egg_heat::EggKind;
use pastry::heat::boiling::{
    SEA_PA, air_pa, boil_down, boils_higher_up, brix_as_sucrose, brix_boiling_at, syrup_boils_c,
    syrup_capacity, water_boils_c,
};
use pastry::heat::safety::{CoolingRule, Kept, egg_is_safe, made_safe};
use pastry::heat::setting::{
    UNMOULDS, ganache_hours, gelatin_hours, gelatin_rate, gelatin_sets_at, gelatin_share, starch_share,
};
use pastry::heat::{Face, Material};
use pastry::rheology::serum::syrup_viscosity;
use serde_json::Value;

fn of(value: &Value, key: &str) -> f64 {
    value[key].as_f64().unwrap_or_else(|| panic!("no {key} in {value}"))
}

/// Seconds and °C.
fn history(input: &Value) -> Vec<(f64, f64)> {
    let list =
        |key: &str| input[key].as_array().unwrap().iter().map(|v| v.as_f64().unwrap()).collect::<Vec<_>>();
    list("t").into_iter().zip(list("T")).collect()
}

/// Seconds at which a history of straight lines passes a temperature from above.
fn passes(history: &[(f64, f64)], t_c: f64) -> Option<f64> {
    let pair = history.windows(2).find(|pair| pair[0].1 > t_c && pair[1].1 <= t_c)?;
    let [(from, a), (to, b)] = [pair[0], pair[1]];
    Some(from + (to - from) * (a - t_c) / (a - b))
}

/// Ours rests on tables of its own: viscosity is drawn towards that of water where syrup is thin, Baumé is read off Plato's table.
#[test]
fn a_syrup_is_what_the_vectors_say() {
    for vector in vectors("syrup") {
        let [brix, t_c] = ["B", "T"].map(|key| of(&vector["input"], key));
        near("capacity", syrup_capacity(brix, t_c), of(&vector["expect"], "cp"), 1e-9);
        near("viscosity", syrup_viscosity(brix, t_c), of(&vector["expect"], "viscosity"), 0.05);
        near("Baumé", baume(brix), of(&vector["expect"], "baume145"), 2e-3);
    }
    for vector in vectors("baume") {
        near("back", baume(of(&vector["expect"], "brix145")), of(&vector["input"], "be"), 2e-3);
    }
}

#[test]
fn syrup_boils_where_the_vectors_say() {
    for vector in vectors("boil_T") {
        let got = syrup_boils_c(of(&vector["input"], "B"), of(&vector["input"], "P"));
        near("boils", got, of(&vector["expect"], "T"), 1e-6);
    }
    for vector in vectors("brix_at_boil") {
        let got = brix_boiling_at(of(&vector["input"], "T"), of(&vector["input"], "P"));
        near("strength", got, of(&vector["expect"], "B"), 1e-6);
    }
    for vector in vectors("altitude") {
        let pressure = air_pa(of(&vector["input"], "alt_m"));
        near("pressure", pressure, of(&vector["expect"], "P"), 1e-9);
        near(
            "higher up",
            boils_higher_up(of(&vector["input"], "T_sea"), pressure),
            of(&vector["expect"], "T"),
            1e-9,
        );
    }
    for vector in vectors("equivalent_brix") {
        let got = brix_as_sucrose(of(&vector["input"], "B"), of(&vector["input"], "M"));
        near("as sucrose", got, of(&vector["expect"], "B_eq"), 1e-9);
    }
    for vector in vectors("boil_time") {
        let input = &vector["input"];
        let brix = [of(input, "B0"), of(input, "B1")];
        let got =
            boil_down(of(input, "kg"), brix, of(input, "T0"), of(input, "W"), of(input, "eff")).unwrap();
        near("to the boil", got.heat_s, of(&vector["expect"], "t_heat"), 1e-6);
        near("boiled down", got.boil_s, of(&vector["expect"], "t_boil"), 1e-6);
        near("gone", 1e3 * got.gone_kg, of(&vector["expect"], "evaporated_g"), 1e-9);
    }
    assert_eq!(boil_down(1.0, [50.0, 60.0], 20.0, 200.0, 0.4), None, "a ring too weak to boil it");
    for brix in 0..=99 {
        let brix = f64::from(brix);
        for pressure in [SEA_PA, 83_000.0] {
            near("there and back", brix_boiling_at(syrup_boils_c(brix, pressure), pressure), brix, 1e-6);
        }
    }
}

/// Boiling of water by altitude as `CoolProp` has it.
#[test]
fn water_boils_cooler_up_a_mountain() {
    for row in rows(include_str!("data/boiling_vs_altitude.csv")) {
        let columns: Vec<&String> = row.keys().collect();
        let column = |part: &str| {
            columns.iter().find(|name| name.contains(part)).unwrap_or_else(|| panic!("{columns:?}"))
        };
        let (altitude, boils) = (number(&row, column("alt")), number(&row, column("boil")));
        let got = water_boils_c(air_pa(altitude));
        assert!((got - boils).abs() < 0.1, "{altitude} m: {got}, {boils}");
    }
}

#[test]
fn cooling_is_held_against_the_five_codes() {
    for vector in vectors("cooling_rule") {
        let rule = CoolingRule::parse(vector["input"]["rule"].as_str().unwrap()).unwrap();
        let history = history(&vector["input"]);
        let cooled = rule.of(history[0].1, |t_c| passes(&history, t_c));
        let stages: Vec<Option<f64>> =
            vector["expect"]["stages"].as_array().unwrap().iter().map(Value::as_f64).collect();
        for (got, want) in cooled.stages_s.iter().zip(&stages) {
            match (got, want) {
                (Some(got), Some(want)) => near(rule.word(), *got, *want, 1e-9),
                (got, want) => assert_eq!(got, want, "{}", rule.word()),
            }
        }
        assert_eq!(cooled.used.is_some(), vector["expect"]["ratio"].is_number());
        if let Some(used) = cooled.used {
            near(rule.word(), used, of(&vector["expect"], "ratio"), 1e-9);
        }
        assert_eq!(cooled.kept, Kept::Broken, "{vector}");
    }
    for vector in vectors("max_depth") {
        let input = &vector["input"];
        let face = |side: &Value| Face {
            h: of(side, "h"),
            air_c: of(side, "T"),
            resistance: of(side, "R"),
            moist: None,
        };
        let rule = CoolingRule::parse(input["rule"].as_str().unwrap()).unwrap();
        let material = Material::new(&made_of(&input["material"]));
        let depth =
            rule.deepest_m(&material, of(input, "T0"), face(&input["top"]), face(&input["bottom"])).unwrap();
        near(rule.word(), depth, of(&vector["expect"], "depth"), 1e-3);
    }
}

/// On a straight line from a to b a hold counts (10^((b − T)/z) − 10^((a − T)/z)) z/ln 10 over its slope.
fn counted_exactly(kind: EggKind, history: &[(f64, f64)]) -> f64 {
    let counts = |t_c: f64| 1.0 / kind.hold_min(t_c);
    let kelvins_per_e = 1.0 / (kind.hold_min(0.0) / kind.hold_min(1.0)).ln();
    history
        .windows(2)
        .map(|pair| {
            let [(from, a), (to, b)] = [pair[0], pair[1]];
            let minutes = (to - from) / 60.0;
            match b - a {
                0.0 => minutes * counts(a),
                rises => (counts(b) - counts(a)) * kelvins_per_e * minutes / rises,
            }
        })
        .sum()
}

/// The vectors take the trapezium between readings minutes apart, which counts heat that never was (5.3 where it is 3.1): ours
/// is the integral, and never more than theirs.
#[test]
fn egg_is_made_safe_on_its_way() {
    for vector in vectors("egg_history") {
        let kind = match vector["input"]["kind"].as_str().unwrap() {
            "whole_egg" => EggKind::Whole,
            "yolk_sugared" => EggKind::SugaredYolk,
            _ => EggKind::White,
        };
        let history = history(&vector["input"]);
        let safe_by = made_safe(kind, &history);
        near("made safe", safe_by, counted_exactly(kind, &history), 1e-3);
        assert!(safe_by <= of(&vector["expect"], "ratio"), "{vector}: {safe_by}");
        let safe = egg_is_safe(kind, of(&vector["input"], "sugar_fraction"), &history);
        assert_eq!(safe, vector["expect"]["verdict"] != "raw_egg_flag", "{vector}");
    }
    assert!(egg_is_safe(EggKind::White, 0.6, &[(0.0, 20.0), (60.0, 71.0)]), "at 71 °C at once");
}

#[test]
fn gelatin_starch_and_ganache_set_by_their_clocks() {
    for vector in vectors("gel_fraction") {
        let age = of(&vector["input"], "age_h");
        let held = [(0.0, 10.0), (3600.0 * age, 10.0)];
        near("gelatin", gelatin_share(&held, f64::INFINITY), of(&vector["expect"], "f"), 1e-9);
    }
    for vector in vectors("gel_T") {
        near("rate", gelatin_rate(of(&vector["input"], "T")), of(&vector["expect"], "rate"), 1e-9);
    }
    for vector in vectors("gel_history") {
        let history = history(&vector["input"]);
        near("hours", gelatin_hours(&history), of(&vector["expect"], "age_h"), 0.02);
        let at = gelatin_sets_at(&history, UNMOULDS).unwrap();
        near("turns out", at, of(&vector["expect"], "t_unmould"), 0.02);
        assert_eq!(gelatin_sets_at(&[(0.0, 35.0), (60.0, 25.0)], UNMOULDS), None, "never on the bench");
    }
    for vector in vectors("starch_fraction") {
        let age = of(&vector["input"], "age_h");
        near("starch", starch_share(&[(0.0, 5.0), (3600.0 * age, 5.0)]), of(&vector["expect"], "f"), 1e-9);
    }
    for vector in vectors("ganache_rest") {
        let slower = if vector["input"]["kind"] == "milk" { 1.5 } else { 1.0 };
        let got = ganache_hours(of(&vector["input"], "T"), of(&vector["input"], "x"), slower).unwrap();
        near("ganache", got, of(&vector["expect"], "hours"), 1e-6);
    }
    assert_eq!(ganache_hours(29.0, 0.9, 1.0), None, "it stays liquid");
}
