//! Tests a cook can do, against their published forms and the other way round.

use pastry::assess::Ready;
use pastry::assess::starts::starts;
use pastry::bench_test::expected::as_read;
use pastry::bench_test::reading::{
    Known, ReadSide, at_spout, of_flow, of_rod, of_slump, of_spoon, of_spread, of_tilt, sunk,
};
use pastry::bench_test::{BenchTest, BenchTestKind, Says, fits, read};
use pastry::formula::{Family, Mixture};
use pastry::ingredient::Shelf;
use pastry::rheology::clock::Clock;
use pastry::rheology::consistency::History;
use pastry::rheology::kernel::Prepared;

/// `unit_tests` of the reference vectors (../reference/vectors/consistency.json), each with its formula's source there.
#[test]
fn plates_rings_slopes_spoons_and_rods_are_those_of_the_reference() {
    let close = |is: f64, should: f64| assert!((is / should - 1.0).abs() < 1e-6, "{is} for {should}");
    // Roussel and Coussot 2005, J. Rheol. 49, 705: 50 mL that lie 160 mm wide, 1100 kg/m³.
    close(of_spread(1100.0, 5e-5, 0.16), 1.466_305_86);
    // Pashias and others 1996, J. Rheol. 40, 1179 (from memory): 20 mm of a ring of 50 mm, 1000 kg/m³.
    close(of_slump(1000.0, 0.05, 0.02), 61.920_837_6);
    close(of_tilt(1100.0, 0.01, 30.0), 53.955);
    close(of_spoon(1100.0, 1.5e-5, 0.002), 80.9325);
    close(of_rod(0.01, 0.1), 2_081.746_66);
}

/// Murata 1984 and Pashias: nothing sinks where the yield stress holds half of the foot's pressure; all of it where there is none.
#[test]
fn a_ring_sinks_from_nothing_to_all_of_its_height() {
    assert!(sunk(0.5).abs() < 1e-12);
    assert!(sunk(1e-6) > 0.99);
    let mut last = 1.1;
    for at in 1..50 {
        let share = sunk(0.01 * f64::from(at));
        assert!(share < last);
        last = share;
        let pa = of_slump(1000.0, 0.05, 0.05 * share);
        assert!((pa / (0.01 * f64::from(at) * 1000.0 * 9.81 * 0.05) - 1.0).abs() < 1e-6);
    }
}

/// Poiseuille's law where nothing yields; Buckingham and Reiner's first terms where something does; no flow at the wall's stress.
#[test]
fn a_funnel_runs_by_poiseuille_and_by_buckingham_and_reiner() {
    let (head, spout, long) = (0.1, 0.008, 0.04);
    // 100 mL in 20 s of a syrup of 1300 kg/m³: η = π R⁴ ρ g h/(8 L Q).
    let eta = of_flow(1300.0, head, spout, long, 5e-6, 0.0);
    let directly = std::f64::consts::PI * 0.004f64.powi(4) * 1300.0 * 9.81 * 0.1 / (8.0 * 0.04 * 5e-6);
    assert!((eta / directly - 1.0).abs() < 1e-12);
    let wall = at_spout(1300.0, head, spout, long);
    let some = of_flow(1300.0, head, spout, long, 5e-6, 0.1 * wall);
    assert!((some / (directly * (1.0 - 0.4 / 3.0 + 1e-4 / 3.0)) - 1.0).abs() < 1e-12);
    assert!(of_flow(1300.0, head, spout, long, 5e-6, wall) < 1e-12 * directly);
}

struct Cream {
    prepared: Prepared,
    t_c: f64,
    history: History,
}

fn cream(family: Family, t_c: f64, history: History) -> Cream {
    let ready = Ready::of(&starts(family)[0], &Shelf::catalogue()).unwrap();
    let prepared = Prepared::new(&Mixture::of(&ready.lines), family.traits().system, &ready.options);
    Cream { prepared, t_c, history }
}

/// What is read of a cream that is as predicted says what was predicted; of one that is another, that.
#[test]
fn what_is_read_of_a_cream_as_it_is_predicted_is_the_prediction() {
    let own = cream(Family::Ganache, 30.0, History::Fresh);
    let now = own.prepared.at(own.t_c, own.history);
    let known = Known { now: &now, prepared: &own.prepared, t_c: own.t_c, clock: Clock::ARRIVED };
    let density = own.prepared.density;
    // The width at which the predicted yield stress comes to rest.
    let across = 2.0
        * (225.0 * density * 9.81 * 25e-10 / (128.0 * std::f64::consts::PI.powi(2) * now.yield_stress_pa))
            .powf(0.2);
    let plate = read(&BenchTest::PlateSpread { ml: 50.0, across_mm: 1000.0 * across }, &known);
    assert!((plate.value / now.yield_stress_pa - 1.0).abs() < 1e-9, "{plate:?}");
    assert_eq!((plate.says, plate.side), (Says::YieldStress, ReadSide::Is));
    let course =
        pastry::job::physics::drip::DripCourse::new(&own.prepared, own.t_c, 5.0, 0.9, Clock::ARRIVED);
    for times in [0.4, 1.0, 2.5] {
        let long_mm = course.length_mm(times, times);
        let drip = read(&BenchTest::DripLength { dose_ml: 0.9, side_c: 5.0, long_mm }, &known);
        assert!((drip.value / times - 1.0).abs() < 0.02, "{times}: {drip:?}");
        assert!(drip.ln_sigma > 0.1 && drip.ln_sigma < 1.0, "{drip:?}");
    }
}

