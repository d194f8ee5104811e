//! What lies between two heights of a tier: closed forms against numeric integration and against the vessel's own
//! volume; what presses it against the published squeeze film.

use crate::cakes::{chosen, template, worked_out};
use pastry::stack::check::bears::dam_needs;
use pastry::stack::check::dowels::dowels_needed;
use pastry::stack::shape::solid::squeeze_radius;
use pastry::stack::{Body, Footprint, PlaceKind};
use proptest::prelude::*;
use std::f64::consts::PI;

fn bodies() -> Vec<Body> {
    vec![
        Body::Round { diameter_mm: 180.0 },
        Body::Rectangle { length_mm: 300.0, width_mm: 200.0, corner_mm: 15.0 },
        Body::Ring { diameter_mm: 220.0, hole_mm: 80.0 },
        Body::Heart { side_mm: 140.0 },
        Body::Hexagon { across_mm: 180.0 },
        Body::Cup { bottom_mm: 52.0, top_mm: 74.0, height_mm: 80.0 },
        Body::Loaf {
            top_length_mm: 240.0,
            top_width_mm: 110.0,
            bottom_length_mm: 220.0,
            bottom_width_mm: 95.0,
            height_mm: 70.0,
        },
        Body::Dome { diameter_mm: 70.0, height_mm: 35.0 },
        Body::Dome { diameter_mm: 120.0, height_mm: 40.0 },
        Body::HalfLog { diameter_mm: 80.0, length_mm: 250.0 },
        Body::Trough { width_mm: 80.0, height_mm: 65.0, length_mm: 250.0 },
        Body::Tube { diameter_mm: 24.0, length_mm: 110.0 },
    ]
}

/// Simpson's rule over the area at each height.
fn integral(body: &Body, from: f64, to: f64) -> f64 {
    const STEPS: usize = 4000;
    let step = (to - from) / STEPS as f64;
    (0..=STEPS)
        .map(|k| {
            let weight = if k == 0 || k == STEPS {
                1.0
            } else if k % 2 == 1 {
                4.0
            } else {
                2.0
            };
            weight * body.section(from + step * k as f64).area()
        })
        .sum::<f64>()
        * step
        / 3.0
}

#[test]
fn what_lies_between_two_heights_is_the_integral_of_its_area() {
    for body in bodies() {
        let top = 0.1 * body.own_height_mm().unwrap_or(90.0);
        for (from, to) in [(0.0, top), (0.0, 0.3 * top), (0.25 * top, 0.8 * top), (0.9 * top, top)] {
            let (closed, numeric) = (body.part(from, to), integral(&body, from, to));
            let off = (closed / numeric - 1.0).abs();
            // A round wall is upright where it ends: Simpson is slow there.
            assert!(off < 2e-4, "{body:?} {from} to {to} cm: {closed} ml, integrated {numeric}");
        }
    }
}

#[test]
fn all_of_a_mould_is_what_the_vessel_holds() {
    for body in bodies() {
        let Some(vessel) = body.vessel() else { continue };
        let whole = body.part(0.0, 0.1 * body.own_height_mm().unwrap());
        assert!((whole / vessel.volume() - 1.0).abs() < 1e-12, "{body:?}: {whole} of {}", vessel.volume());
    }
}

#[test]
fn the_height_of_a_volume_is_the_way_back() {
    for body in bodies() {
        let top = 0.1 * body.own_height_mm().unwrap_or(90.0);
        let wanted = 0.6 * top;
        let height = body.height_of(0.0, body.part(0.0, wanted), top);
        assert!((height - wanted).abs() < 1e-6, "{body:?}: {height} for {wanted}");
    }
}

/// The coat of a dome, a log or a slope against the difference of two bodies, one coat larger.
#[test]
fn a_thin_coat_is_the_larger_body_less_the_smaller() {
    let cases = [
        (
            Body::Dome { diameter_mm: 70.0, height_mm: 35.0 },
            Body::Dome { diameter_mm: 74.0, height_mm: 37.0 },
        ),
        (
            Body::HalfLog { diameter_mm: 80.0, length_mm: 250.0 },
            Body::HalfLog { diameter_mm: 84.0, length_mm: 254.0 },
        ),
        (
            Body::Trough { width_mm: 80.0, height_mm: 65.0, length_mm: 250.0 },
            Body::Trough { width_mm: 84.0, height_mm: 67.0, length_mm: 254.0 },
        ),
        (
            Body::Cup { bottom_mm: 60.0, top_mm: 60.0, height_mm: 80.0 },
            Body::Cup { bottom_mm: 64.0, top_mm: 64.0, height_mm: 82.0 },
        ),
    ];
    for (small, large) in cases {
        let [height, height_large] = [small, large].map(|body| 0.1 * body.own_height_mm().unwrap());
        let shell = large.part(0.0, height_large) - small.part(0.0, height);
        let coat = small.coat(height, 0.2, 0.2);
        assert!((coat / shell - 1.0).abs() < 0.04, "{small:?}: {coat} ml for a shell of {shell}");
    }
}

