//! Every law by an example that can be worked on paper, and at its limits. The numbers beside the examples were worked out
//! apart from the code; two roads to one number where there are two.

use crate::support::mixture;
use pastry::formula::System;
use pastry::formula::acidity::Acidity;
use pastry::job::physics::film::{contact_c, erf_inverse, set_front};
use pastry::job::physics::slump::{gives_way_below, levels_below, sag, settles_below};
use pastry::rheology::chance::{chance, normal_cdf};
use pastry::rheology::clock::{Clock, fat_felt, quick_rate, slow_rate};
use pastry::rheology::egg_set::stirred_pa;
use pastry::rheology::gelatin::{left_by_fruit, melts_c, set_share};
use pastry::rheology::kernel::whip_frame;
use pastry::rheology::scramble::scrambled_at;
use pastry::rheology::serum::{Serum, sucrose_solubility, syrup_viscosity, water_viscosity};
use pastry::rheology::whipping::{most_overrun, overrun_at};
use pastry::rheology::{History, Options, Prepared, agar, pectin};

#[track_caller]
fn near(got: f64, want: f64, share: f64) {
    assert!((got - want).abs() <= share * want.abs().max(1e-12), "{got} for {want}");
}

#[test]
fn gelatin() {
    // 2 % of 200 bloom without sugar: 30 + 3 ln 0.3 = 26.4 °C; a third less strong, 3 ln 0.8 = 0.67 K less.
    near(melts_c(2.0, 200.0, 0.0), 26.39, 1e-3);
    near(melts_c(2.0, 200.0, 0.0) - melts_c(2.0, 160.0, 0.0), 0.669, 2e-3);
    // 50 °Bx: 3 K more.
    near(melts_c(2.0, 200.0, 50.0) - melts_c(2.0, 200.0, 0.0), 3.0, 1e-9);
    // 17 h of a 2 % gel, lag 0.05 h: ln(1 + 84.75)/ln 86 = 0.9994.
    near(set_share(17.0, 2.0), 0.999, 2e-3);
    assert_eq!(set_share(0.0, 2.0), 0.0);
    assert!(set_share(1e6, 2.0) <= 1.3);
    // A twentieth of a per cent of raw fruit overnight: 1/e.
    near(left_by_fruit(0.0005, 17.0), 0.3679, 1e-3);
    assert_eq!(left_by_fruit(0.0, 99.0), 1.0);
}

#[test]
fn agar_and_pectin() {
    let gel = agar::Agar { percent: 1.0, raw: false, left_by_acid: 1.0 };
    // 1 %: 8 kPa; half of it at 85 °C; a tenth when stirred; none at the boil.
    near(gel.modulus(20.0, None, false), 8000.0, 1e-6);
    near(gel.modulus(85.0, None, false), 4000.0, 1e-9);
    near(gel.modulus(20.0, None, true), 800.0, 1e-6);
    assert!(gel.modulus(100.0, None, false) < 10.0);
    assert_eq!(agar::Agar { raw: true, ..gel }.modulus(20.0, None, false), 0.0);
    // Doubled dose: 2^2.1 = 4.287.
    let twice = agar::Agar { percent: 2.0, ..gel };
    near(twice.modulus(20.0, None, false) / gel.modulus(20.0, None, false), 4.287, 1e-3);
    // pH 3: step(1) is whole, half is left; pH 3.6: step(0.5) = 0.5, three quarters.
    near(agar::left_by_acid(3.0), 0.5, 1e-9);
    near(agar::left_by_acid(3.6), 0.75, 1e-9);
    assert_eq!(agar::left_by_acid(7.0), 1.0);
    // Pectin: 1 % at pH 3.4, 60 °Bx, calcium 20: 1200 Pa nearly; without sugar hardly any.
    near(pectin::full_pa(1.0, 3.4, 60.0, 20.0), 1200.0, 0.02);
    assert!(pectin::full_pa(1.0, 3.4, 5.0, 20.0) < 5.0);
    near(pectin::full_pa(1.0, 3.4, 60.0, 0.0) / pectin::full_pa(1.0, 3.4, 60.0, 99.0), 0.6, 1e-9);
}

