//! Schools of making: the data is whole, every family has its schools, and choosing one changes what it says.

use pastry::assess::starts::starts;
use pastry::assess::{FormulaDocument, assess};
use pastry::caution::Caution;
use pastry::formula::{Family, Line};
use pastry::ingredient::Role;
use pastry::ingredient::Shelf;
use pastry::method::Gear;
use pastry::method::school::schools;
use pastry::method::step::{Duration, Worker};
use pastry::method::{MethodSheet, schools_of, sheet};
use pastry::number::span_min as time;
use pastry::rheology::warning::WarningCode;
use std::collections::BTreeSet;

fn sheets(document: &FormulaDocument) -> Vec<MethodSheet> {
    sheet(document, &Shelf::catalogue(), &[]).unwrap_or_else(|faults| panic!("{faults:?}"))
}

fn start(family: Family, job: &str) -> FormulaDocument {
    starts(family).iter().find(|start| start.work.job.word() == job).unwrap().clone()
}

fn one(document: &FormulaDocument, school: &str) -> MethodSheet {
    sheets(document).into_iter().find(|sheet| sheet.school == school).unwrap_or_else(|| panic!("no {school}"))
}

#[test]
fn every_family_is_made_somehow_and_the_disputed_ones_in_two_ways() {
    for family in Family::ALL {
        assert!(schools_of(*family).count() >= 1, "nobody makes {}", family.word());
    }
    for (family, least) in [
        (Family::Ganache, 5),
        (Family::WhippedGanache, 2),
        (Family::SwissButtercream, 2),
        (Family::FrenchButtercream, 2),
        (Family::StabilisedCream, 2),
        (Family::ChocolateMousse, 2),
        (Family::EggMousse, 3),
        (Family::PastryCream, 2),
        (Family::Curd, 2),
        (Family::Diplomat, 2),
        (Family::Syrup, 2),
    ] {
        assert!(schools_of(family).count() >= least, "{}", family.word());
    }
}

#[test]
fn the_schools_are_well_formed() {
    let mut ids = BTreeSet::new();
    for school in schools() {
        let id = &school.id;
        assert!(ids.insert(id), "{id} stands twice");
        assert!(school.steps.len() >= 2 || id == "ganache_bursts", "{id}: {} steps", school.steps.len());
        assert!(!school.risks.is_empty() && !school.source.is_empty(), "{id}");
        assert_eq!(school.start.at.is_some(), school.start.mix.is_empty(), "{id}: one start");
        for step in &school.steps {
            assert!(step.what.ends_with('.') && step.until.ends_with('.'), "{id}: {}", step.what);
            let [least, most] = step.time.minutes(1.0);
            assert!(least > 0.0 && least <= most, "{id}: {}", step.what);
            assert_eq!(
                step.kind == Worker::Wait,
                matches!(step.time, Duration::Stand { .. }),
                "{id}: {}",
                step.what
            );
            if let Some([low, high]) = step.t {
                assert!(low <= high && (-20.0..=125.0).contains(&high), "{id}: {}", step.what);
                // Boiling sugar burns: nobody is told of it without the caution.
                if low >= 110.0 {
                    assert!(step.cautions.contains(&Caution::Sugar), "{id}: {}", step.what);
                }
            }
            // A stick blender that some batch needs comes with its caution.
            if step.gear.contains(&Gear::StickBlender) {
                let spoken = school.steps.iter().any(|step| step.cautions.contains(&Caution::Blade));
                assert!(spoken, "{id}: {}", step.what);
            }
        }
        // Egg that is not taken to 71 °C is said to be raw, and eggs at all are spoken of.
        let below =
            school.cook.iter().any(|cook| matches!(cook.of, Role::Yolk | Role::White) && cook.c < 71.0);
        if below {
            let spoken = school.steps.iter().any(|step| step.cautions.contains(&Caution::RawEgg));
            let risk = school.risks.iter().any(|risk| risk.to_lowercase().contains("egg"));
            assert!(spoken && risk, "{id}");
        }
    }
    assert!(ids.len() >= 45, "{} schools", ids.len());
}

#[test]
fn every_start_of_every_family_has_its_sheets() {
    for family in Family::ALL {
        for document in starts(*family) {
            let all = sheets(document);
            assert_eq!(all.len(), schools_of(*family).count());
            assert!(all[0].chosen && all.iter().filter(|sheet| sheet.chosen).count() == 1);
            for sheet in &all {
                let name = format!("{}: {}", family.word(), sheet.school);
                let after = assess(&sheet.document).unwrap_or_else(|faults| panic!("{name}: {faults:?}"));
                assert_eq!(after.at.headline, sheet.headline, "{name}");
                let start = sheet.start.as_ref().unwrap_or_else(|| panic!("{name} starts nowhere"));
                assert!(
                    start.from_c <= start.to_c && (0.0..=105.0).contains(&start.to_c),
                    "{name}: {start:?}"
                );
                assert!(sheet.hands_min + sheet.machine_min > 0.0 && !sheet.gear.is_empty(), "{name}");
                // Chosen again, it changes nothing.
                let again = sheets(&sheet.document);
                let same = again.iter().find(|other| other.school == sheet.school).unwrap();
                assert!(same.chosen && same.changes.is_empty(), "{name}: {:?}", same.changes);
            }
        }
    }
}

