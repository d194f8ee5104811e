//! Conformance with the reference implementation of the model: 126 inputs with all outputs, 24
//! formulas with derivatives, and its sub-functions. This checks that the code follows the model,
//! not that the model is true; `handbook` and `trade_facts` do that.

use crate::support::mixture;
use pastry::formula::{Mixture, System};
use pastry::ingredient::{Part, find};
use pastry::job::jobs::{CoatGeometry, NappeGeometry, SoakGeometry, WhipGeometry};
use pastry::job::judge::Question;
use pastry::job::physics::{drip::DripCourse, film};
use pastry::job::{Job, Judged};
use pastry::rheology::clock::Clock;
use pastry::rheology::scramble::scrambled_at;
use pastry::rheology::solid_fat::{COCOA_BUTTER, Curve, LAURIC, MILK_FAT, Pool};
use pastry::rheology::whipping::{WhipLimits, Whips};
use pastry::rheology::{History, Options, Structure, serum, smooth};
use pastry::rheology::{Predictor, Prepared};
use pastry::sponge::SpongeKind;
use pastry::units::{Length, Seconds, SurfaceTemperature};
use serde_json::Value;
use std::sync::LazyLock;

/// Relative tolerance of the vectors, as published with them.
const TOLERANCE: f64 = 1e-6;
/// Tolerance of derivatives: absolute, or relative when larger than 1.
const DERIVATIVE_TOLERANCE: f64 = 1e-5;

pub static VECTORS: LazyLock<Value> =
    LazyLock::new(|| serde_json::from_str(include_str!("data/consistency.json")).unwrap());

pub struct Case {
    pub lines: Vec<(String, f64)>,
    pub system: System,
    pub t_c: f64,
    pub history: History,
    pub options: Options,
}

impl Case {
    /// Raw fruit on gelatin: the reference lets a little of it pass; since then any of it undoes the gel, and
    /// `warnings::raw_fruit_undoes_gelatin_at_any_dose` holds that.
    pub fn has_raw_fruit(&self) -> bool {
        self.lines.iter().any(|(id, _)| find(id).unwrap().flags.protease)
    }

    pub fn read(input: &Value) -> Self {
        let number = |key: &str| input.get(key).and_then(Value::as_f64);
        let worked = input.get("worked").and_then(Value::as_bool);
        Case {
            lines: input["lines"]
                .as_array()
                .unwrap()
                .iter()
                .map(|line| (line[0].as_str().unwrap().to_owned(), line[1].as_f64().unwrap()))
                .collect(),
            system: serde_json::from_value(input["family"].clone()).unwrap(),
            t_c: number("T").unwrap(),
            history: match input["state"].as_str().unwrap() {
                "fresh" => History::Fresh,
                _ => History::Rested,
            },
            options: Options {
                overrun: number("overrun"),
                whip: number("whip"),
                cook_c: number("cook_c"),
                worked,
                hours: number("hours"),
                clock: Some(Clock {
                    hours: number("minutes").unwrap_or(0.0) / 60.0,
                    cooled_k_h: number("cool_k_h").unwrap_or(120.0),
                }),
                worked_c: number("worked_c"),
                ..Options::default()
            },
        }
    }

    pub fn mixture(&self) -> Mixture {
        let lines: Vec<(&str, f64)> = self.lines.iter().map(|(id, g)| (id.as_str(), *g)).collect();
        mixture(&lines)
    }
}

fn off(got: f64, want: f64) -> f64 {
    (got - want).abs() / want.abs().max(1e-9)
}