/// A shorter ruler's reading says less: the spread is wider the smaller what is read is.
#[test]
fn what_is_read_badly_says_less() {
    let own = cream(Family::Ganache, 22.0, History::Rested);
    let now = own.prepared.at(own.t_c, own.history);
    let known = Known { now: &now, prepared: &own.prepared, t_c: own.t_c, clock: Clock::ARRIVED };
    let slump = |sank_mm: f64| read(&BenchTest::RingSlump { high_mm: 50.0, sank_mm }, &known);
    assert!(slump(4.0).ln_sigma > slump(20.0).ln_sigma);
    assert!(slump(1.0).outside.unwrap().contains("rod"));
    assert!(slump(46.0).outside.unwrap().contains("plate"));
    let spoon = read(&BenchTest::SpoonFall { ml: 15.0, cm2: 20.0, fell: true }, &known);
    assert_eq!(spoon.side, ReadSide::Below);
}

#[test]
fn what_cannot_have_been_read_is_said_with_what_can() {
    for (test, field, words) in [
        (BenchTest::PlateSpread { ml: 50.0, across_mm: 3.0 }, "across_mm", "even a ball of it is 46 mm"),
        (
            BenchTest::RingSlump { high_mm: 50.0, sank_mm: 60.0 },
            "sank_mm",
            "cannot sink further than the ring is high",
        ),
        (BenchTest::Tilt { thick_mm: 10.0, degrees: 0.0 }, "degrees", "from 1 to 90"),
        (BenchTest::Rod { wide_mm: 10.0, grams: -5.0 }, "grams", "from 1 g"),
        (
            BenchTest::DripLength { dose_ml: 0.9, side_c: 5.0, long_mm: f64::NAN },
            "long_mm",
            "how long the drip is",
        ),
        (BenchTest::HeldWeight { ml: 100.0, grams: 900.0 }, "grams", "weigh the cup empty"),
        (
            BenchTest::CupFlow { ml: 100.0, spout_mm: 8.0, long_mm: 40.0, head_mm: 100.0, seconds: 0.0 },
            "seconds",
            "how long it took",
        ),
    ] {
        let faults = test.faults();
        assert_eq!(faults.len(), 1, "{test:?}: {faults:?}");
        assert!(faults[0].field == field && faults[0].message.contains(words), "{faults:?}");
        let kept: BenchTest = serde_json::from_str(
            &serde_json::to_string(&BenchTest::PlateSpread { ml: 50.0, across_mm: 90.0 }).unwrap(),
        )
        .unwrap();
        assert!(kept.faults().is_empty());
    }
}

/// A plate spread on a stiff buttercream is refused, with the reason and the test that does fit; a spoon, a ring and a rod take turns
/// as a ganache sets (common practice).
#[test]
fn the_test_that_fits_is_said() {
    let of = |own: &Cream, drips: bool| {
        let now = own.prepared.at(own.t_c, own.history);
        fits(&now, own.prepared.density, own.prepared.air, own.history, drips)
    };
    let stiff = of(&cream(Family::Buttercream, 18.0, History::Worked), false);
    let plate = stiff.iter().find(|own| own.kind == BenchTestKind::PlateSpread).unwrap();
    assert!(!plate.fits && plate.why.contains("too stiff") && plate.why.contains("Use the"), "{}", plate.why);
    assert!(stiff[0].fits);
    let warm = of(&cream(Family::Ganache, 31.0, History::Fresh), true);
    let fitting: Vec<BenchTestKind> = warm.iter().filter(|own| own.fits).map(|own| own.kind).collect();
    assert!(fitting.contains(&BenchTestKind::PlateSpread), "{fitting:?}");
    assert!(fitting.contains(&BenchTestKind::DripLength), "{fitting:?}");
    assert!(!fitting.contains(&BenchTestKind::Rod), "{fitting:?}");
    let cold = of(&cream(Family::Ganache, 5.0, History::Rested), true);
    assert!(cold.iter().find(|own| own.kind == BenchTestKind::Rod).unwrap().fits);
    assert!(cold.iter().all(|own| !own.why.is_empty()));
}

/// Something that is known to be so many times as stiff reads as that: the way back is the way there.
#[test]
fn what_would_be_read_of_something_known_says_what_is_known() {
    for (family, t_c, history) in [
        (Family::Ganache, 31.0, History::Fresh),
        (Family::Ganache, 18.0, History::Rested),
        (Family::Buttercream, 20.0, History::Worked),
        (Family::PastryCream, 6.0, History::Rested),
        (Family::Syrup, 20.0, History::Fresh),
    ] {
        let own = cream(family, t_c, history);
        let now = own.prepared.at(own.t_c, own.history);
        let known = Known { now: &now, prepared: &own.prepared, t_c, clock: Clock::ARRIVED };
        let all = fits(&now, own.prepared.density, own.prepared.air, history, family == Family::Ganache);
        let mut seen = 0;
        for fit in all.iter().filter(|fit| fit.fits && fit.kind != BenchTestKind::SpoonFall) {
            for times in [0.8, 1.0, 1.25] {
                let reading = read(&as_read(&fit.usual, &known, times), &known);
                let predicted = match reading.says {
                    Says::YieldStress => now.yield_stress_pa,
                    Says::Viscosity => now.plastic_viscosity_pa_s,
                    Says::Density => own.prepared.density,
                    Says::Both => 1.0,
                };
                let said = reading.value / predicted;
                assert!(
                    (said / times).ln().abs() < 0.01,
                    "{family:?} {:?}: {times} is read as {said}",
                    fit.kind
                );
                seen += 1;
            }
        }
        assert!(seen > 0, "{family:?}");
    }
}