/// HEAT: cream at 90 °C on as much chocolate of 20 °C comes out at about 51 °C in a bowl of 400 g.
#[test]
fn a_ganache_comes_together_where_the_balance_of_heat_says() {
    let mut ganache = start(Family::Ganache, "drip");
    ganache.lines = vec![Line::new("dark60", "200 g"), Line::new("cream36", "200 g")];
    let begin = one(&ganache, "ganache_pour").start.unwrap();
    assert!(begin.from_c <= 52.0 && begin.to_c >= 51.0 && begin.advice.is_none(), "{begin:?}");
    // Three to one: the cream is too little heat.
    ganache.lines = vec![Line::new("dark60", "300 g"), Line::new("cream36", "100 g")];
    let cold = one(&ganache, "ganache_pour").start.unwrap();
    assert!(cold.to_c < begin.from_c && cold.advice.is_some(), "{cold:?}");
    assert!(cold.advice.unwrap().contains("melt"));
    let bath = one(&ganache, "ganache_bath").start.unwrap();
    assert_eq!((bath.from_c, bath.to_c), (42.0, 46.0));
}

#[test]
fn what_is_heated_decides_whether_egg_is_raw() {
    let swiss = start(Family::SwissButtercream, "pipe");
    let raw = |document: &FormulaDocument| {
        assess(document).unwrap().warnings.iter().any(|warning| warning.code == WarningCode::EggRaw)
    };
    assert!(!raw(&one(&swiss, "swiss_71").document));
    assert!(raw(&one(&swiss, "swiss_dissolved").document));
    let mousse = start(Family::EggMousse, "spoon");
    assert!(!raw(&one(&mousse, "mousse_safe").document));
    assert!(one(&mousse, "mousse_raw_soft").cautions.iter().any(|own| own.caution == Caution::RawEgg));
    let safe = sheets(&one(&mousse, "mousse_raw_soft").document);
    let safe = safe.iter().find(|sheet| sheet.school == "mousse_safe").unwrap();
    assert!(safe.changes.iter().any(|words| words.starts_with("Egg yolk brought")), "{:?}", safe.changes);
}

#[test]
fn air_of_a_school_is_counted_and_said() {
    let mut ganache = start(Family::WhippedGanache, "pipe");
    ganache.process.whip = None;
    let (two, single) = (one(&ganache, "whipped_ganache_two"), one(&ganache, "whipped_ganache_one"));
    let air = |sheet: &MethodSheet| assess(&sheet.document).unwrap().process.overrun_percent;
    assert_eq!((air(&two), air(&single)), (60.0, 50.0));
    let chosen = sheets(&two.document);
    let other = chosen.iter().find(|sheet| sheet.school == "whipped_ganache_one").unwrap();
    assert!(other.changes.iter().any(|words| words.contains("air beaten in 50 %")), "{:?}", other.changes);
}

#[test]
fn a_larger_batch_takes_longer_in_the_hands_and_in_the_tray() {
    let small = start(Family::Ganache, "drip");
    let mut large = small.clone();
    for line in &mut large.lines {
        line.amount = "3 kg".into();
    }
    let (a, b) = (one(&small, "ganache_pour"), one(&large, "ganache_pour"));
    assert!(b.hands_min > 2.0 * a.hands_min, "{} and {}", a.hands_min, b.hands_min);
    // The wait is the clock's: 6 kg stand deeper than 400 g, and the words say in what.
    assert!(b.wait_min[0] > 1.5 * a.wait_min[0], "{:?} and {:?}", a.wait_min, b.wait_min);
    let cool = |sheet: &MethodSheet| sheet.steps.iter().find_map(|step| step.by_clock.clone()).unwrap();
    assert!(cool(&a).starts_with("a tray of 20 × 30 cm") && cool(&b).contains("mm deep"), "{}", cool(&b));
    // No butter in it: no step for butter.
    assert!(!a.steps.iter().any(|step| step.what.starts_with("Butter")));
}

#[test]
fn a_school_nobody_knows_is_no_error_and_the_usual_one_stands() {
    let mut ganache = start(Family::Ganache, "drip");
    ganache.method = Some("of_tomorrow".into());
    assert!(sheets(&ganache)[0].chosen);
}

#[test]
fn minutes_are_read_as_a_cook_reads_them() {
    assert_eq!(time([4.2, 4.2]), "4 min");
    assert_eq!(time([1.3, 1.3]), "1.5 min");
    assert_eq!(time([20.0, 90.0]), "20 to 90 min");
    assert_eq!(time([120.0, 720.0]), "2 to 12 h");
    assert_eq!(time([720.0, 10080.0]), "0.5 to 7 days");
}

