//! Volumes against the vectors of an independent implementation, against numeric integration, and by property.

use pastry::sponge::{Sponge, Wetness, over_layers, sponges};
use pastry::stack::shape::cover::{self, Border};
use pastry::stack::{Footprint, Vessel};
use proptest::prelude::*;
use serde_json::Value;
use std::f64::consts::PI;

fn round(diameter: f64) -> Footprint {
    Footprint::Round { diameter }
}

fn rectangle(length: f64, width: f64, corner: f64) -> Footprint {
    Footprint::Rectangle { length, width, corner }
}

fn straight(footprint: Footprint, height: f64) -> f64 {
    Vessel::Straight { footprint, height }.volume()
}

fn by_name(name: &str, a: &[f64], words: &str) -> f64 {
    match (name, a) {
        ("round_tin", [d, h]) => straight(round(*d), *h),
        ("round_tin", [d, h, top]) => Vessel::Tapered { bottom: *d, top: *top, height: *h }.volume(),
        ("square_tin", [side, h, corner]) => straight(rectangle(*side, *side, *corner), *h),
        ("rect_tin", [l, w, h]) => straight(rectangle(*l, *w, 0.0), *h),
        ("ring_tin", [d, hole, h]) => straight(Footprint::Ring { diameter: *d, hole: *hole }, *h),
        ("hemisphere", [d]) => Vessel::Hemisphere { diameter: *d }.volume(),
        ("cap", [d, h]) => Vessel::Cap { diameter: *d, height: *h }.volume(),
        ("log_half", [d, l]) => Vessel::HalfLog { diameter: *d, length: *l }.volume(),
        ("log_u", [w, h, l]) => Vessel::Trough { width: *w, height: *h, length: *l }.volume(),
        ("loaf", [tl, tw, bl, bw, h]) => {
            Vessel::Loaf { top: [*tl, *tw], bottom: [*bl, *bw], height: *h }.volume()
        }
        ("fluted", [d, hole, h]) => Vessel::Fluted { diameter: *d, hole: *hole, height: *h }.volume(),
        ("heart", [side, h]) => straight(Footprint::Heart { side: *side }, *h),
        ("hexagon", [across, h]) => straight(Footprint::Hexagon { across: *across }, *h),
        ("round_coat", [d, h, t, top]) => cover::coat(&round(*d), *h, *t, *top),
        ("rect_coat", [l, w, h, t, top]) => cover::coat(&rectangle(*l, *w, 0.0), *h, *t, *top),
        ("crumb_coat_round", [d, h]) => cover::crumb_coat(&round(*d), *h),
        ("drip", [n, l]) => cover::drips(*n as u32, *l),
        ("drip_count", [d]) => f64::from(cover::drip_count(&round(*d))),
        ("drip_top", [d]) => cover::drip_pool(&round(*d)),
        ("border", [l, tip]) => {
            let kind = if words == "shell" { Border::Shell } else { Border::Dots };
            cover::border(kind, *l, *tip)
        }
        ("rosette", [d, h]) => cover::rosette(*d, *h),
        ("glaze_pour", [d, h]) => cover::glaze_pour(&round(*d), *h),
        other => panic!("no such shape: {other:?}"),
    }
}

fn sponge(key: &str) -> &'static Sponge {
    sponges().iter().find(|sponge| sponge.key == key).unwrap_or_else(|| panic!("no sponge {key}"))
}

fn vectors(model: &str) -> Vec<Value> {
    let all: Vec<Value> = serde_json::from_str(include_str!("data/stack_vectors.json")).unwrap();
    all.into_iter().filter(|vector| vector["model"] == model).collect()
}

fn close(name: &str, got: f64, wanted: f64, within: f64) {
    assert!((got - wanted).abs() <= within * wanted.abs().max(1e-9), "{name}: {got}, not {wanted}");
}

#[test]
fn volumes_are_those_of_the_vectors() {
    let all = vectors("geom");
    assert!(all.len() >= 23);
    for vector in all {
        let args = vector["input"]["args"].as_array().unwrap();
        let numbers: Vec<f64> = args.iter().filter_map(Value::as_f64).collect();
        let words = args.iter().find_map(Value::as_str).unwrap_or("");
        let got = by_name(vector["input"]["f"].as_str().unwrap(), &numbers, words);
        close(vector["id"].as_str().unwrap(), got, vector["expect"]["ml"].as_f64().unwrap(), 1e-6);
    }
}