/// A sheet of 350 mm, 16 mm thick with its filling: π D²/4 is what is rolled up.
#[test]
fn a_roll_has_the_area_of_what_is_rolled_up() {
    let body = Body::Roll { sheet_mm: 350.0, length_mm: 250.0 };
    let across = body.roll_diameter(1.6);
    assert!((PI * across * across / 4.0 - 35.0 * 1.6).abs() < 1e-9);
    assert!((8.0..9.0).contains(&across), "{across} cm across");
}

/// F = 2 π τ R³/(3 h): Covey & Stanmore, J. Non-Newtonian Fluid Mech. 8 (1981), from memory; here by integrating
/// dp/dr = −2 τ/h from the free edge over the disc, and over a ring of width w.
#[test]
fn a_filling_bears_what_the_squeeze_film_says() {
    let (tau, radius, height): (f64, f64, f64) = (400.0, 0.09, 0.010);
    const STEPS: usize = 20_000;
    let step = radius / STEPS as f64;
    let force: f64 = (0..STEPS)
        .map(|k| {
            let r = (k as f64 + 0.5) * step;
            2.0 * tau / height * (radius - r) * 2.0 * PI * r * step
        })
        .sum();
    let published = 2.0 * PI * tau * radius.powi(3) / (3.0 * height);
    assert!((force / published - 1.0).abs() < 1e-6, "{force} N, published {published}");
    let pressure = force / (PI * radius * radius);
    let needed = pastry::job::jobs::fill::fill_window(height, radius, pressure, 1e9)[0];
    assert!((needed / (1.5 * tau) - 1.0).abs() < 1e-6, "with safety 1.5 it takes {needed} Pa");
    // A ring: the pressure at its inner edge is 2 τ w/h.
    let width = 0.012;
    let held = 2.0 * tau * width / height;
    assert!((dam_needs(held, 100.0 * height, 100.0 * width) / (1.5 * tau) - 1.0).abs() < 1e-12);
}

#[test]
fn what_flows_under_a_load_flows_to_the_nearest_edge() {
    let close = |outline: Footprint, wanted: f64| {
        assert!((squeeze_radius(&outline) - wanted).abs() < 1e-9, "{outline:?}");
    };
    close(Footprint::Round { diameter: 18.0 }, 9.0);
    close(Footprint::Rectangle { length: 18.0, width: 18.0, corner: 0.0 }, 9.0);
    close(Footprint::Ring { diameter: 22.0, hole: 8.0 }, 7.0);
    assert_eq!(dowels_needed(PI * 49.0), 4);
    assert_eq!(dowels_needed(PI * 15.0 * 15.0), 13);
}

/// Common practice: a 20 cm cake, 10 cm high, takes about half a kilogram of buttercream for a 5 mm coat, and a
/// third of that for a thin crumb coat; 24 to 36 drips go round it.
#[test]
fn a_twenty_centimetre_cake_takes_what_cooks_expect() {
    let mut document = chosen(&template("drip"));
    document.tiers[0].body = Body::Round { diameter_mm: 200.0 };
    let answer = worked_out(&document);
    let grams =
        |kind: PlaceKind| answer.places.iter().find(|place| place.kind == kind).map(|p| p.grams).unwrap();
    assert!((380.0..620.0).contains(&grams(PlaceKind::Coat)), "coat {} g", grams(PlaceKind::Coat));
    assert!(
        (90.0..190.0).contains(&grams(PlaceKind::CrumbCoat)),
        "crumb coat {} g",
        grams(PlaceKind::CrumbCoat)
    );
    assert!((24..=36).contains(&answer.drips), "{} drips", answer.drips);
    assert!((90.0..200.0).contains(&grams(PlaceKind::Drip)), "drip {} g", grams(PlaceKind::Drip));
}

proptest! {
    #[test]
    fn parts_add_up_to_the_whole(at in 0usize..11, a in 0.05f64..0.95, b in 0.05f64..0.95) {
        let body = bodies()[at];
        let top = 0.1 * body.own_height_mm().unwrap_or(90.0);
        let (low, high) = (top * a.min(b), top * a.max(b));
        let sum = body.part(0.0, low) + body.part(low, high) + body.part(high, top);
        prop_assert!((sum / body.part(0.0, top) - 1.0).abs() < 1e-9);
        prop_assert!(body.part(low, high) >= -1e-9);
    }
}

/// Half way up a half-ball it is √3/2 as wide; half way up a half log as well.
#[test]
fn half_way_up_a_round_it_is_narrower_by_the_circle() {
    let dome = Body::Dome { diameter_mm: 80.0, height_mm: 40.0 };
    let log = Body::HalfLog { diameter_mm: 80.0, length_mm: 200.0 };
    for body in [dome, log] {
        let [foot, middle, top] = [0.0, 2.0, 4.0].map(|z| body.half_width(z));
        assert!((foot - 4.0).abs() < 1e-9 && (top - 0.0).abs() < 1e-6, "{body:?}: {foot} to {top}");
        assert!((middle / foot - 3f64.sqrt() / 2.0).abs() < 1e-9, "{body:?}: {middle}");
    }
    let cup = Body::Cup { bottom_mm: 50.0, top_mm: 70.0, height_mm: 40.0 };
    assert!((cup.half_width(2.0) - 3.0).abs() < 1e-9);
}
