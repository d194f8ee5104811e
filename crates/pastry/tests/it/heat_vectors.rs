//! Heat against 172 vectors of an independent implementation of the same laws: materials, bodies that cool and warm.

use pastry::heat::{
    Body, Face, HeatShares, Layer, MadeOf, Material, Moist, Outline, Solutes, Stretch, Until, Watched,
};
use serde_json::Value;

/// Vectors of a model.
pub fn vectors(model: &str) -> Vec<Value> {
    let all: Value = serde_json::from_str(include_str!("data/heat_vectors.json")).unwrap();
    let found: Vec<Value> =
        all["vectors"].as_array().unwrap().iter().filter(|own| own["model"] == model).cloned().collect();
    assert!(!found.is_empty(), "no vector of {model}");
    found
}

fn shares(comp: &Value) -> HeatShares {
    let mut shares = HeatShares::default();
    for (part, share) in comp.as_object().unwrap() {
        let into = match part.as_str() {
            "water" => &mut shares.water,
            "protein" => &mut shares.protein,
            "sugar" => &mut shares.sugar,
            "starch" => &mut shares.starch,
            "fibre" => &mut shares.fibre,
            "ash" => &mut shares.ash,
            "alcohol" => &mut shares.alcohol,
            "fat_cocoa" => &mut shares.cocoa_fat,
            "fat_milk" => &mut shares.milk_fat,
            "fat_lauric" => &mut shares.lauric_fat,
            "fat_oil" => &mut shares.oil,
            other => panic!("no part {other}"),
        };
        *into = share.as_f64().unwrap();
    }
    shares
}

/// A material as the vectors write it.
pub fn made_of(material: &Value) -> MadeOf {
    let shares = shares(&material["comp"]);
    MadeOf {
        shares,
        air: material["air"].as_f64().unwrap_or(0.0),
        fat_outside: material["continuous"] == "fat",
        solutes: Solutes::lumped(&shares, material["sugar_M"].as_f64().unwrap_or(342.3)),
        cooling: material["mode"] == "cool",
    }
}

pub fn near(name: &str, got: f64, want: f64, share: f64) {
    assert!((got - want).abs() <= share * want.abs() + 1e-9, "{name}: {got}, not {want}");
}

#[test]
fn materials_hold_and_pass_heat_as_the_vectors_say() {
    for vector in vectors("props") {
        let of = made_of(&vector["input"]);
        let MadeOf { shares, air, fat_outside, solutes, cooling } = of;
        let want = |key: &str| vector["expect"][key].as_f64().unwrap();
        let name = |key: &str| format!("{} {key}", vector["expect"]["name"]);
        let ice = |t_c: f64| solutes.ice(t_c);
        near(&name("ice"), ice(-18.0), want("ice_-18"), 1e-6);
        let begins = solutes.begins_c().unwrap_or(-99.0);
        near(&name("freezing"), begins, want("freezing_point"), 1e-6);
        for (key, t_c) in [("h_60", 60.0), ("h_22", 22.0), ("h_5", 5.0), ("h_-18", -18.0)] {
            near(&name(key), shares.enthalpy_with(t_c, cooling, ice(t_c)), want(key), 1e-5);
        }
        for (key, t_c) in [("k_20", 20.0), ("k_-10", -10.0)] {
            near(&name(key), shares.conducts(t_c, ice(t_c), air, fat_outside), want(key), 1e-6);
        }
        near(&name("rho_20"), (1.0 - air) * shares.density(20.0, 0.0), want("rho_20"), 1e-6);
    }
}

fn face(side: &Value) -> Option<Face> {
    side.as_object()?;
    let number = |key: &str| side[key].as_f64();
    let moist = number("aw").map(|activity| Moist {
        activity,
        open: number("ev").unwrap_or(1.0),
        humidity: number("RH").unwrap_or(0.5),
        convection: number("hc").unwrap_or(5.0),
    });
    Some(Face { h: number("h")?, air_c: number("T")?, resistance: number("R").unwrap_or(0.0), moist })
}

#[test]
fn bodies_cool_and_warm_as_the_vectors_say() {
    for vector in vectors("cool") {
        let input = &vector["input"];
        let materials: Vec<Material> = input["layers"]
            .as_array()
            .unwrap()
            .iter()
            .map(|own| Material::new(&made_of(&own["material"])))
            .collect();
        let layers =
            input["layers"].as_array().unwrap().iter().zip(&materials).map(|(own, material)| Layer {
                material,
                thickness_m: own["thickness"].as_f64().unwrap(),
                t_c: own["T"].as_f64().unwrap(),
                cells: own["n"].as_u64().unwrap() as usize,
            });
        let outline = match input["R"].as_f64() {
            Some(radius_m) => {
                Outline::Round { radius_m, hole_m: 0.0, rings: input["nr"].as_u64().unwrap() as usize }
            }
            None => Outline::Wide,
        };
        let watch = input["watch"].as_u64().map(|at| at as usize);
        let body = Body { layers: layers.collect(), outline, watch };
        let stretches: Vec<Stretch> = input["phases"]
            .as_array()
            .unwrap()
            .iter()
            .map(|phase| Stretch {
                seconds: phase["t"].as_f64().unwrap(),
                top: face(&phase["sides"]["top"]),
                side: face(&phase["sides"]["side"]),
                bottom: face(&phase["sides"]["bottom"]),
                stir_s: phase["stir"].as_f64(),
                as_one: None,
            })
            .collect();
        let until = input["stop"].as_f64().map_or(Until::TimeIsUp, Until::Near);
        let course = body.follow(&stretches, until);
        let name = |what: &str| format!("{}, {}: {what}", vector["id"], input["title"]);
        let want = |key: &str| vector["expect"][key].as_f64().unwrap();
        let end = course.moments.last().unwrap();
        assert_eq!(course.moments.len() - 1, want("steps") as usize, "{}", name("strides"));
        near(&name("mean at the end"), end.mean, want("mean_end"), 1e-9);
        near(&name("hottest at the end"), end.hottest, want("max_end"), 1e-9);
        near(&name("heat lost"), course.lost_j, want("q_out"), 1e-9);
        for mark in vector["expect"]["marks"].as_array().unwrap() {
            let watched = match mark["series"].as_str().unwrap() {
                "max" => Watched::Hottest,
                "min" => Watched::Coldest,
                _ => Watched::Mean,
            };
            let x = mark["X"].as_f64().unwrap();
            match (course.time_to(watched, x), mark["t"].as_f64()) {
                (Some(got), Some(want)) => near(&name(&format!("{watched:?} to {x} °C")), got, want, 1e-9),
                (got, want) => assert_eq!(got, want, "{}", name(&format!("{watched:?} to {x} °C"))),
            }
        }
    }
}
