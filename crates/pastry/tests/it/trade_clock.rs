//! Trade facts of time, gels, whipping and egg, by the id of their row in `data/trade_checks.csv`: asked of jobs as a cook
//! has them.

use crate::support::mixture;
use pastry::formula::{Family, System};
use pastry::job::Job;
use pastry::job::jobs::{CoatGeometry, DripGeometry};
use pastry::job::judge::Question;
use pastry::job::physics::slump::{gives_way_below, sag};
use pastry::rheology::History::{Fresh, Rested};
use pastry::rheology::clock::Clock;
use pastry::rheology::{Consistency, History, Options, Prepared};
use pastry::units::{Length, SurfaceTemperature};
use std::collections::BTreeMap;

const JELLY: [(&str, f64); 2] = [("water", 977.0), ("gelatin200", 23.0)];
const MIRROR: [(&str, f64); 6] = [
    ("water", 75.0),
    ("sugar", 150.0),
    ("glucose40", 150.0),
    ("condensed", 100.0),
    ("white30", 150.0),
    ("gelatin200", 11.0),
];
const MOUSSE: [(&str, f64); 4] =
    [("raspberry", 400.0), ("sugar", 90.0), ("cream35", 500.0), ("gelatin200", 10.0)];
const SWISS: [(&str, f64); 3] = [("white", 100.0), ("sugar", 200.0), ("butter82", 300.0)];

fn prepared(system: System, lines: &[(&str, f64)], options: Options) -> Prepared {
    Prepared::new(&mixture(lines), system, &options)
}

fn usual(system: System, lines: &[(&str, f64)], t_c: f64, history: History) -> Consistency {
    prepared(system, lines, Options::default()).at(t_c, history)
}

fn cooked(cook_c: f64) -> Options {
    Options { cook_c: Some(cook_c), ..Options::default() }
}

/// A day stands for without end.
fn lasts(job: Job, family: Family, prepared: &Prepared, t_c: f64) -> f64 {
    Question { job: &job, prepared, axis: job.axis(family), history: Fresh }.lasts_min(t_c).unwrap_or(1440.0)
}

/// Minutes something fresh keeps flowing under a limit when held at a temperature.
fn pours(prepared: &Prepared, t_c: f64) -> f64 {
    let flows = |minutes: f64| {
        let clock = Clock::ARRIVED.minutes(minutes);
        prepared.at_after(t_c, Fresh, clock).yield_stress_pa <= 20.0
    };
    match (0..5760).find(|quarter| !flows(0.25 * f64::from(*quarter))) {
        Some(0) => 0.0,
        Some(quarter) => 0.25 * f64::from(quarter),
        None => 1440.0,
    }
}

fn agar(percent: f64) -> Prepared {
    prepared(
        System::Jelly,
        &[("water", 1000.0 - 10.0 * percent), ("agar", 10.0 * percent)],
        Options::default(),
    )
}

fn stands(prepared: &Prepared, t_c: f64) -> f64 {
    prepared.at(t_c, Rested).yield_stress_pa / gives_way_below(prepared.density, 0.045)
}

fn sags(prepared: &Prepared, t_c: f64) -> f64 {
    sag(prepared.density, 0.045, prepared.at(t_c, Rested).modulus_pa)
}