/// Pores, capacity, depth and verdict, with the syrup's density and viscosity taken from the vector's own depth.
#[test]
fn soaks_are_those_of_the_vectors() {
    for vector in vectors("soak") {
        let (input, expect) = (&vector["input"], &vector["expect"]);
        let name = vector["id"].as_str().unwrap();
        let number = |key: &str| expect[key].as_f64().unwrap();
        let own = sponge(input["kind"].as_str().unwrap());
        close(name, own.porosity(), number("porosity"), 1e-6);
        let density = number("capacity") * own.bulk / (0.62 * own.porosity());
        assert!((1000.0..1400.0).contains(&density), "{name}: {density} kg/m³");
        close(name, own.capacity(density), number("capacity"), 1e-9);
        // √(γ r t/(2η)) turned round for η; then the time for 10 mm must be that of the vector.
        let viscosity = 0.072 * own.pore * 10.0 / (2.0 * number("depth_10s").powi(2));
        close(name, own.depth(viscosity, 10.0), number("depth_10s"), 1e-9);
        close(name, own.time_to(0.010, viscosity), number("t_10mm"), 1e-5);
        close(name, own.wet_depth(100.0, density, PI * 100.0), number("wet_depth_100g_d20"), 1e-5);
        let wetness = own.wetness(input["g_per_g"].as_f64().unwrap(), density);
        let wanted = match expect["verdict"].as_str().unwrap() {
            "too_wet" => Wetness::TooWet,
            "moist" => Wetness::Moist,
            other => panic!("no verdict {other}"),
        };
        assert_eq!(wetness, wanted, "{name}");
    }
    for vector in vectors("soak_layers") {
        let layers: Vec<f64> =
            vector["input"]["layers"].as_array().unwrap().iter().filter_map(Value::as_f64).collect();
        let got = over_layers(vector["input"]["total"].as_f64().unwrap(), &layers);
        for (a, b) in got.iter().zip(vector["expect"]["g"].as_array().unwrap()) {
            close("layers", *a, b.as_f64().unwrap(), 1e-6);
        }
    }
}

/// ∫ area dz by the midpoint rule.
fn integrated(height: f64, area: impl Fn(f64) -> f64) -> f64 {
    let n = 4000;
    let dz = height / f64::from(n);
    (0..n).map(|k| area((f64::from(k) + 0.5) * dz) * dz).sum()
}

#[test]
fn volumes_agree_with_numeric_integration() {
    let disc = |d: f64| PI * d * d / 4.0;
    close(
        "tapered",
        Vessel::Tapered { bottom: 18.0, top: 21.0, height: 6.0 }.volume(),
        integrated(6.0, |z| disc(18.0 + 0.5 * z)),
        1e-6,
    );
    let ball = |z: f64, r: f64| PI * (r * r - z * z).max(0.0);
    close(
        "hemisphere",
        Vessel::Hemisphere { diameter: 8.0 }.volume(),
        integrated(4.0, |z| ball(z, 4.0)),
        1e-5,
    );
    // A cap of height h on a foot of radius a belongs to a ball of radius (a² + h²)/(2 h).
    let (a, h) = (8.0f64, 5.0f64);
    let r = (a * a + h * h) / (2.0 * h);
    close(
        "cap",
        Vessel::Cap { diameter: 16.0, height: 5.0 }.volume(),
        integrated(h, |z| ball(r - h + z, r)),
        1e-5,
    );
    let chord = |z: f64, r: f64| 2.0 * (r * r - z * z).max(0.0).sqrt();
    close(
        "half log",
        Vessel::HalfLog { diameter: 8.0, length: 30.0 }.volume(),
        integrated(4.0, |z| 30.0 * chord(z, 4.0)),
        1e-4,
    );
    close(
        "trough",
        Vessel::Trough { width: 8.0, height: 7.0, length: 50.0 }.volume(),
        integrated(4.0, |z| 50.0 * chord(z, 4.0)) + 3.0 * 8.0 * 50.0,
        1e-4,
    );
    let along = |t: f64, b: f64, z: f64| b + (t - b) * z / 6.5;
    close(
        "loaf",
        Vessel::Loaf { top: [23.0, 12.0], bottom: [21.0, 10.0], height: 6.5 }.volume(),
        integrated(6.5, |z| along(23.0, 21.0, z) * along(12.0, 10.0, z)),
        1e-6,
    );
}

/// Points of a fine grid inside an outline, times their area.
#[test]
fn areas_agree_with_counting_points() {
    let counted = |half: f64, inside: &dyn Fn(f64, f64) -> bool| {
        let n = 1200;
        let step = 2.0 * half / f64::from(n);
        let at = |k: i32| -half + (f64::from(k) + 0.5) * step;
        let mut many = 0u32;
        for i in 0..n {
            for j in 0..n {
                many += u32::from(inside(at(i), at(j)));
            }
        }
        f64::from(many) * step * step
    };
    let heart = |x: f64, y: f64| {
        // Square 0..s, half circles on its right and upper sides.
        let s = 10.0;
        let square = (0.0..=s).contains(&x) && (0.0..=s).contains(&y);
        let right = x >= s && (x - s).hypot(y - s / 2.0) <= s / 2.0;
        let upper = y >= s && (x - s / 2.0).hypot(y - s) <= s / 2.0;
        square || right || upper
    };
    close("heart", Footprint::Heart { side: 10.0 }.area(), counted(16.0, &heart), 2e-3);
    let hexagon = |x: f64, y: f64| {
        [0.0f64, 60.0, 120.0].iter().all(|degrees| {
            let (sin, cos) = degrees.to_radians().sin_cos();
            (x * cos + y * sin).abs() <= 10.0
        })
    };
    close("hexagon", Footprint::Hexagon { across: 20.0 }.area(), counted(13.0, &hexagon), 2e-3);
    let cornered = |x: f64, y: f64| {
        let (dx, dy) = ((x.abs() - 8.0).max(0.0), (y.abs() - 4.0).max(0.0));
        dx.hypot(dy) <= 2.0
    };
    close("round corners", rectangle(20.0, 12.0, 2.0).area(), counted(11.0, &cornered), 2e-3);
}