#[test]
fn every_vector_comes_out_of_the_kernel() {
    let vectors = VECTORS["vectors"].as_array().unwrap();
    assert_eq!(vectors.len(), 245);
    let mut wrong = Vec::new();
    let mut checked = 0;
    for vector in vectors {
        if Case::read(&vector["input"]).has_raw_fruit() {
            continue;
        }
        let case = Case::read(&vector["input"]);
        let mixture = case.mixture();
        let predictor = Predictor::new(&mixture, case.system, &case.options);
        let banded = predictor.at(case.t_c, case.history);
        let (middle, prepared) = (banded.middle, predictor.base);
        let m = &mixture.composition;
        let percent_of_water = |x: f64| 100.0 * x / m.get(Part::Water).max(1e-9);
        let gelatin = m.get(Part::Gelatin) / 0.87;
        let outputs = [
            ("tau0", middle.yield_stress_pa),
            ("eta10", middle.viscosity_pa_s),
            ("eta_pl", middle.plastic_viscosity_pa_s),
            ("G", middle.modulus_pa),
            ("G_gel", middle.gel_modulus_pa),
            ("rho", prepared.density),
            ("phi_air", prepared.air),
            ("phi_eff", prepared.particles),
            ("crowding", prepared.crowding),
            ("phi_em", prepared.inside_out.fat_of_fluid),
            ("w_F", prepared.inside_out.fat_weight),
            ("split", middle.split),
            ("sfc", middle.solid_fat),
            ("g_link", prepared.linking),
            ("brix", prepared.serum.brix),
            ("eta_serum", middle.serum_viscosity_pa_s),
            ("undissolved_pct", 100.0 * prepared.serum.undissolved),
            ("graining", prepared.serum.graining(case.t_c)),
            ("lactose_sand", prepared.serum.lactose_sand(case.t_c)),
            ("fat_pct", 100.0 * m.phases().fat),
            ("water_pct", 100.0 * m.get(Part::Water)),
            ("sugar_pct", 100.0 * m.phases().sugar),
            ("sweetness", prepared.serum.sweetness_percent),
            ("abv", prepared.alcohol_by_volume_percent),
            ("gel_on_total", 100.0 * gelatin),
            ("gel_on_water", percent_of_water(gelatin)),
            ("starch_on_water", prepared.networks.starch_on_water_percent),
            ("phi_split", prepared.inside_out.fat_of_room),
            ("percolation", prepared.percolation),
            ("whip_fat_pct", prepared.whip_fat_percent),
            ("dairy_share", predictor.base.doubt.dairy_share(&middle, serum::water_viscosity(case.t_c))),
            ("added_tau", predictor.base.doubt.added(&middle, case.t_c, case.history).sigma()[0]),
            ("added_eta", predictor.base.doubt.added(&middle, case.t_c, case.history).sigma()[1]),
            ("tau_fat", middle.contributions.fat),
            ("tau_crowd", middle.contributions.crowd),
            ("tau_gel", middle.contributions.gel),
            ("tau_agar", middle.contributions.agar),
            ("tau_starch", middle.contributions.starch),
            ("tau_foam", middle.contributions.foam),
            ("tau_gum", middle.contributions.gum),
            ("tau_body", middle.contributions.body),
            ("tau_pectin", middle.contributions.pectin),
            ("tau_egg", middle.contributions.egg),
            ("sigma_tau0", banded.sigma_yield),
            ("sigma_eta", banded.sigma_viscosity),
        ];
        let id = vector["id"].as_str().unwrap();
        if banded.unknown.is_none() != vector["out"]["known"].as_bool().unwrap() {
            wrong.push(format!("{id} known: {:?}", banded.unknown));
        }
        for (name, got) in outputs {
            let want = vector["out"][name].as_f64().unwrap_or_else(|| panic!("{id} has no {name}"));
            checked += 1;
            // Quantities of no physical size (a smooth minimum's trace) are compared absolutely.
            if off(got, want) > TOLERANCE && (got - want).abs() > 1e-12 {
                wrong.push(format!("{id} {name}: {got} for {want}, off by {:.1e}", off(got, want)));
            }
        }
        if let Some(got) = prepared.serum.water_activity {
            let want = vector["out"]["aw"].as_f64().unwrap();
            if off(got, want) > TOLERANCE {
                wrong.push(format!("{id} aw: {got} for {want}"));
            }
        } else {
            let water = m.get(Part::Water);
            assert!(water < 0.25, "{id}: water activity withheld though {water} of it is water");
        }
        let structure = vector["out"]["structure"].as_str().unwrap();
        let said = match middle.structure() {
            Structure::WaterContinuous => "water-continuous",
            Structure::Bicontinuous => "bicontinuous",
            Structure::FatContinuous => "fat-continuous",
        };
        if structure != said {
            wrong.push(format!("{id} structure: {said} for {structure}"));
        }
    }
    assert!(
        wrong.is_empty(),
        "{} of {checked} are off:\n{}",
        wrong.len(),
        wrong[..wrong.len().min(40)].join("\n")
    );
    assert_eq!(checked, 241 * 45);
}

