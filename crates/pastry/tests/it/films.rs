//! Films and drips against their published forms, by another road: integrated instead of closed, or closed instead of
//! integrated.

use crate::support::ganache;
use pastry::job::physics::drip::DripCourse;
use pastry::job::physics::film::{DIFFUSIVITY, Film, contact_c, erf_inverse, set_front};
use pastry::rheology::History;
use pastry::rheology::clock::Clock;
use pastry::units::GRAVITY;

/// Width of a drip and the lip its dose wets, m: as the model has them (assumed).
const WIDTH: f64 = 0.009;
const LIP: f64 = 0.010;

/// Jeffreys, The draining of a vertical plate, Proc. Camb. Phil. Soc. 26 (1930), from memory: h = √(η z/(ρ g t)).
/// It follows from ∂h/∂t + (ρ g/η) h² ∂h/∂z = 0, which is checked here by differences.
#[test]
fn a_draining_film_follows_the_equation_of_drainage() {
    let (eta, density) = (1.7, 1120.0);
    let film =
        |height: f64, seconds: f64| Film::on_spoon([0.0, eta], density, height, seconds).draining.powf(0.25);
    for (z, t) in [(0.02, 2.0), (0.06, 5.0), (0.12, 30.0)] {
        let (dz, dt) = (1e-5 * z, 1e-5 * t);
        let by_time = (film(z, t + dt) - film(z, t - dt)) / (2.0 * dt);
        let by_height = (film(z + dz, t) - film(z - dz, t)) / (2.0 * dz);
        let flow = density * GRAVITY / eta * film(z, t).powi(2) * by_height;
        assert!((by_time / -flow - 1.0).abs() < 1e-6, "{z} m, {t} s: {by_time} and {flow}");
    }
}

/// The set front 2 λ √(α t) grows from the wall while the film drains: where they meet the film is caught.
#[test]
fn a_film_is_caught_where_the_set_front_meets_the_draining_one() {
    for (eta, density, height, cream_c, side_c) in
        [(0.8, 1150.0, 0.05, 32.0, 5.0), (3.0, 1080.0, 0.08, 33.0, -18.0), (0.3, 1250.0, 0.03, 30.0, 20.0)]
    {
        let lambda = set_front(cream_c, side_c);
        let draining = |t: f64| (eta * height / (density * GRAVITY * t)).sqrt();
        let front = |t: f64| 2.0 * lambda * (DIFFUSIVITY * t).sqrt();
        let (mut early, mut late) = (1e-6_f64, 1e6_f64);
        for _ in 0..200 {
            let middle = (early * late).sqrt();
            if front(middle) < draining(middle) { early = middle } else { late = middle }
        }
        let film = Film::on_side([0.0, eta], density, height, cream_c, side_c);
        let (met, caught) = (front(late), film.caught.powf(0.25));
        assert!((met / caught - 1.0).abs() < 1e-9, "{met} m met, {caught} m caught");
    }
    // What does not flow at all: a yield stress holds τ₀/(ρ g) on an upright wall (Bingham).
    let held = Film::on_side([33.0, 1.0], 1100.0, 0.05, 30.0, 20.0).held;
    assert!((held * 1100.0 * GRAVITY / 33.0 - 1.0).abs() < 1e-12);
}

/// The error-function solution of a body that cools from its side: T = T_i + (T_c − T_i) erf(x/(2√(αt))). Where it has
/// 28 °C, x = 2 λ √(αt): λ of the closed form is checked against it by the erf of a mathematical library.
#[test]
fn the_set_front_stands_where_a_cooling_body_has_28_degrees() {
    for (cream_c, side_c) in [(33.0, 20.0), (35.0, 22.0), (40.0, 18.0)] {
        let meets_c = contact_c(cream_c, side_c);
        let lambda = set_front(cream_c, side_c);
        let there_c = meets_c + (cream_c - meets_c) * libm::erf(lambda);
        assert!((there_c - 28.0).abs() < 0.6, "{cream_c} on {side_c}: {there_c} °C at the front");
    }
    for u in [0.05, 0.3, 0.58, 0.9] {
        assert!((libm::erf(erf_inverse(u)) - u).abs() < 3e-3);
    }
}