#[test]
fn a_coat_is_the_larger_cake_less_the_smaller() {
    for footprint in [round(20.0), rectangle(30.0, 20.0, 0.0), Footprint::Hexagon { across: 18.0 }] {
        let outside = footprint.grown(0.6);
        let larger = straight(outside, 10.0) + outside.layer(0.8);
        close("coat", cover::coat(&footprint, 10.0, 0.6, 0.8), larger - straight(footprint, 10.0), 1e-12);
    }
}

#[test]
fn a_batch_for_one_tin_fills_another_by_its_volume() {
    let (small, large) = (
        Vessel::Straight { footprint: round(18.0), height: 5.0 },
        Vessel::Straight { footprint: round(24.0), height: 5.0 },
    );
    // (24/18)².
    close("factor", small.factor_to(&large), 16.0 / 9.0, 1e-12);
    close("and back", small.factor_to(&large) * large.factor_to(&small), 1.0, 1e-12);
}

#[test]
fn every_sponge_has_an_order_of_wetness_and_a_source() {
    assert!(sponges().len() >= 7);
    for own in sponges() {
        assert!(!own.source.is_empty() && own.porosity() > 0.4 && own.porosity() < 0.9, "{}", own.key);
        assert!(own.light < own.moist && own.moist < own.drenched, "{}", own.key);
        let at = |g: f64| own.wetness(g, 1180.0);
        let to_moist = [at(0.0), at(own.light), at(own.moist), at(9.0)];
        let wanted = [Wetness::Dry, Wetness::Light, Wetness::Moist, Wetness::Pools];
        assert_eq!(to_moist, wanted, "{}", own.key);
        // A yeast cake drinks to the last pore: what drenches it is what it holds.
        if own.key == "savarin" {
            assert!((own.drenched / own.capacity(1180.0) - 1.0).abs() < 0.02);
            continue;
        }
        let wet = [at(own.drenched), at(1.2 * own.drenched)];
        assert_eq!(wet, [Wetness::Drenched, Wetness::TooWet], "{}", own.key);
    }
}

/// Syrup of 60 °Bx at 20 °C goes about four times less deep than one of 30 (HEAT, from viscosities of 59 and
/// 3.2 mPa·s).
#[test]
fn a_thick_syrup_hardly_goes_in() {
    let own = sponge("genoise");
    let ratio = own.depth(3.2e-3, 30.0) / own.depth(59e-3, 30.0);
    assert!((3.8..4.8).contains(&ratio), "{ratio}");
}

proptest! {
    #[test]
    fn larger_cakes_take_more_of_everything(d in 8.0f64..40.0, h in 2.0f64..25.0, t in 0.1f64..1.5) {
        let (small, large) = (round(d), round(d * 1.2));
        prop_assert!(cover::coat(&large, h, t, t) > cover::coat(&small, h, t, t));
        prop_assert!(cover::glaze_pour(&large, h) > cover::glaze_pour(&small, h));
        prop_assert!(cover::drip_count(&large) >= cover::drip_count(&small));
        prop_assert!(small.grown(t).area() > small.area());
        // Volume goes with the cube of the size.
        let twice = Vessel::Cap { diameter: 2.0 * d, height: 2.0 * h }.volume();
        let once = Vessel::Cap { diameter: d, height: h }.volume();
        prop_assert!((twice / once - 8.0).abs() < 1e-9);
    }

    #[test]
    fn layers_of_syrup_add_up(total in 10.0f64..900.0, layers in prop::collection::vec(40.0f64..600.0, 1..8)) {
        let parts = over_layers(total, &layers);
        prop_assert!((parts.iter().sum::<f64>() - total).abs() < 1e-9);
        prop_assert!(parts.iter().all(|part| *part > 0.0));
        if layers.len() > 1 {
            // Gram for gram the bottom layer gets less than the next.
            prop_assert!(parts[0] / layers[0] < parts[1] / layers[1]);
        }
    }

    #[test]
    fn depth_and_time_are_each_other_turned_round(viscosity in 1e-3f64..0.2, seconds in 1.0f64..600.0) {
        for own in sponges() {
            let depth = own.depth(viscosity, seconds);
            prop_assert!((own.time_to(depth, viscosity) / seconds - 1.0).abs() < 1e-9);
        }
    }
}
