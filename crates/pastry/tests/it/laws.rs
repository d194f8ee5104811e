//! The laws of the model one by one against the reference's own numbers: that the code follows them, not that they are
//! true; `handbook`, `published` and `trade_facts` ask that.

use crate::support::mixture;
use crate::vectors::Case;
use pastry::formula::System;
use pastry::formula::acidity::Acidity;
use pastry::ingredient::StarchKind;
use pastry::ingredient::starch::later_k;
use pastry::rheology::clock::{Clock, fat_felt, fat_progress, smin_integral};
use pastry::rheology::egg_set::stirred_pa;
use pastry::rheology::gelatin::{left_by_fruit, melts_c, set_share};
use pastry::rheology::kernel::whip_frame;
use pastry::rheology::params::FAT_OUTSIDE_PA;
use pastry::rheology::smooth::step;
use pastry::rheology::{Prepared, agar, pectin};
use serde_json::Value;
use std::collections::BTreeMap;

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("{value} is not a number"))
}

/// What one law gives, by the names of the vector; none for laws that are checked elsewhere.
fn given(law: &str, input: &Value) -> Option<BTreeMap<&'static str, f64>> {
    let n = |key: &str| number(&input[key]);
    let or = |key: &str, empty: f64| input.get(key).and_then(Value::as_f64).unwrap_or(empty);
    let one = |value: f64| Some(BTreeMap::from([("", value)]));
    let clock = |hours: f64| Clock { hours, cooled_k_h: or("cool_k_h", 120.0) };
    match law {
        "gel_melt_set" => {
            let (earlier, below) = match input["kind"].as_str()? {
                "warm_fish" => (4.0, 7.0),
                "cold_fish" => (15.0, 7.0),
                _ => (0.0, 5.0),
            };
            let melt = melts_c(n("c"), n("bloom"), n("brix")) - earlier;
            Some(BTreeMap::from([("melt", melt), ("set", melt - below)]))
        }
        "gel_share" => one(set_share(n("age_h"), n("c"))),
        "gel_path_age_h" => {
            let width = (n("set") - 10.0).max(4.0);
            let way = smin_integral((n("set") - n("T")) / width, 1.6, 0.03);
            one(width / n("cool_k_h") * way)
        }
        "gel_G" => {
            let lines = [("water", 1000.0), ("gelatin200", 1.0)];
            let prepared = Prepared::new(&mixture(&lines), System::Jelly, &Default::default());
            let gelatin = pastry::rheology::gelatin::Gelatin {
                percent: n("c"),
                melts_c: melts_c(n("c"), n("bloom"), 0.0),
                full_pa: 217.0 * n("bloom") / 200.0 * n("c").powi(2),
                ..prepared.networks.gelatin
            };
            one(gelatin.modulus(n("T"), n("age_h"), 0.0))
        }
        "protease_left" => {
            one(if input["heated"] == true { 1.0 } else { left_by_fruit(n("share"), n("hours")) })
        }
        "fat_felt" => {
            let [quick, slow] = fat_progress(n("T"), clock(n("hours")), n("kind"));
            let felt = fat_felt(n("T"), clock(n("hours")), n("kind"));
            Some(BTreeMap::from([("y_fast", quick), ("y_slow", slow), ("felt", felt)]))
        }
        "agar_G" => {
            let ph = input["pH"].as_f64();
            let gel = agar::Agar {
                percent: n("c"),
                raw: input["boiled"] == false,
                left_by_acid: ph.map_or(1.0, agar::left_by_acid),
            };
            // The reference counts the minutes since it arrived, not the way down.
            let at_once = Clock { hours: n("minutes") / 60.0, cooled_k_h: f64::INFINITY };
            let fresh = (input["state"] == "fresh").then_some(at_once);
            one(gel.modulus(n("T"), fresh, input["broken"] == true))
        }
        "pectin_nh_G" => {
            one(pectin::Pectin::new(n("c"), n("pH"), n("ss"), n("ca"), false).modulus(n("T"), false))
        }
        "yolk_swell" => {
            let (dry, water) = (n("v_yolk"), n("v_water"));
            let takes = (n("s") - 1.0) * dry;
            one(takes / (1.0 + (takes / (0.6 * water)).powi(2)).sqrt())
        }
        "egg_net" => one(stirred_pa([n("c_w"), n("c_y")], [n("cook"); 2], n("sugW"))),
        "starch_cooked" => {
            let [onset, full] = StarchKind::parse(input["kind"].as_str()?)?.swells_c();
            one(step((n("cook") - onset - later_k(n("sugW"))) / (full - onset)))
        }
        "whip_air" => one(2.0 * whip_frame(n("phi_air"))),
        "ph_mix" => {
            let mut acidity = Acidity::default();
            for part in input["parts"].as_array()? {
                let p = |k: usize| number(&part[k]);
                acidity.add(p(0), p(1), [1000.0 * p(3) / 192.1, p(4), p(2)]);
            }
            one(acidity.ph()?)
        }
        "evaluate" => {
            let case = Case::read(input);
            let prepared = Prepared::new(&case.mixture(), case.system, &case.options);
            let minutes = or("minutes", 0.0);
            let point = prepared.at_after(case.t_c, case.history, Clock::ARRIVED.minutes(minutes));
            let c = point.contributions;
            let mut given = BTreeMap::from([
                ("tau_gel", c.gel),
                ("tau_agar", c.agar),
                ("tau_starch", c.starch),
                ("tau_egg", c.egg),
            ]);
            // The reference's fat inside is that of a model without percolation; fat outside is scaled since, by
            // what keeps plain butter as firm.
            if case.system == System::MeringueButtercream {
                given.insert("tau_fat", c.fat * 370_471.0 / FAT_OUTSIDE_PA);
            }
            Some(given)
        }
        _ => None,
    }
}

/// Integrals the reference sums over 40 midpoints are closed forms here.
fn tolerance(law: &str, of: f64) -> f64 {
    match law {
        "gel_path_age_h" => 1e-4,
        // Where it was beaten is a smooth step here.
        "evaluate" => 1e-3,
        "fat_felt" => 2e-3,
        _ => of.max(1e-9),
    }
}

#[test]
fn every_law_gives_what_the_reference_has() {
    let vectors: Value = serde_json::from_str(include_str!("data/laws.json")).unwrap();
    let (mut wrong, mut checked) = (Vec::new(), BTreeMap::<String, usize>::new());
    for vector in vectors["vectors"].as_array().unwrap() {
        let law = vector["law"].as_str().unwrap();
        let Some(given) = given(law, &vector["input"]) else { continue };
        let within = tolerance(law, number(&vector["tol_rel"]));
        for (name, got) in given {
            let want = if name.is_empty() { &vector["expect"] } else { &vector["expect"][name] };
            let want = number(want);
            if (got - want).abs() > within * want.abs().max(1e-6) {
                wrong.push(format!("{} {law} {name}: {got} for {want}", vector["id"]));
            }
            *checked.entry(law.to_owned()).or_default() += 1;
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert_eq!(checked.values().sum::<usize>(), 110, "{checked:?}");
}