#[test]
fn egg() {
    // Nothing is set at 60 °C, all of it at 80 in water: 20000 (7.5/7.5)^2.2 · 0.15 = 3000 Pa at 10 % of whites.
    near(stirred_pa([10.0, 0.0], [80.0, 80.0], 0.0), 3000.0, 0.02);
    assert!(stirred_pa([10.0, 5.0], [60.0, 60.0], 0.0) < 1e-9);
    // Under 2.5 % it does not hang together.
    assert!(stirred_pa([1.0, 1.0], [85.0, 85.0], 0.0) < 20.0);
    // 40 % sugar puts it off by 6 K.
    near(stirred_pa([10.0, 0.0], [71.0, 71.0], 0.0), stirred_pa([10.0, 0.0], [77.0, 77.0], 40.0), 1e-9);
    // Scrambled half at 86 °C without starch; with 2 % on water at 86 + 22 (1 − e⁻⁴) = 107.6 °C.
    let custard = |starch: f64| mixture(&[("milk", 500.0), ("yolk", 90.0), ("corn_starch", starch)]);
    near(scrambled_at(&custard(0.0), 86.0), 0.5, 1e-6);
    assert!(scrambled_at(&custard(14.0), 100.0) < 0.01);
    assert_eq!(scrambled_at(&mixture(&[("milk", 500.0)]), 99.0), 0.0);
}

#[test]
fn the_clock_of_fat() {
    // Held at 20 °C for an hour, no way down: quick 1/0.7 = 1.4286, slow e^(−0.143·15.5)/1.15 = 0.0948.
    near(quick_rate(20.0), 1.4286, 1e-4);
    near(slow_rate(20.0), 0.0948, 2e-3);
    let hour = Clock { hours: 1.0, cooled_k_h: f64::INFINITY };
    let want = 0.5 * (1.0 - (-(1.4286f64.powi(3))).exp()) + 0.5 * (1.0 - (-0.0948f64.powf(1.5)).exp());
    near(fat_felt(20.0, hour, 1.0), want, 3e-3);
    // Nothing sets at 28 °C; all has after a week in the cold; a slower fat is behind.
    assert_eq!(fat_felt(28.0, Clock { hours: 99.0, cooled_k_h: 3.0 }, 1.0), 0.0);
    near(fat_felt(5.0, Clock { hours: 168.0, cooled_k_h: 3.0 }, 1.0), 1.0, 1e-6);
    assert!(fat_felt(20.0, hour, 1.7) < fat_felt(20.0, hour, 1.0));
}

#[test]
fn whipped_cream() {
    // 36 %: 2.35 − 1.26 = 1.09; to medium peaks, 0.7: 1.09 · 0.91.
    near(most_overrun(36.0), 1.09, 1e-9);
    near(overrun_at(36.0, 0.7), 0.9919, 1e-6);
    near(overrun_at(36.0, 1.25), 1.09 * 0.8, 1e-9);
    assert_eq!((most_overrun(0.0), most_overrun(90.0)), (1.6, 0.3));
    // The frame of bubbles is greatest at as much air as cream, and none at the ends.
    near(whip_frame(0.5), 0.5, 1e-12);
    assert_eq!((whip_frame(0.0), whip_frame(1.0)), (0.0, 0.0));
}

#[test]
fn what_stands_and_what_levels() {
    // 45 mm of 1000 kg/m³ and 5000 Pa: 1000 · 9.81 · 0.045/30000 = 1.47 %.
    near(sag(1000.0, 0.045, 5000.0), 0.014715, 1e-3);
    near(gives_way_below(1000.0, 0.045), 254.9, 1e-3);
    near(settles_below(1000.0, 0.012), 117.7, 1e-3);
    // 1000 · 9.81 · 0.012²/0.07 = 20.2 Pa.
    near(levels_below(1000.0, 0.012, 0.035), 20.18, 1e-3);
}