#[test]
fn derivatives_by_a_small_step_agree_with_the_reference() {
    let mut checked = 0;
    for entry in VECTORS["derivatives"].as_array().unwrap() {
        let case = Case::read(&entry["input"]);
        if case.has_raw_fruit() {
            continue;
        }
        let at = |lines: &[(String, f64)], t_c: f64| {
            let lines: Vec<_> = lines.iter().map(|(id, g)| (find(id).unwrap(), *g)).collect();
            let point = Prepared::new(&Mixture::new(lines), case.system, &case.options).at(t_c, case.history);
            [point.yield_stress_pa, point.viscosity_pa_s, point.modulus_pa].map(f64::ln)
        };
        let check = |got: f64, want: f64, what: &str| {
            let allowed = DERIVATIVE_TOLERANCE * want.abs().max(1.0);
            assert!((got - want).abs() < allowed, "{} {what}: {got} for {want}", entry["id"]);
        };
        let names = ["tau0", "eta10", "G"];
        for k in 0..case.lines.len() {
            let nudged = |step: f64| {
                let mut lines = case.lines.clone();
                lines[k].1 *= step.exp();
                at(&lines, case.t_c)
            };
            let (up, down) = (nudged(1e-4), nudged(-1e-4));
            for (q, name) in names.iter().enumerate() {
                let want = entry[format!("dln_{name}_dln_g")][k].as_f64().unwrap();
                check(
                    (up[q] - down[q]) / 2e-4,
                    want,
                    &format!("d ln {name} / d ln g of {}", case.lines[k].0),
                );
                checked += 1;
            }
        }
        let (warmer, colder) = (at(&case.lines, case.t_c + 1e-4), at(&case.lines, case.t_c - 1e-4));
        for (q, name) in names.iter().enumerate() {
            let want = entry[format!("dln_{name}_dT")].as_f64().unwrap();
            check((warmer[q] - colder[q]) / 2e-4, want, &format!("d ln {name} / dT"));
            checked += 1;
        }
    }
    assert_eq!(checked, 270);
}