/// Every one of them.
pub fn asked() -> BTreeMap<&'static str, f64> {
    let jelly = prepared(System::Jelly, &JELLY, Options::default());
    let mirror = prepared(System::Glaze, &MIRROR, Options::default());
    let mousse = prepared(System::Mousse, &MOUSSE, Options::default());
    let coat = Job::Coat(CoatGeometry {
        thinnest_mm: Length::from_millimetres(1.2),
        thickest_mm: Length::from_millimetres(2.7),
        side_temperature_c: SurfaceTemperature::from_celsius(-18.0),
        ..CoatGeometry::default()
    });
    let glazes = |t_c: f64| lasts(coat, Family::MirrorGlaze, &mirror, t_c);
    let dark = prepared(System::Ganache, &[("dark55", 100.0), ("cream35", 100.0)], Options::default());
    let drips = |t_c: f64| lasts(Job::Drip(DripGeometry::default()), Family::Ganache, &dark, t_c);
    let fish = [("water", 977.0), ("gelatin_fish", 23.0)];
    let panna = [("cream35", 500.0), ("milk", 400.0), ("sugar", 90.0), ("gelatin200", 9.9)];
    let kiwi =
        [("raspberry", 390.0), ("kiwi_raw", 10.0), ("sugar", 90.0), ("cream35", 500.0), ("gelatin200", 10.0)];
    let gelatin = |lines: &[(&str, f64)]| usual(System::Jelly, lines, 20.0, Rested).gelatin_modulus_pa;
    let swiss = |t_c: f64| usual(System::MeringueButtercream, &SWISS, t_c, Fresh).yield_stress_pa;
    let italian = [("white", 100.0), ("sugar", 200.0), ("water", 60.0), ("butter82", 300.0)];
    let whipped = |overrun: f64| {
        let options = Options { overrun: Some(overrun), whip: Some(1.0), ..Options::default() };
        prepared(System::WhippedCream, &[("cream36", 1000.0), ("icing", 60.0)], options)
            .at(5.0, Rested)
            .yield_stress_pa
    };
    let plain = Options { overrun: Some(1.0), whip: Some(1.0), ..Options::default() };
    let stiff = prepared(System::WhippedCream, &[("cream36", 1000.0)], plain).at(5.0, Rested).yield_stress_pa;
    let curd = |lines: &[(&str, f64)]| {
        prepared(System::Custard, lines, cooked(83.0)).at(5.0, Rested).yield_stress_pa
    };
    let yolk = |grams: f64| curd(&[("lemon", 100.0), ("sugar", 100.0), ("butter82", 80.0), ("yolk", grams)]);
    let custard = |starch: &'static str, grams: f64, cook_c: f64| {
        let lines = [("milk", 1000.0), ("yolk", 170.0), ("sugar", 200.0), (starch, grams)];
        prepared(System::Custard, &lines, cooked(cook_c)).at(5.0, Rested)
    };
    BTreeMap::from([
        ("G11", pours(&jelly, 10.0)),
        ("G12", pours(&jelly, 20.0)),
        ("G13", glazes(20.0)),
        ("G14", glazes(30.0)),
        ("G15", pours(&mousse, 15.0)),
        ("G16", sags(&prepared(System::Jelly, &panna, Options::default()), 24.0)),
        ("G17", usual(System::Mousse, &kiwi, 5.0, Rested).gelatin_modulus_pa),
        ("G18", gelatin(&fish) / gelatin(&JELLY)),
        ("A01", stands(&agar(0.25), 5.0)),
        ("A02", stands(&agar(0.5), 5.0)),
        ("A03", sags(&agar(1.0), 5.0)),
        ("A04", sags(&agar(0.8), 60.0)),
        ("A05", agar(0.8).at(45.0, Fresh).yield_stress_pa),
        ("A06", agar(0.8).at_after(30.0, Fresh, Clock::ARRIVED.minutes(5.0)).yield_stress_pa),
        ("T05", drips(20.0)),
        ("T06", drips(28.0)),
        ("S06", usual(System::MeringueButtercream, &italian, 7.0, Fresh).yield_stress_pa),
        ("S07", swiss(22.0)),
        ("S08", swiss(26.0)),
        ("X07", stiff),
        ("X08", whipped(1.0) / whipped(0.5)),
        ("X09", whipped(1.5) / whipped(1.0)),
        ("K11", yolk(60.0) / yolk(20.0)),
        ("K12", curd(&[("lemon", 100.0), ("sugar", 100.0), ("butter82", 100.0), ("egg", 100.0)])),
        ("K13", custard("flour", 100.0, 95.0).yield_stress_pa),
        (
            "K14",
            custard("corn_starch", 70.0, 83.0).yield_stress_pa
                / custard("corn_starch", 70.0, 95.0).yield_stress_pa,
        ),
    ])
}