/// Mean speed of a Bingham fluid of thickness h down an upright wall, by integrating its own profile:
/// η du/dy = ρ g (h − y) − τ₀ where that is above nothing.
fn bingham_speed(thick: f64, tau: f64, eta: f64, weight: f64) -> f64 {
    const STEPS: usize = 400;
    let step = thick / STEPS as f64;
    let (mut speed, mut sum) = (0.0, 0.0);
    for k in 0..STEPS {
        let y = (k as f64 + 0.5) * step;
        let rate = ((weight * (thick - y) - tau) / eta).max(0.0);
        sum += (speed + 0.5 * rate * step) * step;
        speed += rate * step;
    }
    sum / thick
}

/// A drip on a side as warm as itself: the same strip, its flow integrated over its thickness at each moment.
#[test]
fn a_drip_runs_as_far_as_its_profile_says() {
    for (cream, t_c) in [(120.0, 30.0), (100.0, 27.0), (90.0, 31.0)] {
        let ready = ganache(&[("dark60", 100.0), ("cream36", cream)]);
        let point = ready.base.at(t_c, History::Fresh);
        let weight = ready.base.density * GRAVITY;
        let (tau, eta) = (point.yield_stress_pa, point.plastic_viscosity_pa_s);
        let dose = 0.9e-6;
        let (mut length, mut time) = (0.0, 0.0);
        while time < 300.0 && length < 0.2 {
            let speed = bingham_speed(dose / (WIDTH * (length + LIP)), tau, eta, weight);
            if speed < 5e-5 {
                break;
            }
            let dt = (2e-4 / speed).min(0.2);
            length += speed * dt;
            time += dt;
        }
        let ours = DripCourse::new(&ready.base, t_c, t_c, 0.9, Clock::ARRIVED).length_mm(1.0, 1.0);
        assert!(
            (ours / (1e3 * length) - 1.0).abs() < 0.02,
            "{t_c} °C: {ours} mm, integrated {}",
            1e3 * length
        );
    }
}

/// Thin and with a yield stress: it stops where its thickness is what the wall holds, V/(w (L + lip)) = τ₀/(ρ g).
#[test]
fn a_runny_drip_stops_where_the_wall_holds_it() {
    let ready = ganache(&[("dark60", 100.0), ("cream36", 100.0)]);
    let t_c = 26.0;
    let point = ready.base.at(t_c, History::Fresh);
    let held = point.yield_stress_pa / (ready.base.density * GRAVITY);
    let course = DripCourse::new(&ready.base, t_c, t_c, 0.9, Clock::ARRIVED);
    for times in [1.5, 2.0, 3.0] {
        let closed = 0.9e-6 / (WIDTH * times * held) - LIP;
        let ours = 1e-3 * course.length_mm(times, 0.3);
        let wanted = closed.clamp(0.0, 0.2);
        assert!((ours - wanted).abs() < 0.003, "{times} times as firm: {ours} m, closed {wanted}");
    }
}

#[test]
fn the_spread_of_a_film_is_its_slope() {
    // By small steps: caught, draining and held films alike.
    for (tau, eta, side_c) in [(0.5, 0.4, -18.0), (8.0, 2.0, 12.0), (0.0, 0.05, 30.0), (30.0, 9.0, 5.0)] {
        let film = Film::on_side([tau, eta], 1100.0, 0.06, contact_c(32.0, side_c), side_c);
        let sigma = [0.4, 0.6];
        let step = 1e-4;
        let by_step = (film.thickness_at(step, sigma) / film.thickness_at(-step, sigma)).ln() / (2.0 * step);
        assert!(
            (film.sigma(sigma) - by_step).abs() < 1e-4,
            "{tau} {eta}: {} for {by_step}",
            film.sigma(sigma)
        );
    }
}