/// What the advice says to do makes it warm enough: the cream at the temperature it names.
#[test]
fn cream_as_hot_as_advised_brings_a_ganache_together() {
    use pastry::formula::WeighedLine;
    use pastry::method::school::{Start, Warmth};
    use pastry::method::start::start_temperature;
    let weighed = |dark: f64, cream: f64| -> Vec<WeighedLine> {
        let mut ganache = start(Family::Ganache, "drip");
        ganache.lines =
            vec![Line::new("dark60", format!("{dark} g")), Line::new("cream36", format!("{cream} g"))];
        ganache.formula().weigh(&Shelf::catalogue()).unwrap()
    };
    let with = |hot: f64| Start {
        at: None,
        mix: vec![Warmth { of: Role::Chocolate, t: 20.0 }, Warmth { of: Role::All, t: hot }],
        bowl_g: 400.0,
    };
    let mut advised = 0;
    for cream in [90.0, 100.0, 110.0, 120.0, 130.0, 140.0, 150.0] {
        let lines = weighed(200.0, cream);
        let said = start_temperature(&with(85.0), &lines).unwrap();
        let Some(needed) = said.advice.as_deref().and_then(|words| {
            let (_, rest) = words.split_once("heat it to ")?;
            rest.split(' ').next()?.parse::<f64>().ok()
        }) else {
            continue;
        };
        advised += 1;
        assert!(needed > 85.0 && needed <= 98.0, "{cream} g: {needed} °C");
        let then = start_temperature(&with(needed), &lines).unwrap();
        let middle = 0.5 * (then.from_c + then.to_c);
        assert!(middle >= 37.0, "{cream} g of cream at {needed} °C come out at {middle} °C");
    }
    assert!(advised >= 1, "some ratio is saved by hotter cream");
}

#[test]
fn what_comes_out_rises_with_what_goes_in() {
    let mut last = f64::MIN;
    for cream in [60.0, 100.0, 150.0, 220.0, 400.0] {
        let mut ganache = start(Family::Ganache, "drip");
        ganache.lines = vec![Line::new("dark60", "200 g"), Line::new("cream36", format!("{cream} g"))];
        let begin = one(&ganache, "ganache_pour").start.unwrap();
        let middle = 0.5 * (begin.from_c + begin.to_c);
        assert!(middle > last, "{cream} g of hot cream come out at {middle} °C, less gave {last}");
        last = middle;
    }
}

/// A safe school and then a raw one: 71 °C of the first must not stay behind and hide the raw egg of the second.
#[test]
fn choosing_a_raw_school_after_a_safe_one_leaves_nothing_safe_behind() {
    for (family, safe, raw) in [
        (Family::EggMousse, "mousse_safe", "mousse_raw_soft"),
        (Family::EggMousse, "mousse_safe", "mousse_raw_stiff"),
        (Family::SwissButtercream, "swiss_71", "swiss_dissolved"),
        (Family::FrenchButtercream, "french_bath", "french_syrup"),
    ] {
        let is_raw = |document: &FormulaDocument| {
            assess(document).unwrap().warnings.iter().any(|warning| warning.code == WarningCode::EggRaw)
        };
        let begun = starts(family)[0].clone();
        let safe_made = one(&begun, safe).document;
        assert!(!is_raw(&safe_made), "{safe}");
        let sheet = one(&safe_made, raw);
        assert!(is_raw(&sheet.document), "{raw} after {safe}: the egg is called cooked");
        assert!(sheet.changes.iter().any(|words| words.contains("egg stays raw")), "{:?}", sheet.changes);
        // And back again: nothing of the raw one stays either.
        assert!(!is_raw(&one(&sheet.document, safe).document), "{safe} after {raw}");
    }
}

#[test]
fn butter_is_known_by_what_it_is_made_of() {
    use pastry::ingredient::{IngredientDocument, Role, find};
    for (id, is) in
        [("butter82", true), ("buttermilk", false), ("cream36", false), ("mascarpone", false), ("oil", false)]
    {
        if let Some(ingredient) = find(id) {
            assert_eq!(ingredient.is(Role::Butter), is, "{id}");
        }
    }
    // A kitchen's own butter, whatever it is called, is warmed as butter is.
    let own =
        IngredientDocument::copy_of(find("butter82").unwrap(), "own-valley".into(), "Valley gold".into());
    let mut document = start(Family::Buttercream, "mask");
    for line in &mut document.lines {
        if line.ingredient.starts_with("butter") {
            line.ingredient = "own-valley".into();
        }
    }
    document.ingredients = vec![own];
    let usual = start(Family::Buttercream, "mask");
    let at = |document: &FormulaDocument| {
        sheets(document)[0].start.clone().map(|start| (start.from_c, start.to_c))
    };
    assert_eq!(at(&document), at(&usual));
}