#[test]
fn the_set_front_and_its_two_roads() {
    // A layer 2 mm thick on a wall: 0.3 of the difference above it, 32 on 12 °C is 18 °C.
    near(contact_c(32.0, 12.0), 18.0, 1e-9);
    // erf⁻¹ by its own definition, and a front that hardly moves where nothing is under 28 °C.
    for x in [0.0, 0.1, 0.5, 0.9, 0.99] {
        let back = 1.0 - libm::erfc(erf_inverse(x));
        assert!((back - x).abs() < 1e-3, "{x}: {back}");
    }
    assert!(set_front(40.0, 35.0) < 0.01);
    assert!(set_front(32.0, -18.0) > set_front(32.0, 12.0));
}

#[test]
fn syrups() {
    // Charles at 20 °C: 64.397 + 1.4502 + 0.8228 − 0.0723 = 66.6; water of 20 °C is 1.0016 mPa·s (IAPWS, from memory).
    near(sucrose_solubility(20.0), 66.597, 1e-3);
    near(1e3 * water_viscosity(20.0), 1.0016, 1e-3);
    near(1e3 * syrup_viscosity(0.0, 20.0), 1.0016, 1e-3);
    // Water activity by Norrish, 1 mol of sucrose in 1000 g: x = 0.01770, (1 − x) e^(−6.47 x²) = 0.9803.
    let one = mixture(&[("water", 1000.0), ("sugar", 342.3)]);
    let serum = Serum::new(&one.composition, 0.0, 20.0);
    near(serum.water_activity.unwrap(), 0.9803, 5e-4);
    near(serum.brix, 25.5, 5e-3);
}

#[test]
fn sourness() {
    // Citric acid alone, 0.05 mol/kg: pH ≈ (3.13 − log 0.05)/2 = 2.22, less a little.
    let mut acid = Acidity::default();
    acid.add(1.0, 2.2, [50.0, 0.0, 1.0]);
    near(acid.ph().unwrap(), 2.2, 0.02);
    // Two of one kind are that kind.
    let mut two = Acidity::default();
    two.add(0.5, 2.2, [50.0, 0.0, 1.0]);
    two.add(0.5, 2.2, [50.0, 0.0, 1.0]);
    near(two.ph().unwrap(), acid.ph().unwrap(), 1e-6);
}

#[test]
fn chances() {
    // Φ(1) − Φ(−1) = 0.6827; a window of nothing has none; by a sum over many tries.
    near(normal_cdf(1.0) - normal_cdf(-1.0), 0.6827, 1e-3);
    assert_eq!(chance(100.0, 300.0, 200.0, 0.5), 0.0);
    let (q, low, high, sigma) = (300.0, 200.0, 900.0, 0.6);
    let steps = 20_000;
    let inside = (0..steps)
        .map(|k| -6.0 + 12.0 * (f64::from(k) + 0.5) / f64::from(steps))
        .filter(|z| (low..=high).contains(&(q * (z * sigma).exp())))
        .map(|z| (-0.5 * z * z).exp() / (2.0 * std::f64::consts::PI).sqrt() * 12.0 / f64::from(steps))
        .sum::<f64>();
    near(chance(q, low, high, sigma), inside, 2e-3);
}

#[test]
fn the_limits_of_a_whole_answer() {
    let at = |lines: &[(&str, f64)], system, t_c| {
        Prepared::new(&mixture(lines), system, &Options::default()).at(t_c, History::Rested)
    };
    // Water is water; butter is firm in the cold and oil in the heat; gelatin on water to the power of two.
    near(1e3 * at(&[("water", 1000.0)], System::Syrup, 20.0).viscosity_pa_s, 1.0016, 0.01);
    let butter = |t_c| at(&[("butter82", 100.0)], System::Buttercream, t_c).yield_stress_pa;
    assert!(butter(5.0) > 50.0 * butter(27.0) && butter(40.0) < 1.0);
    let jelly = |gelatin: f64| {
        let water = 1000.0 - gelatin;
        at(&[("water", water), ("gelatin200", gelatin)], System::Jelly, 10.0).gelatin_modulus_pa
    };
    near(jelly(20.0) / jelly(10.0), 4.0, 0.05);
}