#[test]
fn sub_functions_agree_with_the_reference() {
    let units = &VECTORS["unit_tests"];
    let table = |name: &str| units[name].as_array().unwrap().clone();
    let f = |value: &Value| value.as_f64().unwrap();
    for row in table("sucrose_solubility") {
        assert!(off(serum::sucrose_solubility(f(&row[0])), f(&row[1])) < TOLERANCE);
    }
    for row in table("water_viscosity") {
        assert!(off(serum::water_viscosity(f(&row[0])), f(&row[1])) < TOLERANCE);
    }
    for row in table("serum_viscosity") {
        assert!(off(serum::syrup_viscosity(f(&row[0]), f(&row[1])), f(&row[2])) < TOLERANCE);
    }
    for row in table("erfinv") {
        assert!(off(film::erf_inverse(f(&row[0])), f(&row[1])) < TOLERANCE);
    }
    for row in table("set_front") {
        assert!(off(film::set_front(f(&row[0]), f(&row[1])), f(&row[2])) < TOLERANCE);
    }
    for row in table("contact_share") {
        assert!(off(film::contact_share(f(&row[0])), f(&row[1])) < TOLERANCE);
    }
    for row in table("soak_depth") {
        let kind = SpongeKind::parse(row[2].as_str().unwrap()).unwrap();
        assert!(off(1e3 * kind.sponge().depth(f(&row[0]), f(&row[1])), f(&row[3])) < TOLERANCE);
    }
    for row in table("smin") {
        assert!((smooth::smin(f(&row[0]), f(&row[1]), f(&row[2])) - f(&row[3])).abs() < 1e-8);
    }
    for row in table("spos") {
        assert!((smooth::spos(f(&row[0]), f(&row[1])) - f(&row[2])).abs() < 1e-7);
    }
    for row in table("step") {
        assert!((smooth::step(f(&row[0])) - f(&row[1])).abs() < 1e-9);
    }
    let curve = |name: &str| -> &Curve {
        match name {
            "cb" => &COCOA_BUTTER,
            "mf" => &MILK_FAT,
            _ => &LAURIC,
        }
    };
    for row in table("sfc_curve") {
        let name = row[0].as_str().unwrap();
        assert!((curve(name).at(f(&row[1])) - f(&row[2])).abs() < 1e-6, "{row}");
    }
    for (name, slopes) in units["sfc_slope"].as_object().unwrap() {
        for (got, want) in curve(name).slopes().iter().zip(slopes.as_array().unwrap()) {
            assert!((got - f(want)).abs() < 1e-7, "{name}: {got} for {want}");
        }
    }
    let fats = |value: &Value| {
        ["cb", "mf", "oil", "lauric"].map(|fat| value.get(fat).and_then(Value::as_f64).unwrap_or(0.0))
    };
    for row in table("sfc_blend") {
        let pool = Pool::new(fats(&row[0]));
        assert!(off(pool.solid(f(&row[1])), f(&row[2])) < TOLERANCE, "{row}");
    }
    for row in table("sfc_two") {
        let (all, globules, t_c, k) = (fats(&row[0]), fats(&row[1]), f(&row[2]), f(&row[3]));
        let apart = globules.map(|h| (1.0 - k) * h);
        let common = [0, 1, 2, 3].map(|i| all[i] - apart[i]);
        let (a, b) = (Pool::new(common), Pool::new(apart));
        let solid = (a.total * a.solid(t_c) + b.total * if b.total > 0.0 { b.solid(t_c) } else { 0.0 })
            / (a.total + b.total);
        assert!(off(solid, f(&row[4])) < TOLERANCE, "{row}: {solid}");
    }
}

/// A job judged on a case as the vectors have it.
fn judged(predictor: &Predictor, case: &Case, job: &Job) -> Judged {
    let axis = job.axis(pastry::formula::Family::Ganache);
    Question { job, prepared: &predictor.base, axis, history: case.history }.judge(
        &predictor.at(case.t_c, case.history),
        case.t_c,
        None,
    )
}

/// Films, soaks, whipping and scrambling of the vectors that carry them, with bands and chances.
#[test]
fn jobs_of_the_vectors_agree_with_the_reference() {
    let mut checked = std::collections::BTreeMap::<&str, usize>::new();
    for vector in VECTORS["vectors"].as_array().unwrap() {
        let case = Case::read(&vector["input"]);
        let id = vector["id"].as_str().unwrap();
        let mixture = case.mixture();
        let predictor = Predictor::new(&mixture, case.system, &case.options);
        let Some(jobs) = vector["jobs"].as_object() else { continue };
        let f = |value: &Value| value.as_f64().unwrap();
        let near = |got: f64, want: &Value, what: &str| {
            let want = f(want);
            let close = off(got, want) < 10.0 * TOLERANCE || (got - want).abs() < 1e-6;
            assert!(close, "{id} {what}: {got} for {want}");
        };
        let film_like = |judged: &Judged, want: &Value| {
            // Where it sets while it is worked the chance is less: `clock` asks that.
            if case.history == History::Fresh && predictor.base.sets_at(case.t_c) {
                assert!(judged.chance <= f(&want["chance"]) + 1e-9, "{id}: {}", judged.chance);
            } else if judged.unknown.is_none() {
                near(judged.chance, &want["chance"], "chance");
            }
            near(judged.measured.value, &want["film_mm"], "film");
            near(judged.measured.low, &want["band90"][0], "thinnest");
            near(judged.measured.high, &want["band90"][1], "thickest");
        };
        if let Some(want) = jobs.get("film") {
            let geometry = CoatGeometry {
                thinnest_mm: Length::from_millimetres(f(&want["window"][0])),
                thickest_mm: Length::from_millimetres(f(&want["window"][1])),
                height_mm: Length::from_millimetres(f(&want["H_mm"])),
                side_temperature_c: SurfaceTemperature::from_celsius(f(&want["Tw"])),
            };
            near(film::set_front(case.t_c, f(&want["Tw"])), &want["lambda_"], "lambda");
            film_like(&judged(&predictor, &case, &Job::Coat(geometry)), want);
            *checked.entry("film").or_default() += 1;
        }
        if let Some(want) = jobs.get("spoon") {
            let geometry = NappeGeometry {
                thinnest_mm: Length::from_millimetres(f(&want["window"][0])),
                thickest_mm: Length::from_millimetres(f(&want["window"][1])),
                ..NappeGeometry::default()
            };
            film_like(&judged(&predictor, &case, &Job::Nappe(geometry)), want);
            *checked.entry("spoon").or_default() += 1;
        }
        for want in jobs.get("soak").and_then(Value::as_array).into_iter().flatten() {
            let geometry = SoakGeometry {
                shallowest_mm: Length::from_millimetres(10.0),
                deepest_mm: Length::from_millimetres(30.0),
                time_s: Seconds::from_seconds(f(&want["seconds"])),
                sponge: SpongeKind::parse(want["sponge"].as_str().unwrap()).unwrap(),
                ..SoakGeometry::default()
            };
            let judged = judged(&predictor, &case, &Job::Soak(geometry));
            near(judged.measured.value, &want["depth_mm"], "depth");
            near(judged.measured.high, &want["band90"][1], "deepest");
            near(judged.chance, &want["chance_10_30"], "chance of 10 to 30 mm");
            *checked.entry("soak").or_default() += 1;
        }
        if let Some(want) = jobs.get("whip") {
            let here = predictor.at(case.t_c, case.history);
            let limits = WhipLimits { least_fat_percent: 30.0, warmest_c: 8.0, thickest_pa_s: 2.0 };
            let whips = Whips::new(&predictor.base, &here.middle, here.sigma_viscosity, case.t_c, &limits);
            near(whips.fat, &want["fat"], "fat");
            near(whips.cold, &want["warm"], "cold");
            near(whips.thickness, &want["visc"], "thickness");
            near(whips.chance(), &want["all"], "all");
            let judged = judged(&predictor, &case, &Job::Whip(WhipGeometry::default()));
            if judged.unknown.is_none() {
                near(judged.chance, &want["all"], "whips");
            }
            *checked.entry("whip").or_default() += 1;
        }
        for pair in jobs.get("scramble").and_then(Value::as_array).into_iter().flatten() {
            near(scrambled_at(&mixture, f(&pair[0])), &pair[1], "scrambled");
            *checked.entry("scramble").or_default() += 1;
        }
        if let Some(want) = jobs.get("drip_mm").and_then(Value::as_f64) {
            let got = DripCourse::new(&predictor.base, case.t_c, 5.0, 0.9, predictor.base.clock())
                .length_mm(1.0, 1.0);
            assert!((got - want).abs() <= 5e-3 * want.max(1.0), "{id} drip: {got} for {want}");
            *checked.entry("drip").or_default() += 1;
        }
    }
    assert_eq!(
        Vec::from_iter(checked),
        [("drip", 24), ("film", 14), ("scramble", 25), ("soak", 17), ("spoon", 7), ("whip", 12)]
    );
}
